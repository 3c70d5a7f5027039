//! A beam search that lays pieces where they touch most, for cloth that only just suffices.
//!
//! Pieces cut from one length, or from a few scraps, fit together along their sides as they were cut; all cloths are
//! filled side by side, so that what lies on which is part of the search. A piece is laid where two sides meet,
//! its own against those of the cloth or of what lies there, and of all such places those come first that leave the
//! free cloth with the shortest edge (after the touching perimeter of Lodi, Martello and Vigo 1999, "Heuristic and
//! metaheuristic approaches for a class of two-dimensional bin packing problems"). Places are where two sides of no-fit
//! regions cross, or at their corners. A lay in which some piece has no place left is not followed.

use super::board::KindPlacement;
use super::problem::{Nest, Way};
use crate::hashed::HashSet;
use crate::lay::random::Random;
use crate::measure::Length;
use crate::shape::{NoFit, NoFitRegion, Point, area_below};
use std::hash::{DefaultHasher, Hash as _, Hasher as _};

/// More placements, or more corners in all shapes together, are not laid so.
const MOST_PIECES: usize = 40;
const MOST_CORNERS: usize = 700;
/// A shape of more corners is round: its sides meet nothing.
const MOST_SHAPE_CORNERS: usize = 12;
/// So many of the best children of one lay are followed, and so many places are kept for each shape.
const CHILDREN: usize = 24;
const PLACES: usize = 48;
/// Places nearer to each other than this many units are one.
const NEAR: i64 = 8;
/// Sides that meet run against each other: the cross product of their directions is at most this.
const ALIGNED: f64 = 0.01;

/// Lines do not cross where the sine of the angle between them, squared, is at most this.
const ALONGSIDE: f64 = 1e-12;

/// What a search draws its manner from.
struct Manner {
    /// How many times as far apart as what is to spare allows sides may be and still meet.
    near: &'static [f64],
    /// Whether large pieces are laid first.
    by_area: &'static [f64],
    /// How much chance there is.
    chance: &'static [f64],
}

/// Into a length that was asked for, next to nothing is to spare.
const INTO_A_LENGTH: Manner =
    Manner { near: &[3.0, 4.0, 5.0, 6.0], by_area: &[0.0, 0.25, 0.5, 1.0], chance: &[0.05, 0.2, 0.4] };
/// What found most in the same time among jobs cut from scraps, pieces a hundredth smaller.
const ONTO_WHAT_IS_THERE: Manner =
    Manner { near: &[4.0, 5.0, 6.0], by_area: &[0.0, 0.25, 0.5], chance: &[0.15, 0.2, 0.3] };

/// A side of a shape or of the cloth, the free side to its right.
#[derive(Clone, Copy)]
struct Side {
    x: f64,
    y: f64,
    /// Direction, of length 1.
    ux: f64,
    uy: f64,
    length: f64,
}

impl Side {
    fn between(a: (i64, i64), b: (i64, i64)) -> Option<Self> {
        let (dx, dy) = ((b.0 - a.0) as f64, (b.1 - a.1) as f64);
        let length = (dx * dx + dy * dy).sqrt();
        (length > 0.0).then(|| Self { x: a.0 as f64, y: a.1 as f64, ux: dx / length, uy: dy / length, length })
    }

    /// How far `other`, moved by (`x`, `y`), runs along this one, no further from it than `near`.
    fn meets(&self, other: &Self, x: f64, y: f64, near: f64) -> f64 {
        if self.ux * other.ux + self.uy * other.uy > 0.0 || (self.ux * other.uy - self.uy * other.ux).abs() > ALIGNED {
            return 0.0;
        }
        let (dx, dy) = (other.x + x - self.x, other.y + y - self.y);
        let from = dx * self.ux + dy * self.uy;
        let to = from - other.length;
        let (low, high) = (to.max(0.0), from.min(self.length));
        if high <= low {
            return 0.0;
        }
        // Its distance in the middle of what they share.
        let along = from - (low + high) / 2.0;
        let away = (dy + other.uy * along) * self.ux - (dx + other.ux * along) * self.uy;
        if away.abs() <= near { high - low } else { 0.0 }
    }
}

