//! Boxing: making a flat bag stand by sewing its lower corners across. Common practice throughout.

use super::field::choice;
use crate::measure::Length;

choice! {
    /// How the corners are boxed.
    Boxing {
        /// Cut out at the table, measured from the raw edges, and seamed.
        CutOut = "cut-out", "Cut out", "at the table, measured from the raw edges, then seamed";
        /// Squares drawn from the seam lines and sewn on the drawn line; trimmed after.
        SeamLines = "seam-lines", "Drawn from the seam lines", "sewn on the drawn line, trimmed after";
        /// Side seam folded on base seam and sewn across where the triangle is as wide as the bag is deep.
        SewnAcross = "sewn-across", "Sewn across", "side seam on base seam; the corner may stay in";
    }
}

/// Which line a drawn square of side `c` is measured from, and what is sewn.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Square {
    /// From the raw edges, cut out and seamed.
    CutFromRawEdges,
    /// From the seam lines, sewn on the drawn line.
    SewnFromSeamLines,
    /// From the raw edges but sewn on the drawn line: the usual mistake.
    SewnFromRawEdges,
}

/// The depth a square of side `square` gives, with seams `seam` at side and base and `boxing` across the corner.
pub fn depth_of_square(square: Length, drawn: Square, seam: Length, boxing: Length) -> Length {
    match drawn {
        Square::CutFromRawEdges => (square + boxing - seam) * 2,
        Square::SewnFromSeamLines => square * 2,
        Square::SewnFromRawEdges => (square - seam) * 2,
    }
}

/// Sewn across: (length of the seam across the triangle, its distance from the tip along the seams).
pub fn across(depth: Length) -> (Length, Length) {
    (depth, depth / 2)
}
