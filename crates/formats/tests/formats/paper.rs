//! Whatever is typed, what is drawn, printed, listed and written of it is whole: random histories of edits, each plan that
//! comes of them laid after a glance, then every drawing, sheet, list and file of it.
//!
//! `BOFTA_PAPER` says how many histories are gone through instead of 40.
#![allow(missing_docs)]

use bofta_core::buying::{purchases, said_size};
use bofta_core::cutting::{Step, cut_list};
use bofta_core::lay::{Budget, Job, Lay, Random, Silent, Stop, solve, verify};
use bofta_core::project::{Planned, Project};
use bofta_formats::cut_table::CutTable;
use bofta_formats::draw::{self, Drawing};
use bofta_formats::outlines::{read_dxf, read_svg, write_dxf, write_svg};
use bofta_formats::{csv, read_job, read_lay, sheet, shopping_list, write_job, write_lay};
use std::collections::BTreeSet;
use svg2pdf::usvg::roxmltree::Document;

use crate::any_edit;

use any_edit::{any_beginning, any_edit};

/// What a drawing says, its texts one after the other.
fn said(drawing: &Drawing) -> Result<String, String> {
    let svg = drawing.to_svg();
    if !(drawing.width.is_finite() && drawing.height.is_finite() && drawing.width > 0.0 && drawing.height > 0.0) {
        return Err(format!("it is {} × {}", drawing.width, drawing.height));
    }
    let document = Document::parse(&svg).map_err(|e| format!("it is no SVG: {e}"))?;
    for node in document.descendants().filter(|n| n.is_element()) {
        let numbers = [
            "x",
            "y",
            "x1",
            "y1",
            "x2",
            "y2",
            "width",
            "height",
            "r",
            "cx",
            "cy",
            "d",
            "points",
            "transform",
            "stroke-width",
        ];
        for attribute in node.attributes().filter(|a| numbers.contains(&a.name())) {
            if attribute.value().contains("NaN") || attribute.value().contains("inf") {
                return Err(format!("{} is {}", attribute.name(), attribute.value()));
            }
        }
    }
    // What is drawn is named once: a fill finds the pattern that is meant.
    let ids: Vec<&str> = document.descendants().filter_map(|n| n.attribute("id")).collect();
    if ids.iter().collect::<BTreeSet<_>>().len() < ids.len() {
        return Err(format!("two things have one id: {ids:?}"));
    }
    for fill in document.descendants().filter_map(|n| n.attribute("fill")) {
        let meant = fill.strip_prefix("url(#").and_then(|rest| rest.strip_suffix(')'));
        if meant.is_some_and(|id| !ids.contains(&id)) {
            return Err(format!("{fill} is nowhere"));
        }
    }
    let texts = document.descendants().filter(|n| n.is_text()).filter_map(|n| n.text());
    Ok(texts.collect::<Vec<_>>().join(" "))
}

/// Every word of `words` is among `text`; a name may run over two lines.
fn has_words(text: &str, words: &str) -> bool {
    let known: BTreeSet<&str> = text.split_whitespace().collect();
    words.split_whitespace().all(|word| known.contains(word) || text.contains(word))
}

fn drawings(project: &Project, planned: &Planned, job: &Job, lay: &Lay) -> Result<(), String> {
    let told = |what: &str, drawing: &Drawing| said(drawing).map_err(|why| format!("{what}: {why}"));
    told("the bag", &draw::bag(project, &planned.draft, 960.0, 400.0).drawing)?;
    for face in draw::faces(project, &planned.draft, 420.0, 320.0) {
        told(&format!("the wall {:?}", face.side), &face.drawing)?;
    }
    for piece in &planned.draft.pieces {
        let cloth = project.cloth_of(piece.part);
        let drawing =
            draw::piece(piece, cloth, project.ruler, 1e-4, draw::Shown { marks: true, ..draw::Shown::default() });
        told(&format!("the piece {}", piece.id), &drawing)?;
    }
    for on in &lay.cloths {
        let drawing = draw::cloth_lay(project, job, on, 900.0, 500.0, "lay");
        let drawing = drawing.ok_or_else(|| format!("{} is laid and not drawn", on.cloth))?;
        told(&format!("the lay on {}", on.cloth), &drawing)?;
    }
    let steps = cut_list(job, &lay.cloths, &planned.draft.pieces, &planned.blocks);
    // The first and the last of many.
    for (n, step) in steps.iter().enumerate() {
        if n < 3 || n + 3 > steps.len() {
            let with = (&planned.draft.pieces[..], &planned.blocks[..]);
            if let Some(drawing) = draw::cut_step(project, job, lay, with, (&steps, n + 1), (760.0, 450.0)) {
                told(&format!("cut {}", n + 1), &drawing)?;
            }
        }
        if let Step::Cut { cut, .. } = step
            && n < 2
        {
            told("the ruler", &draw::ruler_strip(cut.reading, project.ruler, "the edge", 700.0))?;
        }
    }
    Ok(())
}

