//! The parts a cloth comes apart into, each with its own outline.
//!
//! A part is a rectangle from whose corner nearest the maker's left pieces may already have been cut. Every line across
//! or along such a part meets it in one stretch, and both sides of that line are parts of the same kind, as is what
//! remains after another piece has been cut out of that corner.

use crate::lay::Region;
use crate::measure::Length;
use crate::shape::Point;
use std::fmt;

/// The letter of a part: A is the whole cloth. I and O are left out, since on paper they read as figures.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct PartName(pub u32);

impl PartName {
    /// The whole cloth.
    pub const WHOLE: Self = Self(0);
}

impl fmt::Display for PartName {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        const LETTERS: &[u8; 24] = b"ABCDEFGHJKLMNPQRSTUVWXYZ";
        let letter = |n: u32| char::from(LETTERS[n as usize % 24]);
        let (mut n, mut text) = (self.0, String::new());
        loop {
            text.insert(0, letter(n));
            if n < 24 {
                return f.write_str(&text);
            }
            n = n / 24 - 1;
        }
    }
}

/// A corner of a part that was cut out: everything left of `right` and nearer than `top`.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct CornerOut {
    /// Its right side.
    pub right: i64,
    /// Its far side.
    pub top: i64,
}

/// A straight stretch of the edge of a part: upright at `at` for the left edges, level for the near ones.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct EdgeStretch {
    /// Across for a left edge, along for a near one.
    pub at: i64,
    /// Where it begins.
    pub from: i64,
    /// Where it ends.
    pub to: i64,
}

impl EdgeStretch {
    /// How long it is.
    pub const fn length(&self) -> i64 {
        self.to - self.from
    }
}

/// The outline of a part, on the cloth as washed.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct PartShape {
    /// The rectangle around it.
    pub around: Region,
    /// What is cut out of its corner: the further to the right, the nearer its far side. None reaches across the whole part.
    pub out: Vec<CornerOut>,
}

impl PartShape {
    /// A whole rectangle.
    pub const fn whole(around: Region) -> Self {
        Self { around, out: vec![] }
    }

    /// Whether it is a rectangle.
    pub fn is_whole(&self) -> bool {
        self.out.is_empty()
    }

    /// Where it begins at the height `y`, just beyond it.
    pub fn left_at(&self, y: i64) -> i64 {
        self.out.iter().filter(|c| c.top > y).map(|c| c.right).max().unwrap_or(self.around.x)
    }

    /// Where it begins at `x`, just right of it.
    pub fn near_at(&self, x: i64) -> i64 {
        self.out.iter().filter(|c| c.right > x).map(|c| c.top).max().unwrap_or(self.around.y)
    }

    /// The nearer and the farther part of a line that runs `across` or along, at `at`.
    pub fn split(&self, across: bool, at: i64) -> (Self, Self) {
        let (near, far) = self.around.split(across, at);
        (self.within(near), self.within(far))
    }

    /// What of it lies in `region`, which has its right and far sides inside the part.
    pub fn within(&self, region: Region) -> Self {
        let (mut x, mut y) = (region.x, region.y);
        for c in &self.out {
            // Nothing of the part is left of a corner that reaches as far as the region does, or nearer than one as wide.
            if c.top >= region.top() {
                x = x.max(c.right);
            }
            if c.right >= region.right() {
                y = y.max(c.top);
            }
        }
        let around = Region { x, y, width: region.right() - x, height: region.top() - y };
        let out =
            self.out.iter().filter(|c| c.right > x && c.top > y && c.right < around.right() && c.top < around.top());
        Self { around, out: out.copied().collect() }
    }

    /// The corner that ends at `right` and `top`, and what remains of the part without it.
    pub fn without_corner(&self, right: i64, top: i64) -> (Self, Self) {
        let a = self.around;
        let corner = self.within(Region { x: a.x, y: a.y, width: right - a.x, height: top - a.y });
        let mut out: Vec<CornerOut> = self.out.iter().filter(|c| c.right > right || c.top > top).copied().collect();
        out.push(CornerOut { right, top });
        out.sort_by_key(|c| c.right);
        (corner, Self { around: a, out })
    }

    /// Its left edges, from the outermost: what a ruler can be set against for a cut along.
    pub fn left_edges(&self) -> Vec<EdgeStretch> {
        self.edges(self.around.x, self.around.y, self.around.top(), |c| (c.right, c.top))
    }

    /// Its near edges, from the outermost: what a ruler can be set against for a cut across.
    pub fn near_edges(&self) -> Vec<EdgeStretch> {
        self.edges(self.around.y, self.around.x, self.around.right(), |c| (c.top, c.right))
    }

    /// From the outermost edge at `first`, which ends at `end`, inwards: each edge stands at a corner's own reach, and
    /// begins where the next corner's does.
    fn edges(&self, first: i64, low: i64, end: i64, of: impl Fn(&CornerOut) -> (i64, i64)) -> Vec<EdgeStretch> {
        let mut corners: Vec<(i64, i64)> = self.out.iter().map(of).collect();
        corners.sort_unstable();
        let (mut found, mut at, mut to) = (vec![], first, end);
        for (reach, level) in corners {
            found.push(EdgeStretch { at, from: level, to });
            (at, to) = (reach, level);
        }
        found.push(EdgeStretch { at, from: low, to });
        found
    }

    /// Its corners, counter-clockwise from the left end of the near edge.
    pub fn corners(&self) -> Vec<Point> {
        let a = self.around;
        let point = |x: i64, y: i64| Point::new(Length(x), Length(y));
        let mut found = vec![point(self.near_edges()[0].from, a.y), point(a.right(), a.y), point(a.right(), a.top())];
        let lefts = self.left_edges();
        found.push(point(a.x, a.top()));
        for pair in lefts.windows(2) {
            found.push(point(pair[0].at, pair[0].from));
            found.push(point(pair[1].at, pair[0].from));
        }
        if self.is_whole() {
            return found;
        }
        // The last edge runs down to the near edge, where the list began.
        found.dedup();
        found
    }
}
