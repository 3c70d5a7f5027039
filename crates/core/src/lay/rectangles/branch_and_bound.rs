//! A deep search for a lay within a given length: fill a place between two walls with each piece that fits, or leave
//! it, and give up a branch as soon as it is bound to waste more than there is to spare.
//!
//! Finds perfect dissections and the best lay of a few large pieces, where a constructor falls short. It always works
//! at the narrowest place, which has the fewest ways to be filled, tries pieces that meet its walls first, and knows
//! what a place is bound to waste from the sums the remaining pieces can reach. It is run with a limit on nodes, a
//! random order of trying and the rectangle on either side, over and over.
//!
//! Asked to try everything, it proves: when it then comes to an end within the limit there is no such lay. For if a lay
//! goes on from the pieces laid so far, then one does in which every further piece is pushed down and to the left. In
//! that one either a piece stands in the left corner of a place; or none stands on its floor at all; or the leftmost on
//! the floor, P, is held off the wall by a piece Q beside it that does not stand on the floor. All three are tried.
//!
//! Of the third: below Q there is a chain of pieces, each resting on the next. None of them reaches over P's left edge:
//! it would lie on P or under it, but it begins lower than P's top, and under P is the floor. None stands on the floor,
//! since P is the leftmost there. So the chain ends in a piece that reaches over the left wall: it rests on the wall or
//! on something higher, and everything in the chain begins no lower than the wall's top. The same holds for any piece
//! over the bare floor between the wall and P. Hence that floor is bare up to the wall's top; P is taller than the wall,
//! as Q is beside it; and P begins at a sum of widths, as does Q, which ends there. Q need not be wider than the bare
//! floor: it may rest on one that is.

use super::strip::{Choice, Laid, MOST_STEPS, Strip, common_divisor};
use crate::lay::random::Random;
use crate::lay::reach::Reach;
use crate::lay::stop::Stop;

pub(super) struct BranchAndBound {
    /// Ways each kind may lie, as the rectangle lies.
    choices: Vec<Vec<Choice>>,
    /// Tops may not pass this.
    ceiling: i64,
    nodes: u64,
    spare: i128,
    left: Vec<usize>,
    /// Kinds in the order they are tried.
    order: Vec<usize>,
    /// Top of the skyline as (x, y); the last entry closes it at the strip's width.
    skyline: Vec<(i64, i64)>,
    lay: Vec<Laid>,
    remaining: usize,
    /// Common divisor of all widths and heights; 0 where the sums would be too many.
    step: i64,
    reach: Reach,
    /// Where pieces pushed to the left can begin, if everything is to be tried.
    starts: Vec<i64>,
    /// The next piece stands here, as (x, y), and reaches higher than this: it is the one that is held off.
    stands: Option<(i64, i64, i64)>,
    stop: Stop,
}

/// Nodes after which it looks whether it is stopped.
const LOOKED_AFTER: u64 = 256;

/// Whether the search may claim that there is no lay.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Claim {
    /// Everything is tried, which takes longer.
    Proof,
    /// Only what is likely.
    Nothing,
}

/// Nodes spent on the question whether a rectangle holds a few boxes.
const FEW_NODES: u64 = 4_000;

/// Whether no lay of all of `strip` is as short as `length`, and how many places were tried to tell; nothing when it holds
/// them or that cannot be told.
pub(in crate::lay) fn cannot_hold(strip: &Strip, length: i64) -> Option<u64> {
    // Each way round the rectangle is another search.
    (1..=2).find_map(|seed| {
        match BranchAndBound::find(strip, length, FEW_NODES, Claim::Proof, &mut Random::new(seed)) {
            Outcome::Impossible { places } => Some(places),
            Outcome::Found(_) | Outcome::GaveUp => None,
        }
    })
}

/// What became of a deep search.
pub(super) enum Outcome {
    Found(Vec<Laid>),
    /// Everything was tried, so many places: there is none.
    Impossible {
        places: u64,
    },
    GaveUp,
}

