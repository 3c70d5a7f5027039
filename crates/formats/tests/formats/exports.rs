//! What is taken out in open formats comes back as it was: every body, in both systems, every piece with its count.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Body, CutList, Draft, Family, Row, RowShape};
use bofta_core::lay::Random;
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::{Figure, Piece, When};
use bofta_formats::cut_list::read_text;
use bofta_formats::cut_table::CutTable;
use bofta_formats::gate::FileKind;
use bofta_formats::outlines::{Outlines, read_dxf, read_svg, write_dxf, write_svg};
use bofta_formats::{csv, spreadsheet};
use rstest::rstest;
use svg2pdf::usvg::roxmltree::Document;

/// Bodies with the choices that give them another outline.
const BODIES: &[(Family, &[(&str, &str)])] = &[
    (Family::Tote, &[]),
    (Family::Tote, &[("base", "fold"), ("lining", "smaller")]),
    (Family::Tote, &[("boxing", "sewn-across"), ("rising", "slanting"), ("backing", "clear-of-seams")]),
    (Family::Tote, &[("mouth", "band"), ("rising", "box-pleats"), ("backing", "two-stage")]),
    (Family::Tote, &[("front", "triangles"), ("mouth", "facing-zip")]),
    (Family::Drawstring, &[("base", "rounded")]),
    (Family::Drawstring, &[("base", "round"), ("lined", "yes"), ("casing", "in-seam")]),
    (Family::Pouch, &[("style", "all-boxed")]),
    (Family::Pouch, &[("style", "half-round")]),
    (Family::Pouch, &[("style", "boxed"), ("base", "fold")]),
    (Family::Caddy, &[]),
    (Family::Duffel, &[]),
    (Family::Clutch, &[]),
    (Family::CrossBody, &[]),
    (Family::FoundTube, &[("lined", "yes")]),
];

fn drafted(family: Family, choices: &[(&str, &str)], system: System) -> Draft {
    let mut bag: Bag = family.default_for(system);
    for (key, answer) in choices {
        bag.set(key, answer, system).unwrap_or_else(|p| panic!("{key} {answer}: {p}"));
    }
    bag.draft(Ruler::default_for(system)).unwrap_or_else(|p| panic!("{family:?} {choices:?}: {p:?}"))
}

fn near(a: Length, b: Length) -> bool {
    (a - b).0.abs() <= Length::inches(1, 1000).0
}

/// A row is the piece: its count, its size and the area of its outline.
fn is_it(row: &Row, piece: &Piece) -> Result<(), String> {
    let (wide, tall) = piece.size();
    let corners = match &row.shape {
        RowShape::Free { corners } => corners.len(),
        _ => 4,
    };
    let area = |row: &Row| match &row.shape {
        RowShape::Free { corners } => {
            let next = corners.iter().cycle().skip(1);
            let twice: f64 =
                corners.iter().zip(next).map(|(a, b)| a.x.0 as f64 * b.y.0 as f64 - b.x.0 as f64 * a.y.0 as f64).sum();
            twice.abs() / 2.0
        }
        _ => row.width.unwrap_or_default().0 as f64 * row.height.0 as f64,
    };
    let (found, wanted) = (area(row), piece.outline().area().0 as f64);
    // Curves are told by corners.
    let same_area = (found / wanted - 1.0).abs() < 2e-3;
    let same_size = near(row.width.unwrap_or_default(), wide) && near(row.height, tall);
    if row.count == piece.count && same_size && same_area {
        return Ok(());
    }
    Err(format!(
        "{row:?} with {corners} corners and {found:.0} for {} × {:?} of {wanted:.0}",
        piece.count,
        piece.size()
    ))
}

