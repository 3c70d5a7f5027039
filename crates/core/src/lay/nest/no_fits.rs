//! The no-fit regions of all pairs of shapes: each made when it is first asked for, and never more of them than memory
//! allows, since they grow with the square of the shapes.

use super::shape::Shape;
use crate::shape::NoFit;
use std::sync::OnceLock;

/// The most that the regions of one problem may take, in bytes. Shapes whose regions would take more are laid by a
/// plainer outline.
const MOST_BYTES: usize = 96 << 20;
/// About what a region takes for each of its corners, and besides.
const BYTES_A_CORNER: usize = 72;
const BYTES_A_REGION: usize = 200;

/// How closely a shape follows its piece; each holds the one before.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(in crate::lay) enum Detail {
    /// By its outline.
    Exact,
    /// By its outline, a circle one way only: turned it is the same but for roundings.
    RoundOnce,
    /// By the convex hull of its outline.
    Hull,
    /// By the box around it.
    Boxes,
}

impl Detail {
    /// The next plainer one.
    pub(super) const fn plainer(self) -> Self {
        match self {
            Self::Exact => Self::RoundOnce,
            Self::RoundOnce => Self::Hull,
            Self::Hull | Self::Boxes => Self::Boxes,
        }
    }
}

/// Whether the regions of all pairs of `shapes` may be kept.
pub(super) fn are_affordable(shapes: &[Shape]) -> bool {
    let parts: usize = shapes.iter().map(|s| s.parts.len()).sum();
    let corners: usize = shapes.iter().flat_map(|s| &s.parts).map(Vec::len).sum();
    // A part against a part is one region, with the corners of both.
    let bytes = (2 * BYTES_A_CORNER).saturating_mul(parts).saturating_mul(corners);
    bytes.saturating_add(BYTES_A_REGION * parts * parts) <= MOST_BYTES
}

/// A table of regions that fills as it is used.
pub(super) struct NoFits {
    rows: Vec<OnceLock<Row>>,
}

type Row = Box<[OnceLock<Box<NoFit>>]>;

impl NoFits {
    /// An empty table for so many shapes.
    pub(super) fn new(shapes: usize) -> Self {
        Self { rows: (0..shapes).map(|_| OnceLock::new()).collect() }
    }

    /// The region of a pair, by `make` if it is not there yet.
    pub(super) fn get(&self, fixed: usize, moving: usize, make: impl FnOnce() -> NoFit) -> &NoFit {
        let row = self.rows[fixed].get_or_init(|| (0..self.rows.len()).map(|_| OnceLock::new()).collect());
        row[moving].get_or_init(|| Box::new(make()))
    }
}

#[cfg(test)]
mod tests {
    use super::{Detail, are_affordable};
    use crate::lay::nest::problem::Shapes;
    use crate::measure::Length;
    use crate::shape::{Outline, convex_parts};

    /// Circles of as many sizes as there are, as they would be nested.
    fn circles(n: i64, detail: Detail) -> bool {
        let mut shapes = Shapes::new(detail);
        for i in 1..=n {
            shapes.of(convex_parts(&Outline::Circle(Length::inches(i + 16, 16)).corners()), false);
        }
        are_affordable(shapes.all())
    }

    #[test]
    fn a_hundred_circles_are_nested_by_their_outlines_and_three_hundred_by_boxes() {
        assert!(circles(90, Detail::Exact) && !circles(300, Detail::Exact));
        assert!(circles(300, Detail::Boxes));
    }
}
