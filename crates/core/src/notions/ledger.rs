//! The ledger of one notion: entries are added and never changed; one that was wrong is taken back by another.

use super::{Amount, Need, Notion};
use crate::FieldProblem;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};

/// A bag by its id, and what it was called then.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OfBag {
    /// Id of the project.
    pub project: String,
    /// Its name.
    pub name: String,
}

/// Why something came or went.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
pub enum Why {
    /// Bought, given, found.
    PutIn,
    /// Laid with a bag, for what that needs.
    Taken {
        /// Which bag.
        bag: OfBag,
        /// What of the bag it is for.
        need: Need,
    },
    /// Laid back as it was.
    PutBack {
        /// Which bag it lay with.
        bag: OfBag,
    },
    /// The bag is sewn: what lay with it is in it; what came is what was left.
    Used {
        /// Which bag.
        bag: OfBag,
    },
    /// Broken, perished, given away.
    ThrownAway,
    /// Counted again.
    Corrected,
    /// An entry was a mistake.
    TakenBack {
        /// Its number.
        entry: u32,
    },
}

/// One entry.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Entry {
    /// When, in milliseconds since 1970.
    pub at: i64,
    /// Why.
    pub why: Why,
    /// What came into the cupboard.
    #[serde(default, skip_serializing_if = "Amount::is_none")]
    pub came: Amount,
    /// What went: out of the cupboard, or of what lay with a bag where it was used.
    #[serde(default, skip_serializing_if = "Amount::is_none")]
    pub went: Amount,
}

/// A notion and every entry of it, numbered from 1 in their order.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Ledger {
    /// What it is.
    pub notion: Notion,
    /// What came and went.
    pub entries: Vec<Entry>,
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

/// Where everything is after some entries.
#[derive(Clone, Debug, Default)]
struct Where {
    there: Amount,
    with: BTreeMap<String, Amount>,
}

impl Where {
    /// Brings in what an entry changes: from where it takes, and to where it gives. Nothing where there is not so much; then
    /// this is of no use any more.
    fn enter(&mut self, entry: &Entry, ledger: &[Entry]) -> Option<()> {
        match &entry.why {
            Why::PutIn | Why::ThrownAway | Why::Corrected => self.exchange(&entry.went, &entry.came),
            Why::Taken { bag, .. } => {
                self.exchange(&entry.went, &Amount::default())?;
                self.lay_with(&bag.project, &entry.went)
            }
            Why::PutBack { bag } => {
                self.take_from(&bag.project, &entry.came)?;
                self.exchange(&Amount::default(), &entry.came)
            }
            Why::Used { bag } => {
                self.take_from(&bag.project, &entry.went)?;
                self.exchange(&Amount::default(), &entry.came)
            }
            Why::TakenBack { entry: number } => {
                let undone = ledger.get((*number as usize).checked_sub(1)?)?;
                match &undone.why {
                    Why::PutIn | Why::ThrownAway | Why::Corrected => self.exchange(&undone.came, &undone.went),
                    Why::Taken { bag, .. } => {
                        self.take_from(&bag.project, &undone.went)?;
                        self.exchange(&Amount::default(), &undone.went)
                    }
                    Why::PutBack { bag } => {
                        self.exchange(&undone.came, &Amount::default())?;
                        self.lay_with(&bag.project, &undone.came)
                    }
                    Why::Used { bag } => {
                        self.exchange(&undone.came, &Amount::default())?;
                        self.lay_with(&bag.project, &undone.went)
                    }
                    Why::TakenBack { .. } => None,
                }
            }
        }
    }

    fn exchange(&mut self, went: &Amount, came: &Amount) -> Option<()> {
        self.there = self.there.minus(went)?.plus(came)?;
        Some(())
    }

    fn lay_with(&mut self, project: &str, amount: &Amount) -> Option<()> {
        let with = self.with.entry(project.to_owned()).or_default();
        *with = with.plus(amount)?;
        Some(())
    }

    fn take_from(&mut self, project: &str, amount: &Amount) -> Option<()> {
        let with = self.with.entry(project.to_owned()).or_default();
        *with = with.minus(amount)?;
        Some(())
    }
}

