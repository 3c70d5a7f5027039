//! Which bags plan with what is in the cupboard, and where that is more than there is.

use super::App;
use super::problem::{ApiError, ApiErrorBody, At};
use super::projects::at_a_glance;
use crate::laying::job_key;
use crate::work::{SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use bofta_core::cloth::tell_all;
use bofta_core::measure::Ruler;
use bofta_core::project::{Claim, ProjectCloth, claimed};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What is planned with of one cloth.
#[derive(Debug, Serialize, ToSchema)]
pub struct ClaimsView {
    /// Id of the cloth: in a project its own, else the cupboard's.
    pub cloth: String,
    /// `Bean sack plans with ½ yd`, a line for each bag.
    pub planned: Vec<String>,
    /// Where that is more than there is, a sentence for each thing.
    pub over: Vec<String>,
}

/// Of each cloth by its name, which bags on the shelf plan with what is there of it. Of a bag that is not laid it is not
/// known with how much: its claim is empty. One that cannot be read says so on the shelf.
fn claims(work: &Work, wanted: &dyn Fn(&str) -> bool) -> Result<BTreeMap<String, Vec<Claim>>, ApiError> {
    let from_store = |e| ApiError::from_store(work, e);
    let mut found: BTreeMap<String, Vec<Claim>> = BTreeMap::new();
    for named in work.store.named().map_err(from_store)? {
        if work.stop().asked() {
            let message = "There are too many bags to look through in the time a look may take.";
            return Err(ApiError::new(axum::http::StatusCode::SERVICE_UNAVAILABLE, message));
        }
        let Ok(kept) = work.store.project(&named.id) else { continue };
        let project = &kept.project;
        if !project.cloths.iter().any(|c| !c.at_hand.is_empty() && wanted(&c.name)) {
            continue;
        }
        let lay = match project.plan().map(|planned| (planned.fixed, planned.job)) {
            Ok((Some(lay), _)) => Some(lay),
            Ok((None, Some(job))) => {
                let key = job_key(&job);
                at_a_glance(work, &named.id, job, key)?.ok().map(|laid| laid.lay)
            }
            Ok((None, None)) | Err(_) => None,
        };
        let not_known = || {
            let there = project.cloths.iter().filter(|c| !c.at_hand.is_empty());
            there.map(|c| (c.name.clone(), vec![])).collect()
        };
        for (cloth, things) in lay.map_or_else(not_known, |lay| claimed(project, &lay)) {
            if wanted(&cloth) {
                let claim = Claim { project: named.id.clone(), name: project.name.clone(), things };
                found.entry(cloth).or_default().push(claim);
            }
        }
    }
    Ok(found)
}

fn view(id: &str, cloth: &ProjectCloth, claims: &[Claim], ruler: Ruler) -> ClaimsView {
    let told = |c: &Claim| {
        if c.things.is_empty() {
            return format!("{} has it at hand and is not laid: what of it is planned with is not known", c.name);
        }
        format!("{} plans with {}", c.name, tell_all(&c.things, ruler))
    };
    let open = claims.iter().filter(|c| !cloth.cut.iter().any(|b| b.project == c.project));
    ClaimsView { cloth: id.to_owned(), planned: open.map(told).collect(), over: cloth.over_claimed(claims, ruler) }
}

/// Of the cloths of a project that are in the cupboard too, which bags plan with them.
#[utoipa::path(get, path = "/api/projects/{id}/claims", params(("id" = String, Path)),
    responses((status = 200, body = [ClaimsView]), (status = 404, body = ApiErrorBody), (status = 503, body = ApiErrorBody)))]
pub async fn of_project(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<ClaimsView>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let project = work.project(&id)?.project;
        let from_store = |e| ApiError::from_store(work, e);
        let mine = |name: &str| project.cloths.iter().find(|c| c.name == name && !c.at_hand.is_empty());
        let names = work.store.cloth_names().map_err(from_store)?;
        let mut there = vec![];
        for (cupboard, name) in names.into_iter().filter(|(_, name)| mine(name).is_some()) {
            // One that cannot be read says so in the cupboard.
            there.extend(work.store.cloth(&cupboard).ok().flatten().map(|cloth| (name, cloth)));
        }
        if there.is_empty() {
            return Ok(Json(vec![]));
        }
        let claims = claims(work, &|name| there.iter().any(|(known, _)| known == name))?;
        let seen = there.iter().filter_map(|(name, cloth)| {
            Some(view(&mine(name)?.id, cloth, claims.get(name).map_or(&[], Vec::as_slice), project.ruler))
        });
        Ok(Json(seen.collect()))
    })
    .await
}

/// Which bags plan with what is in the cupboard; cloths no bag plans with are left out.
#[utoipa::path(get, path = "/api/cupboard/claims",
    responses((status = 200, body = [ClaimsView]), (status = 503, body = ApiErrorBody)))]
pub async fn of_cupboard(State(app): State<App>) -> Result<Json<Vec<ClaimsView>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let claims = claims(work, &|_| true)?;
        let all = work.store.all_cloths().map_err(|e| ApiError::from_store(work, e))?;
        let seen = all.into_iter().filter_map(|(name, (id, cloth))| {
            let (of, cloth) = (claims.get(&name)?, cloth.ok()?);
            Some(view(&id, &cloth, of, Ruler::default_for(cloth.own_system())))
        });
        Ok(Json(seen.collect()))
    })
    .await
}
