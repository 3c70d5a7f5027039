//! Cut lists as people have them: free text, tables, spreadsheets, outlines; and back again.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Body, Bought, CutList, GoodKind, Row, RowShape};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Part;
use bofta_core::project::{Edit, Project};
use bofta_core::shape::{Outline, Point};
use bofta_formats::cut_list::read_text;
use bofta_formats::cut_table::CutTable;
use bofta_formats::gate::FileKind;
use bofta_formats::outlines::{DrawingError, read_dxf, read_svg, write_dxf, write_svg};
use bofta_formats::{csv, read_bag, spreadsheet};
use proptest::prelude::*;
use rstest::rstest;

fn inch(n: i64, d: i64) -> Length {
    Length::inches(n, d)
}

fn only(text: &str) -> Row {
    let found = read_text(text, System::Inches);
    assert_eq!((found.rows.len(), found.unread.len()), (1, 0), "{text}: {found:?}");
    found.rows[0].clone()
}

/// (line, count, width, height, part)
#[rstest]
#[case("4x 9 1/2 x 12 lining", 4, inch(19, 2), inch(12, 1), Part::Lining)]
#[case("Outer: cut 2, 15 x 16 1/2", 2, inch(15, 1), inch(33, 2), Part::Outer)]
#[case("2 straps 4 x 26", 2, inch(4, 1), inch(26, 1), Part::Straps)]
#[case("Straps: 2 4 x 26 in", 2, inch(4, 1), inch(26, 1), Part::Straps)]
#[case("• Lining fabric – cut two pieces 14½\" × 17\"", 2, inch(29, 2), inch(17, 1), Part::Lining)]
#[case("(2) 14-1/2 x 17 main fabric", 2, inch(29, 2), inch(17, 1), Part::Outer)]
#[case("Pocket 7 1/4\" wide by 12\" tall", 1, inch(29, 4), inch(12, 1), Part::Pocket)]
#[case("Pocket 12\" tall by 7 1/4\" wide", 1, inch(29, 4), inch(12, 1), Part::Pocket)]
#[case("Interfacing, 35 x 40 cm (2)", 2, Length::CENTIMETRE * 35, Length::CENTIMETRE * 40, Part::Interfacing)]
#[case("Fleece 9.5 x 12,25 x2", 2, inch(19, 2), inch(49, 4), Part::Backing)]
#[case("6) Handles: cut 2 @ 4 inches x 22 inches", 2, inch(4, 1), inch(22, 1), Part::Straps)]
#[case("one bottom 8 x 5", 1, inch(8, 1), inch(5, 1), Part::Outer)]
#[case("2 squares of lining: 5 in square", 2, inch(5, 1), inch(5, 1), Part::Lining)]
fn a_line_is_read(
    #[case] line: &str,
    #[case] count: u32,
    #[case] width: Length,
    #[case] height: Length,
    #[case] part: Part,
) {
    let row = only(line);
    assert_eq!((row.count, row.width, row.height, row.part), (count, Some(width), height, part), "{row:?}");
    assert!(!row.name.is_empty());
}

/// Lines that were once misread without a word: (line, rows as count, width, height in eighths of an inch).
#[rstest]
#[case("2 @ 15 x 16½", &[(2, 120, 132)])]
#[case("handles: 2, 5 x 40", &[(2, 40, 320)])]
#[case("2no. 5x40", &[(2, 40, 320)])]
#[case("2 no 5x40 straps", &[(2, 40, 320)])]
#[case("5 x 9 and two 3 x 1½", &[(1, 40, 72), (2, 24, 12)])]
#[case("Pocket: 5 x 9, 2 of 3 x 4", &[(1, 40, 72), (2, 24, 32)])]
#[case("two pairs of tabs 3 x 4", &[(4, 24, 32)])]
#[case("a pair of straps, 4 x 26", &[(2, 32, 208)])]
#[case("Cut 2 in lining 9 x 12", &[(2, 72, 96)])]
#[case("zip panel 2 x 14 (2)", &[(2, 16, 112)])]
#[case("Outer, qty 3: 9 x 12", &[(3, 72, 96)])]
#[case("3. Strap 4 x 26", &[(1, 32, 208)])]
#[case("4 yds x 2 in binding", &[(1, 1152, 16)])]
#[case("outer 15 x 14, 2; lining 15 x 13, 3", &[(2, 120, 112), (3, 120, 104)])]
#[case("Side panel: 5 in wide, 12 in tall, cut 2", &[(2, 40, 96)])]
#[case("Strip 12 in long and 3 in wide", &[(1, 24, 96)])]
#[case("Body 18 in (w) x 15 in (h) x 2", &[(2, 144, 120)])]
#[case("“Main” 14-1/2\" × 17\"", &[(1, 116, 136)])]
fn lines_that_were_misread(#[case] line: &str, #[case] expected: &[(u32, i64, i64)]) {
    let found = read_text(line, System::Inches);
    let got: Vec<_> = found.rows.iter().map(|r| (r.count, r.width, r.height)).collect();
    let expected: Vec<_> = expected.iter().map(|(n, w, h)| (*n, Some(inch(*w, 8)), inch(*h, 8))).collect();
    assert_eq!((got, found.unread.len(), found.asks.len()), (expected, 0, 0), "{line}: {found:?}");
}

/// A row of a line: how many, its part, width and height in inches.
type Cut = (u32, Part, i64, i64);

