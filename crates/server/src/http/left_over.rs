//! What a bag leaves of its cloths, put into the cupboard when all of it is cut, and taken out again.

use super::App;
use super::cupboard::not_entered;
use super::ledger::now;
use super::problem::{ApiError, ApiErrorBody, At};
use crate::work::{A_REQUEST, SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::cloth::tell_all;
use bofta_core::ledger::OfBag;
use bofta_core::measure::System;
use bofta_core::project::{CutUp, LeftOver, Project, ProjectCloth, cut_up, enter_cuts, left_over, take_cuts_back};
use bofta_store::Which;
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
    /// As it is entered: what was cut into and was not in the cupboard, a sentence for each cloth.
    pub not_there: Vec<String>,
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
                let message = "Bofta could not read all your bags in time. Try again, or put some in the drawer.";
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
    let known = work.store.which_cloths(of_bag(id, &[], &[])).map_err(|e| ApiError::from_store(work, e))?;
    let in_cupboard = known.iter().any(|c| c.is_cut_for(id));
    let ruler = project.ruler;
    let told = |one: &LeftOver| LeftOfCloth {
        name: one.cloth.name.clone(),
        used: tell_all(&one.used, ruler),
        kept: tell_all(&one.kept, ruler),
    };
    let became = cut_up(project).map(|cut| cut.tell(project.system));
    Ok(LeftOverView { cloths: left.iter().map(told).collect(), in_cupboard, became, not_there: vec![] })
}

/// The cloths of the cupboard and the drawer that the bag `project` has to do with.
pub(super) const fn of_bag<'a>(project: &'a str, keys: &'a [&'a str], names: &'a [&'a str]) -> Which<'a> {
    Which::OfBag(bofta_store::OfBag { project, keys, names })
}

/// The cloths of the cupboard with one of these names.
pub(super) fn called(work: &Work, names: &[&str]) -> Result<Vec<ProjectCloth>, ApiError> {
    let from_store = |e| ApiError::from_store(work, e);
    let all = work.store.cloth_names().map_err(from_store)?;
    let mut found = vec![];
    for (id, _) in all.into_iter().filter(|(_, name)| names.contains(&name.as_str())) {
        found.extend(work.store.cloth(&id).map_err(from_store)?);
    }
    Ok(found)
}

/// The cloths of the cupboard that what is left may concern, by name.
pub(super) fn names_of(left: &[LeftOver]) -> Vec<&str> {
    left.iter().flat_map(|l| [l.cut_from.as_str(), l.cloth.name.as_str()]).collect()
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
            let message = "Finish cutting first. What is left over is known after the last cut.";
            return Err(ApiError::new(StatusCode::CONFLICT, message));
        }
        let (left, bag) = (left_over(&project), OfBag { project: id.clone(), name: project.name.clone() });
        let keys: Vec<&str> = left.iter().flat_map(|l| [l.cut_from_id.as_str(), l.cloth.id.as_str()]).collect();
        let (names, at, ruler) = (names_of(&left), now(), project.ruler);
        let mut not_there = vec![];
        let entered = work.store.change_cloths(of_bag(&id, &keys, &names), |known| {
            let (next, missing) = enter_cuts(known, &left, &bag, at)?;
            let told = |(name, things): (String, Vec<_>)| {
                format!("{name}: you cut {}, which the cupboard did not have.", tell_all(&things, ruler))
            };
            not_there = missing.into_iter().map(told).collect();
            Ok(next)
        });
        let _entered = entered.map_err(|e| ApiError::from_store(work, e))?.map_err(not_entered)?;
        Ok(Json(LeftOverView { not_there, ..view(work, &id, &project)? }))
    })
    .await
}

/// Takes it out of the cupboard again: what it took is there as before, what it left is not.
#[utoipa::path(delete, path = "/api/projects/{id}/left-over", params(("id" = String, Path)),
    responses((status = 200, body = LeftOverView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn take_out(State(app): State<App>, At(id): At<String>) -> Result<Json<LeftOverView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let project = work.project(&id)?.project;
        let mut any = false;
        let undone = work.store.change_cloths(of_bag(&id, &[], &[]), |known| {
            let next = take_cuts_back(known, &id, now())?;
            any = next.is_some();
            Ok(next.unwrap_or_default())
        });
        let _undone = undone.map_err(|e| ApiError::from_store(work, e))?.map_err(not_entered)?;
        if !any {
            let message = format!("The cupboard has no cut of {}: there is nothing to remove.", project.name);
            return Err(ApiError::new(StatusCode::CONFLICT, message));
        }
        view(work, &id, &project).map(Json)
    })
    .await
}
