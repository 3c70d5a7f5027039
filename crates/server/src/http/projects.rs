//! Projects: the shelf, edits with undo and redo, previews, the steps at the table, other ways to lay and to buy.

use super::App;
use super::problem::{ApiError, ApiErrorBody, Asked, At, Body};
use super::stretch::Stretch;
use crate::laying::{FIRST, Keep, Laid, Laying, first_answer, job_key, laid, must_be_laid};
use crate::view::{
    Card, Change, Context, DrawingView, PROGRAM, ProjectView, StepView, card, plain_card, project_view, step_view,
};
use crate::view::{MakingView, making_view};
use crate::work::{A_REQUEST, SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::FieldProblem;
use bofta_core::buying;
use bofta_core::cutting::{CutStyle, cut_list, cut_style};
use bofta_core::lay::{Job, Lay, verify};
use bofta_core::measure::{System, show_bought};
use bofta_core::notions::Kit;
use bofta_core::project::{Edit, Lies, NotLaidAgain, Planned, Project, Way, bought, bought_text, other_ways};
use bofta_formats::draw::thumbnail;
use bofta_store::{Named, StoreError, StoredLay, StoredProject};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Iterations of an alternative and of another width: a glance, not a search.
const GLANCE: u64 = 250;

/// The most edits of one request.
const MOST_EDITS: usize = 50;

/// A project to begin.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewProject {
    pub name: String,
    /// `in` or `cm`.
    pub system: String,
    /// The kind of bag it begins with; a tote when nothing is said.
    #[serde(default)]
    pub family: Option<String>,
}

/// Changes made on a revision.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Edits {
    pub based_on: i64,
    pub edits: Vec<Edit>,
}

/// A revision to undo or redo from.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Based {
    pub based_on: i64,
}

impl Work {
    /// The project as it is kept, with what of the cupboard lies with it.
    pub(super) fn project(&self, id: &str) -> Result<StoredProject, ApiError> {
        self.store.project(id).map_err(|e| ApiError::from_store(self, e)).and_then(|kept| self.with_kit(kept))
    }

    /// The same project, with what of the cupboard lies with it.
    fn with_kit(&self, mut kept: StoredProject) -> Result<StoredProject, ApiError> {
        let ledgers = self.store.ledgers_of(&kept.id).map_err(|e| ApiError::from_store(self, e))?;
        kept.project.kit = Kit::of(&kept.id, &ledgers);
        Ok(kept)
    }

    /// The view of a project, with what `change` did.
    pub(super) fn view(
        &self,
        kept: &StoredProject,
        change: Option<Change>,
        keep: Keep,
    ) -> Result<Json<ProjectView>, ApiError> {
        let kept = self.with_kit(kept.clone())?;
        let context = Context { work: self, kept: &kept, change, keep };
        project_view(&context).map(Json).map_err(|e| ApiError::from_store(self, e))
    }

    fn laid(&self, id: &str, planned: &Planned) -> Result<Laying, ApiError> {
        laid(self, id, planned, Keep::Yes).map_err(|e| ApiError::from_store(self, e))
    }
}

/// A stretch of the shelf.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShelfView {
    pub cards: Vec<Card>,
    /// How many there are of what was looked for.
    pub found: u32,
    /// How many there are in all.
    pub total: u32,
}

/// The shelf, a stretch of it, the project changed last first. A card that is not kept yet is drawn, as long as the
/// time of a request allows; one that cannot be drawn says so, and the others are there.
#[utoipa::path(get, path = "/api/projects", params(Stretch), responses((status = 200, body = ShelfView)))]
pub async fn list(State(app): State<App>, Asked(asked): Asked<Stretch>) -> Result<Json<ShelfView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let all = work.store.named().map_err(from_store)?;
        let total = all.len() as u32;
        let (found, here) = asked.of(all, |p| p.name.as_str())?;
        let ids: Vec<String> = here.iter().map(|p| p.id.clone()).collect();
        let kept = work.store.cards(&ids, PROGRAM).map_err(from_store)?;
        let known = |id: &str| {
            kept.iter().find(|(other, _)| other == id).and_then(|(_, card)| serde_json::from_str::<Card>(card).ok())
        };
        let mut cards = Vec::with_capacity(here.len());
        for named in &here {
            cards.push(match known(&named.id) {
                Some(card) => Card { changed_at: named.changed_at, ..card },
                None => new_card(work, named)?,
            });
        }
        Ok(Json(ShelfView { cards, found, total }))
    })
    .await
}