/// Lines that name several pieces of a size, say what a piece becomes, or number themselves.
#[rstest]
#[case("Left and right: 9 x 11", &[(2, Part::Outer, 9, 11)])]
#[case("Front/back 9 x 11", &[(2, Part::Outer, 9, 11)])]
#[case("left/right 20 x 30, 1 each", &[(2, Part::Outer, 20, 30)])]
#[case("Body / Contrast: 9 x 10, 2 each", &[(2, Part::Outer, 9, 10), (2, Part::Contrast, 9, 10)])]
#[case("9x10 – two main, two lining", &[(2, Part::Outer, 9, 10), (2, Part::Lining, 9, 10)])]
#[case("9 x 11: one denim, one lining", &[(1, Part::Outer, 9, 11), (1, Part::Lining, 9, 11)])]
#[case("outer x2 lining x2 9 x 11", &[(2, Part::Outer, 9, 11), (2, Part::Lining, 9, 11)])]
#[case("9 x 11 outer 2 lining 2", &[(2, Part::Outer, 9, 11), (2, Part::Lining, 9, 11)])]
#[case("cut 4 (2 outer, 2 lining) 9 x 11", &[(2, Part::Outer, 9, 11), (2, Part::Lining, 9, 11)])]
#[case("Outer, lining & fleece: 9 x 11, cut 2 of each",
    &[(2, Part::Outer, 9, 11), (2, Part::Lining, 9, 11), (2, Part::Backing, 9, 11)])]
#[case("Zip panel 2 x 14, 2 outer and 2 lining", &[(2, Part::Outer, 2, 14), (2, Part::Lining, 2, 14)])]
#[case("pocket (lining and outer) 6 x 8", &[(1, Part::Pocket, 6, 8), (1, Part::Pocket, 6, 8)])]
#[case("9x11 x2 (outer) 9x12 x2 (lining)", &[(2, Part::Outer, 9, 11), (2, Part::Lining, 9, 12)])]
#[case("9 x 11 outer / 9 x 10 lining", &[(1, Part::Outer, 9, 11), (1, Part::Lining, 9, 10)])]
#[case("Circle, diameter 8, outer and lining", &[(1, Part::Outer, 8, 8), (1, Part::Lining, 8, 8)])]
#[case("flap 6 x 20 (folded to 6 x 10)", &[(1, Part::Outer, 6, 20)])]
#[case("finished 6 x 8, cut 7 x 9 pocket", &[(1, Part::Pocket, 7, 9)])]
#[case("9 x 11 (229 x 279 mm) outer", &[(1, Part::Outer, 9, 11)])]
#[case("9\" (23 cm) x 11\" (28 cm) outer", &[(1, Part::Outer, 9, 11)])]
#[case("strap 3\" x 4'", &[(1, Part::Straps, 3, 48)])]
#[case("strap 4 x 5'6\"", &[(1, Part::Straps, 4, 66)])]
#[case("9 х 11 outer", &[(1, Part::Outer, 9, 11)])]
#[case("circle radius 4 in, cut 2", &[(2, Part::Outer, 8, 8)])]
#[case("W9 x H11 outer", &[(1, Part::Outer, 9, 11)])]
#[case("height 11, width 9 pocket", &[(1, Part::Pocket, 9, 11)])]
#[case("piece 3: lining 9 x 11", &[(1, Part::Lining, 9, 11)])]
#[case("12 oz canvas 9 x 11", &[(1, Part::Outer, 9, 11)])]
#[case("100% cotton lining 9 x 11", &[(1, Part::Lining, 9, 11)])]
#[case("half a dozen squares 5 in", &[(6, Part::Outer, 5, 5)])]
#[case("two dozen 3 x 3 tabs", &[(24, Part::Straps, 3, 3)])]
#[case("twenty-five 5 x 6 patches", &[(25, Part::Contrast, 5, 6)])]
#[case("cut 1 and 1 reversed 8 x 9 side", &[(2, Part::Outer, 8, 9)])]
#[case("1. Outer 9 x 11\n2. Lining 9 x 12\n3) Pocket 5 x 6",
    &[(1, Part::Outer, 9, 11), (1, Part::Lining, 9, 12), (1, Part::Pocket, 5, 6)])]
#[case("Piece,Count,Width,Height\n\"Main\npanel\",2,9,11\nLining,2,9,11", &[(2, Part::Outer, 9, 11), (2, Part::Lining, 9, 11)])]
fn several_pieces_of_a_size_are_read(#[case] line: &str, #[case] expected: &[Cut]) {
    let found = read_text(line, System::Inches);
    let whole = |l: Length| l.0 / Length::INCH.0;
    let got: Vec<Cut> =
        found.rows.iter().map(|r| (r.count, r.part, r.width.map_or(0, whole), whole(r.height))).collect();
    assert_eq!((&got[..], found.unread.len(), found.asks.len()), (expected, 0, 0), "{line}: {found:?}");
}

/// A corner that is cut out belongs to the piece, and so does a seam allowance that is still to be added.
#[test]
fn what_belongs_to_a_piece_is_no_other_piece() {
    let notched = only("lining 9 x 11 with 2 x 2 1/2 corners cut out");
    assert_eq!(notched.shape, RowShape::Notched { across: inch(2, 1), up: inch(5, 2) });
    assert_eq!(only("9 x 11 plus 1/2 in seam allowance lining").seam, inch(1, 2));
    assert_eq!(only("lining 9 x 11 (includes 1/2\" seam allowance)").seam, Length::ZERO);
    let found = read_text("No 5 zip, 14 in", System::Inches);
    assert_eq!((found.bought[0].bought.count, found.bought[0].bought.size), (1, Some(inch(14, 1))));
}

