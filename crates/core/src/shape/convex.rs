//! Convex parts of a polygon: what touching and overlap are computed on, since two convex shapes have a simple no-fit
//! region.
//!
//! Ears are clipped off (Meisters 1975, "Polygons have ears"), then triangles are joined again while they stay convex
//! (Hertel and Mehlhorn 1983). All in whole units: the parts share their edges exactly.

use super::Point;
use crate::hashed::HashMap;
use crate::measure::Length;
use std::collections::BTreeSet;

/// Twice the area of the triangle, positive when it turns left.
fn turn_of(a: Point, b: Point, c: Point) -> i128 {
    let (ux, uy) = (i128::from((b.x - a.x).0), i128::from((b.y - a.y).0));
    let (vx, vy) = (i128::from((c.x - a.x).0), i128::from((c.y - a.y).0));
    ux * vy - uy * vx
}

/// The corners without repeated ones and ones in the middle of a straight side.
pub fn without_idle_corners(corners: &[Point]) -> Vec<Point> {
    let mut kept: Vec<Point> = corners.to_vec();
    kept.dedup();
    while kept.len() > 1 && kept.first() == kept.last() {
        kept.pop();
    }
    let mut i = 0;
    while kept.len() > 3 && i < kept.len() {
        let n = kept.len();
        if turn_of(kept[(i + n - 1) % n], kept[i], kept[(i + 1) % n]) == 0 {
            kept.remove(i);
            i = i.saturating_sub(1);
        } else {
            i += 1;
        }
    }
    kept
}

/// Whether counter-clockwise `corners` never turn right.
pub fn is_convex(corners: &[Point]) -> bool {
    let n = corners.len();
    (0..n).all(|i| turn_of(corners[i], corners[(i + 1) % n], corners[(i + 2) % n]) >= 0)
}

/// The convex hull, counter-clockwise (Andrew 1979).
pub fn convex_hull(corners: &[Point]) -> Vec<Point> {
    let mut sorted = corners.to_vec();
    sorted.sort_by_key(|p| (p.x, p.y));
    sorted.dedup();
    if sorted.len() < 3 {
        return sorted;
    }
    let half = |points: &mut dyn Iterator<Item = Point>| {
        let mut chain: Vec<Point> = Vec::new();
        for p in points {
            while chain.len() > 1 && turn_of(chain[chain.len() - 2], chain[chain.len() - 1], p) <= 0 {
                chain.pop();
            }
            chain.push(p);
        }
        chain.pop();
        chain
    };
    let mut hull = half(&mut sorted.iter().copied());
    hull.extend(half(&mut sorted.iter().rev().copied()));
    hull
}

/// Convex polygons that cover a simple counter-clockwise polygon and nothing else, sharing at most edges.
pub fn convex_parts(corners: &[Point]) -> Vec<Vec<Point>> {
    let corners = without_idle_corners(corners);
    if corners.len() < 3 {
        return vec![];
    }
    if is_convex(&corners) {
        return vec![corners];
    }
    let parts: Vec<Vec<usize>> = joined(triangles(&corners), &corners);
    parts
        .into_iter()
        .map(|part| without_idle_corners(&part.into_iter().map(|i| corners[i]).collect::<Vec<_>>()))
        .collect()
}

fn triangles(corners: &[Point]) -> Vec<Vec<usize>> {
    let mut left: Vec<usize> = (0..corners.len()).collect();
    let mut found = Vec::with_capacity(corners.len());
    while left.len() > 3 {
        let n = left.len();
        let at = |i: usize| corners[left[i % n]];
        let ear = (0..n).find(|&i| {
            let (a, b, c) = (at(i + n - 1), at(i), at(i + 1));
            let span = |of: fn(&Point) -> Length| {
                let (a, b, c) = (of(&a), of(&b), of(&c));
                a.min(b).min(c)..=a.max(b).max(c)
            };
            let (across, up) = (span(|p| p.x), span(|p| p.y));
            let inside = |p: Point| {
                (across.contains(&p.x) && up.contains(&p.y))
                    && p != a
                    && p != b
                    && p != c
                    && turn_of(a, b, p) >= 0
                    && turn_of(b, c, p) >= 0
                    && turn_of(c, a, p) >= 0
            };
            turn_of(a, b, c) > 0 && !(0..n).any(|j| inside(at(j)))
        });
        // A simple polygon always has an ear; what is left of one that only touches itself has no area.
        let Some(i) = ear else {
            let idle = (0..n).find(|&i| turn_of(at(i + n - 1), at(i), at(i + 1)) <= 0).unwrap_or(0);
            left.remove(idle);
            continue;
        };
        found.push(vec![left[(i + n - 1) % n], left[i], left[(i + 1) % n]]);
        left.remove(i);
    }
    if left.len() == 3 && turn_of(corners[left[0]], corners[left[1]], corners[left[2]]) > 0 {
        found.push(left);
    }
    found
}

