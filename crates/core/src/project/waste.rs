//! What became of the cloth of a bag once all of it is cut: bag, what is kept, and the rest. By area, as washed.

use super::{Project, left_over};
use crate::cloth::HandForm;
use crate::lay::areas;
use crate::measure::{Area, System};

/// Areas of cloth that was cut into.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct CutUp {
    /// All that was cut into; of a length that was there, what was used of it.
    pub cut: Area,
    /// The pieces.
    pub bag: Area,
    /// What is worth keeping.
    pub kept: Area,
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
        }
    }

    /// In a sentence: `Of 0.94 m² cut up, 0.61 became bag, 0.21 is kept, 0.12 is waste: 13 %.`
    pub fn tell(self, system: System) -> String {
        let (unit, sign) = match system {
            System::Inches => (36.0 * 36.0 * 25.4 * 25.4, "sq yd"),
            System::Centimetres => (1e6, "m²"),
        };
        let square_millimetre = (crate::measure::Length::MILLIMETRE.0 as f64).powi(2);
        let shown = |area: Area| format!("{:.2}", area.0 as f64 / square_millimetre / unit);
        format!(
            "Of {} {sign} cut up, {} became bag, {} is kept, {} is waste: {:.0} %.",
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
    let none = CutUp { cut: Area(0), bag: Area(0), kept: Area(0) };
    let cut = plan
        .lay
        .cloths
        .iter()
        .filter_map(|on| areas(&plan.job, on))
        .fold(none, |sum, (bag, cut)| sum.plus(CutUp { cut, bag, kept: Area(0) }));
    let kept = left_over(project).into_iter().flat_map(|left| left.kept).map(|thing| {
        let one = match &thing.form {
            // The rest of a length was not cut into.
            HandForm::Length { .. } => 0,
            HandForm::Sheet { length, width } => (*length * *width).0,
            HandForm::Scrap(scrap) => scrap.outline.area().0,
        };
        one * i128::from(thing.count)
    });
    Some(CutUp { kept: Area(kept.sum()), ..cut })
}