/// Draws the card of a project and keeps it.
fn new_card(work: &Work, named: &Named) -> Result<Card, ApiError> {
    if work.stop().asked() {
        return Ok(Card { pending: true, ..plain_card(named, "being laid …") });
    }
    let kept = match work.store.project(&named.id) {
        Ok(kept) => kept,
        Err(StoreError::Unreadable { why, .. }) => {
            return Ok(Card { unreadable: Some(why.to_string()), ..plain_card(named, "cannot be read") });
        }
        Err(e) => return Err(ApiError::from_store(work, e)),
    };
    let card = card(work, &kept, named.changed_at).map_err(|e| ApiError::from_store(work, e))?;
    if !work.stop().asked()
        && let Ok(document) = serde_json::to_string(&card)
        && let Err(error) = work.store.keep_card(&kept.id, kept.revision, PROGRAM, &document)
    {
        // It is drawn again at the next look.
        tracing::warn!(%error, "a card could not be kept");
    }
    Ok(card)
}

/// Begins a project.
#[utoipa::path(post, path = "/api/projects", request_body = NewProject,
    responses((status = 200, body = ProjectView), (status = 422, body = ApiErrorBody)))]
pub async fn create(State(app): State<App>, Body(new): Body<NewProject>) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let system = match new.system.as_str() {
            "in" => System::Inches,
            "cm" => System::Centimetres,
            other => {
                let message = format!("“{other}” is not a choice here: in or cm.");
                return Err(ApiError::fields(vec![FieldProblem::new("system", other, message)]));
            }
        };
        let blank = Project::new("New project", system);
        let name = Edit::Project { field: bofta_core::project::ProjectField::Name, value: new.name };
        let edits: Vec<Edit> = new.family.into_iter().map(|family| Edit::Family { family }).chain([name]).collect();
        let (project, _) = with_edits(&blank, &edits)?;
        let kept = work.store.create(&new_id(&project.name), &project).map_err(|e| ApiError::from_store(work, e))?;
        work.view(&kept, None, Keep::Yes)
    })
    .await
}

/// A readable key that no other project has: the name and the time.
pub(super) fn new_id(name: &str) -> String {
    let plain: String = name.to_lowercase().chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let time = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH).map_or(0, |d| d.as_micros());
    let stem: String = plain.split('-').filter(|w| !w.is_empty()).take(5).collect::<Vec<_>>().join("-");
    format!("{}-{:x}", if stem.is_empty() { "project" } else { &stem }, time)
}

/// One project.
#[utoipa::path(get, path = "/api/projects/{id}", params(("id" = String, Path)),
    responses((status = 200, body = ProjectView), (status = 404, body = ApiErrorBody)))]
pub async fn read(State(app): State<App>, At(id): At<String>) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| work.view(&work.project(&id)?, None, Keep::Yes)).await
}

/// Takes a project off the shelf.
#[utoipa::path(delete, path = "/api/projects/{id}", params(("id" = String, Path)),
    responses((status = 204), (status = 404, body = ApiErrorBody)))]
pub async fn archive(State(app): State<App>, At(id): At<String>) -> Result<StatusCode, ApiError> {
    app.blocking(A_REQUEST, move |work| work.store.archive(&id).map_err(|e| ApiError::from_store(work, e))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// The project with `edits` made, all or none, and the label of the last.
pub(super) fn with_edits(project: &Project, edits: &[Edit]) -> Result<(Project, String), ApiError> {
    if edits.is_empty() || edits.len() > MOST_EDITS {
        let message = format!("You sent {} edits. Send 1 to {MOST_EDITS} at once.", edits.len());
        return Err(ApiError::field("edits", edits.len(), message));
    }
    let mut next = (project.clone(), String::new());
    for edit in edits {
        next = next.0.edited(edit).map_err(ApiError::fields)?;
    }
    Ok(next)
}

/// Changes a project; the last good state stays when an edit cannot stand.
#[utoipa::path(post, path = "/api/projects/{id}/edits", params(("id" = String, Path)), request_body = Edits,
    responses((status = 200, body = ProjectView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody),
        (status = 422, body = ApiErrorBody)))]