/// What can be meant in two ways is asked, the other readings at hand: (line, a word of the question).
#[rstest]
#[case("outer 15 x 16 x 2", "three numbers")]
#[case("lining 8 x 8 x 8", "three numbers")]
#[case("Outer 7 x 16 on fold", "on the fold")]
#[case("cut 2 outer 9 x 12 (3)", "2 of them, or 3")]
#[case("pocket 7 x 9, 4 up from base 2", "4 of them, or 2")]
#[case("flap, half round, 9 in", "half-round")]
#[case("500 patches 4 x 4", "really 500")]
#[case("square 12 x 4", "as wide as it is tall")]
#[case("3) lining 10 x 12", "number of the line")]
#[case("Pocket 2: 6 x 8", "part of the name")]
#[case("Side and base strip 4 x 30", "2 of them, or 1")]
#[case("Interfacing for outer and lining 9 x 10", "2 of them, or 1")]
#[case("Main panel, lining: 9 x 10", "two cloths")]
#[case("4 outer 9 x 11 (2 with pocket)", "2 with pocket")]
#[case("about 9 x 11 lining", "leaves the size open")]
#[case("9 x 11 or 10 x 12 outer", "Which of the two")]
#[case("oval base 6 x 9", "Is a rectangle right")]
#[case("9 x 11 plus seam allowance", "seam allowance")]
#[case("Pocket finished 6 x 8", "size to cut")]
#[case("6-8 x 10", "is a range")]
#[case("230 x 280 lining", "in millimetres")]
#[case("Handles 2 x 4'", "in ft")]
#[case("Lining fabric 1/2 yd x 44 in", "cloth to buy")]
#[case("2 flaps 9 x 11 cut on the bias", "on the bias")]
#[case("Outer: 9 x 11, same for lining", "same")]
#[case("9 x 11 minus 1/2", "minus")]
#[case("lining 2/2 9 x 10", "“2”")]
#[case("229 x 292 mm (10 x 11 1/2 in)", "Which is right")]
#[case("9 x 11 x", "stands alone")]
#[case("straps 2 x 4 x 26", "three numbers")]
fn lines_that_are_asked_about(#[case] line: &str, #[case] about: &str) {
    let found = read_text(line, System::Inches);
    assert_eq!((found.rows.len(), found.asks.len()), (1, 1), "{line}: {found:?}");
    let ask = &found.asks[0];
    assert!(ask.text.contains(about) && ask.others.iter().all(|o| *o != found.rows[0]), "{line}: {ask:?}");
}

#[test]
fn each_side_has_its_own_unit() {
    let row = |line: &str| only(line);
    assert_eq!(row("15 x 20 millimetres").height, Length::MILLIMETRE * 20);
    assert_eq!(row("15 x 20 millimetres").width, Some(Length::MILLIMETRE * 15));
    assert_eq!(row("10 cm x 4 in").width, Some(Length::CENTIMETRE * 10));
    assert_eq!(row("10 cm x 4 in").height, inch(4, 1));
    assert_eq!(row("Half-round flap 9 x 6").shape, RowShape::HalfRound);
}

/// How many, off which reel, how long or large, how wide.
type HowMuch = (u32, Option<GoodKind>, Option<Length>, Option<Length>);

/// What is bought is no piece; a piece that only goes with it is. What could be a count or a size is not guessed.
#[rstest]
#[case("2 D-rings 1 in", Some((2, None, Some(inch(1, 1)), None)))]
#[case("Elastic 1/4 x 10", Some((1, Some(GoodKind::Tape), Some(inch(10, 1)), Some(inch(1, 4)))))]
#[case("14 in zip", Some((1, None, Some(inch(14, 1)), None)))]
#[case("1 magnetic snap", Some((1, None, None, None)))]
#[case("two swivel hooks, 3/4 in", Some((2, None, Some(inch(3, 4)), None)))]
#[case("3 zips 7", Some((3, None, Some(inch(7, 1)), None)))]
#[case("2 webbing 24", Some((2, Some(GoodKind::Webbing), Some(inch(24, 1)), None)))]
#[case("2 webbing, 1 in wide, 24 in long", Some((2, Some(GoodKind::Webbing), Some(inch(24, 1)), Some(inch(1, 1)))))]
#[case("2 webbing 1 x 24", Some((2, Some(GoodKind::Webbing), Some(inch(24, 1)), Some(inch(1, 1)))))]
#[case("cord for the casing 1/4 x 60", Some((1, Some(GoodKind::Cord), Some(inch(60, 1)), Some(inch(1, 4)))))]
#[case("2 m of cord", Some((1, Some(GoodKind::Cord), Some(Length::METRE * 2), None)))]
#[case("webbing 2 x 24", None)]
#[case("webbing 24", None)]
#[case("zip 7", None)]
#[case("7 zip", None)]
#[case("webbing 1 x 2 x 24", None)]
fn what_is_bought_is_no_piece(#[case] line: &str, #[case] bought: Option<HowMuch>) {
    let found = read_text(line, System::Inches);
    assert!(found.rows.is_empty(), "{line}: {found:?}");
    let read = found.bought.first().map(|b| (b.bought.count, b.bought.kind, b.bought.size, b.bought.width));
    assert_eq!(read, bought, "{line}: {found:?}");
    match bought {
        Some(_) => assert!(found.unread.is_empty() && found.bought[0].said == line),
        None => assert!(found.unread[0].why.contains("is bought: say how many"), "{found:?}"),
    }
}

/// Inches are inches in a list of centimetres too.
#[test]
fn a_zip_in_inches_keeps_its_unit() {
    let found = read_text("14 in zip\n2 cords 60", System::Centimetres);
    let sizes: Vec<Option<Length>> = found.bought.iter().map(|b| b.bought.size).collect();
    assert_eq!(sizes, [Some(inch(14, 1)), Some(Length::CENTIMETRE * 60)], "{found:?}");
}

#[rstest]
#[case("webbing cover 2 x 24")]
#[case("ring tab 2 x 3")]
fn a_piece_that_goes_with_what_is_bought_is_cut(#[case] line: &str) {
    let found = read_text(line, System::Inches);
    assert_eq!((found.rows.len(), found.bought.len()), (1, 0), "{found:?}");
}

