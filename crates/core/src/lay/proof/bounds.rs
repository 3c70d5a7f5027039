//! Lengths that no lay on a strip can beat.
//!
//! Area; the tallest piece; pieces too wide to lie side by side; and dual-feasible functions (Fekete and Schepers 2004,
//! "A general framework for bounds for higher-dimensional orthogonal packing problems"), on the widths for a length
//! outright, and on widths and heights together to rule out one length. A piece that may lie two ways counts with the
//! lesser of its two contributions, so every bound stays valid.

use super::{Boxes, Function, GapCounted, Proof, Rule, Weights, Whole, Within};
use crate::cloth::Cloth;
use crate::lay::bin::Bin;
use crate::lay::job::{Job, JobPiece};
use crate::lay::nest::{ItemType, rectangle_inside};
use crate::lay::rectangles::{Choice, Kind, Strip};
use crate::lay::turns::allowed_turns;
use crate::measure::Length;
use crate::shape::Outline;

/// The shortest length between the trimmed ends on which `pieces` (piece, copies) can possibly lie on `cloth`, `gap`
/// apart.
pub fn shortest_length(cloth: &Cloth, pieces: &[(&JobPiece, u32)], gap: Length) -> Length {
    let indexed: Vec<_> = pieces.iter().enumerate().map(|(i, (p, n))| (i, *p, *n)).collect();
    let mut proof = Proof::default();
    for relaxed in relaxed(cloth, cloth.usable_width().0, &indexed, gap) {
        proof.join(&strip_proof(&relaxed.strip, &relaxed.boxes));
    }
    Length(proof.bound)
}

/// Boxes to be packed without overlap wherever the pieces they stand for are laid.
pub(super) struct Relaxed {
    pub strip: Strip,
    pub boxes: Boxes,
}

/// The boxes of `pieces` (index in the job, piece, copies) on a strip `width` wide; with a gap once with the gap beside
/// them and once with the gap above them.
pub(super) fn relaxed(cloth: &Cloth, width: i64, pieces: &[(usize, &JobPiece, u32)], gap: Length) -> Vec<Relaxed> {
    let folded = cloth.layers == 2;
    let counted: &[GapCounted] =
        if gap > Length::ZERO { &[GapCounted::Across, GapCounted::Along] } else { &[GapCounted::Nowhere] };
    let mut inside: Vec<Within> = Vec::new();
    let mut kinds: Vec<Kind> = Vec::with_capacity(pieces.len());
    for &(index, piece, count) in pieces.iter().filter(|p| p.2 > 0) {
        let mut choices: Vec<Choice> = Vec::new();
        let mut within: Vec<Within> = Vec::new();
        for turn in allowed_turns(piece.grain, piece.print, cloth).turns {
            let (across, along) = piece.outline.extent(turn, false);
            // Half on the fold, a piece may be wider than the cloth as it lies.
            let least = if folded && piece.outline.is_symmetric(turn) { across.0 / 2 } else { across.0 };
            if least > width || cloth.usable_length().is_some_and(|limit| along > limit) {
                continue;
            }
            let [x, y, w, h] = rectangle_inside(piece, turn);
            let choice = Choice { turn, width: w.0, height: h.0 };
            if !matches!(piece.outline, Outline::Rect(..)) || !turn.degrees().is_multiple_of(90) {
                within.push(Within { piece: index, turn: turn.degrees(), x, y, width: w, height: h });
            }
            if !choices.iter().any(|c| (c.width, c.height) == (choice.width, choice.height)) {
                choices.push(choice);
            }
        }
        // What has no box in it one way counts for nothing.
        if !choices.is_empty() && choices.iter().all(|c| c.width > 0 && c.height > 0) {
            inside.extend(within);
            kinds.push(Kind { piece: index, count: count as usize, choices });
        }
    }
    counted
        .iter()
        .map(|&counted| {
            let (beside, above) = match counted {
                GapCounted::Nowhere => (0, 0),
                GapCounted::Across => (gap.0, 0),
                GapCounted::Along => (0, gap.0),
            };
            let grown = |c: &Choice| Choice { width: c.width + beside, height: c.height + above, ..*c };
            let grown = |k: &Kind| Kind { choices: k.choices.iter().map(grown).collect(), ..k.clone() };
            let kinds = kinds.iter().map(grown).collect();
            let strip = Strip { gap: above, ..Strip::of(width + beside, kinds) }.pushed_left();
            Relaxed { strip, boxes: Boxes { gap: counted, inside: inside.clone() } }
        })
        .collect()
}

