//! The edge of a scrap: followed between pixels, placed to a fraction of one, and told by few straight sides.

use crate::mat::Scrap;

/// A place on the flat picture, in pixels; x to the right, y down.
pub(crate) type Place = (f64, f64);

/// Every edge round the scrap: the outer one first, then those of its holes.
pub(crate) fn edges(scrap: &Scrap) -> Vec<Vec<Place>> {
    let (width, height) = (scrap.width as i64, (scrap.part.len() / scrap.width) as i64);
    let is = |x: i64, y: i64| x >= 0 && y >= 0 && x < width && y < height && scrap.part[(y * width + x) as usize];
    let mut walked = vec![false; scrap.part.len()];
    let mut found: Vec<Vec<Place>> = vec![];
    for y in 0..height {
        for x in 0..width {
            // An upper side of a pixel that no walk went along yet.
            if is(x, y) && !is(x, y - 1) && !walked[(y * width + x) as usize] {
                found.push(walk(scrap, (x, y), &is, &mut walked));
            }
        }
    }
    found.sort_by(|a, b| area(b).abs().total_cmp(&area(a).abs()));
    found
}

/// Twice the area, positive where the places go round clockwise as seen.
pub(crate) fn area(places: &[Place]) -> f64 {
    (0..places.len())
        .map(|i| {
            let (a, b) = (places[i], places[(i + 1) % places.len()]);
            a.0 * b.1 - a.1 * b.0
        })
        .sum()
}

/// Walks along the sides of pixels with the scrap on the right hand, from the upper side of `start` to the right.
fn walk(scrap: &Scrap, start: (i64, i64), is: &impl Fn(i64, i64) -> bool, walked: &mut [bool]) -> Vec<Place> {
    // Directions right, down, left, up; from a lattice point, the pixel on the right hand and the one on the left.
    const STEP: [(i64, i64); 4] = [(1, 0), (0, 1), (-1, 0), (0, -1)];
    const RIGHT: [(i64, i64); 4] = [(0, 0), (-1, 0), (-1, -1), (0, -1)];
    let right = |(x, y): (i64, i64), d: usize| (x + RIGHT[d].0, y + RIGHT[d].1);
    let left = |p: (i64, i64), d: usize| right(p, (d + 3) % 4);
    let sure = |(x, y): (i64, i64)| {
        let inside = x >= 0 && y >= 0 && (x as usize) < scrap.width;
        let at = (y.max(0) as usize) * scrap.width + x.max(0) as usize;
        if inside { scrap.cloth.get(at).copied().unwrap_or(0.0) } else { 0.0 }
    };
    let mut places = vec![];
    let (mut at, mut d) = (start, 0_usize);
    loop {
        let (inner, outer) = (right(at, d), left(at, d));
        if d == 0 {
            walked[(inner.1 as usize) * scrap.width + inner.0 as usize] = true;
        }
        // Between the middles of the two pixels, where it is half cloth.
        let (a, b) = (f64::from(sure(inner)), f64::from(sure(outer)));
        let share = if a > 0.5 && b < 0.5 { ((a - 0.5) / (a - b)).clamp(0.0, 1.0) } else { 0.5 };
        let middle = |p: (i64, i64)| (p.0 as f64, p.1 as f64);
        let (m, n) = (middle(inner), middle(outer));
        let (x, y) = (m.0 + (n.0 - m.0) * share, m.1 + (n.1 - m.1) * share);
        places.push((x + scrap.corner.0 as f64, y + scrap.corner.1 as f64));
        at = (at.0 + STEP[d].0, at.1 + STEP[d].1);
        let (ahead_right, ahead_left) = (right(at, d), left(at, d));
        d = if !is(ahead_right.0, ahead_right.1) {
            (d + 1) % 4
        } else if is(ahead_left.0, ahead_left.1) {
            (d + 3) % 4
        } else {
            d
        };
        if at == start && d == 0 {
            return places;
        }
    }
}