/// What a list names to buy stands on the shopping list, and is kept with the bag.
#[test]
fn what_is_bought_is_kept_and_comes_to_reels() {
    let found = read_text("Outer: 2, 15 x 16\n2 webbing, 1 in wide, 24 in long\n2 D-rings 1 in", System::Inches);
    let bought: Vec<Bought> = found.bought.into_iter().map(|b| b.bought).collect();
    let project = Project::new("List", System::Inches);
    let (project, _) = project.edited(&Edit::Rows { rows: found.rows, bought }).expect("stands");
    let draft = project.plan().expect("drafts").draft;
    assert_eq!((draft.goods.len(), draft.goods[0].count, draft.hardware.len()), (1, 2, 1));
    assert!(project.reels(&draft.goods)[0].bought() >= Length::INCH * 48);
    let kept = serde_json::to_string(&project.bag).expect("kept");
    assert_eq!(serde_json::from_str::<Bag>(&kept).expect("read"), project.bag);
    let bad = Bought { name: "Cord".into(), count: 0, kind: Some(GoodKind::Cord), size: None, width: None };
    let refused = project.edited(&Edit::Rows { rows: vec![], bought: vec![bad] }).expect_err("refused");
    assert_eq!(refused[0].field, "bought[0].count");
}

/// A length as it might be typed.
fn typed(length: Length, system: System, how: u32, unit: bool) -> String {
    let (whole, eighths) = match system {
        System::Inches => (length.0 / Length::INCH.0, length.0 * 8 / Length::INCH.0 % 8),
        System::Centimetres => (length.0 / Length::CENTIMETRE.0, length.0 * 10 / Length::CENTIMETRE.0 % 10),
    };
    let text = match (system, eighths) {
        (_, 0) => whole.to_string(),
        (System::Centimetres, tenths) => format!("{whole}{}{tenths}", if how.is_multiple_of(2) { '.' } else { ',' }),
        (System::Inches, n) => match how % 4 {
            0 => format!("{whole} {n}/8"),
            1 => format!("{whole}-{n}/8"),
            2 => format!("{whole}{}", ["⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"][n as usize - 1]),
            _ => format!("{whole}.{:03}", n * 125),
        },
    };
    let signs: [&str; 3] = if system == System::Inches { ["\"", " in", "”"] } else { ["cm", " cm", " centimetres"] };
    if unit { format!("{text}{}", signs[how as usize % 3]) } else { text }
}

/// One row in one of twelve styles of writing.
fn written(style: usize, n: u32, name: &str, w: &str, h: &str) -> String {
    match style {
        0 => format!("{n}x {w} x {h} {name}"),
        1 => format!("{name}: cut {n}, {w} x {h}"),
        2 => format!("{n} {name} {w} × {h}"),
        3 => format!("{name} – {w} x {h} ({n})"),
        4 => format!("{n} @ {w} x {h} {name}"),
        5 => format!("{name}: {n}, {w} x {h}"),
        6 => format!("{n}no. {w}x{h} {name}"),
        7 => format!("{name} {w} by {h} x{n}"),
        8 => format!("• Cut {n} {name} {w} wide x {h} tall"),
        9 => format!("{h} tall by {w} wide {name}, cut {n}"),
        10 => format!("{name} ({n} pcs) {w} X {h}"),
        _ => format!("{name}\t{n}\t{w}\t{h}"),
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(std::env::var("BOFTA_LISTS").ok().and_then(|n| n.parse().ok()).unwrap_or(600)))]

    /// A list written from rows that are known: every row comes back as it was, or is asked about; none is lost.
    #[test]
    fn lists_in_twelve_styles_come_back(
        rows in prop::collection::vec((1_u32..9, 8_i64..320, 8_i64..320, 0_usize..8), 1..8),
        style in 0_usize..12,
        how in 0_u32..12,
        unit in any::<bool>(),
        metric in any::<bool>(),
    ) {
        const NAMES: [&str; 8] =
            ["Outer panel", "Lining", "Straps", "Slip pocket", "Base", "Zip tabs", "Flap lining", "Side gusset"];
        let system = if metric { System::Centimetres } else { System::Inches };
        let size = |n: i64| if metric { Length::MILLIMETRE * n } else { inch(n, 8) };
        let lines: Vec<String> = rows
            .iter()
            .map(|(n, w, h, name)| {
                let show = |l: i64| typed(size(l), system, how, unit);
                written(style, *n, NAMES[*name], &show(*w), &show(*h))
            })
            .collect();
        let found = read_text(&lines.join("\n"), system);
        prop_assert_eq!(found.rows.len() + found.unread.len(), rows.len(), "{:?}\n{:?}", lines, found);
        for (i, row) in found.rows.iter().enumerate() {
            let (n, w, h, name) = rows[found.lines[i] - 1];
            let right = (row.count, row.width, row.height) == (n, Some(size(w)), size(h));
            let asked = found.asks.iter().any(|a| a.row == i);
            prop_assert!(right || asked, "{:?} gives {:?}", lines[found.lines[i] - 1], row);
            // A number that is left out is no part of the name either.
            prop_assert!(row.name.eq_ignore_ascii_case(NAMES[name]) || asked, "{:?}: {}", lines[found.lines[i] - 1], row.name);
        }
        // Asking about everything would be no reading at all.
        prop_assert!(found.asks.len() + found.unread.len() <= rows.len() / 2, "{:?}\n{:?}", lines, found);
    }
}

