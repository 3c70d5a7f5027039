//! Where sizes are taken hold of on the drawing of a bag.

use super::canvas::Drawing;

/// A size that can be taken hold of on the drawing.
#[derive(Clone, Debug, PartialEq)]
pub struct Anchor {
    /// The bag's field.
    pub field: &'static str,
    /// One end.
    pub x1: f64,
    /// One end.
    pub y1: f64,
    /// The end that is dragged.
    pub x2: f64,
    /// The end that is dragged.
    pub y2: f64,
    /// How far the dragged end moves, in pixels across and down, for one inch or centimetre more.
    pub per_unit: (f64, f64),
}

/// The drawing and its anchors.
#[derive(Clone, Debug, PartialEq)]
pub struct BagDrawing {
    /// The drawing.
    pub drawing: Drawing,
    /// The sizes on it.
    pub anchors: Vec<Anchor>,
}