/// What is the same in every search on one problem.
pub(super) struct Sides {
    /// Of each shape, and of the cloth.
    shapes: Vec<Vec<Side>>,
    bins: Vec<EdgedBin>,
    /// Area of all pieces.
    all: f64,
}

/// A bin that is filled.
struct EdgedBin {
    bin: usize,
    /// Its edge; none of a rectangle, whose length may be asked for.
    sides: Vec<Side>,
    /// Its area where there is no more of it than it is long.
    area: Option<f64>,
}

/// A place where a shape touches on two sides.
#[derive(Clone, Copy)]
struct Spot {
    /// Which field it is on.
    field: usize,
    shape: usize,
    x: i64,
    y: i64,
    /// How much of its edge touches.
    touches: f64,
}

#[derive(Clone)]
struct State {
    /// What lies on each cloth.
    on: Vec<Vec<KindPlacement>>,
    left: Vec<usize>,
    /// Edge and area of the cloth that is free.
    edge: f64,
    free: f64,
    number: u64,
    spots: Vec<Spot>,
}

/// A step from a state.
struct Child {
    parent: usize,
    kind: usize,
    way: usize,
    spot: Spot,
    number: u64,
    /// Less is more promising.
    key: f64,
}

/// How far a search went.
pub(super) struct Reached {
    /// By bin.
    pub on: Vec<(usize, Vec<KindPlacement>)>,
    /// Kinds that are still to be laid, one entry a placement.
    pub left: Vec<usize>,
}

impl Sides {
    /// For the bin that is owned and has the area for all, or the only one there is, or all that are owned together;
    /// none where this search has nothing to go by.
    pub(super) fn of(nest: &Nest) -> Option<Self> {
        let placements = nest.placements();
        let corners: usize = nest.shapes.iter().flat_map(|s| &s.parts).map(Vec::len).sum();
        let round = |parts: &[Vec<Point>]| parts.iter().map(Vec::len).sum::<usize>() > MOST_SHAPE_CORNERS;
        if !(3..=MOST_PIECES).contains(&placements)
            || corners > MOST_CORNERS
            || nest.gap > Length::ZERO
            || nest.through
            || !nest.fixed.is_empty()
            || nest.shapes.iter().any(|s| round(&s.parts))
        {
            return None;
        }
        let all: f64 = nest.kinds.iter().map(|k| k.area * k.count as f64).sum();
        let used: Vec<usize> =
            (0..nest.bins.len()).filter(|&g| nest.kinds.iter().any(|k| k.bins.contains(&g))).collect();
        let owned = |g: &usize| nest.bins[*g].owned && nest.bins[*g].fixed();
        let hold = |these: &[usize]| {
            nest.kinds.iter().all(|k| these.iter().any(|&g| !k.ways[g].is_empty()))
                && these.iter().map(|&g| area_of(nest, g).unwrap_or(f64::INFINITY)).sum::<f64>() >= all
        };
        let one = used.iter().copied().find(|g| owned(g) && hold(&[*g])).map(|g| vec![g]);
        let only = || Some(used.clone()).filter(|u| u.len() == 1 && hold(u));
        let together = || Some(used.iter().copied().filter(owned).collect()).filter(|u: &Vec<usize>| hold(u));
        let bins = one.or_else(only).or_else(together)?;
        let shapes = nest.shapes.iter().map(|shape| outer_sides(&shape.parts)).collect();
        let edged = |bin: usize| {
            let mut sides = Vec::new();
            if let Some(edge) = &nest.bins[bin].edge {
                let corners: Vec<_> = edge.hull.iter().map(|p| (p.x.0, p.y.0)).collect();
                let n = corners.len();
                sides.extend((0..n).filter_map(|i| Side::between(corners[(i + 1) % n], corners[i])));
                sides.extend(edge.missing.iter().flat_map(|part| outer_sides(std::slice::from_ref(part))));
            }
            EdgedBin { bin, sides, area: area_of(nest, bin) }
        };
        Some(Self { shapes, bins: bins.into_iter().map(edged).collect(), all })
    }