#[test]
fn circles_and_whole_widths() {
    let circle = only("Base circle 8 1/2 in across, cut 1");
    assert_eq!((circle.shape, circle.width), (RowShape::Circle, Some(inch(17, 2))));
    for line in ["Binding: 2 1/2 in x WOF, cut 3", "3 binding strips, WOF x 2 1/2"] {
        let strip = only(line);
        assert_eq!(
            (strip.width, strip.height, strip.count, strip.part),
            (None, inch(5, 2), 3, Part::Binding),
            "{line}"
        );
    }
}

/// Ten rows as they stand on a page, with its headings and its talk: nine read as they are meant, none wrongly, one left.
#[test]
fn ten_rows_of_a_page() {
    let page = "\
Cutting guide
Seam allowance is 1/2 inch unless stated otherwise.
From the outer fabric:
• 2 panels 15\" x 16 1/2\"
• Base panel – 12\" x 5\"
• 2 straps, 4\" x 26\"
From the lining:
• 2 panels 15\" x 16 1/2\"
• Cut 1 slip pocket 8\" wide x 13\" tall
• (4) tabs 2½\" x 3\"
Fusible fleece
• 2 pieces 14\" x 15 1/2\"
• 1 circle 6\" diameter
• 3 strips of binding 2 1/4\" x WOF
• one magnetic snap, 3/4 inch
Finished size: 14\" wide x 13\" tall x 4\" deep
";
    let found = read_text(page, System::Inches);
    let got: Vec<(u32, Option<Length>, Length, Part)> =
        found.rows.iter().map(|r| (r.count, r.width, r.height, r.part)).collect();
    let w = |n, d| Some(inch(n, d));
    assert_eq!(
        got,
        [
            (2, w(15, 1), inch(33, 2), Part::Outer),
            (1, w(12, 1), inch(5, 1), Part::Outer),
            (2, w(4, 1), inch(26, 1), Part::Straps),
            // Under the heading of the lining a panel is a lining panel.
            (2, w(15, 1), inch(33, 2), Part::Lining),
            (1, w(8, 1), inch(13, 1), Part::Pocket),
            (4, w(5, 2), inch(3, 1), Part::Straps),
            (2, w(14, 1), inch(31, 2), Part::Backing),
            (1, w(6, 1), inch(6, 1), Part::Backing),
            (3, None, inch(9, 4), Part::Binding),
        ],
        "{found:#?}"
    );
    assert_eq!((found.unread.len(), found.bought.len()), (0, 1));
    assert!(found.bought[0].said.contains("magnetic snap"), "{:?}", found.bought);
    // Lines without figures are said to be no rows.
    assert!(
        found.notes[0].contains("“Cutting guide”") && found.notes[0].contains("“Fusible fleece”"),
        "{:?}",
        found.notes
    );
    assert_eq!(found.seam, Some(inch(1, 2)));
    assert_eq!(found.stated, Some((inch(14, 1), inch(13, 1), inch(4, 1))));
}

#[rstest]
#[case("piece\tcount\twidth\theight\nOuter\t2\t15\t16 1/2\nLining\t2\t15\t16.5")]
#[case("name;qty;w;h\nOuter;2;15;16 1/2\nLining;2;15;16,5")]
#[case("Height,Width,Piece,Quantity\n16.5,15,Outer,2\n16 1/2,15,Lining,2")]
#[case("Outer\t2\t15\t16 1/2\nLining\t2\t15\t16 1/2")]
fn tables_are_read(#[case] table: &str) {
    let found = read_text(table, System::Inches);
    assert_eq!(found.unread, []);
    let got: Vec<_> = found.rows.iter().map(|r| (r.name.as_str(), r.count, r.width, r.height, r.part)).collect();
    let (w, h) = (Some(inch(15, 1)), inch(33, 2));
    assert_eq!(got, [("Outer", 2, w, h, Part::Outer), ("Lining", 2, w, h, Part::Lining)]);
}

/// A unit in the header holds for its column; a column that is not read is named; a row of too many numbers is not guessed at.
#[test]
fn a_header_says_the_unit() {
    let found = read_text("Piece,Qty,Width (cm),Height (mm),Colour\nOuter,2,30,400,red", System::Inches);
    let row = &found.rows[0];
    assert_eq!((row.width, row.height), (Some(Length::CENTIMETRE * 30), Length::CENTIMETRE * 40));
    assert!(found.notes[0].contains("“Colour”"), "{:?}", found.notes);
    let unsure = read_text("Outer\t2\t15\t16\t3", System::Inches);
    assert_eq!((unsure.rows.len(), unsure.unread.len()), (0, 1), "{unsure:?}");
}

#[test]
fn bad_rows_are_kept_apart() {
    let found =
        read_text("piece,count,width,height\nOuter,2,15,16\nLining,some,15,16\nPocket,1,wide,4", System::Inches);
    assert_eq!(found.rows.len(), 1);
    assert_eq!(found.unread.iter().map(|u| u.line).collect::<Vec<_>>(), [3, 4]);
    assert!(found.unread[0].why.contains("“some”") && found.unread[1].why.contains("width"));
}

/// Only with width and height changed do the panels give the finished size that is stated.
#[test]
fn the_order_is_inferred_from_what_must_meet() {
    let found = read_text("Finished 16 wide x 10 tall\nOuter: 2, 11 1/2 x 17\nLining: 2, 11 1/2 x 17", System::Inches);
    assert!(found.rows.iter().all(|r| r.width == Some(inch(17, 1)) && r.height == inch(23, 2)), "{found:?}");
    assert_eq!(found.notes.len(), 1);
    let as_is = read_text("Finished 16 wide x 10 tall\nOuter: 2, 17 x 11 1/2", System::Inches);
    assert_eq!((as_is.rows[0].width, as_is.notes.len()), (Some(inch(17, 1)), 0));
}

