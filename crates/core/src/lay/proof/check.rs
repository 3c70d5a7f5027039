//! Goes through certificates by code of its own: nothing here is shared with what made them but the geometry of outlines
//! and the rules of grain and print.
//!
//! A certificate names its functions, rectangles and prices; what they come to is worked out again from the job and from
//! what lies on the cloth. Slanted sides are read to two units of [`Length`], a quarter of a micrometre.

use super::{Boxes, Certificate, Function, GapCounted, Lines, Rule, SheetsNeeded, Slices, Tried, Weights};
use crate::cloth::{Cloth, Form};
use crate::lay::answer::{ClothLay, Lay};
use crate::lay::job::{Cuts, Job, JobPiece};
use crate::lay::turns::allowed_turns;
use crate::measure::Length;
use crate::piece::Grain;
use crate::shape::{Outline, Point, Turn};
use geo::{Area as _, BooleanOps, LineString, Polygon};
use std::collections::BTreeMap;

/// Sums are followed in at most so many steps, and knapsacks in so much work.
const MOST_STEPS: i64 = 1 << 16;
const MOST_WORK: i64 = 400_000_000;
/// Rounded functions of more parts than this prove nothing that fewer would not.
const MOST_PARTS: u32 = 1_000;
/// Slanted sides are read this closely, in units.
const SLANT: f64 = 2.0;

/// What is on one cloth: each piece with its copies.
struct On<'a> {
    job: &'a Job,
    cloth: &'a Cloth,
    counts: BTreeMap<usize, u32>,
}

/// What is wrong with the bound of a cloth, if anything is: it is not shown, or what shows it does not hold.
pub(in crate::lay) fn certificate_fault(job: &Job, cloth: &Cloth, lay: &ClothLay) -> Option<String> {
    let from = |length: Length| cloth.buy_length(cloth.needed_length(length));
    let Some(Certificate { excluded, by }) = &lay.proof else {
        // Some cloth is needed for anything.
        return (lay.bound > from(Length(1))).then(|| "nothing is there to show its bound".to_owned());
    };
    if excluded.0 < 0 || lay.bound > from(*excluded + Length(1)) {
        return Some("its certificate rules out less than its bound says".to_owned());
    }
    let places: BTreeMap<&str, usize> = job.pieces.iter().enumerate().map(|(i, p)| (p.id.as_str(), i)).collect();
    let mut counts = BTreeMap::new();
    for placement in &lay.placements {
        let Some(&piece) = places.get(placement.piece.as_str()) else { continue };
        *counts.entry(piece).or_insert(0_u32) += job.pieces[piece].yielded_by(placement, cloth);
    }
    On { job, cloth, counts }.rules_out(by, excluded.0, 0).err()
}

/// What is wrong with the number of sheets that a lay says are needed.
pub(in crate::lay) fn sheets_fault(job: &Job, lay: &Lay, needed: &SheetsNeeded) -> Option<String> {
    let Some(cloth) = job.cloth(&needed.cloth) else { return Some("there is no such cloth".to_owned()) };
    let used = lay.cloths.iter().filter(|c| c.cloth == needed.cloth).count();
    let (Form::Sheet { .. }, Some(length)) = (&cloth.form, cloth.usable_length()) else {
        return Some("it is not sold by the sheet".to_owned());
    };
    if lay.complete() && needed.least as usize > used {
        return Some(format!("{used} sheets hold what is said to need {}", needed.least));
    }
    let own = |p: &JobPiece| p.cloths.len() == 1 && p.cloths[0] == cloth.id;
    let counts = job.pieces.iter().enumerate().filter(|(_, p)| own(p)).map(|(i, p)| (i, p.count)).collect();
    let on = On { job, cloth, counts };
    match &needed.by {
        Rule::Tried { what: Tried::Shares, .. } => None,
        Rule::Weights(weights) => match on.weighed(weights, length.0) {
            // Less than so many sheets: one sheet fewer holds less than there is.
            Ok((sum, full)) if sum > full * (i128::from(needed.least) - 1) => None,
            Ok((sum, full)) => Some(format!("the pieces count for {sum}, {} sheets for more", full)),
            Err(e) => Some(e),
        },
        _ => Some("this rule says nothing of sheets".to_owned()),
    }
}

