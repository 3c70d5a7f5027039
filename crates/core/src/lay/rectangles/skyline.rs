//! A constructor: always fill the lowest place, with the piece that fits its edges best.
//!
//! Skyline best-fit with a fitness for matching edges, after Burke, Kendall and Whitwell 2004 and Leung, Zhang and
//! Sim 2011. The order breaks ties, so a search over orders searches over lays.

use super::strip::{Laid, Strip};

#[derive(Clone, Copy, Debug)]
struct Segment {
    x: i64,
    y: i64,
    width: i64,
}

/// Working memory kept between runs, since a search makes hundreds of thousands.
#[derive(Default)]
pub(super) struct Skyline {
    segments: Vec<Segment>,
    left: Vec<usize>,
    pub lay: Vec<Laid>,
}

/// What a run came to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Filled {
    pub length: i64,
    /// Area under the skyline that no piece covers.
    pub waste: i128,
}

impl Skyline {
    /// Lays every piece of `strip`, ties going to kinds earlier in `order` (each kind once or more; what is missing
    /// is laid last). The lay is left in `self.lay`; nothing when it was stopped.
    pub(super) fn fill(&mut self, strip: &Strip, order: &[usize]) -> Option<Filled> {
        self.segments.clear();
        self.segments.push(Segment { x: 0, y: 0, width: strip.width });
        self.left.clear();
        self.left.extend(strip.kinds.iter().map(|k| k.count));
        self.lay.clear();
        let mut remaining = strip.pieces();
        let mut waste = 0_i128;
        while remaining > 0 {
            if strip.stop.asked() {
                return None;
            }
            let at = self.lowest();
            let here = self.segments[at];
            let rise_left = if at == 0 { i64::MAX } else { self.segments[at - 1].y - here.y };
            let rise_right = self.segments.get(at + 1).map_or(i64::MAX, |s| s.y - here.y);
            match self.best(strip, order, here.width, rise_left, rise_right) {
                Some((kind, choice)) => {
                    let c = strip.kinds[kind].choices[choice];
                    // Beside the taller neighbour, so that what is left of the place stays in one.
                    let at_left = rise_left >= rise_right;
                    let x = if at_left { here.x } else { here.x + here.width - c.width };
                    self.lay.push(Laid { kind, choice, x, y: here.y });
                    self.left[kind] -= 1;
                    remaining -= 1;
                    self.raise(at, x, c.width, here.y + c.height);
                }
                None => {
                    let up = rise_left.min(rise_right);
                    if up == i64::MAX {
                        break; // nothing fits an empty strip: `choices` were empty
                    }
                    waste += i128::from(up) * i128::from(here.width);
                    self.raise(at, here.x, here.width, here.y + up);
                }
            }
        }
        Some(Filled { length: strip.length(&self.lay), waste })
    }

    fn lowest(&self) -> usize {
        let mut best = 0;
        for (i, s) in self.segments.iter().enumerate() {
            if s.y < self.segments[best].y {
                best = i;
            }
        }
        best
    }

    fn best(
        &self,
        strip: &Strip,
        order: &[usize],
        gap: i64,
        rise_left: i64,
        rise_right: i64,
    ) -> Option<(usize, usize)> {
        let (near, far) = if rise_left >= rise_right { (rise_left, rise_right) } else { (rise_right, rise_left) };
        let mut best: Option<(u8, usize, usize)> = None;
        for &kind in order {
            if self.left[kind] == 0 {
                continue;
            }
            for (i, c) in strip.kinds[kind].choices.iter().enumerate() {
                if c.width > gap {
                    continue;
                }
                let fills = c.width == gap;
                let fitness = match (fills, c.height == near, c.height == far) {
                    (true, true, true) => 8,
                    (true, false, true) | (true, true, false) => 7,
                    (true, false, false) if c.height > far => 5,
                    (true, false, false) => 4,
                    (false, true, _) => 3,
                    (false, false, _) => 1,
                };
                if best.is_none_or(|(b, ..)| fitness > b) {
                    best = Some((fitness, kind, i));
                    if fitness == 8 {
                        return Some((kind, i));
                    }
                }
            }
        }
        best.map(|(_, kind, i)| (kind, i))
    }

    /// Sets the skyline to `y` over `width` from `x`, a stretch of segment `at`, and joins what is level.
    fn raise(&mut self, at: usize, x: i64, width: i64, y: i64) {
        let old = self.segments[at];
        let raised = Segment { x, y, width };
        let before = x - old.x;
        let after = old.x + old.width - (x + width);
        let mut at = at;
        if before > 0 {
            self.segments[at].width = before;
            at += 1;
            self.segments.insert(at, raised);
        } else {
            self.segments[at] = raised;
        }
        if after > 0 {
            self.segments.insert(at + 1, Segment { x: x + width, y: old.y, width: after });
        }
        if self.segments.get(at + 1).is_some_and(|s| s.y == y) {
            self.segments[at].width += self.segments[at + 1].width;
            self.segments.remove(at + 1);
        }
        if at > 0 && self.segments[at - 1].y == y {
            self.segments[at - 1].width += self.segments[at].width;
            self.segments.remove(at);
        }
    }
}
