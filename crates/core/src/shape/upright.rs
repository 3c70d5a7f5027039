//! The largest rectangle with sides along the axes that lies in an outline clear of what cannot be used: what a scrap
//! "holds".
//!
//! Found on a grid (largest rectangle in a histogram, row by row), then pushed out to the edges in whole units. It never
//! reaches over an edge; a larger one that lies between the lines of the grid may be missed by a cell.

use super::Point;
use crate::measure::Length;

/// Cells each way.
const CELLS: usize = 96;

/// A rectangle in whole units.
#[derive(Clone, Copy, Debug)]
struct Box4 {
    x1: i64,
    y1: i64,
    x2: i64,
    y2: i64,
}

/// Left, low, width and height of the largest upright rectangle found in the outline with these `corners` that no one of
/// `holes` reaches into; nothing where there is none.
pub fn largest_upright(corners: &[Point], holes: &[Vec<Point>]) -> Option<[Length; 4]> {
    let rings: Vec<&[Point]> = std::iter::once(corners).chain(holes.iter().map(Vec::as_slice)).collect();
    let range = |of: fn(&Point) -> i64| Some((corners.iter().map(of).min()?, corners.iter().map(of).max()?));
    let ((left, right), (low, high)) = (range(|p| p.x.0)?, range(|p| p.y.0)?);
    if right <= left || high <= low {
        return None;
    }
    let grid = Grid::new(&rings, (left, low), (right - left, high - low));
    let (c1, r1, c2, r2) = grid.largest()?;
    let at = |origin: i64, size: i64, n: usize| origin as f64 + size as f64 * n as f64 / CELLS as f64;
    let mut found = Box4 {
        x1: at(left, right - left, c1).ceil() as i64,
        x2: at(left, right - left, c2).floor() as i64,
        y1: at(low, high - low, r1).ceil() as i64,
        y2: at(low, high - low, r2).floor() as i64,
    };
    if found.x2 <= found.x1 || found.y2 <= found.y1 || !found.is_clear(&rings) {
        return None;
    }
    // The longer sides move furthest for their area.
    let reach = [(right - left) / CELLS as i64 + 1, (high - low) / CELLS as i64 + 1];
    for _ in 0..2 {
        for side in 0..4 {
            found.push_out(side, reach[side % 2], &rings, [left, low, right, high]);
        }
    }
    Some([found.x1, found.y1, found.x2 - found.x1, found.y2 - found.y1].map(Length))
}

impl Box4 {
    /// Whether no side of a ring runs through the inside.
    fn is_clear(&self, rings: &[&[Point]]) -> bool {
        let through = |a: Point, b: Point| {
            let (ax, ay, bx, by) = (a.x.0, a.y.0, b.x.0, b.y.0);
            if (ax <= self.x1 && bx <= self.x1) || (ax >= self.x2 && bx >= self.x2) {
                return false;
            }
            if (ay <= self.y1 && by <= self.y1) || (ay >= self.y2 && by >= self.y2) {
                return false;
            }
            let side =
                |x: i64, y: i64| i128::from(bx - ax) * i128::from(y - ay) - i128::from(by - ay) * i128::from(x - ax);
            let sides = [(self.x1, self.y1), (self.x2, self.y1), (self.x2, self.y2), (self.x1, self.y2)];
            let sides = sides.map(|(x, y)| side(x, y));
            !(sides.iter().all(|s| *s >= 0) || sides.iter().all(|s| *s <= 0))
        };
        rings.iter().all(|ring| (0..ring.len()).all(|i| !through(ring[i], ring[(i + 1) % ring.len()])))
    }

    /// Moves one side (left, low, right, high) as far out as the inside stays clear, at most by `reach`.
    fn push_out(&mut self, side: usize, reach: i64, rings: &[&[Point]], limit: [i64; 4]) {
        let moved = |by: i64| match side {
            0 => Self { x1: (self.x1 - by).max(limit[0]), ..*self },
            1 => Self { y1: (self.y1 - by).max(limit[1]), ..*self },
            2 => Self { x2: (self.x2 + by).min(limit[2]), ..*self },
            _ => Self { y2: (self.y2 + by).min(limit[3]), ..*self },
        };
        let (mut clear, mut blocked) = (0, reach + 1);
        while blocked - clear > 1 {
            let middle = clear + (blocked - clear) / 2;
            if moved(middle).is_clear(rings) {
                clear = middle;
            } else {
                blocked = middle;
            }
        }
        *self = moved(clear);
    }
}

