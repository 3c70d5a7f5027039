//! Pieces that have a place on a print: each at the lowest place where its motif falls right.
//!
//! Motifs stand in columns, so a place is a column and a step along it, or, on a print that changes one way only, any
//! place on a line. Bottom-left filling as in `fill`, over those places alone.

use super::board::{KindPlacement, Moved, Obstacle, in_the_way};
use super::fill::{Layout, Style, comes_apart, obstacles};
use super::problem::{InnerFit, Nest};
use crate::cloth::Repeat;
use crate::lay::guillotine::Region;
use crate::lay::job::Job;
use crate::lay::random::Random;
use crate::measure::Length;
use crate::shape::Point;

/// Where a motif falls on a shape as it lies, and where the motifs are, in the bin's own coordinates.
struct Motifs {
    across: Option<i64>,
    along: Option<i64>,
    drop: i64,
    /// Where the shape's lower left corner lies for its motif to fall on one of the print's.
    x: i64,
    y: i64,
}

impl Motifs {
    fn new(repeat: &Repeat, (left, low): (Length, Length), on_shape: Point) -> Self {
        Self {
            across: repeat.across.map(|l| l.0),
            along: repeat.along.map(|l| l.0),
            drop: repeat.drop.0,
            x: (repeat.at.x - left - on_shape.x).0,
            y: (repeat.at.y - low - on_shape.y).0,
        }
    }
}

/// The first of `start`, `start + step` … that is at least `from`.
fn next(start: i64, step: i64, from: i64) -> i64 {
    from + (start - from).rem_euclid(step)
}

/// Which of the free places is taken.
pub(in crate::lay) enum Choose<'a> {
    /// The one with the lowest top.
    Top,
    /// The one with the lowest foot.
    Foot,
    /// Any of those below a length for each bin, else the one with the lowest top.
    Any(&'a mut Random, &'a [i64]),
}

impl Choose<'_> {
    /// Less is better.
    fn key(&mut self, bin: usize, y: i64, x: i64, height: i64) -> (i64, i64, i64) {
        match self {
            Self::Top => Style::Top.key(y, x, height),
            Self::Foot => Style::Foot.key(y, x, height),
            Self::Any(random, below) if y + height <= below[bin] => (i64::MIN, random.below(1 << 20) as i64, x),
            Self::Any(random, _) => (y + height, random.below(1 << 20) as i64, x),
        }
    }
}

/// Lays one placement of each kind in `order` where its motif falls right; kinds whose piece has no place on the print of
/// a bin do not go there. What finds no such place is left.
pub(in crate::lay) fn fill_on_print(nest: &Nest, job: &Job, order: &[usize], mut choose: Choose<'_>) -> Layout {
    let mut layout = Layout { on: vec![vec![]; nest.bins.len()], left: vec![] };
    let mut lying: Vec<Vec<Obstacle>> = (0..nest.bins.len()).map(|g| obstacles(nest, g, &[])).collect();
    // Things are only added: a column that is full up to a place stays full up to there.
    for &kind in order {
        let piece = &job.pieces[nest.kinds[kind].piece];
        let found = nest.kinds[kind].bins.iter().filter(|_| !nest.stop.asked()).find_map(|&g| {
            let bin = &nest.bins[g];
            let (repeat, on_piece) = (job.cloths[bin.cloth].repeat.filter(|r| !r.is_plain())?, piece.on_print?);
            let mut best: Option<((i64, i64, i64), KindPlacement)> = None;
            for &way in &nest.kinds[kind].ways[g] {
                let on_shape = piece.outline.placed_point(on_piece, way.turn, way.mirrored);
                let motifs = Motifs::new(&repeat, (bin.left, bin.low), on_shape);
                let height = nest.shapes[way.shape].height;
                let (inner, moved) =
                    (nest.inner(g, way.shape), in_the_way(nest, way.shape, &lying[g], nest.inner(g, way.shape)));
                let apart = |x: i64, y: i64| {
                    !nest.through || {
                        let of = |shape: usize, x: i64, y: i64| {
                            let shape = &nest.shapes[shape];
                            Region { x, y, width: shape.width, height: shape.height }
                        };
                        let mut boxes: Vec<Region> = lying[g].iter().map(|o| of(o.shape, o.x, o.y)).collect();
                        boxes.push(of(way.shape, x, y));
                        comes_apart(&boxes)
                    }
                };
                motifs.places(inner, &moved, apart, |x, y| {
                    let key = choose.key(g, y, x, height);
                    if best.is_none_or(|(b, _)| key < b) {
                        best = Some((key, KindPlacement { kind, way, x, y }));
                    }
                });
            }
            best.map(|(_, placement)| (g, placement))
        });
        match found {
            Some((g, placement)) => {
                lying[g].push(Obstacle { shape: placement.way.shape, x: placement.x, y: placement.y });
                layout.on[g].push(placement);
            }
            None => layout.left.push(kind),
        }
    }
    layout
}