fn paper(project: &Project, planned: &Planned, job: &Job, lay: &Lay) -> Result<(), String> {
    let pages = sheet::cut_sheet_pages(project, planned, job, lay, &Stop::default());
    if pages.is_empty() {
        return Err("the sheet has no page".into());
    }
    let mut text = String::new();
    for (n, page) in pages.iter().enumerate() {
        text.push_str(&said(page).map_err(|why| format!("page {}: {why}", n + 1))?);
        text.push(' ');
    }
    // What the maker typed may end in dots of its own; ours never stand for what was left out.
    if text.contains(" …") && !project.name.contains('…') {
        return Err("something is shortened on paper".into());
    }
    for piece in &planned.draft.pieces {
        let spaced = piece.name.split_whitespace().collect::<Vec<_>>().join(" ");
        if !has_words(&text, &spaced) {
            return Err(format!("{spaced:?} is not on the sheet"));
        }
    }
    let mut sewn = String::new();
    for (n, page) in sheet::making_sheet_pages(project, planned, Some((job, lay))).iter().enumerate() {
        sewn.push_str(&said(page).map_err(|why| format!("making, page {}: {why}", n + 1))?);
        sewn.push(' ');
    }
    for step in &planned.draft.steps {
        if !has_words(&sewn, &step.text.split_whitespace().collect::<Vec<_>>().join(" ")) {
            return Err(format!("{:?} is not on the making sheet", step.text));
        }
    }
    let list = shopping_list(project, &planned.draft, job, lay, None);
    for p in purchases(job, lay) {
        let Some(cloth) = job.cloth(&p.cloth) else { return Err(format!("{} is bought and unknown", p.cloth)) };
        let size = said_size(cloth, p.length, project.ruler);
        if !list.lines().any(|line| line.contains(&size) && line.contains(cloth.name.as_str())) {
            return Err(format!("{size} of {} is not on the list:\n{list}", cloth.name));
        }
    }
    for part in &planned.draft.hardware {
        if !list.contains(part.name.as_ref()) {
            return Err(format!("{} is not on the list", part.name));
        }
    }
    Ok(())
}

fn files(project: &Project, planned: &Planned, job: &Job, lay: &Lay) -> Result<(), String> {
    let again = read_job(&write_job(job)).map_err(|e| format!("the job: {e}"))?;
    if again != *job {
        return Err(format!("the job comes back as another: {again:#?}\n{job:#?}"));
    }
    let again = read_lay(&write_lay(job, lay, 0.5)).map_err(|e| format!("the lay: {e}"))?;
    if let Some(fault) = verify(job, &again).first() {
        return Err(format!("the lay that was read does not hold: {fault}"));
    }
    let pieces = &planned.draft.pieces;
    let rows = csv::cut_list(&CutTable::of(project, planned, Some(lay))).lines().count();
    if rows < pieces.len() + 1 {
        return Err(format!("{rows} rows for {} pieces", pieces.len()));
    }
    let dxf = write_dxf(pieces, project.system).map_err(|e| format!("DXF: {e}"))?;
    let dxf = read_dxf(&dxf, None).map_err(|e| format!("DXF: {e}"))?;
    let svg = read_svg(write_svg(pieces).as_bytes(), 96.0).map_err(|e| format!("SVG: {e}"))?;
    for (kind, found) in [("DXF", dxf), ("SVG", svg)] {
        if found.rows.len() != pieces.len() {
            return Err(format!(
                "{} outlines of {} pieces in {kind}: {:?}",
                found.rows.len(),
                pieces.len(),
                found.left_out
            ));
        }
    }
    Ok(())
}

#[test]
fn whatever_is_typed_what_comes_out_is_whole() {
    let histories: u64 = std::env::var("BOFTA_PAPER").ok().and_then(|n| n.parse().ok()).unwrap_or(40);
    let (mut stood, mut looked_at) = (0, 0);
    for number in 0..histories {
        let random = &mut Random::new(7_000 + number);
        let mut project = any_beginning(random);
        for step in 0..40 {
            let edit = any_edit(&project, random);
            let Ok((next, _)) = project.edited(&edit) else { continue };
            project = next;
            stood += 1;
            if stood % 12 != 0 {
                continue;
            }
            let planned = project.plan().expect("what stood is a plan");
            let Some(job) = planned.job.clone() else { continue };
            let Ok(lay) = solve(&job, Budget::iterations(10), &mut Silent) else { continue };
            looked_at += 1;
            let found = drawings(&project, &planned, &job, &lay)
                .and_then(|()| paper(&project, &planned, &job, &lay))
                .and_then(|()| files(&project, &planned, &job, &lay));
            if let Err(why) = found {
                panic!("history {number}, step {step}, {edit:?}: {why}\n{:?}", project.bag);
            }
        }
    }
    assert!(looked_at as u64 > histories / 2, "{looked_at} plans of {stood} edits");
}