    /// The bins that are filled.
    pub(super) fn bins(&self) -> Vec<usize> {
        self.bins.iter().map(|b| b.bin).collect()
    }

    /// What is to spare on the bins, as a share of what is laid; nothing on cloth of any length.
    pub(super) fn spare(&self) -> f64 {
        self.bins.iter().map(|b| b.area).sum::<Option<f64>>().map_or(0.0, |area| area / self.all - 1.0)
    }

    fn perimeter(&self, shape: usize) -> f64 {
        self.shapes[shape].iter().map(|s| s.length).sum()
    }
}

/// The area of a bin less what is missing of it; nothing of cloth of any length.
fn area_of(nest: &Nest, bin: usize) -> Option<f64> {
    let bin = &nest.bins[bin];
    let of = |parts: &[Vec<Point>]| parts.iter().map(|p| area_below(p, i64::MAX / 4)).sum::<f64>();
    let edged = bin.edge.as_ref().map(|edge| of(std::slice::from_ref(&edge.hull)) - of(&edge.missing));
    edged.or(bin.limit.map(|limit| bin.width as f64 * limit as f64))
}

/// The sides of convex parts that are not shared with another part.
fn outer_sides(parts: &[Vec<Point>]) -> Vec<Side> {
    let all: Vec<(usize, Side)> = parts
        .iter()
        .enumerate()
        .flat_map(|(i, part)| {
            let n = part.len();
            let corner = move |k: usize| (part[k % n].x.0, part[k % n].y.0);
            (0..n).filter_map(move |k| Some((i, Side::between(corner(k), corner(k + 1))?)))
        })
        .collect();
    let shared = |i: usize, side: &Side| {
        all.iter().filter(|(j, _)| *j != i).map(|(_, other)| side.meets(other, 0.0, 0.0, 2.0)).sum::<f64>()
    };
    all.iter().filter(|(i, side)| shared(*i, side) < side.length / 2.0).map(|(_, side)| *side).collect()
}

/// A line of places: a x + b y = c.
type Line = (f64, f64, f64);

struct Search<'a> {
    nest: &'a Nest,
    sides: &'a Sides,
    fields: Vec<Field>,
    near: f64,
}

/// What lies on a cloth, as one shape that is to be laid beside it meets it.
struct Neighbour<'a> {
    shape: usize,
    x: i64,
    y: i64,
    nofit: &'a NoFit,
}

/// What of a bin is filled in one search.
struct Field {
    bin: usize,
    sides: Vec<Side>,
    /// Of each shape, the left, low, right and high of where it may be, and the lines that keep it there.
    bounds: Vec<[i64; 4]>,
    lines: Vec<Vec<Line>>,
}

impl Field {
    /// The first `limit` units of a bin.
    fn new(nest: &Nest, edged: &EdgedBin, limit: i64) -> Self {
        let bin = edged.bin;
        let mut sides = edged.sides.clone();
        if nest.bins[bin].edge.is_none() {
            let corners = [(0, 0), (0, limit), (nest.bins[bin].width, limit), (nest.bins[bin].width, 0)];
            sides.extend((0..4).filter_map(|i| Side::between(corners[i], corners[(i + 1) % 4])));
        }
        let bounds: Vec<[i64; 4]> = (0..nest.shapes.len())
            .map(|shape| {
                let [left, low, right, high] = nest.inner(bin, shape).bounds;
                [left, low, right, high.min(limit - nest.shapes[shape].height)]
            })
            .collect();
        let lines = |(shape, b): (usize, &[i64; 4])| {
            let around = [(1.0, 0.0, b[0]), (0.0, 1.0, b[1]), (1.0, 0.0, b[2]), (0.0, 1.0, b[3])];
            let planes = nest.inner(bin, shape).planes.iter().copied();
            around.into_iter().map(|(x, y, c)| (x, y, c as f64)).chain(planes).collect()
        };
        let lines = bounds.iter().enumerate().map(lines).collect();
        Self { bin, sides, bounds, lines }
    }
}

