//! Files as nobody meant to write them: read, or refused by a sentence, without a panic and in time.
#![allow(missing_docs)]

use bofta_core::bag::{Bag, Body, CutList, Row, RowShape};
use bofta_core::lay::{Budget, Silent, Stop, solve, verify};
use bofta_core::measure::{Length, Ruler, System};
use bofta_core::piece::Part;
use bofta_core::project::Project;
use bofta_formats::gate::{FileKind, read_file};
use bofta_formats::outlines::{write_dxf, write_svg};
use bofta_formats::{read_bag, read_job, read_lay, write_lay};
use bofta_mutations::{Dice, mutated, try_all};
use std::io::Write as _;
use std::sync::mpsc::channel;
use std::time::Duration;

fn jobs() -> Vec<Vec<u8>> {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../bench/jobs");
    ["rect-tote", "mix-caddy", "fold-tote", "scrap-1", "several-cloths", "through-tote"]
        .iter()
        .map(|name| std::fs::read(folder.join(format!("{name}.json"))).expect("a job"))
        .collect()
}

/// Reads a file as the gate does, and checks that what is refused is a sentence.
fn through_the_gate(bytes: &[u8]) {
    if let Err(refused) = read_file(bytes, "list", System::Inches, Some(Length::CENTIMETRE)) {
        let text = format!("{refused:?}");
        assert!(text.len() < 1_200 && text.contains("list: "), "{text}");
    }
}

/// Jobs that came to grief once: shapes numbered otherwise, and outlines whose union its library could not make.
#[test]
fn mutated_jobs_that_were_found() {
    for number in [108_625, 327_444] {
        let mut dice = Dice::new(number);
        let seeds = jobs();
        let seed = &seeds[dice.below(seeds.len())];
        let job = read_job(&String::from_utf8_lossy(&mutated(seed, &mut dice))).expect("a job");
        for looks in [1_000, 2_138, 4_000, u64::MAX] {
            let stop = Stop::after(looks);
            if let Ok(lay) = solve(&job, Budget::iterations(4).until(&stop), &mut Silent) {
                assert_eq!(verify(&job, &lay), vec![]);
            }
        }
    }
}

/// A job that is read is laid at a glance, and stopped in time.
#[test]
fn mutated_jobs() {
    let (send, receive) = channel::<(Stop, Duration)>();
    let watch = std::thread::spawn(move || {
        while let Ok((stop, after)) = receive.recv() {
            std::thread::sleep(after);
            stop.ask();
        }
    });
    try_all("jobs", &jobs(), 1, |bytes| {
        if let Ok(job) = read_job(&String::from_utf8_lossy(bytes)) {
            let stop = Stop::new();
            send.send((stop.clone(), Duration::from_millis(20))).expect("watched");
            if let Ok(lay) = solve(&job, Budget::iterations(4).until(&stop), &mut Silent) {
                assert_eq!(verify(&job, &lay), vec![]);
            }
        }
    });
    drop(send);
    watch.join().expect("ends");
}

#[test]
fn mutated_lays() {
    let text = String::from_utf8(jobs().swap_remove(0)).expect("text");
    let job = read_job(&text).expect("a job");
    let lay = solve(&job, Budget::iterations(10), &mut Silent).expect("laid");
    try_all("lays", &[write_lay(&job, &lay, 1.0).into_bytes()], 1, |bytes| {
        if let Ok(lay) = read_lay(&String::from_utf8_lossy(bytes)) {
            let _ = verify(&job, &lay);
        }
    });
}