pub async fn edit(
    State(app): State<App>,
    At(id): At<String>,
    Body(change): Body<Edits>,
) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let kept = work.project(&id)?;
        let before = kept.project.clone();
        let own = super::own_cuts::own(work)?;
        let edits = change.edits.into_iter().map(|edit| edit.in_sizes(&own)).collect();
        let change = Edits { edits, based_on: change.based_on };
        if kept.revision != change.based_on {
            // The store refuses it again under its lock; this spares the work.
            let refused = work.store.change(&id, change.based_on, "", &before).err();
            let refused = refused.map_or_else(|| ApiError::internal("a stale revision was taken"), from_store);
            let yours = with_edits(&before, &change.edits).map(|(_, label)| label);
            return Err(match yours {
                Ok(yours) => refused.with_yours(yours),
                Err(_) => refused,
            });
        }
        let cuts = before.steps_done > 0 || change.edits.iter().any(|e| matches!(e, Edit::StepsDone { count: 1.. }));
        let from = if cuts && before.cutting.is_none() { ready_to_cut(work, &id, &before)? } else { before.clone() };
        let (mut next, label) = with_edits(&from, &change.edits)?;
        if next == before {
            // Typed again as it was: nothing to keep and nothing to undo.
            return work.view(&StoredProject { project: next, ..kept }, None, Keep::Yes);
        }
        if next.cutting.is_some() && next.measured != before.measured {
            next = lay_the_rest(work, &from, next)?;
        }
        if work.timed_out() {
            let message = "This change takes too long to work out, so nothing was saved.";
            return Err(ApiError::field("edits", change.edits.len(), message));
        }
        let kept = work.store.change(&id, change.based_on, &label, &next).map_err(from_store)?;
        work.view(&kept, Some(Change { before: &before, edits: &change.edits }), Keep::Yes)
    })
    .await
}

/// The project with what it takes to cut it: a project that is begun now has its plan fixed, as it lies, and so has one
/// whose cutting began before plans were kept.
fn ready_to_cut(work: &Work, id: &str, project: &Project) -> Result<Project, ApiError> {
    let planned = project.plan().map_err(ApiError::fields)?;
    let laying = work.laid(id, &planned)?;
    let Some(laid) = laying.laid else {
        let why = laying.failed.unwrap_or_else(|| "There is no layout yet. Give every part a cloth first".to_owned());
        return Err(ApiError::field("steps_done", project.steps_done, format!("{why}.")));
    };
    project.begun(&laid.lay).map_err(ApiError::fields)
}

/// Something was measured while cutting goes on: what follows from it and is not begun is laid again.
fn lay_the_rest(work: &Work, before: &Project, next: Project) -> Result<Project, ApiError> {
    next.lay_the_rest(before, |job| first_answer(job, FIRST, work.stop()).map_err(|why| why.to_string())).map_err(|e| {
        match e {
            NotLaidAgain::Problems(problems) => ApiError::fields(problems),
            NotLaidAgain::NoLay(why) => ApiError::conflict(format!("{why}.")),
        }
    })
}

/// What a project would be with these edits; nothing is kept.
#[utoipa::path(post, path = "/api/projects/{id}/preview", params(("id" = String, Path)), request_body = Edits,
    responses((status = 200, body = ProjectView), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn preview(
    State(app): State<App>,
    At(id): At<String>,
    Body(change): Body<Edits>,
) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.project(&id)?;
        let (project, _) = with_edits(&kept.project, &change.edits)?;
        let before = kept.project.clone();
        work.view(&StoredProject { project, ..kept }, Some(Change { before: &before, edits: &change.edits }), Keep::No)
    })
    .await
}

