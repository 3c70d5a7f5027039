//! A beam search for a lay within a given length: many lays grow side by side, a piece at a time at their lowest
//! place, and the most promising go on.
//!
//! Promising is a lay that has wasted little and whose top has few steps: pieces that end level with their neighbours
//! leave places that others can fill. Lays with the same top and the same pieces used count once. The widths of the
//! beam grow from run to run, so that it can be stopped at any time.

use super::strip::{Choice, Laid, Strip};
use crate::hashed::HashSet;
use crate::lay::random::Random;

#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
struct Segment {
    x: i64,
    y: i64,
    width: i64,
}

#[derive(Clone)]
struct State {
    sky: Vec<Segment>,
    left: Vec<u16>,
    waste: i128,
    /// Last placement in the tree of placements.
    last: usize,
    used: u64,
}

struct Child {
    of: usize,
    /// Steps of waste taken before this piece.
    kind: usize,
    choice: usize,
    at_right: bool,
    key: f64,
}

const NONE: usize = usize::MAX;

/// Looks for a lay of all of `strip` no longer than `length`, with `width` lays side by side.
pub(super) fn find(strip: &Strip, length: i64, width: usize, random: &mut Random) -> Option<Vec<Laid>> {
    let ceiling = length + strip.gap;
    let spare = i128::from(strip.width) * i128::from(ceiling) - strip.area();
    if spare < 0 || ceiling <= 0 {
        return None;
    }
    let on_side = random.below(2) == 0;
    let (across, ceiling) = if on_side { (ceiling, strip.width) } else { (strip.width, ceiling) };
    let lie = |c: &Choice| if on_side { Choice { width: c.height, height: c.width, ..*c } } else { *c };
    let choices: Vec<Vec<Choice>> = strip.kinds.iter().map(|k| k.choices.iter().map(lie).collect()).collect();
    let beam = Beam {
        marks: strip.kinds.iter().map(|_| random.next_u64()).collect(),
        mean: strip.area() as f64 / strip.pieces().max(1) as f64,
        // How much a step in the top counts against waste; drawn anew each run.
        roughness: [0.05, 0.15, 0.4, 1.0][random.below(4)],
        choices,
        ceiling,
        spare,
    };
    let mut lay = beam.run(across, strip, width, random)?;
    if on_side {
        for laid in &mut lay {
            std::mem::swap(&mut laid.x, &mut laid.y);
        }
    }
    Some(lay)
}

struct Beam {
    choices: Vec<Vec<Choice>>,
    marks: Vec<u64>,
    mean: f64,
    roughness: f64,
    ceiling: i64,
    spare: i128,
}

impl Beam {
    fn run(&self, across: i64, strip: &Strip, width: usize, random: &mut Random) -> Option<Vec<Laid>> {
        let mut tree: Vec<(usize, Laid)> = Vec::new();
        let mut states = vec![State {
            sky: vec![Segment { x: 0, y: 0, width: across }],
            left: strip.kinds.iter().map(|k| k.count as u16).collect(),
            waste: 0,
            last: NONE,
            used: 0,
        }];
        let mut children: Vec<Child> = Vec::new();
        let mut seen: HashSet<(u64, u64)> = HashSet::default();
        for _ in 0..strip.pieces() {
            if strip.stop.asked() {
                return None;
            }
            states.retain_mut(|s| self.fill_hopeless(s));
            children.clear();
            for (of, state) in states.iter().enumerate() {
                self.expand(of, state, random, &mut children);
            }
            if children.is_empty() {
                return None;
            }
            let keep = (width * 2).min(children.len());
            if keep < children.len() {
                children.select_nth_unstable_by(keep - 1, |a, b| a.key.total_cmp(&b.key));
                children.truncate(keep);
            }
            children.sort_unstable_by(|a, b| a.key.total_cmp(&b.key));
            seen.clear();
            let mut next = Vec::with_capacity(width);
            for child in &children {
                let state = self.placed(&states[child.of], child, &mut tree);
                if seen.insert((state.used, hash(&state.sky))) {
                    next.push(state);
                    if next.len() == width {
                        break;
                    }
                }
            }
            states = next;
        }
        let mut lay = Vec::with_capacity(strip.pieces());
        let mut at = states.first()?.last;
        while at != NONE {
            lay.push(tree[at].1);
            at = tree[at].0;
        }
        Some(lay)
    }

    /// Fills places that no piece fits; false when that wastes more than there is to spare.
    fn fill_hopeless(&self, state: &mut State) -> bool {
        loop {
            let at = lowest(&state.sky);
            let place = state.sky[at];
            let fits = self.choices.iter().zip(&state.left).any(|(choices, left)| {
                *left > 0 && choices.iter().any(|c| c.width <= place.width && place.y + c.height <= self.ceiling)
            });
            if fits {
                return true;
            }
            if !self.leave(state, at) {
                return false;
            }
        }
    }

