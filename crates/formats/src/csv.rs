//! The cut list as a table for a spreadsheet.

use bofta_core::measure::Ruler;
use bofta_core::piece::Piece;

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

/// `piece,part,count,width,height,unit,note`, one row a piece, sizes as decimal numbers in the ruler's system.
pub fn cut_list(pieces: &[Piece], ruler: Ruler) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    let unit = ruler.system();
    let rows = pieces.iter().map(|p| {
        [
            harmless(&p.name),
            p.part.name().to_owned(),
            p.count.to_string(),
            p.width.size.in_units(unit).to_string(),
            p.height.size.in_units(unit).to_string(),
            unit.symbol().to_owned(),
            harmless(&p.note.clone().unwrap_or_default()),
        ]
    });
    let header = ["piece", "part", "count", "width", "height", "unit", "note"].map(str::to_owned);
    for row in std::iter::once(header).chain(rows) {
        // Writing to memory cannot fail.
        let _ = writer.write_record(&row);
    }
    writer.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default()
}
