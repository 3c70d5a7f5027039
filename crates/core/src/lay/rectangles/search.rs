//! The search on one roll: constructors, then late acceptance over orders, shelves, beams and deep searches in turn,
//! all sharing the best lay.
//!
//! Late acceptance: Burke and Bykov 2017, "The late acceptance hill-climbing heuristic".

use super::branch_and_bound::{BranchAndBound, Claim, Outcome};
use super::skyline::Skyline;
use super::strip::{Laid, Strip};
use super::{beam, levels, shelves, subsets};
use crate::cloth::Cloth;

use crate::lay::guillotine::{Region, comes_apart};
use crate::lay::proof::{Boxes, MOST_KINDS, Proof, Rule, Tried, raised, ruled_out, strip_proof};
use crate::lay::random::Random;
use crate::measure::Length;

/// How good a lay is; less is better, compared field by field.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(in crate::lay) struct Score {
    /// By how much it is longer than the cloth.
    over: i64,
    /// Cannot be cut edge to edge, where few cuts matter most.
    ragged_first: bool,
    /// What has to be bought.
    bought: Length,
    /// Cannot be cut edge to edge.
    non_guillotine: bool,
    /// How long it lies.
    length: i64,
    /// Different edges across and along: each is a setting of the ruler.
    settings: usize,
    /// How far apart the copies of a piece lie, all pieces together.
    apart: i64,
}

impl Score {
    /// Of a lay that is not there.
    const WORST: Self = Self {
        over: i64::MAX,
        ragged_first: true,
        bought: Length(i64::MAX),
        non_guillotine: true,
        length: i64::MAX,
        settings: usize::MAX,
        apart: i64::MAX,
    };
}

/// Every so many iterations one is a deep search.
const DEEP_EVERY: u64 = 48;
/// Deep searches are for jobs that fit in the head; beyond, they find nothing.
const DEEP_PIECES: usize = 60;
/// With more than these they seldom find anything.
const DEEP_AT_HOME: usize = 24;
/// Nodes of the shortest deep search; longer ones follow as in Luby's sequence.
const DEEP_NODES: u64 = 2_000;
/// Of more kinds than this the bound is raised once the first answer is out.
const BOUNDED_AT_ONCE: usize = 20;
/// Every so many iterations one is a beam search; the narrowest beam; and the most pieces it is for.
const BEAM_EVERY: u64 = 6;
const BEAM_WIDTH: usize = 16;
const BEAM_PIECES: usize = 120;
const LEVELS_EVERY: u64 = 4;
/// So few pieces that trying everything is worth the time.
const EXHAUSTED_PIECES: usize = 12;
const LATE: usize = 60;
/// More pieces than these are not slid together: that is quadratic in them.
const MOST_SLID: usize = 3_000;
/// Iterations spent on making an unbeatable lay simpler to cut.
const POLISH: u64 = 4_000;
/// Iterations spent on lays of the same length with fewer settings of the ruler, once nothing is cheaper.
const SETTLE: u64 = 600;

pub(in crate::lay) struct StripSearch<'a> {
    pub cloth: &'a Cloth,
    pub strip: Strip,
    pub best: Vec<Laid>,
    score: Score,
    /// No lay of the boxes is shorter. With a gap it is no word on the pieces, which may pass corner to corner.
    pub proof: Proof,
    random: Random,
    skyline: Skyline,
    order: Vec<usize>,
    late: Vec<i128>,
    current: i128,
    shelf_order: Vec<(usize, usize)>,
    shelf_score: Score,
    iteration: u64,
    deep_runs: u64,
    beam_runs: u64,
    since_proven: u64,
    few_cuts: bool,
}

