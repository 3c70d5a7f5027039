//! Pre-cuts of one's own, whose names are read wherever it is said what there is.

use super::App;
use super::cut_list::system_of;
use super::problem::{ApiError, ApiErrorBody, At, Body};
use crate::work::{A_REQUEST, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::cloth::{MOST_OWN_CUTS, OwnCut, in_sizes};
use bofta_core::name;
use bofta_store::StoredOwnCut;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A pre-cut of one's own.
#[derive(Debug, Serialize, ToSchema)]
pub struct OwnCutView {
    pub name: String,
    /// Along the selvedge and across.
    pub size: String,
    /// Why it cannot be read; then its name is not either.
    pub unreadable: Option<String>,
}

/// A pre-cut of one's own, as typed.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewOwnCut {
    pub name: String,
    /// Along the selvedge and across: `6 x 6`.
    pub size: String,
    /// `in` or `cm`: what bare figures are.
    pub system: String,
}

/// What is said, sizes in the place of the house's own names of pre-cuts.
pub(super) fn said_in_sizes(work: &Work, said: &str) -> Result<String, ApiError> {
    Ok(in_sizes(said, &own(work)?))
}

/// All that are kept and can be read; one that cannot says so in their list, and its name is not understood.
pub(super) fn own(work: &Work) -> Result<Vec<OwnCut>, ApiError> {
    let all = work.store.own_cuts().map_err(|e| ApiError::from_store(work, e))?;
    Ok(all.into_iter().filter_map(|(_, cut)| cut.ok()).collect())
}

fn views(work: &Work) -> Result<Json<Vec<OwnCutView>>, ApiError> {
    let view = |(key, cut): StoredOwnCut| match cut {
        Ok(cut) => OwnCutView { size: cut.size(), name: cut.name, unreadable: None },
        Err(why) => OwnCutView { size: String::new(), name: key, unreadable: Some(why.to_string()) },
    };
    let all = work.store.own_cuts().map_err(|e| ApiError::from_store(work, e))?;
    Ok(Json(all.into_iter().map(view).collect()))
}

/// Pre-cuts of one's own, by name.
#[utoipa::path(get, path = "/api/pre-cuts", responses((status = 200, body = [OwnCutView])))]
pub async fn own_cuts(State(app): State<App>) -> Result<Json<Vec<OwnCutView>>, ApiError> {
    app.blocking(A_REQUEST, views).await
}

/// Keeps a pre-cut of one's own, in the place of one of that name; gives all of them.
#[utoipa::path(post, path = "/api/pre-cuts", request_body = NewOwnCut,
    responses((status = 200, body = [OwnCutView]), (status = 422, body = ApiErrorBody)))]
pub async fn keep_own_cut(
    State(app): State<App>,
    Body(new): Body<NewOwnCut>,
) -> Result<Json<Vec<OwnCutView>>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let cut = OwnCut::read(&new.name, &new.size, system_of(&new.system)?).map_err(|p| ApiError::fields(vec![p]))?;
        if !work.store.keep_own_cut(&cut, MOST_OWN_CUTS).map_err(|e| ApiError::from_store(work, e))? {
            let message = format!("You can have at most {MOST_OWN_CUTS} pre-cuts of your own. Delete one first.");
            return Err(ApiError::field("name", &cut.name, message));
        }
        views(work)
    })
    .await
}

/// Forgets a pre-cut of one's own; what was said by its name stays as it is.
#[utoipa::path(delete, path = "/api/pre-cuts/{key}", params(("key" = String, Path)),
    responses((status = 204), (status = 404, body = ApiErrorBody)))]
pub async fn forget_own_cut(State(app): State<App>, At(key): At<String>) -> Result<StatusCode, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        if work.store.forget_own_cut(&key).map_err(|e| ApiError::from_store(work, e))? {
            return Ok(StatusCode::NO_CONTENT);
        }
        let message = format!("You have no pre-cut called “{}”.", name::clean(&key));
        Err(ApiError::new(StatusCode::NOT_FOUND, message))
    })
    .await
}