proptest! {
    /// Whatever is pasted, reading ends, and every line with figures is read or told.
    #[test]
    fn any_text_is_read_or_told(text in "[ -~½¼×\n\t]{0,400}") {
        let found = read_text(&text, System::Inches);
        for (row, line) in found.rows.iter().zip(&found.lines) {
            prop_assert!(*line >= 1 && row.count >= 1 && row.height > Length::ZERO, "{row:?}");
        }
    }

    /// A list written as a spreadsheet's table reads back as it was.
    #[test]
    fn a_list_comes_back(sizes in prop::collection::vec((1_u32..9, 8_i64..400, 8_i64..400, 0_usize..9), 1..12)) {
        let rows: Vec<Row> = sizes
            .iter()
            .enumerate()
            .map(|(i, (n, w, h, p))| Row::new(format!("Piece {}", i + 1), Part::ALL[*p], *n, inch(*w, 8), inch(*h, 8)))
            .collect();
        let list = CutList { rows: rows.clone(), bought: vec![], width: Length::ZERO, height: Length::ZERO, depth: Length::ZERO, seam_side: inch(1, 4) };
        let draft = Bag::from(Body::CutList(list)).draft(Ruler::Eighth).expect("drafts");
        let found = read_text(&csv::cut_list(&CutTable::of_pieces(&draft.pieces, Ruler::Eighth)), System::Centimetres);
        prop_assert_eq!(found.unread.len(), 0);
        prop_assert_eq!(found.rows, rows);
    }
}

fn shapes() -> CutList {
    let mut rows = vec![Row::new("Panel", Part::Outer, 2, inch(15, 1), inch(12, 1))];
    rows.push(Row { shape: RowShape::Circle, ..Row::new("Base", Part::Outer, 1, inch(9, 1), inch(9, 1)) });
    rows.push(Row {
        shape: RowShape::Notched { across: inch(2, 1), up: inch(3, 1) },
        ..Row::new("Boxed", Part::Outer, 1, inch(15, 1), inch(12, 1))
    });
    let corners = [(0, 0), (9, 0), (7, 5), (2, 5)].map(|(x, y)| Point::new(inch(x, 1), inch(y, 1))).to_vec();
    rows.push(Row { shape: RowShape::Free { corners }, ..Row::new("Flap", Part::Outer, 1, inch(9, 1), inch(5, 1)) });
    CutList {
        rows,
        bought: vec![],
        width: Length::ZERO,
        height: Length::ZERO,
        depth: Length::ZERO,
        seam_side: inch(1, 4),
    }
}

/// What is written as DXF or SVG reads back to a thousandth of an inch, by readers that are not this project's own.
#[test]
fn outlines_come_back() {
    let pieces = Bag::from(Body::CutList(shapes())).draft(Ruler::Eighth).expect("drafts").pieces;
    let near = |a: Length, b: Length| (a - b).0.abs() <= inch(1, 1000).0;
    for found in [
        read_dxf(&write_dxf(&pieces, System::Inches).expect("written"), None).expect("read"),
        read_svg(write_svg(&pieces).as_bytes(), 96.0).expect("read"),
    ] {
        assert_eq!((found.rows.len(), found.left_out.len()), (pieces.len(), 0));
        for (row, piece) in found.rows.iter().zip(&pieces) {
            let (w, h) = piece.size();
            assert!(near(row.width.expect("a width"), w) && near(row.height, h), "{row:?}");
        }
        assert_eq!(found.rows[0].shape, RowShape::Rectangle);
        assert!(matches!(&found.rows[2].shape, RowShape::Free { corners } if corners.len() == 8));
    }
}

type Corners = Vec<(f64, f64)>;

/// Closed polylines of a DXF as the published reference of the format states it: pairs of lines, a group code and its
/// value; 0 begins an entity, 10 and 20 are a vertex, 8 its layer, 70 bit 1 closes it. Not the library that wrote it.
fn polylines(dxf: &[u8]) -> Vec<Corners> {
    let text = String::from_utf8_lossy(dxf);
    let lines: Vec<&str> = text.lines().map(str::trim).collect();
    let (mut all, mut now): (Vec<Corners>, Option<Corners>) = (vec![], None);
    for pair in lines.chunks_exact(2) {
        let number = || pair[1].parse::<f64>().expect("a number");
        match (pair[0], &mut now) {
            ("0", _) => {
                all.extend(now.take());
                now = (pair[1] == "LWPOLYLINE").then(Vec::new);
            }
            ("10", Some(corners)) => corners.push((number(), 0.0)),
            ("20", Some(corners)) => corners.last_mut().expect("a vertex begun").1 = number(),
            ("70", Some(_)) => assert_eq!(pair[1].parse::<u32>().expect("flags") & 1, 1, "closed"),
            _ => {}
        }
    }
    all.extend(now);
    all
}

/// Areas of what is written agree with the pieces, each worked out by the shoelace formula from the file alone.
#[test]
fn a_drawing_holds_the_outlines_to_the_letter_of_its_format() {
    let pieces = Bag::from(Body::CutList(shapes())).draft(Ruler::Eighth).expect("drafts").pieces;
    for (system, unit) in [(System::Inches, Length::INCH), (System::Centimetres, Length::CENTIMETRE)] {
        let dxf = write_dxf(&pieces, system).expect("written");
        let drawn = polylines(&dxf);
        // A piece of which there are several is drawn once, or as often as it is cut: areas decide.
        assert!(!drawn.is_empty());
        for piece in &pieces {
            let wanted = piece.outline().area().0 as f64 / (unit.0 as f64).powi(2);
            let found = drawn.iter().any(|corners| {
                let next = corners.iter().cycle().skip(1);
                let twice: f64 = corners.iter().zip(next).map(|(a, b)| a.0 * b.1 - b.0 * a.1).sum();
                // A circle is drawn as a polygon of many sides.
                ((twice / 2.0).abs() / wanted - 1.0).abs() < 2e-3
            });
            assert!(found, "{} of {wanted} is not drawn in {system:?}", piece.name);
        }
    }
}

