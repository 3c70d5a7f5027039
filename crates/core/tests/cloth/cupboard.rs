//! The cupboard: what is put in and put right, where it is kept, and what is found by words, colours and sizes.
#![allow(missing_docs)]

use bofta_core::bag::Row;
use bofta_core::cloth::{HandForm, Print, say_all};
use bofta_core::lay::{Budget, Random, Silent, Stop, solve, verify};
use bofta_core::ledger::What;
use bofta_core::measure::{Length, System};
use bofta_core::piece::Part;
use bofta_core::project::{Edit, Look, Pattern, Project, ProjectCloth, Wanted};
use proptest::prelude::*;
use rstest::rstest;

fn cloth(name: &str, system: System, there: &str) -> ProjectCloth {
    let new = ProjectCloth::new_in_cupboard(name, "cotton", system, &[]).expect("a cloth");
    new.changed_in_cupboard(What::PutIn, there, 0).unwrap_or_else(|e| panic!("{there}: {e}"))
}

fn in_colour(ground: &str, figure: &str) -> Vec<&'static str> {
    Look::new(Pattern::Plain, ground, figure).colours()
}

#[test]
fn more_is_put_in_and_what_is_there_is_put_right() {
    let lawn = cloth("Seed lawn", System::Inches, "half a yard");
    let more = lawn.changed_in_cupboard(What::PutIn, "2 fat quarters, right triangle 12 x 9", 0).expect("put in");
    assert_eq!(say_all(&more.at_hand, System::Inches), "½ yd, 2 fat quarters, scrap A");
    let again = more.changed_in_cupboard(What::PutIn, "fat quarter, right triangle 9 x 9", 0).expect("put in");
    assert_eq!(say_all(&again.at_hand, System::Inches), "½ yd, 3 fat quarters, scrap A, scrap B");
    let right = again.changed_in_cupboard(What::Correct, "scrap B", 0).expect("put right");
    assert_eq!(say_all(&right.at_hand, System::Inches), "scrap B");
    assert_eq!(right.changed_in_cupboard(What::Correct, "none", 0).expect("gone").at_hand, []);
    let placed = right.changed_in_cupboard(What::Place, "  blue   crate ", 0).expect("a place");
    assert_eq!(placed.place, "blue crate");
}

#[rstest]
#[case(What::PutIn, "", "put_in")]
#[case(What::PutIn, "some", "put_in")]
#[case(What::PutIn, "a quarter", "put_in")]
#[case(What::PutIn, "300 squares of 5 in", "put_in")]
#[case(What::PutIn, "scrap A", "put_in")]
#[case(What::Correct, "many", "at_hand")]
#[case(What::Place, "a place that is told at a length no label on any crate has room for", "place")]
fn what_is_not_understood_is_told(#[case] field: What, #[case] value: &str, #[case] named: &str) {
    let before = cloth("Seed lawn", System::Inches, "half a yard");
    let problem = before.changed_in_cupboard(field, value, 0).expect_err("refused");
    assert_eq!(problem.field, named, "{problem}");
}

#[test]
fn a_new_cloth_has_a_name_and_a_look_of_its_own() {
    let new = |name: &str, names: &[&str]| ProjectCloth::new_in_cupboard(name, "canvas", System::Centimetres, names);
    assert_eq!(
        new("  Moss canvas ", &[]).map(|c| (c.id, c.name)).expect("new"),
        ("moss-canvas".into(), "Moss canvas".into())
    );
    assert_eq!(new("Moss", &["Moss"]).expect_err("taken").field, "name");
    assert_eq!(new(" ", &[]).expect_err("no name").field, "name");
    assert_eq!(
        ProjectCloth::new_in_cupboard("Moss", "tin", System::Inches, &[]).expect_err("no cloth").field,
        "material"
    );
    let (one, other) = (new("One", &[]).expect("new"), new("Other", &["One"]).expect("new"));
    assert_ne!(one.look.ground, other.look.ground);
    assert_eq!(
        (one.own_system(), cloth("Inch", System::Inches, "1 yd").own_system()),
        (System::Centimetres, System::Inches)
    );
}