/// Takes back the last change.
#[utoipa::path(post, path = "/api/projects/{id}/undo", params(("id" = String, Path)), request_body = Based,
    responses((status = 200, body = ProjectView), (status = 409, body = ApiErrorBody)))]
pub async fn undo(
    State(app): State<App>,
    At(id): At<String>,
    Body(on): Body<Based>,
) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.store.undo(&id, on.based_on).map_err(|e| ApiError::from_store(work, e))?;
        work.view(&kept, None, Keep::Yes)
    })
    .await
}

/// Makes the change taken back last again.
#[utoipa::path(post, path = "/api/projects/{id}/redo", params(("id" = String, Path)), request_body = Based,
    responses((status = 200, body = ProjectView), (status = 409, body = ApiErrorBody)))]
pub async fn redo(
    State(app): State<App>,
    At(id): At<String>,
    Body(on): Body<Based>,
) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.store.redo(&id, on.based_on).map_err(|e| ApiError::from_store(work, e))?;
        work.view(&kept, None, Keep::Yes)
    })
    .await
}

/// A project that is laid, for what needs a lay.
pub(super) fn planned_and_laid(work: &Work, id: &str) -> Result<(StoredProject, Planned, Laid), ApiError> {
    let kept = work.project(id)?;
    let planned = kept.project.plan().map_err(ApiError::fields)?;
    let laid = must_be_laid(work.laid(id, &planned)?)?;
    Ok((kept, planned, laid))
}

/// The same where nothing may be laid yet: there is no cloth, or no layout can be made.
pub(super) fn planned_and_perhaps_laid(
    work: &Work,
    id: &str,
) -> Result<(StoredProject, Planned, Option<Laid>), ApiError> {
    let kept = work.project(id)?;
    let planned = kept.project.plan().map_err(ApiError::fields)?;
    let laid = work.laid(id, &planned)?.laid;
    Ok((kept, planned, laid))
}

/// One step at the table.
#[utoipa::path(get, path = "/api/projects/{id}/steps/{number}", params(("id" = String, Path), ("number" = usize, Path)),
    responses((status = 200, body = StepView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn step(State(app): State<App>, At((id, number)): At<(String, usize)>) -> Result<Json<StepView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let (kept, planned, laid) = planned_and_laid(work, &id)?;
        let steps = cut_list(&laid.job, &laid.lay.cloths, &planned.draft.pieces, &planned.blocks);
        step_view(&kept.project, &laid, &planned, &steps, number).map(Json).ok_or_else(|| {
            ApiError::new(StatusCode::NOT_FOUND, format!("There is no step {number}: this plan has {}.", steps.len()))
        })
    })
    .await
}

/// How the bag is made, step by step.
#[utoipa::path(get, path = "/api/projects/{id}/making", params(("id" = String, Path)),
    responses((status = 200, body = MakingView), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn making(State(app): State<App>, At(id): At<String>) -> Result<Json<MakingView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.project(&id)?;
        let planned = kept.project.plan().map_err(ApiError::fields)?;
        Ok(Json(making_view(&kept.project, &planned)))
    })
    .await
}

/// Another way to lay a project.
#[derive(Debug, Serialize, ToSchema)]
pub struct Alternative {
    pub name: String,
    /// Whether it is how the project is laid now.
    pub chosen: bool,
    pub bought: String,
    pub cost: String,
    /// What it changes against now: `+⅛ yd`, `nothing`.
    pub difference: String,
    /// It was looked at for a moment only: a search may find better.
    pub glance: bool,
    /// `edge to edge`, `round templates` or `with stopped cuts`.
    pub cuts: String,
    pub drawing: Option<DrawingView>,
    /// The edits that choose it.
    pub edits: Vec<Edit>,
}

/// Other ways to lay it, each after a glance, with what differs. One that cannot be laid in time says so.
#[utoipa::path(get, path = "/api/projects/{id}/alternatives", params(("id" = String, Path)),
    responses((status = 200, body = [Alternative]), (status = 409, body = ApiErrorBody)))]
