//! The drawer: projects and cloths put away, to be put back or thrown away for good.

use super::App;
use super::cupboard::not_entered;
use super::ledger::now;
use super::left_over::of_bag;
use super::problem::{ApiError, ApiErrorBody, At};
use crate::work::{A_REQUEST, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::ledger::OfBag;
use bofta_core::notions::{Amount, Entry, Why};
use bofta_core::project::put_all_back;
use bofta_store::{PutAway, StoreError};
use serde::Serialize;
use utoipa::ToSchema;

/// Something in the drawer.
#[derive(Debug, Serialize, ToSchema)]
pub struct PutAwayView {
    pub id: String,
    pub name: String,
    /// Milliseconds since 1970.
    pub put_away_at: i64,
}

impl From<PutAway> for PutAwayView {
    fn from(away: PutAway) -> Self {
        let name = if away.name.is_empty() { away.id.clone() } else { away.name };
        Self { id: away.id, name, put_away_at: away.at }
    }
}

/// What is in the drawer, the newest first.
#[derive(Debug, Serialize, ToSchema)]
pub struct DrawerView {
    pub projects: Vec<PutAwayView>,
    pub cloths: Vec<PutAwayView>,
}

/// What is in the drawer.
#[utoipa::path(get, path = "/api/drawer", responses((status = 200, body = DrawerView)))]
pub async fn drawer(State(app): State<App>) -> Result<Json<DrawerView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let projects = work.store.projects_in_the_drawer().map_err(from_store)?;
        let cloths = work.store.cloths_in_the_drawer().map_err(from_store)?;
        let view = |all: Vec<PutAway>| all.into_iter().map(PutAwayView::from).collect();
        Ok(Json(DrawerView { projects: view(projects), cloths: view(cloths) }))
    })
    .await
}

async fn done(
    app: App,
    what: impl FnOnce(&Work) -> Result<(), StoreError> + Send + 'static,
) -> Result<StatusCode, ApiError> {
    app.blocking(A_REQUEST, move |work| what(work).map_err(|e| ApiError::from_store(work, e))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Puts a project back on the shelf.
#[utoipa::path(post, path = "/api/projects/{id}/restore", params(("id" = String, Path)),
    responses((status = 204), (status = 404, body = ApiErrorBody)))]
pub async fn restore_project(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    done(app, move |work| work.store.restore(&id)).await
}

/// Puts a cloth back into the cupboard.
#[utoipa::path(post, path = "/api/cupboard/{id}/restore", params(("id" = String, Path)), responses((status = 204)))]
pub async fn restore_cloth(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    done(app, move |work| work.store.restore_cloth(&id)).await
}

/// Deletes a project in the drawer for good. What is set aside for it goes back to the cupboard first.
#[utoipa::path(delete, path = "/api/drawer/projects/{id}", params(("id" = String, Path)),
    responses((status = 200, body = PutBackView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn throw_project_away(State(app): State<App>, At(id): At<String>) -> Result<Json<PutBackView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let put_back = return_all(work, &id)?;
        work.store.throw_away(&id).map_err(from_store)?;
        Ok(Json(PutBackView { put_back }))
    })
    .await
}

/// Returns to the cupboard what is set aside for the project `id`: nobody else could use it once that is gone.
fn return_all(work: &Work, id: &str) -> Result<Vec<String>, ApiError> {
    let from_store = |e| ApiError::from_store(work, e);
    let waiting = work.store.projects_in_the_drawer().map_err(from_store)?;
    let Some(name) = waiting.into_iter().find(|p| p.id == id).map(|p| p.name) else { return Ok(vec![]) };
    let bag = OfBag { project: id.to_owned(), name };
    let mut put_back = vec![];
    let cloths = work.store.change_cloths(of_bag(id, &[], &[]), |known| {
        let (next, back) = put_all_back(known, &bag, now())?;
        put_back = back;
        Ok(next)
    });
    let _cloths = cloths.map_err(from_store)?.map_err(not_entered)?;
    for notion in work.store.notions_of_bag(id).map_err(from_store)? {
        let mut back = None;
        let recorded = work.store.record(&notion, |ledger| {
            let with = ledger.entries.with_bag(id);
            if with.is_none() {
                return Ok(ledger);
            }
            back = Some(format!("{}: {}", ledger.notion.label(), with.tell(&ledger.notion)));
            let why = Why::PutBack { bag: bag.clone() };
            ledger.with(Entry { at: now(), why, came: with, went: Amount::default() })
        });
        if let Some(Err(problem)) = recorded.map_err(from_store)? {
            return Err(ApiError::fields(vec![problem]));
        }
        put_back.extend(back);
    }
    Ok(put_back)
}

/// What came back to the cupboard.
#[derive(Debug, Serialize, ToSchema)]
pub struct PutBackView {
    /// Cloth and notions that were set aside for the project, a line each.
    pub put_back: Vec<String>,
}

/// Throws a cloth in the drawer away for good.
#[utoipa::path(delete, path = "/api/drawer/cloths/{id}", params(("id" = String, Path)), responses((status = 204)))]
pub async fn throw_cloth_away(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    done(app, move |work| work.store.throw_cloth_away(&id)).await
}
