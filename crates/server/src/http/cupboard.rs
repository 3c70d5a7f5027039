//! The cupboard: cloths known to the house.

use super::App;
use super::problem::{ApiError, ApiErrorBody, Asked, At, Body};
use super::projects::Edits;
use super::stretch::Stretch;
use crate::laying::Keep;
use crate::view::{Change, DrawingView, ProjectView};
use crate::work::A_REQUEST;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::cloth::{AtHand, say_all};
use bofta_core::measure::System;
use bofta_core::name;
use bofta_core::project::{Booking, ProjectCloth};
use bofta_formats::draw::swatch;
use bofta_store::StoreError;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A cloth in the cupboard.
#[derive(Debug, Serialize, ToSchema)]
pub struct CupboardCloth {
    pub id: String,
    pub name: String,
    pub material: String,
    pub width: String,
    /// What of it is there, if any.
    pub owned: Option<String>,
    /// What bags took of it and left, a line each.
    pub account: Vec<String>,
    pub price: Option<String>,
    pub swatch: Option<DrawingView>,
    /// Why it cannot be used; its text can be saved all the same.
    pub unreadable: Option<String>,
}

/// Which cloth of the cupboard, into a project at which revision.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Take {
    pub based_on: i64,
    /// Id in the cupboard.
    pub cloth: String,
}

fn shown(cloth: &ProjectCloth) -> CupboardCloth {
    // The cupboard belongs to no project: lengths are told in the system they are whole in.
    let eighth = bofta_core::measure::Length::inches(1, 8);
    let system = if cloth.width.is_multiple_of(eighth) { System::Inches } else { System::Centimetres };
    let ruler = bofta_core::measure::Ruler::default_for(system);
    CupboardCloth {
        id: cloth.id.clone(),
        name: cloth.name.clone(),
        material: cloth.material.name().to_owned(),
        width: format!("{} {}", ruler.show(cloth.width).text, system.symbol()),
        owned: (!cloth.at_hand.is_empty()).then(|| say_all(&cloth.at_hand, system)),
        account: cloth.cut.iter().map(|b| account(b, system)).collect(),
        price: cloth.price.map(|p| {
            let per = if p.per == bofta_core::measure::Length::YARD { "a yard" } else { "a metre" };
            format!("{} {per}", p.amount.show())
        }),
        swatch: Some(swatch(cloth, &format!("cupboard-{}", cloth.id), 120.0, 72.0).into()),
        unreadable: None,
    }
}

/// `Swap-table pouch took ½ yd, left 30 × 15 in`.
fn account(entry: &Booking, system: System) -> String {
    let said = |things: &[AtHand], none: &str| {
        if things.is_empty() { none.to_owned() } else { say_all(things, system) }
    };
    format!("{} took {}, left {}", entry.name, said(&entry.took, "none of this"), said(&entry.left, "nothing to keep"))
}

/// A stretch of the cupboard.
#[derive(Debug, Serialize, ToSchema)]
pub struct CupboardView {
    pub cloths: Vec<CupboardCloth>,
    /// How many there are of what was looked for.
    pub found: u32,
    /// How many there are in all.
    pub total: u32,
}

/// One cloth that cannot be read is shown as such; the others are there.
fn unreadable(id: &str, name: &str, why: &StoreError) -> CupboardCloth {
    CupboardCloth {
        id: id.to_owned(),
        name: if name.is_empty() { id.to_owned() } else { name.to_owned() },
        material: String::new(),
        width: String::new(),
        owned: None,
        account: vec![],
        price: None,
        swatch: None,
        unreadable: Some(why.to_string()),
    }
}