pub async fn alternatives(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<Alternative>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let (kept, planned, now) = planned_and_laid(work, &id)?;
        let project = &kept.project;
        let mut found = vec![alternative(project, &now, &now, "As it is", true, vec![])];
        for way in other_ways(project, &planned) {
            match laid_otherwise(work, &id, project, &way.edits, &now)? {
                Otherwise::TheSame => {}
                Otherwise::NotLaid(why) => found.push(not_laid(way, why)),
                Otherwise::Laid(other, laid) => {
                    let less = laid.lay.complete() && bought(&other, &laid.lay) < bought(project, &now.lay);
                    if less || !way.only_if_less {
                        found.push(alternative(&other, &laid, &now, &way.name, false, way.edits));
                    }
                }
            }
        }
        Ok(Json(found))
    })
    .await
}

/// What a project comes to with some edits, at a glance.
pub(super) enum Otherwise {
    /// It cannot be so, or it would be the same job and so the same lay.
    TheSame,
    NotLaid(String),
    Laid(Box<Project>, Box<Laid>),
}

pub(super) fn laid_otherwise(
    work: &Work,
    id: &str,
    project: &Project,
    edits: &[Edit],
    now: &Laid,
) -> Result<Otherwise, ApiError> {
    let Ok((other, _)) = with_edits(&project.uncut(), edits) else {
        return Ok(Otherwise::TheSame);
    };
    let Some(job) = other.plan().ok().and_then(|planned| planned.job) else { return Ok(Otherwise::TheSame) };
    let key = job_key(&job);
    if key == now.key {
        return Ok(Otherwise::TheSame);
    }
    Ok(match at_a_glance(work, id, job, key)? {
        Ok(laid) => Otherwise::Laid(Box::new(other), Box::new(laid)),
        Err(why) => Otherwise::NotLaid(why),
    })
}

/// A lay of `job`: the one that is kept with the project `id`, or what is found in a glance; else why there is none.
pub(super) fn at_a_glance(work: &Work, id: &str, job: Job, key: String) -> Result<Result<Laid, String>, ApiError> {
    let lay = match work.store.lay(id, &key).map_err(|e| ApiError::from_store(work, e))? {
        Some(StoredLay::Lay(lay)) if verify(&job, &lay).is_empty() => *lay,
        Some(StoredLay::Failed(why)) => return Ok(Err(why)),
        _ => {
            let _turn = work.turn()?;
            match first_answer(&job, GLANCE, work.stop()) {
                Ok(lay) => lay,
                Err(why) => return Ok(Err(why.to_string())),
            }
        }
    };
    Ok(Ok(Laid { job, key, lay }))
}

/// A way that could not be laid: chosen, it may be searched for longer.
fn not_laid(way: Way, why: String) -> Alternative {
    Alternative {
        name: way.name,
        chosen: false,
        bought: String::new(),
        cost: String::new(),
        difference: "no layout found in a quick look".to_owned(),
        glance: false,
        cuts: why,
        drawing: None,
        edits: way.edits,
    }
}

/// How a piece may be turned by hand.
#[derive(Debug, Serialize, ToSchema)]
pub struct Turned {
    pub lies: Lies,
    /// In words.
    pub name: String,
    pub chosen: bool,
    /// What it changes against now, or why it cannot be.
    pub difference: String,
    /// It was looked at for a moment only: a search may find better.
    pub glance: bool,
}

/// The ways a piece may be turned by hand, each with what it costs after a glance.
#[utoipa::path(get, path = "/api/projects/{id}/pieces/{piece}/turns",
    params(("id" = String, Path), ("piece" = String, Path)),
    responses((status = 200, body = [Turned]), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn turns(
    State(app): State<App>,
    At((id, piece)): At<(String, String)>,
) -> Result<Json<Vec<Turned>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let (kept, planned, now) = planned_and_laid(work, &id)?;
        let project = &kept.project;
        if !planned.draft.pieces.iter().any(|p| p.id == piece && p.when.is_laid()) {
            let message = format!("There is no piece “{piece}” that is cut from a cloth.");
            return Err(ApiError::new(StatusCode::NOT_FOUND, message));
        }
        let by_hand = Lies::of(project.turned.get(&piece).copied());
        let mut found = Vec::new();
        for lies in Lies::ALL {
            let chosen = lies == by_hand;
            let edits = [Edit::Turn { piece: piece.clone(), lies }];
            let (difference, glance) = match laid_otherwise(work, &id, project, &edits, &now)? {
                Otherwise::TheSame => (if chosen { "" } else { "same cloth" }.to_owned(), false),
                Otherwise::NotLaid(_) => ("no layout found in a quick look".to_owned(), false),
                Otherwise::Laid(_, laid) => (against(project, &laid, &now), is_a_glance(&laid.lay)),
            };
            found.push(Turned { lies, name: lies.name().to_owned(), chosen, difference, glance });
        }
        Ok(Json(found))
    })
    .await
}

