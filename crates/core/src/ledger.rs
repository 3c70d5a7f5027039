//! Ledgers of what is owned: entries are added and never changed; one that was wrong is taken back by another. What there
//! is follows from them. Nothing is promised twice: what lies with one bag no other can take.
//!
//! [`Entries`] are of any [`Goods`]: notions count pieces and lengths, cloths tell their things apart.

use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use std::mem::take;

/// What a ledger is kept of, so much of it at a time.
pub trait Goods: Clone + Default + PartialEq {
    /// There is none of it.
    fn is_none(&self) -> bool;

    /// All of `less` is in it.
    fn has(&self, less: &Self) -> bool;

    /// With `more` laid to it; nothing where that is beyond counting.
    fn plus(self, more: &Self) -> Option<Self>;

    /// With `less` taken from it; nothing where it is not there.
    fn minus(self, less: &Self) -> Option<Self>;

    /// What comes and what goes where `next` is found in its place; what stays is neither.
    fn changed_to(&self, next: &Self) -> (Self, Self);

    /// Nothing in it is none, or more than there can be.
    fn is_sound(&self) -> bool;

    /// It can be what is left of `whole` once that was cut.
    fn can_be_left_of(&self, whole: &Self) -> bool;
}

/// A bag by its id, and what it was called then.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OfBag {
    /// Id of the project.
    pub project: String,
    /// Its name.
    pub name: String,
}

/// Why something came or went; `N` is what of a bag it is taken for.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
pub enum Why<N> {
    /// Bought, given, found.
    PutIn,
    /// Laid with a bag, for what that needs.
    Taken {
        /// Which bag.
        bag: OfBag,
        /// What of the bag it is for.
        need: N,
    },
    /// Laid back as it was.
    PutBack {
        /// Which bag it lay with.
        bag: OfBag,
    },
    /// What lay with a bag is in it; what came is what was left.
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
#[serde(deny_unknown_fields, bound(serialize = "G: Goods + Serialize, N: Serialize"))]
#[serde(bound(deserialize = "G: Goods + Deserialize<'de>, N: Deserialize<'de>"))]
pub struct Entry<G, N> {
    /// When, in milliseconds since 1970.
    pub at: i64,
    /// Why.
    pub why: Why<N>,
    /// What came into the cupboard.
    #[serde(default, skip_serializing_if = "Goods::is_none")]
    pub came: G,
    /// What went: out of the cupboard, or of what lay with a bag where it was used.
    #[serde(default, skip_serializing_if = "Goods::is_none")]
    pub went: G,
}

/// Why an entry cannot be made.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Refused {
    /// Nothing came and nothing went.
    Nothing,
    /// There is no entry of that number, or it is taken back already.
    NoSuchEntry(u32),
    /// Of what the entry put in something is gone since.
    GoneSince(u32),
    /// So much does not lie with that bag.
    NotWith(OfBag),
    /// So much is not there, or with this it were more than can be counted.
    NotThere,
    /// What is said to be left cannot be left of what was cut.
    NotLeftOfIt,
}

/// The entries of one ledger, numbered from 1 in their order.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(transparent, bound(serialize = "G: Goods + Serialize, N: Serialize"))]
#[serde(bound(deserialize = "G: Goods + Deserialize<'de>, N: Deserialize<'de>"))]
pub struct Entries<G, N>(Vec<Entry<G, N>>);

impl<G, N> Default for Entries<G, N> {
    fn default() -> Self {
        Self(vec![])
    }
}

/// Where everything is after some entries.
#[derive(Clone, Debug, Default)]
struct Where<G> {
    there: G,
    with: BTreeMap<String, G>,
}

impl<G: Goods> Where<G> {
    /// Brings in what an entry changes: from where it takes, and to where it gives. Nothing where there is not so much; then
    /// this is of no use any more.
    fn enter<N>(&mut self, entry: &Entry<G, N>, ledger: &[Entry<G, N>]) -> Option<()> {
        match &entry.why {
            Why::PutIn | Why::ThrownAway | Why::Corrected => self.exchange(&entry.went, &entry.came),
            Why::Taken { bag, .. } => {
                self.exchange(&entry.went, &G::default())?;
                self.lay_with(&bag.project, &entry.went)
            }
            Why::PutBack { bag } => {
                self.take_from(&bag.project, &entry.came)?;
                self.exchange(&G::default(), &entry.came)
            }
            Why::Used { bag } => {
                self.take_from(&bag.project, &entry.went)?;
                self.exchange(&G::default(), &entry.came)
            }
            Why::TakenBack { entry: number } => {
                let undone = ledger.get((*number as usize).checked_sub(1)?)?;
                match &undone.why {
                    Why::PutIn | Why::ThrownAway | Why::Corrected => self.exchange(&undone.came, &undone.went),
                    Why::Taken { bag, .. } => {
                        self.take_from(&bag.project, &undone.went)?;
                        self.exchange(&G::default(), &undone.went)
                    }
                    Why::PutBack { bag } => {
                        self.exchange(&undone.came, &G::default())?;
                        self.lay_with(&bag.project, &undone.came)
                    }
                    Why::Used { bag } => {
                        self.exchange(&undone.came, &G::default())?;
                        self.lay_with(&bag.project, &undone.went)
                    }
                    Why::TakenBack { .. } => None,
                }
            }
        }
    }

