//! Overlap allowed, then squeezed out: pieces move one by one to where they overlap least, and pairs that keep
//! overlapping weigh more and more.
//!
//! Guided local search on overlap (Egeblad, Nielsen and Odgaard 2007; Umetani et al. 2009), places found by sampling
//! and descent as in Gardeyn and Wauters 2025, "An open-source heuristic to reboot 2D nesting research". How deep two
//! shapes overlap is read off their no-fit regions, so a lay without overlap is exact in whole units.

use super::board::{KindPlacement, Obstacle, settled};
use super::fill::{Layout, obstacles};
use super::problem::Nest;
use crate::lay::random::Random;

/// Places tried anywhere, near where the piece is, and touching another.
const ANYWHERE: usize = 24;
const NEAR: usize = 12;
const TOUCHING: usize = 24;
/// Of these, how many are followed down.
const FOLLOWED: usize = 3;
/// Pieces drawn, of which the largest are thrown about.
const DRAWN: usize = 4;

#[derive(Clone, Copy)]
pub(super) struct Piece {
    kind: usize,
    way: usize,
    bin: usize,
    x: i64,
    y: i64,
    /// Of the way it lies: shape and the far corner of its bounding box, the gap included.
    shape: usize,
    right: i64,
    top: i64,
}

impl Piece {
    fn new(nest: &Nest, kind: usize, place: Place) -> Self {
        let Place { bin, way, x, y } = place;
        let shape = nest.kinds[kind].ways[bin][way].shape;
        let (width, height) = (nest.shapes[shape].width + nest.gap.0, nest.shapes[shape].height + nest.gap.0);
        Self { kind, way, bin, x, y, shape, right: x + width, top: y + height }
    }

    fn place(&self) -> Place {
        Place { bin: self.bin, way: self.way, x: self.x, y: self.y }
    }
}

/// A placement tried for a piece.
#[derive(Clone, Copy, Debug)]
struct Place {
    bin: usize,
    way: usize,
    x: i64,
    y: i64,
}

pub(super) struct Separation {
    pieces: Vec<Piece>,
    /// Pieces on each bin.
    on: Vec<Vec<usize>>,
    /// Obstacles that stay, on each bin.
    fixed: Vec<Vec<Obstacle>>,
    /// Length that is there, by bin.
    limit: Vec<i64>,
    /// Weight of each pair, and in the last column of each piece against what stays.
    weights: Vec<f64>,
    overlaps: Vec<(usize, usize, f64)>,
    order: Vec<usize>,
}

impl Separation {
    /// Starts from `layout`; what is not laid is thrown on a bin it may lie on. No top may pass its bin's `limit`.
    pub(super) fn new(nest: &Nest, layout: &Layout, limit: Vec<i64>, random: &mut Random) -> Option<Self> {
        let mut pieces = Vec::with_capacity(nest.placements());
        for (bin, placement) in layout.on.iter().enumerate() {
            for p in placement {
                let way = nest.kinds[p.kind].ways[bin].iter().position(|w| *w == p.way)?;
                pieces.push(Piece::new(nest, p.kind, Place { bin, way, x: p.x, y: p.y }));
            }
        }
        for &kind in &layout.left {
            let bins = &nest.kinds[kind].bins;
            if bins.is_empty() {
                return None;
            }
            let bin = bins[random.below(bins.len())];
            let way = random.below(nest.kinds[kind].ways[bin].len());
            pieces.push(Piece::new(nest, kind, Place { bin, way, x: 0, y: 0 }));
        }
        let n = pieces.len();
        let mut separation = Self {
            on: vec![vec![]; nest.bins.len()],
            fixed: (0..nest.bins.len()).map(|g| obstacles(nest, g, &[])).collect(),
            weights: vec![1.0; n * (n + 1)],
            overlaps: vec![],
            order: (0..n).collect(),
            limit,
            pieces,
        };
        for i in 0..n {
            let bin = separation.pieces[i].bin;
            separation.on[bin].push(i);
            separation.hold(nest, i);
        }
        Some(separation)
    }

    /// New limits: what lies beyond is pulled in.
    pub(super) fn limit(&mut self, nest: &Nest, limit: Vec<i64>) {
        self.limit = limit;
        for i in 0..self.pieces.len() {
            self.hold(nest, i);
        }
    }