type Holds = Result<(), String>;

fn unless(holds: bool, otherwise: &str) -> Holds {
    if holds { Ok(()) } else { Err(otherwise.to_owned()) }
}

impl On<'_> {
    fn width(&self) -> i64 {
        self.cloth.usable_width().0
    }

    fn folded(&self) -> bool {
        self.cloth.layers == 2
    }

    fn rules_out(&self, rule: &Rule, excluded: i64, depth: u8) -> Holds {
        match rule {
            Rule::Area { .. } => {
                let all: i128 =
                    self.pieces().map(|(piece, n)| twice_area(&piece.outline.corners()) * i128::from(n)).sum();
                let there = i128::from(self.width()) * i128::from(excluded) * i128::from(self.cloth.layers);
                unless(all > 2 * there, "the pieces do not cover more than the cloth has")
            }
            Rule::Longest { piece } => {
                let copies = self.counts.get(piece).copied().unwrap_or(0);
                let Some(piece) = self.job.pieces.get(*piece).filter(|_| copies > 0) else {
                    return Err("the piece it names is not there".to_owned());
                };
                unless(self.ways(piece, excluded).is_empty(), "the piece it names can lie on so short a cloth")
            }
            Rule::Weights(weights) => {
                let (sum, full) = self.weighed(weights, excluded)?;
                unless(sum > full, "the pieces do not count for more than the cloth")
            }
            Rule::Sums { from, boxes, below } => {
                unless(depth == 0 && from.0 > 0, "sums are taken once")?;
                self.no_sum(boxes, from.0, excluded)?;
                self.rules_out(below, from.0 - 1, depth + 1)
            }
            Rule::Slices(slices) => self.sliced(slices, excluded),
            Rule::Tried { what, .. } => {
                let plain = |p: &JobPiece| matches!(p.outline, Outline::Rect(..)) && p.grain != Grain::Bias;
                unless(self.pieces().all(|(p, _)| plain(p)), "only rectangles are tried in every place")?;
                unless(self.job.rules.gap == Length::ZERO, "with a gap not everything is tried")?;
                let straight = !matches!(self.cloth.form, Form::Scrap { .. }) && !self.folded();
                unless(straight, "everything is tried on rectangles of single cloth only")?;
                let through = self.job.rules.cuts == Cuts::Through;
                match what {
                    Tried::Places => Ok(()),
                    Tried::Cuts => unless(through, "the pieces need not be cut edge to edge"),
                    Tried::Shares => Err("sharing says nothing of a length".to_owned()),
                }
            }
        }
    }

    fn pieces(&self) -> impl Iterator<Item = (&JobPiece, u32)> {
        self.counts.iter().map(|(piece, n)| (&self.job.pieces[*piece], *n))
    }

    /// The turns in which a piece fits the width and `length`: (turn, half on the fold).
    fn ways(&self, piece: &JobPiece, length: i64) -> Vec<(Turn, bool)> {
        let mut found = Vec::new();
        for turn in allowed_turns(piece.grain, piece.print, self.cloth).turns {
            let [_, _, right, high] = extent(&piece.outline.placed(turn, false));
            if high > length {
                continue;
            }
            if right <= self.width() {
                found.push((turn, false));
            }
            if self.folded() && piece.outline.is_symmetric(turn) && right / 2 <= self.width() {
                found.push((turn, true));
            }
        }
        found
    }

    /// The boxes of one piece in the ways that fit, gap included; an empty one when it counts for nothing, none at all when
    /// it fits no way.
    fn boxes_of(&self, number: usize, boxes: &Boxes, length: i64) -> Result<Vec<(i64, i64)>, String> {
        let piece = &self.job.pieces[number];
        let gap = self.job.rules.gap.0;
        let (beside, above) = match boxes.gap {
            GapCounted::Nowhere => (0, 0),
            GapCounted::Across => (gap, 0),
            GapCounted::Along => (0, gap),
        };
        unless(!self.folded() || (beside, above) == (0, 0), "on the fold no gap is counted")?;
        let mut found = Vec::new();
        for turn in allowed_turns(piece.grain, piece.print, self.cloth).turns {
            let corners = piece.outline.placed(turn, false);
            let [_, _, right, high] = extent(&corners);
            let fits = right <= self.width() && high <= length;
            let halves =
                self.folded() && piece.outline.is_symmetric(turn) && right / 2 <= self.width() && high <= length;
            if !fits && !halves {
                continue;
            }
            let [width, height] = if matches!(piece.outline, Outline::Rect(..)) && turn.degrees().is_multiple_of(90) {
                [right, high]
            } else {
                let given = |i: &&super::Within| (i.piece, i.turn) == (number, turn.degrees());
                let Some(inside) = boxes.inside.iter().find(given) else { return Ok(vec![(0, 0)]) };
                let (w, h) = (inside.width.0, inside.height.0);
                unless(w > 0 && h > 0, "a rectangle inside a piece is empty")?;
                unless(is_inside([inside.x.0, inside.y.0, w, h], &corners), "a rectangle is not inside its piece")?;
                [w, h]
            };
            if fits {
                found.push((width + beside, height + above));
            }
            if halves {
                found.push((width / 2, height * 2));
            }
        }
        Ok(found)
    }

    /// What the pieces and a cloth so long count for by a pair of functions.
    fn weighed(&self, weights: &Weights, length: i64) -> Result<(i128, i128), String> {
        let gap = self.job.rules.gap.0;
        let (beside, above) = match weights.boxes.gap {
            GapCounted::Nowhere => (0, 0),
            GapCounted::Across => (gap, 0),
            GapCounted::Along => (0, gap),
        };
        let whole = self.width() + beside;
        let side = weights.width.0;
        unless(side > 0 && side <= whole, "its width is not that of the cloth")?;
        // Over two layers each copy is counted once on twice the length, and only as it is long.
        unless(!self.folded() || weights.along == Function::Share, "on folded cloth lengths count as they are")?;
        let high = if self.folded() { 2 * length } else { length + above };
        let mut all: Vec<(u32, Vec<(i64, i64)>)> = Vec::new();
        for (&piece, &copies) in &self.counts {
            let boxes = self.boxes_of(piece, &weights.boxes, length)?;
            if boxes.is_empty() {
                return Ok((1, 0)); // it alone does not go on so short a cloth
            }
            all.push((copies, boxes));
        }
        if side < whole {
            let widths: Vec<(u32, Vec<i64>)> =
                all.iter().map(|(n, ways)| (*n, ways.iter().map(|w| w.0).collect())).collect();
            unless(!self.folded() && !has_sum(&widths, side + 1, whole)?, "pieces side by side can fill more")?;
        }
        let (f, g) = (Share::new(weights.across, side)?, Share::new(weights.along, high)?);
        let mut sum = 0;
        for (copies, ways) in &all {
            let least = ways.iter().map(|(w, h)| f.of(*w) * g.of(*h)).min().unwrap_or(0);
            sum += least * i128::from(*copies);
        }
        Ok((sum, f.full() * g.full()))
    }

    /// That no sum of lengths lies between `from` and `to`.
    fn no_sum(&self, boxes: &Boxes, from: i64, to: i64) -> Holds {
        unless(!self.folded(), "on folded cloth lengths are not summed")?;
        let above = if boxes.gap == GapCounted::Along { self.job.rules.gap.0 } else { 0 };
        let mut heights: Vec<(u32, Vec<i64>)> = Vec::new();
        for (&piece, &copies) in &self.counts {
            let ways = self.boxes_of(piece, boxes, to)?;
            heights.push((copies, ways.iter().map(|w| w.1).collect()));
        }
        unless(!has_sum(&heights, from + above, to + above)?, "there is a sum of lengths between")
    }

    /// That no line holds slices for more than is said, and that the pieces are worth more than all lines there are.
    fn sliced(&self, slices: &Slices, excluded: i64) -> Holds {
        let gap = self.job.rules.gap.0;
        let (capacity, room) = match slices.lines {
            Lines::Across => (self.width() + gap, excluded),
            Lines::Along => (excluded + gap, self.width()),
        };
        unless(slices.step.0 > 0 && slices.dearest > 0, "its step or its dearest line is nothing")?;
        unless(capacity / slices.step.0 <= MOST_STEPS, "its steps are too fine")?;
        let mut groups: BTreeMap<usize, (usize, u32)> = BTreeMap::new();
        for way in &slices.ways {
            let (piece, copies) = *groups.entry(way.group).or_insert((way.piece, way.copies));
            unless((piece, copies) == (way.piece, way.copies), "a group is of two kinds")?;
        }
        for (piece, there) in &self.counts {
            let priced: u64 = groups.values().filter(|g| g.0 == *piece).map(|g| u64::from(g.1)).sum();
            unless(priced <= u64::from(*there), "more copies are priced than there are")?;
        }
        unless(groups.values().all(|g| self.counts.contains_key(&g.0)), "a piece is priced that is not there")?;
        let mut worth = 0_i128;
        for (group, (number, copies)) in &groups {
            let piece = &self.job.pieces[*number];
            let one_layer = !self.folded() || self.counts[number] < 2;
            let mut least: Option<i128> = None;
            for (turn, from_fold) in self.ways(piece, excluded) {
                let way = slices
                    .ways
                    .iter()
                    .find(|w| w.group == *group && w.turn == turn.degrees() && w.from_fold == from_fold);
                let Some(way) = way else { return Err("a way to lie has no price".to_owned()) };
                self.slices_hold(piece, turn, from_fold, slices.lines, way)?;
                let halves = if from_fold || one_layer { 2 } else { 1 };
                let sum: i128 =
                    way.slices.iter().map(|s| i128::from((s.to - s.from).0) * i128::from(s.price) * halves).sum();
                least = Some(least.map_or(sum, |l| l.min(sum)));
            }
            worth += least.ok_or("a piece fits no way")? * i128::from(*copies);
        }
        let dearest = dearest_line(slices, &groups, capacity / slices.step.0)?;
        unless(dearest <= slices.dearest, "a line can hold more than it says")?;
        unless(worth > 2 * i128::from(room) * i128::from(slices.dearest), "all pieces are worth no more than the lines")
    }

    /// That a line anywhere in a slice crosses as much as is said.
    fn slices_hold(
        &self,
        piece: &JobPiece,
        turn: Turn,
        from_fold: bool,
        lines: Lines,
        way: &super::PricedWay,
    ) -> Holds {
        let mut corners = piece.outline.placed(turn, false);
        let axis = extent(&corners)[2] / 2;
        // Read along the lines: (along the line, across the lines).
        let seen = |p: &Point| match lines {
            Lines::Across => (p.x.0 as f64, p.y.0 as f64),
            Lines::Along => (p.y.0 as f64, p.x.0 as f64),
        };
        if from_fold {
            corners = right_half(&corners, axis);
        }
        let ring: Vec<(f64, f64)> = corners.iter().map(seen).collect();
        let mut ends: Vec<f64> = ring.iter().map(|p| p.1).collect();
        ends.sort_by(f64::total_cmp);
        let (low, high) = (ends[0], ends[ends.len() - 1]);
        let mut before = low - SLANT;
        for slice in &way.slices {
            let (from, to) = (slice.from.0 as f64, slice.to.0 as f64);
            unless(from >= before - SLANT && to >= from && to <= high + SLANT, "slices do not follow each other")?;
            before = to;
            let wide = (slice.wide - self.job.rules.gap).0 as f64;
            let mut stops = vec![from];
            stops.extend(ends.iter().copied().filter(|e| *e > from && *e < to));
            stops.push(to);
            // Between two corners what is crossed changes evenly: two places tell of both ends.
            for pair in stops.windows(2).filter(|p| p[1] > p[0]) {
                let quarter = (pair[1] - pair[0]) / 4.0;
                let (early, late) = (crossed(&ring, pair[0] + quarter), crossed(&ring, pair[1] - quarter));
                let least = early.min(late) - (late - early).abs() / 2.0;
                unless(least + SLANT >= wide, "a slice is wider than its piece")?;
            }
        }
        Ok(())
    }
}

