//! The project's own benchmark jobs: the random ones the core is tested on, and bag-like rectangles.

#[path = "../../crates/core/tests/support/mod.rs"]
mod support;

use bofta_core::lay::{Job, Random};
use bofta_core::measure::Length;

/// `n` rectangles of the sizes bags are made of, 2 to 20 in a side, free to turn, on a 54 in roll.
pub fn bag_like(n: usize, seed: u64) -> Job {
    let mut random = Random::new(seed);
    let mut side = || Length::inches(16 + random.below(144) as i64, 8);
    let pieces = (0..n).map(|i| support::piece(format!("p{i}"), side(), side(), 1)).collect();
    support::job(Length::INCH * 54, pieces)
}

/// A random dissection into `n` pieces and its best length, known by construction.
pub fn dissection(n: usize, random: &mut Random) -> (Job, Length) {
    let (width, height) = (8 * (40 + random.below(20) as i64), 8 * (20 + random.below(40) as i64));
    (support::dissection(width, height, n, random), Length::inches(height, 8))
}
