//! The gate that every file from outside passes before anything in it is believed: what it may be, and how much of it.
//!
//! A file is what its content says, whatever it is called. The limits are those of `limits`. What gets through is read by [`read_file`], which
//! the server runs in a process of its own: readers of other people's formats can fail in ways no limit foresees.

use crate::cut_list::{Found, read_text};
pub use crate::file_kind::FileKind;
pub use crate::limits::*;
use crate::outlines::{DrawingError, read_dxf, read_svg};
use crate::spreadsheet;
use bofta_core::bag::MOST_ROWS;
use bofta_core::measure::{Length, System};
use bofta_core::name;
use serde::{Deserialize, Serialize};

/// The longest reason that is told, in letters.
const LONGEST_REASON: usize = 300;

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
        return Err(because("it is empty".into()));
    }
    if bytes.len() > MOST_BYTES {
        return Err(because(too_large(bytes.len(), MOST_BYTES)));
    }
    let Some(kind) = FileKind::of(bytes) else {
        return Err(because(
            "it is not a kind of file Bofta reads. Use text in UTF-8, CSV, XLSX, ODS, XLS, SVG or DXF".into(),
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
        return Err(because(format!("it has {} pieces. A list can have at most {MOST_ROWS}", found.rows.len())));
    }
    let ending = called.rsplit_once('.').map(|(_, ending)| ending.to_lowercase());
    if ending.is_some_and(|ending| !kind.ends(&ending)) {
        found.notes.push(format!("The file is {}, whatever its name says, so Bofta read it as that.", kind.name()));
    }
    Ok(found)
}

/// Reads a cut list from `text` that is not too much.
///
/// # Errors
/// What is too much of it.
pub fn checked_text(text: &str, system: System) -> Result<Found, String> {
    if text.len() > MOST_TEXT {
        return Err(format!("it has more than {} MB of text, too much for a cut list", MOST_TEXT >> 20));
    }
    let lines = text.lines().count();
    if lines > MOST_LINES {
        return Err(format!("it has {lines} lines. Bofta reads at most {MOST_LINES}"));
    }
    Ok(read_text(text, system))
}

/// Says that a file of so many bytes is too large.
pub fn too_large(bytes: usize, most: usize) -> String {
    format!("it is {} MB. Bofta reads at most {} MB", bytes.div_ceil(1 << 20), most >> 20)
}
