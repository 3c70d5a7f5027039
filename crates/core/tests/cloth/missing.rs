//! A plan that is not whole: what it leaves out, and how much more cloth would hold it.
#![allow(missing_docs)]

use crate::support::{job, piece};
use bofta_core::buying::missing;
use bofta_core::cloth::Form;
use bofta_core::lay::{Budget, Job, JobPiece, Lay, Silent, Stop, solve, verify};
use bofta_core::measure::{Length, ShopStep, System};
use bofta_core::piece::Grain;
use proptest::prelude::*;

fn inch(n: i64) -> Length {
    Length::INCH * n
}

/// Pieces on an owned length of cloth.
fn short_of(width: i64, there: i64, pieces: Vec<JobPiece>) -> (Job, Lay) {
    let mut short = job(inch(width), pieces);
    short.cloths[0].form = Form::Roll { width: inch(width), length: Some(inch(there)), max: None };
    short.cloths[0].owned = true;
    short.cloths[0].shop = ShopStep::default_for(System::Inches);
    let lay = solve(&short, Budget::iterations(100), &mut Silent).expect("laid");
    (short, lay)
}

#[test]
fn what_lies_nowhere_is_named_with_what_more_would_hold_it() {
    let panel = JobPiece { grain: Grain::Length, ..piece("Panel", inch(15), inch(16), 4) };
    // Two side by side on 36 in: 20 in hold one row of two rows.
    let (job, lay) = short_of(36, 20, vec![panel, piece("Tab", inch(3), inch(3), 1)]);
    let missing = missing(&job, &lay, &|_| None, &Stop::new()).expect("short");
    assert_eq!(missing.headline(), "2 of 5 pieces don’t fit");
    assert_eq!(missing.pieces, [("Panel".to_owned(), 2)]);
    // 32 in are needed, so 12 more: three eighths of a yard, 13½ in, in the shop's steps.
    assert_eq!(missing.cloths[0].length, Some(Length::inches(27, 2)));
    assert_eq!(missing.describe(System::Inches), ["Panel: ⅜ yd more of roll makes room for it."]);
}

#[test]
fn a_cloth_that_is_too_narrow_says_so() {
    let wide = JobPiece { grain: Grain::Length, ..piece("Wide", inch(40), inch(5), 1) };
    let (job, lay) = short_of(36, 90, vec![wide, piece("Tab", inch(3), inch(3), 2)]);
    let missing = missing(&job, &lay, &|_| None, &Stop::new()).expect("short");
    assert_eq!(missing.headline(), "1 of 3 pieces doesn’t fit");
    assert_eq!((missing.cloths[0].too_large.len(), missing.cloths[0].length), (1, None));
    let told = missing.describe(System::Inches);
    assert_eq!(told.len(), 1);
    assert!(told[0].starts_with("Wide is 40 × 5 in and fits none of its cloths"), "{told:?}");
}

#[test]
fn nothing_is_missing_of_a_whole_plan() {
    let (job, lay) = short_of(36, 40, vec![piece("Tab", inch(3), inch(3), 2)]);
    assert_eq!(missing(&job, &lay, &|_| None, &Stop::new()), None);
}

#[test]
fn stopped_it_says_no_length_it_has_not_found() {
    let (job, lay) = short_of(36, 20, vec![piece("Panel", inch(30), inch(16), 3)]);
    let stop = Stop::new();
    stop.ask();
    let missing = missing(&job, &lay, &|_| None, &stop).expect("short");
    assert_eq!((missing.cloths[0].length, missing.cloths[0].too_large.len()), (None, 0));
    assert_eq!(missing.describe(System::Inches), ["Panel: roll has no room left for it."]);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// With as much more as is said, everything lies.
    #[test]
    fn what_is_said_to_be_enough_is_enough(sides in prop::collection::vec((3_i64..20, 3_i64..20), 1..7), there in 4_i64..40) {
        let pieces = sides.iter().enumerate().map(|(i, &(w, h))| piece(format!("p{i}"), inch(w), inch(h), 2)).collect();
        let (mut job, lay) = short_of(30, there, pieces);
        prop_assert_eq!(verify(&job, &lay), vec![]);
        let found = missing(&job, &lay, &|_| None, &Stop::new());
        prop_assert_eq!(found.is_none(), lay.complete());
        if let Some(found) = found {
            let more = found.cloths[0].length.expect("none is too wide");
            prop_assert_eq!(found.count + lay.cloths.iter().map(|c| c.placements.len() as u32).sum::<u32>(), found.of);
            job.cloths[0].form = Form::Roll { width: inch(30), length: Some(inch(there) + more), max: None };
            let lay = solve(&job, Budget::iterations(300), &mut Silent).expect("laid");
            prop_assert!(lay.complete(), "{:?} more does not do: {:?}", more, lay.unplaced);
        }
    }
}
