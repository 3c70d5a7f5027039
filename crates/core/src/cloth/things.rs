//! Things of one cloth as a ledger counts them: those alike together, a scrap itself whatever its letter.

use super::at_hand::MOST_KEPT;
use super::{AtHand, HandForm, put};
use crate::ledger::Goods;
use serde::{Deserialize, Serialize};

/// Things of one cloth. Two are the same where as many alike are in them, in whatever order.
#[derive(Clone, Debug, Default, Serialize, Deserialize)]
#[serde(try_from = "Vec<AtHand>", into = "Vec<AtHand>")]
pub struct Things(Vec<AtHand>);

impl Things {
    /// These, those alike together. A scrap keeps its letter.
    pub fn of(all: &[AtHand]) -> Self {
        let mut things = Self::default();
        all.iter().filter(|t| t.count > 0).for_each(|thing| things.lay(thing));
        things
    }

    /// Each kind once, with how many there are.
    pub fn all(&self) -> &[AtHand] {
        &self.0
    }

    /// How many there are that can stand for `form`, measured or not.
    pub fn many(&self, form: &HandForm) -> u32 {
        self.0.iter().filter(|t| t.form.is_like(form)).map(|t| t.count).fold(0, u32::saturating_add)
    }

    fn count(&self) -> u64 {
        self.0.iter().map(|t| u64::from(t.count)).sum()
    }

    fn lay(&mut self, thing: &AtHand) {
        match self.0.iter_mut().find(|t| alike(t, thing)) {
            Some(known) => known.count = known.count.saturating_add(thing.count),
            None => self.0.push(thing.clone()),
        }
    }

    /// What is in it beyond what `other` has.
    fn beyond(&self, other: &Self) -> Self {
        let left = |thing: &AtHand| {
            let there = other.0.iter().find(|t| alike(t, thing)).map_or(0, |t| t.count);
            AtHand { count: thing.count.saturating_sub(there), ..thing.clone() }
        };
        Self(self.0.iter().map(left).filter(|t| t.count > 0).collect())
    }
}

/// One is counted as the other: the same form, both measured or both guessed.
fn alike(one: &AtHand, other: &AtHand) -> bool {
    one.about == other.about && one.form.is_like(&other.form)
}

impl PartialEq for Things {
    fn eq(&self, other: &Self) -> bool {
        self.0.len() == other.0.len() && self.beyond(other).is_none() && other.beyond(self).is_none()
    }
}

impl Eq for Things {}

impl From<Things> for Vec<AtHand> {
    fn from(things: Things) -> Self {
        things.0
    }
}

impl TryFrom<Vec<AtHand>> for Things {
    type Error = String;

    fn try_from(all: Vec<AtHand>) -> Result<Self, String> {
        let count: u64 = all.iter().map(|t| u64::from(t.count)).sum();
        if count > MOST_KEPT {
            return Err(format!("{count} things of one cloth: at most {MOST_KEPT} are read"));
        }
        Ok(Self::of(&all))
    }
}

impl Goods for Things {
    fn is_none(&self) -> bool {
        self.0.is_empty()
    }

    fn has(&self, less: &Self) -> bool {
        less.0.iter().all(|gone| self.0.iter().any(|t| alike(t, gone) && t.count >= gone.count))
    }

    fn plus(mut self, more: &Self) -> Option<Self> {
        more.0.iter().for_each(|thing| self.lay(thing));
        (self.count() <= MOST_KEPT).then_some(self)
    }

    fn minus(mut self, less: &Self) -> Option<Self> {
        if !self.has(less) {
            return None;
        }
        for gone in &less.0 {
            if let Some(thing) = self.0.iter_mut().find(|t| alike(t, gone)) {
                thing.count -= gone.count;
            }
        }
        self.0.retain(|t| t.count > 0);
        Some(self)
    }

    fn changed_to(&self, next: &Self) -> (Self, Self) {
        (next.beyond(self), self.beyond(next))
    }

    fn is_sound(&self) -> bool {
        self.0.iter().all(|t| t.count > 0)
    }

    /// What is left may be left of cloth that was bought for it, or washed before it was cut.
    fn can_be_left_of(&self, _whole: &Self) -> bool {
        true
    }
}

/// Changes `there` to have what `things` are, in its order as far as it has it.
pub(crate) fn rearrange(there: &mut Vec<AtHand>, things: &Things) {
    let (came, went) = Things::of(there).changed_to(things);
    for gone in went.0 {
        if let Some(at) = there.iter().position(|t| alike(t, &gone)) {
            there[at].count = there[at].count.saturating_sub(gone.count);
        }
    }
    there.retain(|t| t.count > 0);
    came.0.into_iter().for_each(|thing| drop(put(there, thing)));
}