#[test]
fn mutated_bags() {
    let bags = [
        r#"{"format":"bofta-bag","version":1,"units":"in","family":"drawstring","sizes":{"width":"9 1/2","height":16,"base":"round","lined":true}}"#,
        r#"{"format":"bofta-bag","version":1,"units":"cm","family":"tote","sizes":{"width":40,"depth":"12.5"},"panels":{"front":{"front":"grid","columns":4,"rows":3}}}"#,
        r#"{"format":"bofta-bag","version":1,"units":"in","family":"cut-list","rows":["2 x 15 x 16 1/2 outer","circle 8 1/2 in","3 strips 2 1/4 x WOF"]}"#,
        r#"{"format":"bofta-bag","version":1,"units":"in","family":"duffel","ruler":"sixteenth","sizes":{"width":"20","height":10}}"#,
        r#"{"format":"bofta-bag","version":1,"units":"in","family":"tote","sizes":{"width":14},"panels":{"outer-panel":{"bands":"3, 6","backed":"firm"}},"parts":[{"part":"pocket","wall":"back","divisions":"2, 4","below":"2 1/2"},{"part":"strap","end":"outside","shows":20},{"part":"decoration","margin":2},{"part":"tab","what":"bow"},{"part":"piece","count":3,"width":9}]}"#,
    ];
    let seeds: Vec<Vec<u8>> = bags.iter().map(|b| b.as_bytes().to_vec()).collect();
    try_all("bags", &seeds, 1, |bytes| {
        if let Ok(read) = read_bag(&String::from_utf8_lossy(bytes))
            && let Ok(draft) = read.bag.draft(read.ruler)
        {
            let _ = read.bag.finished_from_cut(&draft);
            let _ = read.bag.seams(read.ruler);
            let project = Project { bag: read.bag, made_up: read.made_up, ..Project::new("Mutated", read.system) };
            let _ = project.plan();
        }
    });
}

#[test]
fn mutated_lists() {
    let lists = [
        "Outer: cut 2, 15 x 16½\nLining:\n4x 9 1/2 x 12 panel\n12\" tall by 7 1/4\" wide\n3 strips 2 1/4 in x WOF\ncircle 8½ in\nseam allowance 1/2 in\nFinished 12 x 9 x 4",
        "piece;part;count;width;height;unit\nOuter;outer;2;40,5;30;cm\n'=Flap;lining;1;12;9;in\n",
        "name,qty,width,height\nPanel,2,15 1/2,16.25\n\"Base, round\",1,8,8\n",
        "• Handles – cut two, 4 × 26\n(make 3) pocket 7 by 9 mirrored\n袋 2 x 10 x 12",
    ];
    let seeds: Vec<Vec<u8>> = lists.iter().map(|l| l.as_bytes().to_vec()).collect();
    try_all("lists", &seeds, 1, through_the_gate);
}

fn pieces() -> Vec<bofta_core::piece::Piece> {
    let inch = |n| Length::INCH * n;
    let row = |name: &str, shape| Row { shape, ..Row::new(name, Part::Outer, 1, inch(12), inch(9)) };
    let rows = vec![
        row("Panel", RowShape::Rectangle),
        row("Base", RowShape::Circle),
        row("Flap", RowShape::Rounded { radius: inch(2) }),
    ];
    let zero = Length::ZERO;
    let list = CutList { rows, bought: vec![], width: zero, height: zero, depth: zero, seam_side: inch(1) };
    Bag::from(Body::CutList(list)).draft(Ruler::Eighth).expect("drafts").pieces
}

#[test]
fn mutated_drawings() {
    let curved = r##"<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="4in" height="4in" viewBox="0 0 384 384"><defs><path id="a" d="M10 10C60 0 90 40 40 90Q10 60 10 10Z"/></defs><g transform="rotate(30) scale(2 .5)"><use xlink:href="#a" x="9"/><circle cx="200" cy="200" r="90"/></g><image href="/dev/zero"/><text>no</text></svg>"##;
    let svg = [write_svg(&pieces()).into_bytes(), curved.as_bytes().to_vec()];
    try_all("SVG drawings", &svg, 1, through_the_gate);
    let dxf = [write_dxf(&pieces(), System::Inches).expect("written")];
    try_all("DXF drawings", &dxf, 1, through_the_gate);
}

/// A workbook's parts are changed before they are packed, so that more than the packing is tried.
#[test]
fn mutated_workbooks() {
    let mut book = rust_xlsxwriter::Workbook::new();
    let sheet = book.add_worksheet();
    for (row, cells) in [["piece", "count", "width", "height"], ["Outer", "2", "15 1/2", "16"]].iter().enumerate() {
        for (column, text) in cells.iter().enumerate() {
            sheet.write(row as u32, column as u16, *text).expect("written");
        }
    }
    sheet.write(4, 2, 15.5).expect("written");
    let whole = book.save_to_buffer().expect("saved");
    try_all("XLSX workbooks, packed", std::slice::from_ref(&whole), 2, through_the_gate);
    let content = br#"<?xml version="1.0"?><office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x"><office:body><office:spreadsheet><table:table><table:table-row table:number-rows-repeated="3"><table:table-cell table:number-columns-repeated="2" office:value-type="float" office:value="15.5"><text:p>15.5</text:p></table:table-cell><table:table-cell><text:p>lining &amp; base</text:p></table:table-cell></table:table-row></table:table></office:spreadsheet></office:body></office:document-content>"#;
    try_all("ODS spreadsheets", &[content.to_vec()], 1, |bytes| through_the_gate(&packed(&[("content.xml", bytes)])));
    let parts = unpacked(&whole);
    let at = parts.iter().position(|(name, _)| name == "xl/worksheets/sheet1.xml").expect("a sheet");
    try_all("XLSX sheets", &[parts[at].1.clone()], 2, |bytes| {
        let all: Vec<(&str, &[u8])> = parts
            .iter()
            .enumerate()
            .map(|(i, (name, old))| (name.as_str(), if i == at { bytes } else { old.as_slice() }))
            .collect();
        through_the_gate(&packed(&all));
    });
}

