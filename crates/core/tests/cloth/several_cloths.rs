//! Jobs of several rolls: preference, owned lengths used up first, nothing lost on the way from one to the next.
#![allow(missing_docs)]

use crate::support::{job, piece};
use bofta_core::cloth::{Cloth, Form, Money, Price, Print};
use bofta_core::lay::{Budget, Job, JobPiece, Lay, Silent, solve, verify};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::{Grain, PrintRule};
use proptest::prelude::*;

fn inch(n: i64) -> Length {
    Length::INCH * n
}

fn owned(id: &str, width: i64, length: i64) -> Cloth {
    let form = Form::Roll { width: inch(width), length: Some(inch(length)), max: None };
    Cloth { owned: true, form, ..Cloth::roll(id, inch(width)) }
}

fn lay(job: &Job) -> Lay {
    let lay = solve(job, Budget::iterations(60), &mut Silent).expect("a sound job");
    assert_eq!(verify(job, &lay), []);
    lay
}

fn on<'a>(lay: &'a Lay, cloth: &str) -> Vec<&'a str> {
    let of = |c: &'a bofta_core::lay::ClothLay| c.placements.iter().map(|p| p.piece.as_str());
    let mut found: Vec<&str> = lay.cloths.iter().filter(|c| c.cloth == cloth).flat_map(of).collect();
    found.sort_unstable();
    found
}

fn from(cloths: &[&str], piece: JobPiece) -> JobPiece {
    JobPiece { cloths: cloths.iter().map(|c| (*c).to_owned()).collect(), ..piece }
}

#[test]
fn each_piece_comes_from_the_first_cloth_that_can_hold_it() {
    let mut job = job(
        inch(60),
        vec![
            from(&["narrow", "roll"], JobPiece { grain: Grain::Length, ..piece("wide", inch(30), inch(5), 1) }),
            from(&["narrow", "roll"], JobPiece { grain: Grain::Length, ..piece("small", inch(10), inch(5), 1) }),
        ],
    );
    job.cloths.insert(0, Cloth::roll("narrow", inch(20)));
    let found = lay(&job);
    assert_eq!((on(&found, "narrow"), on(&found, "roll")), (vec!["small"], vec!["wide"]));
}

#[test]
fn several_owned_lengths_are_used_up_in_order_of_preference() {
    let mut job = job(inch(20), vec![from(&["first", "second", "roll"], piece("p", inch(10), inch(10), 9))]);
    job.cloths.push(owned("first", 20, 10));
    job.cloths.push(owned("second", 20, 20));
    let found = lay(&job);
    assert_eq!((on(&found, "first").len(), on(&found, "second").len(), on(&found, "roll").len()), (2, 4, 3));
    assert!(found.complete());
}

#[test]
fn only_what_is_bought_costs() {
    let mut job = job(inch(20), vec![from(&["own", "roll"], piece("p", inch(10), inch(10), 4))]);
    job.cloths[0].price = Some(Price { amount: Money(3_600), per: Length::YARD });
    let mut own = owned("own", 20, 10);
    own.price = Some(Price { amount: Money(9_900), per: Length::YARD });
    job.cloths.push(own);
    let found = lay(&job);
    // Two of the four are bought: 10 in at 1.00 an inch.
    assert_eq!(found.cost, Money(1_000));
    assert_eq!(found.bought(), inch(20), "what is used of the owned length is told as its length");
}

#[test]
fn a_roll_with_a_longest_cut_is_not_exceeded() {
    let mut job = job(inch(20), vec![piece("p", inch(20), inch(10), 5)]);
    job.cloths[0].form = Form::Roll { width: inch(20), length: None, max: Some(inch(35)) };
    job.cloths[0].shop = ShopStep::default_for(System::Inches);
    let found = lay(&job);
    assert_eq!(found.cloths[0].placements.len(), 3);
    assert_eq!((found.unplaced[0].count, found.complete(), found.proven), (2, false, false));
    assert!(found.unplaced[0].why.contains("there is no room for 2"), "{}", found.unplaced[0].why);
}