/// What is known of `items` of any shape on `bin`, in its own coordinates: by area, by the longest, and by the
/// rectangles inside the shapes, which need room wherever the shapes do. On folded cloth there is twice the area.
pub(in crate::lay) fn least_length(job: &Job, bin: &Bin, items: &[ItemType]) -> Proof {
    let cloth = &job.cloths[bin.cloth];
    let layers = if bin.folded { 2 } else { 1 };
    let area: i128 = items.iter().map(|l| covered(&job.pieces[l.piece]) * i128::from(l.copies)).sum();
    let mut proof = Proof::default();
    proof.raise(div_up(area, (bin.width * layers).max(1)), || Rule::Area { covered: Whole(area) });
    for item in items.iter().filter(|l| l.copies > 0) {
        let piece = &job.pieces[item.piece];
        let turns = allowed_turns(piece.grain, piece.print, cloth).turns;
        let shortest = turns.iter().map(|t| piece.outline.extent(*t, false).1.0).min().unwrap_or(0);
        proof.raise(shortest, || Rule::Longest { piece: item.piece });
    }
    if bin.edge.is_some() {
        return proof;
    }
    let pieces: Vec<(usize, &JobPiece, u32)> =
        items.iter().map(|l| (l.piece, &job.pieces[l.piece], l.copies)).collect();
    if bin.folded {
        // A copy takes half of a placement over both layers, or, half on the fold, half the width of one: twice the
        // length then holds each copy once.
        for Relaxed { mut strip, boxes } in relaxed(cloth, bin.width, &pieces, Length::ZERO) {
            for kind in &mut strip.kinds {
                let piece = &job.pieces[kind.piece];
                let halves = |c: &Choice| Choice { width: c.width / 2, height: c.height * 2, ..*c };
                let folded: Vec<Choice> =
                    kind.choices.iter().filter(|c| piece.outline.is_symmetric(c.turn)).map(halves).collect();
                kind.choices.extend(folded);
            }
            // Half a piece is no sum of widths.
            strip.width = bin.width;
            if strip.kinds.is_empty() {
                continue;
            }
            let (twice, mut weights) = by_widths(&strip, &boxes);
            let bound = div_up(i128::from(twice), 2);
            weights.full.0 = weights.full.0 / i128::from((twice - 1).max(1)) * i128::from(2 * (bound - 1));
            proof.raise(bound, || Rule::Weights(weights));
        }
        return proof;
    }
    for relaxed in relaxed(cloth, bin.width, &pieces, job.rules.gap) {
        if relaxed.strip.kinds.is_empty() {
            continue;
        }
        proof.join(&strip_proof(&relaxed.strip, &relaxed.boxes));
        let high = proof.bound * 2;
        raised(&relaxed.strip, &relaxed.boxes, &mut proof, high);
    }
    proof
}

/// What a piece covers: of a circle, the polygon on it that it is laid and checked by.
fn covered(piece: &JobPiece) -> i128 {
    Outline::Polygon(piece.outline.corners()).area().0
}

/// More kinds than this keep the plain bound: ruling lengths out is quadratic in them.
pub(in crate::lay) const MOST_KINDS: usize = 80;
/// Nobody buys by less than this.
const FINE: Length = Length::inches(1, 64);

/// Raises what is known towards `high` by ruling out lengths between: what is ruled out rules out all that is shorter.
pub(in crate::lay) fn raised(strip: &Strip, boxes: &Boxes, proof: &mut Proof, high: i64) {
    if strip.kinds.len() > MOST_KINDS {
        return;
    }
    let (mut low, mut high) = (proof.bound, high);
    while high - low > FINE.0 {
        let middle = low + (high - low) / 2;
        match ruled_out(strip, boxes, middle) {
            Some(rule) => {
                low = middle + 1;
                proof.raise(low, || rule);
            }
            None => high = middle,
        }
    }
}

/// What the boxes of `strip` take at least, by their longest, by their widths, and since the topmost piece, pushed down,
/// stands on a stack of others: the length is a sum of lengths.
pub(in crate::lay) fn strip_proof(strip: &Strip, boxes: &Boxes) -> Proof {
    let mut proof = Proof::default();
    for kind in &strip.kinds {
        let shortest = kind.choices.iter().map(|c| c.height).min().unwrap_or(0);
        proof.raise(shortest - strip.gap, || Rule::Longest { piece: kind.piece });
    }
    if strip.kinds.is_empty() {
        return proof;
    }
    let (by_widths, weights) = by_widths(strip, boxes);
    proof.raise(by_widths - strip.gap, || Rule::Weights(weights));
    let sum = strip.sum_of_heights(proof.bound + strip.gap) - strip.gap;
    if let Some(below) = proof.certificate() {
        proof.raise(sum, || Rule::Sums {
            from: below.excluded + Length(1),
            boxes: boxes.clone(),
            below: Box::new(below.by),
        });
    }
    proof
}