/// Lays pieces on the bins, into the first `limit` units of one that has no length of its own, `width` lays side by
/// side; returns how far the best came.
pub(super) fn find(nest: &Nest, sides: &Sides, limit: i64, width: usize, random: &mut Random) -> Option<Reached> {
    let limit_of = |b: &EdgedBin| nest.bins[b.bin].limit.map_or(limit, |most| most.min(limit));
    let area_of = |b: &EdgedBin| b.area.unwrap_or(nest.bins[b.bin].width as f64 * limit as f64);
    let area: f64 = sides.bins.iter().map(area_of).sum();
    let spare = area - sides.all;
    if spare < 0.0 {
        return None;
    }
    let fields: Vec<Field> = sides.bins.iter().map(|b| Field::new(nest, b, limit_of(b))).collect();
    let shape = |ways: &[Vec<Way>]| ways.iter().flatten().next().map_or(0.0, |w| sides.perimeter(w.shape));
    let edges: f64 = nest.kinds.iter().map(|k| k.count as f64 * shape(&k.ways)).sum();
    let open = sides.bins.iter().any(|b| b.area.is_none());
    let manner = if open { &INTO_A_LENGTH } else { &ONTO_WHAT_IS_THERE };
    let mut draw = |from: &[f64]| from[random.below(from.len())];
    // What is to spare, spread along all edges, is how far apart pieces lie that belong together; a few times as far
    // still counts.
    let near = NEAR as f64 + draw(manner.near) * 2.0 * spare / edges;
    let search = Search { nest, sides, fields, near };
    let (by_area, chance) = (draw(manner.by_area), draw(manner.chance));
    search.beam(width, area, (by_area, chance), random)
}

