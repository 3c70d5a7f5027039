//! The search on one bin for the items it was given: rectangles by their own search, all else by true outlines,
//! which takes up what the rectangle search makes of the bounding boxes and so is never worse.

use super::bin::{Bin, order_of_bins};
use super::guillotine::Region;
use super::job::{Aim, Cuts, Job, JobPiece};
use super::nest::{Detail, ItemType, KindPlacement, Layout, Nest, NestSearch, boxes, whole_left};
use super::proof::{Proof, least_length, ruled_out_by_slices};
use super::rank::{Use, place_in_list, square_inches};
use super::rectangles::{Laid, Strip, StripSearch};
use super::share::can_be_pooled;
use super::stop::Stop;
use crate::measure::Length;
use crate::piece::Mirror;
use crate::shape::{Outline, Turn};
use std::sync::Arc;

/// Searches a limited bin gets before it is taken as full; by outlines, where a pool shares anew, the first answer does
/// not wait for so many.
const TRIES_BEFORE_FULL: u64 = 400;
const TRIES_BY_OUTLINES: u64 = 40;
/// Every so many steps by true outlines one is by bounding boxes.
const BOXES_EVERY: u64 = 4;
/// From here on what is cheaper is ruled out by slices, if it can be: not worth the time for a way of sharing on trial.
const SLICED_FROM: u64 = 100;
/// Purchases below the best that slices are asked about.
const PURCHASES_SLICED: usize = 4;
/// Steps spent on making a lay that cannot be cheaper simpler to cut.
const POLISH: u64 = 1_500;

pub(super) struct BinSearch<'a> {
    pub bin: usize,
    pub items: Vec<ItemType>,
    /// These and what is pinned here: what bounds are shown of.
    all: Vec<ItemType>,
    job: &'a Job,
    bins: Arc<[Bin]>,
    search: Search<'a>,
    iteration: u64,
    /// Nothing is shorter.
    pub proof: Proof,
    /// The purchase slices were last asked about.
    sliced: Option<Length>,
    stop: Stop,
    since_proven: u64,
    /// Outlines are laid by the boxes around them, for want of time.
    only_boxes: bool,
}

enum Search<'a> {
    Strip(Box<StripSearch<'a>>),
    Nest(Box<NestSearch<'a>>, Option<Box<StripSearch<'a>>>),
}

/// The best lay of one bin, to be handed on.
#[derive(Clone)]
pub(super) enum Found {
    Strip(Vec<Laid>),
    Nest(Layout),
}

/// Whether the true outline differs from its bounding box however it lies here.
fn is_shaped(piece: &JobPiece) -> bool {
    !matches!(piece.outline, Outline::Rect(..)) || piece.grain == crate::piece::Grain::Bias
}

/// A strip of bounding boxes of `items` on `bin`.
fn strip_of(job: &Job, bin: &Bin, items: &[ItemType], stop: &Stop) -> Strip {
    let cloth = &job.cloths[bin.cloth];
    let pieces: Vec<(usize, &JobPiece, u32)> =
        items.iter().map(|l| (l.piece, &job.pieces[l.piece], l.copies)).collect();
    Strip::new(cloth, &pieces, job.rules.gap, job.rules.cuts).until(stop)
}

/// `items` and the copies that are pinned on `bin`.
fn with_pinned(job: &Job, bin: &Bin, items: &[ItemType]) -> Vec<ItemType> {
    let mut all = items.to_vec();
    let cloth = &job.cloths[bin.cloth];
    for pin in job.pinned.iter().filter(|p| p.cloth == cloth.id && p.cloth_copy == bin.copy) {
        let Some(piece) = job.pieces.iter().position(|p| p.id == pin.placement.piece) else { continue };
        let (of, copies) = (&job.pieces[piece], job.pieces[piece].yielded_by(&pin.placement, cloth));
        let faced = of.mirror == Mirror::Pairs && !of.outline.is_symmetric(Turn::NONE);
        for copy in (0..copies).map(|n| pin.placement.copy + n) {
            let item = ItemType { piece, flipped: faced && copy.is_multiple_of(2), copies: 1 };
            match all.iter_mut().find(|a| a.is_alike(&item)) {
                Some(there) => there.copies += 1,
                None => all.push(item),
            }
        }
    }
    all.sort_unstable_by_key(|l| (l.piece, l.flipped));
    all
}

