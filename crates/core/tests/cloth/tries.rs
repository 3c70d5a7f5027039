//! Ways of dressing the bag, kept beside each other.
#![allow(missing_docs)]

use bofta_core::measure::System;
use bofta_core::piece::Part;
use bofta_core::project::{Edit, MOST_TRIES, Project};
use proptest::prelude::*;
use rstest::rstest;

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, edit| p.edited(edit).expect("it holds").0)
}

fn keep(name: &str) -> Edit {
    Edit::KeepTry { name: name.into() }
}

fn take(name: &str) -> Edit {
    Edit::TakeTry { name: name.into() }
}

fn swap(one: &str, other: &str) -> Edit {
    Edit::SwapCloths { one: one.into(), other: other.into() }
}

fn assign(part: &str, cloth: &str) -> Edit {
    Edit::Assign { part: part.into(), cloth: cloth.into() }
}

/// A tote of moss, lined with oat; rust is there too.
fn tote() -> Project {
    let cloth = |name: &str| Edit::AddCloth { name: name.into(), material: "canvas".into() };
    let project = made(&Project::new("Tote", System::Inches), &[cloth("Moss"), cloth("Oat"), cloth("Rust")]);
    made(&project, &[assign("lining", "oat"), assign("pocket", "oat")])
}

#[test]
fn a_try_is_kept_and_taken() {
    let kept = made(&tote(), &[keep(""), assign("outer", "rust"), keep("In rust"), assign("lining", "rust")]);
    assert_eq!(kept.tries.iter().map(|t| t.name.as_str()).collect::<Vec<_>>(), ["Try 1", "In rust"]);
    assert!(!kept.tries.iter().any(|t| kept.is_dressed_as(t)), "neither any more");
    let back = made(&kept, &[take("Try 1")]);
    assert_eq!((&back.from, back.is_dressed_as(&back.tries[0])), (&tote().from, true));
    // It changes nothing but which part comes from which cloth.
    assert_eq!(Project { from: kept.from.clone(), ..back }, kept);
    let text = serde_json::to_string(&kept).expect("written");
    assert_eq!(serde_json::from_str::<Project>(&text).expect("read"), kept);
    assert!(made(&kept, &[Edit::ForgetTry { name: "In rust".into() }]).tries.len() == 1);
}

#[test]
fn a_cloth_that_is_gone_leaves_its_parts_without() {
    let kept = made(&tote(), &[keep("Lined"), Edit::RemoveCloth { cloth: "oat".into() }]);
    let of = &kept.tries[0];
    assert_eq!((kept.gone_from(of), kept.dressed_as(of).from.contains_key(&Part::Lining)), (1, false));
    let taken = made(&kept, &[take("Lined")]);
    assert!(taken.cloth_of(Part::Lining).is_none() && taken.cloth_of(Part::Outer).is_some());
    let all = made(&kept, &[Edit::RemoveCloth { cloth: "moss".into() }, Edit::RemoveCloth { cloth: "rust".into() }]);
    let refused = all.edited(&take("Lined")).expect_err("nothing of it is here");
    assert!(refused[0].message.contains("None of the cloths"), "{}", refused[0].message);
}

#[test]
fn two_cloths_change_places_everywhere() {
    let swapped =
        made(&tote(), &[Edit::AssignAlso { part: "straps".into(), cloth: "oat".into() }, swap("moss", "oat")]);
    let of = |part| swapped.from[&part].iter().map(String::as_str).collect::<Vec<_>>();
    assert_eq!((of(Part::Outer), of(Part::Lining), of(Part::Straps)), (vec!["oat"], vec!["moss"], vec!["oat", "moss"]));
    // A cloth no part came from takes all of the other's.
    let rust = made(&tote(), &[swap("moss", "rust")]);
    assert_eq!(
        (rust.cloth_of(Part::Outer).map(|c| c.id.as_str()), rust.from[&Part::Lining][0].as_str()),
        (Some("rust"), "oat")
    );
}

#[rstest]
#[case(keep("Second"), "are saved already")]
#[case(take("Tenth"), "“Tenth” is no longer there")]
#[case(Edit::ForgetTry { name: "Tenth".into() }, "no longer there")]
#[case(swap("moss", "silk"), "no cloth “silk”")]
#[case(keep(&"long ".repeat(40)), "characters")]
fn what_cannot_be_says_why(#[case] edit: Edit, #[case] why: &str) {
    let project = made(&tote(), &[keep("First")]);
    let refused = project.edited(&edit).expect_err("it cannot be");
    assert!(refused[0].message.contains(why), "{}", refused[0].message);
}

#[test]
fn names_are_unique_and_tries_not_too_many() {
    let first = made(&tote(), &[keep("First"), assign("outer", "rust")]);
    assert!(first.edited(&keep("First")).expect_err("the name is taken")[0].message.contains("another name"));
    let bare = Project::new("Bare", System::Inches);
    assert!(bare.edited(&keep("")).expect_err("nothing is dressed")[0].message.contains("nothing to save"));
    let parts = ["outer", "lining", "pocket", "straps"];
    let mut project = tote();
    for n in 0..MOST_TRIES {
        // Another one each time: the digits of n to the base of three.
        let cloths = ["moss", "oat", "rust"];
        let edits: Vec<Edit> =
            parts.iter().enumerate().map(|(k, part)| assign(part, cloths[n / 3_usize.pow(k as u32) % 3])).collect();
        project = made(&made(&project, &edits), &[keep("")]);
    }
    let full = made(&project, &[assign("outer", "rust"), assign("straps", "rust")]);
    assert!(full.edited(&keep("")).expect_err("too many")[0].message.contains("Delete one first"));
}

/// Once cutting has begun tries may still be kept and forgotten: they change no plan.
#[test]
fn keeping_changes_no_plan() {
    assert!(!keep("").changes_plan() && !Edit::ForgetTry { name: String::new() }.changes_plan());
    assert!(take("").changes_plan() && swap("a", "b").changes_plan());
}

proptest! {
    /// Swapped twice nothing is changed, and a swap neither loses nor adds a cloth of any part.
    #[test]
    fn a_swap_takes_itself_back(choices in prop::collection::vec(0_usize..3, 4), one in 0_usize..3, other in 0_usize..3) {
        let cloths = ["moss", "oat", "rust"];
        let parts = ["outer", "lining", "pocket", "straps"];
        let edits: Vec<Edit> = parts.iter().zip(&choices).map(|(part, c)| assign(part, cloths[*c])).collect();
        let project = made(&tote(), &edits);
        let swapped = made(&project, &[swap(cloths[one], cloths[other])]);
        prop_assert_eq!(&made(&swapped, &[swap(cloths[one], cloths[other])]), &project);
        let each = |p: &Project| p.from.iter().map(|(part, ids)| (*part, ids.len())).collect::<Vec<_>>();
        prop_assert_eq!(each(&swapped), each(&project));
    }
}