/// A dual-feasible function of sides up to `side`, in whole numbers.
struct Share {
    side: i128,
    function: Function,
}

impl Share {
    fn new(function: Function, side: i64) -> Result<Self, String> {
        match function {
            Function::Threshold(e) => {
                unless(e.0 > 0 && 2 * i128::from(e.0) <= i128::from(side) + 1, "a threshold beyond half the side")?;
            }
            Function::Rounded(k) => unless((1..=MOST_PARTS).contains(&k), "a function of too many parts")?,
            Function::Share => {}
        }
        unless(side > 0, "a side is nothing")?;
        Ok(Self { side: side.into(), function })
    }

    fn full(&self) -> i128 {
        match self.function {
            Function::Rounded(k) => self.side * i128::from(k),
            Function::Share | Function::Threshold(_) => self.side,
        }
    }

    fn of(&self, side: i64) -> i128 {
        let s = i128::from(side);
        match self.function {
            Function::Share => s,
            Function::Threshold(e) => {
                let e = i128::from(e.0);
                if s < e {
                    0
                } else if self.side - s < e {
                    self.side
                } else {
                    s
                }
            }
            Function::Rounded(k) => {
                let k = i128::from(k);
                let parts = (k + 1) * s;
                if parts.rem_euclid(self.side) == 0 { s * k } else { parts.div_euclid(self.side) * self.side }
            }
        }
    }
}

