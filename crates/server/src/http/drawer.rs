//! The drawer: projects and cloths put away, to be put back or thrown away for good.

use super::App;
use super::problem::{ApiError, ApiErrorBody, At};
use crate::work::{A_REQUEST, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
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

/// Throws a project in the drawer away for good.
#[utoipa::path(delete, path = "/api/drawer/projects/{id}", params(("id" = String, Path)),
    responses((status = 204), (status = 404, body = ApiErrorBody)))]
pub async fn throw_project_away(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    done(app, move |work| work.store.throw_away(&id)).await
}

/// Throws a cloth in the drawer away for good.
#[utoipa::path(delete, path = "/api/drawer/cloths/{id}", params(("id" = String, Path)), responses((status = 204)))]
pub async fn throw_cloth_away(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    done(app, move |work| work.store.throw_cloth_away(&id)).await
}
