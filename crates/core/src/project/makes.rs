//! What could be made of cloths from the cupboard: a bag dressed in them alone, at the largest of a few sizes.

use super::{Dressing, Edit, Project, ProjectCloth};
use crate::cloth::{Cloth, Form, Material};
use crate::lay::Job;
use crate::measure::{Area, System};
use crate::piece::Part;
use std::collections::{BTreeMap, BTreeSet};

/// The sizes a bag is tried at, in hundredths of its own, the largest first. Own choice.
pub const SIZES: [u32; 5] = [100, 90, 80, 65, 50];

/// A bag dressed in cloths from the cupboard.
#[derive(Clone, Debug, PartialEq)]
pub struct MadeOf {
    /// The bag; none of those cloths is bought.
    pub project: Project,
    /// Parts that none of them suits: they still come from cloth that is bought.
    pub besides: Vec<Part>,
}

impl Project {
    /// This bag cut from `cloths` of the cupboard and nothing else of its kind: each part from any that suits it. What is
    /// seen outside comes first from the one of which there is most, the inside and the trimmings from the next ones. What was measured, placed on a print or tried in other cloths says nothing of these.
    /// Nothing where it is no bag, or where more than what lies behind its cloth would have to be bought.
    pub fn made_of(&self, cloths: &[ProjectCloth]) -> Option<MadeOf> {
        let mut project = self.uncut();
        project.measured.clear();
        project.on_print.clear();
        project.tries.clear();
        let (draft, _) = project.drafted().ok()?;
        let parts: BTreeSet<Part> = draft.pieces.iter().filter(|p| p.when.is_laid()).map(|p| p.part).collect();
        let mut there: Vec<&ProjectCloth> = cloths.iter().filter(|c| !c.at_hand.is_empty()).collect();
        there.sort_by_key(|c| std::cmp::Reverse(c.there_of_it(self.system)));
        let before = std::mem::take(&mut project.cloths);
        let was_from = std::mem::take(&mut project.from);
        project.dressing = Dressing::default();
        project.on_edge.clear();
        project.cloths =
            there.iter().map(|c| ProjectCloth { buy_more: false, ..c.for_project() }.sold_in(self.system)).collect();
        let mut from: BTreeMap<Part, Vec<String>> = BTreeMap::new();
        let mut besides = vec![];
        for part in parts {
            let mut suiting: Vec<String> =
                there.iter().filter(|c| c.material.suits(part)).map(|c| c.id.clone()).collect();
            if !suiting.is_empty() {
                let first = match part {
                    Part::Lining | Part::Pocket => 1,
                    Part::Contrast | Part::Binding => 2,
                    _ => 0,
                };
                let first = first % suiting.len();
                suiting.rotate_left(first);
                from.insert(part, suiting);
                continue;
            }
            if !part.is_backing() {
                return None;
            }
            let own = was_from.get(&part).into_iter().flatten().find_map(|id| before.iter().find(|c| c.id == *id));
            let bought = project.bought_for(part, own);
            from.insert(part, vec![bought]);
            besides.push(part);
        }
        project.from = from;
        (besides.len() < project.from.len()).then_some(MadeOf { project, besides })
    }

    /// A cloth to buy for `part`, as `own` where the bag had one for it; its id.
    fn bought_for(&mut self, part: Part, own: Option<&ProjectCloth>) -> String {
        // Only what lies behind is ever bought.
        let material = match part {
            Part::Backing => Material::Fleece,
            Part::Interfacing => Material::Interfacing,
            _ => Material::Stabiliser,
        };
        let name = own.map_or_else(|| part.name().to_owned(), |c| c.name.clone());
        let stem = own.map_or_else(|| format!("{}-to-buy", part.key()), |c| c.id.clone());
        if let Some(known) = self.cloths.iter().find(|c| c.id == stem && c.at_hand.is_empty()) {
            return known.id.clone();
        }
        let taken = |id: &String| self.cloths.iter().any(|c| c.id == *id);
        let id = std::iter::once(stem.clone()).chain((2..).map(|n| format!("{stem}-{n}"))).find(|id| !taken(id));
        let id = id.unwrap_or(stem);
        let cloth = match own {
            Some(own) => ProjectCloth { id: id.clone(), at_hand: vec![], buy_more: false, ..own.clone() },
            None => ProjectCloth::default_for(id.clone(), name, material, self.system),
        };
        self.cloths.push(cloth);
        id
    }

    /// The same with its finished sizes at so many hundredths; nothing where it is no bag at that size.
    pub fn at_size(&self, percent: u32) -> Option<Self> {
        if percent == 100 {
            return Some(self.clone());
        }
        self.edited(&Edit::Scale { percent }).ok().map(|(scaled, _)| scaled)
    }
}

impl ProjectCloth {
    /// How much of it is there, by its usable area.
    fn there_of_it(&self, system: System) -> Area {
        let there = Self { buy_more: false, ..self.clone() };
        Area(there.for_job(system).iter().filter(|c| c.owned).filter_map(usable).map(|a| a.0).sum())
    }
}

/// The area that can be cut from a cloth; nothing of one that is bought as long as it is needed.
fn usable(cloth: &Cloth) -> Option<Area> {
    match &cloth.form {
        Form::Scrap { outline, .. } => Some(outline.area()),
        Form::Roll { .. } => cloth.usable_length().map(|long| long * cloth.widest_piece()),
        Form::Sheet { width, height, count } => {
            Some(Area((*width * *height).0 * i128::from(*count) * i128::from(cloth.layers)))
        }
    }
}

/// Whether the pieces that may lie on nothing but what is there could do so by their area: where not, no lay is looked for.
pub fn may_hold(job: &Job) -> bool {
    let owned = |id: &String| job.cloths.iter().any(|c| c.id == *id && c.owned);
    let wanted = job.pieces.iter().filter(|p| p.cloths.iter().all(owned));
    let wanted: i128 = wanted.map(|p| p.outline.area().0 * i128::from(p.count)).sum();
    let there: i128 = job.cloths.iter().filter(|c| c.owned).filter_map(usable).map(|a| a.0).sum();
    wanted <= there
}

/// The largest of [`SIZES`] at which `whole` holds, by halving: a bag that comes from what is there comes smaller, too.
/// Nothing when it does not at the smallest either.
///
/// # Errors
/// The first error of `whole`.
pub fn largest_of<E>(mut whole: impl FnMut(u32) -> Result<bool, E>) -> Result<Option<u32>, E> {
    // As it is asked first: most often that is the answer.
    if whole(SIZES[0])? {
        return Ok(Some(SIZES[0]));
    }
    let (mut low, mut high) = (1, SIZES.len());
    while low < high {
        let middle = low + (high - low) / 2;
        if whole(SIZES[middle])? {
            high = middle;
        } else {
            low = middle + 1;
        }
    }
    Ok(SIZES.get(high).copied())
}
