//! The search by true outlines: orders for the constructor under late acceptance, and squeezing to a shorter lay or
//! into cloth that is owned, by turns.

use super::bare::Bare;
use super::board::{Finder, KindPlacement};
use super::deep::{self, to_spare};
use super::fill::{Layout, Style, boxes, comes_apart, fill, fill_on};
use super::problem::Nest;
use super::separation::{Piece, Separation, compacted};
use super::touching::{self, Sides};
use crate::lay::answer::Offcut;
use crate::lay::guillotine::Region;
use crate::lay::job::{Aim, Job};
use crate::lay::offcuts::keepable;
use crate::lay::random::Random;
use crate::lay::rank::{Rank, Use, place_in_list, square_inches};
use crate::measure::Length;
use std::sync::Arc;

const LATE: usize = 25;
/// Passes without a clear gain before a separation goes back to its least overlap (one search is more patient than the
/// one beside it), how often it may without gaining, and
/// how often it is then disturbed before the length asked for is given up.
const PATIENCE: [u32; 2] = [40, 100];
const STRIKES: u32 = 2;
const DISTURBED: usize = 4;
/// Squeezes given up before a search that is behind another goes on from the other's lay.
const LEFT_BEHIND: u32 = 1;
/// More placements than this are only filled, not searched.
const MOST_SEARCHED: usize = 200;
/// Deep searches: how often, how often where sides are fitted together too (which finds more in the same time), at how
/// many placements, with how much to spare, and the places tried by the shortest.
const DEEP_EVERY: u64 = 8;
const DEEP_BESIDE_SIDES: u64 = 32;
const DEEP_PIECES: usize = 24;
const MOST_TO_SPARE: f64 = 0.25;
const DEEP_WORK: u32 = 12_000;
/// Lays side by side in the narrowest beam.
const BEAM: usize = 30;
/// The most places tried of a piece each way it lies.
const DEEP_PLACES: usize = 3;
/// Sides are fitted together every so many steps on cloth that is there; on a roll after so many more each time, the
/// more seldom the longer it has gained nothing; into a length so many eighths of the way from what the area asks for to
/// the best; and the fewest lays it keeps side by side.
const TOUCHING_EVERY: u64 = 2;
const TOUCHING_AFTER: [u64; 2] = [16, 512];
const TOUCHING_SHARES: [i64; 4] = [0, 2, 4, 6];
const TOUCHING_WIDTH: usize = 16;
/// The most lays side by side times placements times shapes: what one step may cost, in time and in places kept.
const TOUCHING_WORK: usize = 100_000;
/// Tiles whose corners were rounded to units may take a little more than their area.
const ROUNDED: i64 = 64;
/// How much shorter the next lay is asked to be, by turns, in thousandths.
const SHORTER: [i64; 4] = [10, 5, 2, 20];

/// One attempt at a shorter lay: separated until it no longer gains, gone back to what overlapped least, and from the
/// better of the states given up disturbed and tried again (after Gardeyn and Wauters 2025).
struct Run {
    separation: Separation,
    /// Least overlap since the last disturbance, and where the pieces were.
    least: (f64, Vec<Piece>),
    /// Least since the last strike.
    lately: f64,
    /// Least when the strikes were last forgiven.
    gained: f64,
    idle: u32,
    strikes: u32,
    /// States given up, the least overlap first.
    given_up: Vec<(f64, Vec<Piece>)>,
    /// Kinds that stay out of this attempt.
    out: Vec<usize>,
}

pub(in crate::lay) struct NestSearch<'a> {
    job: &'a Job,
    pub nest: Arc<Nest>,
    pub best: Layout,
    pub rank: Rank,
    random: Random,
    finder: Finder,
    /// Whether deep searches are made at all.
    pub deep: bool,
    /// Whether sides are fitted together: not before there is a first answer, which must not wait for it.
    pub touching: bool,
    /// Made for the first of them.
    bare: Option<Bare>,
    /// What sides there are to fit together; nothing where that is no use.
    sides: Option<Sides>,
    touching_runs: u64,
    /// The step it is due, and how long after it is due again.
    touching_from: u64,
    touching_after: u64,
    /// What it left over, to be separated into the same limits.
    nearly: Option<(Layout, Vec<i64>)>,
    order: Vec<usize>,
    style: Style,
    current: Rank,
    late: Vec<Rank>,
    run: Option<Run>,
    /// The lay squeezed from: this search's own, until it is left behind for long by one found elsewhere.
    own: (Rank, Layout),
    /// Squeezes given up since it became better.
    behind: u32,
    attempts: u64,
    deep_runs: u64,
    iteration: u64,
    /// Every so many steps one is by the constructor; searches side by side differ in it, and in their patience.
    fill_every: u64,
    patience: u32,
}

