//! Where a piece lies on a scrap, told from the corners of the scrap.
//!
//! A scrap has no straight edge to set a ruler against. A corner of a piece is found where two distances meet, each from a
//! corner of the scrap (common practice in marking out).

use crate::measure::Length;
use crate::shape::Point;

/// A corner of a piece by its distances from two corners of the scrap, which are counted from 0.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Sight {
    /// The corner of the piece, on the scrap as washed.
    pub at: Point,
    /// From which corners of the scrap, and how far; one alone where the piece begins in that corner.
    pub from: Vec<(usize, Length)>,
}

/// Closer than this it lies in the corner.
const IN_THE_CORNER: Length = Length::MILLIMETRE;

/// The two corners of `piece` that are furthest from each other, each by two corners of `edge`. All pieces of a scrap are
/// drawn before the first is cut, so every corner is still there.
pub(super) fn sights_of(piece: &[Point], edge: &[Point]) -> Vec<Sight> {
    let there: Vec<usize> = (0..edge.len()).collect();
    let pairs = (0..piece.len()).flat_map(|i| (i + 1..piece.len()).map(move |j| (i, j)));
    let longest =
        pairs.max_by(|a, b| far(piece[a.0], piece[a.1]).total_cmp(&far(piece[b.0], piece[b.1])).then(b.cmp(a)));
    let Some((i, j)) = longest else { return vec![] };
    [piece[i], piece[j]].into_iter().map(|at| sight(at, edge, &there)).collect()
}

fn sight(at: Point, edge: &[Point], there: &[usize]) -> Sight {
    let measured = |k: usize| (k, Length(far(at, edge[k]).round() as i64));
    if let Some(&k) = there.iter().find(|&&k| far(at, edge[k]) < IN_THE_CORNER.0 as f64) {
        return Sight { at, from: vec![measured(k)] };
    }
    let pairs = there.iter().enumerate().flat_map(|(n, &a)| there[n + 1..].iter().map(move |&b| (a, b)));
    let sharp = pairs.max_by(|x, y| sharpness(at, edge, *x).total_cmp(&sharpness(at, edge, *y)).then(y.cmp(x)));
    Sight { at, from: sharp.map_or_else(Vec::new, |(a, b)| vec![measured(a), measured(b)]) }
}

fn far(a: Point, b: Point) -> f64 {
    let (dx, dy) = ((a.x - b.x).0 as f64, (a.y - b.y).0 as f64);
    (dx * dx + dy * dy).sqrt()
}

/// How well two distances tell a place: best where they meet square, and short ones are measured more surely.
fn sharpness(at: Point, edge: &[Point], (a, b): (usize, usize)) -> f64 {
    let to = |k: usize| ((edge[k].x - at.x).0 as f64, (edge[k].y - at.y).0 as f64);
    let ((ax, ay), (bx, by)) = (to(a), to(b));
    let (long_a, long_b) = (far(at, edge[a]), far(at, edge[b]));
    let sine = ((ax * by - ay * bx) / (long_a * long_b)).abs();
    sine / (long_a + long_b)
}
