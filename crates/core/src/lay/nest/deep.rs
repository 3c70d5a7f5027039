//! A deep search for a way to lay everything on the cloth that is there, when its area only just suffices.
//!
//! Ground by ground, pieces are laid in the order of their feet from low to high, each at its lowest place. Whatever
//! is bare below the foot of the piece just laid stays bare, and of what is free above it so does what no sum of sizes
//! fills (`bare.rs`): a branch is given up as soon as that comes to more than there is to spare. It is run with a limit on places tried and a little chance, over and over.

use super::bare::Bare;
use super::board::{Finder, Obstacle, Put};
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
    /// Fixed grounds in the order they are filled.
    grounds: Vec<usize>,
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
    put: Put,
    /// What is bound to stay bare on this ground.
    bound: f64,
    /// Less is more promising.
    key: f64,
}

/// What is to spare if everything lies on the fixed grounds it may lie on; less than nothing when it cannot.
pub(super) fn to_spare(nest: &Nest, bare: &Bare) -> f64 {
    let there: f64 = (0..nest.grounds.len()).map(|g| bare.ground(g)).sum();
    there - nest.kinds.iter().map(|k| k.area * k.count as f64).sum::<f64>()
}

/// How a search for a lay of everything on the fixed grounds goes about it.
#[derive(Clone, Copy)]
pub(super) enum Way {
    /// Into the depth, trying about so many places.
    Depth(u32),
    /// So many lays side by side.
    Beam(usize),
}

/// Looks for a lay of everything on the fixed grounds, trying `places` of a piece each way it lies.
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
    let mut grounds: Vec<usize> = (0..nest.grounds.len()).filter(|&g| bare.ground(g) > 0.0).collect();
    random.shuffle(&mut grounds);
    let mut search = Deep {
        bare,
        finder,
        random,
        grounds,
        left: nest.kinds.iter().map(|k| k.count).collect(),
        remaining: nest.placements(),
        obstacles: (0..nest.grounds.len()).map(|g| obstacles(nest, g, &[])).collect(),
        layout: Layout { on: vec![vec![]; nest.grounds.len()], left: vec![] },
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
    /// Place of its ground in the order, and what is lost on those before.
    at: usize,
    wasted: f64,
    puts: Vec<(usize, Put)>,
    /// Less is more promising.
    key: f64,
}

