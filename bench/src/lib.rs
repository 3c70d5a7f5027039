//! The project's own benchmark jobs: the random ones the core is tested on, and bag-like rectangles.

#[path = "../../crates/core/tests/support/mod.rs"]
mod support;

use bofta_core::lay::{Job, Random};
use bofta_core::measure::Length;
use bofta_core::shape::{Outline, Point};

/// `n` rectangles of the sizes bags are made of, 2 to 20 in a side, free to turn, on a 54 in roll.
pub fn bag_like(n: usize, seed: u64) -> Job {
    let mut random = Random::new(seed);
    let mut side = || Length::inches(16 + random.below(144) as i64, 8);
    let pieces = (0..n).map(|i| support::piece(format!("p{i}"), side(), side(), 1)).collect();
    support::job(Length::INCH * 54, pieces)
}

/// `n` shapes of the sizes bags are made of, notched panels, circles and trapezoids, free to turn, on a 54 in roll.
pub fn shaped_like(n: usize, seed: u64) -> Job {
    let mut random = Random::new(seed);
    let inch = |n: i64| Length::INCH * n;
    let pieces = (0..n)
        .map(|i| {
            let (w, h) = (inch(5 + random.below(10) as i64), inch(5 + random.below(8) as i64));
            let outline = match i % 3 {
                0 => Outline::notched(w, h, w / 5, h / 5),
                1 => Outline::Circle(w),
                _ => Outline::Polygon(vec![
                    Point::new(Length::ZERO, Length::ZERO),
                    Point::new(w, Length::ZERO),
                    Point::new(w * 4 / 5, h),
                    Point::new(w / 5, h),
                ]),
            };
            support::shaped(format!("s{i}"), outline, 1)
        })
        .collect();
    support::job(inch(54), pieces)
}

/// A random dissection into `n` pieces and its best length, known by construction.
pub fn dissection(n: usize, random: &mut Random) -> (Job, Length) {
    let (width, height) = (8 * (40 + random.below(20) as i64), 8 * (20 + random.below(40) as i64));
    (support::dissection(width, height, n, random), Length::inches(height, 8))
}