impl<'a> BinSearch<'a> {
    pub(super) fn new(
        job: &'a Job,
        bins: &Arc<[Bin]>,
        bin: usize,
        mut items: Vec<ItemType>,
        seed: u64,
        stop: &Stop,
    ) -> Self {
        // The same items give the same problem, whoever asks.
        items.sort_unstable_by_key(|l| (l.piece, l.flipped));
        let here = &bins[bin];
        let cloth = &job.cloths[here.cloth];
        let seed = seed.wrapping_add(bin as u64);
        let pinned = job.pinned.iter().any(|p| p.cloth == cloth.id && p.cloth_copy == here.copy);
        let all = with_pinned(job, here, &items);
        let plain = here.edge.is_none() && !here.folded && !pinned;
        let shaped = items.iter().any(|l| is_shaped(&job.pieces[l.piece]));
        let few_cuts = job.rules.aim == Aim::FewCuts;
        // With a gap rectangles may pass each other corner to corner, closer than their boxes with the gap beside them.
        // Of many that is little to gain for much to nest: they are laid by the boxes, and proven by bounds only.
        let few = items.iter().map(|l| l.copies as usize).sum::<usize>() <= NestSearch::FILLED_AT_ONCE;
        let in_boxes = !shaped && (job.rules.gap == Length::ZERO || job.rules.cuts == Cuts::Through || !few);
        let (search, proof) = if plain && in_boxes {
            let strip = strip_of(job, here, &items, stop);
            let known = if strip.gap > 0 { least_length(job, here, &all) } else { Proof::default() };
            (Search::Strip(Box::new(StripSearch::new(cloth, strip, few_cuts, seed))), known)
        } else {
            // The boxes come first: they are quick, and an answer if there is no time for more.
            let strip = plain
                .then(|| strip_of(job, here, &items, stop))
                .filter(|s| s.kinds.iter().all(|k| !k.choices.is_empty()));
            let boxes = strip.map(|strip| StripSearch::new(cloth, strip, few_cuts, seed));
            let nest = Arc::new(Nest::new(job, bins, &items, |_| vec![bin], stop));
            let proof = if nest.is_whole { least_length(job, here, &all) } else { Proof::default() };
            let through = job.rules.cuts == Cuts::Through;
            let mut nested = match &boxes {
                _ if !nest.is_whole => NestSearch::idle(job, nest, seed),
                // Edge to edge only the boxes can be cut apart.
                Some(_) if through => NestSearch::idle(job, nest, seed),
                // So many shapes: the boxes are the first answer.
                Some(boxes) if boxes.strip.pieces() > NestSearch::FILLED_AT_ONCE => NestSearch::idle(job, nest, seed),
                _ => NestSearch::new(job, nest, seed),
            };
            // What may lie elsewhere too is searched for deep where all bins are seen.
            nested.deep = items.iter().all(|l| order_of_bins(job, bins, &job.pieces[l.piece]).len() < 2);
            if let Some(boxes) = &boxes {
                take_boxes(&mut nested, bin, &items, boxes);
            }
            match boxes {
                Some(boxes) if !nested.nest.is_whole => (Search::Strip(Box::new(boxes)), Proof::default()),
                boxes => (Search::Nest(Box::new(nested), boxes.map(Box::new)), proof),
            }
        };
        // Boxes in place of outlines say nothing of how short a lay of the outlines can be.
        let only_boxes = !in_boxes && matches!(search, Search::Strip(_));
        let mut made = Self {
            only_boxes,
            bin,
            items,
            all,
            job,
            bins: bins.clone(),
            search,
            iteration: 0,
            proof,
            sliced: None,
            stop: stop.clone(),
            since_proven: 0,
        };
        made.raise_bound();
        made.fit_sides(false);
        let mut tries = 0;
        let many = made.pieces() > 300;
        let mut deep = None;
        let most = match &mut made.search {
            _ if many => 20,
            Search::Nest(nest, _) if can_be_pooled(job, bins) => {
                deep = Some(std::mem::replace(&mut nest.deep, false));
                TRIES_BY_OUTLINES
            }
            _ => TRIES_BEFORE_FULL,
        };
        while made.over() && tries < most && !stop.asked() {
            made.iterate();
            tries += 1;
        }
        made.fit_sides(true);
        if let (Search::Nest(nest, _), Some(deep)) = (&mut made.search, deep) {
            nest.deep = deep;
        }
        made
    }

