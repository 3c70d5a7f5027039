//! Lengths ruled out by slicing the pieces: stronger than area where little fits beside what is wide.
//!
//! Wherever a straight line runs across the cloth, what it crosses of the pieces fits into its width; and a line along
//! the cloth, into its length. So the slices of all pieces are packed, line by line, and how many lines that takes is
//! a linear program: the one-dimensional relaxation of Belov, Kartak, Rohling and Scheithauer 2009 ("One-dimensional
//! relaxations and LP bounds for orthogonal packing"; named from memory), here with pieces of any outline and with
//! folded cloth. Its dual sets a price on every slice. Whatever prices are chosen, they prove a bound as soon as no
//! line can hold slices for more than 1, and that is found in whole numbers by a knapsack: what the solver rounds can
//! weaken a bound, never break it.

use super::{Lines, PricedSlice, PricedWay, Rule, Slices};
use crate::lay::bin::Bin;
use crate::lay::job::Job;
use crate::lay::nest::{ItemType, parts_of};
use crate::lay::rectangles::common_divisor;
use crate::lay::stop::Stop;
use crate::lay::turns::allowed_turns;
use crate::measure::Length;
use crate::shape::{Point, Turn};
use microlp::{ComparisonOp, OptimizationDirection, Problem, Variable};

/// A slanted or round piece is cut into about so many slices.
const SLICES: i64 = 16;
/// Lines are followed in at most so many steps.
const MOST_STEPS: i64 = 4_096;
/// More different slices than these are not priced.
const MOST_SLICES: usize = 160;
/// Steps of knapsacks after which a bound is given up.
const MOST_WORK: u64 = 150_000_000;
/// Lines the linear program learns before a bound is given up.
const MOST_LINES: usize = 40;
/// A price of 1.
const ONE: i64 = 1 << 30;

/// So much of a piece takes so much of every line across it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
struct Slice {
    /// Of the line; rounded down.
    wide: i64,
    /// Of the piece, in half units: over two layers a copy is half a placement.
    deep: i64,
}

/// A slice where it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct Cut {
    from: i64,
    to: i64,
    wide: i64,
}

/// One way all slices of a copy can lie.
#[derive(Clone, Debug)]
struct Way {
    slices: Vec<Slice>,
    /// Half a piece from the fold on: a line across the cloth crosses one of them.
    from_fold: bool,
    /// The turns that come to this, and whether half on the fold, each with its slices one by one.
    turns: Vec<(Turn, bool, Vec<Cut>)>,
}

impl Way {
    fn is_like(&self, other: &Self) -> bool {
        (self.from_fold, &self.slices) == (other.from_fold, &other.slices)
    }
}

struct Item {
    /// Index of the piece in the job.
    piece: usize,
    copies: i64,
    ways: Vec<Way>,
}

/// Why no lay of `item_types` on a rectangle of cloth, `bin`, can be as short as `length`, if slices tell.
pub(in crate::lay) fn ruled_out(
    job: &Job,
    bin: &Bin,
    item_types: &[ItemType],
    length: i64,
    stop: &Stop,
) -> Option<Rule> {
    if bin.edge.is_some() || item_types.is_empty() {
        return None;
    }
    let gap = job.rules.gap.0;
    [(Lines::Across, bin.width, length), (Lines::Along, length, bin.width)].into_iter().find_map(
        |(lines, capacity, room)| match items(job, bin, item_types, length, lines) {
            Err(piece) => Some(Rule::Longest { piece }),
            Ok(items) => more_than(&items, capacity + gap, room, lines, stop).map(Rule::Slices),
        },
    )
}

