//! The best lay found for each job of a project.

use crate::schema::lays;
use crate::{Store, StoreError};
use bofta_core::lay::Lay;
use diesel::prelude::*;

/// Jobs whose lays are remembered per project, so that undo finds the lay of before.
const REMEMBERED: i64 = 40;

impl Store {
    /// The lay kept for a job.
    ///
    /// # Errors
    /// The database; a lay this version cannot read counts as none.
    pub fn lay(&self, project: &str, job_key: &str) -> Result<Option<Lay>, StoreError> {
        let found: Option<String> =
            lays::table.find((project, job_key)).select(lays::document).first(&mut self.connect()?).optional()?;
        Ok(found.and_then(|document| serde_json::from_str(&document).ok()))
    }

    /// Keeps a lay for a job, in place of the one before.
    ///
    /// # Errors
    /// The database, as when there is no such project.
    pub fn keep_lay(&self, project: &str, job_key: &str, lay: &Lay) -> Result<(), StoreError> {
        let document = serde_json::to_string(lay)?;
        self.write(|c| {
            diesel::replace_into(lays::table)
                .values((lays::project_id.eq(project), lays::job_key.eq(job_key), lays::document.eq(document)))
                .execute(c)?;
            let old: Vec<String> = lays::table
                .filter(lays::project_id.eq(project))
                .order(diesel::dsl::sql::<diesel::sql_types::BigInt>("rowid").desc())
                .offset(REMEMBERED)
                .limit(1_000)
                .select(lays::job_key)
                .load(c)?;
            diesel::delete(lays::table.filter(lays::project_id.eq(project)).filter(lays::job_key.eq_any(old)))
                .execute(c)?;
            Ok(())
        })
    }
}
