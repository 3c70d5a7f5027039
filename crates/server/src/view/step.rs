//! One step at the table.

use super::{DrawingView, Measure};
use crate::laying::Laid;
use bofta_core::cutting::{Cut, CutKind, Freed, Kept, Marking, Step, describe, describe_left};
use bofta_core::lay::Job;
use bofta_core::piece::{Part, Piece};
use bofta_core::project::{Planned, Project};
use bofta_core::shape::Outline;
use bofta_formats::draw::{cut_step, ruler_strip};
use serde::Serialize;
use utoipa::ToSchema;

/// A piece that comes off with a cut.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct FreedView {
    pub name: String,
    pub size: String,
    /// `2 of 2`.
    pub copy: String,
    /// The bundle its label names.
    pub bundle: String,
}

/// How far a bundle has come.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct BundleView {
    pub name: String,
    pub cut: u32,
    pub of: u32,
}

/// One step at the table.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct StepView {
    /// From 1.
    pub number: u32,
    pub of: u32,
    /// The cloth, or the piece whose corners are cut.
    pub title: String,
    /// What to do, in whole sentences.
    pub how: String,
    /// What to set on the ruler, where that is one reading.
    pub reading: Option<Measure>,
    /// What the reading is measured from.
    pub from: String,
    /// What lies there afterwards, a line for each side of the cut.
    pub then: Vec<String>,
    pub frees: Vec<FreedView>,
    /// Parts that are worth keeping, by letter and size.
    pub kept: Vec<String>,
    /// Short checks before the cut.
    pub before: Vec<String>,
    pub bundles: Vec<BundleView>,
    pub drawing: Option<DrawingView>,
    pub ruler: Option<DrawingView>,
}

/// Step `number` (from 1) of `steps`.
pub fn step_view(project: &Project, laid: &Laid, planned: &Planned, steps: &[Step], number: usize) -> Option<StepView> {
    let pieces = &planned.draft.pieces[..];
    let step = steps.get(number.checked_sub(1)?)?;
    let drawing = cut_step(project, &laid.job, &laid.lay, (pieces, &planned.blocks), (steps, number), (760.0, 450.0));
    let words = describe(step, &laid.job, pieces, project.ruler);
    let mut view = StepView {
        number: number as u32,
        of: steps.len() as u32,
        title: String::new(),
        how: words.how,
        reading: None,
        from: String::new(),
        then: words.then,
        frees: freed(project, pieces, step),
        kept: kept(project, step),
        before: vec![],
        bundles: bundles(pieces, &gone_before(steps, number)),
        drawing: drawing.map(DrawingView::from),
        ruler: None,
    };
    complete(&mut view, project, pieces, &laid.job, step)?;
    Some(view)
}

/// The title, the ruler and what to check before.
fn complete(view: &mut StepView, project: &Project, pieces: &[Piece], job: &Job, step: &Step) -> Option<()> {
    let piece_named = |id: &str| pieces.iter().find(|p| p.id == *id).map(|p| p.name.to_string());
    match step {
        Step::Cut { on, cut } => {
            let as_job = job.cloth(&on.cloth)?;
            view.title.clone_from(&as_job.name);
            let cloth = project.cloth(&on.cloth)?;
            set_ruler(view, project, cut);
            if cut.kind == CutKind::SquareEnd {
                view.before.push(if as_job.layers == 2 {
                    "Two layers, the fold at the left, edges level, pressed.".into()
                } else {
                    "Face up, one layer, pressed.".into()
                });
                if cloth.print == bofta_core::cloth::Print::OneWay || cloth.nap {
                    view.before.push("The print stands up, away from you.".into());
                }
                view.before.push("Cut away from you, with your fingers behind the ruler’s edge.".into());
            } else {
                before_a_cut(view, cut);
            }
        }
        Step::Fuse { block } => {
            view.title = piece_named(block)?;
            view.before.push("Lay the glue side of the backing on the wrong side of the cloth.".into());
            view.before.push("Heat and steam burn. Follow the sheet that came with the backing.".into());
        }
        Step::Block { block, step } => {
            complete(view, project, pieces, job, step)?;
            view.title = piece_named(block)?;
            view.before.insert(0, "Cloth up, backing below. You cut both at once.".into());
        }
        Step::Outline { on, cut } => {
            view.title.clone_from(&job.cloth(&on.cloth)?.name);
            if cut.marking == Marking::Cut {
                view.before.push("Every piece of this part is drawn.".into());
            } else {
                view.before.push("Pressed flat, right side up. Use a sharp pencil or chalk.".into());
            }
            if cut.marking != Marking::Cut && !cut.sights.is_empty() {
                view.before
                    .push("Measure from each lettered corner of the scrap to where the two distances meet.".into());
            }
            let first = cut.pieces.first().and_then(|f| job.piece(&f.piece));
            if first.is_some_and(|p| !matches!(p.outline, Outline::Rect(..))) && cut.marking != Marking::Cut {
                view.before.push(if cut.mirrored {
                    "Template wrong side up.".into()
                } else {
                    "Template right side up, its arrow along the print.".into()
                });
            }
            view.before.extend(cut.pieces.iter().filter_map(|f| project.told_edge(job, &f.piece, f.copy)));
            if !view.frees.is_empty() {
                view.before.push("Pin the label on before the piece leaves the table.".into());
            }
        }
        Step::Corners(corners) => {
            view.title = format!("{}, corners", piece_named(&corners.piece)?);
            view.before.push(if corners.at_fold {
                "The notch lies over the crease.".into()
            } else {
                "Lay them edge on edge, the base towards you. Never cut the upper corners.".into()
            });
        }
    }
    Some(())
}

