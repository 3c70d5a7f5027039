//! One planner: the bins' searches, and where pieces have a choice of cloth a search over all bins together that
//! hands new ways of sharing to them.

use super::bin::{Bin, order_of_bins};
use super::bin_search::{BinSearch, Found};
use super::job::Job;
use super::nest::{ItemType, Nest, NestSearch, all_items};
use super::proof::{Proof, least_sheets};
use super::rank::{Rank, Use, square_inches};
use super::share::{Shared, can_be_pooled, share};
use super::stop::Stop;
use std::sync::Arc;

/// Every so many steps one goes to the pool.
const POOL_EVERY: u64 = 2;
/// Steps a new way of sharing gets before it is compared.
const TRIAL: u64 = 60;

pub(super) struct Planner<'a> {
    job: &'a Job,
    pub bins: Arc<[Bin]>,
    pub searches: Vec<BinSearch<'a>>,
    pub unplaced: Vec<(usize, u32)>,
    pool: Option<NestSearch<'a>>,
    /// Of cloths sold by the sheet, by index, how many are needed at least.
    least: Vec<(usize, u32)>,
    seed: u64,
    stop: Stop,
    iteration: u64,
    turn: usize,
}

/// A plan handed from one planner to another.
pub(super) struct Plan {
    items: Vec<(usize, Vec<ItemType>, Found, Proof)>,
    unplaced: Vec<(usize, u32)>,
    rank: Rank,
}

impl<'a> Planner<'a> {
    pub(super) fn new(job: &'a Job, bins: &Arc<[Bin]>, seed: u64, stop: &Stop) -> Self {
        let Shared { searches, unplaced } = share(job, bins, seed, stop);
        let (bins, stop) = (bins.clone(), stop.clone());
        let least = Vec::new();
        let mut planner = Self { job, bins, searches, unplaced, pool: None, least, seed, stop, iteration: 0, turn: 0 };
        if can_be_pooled(job, &planner.bins) && planner.has_choice() {
            let needed = |cloth: usize| least_sheets(job, cloth, None).map(|s| (cloth, s.least));
            planner.least = (0..job.cloths.len()).filter_map(needed).collect();
            planner.open_pool();
        }
        planner
    }

    /// Whether some piece could lie on another bin than it does, or is left out after few tries by outlines.
    fn has_choice(&self) -> bool {
        let several = self.job.pieces.iter().any(|p| order_of_bins(self.job, &self.bins, p).len() > 1);
        several || (!self.unplaced.is_empty() && self.searches.iter().any(BinSearch::is_by_outlines))
    }

    fn open_pool(&mut self) {
        let (job, bins) = (self.job, self.bins.clone());
        let items = all_items(job);
        let order = |piece: &_| order_of_bins(job, &bins, piece);
        let nest = Arc::new(Nest::new(job, &bins, &items, order, &self.stop));
        let nowhere = nest.kinds.iter().any(|k| k.bins.is_empty());
        if nowhere {
            return; // what fits nowhere would be tried for ever
        }
        let pool = NestSearch::new(job, nest, self.seed);
        self.pool = Some(pool);
        self.try_pool();
    }

    /// Whether everything lies somewhere.
    pub(super) fn complete(&self) -> bool {
        self.unplaced.is_empty() && !self.searches.iter().any(BinSearch::over)
    }

    /// How good the plan is.
    pub(super) fn rank(&self) -> Rank {
        self.rank_of(&self.searches, &self.unplaced)
    }