/// A level stretch of the skyline between two walls.
struct Place {
    at: usize,
    x: i64,
    y: i64,
    width: i64,
    /// How far the walls rise, at most to the ceiling.
    rise_left: i64,
    rise_right: i64,
}

impl BranchAndBound {
    /// Looks for a lay of all of `strip` no longer than `length`, visiting at most `nodes` places.
    pub(super) fn find(strip: &Strip, length: i64, nodes: u64, claim: Claim, random: &mut Random) -> Outcome {
        let step = common_step(strip);
        // Every top is a sum of heights: between two sums there is nothing to gain.
        let ceiling = (length + strip.gap) / step * step;
        let spare = i128::from(strip.width) * i128::from(ceiling) - strip.area();
        if spare < 0 || ceiling <= 0 {
            return Outcome::GaveUp; // nothing was tried: that is for the bounds to say
        }
        // On its side the same rectangle is another search: what is hopeless one way may be quick the other.
        let on_side = random.below(2) == 0;
        let (width, ceiling) = if on_side { (ceiling, strip.width) } else { (strip.width, ceiling) };
        let lie = |c: &Choice| if on_side { Choice { width: c.height, height: c.width, ..*c } } else { *c };
        let mut search = BranchAndBound {
            choices: strip.kinds.iter().map(|k| k.choices.iter().map(lie).collect()).collect(),
            ceiling,
            nodes,
            spare,
            left: strip.kinds.iter().map(|k| k.count).collect(),
            order: order_of_trying(strip, random),
            skyline: vec![(0, 0), (width, i64::MAX)],
            lay: Vec::with_capacity(strip.pieces()),
            remaining: strip.pieces(),
            step: if width.max(ceiling) / step > MOST_STEPS { 0 } else { step },
            reach: Reach::default(),
            starts: vec![],
            stands: None,
            stop: strip.stop.clone(),
        };
        let proof = claim == Claim::Proof && search.step > 0;
        if proof {
            let (sums, _) = search.reachable(width, |c| (c.width, c.height));
            search.starts = (1..width / step).map(|n| n * step).filter(|&x| sums.largest(x, step) == x).collect();
        }
        if !search.fill() {
            let places = nodes - search.nodes;
            return if search.nodes == 0 || !proof { Outcome::GaveUp } else { Outcome::Impossible { places } };
        }
        if on_side {
            for laid in &mut search.lay {
                std::mem::swap(&mut laid.x, &mut laid.y);
            }
        }
        Outcome::Found(search.lay)
    }

    fn fill(&mut self) -> bool {
        if self.remaining == 0 {
            return true;
        }
        if self.nodes == 0 {
            return false;
        }
        self.nodes -= 1;
        if self.nodes.is_multiple_of(LOOKED_AFTER) && self.stop.asked() {
            self.nodes = 0;
            return false;
        }
        if self.hopeless() {
            return false;
        }
        let stands = self.stands.take();
        let here = |p: &Place| stands.is_none_or(|(x, y, _)| (p.x, p.y) == (x, y));
        let Some(place) = self.places().filter(here).min_by_key(|p| p.width) else { return false };
        let higher = stands.map_or(i64::MIN, |(.., top)| top);
        for meets in 0..4 {
            for i in 0..self.order.len() {
                let kind = self.order[i];
                if self.left[kind] == 0 {
                    continue;
                }
                for choice in 0..self.choices[kind].len() {
                    let c = self.choices[kind][choice];
                    let top = place.y + c.height;
                    if c.width > place.width || top > self.ceiling || top <= higher || place.meets(c) != meets {
                        continue;
                    }
                    self.left[kind] -= 1;
                    self.remaining -= 1;
                    self.lay.push(Laid { kind, choice, x: place.x, y: place.y });
                    if self.raised(place.at, c.width, place.y + c.height) {
                        return true;
                    }
                    self.lay.pop();
                    self.remaining += 1;
                    self.left[kind] += 1;
                    if self.nodes == 0 {
                        return false;
                    }
                }
            }
        }
        if stands.is_some() {
            return false;
        }
        if self.held_off(&place) {
            return true;
        }
        // Leave the place as it is, up to its lower wall.
        let rise = place.rise_left.min(place.rise_right);
        let wasted = i128::from(rise) * i128::from(place.width);
        if rise <= 0 || wasted > self.spare {
            return false;
        }
        self.spare -= wasted;
        if self.raised(place.at, place.width, place.y + rise) {
            return true;
        }
        self.spare += wasted;
        false
    }