/// Which cells lie wholly inside.
struct Grid {
    inside: Vec<[bool; CELLS]>,
}

impl Grid {
    fn new(rings: &[&[Point]], (left, low): (i64, i64), (width, height): (i64, i64)) -> Self {
        let cell = |p: Point| {
            let along = |v: i64, from: i64, size: i64| (v - from) as f64 * CELLS as f64 / size as f64;
            (along(p.x.0, left, width), along(p.y.0, low, height))
        };
        let mut inside = vec![[false; CELLS]; CELLS];
        for (r, row) in inside.iter_mut().enumerate() {
            for (n, ring) in rings.iter().enumerate() {
                let level = r as f64 + 0.5;
                let mut crossings: Vec<f64> = sides(ring, &cell)
                    .filter(|((_, ay), (_, by))| (*ay > level) != (*by > level))
                    .map(|((ax, ay), (bx, by))| ax + (level - ay) / (by - ay) * (bx - ax))
                    .collect();
                crossings.sort_by(f64::total_cmp);
                for pair in crossings.chunks_exact(2) {
                    for (c, is_in) in row.iter_mut().enumerate() {
                        let middle = c as f64 + 0.5;
                        if middle > pair[0] && middle < pair[1] {
                            *is_in = n == 0;
                        }
                    }
                }
            }
        }
        for ring in rings {
            for side in sides(ring, &cell) {
                block(&mut inside, side);
            }
        }
        Self { inside }
    }

    /// First and last line of the columns and rows of the largest block of cells inside.
    fn largest(&self) -> Option<(usize, usize, usize, usize)> {
        let mut tall = [0_usize; CELLS];
        let mut best: Option<(usize, (usize, usize, usize, usize))> = None;
        for (r, row) in self.inside.iter().enumerate() {
            for (t, is_in) in tall.iter_mut().zip(row) {
                *t = if *is_in { *t + 1 } else { 0 };
            }
            // Left ends of stretches that are still open, each at least as tall as the one before.
            let mut open: Vec<(usize, usize)> = Vec::new();
            for c in 0..=CELLS {
                let here = tall.get(c).copied().unwrap_or(0);
                let mut from = c;
                while let Some(&(start, height)) = open.last().filter(|(_, height)| *height > here) {
                    open.pop();
                    from = start;
                    let area = height * (c - start);
                    if best.is_none_or(|(most, _)| area > most) {
                        best = Some((area, (start, r + 1 - height, c, r + 1)));
                    }
                }
                if here > 0 && open.last().is_none_or(|(_, height)| *height < here) {
                    open.push((from, here));
                }
            }
        }
        best.map(|(_, cells)| cells)
    }
}

type Side = ((f64, f64), (f64, f64));

fn sides<'a>(ring: &'a [Point], cell: &'a impl Fn(Point) -> (f64, f64)) -> impl Iterator<Item = Side> + 'a {
    (0..ring.len()).map(move |i| (cell(ring[i]), cell(ring[(i + 1) % ring.len()])))
}

/// Takes out the cells that a side runs through.
fn block(inside: &mut [[bool; CELLS]], ((ax, ay), (bx, by)): Side) {
    let (low, high) = (ay.min(by), ay.max(by));
    for (r, row) in inside.iter_mut().enumerate() {
        let (from, to) = (low.max(r as f64), high.min(r as f64 + 1.0));
        if from > to || (low < high && from == to) || (low == high && (low == r as f64 || low == r as f64 + 1.0)) {
            continue;
        }
        let x = |y: f64| if by == ay { ax } else { ax + (y - ay) / (by - ay) * (bx - ax) };
        let (mut x1, mut x2) = (x(from), x(to));
        if low == high {
            (x1, x2) = (ax, bx);
        }
        let (x1, x2) = (x1.min(x2), x1.max(x2));
        for (c, is_in) in row.iter_mut().enumerate() {
            if x2 > c as f64 && x1 < c as f64 + 1.0 {
                *is_in = false;
            }
        }
    }
}