    fn hold(&mut self, nest: &Nest, i: usize) {
        let piece = self.pieces[i];
        let [left, low, right, high] = self.bounds(nest, piece.bin, piece.shape);
        let held =
            Place { x: piece.x.clamp(left, right.max(left)), y: piece.y.clamp(low, high.max(low)), ..piece.place() };
        self.pieces[i] = Piece::new(nest, piece.kind, held);
    }

    fn bounds(&self, nest: &Nest, bin: usize, shape: usize) -> [i64; 4] {
        let [left, low, right, high] = nest.inner(bin, shape).bounds;
        [left, low, right, high.min(self.limit[bin] - nest.shapes[shape].height)]
    }

    /// Finds all overlaps; returns their sum, 0 when the lay holds.
    pub(super) fn overlap(&mut self, nest: &Nest) -> f64 {
        let n = self.pieces.len();
        self.overlaps.clear();
        for on in &self.on {
            for (a, &i) in on.iter().enumerate() {
                let p = self.pieces[i];
                let shape = p.shape;
                for &j in &on[a + 1..] {
                    let q = self.pieces[j];
                    let depth = nest.nofit(shape, q.shape).depth(q.x - p.x, q.y - p.y);
                    if depth > 0.0 {
                        self.overlaps.push((i.min(j), i.max(j), depth));
                    }
                }
                let against = self.against_fixed(nest, p.bin, shape, p.x, p.y);
                if against > 0.0 {
                    self.overlaps.push((i, n, against));
                }
            }
        }
        self.overlaps.iter().map(|o| o.2).sum()
    }

    fn against_fixed(&self, nest: &Nest, bin: usize, shape: usize, x: i64, y: i64) -> f64 {
        let inner = nest.inner(bin, shape);
        let pinned: f64 = self.fixed[bin].iter().map(|o| nest.nofit(o.shape, shape).depth(x - o.x, y - o.y)).sum();
        let missing: f64 = inner.missing.iter().map(|region| region.depth(x, y)).sum();
        let [left, low, right, high] = self.bounds(nest, bin, shape);
        // A shape too large for what is left of the bin cannot be held in.
        let outside = (x - right).max(left - x).max(0) + (y - high).max(low - y).max(0);
        pinned + missing + inner.beyond(x, y) + outside as f64
    }

    fn weight(&self, i: usize, j: usize) -> f64 {
        self.weights[i * (self.pieces.len() + 1) + j]
    }

    /// Weighted overlap of piece `i` if it lay at `place`, given up beyond `most`.
    fn cost(&self, nest: &Nest, i: usize, place: Place, most: f64) -> f64 {
        let shape = nest.kinds[self.pieces[i].kind].ways[place.bin][place.way].shape;
        let n = self.pieces.len();
        let right = place.x + nest.shapes[shape].width + nest.gap.0;
        let top = place.y + nest.shapes[shape].height + nest.gap.0;
        let mut cost = self.weight(i, n) * self.against_fixed(nest, place.bin, shape, place.x, place.y);
        for &j in &self.on[place.bin] {
            if cost > most {
                return cost;
            }
            if j == i {
                continue;
            }
            let q = &self.pieces[j];
            if place.x >= q.right || right <= q.x || place.y >= q.top || top <= q.y {
                continue;
            }
            let depth = nest.nofit(q.shape, shape).depth(place.x - q.x, place.y - q.y);
            if depth > 0.0 {
                cost += depth * self.weight(i, j);
            }
        }
        cost
    }

    /// Moves every piece that overlaps to the best place found for it, then raises the weights of what overlaps
    /// still. Returns the overlap left.
    pub(super) fn pass(&mut self, nest: &Nest, random: &mut Random) -> f64 {
        let n = self.pieces.len();
        if self.overlap(nest) == 0.0 {
            return 0.0;
        }
        let mut touched = vec![false; n];
        for &(i, j, _) in &self.overlaps {
            touched[i] = true;
            if j < n {
                touched[j] = true;
            }
        }
        let mut order = std::mem::take(&mut self.order);
        random.shuffle(&mut order);
        for &i in order.iter().filter(|&&i| touched[i]).take_while(|_| !nest.stop.asked()) {
            self.relocate(nest, i, random);
        }
        self.order = order;
        let left = self.overlap(nest);
        let most = self.overlaps.iter().map(|o| o.2).fold(0.0, f64::max);
        // Pairs apart are forgotten slowly, pairs that overlap grow up to twice as heavy.
        for w in &mut self.weights {
            *w = (*w * 0.95).max(1.0);
        }
        for &(i, j, depth) in &self.overlaps {
            let factor = (1.2 + 0.8 * depth / most) / 0.95;
            self.weights[i * (n + 1) + j] *= factor;
            if j < n {
                self.weights[j * (n + 1) + i] *= factor;
            }
        }
        left
    }