    /// Tries what stands on the floor away from the left wall, held off by a piece that rests on that wall.
    fn held_off(&mut self, place: &Place) -> bool {
        if self.starts.is_empty() || place.at == 0 || place.rise_left <= 0 {
            return false;
        }
        let wall = place.rise_left;
        let from = self.starts.partition_point(|x| *x <= place.x);
        let to = self.starts.partition_point(|x| *x < place.x + place.width);
        for i in from..to {
            let bare = self.starts[i] - place.x;
            let wasted = i128::from(bare) * i128::from(wall);
            if wasted > self.spare || self.nodes == 0 {
                return false;
            }
            // One that ends here above the wall's top, one that stands beside it and is taller than the wall.
            let some = |of: &dyn Fn(&Choice) -> bool| -> usize {
                let left = self.choices.iter().zip(&self.left);
                left.filter(|(choices, _)| choices.iter().any(of)).map(|(_, left)| *left).sum()
            };
            let starts = |x: i64| x == 0 || self.starts.binary_search(&x).is_ok();
            let ends_here = |c: &Choice| starts(self.starts[i] - c.width);
            let over = some(&|c| ends_here(c) && place.y + wall + c.height <= self.ceiling);
            let beside =
                some(&|c| c.width <= place.width - bare && c.height > wall && place.y + c.height <= self.ceiling);
            if over == 0 || beside == 0 || self.remaining < 2 {
                continue;
            }
            self.spare -= wasted;
            self.stands = Some((self.starts[i], place.y, place.y + wall));
            if self.raised(place.at, bare, place.y + wall) {
                return true;
            }
            self.stands = None;
            self.spare += wasted;
        }
        false
    }

