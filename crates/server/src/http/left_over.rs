//! What a bag leaves of its cloths, put into the cupboard when all of it is cut, and taken out again.

use super::App;
use super::cupboard::free_id;
use super::problem::{ApiError, ApiErrorBody, At};
use crate::work::{A_REQUEST, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::cloth::tell_all;
use bofta_core::project::{LeftOver, Project, ProjectCloth, TakenSince, entries, left_over};
use serde::Serialize;
use utoipa::ToSchema;

/// What is left of the cloths of a project.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeftOverView {
    pub cloths: Vec<LeftOfCloth>,
    /// It is in the cupboard.
    pub in_cupboard: bool,
}

/// What is left of one cloth.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeftOfCloth {
    pub name: String,
    /// What was cut into of what was there; empty where all of it was bought.
    pub used: String,
    /// What is worth keeping; empty where nothing is.
    pub kept: String,
}

/// What the plan being cut leaves of every cloth; nothing before the first cut.
#[utoipa::path(get, path = "/api/projects/{id}/left-over", params(("id" = String, Path)),
    responses((status = 200, body = LeftOverView), (status = 404, body = ApiErrorBody)))]
pub async fn show(State(app): State<App>, At(id): At<String>) -> Result<Json<LeftOverView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let project = work.project(&id)?.project;
        view(work, &id, &project).map(Json)
    })
    .await
}

fn view(work: &Work, id: &str, project: &Project) -> Result<LeftOverView, ApiError> {
    let left = left_over(project);
    let in_cupboard = accounts(work, &left)?.iter().any(|c| c.cut.iter().any(|b| b.project == id));
    let ruler = project.ruler;
    let told = |one: &LeftOver| LeftOfCloth {
        name: one.cloth.name.clone(),
        used: tell_all(&one.used, ruler),
        kept: tell_all(&one.kept, ruler),
    };
    Ok(LeftOverView { cloths: left.iter().map(told).collect(), in_cupboard })
}

/// The cloths of the cupboard with one of these names.
fn called(work: &Work, names: &[&str]) -> Result<Vec<ProjectCloth>, ApiError> {
    let from_store = |e| ApiError::from_store(work, e);
    let all = work.store.cloth_names().map_err(from_store)?;
    let mut found = vec![];
    for (id, _) in all.into_iter().filter(|(_, name)| names.contains(&name.as_str())) {
        found.extend(work.store.cloth(&id).map_err(from_store)?);
    }
    Ok(found)
}

/// Those that an account of `left` may stand on.
fn accounts(work: &Work, left: &[LeftOver]) -> Result<Vec<ProjectCloth>, ApiError> {
    let names: Vec<&str> = left.iter().flat_map(|l| [l.cut_from.as_str(), l.cloth.name.as_str()]).collect();
    called(work, &names)
}

/// Enters it in the cupboard: what was cut into is gone, what is left comes back as remnants. Entered again, the entry
/// before is taken back first.
#[utoipa::path(post, path = "/api/projects/{id}/left-over", params(("id" = String, Path)),
    responses((status = 200, body = LeftOverView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn put_back(State(app): State<App>, At(id): At<String>) -> Result<Json<LeftOverView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let project = work.project(&id)?.project;
        let steps = project.cutting.as_ref().map_or(0, |plan| plan.steps().len());
        if steps == 0 || (project.steps_done as usize) < steps {
            let message = "Not all of it is cut yet: what is left over is told by the last cut.";
            return Err(ApiError::new(StatusCode::CONFLICT, message));
        }
        let mut changed: Vec<ProjectCloth> = vec![];
        for entry in entries(&left_over(&project)) {
            let known = called(work, &[&entry.cloth.name])?.into_iter().next();
            if known.is_none() && entry.kept.is_empty() {
                continue;
            }
            let mut cloth = known.map_or_else(|| free_id(work, entry.cloth), Ok)?;
            cloth.book(&id, &project.name, &entry.used, &entry.kept).map_err(taken)?;
            changed.push(cloth);
        }
        work.store.keep_cloths(&changed).map_err(|e| ApiError::from_store(work, e))?;
        view(work, &id, &project).map(Json)
    })
    .await
}

fn taken(since: TakenSince) -> ApiError {
    ApiError::new(StatusCode::CONFLICT, since.to_string())
}

/// Takes it out of the cupboard again: what it took is there as before, what it left is not.
#[utoipa::path(delete, path = "/api/projects/{id}/left-over", params(("id" = String, Path)),
    responses((status = 200, body = LeftOverView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn take_out(State(app): State<App>, At(id): At<String>) -> Result<Json<LeftOverView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let project = work.project(&id)?.project;
        let there = accounts(work, &left_over(&project))?;
        let mut changed: Vec<ProjectCloth> = vec![];
        for mut cloth in there {
            if cloth.unbook(&id).map_err(taken)? {
                changed.push(cloth);
            }
        }
        work.store.keep_cloths(&changed).map_err(|e| ApiError::from_store(work, e))?;
        view(work, &id, &project).map(Json)
    })
    .await
}
