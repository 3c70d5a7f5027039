//! No-fit regions: where the origin of one shape must not be, so that it does not overlap another.
//!
//! Of two convex shapes it is their Minkowski sum, one of them turned about (Cuninghame-Green 1989, "Geometry,
//! shoemaking and the milk tray problem"); of others the union over their convex parts. Corners are whole units, so
//! shapes that can share an edge share it exactly.

use super::Point;
use super::circle::on_circle;
use crate::measure::Length;

/// Nearer than this to an edge counts as on it to [`Region::depth`]: half a unit, a sixteenth of a micrometre.
const ON_EDGE: f64 = 0.5;

#[derive(Clone, Copy, Debug)]
struct Side {
    /// Outward normal of length 1.
    nx: f64,
    ny: f64,
    /// The side's distance from the origin along the normal.
    c: f64,
    /// Where it begins, and how far it goes across and up.
    from: Corner,
    along: Corner,
}

impl Side {
    /// Whether (`x`, `y`) is truly inside of it, not on it.
    fn has_inside(&self, x: i64, y: i64) -> bool {
        let (dx, dy) = (i128::from(self.along.0), i128::from(self.along.1));
        dx * i128::from(y - self.from.1) > dy * i128::from(x - self.from.0)
    }
}

/// A corner in whole units.
type Corner = (i64, i64);

/// An open convex region in the plane of positions.
#[derive(Clone, Debug)]
pub struct Region {
    sides: Vec<Side>,
    /// Its sides from low to high, left and right, as (level, across).
    left: Vec<(i64, i64)>,
    right: Vec<(i64, i64)>,
    /// Its sides from left to right, lower and upper, as (across, level).
    lower: Vec<(i64, i64)>,
    upper: Vec<(i64, i64)>,
    /// Its corners, in whole units.
    pub corners: Vec<(i64, i64)>,
    /// Bounding box: left, low, right, high.
    pub bounds: [i64; 4],
}

impl Region {
    /// The region inside counter-clockwise convex `corners`.
    pub fn new(corners: Vec<(i64, i64)>) -> Self {
        let n = corners.len();
        let mut sides: Vec<Side> = (0..n)
            .filter_map(|i| {
                let (a, b) = (corners[i], corners[(i + 1) % n]);
                let (dx, dy) = ((b.0 - a.0) as f64, (b.1 - a.1) as f64);
                let length = (dx * dx + dy * dy).sqrt();
                if length == 0.0 {
                    return None;
                }
                // Exact for sides along the axes.
                let (nx, ny) = (dy / length, -dx / length);
                let along = (b.0 - a.0, b.1 - a.1);
                Some(Side { nx, ny, c: nx * a.0 as f64 + ny * a.1 as f64, from: a, along })
            })
            .collect();
        // Sides along the axes decide most often.
        sides.sort_by_key(|s| s.nx != 0.0 && s.ny != 0.0);
        let bound = |of: fn(&(i64, i64)) -> i64| {
            let all = || corners.iter().map(of);
            (all().min().unwrap_or(0), all().max().unwrap_or(0))
        };
        let ((left, right), (low, high)) = (bound(|p| p.0), bound(|p| p.1));
        let flipped: Vec<(i64, i64)> = corners.iter().map(|c| (c.1, c.0)).collect();
        let chain = |corners: &[(i64, i64)], from: (i64, i64), to: (i64, i64), step: usize| {
            let n = corners.len();
            let at = |c: (i64, i64)| corners.iter().position(|o| *o == c).unwrap_or(0);
            let (mut i, end) = (at(from), at(to));
            let mut found = vec![(corners[i].1, corners[i].0)];
            while i != end {
                i = (i + step) % n;
                found.push((corners[i].1, corners[i].0));
            }
            found
        };
        let most = |of: fn(&Corner) -> Corner| corners.iter().copied().max_by_key(of).unwrap_or_default();
        let around = corners.len() - 1;
        // Counter-clockwise from the lowest, at its right end, to the highest goes up the right side.
        let right_side = chain(&corners, most(|c| (-c.1, c.0)), most(|c| (c.1, c.0)), 1);
        let left_side = chain(&corners, most(|c| (-c.1, -c.0)), most(|c| (c.1, -c.0)), around);
        let swap = |c: (i64, i64)| (c.1, c.0);
        let lower = chain(&flipped, swap(most(|c| (-c.0, -c.1))), swap(most(|c| (c.0, -c.1))), 1);
        let upper = chain(&flipped, swap(most(|c| (-c.0, c.1))), swap(most(|c| (c.0, c.1))), around);
        let bounds = [left, low, right, high];
        Self { sides, left: left_side, right: right_side, lower, upper, corners, bounds }
    }

    /// Whether (`x`, `y`) is truly inside, however little: told in whole numbers.
    pub fn holds(&self, x: i64, y: i64) -> bool {
        let [left, low, right, high] = self.bounds;
        x > left && x < right && y > low && y < high && self.sides.iter().all(|s| s.has_inside(x, y))
    }

    /// How far (`x`, `y`) is inside, by the way to the nearest side; 0 outside and on the edge, or nearer to it than half
    /// a unit.
    pub fn depth(&self, x: i64, y: i64) -> f64 {
        let [left, low, right, high] = self.bounds;
        if x <= left || x >= right || y <= low || y >= high {
            return 0.0;
        }
        let (x, y) = (x as f64, y as f64);
        let mut least = f64::INFINITY;
        for s in &self.sides {
            let d = s.c - s.nx * x - s.ny * y;
            if d <= ON_EDGE {
                return 0.0;
            }
            least = least.min(d);
        }
        least
    }

