//! How far the making has come: the steps of the bag with their seams, what is ticked off, and what the maker writes down.

use super::Project;
use crate::FieldProblem;
use crate::bag::backing::FUSING;
use crate::bag::sewn::{Edge, Seam};
use crate::bag::{Draft, Phase, Step};
use crate::measure::Length;
use crate::name;
use crate::piece::{Part, Piece};
use std::collections::BTreeMap;

/// The most letters of what a maker writes down about a project.
pub const MOST_LETTERS: usize = 4000;

/// The most steps of one's own, and the most letters of one.
const MOST_STEPS: usize = 60;
const MOST_OF_A_STEP: usize = 300;

/// A step of making the bag, as it stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Making {
    /// What is done.
    pub step: Step,
    /// It is ticked off.
    pub done: bool,
    /// What is sewn at it.
    pub seams: Vec<Seam>,
    /// The pieces that are in hand, by their ids, and where each is sewn: its edges, and how far from them.
    pub pieces: Vec<(String, Vec<(Edge, Length)>)>,
}

impl Project {
    /// The steps of making what is drafted, then those of the maker's own, each known by what it says.
    pub fn steps_of_making(&self, draft: &Draft) -> Vec<Step> {
        let mut steps = draft.steps.clone();
        for text in &self.own_steps {
            let of_it = format!("own: {text}");
            let again = steps.iter().filter(|s| s.key == of_it || s.key.starts_with(&format!("{of_it} · "))).count();
            let key = if again == 0 { of_it } else { format!("{of_it} · {}", again + 1) };
            steps.push(Step::new(Phase::Own, key, text.clone()));
        }
        steps
    }

    /// The steps of making it, in order, as they stand.
    pub fn making(&self, draft: &Draft) -> Vec<Making> {
        let seams: Vec<Seam> = self.bag.seams(self.ruler).into_iter().filter(|s| s.lengths(draft).is_some()).collect();
        let of = |step: &Step| {
            let sewn: Vec<Seam> = seams.iter().filter(|s| s.step == step.key).cloned().collect();
            Making {
                done: self.made.contains(step.key.as_ref()),
                pieces: in_hand(step, &sewn, draft),
                seams: sewn,
                step: step.clone(),
            }
        };
        self.steps_of_making(draft).iter().map(of).collect()
    }

    /// How many steps of making it are ticked off.
    pub fn steps_made(&self, draft: &Draft) -> usize {
        self.steps_of_making(draft).iter().filter(|s| self.made.contains(s.key.as_ref())).count()
    }

    /// Ticks the step `key` off, or takes the tick away.
    pub(super) fn tick(&mut self, key: &str, done: bool) -> Result<String, FieldProblem> {
        let draft = match &self.cutting {
            Some(plan) => plan.planned().draft,
            None => self.drafted().map_err(|p| p.into_iter().next().unwrap_or_else(|| unknown(key)))?.0,
        };
        let steps = self.steps_of_making(&draft);
        let step = steps.iter().find(|s| s.key == key).ok_or_else(|| unknown(key))?;
        let short: String = step.text.split([':', '.', ';']).next().unwrap_or_default().to_owned();
        if done {
            self.made.insert(key.to_owned());
        } else {
            self.made.remove(key);
        }
        Ok(format!("{short}, {}", if done { "done" } else { "not done" }))
    }

    /// Keeps the maker's own steps, a line each.
    pub(super) fn write_steps(&mut self, text: &str) -> Result<String, FieldProblem> {
        let steps: Vec<String> = text.lines().map(name::clean).filter(|line| !line.is_empty()).collect();
        if steps.len() > MOST_STEPS {
            let message = format!("{} steps of your own: at most {MOST_STEPS} are kept.", steps.len());
            return Err(FieldProblem::new("own_steps", steps.len(), message));
        }
        if let Some(long) = steps.iter().find(|s| s.chars().count() > MOST_OF_A_STEP) {
            let start: String = long.chars().take(30).collect();
            let letters = long.chars().count();
            let message = format!(
                "The step that begins “{start}” has {letters} characters. At most {MOST_OF_A_STEP} are allowed."
            );
            return Err(FieldProblem::new("own_steps", letters, message));
        }
        self.own_steps = steps;
        Ok("Steps of your own".to_owned())
    }

    /// Keeps what the maker writes down, line by line as it is written.
    pub(super) fn write_down(&mut self, text: &str) -> Result<String, FieldProblem> {
        let kept: String = text.chars().filter(|c| *c == '\n' || !name::is_unwritable(*c)).collect();
        let letters = kept.chars().count();
        if letters > MOST_LETTERS {
            let message = format!("The notes have {letters} characters. At most {MOST_LETTERS} are allowed.");
            return Err(FieldProblem::new("notes", letters, message));
        }
        self.notes = kept.trim_end().to_owned();
        Ok("Notes".to_owned())
    }
}

fn unknown(key: &str) -> FieldProblem {
    FieldProblem::new("step", key, format!("There is no step “{key}” in making this bag."))
}

/// The pieces a step has in hand: those of its seams, of its part, of the panel it makes up, what is fused to what; else
/// those that it is named after: `zip-tab` of `zip-tabs`.
fn in_hand(step: &Step, seams: &[Seam], draft: &Draft) -> Vec<(String, Vec<(Edge, Length)>)> {
    let mut edges: BTreeMap<&str, Vec<(Edge, Length)>> = BTreeMap::new();
    for side in seams.iter().flat_map(|s| &s.sides).flat_map(|s| s.all()) {
        let of_piece = edges.entry(side.piece.as_ref()).or_default();
        if !of_piece.contains(&(side.edge, side.seam)) {
            of_piece.push((side.edge, side.seam));
        }
    }
    let panel = step.key.strip_prefix("piece-").or_else(|| step.key.strip_prefix("quilt-"));
    let backed = step.key.strip_prefix("back-");
    let stem = step.key.trim_end_matches('s');
    let named = |id: &str| id == stem || id.strip_prefix(stem).is_some_and(|rest| rest.starts_with('-'));
    let is_backed = |id: &str| draft.pieces.iter().any(|p| p.backs.as_deref() == Some(id));
    let concerns = |p: &Piece| match step.key.as_ref() {
        _ if !seams.is_empty() => edges.contains_key(p.id.as_ref()) || (step.key.starts_with("part-") && named(&p.id)),
        _ if panel.is_some() => panel == Some(p.id.as_ref()) || panel == p.patch_of.as_deref(),
        _ if backed.is_some() => backed == Some(p.id.as_ref()) || backed == p.backs.as_deref(),
        FUSING => p.backs.is_some() || is_backed(&p.id) || !p.block_of.is_empty(),
        "straps" => p.part == Part::Straps && !p.id.starts_with("part-"),
        _ => named(&p.id),
    };
    let pieces = draft.pieces.iter().filter(|p| concerns(p));
    pieces.map(|p| (p.id.to_string(), edges.get(p.id.as_ref()).cloned().unwrap_or_default())).collect()
}
