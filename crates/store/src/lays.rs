//! The best lay found for each job of a project, or why there is none.

use crate::schema::{cards, lays};
use crate::{Store, StoreError};
use bofta_core::lay::Lay;
use diesel::prelude::*;

/// Jobs whose lays are remembered per project, so that undo finds the lay of before.
const REMEMBERED: i64 = 40;

/// What is kept for a job.
#[derive(Clone, Debug, PartialEq)]
pub enum StoredLay {
    /// The best lay so far.
    Lay(Box<Lay>),
    /// The sentence that says why there is none.
    Failed(String),
}

impl Store {
    /// What is kept for a job.
    ///
    /// # Errors
    /// The database; a lay this version cannot read counts as none.
    pub fn lay(&self, project: &str, job_key: &str) -> Result<Option<StoredLay>, StoreError> {
        let found: Option<(String, Option<String>)> = lays::table
            .find((project, job_key))
            .select((lays::document, lays::failed))
            .first(&mut self.connect()?)
            .optional()?;
        Ok(found.and_then(|(document, failed)| match failed {
            Some(why) => Some(StoredLay::Failed(why)),
            None => serde_json::from_str(&document).ok().map(|lay| StoredLay::Lay(Box::new(lay))),
        }))
    }

    /// Keeps a lay for a job, in place of what was kept before. The card on the shelf that showed that is made anew.
    ///
    /// # Errors
    /// The database, as when there is no such project.
    pub fn keep_lay(&self, project: &str, job_key: &str, lay: &Lay) -> Result<(), StoreError> {
        self.keep(project, job_key, &serde_json::to_string(lay)?, None)
    }

    /// Keeps why there is no lay for a job.
    ///
    /// # Errors
    /// As [`Store::keep_lay`].
    pub fn keep_failure(&self, project: &str, job_key: &str, why: &str) -> Result<(), StoreError> {
        self.keep(project, job_key, "", Some(why))
    }

    fn keep(&self, project: &str, job_key: &str, document: &str, failed: Option<&str>) -> Result<(), StoreError> {
        let values = (
            lays::project_id.eq(project),
            lays::job_key.eq(job_key),
            lays::document.eq(document),
            lays::failed.eq(failed),
        );
        self.write(|c| {
            diesel::replace_into(lays::table).values(values).execute(c)?;
            let old: Vec<String> = lays::table
                .filter(lays::project_id.eq(project))
                .order(diesel::dsl::sql::<diesel::sql_types::BigInt>("rowid").desc())
                .offset(REMEMBERED)
                .limit(1_000)
                .select(lays::job_key)
                .load(c)?;
            diesel::delete(lays::table.filter(lays::project_id.eq(project)).filter(lays::job_key.eq_any(old)))
                .execute(c)?;
            diesel::delete(cards::table.find(project)).execute(c)?;
            Ok(())
        })
    }
}
