//! What is left of a cloth: rectangles worth keeping first, then what remains as polygons.

use super::answer::Offcut;
use super::guillotine::Region;
use crate::measure::Length;
use crate::shape::Point;
use geo::algorithm::bool_ops::unary_union;
use geo::{Area as _, BooleanOps, BoundingRect, Intersects as _, LineString, MultiPolygon, Polygon};
use std::panic::{AssertUnwindSafe, catch_unwind};

/// Between more pieces than this no offcut is looked for, only beyond them: the look is cubic in the pieces.
const MOST_EXAMINED: usize = 200;
/// Crumbs smaller than this across are not told of.
const CRUMB: Length = Length::CENTIMETRE;

/// The largest bare rectangles of `region`, largest first, none overlapping another or a piece, each at least `keep`
/// one way round. Greedy: the largest is taken, then the largest of what remains.
pub(super) fn keepable(region: Region, pieces: &[Region], keep: (Length, Length)) -> Vec<Offcut> {
    let mut taken: Vec<Region> = pieces.to_vec();
    if taken.len() > MOST_EXAMINED {
        let top = taken.iter().map(Region::top).max().unwrap_or(region.y);
        taken = vec![region.split_across(top).0];
    }
    let mut found = Vec::new();
    // A handful of good offcuts is all a maker keeps of one cloth.
    while found.len() < 6 {
        let Some(best) = largest_bare(region, &taken, keep) else { break };
        taken.push(best);
        found.push(Offcut::Rect {
            x: Length(best.x),
            y: Length(best.y),
            width: Length(best.width),
            height: Length(best.height),
        });
    }
    found
}

/// Boxes that together cover a convex shape, closer than its bounding box does.
pub(super) fn bands(corners: &[Point]) -> Vec<Region> {
    const BANDS: i64 = 12;
    let low = corners.iter().map(|p| p.y.0).min().unwrap_or(0);
    let high = corners.iter().map(|p| p.y.0).max().unwrap_or(0);
    let is_box = corners.len() == 4 && corners.iter().all(|p| p.y.0 == low || p.y.0 == high);
    let step = if is_box { high - low } else { (high - low) / BANDS + 1 };
    let mut found = Vec::new();
    let mut y = low;
    while y < high {
        let top = (y + step).min(high);
        // The widest stretch of a convex shape over a band is at its ends or at a corner in it.
        let mut xs: Vec<f64> = Vec::new();
        for i in 0..corners.len() {
            let (a, b) = (corners[i], corners[(i + 1) % corners.len()]);
            if (y..=top).contains(&a.y.0) {
                xs.push(a.x.0 as f64);
            }
            for level in [y, top] {
                if (a.y.0 < level && b.y.0 > level) || (a.y.0 > level && b.y.0 < level) {
                    let t = (level - a.y.0) as f64 / (b.y.0 - a.y.0) as f64;
                    xs.push(a.x.0 as f64 + t * (b.x.0 - a.x.0) as f64);
                }
            }
        }
        let left = xs.iter().copied().fold(f64::INFINITY, f64::min).floor() as i64;
        let right = xs.iter().copied().fold(f64::NEG_INFINITY, f64::max).ceil() as i64;
        if right > left {
            found.push(Region { x: left, y, width: right - left, height: top - y });
        }
        y = top;
    }
    found
}

/// What remains of `whole` once `taken` and the rectangles of `kept` are off, crumbs left out, largest first. Nothing
/// where it cannot be worked out: outlines that touch in many places bring the library of boolean operations to grief,
/// seldom, and then it panics or leaves a piece in what remains. Taken off one by one they may still come out.
pub(super) fn remaining(whole: &[Vec<Point>], taken: &[Vec<Point>], kept: &[Offcut]) -> Option<Vec<Offcut>> {
    let whole: Vec<Polygon<f64>> = whole.iter().map(|s| polygon(s)).collect();
    let mut off: Vec<Polygon<f64>> = taken.iter().map(|s| polygon(s)).collect();
    off.extend(kept.iter().map(|o| polygon(&o.corners())));
    let together = |off: &[Polygon<f64>]| unary_union(&whole).difference(&unary_union(off));
    let one_by_one = |off: &[Polygon<f64>]| off.iter().fold(unary_union(&whole), |left, p| left.difference(p));
    let by = |way: &dyn Fn(&[Polygon<f64>]) -> MultiPolygon<f64>| -> Option<Vec<Offcut>> {
        catch_unwind(AssertUnwindSafe(|| {
            let found = without_crumbs(way(&off));
            found.iter().all(|part| off.iter().all(|piece| !overlap(&polygon(part), piece))).then_some(found)
        }))
        .ok()
        .flatten()
        .map(|found| found.into_iter().map(Offcut::Polygon).collect())
    };
    by(&together).or_else(|| by(&one_by_one))
}

/// An outline with the holes that were cut out of it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Rest {
    /// Its corners, counter-clockwise.
    pub corners: Vec<Point>,
    /// The corners of each hole, counter-clockwise.
    pub holes: Vec<Vec<Point>>,
}