#[rstest]
fn outlines_of_every_body_come_back(#[values(System::Inches, System::Centimetres)] system: System) {
    for (family, choices) in BODIES {
        let pieces = drafted(*family, choices, system).pieces;
        let dxf = write_dxf(&pieces, system).expect("written");
        let svg = write_svg(&pieces);
        let read: [(&str, Outlines); 2] = [
            ("DXF", read_dxf(&dxf, None).unwrap_or_else(|e| panic!("{family:?}: {e}"))),
            ("SVG", read_svg(svg.as_bytes(), 96.0).unwrap_or_else(|e| panic!("{family:?}: {e}"))),
        ];
        for (kind, found) in read {
            assert_eq!(found.left_out, Vec::<String>::new(), "{kind} of {family:?} {choices:?}");
            assert_eq!(found.rows.len(), pieces.len(), "{kind} of {family:?} {choices:?}");
            for (row, piece) in found.rows.iter().zip(&pieces) {
                is_it(row, piece).unwrap_or_else(|why| panic!("{kind} of {family:?} {choices:?}, {}: {why}", piece.id));
                let called = if kind == "DXF" { piece.name.as_ref() } else { piece.id.as_ref() };
                assert_eq!(row.name, called, "{kind} of {family:?}");
            }
        }
    }
}

/// An outline of a file that has no count is cut once; so is one whose name only looks as if it had.
#[rstest]
#[case("Flap, cut 2", "Flap", 2)]
#[case("Flap", "Flap", 1)]
#[case("Flap, cut 0", "Flap, cut 0", 1)]
#[case("Flap, cut twice", "Flap, cut twice", 1)]
#[case("Flap, cut -3", "Flap, cut -3", 1)]
#[case("Strap, cut 4, cut 2", "Strap, cut 4", 2)]
#[case(", cut 2", ", cut 2", 1)]
fn a_name_says_how_many(#[case] id: &str, #[case] name: &str, #[case] count: u32) {
    let svg = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"9in\" height=\"9in\" viewBox=\"0 0 9 9\"><path id=\"{id}\" d=\"M1 1L5 1L5 4L1 4Z\"/></svg>"
    );
    let row = read_svg(svg.as_bytes(), 96.0).expect("read").rows.remove(0);
    assert_eq!((row.name.as_str(), row.count), (name, count));
    assert_eq!((row.width, row.height), (Some(Length::INCH * 4), Length::INCH * 3));
}

/// The table for a spreadsheet, as CSV and as XLSX, read as any other list: the same counts, sizes and outlines, nothing
/// asked, nothing left over. What is made up of other pieces is no piece to cut.
#[rstest]
fn the_table_of_every_body_is_read_back(#[values(System::Inches, System::Centimetres)] system: System) {
    for (family, choices) in BODIES {
        let draft = drafted(*family, choices, system);
        comes_back(&draft.pieces, Ruler::default_for(system))
            .unwrap_or_else(|why| panic!("{family:?} {choices:?}: {why}"));
    }
}

/// Outlines by their area and their box: to a thousandth of an inch.
fn comes_back(pieces: &[Piece], ruler: Ruler) -> Result<(), String> {
    let table = CutTable::of_pieces(pieces, ruler);
    let book = table.to_xlsx().map_err(|e| e.to_string())?;
    let kind = FileKind::of(&book).ok_or("an unknown kind of file")?;
    for text in [csv::cut_list(&table), spreadsheet::as_text(&book, kind)?] {
        // Read in the other system: each row says its unit.
        let other = if ruler.system() == System::Inches { System::Centimetres } else { System::Inches };
        let found = read_text(&text, other);
        if !found.unread.is_empty() || !found.asks.is_empty() {
            return Err(format!("{:?} {:?}\n{text}", found.unread, found.asks));
        }
        let cut: Vec<&Piece> = pieces.iter().filter(|p| !matches!(p.when, When::Pieced(_) | When::FromBlock)).collect();
        if found.rows.len() != cut.len() {
            return Err(format!("{} rows for {} pieces\n{text}", found.rows.len(), cut.len()));
        }
        let none = Length::ZERO;
        let rows = found.rows.clone();
        let list =
            CutList { rows, bought: vec![], width: none, height: none, depth: none, seam_side: Length::INCH / 4 };
        let again = Bag::from(Body::CutList(list)).draft(ruler).map_err(|e| format!("{e:?}"))?.pieces;
        for ((row, read), piece) in found.rows.iter().zip(&again).zip(cut) {
            let (wide, tall) = piece.size();
            let sizes = row.width.map_or(piece.spans, |w| near(w, wide)) && near(row.height, tall);
            let least = Length::inches(1, 1000).0 as f64 * (wide + tall).0 as f64 * 2.0;
            let outline = piece.spans || ((read.outline().area().0 - piece.outline().area().0) as f64).abs() <= least;
            if !sizes || !outline || (row.count, row.part) != (piece.count, piece.part) {
                return Err(format!("{}: {row:?} for {:?} {:?}", piece.id, piece.size(), piece.figure));
            }
        }
    }
    Ok(())
}

