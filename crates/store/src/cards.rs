//! The shelf's cards, kept so that a look at the shelf lays nothing.

use crate::schema::{cards, projects};
use crate::{Store, StoreError};
use diesel::prelude::*;

impl Store {
    /// The cards kept of the projects with these `ids`, as (id, document): those only that are of the project's present
    /// revision and were made by `program`.
    ///
    /// # Errors
    /// The database.
    pub fn cards(&self, ids: &[String], program: &str) -> Result<Vec<(String, String)>, StoreError> {
        Ok(cards::table
            .inner_join(projects::table)
            .filter(cards::project_id.eq_any(ids))
            .filter(cards::revision.eq(projects::revision))
            .filter(cards::program.eq(program))
            .select((cards::project_id, cards::document))
            .load(&mut self.connect()?)?)
    }

    /// Keeps the card of a project at `revision`, made by `program`.
    ///
    /// # Errors
    /// The database.
    pub fn keep_card(&self, id: &str, revision: i64, program: &str, document: &str) -> Result<(), StoreError> {
        let values = (
            cards::project_id.eq(id),
            cards::revision.eq(revision),
            cards::program.eq(program),
            cards::document.eq(document),
        );
        self.write(|c| {
            diesel::replace_into(cards::table).values(values).execute(c)?;
            Ok(())
        })
    }
}
