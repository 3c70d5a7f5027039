//! The cut list as a table for a spreadsheet.

use bofta_core::measure::Ruler;
use bofta_core::piece::Piece;

/// A cell that no spreadsheet takes for a formula: one that begins like a formula gets an apostrophe, which spreadsheets
/// show as text (OWASP, "CSV injection").
fn harmless(text: &str) -> String {
    if text.starts_with(['=', '+', '-', '@', '\t', '\r']) { format!("'{text}") } else { text.to_owned() }
}

/// What [`harmless`] was made from.
pub(crate) fn as_it_was(cell: &str) -> &str {
    cell.strip_prefix('\'').filter(|rest| rest.starts_with(['=', '+', '-', '@'])).unwrap_or(cell)
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
