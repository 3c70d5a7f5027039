//! The open formats: round trips, and bad files named by field.
#![allow(missing_docs)]

use bofta_core::bag::Row;
use bofta_core::lay::{Budget, Silent, Stop, solve, verify};
use bofta_core::measure::{Length, System};
use bofta_core::project::{Edit, Project};
use bofta_formats::cut_list::read_text;
use bofta_formats::cut_table::CutTable;
use bofta_formats::draw::NO_PICTURES;
use bofta_formats::{csv, draw, read_job, read_lay, sheet, write_job, write_lay};
use proptest::prelude::*;

/// The example of docs/formats.md: every kind of cloth and outline.
const EXAMPLE: &str = r#"{ "format": "bofta-job", "version": 1, "units": "in", "name": "Harvest tote",
  "pieces": [
    { "id": "outer", "name": "Outer panel", "count": 2, "outline": { "rect": [18.5, 17] },
      "grain": "length", "print": "upright", "mirror": "no", "cloths": ["moss", "fq"] },
    { "id": "base", "count": 1, "outline": { "circle": 8.5 }, "grain": "any", "print": "ignore", "cloths": ["moss"] },
    { "id": "flap", "count": 2, "outline": { "polygon": [[0,0],[9,0],[7.5,5],[1.5,5]] }, "mirror": "pairs", "cloths": ["moss"] } ],
  "cloths": [
    { "id": "moss", "name": "Moss canvas", "kind": "roll", "width": 56, "selvedge": 0.5, "trim": 0.5, "step": 4.5, "min": 9,
      "max": 180, "print": "one-way", "up": "length", "price": { "amount": 14.0, "per": 36 },
      "shrink": { "along": 0.03, "across": 0.02 } },
    { "id": "fq", "kind": "sheet", "rect": [21, 18], "count": 2, "owned": true, "print": "two-way" },
    { "id": "odd", "kind": "scrap", "polygon": [[0,0],[14,0],[15,9],[6,11],[0,7]], "flaws": [ { "circle": [5,4,0.5] } ], "owned": true } ],
  "rules": { "gap": 0, "cuts": "free", "keep": [5, 5], "aim": "buy-least", "seed": 1, "seconds": 5 } }"#;

#[test]
fn every_kind_of_cloth_and_outline_reads_and_writes_back() {
    let job = read_job(EXAMPLE).expect("the documented example");
    assert_eq!(job.pieces[0].outline, bofta_core::shape::Outline::Rect(Length::inches(37, 2), Length::INCH * 17));
    assert_eq!(read_job(&write_job(&job)), Ok(job));
}

fn refusal(change: impl Fn(&str) -> String) -> String {
    read_job(&change(EXAMPLE)).expect_err("it cannot stand").to_string()
}

#[test]
fn bad_jobs_name_the_field() {
    let replaced = |from: &str, to: &str| refusal(|e| e.replacen(from, to, 1));
    for (from, to, field) in [
        ("bofta-job", "other-job", "format"),
        ("\"version\": 1", "\"version\": 2", "version"),
        ("\"units\": \"in\"", "\"units\": \"ft\"", "units"),
        ("\"count\": 2", "\"count\": -2", "pieces[0].count"),
        ("\"count\": 2", "\"count\": 0", "pieces[0].count"),
        ("[18.5, 17]", "[18.5, 0]", "pieces[0].outline"),
        ("[18.5, 17]", "[18.5, 1e9]", "pieces[0].outline"),
        ("[18.5, 17]", "[18.5]", "pieces[0].outline"),
        ("[[0,0],[9,0],[7.5,5],[1.5,5]]", "[[0,0],[9,5],[9,0],[0,5]]", "pieces[2].outline.polygon"),
        ("\"grain\": \"length\"", "\"grain\": \"sideways\"", "pieces[0].grain"),
        ("\"cloths\": [\"moss\", \"fq\"]", "\"cloths\": [\"silk\"]", "pieces[0].cloths"),
        ("\"id\": \"base\"", "\"id\": \"outer\"", "pieces[1].id"),
        ("\"width\": 56", "\"width\": 1", "cloths[0].width"),
        ("\"width\": 56", "\"breadth\": 56", "breadth"),
        ("\"selvedge\": 0.5", "\"selvedge\": -1", "cloths[0].selvedge"),
        ("\"along\": 0.03", "\"along\": 0.9", "cloths[0].shrink.along"),
        ("\"per\": 36", "\"per\": 0", "cloths[0].price.per"),
        ("\"seconds\": 5", "\"seconds\": -1", "rules.seconds"),
        ("\"gap\": 0", "\"gap\": 0, \"glue\": true", "glue"),
    ] {
        let message = replaced(from, to);
        assert!(message.contains(field), "{from} → {to}: {message}");
        assert!(!message.contains('\n'), "one line: {message}");
    }
}

