//! Cuts from lengths: check values of common practice, and every answer against trying everything.
#![allow(missing_docs)]

use bofta_core::buying::linear::{Sold, plan};
use bofta_core::measure::{Length, ShopStep};
use proptest::prelude::*;

fn cm(n: i64) -> Length {
    Length::CENTIMETRE * n
}

/// Common practice: 1½ yd of webbing gives two of 27 in.
#[test]
fn two_straps_from_a_yard_and_a_half() {
    let cuts = [Length::INCH * 27; 2];
    let made = plan(&cuts, &[Length::YARD * 3 / 2], Sold::Packs(Length::YARD));
    assert_eq!((made.total(), made.owned[0].len()), (Length::ZERO, 2));
}

/// Common practice: 4 × 55 + 2 × 40 + 4 × 16 cm = 364 of a 400 cm length.
#[test]
fn a_set_of_straps_from_four_metres() {
    let cuts: Vec<Length> = [(4, 55), (2, 40), (4, 16)].iter().flat_map(|(n, l)| vec![cm(*l); *n]).collect();
    let made = plan(&cuts, &[cm(400)], Sold::Packs(cm(100)));
    assert_eq!(made.owned[0].iter().copied().sum::<Length>(), cm(364));
    assert!(made.lengths.is_empty() && made.proven);
    let bought = plan(&cuts, &[], Sold::Reel(ShopStep { step: Some(cm(10)), min: cm(10) }));
    assert_eq!(bought.total(), cm(370));
}

#[test]
fn what_is_too_long_is_said() {
    let made = plan(&[cm(120), cm(30)], &[], Sold::Packs(cm(100)));
    assert_eq!((made.unplaced.as_slice(), made.lengths.len()), (&[cm(120)][..], 1));
}

/// The most that can come from the bins, by trying every bin for every cut.
fn most(cuts: &[i64], room: &mut Vec<i64>) -> i64 {
    let Some((cut, rest)) = cuts.split_first() else { return 0 };
    let mut best = most(rest, room);
    for bin in 0..room.len() {
        if room[bin] >= *cut {
            room[bin] -= cut;
            best = best.max(cut + most(rest, room));
            room[bin] += cut;
        }
    }
    best
}

proptest! {
    #[test]
    fn nothing_better_is_overlooked(
        cuts in prop::collection::vec(10_i64..90, 1..7),
        owned in prop::collection::vec(20_i64..200, 0..3),
    ) {
        let lengths = |all: &[i64]| all.iter().map(|n| cm(*n)).collect::<Vec<_>>();
        let made = plan(&lengths(&cuts), &lengths(&owned), Sold::Packs(cm(100)));
        prop_assert!(made.proven && made.unplaced.is_empty());
        // Everything comes from somewhere, once, and nothing holds more than it is long.
        let mut all: Vec<Length> = made.owned.iter().chain(&made.bought).flatten().copied().collect();
        all.sort_unstable();
        let mut wanted = lengths(&cuts);
        wanted.sort_unstable();
        prop_assert_eq!(all, wanted);
        let bins = made.owned.iter().zip(lengths(&owned)).chain(made.bought.iter().zip(made.lengths.clone()));
        for (held, length) in bins {
            prop_assert!(held.iter().copied().sum::<Length>() <= length);
        }
        let used: Length = made.owned.iter().flatten().copied().sum();
        prop_assert_eq!(used, cm(most(&cuts, &mut owned.clone())));
        // One pack fewer does not hold what is bought.
        let rest: Vec<i64> = made.bought.iter().flatten().map(|l| l.0 / cm(1).0).collect();
        if !rest.is_empty() {
            let fewer = most(&rest, &mut vec![100; made.lengths.len() - 1]);
            prop_assert!(fewer < rest.iter().sum::<i64>());
        }
    }
}