impl Entry {
    /// Id of the bag it is about, if it is about one.
    pub fn project(&self) -> Option<&str> {
        match &self.why {
            Why::Taken { bag, .. } | Why::PutBack { bag } | Why::Used { bag } => Some(&bag.project),
            Why::PutIn | Why::ThrownAway | Why::Corrected | Why::TakenBack { .. } => None,
        }
    }
}

impl Entry {
    /// Of a bag that is sewn: what is left can be left of what lay with it.
    fn is_cut_from_what_lay_there(&self) -> bool {
        !matches!(self.why, Why::Used { .. }) || self.came.can_be_of(&self.went)
    }
}

impl Ledger {
    /// A notion of which there is none yet.
    pub const fn new(notion: Notion) -> Self {
        Self { notion, entries: vec![] }
    }

    /// Where everything is; nothing where the entries do not add up, which only a file that was changed by hand does.
    fn now(&self) -> Option<Where> {
        let mut now = Where::default();
        for (n, entry) in self.entries.iter().enumerate() {
            now.enter(entry, &self.entries[..n])?;
        }
        Some(now)
    }

    /// Its entries add up: never more went than there was, no length is none or longer than a reel, and what was left of a
    /// length is no longer than it.
    pub fn adds_up(&self) -> bool {
        let sound = |e: &Entry| e.came.is_sound() && e.went.is_sound() && e.is_cut_from_what_lay_there();
        self.entries.iter().all(sound) && self.now().is_some()
    }

    /// What is in the cupboard.
    pub fn there(&self) -> Amount {
        self.now().unwrap_or_default().there
    }

    /// What lies with the bag `project`.
    pub fn with_bag(&self, project: &str) -> Amount {
        self.now().unwrap_or_default().with.remove(project).unwrap_or_default()
    }

    /// What lies with every bag it lies with, and what the bag was called when it was taken.
    pub fn with_bags(&self) -> Vec<(OfBag, Amount)> {
        let with = self.now().unwrap_or_default().with;
        let named = |project: &str| self.bags().filter(|b| b.project == project).last().cloned();
        with.into_iter().filter(|(_, a)| !a.is_none()).filter_map(|(p, a)| Some((named(&p)?, a))).collect()
    }

    fn bags(&self) -> impl Iterator<Item = &OfBag> {
        self.entries.iter().filter_map(|e| match &e.why {
            Why::Taken { bag, .. } | Why::PutBack { bag } | Why::Used { bag } => Some(bag),
            _ => None,
        })
    }

    /// What of the bag `project` it lies there for.
    pub fn need_of(&self, project: &str) -> Option<&Need> {
        let of = |e: &'_ Entry| matches!(&e.why, Why::Taken { bag, .. } if bag.project == project);
        self.entries.iter().rev().find(|e| of(e)).and_then(|e| match &e.why {
            Why::Taken { need, .. } => Some(need),
            _ => None,
        })
    }

