//! Fewer corners for an outline that was traced or drawn with many: those that can go without moving any edge by more
//! than a tolerance (Douglas and Peucker 1973; Ramer 1972).

use super::Point;
use crate::measure::Length;

/// The `corners` that tell a closed outline to within `tolerance`; every other corner lies no further than that from the
/// edge that takes its place.
pub fn simplified(corners: &[Point], tolerance: Length) -> Vec<Point> {
    if corners.len() < 4 {
        return corners.to_vec();
    }
    // Two corners far from each other stay in any case, so that both halves are open lines.
    let far = (0..corners.len()).max_by_key(|&i| square(corners[0], corners[i])).unwrap_or(0);
    let at = |i: usize| corners[i % corners.len()];
    let mut kept = vec![false; corners.len()];
    (kept[0], kept[far]) = (true, true);
    let mut stretches = vec![(0, far), (far, corners.len())];
    while let Some((from, to)) = stretches.pop() {
        let off = |i: usize| distance(at(i), at(from), at(to));
        let Some((off, worst)) = (from + 1..to).map(|i| (off(i), i)).max_by(|a, b| a.0.total_cmp(&b.0)) else {
            continue;
        };
        if off > tolerance.0 as f64 {
            kept[worst] = true;
            stretches.extend([(from, worst), (worst, to)]);
        }
    }
    corners.iter().zip(&kept).filter(|(_, kept)| **kept).map(|(corner, _)| *corner).collect()
}

fn square(a: Point, b: Point) -> i128 {
    let (dx, dy) = (i128::from((b.x - a.x).0), i128::from((b.y - a.y).0));
    dx * dx + dy * dy
}

/// How far `p` is from the segment from `a` to `b`, in units.
fn distance(p: Point, a: Point, b: Point) -> f64 {
    let (dx, dy) = ((b.x - a.x).0 as f64, (b.y - a.y).0 as f64);
    let (px, py) = ((p.x - a.x).0 as f64, (p.y - a.y).0 as f64);
    let length = dx * dx + dy * dy;
    let along = if length == 0.0 { 0.0 } else { ((px * dx + py * dy) / length).clamp(0.0, 1.0) };
    let (x, y) = (px - along * dx, py - along * dy);
    (x * x + y * y).sqrt()
}
