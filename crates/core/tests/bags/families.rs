//! Every family: check values of common practice, and for random sizes the finished size worked out back from the cut
//! pieces.
#![allow(missing_docs)]

use bofta_core::bag::binding::{Join, bias_from_square, join_costs, strips};
use bofta_core::bag::cord::slit;
use bofta_core::bag::fit::{Holds, Thing, fitted, to_the_cut_edge};
use bofta_core::bag::piecing::{joined, square_for_triangles};
use bofta_core::bag::round::{three_times_is_short_by, wall};
use bofta_core::bag::strap::{Strap, StrapMake};
use bofta_core::bag::zip::sold_for;
use bofta_core::bag::{Bag, Body, CutList, Design, Draft, Family, Row, RowShape, Severity, Slot};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Figure, Part, Piece};
use bofta_core::shape::{Outline, Point};
use proptest::prelude::*;
use rstest::rstest;

fn inch(n: i64, d: i64) -> Length {
    Length::inches(n, d)
}

fn cm(tenths: i64) -> Length {
    Length::MILLIMETRE * tenths
}

fn with(family: Family, system: System, fields: &[(&str, &str)]) -> Bag {
    let mut bag = family.default_for(system);
    for (key, value) in fields {
        bag.set(key, value, system).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
    bag
}

fn drafted(bag: &Bag, system: System) -> Draft {
    bag.draft(Ruler::default_for(system)).unwrap_or_else(|p| panic!("{p:?}"))
}

fn list_of_nothing() -> CutList {
    CutList::default_for(System::Inches)
}

fn piece(draft: &Draft, id: &str) -> Piece {
    draft.piece(id).unwrap_or_else(|| panic!("there is a {id}")).clone()
}

/// Common practice: cut 12 × 28 in, sides hemmed ¼ + ¼, ends ¼ in turned then a 1¼ in casing; its cord 28 in (two of them).
#[test]
fn an_unlined_sack_with_a_folded_casing() {
    let sack = with(
        Family::Drawstring,
        System::Inches,
        &[
            ("width", "11"),
            ("height", "12 1/2"),
            ("hem_turn", "1/4"),
            ("casing_depth", "1 1/4"),
            ("seam_side", "1/2"),
            ("cord_tail", "3"),
        ],
    );
    let draft = drafted(&sack, System::Inches);
    assert_eq!(piece(&draft, "outer-panel").size(), (inch(12, 1), inch(28, 1)));
    assert_eq!((draft.goods[0].count, draft.goods[0].length.size), (2, inch(28, 1)));
}

/// Common practice: for a book 15 × 22 cm, 5 cm beside and 14 above counted to the cut edge: 25 × 72 cm; its casing turned
/// 1 cm then 3 cm is slit 7 cm down.
#[test]
fn a_sack_for_a_book() {
    assert_eq!(to_the_cut_edge(cm(150), cm(220), cm(50), cm(140)), (cm(250), cm(720)));
    assert_eq!(slit(cm(10), cm(30)), cm(70));
}

/// Common practice: a 7 in circle with ¼ in seams takes a 21 in strip; three times the cut circle is right at 7½ in cut
/// and 0.6 in short at 12 in.
#[test]
fn a_round_base_and_its_wall() {
    let off = |cut: Length| three_times_is_short_by(cut, inch(1, 4)).in_units(System::Inches);
    assert!((wall(inch(7, 1), inch(1, 4)).in_units(System::Inches) - 21.0).abs() < 0.1);
    assert!(off(inch(15, 2)).abs() < 0.05, "{}", off(inch(15, 2)));
    assert!((off(inch(12, 1)) - 0.6).abs() < 0.05, "{}", off(inch(12, 1)));
}

/// Common practice: 4 × 4 squares of 2½ in → 8½ in; three 4 in squares → 11 in, both with ¼ in seams.
#[rstest]
#[case(4, inch(5, 2), inch(17, 2))]
#[case(3, inch(4, 1), inch(11, 1))]
fn squares_join(#[case] n: u32, #[case] patch: Length, #[case] all: Length) {
    assert_eq!(joined(n, patch, inch(1, 4)), all);
}

/// Derived: the square's half has a hypotenuse √2·side; sewn p from the diagonal on both sides the two halves lose 2p
/// across it, which is √2·p along each side. Common practice calls that + ⅞ in at ¼ in.
#[test]
fn half_square_triangles() {
    let (finished, seam) = (inch(4, 1), inch(1, 4));
    let cut = square_for_triangles(finished, seam);
    let exact = 4.0 + 0.5 + 0.25 * std::f64::consts::SQRT_2;
    assert!((cut.in_units(System::Inches) - exact).abs() < 1e-5);
    assert_eq!(Ruler::Eighth.up(cut), finished + inch(7, 8));
}

/// Common practice: two cords for a bag 11¾ in wide with 6 in tails are about a yard each; one for 11 in is 28 in.
#[test]
fn cords_for_a_sack() {
    let sack = with(Family::Drawstring, System::Inches, &[("width", "11 3/4"), ("cord", "two"), ("cord_tail", "6")]);
    let cords = &drafted(&sack, System::Inches).goods[0];
    assert_eq!((cords.count, cords.length.size), (2, inch(71, 2)));
    assert!(cords.length.size <= Length::YARD);
}

/// Common practice: 5 in squares give triangle units that are trimmed to 4 in, 3½ in when finished.
#[test]
fn comfortable_squares_for_triangles() {
    let exact = square_for_triangles(inch(7, 2), inch(1, 4));
    assert!(exact > inch(35, 8) - inch(1, 32) && exact < inch(35, 8), "{exact:?}");
    assert!(inch(7, 2) + inch(3, 2) == inch(5, 1) && exact < inch(5, 1));
}

/// Common practice: the cure for a print that would stand on its head is a seam at the base, each piece an allowance
/// longer than its half of the one over the base.
#[test]
fn split_at_the_base() {
    let flat = |base: &str| {
        let fields = [("depth", "0"), ("base", base), ("seam_base", "1/2")];
        piece(&drafted(&with(Family::Tote, System::Inches, &fields), System::Inches), "outer-panel")
    };
    let (one, two) = (flat("fold"), flat("seam"));
    assert_eq!((one.count, two.count), (1, 2));
    assert_eq!(two.height.size, one.height.size / 2 + inch(1, 2));
    assert_eq!(two.width.size, one.width.size);
}

/// Common practice: 6 in folded in four → 1½ in; 5 in with ½ in turns folded once → 2 in.
#[rstest]
#[case(StrapMake::FoldedInFour, inch(3, 2), inch(6, 1))]
#[case(StrapMake::FoldedInFour, inch(5, 4), inch(5, 1))]
#[case(StrapMake::TurnedIn, inch(2, 1), inch(5, 1))]
#[case(StrapMake::TwoLayers, inch(2, 1), inch(3, 1))]
#[case(StrapMake::Tube, inch(1, 1), inch(3, 1))]
#[case(StrapMake::EdgesToMiddle, inch(1, 1), inch(2, 1))]
fn straps(#[case] make: StrapMake, #[case] width: Length, #[case] cut: Length) {
    assert_eq!(Strap { make, width, turn: inch(1, 2) }.cut_width(Ruler::Eighth).size, cut);
}

/// Common practice: a caddy's panel 4 × 7½ + 2 × 1 cm seams = 32 cm; its pocket 4 × 10 + 2 = 42 cm.
#[test]
fn a_divided_pocket_with_pleats() {
    let caddy = with(
        Family::Caddy,
        System::Centimetres,
        &[("width", "30"), ("pocket_divisions", "4"), ("pocket_ease", "2.5"), ("seam_side", "1")],
    );
    let draft = drafted(&caddy, System::Centimetres);
    assert_eq!(piece(&draft, "front").width.size, cm(320));
    let pocket = piece(&draft, "pocket");
    assert_eq!(pocket.width.size, cm(420));
    let dividers: Vec<Length> = pocket.marks.iter().filter(|m| m.name == "divider").map(|m| m.distance).collect();
    assert_eq!(dividers, [cm(110), cm(210), cm(310)]);
}

/// A bound mouth takes no allowance.
#[test]
fn a_bound_mouth_takes_nothing() {
    let turned = with(Family::Caddy, System::Inches, &[("mouth", "turned-through"), ("seam_top", "3/8")]);
    let bound = with(Family::Caddy, System::Inches, &[("mouth", "bound")]);
    let tall = |bag: &Bag| piece(&drafted(bag, System::Inches), "front").height.size;
    assert_eq!(tall(&turned) - tall(&bound), inch(3, 8));
    let binding = piece(&drafted(&bound, System::Inches), "binding");
    assert_eq!(binding.width.size, inch(2, 1), "four times ½ in");
}

/// Common practice: strips wider than the cloth are joined; a diagonal join costs the strip's width and two tails.
#[test]
fn strips_longer_than_the_cloth() {
    assert_eq!(join_costs(Join::Diagonal, inch(2, 1), inch(1, 4)), inch(3, 1));
    assert_eq!(strips(inch(60, 1), inch(42, 1), Join::Diagonal, inch(2, 1), inch(1, 4)), Some(2));
    assert_eq!(strips(inch(42, 1), inch(42, 1), Join::Straight, inch(2, 1), inch(1, 4)), Some(1));
    assert_eq!(strips(inch(82, 1), inch(42, 1), Join::Diagonal, inch(2, 1), inch(1, 4)), Some(3));
    assert_eq!(strips(inch(50, 1), inch(2, 1), Join::Diagonal, inch(2, 1), inch(1, 4)), None);
    assert_eq!(bias_from_square(inch(10, 1), inch(2, 1)), inch(50, 1));
}

#[test]
fn a_bag_is_fitted_to_a_thing() {
    let bottle = Thing { width: cm(80), height: cm(300), thick: cm(80) };
    assert_eq!(fitted(bottle, Holds::Round, cm(10), cm(60)), (cm(90), cm(360), Length::ZERO));
    let book = Thing { width: cm(150), height: cm(220), thick: cm(30) };
    assert_eq!(fitted(book, Holds::Boxed, cm(20), cm(40)), (cm(170), cm(260), cm(50)));
    assert_eq!(fitted(book, Holds::Flat, cm(30), cm(60)), (cm(210), cm(295), Length::ZERO));
}

/// A panel in patches joins to at least the panel, less than two lines of the ruler over for every patch.
#[rstest]
#[case("grid", 4, 4)]
#[case("grid", 3, 5)]
#[case("strips", 6, 1)]
fn patches_cover_the_panel(#[case] front: &str, #[case] columns: u32, #[case] rows: u32) {
    let (c, r) = (columns.to_string(), rows.to_string());
    let tote =
        with(Family::Tote, System::Inches, &[("front", front), ("columns", &c), ("rows", &r), ("patch_seam", "1/4")]);
    let draft = drafted(&tote, System::Inches);
    let panel = piece(&draft, "outer-panel");
    let (light, dark) = (piece(&draft, "front-panel-patch-light"), piece(&draft, "front-panel-patch-dark"));
    assert_eq!(light.count + dark.count, columns * rows);
    assert_eq!(light.part, Part::Contrast);
    let made = (joined(columns, light.width.size, inch(1, 4)), joined(rows, light.height.size, inch(1, 4)));
    assert!(made.0 >= panel.width.size && made.1 >= panel.height.size);
    assert!(made.0 - panel.width.size < inch(1, 8) * 2 * i64::from(columns), "{made:?}");
}

#[test]
fn triangles_come_two_at_a_time() {
    let tote = with(Family::Tote, System::Inches, &[("front", "triangles"), ("columns", "3"), ("rows", "3")]);
    let draft = drafted(&tote, System::Inches);
    // Nine units: five squares of each cloth give ten.
    assert_eq!(
        (piece(&draft, "front-panel-triangle-light").count, piece(&draft, "front-panel-triangle-dark").count),
        (5, 5)
    );
}

#[test]
fn in_one_over_the_base() {
    let two = with(Family::Tote, System::Inches, &[("width", "12"), ("height", "10"), ("depth", "4")]);
    let one =
        with(Family::Tote, System::Inches, &[("width", "12"), ("height", "10"), ("depth", "4"), ("base", "fold")]);
    let draft = drafted(&one, System::Inches);
    let panel = piece(&draft, "outer-panel");
    // (W + D + 2s) × (2H + D + 2t).
    assert_eq!((panel.count, panel.size()), (1, (inch(17, 1), inch(25, 1))));
    // At a fold the notch is no square: D/2 + s − x across, D/2 − x up and down.
    assert!(
        matches!(&panel.figure, Figure::CutAtFold { across, up } if (across.size, up.size) == (inch(2, 1), inch(3, 2)))
    );
    let area = panel.outline().area();
    assert_eq!(
        area.0,
        (panel.width.size.0 as i128) * panel.height.size.0 as i128 - 4 * inch(2, 1).0 as i128 * inch(3, 2).0 as i128
    );
    assert_eq!(two.finished_from_cut(&drafted(&two, System::Inches))[1].back, one.finished_from_cut(&draft)[1].back);
}

/// 8 × 5½ with ⅜ in seams is 8¾ × 6¼ cut; a lining that is ⅛ smaller on each side and at the base 8½ × 6⅛, and over a fold, down
/// either side, 2 × 5½ + 2 × ⅜ less 2 × ⅛. Along the zip it is ¼ shorter, which its seam says.
#[test]
fn a_lining_a_little_smaller_than_its_pouch() {
    let seams = [("seam_side", "3/8"), ("seam_base", "3/8"), ("seam_top", "3/8"), ("lining_smaller", "yes")];
    let bag = with(Family::Pouch, System::Inches, &seams);
    let draft = drafted(&bag, System::Inches);
    assert_eq!(piece(&draft, "outer-panel").size(), (inch(35, 4), inch(25, 4)));
    assert_eq!(piece(&draft, "lining-panel").size(), (inch(17, 2), inch(49, 8)));
    assert!(draft.notices.iter().any(|n| n.field.as_deref() == Some("lining_smaller")), "{:?}", draft.notices);
    let along = bag.seams(Ruler::Eighth).into_iter().find(|s| s.name == "along the zip").expect("a zip");
    assert_eq!((along.ease, along.exact(&draft)), (inch(1, 4), Some([inch(31, 4); 2])));
    let folded = with(Family::Pouch, System::Inches, &[&seams[..], &[("base", "fold")]].concat());
    assert_eq!(piece(&drafted(&folded, System::Inches), "lining-panel").height.size, inch(23, 2));
    // Round a curve it stays as it is.
    let half = with(Family::Pouch, System::Inches, &[&seams[..], &[("style", "half-round"), ("height", "6")]].concat());
    let draft = drafted(&half, System::Inches);
    assert_eq!(piece(&draft, "outer-panel").size(), piece(&draft, "lining-panel").size());
}

/// Facing f deep: cut f + t + p; the lining is its full height − f − t + p.
#[test]
fn a_facing_takes_from_the_lining() {
    let plain = with(Family::Tote, System::Inches, &[]);
    let faced = with(Family::Tote, System::Inches, &[("mouth", "facing-zip"), ("facing_depth", "2 1/2")]);
    let (a, b) = (drafted(&plain, System::Inches), drafted(&faced, System::Inches));
    assert_eq!(piece(&b, "facing").height.size, inch(7, 2));
    let full = piece(&a, "lining-panel").height.size;
    assert_eq!(piece(&b, "lining-panel").height.size, full - inch(5, 2) - inch(1, 2) + inch(1, 2));
    assert!(b.hardware.iter().any(|h| h.name == "Zip"));
}

/// What the audit of a list says beside sizes that do not meet: a lining that shows, backing behind nothing, straps whose
/// fold is not said.
#[test]
fn a_list_is_asked_about_bands_backings_and_folds() {
    let list = |rows: Vec<Row>| Bag::from(Body::CutList(CutList { rows, ..list_of_nothing() }));
    let said = |rows: Vec<Row>| {
        let notices = drafted(&list(rows), System::Inches).notices;
        notices.into_iter().map(|n| n.text).collect::<Vec<_>>().join(" ")
    };
    let outer = || Row::new("Outer panel", Part::Outer, 2, inch(15, 1), inch(16, 1));
    let lining = |tall| Row::new("Lining panel", Part::Lining, 2, inch(15, 1), tall);
    assert!(said(vec![outer(), lining(inch(17, 1))]).contains("shows as a band of ½ in"));
    assert_eq!(said(vec![outer(), lining(inch(16, 1))]), "");
    let fleece = |name: &str, w, h| Row::new(name, Part::Backing, 2, inch(w, 1), inch(h, 1));
    assert!(said(vec![outer(), fleece("Fleece for the flap", 6, 4)]).contains("lies behind nothing"));
    // By its name or near its size it lies behind the panel.
    assert_eq!(said(vec![outer(), fleece("Fleece", 14, 15)]), "");
    assert_eq!(said(vec![outer(), fleece("Fleece panel", 6, 4)]), "");
    let strap = Row::new("Strap", Part::Straps, 2, inch(5, 1), inch(26, 1));
    let asked = said(vec![outer(), strap.clone()]);
    // Common practice: 5 in with the list's ¼ in turns.
    assert!(asked.contains("folded in four 1¼") && asked.contains("turned in and folded once 2¼"), "{asked}");
    let folded = Row { fold: Some(StrapMake::FoldedInFour), ..strap };
    assert_eq!(said(vec![outer(), folded.clone()]), "");
    let draft = drafted(&list(vec![folded]), System::Inches);
    assert_eq!(draft.pieces[0].marks.len(), 1, "the lines to fold to");
}

/// Common practice: 5 in with ½ in turns folded once is 2 in, folded in four 1¼.
#[test]
fn a_fold_gives_back_the_finished_width() {
    for make in StrapMake::ALL {
        let strap = Strap { make: *make, width: inch(3, 2), turn: inch(1, 2) };
        let cut = strap.cut_width(Ruler::Eighth).size;
        assert_eq!(make.finished(cut, inch(1, 2)), Some(inch(3, 2)), "{make:?}");
    }
    assert_eq!(StrapMake::TurnedIn.finished(inch(5, 1), inch(1, 2)), Some(inch(2, 1)));
    assert_eq!(StrapMake::FoldedInFour.finished(inch(5, 1), inch(1, 2)), Some(inch(5, 4)));
    assert_eq!(StrapMake::TwoLayers.finished(inch(1, 1), inch(1, 2)), None);
}

/// A caddy's pockets made for bottles: as many as stand side by side, each as wide as half of what is round one.
#[test]
fn pockets_are_made_for_what_goes_in() {
    let caddy =
        with(Family::Caddy, System::Centimetres, &[("width", "30"), ("height", "24"), ("pocket_for", "bottle")]);
    let draft = drafted(&caddy, System::Centimetres);
    let pocket = piece(&draft, "pocket");
    assert_eq!(pocket.marks.iter().filter(|m| m.name == "divider").count(), 3, "four bottles of 7.5 cm");
    // π/2 × 7.5 + 1.2 cm each, and two seams of 1 cm.
    let each = (pocket.width.size - cm(20)) / 4;
    assert!(each >= cm(130) && each < cm(132), "{each:?}");
    // A size that is typed is no longer made for a bottle.
    let mut typed = caddy;
    typed.set("pocket_ease", "1", System::Centimetres).expect("a size");
    assert_eq!(typed.answer("pocket_for"), Some("sizes"));
    let phone = with(
        Family::Clutch,
        System::Inches,
        &[("width", "10"), ("height", "8"), ("pocket", "yes"), ("pocket_for", "phone")],
    );
    assert!(drafted(&phone, System::Inches).piece("slip-pocket").is_some());
}

/// A kind of seam sets what it takes; what is sewn twice needs twice a seam.
#[rstest]
#[case("french", "5/8")]
#[case("hemmed-first", "1/2")]
#[case("overlocked", "3/8")]
fn a_kind_of_seam_sets_its_allowance(#[case] kind: &str, #[case] takes: &str) {
    for (family, unlined) in
        [(Family::Tote, ("lining", "none")), (Family::Pouch, ("lined", "no")), (Family::Drawstring, ("lined", "no"))]
    {
        let bag = with(family, System::Inches, &[unlined, ("seam_kind", kind)]);
        let typed = with(family, System::Inches, &[unlined, ("seam_kind", kind), ("seam_side", takes)]);
        assert_eq!(bag.length("seam_side"), typed.length("seam_side"), "{family:?}");
        let thin = with(family, System::Inches, &[unlined, ("seam_kind", kind), ("seam_side", "1/4")]);
        let refused = thin.draft(Ruler::Eighth).is_err_and(|p| p[0].field == "seam_side");
        assert_eq!(refused, kind != "overlocked", "{family:?}");
    }
    let bag = with(Family::Drawstring, System::Inches, &[("seam_kind", "french")]);
    let steps: String = drafted(&bag, System::Inches).steps.iter().map(|s| s.text.as_ref()).collect();
    assert!(steps.contains("¼ in from the edge") && steps.contains("second seam of ⅜ in"), "{steps}");
}

#[test]
fn quilted_panels_are_cut_over() {
    let plain = drafted(&with(Family::Tote, System::Inches, &[("boxing", "sewn-across")]), System::Inches);
    let quilted = drafted(&with(Family::Tote, System::Inches, &[("quilted", "yes")]), System::Inches);
    let (a, b) = (piece(&plain, "outer-panel"), piece(&quilted, "outer-panel"));
    assert_eq!((b.width.size, b.height.size), (a.width.size + inch(1, 1), a.height.size + inch(1, 1)));
    // No notch before it is trimmed.
    assert_eq!(b.figure, Figure::Rectangle);
}

#[test]
fn one_choice_brings_the_other_along() {
    let tote = with(Family::Tote, System::Inches, &[("lining", "none")]);
    assert_eq!(tote.answer("mouth"), Some("double-hem"));
    let tote = with(Family::Tote, System::Inches, &[("lining", "none"), ("mouth", "facing-zip")]);
    assert_eq!(tote.answer("lining"), Some("same"));
}

#[test]
fn scaled_to_65_percent_and_brought_to_the_ruler() {
    let tote = with(Family::Tote, System::Inches, &[("width", "14"), ("height", "13"), ("depth", "4")]);
    let (small, rounded) = tote.scaled(65, Ruler::Eighth).expect("it stands");
    // 9.1, 8.45 and 2.6 in.
    assert_eq!(small.length("width"), Some(inch(73, 8)));
    assert_eq!(small.length("height"), Some(inch(68, 8)));
    assert_eq!(small.length("depth"), Some(inch(21, 8)));
    assert_eq!(small.length("seam_side"), tote.length("seam_side"), "seams stay");
    assert!(rounded.len() >= 3, "{rounded:?}");
}

#[test]
fn families_keep_what_they_share() {
    let tote = with(Family::Tote, System::Inches, &[("width", "13 1/2"), ("seam_side", "3/8")]);
    for family in Family::ALL {
        let next = tote.turned_into(*family, System::Inches);
        assert_eq!(next.family(), *family);
        if *family != Family::FoundTube {
            assert_eq!(next.length("width"), Some(inch(27, 2)), "{family:?}");
        }
    }
}

#[test]
fn every_bag_is_kept_as_it_is() {
    for family in Family::ALL {
        for system in [System::Inches, System::Centimetres] {
            let bag = family.default_for(system);
            let kept = serde_json::to_string(&bag).expect("written");
            assert_eq!(serde_json::from_str::<Bag>(&kept).expect("read"), bag, "{kept}");
        }
    }
    // Kept before there were families: a tote, its pocket yes or no.
    let old: Bag = serde_json::from_str(r#"{"width": 203200, "pocket": true, "lining": "same"}"#).expect("read");
    assert_eq!((old.family(), old.answer("pocket")), (Family::Tote, Some("yes")));
    let unknown = serde_json::from_str::<Bag>(r#"{"family": "tote", "wdith": 1}"#).expect_err("refused");
    assert!(unknown.to_string().contains("wdith"), "{unknown}");
}

/// Every usual bag drafts, is drawn, and gives back the size it was asked for; its fields are named once.
#[rstest]
fn usual_bags_hold(#[values(System::Inches, System::Centimetres)] system: System) {
    for family in Family::ALL {
        let mut bag = family.default_for(system);
        let draft = drafted(&bag, system);
        for finished in bag.finished_from_cut(&draft) {
            assert_near(&bag, &finished, Ruler::default_for(system));
        }
        if *family != Family::CutList {
            assert!(!draft.pieces.is_empty() && !draft.steps.is_empty(), "{family:?}");
            let solid = bag.solid(&draft);
            assert!(!solid.faces.is_empty() && !solid.grips.is_empty(), "{family:?}");
        }
        let mut ids: Vec<_> = draft.pieces.iter().map(|p| p.id.clone()).collect();
        ids.sort();
        ids.dedup();
        assert_eq!(ids.len(), draft.pieces.len(), "{family:?}: two pieces of one id");
        let mut keys: Vec<_> = bag.fields().iter().map(|f| f.key).collect();
        let all = keys.len();
        keys.sort_unstable();
        keys.dedup();
        assert_eq!(keys.len(), all, "{family:?}: a field is listed twice");
    }
}

fn assert_near(bag: &Bag, finished: &bofta_core::bag::Finished, ruler: Ruler) {
    let off = finished.back - finished.asked;
    // Each cut size is at most a line over, and so is a notch, which counts twice: what it adds to the depth it takes
    // off the width.
    assert!(
        off >= -ruler.step() * 2 && off <= ruler.step() * 4,
        "{:?} {}: asked {:?}, the pieces give {:?}",
        bag.family(),
        finished.name,
        finished.asked,
        finished.back
    );
}

/// A value for a field, from a random number: lengths between a quarter and twice their usual ones.
fn vary(slot: &mut Slot<'_>, by: u32) {
    match slot {
        Slot::Length(length) => length.0 = (length.0 / 4) + length.0 * i64::from(by % 100) * 7 / 400,
        Slot::Choice(choice) => {
            let answers = choice.answers();
            let key = answers[by as usize % answers.len()].key;
            assert!(choice.choose(key));
        }
        Slot::Toggle(on) => **on = by.is_multiple_of(2),
        Slot::Count(count, among) => **count = among.start() + by % (among.end() - among.start() + 1),
        Slot::Text(_) | Slot::Lengths(_) | Slot::Cloths(_) => {}
    }
}

proptest! {
    /// For random fields of every family a draft either names the field that cannot stand, or its pieces give the
    /// finished size back, lining and outer meet, backing never outgrows its panel, and every term adds up.
    #[test]
    fn random_bags_give_their_size_back(
        family in 0..Family::ALL.len(),
        inches in any::<bool>(),
        numbers in prop::collection::vec(any::<u32>(), 64),
    ) {
        let system = if inches { System::Inches } else { System::Centimetres };
        let ruler = Ruler::default_for(system);
        let mut bag = Family::ALL[family].default_for(system);
        for (field, by) in bag.fields().iter_mut().zip(&numbers) {
            if by % 3 != 0 {
                vary(&mut field.slot, *by / 3);
            }
        }
        let keys: Vec<&str> = bag.fields().iter().map(|f| f.key).collect();
        match bag.draft(ruler) {
            Err(problems) => {
                prop_assert!(!problems.is_empty());
                for p in problems {
                    prop_assert!(keys.contains(&p.field.as_str()), "{p:?} names no field");
                    prop_assert!(p.message.ends_with('.') && p.message.len() > 20, "{p:?}");
                }
            }
            Ok(draft) => {
                for finished in bag.finished_from_cut(&draft) {
                    assert_near(&bag, &finished, ruler);
                }
                for p in &draft.pieces {
                    prop_assert!(p.width.size > Length::ZERO && p.height.size > Length::ZERO, "{p:?}");
                    prop_assert!(p.outline().area().0 > 0);
                    for d in [&p.width, &p.height] {
                        prop_assert_eq!(d.terms.iter().map(|t| t.value()).sum::<Length>(), d.size);
                    }
                    for m in p.marks.iter().filter(|_| p.figure != Figure::Circle) {
                        prop_assert!(m.distance <= p.width.size.max(p.height.size), "{}: {m:?} lies off it", p.name);
                    }
                }
                if let (Some(outer), Some(lining)) = (draft.piece("outer-panel"), draft.piece("lining-panel"))
                    && bag.answer("lining") != Some("smaller")
                    && bag.answer("lining_smaller") != Some("yes")
                    && outer.when == bofta_core::piece::When::Now
                {
                    prop_assert_eq!(outer.width.size, lining.width.size, "mouths meet");
                }
            }
        }
    }

    /// A circle's seam line is as long as its wall's, to a line of the ruler.
    #[test]
    fn walls_go_round(tenths in 40_i64..600, seam in 3_i64..20) {
        let sack = with(Family::Drawstring, System::Centimetres, &[
            ("base", "round"),
            ("width", &format!("{}", tenths as f64 / 10.0)),
            ("height", "40"),
            ("seam_base", &format!("{}", seam as f64 / 10.0)),
            ("seam_side", "1"),
        ]);
        if let Ok(draft) = sack.draft(Ruler::Millimetre) {
            let circle = (piece(&draft, "base").width.size - cm(seam) * 2).0 as f64 * std::f64::consts::PI;
            let wall = (piece(&draft, "outer-panel").width.size - cm(10) * 2).0 as f64;
            prop_assert!((wall - circle).abs() <= Length::MILLIMETRE.0 as f64 * 4.2, "{wall} {circle}");
        }
    }
}

fn list(rows: Vec<Row>) -> CutList {
    CutList {
        rows,
        bought: vec![],
        width: Length::ZERO,
        height: Length::ZERO,
        depth: Length::ZERO,
        seam_side: inch(1, 4),
    }
}

#[test]
fn a_list_is_audited() {
    let (outer, lining) = (Part::Outer, Part::Lining);
    let said = |list: CutList| -> Vec<String> {
        let draft = Bag::from(Body::CutList(list)).draft(Ruler::Eighth).expect("drafts");
        draft.notices.iter().filter(|n| n.severity == Severity::Attention).map(|n| n.text.clone()).collect()
    };
    let fine = list(vec![
        Row::new("Outer panel", outer, 2, inch(15, 1), inch(16, 1)),
        Row::new("Lining panel", lining, 2, inch(15, 1), inch(16, 1)),
    ]);
    assert_eq!(said(fine.clone()), Vec::<String>::new());
    let mut counts = fine.clone();
    counts.rows[1].count = 1;
    assert!(said(counts)[0].contains("counts differ"));
    // Equally wide is not alike: both sizes count. Up to ½ in smaller is a lining that lies smooth.
    let mut shorter = fine.clone();
    shorter.rows[1].height = inch(31, 2);
    assert_eq!(said(shorter.clone()), Vec::<String>::new());
    shorter.rows[1].height = inch(14, 1);
    assert!(said(shorter)[0].contains("Outer panel is 2 in taller"));
    let mut swapped = fine.clone();
    (swapped.rows[1].width, swapped.rows[1].height) = (Some(inch(16, 1)), inch(15, 1));
    assert!(said(swapped)[0].contains("swapped"));
    // Of another name too, where no lining has the size that is wanted; where one has, it is a piece of its own.
    let mut named = fine.clone();
    named.rows[1] = Row::new("Inside", lining, 2, inch(16, 1), inch(15, 1));
    assert!(said(named.clone())[0].contains("swapped"));
    named.rows.push(Row::new("Rest", lining, 2, inch(15, 1), inch(16, 1)));
    assert_eq!(said(named), Vec::<String>::new());
    // In one piece over the base: half as many, twice as tall; fleece lies behind each half.
    let mut folded = fine.clone();
    folded.rows[0] = Row::new("Outer panel", outer, 1, inch(15, 1), inch(31, 1));
    folded.rows.push(Row::new("Soft layer", Part::Backing, 2, inch(14, 1), inch(15, 1)));
    assert_eq!(said(folded.clone()), Vec::<String>::new());
    let alone = list(vec![folded.rows[0].clone(), folded.rows[2].clone()]);
    assert_eq!(said(alone), Vec::<String>::new());
    folded.rows[1].count = 3;
    assert!(said(folded).iter().any(|s| s.contains("counts differ")));
    let mut apart = fine.clone();
    apart.rows[1].width = Some(inch(14, 1));
    assert!(said(apart)[0].contains("do not meet"));
    let mut stated = CutList { width: inch(16, 1), height: inch(14, 1), ..fine.clone() };
    assert!(said(stated.clone())[0].contains("leaves"));
    stated.width = inch(14, 1);
    assert_eq!(said(stated), Vec::<String>::new());
    let mut wide = fine;
    wide.rows.push(Row::new("Blanket", Part::Contrast, 1, inch(50, 1), inch(48, 1)));
    assert!(said(wide)[0].contains("48 in wide"));
}

#[rstest]
#[case(Row { count: 0, ..Row::new("a", Part::Outer, 1, inch(4, 1), inch(4, 1)) }, "rows[0].count")]
#[case(Row { count: 401, ..Row::new("a", Part::Outer, 1, inch(4, 1), inch(4, 1)) }, "rows[0].count")]
#[case(Row::new("a", Part::Outer, 1, Length::ZERO, inch(4, 1)), "rows[0].width")]
#[case(Row::new("a", Part::Outer, 1, inch(4, 1), Length::METRE * 21), "rows[0].height")]
#[case(Row { shape: RowShape::Notched { across: inch(2, 1), up: inch(1, 1) }, ..Row::new("a", Part::Outer, 1, inch(4, 1), inch(4, 1)) }, "rows[0].across")]
#[case(Row { shape: RowShape::HalfRound, ..Row::new("a", Part::Outer, 1, inch(4, 1), inch(1, 1)) }, "rows[0].height")]
#[case(Row { shape: RowShape::Free { corners: [(0, 0), (4, 4), (4, 0), (0, 4)].map(|(x, y)| Point::new(inch(x, 1), inch(y, 1))).to_vec() }, ..Row::new("a", Part::Outer, 1, inch(4, 1), inch(4, 1)) }, "rows[0].corners")]
fn rows_that_cannot_stand(#[case] row: Row, #[case] field: &str) {
    let problems = Bag::from(Body::CutList(list(vec![row]))).draft(Ruler::Eighth).expect_err("refused");
    assert_eq!(problems[0].field, field, "{problems:?}");
}

/// Every length of every family at nothing, a hair and absurdly long: a sentence or a draft, never a panic.
#[test]
fn every_field_at_its_limits() {
    for family in Family::ALL {
        let keys: Vec<&str> = family.default_for(System::Inches).fields().iter().map(|f| f.key).collect();
        for key in keys {
            for value in ["0", "1/64", "1/8", "400", "780"] {
                let mut bag = family.default_for(System::Inches);
                if bag.set(key, value, System::Inches).is_ok()
                    && let Err(problems) = bag.draft(Ruler::Eighth)
                {
                    assert!(problems.iter().all(|p| !p.message.is_empty()), "{family:?} {key} {value}");
                }
            }
        }
    }
}

/// Common practice: a zip is bought as long or longer than its teeth must be, never shorter.
#[rstest]
#[case(System::Inches, inch(17, 2), Some(inch(9, 1)))]
#[case(System::Inches, inch(9, 1), Some(inch(9, 1)))]
#[case(System::Inches, inch(11, 1), Some(inch(12, 1)))]
#[case(System::Inches, inch(37, 1), None)]
#[case(System::Centimetres, cm(231), Some(cm(250)))]
#[case(System::Centimetres, cm(801), None)]
fn the_zip_to_ask_for(#[case] system: System, #[case] teeth: Length, #[case] sold: Option<Length>) {
    assert_eq!(sold_for(teeth, system), sold);
}

#[test]
fn a_zip_says_how_it_is_shortened() {
    let note = |width: &str| {
        let pouch = with(Family::Pouch, System::Inches, &[("width", width)]);
        let draft = drafted(&pouch, System::Inches);
        draft.hardware.iter().find(|h| h.name == "Zip").expect("a zip").note.to_string()
    };
    assert!(note("9 1/2").contains("buy 9 in, shorten by ½ in"), "{}", note("9 1/2"));
    assert!(note("10").contains("sold in this length"));
    assert!(note("60").contains("by the length"));
}

/// A notch of half of 3⅛ in is brought up to 1⅝ in: the bag comes out deeper, and says so.
#[test]
fn what_the_ruler_changes_is_said() {
    let notes = |depth: &str| {
        let tote = with(Family::Tote, System::Inches, &[("depth", depth)]);
        let draft = drafted(&tote, System::Inches);
        let said = draft.notices.iter().filter(|n| n.text.contains("lines of the ruler")).map(|n| n.text.clone());
        said.collect::<Vec<_>>()
    };
    assert_eq!(notes("3"), Vec::<String>::new());
    assert!(notes("3 1/8").iter().any(|n| n.contains("3¼ in deep, where 3⅛ in was asked")), "{:?}", notes("3 1/8"));
}

fn row_with_seam(shape: RowShape, width: i64, height: i64) -> Row {
    Row { shape, seam: inch(1, 4), ..Row::new("Panel", Part::Outer, 2, inch(width, 1), inch(height, 1)) }
}

#[test]
fn a_seam_is_added_all_round() {
    let cut = |row: Row| drafted(&Bag::from(Body::CutList(list(vec![row]))), System::Inches).pieces[0].clone();
    assert_eq!(cut(row_with_seam(RowShape::Rectangle, 9, 12)).size(), (inch(19, 2), inch(25, 2)));
    assert_eq!(cut(row_with_seam(RowShape::Circle, 9, 9)).size(), (inch(19, 2), inch(19, 2)));
    // The corner of a notch moves with both its edges: as deep as before, in from a panel that is larger all round.
    let notched = cut(row_with_seam(RowShape::Notched { across: inch(2, 1), up: inch(2, 1) }, 12, 12));
    assert_eq!(notched.size(), (inch(25, 2), inch(25, 2)));
    let expected = Outline::notched(inch(25, 2), inch(25, 2), inch(2, 1), inch(2, 1)).area();
    assert_eq!(notched.outline().area(), expected);
    // Slanted sides too: of a right triangle with legs 3 and 4 the hypotenuse moves by the seam.
    let triangle = vec![
        Point::new(inch(0, 1), inch(0, 1)),
        Point::new(inch(4, 1), inch(0, 1)),
        Point::new(inch(0, 1), inch(3, 1)),
    ];
    let grown = cut(row_with_seam(RowShape::Free { corners: triangle }, 4, 3));
    // Its inner circle has radius 1: grown by a quarter it is the same triangle one and a quarter times as large.
    let (width, height) = grown.size();
    assert!((width.0 - inch(5, 1).0).abs() < 3 && (height.0 - inch(15, 4).0).abs() < 3, "{width:?} {height:?}");
    let refused =
        Bag::from(Body::CutList(list(vec![Row { seam: inch(5, 1), ..row_with_seam(RowShape::Rectangle, 9, 12) }])));
    assert_eq!(refused.draft(Ruler::Eighth).expect_err("refused")[0].field, "rows[0].seam");
}

/// A pocket is one thing on every bag that has a lining: the same pieces, centred on the face, refused by the same field.
#[rstest]
#[case(Family::Tote, "lining", "like-outer")]
#[case(Family::Drawstring, "lined", "yes")]
#[case(Family::Pouch, "lined", "yes")]
#[case(Family::CrossBody, "pocket", "yes")]
fn a_pocket_is_one_thing_everywhere(#[case] family: Family, #[case] first: &str, #[case] value: &str) {
    let system = System::Inches;
    let mut bag = family.default_for(system);
    // The tote is lined as it is.
    let _ = bag.set(first, value, system);
    for (key, value) in
        [("width", "9"), ("height", "10"), ("pocket", "divided"), ("pocket_width", "6"), ("pocket_height", "4")]
    {
        bag.set(key, value, system).unwrap_or_else(|p| panic!("{family:?} {p:?}"));
    }
    let draft = drafted(&bag, system);
    let pocket = piece(&draft, "divided-pocket");
    let ease = inch(3, 4) * 3;
    assert_eq!(pocket.width.size - ease, inch(6, 1) + pocket_seams(&bag) * 2, "{family:?}");
    let panel = piece(&draft, "lining-panel");
    let mark = panel.marks.iter().find(|m| m.name.starts_with("pocket")).expect("a place for it");
    assert_eq!(mark.distance * 2 + inch(6, 1), panel.width.size, "{family:?}: centred");
    bag.set("pocket_width", "12", system).expect("read");
    assert_eq!(bag.draft(Ruler::Eighth).expect_err("wider than the face")[0].field, "pocket_width");
}

fn pocket_seams(bag: &Bag) -> Length {
    let mut bag = bag.clone();
    let fields = bag.fields();
    let seam = fields.iter().find(|f| f.key == "seam_side").expect("side seams");
    if let Slot::Length(length) = &seam.slot { **length } else { Length::ZERO }
}

/// Flat cloth goes round a thing's thickness; a card is 85.60 mm wide (ISO/IEC 7810, ID-1).
#[test]
fn a_pocket_is_made_for_a_thing_until_its_sizes_are_typed() {
    let system = System::Centimetres;
    let mut tote = Family::Tote.default_for(system);
    let size = |bag: &Bag, key: &str| {
        let mut bag = bag.clone();
        let fields = bag.fields();
        let field = fields.iter().find(|f| f.key == key).expect("a field");
        if let Slot::Length(length) = &field.slot { **length } else { Length::ZERO }
    };
    tote.set("pocket_for", "cards", system).expect("a choice");
    assert_eq!((size(&tote, "pocket_width"), size(&tote, "pocket_height")), (cm(98), cm(54)));
    tote.set("pocket_for", "bottle", system).expect("a choice");
    let half_round = size(&tote, "pocket_width").in_units(system) - 1.2;
    // Brought up to the ruler, by a millimetre at most.
    let slack = half_round - 7.5 * std::f64::consts::FRAC_PI_2;
    assert!((0.0..0.1).contains(&slack), "{half_round}");
    tote.set("pocket_divisions", "5", system).expect("a number");
    tote.set("pocket_for", "pens", system).expect("a choice");
    assert_eq!(size(&tote, "pocket_width"), cm(125));
    assert!(drafted(&tote, system).piece("divided-pocket").is_some());
    tote.set("pocket_width", "14", system).expect("a size");
    tote.set("pocket_divisions", "6", system).expect("a number");
    assert_eq!(size(&tote, "pocket_width"), cm(140), "typed sizes stay");
}

#[test]
fn a_backed_sack_keeps_its_casing_free() {
    let sack = |school: &str| with(Family::Drawstring, System::Inches, &[("backing", school)]);
    let said = |bag: &Bag| drafted(bag, System::Inches).notices.iter().any(|n| n.text.contains("into the casing"));
    assert!(said(&sack("full-size")) && !said(&sack("clear-of-seams")));
    let draft = drafted(&sack("clear-of-seams"), System::Inches);
    let (outer, backing) = (piece(&draft, "outer-panel"), piece(&draft, "interfacing-panel"));
    // Folded at the base: a turn of ¼ in and a casing of 1¼ in at both ends.
    assert_eq!(outer.height.size - backing.height.size, inch(3, 1));
}

/// Common practice: a casing 3½ × ¾ in caught in a top seam of ¼ in, its ends turned ½, is cut 4½ × 2.
#[test]
fn a_casing_caught_in_the_top_seam() {
    let mut bag = Family::Drawstring.default_for(System::Inches);
    let fields = [
        ("casing", "in-seam"),
        ("base", "seam"),
        ("width", "3 1/2"),
        ("height", "5"),
        ("clearance", "0"),
        ("casing_depth", "3/4"),
        ("hem_turn", "1/2"),
        ("seam_side", "1/4"),
        ("seam_top", "1/4"),
        ("cord_of_cloth", "yes"),
        ("cord_width", "3/8"),
    ];
    for (key, value) in fields {
        bag.set(key, value, System::Inches).unwrap_or_else(|p| panic!("{key}: {p}"));
    }
    assert_eq!(bag.answer("lined"), Some("yes"), "a casing in the seam brings its lining along");
    let draft = bag.draft(Ruler::Eighth).unwrap_or_else(|p| panic!("{p:?}"));
    assert_eq!(draft.piece("casing").expect("casings").size(), (Length::inches(9, 2), Length::INCH * 2));
    assert_eq!(draft.piece("casing").map(|p| p.count), Some(2));
    // A cord folded in four is cut four times as wide; none is bought then.
    assert_eq!(draft.piece("cord").expect("cords").width.size, Length::inches(3, 2));
    assert!(draft.goods.is_empty());
    assert!(draft.notices.iter().any(|n| n.text.contains("5¾ in tall")), "{:?}", draft.notices);
    bag.set("lined", "no", System::Inches).expect("read");
    assert_eq!(bag.answer("casing"), Some("sewn-on"), "without a lining nothing catches it");
}

/// Worked out: a leg 20 in round at the hem and 16 at the other end, lined with ½ in seams: half of it and two seams are 11 at
/// the mouth and 9 at the base, 1 in narrower on each side; nothing is added for ease. Its closed end kept, no base seam is
/// taken off the tube: 14 + 1½ and the hem's 1 + ¼.
#[test]
fn the_lining_of_a_found_tube_is_the_tube_again() {
    let tube = |fields: &[(&str, &str)]| {
        let mut bag = Family::FoundTube.default_for(System::Inches);
        let all = [("girth_top", "20"), ("girth_base", "16"), ("depth", "0"), ("height", "14"), ("seam_side", "1/2")];
        for (key, value) in all.iter().chain(fields) {
            bag.set(key, value, System::Inches).unwrap_or_else(|p| panic!("{key}: {p}"));
        }
        bag.draft(Ruler::Eighth).unwrap_or_else(|p| panic!("{p:?}"))
    };
    let draft = tube(&[]);
    let lining = draft.piece("lining-panel").expect("a lining");
    assert_eq!(lining.width.size, Length::INCH * 11);
    let corners = lining.outline().corners();
    let low: Vec<Length> = corners.iter().filter(|p| p.y == Length::ZERO).map(|p| p.x).collect();
    assert_eq!(low, [Length::INCH, Length::INCH * 10]);
    let other = tube(&[("girth_top", "16"), ("girth_base", "20")]);
    assert_eq!(other.piece("lining-panel").map(|p| p.figure.clone()), Some(Figure::Tapered(Length::INCH)));
    let based =
        tube(&[("keep_hem", "base"), ("depth", "3"), ("hem_depth", "1"), ("hem_turn", "1/4"), ("straps", "no")]);
    assert!(
        based.notices.iter().any(|n| n.text.contains("16¾ in off the tube, measured from its closed end")),
        "{:?}",
        based.notices
    );
}