#[rstest]
#[case("holds 12 x 9 in", &[], Some((12.0, 9.0)))]
#[case("green, 12 x 9 in", &["green"], Some((12.0, 9.0)))]
#[case("HOLDS 12in × 9in, Blue Crate", &["blue", "crate"], Some((12.0, 9.0)))]
#[case("lawn", &["lawn"], None)]
#[case("", &[], None)]
#[case("30 by 20 cm", &[], Some((30.0 / 2.54, 20.0 / 2.54)))]
fn what_is_looked_for_is_read(#[case] text: &str, #[case] words: &[&str], #[case] size: Option<(f64, f64)>) {
    let wanted = Wanted::read(text).expect("read");
    assert_eq!(wanted.words, words);
    let inches = |l: Length| l.0 as f64 / Length::INCH.0 as f64;
    match (wanted.size, size) {
        (None, None) => {}
        (Some((a, b)), Some((x, y))) => assert!((inches(a) - x).abs() < 1e-6 && (inches(b) - y).abs() < 1e-6),
        other => panic!("{text}: {other:?}"),
    }
}

/// A size without a unit is never guessed: every answer is read.
#[test]
fn a_size_without_a_unit_is_asked_about() {
    let asked = Wanted::read("green, holds 12 x 9").expect_err("asked");
    let read: Vec<Wanted> = asked.answers.iter().map(|a| Wanted::read(&a.text).expect("read")).collect();
    assert_eq!(read.len(), 2);
    assert!(read.iter().all(|w| w.words == ["green"] && w.size.is_some()) && read[0].size != read[1].size);
    assert!(Wanted::read("12 x 9 in, 3 x 4 in").is_err());
    assert!(Wanted::read("12 x in").is_err());
}

#[test]
fn cloth_is_found_by_its_words_its_colours_and_its_place() {
    let mut lawn = cloth("Seed lawn", System::Inches, "half a yard");
    lawn.look = Look::new(Pattern::Plain, "#4F7A4B", "#7B3550");
    lawn.place = "Blue crate".into();
    let found = |text: &str| Wanted::read(text).expect("read").of(&lawn, &Stop::new()).is_some();
    assert!(["seed", "lawn green", "cotton", "blue crate", "crate, green"].into_iter().all(found));
    assert!(!["yellow", "red lawn", "canvas", "tin"].into_iter().any(found));
    for (hex, name) in [
        ("#B4474B", "red"),
        ("#F2A6B8", "pink"),
        ("#E08A2E", "orange"),
        ("#E3C23A", "yellow"),
        ("#4F7A4B", "green"),
        ("#4A6FA5", "blue"),
        ("#6B4A8E", "purple"),
        ("#6B4A2F", "brown"),
        ("#F3E6CC", "cream"),
        ("#FFFFFF", "white"),
        ("#101010", "black"),
        ("#8A8A8A", "grey"),
    ] {
        assert!(in_colour(hex, hex).contains(&name), "{hex} is {name}: {:?}", in_colour(hex, hex));
    }
    assert_eq!(in_colour("nonsense", "#12"), Vec::<&str>::new());
}

/// By hand: a yard of 44 in cotton loses ½ in at both selvedges and both ends, 35 × 43 can be used.
#[test]
fn what_holds_a_size_is_found() {
    let lawn = cloth("Seed lawn", System::Inches, "1 yd, 9 x 14, right triangle 12 x 12");
    let things = |text: &str| Wanted::read(text).expect("read").of(&lawn, &Stop::new()).map(|f| f.things);
    assert_eq!(things("35 x 43 in"), Some(vec![0]));
    assert_eq!(things("35 1/8 x 43 in"), None);
    // All-over cotton may be turned.
    assert_eq!(things("14 x 9 in"), Some(vec![0, 1]));
    assert_eq!(things("6 x 6 in"), Some(vec![0, 1, 2]), "the largest square of that triangle is 6");
    assert_eq!(things("6 1/8 x 6 in"), Some(vec![0, 1]));
    let one_way = ProjectCloth { print: Print::OneWay, ..lawn };
    let things = |text: &str| Wanted::read(text).expect("read").of(&one_way, &Stop::new()).map(|f| f.things);
    assert_eq!(things("14 x 9 in"), Some(vec![0]));
    assert_eq!(things("9 x 14 in"), Some(vec![0, 1]));
}

