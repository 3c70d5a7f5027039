//! The ledger of a cloth in the cupboard: by hand, over random histories, and of cloths that were kept before there were
//! ledgers.
#![allow(missing_docs)]

use bofta_core::cloth::{AtHand, HandForm, Material, Scrap, ScrapShape, read_at_hand, say_all};
use bofta_core::lay::Random;
use bofta_core::ledger::{OfBag, What, Why};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::project::ProjectCloth;
use bofta_core::project::kept::{KeptError, read_cloth, write_cloth};
use rstest::rstest;
use serde_json::{Value, json};
use std::collections::BTreeMap;

fn things(text: &str) -> Vec<AtHand> {
    if text.is_empty() { vec![] } else { read_at_hand(text, "Lawn", &[], System::Inches).expect("it is read") }
}

fn lawn(there: &str) -> ProjectCloth {
    let cloth = ProjectCloth::default_for("lawn".into(), "Lawn".into(), Material::Cotton, System::Inches);
    ProjectCloth { at_hand: things(there), ..cloth }.put_in_cupboard(1)
}

fn bag(n: usize) -> OfBag {
    OfBag { project: format!("bag-{n}"), name: format!("Bag {n}") }
}

fn here(cloth: &ProjectCloth) -> String {
    say_all(&cloth.at_hand, System::Inches)
}

fn told(cloth: &ProjectCloth) -> Vec<String> {
    cloth.ledger.iter().map(|e| cloth.tell_entry(e, Ruler::Eighth)).collect()
}

fn does(cloth: &ProjectCloth, at: i64, what: What, value: &str) -> ProjectCloth {
    cloth.changed_in_cupboard(what, value, at).unwrap_or_else(|p| panic!("{what:?} {value}: {p}"))
}

/// Two fat quarters and a yard came in; one quarter is laid with a bag and cut, 9 × 7 in is left; the yard turns out to be
/// 30 in; the remnant is thrown away, which was a mistake.
#[test]
fn an_account_of_a_cloth() {
    let mut cloth = does(&lawn("2 fat quarters"), 2, What::PutIn, "1 yd");
    cloth.lay_with(&bag(1), &things("fat quarter"), 3).expect("there are two");
    assert_eq!(here(&cloth), "fat quarter, 1 yd");
    assert_eq!(cloth.enter_cut(&bag(1), &things("fat quarter"), &things("9 x 7"), 4), Ok(vec![]));
    cloth = does(&cloth, 5, What::Correct, "fat quarter, 30 in, 9 x 7");
    cloth = does(&cloth, 6, What::ThrowAway, "9 x 7");
    assert_eq!(here(&cloth), "fat quarter, 30 in");
    cloth = does(&cloth, 7, What::TakeBack, "6");
    assert_eq!(here(&cloth), "fat quarter, 30 in, 9 × 7 in");
    assert_eq!(
        told(&cloth),
        [
            "2 fat quarters put in",
            "1 yd put in",
            "fat quarter set aside for Bag 1",
            "fat quarter cut for Bag 1, 9 × 7 in left",
            "counted: 30 in instead of 1 yd",
            "9 × 7 in thrown away",
            "undone: 9 × 7 in thrown away",
        ]
    );
    // The cut is taken back: the quarter lies with the bag as before, and goes back from there.
    assert_eq!(cloth.take_cut_back("bag-1", 8), Ok(true));
    assert_eq!((here(&cloth).as_str(), cloth.is_cut_for("bag-1")), ("fat quarter, 30 in", false));
    assert_eq!(cloth.take_cut_back("bag-1", 9), Ok(false));
    cloth.put_back(&bag(1), 9).expect("it lies there");
    assert_eq!(here(&cloth), "2 fat quarters, 30 in");
    assert!(cloth.put_back(&bag(1), 9).is_err());
}

/// Typed again as it is, or in another order, nothing came and nothing went.
#[test]
fn the_same_is_no_entry() {
    let cloth = lawn("fat quarter, 1 yd");
    let turned = does(&cloth, 2, What::Correct, "1 yd, fat quarter");
    assert_eq!((here(&turned).as_str(), turned.ledger.len()), ("1 yd, fat quarter", 1));
    assert_eq!(does(&turned, 3, What::Place, "hall").ledger.len(), 1);
    assert!(lawn("").ledger.is_empty());
    let none = lawn("").changed_in_cupboard(What::ThrowAway, "all", 2).expect_err("there is none");
    assert_eq!(none.message, "Nothing of Lawn is here.");
    // A guess that is measured is another thing.
    let measured = does(&lawn("about 1 yd"), 2, What::Correct, "1 yd");
    assert_eq!(told(&measured)[1], "counted: 1 yd instead of about 1 yd");
}

