//! The search on one roll: constructors, then late acceptance over orders, shelves and deep searches in turn, all
//! sharing the best lay.
//!
//! Late acceptance: Burke and Bykov 2017, "The late acceptance hill-climbing heuristic".

use super::bounds::{ruled_out, strip_bound};
use super::cut_tree::{Region, cut_tree};
use super::niche::Niche;
use super::random::Random;
use super::shelves;
use super::skyline::Skyline;
use super::strip::{Laid, Strip};
use crate::cloth::Cloth;
use crate::measure::Length;

/// How good a lay is; less is better, compared field by field.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(super) struct Score {
    /// By how much it is longer than the cloth.
    over: i64,
    /// What has to be bought.
    bought: Length,
    /// Cannot be cut edge to edge.
    ragged: bool,
    /// How long it lies.
    length: i64,
}

/// Every so many iterations one is a deep search.
const DEEP_EVERY: u64 = 48;
/// Deep searches are for jobs that fit in the head; beyond, they find nothing.
const DEEP_PIECES: usize = 60;
/// Nodes of the shortest deep search; longer ones follow as in Luby's sequence.
const DEEP_NODES: u64 = 2_000;
/// Jobs of more kinds keep the plain bound: ruling lengths out is quadratic in the kinds.
const MOST_KINDS_BOUNDED: usize = 80;
/// Nobody buys by less than this.
const FINE: Length = Length::inches(1, 64);
const LATE: usize = 60;
/// Iterations spent on making an unbeatable lay simpler to cut.
const POLISH: u64 = 4_000;

pub(super) struct StripSearch<'a> {
    pub cloth: &'a Cloth,
    pub strip: Strip,
    pub best: Vec<Laid>,
    score: Score,
    /// No lay is shorter than this.
    pub bound: i64,
    random: Random,
    skyline: Skyline,
    order: Vec<usize>,
    late: Vec<i128>,
    current: i128,
    shelf_order: Vec<(usize, usize)>,
    shelf_score: Score,
    iteration: u64,
    deep_runs: u64,
    since_proven: u64,
}

impl<'a> StripSearch<'a> {
    /// Runs the constructors; after this `best` holds every piece.
    pub(super) fn new(cloth: &'a Cloth, strip: Strip, seed: u64) -> Self {
        let bound = strip_bound(&strip);
        let order: Vec<usize> = (0..strip.kinds.len()).collect();
        let worst = Score { over: i64::MAX, bought: Length(i64::MAX), ragged: true, length: i64::MAX };
        let mut search = Self {
            cloth,
            best: Vec::new(),
            score: worst,
            bound,
            random: Random::new(seed),
            skyline: Skyline::default(),
            order,
            late: Vec::new(),
            current: i128::MAX,
            shelf_order: Vec::new(),
            shelf_score: worst,
            iteration: 0,
            deep_runs: 0,
            since_proven: 0,
            strip,
        };
        search.construct();
        search.raise_bound();
        search
    }

    /// Rules out purchases below the best one by one from the least, then lengths below it by halving.
    fn raise_bound(&mut self) {
        if self.score.over > 0 || self.strip.kinds.len() > MOST_KINDS_BOUNDED {
            return;
        }
        let length_of = |bought: Length| (bought.shrunk(self.cloth.shrink.along) - self.cloth.trim * 2).0;
        if self.cloth.shop.step.is_some() && !self.cloth.owned {
            loop {
                let bought = self.cloth.buy_length(self.cloth.needed_length(Length(self.bound)));
                // The longest lay this purchase holds.
                let length = length_of(bought);
                if bought >= self.score.bought || length < self.bound || !ruled_out(&self.strip, length) {
                    break;
                }
                self.bound = length + 1;
            }
        }
        // What is ruled out rules out all that is shorter.
        let (mut low, mut high) = (self.bound, self.score.length);
        while high - low > FINE.0 {
            let middle = low + (high - low) / 2;
            if ruled_out(&self.strip, middle) {
                low = middle + 1;
                self.bound = low;
            } else {
                high = middle;
            }
        }
    }

