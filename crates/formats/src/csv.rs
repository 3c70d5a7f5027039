//! The cut list as comma-separated values.

use crate::cut_table::{Cell, CutTable, TITLES};

/// What a spreadsheet may split a line at, whatever the file was written with.
const SEPARATORS: [char; 5] = [',', ';', '\t', '|', '\r'];

/// A cell that no spreadsheet takes for a formula, whichever separator it splits the line at: where a formula could begin
/// there is an apostrophe, which spreadsheets show as text (OWASP, "CSV injection").
fn harmless(text: &str) -> String {
    let mut out = String::with_capacity(text.len() + 1);
    for (at, begins) in stretches(text) {
        if may_begin_a_formula(begins) {
            out.push('\'');
        }
        out.push_str(&text[at..at + begins.len()]);
    }
    out
}

/// What [`harmless`] was made from.
pub(crate) fn as_it_was(cell: &str) -> String {
    stretches(cell)
        .map(|(_, begins)| match begins.strip_prefix('\'') {
            Some(rest) if may_begin_a_formula(rest) => rest,
            _ => begins,
        })
        .collect()
}

/// Whether a cell that began so could be taken for a formula, apostrophes of its own aside.
fn may_begin_a_formula(text: &str) -> bool {
    text.trim_start_matches('\'').starts_with(['=', '+', '-', '@', '\t', '\r'])
}

/// The text in stretches, each beginning where a cell could: at its start, and behind a separator and the spaces after it.
fn stretches(text: &str) -> impl Iterator<Item = (usize, &str)> {
    let mut from = Some(0);
    std::iter::from_fn(move || {
        let at = from?;
        let rest = &text[at..];
        let next = rest.find(SEPARATORS).map(|found| {
            let after = found + rest[found..].chars().next().map_or(1, char::len_utf8);
            after + rest[after..].len() - rest[after..].trim_start_matches(' ').len()
        });
        from = next.map(|n| at + n).filter(|n| *n < text.len());
        let end = from.unwrap_or(text.len());
        Some((at, &text[at..end]))
    })
}

/// The table as CSV (RFC 4180), its first row the titles.
pub fn cut_list(table: &CutTable) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    let rows = table.rows.iter().map(|row| {
        row.each_ref().map(|cell| match cell {
            Cell::Text(text) => harmless(text),
            Cell::Number(number) => number.to_string(),
        })
    });
    for row in std::iter::once(TITLES.map(str::to_owned)).chain(rows) {
        // Writing to memory cannot fail.
        let _ = writer.write_record(&row);
    }
    writer.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default()
}
