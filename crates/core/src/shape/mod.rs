//! Outlines of pieces: their size however they are turned, their convex parts, and where two of them touch.
//!
//! For `lay` (what space does this piece take?) and for drawing. Axes: x to the right, y up.

mod circle;
mod convex;
mod nofit;
mod outline;
mod outset;
mod simplify;
mod upright;

pub(crate) use circle::on_circle;
pub use convex::{area_below, convex_hull, convex_parts, inner_rectangle, is_convex, without_idle_corners};
pub use nofit::{NoFit, Region as NoFitRegion};
pub(crate) use outline::SLIVER;
pub use outline::{FURTHEST, MOST_CORNERS, Outline, OutlineError, Point, Turn};
pub use outset::outset;
pub use simplify::simplified;
pub use upright::{holds_upright, largest_upright};