#[test]
fn the_print_of_each_cloth_rules_on_that_cloth() {
    let pair = |id: &str, cloth: &str| {
        from(&[cloth], JobPiece { grain: Grain::Either, print: PrintRule::Upright, ..piece(id, inch(8), inch(30), 1) })
    };
    let mut job = job(inch(40), vec![pair("on-printed", "printed"), pair("on-plain", "roll")]);
    job.cloths.push(Cloth { print: Print::OneWay, ..Cloth::roll("printed", inch(40)) });
    let found = lay(&job);
    let length = |cloth: &str| found.cloths.iter().find(|c| c.cloth == cloth).map(|c| c.needed_length);
    // Plain cloth lets it lie across and saves length; the print does not.
    assert_eq!((length("printed"), length("roll")), (Some(inch(30)), Some(inch(8))));
}

#[test]
fn cloths_are_told_in_the_order_of_the_job() {
    let ids = ["c", "a", "b"];
    let pieces = ids.iter().map(|id| from(&[id], piece(format!("from-{id}"), inch(5), inch(5), 1))).collect();
    let mut job = job(inch(20), pieces);
    job.cloths = ids.iter().map(|id| Cloth::roll(*id, inch(20))).collect();
    let told: Vec<String> = lay(&job).cloths.iter().map(|c| c.cloth.clone()).collect();
    assert_eq!(told, ids);
}

/// Random jobs over up to four rolls, owned and bought, each piece with its own list.
fn any_job() -> impl Strategy<Value = Job> {
    let cloths = prop::collection::vec((12_i64..40, prop::option::of(6_i64..60)), 1..5);
    let pieces = prop::collection::vec((1_i64..20, 1_i64..20, 1_u32..5, any::<[u8; 4]>()), 1..8);
    (cloths, pieces).prop_map(|(cloths, pieces)| {
        let id = |i: usize| format!("c{i}");
        let rolls: Vec<Cloth> = cloths
            .iter()
            .enumerate()
            .map(|(i, &(width, length))| match length {
                Some(length) => owned(&id(i), width, length),
                None => Cloth { shop: ShopStep::default_for(System::Inches), ..Cloth::roll(id(i), inch(width)) },
            })
            .collect();
        let pieces = pieces
            .into_iter()
            .enumerate()
            .map(|(i, (w, h, count, wishes))| {
                let mut list: Vec<String> = wishes.iter().map(|n| id(usize::from(*n) % rolls.len())).collect();
                let mut seen = std::collections::HashSet::new();
                list.retain(|c| seen.insert(c.clone()));
                JobPiece { cloths: list, ..piece(format!("p{i}"), inch(w), inch(h), count) }
            })
            .collect();
        Job { cloths: rolls, ..job(inch(10), pieces) }
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(80))]

    /// Every copy is laid on a cloth of its list or named with a reason; nothing is laid past an owned length.
    #[test]
    fn nothing_is_lost_between_cloths(job in any_job()) {
        let found = solve(&job, Budget::iterations(40), &mut Silent).expect("a sound job");
        prop_assert_eq!(verify(&job, &found), vec![]);
        let laid: usize = found.cloths.iter().map(|c| c.placements.len()).sum();
        let left: u32 = found.unplaced.iter().map(|u| u.count).sum();
        let wanted: u32 = job.pieces.iter().map(|p| p.count).sum();
        prop_assert_eq!(laid as u32 + left, wanted);
        for u in &found.unplaced {
            prop_assert!(u.why.len() > 20);
            let once = found.unplaced.iter().filter(|o| o.piece == u.piece).count();
            prop_assert_eq!(once, 1, "each piece is named once");
        }
        for c in &found.cloths {
            if let Some(limit) = job.cloth(&c.cloth).and_then(Cloth::usable_length) {
                prop_assert!(c.needed_length <= limit);
            }
        }
    }

    /// A piece with a bought roll wide enough in its list always finds a place: a roll is as long as needed.
    #[test]
    fn a_bought_roll_holds_whatever_fits_its_width(job in any_job()) {
        let found = solve(&job, Budget::iterations(0), &mut Silent).expect("a sound job");
        for u in &found.unplaced {
            let piece = job.piece(&u.piece).expect("known");
            let (w, h) = piece.outline.extent(bofta_core::shape::Turn::NONE, false);
            let narrowest_side = w.min(h);
            for cloth in piece.cloths.iter().filter_map(|id| job.cloth(id)).filter(|c| !c.owned) {
                prop_assert!(narrowest_side > cloth.usable_width(), "{} would fit {}", u.piece, cloth.id);
            }
        }
    }
}
