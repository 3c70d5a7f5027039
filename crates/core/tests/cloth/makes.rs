//! What could be made of cloths from the cupboard.
#![allow(missing_docs)]

use bofta_core::bag::Family;
use bofta_core::cloth::{Material, read_at_hand};
use bofta_core::lay::{Budget, Silent, solve, verify};
use bofta_core::measure::System;
use bofta_core::piece::Part;
use bofta_core::project::{Edit, MadeOf, Project, ProjectCloth, SIZES, largest_of, may_hold};
use proptest::prelude::*;
use rstest::rstest;

fn cloth(name: &str, material: Material, there: &str) -> ProjectCloth {
    let id = name.to_lowercase();
    let at_hand =
        if there.is_empty() { vec![] } else { read_at_hand(there, name, &[], System::Inches).expect("it is read") };
    ProjectCloth { at_hand, ..ProjectCloth::default_for(id, name.into(), material, System::Inches) }
}

fn tote() -> Project {
    let mut project = Project::new("Trial", System::Inches);
    project.bag = Family::Tote.default_for(System::Inches);
    for (key, value) in [("width", "10"), ("height", "10"), ("depth", "0"), ("straps", "no"), ("pocket", "no")] {
        project.bag.set(key, value, System::Inches).expect("a field");
    }
    project
}

fn made(project: &Project, cloths: &[ProjectCloth]) -> MadeOf {
    project.made_of(cloths).expect("something suits")
}

fn whole(project: &Project) -> bool {
    let job = project.plan().expect("drafts").job.expect("every part has a cloth");
    if !may_hold(&job) {
        return false;
    }
    let lay = solve(&job, Budget::iterations(150), &mut Silent).expect("laid");
    assert!(verify(&job, &lay).is_empty());
    lay.complete()
}

/// Four panels of 11 × 11: two fat quarters of 18 × 21 hold one each, four of them all.
#[rstest]
#[case("2 fat quarters", false)]
#[case("4 fat quarters", true)]
// 24 × 23 holds four of 11 × 11 and nothing of 12.
#[case("22 x 22", true)]
#[case("22 x 21", false)]
// A length gives up its selvedges and its ends: 43 × 17 hold three side by side, 43 × 35 six.
#[case("½ yd", false)]
#[case("1 yd", true)]
fn nothing_is_bought_of_what_is_there(#[case] there: &str, #[case] enough: bool) {
    let of = made(&tote(), &[cloth("Oat", Material::Cotton, there)]);
    assert_eq!(of.besides, []);
    assert!(of.project.cloths.iter().all(|c| !c.is_bought()));
    assert_eq!(whole(&of.project), enough, "{there}");
}

/// Every part may come from any cloth that suits it; the one of which there is most stands first outside, the next inside.
#[test]
fn the_most_comes_first_outside() {
    let cloths = [
        cloth("Oat", Material::Cotton, "9 x 9"),
        cloth("Rye", Material::Canvas, "2 yd"),
        cloth("Fluff", Material::Fleece, "1 yd"),
    ];
    let of = made(&tote(), &cloths);
    assert_eq!(of.project.from[&Part::Outer], ["rye", "oat"]);
    assert_eq!(of.project.from[&Part::Lining], ["oat", "rye"]);
    assert!(!of.project.from.contains_key(&Part::Backing), "this bag has no fleece");
}

/// A fleece that is not among them is bought; it is named, and nothing else is bought.
#[test]
fn what_none_of_them_suits_is_named() {
    let mut project = tote();
    project.bag.set("backing", "full-size", System::Inches).expect("a choice");
    let of = made(&project, &[cloth("Oat", Material::Cotton, "2 yd")]);
    assert_eq!(of.besides, [Part::Backing]);
    let fleece = of.project.cloth_of(Part::Backing).expect("a fleece to buy");
    assert!(fleece.is_bought() && fleece.material == Material::Fleece);
    assert_eq!(of.project.cloth_of(Part::Outer).map(|c| c.is_bought()), Some(false));
    assert!(whole(&of.project));
    // With one among them nothing is bought at all.
    let with = made(&project, &[cloth("Oat", Material::Cotton, "2 yd"), cloth("Fluff", Material::Fleece, "1 yd")]);
    assert_eq!(with.besides, []);
    assert!(with.project.cloths.iter().all(|c| !c.is_bought()));
}