impl Deep<'_> {
    /// Goes on with the ground at place `at` of the order, `wasted` being lost already on those before.
    fn fill(&mut self, at: usize, wasted: f64) -> bool {
        if self.remaining == 0 {
            return true;
        }
        let Some(&ground) = self.grounds.get(at) else { return false };
        let state = self.state(at);
        if self.work == 0 || self.bare.hopeless.contains(&state) {
            return false;
        }
        for child in self.children(ground, wasted) {
            self.lay(ground, child.put);
            if self.fill(at, wasted) {
                return true;
            }
            self.take_up(ground);
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

    fn lay(&mut self, ground: usize, put: Put) {
        self.left[put.kind] -= 1;
        self.remaining -= 1;
        self.obstacles[ground].push(Obstacle { shape: put.way.shape, x: put.x, y: put.y });
        self.layout.on[ground].push(put);
        self.bare.put(ground, &put);
    }

    /// Takes up what was laid last.
    fn take_up(&mut self, ground: usize) {
        let Some(put) = self.layout.on[ground].pop() else { return };
        self.bare.take_up(ground, &put);
        self.obstacles[ground].pop();
        self.remaining += 1;
        self.left[put.kind] += 1;
    }

    fn clear(&mut self) {
        for ground in 0..self.layout.on.len() {
            while !self.layout.on[ground].is_empty() {
                self.take_up(ground);
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
        let mut states = vec![State { at: 0, wasted: 0.0, puts: vec![], key: 0.0 }];
        while !states.is_empty() && !nest.stop.asked() {
            let mut next: Vec<(u64, State)> = Vec::new();
            let mut index = 0;
            while index < states.len() && !nest.stop.asked() {
                let state = states[index].clone();
                index += 1;
                self.clear();
                state.puts.iter().for_each(|(ground, put)| self.lay(*ground, *put));
                if self.remaining == 0 {
                    return Some(self.layout.clone());
                }
                let Some(&ground) = self.grounds.get(state.at) else { continue };
                for child in self.children(ground, state.wasted) {
                    let mut puts = state.puts.clone();
                    puts.push((ground, child.put));
                    let laid: f64 = puts.iter().map(|(_, p)| nest.kinds[p.kind].area).sum();
                    let chance = self.random.below(1000) as f64 / 1000.0;
                    let key = state.wasted + child.bound - share * laid + noise * chance;
                    self.lay(ground, child.put);
                    let number = self.state(state.at);
                    self.take_up(ground);
                    next.push((number, State { at: state.at, wasted: state.wasted, puts, key }));
                }
                // The rest of this ground left bare, it goes on with the next.
                let wasted = state.wasted + self.bare_below(ground, i64::MAX / 4);
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
        let put = self.layout.on.iter().enumerate().flat_map(|(g, puts)| puts.iter().map(move |p| (g, p)));
        let laid = put.map(|(g, p)| number((g, p.kind, p.way.shape, p.x, p.y)));
        let done = self.grounds[..=at].iter().enumerate().map(|(i, g)| number((i, *g, self.places, -1, -1)));
        laid.chain(done).fold(0, u64::wrapping_add)
    }

    /// Leaves the rest of a ground bare.
    fn leave(&mut self, at: usize, wasted: f64) -> bool {
        let bare = self.bare_below(self.grounds[at], i64::MAX / 4);
        wasted + bare <= self.spare && self.fill(at + 1, wasted + bare)
    }

    fn bare_below(&self, ground: usize, y: i64) -> f64 {
        self.bare.below(ground, y, self.obstacles[ground].iter().map(|o| (o.shape, o.y)))
    }

    /// The highest foot that leaves no more than `spare` bare below it.
    fn highest_foot(&self, ground: usize, spare: f64) -> i64 {
        let (mut low, mut high) = (0, self.nest.grounds[ground].limit.unwrap_or(0));
        while high - low > 64 {
            let middle = low + (high - low) / 2;
            if self.bare_below(ground, middle) <= spare { low = middle } else { high = middle }
        }
        high
    }

    /// Placements that go on from here and do not waste too much, the most promising first.
    fn children(&mut self, ground: usize, wasted: f64) -> Vec<Child> {
        let foot = self.layout.on[ground].iter().map(|p| p.y).max().unwrap_or(0);
        let most = self.highest_foot(ground, self.spare - wasted);
        let mut found: Vec<Child> = Vec::new();
        for kind in 0..self.left.len() {
            if self.left[kind] == 0 {
                continue;
            }
            for way in &self.nest.kinds[kind].ways[ground] {
                // In the order of their feet, up to a hair of settling.
                let from = (foot - self.nest.shapes[way.shape].height / 8).max(0);
                let mut places: Vec<(i64, i64)> = Vec::with_capacity(self.places);
                let obstacles = &self.obstacles[ground];
                self.finder.places(self.nest, ground, way.shape, obstacles, (from, most), |place| {
                    if !places.contains(&(place.x, place.y)) {
                        places.push((place.x, place.y));
                    }
                    if places.len() < self.places { ControlFlow::Continue(()) } else { ControlFlow::Break(()) }
                });
                for (x, y) in places {
                    let put = Put { kind, way: *way, x, y };
                    if let Some(bound) = self.bound_with(ground, wasted, &put) {
                        let noise = self.random.below(1000) as f64 / 1000.0;
                        let area = self.nest.kinds[kind].area;
                        found.push(Child { put, bound, key: bound - area * (0.1 + 0.2 * noise) });
                    }
                }
            }
        }
        found.sort_by(|a, b| a.key.total_cmp(&b.key));
        found
    }

    /// What is bound to stay bare on this ground once `put` lies there, unless that is more than there is to spare.
    fn bound_with(&mut self, ground: usize, wasted: f64, put: &Put) -> Option<f64> {
        self.work = if self.nest.stop.asked() { 0 } else { self.work.saturating_sub(1) };
        let below = self.bare_below(ground, put.y);
        if wasted + below > self.spare {
            return None;
        }
        self.left[put.kind] -= 1;
        self.bare.put(ground, put);
        let above = self.bare.above(self.nest, ground, put.y, &self.left);
        self.bare.take_up(ground, put);
        self.left[put.kind] += 1;
        // What lies is there, whatever lines between the pieces are taken to say.
        let complete = self.remaining == 1;
        let bound = below + above * SURE;
        (complete || wasted + bound <= self.spare).then_some(bound)
    }
}
