//! Spreadsheets as text: the first sheet that has rows, its cells by tabs, for the cut list's reader. Cells are taken
//! one after the other as they stand in the file, so that one in the last corner of a sheet costs no more than one in the
//! first; how far out a cell may stand is a limit of the gate.

use crate::file_kind::FileKind;
use crate::limits::{MOST_COLUMNS, MOST_INFLATED, MOST_LINES, MOST_NESTING, guarded, inflated};
use calamine::{Data, DataRef, Reader, Xls, Xlsx};
use quick_xml::events::{BytesStart, Event};
use std::io::{Cursor, Read};

/// The cells of an XLSX, ODS or XLS file, a line a row.
///
/// # Errors
/// A sentence when it is no spreadsheet, has nothing in it, or too much.
pub fn as_text(bytes: &[u8], kind: FileKind) -> Result<String, String> {
    match kind {
        FileKind::Xls => guarded(|| xls(bytes)),
        FileKind::Ods => ods(bytes),
        _ => guarded(|| xlsx(bytes)),
    }
}

/// Rows as they fill.
#[derive(Default)]
struct Lines {
    rows: Vec<Vec<String>>,
}

impl Lines {
    /// Puts a cell where it stands, counted from 0; empty ones are nothing.
    fn put(&mut self, row: usize, column: usize, text: String) -> Result<(), String> {
        if text.trim().is_empty() {
            return Ok(());
        }
        if row >= MOST_LINES {
            return Err(format!("there is a cell in row {}. Bofta reads at most {MOST_LINES} rows", row + 1));
        }
        if column >= MOST_COLUMNS {
            let message =
                format!("there is a cell in column {}. Bofta reads at most {MOST_COLUMNS} columns", column + 1);
            return Err(message);
        }
        if self.rows.len() <= row {
            self.rows.resize(row + 1, vec![]);
        }
        if self.rows[row].len() <= column {
            self.rows[row].resize(column + 1, String::new());
        }
        self.rows[row][column] = text.replace(['\t', '\n', '\r'], " ");
        Ok(())
    }

    /// The text, unless there is none.
    fn text(&self) -> Option<String> {
        let text = self.rows.iter().map(|r| r.join("\t")).collect::<Vec<_>>().join("\n");
        (!text.trim().is_empty()).then_some(text)
    }
}

fn empty() -> String {
    "its sheets are empty".to_owned()
}

fn unreadable(e: impl std::fmt::Display) -> String {
    format!("it cannot be read as a spreadsheet: {e}")
}

/// A number as it is typed: no trailing `.0`.
fn figure(f: f64) -> String {
    if f.fract() == 0.0 && f.abs() < 1e15 { format!("{f:.0}") } else { f.to_string() }
}

fn xlsx(bytes: &[u8]) -> Result<String, String> {
    check_archive(bytes)?;
    let mut book: Xlsx<_> = Xlsx::new(Cursor::new(bytes)).map_err(unreadable)?;
    for name in book.sheet_names() {
        let mut lines = Lines::default();
        let Ok(mut cells) = book.worksheet_cells_reader(&name) else { continue };
        while let Some(cell) = cells.next_cell().map_err(unreadable)? {
            let text = match cell.get_value() {
                DataRef::Empty => continue,
                DataRef::Float(f) => figure(*f),
                other => Data::from(other.clone()).to_string(),
            };
            let (row, column) = cell.get_position();
            lines.put(row as usize, column as usize, text)?;
        }
        if let Some(text) = lines.text() {
            return Ok(text);
        }
    }
    Err(empty())
}

fn xls(bytes: &[u8]) -> Result<String, String> {
    let mut book: Xls<_> = Xls::new(Cursor::new(bytes)).map_err(unreadable)?;
    for name in book.sheet_names() {
        let Ok(range) = book.worksheet_range(&name) else { continue };
        let mut lines = Lines::default();
        let (top, left) = range.start().unwrap_or_default();
        for (row, column, cell) in range.used_cells() {
            let text = match cell {
                Data::Empty => continue,
                Data::Float(f) => figure(*f),
                other => other.to_string(),
            };
            lines.put(row + top as usize, column + left as usize, text)?;
        }
        if let Some(text) = lines.text() {
            return Ok(text);
        }
    }
    Err(empty())
}

/// What all entries of an archive unfold to is counted before any reader of its format sees it.
fn check_archive(bytes: &[u8]) -> Result<(), String> {
    let mut archive = zip::ZipArchive::new(Cursor::new(bytes)).map_err(unreadable)?;
    let mut left = MOST_INFLATED;
    for i in 0..archive.len() {
        let mut entry = archive.by_index(i).map_err(unreadable)?;
        let read = std::io::copy(&mut (&mut entry).take(left + 1), &mut std::io::sink()).map_err(unreadable)?;
        left = left
            .checked_sub(read)
            .ok_or_else(|| format!("it unpacks to more than {} MB, too much for a cut list", MOST_INFLATED >> 20))?;
    }
    Ok(())
}