/// The drawing is as large as what is in it: at 96 to the inch nothing lies outside its page, and nothing on another piece.
#[test]
fn a_drawing_of_outlines_holds_them_side_by_side() {
    for (family, choices) in BODIES {
        let pieces = drafted(*family, choices, System::Inches).pieces;
        let svg = write_svg(&pieces);
        let document = Document::parse(&svg).expect("well formed");
        let root = document.root_element();
        let view: Vec<f64> =
            root.attribute("viewBox").expect("a view box").split(' ').map(|n| n.parse().expect("a number")).collect();
        let inches = |name: &str| -> f64 {
            root.attribute(name).and_then(|v| v.strip_suffix("in")).and_then(|v| v.parse().ok()).expect("inches")
        };
        assert!((view[2] - inches("width") * 96.0).abs() < 0.01 && (view[3] - inches("height") * 96.0).abs() < 0.01);
        let mut right = 0.0;
        for path in document.descendants().filter(|n| n.has_tag_name("path")) {
            let d = path.attribute("d").expect("a path");
            let numbers: Vec<f64> = d
                .split(|c: char| !(c.is_ascii_digit() || c == '.' || c == '-'))
                .filter_map(|t| t.parse().ok())
                .collect();
            let xs = || numbers.iter().step_by(2).copied();
            let (low, high) = (xs().fold(f64::MAX, f64::min), xs().fold(f64::MIN, f64::max));
            assert!(low >= right - 1e-3, "{family:?}: {:?} lies on the one before it", path.attribute("id"));
            let tall = numbers.iter().skip(1).step_by(2).all(|y| (-1e-3..=view[3] + 1e-3).contains(y));
            assert!(high <= view[2] + 1e-3 && tall, "{family:?}: {:?} leaves the page", path.attribute("id"));
            right = high;
        }
    }
}

/// Pieces of random bags, too: what is cut out, tapered or rounded is the same after the way through a file.
#[test]
fn random_outlines_come_back() {
    let mut shaped = 0;
    for number in 0..80 {
        let random = &mut Random::new(number);
        let (family, choices) = BODIES[random.below(BODIES.len())];
        let mut bag = family.default_for(System::Inches);
        for (key, answer) in choices {
            bag.set(key, answer, System::Inches).expect("a choice");
        }
        for key in ["width", "height", "depth", "seam_side", "seam_base", "mouth_width"] {
            let eighths = if key.starts_with("seam") { 1 + random.below(7) } else { 12 + random.below(150) };
            // A field that this body does not have.
            let _ = bag.set(key, &format!("{eighths}/8"), System::Inches);
        }
        let Ok(draft) = bag.draft(Ruler::Sixteenth) else { continue };
        shaped += draft.pieces.iter().filter(|p| p.figure != Figure::Rectangle).count();
        let found = read_dxf(&write_dxf(&draft.pieces, System::Inches).expect("written"), None).expect("read");
        for (row, piece) in found.rows.iter().zip(&draft.pieces) {
            is_it(row, piece).unwrap_or_else(|why| panic!("{number} {family:?}, {}: {why}", piece.id));
        }
    }
    assert!(shaped > 40, "{shaped} pieces that are no rectangles");
}
