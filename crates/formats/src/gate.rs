//! The gate that every file from outside passes before anything in it is believed: what it may be, and how much of it.
//!
//! A file is what its content says, whatever it is called. Each limit is named here and nowhere else; the sentences that
//! refuse a file are made from them, and docs/formats.md lists them. What gets through is read by [`read_file`], which
//! the server runs in a process of its own: readers of other people's formats can fail in ways no limit foresees.

use crate::cut_list::{Found, read_text};
use crate::outlines::{DrawingError, read_dxf, read_svg};
use crate::spreadsheet;
use bofta_core::bag::MOST_ROWS;
use bofta_core::measure::{Length, System};
use bofta_core::name;
use serde::{Deserialize, Serialize};
use std::io::Read;
use std::panic::{AssertUnwindSafe, catch_unwind};

/// The largest file, in bytes.
pub const MOST_BYTES: usize = 20 << 20;
/// The largest text, in bytes: pasted, or a file of lines.
pub const MOST_TEXT: usize = 1 << 20;
/// The most lines of a text, and rows of a sheet.
pub const MOST_LINES: usize = 5_000;
/// The longest line that is looked at, in letters.
pub const LONGEST_LINE: usize = 1_000;
/// The most columns of a sheet.
pub const MOST_COLUMNS: usize = 64;
/// The most a packed file may unfold to, in bytes.
pub const MOST_INFLATED: u64 = 64 << 20;
/// How deep elements of a drawing may lie in each other, and how many there may be.
pub const MOST_NESTING: usize = 100;
/// The most elements of a drawing.
pub const MOST_ELEMENTS: usize = 50_000;
/// The most closed outlines of a drawing.
pub const MOST_OUTLINES: usize = 400;
/// The most corners of all outlines of a drawing together, curves followed.
pub const MOST_CORNERS: usize = 100_000;
/// What the process that reads a file may take: memory in bytes, and time in seconds.
pub const READER_MEMORY: u64 = 512 << 20;
/// As above: seconds.
pub const READER_SECONDS: u64 = 8;

/// The longest reason that is told, in letters.
const LONGEST_REASON: usize = 300;

/// What a file is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum FileKind {
    /// Lines of text, or cells with commas, semicolons or tabs between them.
    Text,
    /// A spreadsheet of Office Open XML (ECMA-376).
    Xlsx,
    /// An OpenDocument spreadsheet (ISO/IEC 26300).
    Ods,
    /// A spreadsheet in the older binary form.
    Xls,
    /// Scalable Vector Graphics, packed or not.
    Svg,
    /// A drawing exchange file.
    Dxf,
}

impl FileKind {
    /// What it is called.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Text => "text",
            Self::Xlsx => "an XLSX workbook",
            Self::Ods => "an ODS spreadsheet",
            Self::Xls => "an XLS workbook",
            Self::Svg => "an SVG drawing",
            Self::Dxf => "a DXF drawing",
        }
    }

    /// Whether files of this kind end so.
    fn ends(self, ending: &str) -> bool {
        match self {
            Self::Text => matches!(ending, "txt" | "csv" | "tsv" | "md" | "list" | "text"),
            Self::Xlsx => matches!(ending, "xlsx" | "xlsm"),
            Self::Ods => ending == "ods",
            Self::Xls => ending == "xls",
            Self::Svg => matches!(ending, "svg" | "svgz"),
            Self::Dxf => ending == "dxf",
        }
    }

    /// What `bytes` are, by their content; nothing when they are none of these.
    pub fn of(bytes: &[u8]) -> Option<Self> {
        const COMPOUND: &[u8] = b"\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1";
        if bytes.starts_with(b"PK") {
            let has = |name: &[u8]| bytes.windows(name.len()).any(|w| w == name);
            return if has(b"application/vnd.oasis.opendocument.spreadsheet") {
                Some(Self::Ods)
            } else if has(b"xl/workbook") || has(b"[Content_Types].xml") {
                Some(Self::Xlsx)
            } else {
                None
            };
        }
        if bytes.starts_with(COMPOUND) {
            return Some(Self::Xls);
        }
        if bytes.starts_with(b"\x1F\x8B") {
            return Some(Self::Svg);
        }
        if bytes.starts_with(b"AutoCAD Binary DXF") {
            return Some(Self::Dxf);
        }
        let text = std::str::from_utf8(bytes).ok().map(|t| t.trim_start_matches('\u{feff}').trim_start());
        match text {
            Some(text) if text.starts_with('<') => text.contains("<svg").then_some(Self::Svg),
            Some(text) if is_dxf(text) => Some(Self::Dxf),
            Some(text) if !text.contains('\0') => Some(Self::Text),
            Some(_) => None,
            // Older drawings are written in code pages.
            None => is_dxf(&String::from_utf8_lossy(&bytes[..bytes.len().min(4096)])).then_some(Self::Dxf),
        }
    }
}

