//! A deep search for a way to lay everything on the cloth that is there, when its area only just suffices.
//!
//! Bin by bin, pieces are laid in the order of their feet from low to high, each at its lowest place. Whatever
//! is bare below the foot of the piece just laid stays bare, and of what is free above it so does what no sum of sizes
//! fills (`bare.rs`): a branch is given up as soon as that comes to more than there is to spare. It is run with a limit on places tried and a little chance, over and over.

use super::bare::Bare;
use super::board::{Finder, KindPlacement, Obstacle};
use super::fill::{Layout, obstacles};
use super::problem::Nest;
use crate::lay::random::Random;
use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::ops::ControlFlow;

pub(super) struct Deep<'a> {
    nest: &'a Nest,
    bare: &'a mut Bare,
    finder: &'a mut Finder,
    random: &'a mut Random,
    /// Fixed bins in the order they are filled.
    bins: Vec<usize>,
    left: Vec<usize>,
    remaining: usize,
    obstacles: Vec<Vec<Obstacle>>,
    layout: Layout,
    spare: f64,
    /// Places tried of a piece each way it lies.
    places: usize,
    /// Places that may still be tried.
    work: u32,
}

/// Lines are sampled: so much of what they say stays bare is taken for sure.
const SURE: f64 = 0.8;

struct Child {
    placement: KindPlacement,
    /// What is bound to stay bare on this bin.
    bound: f64,
    /// Less is more promising.
    key: f64,
}

/// What is to spare if everything lies on the fixed bins it may lie on; less than nothing when it cannot.
pub(super) fn to_spare(nest: &Nest, bare: &Bare) -> f64 {
    let there: f64 = (0..nest.bins.len()).map(|g| bare.bin(g)).sum();
    there - nest.kinds.iter().map(|k| k.area * k.count as f64).sum::<f64>()
}

/// How a search for a lay of everything on the fixed bins goes about it.
#[derive(Clone, Copy)]
pub(super) enum Way {
    /// Into the depth, trying about so many places.
    Depth(u32),
    /// So many lays side by side.
    Beam(usize),
}

/// Looks for a lay of everything on the fixed bins, trying `places` of a piece each way it lies.
pub(super) fn find(
    nest: &Nest,
    way: Way,
    places: usize,
    bare: &mut Bare,
    finder: &mut Finder,
    random: &mut Random,
) -> Option<Layout> {
    let spare = to_spare(nest, bare);
    if spare < 0.0 {
        return None;
    }
    let mut bins: Vec<usize> = (0..nest.bins.len()).filter(|&g| bare.bin(g) > 0.0).collect();
    random.shuffle(&mut bins);
    let mut search = Deep {
        bare,
        finder,
        random,
        bins,
        left: nest.kinds.iter().map(|k| k.count).collect(),
        remaining: nest.placements(),
        obstacles: (0..nest.bins.len()).map(|g| obstacles(nest, g, &[])).collect(),
        layout: Layout { on: vec![vec![]; nest.bins.len()], left: vec![] },
        spare,
        places,
        work: if let Way::Depth(work) = way { work } else { 0 },
        nest,
    };
    let found = match way {
        Way::Depth(_) => search.fill(0, 0.0).then(|| search.layout.clone()),
        Way::Beam(width) => search.beam(width),
    };
    // What was found still lies there; the next search begins with nothing.
    search.clear();
    found
}

/// A lay of some pieces, side by side with others.
#[derive(Clone)]
struct State {
    /// Place of its bin in the order, and what is lost on those before.
    at: usize,
    wasted: f64,
    placements: Vec<(usize, KindPlacement)>,
    /// Less is more promising.
    key: f64,
}

