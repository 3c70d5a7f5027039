//! What lies on one bin so far, and the lowest free place for one more shape.

use super::problem::{InnerFit, Nest, Way};
use crate::shape::NoFitRegion;
use std::ops::ControlFlow;

/// A placement of the search.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(in crate::lay) struct KindPlacement {
    pub kind: usize,
    pub way: Way,
    pub x: i64,
    pub y: i64,
}

/// A shape that is in the way.
#[derive(Clone, Copy)]
pub(super) struct Obstacle {
    pub shape: usize,
    pub x: i64,
    pub y: i64,
}

/// A no-fit region moved to where it is.
pub(super) struct Moved<'a> {
    region: &'a NoFitRegion,
    x: i64,
    y: i64,
}

impl Moved<'_> {
    pub(super) fn across(&self, y: i64) -> Option<(i64, i64)> {
        self.region.across(y - self.y).map(|(a, b)| (a + self.x, b + self.x))
    }

    pub(super) fn along(&self, x: i64) -> Option<(i64, i64)> {
        self.region.along(x - self.x).map(|(a, b)| (a + self.y, b + self.y))
    }

    fn low(&self) -> i64 {
        self.region.bounds[1] + self.y
    }

    pub(super) fn top(&self) -> i64 {
        self.region.bounds[3] + self.y
    }
}

/// Corners of a round region whose levels are tried.
const MOST_CORNERS: usize = 8;

/// A free place.
#[derive(Clone, Copy)]
pub(super) struct Lowest {
    /// The level it was found at; no level tried below it was free.
    pub level: i64,
    pub x: i64,
    pub y: i64,
}

/// Working memory kept between calls.
#[derive(Default)]
pub(super) struct Finder {
    levels: Vec<i64>,
    stretches: Vec<(i64, i64)>,
}

impl Finder {
    /// The lowest free place for `shape` on `bin`, the leftmost of these, at a level between `from` and `most`; slid
    /// down and left until it touches.
    pub(super) fn lowest(
        &mut self,
        nest: &Nest,
        bin: usize,
        shape: usize,
        obstacles: &[Obstacle],
        from: i64,
        most: i64,
    ) -> Option<Lowest> {
        let mut found = None;
        self.places(nest, bin, shape, obstacles, (from, most), |place| {
            found = Some(place);
            ControlFlow::Break(())
        });
        found
    }

    /// Calls `visit` with free places as [`Finder::lowest`] finds them, from low to high, in a level from the left.
    /// Slid into place, different ones may come out the same.
    pub(super) fn places(
        &mut self,
        nest: &Nest,
        bin: usize,
        shape: usize,
        obstacles: &[Obstacle],
        (from, most): (i64, i64),
        mut visit: impl FnMut(Lowest) -> ControlFlow<()>,
    ) {
        let inner = nest.inner(bin, shape);
        let [left, low, right, high] = inner.bounds;
        let high = high.min(most);
        if left > right || low > high {
            return;
        }
        let moved = in_the_way(nest, shape, obstacles, inner);
        self.levels.clear();
        self.levels.extend(inner.levels.iter().copied());
        self.levels.push(from);
        for m in &moved {
            self.levels.push(m.top());
            // A slanted region has free places beside its corners too; of a round one some are enough, since what is
            // found is slid down from there.
            let corners = &m.region.corners;
            let slanted = corners.iter().any(|c| c.1 != m.region.bounds[1] && c.1 != m.region.bounds[3]);
            if slanted {
                let every = corners.len().div_ceil(MOST_CORNERS);
                self.levels.extend(corners.iter().step_by(every).map(|c| c.1 + m.y));
                // And where its side meets the edge of the cloth, between two corners.
                self.levels.extend([left, right].into_iter().filter_map(|x| m.along(x)).map(|(_, top)| top));
            }
        }
        self.levels.retain(|y| *y >= from.max(low) && *y <= high);
        self.levels.sort_unstable();
        self.levels.dedup();
        for i in 0..self.levels.len() {
            let y = self.levels[i];
            let Some((from_x, to_x)) = inner.across(y) else { continue };
            self.stretches.clear();
            self.stretches.extend(moved.iter().filter(|m| m.low() < y && m.top() > y).filter_map(|m| m.across(y)));
            self.stretches.sort_unstable();
            // What is free lies before, between and after what is in the way.
            let mut x = from_x;
            for i in 0..=self.stretches.len() {
                let until = self.stretches.get(i).map_or(i64::MAX, |s| s.0);
                if until >= x {
                    if x > to_x {
                        break;
                    }
                    let (x, y_settled) = settle(inner, &moved, x, y);
                    if visit(Lowest { level: y, x, y: y_settled }).is_break() {
                        return;
                    }
                }
                x = x.max(self.stretches.get(i).map_or(x, |s| s.1));
            }
        }
    }
}

pub(super) fn in_the_way<'a>(
    nest: &'a Nest,
    shape: usize,
    obstacles: &[Obstacle],
    inner: &'a InnerFit,
) -> Vec<Moved<'a>> {
    let mut moved: Vec<Moved<'a>> = Vec::with_capacity(obstacles.len() * 2 + inner.missing.len());
    for o in obstacles {
        let nofit = nest.nofit(o.shape, shape);
        moved.extend(nofit.parts.iter().map(|region| Moved { region, x: o.x, y: o.y }));
    }
    moved.extend(inner.missing.iter().map(|region| Moved { region, x: 0, y: 0 }));
    moved
}

/// Down and left by turns, each time until something is touched.
pub(super) fn settled(nest: &Nest, bin: usize, shape: usize, obstacles: &[Obstacle], x: i64, y: i64) -> (i64, i64) {
    let inner = nest.inner(bin, shape);
    let moved = in_the_way(nest, shape, obstacles, inner);
    settle(inner, &moved, x, y)
}

fn settle(inner: &InnerFit, moved: &[Moved<'_>], mut x: i64, mut y: i64) -> (i64, i64) {
    const MOST_TURNS: usize = 12;
    for _ in 0..MOST_TURNS {
        // A stretch is told in whole units to its outside, so what touches a slanted side may lie a little within; then
        // it stays.
        let before = (x, y);
        let planes = || inner.planes.iter().copied();
        let below = moved.iter().filter_map(|m| m.along(x));
        y = stop(y, inner.bounds[1], planes().map(|(nx, ny, c)| (ny, nx, c)), x, below);
        let beside = moved.iter().filter_map(|m| m.across(y));
        x = stop(x, inner.bounds[0], planes(), y, beside);
        if (x, y) == before {
            break;
        }
    }
    (x, y)
}

/// Where a slide from `from` towards less ends: at `edge`, at a slanted side of the hull given as (normal along the
/// slide, normal across it, distance), or at the end of a stretch that is in the way.
fn stop(
    from: i64,
    edge: i64,
    planes: impl Iterator<Item = (f64, f64, f64)>,
    across: i64,
    stretches: impl Iterator<Item = (i64, i64)>,
) -> i64 {
    let sides = planes.filter(|(n, ..)| *n < 0.0).map(|(n, m, c)| ((c - m * across as f64) / n - 1e-3).ceil() as i64);
    let wall = sides.fold(edge, i64::max);
    stretches.filter(|s| s.0 < from).map(|s| s.1).fold(wall, i64::max).min(from)
}