/// What is to be packed; the piece that cannot lie on so short a cloth at all, if there is one.
fn items(job: &Job, bin: &Bin, item_types: &[ItemType], length: i64, lines: Lines) -> Result<Vec<Item>, usize> {
    let cloth = &job.cloths[bin.cloth];
    let mut found = Vec::with_capacity(item_types.len());
    for item_type in item_types.iter().filter(|l| l.copies > 0) {
        let piece = &job.pieces[item_type.piece];
        // Both faces come together over two layers, so what counts is how many there are of the piece.
        let all: u32 = item_types.iter().filter(|l| l.piece == item_type.piece).map(|l| l.copies).sum();
        let share = if bin.folded && all > 1 { 1 } else { 2 };
        let mut ways: Vec<Way> = Vec::new();
        for turn in allowed_turns(piece.grain, piece.print, cloth).turns {
            let halves = bin.folded && piece.outline.is_symmetric(turn);
            for from_fold in [Some(false), halves.then_some(true)].into_iter().flatten() {
                let parts = parts_of(piece, turn, false, from_fold);
                let far = |of: fn(&Point) -> Length| parts.iter().flatten().map(of).max().unwrap_or_default().0;
                if far(|p| p.x) > bin.width || far(|p| p.y) > length {
                    continue;
                }
                let times = if from_fold { 2 } else { share };
                let cuts = cuts(&parts, lines, job.rules.gap.0);
                let way = Way {
                    slices: together(&cuts, times),
                    from_fold: from_fold && lines == Lines::Across,
                    turns: vec![(turn, from_fold, cuts)],
                };
                match ways.iter_mut().find(|w| w.is_like(&way)) {
                    Some(same) => same.turns.extend(way.turns),
                    None => ways.push(way),
                }
            }
        }
        if ways.is_empty() {
            return Err(item_type.piece);
        }
        found.push(Item { piece: item_type.piece, copies: i64::from(item_type.copies), ways });
    }
    Ok(found)
}

/// The slices of convex parts from one end to the other, lines running across or along.
fn cuts(parts: &[Vec<Point>], lines: Lines, gap: i64) -> Vec<Cut> {
    let parts: Vec<Vec<(i64, i64)>> = parts
        .iter()
        .map(|part| part.iter().map(|p| if lines == Lines::Across { (p.x.0, p.y.0) } else { (p.y.0, p.x.0) }).collect())
        .collect();
    let mut ends: Vec<i64> = parts.iter().flatten().map(|p| p.1).collect();
    ends.sort_unstable();
    ends.dedup();
    let whole = ends.last().unwrap_or(&0) - ends.first().unwrap_or(&0);
    let mut found: Vec<Cut> = Vec::new();
    for ends in ends.windows(2) {
        let (low, high) = (ends[0], ends[1]);
        let middle = (low + high) / 2;
        let straight = parts.iter().all(|part| section(part, low, middle) == section(part, middle, high));
        let count = if straight { 1 } else { ((high - low) * SLICES / whole).clamp(1, SLICES) };
        for i in 0..count {
            let (a, b) = (low + (high - low) * i / count, low + (high - low) * (i + 1) / count);
            let wide: i64 = parts.iter().map(|part| section(part, a, b)).sum();
            found.push(Cut { from: a, to: b, wide: wide + gap });
        }
    }
    found
}

/// Slices that are equally wide taken as one; `times` is what each counts in half units.
fn together(cuts: &[Cut], times: i64) -> Vec<Slice> {
    let mut slices: Vec<Slice> = Vec::new();
    for cut in cuts {
        let deep = (cut.to - cut.from) * times;
        match slices.iter_mut().find(|s| s.wide == cut.wide) {
            Some(slice) => slice.deep += deep,
            None => slices.push(Slice { wide: cut.wide, deep }),
        }
    }
    slices.sort_unstable();
    slices
}

/// The least a convex part is wide between the heights `low` and `high`: at one of the two, or nothing where it ends
/// before.
fn section(part: &[(i64, i64)], low: i64, high: i64) -> i64 {
    let width = |at: i64| {
        let (mut left, mut right) = (i64::MAX, i64::MIN);
        for i in 0..part.len() {
            let (a, b) = (part[i], part[(i + 1) % part.len()]);
            if a.1.min(b.1) > at || a.1.max(b.1) < at {
                continue;
            }
            if a.1 == b.1 {
                (left, right) = (left.min(a.0).min(b.0), right.max(a.0).max(b.0));
                continue;
            }
            let (rise, run) = (i128::from(b.1 - a.1), i128::from(b.0 - a.0) * i128::from(at - a.1));
            let x = a.0 + run.div_euclid(rise) as i64;
            // Inwards where it is between two units, so that a slice never counts for too much.
            let inward = i64::from(run.rem_euclid(rise.abs()) != 0);
            (left, right) = (left.min(x + inward), right.max(x));
        }
        if left == i64::MAX { 0 } else { (right - left).max(0) }
    };
    width(low).min(width(high))
}

