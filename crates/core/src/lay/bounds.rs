//! Lengths that no lay on a strip can beat.
//!
//! Area; the tallest piece; pieces too wide to lie side by side; and dual-feasible functions (Fekete and Schepers 2004,
//! "A general framework for bounds for higher-dimensional orthogonal packing problems"), on the widths for a length
//! outright, and on widths and heights together to rule out one length. A piece that may lie two ways counts with the
//! lesser of its two contributions, so every bound stays valid.

use super::ground::Ground;
use super::job::{Cuts, Job, JobPiece};
use super::nest::{Lot, rectangle_inside};
use super::rectangles::{Choice, Kind, Strip};
use super::turns::allowed_turns;
use crate::cloth::Cloth;
use crate::measure::Length;
use crate::shape::Outline;

/// The shortest length between the trimmed ends on which `pieces` (piece, copies) can possibly lie on `cloth`.
pub fn shortest_length(cloth: &Cloth, pieces: &[(&JobPiece, u32)], gap: Length) -> Length {
    let indexed: Vec<_> = pieces.iter().enumerate().map(|(i, (p, n))| (i, *p, *n)).collect();
    Length(strip_bound(&Strip::new(cloth, &indexed, gap, Cuts::Free)))
}

/// The same for `lots` of any shape on `ground`, in its own coordinates: by area, by the tallest, and by the rectangles
/// inside the shapes, which need room wherever the shapes do. On folded cloth there is twice the area.
pub(super) fn shaped_bound(job: &Job, ground: &Ground, lots: &[Lot]) -> i64 {
    let cloth = &job.cloths[ground.cloth];
    let layers = if ground.folded { 2 } else { 1 };
    let area: i128 = lots.iter().map(|l| covered(&job.pieces[l.piece]) * i128::from(l.copies)).sum();
    let mut best = div_up(area, (ground.width * layers).max(1));
    let mut inside: Vec<Kind> = Vec::with_capacity(lots.len());
    for lot in lots {
        let piece = &job.pieces[lot.piece];
        let turns = allowed_turns(piece.grain, piece.print, cloth).turns;
        best = best.max(turns.iter().map(|t| piece.outline.extent(*t).1.0).min().unwrap_or(0));
        let mut choices: Vec<Choice> = Vec::new();
        for turn in turns {
            let (width, height) = rectangle_inside(piece, turn);
            // With a gap the shapes keep off each other, but what is inside of them by less.
            let choice = Choice { turn, width: width.0, height: height.0 };
            if !choices.iter().any(|c| (c.width, c.height) == (choice.width, choice.height)) {
                choices.push(choice);
            }
        }
        if choices.iter().all(|c| c.width > 0 && c.height > 0 && c.width <= ground.width) && lot.copies > 0 {
            inside.push(Kind { piece: lot.piece, count: lot.copies as usize, choices });
        }
    }
    if ground.folded && !inside.is_empty() {
        // A copy takes half of a placement over both layers, or, half on the fold, half the width of one: twice the
        // length then holds each copy once.
        for kind in &mut inside {
            let piece = &job.pieces[kind.piece];
            let halves = |c: &Choice| Choice { width: c.width / 2, height: c.height * 2, ..*c };
            if kind.choices.iter().any(|c| piece.outline.is_symmetric(c.turn)) {
                let folded: Vec<Choice> = kind.choices.iter().map(halves).collect();
                kind.choices.extend(folded);
            }
        }
        let strip = Strip::of(ground.width, inside);
        return best.max(div_up(i128::from(by_widths(&strip)), 2));
    }
    if ground.edge.is_none() && !inside.is_empty() {
        let strip = Strip::of(ground.width, inside);
        best = best.max(strip_bound(&strip));
        best = raised(&strip, best, best * 2);
    }
    best
}

/// What a piece covers: of a circle, the polygon on it that it is laid and checked by.
fn covered(piece: &JobPiece) -> i128 {
    Outline::Polygon(piece.outline.corners()).area().0
}

/// More kinds than this keep the plain bound: ruling lengths out is quadratic in them.
pub(super) const MOST_KINDS: usize = 80;
/// Nobody buys by less than this.
const FINE: Length = Length::inches(1, 64);

/// The bound `low` raised towards `high` by ruling out lengths between them: what is ruled out rules out all that is
/// shorter.
pub(super) fn raised(strip: &Strip, low: i64, high: i64) -> i64 {
    if strip.kinds.len() > MOST_KINDS {
        return low;
    }
    let (mut bound, mut high) = (low, high);
    while high - bound > FINE.0 {
        let middle = bound + (high - bound) / 2;
        if ruled_out(strip, middle) { bound = middle + 1 } else { high = middle }
    }
    bound
}

pub(super) fn strip_bound(strip: &Strip) -> i64 {
    let tallest = strip.kinds.iter().map(|k| k.choices.iter().map(|c| c.height).min().unwrap_or(0)).max().unwrap_or(0);
    // Pushed down, the topmost piece stands on a stack of others: the length is a sum of heights.
    strip.sum_of_heights(tallest.max(by_widths(strip))) - strip.gap
}

