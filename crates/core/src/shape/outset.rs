//! Seam allowance added to an outline: every edge moves outwards, corners stay corners.

use super::{Outline, Point, without_idle_corners};
use crate::measure::Length;
use geo::algorithm::buffer::{Buffer as _, BufferStyle, LineJoin};
use geo::{LineString, Polygon};

/// Corners sharper than this, in radians, are cut off where their point would run far out (about 20°).
const SHARPEST: f64 = 0.35;

/// Counter-clockwise `corners` with every edge `by` further out, their bounding box from the origin; nothing when that is
/// no single outline any more.
pub fn outset(corners: &[Point], by: Length) -> Option<Vec<Point>> {
    let ring: Vec<(f64, f64)> = corners.iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect();
    let style = BufferStyle::new(by.0 as f64).line_join(LineJoin::Miter(SHARPEST));
    let grown = Polygon::new(LineString::from(ring), vec![]).buffer_with_style(style);
    let [only] = grown.0.as_slice() else { return None };
    let mut points: Vec<Point> = only
        .exterior()
        .points()
        .map(|p| Point::new(Length(p.x().round() as i64), Length(p.y().round() as i64)))
        .collect();
    points.dedup();
    let Ok(Outline::Polygon(points)) = Outline::polygon(points) else { return None };
    let points = without_idle_corners(&points);
    let (left, low) = (points.iter().map(|p| p.x).min()?, points.iter().map(|p| p.y).min()?);
    Some(points.iter().map(|p| Point::new(p.x - left, p.y - low)).collect())
}