    fn relocate(&mut self, nest: &Nest, i: usize, random: &mut Random) {
        let piece = self.pieces[i];
        let here = piece.place();
        let cost_here = self.cost(nest, i, here, f64::INFINITY);
        if cost_here == 0.0 {
            return;
        }
        let mut best: Vec<(f64, Place)> = vec![(cost_here, here)];
        let consider = |cost: f64, place: Place, best: &mut Vec<(f64, Place)>| {
            if best.len() < FOLLOWED || cost < best[best.len() - 1].0 {
                let at = best.partition_point(|b| b.0 <= cost);
                best.insert(at, (cost, place));
                best.truncate(FOLLOWED);
            }
        };
        for k in 0..ANYWHERE + NEAR + TOUCHING {
            let place = if k < ANYWHERE {
                self.anywhere(nest, &piece, random)
            } else if k < ANYWHERE + NEAR {
                self.near(nest, &piece, random)
            } else {
                self.touching(nest, i, random)
            };
            let Some(place) = place else { continue };
            let most = if best.len() < FOLLOWED { f64::INFINITY } else { best[best.len() - 1].0 };
            let cost = self.cost(nest, i, place, most);
            consider(cost, place, &mut best);
            if cost == 0.0 && k >= ANYWHERE {
                break;
            }
        }
        let mut chosen = best[0];
        for &(cost, place) in &best {
            if chosen.0 == 0.0 {
                break;
            }
            let found = self.descend(nest, i, place, cost, random);
            if found.0 < chosen.0 {
                chosen = found;
            }
        }
        self.move_to(nest, i, chosen.1);
    }

    fn move_to(&mut self, nest: &Nest, i: usize, place: Place) {
        let Piece { kind, bin, .. } = self.pieces[i];
        if place.bin != bin {
            self.on[bin].retain(|&j| j != i);
            self.on[place.bin].push(i);
        }
        self.pieces[i] = Piece::new(nest, kind, place);
    }

    fn anywhere(&self, nest: &Nest, piece: &Piece, random: &mut Random) -> Option<Place> {
        let bins = &nest.kinds[piece.kind].bins;
        let bin = bins[random.below(bins.len())];
        let ways = &nest.kinds[piece.kind].ways[bin];
        let way = random.below(ways.len());
        let [left, low, right, high] = self.bounds(nest, bin, ways[way].shape);
        if left > right || low > high {
            return None;
        }
        let within = |a: i64, b: i64, random: &mut Random| a + random.below((b - a + 1) as usize) as i64;
        Some(Place { bin, way, x: within(left, right, random), y: within(low, high, random) })
    }

    fn near(&self, nest: &Nest, piece: &Piece, random: &mut Random) -> Option<Place> {
        let shape = &nest.shapes[nest.kinds[piece.kind].ways[piece.bin][piece.way].shape];
        let reach = shape.width.min(shape.height).max(4);
        let off = |random: &mut Random| random.below(reach as usize) as i64 - reach / 2;
        let ways = &nest.kinds[piece.kind].ways[piece.bin];
        let way = if random.below(2) == 0 { piece.way } else { random.below(ways.len()) };
        let [left, low, right, high] = self.bounds(nest, piece.bin, ways[way].shape);
        if left > right || low > high {
            return None;
        }
        let (x, y) = (piece.x + off(random), piece.y + off(random));
        Some(Place { bin: piece.bin, way, x: x.clamp(left, right), y: y.clamp(low, high) })
    }