impl<'a> NestSearch<'a> {
    /// More placements than this wait for an answer from elsewhere: filling takes longer than a first answer may.
    pub(in crate::lay) const FILLED_AT_ONCE: usize = 80;

    /// Starts with the constructor's answers to a few orders.
    pub(in crate::lay) fn new(job: &'a Job, nest: Arc<Nest>, seed: u64) -> Self {
        let mut search = Self::idle(job, nest, seed);
        search.construct();
        search
    }

    /// Starts with nothing laid.
    pub(in crate::lay) fn idle(job: &'a Job, nest: Arc<Nest>, seed: u64) -> Self {
        let order: Vec<usize> =
            nest.kinds.iter().enumerate().flat_map(|(k, kind)| std::iter::repeat_n(k, kind.count)).collect();
        let nothing = Layout { on: vec![vec![]; nest.bins.len()], left: order.clone() };
        Self {
            job,
            own: (Rank::WORST, nothing.clone()),
            behind: 0,
            best: nothing,
            rank: Rank::WORST,
            random: Random::new(seed),
            finder: Finder::default(),
            deep: true,
            touching: true,
            bare: None,
            sides: Sides::of(&nest),
            touching_runs: 0,
            touching_from: 1,
            touching_after: TOUCHING_AFTER[0],
            nearly: None,
            order,
            style: Style::Top,
            current: Rank::WORST,
            late: vec![Rank::WORST; LATE],
            run: None,
            attempts: 0,
            deep_runs: 0,
            iteration: 0,
            fill_every: if seed.is_multiple_of(2) { 3 } else { 12 },
            patience: PATIENCE[(seed % 2) as usize],
            nest,
        }
    }

    fn construct(&mut self) {
        type Key = fn(i64, i64) -> i64;
        let keys: [Key; 4] = [|w, h| w.saturating_mul(h), |_, h| h, |w, _| w, |w, h| w.max(h)];
        let few = if self.order.len() > MOST_SEARCHED { 1 } else { keys.len() };
        let start = self.order.clone();
        for key in &keys[..few] {
            let mut order = start.clone();
            order.sort_by_key(|&k| {
                let way = self.nest.kinds[k].ways.iter().flatten().next();
                std::cmp::Reverse(way.map_or(0, |w| {
                    let shape = &self.nest.shapes[w.shape];
                    key(shape.width, shape.height)
                }))
            });
            for style in if few == 1 { &Style::ALL[..1] } else { &Style::ALL[..2] } {
                let layout = fill(&self.nest, &order, *style, &mut self.finder);
                let rank = self.offer(&layout);
                if rank < self.current {
                    (self.current, self.style) = (rank, *style);
                    self.order.clone_from(&order);
                }
            }
        }
        self.late.fill(self.current);
    }

    /// Whether the lay holds every piece.
    pub(in crate::lay) fn complete(&self) -> bool {
        self.nest.is_whole && self.best.left.is_empty()
    }

    /// Whether what lies on `bin` cannot be cut edge to edge.
    pub(in crate::lay) fn non_guillotine(&self, bin: usize) -> bool {
        let length = self.best.length(&self.nest, bin);
        length > 0 && !comes_apart(&boxes(&self.nest, bin, &self.best.on[bin]))
    }

