//! Bags that plan with the same cloth: what each is cut from, and where that is more than there is.
#![allow(missing_docs)]

use bofta_core::cloth::{AtHand, HandForm, Material, read_at_hand, say_all};
use bofta_core::lay::{Budget, Silent, solve};
use bofta_core::ledger::{OfBag, What};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::project::{Claim, ClothField, Edit, Project, ProjectCloth, claimed};
use proptest::prelude::*;
use rstest::rstest;

fn things(text: &str) -> Vec<AtHand> {
    if text.is_empty() { vec![] } else { read_at_hand(text, "Oat", &[], System::Inches).expect("it is read") }
}

fn claim(project: &str, text: &str) -> Claim {
    Claim { project: project.into(), name: format!("The {project}"), things: things(text) }
}

fn oat(there: &str) -> ProjectCloth {
    let cloth = ProjectCloth::default_for("oat".into(), "Oat".into(), Material::Cotton, System::Inches);
    ProjectCloth { at_hand: things(there), ..cloth }.put_in_cupboard(0)
}

#[rstest]
#[case("2 fat quarters", &[("sack", "fat quarter"), ("pouch", "fat quarter")], &[])]
#[case("fat quarter", &[("sack", "fat quarter"), ("pouch", "fat quarter")],
    &["The sack and The pouch are planned with 2 fat quarters of Oat; one is there."])]
#[case("", &[("sack", "fat quarter")], &["The sack is planned with one fat quarter of Oat; none is there."])]
#[case("2 yd", &[("sack", "1 yd"), ("pouch", "1 yd")], &[])]
#[case("1 yd, 1 yd", &[("sack", "1 yd"), ("pouch", "½ yd")], &[])]
#[case("1 yd", &[("sack", "1 yd"), ("pouch", "¼ yd"), ("tote", "¼ yd")],
    &["The sack, The pouch and The tote are planned with 54 in of Oat; 36 in is there."])]
#[case("12 x 10, 1 yd", &[("sack", "12 x 10, ½ yd"), ("pouch", "12 x 10")],
    &["The sack and The pouch are planned with 2 of 12 × 10 in of Oat; one is there."])]
#[case("10 x 12", &[("sack", "12 x 10")], &["The sack is planned with one 12 × 10 in of Oat; none is there."])]
#[case("1 yd", &[], &[])]
fn more_than_there_is_is_told(#[case] there: &str, #[case] by: &[(&str, &str)], #[case] told: &[&str]) {
    let claims: Vec<Claim> = by.iter().map(|(project, text)| claim(project, text)).collect();
    assert_eq!(oat(there).over_claimed(&claims, Ruler::Eighth), told);
}

/// A bag whose cut is entered took its cloth: it claims nothing more.
#[test]
fn what_is_entered_as_cut_is_no_claim() {
    let mut cloth = oat("fat quarter");
    let claims = [claim("sack", "fat quarter"), claim("pouch", "fat quarter")];
    assert_eq!(cloth.over_claimed(&claims, Ruler::Eighth).len(), 1);
    let sack = OfBag { project: "sack".into(), name: "The sack".into() };
    cloth.enter_cut(&sack, &things("fat quarter"), &[], 1).expect("entered");
    let pouch = &claims[1..];
    assert_eq!(cloth.over_claimed(pouch, Ruler::Eighth).len(), 1, "none is left for the pouch");
    cloth = cloth.changed_in_cupboard(What::PutIn, "fat quarter", 2).expect("put in");
    assert!(cloth.over_claimed(&claims, Ruler::Eighth).is_empty());
}

/// What lies with a bag is that bag's: it claims it no more, and the other is told that none is there.
#[test]
fn what_lies_with_a_bag_is_no_claim() {
    let mut cloth = oat("fat quarter, 2 yd");
    let claims = [claim("sack", "fat quarter, 1/2 yd"), claim("pouch", "fat quarter")];
    assert_eq!(cloth.over_claimed(&claims, Ruler::Eighth).len(), 1);
    let sack = OfBag { project: "sack".into(), name: "The sack".into() };
    let wanted = things("fat quarter, 2 yd");
    assert_eq!(cloth.still_to_lay("sack", &wanted), wanted);
    cloth.lay_with(&sack, &wanted, 1).expect("it is there");
    assert_eq!(cloth.still_to_lay("sack", &wanted), []);
    let told = cloth.over_claimed(&claims, Ruler::Eighth);
    assert_eq!(told, ["The pouch is planned with one fat quarter of Oat; none is there."]);
    cloth.put_back(&sack, 2).expect("it lay there");
    assert_eq!(cloth.over_claimed(&claims, Ruler::Eighth).len(), 1);
}

/// Of a length what the lay uses of it is claimed, of what is laid nothing that stays untouched.
#[test]
fn a_plan_claims_what_it_is_cut_from() {
    let edit = |p: Project, edit: Edit| p.edited(&edit).expect("it holds").0;
    let bag = |field: &str, value: &str| Edit::Bag { field: field.into(), value: value.into() };
    let mut project = Project::new("Tote", System::Inches);
    for (field, value) in [("lining", "none"), ("backing", "none"), ("width", "10"), ("height", "10"), ("depth", "2")] {
        project = edit(project, bag(field, value));
    }
    project = edit(project, Edit::AddCloth { name: "Oat".into(), material: "cotton".into() });
    let have = |text: &str| Edit::Cloth { cloth: "oat".into(), field: ClothField::AtHand, value: text.into() };
    project = edit(project, have("3 yd, 5 x 6"));
    let claimed_of = |project: &Project| {
        let job = project.plan().expect("it stands").job.expect("it is laid");
        let lay = solve(&job, Budget::iterations(40), &mut Silent).expect("a sound job");
        (lay.clone(), claimed(project, &lay))
    };
    let (lay, found) = claimed_of(&project);
    let [(name, things)] = found.as_slice() else { panic!("of one cloth") };
    assert_eq!((name.as_str(), things.len()), ("Oat", 1), "the small piece holds nothing of it");
    let HandForm::Length { length, .. } = things[0].form else { panic!("a length") };
    assert!(length == lay.cloths[0].buy_length && length < Length::YARD * 2, "{}", say_all(things, System::Inches));
    // Bought, it claims nothing.
    assert!(claimed_of(&edit(project, have(""))).1.is_empty());
}

proptest! {
    /// Whatever is there and wanted: it is told where, and only where, the sheets wanted of a size or the length in all
    /// are more than there are.
    #[test]
    fn over_claims_are_sums(
        there in prop::collection::vec((0_usize..3, 1_u32..4), 0..4),
        wanted in prop::collection::vec((0_usize..3, 1_u32..4), 0..5),
    ) {
        let said = ["fat quarter", "9 x 12", "½ yd"];
        let of = |(kind, count): &(usize, u32)| -> Vec<AtHand> {
            things(said[*kind]).into_iter().map(|t| AtHand { count: *count, ..t }).collect()
        };
        let cloth = ProjectCloth { at_hand: there.iter().flat_map(of).collect(), ..oat("") };
        let claims: Vec<Claim> =
            wanted.iter().enumerate().map(|(n, w)| Claim { things: of(w), ..claim(&n.to_string(), "") }).collect();
        let sum = |all: &[(usize, u32)], kind| all.iter().filter(|(k, _)| *k == kind).map(|(_, n)| n).sum::<u32>();
        let over = (0..3).filter(|kind| sum(&wanted, *kind) > sum(&there, *kind)).count();
        prop_assert_eq!(cloth.over_claimed(&claims, Ruler::Eighth).len(), over);
    }
}