/// The cloths in the cupboard, a stretch of them.
#[utoipa::path(get, path = "/api/cupboard", params(Stretch), responses((status = 200, body = CupboardView)))]
pub async fn cupboard(State(app): State<App>, Asked(asked): Asked<Stretch>) -> Result<Json<CupboardView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let all = work.store.cloth_names().map_err(from_store)?;
        let total = all.len() as u32;
        let (found, here) = asked.of(all, |(_, name)| name.as_str())?;
        let ids: Vec<String> = here.iter().map(|(id, _)| id.clone()).collect();
        let read = work.store.cloths(&ids).map_err(from_store)?;
        let view = |(id, name): &(String, String)| {
            let (_, cloth) = read.iter().find(|(other, _)| other == id)?;
            Some(cloth.as_ref().map_or_else(|why| unreadable(id, name, why), shown))
        };
        Ok(Json(CupboardView { cloths: here.iter().filter_map(view).collect(), found, total }))
    })
    .await
}

/// The text a cloth is kept as, whether it can be read or not.
#[utoipa::path(get, path = "/api/cupboard/{id}/document.json", params(("id" = String, Path)),
    responses((status = 200, body = String), (status = 404, body = ApiErrorBody)))]
pub async fn cloth_document(State(app): State<App>, At(id): At<String>) -> Result<String, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let text = work.store.cloth_document(&id).map_err(|e| ApiError::from_store(work, e))?;
        text.ok_or_else(|| no_cloth(&id))
    })
    .await
}

fn no_cloth(id: &str) -> ApiError {
    ApiError::new(StatusCode::NOT_FOUND, format!("There is no cloth “{}” in the cupboard.", name::clean(id)))
}

/// Puts a project's cloth into the cupboard.
#[utoipa::path(post, path = "/api/projects/{id}/cloths/{cloth}/keep", params(("id" = String, Path), ("cloth" = String, Path)),
    responses((status = 204), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn keep(State(app): State<App>, At((id, cloth)): At<(String, String)>) -> Result<StatusCode, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.project(&id)?;
        let Some(found) = kept.project.cloth(&cloth) else {
            let message = format!("There is no cloth “{}” in this project.", name::clean(&cloth));
            return Err(ApiError::new(StatusCode::NOT_FOUND, message));
        };
        let from_store = |e| ApiError::from_store(work, e);
        // What bags took of it and left stays on its account.
        let cut = work.store.cloth(&found.id).map_err(from_store)?.map(|c| c.cut).unwrap_or_default();
        work.store.keep_cloth(&ProjectCloth { cut, ..found.clone() }).map_err(from_store)?;
        Ok(StatusCode::NO_CONTENT)
    })
    .await
}

/// Takes a cloth of the cupboard into a project; parts that have none and suit it are cut from it.
#[utoipa::path(post, path = "/api/projects/{id}/take", params(("id" = String, Path)), request_body = Take,
    responses((status = 200, body = ProjectView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn take(
    State(app): State<App>,
    At(id): At<String>,
    Body(take): Body<Take>,
) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let cloth = work.store.cloth(&take.cloth).map_err(from_store)?.ok_or_else(|| no_cloth(&take.cloth))?;
        let kept = work.project(&id)?;
        let before = kept.project.clone();
        let edit = bofta_core::project::Edit::AddCloth {
            name: cloth.name.clone(),
            material: serde_json::to_value(cloth.material)
                .ok()
                .and_then(|m| m.as_str().map(str::to_owned))
                .unwrap_or_default(),
        };
        let change = Edits { based_on: take.based_on, edits: vec![edit] };
        let (mut next, label) = super::projects::with_edits(&before, &change.edits)?;
        if let Some(added) = next.cloths.last_mut() {
            *added = ProjectCloth { id: added.id.clone(), cut: vec![], ..cloth.clone() }.sold_in(before.system);
        }
        let kept = work.store.change(&id, take.based_on, &label, &next).map_err(from_store)?;
        work.view(&kept, Some(Change { before: &before, edits: &change.edits }), Keep::Yes)
    })
    .await
}

/// Puts a cloth of the cupboard into the drawer.
#[utoipa::path(delete, path = "/api/cupboard/{id}", params(("id" = String, Path)), responses((status = 204)))]
pub async fn archive_cloth(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        work.store.archive_cloth(&id).map_err(|e| ApiError::from_store(work, e))?;
        Ok(StatusCode::NO_CONTENT)
    })
    .await
}
