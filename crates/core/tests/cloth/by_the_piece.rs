//! Zips, rings, hooks and snaps: what is there is taken, the rest is bought.
#![allow(missing_docs)]

use bofta_core::bag::{Family, Hardware};
use bofta_core::buying::{PiecesAtHand, by_the_piece};
use bofta_core::measure::{Length, System};
use bofta_core::project::kept::{read_project, write_project};
use bofta_core::project::{Edit, Project};
use proptest::prelude::*;
use rstest::rstest;

fn ring(count: u32, eighths: i64) -> Hardware {
    Hardware { name: "D-ring".into(), count, size: Some(Length::inches(eighths, 8)), note: "inside width".into() }
}

fn there(name: &str, eighths: Option<i64>, count: u32) -> PiecesAtHand {
    PiecesAtHand { name: name.into(), size: eighths.map(|e| Length::inches(e, 8)), count }
}

/// What each line takes and buys.
fn shared(needed: &[Hardware], at_hand: &[PiecesAtHand]) -> Vec<(u32, u32)> {
    by_the_piece(needed, at_hand).iter().map(|line| (line.taken, line.buy)).collect()
}

#[rstest]
#[case(&[], &[(0, 2)])]
#[case(&[("D-ring", Some(8), 1)], &[(1, 1)])]
#[case(&[("D-ring", Some(8), 2)], &[(2, 0)])]
#[case(&[("D-ring", Some(8), 9)], &[(2, 0)])]
// Another size, another thing, or one without a size takes the place of none.
#[case(&[("D-ring", Some(12), 9)], &[(0, 2)])]
#[case(&[("Slider", Some(8), 9)], &[(0, 2)])]
#[case(&[("D-ring", None, 9)], &[(0, 2)])]
fn only_the_same_size_will_do(#[case] at_hand: &[(&str, Option<i64>, u32)], #[case] comes_to: &[(u32, u32)]) {
    let at_hand: Vec<PiecesAtHand> = at_hand.iter().map(|(n, s, c)| there(n, *s, *c)).collect();
    assert_eq!(shared(&[ring(2, 8)], &at_hand), comes_to);
}

/// Two straps' rings of one size share what is there; the first line has its own first.
#[test]
fn lines_of_one_size_share_what_is_there() {
    let at_hand = [there("D-ring", Some(8), 3)];
    assert_eq!(shared(&[ring(2, 8), ring(4, 12), ring(2, 8)], &at_hand), [(2, 0), (0, 4), (1, 1)]);
    assert!(by_the_piece(&[], &at_hand).is_empty());
}

fn duffel() -> Project {
    let mut project = Project::new("Trial", System::Inches);
    project.bag = Family::Duffel.default_for(System::Inches);
    project
}

fn have(name: &str, size: Option<Length>, count: &str) -> Edit {
    Edit::PiecesAtHand { name: name.into(), size, count: count.into() }
}

/// A usual duffel's shoulder strap of 1½ in takes two rings, two hooks and a slider.
#[test]
fn what_is_there_is_kept_with_the_project() {
    let size = Some(Length::inches(12, 8));
    let mut project = duffel();
    let hardware = project.plan().expect("drafts").draft.hardware;
    assert!(hardware.iter().any(|h| h.name == "D-ring" && h.count == 2 && h.size == size), "{hardware:?}");
    let buys = |p: &Project, name: &str| {
        let lines = p.by_the_piece(&hardware);
        lines.iter().filter(|l| l.needed.name == name).map(|l| l.buy).sum::<u32>()
    };
    assert_eq!(buys(&project, "D-ring"), 2);
    for (count, buy) in [("1", 1), ("2", 0), (" 7 ", 0), ("", 2), ("1", 1), ("0", 2), ("none", 2)] {
        project = project.edited(&have("D-ring", size, count)).expect("a number").0;
        assert_eq!(buys(&project, "D-ring"), buy, "{count:?}");
        assert_eq!(read_project(&write_project(&project).expect("kept")).expect("read"), project);
    }
    // None there leaves nothing behind, and the list is not changed by what another thing has.
    assert!(project.pieces_at_hand.is_empty());
    project = project.edited(&have("Slider", size, "1")).expect("a number").0;
    assert_eq!((buys(&project, "D-ring"), buys(&project, "Slider")), (2, 0));
}