/// A letter is given once: a scrap that comes later is never told as one that is gone, and one that comes back is itself.
#[test]
fn a_scrap_keeps_its_letter() {
    let mut cloth = does(&lawn(""), 2, What::PutIn, "right triangle 12 x 9, right triangle 9 x 9");
    cloth = does(&cloth, 3, What::ThrowAway, "scrap A");
    cloth = does(&cloth, 4, What::PutIn, "right triangle 8 x 8, half circle 7 across");
    assert_eq!(here(&cloth), "scrap B, scrap C, scrap D");
    cloth = does(&cloth, 5, What::Correct, "scrap B, half circle 9 across");
    assert_eq!(here(&cloth), "scrap B, scrap E");
    assert_eq!(here(&does(&cloth, 6, What::TakeBack, "2")), "scrap B, scrap E, scrap A");
    assert_eq!(here(&does(&cloth, 6, What::PutIn, "right triangle 12 x 9")), "scrap B, scrap E, scrap A");
    // A remnant of a bag is named as any other.
    let corners = ScrapShape::RightTriangle.corners(Length::INCH * 5, Length::INCH * 4, None);
    let remnant = AtHand::one(HandForm::Scrap(Scrap::of("A".into(), corners).expect("an outline")));
    cloth.enter_cut(&bag(1), &things("2 yd"), &[remnant], 7).expect("entered");
    assert_eq!(here(&cloth), "scrap B, scrap E, scrap F");
}

/// Cut from what is there where nothing lies with the bag; what was laid aside and not cut goes back; entered again, it is
/// there once; what was not there is given back and not entered.
#[test]
fn a_cut_is_entered_once() {
    let mut cloth = lawn("2 fat quarters, 2 yd");
    cloth.lay_with(&bag(1), &things("2 fat quarters"), 2).expect("there");
    let used = things("fat quarter, 2 yd, 10 x 12");
    for at in [3, 5] {
        let missing = cloth.enter_cut(&bag(1), &used, &things("1 yd"), at).expect("entered");
        assert_eq!(say_all(&missing, System::Inches), "10 × 12 in");
        assert_eq!(total(&cloth.at_hand), total(&things("1 yd, fat quarter")));
        assert!(cloth.is_cut_for("bag-1") && cloth.ledger.with_bags().is_empty());
    }
    assert_eq!(cloth.take_cut_back("bag-1", 6), Ok(true));
    // One quarter was laid aside before, the other one was put back when it was not cut.
    assert_eq!(total(&cloth.at_hand), total(&things("2 yd, fat quarter")));
    assert_eq!(say_all(cloth.ledger.with_bag("bag-1").all(), System::Inches), "fat quarter");
    // Of cloth that was bought for it, what is left comes in.
    let mut none = lawn("");
    assert_eq!(none.enter_cut(&bag(2), &[], &things("9 x 7"), 2), Ok(vec![]));
    assert_eq!((here(&none).as_str(), told(&none)[0].as_str()), ("9 × 7 in", "9 × 7 in left of Bag 2"));
    // Nothing there, nothing left: nothing is entered.
    assert_eq!(lawn("").enter_cut(&bag(2), &things("1 yd"), &[], 2).map(|m| m.len()), Ok(1));
}