    /// The open stretch of the level `y` inside, if there is any.
    pub fn across(&self, y: i64) -> Option<(i64, i64)> {
        if y <= self.bounds[1] || y >= self.bounds[3] {
            return None;
        }
        Some((on_side(&self.left, y).0, on_side(&self.right, y).1))
    }

    /// The open stretch of the upright line at `x` inside, if there is any.
    pub fn along(&self, x: i64) -> Option<(i64, i64)> {
        if x <= self.bounds[0] || x >= self.bounds[2] {
            return None;
        }
        Some((on_side(&self.lower, x).0, on_side(&self.upper, x).1))
    }
}

/// Where a side is at the level `at`, between its ends: rounded down and rounded up to the unit.
fn on_side(side: &[(i64, i64)], at: i64) -> (i64, i64) {
    let i = if side.len() == 2 { 1 } else { side.partition_point(|c| c.0 <= at).clamp(1, side.len() - 1) };
    let (a, b) = (side[i - 1], side[i]);
    if a.1 == b.1 || a.0 == b.0 {
        return (b.1, b.1);
    }
    let t = (at - a.0) as f64 / (b.0 - a.0) as f64;
    let exact = a.1 as f64 + t * (b.1 - a.1) as f64;
    // A hundred-thousandth of a unit is rounding.
    ((exact + 1e-5).floor() as i64, (exact - 1e-5).ceil() as i64)
}

/// The no-fit region of a pair of shapes.
#[derive(Clone, Debug)]
pub struct NoFit {
    /// Its convex parts; they may overlap.
    pub parts: Vec<Region>,
    /// Bounding box of all: left, low, right, high.
    pub bounds: [i64; 4],
}

impl NoFit {
    /// Where `moving` must not be if `fixed` is at the origin, both given as convex parts, `gap` apart.
    pub fn of(fixed: &[Vec<Point>], moving: &[Vec<Point>], gap: Length) -> Self {
        let around = (gap > Length::ZERO).then(|| disk(gap));
        let mut parts = Vec::with_capacity(fixed.len() * moving.len());
        for a in fixed {
            let a: Vec<(i64, i64)> = a.iter().map(|p| (p.x.0, p.y.0)).collect();
            let a = around.as_ref().map_or_else(|| a.clone(), |disk| minkowski_sum(&a, disk));
            for b in moving {
                let about: Vec<(i64, i64)> = b.iter().map(|p| (-p.x.0, -p.y.0)).collect();
                parts.push(Region::new(minkowski_sum(&a, &about)));
            }
        }
        let bounds = parts.iter().fold([i64::MAX, i64::MAX, i64::MIN, i64::MIN], |b, p| {
            [b[0].min(p.bounds[0]), b[1].min(p.bounds[1]), b[2].max(p.bounds[2]), b[3].max(p.bounds[3])]
        });
        Self { parts, bounds }
    }

    /// Whether `moving` at (`x`, `y`) truly overlaps, however little.
    pub fn holds(&self, x: i64, y: i64) -> bool {
        self.parts.iter().any(|p| p.holds(x, y))
    }

    /// How deep `moving` at (`x`, `y`) overlaps; 0 when it does not, or by less than half a unit.
    pub fn depth(&self, x: i64, y: i64) -> f64 {
        let [left, low, right, high] = self.bounds;
        if x <= left || x >= right || y <= low || y >= high {
            return 0.0;
        }
        self.parts.iter().map(|p| p.depth(x, y)).fold(0.0, f64::max)
    }
}

/// A polygon of 32 sides about the circle of radius `gap`, which it contains: exactly `gap` up, down, left and
/// right, and at most 0.5 % more between.
fn disk(gap: Length) -> Vec<(i64, i64)> {
    // Corners half a side, a sixty-fourth of a turn, before and after where the sides touch.
    let corner = gap.0 as f64 / on_circle(1).0;
    (0..32)
        .map(|i| {
            let (x, y) = on_circle(2 * i + 1);
            let outward = |v: f64| if v < 0.0 { v.floor() } else { v.ceil() } as i64;
            let clamp = |v: i64| v.clamp(-gap.0, gap.0);
            (clamp(outward(corner * x)), clamp(outward(corner * y)))
        })
        .collect()
}

/// The Minkowski sum of two counter-clockwise convex polygons: their sides, merged by direction.
fn minkowski_sum(a: &[(i64, i64)], b: &[(i64, i64)]) -> Vec<(i64, i64)> {
    let start = |p: &[(i64, i64)]| (0..p.len()).min_by_key(|&i| (p[i].1, p[i].0)).unwrap_or(0);
    let (sa, sb) = (start(a), start(b));
    let (na, nb) = (a.len(), b.len());
    let (mut i, mut j) = (0, 0);
    let mut sum = Vec::with_capacity(na + nb);
    while i < na || j < nb {
        let (pa, pb) = (a[(sa + i) % na], b[(sb + j) % nb]);
        sum.push((pa.0 + pb.0, pa.1 + pb.1));
        let (qa, qb) = (a[(sa + i + 1) % na], b[(sb + j + 1) % nb]);
        let cross =
            i128::from(qa.0 - pa.0) * i128::from(qb.1 - pb.1) - i128::from(qa.1 - pa.1) * i128::from(qb.0 - pb.0);
        let (from_a, from_b) = if i >= na {
            (false, true)
        } else if j >= nb {
            (true, false)
        } else {
            (cross >= 0, cross <= 0)
        };
        i += usize::from(from_a);
        j += usize::from(from_b);
    }
    sum
}
