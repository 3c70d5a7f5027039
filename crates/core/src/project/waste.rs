//! What became of the cloth of a bag once all of it is cut: bag, what is kept, and the rest. By area, as washed, and
//! the waste by weight where it is known what the cloths weigh.

use super::{Project, ProjectCloth, left_over};
use crate::cloth::{AtHand, HandForm};
use crate::cutting::left_whole;
use crate::lay::{ClothLay, area_on_table, areas};
use crate::measure::{Area, System};

/// Areas of cloth that was cut into, and what the rest weighs.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct CutUp {
    /// All that was cut into; of a length that was there, what was used of it.
    pub cut: Area,
    /// The pieces.
    pub bag: Area,
    /// What is worth keeping.
    pub kept: Area,
    /// What the waste of cloths weighs of which that is known, in thousandths of a gram.
    pub milligrams: u64,
    /// The waste of cloths of which it is not known.
    pub unweighed: Area,
}

impl CutUp {
    /// What is neither.
    pub const fn waste(self) -> Area {
        Area(self.cut.0 - self.bag.0 - self.kept.0)
    }

    /// This and another together.
    #[must_use]
    pub const fn plus(self, other: Self) -> Self {
        Self {
            cut: Area(self.cut.0 + other.cut.0),
            bag: Area(self.bag.0 + other.bag.0),
            kept: Area(self.kept.0 + other.kept.0),
            milligrams: self.milligrams + other.milligrams,
            unweighed: Area(self.unweighed.0 + other.unweighed.0),
        }
    }

    /// Of one cloth, a square metre of which weighs so many grams.
    fn weighed(self, grams: Option<u32>) -> Self {
        let square_metre = (crate::measure::Length::METRE.0 as f64).powi(2);
        let waste = self.waste().0.max(0);
        match grams {
            Some(grams) => {
                let milligrams = (waste as f64 / square_metre * f64::from(grams) * 1_000.0).round() as u64;
                Self { milligrams, ..self }
            }
            None => Self { unweighed: Area(waste), ..self },
        }
    }

    /// In a sentence: `You cut up 0.94 m²: 0.61 is in the bag, 0.21 is kept and 0.12 is waste (13 %, 29 g).`
    pub fn tell(self, system: System) -> String {
        let (unit, sign) = match system {
            System::Inches => (36.0 * 36.0 * 25.4 * 25.4, "sq yd"),
            System::Centimetres => (1e6, "m²"),
        };
        let square_millimetre = (crate::measure::Length::MILLIMETRE.0 as f64).powi(2);
        let shown = |area: Area| format!("{:.2}", area.0 as f64 / square_millimetre / unit);
        let grams = self.milligrams as f64 / 1_000.0;
        let weight = match system {
            System::Inches => format!("{:.1} oz", grams / 28.349_5),
            System::Centimetres => format!("{grams:.0} g"),
        };
        let weight = match (self.milligrams, self.unweighed) {
            (0, _) => String::new(),
            (_, Area(0)) => format!(", {weight}"),
            _ => format!(", {weight} of it as far as weights are known"),
        };
        format!(
            "You cut up {} {sign}: {} is in the bag, {} is kept and {} is waste ({:.0} %{weight}).",
            shown(self.cut),
            shown(self.bag),
            shown(self.kept),
            shown(self.waste()),
            self.waste().share_of(self.cut) * 100.0
        )
    }
}

/// What became of the cloth of `project`; nothing before the last cut.
pub fn cut_up(project: &Project) -> Option<CutUp> {
    let plan = project.cutting.as_ref()?;
    let steps = plan.steps().len();
    if steps == 0 || (project.steps_done as usize) < steps {
        return None;
    }
    let left = left_over(project);
    let of_cloth = |cloth: &ProjectCloth| {
        let of_it = |on: &&ClothLay| project.cloth(&on.cloth).is_some_and(|c| c.id == cloth.id);
        let areas = plan.lay.cloths.iter().filter(of_it).filter_map(|on| {
            // A length that was cut off whole was not cut into.
            let lengths = left_whole(&plan.job, on).into_iter().filter(|part| part.length);
            let off: i128 = lengths.map(|part| (part.width * part.height).0).sum();
            let (bag, _) = areas(&plan.job, on)?;
            Some((bag.0, area_on_table(&plan.job, on)?.0 - off))
        });
        let (bag, cut) = areas.fold((0, 0), |(bag, cut), (b, c)| (bag + b, cut + c));
        let kept = left.iter().filter(|l| l.cut_from == cloth.name).flat_map(|l| &l.kept).map(area_cut_into);
        CutUp { cut: Area(cut), bag: Area(bag), kept: Area(kept.sum()), ..CutUp::default() }.weighed(cloth.grams)
    };
    Some(project.cloths.iter().map(of_cloth).fold(CutUp::default(), CutUp::plus))
}

/// The area of what is left, as far as it was cut into.
fn area_cut_into(thing: &AtHand) -> i128 {
    let one = match &thing.form {
        // The rest of a length was not cut into.
        HandForm::Length { .. } => 0,
        HandForm::Sheet { length, width } => (*length * *width).0,
        HandForm::Tube { length, width } => (*length * *width).0 * 2,
        HandForm::Scrap(scrap) => scrap.outline.area().0,
    };
    one * i128::from(thing.count)
}