/// What a bag left and another one took stays on the account until that one is taken back.
#[test]
fn what_was_taken_since_is_told() {
    let mut cloth = lawn("fat quarter");
    cloth.enter_cut(&bag(1), &things("fat quarter"), &things("9 x 7"), 2).expect("entered");
    cloth.enter_cut(&bag(2), &things("9 x 7"), &[], 3).expect("entered");
    let before = cloth.clone();
    let refused = cloth.take_cut_back("bag-1", 4).expect_err("the second has it").to_string();
    assert_eq!(refused, "Bag 2 has 9 × 7 in, which Bag 1 left. Undo that entry first.");
    assert!(cloth.enter_cut(&bag(1), &things("fat quarter"), &[], 4).is_err());
    assert_eq!(cloth, before);
    assert_eq!((cloth.take_cut_back("bag-2", 4), cloth.take_cut_back("bag-1", 5)), (Ok(true), Ok(true)));
    assert_eq!(here(&cloth), "fat quarter");
    // Thrown away, it is not taken back in silence either.
    cloth.enter_cut(&bag(1), &things("fat quarter"), &things("9 x 7"), 6).expect("entered");
    cloth = does(&cloth, 7, What::ThrowAway, "all");
    let refused = cloth.take_cut_back("bag-1", 8).expect_err("it is gone").to_string();
    assert_eq!(refused, "This entry can’t be undone, because 9 × 7 in is gone.");
}

/// Kept again from a bag, a cloth is as the bag has it; what lies with that bag is not counted twice, and what it cut does
/// not come back.
#[test]
fn a_cloth_kept_from_a_bag_is_not_there_twice() {
    let mut cloth = does(&lawn("2 fat quarters"), 2, What::Place, "hall");
    let of_bag = ProjectCloth { name: "Lawn, pressed".into(), ..cloth.for_project() };
    cloth.lay_with(&bag(1), &things("fat quarter"), 3).expect("there");
    let kept = cloth.kept_from(&of_bag, "bag-1", 4).expect("kept");
    assert_eq!(
        (here(&kept).as_str(), kept.name.as_str(), kept.place.as_str()),
        ("fat quarter", "Lawn, pressed", "hall")
    );
    assert_eq!(kept.ledger, cloth.ledger, "nothing came and nothing went");
    // What is set aside for one bag is not there for another, whatever that one says it has.
    let other = cloth.kept_from(&of_bag, "bag-2", 4).expect("kept");
    assert_eq!((here(&other).as_str(), &other.ledger), ("fat quarter", &cloth.ledger));
    cloth.enter_cut(&bag(1), &things("fat quarter"), &things("9 x 7"), 5).expect("entered");
    let kept = cloth.kept_from(&of_bag, "bag-1", 6).expect("kept");
    assert_eq!((here(&kept).as_str(), kept.ledger.len()), ("fat quarter, 9 × 7 in", cloth.ledger.len()));
}

#[rstest]
#[case(What::PutIn, "", "put_in", "Type what you add")]
#[case(What::PutIn, "300 squares of 5 in", "put_in", "at most")]
#[case(What::PutIn, "scrap B", "put_in", "scrap")]
#[case(What::ThrowAway, "", "throw_away", "Type what to remove")]
#[case(What::ThrowAway, "none", "throw_away", "Type what to remove")]
#[case(
    What::ThrowAway,
    "1/2 yd",
    "throw_away",
    "You have no ½ yd of Lawn in one piece. Here: 2 fat quarters, 1 yd, scrap A."
)]
#[case(What::ThrowAway, "3 fat quarters", "throw_away", "You have no fat quarter of Lawn in one piece")]
#[case(What::ThrowAway, "scrap C", "throw_away", "no scrap C")]
#[case(What::ThrowAway, "a lot", "throw_away", "a lot")]
#[case(What::Correct, "many", "at_hand", "many")]
#[case(What::TakeBack, "0", "take_back", "Entry 0 does not exist")]
#[case(What::TakeBack, "7", "take_back", "Entry 7 does not exist")]
#[case(What::TakeBack, "-1", "take_back", "Entry 0 does not exist")]
#[case(What::TakeBack, "first", "take_back", "Entry 0 does not exist")]
#[case(What::TakeBack, "1", "take_back", "Bag 1 has fat quarter")]
#[case(What::Place, "a place that is told at a length no label on any crate has room for", "place", "60 characters")]
fn what_cannot_be_says_why(#[case] what: What, #[case] value: &str, #[case] field: &str, #[case] says: &str) {
    let mut cloth = lawn("3 fat quarters, 1 yd, right triangle 12 x 9");
    cloth.lay_with(&bag(1), &things("fat quarter"), 2).expect("there");
    let problem = cloth.changed_in_cupboard(what, value, 3).expect_err("refused");
    assert_eq!(problem.field, field);
    assert!(problem.message.contains(says), "{problem}");
}