    /// Whether outlines are fitted together by their sides.
    fn fit_sides(&mut self, wanted: bool) {
        if let Search::Nest(nest, _) = &mut self.search {
            nest.touching = wanted;
        }
    }

    fn pieces(&self) -> u32 {
        self.items.iter().map(|l| l.copies).sum()
    }

    fn raise_bound(&mut self) {
        if let (Search::Strip(strip), false, Length::ZERO) = (&mut self.search, self.only_boxes, self.job.rules.gap) {
            self.proof.join(&strip.proof);
            strip.proof.join(&self.proof);
        }
    }

    /// One step; whether the lay became better.
    pub(super) fn iterate(&mut self) -> bool {
        self.iteration += 1;
        if self.proven() {
            self.since_proven += 1;
        }
        let bin = self.bin;
        let better = match &mut self.search {
            Search::Strip(strip) => strip.iterate(),
            Search::Nest(nest, Some(boxes)) => {
                if self.job.rules.cuts == Cuts::Through || self.iteration.is_multiple_of(BOXES_EVERY) {
                    boxes.iterate() && take_boxes(nest, bin, &self.items, boxes)
                } else {
                    nest.iterate()
                }
            }
            Search::Nest(nest, None) => nest.iterate(),
        };
        self.raise_bound();
        if self.iteration >= SLICED_FROM {
            self.rule_out_cheaper();
        }
        better
    }

    /// Asks slices about the longest lay that would be cheaper, and where they cannot tell, about those cheaper still.
    fn rule_out_cheaper(&mut self) {
        if self.over() || self.proven() {
            return;
        }
        let bin = &self.bins[self.bin];
        let cloth = &self.job.cloths[bin.cloth];
        let mut bought = cloth.buy_length(cloth.needed_length(Length(self.length())));
        if self.sliced == Some(bought) {
            return;
        }
        self.sliced = Some(bought);
        for _ in 0..PURCHASES_SLICED {
            let Some(cheaper) = cloth.longest_cheaper(bought).map(|l| l.0.min(self.length() - 1)) else { return };
            if cheaper < self.proof.bound {
                return;
            }
            if let Some(rule) = ruled_out_by_slices(self.job, bin, &self.all, cheaper, &self.stop) {
                self.proof.raise(cheaper + 1, || rule);
                return;
            }
            bought = cloth.buy_length(cloth.needed_length(Length(cheaper)));
        }
    }

    pub(super) fn is_by_outlines(&self) -> bool {
        matches!(self.search, Search::Nest(..))
    }

    /// Not everything fits.
    pub(super) fn over(&self) -> bool {
        match &self.search {
            Search::Strip(strip) => strip.over(),
            Search::Nest(nest, _) => !nest.complete(),
        }
    }

    /// Stopped before anything was laid: then nothing is said of what fits.
    fn is_untried(&self) -> bool {
        match &self.search {
            Search::Strip(search) => search.best.is_empty(),
            Search::Nest(search, _) => !search.nest.is_whole,
        }
    }

    /// What does not fit, or was not tried.
    pub(super) fn overflow(&self) -> Vec<ItemType> {
        if self.is_untried() {
            return self.items.clone();
        }
        let mut found: Vec<ItemType> = Vec::new();
        let mut add =
            |piece: usize, flipped: bool| match found.iter_mut().find(|f| (f.piece, f.flipped) == (piece, flipped)) {
                Some(f) => f.copies += 1,
                None => found.push(ItemType { piece, flipped, copies: 1 }),
            };
        match &self.search {
            Search::Strip(search) if search.over() => {
                let gap = self.job.rules.gap.0;
                let limit = self.bins[self.bin].limit.unwrap_or(i64::MAX - gap) + gap;
                for laid in search.best.iter().filter(|l| l.y + search.strip.size(l).1 > limit) {
                    add(search.strip.kinds[laid.kind].piece, false);
                }
            }
            Search::Strip(_) => {}
            Search::Nest(search, _) => {
                for &kind in &search.best.left {
                    let kind = &search.nest.kinds[kind];
                    add(kind.piece, kind.flipped);
                    if kind.yields == 2 {
                        // Of a pair the other face too, if the piece has two.
                        add(kind.piece, self.items.iter().any(|l| l.piece == kind.piece && l.flipped));
                    }
                }
            }
        }
        found
    }