    /// One step; returns whether `best` became better.
    pub(in crate::lay) fn iterate(&mut self) -> bool {
        let before = self.rank;
        self.iteration += 1;
        let deep_every = if self.fits_sides() { DEEP_BESIDE_SIDES } else { DEEP_EVERY };
        if self.iteration % deep_every == 1 && self.only_just_suffices() {
            self.deep();
        } else if self.wants_touching() {
            self.fit_sides();
        } else if self.order.len() <= MOST_SEARCHED
            && !self.nest.through
            && !self.iteration.is_multiple_of(self.fill_every)
        {
            self.separation();
        } else {
            self.move_order();
        }
        self.rank < before
    }

    /// Takes up a lay found elsewhere, tightened by the true outlines.
    pub(in crate::lay) fn take(&mut self, layout: &Layout) -> bool {
        if !self.nest.is_whole {
            return false; // its shapes are not numbered as those of the lay
        }
        let before = self.rank;
        self.offer(layout);
        if self.order.len() <= 2 * MOST_SEARCHED && !self.nest.through && !self.nest.stop.asked() {
            let mut tight = layout.clone();
            for (g, placement) in tight.on.iter_mut().enumerate() {
                *placement = compacted(&self.nest, g, std::mem::take(placement));
            }
            self.offer(&tight);
        }
        self.rank < before
    }

    fn offer(&mut self, layout: &Layout) -> Rank {
        let rank = rank_of(self.job, &self.nest, layout);
        let apart = |g: usize| comes_apart(&boxes(&self.nest, g, &layout.on[g]));
        if rank < self.rank && (!self.nest.through || (0..layout.on.len()).all(apart)) {
            self.rank = rank;
            self.best.clone_from(layout);
        }
        rank
    }

    /// Something is bought or left out although the cloth that is there has the area for all, with little to spare.
    fn only_just_suffices(&mut self) -> bool {
        if !self.deep
            || self.order.len() > DEEP_PIECES
            || self.nest.through
            || (self.best.left.is_empty() && self.rank.costs_nothing())
        {
            return false;
        }
        let bare = self.bare.get_or_insert_with(|| Bare::new(&self.nest));
        let all: f64 = self.nest.kinds.iter().map(|k| k.area * k.count as f64).sum();
        (0.0..all * MOST_TO_SPARE).contains(&to_spare(&self.nest, bare))
    }

    fn deep(&mut self) {
        self.deep_runs += 1;
        // By turns into the depth and side by side, each the longer the more seldom.
        let (turn, longer) = (self.deep_runs / 2, |most| (self.deep_runs / 2).trailing_zeros().min(most));
        let way = if self.deep_runs.is_multiple_of(2) {
            deep::Way::Depth(DEEP_WORK << longer(3))
        } else {
            deep::Way::Beam(BEAM << longer(4))
        };
        let places = 1 + turn as usize % DEEP_PLACES;
        let nest = self.nest.clone();
        let Some(bare) = &mut self.bare else { return };
        if let Some(layout) = deep::find(&nest, way, places, bare, &mut self.finder, &mut self.random) {
            self.offer(&layout);
        }
    }

    /// Whether there are sides to fit together, on cloth that only just suffices or that is bought by length.
    fn fits_sides(&self) -> bool {
        self.deep && self.touching && self.sides.as_ref().is_some_and(|sides| sides.spare() <= MOST_TO_SPARE)
    }

    /// Whether sides are fitted together in this step.
    fn wants_touching(&self) -> bool {
        let Some(sides) = self.sides.as_ref().filter(|_| self.fits_sides()) else { return false };
        let complete = self.best.left.is_empty();
        // What is bought whole is no cheaper for being laid more closely.
        let bought_whole = sides.bins().iter().map(|&g| &self.nest.bins[g]).all(|bin| bin.remnant && !bin.owned);
        let is_best = complete && (self.rank.costs_nothing() || bought_whole);
        self.iteration >= self.touching_from && !is_best
    }