/// The prices by which packing all slices into lines of `capacity` takes more than `room` of lines, if there are any.
fn more_than(items: &[Item], capacity: i64, room: i64, lines: Lines, stop: &Stop) -> Option<Slices> {
    let slices: usize = items.iter().flat_map(|i| &i.ways).map(|w| w.slices.len()).sum();
    if slices > MOST_SLICES || capacity <= 0 || room <= 0 {
        return None;
    }
    let step = step_of(items, capacity);
    let steps = (capacity / step) as usize;
    let mut prices = Prices::new(items, step, steps, room)?;
    let (mut work, mut before) = (0, Vec::new());
    for _ in 0..MOST_LINES {
        let (dearest, line) = prices.dearest_line(&mut work);
        // Twice, as slices are as deep as half units say.
        if prices.total() > 2 * i128::from(room) * i128::from(dearest) {
            return Some(Slices { lines, step: Length(step), dearest, ways: prices.ways() });
        }
        // No prices can prove more than the best of all, nor these more by another line.
        let settled = prices.best < 1.0 || dearest <= ONE + ONE / 1_000_000 || line == before;
        if settled || work > MOST_WORK || stop.asked() || !prices.forbid(&line) {
            return None;
        }
        before = line;
    }
    None
}

/// The steps lines are measured in: what all straight slices are multiples of, then finer for the others.
fn step_of(items: &[Item], capacity: i64) -> i64 {
    let all = items.iter().flat_map(|i| &i.ways).flat_map(|w| &w.slices);
    let common = all.fold(capacity, |step, slice| common_divisor(step, slice.wide)).max(1);
    // Coarser than allowed, every slice is rounded down, which is only weaker.
    let least = (capacity / MOST_STEPS).max(1);
    if common >= least { common } else { least }
}

/// Slices so wide that a line of so many steps holds: no more than there are copies, however narrow they are.
fn most_on_a_line(copies: i64, wide: usize, steps: usize) -> usize {
    let copies = copies as usize;
    steps.checked_div(wide).map_or(copies, |n| n.min(copies))
}

/// The linear program of the prices, and the prices it comes to.
struct Prices<'a> {
    items: &'a [Item],
    steps: usize,
    /// Of each item, way and slice: how many steps wide, how deep, and the price.
    slices: Vec<Priced>,
    /// Solved as far as lines are known; none once the solver gave up.
    solution: Option<microlp::Solution>,
    /// What the prices prove at most, as a share of what is asked.
    best: f64,
}

struct Priced {
    item: usize,
    way: usize,
    wide: usize,
    deep: i64,
    variable: Variable,
    price: i64,
}

impl<'a> Prices<'a> {
    /// The program in which only lines of equal slices are known. `room` is what is asked, by which all is scaled.
    fn new(items: &'a [Item], step: i64, steps: usize, room: i64) -> Option<Self> {
        let mut problem = Problem::new(OptimizationDirection::Maximize);
        let mut slices = Vec::new();
        for (index, item) in items.iter().enumerate() {
            // What one copy is worth: the least of its ways.
            let copy = problem.add_var(item.copies as f64, (0.0, f64::INFINITY));
            for (number, way) in item.ways.iter().enumerate() {
                let mut sum = vec![(copy, 1.0)];
                for slice in &way.slices {
                    let wide = (slice.wide / step) as usize;
                    let most = if way.from_fold { 1 } else { most_on_a_line(item.copies, wide, steps) };
                    let variable = problem.add_var(0.0, (0.0, 1.0 / most.max(1) as f64));
                    sum.push((variable, -(slice.deep as f64) / (2.0 * room as f64)));
                    slices.push(Priced { item: index, way: number, wide, deep: slice.deep, variable, price: 0 });
                }
                problem.add_constraint(&sum, ComparisonOp::Le, 0.0);
            }
        }
        let solution = problem.solve().ok()?.into_solution().ok()?;
        let mut prices = Self { items, steps, slices, solution: Some(solution), best: 0.0 };
        prices.read();
        Some(prices)
    }

    fn read(&mut self) {
        if let Some(solution) = &self.solution {
            for slice in &mut self.slices {
                slice.price = (solution.var_value(slice.variable).max(0.0) * ONE as f64) as i64;
            }
            self.best = solution.objective();
        }
    }