/// As many of each as there are, by what they are called; a scrap by its outline.
fn total(things: &[AtHand]) -> BTreeMap<String, u32> {
    let mut all = BTreeMap::new();
    for t in things {
        let name = match &t.form {
            HandForm::Scrap(scrap) => format!("{:?}", scrap.outline),
            _ => AtHand { count: 1, ..t.clone() }.say(System::Inches),
        };
        *all.entry(name).or_default() += t.count;
    }
    all
}

/// Over random histories of all that can be done: what came in is what is there, what lies with bags and what went out, by
/// a recount of the entries that stand; what is refused changes nothing; kept and read it is the same.
#[test]
fn nothing_is_lost_on_the_account() {
    const SAID: [&str; 7] =
        ["fat quarter", "2 of 9 x 12", "1 yd", "about 1 yd", "right triangle 12 x 9", "half circle 9 across", "30 in"];
    let mut random = Random::new(7);
    let (mut kept, mut refused, mut undone) = (0, 0, 0);
    for _ in 0..150 {
        let mut cloth = lawn(SAID[random.below(4)]);
        for at in 2..32 {
            let n = random.below(3);
            let said = SAID[random.below(SAID.len())];
            let some = match cloth.at_hand.len() {
                0 => things(said),
                many => vec![AtHand { count: 1, ..cloth.at_hand[random.below(many)].clone() }],
            };
            let number = 1 + random.below(cloth.ledger.len() + 1);
            let mut next = cloth.clone();
            let done = match random.below(9) {
                0 | 1 => cloth.changed_in_cupboard(What::PutIn, said, at).map(|c| next = c).is_ok(),
                2 => {
                    let gone = say_all(&some, System::Inches);
                    cloth.changed_in_cupboard(What::ThrowAway, &gone, at).map(|c| next = c).is_ok()
                }
                3 => cloth.changed_in_cupboard(What::Correct, said, at).map(|c| next = c).is_ok(),
                4 => next.lay_with(&bag(n), &some, at).is_ok(),
                5 => next.put_back(&bag(n), at).is_ok(),
                6 => next.enter_cut(&bag(n), &some, &things(said), at).is_ok(),
                7 => next.take_cut_back(&bag(n).project, at) == Ok(true),
                _ => {
                    let back = cloth.changed_in_cupboard(What::TakeBack, &number.to_string(), at);
                    undone += usize::from(back.is_ok());
                    back.map(|c| next = c).is_ok()
                }
            };
            if !done {
                assert_eq!(next, cloth);
                refused += 1;
                continue;
            }
            kept += 1;
            cloth = next;
            let (mut came, mut went) = (vec![], cloth.at_hand.clone());
            cloth.ledger.with_bags().iter().for_each(|(_, things)| went.extend(things.all().to_vec()));
            for (_, entry) in cloth.ledger.standing() {
                match entry.why {
                    Why::PutIn | Why::ThrownAway | Why::Corrected | Why::Used { .. } => {
                        came.extend(entry.came.all().to_vec());
                        went.extend(entry.went.all().to_vec());
                    }
                    Why::Taken { .. } | Why::PutBack { .. } | Why::TakenBack { .. } => {}
                }
            }
            assert_eq!(total(&came), total(&went), "{:#?}", told(&cloth));
            let can: Vec<u32> = (0..=cloth.ledger.len() as u32)
                .filter(|n| cloth.changed_in_cupboard(What::TakeBack, &n.to_string(), at).is_ok())
                .collect();
            assert!(cloth.ledger.can_be_taken_back().into_iter().eq(can), "{:#?}", told(&cloth));
        }
        let text = write_cloth(&cloth).expect("it adds up");
        assert_eq!(read_cloth(&text).as_ref(), Ok(&cloth));
        let letters: Vec<&str> = bofta_core::cloth::scraps(&cloth.at_hand).map(|s| s.label.as_str()).collect();
        assert!(letters.iter().all(|l| letters.iter().filter(|other| other == &l).count() == 1), "{letters:?}");
    }
    assert!(kept > 1_500 && refused > 300 && undone > 100, "{kept} {refused} {undone}");
}