    /// Fits sides together in less length than the best lay takes, or on the cloth that is there.
    fn fit_sides(&mut self) {
        let nest = self.nest.clone();
        let Some(sides) = &self.sides else { return };
        self.touching_runs += 1;
        let bins = sides.bins();
        let asked = |bin: usize| {
            let all: f64 = nest.kinds.iter().map(|k| k.area * k.count as f64).sum();
            let least = (all / nest.bins[bin].width as f64).ceil() as i64 + ROUNDED;
            let longest = self.best.length(&nest, bin);
            let share = TOUCHING_SHARES[self.touching_runs as usize % TOUCHING_SHARES.len()];
            least + (longest - least).max(0) / 8 * share
        };
        // Only one that is filled alone has no length of its own.
        let open = bins.iter().copied().find(|&g| !nest.bins[g].fixed());
        let limit = open.map_or(i64::MAX, asked);
        let steps = nest.placements() * nest.shapes.len() * bins.len();
        let most = (TOUCHING_WORK / steps.max(1)).max(2);
        let width = (TOUCHING_WIDTH << self.touching_runs.trailing_zeros().min(3)).min(most);
        let Some(reached) = touching::find(&nest, sides, limit, width, &mut self.random) else { return };
        let mut start = Layout { on: vec![vec![]; nest.bins.len()], left: vec![] };
        for (bin, placements) in reached.on {
            start.on[bin] = placements;
        }
        let mut order = reached.left;
        order.sort_by(|a, b| nest.kinds[*b].area.total_cmp(&nest.kinds[*a].area));
        if !order.is_empty() && order.len() <= 1.max(nest.placements() / 4) {
            let area = |kinds: &[usize]| kinds.iter().map(|&k| nest.kinds[k].area).sum::<f64>();
            if self.nearly.as_ref().is_none_or(|(known, _)| area(&order) <= area(&known.left)) {
                let mut limits: Vec<i64> = nest.bins.iter().map(|bin| bin.limit.unwrap_or(0)).collect();
                if let Some(bin) = open {
                    limits[bin] = limit;
                }
                self.nearly = Some((Layout { left: order.clone(), ..start.clone() }, limits));
            }
        }
        let before = self.rank;
        let layout = fill_on(&nest, start, &order, Style::Top, &mut self.finder);
        self.offer(&layout);
        let [shortest, longest] = TOUCHING_AFTER;
        self.touching_after = if self.rank < before { shortest } else { (2 * self.touching_after).min(longest) };
        self.touching_from = self.iteration + if open.is_none() { TOUCHING_EVERY } else { self.touching_after };
    }

    fn move_order(&mut self) {
        let n = self.order.len();
        if n == 0 {
            return;
        }
        let mut order = self.order.clone();
        let (i, j) = (self.random.below(n), self.random.below(n));
        match self.random.below(3) {
            0 => {
                let moved = order.remove(i);
                order.insert(j, moved);
            }
            1 => order.swap(i, j),
            _ => {
                let (a, b) = (i.min(j), i.max(j));
                order[a..=b].rotate_left(1);
                let k = self.random.below(n);
                order.swap(i, k);
            }
        }
        let style = if self.random.below(12) == 0 { Style::ALL[self.random.below(3)] } else { self.style };
        let layout = fill(&self.nest, &order, style, &mut self.finder);
        let rank = self.offer(&layout);
        let slot = (self.iteration / self.fill_every) as usize % LATE;
        if rank <= self.current || rank <= self.late[slot] {
            (self.order, self.style, self.current) = (order, style, rank);
        }
        self.late[slot] = self.current;
    }

    fn separation(&mut self) {
        let Some(mut run) = self.run.take().or_else(|| self.start_run()) else {
            self.move_order();
            return;
        };
        let overlap = run.separation.pass(&self.nest, &mut self.random);
        if overlap == 0.0 {
            if let Some(mut layout) = run.separation.layout(&self.nest) {
                layout.left = run.out;
                let rank = self.offer(&layout);
                if rank < self.own.0 {
                    (self.own, self.behind) = ((rank, layout), 0);
                }
            }
            return; // the next run asks for more
        }
        if overlap < run.least.0 {
            run.least = (overlap, run.separation.state());
        }
        if overlap < run.lately * 0.98 {
            (run.lately, run.idle) = (overlap, 0);
        } else {
            run.idle += 1;
        }
        if run.idle > self.patience {
            run.idle = 0;
            // Gained since the last strike, or not.
            if run.least.0 < run.gained * 0.98 {
                (run.gained, run.strikes) = (run.least.0, 0);
            } else {
                run.strikes += 1;
            }
            if run.strikes < STRIKES {
                run.separation.restore(&run.least.1);
            } else if !run.disturb(&self.nest, &mut self.random) {
                self.behind += 1;
                return;
            }
            run.lately = f64::INFINITY;
        }
        self.run = Some(run);
    }