    /// Every slice of every piece with its price.
    fn ways(&self) -> Vec<PricedWay> {
        let mut found = Vec::new();
        for (group, item) in self.items.iter().enumerate() {
            for (number, way) in item.ways.iter().enumerate() {
                let own: Vec<i64> =
                    self.slices.iter().filter(|p| (p.item, p.way) == (group, number)).map(|p| p.price).collect();
                let price = |wide: i64| way.slices.iter().position(|s| s.wide == wide).map_or(0, |at| own[at]);
                for (turn, from_fold, cuts) in &way.turns {
                    let priced = |c: &Cut| PricedSlice {
                        from: Length(c.from),
                        to: Length(c.to),
                        wide: Length(c.wide),
                        price: price(c.wide),
                    };
                    found.push(PricedWay {
                        group,
                        piece: item.piece,
                        copies: item.copies as u32,
                        turn: turn.degrees(),
                        from_fold: *from_fold,
                        slices: cuts.iter().map(priced).collect(),
                    });
                }
            }
        }
        found
    }

    /// From now on the slices of `line` come to 1 at most; whether the solver followed.
    fn forbid(&mut self, line: &[(usize, u32)]) -> bool {
        let sum: Vec<(Variable, f64)> =
            line.iter().map(|&(slice, times)| (self.slices[slice].variable, f64::from(times))).collect();
        let Some(solution) = self.solution.take() else { return false };
        self.solution =
            solution.add_constraint(&sum, ComparisonOp::Le, 1.0).ok().and_then(|solved| solved.into_solution().ok());
        self.read();
        self.solution.is_some()
    }

    /// What all pieces are worth, each by the cheapest of its ways: price times half units.
    fn total(&self) -> i128 {
        let mut worth: Vec<Vec<i128>> = self.items.iter().map(|i| vec![0; i.ways.len()]).collect();
        for slice in &self.slices {
            worth[slice.item][slice.way] += i128::from(slice.price) * i128::from(slice.deep);
        }
        self.items
            .iter()
            .zip(&worth)
            .map(|(item, ways)| i128::from(item.copies) * ways.iter().copied().min().unwrap_or(0))
            .sum()
    }

    /// The most the slices on one line can be worth, and which they are. Of a piece there are no more on a line than
    /// there are copies.
    fn dearest_line(&self, work: &mut u64) -> (i64, Vec<(usize, u32)>) {
        let mut worth = vec![0i64; self.steps + 1];
        let mut taken: Vec<Vec<u16>> = Vec::new();
        let (lying, halves): (Vec<usize>, Vec<usize>) = (0..self.slices.len())
            .filter(|&i| self.slices[i].price > 0)
            .partition(|&i| !self.items[self.slices[i].item].ways[self.slices[i].way].from_fold);
        let mut groups: Vec<(i64, Vec<usize>)> = self
            .items
            .iter()
            .enumerate()
            .map(|(index, item)| {
                let own = lying.iter().copied().filter(|&i| self.slices[i].item == index).collect();
                (item.copies, own)
            })
            .collect();
        groups.push((1, halves));
        for (copies, mut options) in groups {
            options.sort_unstable_by_key(|&i| (self.slices[i].wide, -self.slices[i].price));
            // What is wider and no dearer is never the better choice.
            let mut dearest = 0;
            options.retain(|&i| {
                let better = self.slices[i].price > dearest;
                dearest = dearest.max(self.slices[i].price);
                better
            });
            let Some(narrowest) = options.first().map(|&i| self.slices[i].wide) else { continue };
            for _ in 0..most_on_a_line(copies, narrowest, self.steps) {
                let mut choice = vec![0u16; self.steps + 1];
                let before = worth.clone();
                for &option in &options {
                    let Priced { wide, price, .. } = self.slices[option];
                    *work += self.steps as u64;
                    for at in wide..=self.steps {
                        let with = before[at - wide] + price;
                        if with > worth[at] {
                            (worth[at], choice[at]) = (with, option as u16 + 1);
                        }
                    }
                }
                taken.push(choice);
            }
        }
        let mut line: Vec<(usize, u32)> = Vec::new();
        let mut at = self.steps;
        for choice in taken.iter().rev().filter(|c| !c.is_empty()) {
            let Some(option) = usize::from(choice[at]).checked_sub(1) else { continue };
            at -= self.slices[option].wide;
            match line.iter_mut().find(|(i, _)| *i == option) {
                Some((_, times)) => *times += 1,
                None => line.push((option, 1)),
            }
        }
        (worth[self.steps], line)
    }
}

