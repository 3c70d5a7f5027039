//! What stays bare on cloth that only just suffices: below a level, and on lines that what is still to be laid cannot
//! fill.
//!
//! A free stretch of a line across or along the cloth can at most be filled by the largest sum of sizes, among the
//! pieces still to be laid, that fits into it. The rest of it stays bare. Lines are sampled, so this is an estimate that
//! guides a search and no proof.

use super::board::KindPlacement;
use super::problem::Nest;
use crate::hashed::{HashMap, HashSet};
use crate::lay::reach::Reach;
use crate::shape::{NoFitRegion, Point, area_below};

/// Lines each way on a bin.
const LINES: i64 = 32;
/// Steps along a line in which sums are followed, and how many of them roundings may come to.
const STEPS: i64 = 2_000;
const LENIENT: i64 = 2;

/// Area of convex parts below a level, read off a table.
struct AreaBelow {
    /// From each level to the next a polynomial of the share of the way there.
    levels: Vec<i64>,
    terms: Vec<[f64; 3]>,
    whole: f64,
}

impl AreaBelow {
    /// The `parts` less the `missing` ones.
    fn new(parts: &[Vec<Point>], missing: &[Vec<Point>]) -> Self {
        let area = |y: i64| {
            let of = |parts: &[Vec<Point>]| parts.iter().map(|part| area_below(part, y)).sum::<f64>();
            of(parts) - of(missing)
        };
        let mut levels: Vec<i64> = parts.iter().chain(missing).flatten().map(|p| p.y.0).collect();
        levels.sort_unstable();
        levels.dedup();
        let terms = levels
            .windows(2)
            .map(|ends| {
                let middle = ends[0] + (ends[1] - ends[0]) / 2;
                let (low, high) = (area(ends[0]), area(ends[1]));
                // Of a quadratic three values tell all; the middle one is at the share `t`.
                let t = (middle - ends[0]) as f64 / (ends[1] - ends[0]) as f64;
                if t == 0.0 {
                    return [low, high - low, 0.0];
                }
                let square = ((area(middle) - low) / t - (high - low)) / (t - 1.0);
                [low, high - low - square, square]
            })
            .collect();
        let whole = levels.last().map_or(0.0, |y| area(*y));
        Self { levels, terms, whole }
    }

    fn at(&self, y: i64) -> f64 {
        let i = self.levels.partition_point(|level| *level <= y);
        if i == 0 {
            return 0.0;
        }
        let (Some(next), Some([a, b, c])) = (self.levels.get(i), self.terms.get(i - 1)) else { return self.whole };
        let t = (y - self.levels[i - 1]) as f64 / (next - self.levels[i - 1]) as f64;
        a + t * (b + t * c)
    }
}

/// A shape as lines cross it.
struct Crossed {
    below: AreaBelow,
    parts: Vec<NoFitRegion>,
    width: i64,
    height: i64,
    /// Fills its bounding box.
    full: bool,
}

/// One line, and what of it is taken.
struct Line {
    at: i64,
    from: i64,
    to: i64,
    /// Stretches by their beginnings; they may overlap.
    taken: Vec<(i64, i64)>,
}

impl Line {
    /// What sums leave of the free stretches from `foot` on.
    fn left_bare(&self, foot: i64, reach: &Reach, step: i64) -> i64 {
        let mut bare = 0;
        let mut free_from = self.from.max(foot);
        for &(a, b) in self.taken.iter().chain([&(self.to, self.to)]) {
            if a > free_from {
                bare += left(a.min(self.to) - free_from, reach, step);
            }
            free_from = free_from.max(b);
        }
        bare
    }
}

fn left(stretch: i64, reach: &Reach, step: i64) -> i64 {
    (stretch - reach.largest(stretch + step, step) - LENIENT * step).max(0)
}

/// The lines of one fixed bin.
struct Lined {
    below: AreaBelow,
    across: Vec<Line>,
    along: Vec<Line>,
    step: i64,
    spacing: (f64, f64),
}

/// The fixed bins of a nest that something may lie on, as they fill up.
pub(super) struct Bare {
    shapes: Vec<Crossed>,
    bins: Vec<Option<Lined>>,
    /// Sums across and along by bin and what is left.
    sums: HashMap<(usize, u64), (Reach, Reach)>,
    /// Numbers of states from which there is no way on.
    pub hopeless: HashSet<u64>,
}

/// So many states are remembered.
const MOST_STATES: usize = 500_000;