    fn construct(&mut self) {
        type Key = fn(i64, i64) -> i64;
        let keys: [Key; 5] = [|_, h| h, |w, _| w, |w, h| w.saturating_mul(h) >> 20, |w, h| w.max(h), |w, h| w + h];
        let mut best_order = self.order.clone();
        for key in keys {
            let mut order = self.order.clone();
            order.sort_by_key(|&k| {
                let c = self.strip.kinds[k].choices[0];
                std::cmp::Reverse(key(c.width, c.height))
            });
            if !self.strip.through {
                let value = self.lay_skyline(&order);
                if value < self.current {
                    self.current = value;
                    best_order.clone_from(&order);
                }
            }
            for upright in [true, false] {
                let shelf_order: Vec<(usize, usize)> = order
                    .iter()
                    .flat_map(|&k| std::iter::repeat_n((k, self.choice(k, upright)), self.strip.kinds[k].count))
                    .collect();
                let score = self.lay_shelves(&shelf_order);
                if score < self.shelf_score {
                    self.shelf_score = score;
                    self.shelf_order = shelf_order;
                }
            }
        }
        self.order = best_order;
        self.late = vec![self.current; LATE];
    }

    /// The choice of a kind that lies highest, or widest.
    fn choice(&self, kind: usize, upright: bool) -> usize {
        let choices = &self.strip.kinds[kind].choices;
        (0..choices.len()).max_by_key(|&i| if upright { choices[i].height } else { choices[i].width }).unwrap_or(0)
    }

    /// One step of the search; returns whether `best` became better.
    pub(super) fn iterate(&mut self) -> bool {
        self.iteration += 1;
        if self.proven() {
            self.since_proven += 1;
        }
        let before = self.score;
        let n = self.strip.pieces();
        if !self.strip.through && n <= DEEP_PIECES && self.iteration % DEEP_EVERY == 1 {
            self.deep();
        } else if self.strip.through || self.iteration.is_multiple_of(4) {
            self.move_shelves();
        } else {
            self.move_order();
        }
        self.score < before
    }

    /// No purchase is shorter.
    pub(super) fn proven(&self) -> bool {
        let least = self.cloth.buy_length(self.cloth.needed_length(Length(self.bound)));
        self.score.over == 0 && self.score.bought <= least
    }

    /// Nothing is left to gain, or what is left has been tried for long enough.
    pub(super) fn finished(&self) -> bool {
        self.proven() && (!self.score.ragged || self.since_proven > POLISH)
    }

    /// The cloth is too short for this lay.
    pub(super) fn over(&self) -> bool {
        self.score.over > 0
    }

    /// Every cut of `best` can run edge to edge.
    pub(super) fn through(&self) -> bool {
        !self.score.ragged
    }

    /// The best lay with every piece slid to the left as far as it goes, so that what is left over lies together; as it
    /// was where that would spoil cuts from edge to edge.
    pub(super) fn tidied(&self) -> Vec<Laid> {
        let mut lay = self.best.clone();
        lay.sort_by_key(|l| (l.x, l.y));
        for i in 0..lay.len() {
            let (_, height) = self.strip.size(&lay[i]);
            let (low, high) = (lay[i].y, lay[i].y + height);
            // Whatever is to the left has been slid already and keeps its place.
            lay[i].x = lay[..i]
                .iter()
                .filter(|l| l.y < high && l.y + self.strip.size(l).1 > low)
                .map(|l| l.x + self.strip.size(l).0)
                .max()
                .unwrap_or(0);
        }
        if self.through() && !is_through(&self.strip, &lay, self.score.length) { self.best.clone() } else { lay }
    }

    fn score(&self, lay: &[Laid]) -> Score {
        let length = self.strip.length(lay);
        let over = self.cloth.usable_length().map_or(0, |limit| (length - limit.0).max(0));
        let bought = self.cloth.buy_length(self.cloth.needed_length(Length(length)));
        Score { over, bought, ragged: true, length }
    }