impl Deep<'_> {
    /// Goes on with the bin at place `at` of the order, `wasted` being lost already on those before.
    fn fill(&mut self, at: usize, wasted: f64) -> bool {
        if self.remaining == 0 {
            return true;
        }
        let Some(&bin) = self.bins.get(at) else { return false };
        let state = self.state(at);
        if self.work == 0 || self.bare.hopeless.contains(&state) {
            return false;
        }
        for child in self.children(bin, wasted) {
            self.lay(bin, child.placement);
            if self.fill(at, wasted) {
                return true;
            }
            self.take_up(bin);
            if self.work == 0 {
                return false;
            }
        }
        let found = self.leave(at, wasted);
        if !found && self.work > 0 {
            self.bare.remember(state);
        }
        found
    }

    fn lay(&mut self, bin: usize, placement: KindPlacement) {
        self.left[placement.kind] -= 1;
        self.remaining -= 1;
        self.obstacles[bin].push(Obstacle { shape: placement.way.shape, x: placement.x, y: placement.y });
        self.layout.on[bin].push(placement);
        self.bare.placement(bin, &placement);
    }

    /// Takes up what was laid last.
    fn take_up(&mut self, bin: usize) {
        let Some(placement) = self.layout.on[bin].pop() else { return };
        self.bare.take_up(bin, &placement);
        self.obstacles[bin].pop();
        self.remaining += 1;
        self.left[placement.kind] += 1;
    }

    fn clear(&mut self) {
        for bin in 0..self.layout.on.len() {
            while !self.layout.on[bin].is_empty() {
                self.take_up(bin);
            }
        }
    }

    /// Follows the `width` most promising lays from piece to piece: those that are bound to leave little bare for what
    /// they already hold.
    fn beam(&mut self, width: usize) -> Option<Layout> {
        let all: f64 = self.nest.kinds.iter().map(|k| k.area * k.count as f64).sum();
        // What is laid may have cost its share of what there is to spare, or less.
        let share = self.spare / all * [0.3, 0.6, 1.0, 2.0][self.random.below(4)];
        let noise = self.spare * [0.0, 0.02, 0.06][self.random.below(3)];
        let nest = self.nest;
        let mut states = vec![State { at: 0, wasted: 0.0, placements: vec![], key: 0.0 }];
        while !states.is_empty() && !nest.stop.asked() {
            let mut next: Vec<(u64, State)> = Vec::new();
            let mut index = 0;
            while index < states.len() && !nest.stop.asked() {
                let state = states[index].clone();
                index += 1;
                self.clear();
                state.placements.iter().for_each(|(bin, placement)| self.lay(*bin, *placement));
                if self.remaining == 0 {
                    return Some(self.layout.clone());
                }
                let Some(&bin) = self.bins.get(state.at) else { continue };
                for child in self.children(bin, state.wasted) {
                    let mut placements = state.placements.clone();
                    placements.push((bin, child.placement));
                    let laid: f64 = placements.iter().map(|(_, p)| nest.kinds[p.kind].area).sum();
                    let chance = self.random.below(1000) as f64 / 1000.0;
                    let key = state.wasted + child.bound - share * laid + noise * chance;
                    self.lay(bin, child.placement);
                    let number = self.state(state.at);
                    self.take_up(bin);
                    next.push((number, State { at: state.at, wasted: state.wasted, placements, key }));
                }
                // The rest of this bin left bare, it goes on with the next.
                let wasted = state.wasted + self.bare_below(bin, i64::MAX / 4);
                if wasted <= self.spare {
                    states.push(State { at: state.at + 1, wasted, ..state });
                }
            }
            next.sort_by_key(|(number, _)| *number);
            next.dedup_by_key(|(number, _)| *number);
            next.sort_by(|a, b| a.1.key.total_cmp(&b.1.key));
            next.truncate(width);
            states = next.into_iter().map(|(_, state)| state).collect();
        }
        None
    }

    /// A number for what lies where, in whatever order it was laid: what has been tried to the end is not tried again.
    fn state(&self, at: usize) -> u64 {
        let number = |what: (usize, usize, usize, i64, i64)| {
            let mut hasher = DefaultHasher::new();
            what.hash(&mut hasher);
            hasher.finish()
        };
        let placement =
            self.layout.on.iter().enumerate().flat_map(|(g, placements)| placements.iter().map(move |p| (g, p)));
        let laid = placement.map(|(g, p)| number((g, p.kind, p.way.shape, p.x, p.y)));
        let done = self.bins[..=at].iter().enumerate().map(|(i, g)| number((i, *g, self.places, -1, -1)));
        laid.chain(done).fold(0, u64::wrapping_add)
    }

    /// Leaves the rest of a bin bare.
    fn leave(&mut self, at: usize, wasted: f64) -> bool {
        let bare = self.bare_below(self.bins[at], i64::MAX / 4);
        wasted + bare <= self.spare && self.fill(at + 1, wasted + bare)
    }

    fn bare_below(&self, bin: usize, y: i64) -> f64 {
        self.bare.below(bin, y, self.obstacles[bin].iter().map(|o| (o.shape, o.y)))
    }

    /// The highest foot that leaves no more than `spare` bare below it.
    fn highest_foot(&self, bin: usize, spare: f64) -> i64 {
        let (mut low, mut high) = (0, self.nest.bins[bin].limit.unwrap_or(0));
        while high - low > 64 {
            let middle = low + (high - low) / 2;
            if self.bare_below(bin, middle) <= spare { low = middle } else { high = middle }
        }
        high
    }

    /// Placements that go on from here and do not waste too much, the most promising first.
    fn children(&mut self, bin: usize, wasted: f64) -> Vec<Child> {
        let foot = self.layout.on[bin].iter().map(|p| p.y).max().unwrap_or(0);
        let most = self.highest_foot(bin, self.spare - wasted);
        let mut found: Vec<Child> = Vec::new();
        for kind in 0..self.left.len() {
            if self.left[kind] == 0 {
                continue;
            }
            for way in &self.nest.kinds[kind].ways[bin] {
                // In the order of their feet, up to a hair of settling.
                let from = (foot - self.nest.shapes[way.shape].height / 8).max(0);
                let mut places: Vec<(i64, i64)> = Vec::with_capacity(self.places);
                let obstacles = &self.obstacles[bin];
                self.finder.places(self.nest, bin, way.shape, obstacles, (from, most), |place| {
                    if !places.contains(&(place.x, place.y)) {
                        places.push((place.x, place.y));
                    }
                    if places.len() < self.places { ControlFlow::Continue(()) } else { ControlFlow::Break(()) }
                });
                for (x, y) in places {
                    let placement = KindPlacement { kind, way: *way, x, y };
                    if let Some(bound) = self.bound_with(bin, wasted, &placement) {
                        let noise = self.random.below(1000) as f64 / 1000.0;
                        let area = self.nest.kinds[kind].area;
                        found.push(Child { placement, bound, key: bound - area * (0.1 + 0.2 * noise) });
                    }
                }
            }
        }
        found.sort_by(|a, b| a.key.total_cmp(&b.key));
        found
    }

    /// What is bound to stay bare on this bin once `put` lies there, unless that is more than there is to spare.
    fn bound_with(&mut self, bin: usize, wasted: f64, placement: &KindPlacement) -> Option<f64> {
        self.work = if self.nest.stop.asked() { 0 } else { self.work.saturating_sub(1) };
        let below = self.bare_below(bin, placement.y);
        if wasted + below > self.spare {
            return None;
        }
        self.left[placement.kind] -= 1;
        self.bare.placement(bin, placement);
        let above = self.bare.above(self.nest, bin, placement.y, &self.left);
        self.bare.take_up(bin, placement);
        self.left[placement.kind] += 1;
        // What lies is there, whatever lines between the pieces are taken to say.
        let complete = self.remaining == 1;
        let bound = below + above * SURE;
        (complete || wasted + bound <= self.spare).then_some(bound)
    }
}