#[test]
fn a_truncated_job_says_where_it_ends() {
    let half = refusal(|e| e[..e.len() / 2].to_owned());
    assert!(half.contains("ends at line"), "{half}");
    assert!(refusal(|_| String::new()).contains("ends at line"));
    assert!(refusal(|e| format!("{e} and more")).contains("follows its end"));
}

fn laid() -> (Project, bofta_core::project::Planned, bofta_core::lay::Job, bofta_core::lay::Lay) {
    let add = Edit::AddCloth { name: "Moss & <canvas>".into(), material: "canvas".into() };
    let (project, _) = Project::new("Tote", System::Inches).edited(&add).expect("a sound edit");
    let planned = project.plan().expect("drafts");
    let job = planned.job.clone().expect("a job");
    let lay = solve(&job, Budget::iterations(100), &mut Silent).expect("laid");
    (project, planned, job, lay)
}

#[test]
fn a_lay_reads_back_and_still_verifies() {
    let (_, _, job, lay) = laid();
    let text = write_lay(&job, &lay, 0.25);
    let back = read_lay(&text).expect("read");
    assert_eq!(verify(&job, &back), []);
    assert_eq!(back.cloths[0].placements, lay.cloths[0].placements);
    assert!(text.contains("\"reading\""), "the cuts are in it");
    assert!(read_lay(&text.replace("bofta-lay", "other")).is_err());
    assert!(
        read_lay(&text.replacen("\"turn\": 0", "\"turn\": 30", 1))
            .expect_err("no such turn")
            .to_string()
            .contains("turn")
    );
}

#[test]
fn the_cut_list_is_a_table() {
    let (project, planned, ..) = laid();
    let text = csv::cut_list(&CutTable::of(&project, &planned, None));
    let mut lines = text.lines();
    assert_eq!(lines.next(), Some("piece,part,count,width,height,unit,shape,cloth,when,note"));
    assert_eq!(
        lines.next(),
        Some("Outer panel,Outer,2,19,16,in,\"both lower corners cut out, 2 across × 2 up\",Moss & <canvas>,,")
    );
    assert_eq!(text.lines().count(), 1 + planned.draft.pieces.len());
}

/// Whatever a spreadsheet splits the line at, no cell of it begins a formula (OWASP, "CSV injection"), and the names read
/// back as they were.
#[test]
fn no_cell_begins_a_formula_under_any_separator() {
    use bofta_core::piece::Part;
    let names = ["=1+1", "a;=HYPERLINK(1)", "b|@c", "d, +3", "'=kept", "e; -2", "plain; and more", "f;'=g"];
    let row = |name: &&str| Row::new(*name, Part::Outer, 1, Length::INCH * 3, Length::INCH * 4);
    let rows = Edit::Rows { rows: names.iter().map(row).collect(), bought: vec![] };
    let project = Project::new("List", System::Inches).edited(&rows).expect("a list").0;
    let planned = project.plan().expect("drafts");
    let text = csv::cut_list(&CutTable::of(&project, &planned, None));
    for separator in [',', ';', '|', '\t'] {
        for cell in text.split(['\n', separator]) {
            let begins = cell.trim_matches(['"', ' ', '\r']);
            assert!(!begins.starts_with(['=', '+', '-', '@']), "{separator:?}: {cell:?}");
        }
    }
    let read = read_text(&text, System::Inches);
    assert_eq!(read.rows.iter().map(|r| r.name.as_str()).collect::<Vec<_>>(), names);
}

