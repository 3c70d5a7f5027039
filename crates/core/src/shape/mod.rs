//! Outlines of pieces: their size however they are turned, and the points they are drawn and checked by.
//!
//! For `lay` (what space does this piece take?) and for drawing. Axes: x to the right, y up.

mod outline;

pub use outline::{Outline, OutlineError, Point, Turn};
