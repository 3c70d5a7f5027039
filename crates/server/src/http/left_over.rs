//! What a bag leaves of its cloths, put into the cupboard when all of it is cut, and taken out again.

use super::App;
use super::cupboard::free_id;
use super::problem::{ApiError, ApiErrorBody, At};
use crate::work::{A_REQUEST, SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::cloth::tell_all;
use bofta_core::measure::System;
use bofta_core::project::{CutUp, LeftOver, Project, ProjectCloth, TakenSince, cut_up, entries, left_over};
use serde::Serialize;
use utoipa::ToSchema;

/// What is left of the cloths of a project.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeftOverView {
    pub cloths: Vec<LeftOfCloth>,
    /// It is in the cupboard.
    pub in_cupboard: bool,
    /// What became of all of it by area; nothing before the last cut.
    pub became: Option<String>,
}

/// What became of the cloth of one bag.
#[derive(Debug, Serialize, ToSchema)]
pub struct BagWaste {
    pub id: String,
    pub name: String,
    /// When it was changed last, in milliseconds since 1970.
    pub changed_at: i64,
    /// In a sentence.
    pub became: String,
}

/// What became of all cloth that was cut up.
#[derive(Debug, Serialize, ToSchema)]
pub struct WasteView {
    /// The bags on the shelf that are cut to the end, the one changed last first.
    pub bags: Vec<BagWaste>,
    /// All of them together; nothing where there is none.
    pub together: Option<String>,
    /// Names of those that cannot be read: they are not among them.
    pub unread: Vec<String>,
}

/// What became of the cloth of every bag on the shelf that is cut to the end, and of all of it.
#[utoipa::path(get, path = "/api/waste",
    responses((status = 200, body = WasteView), (status = 503, body = ApiErrorBody)))]
pub async fn waste(State(app): State<App>) -> Result<Json<WasteView>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let (mut bags, mut unread, mut sum, mut inches) = (vec![], vec![], None::<CutUp>, 0);
        for named in work.store.named().map_err(from_store)? {
            if work.stop().asked() {
                let message = "There are too many bags to look through in the time a look may take.";
                return Err(ApiError::new(StatusCode::SERVICE_UNAVAILABLE, message));
            }
            let Ok(kept) = work.store.project(&named.id) else {
                unread.push(named.name);
                continue;
            };
            let Some(cut) = cut_up(&kept.project) else { continue };
            let system = kept.project.system;
            inches += if system == System::Inches { 1 } else { -1 };
            sum = Some(sum.map_or(cut, |s| s.plus(cut)));
            bags.push(BagWaste {
                id: named.id,
                name: kept.project.name,
                changed_at: named.changed_at,
                became: cut.tell(system),
            });
        }
        // Together they are told as most of them are.
        let system = if inches > 0 { System::Inches } else { System::Centimetres };
        Ok(Json(WasteView { bags, together: sum.map(|s| s.tell(system)), unread }))
    })
    .await
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
    let became = cut_up(project).map(|cut| cut.tell(project.system));
    Ok(LeftOverView { cloths: left.iter().map(told).collect(), in_cupboard, became })
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