    fn start_run(&mut self) -> Option<Run> {
        self.attempts += 1;
        if let Some((layout, limits)) = self.nearly.take() {
            return self.run_from(&layout, limits, vec![]);
        }
        if self.own.0 == Rank::WORST || (self.behind > LEFT_BEHIND && self.rank < self.own.0) {
            (self.own, self.behind) = ((self.rank, self.best.clone()), 0);
        }
        let (mut layout, mut out) = (self.own.1.clone(), Vec::new());
        let mut limits: Vec<i64> = (0..self.nest.bins.len())
            .map(|g| self.nest.bins[g].limit.unwrap_or_else(|| layout.length(&self.nest, g)))
            .collect();
        if layout.left.is_empty() {
            self.ask_for_less(&layout, &mut limits)?;
        } else {
            // One more piece is squeezed in; every other time all of them.
            if self.attempts.is_multiple_of(2) && layout.left.len() > 1 {
                out = std::mem::take(&mut layout.left);
                let one = out.swap_remove(self.random.below(out.len()));
                layout.left = vec![one];
            }
            if !self.has_room(&layout, &limits) {
                return None;
            }
        }
        self.run_from(&layout, limits, out)
    }

    /// Separates `layout` into the limits, `out` staying out of it.
    fn run_from(&mut self, layout: &Layout, limits: Vec<i64>, out: Vec<usize>) -> Option<Run> {
        let mut separation = Separation::new(&self.nest, layout, limits.clone(), &mut self.random)?;
        separation.limit(&self.nest, limits);
        Some(Run {
            separation,
            least: (f64::INFINITY, vec![]),
            lately: f64::INFINITY,
            gained: f64::INFINITY,
            idle: 0,
            strikes: 0,
            given_up: vec![],
            out,
        })
    }

    /// A shorter limit for one bin that can be shorter.
    fn ask_for_less(&mut self, layout: &Layout, limits: &mut [i64]) -> Option<()> {
        let used: Vec<usize> = (0..limits.len()).filter(|&g| !layout.on[g].is_empty()).collect();
        let open: Vec<usize> = used.iter().copied().filter(|&g| !self.nest.bins[g].owned).collect();
        let from = if open.is_empty() { used } else { open };
        if from.is_empty() {
            return None;
        }
        let g = from[self.random.below(from.len())];
        let bin = &self.nest.bins[g];
        let cloth = &self.job.cloths[bin.cloth];
        let length = layout.length(&self.nest, g);
        let bought = cloth.buy_length(cloth.needed_length(Length(length)));
        let cheaper = cloth.longest_cheaper(bought).map(|l| l.0).filter(|l| *l < length);
        let shorter = length - length * SHORTER[(self.attempts / 2) as usize % SHORTER.len()] / 1000 - 1;
        // What is bought whole is emptied or kept.
        limits[g] = match cheaper {
            _ if bin.remnant => 0,
            Some(cheaper) if self.attempts.is_multiple_of(2) => cheaper,
            _ => shorter.max(1),
        };
        self.has_room(layout, limits).then_some(())
    }

    /// Whether the area alone allows it.
    fn has_room(&self, layout: &Layout, limits: &[i64]) -> bool {
        let room: f64 =
            self.nest.bins.iter().zip(limits).map(|(g, limit)| g.width as f64 * (*limit).max(0) as f64).sum();
        let laid = layout.on.iter().flatten().map(|p| p.kind).chain(layout.left.iter().copied());
        laid.map(|k| self.nest.kinds[k].area).sum::<f64>() <= room
    }
}

