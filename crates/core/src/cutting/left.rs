//! What the cuts of a lay leave that is worth keeping.

use super::apart::apart;
use super::steps::{Kept, Step};
use crate::cloth::{Cloth, Flaw, FlawKind, Scrap};
use crate::lay::{ClothLay, Job, Region};
use crate::measure::Length;
use crate::shape::Point;

/// A rectangle that is left whole.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct LeftPart {
    /// Where it lies.
    pub at: Region,
    /// How many alike: two where both layers of folded cloth are apart.
    pub count: u32,
    /// How wide it is, opened out where it still hangs together at the fold.
    pub width: Length,
    /// How long.
    pub height: Length,
    /// It is a length of the cloth, with its selvedges on: what was there beyond what the pieces need.
    pub length: bool,
}

impl LeftPart {
    /// A bare part of `cloth`, of which no fold was slit.
    pub fn of(cloth: &Cloth, at: Region) -> Self {
        let (count, width) = match (cloth.layers, at.x == cloth.left_edge().0) {
            (2, true) => (1, at.width * 2),
            (2, false) => (2, at.width),
            _ => (1, at.width),
        };
        Self { at, count, width: Length(width), height: Length(at.height), length: false }
    }

    /// The length of `cloth` that is left from `from` to `to`, from edge to edge.
    pub(super) fn length_of(cloth: &Cloth, from: i64, to: i64) -> Self {
        let width = cloth.washed_width();
        let at = Region { x: 0, y: from, width: width.0, height: to - from };
        Self { at, count: 1, width: width * i64::from(cloth.layers), height: Length(to - from), length: true }
    }

    /// Whether it is as large as `keep`, either way round.
    pub fn is_worth_keeping(&self, keep: (Length, Length)) -> bool {
        is_worth_keeping((self.width, self.height), keep)
    }
}

/// Whether a bare part is as large as `keep`, either way round.
pub(super) fn is_worth_keeping((width, height): (Length, Length), keep: (Length, Length)) -> bool {
    let is = |w: Length, h: Length| width >= w && height >= h;
    is(keep.0, keep.1) || is(keep.1, keep.0)
}

/// A leftover in one piece of any other outline: where it lies, and the same as a scrap.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LeftShape {
    /// Where it lies on the cloth.
    pub corners: Vec<Point>,
    /// As it comes back.
    pub scrap: Scrap,
}

impl LeftShape {
    /// Width and height over all.
    pub fn size(&self) -> (Length, Length) {
        let span = |of: fn(&Point) -> Length| {
            let all = || self.corners.iter().map(of);
            all().max().unwrap_or_default() - all().min().unwrap_or_default()
        };
        (span(|p| p.x), span(|p| p.y))
    }

    /// The outline `corners` as a scrap with `holes`, if a rectangle worth keeping can be cut from it.
    pub(super) fn worth_keeping(corners: Vec<Point>, holes: &[Vec<Point>], keep: (Length, Length)) -> Option<Self> {
        let hole = |corners: &Vec<Point>| Flaw { kind: FlawKind::Hole, corners: corners.clone() };
        let holes: Vec<Flaw> = holes.iter().map(hole).collect();
        let scrap = Scrap::remnant(corners.clone(), &holes, &[])?;
        scrap.holds().is_some_and(|size| is_worth_keeping(size, keep)).then_some(Self { corners, scrap })
    }
}

/// What the cuts of `lay` leave as rectangles worth keeping, largest first: no cut of this plan runs through them.
pub fn left_whole(job: &Job, lay: &ClothLay) -> Vec<LeftPart> {
    let mut found: Vec<LeftPart> =
        kept(job, lay).into_iter().filter_map(|k| if let Kept::Part(part) = k { Some(part) } else { None }).collect();
    found.sort_by_key(|p| std::cmp::Reverse((p.width * p.height).0));
    found
}

/// Leftovers of `lay` of any other outline from which a rectangle worth keeping can be cut. For folded cloth,
/// whose two layers may hang together anyhow, nothing is listed.
pub fn left_shaped(job: &Job, lay: &ClothLay) -> Vec<LeftShape> {
    kept(job, lay).into_iter().filter_map(|k| if let Kept::Shape(shape) = k { Some(shape) } else { None }).collect()
}

fn kept(job: &Job, lay: &ClothLay) -> Vec<Kept> {
    apart(job, lay).iter().flat_map(Step::keeps).map(|(_, kept)| kept.clone()).collect()
}
