//! Bounds on known strips: what they see, and that they never see too much.
#![allow(missing_docs)]

mod support;

use bofta_core::cloth::Cloth;
use bofta_core::lay::{Budget, JobPiece, Silent, shortest_length, solve};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::Grain;
use rstest::rstest;
use support::{job, piece};

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
    one.cloths[0].shop = ShopStep::usual(System::Inches);
    one.cloths[0].price = Some(bofta_core::cloth::Price { amount: bofta_core::cloth::Money(1_234), per: Length::YARD });
    let lay = solve(&one, Budget::iterations(300), &mut Silent).expect("laid");
    assert!(lay.bound.cost <= lay.cost && lay.bound.length <= lay.bought());
    assert_eq!(lay.proven, lay.bound.length == lay.bought());
}