/// Joins parts as long as any two stay convex, always the first pair in order.
fn joined(mut parts: Vec<Vec<usize>>, corners: &[Point]) -> Vec<Vec<usize>> {
    let mut beside = beside(&parts);
    // Pairs not tried yet: what was tried in vain is tried again only when one of the two has changed.
    let mut untried: BTreeSet<(usize, usize)> =
        beside.iter().enumerate().flat_map(|(n, others)| others.iter().map(move |&m| pair(n, m))).collect();
    while let Some((i, j)) = untried.pop_first() {
        let Some(both) = join(&parts[i], &parts[j], corners) else { continue };
        parts[i] = both;
        let gone = std::mem::take(&mut beside[j]);
        for m in gone {
            beside[m].remove(&j);
            untried.remove(&pair(j, m));
            if m != i {
                beside[m].insert(i);
                beside[i].insert(m);
            }
        }
        untried.extend(beside[i].iter().map(|&m| pair(i, m)));
        // The last part takes the place of the one that is gone.
        let last = parts.len() - 1;
        parts.swap_remove(j);
        let others = beside.swap_remove(j);
        debug_assert!(others.is_empty());
        if j < last {
            for m in beside[j].clone() {
                beside[m].remove(&last);
                beside[m].insert(j);
                if untried.remove(&pair(last, m)) {
                    untried.insert(pair(j, m));
                }
            }
        }
    }
    parts
}

const fn pair(a: usize, b: usize) -> (usize, usize) {
    if a < b { (a, b) } else { (b, a) }
}

/// Of each part, those that share an edge with it.
fn beside(parts: &[Vec<usize>]) -> Vec<BTreeSet<usize>> {
    let edges = |part: &[usize]| -> Vec<(usize, usize)> {
        (0..part.len()).map(|i| (part[i], part[(i + 1) % part.len()])).collect()
    };
    let owners: HashMap<(usize, usize), usize> =
        parts.iter().enumerate().flat_map(|(n, part)| edges(part).into_iter().map(move |e| (e, n))).collect();
    let across = |part: &Vec<usize>| edges(part).iter().filter_map(|&(a, b)| owners.get(&(b, a)).copied()).collect();
    parts.iter().map(across).collect()
}

/// Two parts as one across a shared edge, if that is convex.
fn join(a: &[usize], b: &[usize], corners: &[Point]) -> Option<Vec<usize>> {
    for i in 0..a.len() {
        let (from, to) = (a[i], a[(i + 1) % a.len()]);
        let Some(j) = (0..b.len()).find(|&j| b[j] == to && b[(j + 1) % b.len()] == from) else { continue };
        // Round a from `to`, then round b from `from`, leaving out the shared edge.
        let mut both: Vec<usize> = (0..a.len()).map(|k| a[(i + 1 + k) % a.len()]).collect();
        both.extend((0..b.len() - 2).map(|k| b[(j + 2 + k) % b.len()]));
        let points: Vec<Point> = both.iter().map(|&k| corners[k]).collect();
        if is_convex(&points) {
            return Some(both);
        }
    }
    None
}

/// The largest rectangle with sides along the axes that fits the outline with these corners, found among the lines
/// through its corners: left, low, width and height. A polygon of many corners is not searched: nothing is claimed of it.
pub fn inner_rectangle(corners: &[Point]) -> Option<[Length; 4]> {
    const MOST_CORNERS: usize = 20;
    let corners = without_idle_corners(corners);
    if corners.len() > MOST_CORNERS {
        return None;
    }
    let parts = convex_parts(&corners);
    let lines = |of: fn(&Point) -> i64| {
        let mut all: Vec<i64> = corners.iter().map(of).collect();
        all.sort_unstable();
        all.dedup();
        all
    };
    let (xs, ys) = (lines(|p| p.x.0), lines(|p| p.y.0));
    let mut best: Option<[i64; 4]> = None;
    for (i, &x1) in xs.iter().enumerate() {
        for &x2 in &xs[i + 1..] {
            for (j, &y1) in ys.iter().enumerate() {
                for &y2 in &ys[j + 1..] {
                    let (w, h) = (x2 - x1, y2 - y1);
                    let larger =
                        best.is_none_or(|[.., bw, bh]| i128::from(w) * i128::from(h) > i128::from(bw) * i128::from(bh));
                    if larger && covered(&parts, [x1, y1, x2, y2]) {
                        best = Some([x1, y1, w, h]);
                    }
                }
            }
        }
    }
    best.map(|found| found.map(Length))
}

