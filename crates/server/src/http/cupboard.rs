//! The cupboard: cloths known to the house.

use super::App;
use super::problem::{Body, Refusal, RefusalBody};
use super::projects::Edits;
use crate::view::{Context, DrawingView, ProjectView, project_view};
use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use bofta_core::measure::{System, show_bought};
use bofta_core::project::ProjectCloth;
use bofta_formats::draw::swatch;
use bofta_store::Store;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A cloth in the cupboard.
#[derive(Debug, Serialize, ToSchema)]
pub struct CupboardCloth {
    pub id: String,
    pub name: String,
    pub material: String,
    pub width: String,
    /// The length owned, if any.
    pub owned: Option<String>,
    pub price: Option<String>,
    pub swatch: DrawingView,
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
    let ruler = bofta_core::measure::Ruler::usual(system);
    CupboardCloth {
        id: cloth.id.clone(),
        name: cloth.name.clone(),
        material: cloth.material.name().to_owned(),
        width: format!("{} {}", ruler.show(cloth.width).text, system.symbol()),
        owned: cloth.owned.map(|l| show_bought(l, system)),
        price: cloth.price.map(|p| {
            let per = if p.per == bofta_core::measure::Length::YARD { "a yard" } else { "a metre" };
            format!("{} {per}", p.amount.show())
        }),
        swatch: swatch(cloth, &format!("cupboard-{}", cloth.id), 120.0, 72.0).into(),
    }
}

fn all(store: &Store) -> Result<Json<Vec<CupboardCloth>>, Refusal> {
    let cloths = store.cloths().map_err(|e| Refusal::from_store(store, e))?;
    Ok(Json(cloths.iter().map(shown).collect()))
}

/// All cloths in the cupboard.
#[utoipa::path(get, path = "/api/cupboard", responses((status = 200, body = [CupboardCloth])))]
pub async fn cupboard(State(app): State<App>) -> Result<Json<Vec<CupboardCloth>>, Refusal> {
    app.blocking(all).await
}

/// Puts a project's cloth into the cupboard.
#[utoipa::path(post, path = "/api/projects/{id}/cloths/{cloth}/keep", params(("id" = String, Path), ("cloth" = String, Path)),
    responses((status = 200, body = [CupboardCloth]), (status = 404, body = RefusalBody)))]
pub async fn keep(
    State(app): State<App>,
    Path((id, cloth)): Path<(String, String)>,
) -> Result<Json<Vec<CupboardCloth>>, Refusal> {
    app.blocking(move |store| {
        let kept = store.project(&id).map_err(|e| Refusal::from_store(store, e))?;
        let Some(found) = kept.project.cloth(&cloth) else {
            return Err(Refusal::new(StatusCode::NOT_FOUND, format!("There is no cloth “{cloth}” in this project.")));
        };
        store.keep_cloth(found).map_err(|e| Refusal::from_store(store, e))?;
        all(store)
    })
    .await
}

/// Takes a cloth of the cupboard into a project; parts that have none and suit it are cut from it.
#[utoipa::path(post, path = "/api/projects/{id}/take", params(("id" = String, Path)), request_body = Take,
    responses((status = 200, body = ProjectView), (status = 404, body = RefusalBody), (status = 409, body = RefusalBody)))]
pub async fn take(
    State(app): State<App>,
    Path(id): Path<String>,
    Body(take): Body<Take>,
) -> Result<Json<ProjectView>, Refusal> {
    app.blocking(move |store| {
        let from_store = |e| Refusal::from_store(store, e);
        let cloths = store.cloths().map_err(from_store)?;
        let Some(cloth) = cloths.iter().find(|c| c.id == take.cloth) else {
            return Err(Refusal::new(
                StatusCode::NOT_FOUND,
                format!("There is no cloth “{}” in the cupboard.", take.cloth),
            ));
        };
        let kept = store.project(&id).map_err(from_store)?;
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
            *added = ProjectCloth { id: added.id.clone(), ..cloth.clone() }.sold_in(before.system);
        }
        let kept = store.change(&id, take.based_on, &label, &next).map_err(from_store)?;
        project_view(&Context { store, kept: &kept, before: Some(&before) }).map(Json).map_err(from_store)
    })
    .await
}

/// Takes a cloth out of the cupboard.
#[utoipa::path(delete, path = "/api/cupboard/{id}", params(("id" = String, Path)), responses((status = 200, body = [CupboardCloth])))]
pub async fn drop_cloth(State(app): State<App>, Path(id): Path<String>) -> Result<Json<Vec<CupboardCloth>>, Refusal> {
    app.blocking(move |store| {
        store.drop_cloth(&id).map_err(|e| Refusal::from_store(store, e))?;
        all(store)
    })
    .await
}
