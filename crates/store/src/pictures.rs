//! Pictures of cloths. The key of one is made of what it shows, so one that is kept is never another.

use crate::schema::pictures;
use crate::{Store, StoreError, now};
use diesel::prelude::*;
use diesel::sql_types::BigInt;

/// What is sent and not used is kept so long, in milliseconds: a day.
const UNUSED: i64 = 24 * 60 * 60 * 1_000;

impl Store {
    /// Keeps a picture under `key`.
    ///
    /// # Errors
    /// The database.
    pub fn keep_picture(&self, key: &str, jpeg: &[u8]) -> Result<(), StoreError> {
        let values = (pictures::key.eq(key), pictures::jpeg.eq(jpeg), pictures::kept_at.eq(now()));
        self.write(|c| {
            diesel::replace_into(pictures::table).values(values).execute(c)?;
            Ok(())
        })
    }

    /// The picture with this key, if there is one.
    ///
    /// # Errors
    /// The database.
    pub fn picture(&self, key: &str) -> Result<Option<Vec<u8>>, StoreError> {
        Ok(pictures::table.find(key).select(pictures::jpeg).first(&mut self.connect()?).optional()?)
    }

    /// Lets go of pictures that no cloth has, in no state that undo could bring back, a day after they were sent; says how
    /// many.
    ///
    /// # Errors
    /// The database.
    pub fn drop_unused_pictures(&self) -> Result<usize, StoreError> {
        const UNUSED_SINCE: &str = "DELETE FROM pictures WHERE kept_at < ? \
            AND NOT EXISTS (SELECT 1 FROM states WHERE instr(states.document, pictures.key)) \
            AND NOT EXISTS (SELECT 1 FROM cloths WHERE instr(cloths.document, pictures.key))";
        self.write(|c| Ok(diesel::sql_query(UNUSED_SINCE).bind::<BigInt, _>(now() - UNUSED).execute(c)?))
    }
}