    /// How long it lies.
    pub(super) fn length(&self) -> i64 {
        match &self.search {
            Search::Strip(search) => search.strip.length(&search.best),
            Search::Nest(search, _) => search.best.length(&search.nest, self.bin),
        }
    }

    /// Whether no smaller purchase can hold these items.
    pub(super) fn proven(&self) -> bool {
        let cloth = &self.job.cloths[self.bins[self.bin].cloth];
        let buy = |length: i64| cloth.buy_length(cloth.needed_length(Length(length)));
        !self.over() && (cloth.whole_length().is_some() || buy(self.length()) <= buy(self.proof.bound))
    }

    pub(super) fn through(&self) -> bool {
        match &self.search {
            Search::Strip(search) => search.through(),
            Search::Nest(search, _) => !search.non_guillotine(self.bin),
        }
    }

    /// Nothing is left to gain, or what is left has been tried for long enough.
    pub(super) fn finished(&self) -> bool {
        match &self.search {
            Search::Strip(search) => search.finished() || (self.whole() && self.iteration > POLISH && !self.over()),
            Search::Nest(..) => self.proven() && (self.through() || self.since_proven > POLISH),
        }
    }

    /// Comes whole: there is nothing to make shorter.
    fn whole(&self) -> bool {
        self.job.cloths[self.bins[self.bin].cloth].whole_length().is_some()
    }

    /// What the lay comes to, for ranking it with others.
    pub(super) fn used(&self) -> Use {
        let cloth = &self.job.cloths[self.bins[self.bin].cloth];
        let area = |l: &ItemType| self.job.pieces[l.piece].outline.area().0 as f64 * f64::from(l.copies);
        let place = |l: &ItemType| place_in_list(self.job, &self.job.pieces[l.piece], cloth);
        Use {
            length: self.length(),
            non_guillotine: !self.through(),
            area: square_inches(self.items.iter().map(area).sum()),
            whole_left: if self.job.rules.aim == Aim::KeepBig { self.whole_left() } else { 0.0 },
            down_the_list: self.items.iter().map(|l| place(l) * u64::from(l.copies)).sum(),
        }
    }

    /// The largest whole rectangle that is left of the cloth, in square inches.
    fn whole_left(&self) -> f64 {
        let (bin, length) = (&self.bins[self.bin], self.length());
        let height = bin.limit.unwrap_or(length).max(length);
        let laid: Vec<Region> = match &self.search {
            Search::Strip(search) => search
                .best
                .iter()
                .map(|l| {
                    let (width, height) = search.strip.size(l);
                    Region { x: l.x, y: l.y, width, height }
                })
                .collect(),
            Search::Nest(search, _) => boxes(&search.nest, self.bin, &search.best.on[self.bin]),
        };
        whole_left(self.job, Region { x: 0, y: 0, width: bin.width, height }, &laid)
    }

    pub(super) fn found(&self) -> Found {
        match &self.search {
            Search::Strip(search) => Found::Strip(search.best.clone()),
            Search::Nest(search, _) => Found::Nest(search.best.clone()),
        }
    }

    /// Takes up what another search of the same items found.
    pub(super) fn share(&mut self, found: &Found, proof: &Proof) {
        match (&mut self.search, found) {
            (Search::Strip(search), Found::Strip(lay)) => search.share(lay, proof),
            (Search::Nest(search, _), Found::Nest(layout)) => {
                search.take(layout);
            }
            _ => {}
        }
        self.proof.join(proof);
    }