    fn exchange(&mut self, went: &G, came: &G) -> Option<()> {
        self.there = take(&mut self.there).minus(went)?.plus(came)?;
        Some(())
    }

    fn lay_with(&mut self, project: &str, goods: &G) -> Option<()> {
        let with = self.with.entry(project.to_owned()).or_default();
        *with = take(with).plus(goods)?;
        Some(())
    }

    fn take_from(&mut self, project: &str, goods: &G) -> Option<()> {
        let with = self.with.entry(project.to_owned()).or_default();
        *with = take(with).minus(goods)?;
        Some(())
    }

    /// What `entry` brought is where it was brought to.
    fn has_what_came<N>(&self, entry: &Entry<G, N>) -> bool {
        match &entry.why {
            Why::PutIn | Why::ThrownAway | Why::Corrected | Why::PutBack { .. } | Why::Used { .. } => {
                self.there.has(&entry.came)
            }
            Why::Taken { bag, .. } => self.with.get(&bag.project).is_some_and(|with| with.has(&entry.went)),
            Why::TakenBack { .. } => false,
        }
    }
}

impl<N> Why<N> {
    /// The bag it is about, if it is about one.
    pub const fn bag(&self) -> Option<&OfBag> {
        match self {
            Self::Taken { bag, .. } | Self::PutBack { bag } | Self::Used { bag } => Some(bag),
            Self::PutIn | Self::ThrownAway | Self::Corrected | Self::TakenBack { .. } => None,
        }
    }
}

impl<G: Goods, N> Entry<G, N> {
    /// That the entry `number` is taken back.
    pub fn back(number: u32, at: i64) -> Self {
        Self { at, why: Why::TakenBack { entry: number }, came: G::default(), went: G::default() }
    }

    /// Id of the bag it is about, if it is about one.
    pub fn project(&self) -> Option<&str> {
        self.why.bag().map(|bag| bag.project.as_str())
    }

    /// Of a bag that is sewn: what is left can be left of what lay with it.
    fn is_cut_from_what_lay_there(&self) -> bool {
        !matches!(self.why, Why::Used { .. }) || self.came.can_be_left_of(&self.went)
    }
}

impl<G: Goods, N: Clone> Entries<G, N> {
    /// There is none yet.
    pub const fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    /// How many there are.
    pub const fn len(&self) -> usize {
        self.0.len()
    }

    /// These, in their order; that they add up is another question.
    pub const fn of(entries: Vec<Entry<G, N>>) -> Self {
        Self(entries)
    }