    /// At a corner of the no-fit region of another piece, or in a corner of the bin.
    fn touching(&self, nest: &Nest, i: usize, random: &mut Random) -> Option<Place> {
        let piece = self.pieces[i];
        let bin = if random.below(4) == 0 {
            let bins = &nest.kinds[piece.kind].bins;
            bins[random.below(bins.len())]
        } else {
            piece.bin
        };
        let ways = &nest.kinds[piece.kind].ways[bin];
        let way = random.below(ways.len());
        let shape = ways[way].shape;
        let [left, low, right, high] = self.bounds(nest, bin, shape);
        if left > right || low > high {
            return None;
        }
        let on = &self.on[bin];
        let at = random.below(on.len() + 1);
        let (mut x, mut y) = match on.get(at) {
            Some(&j) if j != i => {
                let q = self.pieces[j];
                let nofit = nest.nofit(q.shape, shape);
                let region = &nofit.parts[random.below(nofit.parts.len())];
                let corner = region.corners[random.below(region.corners.len())];
                (q.x + corner.0, q.y + corner.1)
            }
            _ => {
                let inner = nest.inner(bin, shape);
                match random.below(4 + inner.missing.len().min(8)) {
                    0 => (left, low),
                    1 => (right, low),
                    2 => (left, high),
                    3 => (right, high),
                    _ => {
                        let region = &inner.missing[random.below(inner.missing.len())];
                        region.corners[random.below(region.corners.len())]
                    }
                }
            }
        };
        // Pushed to a side now and then, so that edges meet two ways.
        match random.below(8) {
            0 => x = left,
            1 => x = right,
            2 => y = low,
            3 => y = high,
            _ => {}
        }
        Some(Place { bin, way, x: x.clamp(left, right), y: y.clamp(low, high) })
    }

    /// Steps along and across, halved where none helps, down to the unit.
    fn descend(&self, nest: &Nest, i: usize, from: Place, cost: f64, random: &mut Random) -> (f64, Place) {
        let shape = nest.kinds[self.pieces[i].kind].ways[from.bin][from.way].shape;
        let [left, low, right, high] = self.bounds(nest, from.bin, shape);
        let size = nest.shapes[shape].width.min(nest.shapes[shape].height);
        let (mut step, mut best, mut place) = ((size / 4).max(1), cost, from);
        while best > 0.0 {
            let first = random.below(4);
            let better = (0..4).find_map(|k| {
                let (dx, dy) = [(step, 0), (0, step), (-step, 0), (0, -step)][(first + k) % 4];
                let x = (place.x + dx).clamp(left, right.max(left));
                let y = (place.y + dy).clamp(low, high.max(low));
                if (x, y) == (place.x, place.y) {
                    return None;
                }
                let moved = Place { x, y, ..place };
                let cost = self.cost(nest, i, moved, best);
                (cost < best).then_some((cost, moved))
            });
            match better {
                Some((cost, moved)) => (best, place) = (cost, moved),
                None if step > 1 => step = (step / 3).max(1),
                None => break,
            }
        }
        (best, place)
    }

    /// Where every piece is, to come back to.
    pub(super) fn state(&self) -> Vec<Piece> {
        self.pieces.clone()
    }

    /// Back to a state of this separation; the weights stay.
    pub(super) fn restore(&mut self, state: &[Piece]) {
        self.pieces.clear();
        self.pieces.extend_from_slice(state);
        self.on.iter_mut().for_each(Vec::clear);
        for (i, piece) in self.pieces.iter().enumerate() {
            self.on[piece.bin].push(i);
        }
    }

    /// Throws two pieces into each other's places, large ones rather, and the weights away.
    pub(super) fn disturb(&mut self, nest: &Nest, random: &mut Random) {
        let n = self.pieces.len();
        self.weights.fill(1.0);
        if n < 2 {
            return;
        }
        let area = |i: usize| nest.kinds[self.pieces[i].kind].area;
        // Of a few drawn the largest, and the largest that is of another kind.
        let drawn: Vec<usize> = (0..DRAWN).map(|_| random.below(n)).collect();
        let largest = |not: Option<usize>| {
            let other = |i: &usize| not.is_none_or(|j| *i != j && self.pieces[*i].kind != self.pieces[j].kind);
            drawn.iter().copied().filter(other).max_by(|a, b| area(*a).total_cmp(&area(*b)))
        };
        let Some(i) = largest(None) else { return };
        let Some(j) = largest(Some(i)) else {
            // Alike, they would only change names.
            if let Some(place) = self.anywhere(nest, &self.pieces[i], random) {
                self.move_to(nest, i, place);
            }
            return;
        };
        let (a, b) = (self.pieces[i], self.pieces[j]);
        for (k, to) in [(i, b), (j, a)] {
            let ways = &nest.kinds[self.pieces[k].kind].ways[to.bin];
            if ways.is_empty() {
                continue;
            }
            let way = random.below(ways.len());
            self.move_to(nest, k, Place { way, ..to.place() });
            self.hold(nest, k);
        }
    }