impl Motifs {
    /// Calls `visit` with the lowest free place of each column of motifs; on a print without columns with the leftmost
    /// free place of the rows, up to the first that has one.
    fn places(
        &self,
        inner: &InnerFit,
        moved: &[Moved<'_>],
        apart: impl Fn(i64, i64) -> bool,
        mut visit: impl FnMut(i64, i64),
    ) {
        let [left, low, right, high] = inner.bounds;
        if left > right || low > high {
            return;
        }
        match (self.across, self.along) {
            (Some(across), _) => {
                let mut x = next(self.x, across, left);
                while x <= right {
                    let column = (x - self.x) / across;
                    if let Some(y) = self.lowest_in_column(inner, moved, (x, column), &apart) {
                        visit(x, y);
                    }
                    x += across;
                }
            }
            (None, Some(along)) => {
                let mut y = next(self.y, along, low);
                // Above everything that lies there a row is free, if the piece fits at all.
                let top = moved.iter().map(Moved::top).max().unwrap_or(low).saturating_add(along);
                while y <= high.min(top) {
                    if let Some(x) = leftmost_in_row(inner, moved, y, &apart) {
                        visit(x, y);
                        return;
                    }
                    y += along;
                }
            }
            (None, None) => {}
        }
    }

    fn lowest_in_column(
        &self,
        inner: &InnerFit,
        moved: &[Moved<'_>],
        (x, column): (i64, i64),
        apart: &impl Fn(i64, i64) -> bool,
    ) -> Option<i64> {
        let [_, low, _, high] = inner.bounds;
        let mut taken: Vec<(i64, i64)> = moved.iter().filter_map(|m| m.along(x)).collect();
        taken.sort_unstable();
        // Free for good above all of it and above every slanted side of the edge.
        let top = taken.iter().map(|t| t.1).chain(inner.levels.iter().copied()).max().unwrap_or(low).max(low);
        let start = self.y + self.drop * column;
        let above = |y: i64| self.along.map_or(y, |along| next(start, along, y));
        let mut y = above(low);
        let mut at = 0;
        while y <= high {
            // The stretches are in order of where they begin: one may still reach over those after it.
            while at < taken.len() && taken[at].0 < y {
                if taken[at].1 > y {
                    y = above(taken[at].1);
                }
                at += 1;
            }
            if y > high {
                return None;
            }
            let on_cloth = inner.across(y).is_some_and(|(from, to)| (from..=to).contains(&x));
            if on_cloth && apart(x, y) {
                return Some(y);
            }
            if y > top {
                return None;
            }
            // On a print without rows the next place worth trying is where something ends.
            y = match self.along {
                Some(along) => y + along,
                None => taken.iter().map(|t| t.1).chain(inner.levels.iter().copied()).filter(|l| *l > y).min()?,
            };
        }
        None
    }
}

fn leftmost_in_row(inner: &InnerFit, moved: &[Moved<'_>], y: i64, apart: &impl Fn(i64, i64) -> bool) -> Option<i64> {
    let (from, to) = inner.across(y)?;
    let mut taken: Vec<(i64, i64)> = moved.iter().filter_map(|m| m.across(y)).collect();
    taken.sort_unstable();
    let mut ends: Vec<i64> = taken.iter().map(|t| t.1).filter(|x| (from..=to).contains(x)).collect();
    ends.push(from);
    ends.sort_unstable();
    let free = |x: &i64| !taken.iter().any(|t| t.0 < *x && *x < t.1);
    ends.into_iter().find(|x| free(x) && apart(*x, y))
}