#[cfg(test)]
mod tests {
    use super::{Item, Lines, Slice, Stop, Way, cuts, section, together};
    use crate::measure::Length;
    use crate::shape::{Outline, Point, convex_parts};
    use proptest::prelude::*;

    fn straight(wide: i64, deep: i64) -> Way {
        Way { slices: vec![Slice { wide, deep: 2 * deep }], from_fold: false, turns: vec![] }
    }

    fn item(copies: i64, ways: Vec<Way>) -> Item {
        Item { piece: 0, copies, ways }
    }

    fn more_than(items: &[Item], capacity: i64, room: i64) -> bool {
        super::more_than(items, capacity, room, Lines::Across, &Stop::new()).is_some()
    }

    /// Known packings of lines: three of 6 in lines of 10 take a line each; with as many of 4 they take no more.
    #[test]
    fn lines_are_counted_as_they_must_be() {
        let six = || item(3, vec![straight(6, 5)]);
        let four = || item(3, vec![straight(4, 5)]);
        let five = || item(2, vec![straight(5, 5)]);
        assert!(more_than(&[six()], 10, 14) && !more_than(&[six()], 10, 15));
        assert!(more_than(&[six(), four()], 10, 14) && !more_than(&[six(), four()], 10, 15));
        assert!(more_than(&[six(), four(), five()], 10, 19) && !more_than(&[six(), four(), five()], 10, 20));
        // One that may lie either way counts with the better of the two.
        let either = || item(2, vec![straight(10, 3), straight(3, 10)]);
        assert!(more_than(&[either()], 10, 5) && !more_than(&[either()], 10, 6));
        // Half from the fold there is one on a line, however narrow.
        let halves = item(3, vec![Way { from_fold: true, ..straight(2, 5) }]);
        assert!(more_than(&[halves], 10, 14));
    }

    /// Of what is narrower than a step, a line holds as many as there are: not as many as there are steps.
    #[test]
    fn slices_of_no_width_all_lie_on_one_line() {
        let narrow =
            || item(14, vec![Way { slices: vec![Slice { wide: 0, deep: 2 * 3 }], from_fold: false, turns: vec![] }]);
        assert!(!more_than(&[narrow()], 7, 3) && more_than(&[narrow()], 7, 2));
        assert!(!more_than(&[narrow(), item(7, vec![straight(1, 3)])], 7, 3));
    }

    #[test]
    fn a_section_is_the_least_between_two_heights() {
        let trapezoid = [(0, 0), (12, 0), (9, 6), (3, 6)];
        assert_eq!(section(&trapezoid, 0, 6), 6);
        assert_eq!(section(&trapezoid, 0, 2), 10);
        assert_eq!(section(&trapezoid, 4, 8), 0);
    }

    proptest! {
        /// Slices never cover more than the piece, and miss little of it: the rest is what slanted sides are rounded by.
        #[test]
        fn slices_cover_the_piece_from_within(w in 40_i64..300, h in 40_i64..300, n in 3_i64..9, kind in 0..3_usize, along in any::<bool>()) {
            let e = |n: i64| Length::inches(n, 16);
            let outline = match kind {
                0 => Outline::notched(e(w), e(h), e(w / n), e(h / n)),
                1 => Outline::Circle(e(w)),
                _ => Outline::Polygon(vec![Point::new(e(0), e(0)), Point::new(e(w), e(0)), Point::new(e(w - w / n), e(h)), Point::new(e(w / n), e(h))]),
            };
            let parts = convex_parts(&outline.corners());
            let slices = together(&cuts(&parts, if along { Lines::Along } else { Lines::Across }, 0), 2);
            let covered: f64 = slices.iter().map(|s| s.wide as f64 * s.deep as f64 / 2.0).sum();
            let area = Outline::Polygon(outline.corners()).area().0 as f64;
            prop_assert!(covered <= area * (1.0 + 1e-9), "{covered} of {area}");
            prop_assert!(covered > area * if kind == 0 { 0.999_999 } else { 0.85 }, "{covered} of {area}");
            let (width, height) = (e(w).0, if kind == 1 { e(w).0 } else { e(h).0 });
            let deep: i64 = slices.iter().map(|s| s.deep / 2).sum();
            let through = if along { width } else { height };
            prop_assert!((deep - through).abs() <= 1, "{deep} of {through}");
        }
    }
}
