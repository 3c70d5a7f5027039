//! How the bag is sewn, on paper: every step to tick off, with its seams, how wide each is and how long.

use super::book::{Book, Row};
use super::pdf::{SheetError, to_pdf};
use crate::draw::Pictures;
use crate::draw::{Drawing, Face};
use bofta_core::bag::Phase;
use bofta_core::buying::headline;
use bofta_core::lay::{Job, Lay, Stop};
use bofta_core::project::{Planned, Project};

/// The making sheet of a project as pages of SVG, in points; with its layout, it says what does not fit on the cloth.
pub fn making_sheet_pages(project: &Project, planned: &Planned, laid: Option<(&Job, &Lay)>) -> Vec<Drawing> {
    let mut book = Book::open(project, "making sheet");
    book.text(0.0, &project.bag.headline(project.ruler), Face::Text, 13.0);
    book.space(10.0);
    if let Some(short) = laid.and_then(|(job, lay)| headline(job, lay)) {
        book.text(0.0, &format!("Not enough cloth: {short}. The cut sheet says which."), Face::Bold, 13.0);
        book.space(6.0);
    }
    let making = project.making(&planned.draft);
    if making.is_empty() {
        book.text(0.0, "Your own cut list says what to cut, not how to sew it.", Face::Text, 13.0);
    }
    let mut phase: Option<Phase> = None;
    for (n, now) in making.iter().enumerate() {
        if phase != Some(now.step.phase) {
            book.space(6.0);
            book.heading(now.step.phase.name());
            phase = Some(now.step.phase);
        }
        let number = (n + 1).to_string();
        let mark = if now.done { "done" } else { "" };
        let mut group = vec![Row::step(&[
            (18.0, number.as_str(), Face::Bold),
            (40.0, &now.step.text, Face::Text),
            (484.0, mark, Face::Text),
        ])];
        for told in now.seams.iter().filter_map(|s| s.told(&planned.draft, project.ruler)) {
            let to = told.other.map(|other| format!(" to {}", lower(&other))).unwrap_or_default();
            let apart = told.apart.map(|a| format!("; {a}")).unwrap_or_default();
            let name = format!("{}{}", upper(&told.name), if told.meets { "" } else { " (does not meet)" });
            group.push(Row::of(&[
                (40.0, &name, Face::Bold),
                (176.0, &format!("sewn {}", told.seam), Face::Bold),
                (252.0, &format!("{}{to}, {} long{apart}", told.one, told.length), Face::Text),
            ]));
        }
        book.table(vec![group], 0.0);
        book.space(5.0);
    }
    if !project.notes.is_empty() {
        book.space(8.0);
        book.heading("Notes");
        for line in project.notes.lines() {
            book.text(0.0, line, Face::Text, 12.5);
        }
    }
    book.finish()
}

/// The making sheet as one PDF.
///
/// # Errors
/// [`SheetError`] when a page cannot be converted, or `stop` was asked for.
pub fn making_sheet(
    project: &Project,
    planned: &Planned,
    laid: Option<(&Job, &Lay)>,
    (pictures, stop): (Pictures<'_>, &Stop),
) -> Result<Vec<u8>, SheetError> {
    to_pdf(&making_sheet_pages(project, planned, laid), pictures, stop)
}

fn lower(text: &str) -> String {
    first(text, |c| c.to_lowercase().collect())
}

pub(super) fn upper(text: &str) -> String {
    first(text, |c| c.to_uppercase().collect())
}

fn first(text: &str, changed: fn(char) -> String) -> String {
    let mut signs = text.chars();
    signs.next().map(changed).unwrap_or_default() + signs.as_str()
}
