//! How a print comes again and again over a cloth.

use crate::measure::Length;
use crate::shape::Point;
use serde::{Deserialize, Serialize};

/// Where the motifs of a print lie, on the cloth as washed. Along an axis without a repeat the print is the same
/// everywhere, as a stripe is along its own length.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize)]
pub struct Repeat {
    /// From a motif to the next one across the width.
    pub across: Option<Length>,
    /// From a motif to the next one along the length.
    pub along: Option<Length>,
    /// How much further along each next column of motifs stands: half of `along` in a half-drop print.
    pub drop: Length,
    /// Where the middle of one motif lies, in the cloth's own axes.
    pub at: Point,
}

impl Repeat {
    /// Whether any place on the cloth differs from another.
    pub const fn is_plain(&self) -> bool {
        self.across.is_none() && self.along.is_none()
    }
}