/// Whether measures, each copy taken once in one of its ways or not at all, can add up to something from `from` to `to`.
fn has_sum(measures: &[(u32, Vec<i64>)], from: i64, to: i64) -> Result<bool, String> {
    let step = measures.iter().flat_map(|m| &m.1).fold(0, |a, b| divisor(a, *b)).max(1);
    unless(to / step <= MOST_STEPS, "its sums are too many to follow")?;
    let mut there = vec![false; (to / step) as usize + 1];
    there[0] = true;
    for (copies, ways) in measures {
        for _ in 0..*copies {
            let before = there.clone();
            for way in ways {
                let by = (*way / step) as usize;
                for at in by..there.len() {
                    there[at] |= before[at - by];
                }
            }
            if there == before {
                break; // one more changes nothing
            }
        }
    }
    let first = from.max(0).div_euclid(step) + i64::from(from.max(0) % step != 0);
    Ok(there.iter().skip(first as usize).any(|is| *is))
}

fn divisor(a: i64, b: i64) -> i64 {
    if b == 0 { a } else { divisor(b, a % b) }
}

/// The most that slices on one line can be worth.
fn dearest_line(slices: &Slices, groups: &BTreeMap<usize, (usize, u32)>, steps: i64) -> Result<i64, String> {
    let mut most = vec![0_i64; steps as usize + 1];
    let mut work = 0;
    let mut add = |options: &[(usize, i64)], copies: u32, most: &mut Vec<i64>| -> Holds {
        let narrowest = options.iter().map(|o| o.0).min().unwrap_or(0);
        // Of what has no width a line holds all there is.
        let times = (steps as usize).checked_div(narrowest).map_or(copies, |n| copies.min(n as u32));
        for _ in 0..times {
            work += steps * options.len() as i64;
            unless(work <= MOST_WORK, "its lines are too many to follow")?;
            let before = most.clone();
            for &(wide, price) in options {
                for at in wide..most.len() {
                    most[at] = most[at].max(before[at - wide].saturating_add(price));
                }
            }
        }
        Ok(())
    };
    let mut halves: Vec<(usize, i64)> = Vec::new();
    for (group, (_, copies)) in groups {
        let mut options: Vec<(usize, i64)> = Vec::new();
        for way in slices.ways.iter().filter(|w| w.group == *group) {
            // A line across the cloth meets the fold once, so it crosses one half piece there.
            let list = if way.from_fold && slices.lines == Lines::Across { &mut halves } else { &mut options };
            for slice in way.slices.iter().filter(|s| s.price > 0) {
                unless(slice.wide.0 >= 0, "a slice is less than nothing wide")?;
                list.push(((slice.wide.0 / slices.step.0) as usize, slice.price));
            }
        }
        options.sort_unstable();
        options.dedup();
        add(&options, *copies, &mut most)?;
    }
    halves.sort_unstable();
    halves.dedup();
    add(&halves, 1, &mut most)?;
    Ok(most.last().copied().unwrap_or(0))
}

