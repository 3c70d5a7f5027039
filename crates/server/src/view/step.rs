//! One step at the table.

use super::{DrawingView, Measure};
use crate::laying::Laid;
use bofta_core::cutting::{Cut, CutKind, Edge, Freed, Step};
use bofta_core::lay::Job;
use bofta_core::piece::{Part, Piece};
use bofta_core::project::{Planned, Project};
use bofta_core::shape::Outline;
use bofta_formats::draw::{cut_step, ruler_strip};
use bofta_formats::sheet::{falls_off, found_by, how, kept};
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
    /// How the cut runs.
    pub how: String,
    /// What to set on the ruler; corners have two readings, in `how`.
    pub reading: Option<Measure>,
    pub from: String,
    /// What comes off, in words.
    pub falls_off: String,
    pub frees: Vec<FreedView>,
    /// A part that is left whole and worth keeping, as wide and as long as it is.
    pub kept: Option<String>,
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
    let gone = gone_before(steps, number);
    let drawing = cut_step(project, &laid.job, &laid.lay, (pieces, &planned.blocks), step, &gone, (760.0, 450.0))
        .map(DrawingView::from);
    let mut view = StepView {
        number: number as u32,
        of: steps.len() as u32,
        title: String::new(),
        how: String::new(),
        reading: None,
        from: String::new(),
        falls_off: String::new(),
        frees: vec![],
        kept: None,
        before: vec![],
        bundles: bundles(pieces, &gone),
        drawing,
        ruler: None,
    };
    tell(&mut view, project, pieces, &laid.job, step)?;
    Some(view)
}

/// What is done in `step`, what comes off, and what to check before.
fn tell(view: &mut StepView, project: &Project, pieces: &[Piece], job: &Job, step: &Step) -> Option<()> {
    match step {
        Step::Cut { cloth: cloth_id, cut } => {
            view.title.clone_from(&job.cloth(cloth_id)?.name);
            let cloth = project.cloth(cloth_id)?;
            straight(view, project, cut);
            view.falls_off = falls_off(step, pieces, project, job);
            view.frees = freed(project, pieces, step);
            view.kept = kept(step, project, job);
            if cut.kind == CutKind::SquareEnd {
                view.before.push(if job.cloth(cloth_id)?.layers == 2 {
                    "Two layers, fold at the left, edges on each other, pressed.".into()
                } else {
                    "Face up, one layer, pressed.".into()
                });
                if cloth.print == bofta_core::cloth::Print::OneWay || cloth.nap {
                    view.before.push("Print standing up, away from you.".into());
                }
                view.before.push("Cut away from you, fingers behind the ruler’s edge.".into());
            } else {
                before_a_cut(view, cut);
            }
        }
        Step::Fuse { block } => {
            view.title = pieces.iter().find(|p| p.id == *block)?.name.to_string();
            view.how = "fuse it to its backing, from the middle out; let it cool flat".into();
            view.before.push("Glue side of the backing on the wrong side of the cloth.".into());
            view.before.push("Heat and steam burn: follow the sheet that came with it.".into());
        }
        Step::Block { block, step } => {
            tell(view, project, pieces, job, step)?;
            view.title = pieces.iter().find(|p| p.id == *block)?.name.to_string();
            view.before.insert(0, "Cloth up, backing below: both are cut at once.".into());
        }
        Step::Outline(round) => {
            view.title.clone_from(&job.cloth(&round.cloth)?.name);
            let found = found_by(round, project);
            view.how = if found.is_empty() {
                "round the template, where it lies".into()
            } else {
                view.before
                    .push("The letters are those of the scrap's corners; measure from each to where two meet.".into());
                format!("{found}; draw it there and cut round it")
            };
            view.falls_off = falls_off(step, pieces, project, job);
            view.frees = freed(project, pieces, step);
            let square = round
                .frees
                .first()
                .and_then(|f| job.piece(&f.piece))
                .is_some_and(|p| matches!(p.outline, Outline::Rect(..)));
            view.before.push(if square && !round.sights.is_empty() {
                "Right side up; draw its sides with the ruler, along and across the threads.".into()
            } else {
                "Template right side up, its arrow along the print.".into()
            });
            let edges = round.frees.iter().filter_map(|f| project.told_edge(job, &f.piece, f.copy));
            view.before.extend(edges);
            view.before.push("Pin the label on before it leaves the table.".into());
        }
        Step::Corners(corners) => {
            let piece = pieces.iter().find(|p| p.id == corners.piece)?;
            let show = |l| project.ruler.show(l).text;
            view.title = format!("{}, corners", piece.name);
            view.how = format!(
                "{} in from each side, {} up {}, through {} layers",
                show(corners.across),
                show(corners.up),
                if corners.at_fold { "and down from the fold" } else { "from the base" },
                corners.layers
            );
            if corners.at_fold {
                view.before.push("Crease the middle first: the notch lies over the crease.".into());
            } else {
                view.before.push("Lay them edge on edge, the base towards you.".into());
                view.before.push("Both lower corners, never the upper ones.".into());
            }
        }
    }
    Some(())
}

/// How a straight cut runs, and its reading on the ruler.
fn straight(view: &mut StepView, project: &Project, cut: &Cut) {
    view.how = how(cut, project);
    if cut.kind == CutKind::Fold {
        // There is nothing to set: the crease is the line.
        return;
    }
    view.reading = Some(Measure::new(cut.reads(), project.ruler));
    view.from = match (cut.kind, cut.from) {
        _ if cut.motif.is_some() => "Set the ruler from the middle of a motif, back to the cut".into(),
        (CutKind::SquareEnd, _) => "About this much: just enough to be square".into(),
        (_, Edge::Left) => "Set the ruler from the left edge".into(),
        (_, Edge::Near) => "Set the ruler from the near edge".into(),
    };
    view.ruler = Some(ruler_strip(cut.reads(), project.ruler, &view.from, 760.0).into());
}

/// What to look at before a cut that is not the first.
fn before_a_cut(view: &mut StepView, cut: &Cut) {
    if cut.kind == CutKind::Fold {
        view.before.push("The two pieces still hang together at the fold: open them out after it.".into());
        return;
    }
    view.before.push(match cut.from {
        Edge::Left => "Left edge on the last cut along.".into(),
        Edge::Near => "Near edge on the last cut across.".into(),
    });
    if cut.kind == CutKind::Stopped {
        view.before.push("Another piece lies beyond the bar: stop there.".into());
    }
    if !cut.frees.is_empty() {
        view.before.push("Pin the label on before it leaves the table.".into());
    }
    view.before.push("Guard closed when you put the cutter down.".into());
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
