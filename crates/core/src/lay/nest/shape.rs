//! A shape as the nest knows it.

use crate::shape::Point;

/// A shape as it lies, its bounding box from the origin.
pub(in crate::lay) struct Shape {
    pub parts: Vec<Vec<Point>>,
    pub width: i64,
    pub height: i64,
    /// Half a shape, whose left side stays on the fold.
    pub on_fold: bool,
}