/// The reading of a straight cut on the ruler.
fn set_ruler(view: &mut StepView, project: &Project, cut: &Cut) {
    if cut.kind == CutKind::Fold {
        // There is nothing to set: the crease is the line.
        return;
    }
    let reads = project.ruler.finest(cut.reads());
    view.reading = Some(Measure::new(reads, project.ruler));
    view.from = if cut.motif.is_some() {
        "Set the ruler from the middle of a motif, back to the cut".into()
    } else if cut.kind == CutKind::SquareEnd {
        "About this much: just enough to be square".into()
    } else {
        format!("Set the ruler from {}", cut.edge_in_words(project.ruler))
    };
    view.ruler = Some(ruler_strip(reads, project.ruler, &view.from, 760.0).into());
}

/// What to look at before a cut that is not the first.
fn before_a_cut(view: &mut StepView, cut: &Cut) {
    if cut.kind == CutKind::Fold {
        view.before.push("Open the two layers out and cut along the crease.".into());
        return;
    }
    view.before.push("Lay the ruler on the blue edge.".into());
    if cut.kind == CutKind::Stopped {
        view.before.push("Another piece lies beyond the bar. Stop there.".into());
    }
    if !cut.frees.is_empty() {
        view.before.push("Pin the label on before the piece leaves the table.".into());
    }
    view.before.push("Close the guard when you put the cutter down.".into());
}

/// What is worth keeping of what comes off, by letter and size.
fn kept(project: &Project, step: &Step) -> Vec<String> {
    let size = |kept: &Kept| match kept {
        Kept::Part(part) => describe_left(part, project.ruler),
        Kept::Shape(shape) => {
            let (width, height) = shape.size();
            let down = |l: bofta_core::measure::Length| project.ruler.show(l.floor_to(project.ruler.step())).text;
            format!("{} × {} over all", down(width), down(height))
        }
    };
    step.keeps().iter().map(|(name, kept)| format!("{name}, {}", size(kept))).collect()
}

/// What comes off with `step`.
fn freed(project: &Project, pieces: &[Piece], step: &Step) -> Vec<FreedView> {
    let view = |f: &Freed| {
        let piece = pieces.iter().find(|p| p.id == f.piece)?;
        let (w, h) = piece.size();
        Some(FreedView {
            name: piece.name.to_string(),
            size: format!("{} × {}", project.ruler.show(w).text, project.ruler.show(h).text),
            copy: format!("{} of {}", f.copy, piece.count),
            bundle: piece.part.name().to_owned(),
        })
    };
    step.frees().iter().filter_map(view).collect()
}

/// Pieces that are off the cloth before step `number`.
fn gone_before(steps: &[Step], number: usize) -> Vec<(String, u32)> {
    steps.iter().take(number - 1).flat_map(Step::frees).map(|f| (f.piece.clone(), f.copy)).collect()
}

fn bundles(pieces: &[Piece], gone: &[(String, u32)]) -> Vec<BundleView> {
    Part::ALL
        .into_iter()
        .filter_map(|part| {
            let of: u32 = pieces.iter().filter(|p| p.part == part && p.is_bundled()).map(|p| p.count).sum();
            let bundled = |id: &str| pieces.iter().any(|p| p.part == part && p.id == id && p.is_bundled());
            let cut = gone.iter().filter(|(id, _)| bundled(id)).count();
            (of > 0).then(|| BundleView { name: part.name().to_owned(), cut: cut as u32, of })
        })
        .collect()
}