/// A workbook made by another library than the one that reads it: numbers, fractions as text, and a heading.
#[test]
fn a_workbook_is_read() {
    let mut book = rust_xlsxwriter::Workbook::new();
    let sheet = book.add_worksheet();
    let rows =
        [["piece", "count", "width", "height"], ["Outer panel", "2", "15 1/2", "16"], ["Strap", "2", "4", "26.5"]];
    for (r, row) in rows.iter().enumerate() {
        for (c, cell) in row.iter().enumerate() {
            let (r, c) = (r as u32, c as u16);
            match cell.parse::<f64>() {
                Ok(number) => sheet.write_number(r, c, number).map(|_| ()),
                Err(_) => sheet.write_string(r, c, *cell).map(|_| ()),
            }
            .expect("a cell");
        }
    }
    let bytes = book.save_to_buffer().expect("saved");
    let found = read_text(&spreadsheet::as_text(&bytes, FileKind::Xlsx).expect("a workbook"), System::Inches);
    let sizes: Vec<_> = found.rows.iter().map(|r| (r.name.as_str(), r.count, r.width, r.height)).collect();
    let expected = [("Outer panel", 2, Some(inch(31, 2)), inch(16, 1)), ("Strap", 2, Some(inch(4, 1)), inch(53, 2))];
    assert_eq!(sizes, expected);
}