    /// Takes up a lay of the pool, if this is a search by true outlines.
    pub(super) fn take_placements(&mut self, nest: &Nest, placements: &[KindPlacement]) {
        let bin = self.bin;
        if let Search::Nest(search, _) = &mut self.search {
            let placed: Vec<(usize, KindPlacement)> =
                placements.iter().map(|p| (nest.kinds[p.kind].piece, *p)).collect();
            if let Some(layout) = matched(&search.nest, bin, &placed, nest) {
                search.take(&layout);
            }
        }
    }

    /// How closely the outlines are followed here.
    pub(super) fn detail(&self) -> Detail {
        match &self.search {
            Search::Strip(_) if self.only_boxes => Detail::Boxes,
            Search::Strip(_) => Detail::Exact,
            Search::Nest(search, _) => search.nest.detail,
        }
    }

    /// The lay for writing: strip placements or nested ones.
    pub(super) fn placed(&self) -> Placed<'_> {
        match &self.search {
            Search::Strip(search) => Placed::Strip(search.tidied(), &search.strip),
            Search::Nest(search, _) => Placed::Nest(&search.best.on[self.bin], &search.nest),
        }
    }
}

/// What lies on a bin.
pub(super) enum Placed<'a> {
    Strip(Vec<Laid>, &'a Strip),
    Nest(&'a [KindPlacement], &'a Nest),
}

/// The bounding-box lay as a lay by outlines.
fn take_boxes(nest: &mut NestSearch<'_>, bin: usize, items: &[ItemType], boxes: &StripSearch<'_>) -> bool {
    if boxes.over() {
        return false;
    }
    let mut left: Vec<usize> = nest.nest.kinds.iter().map(|k| k.count).collect();
    let mut layout = Layout { on: vec![vec![]; nest.nest.bins.len()], left: vec![] };
    for laid in &boxes.best {
        let kind = &boxes.strip.kinds[laid.kind];
        let turn = kind.choices[laid.choice].turn;
        // Kinds were made from the items, one for one.
        let flipped = items[laid.kind].flipped;
        let same = |k: usize| (nest.nest.kinds[k].piece, nest.nest.kinds[k].flipped) == (kind.piece, flipped);
        let Some(k) = (0..left.len()).find(|&k| left[k] > 0 && same(k)) else { return false };
        let ways = &nest.nest.kinds[k].ways[bin];
        let (width, height) = boxes.strip.size(laid);
        let (width, height) = (width - boxes.strip.gap, height - boxes.strip.gap);
        let same_box = |shape: usize| {
            let s = &nest.nest.shapes[shape];
            (s.width, s.height) == (width, height)
        };
        let way = ways
            .iter()
            .find(|w| w.turn == turn && same_box(w.shape))
            .or_else(|| ways.iter().find(|w| same_box(w.shape)));
        let Some(&way) = way else { return false };
        left[k] -= 1;
        layout.on[bin].push(KindPlacement { kind: k, way, x: laid.x, y: laid.y });
    }
    nest.take(&layout)
}

/// Placements of another problem with the same pieces as placements of `nest`.
fn matched(nest: &Nest, bin: usize, placed: &[(usize, KindPlacement)], from: &Nest) -> Option<Layout> {
    let mut left: Vec<usize> = nest.kinds.iter().map(|k| k.count).collect();
    let mut layout = Layout { on: vec![vec![]; nest.bins.len()], left: vec![] };
    for (piece, placement) in placed {
        let same = |w: &super::nest::Way| {
            w.turn == placement.way.turn && w.mirrored == placement.way.mirrored && w.on_fold == placement.way.on_fold
        };
        let k = (0..left.len())
            .find(|&k| left[k] > 0 && nest.kinds[k].piece == *piece && nest.kinds[k].ways[bin].iter().any(same))?;
        let way = *nest.kinds[k].ways[bin].iter().find(|w| same(w))?;
        debug_assert_eq!(nest.shapes[way.shape].width, from.shapes[placement.way.shape].width);
        left[k] -= 1;
        layout.on[bin].push(KindPlacement { kind: k, way, x: placement.x, y: placement.y });
    }
    left.iter().all(|l| *l == 0).then_some(layout)
}
