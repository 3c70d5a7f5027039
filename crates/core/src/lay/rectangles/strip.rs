//! One roll as a strip-packing problem: rectangles in whole units on a strip of fixed width, as short as may be.

use crate::cloth::Cloth;
use crate::lay::job::{Cuts, JobPiece};
use crate::lay::reach::Reach;
use crate::lay::stop::Stop;
use crate::lay::turns::{Allowed, allowed_turns};
use crate::measure::Length;
use crate::shape::Turn;

/// Sums are only followed on strips of so many common steps, and of so many kinds.
pub(super) const MOST_STEPS: i64 = 8_192;
const MOST_SUMMED: usize = 200;

/// The largest step both are multiples of.
pub(in crate::lay) const fn common_divisor(mut a: i64, mut b: i64) -> i64 {
    while b != 0 {
        (a, b) = (b, a % b);
    }
    a
}

/// One way a kind of piece may lie, by the size of its bounding box with the gap added.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(in crate::lay) struct Choice {
    pub turn: Turn,
    pub width: i64,
    pub height: i64,
}

/// Pieces that are all alike to the search.
#[derive(Clone, Debug)]
pub(in crate::lay) struct Kind {
    /// Index of the piece in the job.
    pub piece: usize,
    pub count: usize,
    /// Ways to lie; no two of the same size, none wider than the strip.
    pub choices: Vec<Choice>,
}

/// Rectangles to be laid on a strip.
#[derive(Clone, Debug)]
pub(in crate::lay) struct Strip {
    /// Usable width, one gap added: the last gap may hang over the edge.
    pub width: i64,
    pub kinds: Vec<Kind>,
    pub gap: i64,
    pub through: bool,
    /// Ends what is run on it.
    pub stop: Stop,
}

/// One rectangle on the strip.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(in crate::lay) struct Laid {
    pub kind: usize,
    pub choice: usize,
    pub x: i64,
    pub y: i64,
}

impl Strip {
    /// The strip of `cloth` for `pieces`, given as (index in the job, piece, copies).
    pub(in crate::lay) fn new(cloth: &Cloth, pieces: &[(usize, &JobPiece, u32)], gap: Length, cuts: Cuts) -> Self {
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
        Self { gap: gap.0, through: cuts == Cuts::Through, ..Self::of(width, kinds) }.pushed_left()
    }

    /// The same, no wider than pieces side by side can fill: pushed to the left they reach a sum of widths, the rest is
    /// never needed.
    pub(in crate::lay) fn pushed_left(self) -> Self {
        let sums = self.sums(self.width, |c| c.width);
        Self { width: sums.map_or(self.width, |(reach, step)| reach.largest(self.width, step)), ..self }
    }

    /// A strip without gaps, cut freely.
    pub(in crate::lay) fn of(width: i64, kinds: Vec<Kind>) -> Self {
        Self { width, kinds, gap: 0, through: false, stop: Stop::new() }
    }

    /// The same, ended by `stop`.
    pub(in crate::lay) fn until(self, stop: &Stop) -> Self {
        Self { stop: stop.clone(), ..self }
    }

    /// The least sum of heights that is at least `length`; `length` itself where the sums would be too many.
    pub(in crate::lay) fn sum_of_heights(&self, length: i64) -> i64 {
        let tallest = self.kinds.iter().flat_map(|k| &k.choices).map(|c| c.height).max().unwrap_or(0);
        let found = self.sums(length + tallest, |c| c.height).and_then(|(reach, step)| reach.smallest(length, step));
        found.unwrap_or(length)
    }

    /// The sums up to `limit` that one measure of the pieces can reach, in steps of their common divisor.
    fn sums(&self, limit: i64, measure: impl Fn(&Choice) -> i64) -> Option<(Reach, i64)> {
        let step = self.kinds.iter().flat_map(|k| &k.choices).map(&measure).fold(0, common_divisor).max(1);
        if limit / step > MOST_STEPS || self.kinds.len() > MOST_SUMMED || limit <= 0 {
            return None;
        }
        let mut reach = Reach::default();
        reach.start((limit / step) as usize);
        for kind in &self.kinds {
            let sizes: Vec<usize> = kind.choices.iter().map(|c| (measure(c) / step) as usize).collect();
            let smallest = sizes.iter().copied().min().unwrap_or(0).max(1);
            for _ in 0..kind.count.min((limit / step) as usize / smallest) {
                reach.add(&sizes);
            }
        }
        Some((reach, step))
    }

    pub(in crate::lay) fn pieces(&self) -> usize {
        self.kinds.iter().map(|k| k.count).sum()
    }

    /// Least area the pieces cover, gaps included.
    pub(in crate::lay) fn area(&self) -> i128 {
        self.kinds
            .iter()
            .map(|k| {
                k.count as i128
                    * k.choices.iter().map(|c| i128::from(c.width) * i128::from(c.height)).min().unwrap_or(0)
            })
            .sum()
    }

    /// The same rectangles on a strip that lies along this one, as wide as this is long.
    pub(in crate::lay) fn on_side(&self, length: i64) -> Self {
        let mut side = self.clone();
        side.width = length + self.gap;
        for choice in side.kinds.iter_mut().flat_map(|k| &mut k.choices) {
            std::mem::swap(&mut choice.width, &mut choice.height);
        }
        side
    }

    pub(in crate::lay) fn size(&self, laid: &Laid) -> (i64, i64) {
        let choice = self.kinds[laid.kind].choices[laid.choice];
        (choice.width, choice.height)
    }

    /// Length of a lay: the highest top, the gap above it taken off.
    pub(in crate::lay) fn length(&self, lay: &[Laid]) -> i64 {
        lay.iter().map(|l| l.y + self.size(l).1 - self.gap).max().unwrap_or(0)
    }
}

/// The ways `piece` fits between the selvedges of `cloth`, in order of preference.
pub(in crate::lay) fn choices(piece: &JobPiece, cloth: &Cloth, gap: Length, strip_width: i64) -> Vec<Choice> {
    let Allowed { turns, .. } = allowed_turns(piece.grain, piece.print, cloth);
    let limit = cloth.usable_length();
    let mut found: Vec<Choice> = Vec::new();
    for turn in turns {
        let (width, height) = piece.outline.extent(turn, false);
        let choice = Choice { turn, width: (width + gap).0, height: (height + gap).0 };
        let fits = choice.width <= strip_width && limit.is_none_or(|limit| height <= limit);
        if fits && !found.iter().any(|c| (c.width, c.height) == (choice.width, choice.height)) {
            found.push(choice);
        }
    }
    found
}