impl Run {
    /// Goes on from one of the states given up, the better rather, two pieces thrown about; false when that has been
    /// done often enough.
    fn disturb(&mut self, nest: &Nest, random: &mut Random) -> bool {
        let state = std::mem::replace(&mut self.least, (f64::INFINITY, vec![]));
        let at = self.given_up.partition_point(|s| s.0 <= state.0);
        self.given_up.insert(at, state);
        if self.given_up.len() > DISTURBED {
            return false;
        }
        let chosen = random.below(self.given_up.len()).min(random.below(self.given_up.len()));
        self.separation.restore(&self.given_up[chosen].1);
        self.separation.disturb(nest, random);
        (self.lately, self.gained, self.strikes) = (f64::INFINITY, f64::INFINITY, 0);
        true
    }
}

fn rank_of(job: &Job, nest: &Nest, layout: &Layout) -> Rank {
    let uses: Vec<Use> = (0..nest.bins.len())
        .map(|g| {
            let placement = &layout.on[g];
            let length = layout.length(nest, g);
            if placement.is_empty() && length == 0 {
                return Use::default();
            }
            let boxes = boxes(nest, g, placement);
            let bin = &nest.bins[g];
            let whole = Region { x: 0, y: 0, width: bin.width, height: bin.limit.unwrap_or(length).max(length) };
            let cloth = &job.cloths[bin.cloth];
            let place = |p: &KindPlacement| place_in_list(job, &job.pieces[nest.kinds[p.kind].piece], cloth);
            let whole_left = if job.rules.aim == Aim::KeepBig { whole_left(job, whole, &boxes) } else { 0.0 };
            Use {
                length,
                non_guillotine: !comes_apart(&boxes),
                area: square_inches(placement.iter().map(|p| nest.kinds[p.kind].area).sum()),
                whole_left,
                down_the_list: placement.iter().map(|p| place(p) * u64::from(nest.kinds[p.kind].yields)).sum(),
            }
        })
        .collect();
    let unplaced = square_inches(layout.left.iter().map(|&k| nest.kinds[k].area).sum());
    Rank::of(job, &nest.bins, &uses, unplaced)
}

/// The largest whole rectangle beside `boxes`, in square inches.
pub(in crate::lay) fn whole_left(job: &Job, whole: Region, boxes: &[Region]) -> f64 {
    keepable(whole, boxes, job.rules.keep).first().map_or(0.0, |o| match o {
        Offcut::Rect { width, height, .. } => square_inches(width.0 as f64 * height.0 as f64),
        Offcut::Polygon(_) => 0.0,
    })
}

#[cfg(test)]
mod tests {
    use super::{Nest, NestSearch};
    use crate::cloth::Cloth;
    use crate::lay::bin::bins;
    use crate::lay::nest::ItemType;
    use crate::lay::{Job, JobPiece, Rules, Stop};
    use crate::measure::{Length, System};
    use crate::piece::{Grain, Mirror, PrintRule};
    use crate::shape::Outline;

    /// Stopped while it was made, a problem has fewer shapes than the lay it is handed.
    #[test]
    fn a_problem_that_was_not_made_whole_takes_up_no_lay() {
        let inch = |n| Length::INCH * n;
        let piece = |id: &str, across| JobPiece {
            any_cloth: false,
            on_print: None,
            id: id.into(),
            name: id.into(),
            count: 1,
            outline: Outline::Circle(inch(across)),
            grain: Grain::Either,
            print: PrintRule::Ignore,
            mirror: Mirror::No,
            cloths: vec!["roll".into()],
        };
        let job = Job {
            name: "circles".into(),
            units: System::Inches,
            pieces: vec![piece("a", 5), piece("b", 7)],
            cloths: vec![Cloth::roll("roll", inch(20))],
            rules: Rules::default(),
            pinned: vec![],
        };
        let bins = bins(&job);
        let items = [0, 1].map(|piece| ItemType { piece, flipped: false, copies: 1 });
        let made = |stop: Stop| Nest::new(&job, &bins, &items, |_| vec![0], &stop);
        let whole = NestSearch::new(&job, made(Stop::new()).into(), 1);
        assert!(whole.complete());
        for looks in 0..2 {
            let mut partly = NestSearch::idle(&job, made(Stop::after(looks)).into(), 1);
            assert!(!partly.nest.is_whole && !partly.take(&whole.best) && !partly.complete(), "after {looks} looks");
        }
    }
}
