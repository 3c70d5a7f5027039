//! Which bags plan with what is in the cupboard, and where that is more than there is.

use super::App;
use super::cupboard::not_entered;
use super::ledger::now;
use super::left_over::of_bag;
use super::problem::{ApiError, ApiErrorBody, At, Body};
use super::projects::at_a_glance;
use crate::laying::job_key;
use crate::work::{SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::cloth::{AtHand, tell_all};
use bofta_core::lay::Lay;
use bofta_core::ledger::{Goods as _, OfBag};
use bofta_core::measure::Ruler;
use bofta_core::name;
use bofta_core::project::{Claim, Project, ProjectCloth, claimed, things_for};
use bofta_store::Which;
use serde::{Deserialize, Serialize};
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
    /// In a project: what of it lies with this bag; may be empty.
    pub laid: String,
    /// In a project: what of it the plan is cut from and can be laid with this bag; may be empty.
    pub to_lay: String,
}

/// Of each cloth by its name, which bags on the shelf plan with what is there of it. Of a bag that is not laid it is not
/// known with how much: its claim is empty. One that cannot be read says so on the shelf.
fn claims(work: &Work, wanted: &dyn Fn(&str) -> bool) -> Result<BTreeMap<String, Vec<Claim>>, ApiError> {
    let from_store = |e| ApiError::from_store(work, e);
    let mut found: BTreeMap<String, Vec<Claim>> = BTreeMap::new();
    for named in work.store.named().map_err(from_store)? {
        if work.stop().asked() {
            let message = "Bofta could not read all your bags in time. Try again, or put some in the drawer.";
            return Err(ApiError::new(StatusCode::SERVICE_UNAVAILABLE, message));
        }
        let Ok(kept) = work.store.project(&named.id) else { continue };
        let project = &kept.project;
        if !project.cloths.iter().any(|c| !c.at_hand.is_empty() && wanted(&c.name)) {
            continue;
        }
        let lay = lay_of(work, &named.id, project)?;
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

/// How the bag is laid; nothing where it is not.
pub(super) fn lay_of(work: &Work, id: &str, project: &Project) -> Result<Option<Lay>, ApiError> {
    Ok(match project.plan().map(|planned| (planned.fixed, planned.job)) {
        Ok((Some(lay), _)) => Some(lay),
        Ok((None, Some(job))) => {
            let key = job_key(&job);
            at_a_glance(work, id, job, key)?.ok().map(|laid| laid.lay)
        }
        Ok((None, None)) | Err(_) => None,
    })
}

/// What of `cloth` in the cupboard the bag is cut from and is not with it yet.
fn to_lay(id: &str, project: &Project, lay: Option<&Lay>, cloth: &ProjectCloth) -> Vec<AtHand> {
    let all = lay.map(|lay| things_for(project, lay)).unwrap_or_default();
    let wanted = all.into_iter().find(|(name, _)| *name == cloth.name).map(|(_, things)| things);
    if cloth.is_cut_for(id) { vec![] } else { cloth.still_to_lay(id, &wanted.unwrap_or_default()) }
}

fn view(id: &str, cloth: &ProjectCloth, claims: &[Claim], ruler: Ruler) -> ClaimsView {
    let told = |c: &Claim| {
        if c.things.is_empty() {
            return format!(
                "{} lists this cloth and has no layout yet, so Bofta does not know how much of it the bag uses",
                c.name
            );
        }
        format!("{} uses {}", c.name, tell_all(&c.things, ruler))
    };
    let open = claims.iter().filter(|c| !cloth.is_cut_for(&c.project));
    ClaimsView {
        cloth: id.to_owned(),
        planned: open.map(told).collect(),
        over: cloth.over_claimed(claims, ruler),
        laid: String::new(),
        to_lay: String::new(),
    }
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
        let (lay, ruler) = (lay_of(work, &id, &project)?, project.ruler);
        let seen = there.iter().filter_map(|(name, cloth)| {
            let seen = view(&mine(name)?.id, cloth, claims.get(name).map_or(&[], Vec::as_slice), ruler);
            let laid = tell_all(cloth.ledger.with_bag(&id).all(), ruler);
            Some(ClaimsView { laid, to_lay: tell_all(&to_lay(&id, &project, lay.as_ref(), cloth), ruler), ..seen })
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

/// What is done with cloth of the cupboard for a bag.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Aside {
    /// What the plan is cut from is laid with the bag.
    Lay,
    /// What lies with it goes back.
    PutBack,
}

/// Whether cloth is laid with a bag or put back.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LayAside {
    pub what: Aside,
}

/// Lays what the plan is cut from of one cloth of the cupboard with the bag, or puts it back. Two bags never have the same.
#[utoipa::path(post, path = "/api/projects/{id}/cloths/{cloth}/aside", params(("id" = String, Path), ("cloth" = String, Path)),
    request_body = LayAside, responses((status = 204), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn lay_aside(
    State(app): State<App>,
    At((id, cloth)): At<(String, String)>,
    Body(body): Body<LayAside>,
) -> Result<StatusCode, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let project = work.project(&id)?.project;
        let Some(own) = project.cloth(&cloth) else {
            let message = format!("There is no cloth “{}” in this project.", name::clean(&cloth));
            return Err(ApiError::new(StatusCode::NOT_FOUND, message));
        };
        let lay = lay_of(work, &id, &project)?;
        let bag = OfBag { project: id.clone(), name: project.name.clone() };
        let (keys, names) = ([own.id.as_str()], [own.name.as_str()]);
        // What is set aside is returned wherever it lies and whatever it is called by now.
        let which = match body.what {
            Aside::PutBack => of_bag(&id, &keys, &names),
            Aside::Lay => Which::Called(&names),
        };
        let laid = work.store.change_cloths(which, |known| {
            let with = |c: &&ProjectCloth| !c.ledger.with_bag(&id).is_none();
            let this = |c: &&ProjectCloth| c.id == own.id || c.name == own.name;
            let found = known.iter().filter(with).find(this).or_else(|| known.iter().find(this));
            let mut there = found.cloned().ok_or_else(|| {
                ApiError::new(StatusCode::NOT_FOUND, format!("There is no “{}” in the cupboard.", own.name))
            })?;
            match body.what {
                Aside::PutBack => there.put_back(&bag, now()).map_err(not_entered)?,
                Aside::Lay => {
                    let things = to_lay(&id, &project, lay.as_ref(), &there);
                    if things.is_empty() {
                        let message = format!("{} needs no more of “{}”.", bag.name, own.name);
                        return Err(ApiError::new(StatusCode::CONFLICT, message));
                    }
                    there.lay_with(&bag, &things, now()).map_err(not_entered)?;
                }
            }
            Ok(vec![there])
        });
        let _laid = laid.map_err(|e| ApiError::from_store(work, e))??;
        Ok(StatusCode::NO_CONTENT)
    })
    .await
}
