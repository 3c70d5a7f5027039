//! Sizes nobody typed go along with those that were.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Family, Group};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::project::{Edit, Project};
use rstest::rstest;

fn typed(field: &str, value: &str) -> Edit {
    Edit::Bag { field: field.into(), value: value.into() }
}

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn tote() -> Project {
    Project::new("Tote", System::Inches)
}

fn came(before: &Project, after: &Project, typed: &[&str]) -> Vec<String> {
    let typed: Vec<String> = typed.iter().map(|t| (*t).to_owned()).collect();
    after.bag.came_along(&before.bag, &typed, Ruler::Eighth)
}

#[rstest]
// 7 in of pocket on 14 in of tote are 3 in on 6.
#[case("width", "6", &["Straps, in from the edge of the face: 1 in, it was 2½ in.", "Pocket, wide, finished: 3 in, it was 7 in."])]
#[case("height", "5", &["Pocket, tall, finished: 2¼ in, it was 6 in."])]
// A handle that showed 24 in over 14 in of tote shows 50 over 40.
#[case("width", "40", &["Straps, how much shows: 50 in, it was 24 in."])]
#[case("width", "15", &[])]
fn a_tote_of_any_size_brings_its_pocket_and_straps_along(
    #[case] field: &str,
    #[case] value: &str,
    #[case] told: &[&str],
) {
    let before = tote();
    let after = made(&before, &[typed(field, value)]);
    assert_eq!(came(&before, &after, &[field]), told);
}

#[test]
fn what_was_typed_is_not_moved_but_asked_about() {
    let project = made(&tote(), &[typed("pocket_width", "8")]);
    let refused = project.edited(&typed("width", "6")).expect_err("the pocket was asked for");
    assert_eq!(refused[0].field, "pocket_width");
    assert!(refused[0].message.contains("8 in"), "{}", refused[0].message);
    // What came along once may come along again.
    let small = made(&tote(), &[typed("width", "6"), typed("width", "2½"), typed("height", "3")]);
    assert!(small.bag.length("pocket_width").expect("a size") < Length::INCH * 3);
}

/// What does not stand whatever it is tried as is refused as it was: no figure is told that nobody had.
#[test]
fn a_refusal_tells_what_was_there() {
    let refused = tote().edited(&typed("width", "20 m")).expect_err("no strap spans it");
    assert!(
        refused.iter().any(|p| p.field == "strap_length" && p.message.starts_with("24 in of strap")),
        "{refused:?}"
    );
}

#[test]
fn fitted_to_a_thing_the_rest_goes_along() {
    let fit = |width: &str, height: &str| Edit::Fit {
        width: width.into(),
        height: height.into(),
        thick: "1".into(),
        ease: "½".into(),
        above: "0".into(),
    };
    let small = made(&tote(), &[fit("3", "4")]);
    assert!(small.bag.length("pocket_width") < small.bag.length("width"));
    made(&tote(), &[fit("40", "30")]);
}

/// Whatever size is typed into whatever bag, what is refused is that size, a seam, or nothing.
#[rstest]
fn only_what_was_typed_is_refused(
    #[values(
        Family::Tote,
        Family::Pouch,
        Family::Drawstring,
        Family::CrossBody,
        Family::Duffel,
        Family::Caddy,
        Family::Clutch
    )]
    family: Family,
    #[values(System::Inches, System::Centimetres)] system: System,
) {
    let mut project = Project::new("Bag", system);
    project.bag = family.default_for(system);
    let mut bag = project.bag.clone();
    let sizes: Vec<&str> = bag.fields().iter().filter(|f| f.group == Group::Size && f.scales).map(|f| f.key).collect();
    let mut stood = 0;
    for size in &sizes {
        for n in 3..=60_i64 {
            let n = if system == System::Inches { n } else { n * 5 / 2 };
            match project.edited(&typed(size, &n.to_string())) {
                Ok((next, _)) => {
                    stood += 1;
                    assert!(next.bag.draft(next.ruler).is_ok());
                    // Nothing moves that need not.
                    let mut plain: Bag = project.bag.clone();
                    plain.set(size, &n.to_string(), system).expect("reads");
                    let moved = !came(&project, &next, &[size]).is_empty();
                    assert_eq!(moved, plain.draft(project.ruler).is_err(), "{family:?} {size} {n}");
                }
                Err(problems) => {
                    for p in problems {
                        let seam = bag.fields().iter().any(|f| f.key == p.field && f.group == Group::Seams);
                        assert!(p.field == *size || seam, "{family:?} {size} {n}: {p:?}");
                    }
                }
            }
        }
    }
    assert!(stood > sizes.len() * 20, "{stood} of {} stood", sizes.len() * 58);
}
