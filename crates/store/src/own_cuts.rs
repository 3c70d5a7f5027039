//! Pre-cuts of one's own.

use crate::schema::own_cuts;
use crate::{Store, StoreError};
use bofta_core::cloth::OwnCut;
use bofta_core::project::kept::{read_own_cut, write_own_cut};
use diesel::prelude::*;

/// A pre-cut under its key, or why it cannot be read.
pub type StoredOwnCut = (String, Result<OwnCut, StoreError>);

impl Store {
    /// Every one, by name; one that cannot be read is an error of its own.
    ///
    /// # Errors
    /// The database.
    pub fn own_cuts(&self) -> Result<Vec<StoredOwnCut>, StoreError> {
        let rows: Vec<(String, String)> = own_cuts::table
            .order(own_cuts::key.asc())
            .select((own_cuts::key, own_cuts::document))
            .load(&mut self.connect()?)?;
        let read = |(key, text): (String, String)| {
            let cut = read_own_cut(&text).map_err(StoreError::unreadable(&key));
            (key, cut)
        };
        Ok(rows.into_iter().map(read).collect())
    }

    /// Keeps one, in place of one of the same name, where there are fewer than `most` others; whether there was room.
    ///
    /// # Errors
    /// The database; one that cannot be written.
    pub fn keep_own_cut(&self, cut: &OwnCut, most: usize) -> Result<bool, StoreError> {
        let key = cut.name.to_lowercase();
        let document = write_own_cut(cut).map_err(StoreError::unreadable(&key))?;
        self.write(|c| {
            let others: i64 = own_cuts::table.filter(own_cuts::key.ne(&key)).count().get_result(c)?;
            if others >= most as i64 {
                return Ok(false);
            }
            let values = (own_cuts::key.eq(&key), own_cuts::document.eq(&document));
            diesel::replace_into(own_cuts::table).values(values).execute(c)?;
            Ok(true)
        })
    }

    /// Forgets the one called `name`; whether there was one.
    ///
    /// # Errors
    /// The database.
    pub fn forget_own_cut(&self, name: &str) -> Result<bool, StoreError> {
        self.write(|c| Ok(diesel::delete(own_cuts::table.find(name.to_lowercase())).execute(c)? > 0))
    }
}