    fn offer(&mut self, lay: &[Laid]) -> Score {
        let mut score = self.score(lay);
        // The tree is only grown where it can matter.
        let if_through = Score { ragged: false, ..score };
        if if_through < self.score {
            score.ragged = !is_through(&self.strip, lay, score.length);
            if score < self.score && !(self.strip.through && score.ragged) {
                self.score = score;
                self.best.clear();
                self.best.extend_from_slice(lay);
            }
        }
        score
    }

    /// Length first, then what is wasted under the skyline as a finer guide.
    fn lay_skyline(&mut self, order: &[usize]) -> i128 {
        let filled = self.skyline.fill(&self.strip, order);
        let lay = std::mem::take(&mut self.skyline.lay);
        self.offer(&lay);
        self.skyline.lay = lay;
        i128::from(filled.length) * i128::from(self.strip.width) + filled.waste
    }

    fn lay_shelves(&mut self, order: &[(usize, usize)]) -> Score {
        let lay = shelves::fill(&self.strip, order);
        let mut score = self.offer(&lay);
        score.ragged = false;
        score
    }

    fn move_order(&mut self) {
        let n = self.order.len();
        if n < 2 {
            return;
        }
        let mut order = std::mem::take(&mut self.order);
        let (i, j) = (self.random.below(n), self.random.below(n));
        let taken_out = self.random.below(3) == 0;
        if taken_out {
            let moved = order.remove(i);
            order.insert(j, moved);
        } else {
            order.swap(i, j);
        }
        let value = self.lay_skyline(&order);
        let slot = (self.iteration as usize) % LATE;
        if value <= self.current || value <= self.late[slot] {
            self.current = value;
        } else if taken_out {
            let moved = order.remove(j);
            order.insert(i, moved);
        } else {
            order.swap(i, j);
        }
        self.late[slot] = self.current;
        self.order = order;
    }

    fn move_shelves(&mut self) {
        let n = self.shelf_order.len();
        let mut order = self.shelf_order.clone();
        let i = self.random.below(n);
        let choices = self.strip.kinds[order[i].0].choices.len();
        if choices > 1 && self.random.below(3) == 0 {
            order[i].1 = (order[i].1 + 1) % choices;
        } else {
            let moved = order.remove(i);
            order.insert(self.random.below(n), moved);
        }
        let score = self.lay_shelves(&order);
        if score <= self.shelf_score {
            self.shelf_score = score;
            self.shelf_order = order;
        }
    }

    fn deep(&mut self) {
        self.deep_runs += 1;
        let nodes = DEEP_NODES << self.deep_runs.trailing_zeros().min(9);
        let aim = match self.longest_cheaper() {
            Some(length) if self.deep_runs.is_multiple_of(2) => length,
            Some(length) => self.bound.min(length),
            None => return,
        };
        let found = Niche::find(&self.strip, aim, nodes, &mut self.random);
        if let Some(lay) = found {
            self.offer(&lay);
        }
    }

    /// The longest lay that would cost less cloth than the best, if one may exist.
    fn longest_cheaper(&self) -> Option<i64> {
        let cloth = self.cloth;
        let length = if self.score.over > 0 {
            self.score.length - self.score.over
        } else {
            let cheaper = match cloth.shop.step {
                Some(step) if !cloth.owned => self.score.bought - step,
                _ => self.score.bought - Length(1),
            };
            (cheaper.shrunk(cloth.shrink.along) - cloth.trim * 2).0.min(self.score.length - 1)
        };
        (length >= self.bound).then_some(length)
    }
}

/// Whether `lay` comes apart by cuts from edge to edge.
pub(super) fn is_through(strip: &Strip, lay: &[Laid], length: i64) -> bool {
    let pieces: Vec<Region> = lay
        .iter()
        .map(|l| {
            let (width, height) = strip.size(l);
            Region { x: l.x, y: l.y, width: width - strip.gap, height: height - strip.gap }
        })
        .collect();
    let whole = Region { x: 0, y: 0, width: strip.width - strip.gap, height: length };
    cut_tree(whole, &pieces).is_some()
}