/// Whether an upright rectangle `width` × `height` lies somewhere in the outline with these `corners`, no one of `holes`
/// reaching into it; to two units.
///
/// Where it can lie at all it can be pushed until two contacts hold it: a place where two of the lines cross along which
/// its corners or sides touch the outline (Lozano-Pérez 1983). All of these are tried.
pub fn holds_upright(corners: &[Point], holes: &[Vec<Point>], width: Length, height: Length) -> bool {
    let rings: Vec<&[Point]> = std::iter::once(corners).chain(holes.iter().map(Vec::as_slice)).collect();
    let range = |of: fn(&Point) -> i64| Some((corners.iter().map(of).min()?, corners.iter().map(of).max()?));
    let (Some((left, right)), Some((low, high))) = (range(|p| p.x.0), range(|p| p.y.0)) else { return false };
    let (w, h) = (width.0, height.0);
    if w <= 0 || h <= 0 || w > right - left || h > high - low {
        return false;
    }
    const SLACK: i64 = 2;
    let stands = |x: i64, y: i64| {
        let own = Box4 { x1: x + SLACK, y1: y + SLACK, x2: x + w - SLACK, y2: y + h - SLACK };
        let middle = (x as f64 + w as f64 / 2.0, y as f64 + h as f64 / 2.0);
        let is_in = |ring: &[Point]| inside(ring, middle);
        own.x2 > own.x1
            && own.y2 > own.y1
            && own.is_clear(&rings)
            && is_in(corners)
            && !rings[1..].iter().any(|r| is_in(r))
    };
    let mut segments: Vec<[(i64, i64); 2]> = Vec::new();
    for ring in &rings {
        for k in 0..ring.len() {
            let (a, b) = (ring[k], ring[(k + 1) % ring.len()]);
            // Where the rectangle's corner is that touches, seen from its lower left.
            let at = |p: Point| [(0, 0), (w, 0), (w, h), (0, h)].map(|(dx, dy)| (p.x.0 - dx, p.y.0 - dy));
            let (around, along) = (at(a), at(b));
            if around.iter().any(|&(x, y)| stands(x, y)) {
                return true;
            }
            segments.extend((0..4).map(|c| [around[c], around[(c + 1) % 4]]));
            segments.extend((0..4).map(|c| [around[c], along[c]]));
        }
    }
    segments.iter().enumerate().any(|(n, first)| {
        segments[n + 1..].iter().filter_map(|second| crossing(first, second)).any(|(x, y)| stands(x, y))
    })
}

/// Where two segments cross, to the nearest unit.
fn crossing([a, b]: &[(i64, i64); 2], [c, d]: &[(i64, i64); 2]) -> Option<(i64, i64)> {
    let apart = |of: fn(&(i64, i64)) -> i64| of(a).max(of(b)) < of(c).min(of(d)) || of(c).max(of(d)) < of(a).min(of(b));
    if apart(|p| p.0) || apart(|p| p.1) {
        return None;
    }
    let (rx, ry) = ((b.0 - a.0) as f64, (b.1 - a.1) as f64);
    let (sx, sy) = ((d.0 - c.0) as f64, (d.1 - c.1) as f64);
    let cross = rx * sy - ry * sx;
    if cross == 0.0 {
        return None;
    }
    let (ox, oy) = ((c.0 - a.0) as f64, (c.1 - a.1) as f64);
    let (t, u) = ((ox * sy - oy * sx) / cross, (ox * ry - oy * rx) / cross);
    let on = |v: f64| (-1e-9..=1.0 + 1e-9).contains(&v);
    (on(t) && on(u)).then(|| ((a.0 as f64 + t * rx).round() as i64, (a.1 as f64 + t * ry).round() as i64))
}

fn inside(ring: &[Point], (x, y): (f64, f64)) -> bool {
    let crossed = (0..ring.len()).filter(|&i| {
        let (a, b) = (ring[i], ring[(i + 1) % ring.len()]);
        let (ax, ay, bx, by) = (a.x.0 as f64, a.y.0 as f64, b.x.0 as f64, b.y.0 as f64);
        (ay > y) != (by > y) && ax + (y - ay) / (by - ay) * (bx - ax) < x
    });
    crossed.count() % 2 == 1
}
