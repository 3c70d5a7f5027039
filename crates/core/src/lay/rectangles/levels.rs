//! Lays that can be cut edge to edge, strip first: a beam search over levels right across the width, each taken apart
//! by cuts of its own.
//!
//! A level is as high as its first piece; the rest of it is filled by cutting what is left in two, again and again,
//! along or across first (guillotine stages as in Lodi, Martello and Vigo 2002; beam over levels after Hifi and
//! M'Hallah 2009). Each fill is drawn with a little chance, so that runs differ; the best lays go on side by side.

use super::strip::{Laid, Strip};
use crate::lay::random::Random;

/// Different fills tried of a level.
const FILLS: usize = 3;
/// Different heights of level tried at a time.
const HEIGHTS: usize = 8;

#[derive(Clone)]
struct State {
    left: Vec<u16>,
    remaining: usize,
    top: i64,
    /// Area still to be laid.
    area: i128,
    /// How much chance decides of a fill.
    chance: f64,
    lay: Vec<Laid>,
}

/// A lay of all of `strip`, with `width` lays side by side.
pub(super) fn find(strip: &Strip, width: usize, random: &mut Random) -> Vec<Laid> {
    let mut states = vec![State {
        left: strip.kinds.iter().map(|k| k.count as u16).collect(),
        remaining: strip.pieces(),
        top: 0,
        area: strip.area(),
        chance: [0.02, 0.12, 0.4, 1.0][random.below(4)],
        lay: Vec::with_capacity(strip.pieces()),
    }];
    let mut best: Option<State> = None;
    // How much waste is to be expected of what is still to come.
    let expected = 1.02 + 0.03 * random.below(4) as f64;
    let key = |s: &State| s.top as f64 + expected * s.area as f64 / strip.width as f64;
    while !states.is_empty() && !strip.stop.asked() {
        let mut next: Vec<State> = Vec::new();
        for state in &states {
            for (kind, choice) in first_pieces(strip, state, random) {
                let mut tightest: Option<State> = None;
                for _ in 0..FILLS {
                    let filled = with_level(strip, state, kind, choice, random);
                    if tightest.as_ref().is_none_or(|t| filled.area < t.area) {
                        tightest = Some(filled);
                    }
                }
                next.extend(tightest);
            }
        }
        next.sort_by(|a, b| key(a).total_cmp(&key(b)));
        next.dedup_by(|a, b| a.top == b.top && a.left == b.left);
        next.truncate(width);
        states.clear();
        for state in next {
            if state.remaining > 0 {
                if best.as_ref().is_none_or(|b| state.top < b.top) {
                    states.push(state);
                }
            } else if best.as_ref().is_none_or(|b| state.top < b.top) {
                best = Some(state);
            }
        }
    }
    best.map_or_else(Vec::new, |b| b.lay)
}

/// Pieces a new level may begin with: of the heights there are, some of the larger, drawn by chance.
fn first_pieces(strip: &Strip, state: &State, random: &mut Random) -> Vec<(usize, usize)> {
    let mut all: Vec<(i64, usize, usize)> = Vec::new();
    for (kind, _) in state.left.iter().enumerate().filter(|(_, left)| **left > 0) {
        for (choice, c) in strip.kinds[kind].choices.iter().enumerate().filter(|(_, c)| c.width <= strip.width) {
            all.push((c.height, kind, choice));
        }
    }
    all.sort_unstable_by_key(|(h, ..)| std::cmp::Reverse(*h));
    all.dedup_by_key(|(h, ..)| *h);
    while all.len() > HEIGHTS {
        // The tallest stay longest.
        let at = all.len() - 1 - random.below(all.len()).min(random.below(all.len()));
        all.remove(at);
    }
    all.into_iter().map(|(_, kind, choice)| (kind, choice)).collect()
}

fn with_level(strip: &Strip, state: &State, kind: usize, choice: usize, random: &mut Random) -> State {
    let mut next = state.clone();
    let c = strip.kinds[kind].choices[choice];
    let y = next.top;
    next.placement(strip, Laid { kind, choice, x: 0, y });
    next.top += c.height;
    next.fill(strip, [c.width, y, strip.width - c.width, c.height], random);
    next
}

impl State {
    fn placement(&mut self, strip: &Strip, laid: Laid) {
        self.left[laid.kind] -= 1;
        self.remaining -= 1;
        let least = strip.kinds[laid.kind].choices.iter().map(|c| i128::from(c.width) * i128::from(c.height)).min();
        self.area -= least.unwrap_or(0);
        self.lay.push(laid);
    }

    /// Fills the rectangle `[x, y, width, height]` as best it can.
    fn fill(&mut self, strip: &Strip, [x, y, width, height]: [i64; 4], random: &mut Random) {
        let mut best: Option<(f64, usize, usize)> = None;
        for (kind, _) in self.left.iter().enumerate().filter(|(_, left)| **left > 0) {
            for (choice, c) in strip.kinds[kind].choices.iter().enumerate() {
                if c.width > width || c.height > height {
                    continue;
                }
                let (fills_w, fills_h) = (c.width as f64 / width as f64, c.height as f64 / height as f64);
                // Reaching from edge to edge one way leaves no crumb on that side.
                let whole = f64::from(u8::from(c.width == width)) + f64::from(u8::from(c.height == height));
                let noise = random.below(1000) as f64 / 1000.0;
                let score = fills_w.max(fills_h) + 0.6 * fills_w * fills_h + 0.5 * whole + self.chance * noise;
                if best.is_none_or(|(b, ..)| score > b) {
                    best = Some((score, kind, choice));
                }
            }
        }
        let Some((_, kind, choice)) = best else { return };
        let c = strip.kinds[kind].choices[choice];
        self.placement(strip, Laid { kind, choice, x, y });
        let (beside, above) = (width - c.width, height - c.height);
        let largest_along = (i128::from(beside) * i128::from(height)).max(i128::from(c.width) * i128::from(above));
        let largest_across = (i128::from(width) * i128::from(above)).max(i128::from(beside) * i128::from(c.height));
        let along = if random.below(6) == 0 { random.below(2) == 0 } else { largest_along >= largest_across };
        let (right, over) = if along {
            ([x + c.width, y, beside, height], [x, y + c.height, c.width, above])
        } else {
            ([x + c.width, y, beside, c.height], [x, y + c.height, width, above])
        };
        for part in [right, over] {
            if part[2] > 0 && part[3] > 0 {
                self.fill(strip, part, random);
            }
        }
    }
}
