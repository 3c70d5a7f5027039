//! What no lay can beat, and how one can tell.
//!
//! `bounds` and `slices` rule lengths out, `sheets` says how many sheets are needed; whatever they claim they leave a
//! [`Certificate`] of. `check` goes through certificates by code of its own, and `words` tells them to a maker. A search
//! that tried everything cannot be checked by arithmetic: its certificate says so by name, with how much was tried.

mod bounds;
mod check;
mod sheets;
mod slices;
mod words;

pub use bounds::shortest_length;
pub(in crate::lay) use bounds::{MOST_KINDS, least_length, raised, ruled_out, strip_proof};
pub(super) use check::{certificate_fault, sheets_fault};
pub(in crate::lay) use sheets::least_sheets;
pub(in crate::lay) use slices::ruled_out as ruled_out_by_slices;
pub use words::{conditions, reason, reason_of_sheets};

use crate::measure::Length;
use serde::{Deserialize, Serialize};

/// That no lay of what lies on a cloth is as short as `excluded`.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Certificate {
    /// The longest length between the trimmed ends that is ruled out, and with it all that is shorter.
    pub excluded: Length,
    /// How.
    pub by: Rule,
}

/// That a cloth sold by the sheet is needed so many times.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct SheetsNeeded {
    /// Id of the cloth.
    pub cloth: String,
    /// Fewer sheets do not hold the pieces.
    pub least: u32,
    /// How one can tell.
    pub by: Rule,
}

/// A rule by which a length is ruled out. Pieces are named by their place in the job's list, from 0.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Rule {
    /// The pieces cover more than so much cloth has.
    Area {
        /// What they cover, in square units of [`Length`].
        covered: Whole,
    },
    /// One piece alone is longer, in every way it may lie.
    Longest {
        /// The piece.
        piece: usize,
    },
    /// Each piece counts by a function of its width times a function of its length; all together count for more than
    /// the cloth does (dual-feasible functions, Fekete and Schepers 2004).
    Weights(Weights),
    /// Pushed together, pieces end at a sum of their lengths: between two lengths there is no such sum.
    Sums {
        /// From here to the length that is ruled out there is none.
        from: Length,
        /// With what the sums are made of.
        boxes: Boxes,
        /// What rules out everything shorter.
        below: Box<Rule>,
    },
    /// Whatever a straight line crosses of the pieces fits into the cloth; so many lines would be needed.
    Slices(Slices),
    /// Everything was tried, up to pushing pieces together, and nothing was found. Not to be checked by arithmetic.
    Tried {
        /// What was tried.
        what: Tried,
        /// How often.
        times: u64,
    },
}

/// What a finished search has gone through.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Tried {
    /// Every place, for every piece that fits it.
    Places,
    /// Every division of the pieces by a cut from edge to edge.
    Cuts,
    /// Every way of sharing the pieces among fewer sheets.
    Shares,
}

/// The boxes that stand for the pieces: around a rectangle, inside any other outline.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct Boxes {
    /// Where the gap between pieces is counted.
    pub gap: GapCounted,
    /// Of the outlines that are no rectangles, a rectangle inside each.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub inside: Vec<Within>,
}

/// Pieces keep a distance, and along any straight line too. Counted one way, it leaves boxes that do not overlap; counted
/// both ways at once it does not, since two pieces may pass each other corner to corner.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum GapCounted {
    /// There is none, or it is left out.
    #[default]
    Nowhere,
    /// Beside each piece, and once to the width of the cloth.
    Across,
    /// Above each piece, and once to its length.
    Along,
}

/// A rectangle inside a piece as it lies turned, from the lower left corner of the piece's own bounding box.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Within {
    /// The piece.
    pub piece: usize,
    /// In degrees.
    pub turn: u16,
    /// Left edge.
    pub x: Length,
    /// Lower edge.
    pub y: Length,
    /// Across.
    pub width: Length,
    /// Along.
    pub height: Length,
}

/// A pair of dual-feasible functions and what they come to.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Weights {
    /// What is counted.
    pub boxes: Boxes,
    /// What pieces side by side can fill of the width: a sum of widths.
    pub width: Length,
    /// Of the widths.
    pub across: Function,
    /// Of the lengths.
    pub along: Function,
    /// What all pieces count for.
    pub sum: Whole,
    /// What the cloth counts for.
    pub full: Whole,
}

/// A dual-feasible function of a share `s` of a side, between 0 and 1: shares that fit into the side keep fitting.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Function {
    /// `s` itself.
    Share,
    /// All of the side beyond the side less this, nothing below this, else `s`.
    Threshold(Length),
    /// `s` where (k + 1)·s is whole, else ⌊(k + 1)·s⌋ / k.
    Rounded(u32),
}

/// Prices of slices: no line can hold slices for more than `dearest`, and all pieces together are worth more than
/// `dearest` on each line there is room for.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Slices {
    /// Which way the lines run.
    pub lines: Lines,
    /// Widths are counted in whole steps of this, rounded down.
    pub step: Length,
    /// The most a line can hold, in the unit of the prices.
    pub dearest: i64,
    /// The pieces in every way they may lie.
    pub ways: Vec<PricedWay>,
}

/// Which way lines run.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Lines {
    /// From selvedge to selvedge.
    Across,
    /// From end to end.
    Along,
}

/// A piece as it lies, cut into slices with a price each.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct PricedWay {
    /// Copies of one face that are priced alike: the number of their group, from 0.
    pub group: usize,
    /// The piece.
    pub piece: usize,
    /// How many copies the group has.
    pub copies: u32,
    /// In degrees.
    pub turn: u16,
    /// Half of it, from the fold on.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub from_fold: bool,
    /// From one end of it to the other.
    pub slices: Vec<PricedSlice>,
}

/// What a line anywhere between `from` and `to` crosses of a piece, at least.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct PricedSlice {
    /// Where it begins.
    pub from: Length,
    /// Where it ends.
    pub to: Length,
    /// How much a line crosses there, the gap included.
    pub wide: Length,
    /// What a unit of its depth is worth.
    pub price: i64,
}

/// A whole number of any size, kept as its digits.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(try_from = "String", into = "String")]
pub struct Whole(pub i128);

impl TryFrom<String> for Whole {
    type Error = String;

    fn try_from(digits: String) -> Result<Self, String> {
        digits.parse().map(Self).map_err(|_| "is a whole number, as text".to_owned())
    }
}

impl From<Whole> for String {
    fn from(whole: Whole) -> Self {
        whole.0.to_string()
    }
}

/// The least length of a lay as far as it is known, with the rule that rules out all that is shorter.
#[derive(Clone, Debug, Default, PartialEq)]
pub(in crate::lay) struct Proof {
    /// In the bin's own coordinates.
    pub bound: i64,
    by: Option<Rule>,
}

impl Proof {
    /// Takes up that nothing is shorter than `bound`, if that is more than is known; `by` is asked only then.
    pub fn raise(&mut self, bound: i64, by: impl FnOnce() -> Rule) {
        if bound > self.bound {
            *self = Self { bound, by: Some(by()) };
        }
    }

    /// Takes up what another search has proven of the same pieces.
    pub fn join(&mut self, other: &Self) {
        if other.bound > self.bound {
            self.clone_from(other);
        }
    }

    /// To be kept with the lay.
    pub fn certificate(&self) -> Option<Certificate> {
        self.by.as_ref().map(|by| Certificate { excluded: Length(self.bound - 1), by: by.clone() })
    }
}
