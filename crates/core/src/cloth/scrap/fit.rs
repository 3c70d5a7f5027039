//! The shape of a scrap from what is measured on it: sides, and diagonals that fix the shape.
//!
//! The corners of the sketch move as little as will do until every measured distance holds (least squares after
//! Levenberg 1944 and Marquardt 1963, with the shortest step). What is still free to shift is told by the rank of the
//! distances: n corners are fixed by 2n − 3 that do not follow from each other (Laman 1970).

use super::Measured;
use crate::measure::Length;
use crate::shape::Point;

/// What the measured distances come to.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Fit {
    /// The corners, in their order.
    pub corners: Vec<Point>,
    /// The most that one of the measured distances differs from what it is on the drawing.
    pub off: Length,
    /// What is to be measured next, from corner to corner, as the shape can still shift; nothing once it is fixed.
    pub next: Option<(usize, usize)>,
}

/// Distances that cannot all hold.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Unfit {
    /// The distance that is furthest out.
    pub worst: Measured,
    /// What it comes to where all others hold as well as they can.
    pub comes: Length,
}

/// Fits `corners` to `measured`; distances that agree to `tolerance` are taken as the same.
///
/// # Errors
/// [`Unfit`] where they cannot all hold.
pub fn fit(corners: &[Point], measured: &[Measured], tolerance: Length) -> Result<Fit, Unfit> {
    let mut at: Vec<f64> = corners.iter().flat_map(|p| [p.x.0 as f64, p.y.0 as f64]).collect();
    settle(&mut at, measured);
    keep_square(&mut at, corners);
    let corners: Vec<Point> =
        at.chunks_exact(2).map(|p| Point::new(Length(p[0].round() as i64), Length(p[1].round() as i64))).collect();
    let off = |m: &Measured| (distance(&corners, m.from, m.to) - m.length.0 as f64).abs().round() as i64;
    let worst = measured.iter().max_by_key(|m| off(m));
    match worst.map(|m| (m, Length(off(m)))) {
        Some((worst, by)) if by > tolerance => {
            let comes = Length(distance(&corners, worst.from, worst.to).round() as i64);
            Err(Unfit { worst: *worst, comes })
        }
        found => {
            let next = if measured.is_empty() { None } else { next(&corners, measured) };
            // Whole units are rounded to.
            let off = found.map_or(Length::ZERO, |(_, by)| if by <= ROUNDED { Length::ZERO } else { by });
            Ok(Fit { off, next, corners })
        }
    }
}

/// What rounding corners to whole units may come to.
const ROUNDED: Length = Length(4);

fn distance(corners: &[Point], i: usize, j: usize) -> f64 {
    let (dx, dy) = ((corners[i].x - corners[j].x).0 as f64, (corners[i].y - corners[j].y).0 as f64);
    (dx * dx + dy * dy).sqrt()
}

/// Where a distance points, and how long it is now.
fn towards(at: &[f64], m: &Measured) -> ([f64; 2], f64) {
    let (dx, dy) = (at[2 * m.to] - at[2 * m.from], at[2 * m.to + 1] - at[2 * m.from + 1]);
    let long = (dx * dx + dy * dy).sqrt();
    if long == 0.0 { ([1.0, 0.0], 0.0) } else { ([dx / long, dy / long], long) }
}

/// Turns all of it so that the first side that ran along or across the threads still does.
fn keep_square(at: &mut [f64], before: &[Point]) {
    let n = before.len();
    let runs = |k: usize| {
        let (a, b) = (before[k], before[(k + 1) % n]);
        (a != b && (a.x == b.x || a.y == b.y)).then(|| ((b.x - a.x).0.signum() as f64, (b.y - a.y).0.signum() as f64))
    };
    let Some((k, (wx, wy))) = (0..n).find_map(|k| Some((k, runs(k)?))) else { return };
    let ([ux, uy], long) = towards(at, &Measured { from: k, to: (k + 1) % n, length: Length::ZERO });
    if long == 0.0 {
        return;
    }
    // The turn that takes (ux, uy) to (wx, wy).
    let (cosine, sine) = (ux * wx + uy * wy, ux * wy - uy * wx);
    let (x0, y0) = (at[2 * k], at[2 * k + 1]);
    for p in at.chunks_exact_mut(2) {
        let (x, y) = (p[0] - x0, p[1] - y0);
        (p[0], p[1]) = (x0 + x * cosine - y * sine, y0 + x * sine + y * cosine);
    }
}

/// How far each distance is out, all together.
fn out(at: &[f64], measured: &[Measured]) -> f64 {
    measured.iter().map(|m| towards(at, m).1 - m.length.0 as f64).map(|r| r * r).sum()
}