/// The cells of an OpenDocument spreadsheet. Rows and cells may stand for many of their kind (`number-rows-repeated`);
/// an empty one so costs nothing, and one with something in it counts as often as it says.
fn ods(bytes: &[u8]) -> Result<String, String> {
    let mut archive = zip::ZipArchive::new(Cursor::new(bytes)).map_err(unreadable)?;
    let content = inflated(archive.by_name("content.xml").map_err(unreadable)?)?;
    let content = std::str::from_utf8(&content).map_err(unreadable)?;
    let mut reader = quick_xml::Reader::from_str(content);
    let mut sheet = Lines::default();
    let mut at = OdsCell::default();
    let mut depth = 0_usize;
    loop {
        match reader.read_event().map_err(unreadable)? {
            Event::Start(start) => {
                depth += 1;
                if depth > MOST_NESTING {
                    return Err(format!("its parts are nested more than {} deep", MOST_NESTING));
                }
                at.begin(&start)?;
            }
            Event::Empty(start) => {
                at.begin(&start)?;
                at.end(start.local_name().as_ref(), &mut sheet)?;
            }
            Event::Text(text) => at.text(&text),
            Event::GeneralRef(sign) => at.text(&resolved(&sign)),
            Event::End(end) => {
                depth = depth.saturating_sub(1);
                let name = end.local_name();
                at.end(name.as_ref(), &mut sheet)?;
                if name.as_ref() == "table" {
                    if let Some(text) = sheet.text() {
                        return Ok(text);
                    }
                    (sheet, at) = (Lines::default(), OdsCell::default());
                }
            }
            Event::Eof => return sheet.text().ok_or_else(empty),
            _ => {}
        }
    }
}

/// A character reference of XML.
fn resolved(sign: &quick_xml::events::BytesRef<'_>) -> String {
    if let Ok(Some(c)) = sign.resolve_char_ref() {
        return c.to_string();
    }
    match sign.as_ref() {
        "amp" => "&",
        "lt" => "<",
        "gt" => ">",
        "quot" => "\"",
        "apos" => "'",
        _ => "",
    }
    .to_owned()
}

/// Where the reading of an OpenDocument sheet stands.
#[derive(Default)]
struct OdsCell {
    row: usize,
    rows: usize,
    column: usize,
    columns: usize,
    value: Option<f64>,
    words: String,
    inside: bool,
    /// Cells of the row that have something in them.
    filled: Vec<(usize, String)>,
}

impl OdsCell {
    fn begin(&mut self, start: &BytesStart<'_>) -> Result<(), String> {
        let attribute = |name: &str| -> Result<Option<String>, String> {
            for a in start.attributes() {
                let a = a.map_err(unreadable)?;
                if a.key.local_name().as_ref() == name {
                    return Ok(Some(a.value.into_owned()));
                }
            }
            Ok(None)
        };
        let times = |name: &str| -> Result<usize, String> {
            Ok(attribute(name)?.and_then(|v| v.parse().ok()).unwrap_or(1).clamp(1, 1 << 30))
        };
        match start.local_name().as_ref() {
            "table-row" => {
                (self.column, self.rows) = (0, times("number-rows-repeated")?);
                self.filled.clear();
            }
            "table-cell" | "covered-table-cell" => {
                self.columns = times("number-columns-repeated")?;
                let number = attribute("value-type")?.is_some_and(|t| matches!(t.as_str(), "float" | "percentage"));
                self.value = if number { attribute("value")?.and_then(|v| v.parse().ok()) } else { None };
                self.words.clear();
                self.inside = true;
            }
            "p" if !self.words.is_empty() => self.words.push(' '),
            "s" => self.words.push(' '),
            _ => {}
        }
        Ok(())
    }

    fn text(&mut self, text: &str) {
        if self.inside {
            self.words.push_str(text);
        }
    }

    fn end(&mut self, name: &str, sheet: &mut Lines) -> Result<(), String> {
        match name {
            "table-cell" | "covered-table-cell" => {
                let text = self.value.map_or_else(|| std::mem::take(&mut self.words), figure);
                if !text.trim().is_empty() {
                    for column in self.column..(self.column + self.columns).min(MOST_COLUMNS + 1) {
                        self.filled.push((column, text.clone()));
                    }
                }
                self.column += self.columns;
                (self.inside, self.value) = (false, None);
            }
            "table-row" => {
                if !self.filled.is_empty() {
                    for row in self.row..(self.row + self.rows).min(MOST_LINES + 1) {
                        for (column, text) in &self.filled {
                            sheet.put(row, *column, text.clone())?;
                        }
                    }
                }
                self.row += self.rows;
            }
            _ => {}
        }
        Ok(())
    }
}