/// Sums of more different sets of pieces are forgotten.
const MOST_SUMS: usize = 20_000;

fn region(part: &[Point]) -> NoFitRegion {
    NoFitRegion::new(part.iter().map(|p| (p.x.0, p.y.0)).collect())
}

impl Bare {
    pub(super) fn new(nest: &Nest) -> Self {
        let shapes: Vec<Crossed> = nest
            .shapes
            .iter()
            .map(|shape| {
                let below = AreaBelow::new(&shape.parts, &[]);
                let whole = shape.width as f64 * shape.height as f64;
                Crossed {
                    full: below.whole > whole * 0.999,
                    below,
                    parts: shape.parts.iter().map(|part| region(part)).collect(),
                    width: shape.width,
                    height: shape.height,
                }
            })
            .collect();
        let used = |g: &usize| nest.kinds.iter().any(|kind| !kind.ways[*g].is_empty());
        let bins = (0..nest.bins.len()).map(|g| Some(g).filter(used).and_then(|g| lined(nest, g))).collect();
        let mut bare = Self { shapes, bins, sums: HashMap::default(), hopeless: HashSet::default() };
        for pin in &nest.fixed {
            bare.cover(pin.bin, pin.shape, pin.x, pin.y, true);
        }
        bare
    }

    /// Area of a bin, flaws and bays taken off.
    pub(super) fn bin(&self, bin: usize) -> f64 {
        self.bins[bin].as_ref().map_or(0.0, |lined| lined.below.whole)
    }

    /// What of `bin` below `y` is not covered by `shapes` (shape, height of its foot).
    pub(super) fn below(&self, bin: usize, y: i64, shapes: impl Iterator<Item = (usize, i64)>) -> f64 {
        let Some(lined) = &self.bins[bin] else { return 0.0 };
        lined.below.at(y) - shapes.map(|(shape, foot)| self.shapes[shape].below.at(y - foot)).sum::<f64>()
    }

    /// From `state` there is no way on.
    pub(super) fn remember(&mut self, state: u64) {
        if self.hopeless.len() < MOST_STATES {
            self.hopeless.insert(state);
        }
    }

    pub(super) fn placement(&mut self, bin: usize, placement: &KindPlacement) {
        self.cover(bin, placement.way.shape, placement.x, placement.y, true);
    }

    pub(super) fn take_up(&mut self, bin: usize, placement: &KindPlacement) {
        self.cover(bin, placement.way.shape, placement.x, placement.y, false);
    }

    fn cover(&mut self, bin: usize, shape: usize, x: i64, y: i64, covered: bool) {
        let Some(lined) = &mut self.bins[bin] else { return };
        let shape = &self.shapes[shape];
        let set = |line: &mut Line, stretch: Option<(i64, i64)>, by: i64| {
            let Some((a, b)) = stretch.map(|(a, b)| (a + by, b + by)) else { return };
            let at = line.taken.partition_point(|s| *s < (a, b));
            if covered {
                line.taken.insert(at, (a, b));
            } else if line.taken.get(at) == Some(&(a, b)) {
                line.taken.remove(at);
            }
        };
        for line in lined.across.iter_mut().filter(|l| (y..y + shape.height).contains(&l.at)) {
            for part in &shape.parts {
                set(line, part.across(line.at - y), x);
            }
        }
        for line in lined.along.iter_mut().filter(|l| (x..x + shape.width).contains(&l.at)) {
            for part in &shape.parts {
                set(line, part.along(line.at - x), y);
            }
        }
    }

    /// What is bound to stay bare above `foot`, by the sizes of what is left.
    pub(super) fn above(&mut self, nest: &Nest, bin: usize, foot: i64, left: &[usize]) -> f64 {
        let Self { shapes, bins, sums, .. } = self;
        let Some(lined) = &bins[bin] else { return 0.0 };
        let step = lined.step;
        if sums.len() > MOST_SUMS {
            sums.clear();
        }
        // There are few placements in all, so that this counts every set differently.
        let key = nest.kinds.iter().zip(left).fold(0, |key, (kind, left)| key * (kind.count as u64 + 1) + *left as u64);
        let reach = sums
            .entry((bin, key))
            .or_insert_with(|| [true, false].map(|across| sums_of(nest, shapes, bin, left, step, across)).into());
        let across: i64 =
            lined.across.iter().filter(|l| l.at >= foot).map(|l| l.left_bare(i64::MIN, &reach.0, step)).sum();
        let along: i64 = lined.along.iter().map(|l| l.left_bare(foot, &reach.1, step)).sum();
        (across as f64 * lined.spacing.0).max(along as f64 * lined.spacing.1)
    }
}