/// Once nobody waits nothing more is looked at: what was not looked at is not said to hold it.
#[test]
fn a_search_that_is_stopped_claims_nothing() {
    let lawn = cloth("Seed lawn", System::Inches, "1 yd, 9 x 14");
    let stop = Stop::new();
    stop.ask();
    assert_eq!(Wanted::read("3 x 3 in").expect("read").of(&lawn, &stop), None);
}

proptest! {
    /// Whatever is typed is an answer; what is found holds the size by separate arithmetic.
    #[test]
    fn nothing_typed_brings_it_down(text in "[0-9a-z½ .,x×\"]{0,30}") {
        let _ = Wanted::read(&text);
    }

    #[test]
    fn a_sheet_holds_what_is_no_larger(w in 1_i64..40, h in 1_i64..40, a in 1_i64..40, b in 1_i64..40) {
        let inch = |n: i64| Length::INCH * n;
        let lawn = cloth("Seed lawn", System::Inches, "half a yard");
        let sheet = HandForm::Sheet { length: inch(h), width: inch(w) };
        let fits = (a <= h && b <= w) || (b <= h && a <= w);
        prop_assert_eq!(lawn.thing_holds(&sheet, (inch(a), inch(b))), fits);
    }
}

/// What is said to hold a size is asked to: a bag of one piece of that size is laid on it, by the search and checked by the
/// code that checks lays. Where a length or a sheet is said not to hold it, the search finds no place either.
#[test]
fn what_is_said_to_hold_a_piece_is_laid_with_it() {
    let said = [
        "half a yard",
        "fat quarter",
        "9 x 14",
        "right triangle 15 x 12",
        "even wedge 14 to 9 x 12",
        "half circle 20 across",
        "20 x 20 less 8 x 8 far right",
        "11 x 40",
    ];
    let random = &mut Random::new(27);
    let (mut held, mut not) = (0, 0);
    for (n, phrase) in said.iter().cycle().take(160).enumerate() {
        let print = [Print::AllOver, Print::OneWay][random.below(2)];
        let lawn = ProjectCloth { print, ..cloth("Seed lawn", System::Inches, phrase) };
        let (along, across) = (1 + random.below(44), 1 + random.below(44));
        // Half inches: sizes that fit by the width of a thread are asked as well.
        let half = |n: usize| Length::inches(n as i64, 2);
        let holds = lawn.thing_holds(&lawn.at_hand[0].form, (half(along), half(across)));
        let mut project = Project::new("Trial", System::Inches);
        // A print without a way up lets a piece be turned; the row says that it may.
        let any_way = print == Print::AllOver;
        let row = Row { any_way, ..Row::new("Piece", Part::Outer, 1, half(across), half(along)) };
        for edit in [
            Edit::Rows { rows: vec![row], bought: vec![] },
            Edit::AddCloth { name: "Seed lawn".into(), material: "cotton".into() },
        ] {
            project = project.edited(&edit).unwrap_or_else(|p| panic!("{n}: {p:?}")).0;
        }
        project.cloths[0] = ProjectCloth { id: project.cloths[0].id.clone(), buy_more: false, ..lawn };
        let planned = project.plan().expect("drafts");
        let laid = planned.job.and_then(|job| {
            let lay = solve(&job, Budget::iterations(60), &mut Silent).ok()?;
            assert!(verify(&job, &lay).is_empty(), "{n}: {phrase}");
            Some(lay.complete())
        });
        let is_scrap = matches!(project.cloths[0].at_hand[0].form, HandForm::Scrap(_));
        let told = format!("{n}: {along}/2 × {across}/2 on {phrase}, {print:?}");
        if holds {
            held += 1;
            assert_eq!(laid, Some(true), "{told} is said to hold it");
        } else {
            not += 1;
            // On a scrap a piece may lie askew of the largest rectangle that was looked for.
            assert!(is_scrap || laid != Some(true), "{told} is said not to hold it");
        }
    }
    assert!(held > 30 && not > 30, "{held} held, {not} not");
}
