//! Pictures of cloths. The key of one is made of what it shows, so one that is kept is never another.

use crate::schema::pictures;
use crate::{Store, StoreError, now};
use diesel::prelude::*;
use diesel::sql_types::{BigInt, Text};

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
        const UNUSED_SINCE: &str = "kept_at < ? \
            AND NOT EXISTS (SELECT 1 FROM states WHERE instr(states.document, pictures.key)) \
            AND NOT EXISTS (SELECT 1 FROM cloths WHERE instr(cloths.document, pictures.key))";
        // Every document is looked through for every picture: while that is done, others may write.
        let found: Vec<Unused> = diesel::sql_query(format!("SELECT key FROM pictures WHERE {UNUSED_SINCE}"))
            .bind::<BigInt, _>(now() - UNUSED)
            .load(&mut self.connect()?)?;
        let mut dropped = 0;
        for Unused { key } in found {
            let query = format!("DELETE FROM pictures WHERE key = ? AND {UNUSED_SINCE}");
            let gone = |c: &mut diesel::SqliteConnection| {
                let of = diesel::sql_query(query.as_str()).bind::<Text, _>(&key);
                Ok(of.bind::<BigInt, _>(now() - UNUSED).execute(c)?)
            };
            dropped += self.write(gone)?;
        }
        Ok(dropped)
    }
}

/// A picture nothing has.
#[derive(QueryableByName)]
struct Unused {
    #[diesel(sql_type = Text)]
    key: String,
}
