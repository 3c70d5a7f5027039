//! The order in which a bag is made: steps by what state the work is in, each with a key by which seams say where they
//! are sewn and a maker's tick finds it again. Common practice.

use super::draft::Draft;
use serde::{Deserialize, Deserializer, Serialize};
use std::borrow::Cow;

/// The state the work is in; steps of an earlier one come first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum Phase {
    /// Pieces as they are cut, nothing behind them.
    Bare,
    /// Backings are put on and quilted.
    Backed,
    /// Straps, tabs and what else is made by itself.
    Small,
    /// Panels that still lie flat.
    Flat,
    /// The outer is closed.
    Outer,
    /// The lining is closed.
    Lining,
    /// Outer and lining meet, at the mouth or the zip.
    Together,
    /// It is a bag.
    Last,
    /// What the maker wrote down.
    Own,
}

impl Phase {
    /// As a heading.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Bare => "Before anything is backed",
            Self::Backed => "Backed and quilted",
            Self::Small => "Straps and small pieces",
            Self::Flat => "While the panels lie flat",
            Self::Outer => "The outer",
            Self::Lining => "The lining",
            Self::Together => "Put together",
            Self::Last => "At last",
            Self::Own => "Steps of your own",
        }
    }
}

/// A step of making the bag.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct Step {
    /// Its name within the bag, the same whatever sizes are typed: `outer`, `mouth`, `part-3`.
    pub key: Cow<'static, str>,
    /// When.
    pub phase: Phase,
    /// What is done, in a sentence or two.
    pub text: Cow<'static, str>,
}

impl Step {
    /// `text`, while the work is in `phase`.
    pub fn new(phase: Phase, key: impl Into<Cow<'static, str>>, text: impl Into<Cow<'static, str>>) -> Self {
        Self { key: key.into(), phase, text: text.into() }
    }
}

/// Steps by their phases, those of one as they are given.
pub(super) fn in_order(steps: impl IntoIterator<Item = Step>) -> Vec<Step> {
    let mut steps: Vec<Step> = steps.into_iter().collect();
    steps.sort_by_key(|s| s.phase);
    steps
}

impl Draft {
    /// Puts `step` after the others of its phase.
    pub(super) fn add_step(&mut self, step: Step) {
        let at = self.steps.iter().position(|s| s.phase > step.phase).unwrap_or(self.steps.len());
        self.steps.insert(at, step);
    }
}

impl<'de> Deserialize<'de> for Step {
    /// Plans that were kept before steps had keys hold sentences: each is its own key, and all are told as one phase.
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        #[derive(Deserialize)]
        #[serde(untagged)]
        enum Kept {
            Sentence(String),
            Step { key: String, phase: Phase, text: String },
        }
        Ok(match Kept::deserialize(deserializer)? {
            Kept::Sentence(text) => Self::new(Phase::Together, text.clone(), text),
            Kept::Step { key, phase, text } => Self::new(phase, key, text),
        })
    }
}