    /// Each of them.
    pub fn iter(&self) -> std::slice::Iter<'_, Entry<G, N>> {
        self.0.iter()
    }

    /// Each with its number.
    pub fn numbered(&self) -> impl DoubleEndedIterator<Item = (u32, &Entry<G, N>)> {
        self.0.iter().enumerate().map(|(n, entry)| (n as u32 + 1, entry))
    }

    /// The one with this number.
    pub fn get(&self, number: u32) -> Option<&Entry<G, N>> {
        (number as usize).checked_sub(1).and_then(|n| self.0.get(n))
    }

    /// Where everything is; nothing where the entries do not add up, which only a file that was changed by hand does.
    fn now(&self) -> Option<Where<G>> {
        let mut now = Where::default();
        for (n, entry) in self.0.iter().enumerate() {
            now.enter(entry, &self.0[..n])?;
        }
        Some(now)
    }

    /// They add up: never more went than there was, nothing in them is none, and what was left of something can be.
    pub fn add_up(&self) -> bool {
        let sound = |e: &Entry<G, N>| e.came.is_sound() && e.went.is_sound() && e.is_cut_from_what_lay_there();
        self.0.iter().all(sound) && self.now().is_some()
    }

    /// What is in the cupboard.
    pub fn there(&self) -> G {
        self.now().unwrap_or_default().there
    }

    /// What lies with the bag `project`.
    pub fn with_bag(&self, project: &str) -> G {
        self.now().unwrap_or_default().with.remove(project).unwrap_or_default()
    }

    /// What lies with every bag it lies with, and what the bag was called when it was taken.
    pub fn with_bags(&self) -> Vec<(OfBag, G)> {
        let with = self.now().unwrap_or_default().with;
        let named = |project: &str| self.bags().filter(|b| b.project == project).last().cloned();
        with.into_iter().filter(|(_, a)| !a.is_none()).filter_map(|(p, a)| Some((named(&p)?, a))).collect()
    }

    fn bags(&self) -> impl Iterator<Item = &OfBag> {
        self.0.iter().filter_map(|e| e.why.bag())
    }

    /// What of the bag `project` it lies there for.
    pub fn need_of(&self, project: &str) -> Option<&N> {
        self.0.iter().rev().find_map(|e| match &e.why {
            Why::Taken { bag, need } if bag.project == project => Some(need),
            _ => None,
        })
    }

    /// Those that stand: neither taken back nor taking back, with their numbers.
    pub fn standing(&self) -> impl DoubleEndedIterator<Item = (u32, &Entry<G, N>)> {
        let taken_back = self.taken_back();
        self.numbered().filter(move |(n, e)| !taken_back.contains(n) && !matches!(e.why, Why::TakenBack { .. }))
    }

    /// The numbers of the entries that were taken back.
    pub fn taken_back(&self) -> BTreeSet<u32> {
        let of = |e: &Entry<G, N>| if let Why::TakenBack { entry } = e.why { Some(entry) } else { None };
        self.0.iter().filter_map(of).collect()
    }

    /// The numbers of those that can be taken back: what they brought is there.
    pub fn can_be_taken_back(&self) -> BTreeSet<u32> {
        let Some(now) = self.now() else { return BTreeSet::new() };
        self.standing().filter(|(_, entry)| now.has_what_came(entry)).map(|(number, _)| number).collect()
    }

    /// With one more `entry`.
    ///
    /// # Errors
    /// [`Refused`]: it takes more than there is, or nothing, or what was taken back already.
    pub fn with(&self, entry: Entry<G, N>) -> Result<Self, Refused> {
        if let Why::TakenBack { entry: number } = entry.why {
            if !self.standing().any(|(n, _)| n == number) {
                return Err(Refused::NoSuchEntry(number));
            }
        } else if entry.came.is_none() && entry.went.is_none() {
            return Err(Refused::Nothing);
        }
        if !entry.is_cut_from_what_lay_there() {
            return Err(Refused::NotLeftOfIt);
        }
        if self.now().unwrap_or_default().enter(&entry, &self.0).is_none() {
            return Err(match entry.why {
                Why::TakenBack { entry } => Refused::GoneSince(entry),
                Why::PutBack { bag } | Why::Used { bag } => Refused::NotWith(bag),
                _ => Refused::NotThere,
            });
        }
        let mut next = self.clone();
        next.0.push(entry);
        Ok(next)
    }

    /// Put right: from now on `goods` is what is in the cupboard.
    ///
    /// # Errors
    /// That is what is there already.
    pub fn corrected_to(&self, goods: &G, at: i64) -> Result<Self, Refused> {
        let (came, went) = self.there().changed_to(goods);
        self.with(Entry { at, why: Why::Corrected, came, went })
    }
}

/// What an entry says: what came and what went as `told` in words; what one that is taken back said is `undone`.
pub fn tell<N>(why: &Why<N>, came: Option<&str>, went: Option<&str>, undone: &str) -> String {
    let or_none = |told: Option<&str>| told.unwrap_or("none").to_owned();
    match (why, came, went) {
        (Why::PutIn, came, _) => format!("{} put in", or_none(came)),
        (Why::Taken { bag, .. }, _, went) => format!("{} set aside for {}", or_none(went), bag.name),
        (Why::PutBack { bag }, came, _) => format!("{} returned from {}", or_none(came), bag.name),
        (Why::Used { bag }, None, went) => format!("{} sewn into {}", or_none(went), bag.name),
        (Why::Used { bag }, Some(came), None) => format!("{came} left of {}", bag.name),
        (Why::Used { bag }, Some(came), Some(went)) => format!("{went} cut for {}, {came} left", bag.name),
        (Why::ThrownAway, _, went) => format!("{} thrown away", or_none(went)),
        (Why::Corrected, came, None) => format!("counted: {} more", or_none(came)),
        (Why::Corrected, None, Some(went)) => format!("counted: {went} fewer"),
        (Why::Corrected, Some(came), Some(went)) => format!("counted: {came} instead of {went}"),
        (Why::TakenBack { .. }, ..) => format!("undone: {undone}"),
    }
}

/// What is done with something in the cupboard.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum What {
    /// More of it.
    PutIn,
    /// So much is broken, perished or given away.
    ThrowAway,
    /// Counted again: that is all there is; `none` for nothing.
    Correct,
    /// An entry, by its number, was a mistake.
    TakeBack,
    /// It is kept elsewhere.
    Place,
}
