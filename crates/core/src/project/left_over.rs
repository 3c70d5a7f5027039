//! What a bag leaves of its cloths once all of it is cut: what was cut into is gone, what is left whole comes back to the
//! cupboard as a remnant.

use super::cloth::AT_HAND;
use super::{Project, ProjectCloth};
use crate::FieldProblem;
use crate::cloth::{AtHand, EdgeKind, Flaw, HandForm, Scrap, Shrink, put};
use crate::cutting::{left_shaped, left_whole};
use crate::lay::{ClothLay, Job, Lay, rest_of_scrap};
use crate::measure::Length;
use crate::shape::Point;

/// What a bag leaves of one of its cloths.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LeftOver {
    /// The cloth as the project knows it; washed, where it was washed first, and called so.
    pub cloth: ProjectCloth,
    /// The cloth it was cut from by name: another, where that was not washed yet.
    pub cut_from: String,
    /// Its key, which stays whatever it is called.
    pub cut_from_id: String,
    /// What was cut into.
    pub used: Vec<AtHand>,
    /// Rectangles, what is left of a length, and where pieces were cut out of it what is left with its true outline, that are
    /// worth keeping; the sizes of rectangles down to lines of the ruler.
    pub kept: Vec<AtHand>,
}

/// What is left of every cloth of `project`, as it is being cut; nothing before the first cut.
pub fn left_over(project: &Project) -> Vec<LeftOver> {
    let Some(plan) = &project.cutting else { return vec![] };
    let mut found = Vec::new();
    for cloth in &project.cloths {
        let of_it = |on: &&ClothLay| project.cloth(&on.cloth).is_some_and(|c| c.id == cloth.id);
        let (mut used, mut kept) = (vec![], vec![]);
        for on in plan.lay.cloths.iter().filter(of_it) {
            // A plan of before has one length under the cloth's own id.
            let owned = || plan.job.cloth(&on.cloth).filter(|c| c.owned).and(cloth.at_hand.first());
            if let Some(thing) = thing_of(cloth, &on.cloth).or_else(owned) {
                put(&mut used, AtHand { count: 1, ..thing.clone() });
            }
            for part in left_whole(&plan.job, on) {
                let down = |side: Length| side.floor_to(project.ruler.step());
                let (length, width) = (down(part.height), down(part.width));
                let form = if part.length {
                    let width = bought_width_of(project, on).filter(|w| *w != cloth.width);
                    HandForm::Length { length, width, squared: false }
                } else {
                    HandForm::Sheet { length, width }
                };
                put(&mut kept, AtHand { count: part.count, ..AtHand::one(form) });
            }
            for shape in left_shaped(&plan.job, on) {
                put(&mut kept, AtHand::one(HandForm::Scrap(shape.scrap)));
            }
            for scrap in scraps_left(&plan.job, on, thing_of(cloth, &on.cloth)) {
                put(&mut kept, AtHand::one(HandForm::Scrap(scrap)));
            }
        }
        if !used.is_empty() || !kept.is_empty() {
            let (cut_from, cut_from_id) = (cloth.name.clone(), cloth.id.clone());
            found.push(LeftOver { cloth: as_cut(cloth), cut_from, cut_from_id, used, kept });
        }
    }
    found
}

/// What is left of every cloth of `project` once it is cut as it lies in `lay`; as it is being cut, where that is begun.
///
/// # Errors
/// What of the project cannot stand.
pub fn left_as_planned(project: &Project, lay: &Lay) -> Result<Vec<LeftOver>, Vec<FieldProblem>> {
    if project.cutting.is_some() { Ok(left_over(project)) } else { Ok(left_over(&project.begun(lay)?)) }
}

/// What is entered of one cloth of the cupboard.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct CutOf {
    /// The cloth as it is put there where it is new.
    pub cloth: ProjectCloth,
    /// What was cut into.
    pub used: Vec<AtHand>,
    /// What comes back.
    pub kept: Vec<AtHand>,
}

/// What `left` is entered as: what was cut into goes off the cloth it was, what is left comes to the cloth it is now. What
/// concerns one cloth is one entry, though several cloths of the bag come to it.
pub fn cut_of_each(left: &[LeftOver]) -> Vec<CutOf> {
    let mut found: Vec<CutOf> = vec![];
    let mut enter = |cloth: ProjectCloth, used: &[AtHand], kept: &[AtHand]| {
        let at =
            found.iter().position(|e| (&e.cloth.id, &e.cloth.name) == (&cloth.id, &cloth.name)).unwrap_or_else(|| {
                found.push(CutOf { cloth, used: vec![], kept: vec![] });
                found.len() - 1
            });
        used.iter().for_each(|t| drop(put(&mut found[at].used, t.clone())));
        kept.iter().for_each(|t| drop(put(&mut found[at].kept, t.clone())));
    };
    for one in left {
        let cut_from = (one.cut_from_id.clone(), one.cut_from.clone());
        enter(ProjectCloth { id: cut_from.0, name: cut_from.1, ..one.cloth.clone() }, &one.used, &[]);
        enter(one.cloth.clone(), &[], &one.kept);
    }
    found
}

/// The thing of `cloth` that the cloth `id` of its job is.
pub(super) fn thing_of<'a>(cloth: &'a ProjectCloth, id: &str) -> Option<&'a AtHand> {
    let (_, thing) = id.split_once(AT_HAND)?;
    let n: usize = thing.split('.').next()?.parse().ok()?;
    cloth.at_hand.get(n.checked_sub(1)?)
}

/// The width of the length a lay is cut from, opened out, as it was bought.
fn bought_width_of(project: &Project, on: &ClothLay) -> Option<Length> {
    project.cutting.as_ref()?.job.cloth(&on.cloth)?.bought_width()
}

/// What is left of `was` with its true outline, washed where it was washed first, where a rectangle worth keeping can be
/// cut from it; with the flaws that are on it.
fn scraps_left(job: &Job, on: &ClothLay, was: Option<&AtHand>) -> Vec<Scrap> {
    let (Some(cloth), Some(HandForm::Scrap(was))) = (job.cloth(&on.cloth), was.map(|t| &t.form)) else { return vec![] };
    let washed = |corners: &[Point]| corners.iter().map(|p| cloth.washed(*p)).collect::<Vec<_>>();
    let flaws: Vec<Flaw> = was.flaws.iter().map(|f| Flaw { kind: f.kind, corners: washed(&f.corners) }).collect();
    let sides = washed(&was.corners());
    let kept: Vec<(EdgeKind, [Point; 2])> =
        was.kept.iter().map(|k| (k.kind, [sides[k.side], sides[(k.side + 1) % sides.len()]])).collect();
    let keep = job.rules.keep;
    let worth = |(w, h): (Length, Length)| (w >= keep.0 && h >= keep.1) || (w >= keep.1 && h >= keep.0);
    let found = rest_of_scrap(job, on).into_iter().filter_map(|corners| Scrap::remnant(corners, &flaws, &kept));
    found.filter(|s| s.holds().is_some_and(worth)).collect()
}

/// The cloth as what is left of it is: washed, where it was washed before it was cut.
fn as_cut(cloth: &ProjectCloth) -> ProjectCloth {
    let bare = ProjectCloth { at_hand: vec![], buy_more: false, left_of: None, ..cloth.for_project() };
    if cloth.shrink() == Shrink::NONE {
        return bare;
    }
    let width = cloth.width.shrunk(cloth.shrink().across);
    ProjectCloth {
        id: format!("{}-washed", cloth.id),
        name: format!("{}, washed", cloth.name),
        width,
        wash_first: false,
        tested: None,
        ..bare
    }
}
