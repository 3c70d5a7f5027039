//! Pieces apart from their part, any of several cloths, never from one; things put right; test squares.

use bofta_core::FieldProblem;
use bofta_core::cloth::say_all;
use bofta_core::lay::{Budget, Job, Lay, Silent, solve, verify};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Part;
use bofta_core::project::{ClothField, Edit, Project, ways_out};
use rstest::rstest;
use std::collections::BTreeSet;

fn made(project: &Project, edits: &[Edit]) -> Project {
    edits.iter().fold(project.clone(), |p, e| p.edited(e).unwrap_or_else(|why| panic!("{e:?}: {why:?}")).0)
}

fn refused(project: &Project, edit: &Edit) -> FieldProblem {
    project.edited(edit).expect_err("refused").remove(0)
}

fn add(name: &str) -> Edit {
    Edit::AddCloth { name: name.into(), material: "canvas".into() }
}

fn field(cloth: &str, field: ClothField, value: &str) -> Edit {
    Edit::Cloth { cloth: cloth.into(), field, value: value.into() }
}

fn assign(part: &str, cloth: &str) -> Edit {
    Edit::Assign { part: part.into(), cloth: cloth.into() }
}

/// A tote in moss, with rust beside it.
fn tote() -> Project {
    let parts = ["outer", "lining", "straps", "pocket"].map(|p| assign(p, "moss"));
    let all: Vec<Edit> = [add("Moss"), add("Rust")].into_iter().chain(parts).collect();
    made(&Project::new("Tote", System::Inches), &all)
}

fn laid(project: &Project) -> (Job, Lay) {
    let job = project.plan().expect("drafts").job.expect("a job");
    let lay = solve(&job, Budget::iterations(60), &mut Silent).expect("laid");
    assert!(verify(&job, &lay).is_empty());
    (job, lay)
}

fn on(lay: &Lay, cloth: &str) -> BTreeSet<String> {
    let of = lay.cloths.iter().filter(|c| c.cloth.split('#').next() == Some(cloth));
    of.flat_map(|c| &c.placements).map(|p| p.piece.clone()).collect()
}

fn piece(id: &str, cloth: Option<&str>) -> Edit {
    Edit::AssignPiece { piece: id.into(), cloth: cloth.map(str::to_owned) }
}

#[test]
fn one_piece_may_come_from_a_cloth_of_its_own() {
    let apart = made(&tote(), &[piece("strap", Some("rust"))]);
    let (_, lay) = laid(&apart);
    assert_eq!(on(&lay, "rust"), BTreeSet::from(["strap".to_owned()]));
    assert!(!on(&lay, "moss").contains("strap"));
    let draft = apart.plan().expect("drafts").draft;
    let strap = draft.pieces.iter().find(|p| p.id == "strap").expect("a strap");
    assert_eq!(apart.cloth_for(strap).map(|c| c.id.as_str()), Some("rust"));
    assert_eq!(apart.cloth_of(Part::Straps).map(|c| c.id.as_str()), Some("moss"));
    // As its part again, it is as it was.
    assert_eq!(made(&apart, &[piece("strap", None)]), tote());
    // Its cloth gone, it is cut as its part.
    let gone = made(&apart, &[Edit::RemoveCloth { cloth: "rust".into() }]);
    assert!(gone.dressing.is_empty());
    assert!(gone.plan().expect("drafts").unassigned.is_empty());
    // Swapped, what was in one is in the other.
    let swapped = made(&apart, &[Edit::SwapCloths { one: "moss".into(), other: "rust".into() }]);
    assert_eq!(swapped.dressing.own["strap"], ["moss"]);
}

#[test]
fn a_part_all_of_whose_pieces_have_cloths_of_their_own_needs_none() {
    let bare = made(&tote(), &[Edit::Unassign { part: "straps".into(), cloth: "moss".into() }]);
    assert_eq!(bare.plan().expect("drafts").unassigned, [Part::Straps]);
    let apart = made(&bare, &[piece("strap", Some("rust"))]);
    assert!(apart.plan().expect("drafts").unassigned.is_empty());
}