/// Left, low, right and high.
fn extent(corners: &[Point]) -> [i64; 4] {
    let mut found = [i64::MAX, i64::MAX, i64::MIN, i64::MIN];
    for p in corners {
        found = [found[0].min(p.x.0), found[1].min(p.y.0), found[2].max(p.x.0), found[3].max(p.y.0)];
    }
    found
}

fn twice_area(corners: &[Point]) -> i128 {
    let mut sum = 0_i128;
    for (i, a) in corners.iter().enumerate() {
        let b = corners[(i + 1) % corners.len()];
        sum += i128::from(a.x.0) * i128::from(b.y.0) - i128::from(b.x.0) * i128::from(a.y.0);
    }
    sum.abs()
}

fn polygon(corners: &[Point]) -> Polygon<f64> {
    Polygon::new(LineString::from_iter(corners.iter().map(|p| (p.x.0 as f64, p.y.0 as f64))), vec![])
}

fn is_inside([x, y, width, height]: [i64; 4], corners: &[Point]) -> bool {
    let (x, y, width, height) = (x as f64, y as f64, width as f64, height as f64);
    let rectangle = geo::Rect::new((x, y), (x + width, y + height)).to_polygon();
    let outside = rectangle.difference(&polygon(corners)).unsigned_area();
    outside <= 2.0 * (width + height) * SLANT
}

