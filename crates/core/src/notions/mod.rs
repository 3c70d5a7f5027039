//! Notions that are owned: zips, rings and snaps by the piece, webbing, cord and tape by the length.
//!
//! What there is of one follows from its [`Ledger`]: what came in, what lies with which bag, what was used, thrown away or
//! put right. Nothing is typed over, and nothing is promised twice: what lies with one bag no other can take. [`Kit`] is
//! what lies with one bag; the bag's purchase takes it off.

mod amount;
mod kit;
mod ledger;

pub use crate::ledger::OfBag;
pub use amount::Amount;
pub use kit::{Fits, Kit, Need};
pub use ledger::{Entry, Ledger, Totals, Why};

use crate::FieldProblem;
use crate::bag::GoodKind;
use crate::measure::{Length, ParseLengthError, Ruler, System, parse_length};
use crate::name::{MOST_LETTERS, clean, named};
use serde::{Deserialize, Serialize};

/// Letters a place is told by at most.
const LONGEST_PLACE: usize = 60;

/// One kind and size of something that is owned.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Notion {
    /// What it is called: `D-ring`, `Zip`, `Webbing`.
    pub name: String,
    /// What it is cut off, if it is kept by the length.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by_length: Option<GoodKind>,
    /// The opening of a ring, the teeth of a zip; of what is kept by the length how wide it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub size: Option<Length>,
    /// The system its sizes are told in.
    pub system: System,
    /// Where it is kept; may be empty.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub place: String,
}

impl Notion {
    /// Reads what is typed: `kind` is the key of a [`GoodKind`], or `piece`; `name` may be empty of what is kept by the length.
    ///
    /// # Errors
    /// The first field that cannot be read, by its name.
    pub fn read(kind: &str, name: &str, size: &str, place: &str, system: System) -> Result<Self, FieldProblem> {
        let by_length = match kind {
            "piece" => None,
            _ => Some(GoodKind::of(kind).ok_or_else(|| {
                let all: Vec<&str> = GoodKind::ALL.iter().map(|k| k.key()).collect();
                FieldProblem::new("kind", kind, format!("“{kind}” is not a choice here: piece, {}.", all.join(", ")))
            })?),
        };
        let name = match (name.trim(), by_length) {
            ("", Some(kind)) => kind.name().to_owned(),
            _ => named("name", name)?,
        };
        let size = match size.trim() {
            "" => None,
            typed => Some(read_size("size", typed, parse_length(typed, system))?),
        };
        let mut found = Self { name, by_length, size, system, place: String::new() };
        found.set_place(place)?;
        Ok(found)
    }

    /// Keeps it elsewhere.
    ///
    /// # Errors
    /// More letters than a place is told by.
    pub fn set_place(&mut self, typed: &str) -> Result<(), FieldProblem> {
        let place = clean(typed);
        let many = place.chars().count();
        if many > LONGEST_PLACE {
            let message = format!("A place can have at most {LONGEST_PLACE} characters. You typed {many}.");
            return Err(FieldProblem::new("place", typed, message));
        }
        self.place = place;
        Ok(())
    }

    /// The ruler its sizes are told by.
    pub fn ruler(&self) -> Ruler {
        Ruler::default_for(self.system)
    }

    /// Name and size: `D-ring, 1 in`; `Webbing, 1½ in wide`.
    pub fn label(&self) -> String {
        let wide = if self.by_length.is_some() { " wide" } else { "" };
        let shown = |l: Length| format!(", {} {}{wide}", self.ruler().show(l).text, self.system.symbol());
        format!("{}{}", self.name, self.size.map(shown).unwrap_or_default())
    }

    /// It is the same kind and size as `other`: more of one is more of the other.
    pub fn is_like(&self, other: &Self) -> bool {
        kit::singular(&self.name) == kit::singular(&other.name)
            && (self.by_length, self.size) == (other.by_length, other.size)
    }

    /// How much of it is typed: a count, or lengths with commas between them.
    ///
    /// # Errors
    /// What cannot be read, or is none.
    pub fn read_amount(&self, field: &str, typed: &str) -> Result<Amount, FieldProblem> {
        Amount::read(field, typed, self)
    }
}

/// A length that was `read`, which is more than nothing.
fn read_size(field: &str, typed: &str, read: Result<Length, ParseLengthError>) -> Result<Length, FieldProblem> {
    match read {
        Ok(size) if size > Length::ZERO => Ok(size),
        Ok(_) => Err(FieldProblem::new(field, typed, format!("Enter more than 0 instead of “{typed}”."))),
        Err(why) => Err(FieldProblem::new(field, typed, crate::as_sentence(why))),
    }
}

const _: () = assert!(LONGEST_PLACE <= MOST_LETTERS);
