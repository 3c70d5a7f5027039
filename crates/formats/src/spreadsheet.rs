//! Spreadsheets as text: the first sheet that has rows, its cells by tabs, for the cut list's reader.

use calamine::{Data, Reader, open_workbook_auto_from_rs};
use std::io::Cursor;

/// The cells of an XLSX, XLS or ODS file, a line a row.
///
/// # Errors
/// A sentence when it is no spreadsheet or has nothing in it.
pub fn as_text(bytes: &[u8]) -> Result<String, String> {
    let mut book = open_workbook_auto_from_rs(Cursor::new(bytes))
        .map_err(|e| format!("it cannot be read as a spreadsheet: {e}"))?;
    for name in book.sheet_names() {
        let Ok(range) = book.worksheet_range(&name) else { continue };
        let lines: Vec<String> = range.rows().map(|row| row.iter().map(cell).collect::<Vec<_>>().join("\t")).collect();
        if lines.iter().any(|l| !l.trim().is_empty()) {
            return Ok(lines.join("\n"));
        }
    }
    Err("its sheets are empty".to_owned())
}

fn cell(data: &Data) -> String {
    match data {
        Data::Empty => String::new(),
        Data::Float(f) if f.fract() == 0.0 => format!("{f:.0}"),
        other => other.to_string().replace(['\t', '\n'], " "),
    }
}