impl Search<'_> {
    fn beam(&self, width: usize, area: f64, (by_area, chance): (f64, f64), random: &mut Random) -> Option<Reached> {
        let nest = self.nest;
        let left: Vec<usize> = nest.kinds.iter().map(|k| k.count).collect();
        let edge = self.fields.iter().flat_map(|f| &f.sides).map(|s| s.length).sum();
        let on = vec![vec![]; self.fields.len()];
        let mut first = State { on, left, edge, free: area, number: 0, spots: vec![] };
        first.spots = self.first_spots();
        let mut best = self.reached(&first);
        let mut least = area;
        let mut states = vec![first];
        while !states.is_empty() {
            let mut children: Vec<Child> = Vec::new();
            for (parent, state) in states.iter().enumerate() {
                if nest.stop.asked() {
                    return None;
                }
                let from = children.len();
                for (kind, _) in state.left.iter().enumerate().filter(|(_, left)| **left > 0) {
                    for (field, ground) in self.fields.iter().enumerate() {
                        for (way, w) in nest.kinds[kind].ways[ground.bin].iter().enumerate() {
                            let perimeter = self.sides.perimeter(w.shape);
                            for spot in state.spots.iter().filter(|s| (s.field, s.shape) == (field, w.shape)) {
                                let edge = state.edge + perimeter - 2.0 * spot.touches;
                                let free = (state.free - nest.kinds[kind].area).max(1.0);
                                let noise = 1.0 + chance * random.below(1000) as f64 / 1000.0;
                                let key = edge.max(1.0) * free.powf(by_area / 2.0) * noise;
                                let number = state.number.wrapping_add(number_of(kind, spot, self.near as i64));
                                children.push(Child { parent, kind, way, spot: *spot, number, key });
                            }
                        }
                    }
                }
                if children.len() - from > CHILDREN {
                    children[from..].select_nth_unstable_by(CHILDREN, |a, b| a.key.total_cmp(&b.key));
                    children.truncate(from + CHILDREN);
                }
            }
            children.sort_by(|a, b| a.key.total_cmp(&b.key).then(a.number.cmp(&b.number)));
            let mut seen = HashSet::default();
            let mut next = Vec::with_capacity(width);
            for child in children {
                if next.len() == width {
                    break;
                }
                if !seen.insert(child.number) {
                    continue;
                }
                if nest.stop.asked() {
                    return None;
                }
                let (state, whole) = self.step(&states[child.parent], &child);
                if state.free < least {
                    least = state.free;
                    best = self.reached(&state);
                    if best.left.is_empty() {
                        return Some(best);
                    }
                }
                if whole {
                    next.push(state);
                }
            }
            states = next;
        }
        Some(best)
    }

    fn reached(&self, state: &State) -> Reached {
        let on = self.fields.iter().map(|f| f.bin).zip(state.on.iter().cloned()).collect();
        Reached { on, left: kinds_left(&state.left) }
    }

    /// The state with one more piece, and whether every piece has a place left.
    fn step(&self, state: &State, child: &Child) -> (State, bool) {
        let nest = self.nest;
        let Spot { field, x, y, .. } = child.spot;
        let way = nest.kinds[child.kind].ways[self.fields[field].bin][child.way];
        let mut left = state.left.clone();
        left[child.kind] -= 1;
        let mut on = state.on.clone();
        on[field].push(KindPlacement { kind: child.kind, way, x, y });
        let wanted = self.wanted(&left);
        let mut spots: Vec<Spot> = Vec::with_capacity(state.spots.len());
        let mut here: Vec<Spot> = Vec::with_capacity(2 * PLACES);
        let alike = |a: &Spot, b: &Spot| (a.field, a.shape) == (b.field, b.shape);
        for of_shape in state.spots.chunk_by(alike).filter(|s| wanted[s[0].field][s[0].shape]) {
            let Spot { field: lies_on, shape, .. } = of_shape[0];
            if lies_on != field {
                spots.extend_from_slice(of_shape);
                continue;
            }
            let neighbours = self.neighbours(&on[field], shape);
            let nofit = nest.nofit(way.shape, shape);
            here.clear();
            for spot in of_shape.iter().filter(|s| !nofit.holds(s.x - x, s.y - y)) {
                let touches = self.touches(way.shape, (x, y), shape, (spot.x, spot.y));
                here.push(Spot { touches: spot.touches + touches, ..*spot });
            }
            for region in &nofit.parts {
                self.spots_at(&neighbours, (field, shape), (region, x, y), &mut here);
            }
            touching_most(&mut here);
            spots.extend_from_slice(&here);
        }
        let edge = state.edge + self.sides.perimeter(way.shape) - 2.0 * child.spot.touches;
        let free = state.free - nest.kinds[child.kind].area;
        let has_place = |kind: usize| {
            let is_one = |s: &Spot| nest.kinds[kind].ways[self.fields[s.field].bin].iter().any(|w| w.shape == s.shape);
            spots.iter().any(is_one)
        };
        let whole = (0..left.len()).all(|k| left[k] == 0 || has_place(k));
        (State { on, left, edge, free, number: child.number, spots }, whole)
    }

    /// On each cloth, the shapes of what is left.
    fn wanted(&self, left: &[usize]) -> Vec<Vec<bool>> {
        let of = |field: &Field| {
            let mut wanted = vec![false; self.nest.shapes.len()];
            for (kind, _) in left.iter().enumerate().filter(|(_, n)| **n > 0) {
                for way in &self.nest.kinds[kind].ways[field.bin] {
                    wanted[way.shape] = true;
                }
            }
            wanted
        };
        self.fields.iter().map(of).collect()
    }

    fn neighbours(&self, on: &[KindPlacement], shape: usize) -> Vec<Neighbour<'_>> {
        let of = |p: &KindPlacement| {
            let nofit = self.nest.nofit(p.way.shape, shape);
            Neighbour { shape: p.way.shape, x: p.x, y: p.y, nofit }
        };
        on.iter().map(of).collect()
    }

    fn touches(&self, fixed: usize, (fx, fy): (i64, i64), moving: usize, (x, y): (i64, i64)) -> f64 {
        let (dx, dy) = ((x - fx) as f64, (y - fy) as f64);
        let (a, b) = (&self.nest.shapes[fixed], &self.nest.shapes[moving]);
        let apart = |d: f64, fixed: i64, moving: i64| d > fixed as f64 + self.near || -d > moving as f64 + self.near;
        if apart(dx, a.width, b.width) || apart(dy, a.height, b.height) {
            return 0.0;
        }
        let of = |a: &Side| self.sides.shapes[moving].iter().map(|b| a.meets(b, dx, dy, self.near)).sum::<f64>();
        self.sides.shapes[fixed].iter().map(of).sum()
    }

    fn touches_cloth(&self, (field, shape): (usize, usize), x: i64, y: i64) -> f64 {
        let of =
            |a: &Side| self.sides.shapes[shape].iter().map(|b| a.meets(b, x as f64, y as f64, self.near)).sum::<f64>();
        self.fields[field].sides.iter().map(of).sum()
    }

    fn is_inside(&self, (field, shape): (usize, usize), x: i64, y: i64) -> bool {
        let ground = &self.fields[field];
        let [left, low, right, high] = ground.bounds[shape];
        let inner = self.nest.inner(ground.bin, shape);
        x >= left
            && x <= right
            && y >= low
            && y <= high
            && inner.beyond(x, y) == 0.0
            && !inner.missing.iter().any(|region| region.holds(x, y))
    }

    /// Where the sides of the cloths meet.
    fn first_spots(&self) -> Vec<Spot> {
        let left: Vec<usize> = self.nest.kinds.iter().map(|k| k.count).collect();
        let mut spots = Vec::new();
        for (field, wanted) in self.wanted(&left).iter().enumerate() {
            let ground = &self.fields[field];
            for shape in wanted.iter().enumerate().filter(|(_, w)| **w).map(|(s, _)| s) {
                let mut here = Vec::new();
                let lines = &ground.lines[shape];
                for (i, a) in lines.iter().enumerate() {
                    for b in &lines[i + 1..] {
                        self.offer(&[], (field, shape), crossing(a, b), &mut here);
                    }
                }
                for region in &self.nest.inner(ground.bin, shape).missing {
                    self.spots_at(&[], (field, shape), (region, 0, 0), &mut here);
                }
                touching_most(&mut here);
                spots.extend(here);
            }
        }
        spots
    }

    /// Places of a shape on one cloth on the sides of one no-fit region: its corners, and where it crosses another or a
    /// side of the cloth.
    fn spots_at(
        &self,
        neighbours: &[Neighbour<'_>],
        (field, shape): (usize, usize),
        (region, x, y): (&NoFitRegion, i64, i64),
        spots: &mut Vec<Spot>,
    ) {
        let ground = &self.fields[field];
        let [left, low, right, high] = ground.bounds[shape];
        let b = region.bounds;
        if b[0] + x > right || b[2] + x < left || b[1] + y > high || b[3] + y < low {
            return;
        }
        for c in &region.corners {
            self.offer_whole(neighbours, (field, shape), (c.0 + x, c.1 + y), spots);
        }
        let lines = &ground.lines[shape];
        let others: Vec<(&NoFitRegion, i64, i64)> = neighbours
            .iter()
            .rev()
            .skip(1)
            .flat_map(|p| p.nofit.parts.iter().map(move |r| (r, p.x, p.y)))
            .chain(self.nest.inner(ground.bin, shape).missing.iter().map(|r| (r, 0, 0)))
            .filter(|(r, ox, oy)| {
                r.bounds[0] + ox <= b[2] + x
                    && r.bounds[2] + ox >= b[0] + x
                    && r.bounds[1] + oy <= b[3] + y
                    && r.bounds[3] + oy >= b[1] + y
            })
            .collect();
        let n = region.corners.len();
        for i in 0..n {
            let (p, q) = (region.corners[i], region.corners[(i + 1) % n]);
            let (p, q) = ((p.0 + x, p.1 + y), (q.0 + x, q.1 + y));
            let line = through(p, q);
            for other in lines {
                let at = crossing(&line, other).filter(|at| is_on(*at, p, q));
                self.offer(neighbours, (field, shape), at, spots);
            }
            for (r, ox, oy) in &others {
                let m = r.corners.len();
                for k in 0..m {
                    let (a, b) = (r.corners[k], r.corners[(k + 1) % m]);
                    let (a, b) = ((a.0 + ox, a.1 + oy), (b.0 + ox, b.1 + oy));
                    if a.0.max(b.0) < p.0.min(q.0) || a.0.min(b.0) > p.0.max(q.0) {
                        continue;
                    }
                    if a.1.max(b.1) < p.1.min(q.1) || a.1.min(b.1) > p.1.max(q.1) {
                        continue;
                    }
                    let at = crossing(&line, &through(a, b)).filter(|at| is_on(*at, p, q) && is_on(*at, a, b));
                    self.offer(neighbours, (field, shape), at, spots);
                }
            }
        }
    }

    /// Takes a crossing as a place, at the whole units beside it that are free.
    fn offer(&self, neighbours: &[Neighbour<'_>], of: (usize, usize), at: Option<(f64, f64)>, spots: &mut Vec<Spot>) {
        let Some((x, y)) = at else { return };
        let (x0, y0) = (x.floor() as i64, y.floor() as i64);
        let (x1, y1) = (x0 + 1, y0 + 1);
        for at in [(x0, y0), (x1, y0), (x0, y1), (x1, y1)] {
            if self.offer_whole(neighbours, of, at, spots) {
                return;
            }
        }
    }

    fn offer_whole(
        &self,
        neighbours: &[Neighbour<'_>],
        (field, shape): (usize, usize),
        (x, y): (i64, i64),
        spots: &mut Vec<Spot>,
    ) -> bool {
        if spots.iter().any(|s| (s.x - x).abs() <= NEAR && (s.y - y).abs() <= NEAR) {
            return true;
        }
        let free = self.is_inside((field, shape), x, y) && neighbours.iter().all(|p| !p.nofit.holds(x - p.x, y - p.y));
        if free {
            let beside: f64 = neighbours.iter().map(|p| self.touches(p.shape, (p.x, p.y), shape, (x, y))).sum();
            spots.push(Spot { field, shape, x, y, touches: beside + self.touches_cloth((field, shape), x, y) });
        }
        free
    }
}

/// Keeps the places of one shape where it touches most.
fn touching_most(spots: &mut Vec<Spot>) {
    spots.sort_by(|a, b| b.touches.total_cmp(&a.touches).then((a.y, a.x).cmp(&(b.y, b.x))));
    spots.truncate(PLACES);
}

/// One entry a placement.
fn kinds_left(left: &[usize]) -> Vec<usize> {
    left.iter().enumerate().flat_map(|(kind, n)| std::iter::repeat_n(kind, *n)).collect()
}

/// Nearly the same place has the same number.
fn number_of(kind: usize, spot: &Spot, near: i64) -> u64 {
    let mut hasher = DefaultHasher::new();
    (kind, spot.field, spot.shape, (spot.x + near / 2) / near, (spot.y + near / 2) / near).hash(&mut hasher);
    hasher.finish()
}

/// The line through two points.
fn through(a: (i64, i64), b: (i64, i64)) -> Line {
    let (nx, ny) = ((b.1 - a.1) as f64, (a.0 - b.0) as f64);
    (nx, ny, nx * a.0 as f64 + ny * a.1 as f64)
}

fn crossing(a: &Line, b: &Line) -> Option<(f64, f64)> {
    let det = a.0 * b.1 - a.1 * b.0;
    let lengths = (a.0 * a.0 + a.1 * a.1) * (b.0 * b.0 + b.1 * b.1);
    (det * det > ALONGSIDE * lengths).then(|| ((a.2 * b.1 - a.1 * b.2) / det, (a.0 * b.2 - a.2 * b.0) / det))
}

/// Whether a point of a line lies between two others of it.
fn is_on((x, y): (f64, f64), a: (i64, i64), b: (i64, i64)) -> bool {
    let within = |v: f64, a: i64, b: i64| v >= a.min(b) as f64 - 1.0 && v <= a.max(b) as f64 + 1.0;
    within(x, a.0, b.0) && within(y, a.1, b.1)
}