/// An OpenDocument sheet written to the letter of its standard (ISO/IEC 26300): a zip with its type first, cells as text
/// and as numbers.
#[test]
fn an_open_document_sheet_is_read() {
    let row = |cells: &[&str]| {
        let cell = |c: &&str| match c.parse::<f64>() {
            Ok(n) => format!(
                r#"<table:table-cell office:value-type="float" office:value="{n}"><text:p>{n}</text:p></table:table-cell>"#
            ),
            Err(_) => {
                format!(r#"<table:table-cell office:value-type="string"><text:p>{c}</text:p></table:table-cell>"#)
            }
        };
        format!("<table:table-row>{}</table:table-row>", cells.iter().map(cell).collect::<String>())
    };
    let body = [row(&["piece", "count", "width", "height"]), row(&["Lining", "2", "15 1/2", "16.25"])].concat();
    let content = format!(
        r#"<?xml version="1.0" encoding="UTF-8"?><office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" office:version="1.2"><office:body><office:spreadsheet><table:table table:name="Cut list">{body}</table:table></office:spreadsheet></office:body></office:document-content>"#
    );
    let manifest = r#"<?xml version="1.0"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"><manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.spreadsheet"/></manifest:manifest>"#;
    let mut zip = zip::ZipWriter::new(std::io::Cursor::new(Vec::new()));
    for (name, text) in [
        ("mimetype", "application/vnd.oasis.opendocument.spreadsheet"),
        ("META-INF/manifest.xml", manifest),
        ("content.xml", content.as_str()),
    ] {
        let plain = zip::write::SimpleFileOptions::default().compression_method(zip::CompressionMethod::Stored);
        zip.start_file(name, plain).expect("a file");
        std::io::Write::write_all(&mut zip, text.as_bytes()).expect("written");
    }
    let bytes = zip.finish().expect("closed").into_inner();
    let found = read_text(&spreadsheet::as_text(&bytes, FileKind::Ods).expect("a sheet"), System::Inches);
    assert_eq!(found.rows.len(), 1, "{found:?}");
    let row = &found.rows[0];
    assert_eq!((row.part, row.count, row.width, row.height), (Part::Lining, 2, Some(inch(31, 2)), inch(65, 4)));
}

#[test]
fn drawings_that_are_no_pieces() {
    let text = br#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 96 96"><path d="M0 0H96V96"/></svg>"#;
    assert_eq!(read_svg(text, 96.0), Err(DrawingError::Empty));
    assert!(matches!(read_svg(b"<svg", 96.0), Err(DrawingError::Unreadable { .. })));
    assert!(matches!(
        read_dxf(b"not a drawing", None),
        Err(DrawingError::Unreadable { .. }) | Err(DrawingError::NoUnit) | Err(DrawingError::Empty)
    ));
    let line = br#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 200"><path id="tab" d="M0 0H96V48H0Z"/><path d="M0 100L90 120" stroke="black"/></svg>"#;
    let found = read_svg(line, 96.0).expect("read");
    assert_eq!((found.rows[0].name.as_str(), found.rows[0].width), ("tab", Some(inch(1, 1))));
    assert_eq!(found.left_out, ["1 open lines left out."]);
}

/// A DXF without a unit asks for it.
#[test]
fn a_drawing_without_a_unit_is_asked() {
    let pieces = Bag::from(Body::CutList(shapes())).draft(Ruler::Eighth).expect("drafts").pieces;
    let bytes = write_dxf(&pieces, System::Inches).expect("written");
    let text = String::from_utf8(bytes).expect("text");
    let at = text.find("$INSUNITS").expect("a unit");
    let unit = text[at..].find("\r\n 70\r\n").or_else(|| text[at..].find("\n 70\n")).expect("its code") + at;
    let value = text[unit..].trim_start().find('1').expect("inches");
    let start = unit + (text[unit..].len() - text[unit..].trim_start().len()) + value;
    let mut bare = text.clone();
    bare.replace_range(start..=start, "0");
    assert_eq!(read_dxf(bare.as_bytes(), None), Err(DrawingError::NoUnit));
    let given = read_dxf(bare.as_bytes(), Some(Length::CENTIMETRE)).expect("read");
    assert_eq!(given.rows[0].width, Some(Length::CENTIMETRE * 15));
}

#[test]
fn a_file_that_is_no_spreadsheet() {
    assert!(
        spreadsheet::as_text(b"PK\x03\x04 not really", FileKind::Xlsx).expect_err("refused").contains("spreadsheet")
    );
}

#[rstest]
#[case(
    r#"{"format":"bofta-bag","version":1,"units":"in","family":"tote","sizes":{"width":"12 1/2","quilted":true}}"#,
    None
)]
#[case(r#"{"format":"bofta-bag","version":1,"units":"cm","family":"cut-list","rows":["2 x 30 x 40 outer"]}"#, None)]
#[case(r#"{"format":"bofta-bag","version":2,"units":"in","family":"tote"}"#, Some("version"))]
#[case(r#"{"format":"bofta-bag","version":1,"units":"mm","family":"tote"}"#, Some("units"))]
#[case(r#"{"format":"bofta-bag","version":1,"units":"in","family":"rucksack"}"#, Some("family"))]
#[case(r#"{"format":"bofta-bag","version":1,"units":"in","family":"tote","sizes":{"wdith":4}}"#, Some("sizes.wdith"))]
#[case(
    r#"{"format":"bofta-bag","version":1,"units":"in","family":"tote","sizes":{"width":"broad"}}"#,
    Some("sizes.width")
)]
#[case(r#"{"format":"bofta-bag","version":1,"units":"in","family":"tote","size":{}}"#, Some("size"))]
#[case(
    r#"{"format":"bofta-bag","version":1,"units":"in","family":"cut-list","rows":["2 outer panels"]}"#,
    Some("rows[0]")
)]
fn specifications(#[case] text: &str, #[case] fault: Option<&str>) {
    match (read_bag(text), fault) {
        (Ok(read), None) => assert!(read.bag.draft(read.ruler).is_ok()),
        (Err(e), Some(field)) => assert!(e.to_string().contains(field), "{e}"),
        (other, _) => panic!("{other:?}"),
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Any shape, with a seam still to be added, goes out as cut and comes back with the same area, whoever reads it.
    #[test]
    fn any_outline_comes_back(kind in 0..6_usize, w in 24_i64..160, h in 24_i64..160, n in 4_i64..9, seam in 0_i64..6) {
        let shape = match kind {
            0 => RowShape::Rectangle,
            1 => RowShape::Circle,
            2 => RowShape::Rounded { radius: inch(w.min(h), 8) / n },
            3 => RowShape::Notched { across: inch(w, 8) / n, up: inch(h, 8) / n },
            4 => RowShape::Tapered { by: inch(w, 8) / n },
            _ => RowShape::Free { corners: [(0, 0), (w, 0), (w, h / 2), (w / 2, h), (0, h)].map(|(x, y)| Point::new(inch(x, 8), inch(y, 8))).to_vec() },
        };
        let row = Row { shape, seam: inch(seam, 8), ..Row::new("Piece", Part::Outer, 1, inch(w, 8), inch(h, 8)) };
        let list = CutList { rows: vec![row], bought: vec![], width: Length::ZERO, height: Length::ZERO, depth: Length::ZERO, seam_side: inch(1, 4) };
        let pieces = Bag::from(Body::CutList(list)).draft(Ruler::Eighth).expect("drafts").pieces;
        let area = |corners: Vec<Point>| Outline::polygon(corners).expect("a polygon").area().0 as f64;
        let cut = area(pieces[0].outline().corners());
        for found in [
            read_dxf(&write_dxf(&pieces, System::Inches).expect("written"), None).expect("read"),
            read_svg(write_svg(&pieces).as_bytes(), 96.0).expect("read"),
        ] {
            prop_assert_eq!((found.rows.len(), found.left_out.len()), (1, 0));
            let back = area(found.rows[0].corners(Ruler::Eighth));
            prop_assert!((back - cut).abs() < cut * 0.004, "{back} for {cut}");
        }
    }
}

/// A row of a table that is bought is no piece either.
#[test]
fn a_table_row_that_is_bought_is_told() {
    let found = read_text("name,qty,width,height\nWebbing,2,1,24\nZip panel,2,9,3\n", System::Inches);
    assert_eq!((found.rows.len(), found.unread.len()), (1, 1), "{found:?}");
    assert!(found.unread[0].why.contains("“webbing” is bought"));
}

/// A column that is not read may hold sizes, too: the row goes by its own columns. A line of its own under a table is read as
/// it is said.
#[rstest]
#[case("Patch,Outer,8,3 1/2,4,in,joins to 12 x 9: trim to 11 x 8", 8, (7, 2), (4, 1))]
#[case("Patch,Outer,2,5,6,in,\"cut one, 5 x 7, if the print stands\"", 2, (5, 1), (6, 1))]
#[case("Patch,Outer,1,3,4,in,2 of 9 x 9", 1, (3, 1), (4, 1))]
#[case("Gusset,Outer,1,2.5,13,in,clip it; sew with the face up", 1, (5, 2), (13, 1))]
#[case("2 patches 9 x 8", 2, (9, 1), (8, 1))]
#[case("patch 9 x 8, 2", 2, (9, 1), (8, 1))]
fn a_note_in_a_table_is_no_size(
    #[case] line: &str,
    #[case] count: u32,
    #[case] width: (i64, i64),
    #[case] height: (i64, i64),
) {
    let found = read_text(&format!("piece,part,count,width,height,unit,note\n{line}"), System::Inches);
    assert_eq!(found.rows.len(), 1, "{found:?}");
    let row = &found.rows[0];
    assert_eq!((row.count, row.width, row.height), (count, Some(inch(width.0, width.1)), inch(height.0, height.1)));
}