    /// The lay as it stands, every piece slid down and left until it touches, the lowest first; nothing when what
    /// overlaps by less than a unit cannot be told apart.
    pub(super) fn layout(&self, nest: &Nest) -> Option<Layout> {
        let mut layout = Layout { on: vec![vec![]; nest.bins.len()], left: vec![] };
        for (bin, on) in self.on.iter().enumerate() {
            let placement: Vec<KindPlacement> = on
                .iter()
                .map(|&i| {
                    let p = self.pieces[i];
                    KindPlacement { kind: p.kind, way: nest.kinds[p.kind].ways[bin][p.way], x: p.x, y: p.y }
                })
                .collect();
            layout.on[bin] = compacted(nest, bin, told_apart(nest, bin, placement)?);
        }
        Some(layout)
    }
}

/// Moves pieces that overlap by less than a unit aside or up by units, the lowest first, until none truly overlaps;
/// nothing when no place near is free.
fn told_apart(nest: &Nest, bin: usize, mut placement: Vec<KindPlacement>) -> Option<Vec<KindPlacement>> {
    /// So many units are less than a hundredth of a millimetre.
    const MOST_UNITS: i64 = 64;
    placement.sort_by_key(|p| (p.y, p.x));
    let pinned = obstacles(nest, bin, &[]);
    for at in 0..placement.len() {
        let (before, rest) = placement.split_at_mut(at);
        let piece = rest.first_mut()?;
        let shape = piece.way.shape;
        let inner = nest.inner(bin, shape);
        let overlaps = |x: i64, y: i64| {
            pinned.iter().any(|o| nest.nofit(o.shape, shape).holds(x - o.x, y - o.y))
                || before.iter().any(|o| nest.nofit(o.way.shape, shape).holds(x - o.x, y - o.y))
                || inner.missing.iter().any(|region| region.holds(x, y))
        };
        if overlaps(piece.x, piece.y) {
            let [left, _, right, high] = inner.bounds;
            let is_there = |x: i64, y: i64| {
                x >= left && x <= right && (nest.bins[bin].limit.is_none() || y <= high) && inner.beyond(x, y) == 0.0
            };
            let near = (1..=MOST_UNITS).flat_map(|u| [(0, u), (u, 0), (-u, 0), (u, u), (-u, u)]);
            let mut places = near.map(|(dx, dy)| (piece.x + dx, piece.y + dy));
            (piece.x, piece.y) = places.find(|&(x, y)| is_there(x, y) && !overlaps(x, y))?;
        }
    }
    Some(placement)
}

/// Slides every piece down and left until nothing moves any more.
pub(super) fn compacted(nest: &Nest, bin: usize, mut placement: Vec<KindPlacement>) -> Vec<KindPlacement> {
    const MOST_ROUNDS: usize = 30;
    let mut all = obstacles(nest, bin, &placement);
    let pinned = all.len() - placement.len();
    for _ in 0..MOST_ROUNDS {
        let mut order: Vec<usize> = (0..placement.len()).collect();
        order.sort_by_key(|&i| (placement[i].y, placement[i].x));
        let mut moved = false;
        for i in order {
            if nest.stop.asked() {
                return placement;
            }
            let last = all.len() - 1;
            all.swap(pinned + i, last);
            let own = all.pop();
            let p = &mut placement[i];
            let (x, y) = settled(nest, bin, p.way.shape, &all, p.x, p.y);
            moved |= (x, y) != (p.x, p.y);
            (p.x, p.y) = (x, y);
            if let Some(own) = own {
                all.push(Obstacle { x, y, ..own });
                all.swap(pinned + i, last);
            }
        }
        if !moved {
            break;
        }
    }
    placement
}