/// What remains in one each once `taken` is off `whole`, crumbs left out, largest first; nothing where that cannot be
/// worked out, as in [`remaining`].
pub(super) fn rests(whole: &[Point], taken: &[Vec<Point>]) -> Vec<Rest> {
    let off: Vec<Polygon<f64>> = taken.iter().map(|s| polygon(s)).collect();
    let found = catch_unwind(AssertUnwindSafe(|| polygon(whole).difference(&unary_union(&off))))
        .unwrap_or(MultiPolygon(vec![]));
    let mut found: Vec<(f64, Rest)> = found
        .into_iter()
        .filter(|part| !is_crumb(part))
        .map(|part| {
            let holes = part.interiors().iter().map(corners_of_ring).filter(|hole| hole.len() > 2).collect();
            (part.unsigned_area(), Rest { corners: corners_of_ring(part.exterior()), holes })
        })
        .filter(|(_, rest)| rest.corners.len() > 2)
        .collect();
    found.sort_by(|a, b| b.0.total_cmp(&a.0));
    found.into_iter().map(|(_, rest)| rest).collect()
}

/// Smaller than a crumb, or no wider: thin strips are crumbs however long they are.
fn is_crumb(part: &Polygon<f64>) -> bool {
    let (crumb, area) = (CRUMB.0 as f64, part.unsigned_area());
    part.bounding_rect().is_none_or(|a| area < crumb * crumb || area < crumb * a.width().max(a.height()) / 2.0)
}

/// The corners of a ring in whole units, counter-clockwise.
fn corners_of_ring(ring: &LineString<f64>) -> Vec<Point> {
    let corners = ring.points().map(|p| Point::new(Length(p.x().round() as i64), Length(p.y().round() as i64)));
    let mut corners = crate::shape::without_idle_corners(&corners.collect::<Vec<_>>());
    let doubled: i128 = (0..corners.len())
        .map(|i| {
            let (a, b) = (corners[i], corners[(i + 1) % corners.len()]);
            i128::from(a.x.0) * i128::from(b.y.0) - i128::from(a.y.0) * i128::from(b.x.0)
        })
        .sum();
    if doubled < 0 {
        corners.reverse();
    }
    corners
}

/// More than a sliver of two units, since results are rounded to units.
fn overlap(a: &Polygon<f64>, b: &Polygon<f64>) -> bool {
    let (Some(box_a), Some(box_b)) = (a.bounding_rect(), b.bounding_rect()) else { return false };
    box_a.intersects(&box_b) && a.intersection(b).unsigned_area() > (box_a.width() + box_a.height()) * 2.0
}

/// The corners of each part that is worth telling, largest first.
fn without_crumbs(left: MultiPolygon<f64>) -> Vec<Vec<Point>> {
    let mut found: Vec<(f64, Vec<Point>)> = Vec::new();
    for part in left {
        without_holes(part, &mut found);
    }
    found.sort_by(|a, b| b.0.total_cmp(&a.0));
    found.into_iter().map(|(_, corners)| corners).collect()
}

fn polygon(corners: &[Point]) -> Polygon<f64> {
    let ring: Vec<(f64, f64)> = corners.iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect();
    Polygon::new(LineString::from(ring), vec![])
}

/// A polygon with a hole is cut in two through the hole until none has one.
fn without_holes(part: Polygon<f64>, found: &mut Vec<(f64, Vec<Point>)>) {
    if is_crumb(&part) {
        return;
    }
    let (area, Some(around)) = (part.unsigned_area(), part.bounding_rect()) else { return };
    if let Some(hole) = part.interiors().first().and_then(BoundingRect::bounding_rect) {
        let at = hole.center().x;
        let (low, high) = (around.min(), around.max());
        for (a, b) in [(low.x, at), (at, high.x)] {
            let half = geo::Rect::new((a, low.y), (b, high.y)).to_polygon();
            let halves: MultiPolygon<f64> = part.intersection(&half);
            for half in halves {
                without_holes(half, found);
            }
        }
        return;
    }
    found.push((area, corners_of_ring(part.exterior())));
}

fn worth_keeping(r: &Region, keep: (Length, Length)) -> bool {
    let (a, b) = (keep.0.0, keep.1.0);
    (r.width >= a && r.height >= b) || (r.width >= b && r.height >= a)
}

/// Between any two heights at which something begins or ends, the widest bare stretches over the whole band.
fn largest_bare(region: Region, taken: &[Region], keep: (Length, Length)) -> Option<Region> {
    let mut heights: Vec<i64> = taken.iter().flat_map(|t| [t.y, t.top()]).collect();
    heights.extend([region.y, region.top()]);
    heights.retain(|y| (region.y..=region.top()).contains(y));
    heights.sort_unstable();
    heights.dedup();
    let mut best: Option<Region> = None;
    for (i, &low) in heights.iter().enumerate() {
        for &high in &heights[i + 1..] {
            let most = i128::from(region.width) * i128::from(high - low);
            if best.is_some_and(|b| area(&b) >= most) {
                continue;
            }
            let mut spans: Vec<(i64, i64)> =
                taken.iter().filter(|t| t.y < high && t.top() > low).map(|t| (t.x, t.right())).collect();
            spans.push((region.right(), region.right()));
            spans.sort_unstable();
            let mut from = region.x;
            for (start, end) in spans {
                let bare = Region { x: from, y: low, width: start - from, height: high - low };
                if bare.width > 0 && worth_keeping(&bare, keep) && best.is_none_or(|b| area(&bare) > area(&b)) {
                    best = Some(bare);
                }
                from = from.max(end);
            }
        }
    }
    best
}

fn area(r: &Region) -> i128 {
    i128::from(r.width) * i128::from(r.height)
}
