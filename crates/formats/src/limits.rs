//! How much of a file from outside is read. Each limit is named here and nowhere else; the sentences that refuse a file
//! are made from them, and docs/formats.md lists them.

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

/// Runs a reader of somebody else's: what it panics on is a sentence.
pub(crate) fn guarded<T>(read: impl FnOnce() -> Result<T, String>) -> Result<T, String> {
    catch_unwind(AssertUnwindSafe(read)).unwrap_or_else(|_| Err("it is damaged and can’t be read".into()))
}

/// All of `packed`, unless that is more than [`MOST_INFLATED`].
pub(crate) fn inflated(packed: impl Read) -> Result<Vec<u8>, String> {
    let mut bytes = Vec::new();
    packed.take(MOST_INFLATED + 1).read_to_end(&mut bytes).map_err(|e| format!("it cannot be unpacked: {e}"))?;
    if bytes.len() as u64 > MOST_INFLATED {
        return Err(format!("it unpacks to more than {} MB, too much for a cut list", MOST_INFLATED >> 20));
    }
    Ok(bytes)
}