fn packed(parts: &[(&str, &[u8])]) -> Vec<u8> {
    let mut zip = zip::ZipWriter::new(std::io::Cursor::new(Vec::new()));
    let plain = zip::write::SimpleFileOptions::default().compression_method(zip::CompressionMethod::Stored);
    if parts.len() == 1 {
        zip.start_file("mimetype", plain).expect("a file");
        zip.write_all(b"application/vnd.oasis.opendocument.spreadsheet").expect("written");
    }
    for (name, bytes) in parts {
        zip.start_file(*name, plain).expect("a file");
        zip.write_all(bytes).expect("written");
    }
    zip.finish().expect("closed").into_inner()
}

fn unpacked(bytes: &[u8]) -> Vec<(String, Vec<u8>)> {
    let mut archive = zip::ZipArchive::new(std::io::Cursor::new(bytes)).expect("an archive");
    (0..archive.len())
        .map(|i| {
            let mut entry = archive.by_index(i).expect("an entry");
            let mut data = Vec::new();
            std::io::Read::read_to_end(&mut entry, &mut data).expect("read");
            (entry.name().expect("a name").into_owned(), data)
        })
        .collect()
}

// What a file is, by its content.

#[test]
fn a_file_is_what_its_content_says() {
    for (bytes, kind) in [
        (b"Outer 2 x 15 x 16".as_slice(), Some(FileKind::Text)),
        (b"\xEF\xBB\xBF<?xml version=\"1.0\"?><svg/>", Some(FileKind::Svg)),
        (b"  0\r\nSECTION\r\n  2\r\nHEADER\r\n", Some(FileKind::Dxf)),
        (b"<html><p>no</p></html>", None),
        (b"\xFF\xFEO\x00", None),
        (b"PK\x03\x04 nothing known", None),
        (b"\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1", Some(FileKind::Xls)),
    ] {
        assert_eq!(FileKind::of(bytes), kind, "{}", String::from_utf8_lossy(bytes));
    }
    let found = read_file(b"2 x 15 x 16 outer", "list.svg", System::Inches, None).expect("read");
    assert!(found.notes.iter().any(|n| n.contains("The file is text")), "{:?}", found.notes);
}

