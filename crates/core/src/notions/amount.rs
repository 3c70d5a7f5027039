//! How much there is of a notion: pieces, or lengths each by itself, since two short ones are not one long one.

use super::{Notion, read_size};
use crate::FieldProblem;
use crate::buying::linear::{self, Sold};
use crate::measure::{LONGEST_REEL, Length, parse_reel, split_lengths};
use serde::{Deserialize, Serialize};

/// More pieces than this at once are a slip of the finger.
const MOST_PIECES: u32 = 10_000;

/// More lengths than this at once are one.
const MOST_LENGTHS: usize = 60;

/// So many pieces, or these lengths, longest first.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Amount {
    /// Pieces.
    #[serde(default, skip_serializing_if = "none")]
    pub pieces: u32,
    /// Lengths.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lengths: Vec<Length>,
}

fn none(pieces: &u32) -> bool {
    *pieces == 0
}

impl Amount {
    /// So many pieces.
    pub const fn pieces(pieces: u32) -> Self {
        Self { pieces, lengths: vec![] }
    }

    /// These lengths.
    pub fn lengths(mut lengths: Vec<Length>) -> Self {
        lengths.sort_unstable_by(|a, b| b.cmp(a));
        Self { pieces: 0, lengths }
    }

    pub(super) fn read(field: &str, typed: &str, of: &Notion) -> Result<Self, FieldProblem> {
        let refuse = |message: String| Err(FieldProblem::new(field, typed, message));
        if of.by_length.is_none() {
            return match typed.trim().parse::<u32>() {
                Ok(n) if (1..=MOST_PIECES).contains(&n) => Ok(Self::pieces(n)),
                _ => refuse(format!("Enter a number from 1 to {MOST_PIECES} instead of “{}”.", typed.trim())),
            };
        }
        let all = split_lengths(typed);
        if all.is_empty() {
            return refuse("Type one length, or several separated by commas.".to_owned());
        }
        if all.len() > MOST_LENGTHS {
            return refuse(format!("You typed {} lengths. Type at most {MOST_LENGTHS} at once.", all.len()));
        }
        let read = all.into_iter().map(|one| read_size(field, one, parse_reel(one, of.system)));
        Ok(Self::lengths(read.collect::<Result<_, _>>()?))
    }

    /// There is none of it.
    pub fn is_none(&self) -> bool {
        self.pieces == 0 && self.lengths.is_empty()
    }

    /// All of it as one number: pieces, or the lengths together.
    pub fn together(&self) -> i64 {
        i64::from(self.pieces) + self.lengths.iter().map(|l| l.0).sum::<i64>()
    }

    /// With `more` laid to it; nothing where that is beyond counting.
    pub fn plus(&self, more: &Self) -> Option<Self> {
        let lengths = self.lengths.iter().chain(&more.lengths).copied().collect();
        Some(Self { pieces: self.pieces.checked_add(more.pieces)?, ..Self::lengths(lengths) })
    }

    /// Every length of it is one.
    pub fn is_sound(&self) -> bool {
        self.lengths.iter().all(|l| *l > Length::ZERO && *l <= LONGEST_REEL)
    }

    /// It can be left of `whole`: no more pieces, and every length cut from one that is there. Of very many lengths only
    /// that they are not more in all.
    pub fn can_be_of(&self, whole: &Self) -> bool {
        if self.pieces > whole.pieces || self.together() > whole.together() {
            return false;
        }
        let cut = linear::plan(&self.lengths, &whole.lengths, Sold::Packs(Length(1)));
        cut.unplaced.is_empty() || !cut.proven
    }

    /// With `less` taken from it, each length whole; nothing where it is not there.
    pub fn minus(&self, less: &Self) -> Option<Self> {
        let pieces = self.pieces.checked_sub(less.pieces)?;
        let mut lengths = self.lengths.clone();
        for one in &less.lengths {
            let at = lengths.iter().position(|l| l == one)?;
            lengths.remove(at);
        }
        Some(Self { pieces, lengths })
    }

    /// As it is typed to be exactly this, what is on no line of the ruler in millimetres: `12`, or `60 in, 3171.5 mm`.
    pub fn exactly(&self, of: &Notion) -> String {
        let ruler = of.ruler();
        let millimetres = |l: &Length| match l.is_multiple_of(ruler.step()) {
            true => format!("{} {}", ruler.show(*l).text, of.system.symbol()),
            false => format!("{} mm", l.0 as f64 / Length::MILLIMETRE.0 as f64),
        };
        match of.by_length {
            None => self.pieces.to_string(),
            Some(_) => self.lengths.iter().map(millimetres).collect::<Vec<_>>().join(", "),
        }
    }

    /// As it is said of a notion: `12`, or `60 in, 14 in`.
    pub fn tell(&self, of: &Notion) -> String {
        let ruler = of.ruler();
        match of.by_length {
            _ if self.is_none() => "none".to_owned(),
            None => self.pieces.to_string(),
            Some(_) => {
                let shown = self.lengths.iter().map(|l| format!("{} {}", ruler.show(*l).text, of.system.symbol()));
                shown.collect::<Vec<_>>().join(", ")
            }
        }
    }
}