impl<'a> StripSearch<'a> {
    /// Runs the constructors; after this `best` holds every piece.
    pub(in crate::lay) fn new(cloth: &'a Cloth, strip: Strip, few_cuts: bool, seed: u64) -> Self {
        let proof = strip_proof(&strip, &Boxes::default());
        let order: Vec<usize> = (0..strip.kinds.len()).collect();
        let mut search = Self {
            cloth,
            best: Vec::new(),
            score: Score::WORST,
            proof,
            random: Random::new(seed),
            skyline: Skyline::default(),
            order,
            late: Vec::new(),
            current: i128::MAX,
            shelf_order: Vec::new(),
            shelf_score: Score::WORST,
            iteration: 0,
            deep_runs: 0,
            beam_runs: 0,
            since_proven: 0,
            few_cuts,
            strip,
        };
        search.construct();
        if search.strip.kinds.len() <= BOUNDED_AT_ONCE {
            search.raise_bound();
        }
        search
    }

    /// Rules out purchases below the best one by one from the least, then lengths below it by halving.
    fn raise_bound(&mut self) {
        if self.score.over > 0 || self.strip.kinds.len() > MOST_KINDS {
            return;
        }
        if self.cloth.shop.step.is_some() && !self.cloth.owned {
            loop {
                let bought = self.cloth.buy_length(self.cloth.needed_length(Length(self.proof.bound)));
                // The longest lay this purchase holds.
                let length = self.cloth.longest_lay(bought).0;
                if bought >= self.score.bought || length < self.proof.bound {
                    break;
                }
                let Some(rule) = ruled_out(&self.strip, &Boxes::default(), length) else { break };
                self.proof.raise(length + 1, || rule);
            }
        }
        raised(&self.strip, &Boxes::default(), &mut self.proof, self.score.length);
    }