fn settle(at: &mut [f64], measured: &[Measured]) {
    const ROUNDS: usize = 300;
    let mut damping = 1e-3;
    let mut sum = out(at, measured);
    for _ in 0..ROUNDS {
        if sum < measured.len() as f64 || damping > 1e9 {
            return;
        }
        let rows: Vec<([f64; 2], f64)> = measured.iter().map(|m| towards(at, m)).collect();
        let share = |k: usize, corner: usize| match corner {
            c if c == measured[k].to => 1.0,
            c if c == measured[k].from => -1.0,
            _ => 0.0,
        };
        let dot = |k: usize, l: usize| {
            let along = rows[k].0[0] * rows[l].0[0] + rows[k].0[1] * rows[l].0[1];
            [measured[k].from, measured[k].to].map(|c| share(k, c) * share(l, c) * along).iter().sum::<f64>()
        };
        let n = measured.len();
        let mut table: Vec<Vec<f64>> = (0..n).map(|k| (0..n).map(|l| dot(k, l)).collect()).collect();
        (0..n).for_each(|k| table[k][k] += damping);
        let by: Vec<f64> = rows.iter().zip(measured).map(|((_, long), m)| long - m.length.0 as f64).collect();
        let Some(weights) = solve(table, by) else {
            damping *= 10.0;
            continue;
        };
        let mut moved = at.to_vec();
        for ((weight, (unit, _)), m) in weights.iter().zip(&rows).zip(measured) {
            for axis in 0..2 {
                moved[2 * m.to + axis] -= weight * unit[axis];
                moved[2 * m.from + axis] += weight * unit[axis];
            }
        }
        let now = out(&moved, measured);
        if now < sum {
            at.copy_from_slice(&moved);
            let settled = sum - now < 1e-9 * sum;
            sum = now;
            damping = (damping * 0.2).max(1e-12);
            if settled {
                return;
            }
        } else {
            damping *= 6.0;
        }
    }
}

/// Gaussian elimination with pivots; nothing where the table has no inverse.
fn solve(mut table: Vec<Vec<f64>>, mut by: Vec<f64>) -> Option<Vec<f64>> {
    let n = by.len();
    for k in 0..n {
        let pivot = (k..n).max_by(|&a, &b| table[a][k].abs().total_cmp(&table[b][k].abs()))?;
        if table[pivot][k].abs() < 1e-14 {
            return None;
        }
        table.swap(k, pivot);
        by.swap(k, pivot);
        for below in k + 1..n {
            let factor = table[below][k] / table[k][k];
            if factor != 0.0 {
                let (upper, lower) = table.split_at_mut(below);
                lower[0][k..].iter_mut().zip(&upper[k][k..]).for_each(|(v, above)| *v -= factor * above);
                by[below] -= factor * by[k];
            }
        }
    }
    for k in (0..n).rev() {
        let known: f64 = (k + 1..n).map(|l| table[k][l] * by[l]).sum();
        by[k] = (by[k] - known) / table[k][k];
    }
    Some(by)
}

/// The distance that tells most of what is still free: a side before a diagonal. Nothing where all is fixed.
fn next(corners: &[Point], measured: &[Measured]) -> Option<(usize, usize)> {
    let n = corners.len();
    let at: Vec<f64> = corners.iter().flat_map(|p| [p.x.0 as f64, p.y.0 as f64]).collect();
    let row = |from: usize, to: usize| {
        let (unit, _) = towards(&at, &Measured { from, to, length: Length::ZERO });
        let mut row = vec![0.0; 2 * n];
        for axis in 0..2 {
            row[2 * to + axis] = unit[axis];
            row[2 * from + axis] = -unit[axis];
        }
        row
    };
    // What a row says beyond those before it.
    let beyond = |basis: &[Vec<f64>], mut row: Vec<f64>| {
        for _ in 0..2 {
            for known in basis {
                let along: f64 = row.iter().zip(known).map(|(a, b)| a * b).sum();
                row.iter_mut().zip(known).for_each(|(a, b)| *a -= along * b);
            }
        }
        let long = row.iter().map(|v| v * v).sum::<f64>().sqrt();
        (row, long)
    };
    const SAYS_NOTHING: f64 = 1e-3;
    let mut basis: Vec<Vec<f64>> = Vec::new();
    for m in measured {
        let (row, long) = beyond(&basis, row(m.from, m.to));
        if long > SAYS_NOTHING {
            basis.push(row.into_iter().map(|v| v / long).collect());
        }
    }
    if basis.len() + 3 >= 2 * n {
        return None;
    }
    let tells = |(i, j): (usize, usize)| (beyond(&basis, row(i, j)).1, (i, j));
    let sides = (0..n).map(|i| (i, (i + 1) % n)).map(tells).find(|(says, _)| *says > SAYS_NOTHING);
    let diagonals = || {
        let pairs = (0..n).flat_map(|i| (i + 2..n).map(move |j| (i, j)));
        pairs.map(tells).filter(|(says, _)| *says > SAYS_NOTHING).max_by(|a, b| a.0.total_cmp(&b.0))
    };
    sides.or_else(diagonals).map(|(_, pair)| pair)
}
