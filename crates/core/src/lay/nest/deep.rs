//! A deep search for a way to lay everything on the cloth that is there, when its area only just suffices.
//!
//! Ground by ground, pieces are laid in the order of their feet from low to high, each at its lowest place. Whatever
//! is bare below the foot of the piece just laid stays bare, so a branch is given up as soon as that comes to more than
//! there is to spare. It is run with a limit on nodes and a little chance, over and over.

use super::board::{Finder, Obstacle, Put};
use super::fill::{Layout, obstacles};
use super::problem::Nest;
use crate::lay::random::Random;
use crate::shape::area_below;

pub(super) struct Deep<'a> {
    nest: &'a Nest,
    finder: &'a mut Finder,
    random: &'a mut Random,
    /// Fixed grounds in the order they are filled.
    grounds: Vec<usize>,
    left: Vec<usize>,
    remaining: usize,
    obstacles: Vec<Vec<Obstacle>>,
    layout: Layout,
    spare: f64,
    nodes: u32,
}

struct Child {
    put: Put,
    /// Less is more promising.
    key: f64,
}

/// Area of `ground`, flaws and bays taken off, below the level `y`.
fn ground_below(nest: &Nest, ground: usize, y: i64) -> f64 {
    let g = &nest.grounds[ground];
    match &g.edge {
        Some(edge) => {
            let missing: f64 = edge.missing.iter().map(|part| area_below(part, y)).sum();
            area_below(&edge.hull, y) - missing
        }
        None => g.width as f64 * y.min(g.limit.unwrap_or(y)).max(0) as f64,
    }
}

/// What is to spare if everything lies on the fixed grounds; less than nothing when it cannot.
pub(super) fn to_spare(nest: &Nest) -> f64 {
    let fixed = (0..nest.grounds.len()).filter(|&g| nest.grounds[g].fixed());
    let there: f64 = fixed.map(|g| ground_below(nest, g, i64::MAX / 4)).sum();
    there - nest.kinds.iter().map(|k| k.area * k.count as f64).sum::<f64>()
}

/// Looks for a lay of everything on the fixed grounds, visiting at most `nodes` places.
pub(super) fn find(nest: &Nest, nodes: u32, finder: &mut Finder, random: &mut Random) -> Option<Layout> {
    let spare = to_spare(nest);
    if spare < 0.0 {
        return None;
    }
    let mut grounds: Vec<usize> = (0..nest.grounds.len()).filter(|&g| nest.grounds[g].fixed()).collect();
    random.shuffle(&mut grounds);
    let mut search = Deep {
        finder,
        random,
        grounds,
        left: nest.kinds.iter().map(|k| k.count).collect(),
        remaining: nest.placements(),
        obstacles: (0..nest.grounds.len()).map(|g| obstacles(nest, g, &[])).collect(),
        layout: Layout { on: vec![vec![]; nest.grounds.len()], left: vec![] },
        spare,
        nodes,
        nest,
    };
    search.fill(0, 0.0).then_some(search.layout)
}

impl Deep<'_> {
    /// Goes on with the ground at place `at` of the order, `wasted` being lost already on those before.
    fn fill(&mut self, at: usize, wasted: f64) -> bool {
        if self.remaining == 0 {
            return true;
        }
        let Some(&ground) = self.grounds.get(at) else { return false };
        if self.nodes == 0 {
            return false;
        }
        self.nodes -= 1;
        for child in self.children(ground, wasted) {
            let put = child.put;
            self.left[put.kind] -= 1;
            self.remaining -= 1;
            self.obstacles[ground].push(Obstacle { shape: put.way.shape, x: put.x, y: put.y });
            self.layout.on[ground].push(put);
            if self.fill(at, wasted) {
                return true;
            }
            self.layout.on[ground].pop();
            self.obstacles[ground].pop();
            self.remaining += 1;
            self.left[put.kind] += 1;
            if self.nodes == 0 {
                return false;
            }
        }
        // Leave the rest of this ground bare.
        let bare = self.bare_below(ground, i64::MAX / 4);
        wasted + bare <= self.spare && self.fill(at + 1, wasted + bare)
    }

    fn bare_below(&self, ground: usize, y: i64) -> f64 {
        let covered: f64 = self.obstacles[ground]
            .iter()
            .map(|o| self.nest.shapes[o.shape].parts.iter().map(|part| area_below(part, y - o.y)).sum::<f64>())
            .sum();
        ground_below(self.nest, ground, y) - covered
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
        let foot = self.layout.on[ground].last().map_or(0, |p| p.y);
        let most = self.highest_foot(ground, self.spare - wasted);
        let mut found: Vec<Child> = Vec::new();
        for kind in 0..self.left.len() {
            if self.left[kind] == 0 {
                continue;
            }
            for way in &self.nest.kinds[kind].ways[ground] {
                // In the order of their feet, up to a hair of settling.
                let from = (foot - self.nest.shapes[way.shape].height / 8).max(0);
                let lowest = self.finder.lowest(self.nest, ground, way.shape, &self.obstacles[ground], from, most);
                let Some(place) = lowest else { continue };
                let waste = self.bare_below(ground, place.y);
                if wasted + waste > self.spare {
                    continue;
                }
                let noise = self.random.below(1000) as f64 / 1000.0;
                let area = self.nest.kinds[kind].area;
                let key = waste - area * (0.1 + 0.2 * noise);
                found.push(Child { put: Put { kind, way: *way, x: place.x, y: place.y }, key });
            }
        }
        found.sort_by(|a, b| a.key.total_cmp(&b.key));
        found
    }
}