/// By area and by dual-feasible functions on the widths, each linear in the heights.
fn by_widths(strip: &Strip) -> i64 {
    let mut best = div_up(strip.area(), strip.width);
    // ε runs over the widths and what they leave: nothing changes in between.
    let mut steps: Vec<i64> = strip
        .kinds
        .iter()
        .flat_map(|k| k.choices.iter().flat_map(|c| [c.width, strip.width - c.width + 1]))
        .filter(|e| *e > 0 && 2 * e <= strip.width + 1)
        .collect();
    // Not a unit more: two halves of the width do lie side by side.
    steps.push((strip.width + 1) / 2);
    steps.sort_unstable();
    steps.dedup();
    // A strip holds hundreds of kinds at most in earnest; beyond that sample, which only weakens the bound.
    let every = steps.len().div_ceil(200).max(1);
    for e in steps.into_iter().step_by(every) {
        best = best.max(weighted(strip, |w| threshold(w, strip.width, e), strip.width));
    }
    for k in 1..=5 {
        best = best.max(weighted(strip, |w| rounding(w, strip.width, k), strip.width * k));
    }
    best
}

/// Whether no lay of `strip` can be as short as `length`: some pair of dual-feasible functions makes the pieces too
/// large for the rectangle. A piece only counts in the ways that fit the rectangle at all.
pub(super) fn ruled_out(strip: &Strip, length: i64) -> bool {
    let (width, height) = (strip.width, length + strip.gap);
    if height <= 0 {
        return strip.pieces() > 0;
    }
    let mut sides: Vec<(usize, Vec<(i64, i64)>)> = Vec::with_capacity(strip.kinds.len());
    for kind in &strip.kinds {
        let fitting: Vec<(i64, i64)> =
            kind.choices.iter().map(|c| (c.width, c.height)).filter(|(_, h)| *h <= height).collect();
        if fitting.is_empty() {
            return true;
        }
        sides.push((kind.count, fitting));
    }
    let across = Weights::all(width, sides.iter().flat_map(|(_, s)| s.iter().map(|(w, _)| *w)));
    let along = Weights::all(height, sides.iter().flat_map(|(_, s)| s.iter().map(|(_, h)| *h)));
    across.iter().any(|f| {
        along.iter().any(|g| {
            let total: i128 = sides
                .iter()
                .map(|(count, ways)| {
                    let least =
                        ways.iter().map(|(w, h)| i128::from(f.of(*w)) * i128::from(g.of(*h))).min().unwrap_or(0);
                    least * *count as i128
                })
                .sum();
            total > i128::from(f.full()) * i128::from(g.full())
        })
    })
}

/// A dual-feasible function on sides up to `side`: if sides fit into `side`, their weights fit into `full`.
#[derive(Clone, Copy)]
struct Weights {
    side: i64,
    kind: WeightKind,
}

#[derive(Clone, Copy)]
enum WeightKind {
    Threshold(i64),
    Rounding(i64),
}

impl Weights {
    /// Those that can differ for these sides: thresholds at the sides and at what they leave. Enough of them for a job
    /// of a few kinds; of more a sample, which only weakens the bound.
    fn all(side: i64, sides: impl Iterator<Item = i64>) -> Vec<Self> {
        const MOST: usize = 48;
        let mut steps: Vec<i64> =
            sides.flat_map(|s| [s, side - s + 1]).filter(|e| *e > 0 && 2 * e <= side + 1).collect();
        steps.push(1);
        steps.sort_unstable();
        steps.dedup();
        let every = steps.len().div_ceil(MOST).max(1);
        let thresholds = steps.into_iter().step_by(every).map(WeightKind::Threshold);
        thresholds.chain((1..=3).map(WeightKind::Rounding)).map(|kind| Self { side, kind }).collect()
    }

    fn of(&self, s: i64) -> i64 {
        match self.kind {
            WeightKind::Threshold(e) => threshold(s, self.side, e),
            WeightKind::Rounding(k) => rounding(s, self.side, k),
        }
    }

    fn full(&self) -> i64 {
        match self.kind {
            WeightKind::Threshold(_) => self.side,
            WeightKind::Rounding(k) => self.side * k,
        }
    }
}

/// Σ height · f(width) over the pieces, divided by f's full width and rounded up.
fn weighted(strip: &Strip, f: impl Fn(i64) -> i64, full: i64) -> i64 {
    let total: i128 = strip
        .kinds
        .iter()
        .map(|k| {
            let least = k.choices.iter().map(|c| i128::from(f(c.width)) * i128::from(c.height)).min().unwrap_or(0);
            least * k.count as i128
        })
        .sum();
    div_up(total, full)
}

/// Widths over W − ε count as the whole width, widths under ε as nothing.
fn threshold(w: i64, full: i64, e: i64) -> i64 {
    if w > full - e {
        full
    } else if w < e {
        0
    } else {
        w
    }
}

/// u^(k), scaled by k·W: a share x = w/W becomes x where (k+1)x is whole, else ⌊(k+1)x⌋/k.
fn rounding(w: i64, full: i64, k: i64) -> i64 {
    let (times, scale) = ((k + 1) * w, full);
    if times % scale == 0 { w * k } else { times / scale * full }
}

fn div_up(value: i128, by: i64) -> i64 {
    let by = i128::from(by);
    ((value + by - 1) / by) as i64
}
