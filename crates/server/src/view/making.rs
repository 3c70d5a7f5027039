//! How the bag is made: its steps in order, what is sewn at each and how wide, and the pieces that are in hand.

use super::DrawingView;
use super::seam::SeamView;
use bofta_core::bag::{Draft, Phase};
use bofta_core::project::{Making, Planned, Project};
use bofta_formats::draw::{Shown, piece};
use serde::Serialize;
use utoipa::ToSchema;

/// The making of a bag.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MakingView {
    /// Its steps in order; none of a cut list of one's own.
    pub steps: Vec<MakingStepView>,
    /// How many are done.
    pub done: usize,
    /// Steps the maker wrote, a line each.
    pub own_steps: String,
    /// What the maker wrote down.
    pub notes: String,
}

/// A step of making the bag.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct MakingStepView {
    /// By which it is ticked off.
    pub key: String,
    pub phase: Phase,
    /// As a heading.
    pub phase_name: String,
    pub text: String,
    pub done: bool,
    /// What is sewn at it.
    pub seams: Vec<SeamView>,
    /// The pieces in hand, to one scale, dotted where they are sewn.
    pub pieces: Vec<InHandView>,
}

/// A piece that a step has in hand.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct InHandView {
    pub id: String,
    pub name: String,
    pub count: u32,
    pub drawing: DrawingView,
}

/// Pixels that the longest side of the pieces of a step takes.
const LONGEST: f64 = 250.0;

pub fn making_view(project: &Project, planned: &Planned) -> MakingView {
    let draft = &planned.draft;
    let steps = project.making(draft).into_iter().map(|m| step_view(project, draft, m)).collect();
    MakingView {
        steps,
        done: project.steps_made(draft),
        own_steps: project.own_steps.join("\n"),
        notes: project.notes.clone(),
    }
}

fn step_view(project: &Project, draft: &Draft, making: Making) -> MakingStepView {
    let all = || making.pieces.iter().filter_map(|(id, sewn)| Some((draft.piece(id)?, sewn)));
    let longest = all().map(|(p, _)| p.width.size.max(p.height.size).0).max().unwrap_or(1);
    let in_hand = |(p, sewn): (&bofta_core::piece::Piece, &Vec<_>)| InHandView {
        id: p.id.to_string(),
        name: p.name.to_string(),
        count: p.count,
        drawing: {
            let shown = Shown { sewn, ..Shown::default() };
            // Drawn as it is once it is trimmed: that is how it is sewn.
            piece(&p.as_trimmed(), project.cloth_for(p), project.ruler, LONGEST / longest as f64, shown).into()
        },
    };
    MakingStepView {
        key: making.step.key.to_string(),
        phase: making.step.phase,
        phase_name: making.step.phase.name().to_owned(),
        text: making.step.text.to_string(),
        done: making.done,
        seams: making.seams.iter().filter_map(|s| s.told(draft, project.ruler)).map(SeamView::from).collect(),
        pieces: all().map(in_hand).collect(),
    }
}
