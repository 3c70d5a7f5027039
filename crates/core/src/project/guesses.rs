//! What is there by a guess, and hardly enough: it wants measuring before a plan rests on it.

use super::Project;
use super::left_over::thing_of;
use crate::cloth::Cloth;
use crate::lay::{ClothLay, Job, Lay};
use crate::measure::{Length, show_size};

/// A guess is off by so many hundredths (common practice: a plan that needs its last 5 % asks for the tape measure).
const OFF: i64 = 5;

/// Of every cloth at hand whose size is a guess and that `lay` needs nearly all of, a sentence that says how much is spare.
pub fn guesses(project: &Project, job: &Job, lay: &Lay) -> Vec<String> {
    let told = |on: &ClothLay| {
        let cloth = job.cloth(&on.cloth).filter(|_| is_guess(project, &on.cloth))?;
        let spare = spare(job, cloth, on);
        (spare < cloth.as_bought_width().max(cloth.usable_length()?) * OFF / 100).then(|| {
            let spare = show_size(spare, project.system);
            format!("{} is a guess, and the plan leaves only {spare} to spare. Measure it before you cut.", cloth.name)
        })
    };
    lay.cloths.iter().filter_map(told).collect()
}

fn is_guess(project: &Project, id: &str) -> bool {
    let thing = || thing_of(project.cloth(id)?, id);
    thing().is_some_and(|t| t.about)
}

/// What is left along or across, whichever is less.
fn spare(job: &Job, cloth: &Cloth, on: &ClothLay) -> Length {
    let reach = |p: &crate::lay::Placement| {
        let (w, h) = job.piece(&p.piece).map(|piece| piece.outline.extent(p.turn, p.mirrored)).unwrap_or_default();
        (p.x + w, p.y + h)
    };
    let far = on.placements.iter().map(reach);
    let (right, top) = far.fold((Length::ZERO, Length::ZERO), |(x, y), (r, t)| (x.max(r), y.max(t)));
    let across = cloth.left_edge() + cloth.usable_width() - right;
    let along = cloth.usable_length().map_or(across, |usable| usable + cloth.trim - top);
    across.min(along).max(Length::ZERO)
}
