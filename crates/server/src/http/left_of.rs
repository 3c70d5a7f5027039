//! Cloth that another bag leaves, before that is cut or entered in the cupboard.

use super::App;
use super::claims::lay_of;
use super::left_over::{called, names_of};
use super::problem::{ApiError, ApiErrorBody, At, Body};
use crate::laying::Keep;
use crate::view::{Change, ProjectView};
use crate::work::{SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::cloth::tell_all;
use bofta_core::ledger::OfBag;
use bofta_core::project::{LeftOver, Project, left_as_planned};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What another bag leaves of its cloths.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeftByBag {
    /// Id of that bag.
    pub project: String,
    pub name: String,
    /// It is being cut already: what it leaves stays so.
    pub begun: bool,
    pub cloths: Vec<LeftToTake>,
}

/// What is left of one cloth, and can be taken into this bag.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeftToTake {
    pub name: String,
    /// What is worth keeping.
    pub kept: String,
    /// Id of the cloth of this bag that it is already.
    pub taken_as: Option<String>,
    /// That cloth is what is left still.
    pub same: bool,
}

/// What a bag leaves that is not in the cupboard yet; nothing of one that is not laid.
fn left_by(work: &Work, id: &str, project: &Project) -> Result<Vec<LeftOver>, ApiError> {
    let Some(lay) = lay_of(work, id, project)? else { return Ok(vec![]) };
    let Ok(mut left) = left_as_planned(project, &lay) else { return Ok(vec![]) };
    left.retain(|l| !l.kept.is_empty());
    let entered = called(work, &names_of(&left))?.iter().any(|c| c.is_cut_for(id));
    Ok(if entered { vec![] } else { left })
}

/// What the other bags on the shelf leave of their cloths as they are planned; what is in the cupboard already is taken
/// from there.
#[utoipa::path(get, path = "/api/projects/{id}/left-by-others", params(("id" = String, Path)),
    responses((status = 200, body = [LeftByBag]), (status = 404, body = ApiErrorBody), (status = 503, body = ApiErrorBody)))]
pub async fn left_by_others(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<LeftByBag>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let mine = work.project(&id)?.project;
        let mut found = vec![];
        for named in work.store.named().map_err(|e| ApiError::from_store(work, e))? {
            if work.stop().asked() {
                let message = "Bofta could not read all your bags in time. Try again, or put some in the drawer.";
                return Err(ApiError::new(StatusCode::SERVICE_UNAVAILABLE, message));
            }
            // One that cannot be read says so on the shelf.
            let Ok(kept) = work.store.project(&named.id) else { continue };
            if named.id == id {
                continue;
            }
            let told = |left: &LeftOver| {
                let taken = mine.taken_of(&named.id, left);
                LeftToTake {
                    name: left.cloth.name.clone(),
                    kept: tell_all(&left.kept, mine.ruler),
                    taken_as: taken.map(|(cloth, _)| cloth.id.clone()),
                    same: taken.is_some_and(|(_, same)| same),
                }
            };
            let cloths: Vec<LeftToTake> = left_by(work, &named.id, &kept.project)?.iter().map(told).collect();
            if !cloths.is_empty() {
                let begun = kept.project.steps_done > 0;
                found.push(LeftByBag { project: named.id, name: kept.project.name, begun, cloths });
            }
        }
        Ok(Json(found))
    })
    .await
}

/// What of which bag is taken into a project at which revision.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TakeLeft {
    pub based_on: i64,
    /// Id of the bag that leaves it.
    pub project: String,
    /// Of which of its cloths, by name.
    pub cloth: String,
}

/// Takes what another bag leaves of one of its cloths into a project, as that is planned now; taken again, it is put in the
/// place of what was taken before.
#[utoipa::path(post, path = "/api/projects/{id}/left-by-others", params(("id" = String, Path)), request_body = TakeLeft,
    responses((status = 200, body = ProjectView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody),
        (status = 422, body = ApiErrorBody)))]
pub async fn take_left(
    State(app): State<App>,
    At(id): At<String>,
    Body(take): Body<TakeLeft>,
) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let before = work.project(&id)?.project;
        if take.project == id {
            return Err(ApiError::field("project", &take.project, "A bag can’t be made from its own leftovers."));
        }
        let of = work.project(&take.project)?.project;
        let left = left_by(work, &take.project, &of)?;
        let Some(left) = left.iter().find(|l| l.cloth.name == take.cloth) else {
            let message = format!("Everything {} leaves of “{}” is in the cupboard already.", of.name, take.cloth);
            return Err(ApiError::field("cloth", &take.cloth, message));
        };
        let bag = OfBag { project: take.project.clone(), name: of.name.clone() };
        let (next, label) = before.with_left_of(&bag, left).map_err(ApiError::fields)?;
        let changed = work.store.change(&id, take.based_on, &label, &next);
        let kept = changed.map_err(|e| ApiError::from_store(work, e))?;
        work.view(&kept, Some(Change { before: &before, edits: &[] }), Keep::Yes)
    })
    .await
}