#[rstest]
#[case(piece("no-such-piece", Some("rust")), "piece")]
#[case(piece("strap", Some("no-such-cloth")), "cloth")]
#[case(piece("no-such-piece", None), "piece")]
#[case(Edit::NeverFrom { part: "outer".into(), cloth: "moss".into(), never: true }, "cloth")]
#[case(Edit::NeverFrom { part: "outer".into(), cloth: "none".into(), never: true }, "cloth")]
#[case(Edit::NeverFrom { part: "sleeve".into(), cloth: "rust".into(), never: true }, "part")]
#[case(Edit::AnyCloth { part: "sleeve".into(), any: true }, "part")]
#[case(Edit::PutRight { cloth: "moss".into(), thing: 0, text: "18 x 22".into() }, "thing")]
fn what_cannot_be_dressed_so_is_refused_by_name(#[case] edit: Edit, #[case] named: &str) {
    assert_eq!(refused(&tote(), &edit).field, named);
}

#[test]
fn what_is_kept_as_a_try_has_its_pieces_apart() {
    let apart = made(&tote(), &[piece("strap", Some("rust")), Edit::KeepTry { name: "Rust straps".into() }]);
    let plain = made(&apart, &[piece("strap", None)]);
    assert!(!plain.is_dressed_as(&plain.tries[0]));
    let again = made(&plain, &[Edit::TakeTry { name: "Rust straps".into() }]);
    assert_eq!(again, apart);
    assert!(again.is_dressed_as(&again.tries[0]));
}

/// A cloth a part is never to be cut from is no way out, however short it runs; put on it by hand it may be.
#[test]
fn never_is_no_way_out() {
    let short = made(&tote(), &[field("moss", ClothField::AtHand, "half a yard")]);
    let offered = |project: &Project| -> Vec<String> {
        let planned = project.plan().expect("drafts");
        let job = planned.job.clone().expect("a job");
        let lay = solve(&job, Budget::iterations(30), &mut Silent).expect("laid");
        assert!(!lay.complete());
        ways_out(project, &planned, &lay).into_iter().map(|w| w.name).filter(|n| n.contains("Rust")).collect()
    };
    let all = offered(&short);
    assert!(all.iter().any(|n| n.starts_with("Cut the outer from Rust")), "{all:?}");
    let never = Edit::NeverFrom { part: "outer".into(), cloth: "rust".into(), never: true };
    let forbidden = made(&short, std::slice::from_ref(&never));
    let fewer = offered(&forbidden);
    assert!(!fewer.iter().any(|n| n.starts_with("Cut the outer from Rust")), "{fewer:?}");
    assert_eq!(fewer.len() + 1, all.len());
    let by_hand = made(&forbidden, &[Edit::AssignAlso { part: "outer".into(), cloth: "rust".into() }]);
    assert!(by_hand.dressing.is_empty());
    let again = Edit::NeverFrom { part: "outer".into(), cloth: "rust".into(), never: false };
    assert_eq!(made(&forbidden, &[again]), short);
}

/// In order, the first cloth is bought though the second costs a tenth; from any, the cheap one is. One answer is right.
#[test]
fn any_of_several_takes_the_least() {
    let priced = made(
        &tote(),
        &[
            field("moss", ClothField::Price, "20"),
            field("rust", ClothField::Price, "2"),
            Edit::AssignAlso { part: "lining".into(), cloth: "rust".into() },
        ],
    );
    let lining = |project: &Project| {
        let (_, lay) = laid(project);
        (on(&lay, "moss").contains("lining-panel"), on(&lay, "rust").contains("lining-panel"), lay.cost)
    };
    let (moss, rust, dear) = lining(&priced);
    assert_eq!((moss, rust), (true, false));
    let any = made(&priced, &[Edit::AnyCloth { part: "lining".into(), any: true }]);
    let (moss, rust, cheap) = lining(&any);
    assert_eq!((moss, rust), (false, true));
    assert!(cheap < dear, "{cheap:?} {dear:?}");
    assert_eq!(made(&any, &[Edit::AnyCloth { part: "lining".into(), any: false }]), priced);
}

#[rstest]
#[case("2 fat quarters, 1 yd", 0, "3 fat quarters", "3 fat quarters, 1 yd")]
#[case("2 fat quarters, 1 yd", 1, "1⅛ yd", "2 fat quarters, 1⅛ yd")]
#[case("2 fat quarters, 1 yd", 0, "", "1 yd")]
#[case("2 fat quarters, 1 yd", 1, "a fat quarter", "3 fat quarters")]
#[case("18 × 22 in, 1 yd", 0, "17 1/2 x 22, 9 x 9", "17½ × 22 in, 9 × 9 in, 1 yd")]
#[case("10 × 12 in", 0, "about 10 x 12", "about 10 × 12 in")]
fn one_thing_is_put_right_where_it_lies(
    #[case] there: &str,
    #[case] thing: usize,
    #[case] typed: &str,
    #[case] then: &str,
) {
    let before = made(&tote(), &[field("moss", ClothField::AtHand, there)]);
    let after = made(&before, &[Edit::PutRight { cloth: "moss".into(), thing, text: typed.into() }]);
    assert_eq!(say_all(&after.cloths[0].at_hand, System::Inches), then);
}