    fn construct(&mut self) {
        type Key = fn(i64, i64) -> i64;
        let keys: [Key; 5] = [|_, h| h, |w, _| w, |w, h| w.saturating_mul(h) >> 20, |w, h| w.max(h), |w, h| w + h];
        let mut best_order = self.order.clone();
        // Thousands take long enough by the first few.
        let few = if self.strip.pieces() > 3_000 { 2 } else { keys.len() };
        for key in &keys[..few] {
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
    pub(in crate::lay) fn iterate(&mut self) -> bool {
        self.iteration += 1;
        if self.iteration == 1 && self.strip.kinds.len() > BOUNDED_AT_ONCE {
            self.raise_bound();
        }
        if self.proven() {
            self.since_proven += 1;
        }
        let before = self.score;
        let n = self.strip.pieces();
        let i = self.iteration;
        let deep_every = if n <= DEEP_AT_HOME { DEEP_EVERY } else { 8 * DEEP_EVERY };
        if self.strip.through && i == 1 {
            self.all_cuts();
        } else if self.strip.through {
            if n <= BEAM_PIECES && i % LEVELS_EVERY == 1 { self.levels() } else { self.move_shelves() }
        } else if n <= DEEP_PIECES && i % deep_every == 1 {
            self.deep();
        } else if n <= BEAM_PIECES && i % BEAM_EVERY == 2 {
            self.beam();
        } else if n <= BEAM_PIECES && i % (24 * LEVELS_EVERY) == 3 {
            self.levels();
        } else if i.is_multiple_of(4) {
            self.move_shelves();
        } else {
            self.move_order();
        }
        self.score < before
    }

    /// No purchase is shorter.
    pub(in crate::lay) fn proven(&self) -> bool {
        let least = self.cloth.buy_length(self.cloth.needed_length(Length(self.proof.bound)));
        self.score.over == 0 && self.score.bought <= least
    }

    /// Nothing is left to gain, or what is left has been tried for long enough.
    pub(in crate::lay) fn finished(&self) -> bool {
        self.proven() && self.since_proven > if self.score.non_guillotine { POLISH } else { SETTLE }
    }

    /// The cloth is too short for this lay.
    pub(in crate::lay) fn over(&self) -> bool {
        self.score.over > 0
    }

    /// Every cut of `best` can run edge to edge.
    pub(in crate::lay) fn through(&self) -> bool {
        !self.score.non_guillotine
    }

    /// The best lay with every piece slid to the left as far as it goes, so that what is left over lies together; as it
    /// was where there are too many, or where that would spoil cuts from edge to edge.
    pub(in crate::lay) fn tidied(&self) -> Vec<Laid> {
        if self.best.len() > MOST_SLID {
            return self.best.clone();
        }
        let lay = self.slid(&self.best);
        if self.through() && !is_through(&self.strip, &lay, self.score.length) { self.best.clone() } else { lay }
    }

    /// Every piece slid to the left as far as it goes.
    fn slid(&self, lay: &[Laid]) -> Vec<Laid> {
        let mut lay = lay.to_vec();
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
        lay
    }

    /// Different edges of a lay, across and along; and the boxes round all copies of a piece, their half girths added up.
    fn order_of(&self, lay: &[Laid]) -> (usize, i64) {
        let slid = self.slid(lay);
        let mut boxes: Vec<Option<[i64; 4]>> = vec![None; self.strip.kinds.len()];
        for l in &slid {
            let (width, height) = self.strip.size(l);
            let here = [l.x, l.y, l.x + width, l.y + height];
            let [left, low, right, top] = boxes[l.kind].unwrap_or(here);
            boxes[l.kind] = Some([left.min(here[0]), low.min(here[1]), right.max(here[2]), top.max(here[3])]);
        }
        let apart = boxes.iter().flatten().map(|[left, low, right, top]| right - left + top - low).sum();
        let different = |edges: &mut dyn Iterator<Item = i64>| {
            let mut edges: Vec<i64> = edges.collect();
            edges.sort_unstable();
            edges.dedup();
            edges.len()
        };
        let across = different(&mut slid.iter().map(|l| l.x + self.strip.size(l).0));
        (across + different(&mut slid.iter().map(|l| l.y + self.strip.size(l).1)), apart)
    }

    fn score(&self, lay: &[Laid]) -> Score {
        let length = self.strip.length(lay);
        let over = self.cloth.usable_length().map_or(0, |limit| (length - limit.0).max(0));
        let bought = self.cloth.buy_length(self.cloth.needed_length(Length(length)));
        Score {
            over,
            ragged_first: self.few_cuts,
            bought,
            non_guillotine: true,
            length,
            settings: usize::MAX,
            apart: i64::MAX,
        }
    }

    fn offer(&mut self, lay: &[Laid]) -> Score {
        let mut score = self.score(lay);
        // The tree is only grown, and settings are only counted, where it can matter.
        let at_best = Score { non_guillotine: false, ragged_first: false, settings: 0, apart: 0, ..score };
        if at_best < self.score && lay.len() <= MOST_SLID {
            (score.settings, score.apart) = self.order_of(lay);
        }
        if (Score { non_guillotine: false, ragged_first: false, ..score }) < self.score {
            score.non_guillotine = !is_through(&self.strip, lay, score.length);
            score.ragged_first &= score.non_guillotine;
            if score < self.score && !(self.strip.through && score.non_guillotine) {
                self.score = score;
                self.best.clear();
                self.best.extend_from_slice(lay);
            }
        }
        score
    }

    /// Length first, then what is wasted under the skyline as a finer guide.
    fn lay_skyline(&mut self, order: &[usize]) -> i128 {
        let Some(filled) = self.skyline.fill(&self.strip, order) else { return i128::MAX };
        let lay = std::mem::take(&mut self.skyline.lay);
        self.offer(&lay);
        self.skyline.lay = lay;
        i128::from(filled.length) * i128::from(self.strip.width) + filled.waste
    }

    fn lay_shelves(&mut self, order: &[(usize, usize)]) -> Score {
        let Some(lay) = shelves::fill(&self.strip, order) else { return Score::WORST };
        let mut score = self.offer(&lay);
        // The order of shelves is searched by length alone.
        (score.non_guillotine, score.ragged_first, score.settings, score.apart) = (false, false, 0, 0);
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
        let few = self.strip.pieces() <= EXHAUSTED_PIECES;
        let nodes = (DEEP_NODES << self.deep_runs.trailing_zeros().min(9)) * if few { 4 } else { 1 };
        let aim = match self.longest_cheaper() {
            Some(length) if few || self.deep_runs.is_multiple_of(2) => length,
            Some(length) => self.proof.bound.min(length),
            None => return,
        };
        let claim = if few && self.deep_runs.is_multiple_of(2) { Claim::Proof } else { Claim::Nothing };
        match BranchAndBound::find(&self.strip, aim, nodes, claim, &mut self.random) {
            Outcome::Found(lay) => {
                self.offer(&lay);
            }
            Outcome::Impossible { places } => {
                self.proof.raise(aim + 1, || Rule::Tried { what: Tried::Places, times: places });
            }
            Outcome::GaveUp => {}
        }
    }

    /// Of few pieces, all that can be cut edge to edge.
    fn all_cuts(&mut self) {
        if let Some((lay, divisions)) = subsets::shortest(&self.strip, self.score.length) {
            let shortest = self.strip.length(&lay);
            self.proof.raise(shortest, || Rule::Tried { what: Tried::Cuts, times: divisions });
            self.offer(&lay);
        }
    }

    fn beam(&mut self) {
        self.beam_runs += 1;
        let width = BEAM_WIDTH << self.beam_runs.trailing_zeros().min(6);
        let aim = match self.longest_cheaper() {
            Some(length) if self.beam_runs.is_multiple_of(2) => length,
            Some(length) => self.proof.bound.min(length),
            None => return,
        };
        if let Some(lay) = beam::find(&self.strip, aim, width, &mut self.random) {
            self.offer(&lay);
        }
    }

    /// Levels across, or by turns levels along a length that would be shorter: strips the whole way, cross-cut.
    fn levels(&mut self) {
        self.beam_runs += 1;
        let width = 2 << self.beam_runs.trailing_zeros().min(6);
        if self.random.below(2) == 0 {
            let Some(aim) = self.longest_cheaper() else { return };
            // Now and then a good deal shorter, where the bound allows it.
            let less = (aim - self.proof.bound) / [16, 8, 4, 2][self.random.below(4)];
            let aim = aim - self.random.below(less.max(1) as usize) as i64;
            let side = self.strip.on_side(aim);
            let mut lay = levels::find(&side, width, &mut self.random);
            if !lay.is_empty() && side.length(&lay) + side.gap <= self.strip.width {
                for laid in &mut lay {
                    std::mem::swap(&mut laid.x, &mut laid.y);
                }
                self.offer(&lay);
            }
            return;
        }
        let lay = levels::find(&self.strip, width, &mut self.random);
        if !lay.is_empty() {
            self.offer(&lay);
        }
    }

    /// The longest lay that would cost less cloth than the best, or fit the cloth, if one may exist.
    fn longest_cheaper(&self) -> Option<i64> {
        let length = if self.score.over > 0 {
            self.score.length - self.score.over
        } else {
            self.cloth.longest_cheaper(self.score.bought)?.0.min(self.score.length - 1)
        };
        (length >= self.proof.bound).then_some(length)
    }

    /// Takes up a lay found elsewhere, and what was proven there.
    pub(in crate::lay) fn share(&mut self, lay: &[Laid], proof: &Proof) {
        self.offer(lay);
        self.proof.join(proof);
    }
}

/// Whether `lay` comes apart by cuts from edge to edge.
pub(in crate::lay) fn is_through(strip: &Strip, lay: &[Laid], length: i64) -> bool {
    let pieces: Vec<Region> = lay
        .iter()
        .map(|l| {
            let (width, height) = strip.size(l);
            Region { x: l.x, y: l.y, width: width - strip.gap, height: height - strip.gap }
        })
        .collect();
    let whole = Region { x: 0, y: 0, width: strip.width - strip.gap, height: length };
    comes_apart(whole, &pieces)
}