/// Straight sides that tell `places` to about `tolerance` pixels, each laid through the middle of the places along it.
pub(crate) fn straightened(places: &[Place], tolerance: f64) -> Vec<Place> {
    let kept = few(places, tolerance);
    let n = kept.len();
    if n < 3 {
        return vec![];
    }
    let lines: Vec<Option<Line>> = (0..n).map(|k| along(places, kept[k], kept[(k + 1) % n])).collect();
    let corner = |k: usize| {
        let was = places[kept[k]];
        let meets = lines[(k + n - 1) % n].as_ref().zip(lines[k].as_ref()).and_then(|(a, b)| a.meets(b));
        // Sides that run nearly on meet anywhere.
        meets.filter(|m| (m.0 - was.0).hypot(m.1 - was.1) < tolerance.max(1.0) * 3.0).unwrap_or(was)
    };
    let mut corners: Vec<Place> = (0..n).map(corner).collect();
    drop_idle(&mut corners, tolerance / 2.0);
    corners
}

/// Indices of the places that tell the rest (Douglas and Peucker 1973), from two that are far apart.
fn few(places: &[Place], tolerance: f64) -> Vec<usize> {
    let n = places.len();
    let far = |a: Place, b: Place| (a.0 - b.0).hypot(a.1 - b.1);
    let furthest =
        |from: usize| (0..n).max_by(|&a, &b| far(places[from], places[a]).total_cmp(&far(places[from], places[b])));
    let Some(first) = (n > 2).then(|| furthest(0)).flatten() else { return vec![] };
    let second = furthest(first).unwrap_or(0);
    let mut kept = vec![first, second];
    let mut stretches = vec![(first, second), (second, first)];
    while let Some((from, to)) = stretches.pop() {
        let count = (to + n - from) % n;
        let (a, b) = (places[from], places[to]);
        let long = far(a, b).max(1e-9);
        let off = |k: usize| {
            let p = places[(from + k) % n];
            ((b.0 - a.0) * (p.1 - a.1) - (b.1 - a.1) * (p.0 - a.0)).abs() / long
        };
        let Some(worst) = (1..count).max_by(|&x, &y| off(x).total_cmp(&off(y))) else { continue };
        if off(worst) > tolerance {
            let at = (from + worst) % n;
            kept.push(at);
            stretches.extend([(from, at), (at, to)]);
        }
    }
    kept.sort_unstable();
    kept.dedup();
    kept
}

struct Line {
    through: Place,
    runs: Place,
}

impl Line {
    fn meets(&self, other: &Self) -> Option<Place> {
        let cross = self.runs.0 * other.runs.1 - self.runs.1 * other.runs.0;
        // About 12°.
        if cross.abs() < 0.2 {
            return None;
        }
        let (dx, dy) = (other.through.0 - self.through.0, other.through.1 - self.through.1);
        let t = (dx * other.runs.1 - dy * other.runs.0) / cross;
        Some((self.through.0 + t * self.runs.0, self.through.1 + t * self.runs.1))
    }
}

/// The line through the places between two corners, those next to the corners left out as they are rounded.
fn along(places: &[Place], from: usize, to: usize) -> Option<Line> {
    const ROUNDED: usize = 4;
    let n = places.len();
    let count = (to + n - from) % n;
    if count < 3 * ROUNDED {
        return None;
    }
    let those: Vec<Place> = (ROUNDED..count - ROUNDED).map(|k| places[(from + k) % n]).collect();
    let many = those.len() as f64;
    let through = (those.iter().map(|p| p.0).sum::<f64>() / many, those.iter().map(|p| p.1).sum::<f64>() / many);
    let sum = |of: fn(f64, f64) -> f64| those.iter().map(|p| of(p.0 - through.0, p.1 - through.1)).sum::<f64>();
    let (xx, xy, yy) = (sum(|x, _| x * x), sum(|x, y| x * y), sum(|_, y| y * y));
    let turn = (2.0 * xy).atan2(xx - yy) / 2.0;
    Some(Line { through, runs: (turn.cos(), turn.sin()) })
}

/// Takes out corners that lie within `off` of the line between their neighbours.
fn drop_idle(corners: &mut Vec<Place>, off: f64) {
    let mut k = 0;
    while corners.len() > 3 && k < corners.len() {
        let n = corners.len();
        let (a, p, b) = (corners[(k + n - 1) % n], corners[k], corners[(k + 1) % n]);
        let long = (b.0 - a.0).hypot(b.1 - a.1).max(1e-9);
        let away = ((b.0 - a.0) * (p.1 - a.1) - (b.1 - a.1) * (p.0 - a.0)).abs() / long;
        if away < off {
            corners.remove(k);
        } else {
            k += 1;
        }
    }
}