/// Pages are Letter (ANSI, 8½ × 11 in) for inches and A4 (ISO 216, 210 × 297 mm) for centimetres; the names of cloths
/// cannot break the drawing.
#[test]
fn sheets_have_pages_of_paper_size() {
    let (project, planned, job, lay) = laid();
    let pages = sheet::cut_sheet_pages(&project, &planned, &job, &lay, &Stop::new());
    assert!(pages.len() >= 2);
    assert!(pages.iter().all(|p| (p.width, p.height) == (8.5 * 72.0, 11.0 * 72.0)));
    let metric = Project { system: System::Centimetres, ..project.clone() };
    let pages = sheet::cut_sheet_pages(&metric, &planned, &job, &lay, &Stop::new());
    let mm = |points: f64| points / 72.0 * 25.4;
    assert!((mm(pages[0].width) - 210.0).abs() < 0.1 && (mm(pages[0].height) - 297.0).abs() < 0.1);
    let pdf = sheet::cut_sheet(&project, &planned, &job, &lay, (NO_PICTURES, &Stop::new())).expect("a PDF");
    assert!(pdf.starts_with(b"%PDF-") && pdf.len() > 5_000);
}

#[test]
fn drawings_are_well_formed() {
    let (project, planned, job, lay) = laid();
    let bag = draw::bag(&project, &planned.draft, 960.0, 400.0);
    assert_eq!(bag.anchors.len(), 3);
    let mut drawings = vec![bag.drawing];
    drawings.extend(draw::cloth_lay(&project, &job, &lay.cloths[0], 960.0, 440.0, "t"));
    drawings.extend(draw::thumbnail(&project, &job, &lay.cloths[0], 150.0, 90.0, "t"));
    drawings.extend(planned.draft.pieces.iter().map(|p| {
        draw::piece(
            p,
            project.cloth_of(p.part),
            project.ruler,
            1e-5,
            draw::Shown { marks: true, ..draw::Shown::default() },
        )
    }));
    let steps = bofta_core::cutting::cut_list(&job, &lay.cloths, &planned.draft.pieces, &[]);
    for number in 1..=steps.len() {
        drawings.extend(draw::cut_step(
            &project,
            &job,
            &lay,
            (&planned.draft.pieces, &planned.blocks),
            (&steps, number),
            (760.0, 450.0),
        ));
    }
    drawings.push(draw::ruler_strip(Length::inches(43, 2), project.ruler, "from the left edge", 760.0));
    for drawing in &drawings {
        let svg = drawing.to_svg();
        assert!(svg2pdf::usvg::Tree::from_str(&svg, &svg2pdf::usvg::Options::default()).is_ok(), "{svg}");
        assert!(!svg.contains("NaN") && !svg.contains("inf"), "{svg}");
    }
    assert!(drawings.len() > steps.len());
}

proptest! {
    /// Any text is read or refused in one line.
    #[test]
    fn reading_never_fails_badly(at in 0..EXAMPLE.len(), with in "[ -~]{0,6}") {
        let mut text = EXAMPLE.to_owned();
        if text.is_char_boundary(at) {
            text.replace_range(at..(at + 1).min(text.len()), &with);
        }
        if let Err(error) = read_job(&text) {
            prop_assert!(!error.to_string().is_empty());
        }
    }

    /// Sizes survive the way through decimal numbers in both systems.
    #[test]
    fn lengths_survive_the_format(n in 1_i64..5_000, metric in any::<bool>()) {
        let mut job = read_job(EXAMPLE).expect("the example");
        job.units = if metric { System::Centimetres } else { System::Inches };
        let length = if metric { Length::tenth_mm(n) } else { Length::inches(n, 64) };
        job.pieces[0].outline = bofta_core::shape::Outline::Rect(length, length);
        prop_assert_eq!(read_job(&write_job(&job)), Ok(job));
    }
}

const EVERYTHING: &str = r#"{ "format": "bofta-job", "version": 1, "units": "in", "name": "Everything",
  "pieces": [
    { "id": "panel", "count": 3, "outline": { "rect": [18.5, 17] }, "grain": "length", "print": "upright", "cloths": ["fold"] },
    { "id": "base", "count": 2, "outline": { "circle": 6 }, "grain": "any", "print": "ignore", "cloths": ["odd", "fq"] },
    { "id": "flap", "count": 2, "outline": { "polygon": [[0,0],[0,0],[7.5,5],[1.5,5]] }, "mirror": "pairs", "cloths": ["fq"] } ],
  "cloths": [
    { "id": "fold", "kind": "roll", "width": 28, "selvedge": 0.5, "trim": 0.5, "step": 4.5, "min": 9, "max": 180, "layers": 2,
      "price": { "amount": 14.0, "per": 36 }, "shrink": { "along": 0.03, "across": 0.02 } },
    { "id": "fq", "kind": "sheet", "rect": [21, 18], "count": 2, "owned": true, "print": "two-way" },
    { "id": "odd", "kind": "scrap", "polygon": [[0,0],[0,7],[6,11],[15,9],[14,0]], "flaws": [ { "circle": [5,4,0.5] } ], "owned": true } ],
  "rules": { "aim": "scraps-first", "keep": [4, 4] },
  "pinned": [ { "cloth": "fq", "cloth_copy": 2, "piece": "base", "copy": 2, "x": 3, "y": 4 } ] }"#;