/// Whether a longer search may find better than `lay`.
pub(super) fn is_a_glance(lay: &Lay) -> bool {
    lay.iterations <= GLANCE && !lay.proven
}

/// What a lay changes against now: `+⅛ yd`, `same cloth`, `does not fit`.
pub(super) fn against(project: &Project, laid: &Laid, now: &Laid) -> String {
    let (length, was) = (laid.job.bought(&laid.lay), now.job.bought(&now.lay));
    match length.cmp(&was) {
        _ if !laid.lay.complete() => "does not fit".to_owned(),
        std::cmp::Ordering::Less => format!("−{}", show_bought(was - length, project.system)),
        std::cmp::Ordering::Equal => "same cloth".to_owned(),
        std::cmp::Ordering::Greater => format!("+{}", show_bought(length - was, project.system)),
    }
}

fn alternative(project: &Project, laid: &Laid, now: &Laid, name: &str, chosen: bool, edits: Vec<Edit>) -> Alternative {
    // The cloth that takes most is the one worth looking at.
    let largest = laid.lay.cloths.iter().max_by_key(|c| c.placements.len());
    Alternative {
        name: name.to_owned(),
        chosen,
        bought: bought_text(project, &laid.lay),
        cost: project.money(laid.lay.cost),
        difference: against(project, laid, now),
        glance: !chosen && is_a_glance(&laid.lay),
        cuts: match cut_style(&cut_list(&laid.job, &laid.lay.cloths, &[], &[])) {
            CutStyle::EdgeToEdge => "edge to edge",
            CutStyle::RoundTemplates => "round templates",
            CutStyle::Stopped => "with stopped cuts",
        }
        .to_owned(),
        drawing: largest
            .and_then(|c| {
                thumbnail(project, &laid.job, c, 76.0, 64.0, &format!("alt-{}", name.replace(' ', "-").to_lowercase()))
            })
            .map(DrawingView::from),
        edits,
    }
}

/// What a cloth would take in another width.
#[derive(Debug, Serialize, ToSchema)]
pub struct OtherWidths {
    /// Id of the cloth.
    pub cloth: String,
    pub widths: Vec<OtherWidth>,
}

/// One other width.
#[derive(Debug, Serialize, ToSchema)]
pub struct OtherWidth {
    pub width: String,
    /// Length to buy, or nothing when a piece does not fit.
    pub length: Option<String>,
}

/// What each bought cloth would take in the widths shops commonly hold.
#[utoipa::path(get, path = "/api/projects/{id}/other-widths", params(("id" = String, Path)),
    responses((status = 200, body = [OtherWidths]), (status = 409, body = ApiErrorBody)))]
pub async fn other_widths(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<OtherWidths>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let (kept, _, laid) = planned_and_laid(work, &id)?;
        let (ruler, system) = (kept.project.ruler, kept.project.system);
        let bought = laid.lay.cloths.iter().filter(|c| laid.job.cloth(&c.cloth).is_some_and(|cloth| !cloth.owned));
        let _turn = work.turn()?;
        let all = bought
            .map(|c| OtherWidths {
                cloth: c.cloth.clone(),
                widths: buying::other_widths(&laid.job, &c.cloth, GLANCE, work.stop())
                    .into_iter()
                    .map(|w| OtherWidth {
                        width: format!("{} {}", ruler.show(w.width).text, system.symbol()),
                        length: w.length.map(|l| show_bought(l, system)),
                    })
                    .collect(),
            })
            .collect();
        Ok(Json(all))
    })
    .await
}