#[rstest]
#[case("two", "count")]
#[case("-1", "count")]
#[case("1.5", "count")]
#[case("1000", "count")]
#[case("99999999999999999999", "count")]
#[case("2 of 3", "count")]
fn what_is_no_number_is_refused(#[case] count: &str, #[case] field: &str) {
    let problems = duffel().edited(&have("D-ring", None, count)).expect_err("refused");
    assert_eq!((problems[0].field.as_str(), problems[0].value.as_str()), (field, count));
    assert!(problems[0].message.contains("999"), "{problems:?}");
}

#[rstest]
#[case("")]
#[case("   ")]
fn a_thing_has_a_name(#[case] name: &str) {
    assert_eq!(duffel().edited(&have(name, None, "1")).expect_err("refused")[0].field, "name");
    let long = "x".repeat(500);
    assert_eq!(duffel().edited(&have(&long, None, "1")).expect_err("refused")[0].field, "name");
}

/// The plan stays what it is, cut or not: what is there by the piece is told at any time.
#[test]
fn it_may_be_told_while_the_bag_is_cut() {
    assert!(!have("D-ring", None, "1").changes_plan());
    let mut project = duffel();
    project.steps_done = 3;
    assert!(project.edited(&have("D-ring", None, "1")).is_ok());
}

/// Kinds are kept track of up to a number; putting one right is no new one.
#[test]
fn so_many_kinds_are_kept_track_of() {
    let mut project = duffel();
    let mut last = 0;
    for n in 0..100 {
        match project.edited(&have(&format!("Ring {n}"), None, "1")) {
            Ok((next, _)) => (project, last) = (next, n),
            Err(problems) => {
                assert!(problems[0].message.contains("kinds"), "{problems:?}");
                break;
            }
        }
    }
    assert!((20..99).contains(&last), "{last}");
    let (again, _) = project.edited(&have("Ring 3", None, "5")).expect("it is known");
    assert_eq!(again.pieces_at_hand.len(), project.pieces_at_hand.len());
}

/// A project of before has none.
#[test]
fn a_project_of_before_opens() {
    let text = write_project(&duffel()).expect("kept");
    assert!(!text.contains("pieces_at_hand"));
    assert!(read_project(&text).expect("read").pieces_at_hand.is_empty());
}

proptest! {
    /// What is taken and what is bought is what is needed, and no more is taken of a kind than is there.
    #[test]
    fn nothing_is_taken_twice(
        needed in prop::collection::vec((1u32..6, 6i64..9), 0..6),
        at_hand in prop::collection::vec((0u32..9, 6i64..9), 0..4),
    ) {
        let needed: Vec<Hardware> = needed.iter().map(|(n, size)| ring(*n, *size)).collect();
        let at_hand: Vec<PiecesAtHand> = at_hand.iter().map(|(n, size)| there("D-ring", Some(*size), *n)).collect();
        let lines = by_the_piece(&needed, &at_hand);
        prop_assert_eq!(lines.len(), needed.len());
        for eighths in 6..9 {
            let size = Some(Length::inches(eighths, 8));
            let all: u32 = at_hand.iter().filter(|a| a.size == size).map(|a| a.count).sum();
            let wanted: u32 = needed.iter().filter(|h| h.size == size).map(|h| h.count).sum();
            let of = || lines.iter().filter(|l| l.needed.size == size);
            let (taken, bought) = (of().map(|l| l.taken).sum::<u32>(), of().map(|l| l.buy).sum::<u32>());
            prop_assert_eq!(taken + bought, wanted);
            prop_assert_eq!(taken, wanted.min(all));
            prop_assert!(of().all(|l| l.at_hand == all));
        }
    }
}