/// Whether the rectangle is covered: the parts' shares of it add up to all of it.
fn covered(parts: &[Vec<Point>], [x1, y1, x2, y2]: [i64; 4]) -> bool {
    let whole = (x2 - x1) as f64 * (y2 - y1) as f64;
    let shared: f64 = parts.iter().map(|part| clipped_area(part, [x1, y1, x2, y2].map(|v| v as f64))).sum();
    // Rounding of clipping is far below a unit along the edges.
    shared >= whole - ((x2 - x1) + (y2 - y1)) as f64 * 0.01
}

/// Area of a convex polygon below the level `y`, in square units.
pub fn area_below(part: &[Point], y: i64) -> f64 {
    let low = part.iter().map(|p| p.y.0).min().unwrap_or(0);
    let high = part.iter().map(|p| p.y.0).max().unwrap_or(0);
    if y <= low {
        return 0.0;
    }
    let (left, right) = (part.iter().map(|p| p.x.0).min(), part.iter().map(|p| p.x.0).max());
    let around = [left.unwrap_or(0), low, right.unwrap_or(0), high.min(y)];
    clipped_area(part, around.map(|v| v as f64))
}

/// Area of a convex polygon inside a rectangle (Sutherland and Hodgman 1974).
fn clipped_area(part: &[Point], [x1, y1, x2, y2]: [f64; 4]) -> f64 {
    let mut ring: Vec<(f64, f64)> = part.iter().map(|p| (p.x.0 as f64, p.y.0 as f64)).collect();
    let sides: [(bool, f64, bool); 4] = [(true, x1, true), (true, x2, false), (false, y1, true), (false, y2, false)];
    for (vertical, at, keep_above) in sides {
        let height = |p: (f64, f64)| {
            let v = if vertical { p.0 } else { p.1 };
            if keep_above { v - at } else { at - v }
        };
        let mut cut = Vec::with_capacity(ring.len() + 2);
        for i in 0..ring.len() {
            let (a, b) = (ring[i], ring[(i + 1) % ring.len()]);
            let (ha, hb) = (height(a), height(b));
            if ha >= 0.0 {
                cut.push(a);
            }
            if (ha > 0.0 && hb < 0.0) || (ha < 0.0 && hb > 0.0) {
                let t = ha / (ha - hb);
                cut.push((a.0 + (b.0 - a.0) * t, a.1 + (b.1 - a.1) * t));
            }
        }
        ring = cut;
    }
    let n = ring.len();
    (0..n).map(|i| ring[i].0 * ring[(i + 1) % n].1 - ring[i].1 * ring[(i + 1) % n].0).sum::<f64>() / 2.0
}

#[cfg(test)]
mod tests {
    use super::{join, joined, triangles};
    use crate::measure::Length;
    use crate::shape::{Outline, Point};
    use proptest::prelude::*;

    /// Joins the first pair that can be, over and over: what `joined` does without trying everything again.
    fn plainly(mut parts: Vec<Vec<usize>>, corners: &[Point]) -> Vec<Vec<usize>> {
        'again: loop {
            for i in 0..parts.len() {
                for j in i + 1..parts.len() {
                    if let Some(both) = join(&parts[i], &parts[j], corners) {
                        parts.swap_remove(j);
                        parts[i] = both;
                        continue 'again;
                    }
                }
            }
            return parts;
        }
    }

    proptest! {
        #[test]
        fn parts_are_joined_until_none_can_be(radii in prop::collection::vec(20_i64..100, 5..24)) {
            let n = radii.len();
            let corners: Vec<Point> = radii.iter().enumerate().map(|(i, r)| {
                let angle = std::f64::consts::TAU * i as f64 / n as f64;
                let at = |share: f64| Length((*r as f64 * 1e5 * share).round() as i64);
                Point::new(at(angle.cos()), at(angle.sin()))
            }).collect();
            let Ok(Outline::Polygon(corners)) = Outline::polygon(corners) else { return Ok(()) };
            let fast = joined(triangles(&corners), &corners);
            let area = |parts: &[Vec<usize>]| -> i128 {
                let points = |part: &Vec<usize>| part.iter().map(|&i| corners[i]).collect::<Vec<_>>();
                parts.iter().map(|p| Outline::Polygon(points(p)).area().0 * 2).sum()
            };
            prop_assert!((area(&fast) - Outline::Polygon(corners.clone()).area().0 * 2).abs() <= 2 * n as i128);
            prop_assert_eq!(fast.len(), plainly(fast.clone(), &corners).len(), "some can be joined still");
            prop_assert!(fast.len() <= plainly(triangles(&corners), &corners).len() + n / 4);
        }
    }
}