/// The sums of sizes, across or along, that what is left on a bin can come to.
fn sums_of(nest: &Nest, shapes: &[Crossed], bin: usize, left: &[usize], step: i64, across: bool) -> Reach {
    let mut reach = Reach::default();
    reach.start(STEPS as usize + 2);
    for (kind, copies) in left.iter().enumerate().filter(|(_, copies)| **copies > 0) {
        let mut sizes = Vec::with_capacity(4);
        let mut any = 0;
        for way in &nest.kinds[kind].ways[bin] {
            let shape = &shapes[way.shape];
            let size = (if across { shape.width } else { shape.height } + step / 2) / step;
            if shape.full { sizes.push(size as usize) } else { any = any.max(size as usize) }
        }
        for _ in 0..*copies {
            if any > 0 { reach.add_up_to(any) } else { reach.add(&sizes) }
        }
    }
    reach
}

/// Where a line at a place goes into a region and out of it.
type Cross = dyn Fn(&NoFitRegion, i64) -> Option<(i64, i64)>;

/// The lines of `bin`, if there is no more of it than it is long.
fn lined(nest: &Nest, bin: usize) -> Option<Lined> {
    let bin = &nest.bins[bin];
    let (width, height) = (bin.width, bin.limit?);
    let at = |x: i64, y: i64| Point::new(crate::measure::Length(x), crate::measure::Length(y));
    let plain = vec![at(0, 0), at(width, 0), at(width, height), at(0, height)];
    let (hull, missing) = bin.edge.as_ref().map_or((&plain, &[][..]), |e| (&e.hull, &e.missing[..]));
    let (edge, gone) = (region(hull), missing.iter().map(|part| region(part)).collect::<Vec<_>>());
    let lines = |side: i64, cross: &Cross| -> Vec<Line> {
        let made = (0..LINES).map(|i| side * (2 * i + 1) / (2 * LINES)).filter_map(|at| {
            let (from, to) = cross(&edge, at)?;
            let mut taken: Vec<(i64, i64)> = gone.iter().filter_map(|part| cross(part, at)).collect();
            taken.sort_unstable();
            Some(Line { at, from, to, taken })
        });
        made.collect()
    };
    Some(Lined {
        below: AreaBelow::new(std::slice::from_ref(hull), missing),
        across: lines(height, &|part, at| part.across(at)),
        along: lines(width, &|part, at| part.along(at)),
        step: (width.max(height) / STEPS).max(1),
        spacing: (height as f64 / LINES as f64, width as f64 / LINES as f64),
    })
}

#[cfg(test)]
mod tests {
    use super::AreaBelow;
    use crate::measure::Length;
    use crate::shape::{Outline, Point, area_below, convex_parts};
    use proptest::prelude::*;

    fn shapes() -> impl Strategy<Value = Outline> {
        (0..4_usize, 20_i64..400, 20_i64..400, 3_i64..9).prop_map(|(kind, w, h, n)| {
            let e = |n: i64| Length::inches(n, 32);
            let p = |x: i64, y: i64| Point::new(e(x), e(y));
            match kind {
                0 => Outline::Rect(e(w), e(h)),
                1 => Outline::Circle(e(w)),
                2 => Outline::notched(e(w), e(h), e(w / n), e(h / n)),
                _ => Outline::Polygon(vec![p(0, 0), p(w, h / n), p(w - w / n, h), p(w / n, h - h / n)]),
            }
        })
    }

    proptest! {
        /// The table says of every level what clipping says, less what is missing.
        #[test]
        fn the_table_of_areas_agrees_with_clipping(outline in shapes(), share in 0_i64..=64, missing in any::<bool>()) {
            let parts = convex_parts(&outline.corners());
            let gone = if missing { parts[..1].to_vec() } else { vec![] };
            let table = AreaBelow::new(&parts, &gone);
            let top = parts.iter().flatten().map(|p| p.y.0).max().unwrap_or(0);
            let y = top * share / 60;
            let of = |parts: &[Vec<Point>]| parts.iter().map(|part| area_below(part, y)).sum::<f64>();
            let exact = of(&parts) - of(&gone);
            let whole = outline.area().0 as f64;
            prop_assert!((table.at(y) - exact).abs() < 1e-6 * whole, "{} for {exact} at {y}", table.at(y));
        }
    }
}