/// By area and by dual-feasible functions on the widths, each linear in the heights: the length, the gap above the last
/// piece included.
fn by_widths(strip: &Strip, boxes: &Boxes) -> (i64, Weights) {
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
    let thresholds = steps.into_iter().step_by(every).map(|e| Function::Threshold(Length(e)));
    let mut best = (i64::MIN, 0, Weighted { side: strip.width, function: Function::Share });
    for function in [Function::Share].into_iter().chain(thresholds).chain((1..=5).map(Function::Rounded)) {
        let f = Weighted { side: strip.width, function };
        let sum = weighted(strip, &f);
        let length = div_up(sum, f.full());
        if length > best.0 {
            best = (length, sum, f);
        }
    }
    let (length, sum, f) = best;
    let weights = Weights {
        boxes: boxes.clone(),
        width: Length(strip.width),
        across: f.function,
        along: Function::Share,
        sum: Whole(sum),
        full: Whole(i128::from(f.full()) * i128::from(length - 1)),
    };
    (length, weights)
}

/// Σ height · f(width) over the pieces.
fn weighted(strip: &Strip, f: &Weighted) -> i128 {
    strip
        .kinds
        .iter()
        .map(|k| {
            let least = k.choices.iter().map(|c| i128::from(f.of(c.width)) * i128::from(c.height)).min().unwrap_or(0);
            least * k.count as i128
        })
        .sum()
}

/// Why no lay of `strip` can be as short as `length`, if some pair of dual-feasible functions makes the pieces too large
/// for the rectangle. A piece only counts in the ways that fit the rectangle at all.
pub(in crate::lay) fn ruled_out(strip: &Strip, boxes: &Boxes, length: i64) -> Option<Rule> {
    let height = length + strip.gap;
    if height <= 0 {
        return strip.kinds.first().map(|k| Rule::Longest { piece: k.piece });
    }
    let fitting = strip.kinds.iter().map(|k| k.choices.iter().any(|c| c.height <= height));
    if let Some(at) = fitting.into_iter().position(|fits| !fits) {
        return Some(Rule::Longest { piece: strip.kinds[at].piece });
    }
    let (sum, full, across, along) = heaviest(strip, height).find(|(sum, full, ..)| sum > full)?;
    Some(Rule::Weights(Weights {
        boxes: boxes.clone(),
        width: Length(strip.width),
        across,
        along,
        sum: Whole(sum),
        full: Whole(full),
    }))
}

/// What the pieces count for and what a rectangle of this height does, for every pair of functions.
pub(super) fn heaviest(strip: &Strip, height: i64) -> impl Iterator<Item = (i128, i128, Function, Function)> {
    let sides: Vec<(usize, Vec<(i64, i64)>)> = strip
        .kinds
        .iter()
        .map(|k| (k.count, k.choices.iter().map(|c| (c.width, c.height)).filter(|(_, h)| *h <= height).collect()))
        .collect();
    let across = Weighted::all(strip.width, sides.iter().flat_map(|(_, s)| s.iter().map(|(w, _)| *w)));
    let along = Weighted::all(height, sides.iter().flat_map(|(_, s)| s.iter().map(|(_, h)| *h)));
    across.into_iter().flat_map(move |f| {
        let pairs: Vec<_> = along
            .iter()
            .map(|g| {
                let counted = |ways: &[(i64, i64)]| {
                    ways.iter().map(|(w, h)| i128::from(f.of(*w)) * i128::from(g.of(*h))).min().unwrap_or(0)
                };
                let sum = sides.iter().map(|(count, ways)| counted(ways) * *count as i128).sum();
                (sum, i128::from(f.full()) * i128::from(g.full()), f.function, g.function)
            })
            .collect();
        pairs
    })
}

/// A dual-feasible function on sides up to `side`: if sides fit into `side`, their weights fit into `full`.
#[derive(Clone, Copy)]
struct Weighted {
    side: i64,
    function: Function,
}

impl Weighted {
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
        let thresholds = steps.into_iter().step_by(every).map(|e| Function::Threshold(Length(e)));
        thresholds.chain((1..=3).map(Function::Rounded)).map(|function| Self { side, function }).collect()
    }

    fn of(&self, s: i64) -> i64 {
        match self.function {
            Function::Share => s,
            Function::Threshold(e) => threshold(s, self.side, e.0),
            Function::Rounded(k) => rounding(s, self.side, i64::from(k)),
        }
    }

    fn full(&self) -> i64 {
        match self.function {
            Function::Share | Function::Threshold(_) => self.side,
            Function::Rounded(k) => self.side * i64::from(k),
        }
    }
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
