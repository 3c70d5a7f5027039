//! Zips, rings, hooks and snaps: which of them are there, and how many are bought.

use crate::bag::Hardware;
use crate::measure::Length;
use serde::{Deserialize, Serialize};

/// What is there of one kind and size of something bought by the piece.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PiecesAtHand {
    /// What it is called: `D-ring`.
    pub name: String,
    /// Its size, if that matters.
    pub size: Option<Length>,
    /// How many.
    pub count: u32,
}

/// One line of what a bag needs by the piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct ByThePiece<'a> {
    /// What it needs.
    pub needed: &'a Hardware,
    /// How many of the kind and size are there in all.
    pub at_hand: u32,
    /// How many of those this line takes.
    pub taken: u32,
    /// How many are bought for it.
    pub buy: u32,
}

/// Shares what is `at_hand` among what is `needed`: lines of one kind and size take of it in their order. A ring of another
/// size or a longer zip takes the place of none: whether it would do is the maker's to say.
pub fn by_the_piece<'a>(needed: &'a [Hardware], at_hand: &[PiecesAtHand]) -> Vec<ByThePiece<'a>> {
    let there = |one: &Hardware| -> u32 {
        let same = |at: &&PiecesAtHand| at.name == one.name && at.size == one.size;
        at_hand.iter().filter(same).map(|at| at.count).sum()
    };
    let mut found: Vec<ByThePiece<'a>> = vec![];
    for one in needed {
        let alike = |line: &&ByThePiece<'_>| line.needed.name == one.name && line.needed.size == one.size;
        let gone: u32 = found.iter().filter(alike).map(|line| line.taken).sum();
        let all = there(one);
        let taken = one.count.min(all.saturating_sub(gone));
        found.push(ByThePiece { needed: one, at_hand: all, taken, buy: one.count - taken });
    }
    found
}
