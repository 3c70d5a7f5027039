//! The project's own benchmark jobs: random dissections whose best length is known, and bag-like rectangles.

use bofta_core::cloth::Cloth;
use bofta_core::lay::{Job, JobPiece, Random, Rules};
use bofta_core::measure::{Length, System};
use bofta_core::piece::{Grain, Mirror, PrintRule};
use bofta_core::shape::Outline;

/// A job of rectangles, in eighths of an inch, free to turn, on one plain roll sold in any length.
pub fn rectangles(width: i64, sides: &[(i64, i64)]) -> Job {
    let eighths = |n| Length::inches(n, 8);
    let piece = |(i, &(w, h)): (usize, &(i64, i64))| JobPiece {
        id: format!("p{i}"),
        name: format!("p{i}"),
        count: 1,
        outline: Outline::Rect(eighths(w), eighths(h)),
        grain: Grain::Either,
        print: PrintRule::Ignore,
        mirror: Mirror::No,
        cloths: vec!["roll".into()],
    };
    Job {
        name: "bench".into(),
        units: System::Inches,
        pieces: sides.iter().enumerate().map(piece).collect(),
        cloths: vec![Cloth::roll("roll", eighths(width))],
        rules: Rules::default(),
    }
}

/// `n` rectangles of the sizes bags are made of, 2 to 20 in a side.
pub fn bag_like(n: usize, seed: u64) -> Job {
    let mut random = Random::new(seed);
    let mut side = || 16 + random.below(144) as i64;
    let sides: Vec<(i64, i64)> = (0..n).map(|_| (side(), side())).collect();
    rectangles(54 * 8, &sides)
}

/// A rectangle cut at random into `n` pieces by lines from edge to edge, largest parts first as a rule; its length in
/// eighths of an inch is the best (the method of Hopper and Turton 2001).
pub fn dissection(n: usize, random: &mut Random) -> (Job, i64) {
    let (width, height) = (8 * (40 + random.below(20) as i64), 8 * (20 + random.below(40) as i64));
    let mut parts = vec![(width, height)];
    while parts.len() < n {
        let best = (0..3).map(|_| random.below(parts.len())).max_by_key(|&i| parts[i].0 * parts[i].1).unwrap_or(0);
        let (w, h) = parts[best];
        let side = w.max(h);
        if side < 8 {
            continue;
        }
        let at = side / 4 + random.below((side / 2) as usize) as i64;
        let (a, b) = if w >= h { ((at, h), (w - at, h)) } else { ((w, at), (w, h - at)) };
        parts[best] = a;
        parts.push(b);
    }
    random.shuffle(&mut parts);
    (rectangles(width, &parts), height)
}
