//! Bounds on known strips: what they see, and that they never see too much.
#![allow(missing_docs)]

use crate::support::{job, piece, shaped};
use bofta_core::cloth::Cloth;
use bofta_core::lay::{Budget, Cuts, Job, JobPiece, Random, Silent, shortest_length, solve};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::Grain;
use bofta_core::shape::{Outline, Point};
use proptest::prelude::*;
use rstest::rstest;

fn inch(n: i64) -> Length {
    Length::INCH * n
}

/// Upright pieces (width, height, copies) on a strip; the bound in inches.
fn bound(width: i64, pieces: &[(i64, i64, u32)]) -> f64 {
    let made: Vec<JobPiece> = pieces
        .iter()
        .enumerate()
        .map(|(i, &(w, h, n))| JobPiece { grain: Grain::Length, ..piece(format!("p{i}"), inch(w), inch(h), n) })
        .collect();
    let pairs: Vec<(&JobPiece, u32)> = made.iter().map(|p| (p, p.count)).collect();
    shortest_length(&Cloth::roll("roll", inch(width)), &pairs, Length::ZERO).in_units(System::Inches)
}

#[rstest]
#[case::area(10, &[(5, 4, 4)], 8.0)]
#[case::tallest(10, &[(2, 9, 1), (2, 2, 1)], 9.0)]
#[case::wider_than_half(10, &[(6, 3, 3)], 9.0)]
#[case::exactly_half(10, &[(5, 3, 4)], 6.0)]
#[case::wide_with_small_beside(10, &[(6, 3, 2), (4, 3, 2)], 6.0)]
#[case::wide_and_too_wide_beside(10, &[(6, 3, 2), (5, 3, 2)], 9.0)]
#[case::thirds(9, &[(3, 2, 6)], 4.0)]
#[case::a_sum_of_heights(10, &[(4, 6, 3)], 12.0)]
#[case::a_sum_of_widths(11, &[(4, 3, 4)], 6.0)]
#[case::patches(44, &[(5, 5, 9)], 10.0)]
fn known_strips_have_known_bounds(#[case] width: i64, #[case] pieces: &[(i64, i64, u32)], #[case] inches: f64) {
    let found = bound(width, pieces);
    assert!((found - inches).abs() < 1e-6, "{found}");
}

#[test]
fn a_piece_that_may_turn_counts_with_the_lesser_side() {
    let free = piece("p", inch(4), inch(9), 1);
    let on = |width| shortest_length(&Cloth::roll("roll", inch(width)), &[(&free, 1)], Length::ZERO);
    assert_eq!((on(10), on(8)), (inch(4), inch(9)));
}

#[test]
fn a_gap_is_part_of_the_bound_but_not_after_the_last_piece() {
    let upright = JobPiece { grain: Grain::Length, ..piece("p", inch(10), inch(5), 3) };
    let cloth = Cloth::roll("roll", inch(10));
    assert_eq!(shortest_length(&cloth, &[(&upright, 3)], inch(1)), inch(17));
}

/// The steps of the shop decide what is proven: the same lay can be the least purchase in one and not in another.
#[test]
fn proof_goes_by_the_shops_steps() {
    // Five squares of 2 on a strip of 5 take 6 in; by area 4 in might do.
    let mut five = job(inch(5), vec![piece("p", inch(2), inch(2), 5)]);
    for (step, bought) in [(6, 6), (9, 9)] {
        five.cloths[0].shop = ShopStep { step: Some(inch(step)), min: Length::ZERO };
        let lay = solve(&five, Budget::iterations(100), &mut Silent).expect("laid");
        assert_eq!(lay.bought(), inch(bought));
        assert!(lay.proven, "no purchase below the first step");
    }
}

#[test]
fn the_cost_of_the_bound_is_never_above_the_cost() {
    let mut one = job(inch(30), vec![piece("a", inch(17), inch(11), 3), piece("b", inch(9), inch(6), 4)]);
    one.cloths[0].shop = ShopStep::default_for(System::Inches);
    one.cloths[0].price = Some(bofta_core::cloth::Price { amount: bofta_core::cloth::Money(1_234), per: Length::YARD });
    let lay = solve(&one, Budget::iterations(300), &mut Silent).expect("laid");
    assert!(lay.bound.cost <= lay.cost && lay.bound.length <= lay.bought());
    assert_eq!(lay.proven, lay.bound.length == lay.bought());
}

/// Sold by nine inches.
fn by_nines(mut job: Job) -> Job {
    job.cloths[0].shop = ShopStep { step: Some(inch(9)), min: Length::ZERO };
    job
}

/// Two boxed panels 18 in wide on cloth of 30: no line across holds both bodies, so there are 26 in of lines at least,
/// where their area would do with 18.
#[test]
fn slices_of_notched_panels_do_not_fit_beside_each_other() {
    let panel = shaped("panel", Outline::notched(inch(18), inch(16), inch(3), inch(3)), 2);
    let two = by_nines(job(inch(30), vec![JobPiece { grain: Grain::Length, ..panel }]));
    let lay = solve(&two, Budget::iterations(400), &mut Silent).expect("laid");
    assert_eq!(lay.bound.length, inch(27));
}