    /// The places between two higher walls.
    fn places(&self) -> impl Iterator<Item = Place> + '_ {
        let lower_than_next = |i: usize| self.skyline[i].1 < self.skyline[i + 1].1;
        (0..self.skyline.len() - 1).filter(move |&i| lower_than_next(i) && (i == 0 || !lower_than_next(i - 1))).map(
            |at| {
                let (x, y) = self.skyline[at];
                let wall = |top: i64| top.min(self.ceiling) - y;
                Place {
                    at,
                    x,
                    y,
                    width: self.skyline[at + 1].0 - x,
                    rise_left: wall(if at == 0 { i64::MAX } else { self.skyline[at - 1].1 }),
                    rise_right: wall(self.skyline[at + 1].1),
                }
            },
        )
    }

    /// Whether more must be wasted, in the places there are or above any stretch of the skyline, than there is to
    /// spare.
    fn hopeless(&mut self) -> bool {
        if self.step == 0 {
            return false;
        }
        let step = self.step;
        let widest = self.places().map(|p| p.width).max().unwrap_or(0);
        let (covered, lowest) = self.reachable(widest, |c| (c.width, c.height));
        let wasted: i128 = self
            .places()
            .map(|p| {
                let bare = p.width - covered.largest(p.width, step);
                i128::from(bare) * i128::from(p.rise_left.min(p.rise_right).min(lowest))
            })
            .sum();
        self.reach = covered;
        if wasted > self.spare {
            return true;
        }
        // Above a stretch some column holds pieces whose heights add up to at most what they can reach; a step's width
        // is wasted otherwise. Only worth asking when nearly nothing is to spare.
        if self.spare >= i128::from(step) * i128::from(step) {
            return false;
        }
        let stretches = &self.skyline[..self.skyline.len() - 1];
        let lowest = stretches.iter().map(|s| s.1).min().unwrap_or(0);
        let (covered, _) = self.reachable(self.ceiling - lowest, |c| (c.height, c.width));
        let fails = self.skyline[..self.skyline.len() - 1].iter().any(|s| {
            let room = (self.ceiling - s.1) / step * step;
            covered.largest(room, step) != room
        });
        self.reach = covered;
        fails
    }

    /// The sums up to `limit` of one measure of the remaining pieces, and the least of the other measure among those
    /// that can take part. `measures` gives (the one summed, the other).
    fn reachable(&mut self, limit: i64, measures: impl Fn(Choice) -> (i64, i64)) -> (Reach, i64) {
        let mut reach = std::mem::take(&mut self.reach);
        reach.start((limit / self.step) as usize);
        let mut least = i64::MAX;
        for (kind, &left) in self.left.iter().enumerate().filter(|(_, left)| **left > 0) {
            let mut sizes = [0; 4];
            let mut n = 0;
            let mut smallest = limit;
            for &c in &self.choices[kind] {
                let (size, other) = measures(c);
                if size <= limit && n < sizes.len() {
                    sizes[n] = (size / self.step) as usize;
                    n += 1;
                    smallest = smallest.min(size);
                    least = least.min(other);
                }
            }
            let useful = if n == 0 { 0 } else { left.min((limit / smallest) as usize) };
            for _ in 0..useful {
                reach.add(&sizes[..n]);
            }
        }
        (reach, least)
    }

    /// Searches on with the skyline at `y` over `width` from the left of segment `at`, and puts it back.
    fn raised(&mut self, at: usize, width: i64, y: i64) -> bool {
        let (x, old) = self.skyline[at];
        let (end, next) = self.skyline[at + 1];
        self.skyline[at].1 = y;
        let split = x + width < end;
        let joined_next = !split && next == y;
        if split {
            self.skyline.insert(at + 1, (x + width, old));
        } else if joined_next {
            self.skyline.remove(at + 1);
        }
        let joined_last = at > 0 && self.skyline[at - 1].1 == y;
        if joined_last {
            self.skyline.remove(at);
        }
        if self.fill() {
            return true;
        }
        if joined_last {
            self.skyline.insert(at, (x, y));
        }
        if split {
            self.skyline.remove(at + 1);
        }
        if joined_next {
            self.skyline.insert(at + 1, (end, next));
        }
        self.skyline[at].1 = old;
        false
    }
}

impl Place {
    /// How well `c` meets the walls, 0 best: it reaches from wall to wall, it is level with one, neither.
    fn meets(&self, c: Choice) -> u8 {
        let fills = c.width == self.width;
        let level = c.height == self.rise_left || (fills && c.height == self.rise_right);
        match (fills, level) {
            (true, true) => 0,
            (true, false) => 1,
            (false, true) => 2,
            (false, false) => 3,
        }
    }
}

/// Large kinds first, a little out of order; now and then any order.
fn order_of_trying(strip: &Strip, random: &mut Random) -> Vec<usize> {
    let mut order: Vec<usize> = (0..strip.kinds.len()).collect();
    random.shuffle(&mut order);
    if random.below(6) > 0 {
        let by_area = random.below(2) == 0;
        let size = |k: usize| {
            let c = strip.kinds[k].choices.first()?;
            Some(if by_area { i128::from(c.width) * i128::from(c.height) } else { i128::from(c.width.max(c.height)) })
        };
        order.sort_by_key(|&k| std::cmp::Reverse(size(k)));
        for i in 0..order.len() {
            let j = (i + random.below(8)).min(order.len() - 1);
            order.swap(i, j);
        }
    }
    order
}

/// The largest step that all sizes are multiples of.
fn common_step(strip: &Strip) -> i64 {
    let sizes = strip.kinds.iter().flat_map(|k| &k.choices).flat_map(|c| [c.width, c.height]);
    sizes.fold(0, common_divisor).max(1)
}
