//! A constructor whose lays can be cut edge to edge: strips right across the width, each strip cross-cut into stacks.
//!
//! The way a ruler maker cuts: strip first, then cross-cut (common practice). Two- and three-stage shelf packing, as
//! in Lodi, Martello and Vigo 2002; the order of pieces and how each lies are given, so a search can vary them.

use super::strip::{Laid, Strip};

struct Shelf {
    y: i64,
    height: i64,
    used: i64,
    stacks: Vec<Stack>,
}

struct Stack {
    x: i64,
    width: i64,
    used: i64,
}

/// Lays `order` (kind, choice), one entry a piece, each where the least is left over beside or above it; nothing when it
/// was stopped.
pub(super) fn fill(strip: &Strip, order: &[(usize, usize)]) -> Option<Vec<Laid>> {
    let mut shelves: Vec<Shelf> = Vec::new();
    let mut lay = Vec::with_capacity(order.len());
    let mut top = 0;
    for &(kind, preferred) in order {
        if strip.stop.asked() {
            return None;
        }
        let choices = &strip.kinds[kind].choices;
        // (left over, shelf, stack or none for a new one, choice)
        let mut best: Option<(i64, usize, Option<usize>, usize)> = None;
        for turn in 0..choices.len() {
            let choice = (preferred + turn) % choices.len();
            let c = choices[choice];
            for (s, shelf) in shelves.iter().enumerate() {
                if c.height > shelf.height {
                    continue;
                }
                for (t, stack) in shelf.stacks.iter().enumerate() {
                    if c.width <= stack.width && stack.used + c.height <= shelf.height {
                        let over = (stack.width - c.width) * 2;
                        if best.is_none_or(|(b, ..)| over < b) {
                            best = Some((over, s, Some(t), choice));
                        }
                    }
                }
                if shelf.used + c.width <= strip.width {
                    let over = (shelf.height - c.height) * 2 + 1;
                    if best.is_none_or(|(b, ..)| over < b) {
                        best = Some((over, s, None, choice));
                    }
                }
            }
        }
        let (s, t, choice) = match best {
            Some((_, s, Some(t), choice)) => (s, t, choice),
            Some((_, s, None, choice)) => {
                let width = choices[choice].width;
                let shelf = &mut shelves[s];
                shelf.stacks.push(Stack { x: shelf.used, width, used: 0 });
                shelf.used += width;
                (s, shelf.stacks.len() - 1, choice)
            }
            None => {
                let c = choices[preferred];
                shelves.push(Shelf {
                    y: top,
                    height: c.height,
                    used: c.width,
                    stacks: vec![Stack { x: 0, width: c.width, used: 0 }],
                });
                top += c.height;
                (shelves.len() - 1, 0, preferred)
            }
        };
        let shelf = &mut shelves[s];
        let stack = &mut shelf.stacks[t];
        lay.push(Laid { kind, choice, x: stack.x, y: shelf.y + stack.used });
        stack.used += choices[choice].height;
    }
    Some(lay)
}