/// A bag that had a fleece of its own keeps that for it, bought anew, beside a cloth of the cupboard with the same id.
#[test]
fn its_own_cloth_stays_for_what_none_suits() {
    let mut project = tote();
    project.bag.set("backing", "full-size", System::Inches).expect("a choice");
    for edit in [
        Edit::AddCloth { name: "Oat".into(), material: "fleece".into() },
        Edit::Assign { part: "backing".into(), cloth: "oat".into() },
    ] {
        project = project.edited(&edit).expect("it stands").0;
    }
    let of = made(&project, &[cloth("Oat", Material::Cotton, "2 yd")]);
    let ids: Vec<&str> = of.project.cloths.iter().map(|c| c.id.as_str()).collect();
    assert_eq!(ids, ["oat", "oat-2"]);
    assert_eq!(of.project.from[&Part::Backing], ["oat-2"]);
    assert_eq!(of.project.cloth("oat-2").map(|c| c.material), Some(Material::Fleece));
}

#[test]
fn of_nothing_nothing_is_made() {
    assert_eq!(tote().made_of(&[]), None);
    assert_eq!(tote().made_of(&[cloth("Oat", Material::Cotton, "")]), None, "none of it is there");
    assert_eq!(tote().made_of(&[cloth("Fluff", Material::Fleece, "2 yd")]), None, "no part is cut from it");
}

/// A plan that is cut, sizes that were measured and ways that were tried are of the bag as it was.
#[test]
fn what_is_known_of_the_bag_in_other_cloths_is_left_behind() {
    let mut project = tote();
    for edit in [
        Edit::AddCloth { name: "Rye".into(), material: "cotton".into() },
        Edit::Assign { part: "outer".into(), cloth: "rye".into() },
        Edit::Assign { part: "lining".into(), cloth: "rye".into() },
        Edit::KeepTry { name: "All of rye".into() },
    ] {
        project = project.edited(&edit).expect("it stands").0;
    }
    project.steps_done = 1;
    let of = made(&project, &[cloth("Oat", Material::Cotton, "2 yd")]);
    assert!(of.project.tries.is_empty() && of.project.steps_done == 0 && of.project.cloth("rye").is_none());
    assert_eq!(of.project.bag, project.bag);
}

/// A bag too large comes smaller: 10 × 10 finished at 80 in the hundred is 8 × 8, cut 9 × 9; four of them on 18 × 18.
#[test]
fn a_bag_comes_smaller() {
    let of = made(&tote(), &[cloth("Oat", Material::Cotton, "18 x 18")]);
    let found = largest_of(|percent| Ok::<_, ()>(of.project.at_size(percent).is_some_and(|p| whole(&p))));
    assert_eq!(found, Ok(Some(80)));
    let small = of.project.at_size(80).expect("a bag");
    assert_eq!(small.bag.headline(small.ruler), "Tote, 8 wide × 8 tall (in)");
}

#[test]
fn an_error_ends_the_trying() {
    let mut asked = 0;
    let found = largest_of(|_| {
        asked += 1;
        Err::<bool, _>("busy")
    });
    assert_eq!((found, asked), (Err("busy"), 1));
}

proptest! {
    /// By halving the same size is found as by trying each, in three looks and the first at most.
    #[test]
    fn halving_finds_the_largest(fits_up_to in 0u32..120) {
        let mut asked = vec![];
        let found = largest_of(|percent| {
            asked.push(percent);
            Ok::<_, ()>(percent <= fits_up_to)
        });
        let each = SIZES.into_iter().find(|s| *s <= fits_up_to);
        prop_assert_eq!(found, Ok(each));
        prop_assert!(asked.len() <= 4, "{:?}", asked);
    }

    /// What has not the area is never laid whole: the check by area rules out nothing that holds.
    #[test]
    fn area_rules_out_nothing_that_holds(width in 8i64..40, height in 8i64..40) {
        let there = format!("{width} x {height}");
        let of = made(&tote(), &[cloth("Oat", Material::Cotton, &there)]);
        let job = of.project.plan().expect("drafts").job;
        let Some(job) = job else { return Ok(()) };
        let lay = solve(&job, Budget::iterations(20), &mut Silent);
        if lay.is_ok_and(|l| l.complete()) {
            prop_assert!(may_hold(&job));
        }
    }
}
