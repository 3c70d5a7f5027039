//! The ledger of one notion.

use super::{Amount, Need, Notion};
use crate::FieldProblem;
use crate::ledger::{Entries, Goods, Refused, tell};

/// Why some of a notion came or went.
pub type Why = crate::ledger::Why<Need>;

/// An entry of a notion's ledger.
pub type Entry = crate::ledger::Entry<Amount, Need>;

/// A notion and every entry of it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Ledger {
    /// What it is.
    pub notion: Notion,
    /// What came and went.
    pub entries: Entries<Amount, Need>,
}

/// What came of all that came in: pieces, or lengths together.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Totals {
    /// Put in, and found by counting.
    pub came_in: i64,
    /// In the cupboard.
    pub there: i64,
    /// Laid with bags that are not sewn yet.
    pub with_bags: i64,
    /// In bags that are sewn.
    pub used: i64,
    /// Thrown away, and missed by counting.
    pub gone: i64,
}

impl Goods for Amount {
    fn is_none(&self) -> bool {
        Self::is_none(self)
    }

    fn has(&self, less: &Self) -> bool {
        Self::minus(self, less).is_some()
    }

    fn plus(self, more: &Self) -> Option<Self> {
        Self::plus(&self, more)
    }

    fn minus(self, less: &Self) -> Option<Self> {
        Self::minus(&self, less)
    }

    fn changed_to(&self, next: &Self) -> (Self, Self) {
        let (mut came, mut went) = (next.clone(), self.clone());
        let stay = came.pieces.min(went.pieces);
        (came.pieces, went.pieces) = (came.pieces - stay, went.pieces - stay);
        for length in &self.lengths {
            if let Some(at) = came.lengths.iter().position(|l| l == length) {
                came.lengths.remove(at);
                went = Self::minus(&went, &Self::lengths(vec![*length])).unwrap_or_default();
            }
        }
        (came, went)
    }

    fn is_sound(&self) -> bool {
        Self::is_sound(self)
    }

    fn can_be_left_of(&self, whole: &Self) -> bool {
        self.can_be_of(whole)
    }
}

impl Ledger {
    /// A notion of which there is none yet.
    pub fn new(notion: Notion) -> Self {
        Self { notion, entries: Entries::default() }
    }

    /// What became of all of it.
    pub fn totals(&self) -> Totals {
        let mut totals = Totals {
            there: self.entries.there().together(),
            with_bags: self.entries.with_bags().iter().map(|(_, a)| a.together()).sum(),
            ..Totals::default()
        };
        for (_, entry) in self.entries.standing() {
            let (came, went) = (entry.came.together(), entry.went.together());
            match entry.why {
                Why::PutIn | Why::Corrected | Why::ThrownAway => {
                    totals.came_in += came;
                    totals.gone += went;
                }
                Why::Used { .. } => totals.used += went - came,
                Why::Taken { .. } | Why::PutBack { .. } | Why::TakenBack { .. } => {}
            }
        }
        totals
    }

    /// With one more `entry`.
    ///
    /// # Errors
    /// It takes more than there is, or nothing, or what was taken back already; under `amount`.
    pub fn with(&self, entry: Entry) -> Result<Self, FieldProblem> {
        let (came, went) = (entry.came.tell(&self.notion), entry.went.tell(&self.notion));
        let entries = self.entries.with(entry).map_err(|why| self.refused(&why, &came, went))?;
        Ok(Self { entries, ..self.clone() })
    }

    fn refused(&self, why: &Refused, came: &str, went: String) -> FieldProblem {
        let label = self.notion.label();
        let there = || self.entries.there().tell(&self.notion);
        let message = match why {
            Refused::Nothing => "Type how much. Nothing would change.".to_owned(),
            Refused::NoSuchEntry(number) => {
                format!("Entry {number} does not exist or is undone already.")
            }
            Refused::NotLeftOfIt => format!("{came} cannot be left of {went}."),
            Refused::GoneSince(_) => format!(
                "This entry can’t be undone, because some of what it added is gone. You have {label}: {}.",
                there()
            ),
            Refused::NotWith(bag) => {
                format!("With {} lies {} of {label}.", bag.name, self.entries.with_bag(&bag.project).tell(&self.notion))
            }
            Refused::NotThere => format!("You have {label}: {}. You can’t remove more than that.", there()),
        };
        FieldProblem::new("amount", went, message)
    }

    /// Put right: from now on there is `amount` of it in the cupboard.
    ///
    /// # Errors
    /// That is what is there already.
    pub fn corrected_to(&self, amount: &Amount, at: i64) -> Result<Self, FieldProblem> {
        let entries = self.entries.corrected_to(amount, at).map_err(|why| self.refused(&why, "", "none".to_owned()))?;
        Ok(Self { entries, ..self.clone() })
    }

    /// An entry in words: `3 laid with Seed pouch`.
    pub fn tell(&self, entry: &Entry) -> String {
        let told = |amount: &Amount| (!amount.is_none()).then(|| amount.tell(&self.notion));
        let undone = match entry.why {
            Why::TakenBack { entry } => self.entries.get(entry).map(|e| self.tell(e)).unwrap_or_default(),
            _ => String::new(),
        };
        tell(&entry.why, told(&entry.came).as_deref(), told(&entry.went).as_deref(), &undone)
    }
}