#[test]
fn what_is_asked_of_one_thing_is_answered_for_it_alone() {
    let before = made(&tote(), &[field("moss", ClothField::AtHand, "2 fat quarters, 1 yd")]);
    let why = refused(&before, &Edit::PutRight { cloth: "moss".into(), thing: 1, text: "a quarter".into() });
    assert_eq!(why.field, "at_hand");
    let answer = why.answers.first().expect("an answer").text.clone();
    let after = made(&before, &[Edit::PutRight { cloth: "moss".into(), thing: 1, text: answer }]);
    assert_eq!(after.cloths[0].at_hand.len(), 2);
    assert_eq!(after.cloths[0].at_hand[0], before.cloths[0].at_hand[0]);
}

/// A square of 10 in that came out 9⅝ by 9⅞ lost 3.75 % along and 1.25 % across: 36 in wash down to 34.65.
#[test]
fn a_test_square_says_what_washing_takes() {
    let washed = made(
        &tote(),
        &[
            field("moss", ClothField::WashFirst, "yes"),
            field("moss", ClothField::TestAlong, "9 5/8"),
            field("moss", ClothField::TestAcross, "9 7/8"),
        ],
    );
    let shrink = washed.cloths[0].shrink();
    assert_eq!((shrink.along, shrink.across), (37_500, 12_500));
    assert_eq!((Length::INCH * 36).shrunk(shrink.along), Length::inches(3_465, 100));
    let usual = made(&tote(), &[field("moss", ClothField::WashFirst, "yes")]).cloths[0].shrink();
    // A direction that is not measured is as usual, and a larger square says less of the same loss.
    let one = made(&washed, &[field("moss", ClothField::TestAcross, "")]);
    assert_eq!((one.cloths[0].shrink().along, one.cloths[0].shrink().across), (37_500, usual.across));
    let larger =
        [("20", ClothField::TestSquare), ("19 1/4", ClothField::TestAlong), ("19 3/4", ClothField::TestAcross)];
    let larger = larger.map(|(typed, of)| field("moss", of, typed));
    let twice = made(&made(&tote(), &[field("moss", ClothField::WashFirst, "yes")]), &larger);
    assert_eq!(twice.cloths[0].shrink(), shrink);
    let none = made(&washed, &[field("moss", ClothField::TestAcross, ""), field("moss", ClothField::TestAlong, "")]);
    assert_eq!((none.cloths[0].tested, none.cloths[0].shrink()), (None, usual));
}

#[rstest]
#[case(ClothField::TestAlong, "10 1/8", "test_along")]
#[case(ClothField::TestAcross, "6", "test_across")]
#[case(ClothField::TestSquare, "1", "test_square")]
#[case(ClothField::TestSquare, "3 yd", "test_square")]
#[case(ClothField::TestAlong, "wide", "test_along")]
#[case(ClothField::Weight, "heavy", "weight")]
#[case(ClothField::Weight, "0", "weight")]
#[case(ClothField::Weight, "9000 g", "weight")]
#[case(ClothField::Weight, "7 stone", "weight")]
fn squares_and_weights_that_cannot_be_are_refused(#[case] of: ClothField, #[case] typed: &str, #[case] named: &str) {
    let why = refused(&tote(), &field("moss", of, typed));
    assert_eq!(why.field, named);
    assert!(why.message.ends_with('.') || why.message.ends_with('?'), "{}", why.message);
}

/// An ounce to the square yard is 33.9 g to the square metre (28.3495 g over 0.8361 m²).
#[rstest]
#[case("240 g", 240)]
#[case("240gsm", 240)]
#[case("240 g/m2", 240)]
#[case("7 oz./yd²", 237)]
#[case("7 oz", 237)]
#[case("7", 237)]
#[case("4½ oz", 153)]
#[case("4.5", 153)]
fn weights_are_read_as_they_are_said(#[case] typed: &str, #[case] grams: u32) {
    assert_eq!(made(&tote(), &[field("moss", ClothField::Weight, typed)]).cloths[0].grams, Some(grams));
}

