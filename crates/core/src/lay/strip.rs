//! One roll as a strip-packing problem: rectangles in whole units on a strip of fixed width, as short as may be.

use super::job::{Cuts, JobPiece};
use super::turns::{Allowed, allowed_turns};
use crate::cloth::Cloth;
use crate::measure::Length;
use crate::shape::Turn;

/// One way a kind of piece may lie, by the size of its bounding box with the gap added.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Choice {
    pub turn: Turn,
    pub width: i64,
    pub height: i64,
}

/// Pieces that are all alike to the search.
#[derive(Clone, Debug)]
pub(super) struct Kind {
    /// Index of the piece in the job.
    pub piece: usize,
    pub count: usize,
    /// Ways to lie; no two of the same size, none wider than the strip.
    pub choices: Vec<Choice>,
}

/// Rectangles to be laid on a strip.
#[derive(Clone, Debug)]
pub(super) struct Strip {
    /// Usable width, one gap added: the last gap may hang over the edge.
    pub width: i64,
    pub kinds: Vec<Kind>,
    pub gap: i64,
    pub through: bool,
}

/// One rectangle on the strip.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Laid {
    pub kind: usize,
    pub choice: usize,
    pub x: i64,
    pub y: i64,
}

impl Strip {
    /// The strip of `cloth` for `pieces`, given as (index in the job, piece, copies).
    pub(super) fn new(cloth: &Cloth, pieces: &[(usize, &JobPiece, u32)], gap: Length, cuts: Cuts) -> Self {
        let width = cloth.usable_width().0 + gap.0;
        let kinds = pieces
            .iter()
            .filter(|(_, _, count)| *count > 0)
            .map(|(index, piece, count)| Kind {
                piece: *index,
                count: *count as usize,
                choices: choices(piece, cloth, gap, width),
            })
            .collect();
        Self { width, kinds, gap: gap.0, through: cuts == Cuts::Through }
    }

    pub(super) fn pieces(&self) -> usize {
        self.kinds.iter().map(|k| k.count).sum()
    }

    /// Least area the pieces cover, gaps included.
    pub(super) fn area(&self) -> i128 {
        self.kinds
            .iter()
            .map(|k| {
                k.count as i128
                    * k.choices.iter().map(|c| i128::from(c.width) * i128::from(c.height)).min().unwrap_or(0)
            })
            .sum()
    }

    pub(super) fn size(&self, laid: &Laid) -> (i64, i64) {
        let choice = self.kinds[laid.kind].choices[laid.choice];
        (choice.width, choice.height)
    }

    /// Length of a lay: the highest top, the gap above it taken off.
    pub(super) fn length(&self, lay: &[Laid]) -> i64 {
        lay.iter().map(|l| l.y + self.size(l).1 - self.gap).max().unwrap_or(0)
    }
}

/// The ways `piece` fits between the selvedges of `cloth`, in order of preference.
pub(super) fn choices(piece: &JobPiece, cloth: &Cloth, gap: Length, strip_width: i64) -> Vec<Choice> {
    let Allowed { turns, .. } = allowed_turns(piece.grain, piece.print, cloth);
    let limit = cloth.usable_length();
    let mut found: Vec<Choice> = Vec::new();
    for turn in turns {
        let (width, height) = piece.outline.extent(turn);
        let choice = Choice { turn, width: (width + gap).0, height: (height + gap).0 };
        let fits = choice.width <= strip_width && limit.is_none_or(|limit| height <= limit);
        if fits && !found.iter().any(|c| (c.width, c.height) == (choice.width, choice.height)) {
            found.push(choice);
        }
    }
    found
}