/// A drawing exchange file begins with a group code on one line and its value on the next: a comment, or a section.
fn is_dxf(text: &str) -> bool {
    let mut lines = text.lines().map(str::trim);
    match (lines.next(), lines.next()) {
        (Some("999"), _) => true,
        (Some("0"), Some(value)) => value.eq_ignore_ascii_case("SECTION"),
        _ => false,
    }
}

/// Why a file is not taken.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Refused {
    /// A sentence: what was wrong and what is allowed.
    Because(String),
    /// A drawing that does not say what unit it is drawn in.
    NoUnit(String),
}

/// What was read from a file, or why it was not.
pub type FileRead = Result<Found, Refused>;

/// Reads a cut list or the outlines of pieces from a file's `bytes`. A number without a unit is in `system`'s; `unit`
/// is what a drawing is drawn in that does not say.
///
/// # Errors
/// [`Refused`]: a sentence that names the file.
pub fn read_file(bytes: &[u8], called: &str, system: System, unit: Option<Length>) -> FileRead {
    let called = match name::clean(called) {
        name if name.is_empty() => "The file".to_owned(),
        name => name,
    };
    // What a reader says may quote half the file; what follows is left out and marked.
    let because = |why: String| match why.char_indices().nth(LONGEST_REASON) {
        Some((end, _)) => Refused::Because(format!("{called}: {} … and so on.", &why[..end])),
        None => Refused::Because(format!("{called}: {why}.")),
    };
    if bytes.is_empty() {
        return Err(because("there is nothing in it".into()));
    }
    if bytes.len() > MOST_BYTES {
        return Err(because(too_large(bytes.len())));
    }
    let Some(kind) = FileKind::of(bytes) else {
        return Err(because(
            "it is not a kind of file that is read: text in UTF-8, CSV, XLSX, ODS, XLS, SVG or DXF".into(),
        ));
    };
    let drawing = |e: DrawingError| match e {
        DrawingError::NoUnit => Refused::NoUnit(format!("{called}: {e}.")),
        other => because(other.to_string()),
    };
    let outlines = |read: Result<crate::outlines::Outlines, DrawingError>| {
        read.map(|found| Found { rows: found.rows, notes: found.left_out, ..Found::default() }).map_err(drawing)
    };
    let mut found = match kind {
        FileKind::Text => {
            // Of this kind because it is text.
            let text = std::str::from_utf8(bytes).unwrap_or_default().trim_start_matches('\u{feff}');
            checked_text(text, system).map_err(because)?
        }
        FileKind::Xlsx | FileKind::Ods | FileKind::Xls => {
            read_text(&spreadsheet::as_text(bytes, kind).map_err(because)?, system)
        }
        // Without another scale a user unit of an SVG is a pixel of 1/96 in.
        FileKind::Svg => outlines(read_svg(bytes, unit.map_or(96.0, |u| Length::INCH.0 as f64 / u.0 as f64)))?,
        FileKind::Dxf => outlines(read_dxf(bytes, unit))?,
    };
    if found.rows.len() > MOST_ROWS {
        return Err(because(format!("it gives {} pieces: at most {MOST_ROWS} make one list", found.rows.len())));
    }
    let ending = called.rsplit_once('.').map(|(_, ending)| ending.to_lowercase());
    if ending.is_some_and(|ending| !kind.ends(&ending)) {
        found.notes.push(format!("Whatever its name says, the file is {}: it was read as that.", kind.name()));
    }
    Ok(found)
}

/// Reads a cut list from `text` that is not too much.
///
/// # Errors
/// What is too much of it.
pub fn checked_text(text: &str, system: System) -> Result<Found, String> {
    if text.len() > MOST_TEXT {
        return Err(format!("it is over {} MB of text: that is no cut list", MOST_TEXT >> 20));
    }
    let lines = text.lines().count();
    if lines > MOST_LINES {
        return Err(format!("it has {lines} lines: at most {MOST_LINES} are read"));
    }
    Ok(read_text(text, system))
}

/// Says that a file of so many bytes is too large.
pub fn too_large(bytes: usize) -> String {
    format!("it is {} MB large: at most {} MB are read", bytes.div_ceil(1 << 20), MOST_BYTES >> 20)
}

/// Runs a reader of somebody else's: what it panics on is a sentence.
pub(crate) fn guarded<T>(read: impl FnOnce() -> Result<T, String>) -> Result<T, String> {
    catch_unwind(AssertUnwindSafe(read))
        .unwrap_or_else(|_| Err("it is damaged: its reader came to grief over it".into()))
}

/// All of `packed`, unless that is more than [`MOST_INFLATED`].
pub(crate) fn inflated(packed: impl Read) -> Result<Vec<u8>, String> {
    let mut bytes = Vec::new();
    packed.take(MOST_INFLATED + 1).read_to_end(&mut bytes).map_err(|e| format!("it cannot be unpacked: {e}"))?;
    if bytes.len() as u64 > MOST_INFLATED {
        return Err(format!("it unfolds to more than {} MB: that is no cut list", MOST_INFLATED >> 20));
    }
    Ok(bytes)
}