/// What was seen to end the program, each refused by name and in no time.
#[test]
fn what_is_too_much_is_refused_by_name() {
    let refused = |bytes: &[u8]| format!("{:?}", read_file(bytes, "list", System::Inches, None).expect_err("refused"));
    let far_off = {
        let mut book = rust_xlsxwriter::Workbook::new();
        let sheet = book.add_worksheet();
        sheet.write(0, 0, "outer").expect("written");
        sheet.write(1_048_575, 16_383, "16").expect("written");
        book.save_to_buffer().expect("saved")
    };
    assert!(refused(&far_off).contains("row 1048576"), "{}", refused(&far_off));
    let repeated = br#"<o xmlns:table="t" xmlns:text="x"><table:table><table:table-row><table:table-cell table:number-columns-repeated="2000000000"><text:p>9</text:p></table:table-cell></table:table-row></table:table></o>"#;
    assert!(refused(&packed(&[("content.xml", repeated)])).contains("at most 64"));
    let bomb = {
        let mut zip = zip::ZipWriter::new(std::io::Cursor::new(Vec::new()));
        let tight = zip::write::SimpleFileOptions::default();
        zip.start_file("xl/workbook.xml", tight).expect("a file");
        let blank = vec![b' '; 1 << 20];
        for _ in 0..80 {
            zip.write_all(&blank).expect("written");
        }
        zip.finish().expect("closed").into_inner()
    };
    assert!(bomb.len() < 200_000 && refused(&bomb).contains("64 MB"), "{}", refused(&bomb));
    let mut packed_svg = flate2::write::GzEncoder::new(Vec::new(), flate2::Compression::best());
    for _ in 0..80 {
        packed_svg.write_all(&vec![b' '; 1 << 20]).expect("written");
    }
    assert!(refused(&packed_svg.finish().expect("packed")).contains("64 MB"));
    let nested =
        format!("<svg xmlns=\"http://www.w3.org/2000/svg\">{}{}</svg>", "<g>".repeat(2_250), "</g>".repeat(2_250));
    assert!(refused(nested.as_bytes()).contains("more than 100 elements in each other"));
    let zigzag: String = (0..120_000).map(|i| format!("L{} {} ", i % 500, i / 500)).collect();
    let many = format!("<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M0 0 {zigzag}Z\"/></svg>");
    assert!(refused(many.as_bytes()).contains("more than 100000 corners"));
    assert!(refused("a\n".repeat(500_000).as_bytes()).contains("500000 lines. Bofta reads at most 5000"));
    assert!(refused("2 x 3 x 4 panel\n".repeat(900).as_bytes()).contains("900 pieces. A list can have at most 400"));
    assert!(refused(&vec![b' '; 21 << 20]).contains("21 MB. Bofta reads at most 20"));
    assert!(refused(b"").contains("empty"));
    // Two thousand lines that state the seam take no longer than any.
    let seams = "seam allowance 1/2 in\n".repeat(4_000);
    assert!(read_file(seams.as_bytes(), "list", System::Inches, None).is_ok());
}

#[test]
fn outlines_that_cannot_be_pieces_are_left_out_by_name() {
    let svg = r#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 200"><path id="bow" d="M0 0L96 96L96 0L0 96Z"/><path id="tab" d="M0 0H96V48H0Z"/><path id="far" d="M0 0H9e9V48H0Z"/></svg>"#;
    let found = read_file(svg.as_bytes(), "shapes.svg", System::Inches, None).expect("read");
    assert_eq!(found.rows.len(), 1);
    assert!(found.notes.iter().any(|n| n.starts_with("bow left out: side 1 crosses")), "{:?}", found.notes);
    assert!(found.notes.iter().any(|n| n.starts_with("far left out: it is larger than")), "{:?}", found.notes);
    for radius in ["NaN", "1e308", "-4"] {
        let dxf = format!(
            "0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\nbase\n10\n0\n20\n0\n30\n0\n40\n{radius}\n0\nENDSEC\n0\nEOF\n"
        );
        let text = format!("{:?}", read_file(dxf.as_bytes(), "d.dxf", System::Inches, Some(Length::INCH)));
        assert!(text.contains("base left out") || text.contains("cannot be read as DXF"), "{radius}: {text}");
    }
    // Nothing that a drawing names is opened.
    let names = r#"<svg xmlns="http://www.w3.org/2000/svg"><image href="/dev/zero" width="9" height="9"/><path d="M0 0H96V48H0Z"/></svg>"#;
    let found = read_file(names.as_bytes(), "d.svg", System::Inches, None).expect("read");
    assert!(found.notes.contains(&"1 pictures left out.".to_owned()), "{:?}", found.notes);
}

/// A circle drawn with six thousand corners is told by far fewer, and stays as large.
#[test]
fn fine_outlines_are_told_by_fewer_corners() {
    let corners: String = (0..6_000)
        .map(|i| {
            let angle = f64::from(i) / 6_000.0 * std::f64::consts::TAU;
            format!("{:.4} {:.4} ", 480.0 + 470.0 * angle.cos(), 480.0 + 470.0 * angle.sin())
        })
        .collect();
    let svg = format!(
        r#"<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 960 960"><path id="disc" d="M{corners}Z"/></svg>"#
    );
    let found = read_file(svg.as_bytes(), "disc.svg", System::Inches, None).expect("read");
    assert!(found.notes.iter().any(|n| n.contains("fewer corners")), "{:?}", found.notes);
    let RowShape::Free { corners } = &found.rows[0].shape else { panic!("an outline") };
    assert!((20..400).contains(&corners.len()), "{}", corners.len());
    let area = bofta_core::shape::Outline::polygon(corners.clone()).expect("an outline").area().0 as f64;
    let true_area = std::f64::consts::PI * (470.0 / 96.0 * Length::INCH.0 as f64).powi(2);
    assert!((area / true_area - 1.0).abs() < 0.001, "{}", area / true_area);
}
