//! Walls that slant, or are gathered or pleated into the mouth. Sizes worked out by hand stand in the comments.
#![allow(missing_docs)]

use bofta_core::FieldProblem;
use bofta_core::bag::{Bag, Body, Draft, Family, Side};
use bofta_core::lay::Random;
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Figure, From, Part, Piece};
use rstest::rstest;

fn eighths(n: i64) -> Length {
    Length::inches(n, 8)
}

const PLAIN: [(&str, &str); 7] = [
    ("straps", "no"),
    ("pocket", "no"),
    ("width", "12"),
    ("height", "10"),
    ("depth", "4"),
    ("seam_top", "1/2"),
    ("backing", "none"),
];

fn set(bag: &mut Bag, fields: &[(&str, &str)]) {
    for (key, value) in fields {
        bag.set(key, value, System::Inches).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
}

fn tote(fields: &[(&str, &str)]) -> Bag {
    let mut bag = Family::Tote.default_for(System::Inches);
    set(&mut bag, &PLAIN);
    set(&mut bag, fields);
    bag
}

fn drafted(bag: &Bag) -> Draft {
    bag.draft(Ruler::Eighth).unwrap_or_else(|p| panic!("{p:?}"))
}

fn piece(draft: &Draft, id: &str) -> Piece {
    draft.piece(id).unwrap_or_else(|| panic!("there is a {id}")).clone()
}

fn problems(bag: &Bag) -> Vec<FieldProblem> {
    bag.draft(Ruler::Eighth).expect_err("refused")
}

/// B = 12 + 4 = 16, M = 20, L = 10 + 2 = 12: k = 4/24, √(1 + k²) = 1.0138. At the mouth's raw edge 20 + 2 × ½ × 1.0138 +
/// 2 × ½ k = 21.18, to the ruler 21¼; 13 tall, so 13 k = 2.167, about 2⅛ narrower at the base on each side.
#[test]
fn a_tote_wider_at_the_mouth() {
    let bag = tote(&[("rising", "slanting"), ("mouth_width", "20")]);
    let draft = drafted(&bag);
    for id in ["outer-panel", "lining-panel"] {
        let panel = piece(&draft, id);
        assert_eq!((panel.size(), panel.count), ((eighths(170), eighths(104)), 2), "{id}");
        assert_eq!(panel.figure, Figure::Tapered(eighths(-17)), "{id}");
    }
    let outline = piece(&draft, "outer-panel").outline().corners();
    let xs: Vec<i64> = outline.iter().map(|p| p.x.0 / eighths(1).0).collect();
    assert_eq!(xs, [17, 153, 170, 0]);
    // The corners are sewn across: 2 from where the seams meet, along either; along the base that is 8 − 2 from the middle,
    // up the side ½ + 2 / 1.0138 = 2.4728 from the raw base edge.
    let panel = piece(&draft, "outer-panel");
    let mark = panel.marks.iter().find(|m| m.boxes).expect("a corner");
    let up = mark.and.expect("and up").0.in_units(System::Inches);
    assert!((up - 2.4728).abs() < 1e-3, "{up}");
    assert_eq!((mark.distance, mark.from), (eighths(48), From::Middle));
}

/// The other way about, M = 12: k = −4/24; at the base's raw edge 16 + 1.0138 + 2 × ½ × 1/6 = 17.18, and at the mouth 2⅛
/// narrower on each side.
#[test]
fn a_tote_narrower_at_the_mouth() {
    let panel = piece(&drafted(&tote(&[("rising", "slanting"), ("mouth_width", "12")])), "outer-panel");
    assert_eq!((panel.size(), panel.figure.clone()), ((eighths(138), eighths(104)), Figure::Tapered(eighths(17))));
    let reason: Vec<&str> = panel.width.terms.iter().map(|t| t.name.as_ref()).collect();
    assert!(reason.contains(&"wide") && reason.contains(&"more, for seams on the slant"), "{reason:?}");
}

/// As wide at the mouth as at the base, walls that slant are upright: the draft is the one of a straight bag.
#[test]
fn a_slant_of_nothing_is_straight() {
    let slanting = drafted(&tote(&[("rising", "slanting"), ("mouth_width", "16")]));
    let mut straight = tote(&[]);
    set(&mut straight, &[("boxing", "sewn-across")]);
    let straight = drafted(&straight);
    for id in ["outer-panel", "lining-panel"] {
        let (a, b) = (piece(&slanting, id), piece(&straight, id));
        assert_eq!((a.size(), a.figure, a.count), (b.size(), b.figure, b.count));
    }
    assert_eq!(slanting.millilitres, straight.millilitres);
}

/// 14 + 4 + 1 wide as ever; gathered into a mouth of 12: the bands are 12 + 1 by 2 × 2 + 1, and 6 are taken in at each.
#[test]
fn gathered_into_a_band() {
    let fields =
        [("width", "14"), ("mouth", "band"), ("band_depth", "2"), ("rising", "gathered"), ("mouth_width", "12")];
    let bag = tote(&fields);
    let draft = drafted(&bag);
    assert_eq!(piece(&draft, "outer-panel").size().0, eighths(19 * 8));
    assert_eq!(piece(&draft, "lining-panel").size().0, eighths(19 * 8));
    let band = piece(&draft, "band");
    assert_eq!((band.size(), band.count), ((eighths(13 * 8), eighths(5 * 8)), 2));
    let seam = bag.seams(Ruler::Eighth).into_iter().find(|s| s.name == "band to the mouth").expect("a seam");
    assert_eq!(seam.ease, eighths(6 * 8));
    assert_eq!(seam.lengths(&draft), Some([eighths(12 * 8); 2]));
    assert!(draft.steps.iter().any(|s| s.text.contains("two rows of long stitches")), "{:?}", draft.steps);
}

/// Bound: round a mouth of 12 flat, 2 × 12, and 10 to join on the bias.
#[test]
fn a_binding_goes_round_what_is_gathered() {
    let draft = drafted(&tote(&[("mouth", "bound"), ("rising", "gathered"), ("mouth_width", "12")]));
    assert_eq!(piece(&draft, "binding").height.size, eighths(34 * 8));
}

/// Two pleats whose folds reach 1 under take 2 × 4 of 16. Their centres are 3 from the middle of a face of 12.
#[rstest]
// A box pleat's face is 2 wide: folds at 2 and 4, brought to 0 and 6.
#[case("box-pleats", &[("box pleat, a fold", 2), ("box pleat, a fold", 4), ("box pleat, the line its fold is brought to", 0), ("box pleat, the line its fold is brought to", 6)])]
// An inverted one's folds are at 1 and 5, both brought to 3.
#[case("inverted-pleats", &[("inverted pleat, a fold", 1), ("inverted pleat, a fold", 5), ("inverted pleat, the line its fold is brought to", 3)])]
fn pleats_are_marked(#[case] rising: &str, #[case] marks: &[(&str, i64)]) {
    let fields = [("rising", rising), ("pleats", "2"), ("pleat_depth", "1"), ("mouth", "band")];
    let draft = drafted(&tote(&fields));
    let panel = piece(&draft, "outer-panel");
    let found: Vec<(&str, i64)> = panel
        .marks
        .iter()
        .filter(|m| m.name.contains("pleat"))
        .map(|m| (m.name.as_ref(), m.distance.0 / eighths(8).0))
        .collect();
    assert_eq!(found, marks);
    assert!(panel.marks.iter().filter(|m| m.name.contains("pleat")).all(|m| m.from == From::Middle));
    // 16 − 8, and two seams.
    assert_eq!(piece(&draft, "band").width.size, eighths(9 * 8));
}

/// Of an odd number of pleats one is in the middle: its own folds, once.
#[test]
fn a_pleat_in_the_middle_is_marked_once() {
    let draft = drafted(&tote(&[("rising", "inverted-pleats"), ("pleats", "1"), ("pleat_depth", "1")]));
    let panel = piece(&draft, "outer-panel");
    let found: Vec<i64> = panel.marks.iter().filter(|m| m.name.contains("pleat")).map(|m| m.distance.0).collect();
    assert_eq!(found, [eighths(16).0, 0]);
}

#[rstest]
#[case(&[("rising", "gathered"), ("mouth_width", "16")], "mouth_width", "nothing to gather")]
#[case(&[("rising", "gathered"), ("mouth_width", "3")], "mouth_width", "between")]
#[case(&[("rising", "slanting"), ("mouth_width", "50")], "mouth_width", "between")]
#[case(&[("rising", "slanting"), ("mouth_width", "0")], "mouth_width", "between")]
#[case(&[("rising", "slanting"), ("boxing", "cut-out")], "boxing", "sew the corners across")]
#[case(&[("rising", "slanting"), ("base", "fold")], "rising", "two panels")]
#[case(&[("rising", "gathered"), ("mouth_width", "12"), ("mouth", "double-hem")], "rising", "bound or banded")]
#[case(&[("rising", "box-pleats"), ("pleats", "4"), ("pleat_depth", "1")], "pleat_depth", "on a face 12 in wide")]
#[case(&[("rising", "box-pleats"), ("pleat_depth", "0")], "pleat_depth", "between")]
fn what_cannot_stand_names_its_field(#[case] fields: &[(&str, &str)], #[case] field: &str, #[case] says: &str) {
    let found = problems(&tote(fields));
    assert!(found.iter().any(|p| p.field == field && p.message.contains(says)), "{found:?}");
}

/// Chosen, walls that slant bring along what they need; what was typed stays.
#[test]
fn slanting_walls_bring_along_what_they_need() {
    let bag = tote(&[("mouth", "double-hem"), ("base", "fold"), ("rising", "slanting")]);
    let Body::Tote(tote) = &bag.body else { panic!("a tote") };
    assert_eq!(format!("{:?} {:?} {:?}", tote.mouth.kind, tote.base, tote.boxing), "TurnedThrough Seam SewnAcross");
    assert_eq!(tote.width, eighths(12 * 8));
    drafted(&bag);
}

/// What is put on a slanting wall has its place where the wall is that wide all the way up; nothing is caught in a side
/// seam that slants, nothing in an edge that is still to be gathered.
#[test]
fn walls_of_bags_that_are_not_straight() {
    let wall = |fields: &[(&str, &str)]| {
        let walls = tote(fields).walls(Ruler::Eighth);
        let front = walls.iter().find(|w| w.side == Side::Front).expect("a front").clone();
        (front, walls.iter().any(|w| w.side == Side::Left))
    };
    let (straight, has_sides) = wall(&[]);
    assert!(straight.sides.is_some() && straight.caught.is_some() && has_sides);
    // A mouth of 8 is half of 16: the face is 6 wide there. The panel is 17⅜ wide at its base.
    let (narrow, has_sides) = wall(&[("rising", "slanting"), ("mouth_width", "8")]);
    assert_eq!(narrow.width, eighths(48));
    assert!(narrow.sides.is_none() && narrow.caught.is_some() && !has_sides);
    let panel = piece(&drafted(&tote(&[("rising", "slanting"), ("mouth_width", "8")])), "outer-panel");
    assert_eq!(narrow.beside * 2 + narrow.width, panel.width.size);
    let (gathered, has_sides) = wall(&[("rising", "gathered"), ("mouth_width", "12")]);
    assert!(gathered.sides.is_some() && gathered.caught.is_none() && has_sides);
}

/// A frustum 12 × 4 at its base and 24 × 8 at its mouth, 10 tall: 10/3 × (48 + 192 + 96) cubic inches = 18.35 l.
#[test]
fn a_slanting_bag_holds_a_frustum() {
    let draft = drafted(&tote(&[("rising", "slanting"), ("mouth_width", "32")]));
    let exact = 1120.0 * 16.387_064;
    assert!((draft.millilitres as f64 - exact).abs() < 5.0, "{} for {exact}", draft.millilitres);
}

/// Worked back from the cut panels the bag is what was asked, to two lines of the ruler, for any lean, in either system.
#[test]
fn slanting_bags_come_back_as_they_were_typed() {
    let mut drafted = 0;
    for number in 0..600 {
        let random = &mut Random::new(number);
        let system = [System::Inches, System::Centimetres][random.below(2)];
        let ruler = Ruler::default_for(system);
        let mut bag = Family::Tote.default_for(system);
        let mut any = |key: &str, least: usize, more: usize| {
            let length = ruler.step() * (least + random.below(more)) as i64;
            let _ = bag.set(key, &format!("{} {}", length.in_units(system), system.symbol()), system);
        };
        let unit = if system == System::Inches { 8 } else { 25 };
        any("width", 8 * unit, 12 * unit);
        any("height", 8 * unit, 12 * unit);
        any("depth", 0, 6 * unit);
        any("mouth_width", 6 * unit, 26 * unit);
        any("seam_side", unit / 4, unit);
        any("seam_base", unit / 4, unit);
        bag.set("rising", "slanting", system).expect("a choice");
        let lining = ["same", "smaller", "reversible", "border"][number as usize % 4];
        bag.set("mouth", ["turned-through", "bound", "band"][number as usize / 4 % 3], system).expect("a choice");
        bag.set("lining", lining, system).expect("a choice");
        let Ok(draft) = bag.draft(ruler) else { continue };
        drafted += 1;
        for f in bag.finished_from_cut(&draft) {
            let apart = (f.back - f.asked).0.abs();
            assert!(apart <= ruler.step().0 * 2, "{number}: {f:?}\n{bag:?}");
        }
        // Outer and lining are cut from the same lean: sewn together at the mouth they are equally long there.
        for seam in bag.seams(ruler) {
            let Some([one, other]) = seam.lengths(&draft) else { continue };
            assert!((one - other).0.abs() <= ruler.step().0 * 4, "{number}: {} {one:?} {other:?}", seam.name);
        }
    }
    assert!(drafted > 300, "{drafted} of 600");
}

/// Nobody typed how wide the mouth is: what is chosen brings one along that goes with it. What was typed and can stand stays.
#[rstest]
#[case(&[("width", "26"), ("rising", "slanting")], 32)]
#[case(&[("width", "26"), ("rising", "gathered")], 20)]
#[case(&[("rising", "slanting"), ("mouth_width", "9"), ("rising", "gathered")], 9)]
#[case(&[("rising", "slanting"), ("mouth_width", "30"), ("rising", "gathered")], 10)]
fn a_mouth_nobody_typed_goes_along(#[case] fields: &[(&str, &str)], #[case] inches: i64) {
    let bag = tote(fields);
    let Body::Tote(tote) = &bag.body else { panic!("a tote") };
    let apart = (tote.rise.mouth_width - eighths(inches * 8)).0.abs();
    assert!(apart <= eighths(8).0, "{:?}", tote.rise.mouth_width);
    drafted(&bag);
}

/// A band 2 deep takes 2 off a panel and gives it a seam: what lies clear of the seams behind it is a seam smaller on every
/// side, never larger than the panel.
#[rstest]
#[case("band")]
#[case("turned-through")]
#[case("bound")]
fn backing_is_never_larger_than_its_panel(#[case] mouth: &str) {
    let fields = [("mouth", mouth), ("backing", "clear-of-seams"), ("backing_cloth", "fleece")];
    for more in [&[][..], &[("lining", "border")][..], &[("rising", "slanting"), ("mouth_width", "20")][..]] {
        let bag = tote(&[&fields[..], more].concat());
        let Ok(draft) = bag.draft(Ruler::Eighth) else { continue };
        let (panel, fleece) = (piece(&draft, "outer-panel"), draft.pieces.iter().find(|p| p.backs.is_some()));
        let (fleece, panel) = (fleece.expect("fleece").size(), panel.size());
        assert!(fleece.0 < panel.0 && fleece.1 < panel.1, "{mouth} {more:?}: {fleece:?} behind {panel:?}");
        // Half an inch at the base; at the top a seam, nothing where it is bound.
        let less = if mouth == "bound" { eighths(4) } else { eighths(8) };
        if more.is_empty() {
            assert_eq!(panel.1 - fleece.1, less, "{mouth}");
        }
    }
}

/// However many pleats there are and however deep: each takes four times its depth, its folds lie on the face, the lines they
/// are brought to are as far from them as they take, and none reaches into the next.
#[test]
fn pleats_share_the_face() {
    for rising in ["box-pleats", "inverted-pleats"] {
        for pleats in 1..=8_i64 {
            for depth in 2..=16_i64 {
                let mut bag = tote(&[]);
                let eighths_deep = format!("{depth}/8");
                let fields = [("rising", rising), ("pleats", &pleats.to_string()), ("pleat_depth", &eighths_deep)];
                for (key, value) in fields {
                    bag.set(key, value, System::Inches).expect("a field");
                }
                // Open, a pleat is six times as wide as its folds are deep: on a face of 12 so many have room.
                let fits = pleats * depth * 6 <= 12 * 8;
                assert_eq!(bag.draft(Ruler::Eighth).is_ok(), fits, "{rising}: {pleats} of {depth}/8");
                let Ok(draft) = bag.draft(Ruler::Eighth) else { continue };
                let Body::Tote(tote) = &bag.body else { panic!("a tote") };
                assert_eq!(tote.flat_mouth(), eighths(16 * 8) - eighths(depth) * (4 * pleats));
                let panel = piece(&draft, "outer-panel");
                let marks: Vec<_> = panel.marks.iter().filter(|m| m.name.contains("pleat")).collect();
                assert!(marks.iter().all(|m| m.distance <= eighths(6 * 8) && m.distance >= Length::ZERO), "{marks:?}");
                // Each fold goes 2 × its depth to its line, on one side of the middle or the other.
                let of = |what: &str| {
                    marks.iter().filter(|m| m.name.ends_with(what)).map(|m| m.distance).collect::<Vec<_>>()
                };
                let (folds, lines) = (of("a fold"), of("brought to"));
                for fold in &folds {
                    let way = eighths(depth) * 2;
                    let near = |a: Length, b: Length| (a - b).0.abs() <= 8;
                    let found = lines
                        .iter()
                        .any(|line| near((*line - *fold).max(*fold - *line), way) || near(*line + *fold, way));
                    assert!(found, "{rising}, {pleats} of {depth}/8: {fold:?} of {folds:?} onto {lines:?}");
                }
            }
        }
    }
}

/// Told as it is: how much is taken in, or how much wider the mouth is.
#[rstest]
#[case(&[("rising", "slanting"), ("mouth_width", "20")], "Laid flat the mouth is 4 in wider than the base.")]
#[case(&[("rising", "slanting"), ("mouth_width", "12 1/2")], "Laid flat the mouth is 3½ in narrower than the base.")]
#[case(&[("rising", "gathered"), ("mouth_width", "10")], "16 in of cloth are gathered into 10 in.")]
#[case(&[("rising", "gathered"), ("mouth_width", "15")], "From a fifth more to two and a half times as much is usual.")]
#[case(&[("rising", "gathered"), ("mouth_width", "5")], "From a fifth more to two and a half times as much is usual.")]
#[case(&[("rising", "box-pleats"), ("pleats", "2"), ("pleat_depth", "1/2")], "The pleats take 4 in of each panel: laid flat the mouth is 12 in wide.")]
fn what_the_walls_do_is_told(#[case] fields: &[(&str, &str)], #[case] says: &str) {
    let draft = drafted(&tote(fields));
    assert!(draft.notices.iter().any(|n| n.text.contains(says)), "{:?}", draft.notices);
}

/// Straps have their place at the mouth, not at the base: an inch and a half in from the edge of a face that is half as wide.
#[test]
fn straps_go_by_the_mouth() {
    let straps = [("straps", "yes"), ("strap_width", "1"), ("strap_inset", "1"), ("strap_length", "20")];
    let spacing = |more: &[(&str, &str)]| drafted(&tote(&[&straps[..], more].concat())).strap_spacing;
    // 12 − 2 × 1 − 1, and of a face of 6: 6 − 2 − 1.
    assert_eq!(spacing(&[]), Some(eighths(9 * 8)));
    assert_eq!(spacing(&[("rising", "slanting"), ("mouth_width", "8")]), Some(eighths(3 * 8)));
    let narrow = tote(&[&straps[..], &[("strap_inset", "3"), ("rising", "slanting"), ("mouth_width", "8")]].concat());
    let problem = problems(&narrow).into_iter().find(|p| p.field == "strap_inset").expect("their ends meet");
    assert!(problem.message.contains("between 0 and 2 in"), "{problem:?}");
}

/// In centimetres, by hand: B = 30 + 10 = 40, M = 52, L = 30 + 5 = 35: k = 12/70, √(1 + k²) = 1.0146. At the mouth
/// 52 + 2 × 1.0146 + 2 k = 54.372 → 54.4 wide, 37 tall, 37 k = 6.343 → 6.3 narrower at the base on each side.
#[test]
fn a_metric_tote_wider_at_the_mouth() {
    let mut bag = Family::Tote.default_for(System::Centimetres);
    let fields = [
        ("straps", "no"),
        ("pocket", "no"),
        ("width", "30"),
        ("height", "30"),
        ("depth", "10"),
        ("rising", "slanting"),
        ("mouth_width", "52"),
    ];
    for (key, value) in fields {
        bag.set(key, value, System::Centimetres).unwrap_or_else(|p| panic!("{key} {value}: {p}"));
    }
    let draft = bag.draft(Ruler::Millimetre).unwrap_or_else(|p| panic!("{p:?}"));
    let panel = piece(&draft, "outer-panel");
    let mm = |n: i64| Length::MILLIMETRE * n;
    assert_eq!((panel.size(), panel.figure), ((mm(544), mm(370)), Figure::Tapered(-mm(63))));
}

/// A bag that was kept before walls could slant is read as one whose walls are straight, all else as it was.
#[test]
fn a_bag_of_before_is_straight() {
    let bag = tote(&[]);
    let mut kept = serde_json::to_string(&bag).expect("kept");
    for (key, value) in [("rising", "\"straight\""), ("pleats", "1")] {
        let said = format!("\"{key}\":{value}");
        assert!(kept.contains(&said), "{said} in {kept}");
        kept = kept.replacen(&format!("{said},"), "", 1).replacen(&format!(",{said}"), "", 1);
        assert!(!kept.contains(&format!("\"{key}\"")), "{key} is gone from {kept}");
    }
    let read: Bag = serde_json::from_str(&kept).expect("read");
    assert_eq!(read, bag);
    let Body::Tote(tote) = &read.body else { panic!("a tote") };
    assert!(tote.rise.is_straight() && tote.flat_mouth() == tote.width + tote.depth);
}

/// A turned mouth has both allowances of outer and lining, two layers each; in a pleat each lies three times: twelve of
/// cotton, where eight are the most. Straight walls have no such place.
#[test]
fn a_pleat_in_the_mouth_counts_for_the_layers() {
    let stacks = |rising: &str| {
        let mut bag = Family::Tote.default_for(System::Inches);
        for (key, value) in [("rising", rising), ("pleat_depth", "1/2")] {
            bag.set(key, value, System::Inches).expect("set");
        }
        let draft = bag.draft(Ruler::Eighth).expect("drafted");
        draft.stacks.into_iter().filter(|s| s.place.contains("pleat")).map(|s| s.layers).collect::<Vec<_>>()
    };
    assert_eq!(stacks("box-pleats"), [[(Part::Outer, 6), (Part::Lining, 6)]]);
    assert!(stacks("straight").is_empty());
}

const POUCH: [(&str, &str); 5] =
    [("seam_side", "3/8"), ("seam_base", "3/8"), ("seam_top", "3/8"), ("rising", "slanting"), ("pocket", "no")];

fn pouch(fields: &[(&str, &str)]) -> Bag {
    let mut bag = Family::Pouch.default_for(System::Inches);
    set(&mut bag, &POUCH);
    set(&mut bag, fields);
    bag
}

/// B = 8, M = 10, L = 6: k = 1/6, √(1 + k²) = 1.0138. At the zip's raw edge 10 + ¾ × 1.0138 + ¾ k = 10.885, to the ruler 11;
/// 6¾ tall, so 1⅛ narrower at the base on each side. The zip is 10 less a tab of ½ at both ends.
#[test]
fn a_flat_pouch_wider_at_the_zip() {
    let bag = pouch(&[("width", "8"), ("height", "6"), ("mouth_width", "10")]);
    let draft = drafted(&bag);
    for id in ["outer-panel", "lining-panel"] {
        let panel = piece(&draft, id);
        assert_eq!((panel.size(), panel.count), ((eighths(88), eighths(54)), 2), "{id}");
        assert_eq!(panel.figure, Figure::Tapered(eighths(-9)), "{id}");
    }
    let zip = draft.hardware.iter().find(|h| h.name.starts_with("Zip")).expect("a zip");
    assert_eq!(zip.size, Some(eighths(72)));
    let along = bag.seams(Ruler::Eighth).into_iter().find(|s| s.name == "along the zip").expect("a seam");
    let [one, other] = along.exact(&draft).expect("both panels");
    assert_eq!(one, other);
    assert!((one.in_units(System::Inches) - 10.0).abs() < 1e-6, "{one:?}");
    let back = bag.finished_from_cut(&draft);
    let mouth = back.iter().find(|f| f.field == "mouth_width").expect("told");
    assert!((mouth.back - mouth.asked).0.abs() <= Ruler::Eighth.step().0 * 2, "{back:?}");
}

/// Boxed, B = 8 + 3 = 11, M = 9, L = 5 + 1½: k = −2/13, √(1 + k²) = 1.01176. At the base's raw edge 11 + ¾ × 1.01176 + ¾ × 2/13 =
/// 11.8742, to the ruler 11⅞; 7¼ tall, 1⅛ narrower at the zip. Across the corner: 4 from the middle, ⅜ + 1½ / 1.01176 up.
#[test]
fn a_boxed_pouch_narrower_at_the_zip() {
    let bag = pouch(&[("style", "boxed"), ("width", "8"), ("depth", "3"), ("height", "5"), ("mouth_width", "9")]);
    let draft = drafted(&bag);
    let panel = piece(&draft, "outer-panel");
    assert_eq!((panel.size(), panel.figure.clone()), ((eighths(95), eighths(58)), Figure::Tapered(eighths(9))));
    let mark = panel.marks.iter().find(|m| m.boxes).expect("a corner");
    assert_eq!((mark.distance, mark.from), (eighths(32), From::Middle));
    let up = mark.and.expect("and up").0.in_units(System::Inches);
    assert!((up - 1.85756).abs() < 1e-4, "{up}");
    assert!(draft.steps.iter().any(|s| s.text.contains("at its marks")), "{:?}", draft.steps);
    // What is put on it has its place where the face is narrowest: 9 × 8/11 wide, and no side seam to be caught in.
    let front = bag.walls(Ruler::Eighth).into_iter().find(|w| w.side == Side::Front).expect("a front");
    assert!((front.width.in_units(System::Inches) - 72.0 / 11.0).abs() < 1e-4, "{:?}", front.width);
    assert!(front.sides.is_none());
}

/// Cut 8¾ wide as ever, two box pleats of ¼ deep in each panel take 2: the zip is 6 less the tabs.
#[test]
fn a_pouch_pleated_into_its_zip() {
    let fields = [("width", "8"), ("rising", "box-pleats"), ("pleats", "2"), ("pleat_depth", "1/4")];
    let draft = drafted(&pouch(&fields));
    assert_eq!(piece(&draft, "outer-panel").size().0, eighths(70));
    let zip = draft.hardware.iter().find(|h| h.name.starts_with("Zip")).expect("a zip");
    assert_eq!(zip.size, Some(eighths(40)));
    assert!(piece(&draft, "outer-panel").marks.iter().any(|m| m.name.contains("box pleat")));
    assert!(draft.steps.iter().any(|s| s.key == "take-in"));
}

/// What a slant cannot go with is refused by name, and comes along where one choice decides the other.
#[test]
fn a_slanting_pouch_is_of_two_panels() {
    let mut bag = pouch(&[("width", "8"), ("mouth_width", "30")]);
    assert_eq!(problems(&bag)[0].field, "mouth_width");
    set(&mut bag, &[("mouth_width", "9"), ("base", "fold")]);
    assert_eq!(bag.answer("rising"), Some("straight"));
    set(&mut bag, &[("rising", "slanting")]);
    assert_eq!(bag.answer("base"), Some("seam"));
    // Half-round its walls are what they are: the choice is kept and says nothing.
    set(&mut bag, &[("style", "half-round"), ("depth", "2"), ("height", "6")]);
    let half = drafted(&bag);
    assert_eq!(piece(&half, "outer-panel").figure, Figure::HalfRound);
}