    /// Raises the place to its lower wall; false when there is not enough to spare.
    fn leave(&self, state: &mut State, at: usize) -> bool {
        let place = state.sky[at];
        let (left, right) = walls(&state.sky, at, self.ceiling);
        let rise = left.min(right) - place.y;
        state.waste += i128::from(rise) * i128::from(place.width);
        if rise <= 0 || state.waste > self.spare {
            return false;
        }
        raise(&mut state.sky, at, place.x, place.width, place.y + rise);
        true
    }

    fn expand(&self, of: usize, state: &State, random: &mut Random, children: &mut Vec<Child>) {
        let at = lowest(&state.sky);
        let place = state.sky[at];
        let (wall_left, wall_right) = walls(&state.sky, at, self.ceiling);
        let steps = state.sky.len() as f64;
        let narrowest = self.narrowest(state);
        for (kind, choices) in self.choices.iter().enumerate().filter(|(kind, _)| state.left[*kind] > 0) {
            for (choice, c) in choices.iter().enumerate() {
                let top = place.y + c.height;
                if c.width > place.width || top > self.ceiling {
                    continue;
                }
                let beside = place.width - c.width;
                let at_right = wall_right > wall_left;
                let (near, far) = if at_right { (wall_right, wall_left) } else { (wall_left, wall_right) };
                let level_near = top == near;
                let level_far = beside == 0 && top == far;
                // One step more where the piece ends inside the place; one less for each neighbour it is level with.
                let steps = steps + if beside > 0 { 1.0 } else { 0.0 }
                    - f64::from(u8::from(level_near))
                    - f64::from(u8::from(level_far));
                // What is left beside it is lost if nothing is so narrow.
                let lost = if beside > 0 && beside < narrowest { beside * (far.min(top) - place.y).max(0) } else { 0 };
                let waste = state.waste + i128::from(lost);
                if waste > self.spare {
                    continue;
                }
                let noise = random.below(1 << 16) as f64 / f64::from(1 << 16);
                let small = -(c.width as f64 * c.height as f64) / self.mean * 0.05;
                let key = waste as f64 / self.mean + self.roughness * (steps + 0.5 * noise) + small;
                children.push(Child { of, kind, choice, at_right, key });
            }
        }
    }

    fn narrowest(&self, state: &State) -> i64 {
        let left = self.choices.iter().zip(&state.left).filter(|(_, left)| **left > 0);
        left.flat_map(|(c, _)| c.iter().map(|c| c.width)).min().unwrap_or(0)
    }

    fn placed(&self, state: &State, child: &Child, tree: &mut Vec<(usize, Laid)>) -> State {
        let mut next = state.clone();
        let at = lowest(&next.sky);
        let place = next.sky[at];
        let c = self.choices[child.kind][child.choice];
        let x = if child.at_right { place.x + place.width - c.width } else { place.x };
        tree.push((state.last, Laid { kind: child.kind, choice: child.choice, x, y: place.y }));
        next.last = tree.len() - 1;
        next.left[child.kind] -= 1;
        next.used = next.used.wrapping_add(self.marks[child.kind]);
        raise(&mut next.sky, at, x, c.width, place.y + c.height);
        next
    }
}

fn lowest(sky: &[Segment]) -> usize {
    let mut best = 0;
    for (i, s) in sky.iter().enumerate() {
        if s.y < sky[best].y {
            best = i;
        }
    }
    best
}

fn walls(sky: &[Segment], at: usize, ceiling: i64) -> (i64, i64) {
    let left = if at == 0 { ceiling } else { sky[at - 1].y };
    (left, sky.get(at + 1).map_or(ceiling, |s| s.y))
}

fn raise(sky: &mut Vec<Segment>, at: usize, x: i64, width: i64, y: i64) {
    let old = sky[at];
    let (before, after) = (x - old.x, old.x + old.width - (x + width));
    let mut at = at;
    sky[at] = Segment { x, y, width };
    if after > 0 {
        sky.insert(at + 1, Segment { x: x + width, y: old.y, width: after });
    }
    if before > 0 {
        sky.insert(at, Segment { x: old.x, y: old.y, width: before });
        at += 1;
    }
    if sky.get(at + 1).is_some_and(|s| s.y == y) {
        sky[at].width += sky[at + 1].width;
        sky.remove(at + 1);
    }
    if at > 0 && sky[at - 1].y == y {
        sky[at - 1].width += sky[at].width;
        sky.remove(at);
    }
}

fn hash(sky: &[Segment]) -> u64 {
    sky.iter().fold(0xCBF2_9CE4_8422_2325, |h, s| {
        let h = (h ^ s.y as u64).wrapping_mul(0x0000_0100_0000_01B3);
        (h ^ s.width as u64).wrapping_mul(0x0000_0100_0000_01B3).rotate_left(23)
    })
}