/// The cloth as it was kept before there were ledgers: what is there, and what bags took and left.
fn of_before(there: &[AtHand], cut: &[(usize, Vec<AtHand>, Vec<AtHand>)]) -> Value {
    let text = write_cloth(&lawn("")).expect("kept");
    let mut all: Value = serde_json::from_str(&text).expect("JSON");
    all["version"] = json!(1);
    all["document"]["at_hand"] = serde_json::to_value(there).expect("JSON");
    let booked = |(n, took, left): &(usize, Vec<AtHand>, Vec<AtHand>)| json!({ "project": bag(*n).project, "name": bag(*n).name, "took": took, "left": left });
    all["document"]["cut"] = cut.iter().map(booked).collect();
    all
}

/// It opens as it was; what bags took and left can be taken back as before.
#[test]
fn an_account_of_before_becomes_a_ledger() {
    let cut = [(1, things("fat quarter"), things("9 x 7")), (2, things("9 x 7"), vec![])];
    let text = of_before(&things("fat quarter, about 1 yd"), &cut).to_string();
    let mut cloth = read_cloth(&text).expect("read");
    assert_eq!(here(&cloth), "fat quarter, about 1 yd");
    assert_eq!(
        told(&cloth),
        [
            "2 fat quarters, about 1 yd put in".to_owned(),
            "fat quarter set aside for Bag 1".to_owned(),
            "fat quarter cut for Bag 1, 9 × 7 in left".to_owned(),
            "9 × 7 in set aside for Bag 2".to_owned(),
            "9 × 7 in sewn into Bag 2".to_owned(),
        ]
    );
    assert!(cloth.ledger.iter().all(|e| e.at == 0));
    assert!(cloth.take_cut_back("bag-1", 1).is_err());
    assert_eq!((cloth.take_cut_back("bag-2", 1), cloth.take_cut_back("bag-1", 2)), (Ok(true), Ok(true)));
    assert_eq!(total(&cloth.at_hand), total(&things("2 fat quarters, about 1 yd")));
}

/// Whatever was kept before, though it did not add up: what is there is there, and now it adds up.
#[test]
fn whatever_was_kept_before_opens() {
    const SAID: [&str; 5] = ["fat quarter", "2 of 9 x 12", "1 yd", "about 1 yd", "right triangle 12 x 9"];
    let mut random = Random::new(11);
    let mut counted = 0;
    for _ in 0..400 {
        let mut some = |most: usize| -> Vec<AtHand> {
            (0..random.below(most)).flat_map(|_| things(SAID[random.below(SAID.len())])).collect()
        };
        let (there, cut): (Vec<AtHand>, Vec<_>) = (some(4), (0..3).map(|n| (n, some(3), some(3))).collect());
        let cloth = read_cloth(&of_before(&there, &cut).to_string()).expect("read");
        assert_eq!(total(&cloth.at_hand), total(&there));
        assert_eq!(read_cloth(&write_cloth(&cloth).expect("it adds up")).as_ref(), Ok(&cloth));
        counted += usize::from(told(&cloth).last().is_some_and(|t| t.starts_with("counted: ")));
    }
    assert!(counted > 50, "{counted} did not add up before");
}

/// A file somebody changed so that its entries do not come to what is there is seen.
#[test]
fn entries_that_do_not_add_up_are_seen() {
    let cloth = does(&lawn("2 fat quarters"), 2, What::ThrowAway, "fat quarter");
    let whole: Value = serde_json::from_str(&write_cloth(&cloth).expect("kept")).expect("JSON");
    let broken = |change: fn(&mut Value)| {
        let mut all = whole.clone();
        change(&mut all["document"]);
        read_cloth(&all.to_string())
    };
    for change in [
        (|d| d["at_hand"][0]["count"] = json!(2)) as fn(&mut Value),
        |d| d["at_hand"] = json!([]),
        |d| d["ledger"] = json!([]),
        |d| d["ledger"][1]["went"][0]["count"] = json!(3),
        |d| d["ledger"][1]["why"] = json!({ "taken-back": { "entry": 2 } }),
        |d| d["ledger"][0]["came"][0]["count"] = json!(1_000_000),
    ] {
        assert!(matches!(broken(change), Err(KeptError::Damaged(_))));
    }
    assert!(broken(|_| ()).is_ok());
    // What does not add up is not kept either.
    assert!(write_cloth(&ProjectCloth { at_hand: things("1 yd"), ..cloth }).is_err());
}
