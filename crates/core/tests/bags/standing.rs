//! The half-round pouch on a flat base, and zips with two sliders or a tail: sizes worked out by hand.

use bofta_core::bag::{Bag, Draft, Family};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Figure;
use bofta_core::project::{Edit, Project};

fn bag(family: Family, system: System, fields: &[(&str, &str)]) -> Bag {
    let mut bag = family.default_for(system);
    for (key, value) in fields {
        bag.set(key, value, system).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
    bag
}

fn draft(bag: &Bag, system: System) -> Draft {
    bag.draft(Ruler::default_for(system)).unwrap_or_else(|p| panic!("{p:?}"))
}

fn sizes(draft: &Draft, id: &str) -> (u32, Length, Length) {
    let piece = draft.piece(id).unwrap_or_else(|| panic!("no {id}"));
    (piece.count, piece.width.size, piece.height.size)
}

/// 10 wide, 7 tall, 4 deep, ½ in round the faces, ⅜ at the zip, which shows ⅜ and goes 12 in round:
/// the curve is π × 10 / 2 + 2 × (7 − 5) = 19.708 in;
/// faces 11 × 8; zip strips (4 − ⅜) / 2 + ½ + ⅜ = 2.6875, brought up to 2¾, × 12 + ¾ = 12¾;
/// base strip 4 + 1 = 5 × (10 + 19.708 − 12) + ¾ = 18.458, brought up to 18½.
#[test]
fn a_pouch_stands_on_a_flat_base() {
    let fields = [
        ("style", "standing"),
        ("width", "10"),
        ("height", "7"),
        ("depth", "4"),
        ("seam_side", "1/2"),
        ("seam_top", "3/8"),
        ("zip_shows", "3/8"),
        ("zip_round", "12"),
    ];
    let bag = bag(Family::Pouch, System::Inches, &fields);
    let draft = draft(&bag, System::Inches);
    let eighths = |n| Length::inches(n, 8);
    for [face, strip, base] in
        [["outer-panel", "zip-strip", "base-strip"], ["lining-panel", "lining-zip-strip", "lining-base-strip"]]
    {
        assert_eq!(sizes(&draft, face), (2, eighths(88), eighths(64)));
        assert_eq!(sizes(&draft, strip), (2, eighths(22), eighths(102)));
        assert_eq!(sizes(&draft, base), (1, eighths(40), eighths(148)));
        assert_eq!(draft.piece(face).expect("a face").figure, Figure::RoundedAbove(eighths(44)));
    }
    let zip = &draft.hardware[0];
    assert_eq!((zip.name.as_ref(), zip.size), ("Zip", Some(Length::INCH * 12)));
    assert!(draft.piece("zip-tab").is_none() && draft.piece("gusset").is_none());
    for finished in bag.finished_from_cut(&draft) {
        assert_eq!(finished.asked, finished.back, "{finished:?}");
    }
    // It stands on its straight edge: the lowest two corners are as far apart as it is wide.
    let outline = draft.piece("outer-panel").expect("a face").outline().corners();
    let low: Vec<Length> = outline.iter().filter(|p| p.y == Length::ZERO).map(|p| p.x).collect();
    assert_eq!((low.iter().min(), low.iter().max()), (Some(&Length::ZERO), Some(&eighths(88))));
}

/// 10 wide, 7 tall, rounded above by 2: over the top (10 − 4) + 2π + 2 × 5 = 22.28 in; the zip goes 14 in round, so the base
/// strip is 10 + 22.28 − 14 + 2 × ⅜ = 19.03, brought up to 19⅛. Rounded by half the width it is the half-round one.
#[test]
fn its_upper_corners_may_be_rounded() {
    let at = |style: &str, radius: &str, fields: &[(&str, &str)]| {
        let sizes = [
            ("style", style),
            ("width", "10"),
            ("height", "7"),
            ("depth", "4"),
            ("zip_round", "14"),
            ("seam_top", "3/8"),
        ];
        let all = [&sizes[..], &[("corner_radius", radius)], fields].concat();
        bag(Family::Pouch, System::Inches, &all)
    };
    let rounded = draft(&at("standing-rounded", "2", &[]), System::Inches);
    assert_eq!(sizes(&rounded, "base-strip").2, Length::inches(153, 8));
    // The seam round the face is ⅜: its corners are cut by 2⅜.
    assert_eq!(rounded.piece("outer-panel").expect("a face").figure, Figure::RoundedAbove(Length::inches(19, 8)));
    let (full, half) = (at("standing-rounded", "5", &[]), at("standing", "1", &[]));
    let (full, half) = (draft(&full, System::Inches), draft(&half, System::Inches));
    assert_eq!(full.pieces, half.pieces);
    // A low, wide one may be rounded, half-round it may not.
    assert!(at("standing-rounded", "2", &[("height", "3")]).draft(Ruler::Eighth).is_ok());
    let low = at("standing", "2", &[("height", "3")]).draft(Ruler::Eighth).expect_err("refused");
    assert_eq!(low[0].field, "height");
    let round = at("standing-rounded", "6", &[]).draft(Ruler::Eighth).expect_err("refused");
    assert_eq!(round[0].field, "corner_radius");
}

/// 24 × 16 × 10 cm, seams 1 cm, 0.7 at the zip: the curve is π × 24 / 2 + 2 × (16 − 12) = 45.70 cm; with 30 cm of zip that
/// shows 1 cm the strips are (10 − 1) / 2 + 1 + 0.7 = 6.2 × 31.4, the base strip 12 × (24 + 45.70 − 30 + 1.4) = 41.1 cm.
#[test]
fn the_same_in_centimetres() {
    let fields = [
        ("style", "standing"),
        ("width", "24"),
        ("height", "16"),
        ("depth", "10"),
        ("seam_side", "1"),
        ("seam_top", "0.7"),
        ("zip_shows", "1"),
        ("zip_round", "30"),
        ("lined", "no"),
        ("zip_sliders", "2"),
    ];
    let draft = draft(&bag(Family::Pouch, System::Centimetres, &fields), System::Centimetres);
    let mm = |n| Length::MILLIMETRE * n;
    let millimetre = Length::MILLIMETRE;
    let (_, wide, long) = sizes(&draft, "zip-strip");
    // The metric ruler has lines of 5 mm: up to the next of them.
    assert!(wide >= mm(62) && wide < mm(62) + millimetre * 5 && long >= mm(314) && long < mm(319), "{wide:?} {long:?}");
    let (_, deep, rest) = sizes(&draft, "base-strip");
    assert!(deep == mm(120) && rest >= mm(411) && rest < mm(416), "{deep:?} {rest:?}");
    assert_eq!(draft.hardware[0].name, "Zip with two sliders");
    assert!(draft.piece("lining-panel").is_none());
}

#[test]
fn a_zip_longer_than_the_curve_and_a_face_too_low_are_refused_by_their_fields() {
    for (key, value, field) in
        [("zip_round", "40", "zip_round"), ("height", "3", "height"), ("zip_shows", "9", "zip_shows")]
    {
        let bag = bag(Family::Pouch, System::Inches, &[("style", "standing"), (key, value)]);
        let problems = bag.draft(Ruler::Eighth).expect_err("refused");
        assert!(problems.iter().any(|p| p.field == field), "{problems:?}");
    }
}

/// A recessed zip 18 + 4 − 2 = 20 in long, and 3 in of tail: 23 in to buy, its end covered by (1 + 2 × ½) × (2 + 2 × ½).
#[test]
fn a_zip_may_hang_out_past_one_end() {
    let fields = [
        ("width", "18"),
        ("depth", "4"),
        ("mouth", "facing-zip"),
        ("zip_short", "2"),
        ("zip_tail", "3"),
        ("zip_sliders", "2"),
        ("seam_top", "1/2"),
    ];
    let draft = draft(&bag(Family::Tote, System::Inches, &fields), System::Inches);
    let zip = draft.hardware.iter().find(|h| h.name.starts_with("Zip")).expect("a zip");
    assert_eq!((zip.name.as_ref(), zip.size), ("Zip with two sliders", Some(Length::INCH * 23)));
    assert!(zip.note.contains("3 in past one end") && zip.note.contains("heads meet"), "{}", zip.note);
    assert_eq!(sizes(&draft, "zip-end"), (1, Length::INCH * 2, Length::INCH * 3));
    assert!(draft.steps.iter().any(|s| s.key == "zip" && s.text.ends_with("Cover its end.")), "{:?}", draft.steps);
    // The panel is as long as the mouth lets it be, whatever hangs out.
    assert_eq!(sizes(&draft, "zip-panel").1, Length::INCH * 20 + Length::INCH);
}

/// On a half circle 8 in wide a pocket 6 in wide has room at the straight edge and none at the other end.
#[test]
fn a_part_past_the_curve_is_told() {
    let told = |below: &str| {
        let start = Project {
            bag: bag(Family::Pouch, System::Inches, &[("style", "standing"), ("width", "8"), ("height", "5")]),
            ..Project::new("Trial", System::Inches)
        };
        let pocket = Edit::AddPart { part: "pocket".into(), wall: Some("front".into()) };
        let set = |field: &str, value: &str| Edit::Part { id: 1, field: field.into(), value: value.into() };
        let edits = [pocket, set("height", "2"), set("width", "6"), set("below", below)];
        let project = edits.iter().fold(start, |p, e| p.edited(e).unwrap_or_else(|why| panic!("{why:?}")).0);
        project.plan().expect("planned").draft.notices.iter().any(|n| n.text.contains("reaches past the curve"))
    };
    assert!(told("1/4"));
    assert!(!told("2 3/4"));
}