#[test]
fn documents_of_before_say_none_of_it() {
    let project = tote();
    let text = serde_json::to_string(&project).expect("written");
    for key in ["dressing", "tested", "grams", "folded", "picture"] {
        assert!(!text.contains(&format!("\"{key}\":")), "{key}");
    }
    assert_eq!(serde_json::from_str::<Project>(&text).expect("read"), project);
}

/// Lining of which there are only pieces too narrow for a panel, and wide enough for its halves: joined they do, and nothing
/// else does. Of the outer, which shows, no join is offered.
#[test]
fn a_join_where_it_is_not_seen_is_a_way_out() {
    let linen = [add("Linen"), assign("lining", "linen"), field("linen", ClothField::AtHand, "4 of 24 x 12")];
    let short = made(&tote(), &linen);
    let planned = short.plan().expect("drafts");
    let panel = planned.draft.piece("lining-panel").expect("a panel");
    assert!(panel.size().0 > Length::INCH * 12 && panel.size().1 > Length::INCH * 12);
    let (_, lay) = laid(&short);
    assert!(!lay.complete());
    let ways = ways_out(&short, &planned, &lay);
    let join = ways.iter().find(|w| w.name == "Join Lining panel from two halves").expect("offered");
    let joined = made(&short, &join.edits);
    let (job, lay) = laid(&joined);
    assert!(lay.complete(), "{:?}", lay.unplaced);
    let halves: Vec<_> = job.pieces.iter().filter(|p| p.cloths.iter().any(|c| c.starts_with("linen"))).collect();
    assert_eq!(halves.iter().map(|p| p.count).sum::<u32>(), 4);
    // Both halves together are the panel and the seam between them, twice.
    let seam = Length::inches(1, 4);
    let (width, height) = panel.size();
    for half in halves {
        let (w, h) = half.outline.size();
        let (long, other) = if width > height { (w, h == height) } else { (h, w == width) };
        assert!(other);
        let of = width.max(height);
        assert!(long * 2 - seam * 2 >= of && long * 2 - seam * 2 <= of + Length::inches(1, 4), "{long:?} {of:?}");
    }
    // What shows is not joined unasked.
    let outer = made(&tote(), &[field("moss", ClothField::AtHand, "8 of 24 x 12")]);
    let (_, lay) = laid(&outer);
    let ways = ways_out(&outer, &outer.plan().expect("drafts"), &lay);
    assert!(!ways.iter().any(|w| w.name.starts_with("Outer panel from")), "{ways:?}");
}

/// 54 in wide, washed by a square of 10 in that came out 9⅝ by 9¾: 52⅝ (52.65), less two selvedges of ½ in 51⅝ (51.65); a
/// yard 34⅝ (34.65). Folded, half of it.
#[test]
fn what_is_taken_off_is_told_with_why() {
    let plain = &tote().cloths[0];
    assert_eq!(
        plain.taken_off(Ruler::Eighth),
        [
            "You lose ½ in to the selvedge at each side. The usable width is 53 in.",
            "You lose ½ in at each end when you square up a length."
        ]
    );
    let edits = [
        (ClothField::WashFirst, "yes"),
        (ClothField::TestAlong, "9 5/8"),
        (ClothField::TestAcross, "9 3/4"),
        (ClothField::Folded, "yes"),
    ];
    let washed = made(&tote(), &edits.map(|(of, typed)| field("moss", of, typed)));
    assert_eq!(
        washed.cloths[0].taken_off(Ruler::Eighth),
        [
            "Washing shrinks it by 3.8 % lengthwise and 2.5 % crosswise. A width of 54 in comes out at 52⅝ in, a yard at 34⅝ in.",
            "You lose ½ in to the selvedge at each side. The usable width is 51⅝ in.",
            "You lose ½ in at each end when you square up a length.",
            "Folded it lies 26¼ in wide, two layers.",
        ]
    );
    // Nothing is lost of what has no selvedge and is cut straight.
    let none = made(&tote(), &[field("moss", ClothField::Selvedge, "0"), field("moss", ClothField::Trim, "0")]);
    assert!(none.cloths[0].taken_off(Ruler::Eighth).is_empty());
}