    /// What became of all of it.
    pub fn totals(&self) -> Totals {
        let now = self.now().unwrap_or_default();
        let mut totals = Totals {
            there: now.there.together(),
            with_bags: now.with.values().map(Amount::together).sum(),
            ..Totals::default()
        };
        let taken_back = self.taken_back();
        for (number, entry) in (1..).zip(&self.entries) {
            if taken_back.contains(&number) {
                continue;
            }
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

    /// The numbers of the entries that were taken back.
    pub fn taken_back(&self) -> BTreeSet<u32> {
        let of = |e: &Entry| if let Why::TakenBack { entry } = e.why { Some(entry) } else { None };
        self.entries.iter().filter_map(of).collect()
    }

    /// The numbers of those that can be taken back: what they brought is there.
    pub fn can_be_taken_back(&self) -> BTreeSet<u32> {
        let (Some(now), taken_back) = (self.now(), self.taken_back()) else { return BTreeSet::new() };
        let back = |number: u32| Entry {
            at: 0,
            why: Why::TakenBack { entry: number },
            came: Amount::default(),
            went: Amount::default(),
        };
        let numbers = (1..).zip(&self.entries).map(|(number, _)| number).filter(|n| !taken_back.contains(n));
        numbers.filter(|n| now.clone().enter(&back(*n), &self.entries).is_some()).collect()
    }

    /// With one more `entry`.
    ///
    /// # Errors
    /// It takes more than there is, or nothing, or what was taken back already; under `amount`.
    pub fn with(&self, entry: Entry) -> Result<Self, FieldProblem> {
        let refuse = |message: String| Err(FieldProblem::new("amount", entry.went.tell(&self.notion), message));
        if let Why::TakenBack { entry: number } = entry.why {
            let known = (number as usize).checked_sub(1).and_then(|n| self.entries.get(n));
            if known.is_none_or(|e| matches!(e.why, Why::TakenBack { .. })) || self.taken_back().contains(&number) {
                return refuse(format!("There is no entry {number} to take back, or it is taken back already."));
            }
        } else if entry.came.is_none() && entry.went.is_none() {
            return refuse("Say how much: nothing came and nothing went.".to_owned());
        }
        if !entry.is_cut_from_what_lay_there() {
            let message =
                format!("{} cannot be left of {}.", entry.came.tell(&self.notion), entry.went.tell(&self.notion));
            return refuse(message);
        }
        if self.now().unwrap_or_default().enter(&entry, &self.entries).is_none() {
            let there = self.there().tell(&self.notion);
            let message = match &entry.why {
                Why::TakenBack { .. } => format!(
                    "It cannot be taken back: of what it put in something is gone since. {} here: {there}.",
                    self.notion.label()
                ),
                Why::PutBack { bag } | Why::Used { bag } => {
                    let with = self.with_bag(&bag.project).tell(&self.notion);
                    format!("With {} lies {with} of {}.", bag.name, self.notion.label())
                }
                _ => format!("{} here: {there}. No more than that can go.", self.notion.label()),
            };
            return refuse(message);
        }
        let mut next = self.clone();
        next.entries.push(entry);
        Ok(next)
    }

    /// Put right: from now on there is `amount` of it in the cupboard.
    ///
    /// # Errors
    /// That is what there is already.
    pub fn corrected_to(&self, amount: &Amount, at: i64) -> Result<Self, FieldProblem> {
        let there = self.there();
        let (mut came, mut went) = (amount.clone(), there.clone());
        // What stays is neither.
        let stay = came.pieces.min(went.pieces);
        (came.pieces, went.pieces) = (came.pieces - stay, went.pieces - stay);
        for length in &there.lengths {
            if let Some(at) = came.lengths.iter().position(|l| l == length) {
                came.lengths.remove(at);
                went = went.minus(&Amount::lengths(vec![*length])).unwrap_or_default();
            }
        }
        self.with(Entry { at, why: Why::Corrected, came, went })
    }

    /// An entry in words: `3 laid with Seed pouch`.
    pub fn tell(&self, entry: &Entry) -> String {
        let (came, went) = (entry.came.tell(&self.notion), entry.went.tell(&self.notion));
        match &entry.why {
            Why::PutIn => format!("{came} put in"),
            Why::Taken { bag, .. } => format!("{went} laid with {}", bag.name),
            Why::PutBack { bag } => format!("{came} back from {}", bag.name),
            Why::Used { bag } if entry.came.is_none() => format!("{went} sewn into {}", bag.name),
            Why::Used { bag } => format!("{went} cut for {}, {came} left", bag.name),
            Why::ThrownAway => format!("{went} thrown away"),
            Why::Corrected if entry.went.is_none() => format!("counted again: {came} more"),
            Why::Corrected if entry.came.is_none() => format!("counted again: {went} fewer"),
            Why::Corrected => format!("counted again: {came} in the place of {went}"),
            Why::TakenBack { entry: number } => {
                let known = (*number as usize).checked_sub(1).and_then(|n| self.entries.get(n));
                let what = known.map(|e| self.tell(e)).unwrap_or_default();
                format!("taken back: {what}")
            }
        }
    }
}