/// On folded cloth one piece at a time lies half on the fold: a body 34 in wide takes 17 of 21, two ends of 9 in lie
/// side by side, four of them over both layers: 15 + 9 in, and nothing else can be.
#[test]
fn slices_from_the_fold_lie_one_at_a_time() {
    let body = JobPiece { grain: Grain::Length, ..piece("body", inch(34), inch(15), 1) };
    let mut folded = job(inch(21), vec![body, piece("end", inch(9), inch(9), 4)]);
    folded.cloths[0].layers = 2;
    folded.cloths[0].shop = ShopStep { step: Some(inch(4)), min: Length::ZERO };
    let lay = solve(&folded, Budget::iterations(400), &mut Silent).expect("laid");
    assert!(lay.proven, "{:?} of {:?}", lay.bound.length, lay.bought());
    assert_eq!(lay.bought(), inch(24));
}

/// A rectangle cut into shapes: what is known to be possible is never ruled out.
fn cut_into_shapes(width: i64, height: i64, n: usize, random: &mut Random) -> Job {
    let corner = |x, y| Point::new(Length::inches(x, 8), Length::inches(y, 8));
    let mut rings: Vec<Vec<Point>> =
        vec![vec![corner(0, 0), corner(width, 0), corner(width, height), corner(0, height)]];
    while rings.len() < n {
        let at = (0..rings.len()).max_by_key(|&i| Outline::Polygon(rings[i].clone()).area().0).expect("a part");
        let ring = rings.swap_remove(at);
        // From a place on one side to a place on another: convex parts stay convex.
        let (i, j) = (random.below(ring.len()), 1 + random.below(ring.len() - 1));
        let j = (i + j) % ring.len();
        let within = |i: usize, share: i64| {
            let (a, b) = (ring[i], ring[(i + 1) % ring.len()]);
            Point::new(a.x + (b.x - a.x) * share / 8, a.y + (b.y - a.y) * share / 8)
        };
        let (i, j) = (i.min(j), i.max(j));
        let (p, q) = (within(i, 3 + random.below(3) as i64), within(j, 3 + random.below(3) as i64));
        let one: Vec<Point> = [p].into_iter().chain(ring[i + 1..=j].iter().copied()).chain([q]).collect();
        let two: Vec<Point> =
            [q].into_iter().chain(ring[j + 1..].iter().copied()).chain(ring[..=i].iter().copied()).chain([p]).collect();
        rings.extend([one, two]);
    }
    let pieces = rings.into_iter().enumerate().map(|(i, ring)| {
        let (left, low) =
            (ring.iter().map(|p| p.x).min().expect("corners"), ring.iter().map(|p| p.y).min().expect("corners"));
        let moved: Vec<Point> = ring.iter().map(|p| Point::new(p.x - left, p.y - low)).collect();
        JobPiece {
            grain: Grain::Length,
            ..shaped(format!("p{i}"), Outline::polygon(moved).expect("a simple polygon"), 1)
        }
    });
    job(Length::inches(width, 8), pieces.collect())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    #[test]
    fn what_is_possible_is_never_ruled_out(seed in any::<u64>(), width in 80_i64..320, height in 40_i64..300, n in 3_usize..10, eighths in 8_i64..72) {
        let mut job = cut_into_shapes(width, height, n, &mut Random::new(seed));
        job.cloths[0].shop = ShopStep { step: Some(Length::inches(eighths, 8)), min: Length::ZERO };
        // Corners are rounded to whole units, so that neighbours may overlap by one: a unit a piece more holds them all.
        let height = Length::inches(height, 8) + Length(2 * n as i64);
        let possible = job.cloths[0].buy_length(job.cloths[0].needed_length(height));
        let lay = solve(&job, Budget::iterations(210), &mut Silent).expect("laid");
        prop_assert!(lay.bound.length <= possible, "{:?} ruled out, {possible:?} is possible", lay.bound.length);
        prop_assert!(!lay.proven || lay.bought() <= possible);
    }

    /// Few pieces cut from a rectangle by cuts from edge to edge lie as short again, and are proven to.
    #[test]
    fn all_edge_to_edge_cuts_of_few_pieces_are_tried(seed in any::<u64>(), width in 100_i64..320, height in 60_i64..300, n in 2_usize..9) {
        let mut job = cut_edge_to_edge(width, height, n, &mut Random::new(seed));
        job.rules.cuts = Cuts::Through;
        let lay = solve(&job, Budget::iterations(4), &mut Silent).expect("laid");
        prop_assert_eq!(lay.bought(), Length::inches(height, 8));
        prop_assert!(lay.proven);
    }
}

/// A rectangle in eighths, cut edge to edge into `n` pieces at whole eighths, in the order of their size.
fn cut_edge_to_edge(width: i64, height: i64, n: usize, random: &mut Random) -> Job {
    let mut parts = vec![(width, height)];
    while parts.len() < n {
        parts.sort_by_key(|(w, h)| w * h);
        let (w, h) = parts.pop().expect("a part");
        let at = |side: i64, random: &mut Random| side / 4 + random.below((side / 2) as usize) as i64;
        if w >= h {
            let at = at(w, random);
            parts.extend([(at, h), (w - at, h)]);
        } else {
            let at = at(h, random);
            parts.extend([(w, at), (w, h - at)]);
        }
    }
    let eighths = |n| Length::inches(n, 8);
    let pieces = parts.iter().enumerate().map(|(i, &(w, h))| piece(format!("p{i}"), eighths(w), eighths(h), 1));
    job(eighths(width), pieces.collect())
}
