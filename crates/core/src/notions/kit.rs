//! What lies with one bag, and what of the cupboard would do for what a bag needs.

use super::{Amount, Ledger, Notion};
use crate::bag::{GoodKind, Hardware};
use crate::buying::PiecesAtHand;
use crate::measure::Length;
use serde::{Deserialize, Serialize};

/// What a bag needs, as its purchase names it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
pub enum Need {
    /// By the piece.
    Pieces {
        /// What it is called there.
        name: String,
        /// Its size, if that matters.
        size: Option<Length>,
    },
    /// By the length.
    Lengths {
        /// What it is cut off.
        kind: GoodKind,
        /// How wide it is.
        width: Option<Length>,
    },
}

/// How well something serves a need.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Fits {
    /// It is what is asked for.
    Just,
    /// A zip that is longer by so much: it is shortened.
    Longer(Length),
}

impl Need {
    /// What a line of the purchase needs.
    pub fn of(hardware: &Hardware) -> Self {
        Self::Pieces { name: hardware.name.to_string(), size: hardware.size }
    }

    /// Whether a notion serves it. A closed zip may be longer, a ring of another size does not hold the strap: common
    /// practice.
    pub fn served_by(&self, notion: &Notion) -> Option<Fits> {
        match self {
            Self::Lengths { kind, width } => {
                (notion.by_length == Some(*kind) && notion.size == *width).then_some(Fits::Just)
            }
            Self::Pieces { name, size } => {
                if notion.by_length.is_some() {
                    return None;
                }
                let (wanted, owned) = (singular(name), singular(&notion.name));
                if let (true, Some(teeth)) = (is_zip(&wanted) && is_zip(&owned), *size) {
                    // One that opens in the middle has two sliders, any other one.
                    let same = wanted.contains("two slider") == owned.contains("two slider");
                    let longer = notion.size.filter(|long| same && *long >= teeth)? - teeth;
                    return Some(if longer == Length::ZERO { Fits::Just } else { Fits::Longer(longer) });
                }
                (wanted == owned && *size == notion.size).then_some(Fits::Just)
            }
        }
    }
}

fn is_zip(singular: &str) -> bool {
    singular.split([' ', ',']).any(|word| word == "zip")
}

/// A name as one compares it: in lower case, one of them.
pub(super) fn singular(name: &str) -> String {
    let lower = name.to_lowercase().replace('‑', "-");
    lower
        .split(' ')
        .map(|word| if word.len() > 3 && !word.ends_with("ss") { word.strip_suffix('s').unwrap_or(word) } else { word })
        .collect::<Vec<_>>()
        .join(" ")
}

/// What of the cupboard lies with one bag, by what of the bag it is for.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Kit(Vec<(Need, Amount)>);

impl Kit {
    /// What of all that is owned lies with the bag `project`.
    pub fn of<'a>(project: &str, ledgers: impl IntoIterator<Item = &'a Ledger>) -> Self {
        let lies = |ledger: &Ledger| {
            let amount = ledger.entries.with_bag(project);
            let need = ledger.entries.need_of(project).filter(|_| !amount.is_none())?;
            Some((need.clone(), amount))
        };
        Self(ledgers.into_iter().filter_map(lies).collect())
    }

    /// What lies there by the piece, as the purchase counts it.
    pub fn pieces(&self) -> impl Iterator<Item = PiecesAtHand> {
        self.0.iter().filter_map(|(need, amount)| match need {
            Need::Pieces { name, size } => Some(PiecesAtHand { name: name.clone(), size: *size, count: amount.pieces }),
            Need::Lengths { .. } => None,
        })
    }

    /// The lengths that lie there of a kind and width.
    pub fn lengths(&self, kind: GoodKind, width: Option<Length>) -> impl Iterator<Item = Length> {
        let wanted = Need::Lengths { kind, width };
        self.0.iter().filter(move |(need, _)| *need == wanted).flat_map(|(_, amount)| amount.lengths.iter().copied())
    }
}