    fn rank_of(&self, searches: &[BinSearch<'_>], unplaced: &[(usize, u32)]) -> Rank {
        let mut uses = vec![Use::default(); self.bins.len()];
        let mut left = 0.0;
        for search in searches {
            uses[search.bin] = search.used();
            left += search
                .overflow()
                .iter()
                .map(|l| self.job.pieces[l.piece].outline.area().0 as f64 * f64::from(l.copies))
                .sum::<f64>();
        }
        left += unplaced.iter().map(|(p, n)| self.job.pieces[*p].outline.area().0 as f64 * f64::from(*n)).sum::<f64>();
        Rank::of(self.job, &self.bins, &uses, square_inches(left))
    }

    /// One step; whether the plan became better.
    pub(super) fn iterate(&mut self) -> bool {
        self.iteration += 1;
        if self.iteration.is_multiple_of(POOL_EVERY)
            && let Some(pool) = &mut self.pool
        {
            return pool.iterate() && self.try_pool();
        }
        for _ in 0..self.searches.len() {
            self.turn = (self.turn + 1) % self.searches.len();
            if !self.searches[self.turn].finished() {
                return self.searches[self.turn].iterate();
            }
        }
        if let Some(pool) = &mut self.pool {
            return pool.iterate() && self.try_pool();
        }
        false
    }

    /// Nothing is left to try.
    pub(super) fn finished(&self) -> bool {
        let nothing_better = match &self.pool {
            Some(pool) => pool.complete() && (self.rank().costs_nothing() || self.fewest_sheets()),
            None => true,
        };
        nothing_better && self.searches.iter().all(BinSearch::finished)
    }

    /// Every piece comes from one cloth only, and of those sold by the sheet no fewer would do.
    fn fewest_sheets(&self) -> bool {
        let one_each = self.job.pieces.iter().all(|p| p.cloths.len() == 1);
        let used = |cloth: usize| self.searches.iter().filter(|s| self.bins[s.bin].cloth == cloth).count();
        one_each
            && (0..self.job.cloths.len()).all(|cloth| {
                let sheets = used(cloth);
                self.job.cloths[cloth].owned
                    || sheets < 2
                    || self.least.iter().any(|(of, least)| *of == cloth && *least as usize == sheets)
            })
    }

    /// Shares as the pool's best does, if that comes out better.
    fn try_pool(&mut self) -> bool {
        let Some(pool) = &self.pool else { return false };
        let nest = pool.nest.clone();
        let layout = pool.best.clone();
        let count = |kinds: &mut dyn Iterator<Item = usize>| {
            let mut items: Vec<ItemType> = Vec::new();
            for kind in kinds {
                let (piece, flipped) = (nest.kinds[kind].piece, nest.kinds[kind].flipped);
                match items.iter_mut().find(|l| (l.piece, l.flipped) == (piece, flipped)) {
                    Some(l) => l.copies += 1,
                    None => items.push(ItemType { piece, flipped, copies: 1 }),
                }
            }
            items.sort_unstable_by_key(|l| (l.piece, l.flipped));
            items
        };
        let mut searches = Vec::new();
        let mut same = true;
        for (g, placements) in layout.on.iter().enumerate() {
            let items = count(&mut placements.iter().map(|p| p.kind));
            let pinned = nest.fixed.iter().any(|f| f.bin == g);
            if items.is_empty() && !pinned {
                continue;
            }
            let known = self.searches.iter().find(|s| s.bin == g && s.items == items);
            same &= known.is_some();
            let mut search = BinSearch::new(self.job, &self.bins, g, items, self.seed, &self.stop);
            search.take_placements(&nest, placements);
            if let Some(known) = known {
                search.share(&known.found(), &known.proof);
            } else {
                for _ in 0..TRIAL {
                    if search.finished() || self.stop.asked() {
                        break;
                    }
                    search.iterate();
                }
            }
            searches.push(search);
        }
        // What was cut short is not compared.
        if self.stop.asked() {
            return false;
        }
        let unplaced = count(&mut layout.left.iter().copied()).iter().map(|l| (l.piece, l.copies)).collect::<Vec<_>>();
        let better = self.rank_of(&searches, &unplaced) < self.rank();
        if better && !same {
            (self.searches, self.unplaced) = (searches, unplaced);
        } else if same {
            // The same sharing: the pool's places may be better still.
            for search in &mut self.searches {
                search.take_placements(&nest, &layout.on[search.bin]);
            }
        }
        better
    }

    /// The plan as it stands.
    pub(super) fn plan(&self) -> Plan {
        Plan {
            items: self.searches.iter().map(|s| (s.bin, s.items.clone(), s.found(), s.proof.clone())).collect(),
            unplaced: self.unplaced.clone(),
            rank: self.rank(),
        }
    }

    /// Goes on from `plan` where that is better, and takes over what it has proven.
    pub(super) fn take(&mut self, plan: &Plan) {
        let same = plan.items.len() == self.searches.len()
            && plan.items.iter().all(|(g, items, ..)| self.searches.iter().any(|s| s.bin == *g && s.items == *items));
        // Stopped, there is no time to lay it anew.
        if !same && (plan.rank >= self.rank() || self.stop.asked()) {
            return;
        }
        if !same {
            let begun = plan
                .items
                .iter()
                .map(|(g, items, ..)| BinSearch::new(self.job, &self.bins, *g, items.clone(), self.seed, &self.stop))
                .collect();
            // Cut short while it was begun, it could not take up what lies.
            if self.stop.asked() {
                return;
            }
            self.searches = begun;
            self.unplaced.clone_from(&plan.unplaced);
        }
        for (g, _, found, proof) in &plan.items {
            if let Some(search) = self.searches.iter_mut().find(|s| s.bin == *g) {
                search.share(found, proof);
            }
        }
    }
}
