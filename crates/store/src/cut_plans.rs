//! The plan that is being cut, beside the states of its project: while one cuts, every state shares one.

use crate::StoreError;
use crate::schema::{cut_plans, states};
use bofta_core::project::kept::{read_cut_plan, write_cut_plan};
use bofta_core::project::{CutPlan, Project};
use diesel::prelude::*;
use std::sync::Arc;

/// The plan kept as `plan` of the project `id`.
pub(crate) fn cut_plan(c: &mut SqliteConnection, id: &str, plan: i64) -> Result<Arc<CutPlan>, StoreError> {
    let found: Option<String> = cut_plans::table.find(plan).select(cut_plans::document).first(c).optional()?;
    let document = found.unwrap_or_default();
    read_cut_plan(&document).map(Arc::new).map_err(StoreError::unreadable(id))
}

/// Keeps the plan that `project` is cut by, if it is being cut: that of the state at `position` when it is the same.
pub(crate) fn keep_cut_plan(
    c: &mut SqliteConnection,
    id: &str,
    position: Option<i64>,
    project: &Project,
) -> Result<Option<i64>, StoreError> {
    let Some(plan) = &project.cutting else { return Ok(None) };
    let document = write_cut_plan(plan).map_err(StoreError::unreadable(id))?;
    let here: Option<Option<i64>> =
        states::table.find((id, position.unwrap_or(-1))).select(states::cut_plan).first(c).optional()?;
    if let Some(here) = here.flatten() {
        let same = cut_plans::table.find(here).filter(cut_plans::document.eq(&document));
        if same.count().get_result::<i64>(c)? == 1 {
            return Ok(Some(here));
        }
    }
    let values = (cut_plans::project_id.eq(id), cut_plans::document.eq(&document));
    diesel::insert_into(cut_plans::table).values(values).execute(c)?;
    Ok(cut_plans::table.filter(cut_plans::project_id.eq(id)).select(diesel::dsl::max(cut_plans::id)).first(c)?)
}

/// Takes out plans of the project `id` that no state of it is cut by any more.
pub(crate) fn forget_unused(c: &mut SqliteConnection, id: &str) -> Result<(), StoreError> {
    let used: Vec<Option<i64>> =
        states::table.filter(states::project_id.eq(id)).select(states::cut_plan).distinct().load(c)?;
    let used: Vec<i64> = used.into_iter().flatten().collect();
    diesel::delete(cut_plans::table.filter(cut_plans::project_id.eq(id)).filter(cut_plans::id.ne_all(used)))
        .execute(c)?;
    Ok(())
}
