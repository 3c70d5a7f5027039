//! Cord, webbing, zips and tape by the length: which cuts come from which length that is owned, and what is bought.
//!
//! An exact one-dimensional cutting problem: cuts are shared among owned lengths so that as much as possible comes from
//! them; the rest is bought as one length off the shop's reel, or as the fewest packs of a fixed length. Depth first,
//! longest cut first, with the room that is left as bound; beyond a limit of nodes the best so far stands and says so.

use crate::bag::{Good, GoodKind};
use crate::measure::{Length, Ruler, ShopStep};

/// Nodes of the search; twenty cuts on a few lengths are far below it.
const NODES: u32 = 200_000;

/// How a shop sells it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Sold {
    /// Off a reel, in steps.
    Reel(ShopStep),
    /// In packs of this length.
    Packs(Length),
}

/// Where each cut comes from, and what is bought.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LinearPlan {
    /// The cuts that come from each owned length, in the order the lengths were given.
    pub owned: Vec<Vec<Length>>,
    /// The cuts that come from each bought length.
    pub bought: Vec<Vec<Length>>,
    /// What is bought: a length off the reel, or each pack.
    pub lengths: Vec<Length>,
    /// Cuts longer than anything that is owned or sold.
    pub unplaced: Vec<Length>,
    /// No other sharing buys less.
    pub proven: bool,
}

impl LinearPlan {
    /// What is bought in all.
    pub fn total(&self) -> Length {
        self.lengths.iter().copied().sum()
    }
}

struct Search<'a> {
    cuts: &'a [Length],
    /// Room left in each bin, owned first.
    room: Vec<Length>,
    /// Bin of each cut so far; nothing is "from the reel".
    at: Vec<Option<usize>>,
    best: Option<(Length, Vec<Option<usize>>)>,
    nodes: u32,
}

impl Search<'_> {
    /// Assigns cut `next` and those after it; `left` is what comes from none of the bins so far.
    fn go(&mut self, next: usize, left: Length) {
        if self.nodes == 0 || self.best.as_ref().is_some_and(|(least, _)| left >= *least) {
            return;
        }
        self.nodes -= 1;
        let Some(&cut) = self.cuts.get(next) else {
            self.best = Some((left, self.at.clone()));
            return;
        };
        // What cannot fit into the room that is left at all comes from elsewhere.
        let rest: Length = self.cuts[next..].iter().copied().sum();
        let room: Length = self.room.iter().copied().sum();
        let least = left + (rest - room).max(Length::ZERO);
        if self.best.as_ref().is_some_and(|(best, _)| least >= *best) {
            return;
        }
        let mut tried: Vec<Length> = Vec::new();
        for bin in 0..self.room.len() {
            // Two bins with the same room are one choice.
            if self.room[bin] < cut || tried.contains(&self.room[bin]) {
                continue;
            }
            tried.push(self.room[bin]);
            self.room[bin] -= cut;
            self.at[next] = Some(bin);
            self.go(next + 1, left);
            self.room[bin] += cut;
        }
        self.at[next] = None;
        self.go(next + 1, left + cut);
    }
}

/// The most of `cuts` that `bins` hold: the bin of each, and whether that is proven.
fn fill(cuts: &[Length], bins: &[Length]) -> (Vec<Option<usize>>, bool) {
    let mut search = Search { cuts, room: bins.to_vec(), at: vec![None; cuts.len()], best: None, nodes: NODES };
    search.go(0, Length::ZERO);
    let proven = search.nodes > 0;
    (search.best.map(|b| b.1).unwrap_or_else(|| vec![None; cuts.len()]), proven)
}

/// Shares `cuts` among what is `owned`, and says what is bought for the rest.
pub fn plan(cuts: &[Length], owned: &[Length], sold: Sold) -> LinearPlan {
    let mut cuts: Vec<Length> = cuts.iter().copied().filter(|c| *c > Length::ZERO).collect();
    cuts.sort_unstable_by(|a, b| b.cmp(a));
    let (at, mut proven) = fill(&cuts, owned);
    let mut from_owned = vec![Vec::new(); owned.len()];
    let mut rest = Vec::new();
    for (cut, bin) in cuts.iter().zip(&at) {
        match bin {
            Some(bin) => from_owned[*bin].push(*cut),
            None => rest.push(*cut),
        }
    }
    let mut made = LinearPlan { owned: from_owned, bought: vec![], lengths: vec![], unplaced: vec![], proven: true };
    if rest.is_empty() {
        made.proven = proven;
        return made;
    }
    match sold {
        Sold::Reel(step) => {
            made.lengths = vec![step.to_buy(rest.iter().copied().sum())];
            made.bought = vec![rest];
        }
        Sold::Packs(pack) => {
            let (fitting, over): (Vec<_>, Vec<_>) = rest.into_iter().partition(|c| *c <= pack);
            made.unplaced = over;
            let sum: i64 = fitting.iter().map(|c| c.0).sum();
            let mut packs = (sum + pack.0 - 1) / pack.0.max(1);
            while !fitting.is_empty() {
                let (at, sure) = fill(&fitting, &vec![pack; packs as usize]);
                if at.iter().all(Option::is_some) {
                    made.bought = vec![Vec::new(); packs as usize];
                    for (cut, bin) in fitting.iter().zip(at) {
                        made.bought[bin.unwrap_or_default()].push(*cut);
                    }
                    made.lengths = vec![pack; packs as usize];
                    break;
                }
                proven &= sure;
                packs += 1;
            }
        }
    }
    made.proven = proven;
    made
}

/// The cuts of `goods`, those of one kind and width together.
pub fn together(goods: &[Good]) -> Vec<(GoodKind, Option<Length>, Vec<Length>)> {
    let mut found: Vec<(GoodKind, Option<Length>, Vec<Length>)> = Vec::new();
    for good in goods {
        let cuts = std::iter::repeat_n(good.length.size, good.count as usize);
        match found.iter_mut().find(|(kind, width, _)| (*kind, *width) == (good.kind, good.width)) {
            Some((.., all)) => all.extend(cuts),
            None => found.push((good.kind, good.width, cuts.collect())),
        }
    }
    found
}

/// What one kind and width of something sold by the length comes to.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Reel {
    /// Its kind.
    pub kind: GoodKind,
    /// Its width, if that matters.
    pub width: Option<Length>,
    /// Lengths at hand: those that were typed, then what of the cupboard lies with the bag.
    pub at_hand: Vec<Length>,
    /// Those that were typed.
    pub typed: Vec<Length>,
    /// Where each cut comes from.
    pub plan: LinearPlan,
}

impl Reel {
    /// What is bought of it.
    pub fn bought(&self) -> Length {
        self.plan.total()
    }

    /// What is cut from each length at hand that is used, as lines: `from 40: 18 + 18, 4 left`.
    pub fn from_hand(&self, ruler: Ruler) -> Vec<String> {
        let show = |l: Length| ruler.show(l).text;
        let used = self.at_hand.iter().zip(&self.plan.owned).filter(|(_, cut)| !cut.is_empty());
        used.map(|(whole, cut)| {
            let cuts: Vec<String> = cut.iter().map(|l| show(*l)).collect();
            let left = *whole - cut.iter().copied().sum::<Length>();
            format!("from {}: {}, {} left", show(*whole), cuts.join(" + "), show(left))
        })
        .collect()
    }
}