/// What of an outline is right of an upright axis, moved so that the axis is 0.
fn right_half(corners: &[Point], axis: i64) -> Vec<Point> {
    let mut kept = Vec::new();
    for (i, a) in corners.iter().enumerate() {
        let b = corners[(i + 1) % corners.len()];
        if a.x.0 >= axis {
            kept.push(Point::new(Length(a.x.0 - axis), a.y));
        }
        if (a.x.0 < axis) != (b.x.0 < axis) && a.x != b.x {
            let t = (axis - a.x.0) as f64 / (b.x.0 - a.x.0) as f64;
            kept.push(Point::new(Length::ZERO, Length(a.y.0 + ((b.y.0 - a.y.0) as f64 * t).round() as i64)));
        }
    }
    kept
}

/// How much of the line at `at` lies inside a ring.
fn crossed(ring: &[(f64, f64)], at: f64) -> f64 {
    let mut meets: Vec<f64> = Vec::new();
    for (i, a) in ring.iter().enumerate() {
        let b = ring[(i + 1) % ring.len()];
        if (a.1 <= at) != (b.1 <= at) {
            meets.push(a.0 + (b.0 - a.0) * (at - a.1) / (b.1 - a.1));
        }
    }
    meets.sort_by(f64::total_cmp);
    meets.chunks(2).filter(|pair| pair.len() == 2).map(|pair| pair[1] - pair[0]).sum()
}