/// Every kind of cloth, folds, pins, a clockwise scrap and a corner given twice: read, written, read again, laid, and
/// the lay read back.
#[test]
fn a_job_of_everything_reads_back_and_is_laid() {
    let job = read_job(EVERYTHING).expect("read");
    assert_eq!(read_job(&write_job(&job)).expect("read back"), job);
    let lay = solve(&job, Budget::iterations(60), &mut Silent).expect("laid");
    assert!(lay.complete(), "{:?}", lay.unplaced);
    let text = write_lay(&job, &lay, 1.0);
    assert!(text.contains("\"on_fold\": true"), "{text}");
    let back = read_lay(&text).expect("read back");
    assert_eq!(verify(&job, &back), []);
    assert_eq!(
        back.cloths.iter().map(|c| &c.placements).collect::<Vec<_>>(),
        lay.cloths.iter().map(|c| &c.placements).collect::<Vec<_>>()
    );
}

/// A print with its repeat, and a piece that has its place on it.
#[test]
fn places_on_a_print_read_back_and_are_laid() {
    let placed =
        EVERYTHING.replace(r#""cloths": ["fq"] } ],"#, r#""cloths": ["fq"], "on_print": [4, 2.5] } ],"#).replace(
            r#""print": "two-way" }"#,
            r#""print": "two-way", "repeat": { "across": 4, "along": 3, "drop": 1.5, "at": [1, 2] } }"#,
        );
    let job = read_job(&placed).expect("read");
    assert_eq!(read_job(&write_job(&job)), Ok(job.clone()));
    let lay = solve(&job, Budget::iterations(20), &mut Silent).expect("laid");
    assert_eq!(verify(&job, &lay), []);
    assert!(lay.complete(), "{:?}", lay.unplaced);
    let refused = |from: &str, to: &str| read_job(&placed.replace(from, to)).expect_err("cannot stand").to_string();
    assert!(refused("[4, 2.5]", "[14, 2.5]").contains("pieces[2].on_print"));
    assert!(refused(r#""drop": 1.5"#, r#""drop": 3"#).contains("cloths[1].repeat.drop"));
    assert!(refused(r#""across": 4"#, r#""across": -4"#).contains("cloths[1].repeat.across"));
    assert!(refused(r#""along": 3"#, r#""around": 3"#).contains("around"));
}

#[test]
fn what_is_wrong_with_a_shape_is_said_with_its_place() {
    let refused = |from: &str, to: &str| {
        let text = EVERYTHING.replace(from, to);
        assert_ne!(text, EVERYTHING, "{from} is in the example");
        read_job(&text).expect_err("cannot stand").to_string()
    };
    let crossed = refused("[[0,0],[0,0],[7.5,5],[1.5,5]]", "[[0,0],[7.5,5],[1.5,5],[7.5,0]]");
    assert!(crossed.contains("pieces[2].outline.polygon") && crossed.contains("side 1 crosses side 3"), "{crossed}");
    assert!(refused("\"circle\": [5,4,0.5]", "\"circle\": [50,4,0.5]").contains("cloths[2].flaws[0]"));
    assert!(refused("[7.5,5],[1.5,5]]", "[7.5,0],[1.5,0.001]]").contains("sliver"));
    assert!(
        refused("\"cloth\": \"fq\", \"cloth_copy\"", "\"cloth\": \"silk\", \"cloth_copy\"").contains("pinned[0].cloth")
    );
    // Whether a pin lies on its cloth is asked when the job is laid.
    let off = read_job(&EVERYTHING.replace("\"x\": 3, \"y\": 4", "\"x\": 3, \"y\": 14")).expect("read");
    let refusal = solve(&off, Budget::iterations(0), &mut Silent).expect_err("off the cloth");
    assert!(refusal.to_string().contains("base 2 lies over the end of fq"), "{refusal}");
    assert!(refused("\"x\": 3, \"y\": 4", "\"x\": 3, \"y\": 4, \"turn\": 30").contains("pinned[0].turn"));
}
