//! Prints of cloths as they are kept: under a key made of what is seen, with their two colours in words of a look.

use bofta_core::project::Swatch;
use bofta_picture::Print;
use bofta_store::{Store, StoreError};
use sha2::{Digest as _, Sha256};

/// A print that is kept.
pub struct Kept {
    /// The key of its picture.
    pub key: String,
    /// Its ground, `#rrggbb`.
    pub ground: String,
    /// Its figures.
    pub figure: String,
}

/// Keeps the picture of a print.
///
/// # Errors
/// The database.
pub fn keep_print(store: &Store, print: &Print) -> Result<Kept, StoreError> {
    let key: String = Sha256::digest(&print.jpeg).iter().take(Swatch::KEY / 2).map(|b| format!("{b:02x}")).collect();
    store.keep_picture(&key, &print.jpeg)?;
    let hex = |[r, g, b]: [u8; 3]| format!("#{r:02x}{g:02x}{b:02x}");
    Ok(Kept { key, ground: hex(print.ground), figure: hex(print.figure) })
}
