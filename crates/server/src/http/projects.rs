//! Projects: the shelf, edits with undo and redo, previews, the steps at the table, other ways to lay and to buy.

use super::App;
use super::problem::{Body, Refusal, RefusalBody};
use crate::laying::{FIRST, Laid, first_answer, job_key, laid};
use crate::view::{Card, Context, DrawingView, ProjectView, StepView, card, project_view, step_view};
use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use bofta_core::FieldProblem;
use bofta_core::buying;
use bofta_core::cloth::Print;
use bofta_core::cutting::{Manner, Step, cut_list, manner};
use bofta_core::lay::{Cuts, verify};
use bofta_core::measure::{System, show_bought};
use bofta_core::piece::{Figure, Part};
use bofta_core::project::{Edit, LayField, Planned, Project, StrapLie};
use bofta_formats::draw::thumbnail;
use bofta_store::{Kept, Store};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Iterations of an alternative and of another width: a glance, not a search.
const GLANCE: u64 = 250;

/// A project to begin.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewProject {
    pub name: String,
    /// `in` or `cm`.
    pub system: String,
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

fn view(store: &Store, kept: &Kept, before: Option<&Project>) -> Result<Json<ProjectView>, Refusal> {
    project_view(&Context { store, kept, before }).map(Json).map_err(|e| Refusal::from_store(store, e))
}

/// The shelf.
#[utoipa::path(get, path = "/api/projects", responses((status = 200, body = [Card])))]
pub async fn list(State(app): State<App>) -> Result<Json<Vec<Card>>, Refusal> {
    app.blocking(|store| {
        let all = store.projects().map_err(|e| Refusal::from_store(store, e))?;
        let cards: Result<Vec<Card>, _> = all.iter().map(|p| card(store, p)).collect();
        cards.map(Json).map_err(|e| Refusal::from_store(store, e))
    })
    .await
}

/// Begins a project.
#[utoipa::path(post, path = "/api/projects", request_body = NewProject,
    responses((status = 200, body = ProjectView), (status = 422, body = RefusalBody)))]
pub async fn create(State(app): State<App>, Body(new): Body<NewProject>) -> Result<Json<ProjectView>, Refusal> {
    app.blocking(move |store| {
        let system = match new.system.as_str() {
            "in" => System::Inches,
            "cm" => System::Centimetres,
            other => {
                let message = format!("“{other}” is not a choice here: in or cm.");
                return Err(Refusal::fields(vec![FieldProblem::new("system", other, message)]));
            }
        };
        let blank = Project::new("New project", system);
        let name = Edit::Project { field: bofta_core::project::ProjectField::Name, value: new.name };
        let (project, _) = blank.edited(&name).map_err(Refusal::fields)?;
        let kept = store.create(&new_id(&project.name), &project).map_err(|e| Refusal::from_store(store, e))?;
        view(store, &kept, None)
    })
    .await
}

/// A readable key that no other project has: the name and the time.
fn new_id(name: &str) -> String {
    let plain: String = name.to_lowercase().chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let time = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH).map_or(0, |d| d.as_micros());
    let stem: String = plain.split('-').filter(|w| !w.is_empty()).take(5).collect::<Vec<_>>().join("-");
    format!("{}-{:x}", if stem.is_empty() { "project" } else { &stem }, time)
}

/// One project.
#[utoipa::path(get, path = "/api/projects/{id}", params(("id" = String, Path)),
    responses((status = 200, body = ProjectView), (status = 404, body = RefusalBody)))]
pub async fn read(State(app): State<App>, Path(id): Path<String>) -> Result<Json<ProjectView>, Refusal> {
    app.blocking(move |store| {
        let kept = store.project(&id).map_err(|e| Refusal::from_store(store, e))?;
        view(store, &kept, None)
    })
    .await
}

/// Takes a project off the shelf.
#[utoipa::path(delete, path = "/api/projects/{id}", params(("id" = String, Path)),
    responses((status = 204), (status = 404, body = RefusalBody)))]
pub async fn put_away(State(app): State<App>, Path(id): Path<String>) -> Result<StatusCode, Refusal> {
    app.blocking(move |store| store.put_away(&id).map_err(|e| Refusal::from_store(store, e))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Puts a project back on the shelf.
#[utoipa::path(post, path = "/api/projects/{id}/restore", params(("id" = String, Path)),
    responses((status = 204), (status = 404, body = RefusalBody)))]
pub async fn restore(State(app): State<App>, Path(id): Path<String>) -> Result<StatusCode, Refusal> {
    app.blocking(move |store| store.restore(&id).map_err(|e| Refusal::from_store(store, e))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// The project with `edits` made, all or none, and the label of the last.
pub(super) fn with_edits(project: &Project, edits: &[Edit]) -> Result<(Project, String), Refusal> {
    let mut next = (project.clone(), String::new());
    for edit in edits {
        // What is measured once it is made is measured while the cutting goes on.
        let measured = matches!(edit, Edit::Measured { .. });
        if project.steps_done > 0 && edit.changes_plan() && !measured {
            let message = format!(
                "Cutting has begun, {} steps are done: the plan stays as it is. Take the cuts back first, or begin the cutting again.",
                project.steps_done
            );
            return Err(Refusal::fields(vec![FieldProblem::new("steps_done", project.steps_done, message)]));
        }
        next = next.0.edited(edit).map_err(Refusal::fields)?;
    }
    if edits.is_empty() {
        return Err(Refusal::fields(vec![FieldProblem::new("edits", "[]", "There is no edit to make.")]));
    }
    Ok(next)
}

/// Changes a project; the last good state stays when an edit cannot stand.
#[utoipa::path(post, path = "/api/projects/{id}/edits", params(("id" = String, Path)), request_body = Edits,
    responses((status = 200, body = ProjectView), (status = 404, body = RefusalBody), (status = 409, body = RefusalBody),
        (status = 422, body = RefusalBody)))]
pub async fn edit(
    State(app): State<App>,
    Path(id): Path<String>,
    Body(change): Body<Edits>,
) -> Result<Json<ProjectView>, Refusal> {
    app.blocking(move |store| {
        let from_store = |e| Refusal::from_store(store, e);
        let kept = store.project(&id).map_err(from_store)?;
        let before = kept.project.clone();
        if kept.revision != change.based_on {
            // The store refuses it again under its lock; this spares the work.
            let refused = store.change(&id, change.based_on, "", &before).err();
            return Err(refused.map_or_else(|| Refusal::internal("a stale revision was taken"), from_store));
        }
        let (mut next, label) = with_edits(&before, &change.edits)?;
        if next == before {
            // Typed again as it was: nothing to keep and nothing to undo.
            return view(store, &Kept { project: next, ..kept }, None);
        }
        if before.steps_done > 0 && next.steps_done > 0 && next.measured != before.measured {
            lay_the_rest(store, &id, &before, &mut next)?;
        }
        if next.steps_done > 0 {
            check_steps(store, &id, &next)?;
        }
        // From the first cut on, the lay must stay what it is, whatever a later version would find.
        if before.steps_done == 0 && next.steps_done > 0 {
            keep_lay(store, &id, &before)?;
        }
        let kept = store.change(&id, change.based_on, &label, &next).map_err(from_store)?;
        view(store, &kept, Some(&before))
    })
    .await
}

/// Whether some piece belongs to `part`.
fn planned_has(project: &Project, part: Part) -> bool {
    project.plan().is_ok_and(|p| p.draft.pieces.iter().any(|p| p.part == part))
}

/// No more steps are done than there are.
fn check_steps(store: &Store, id: &str, project: &Project) -> Result<(), Refusal> {
    let planned = project.plan().map_err(Refusal::fields)?;
    let laid = laid(store, id, &planned).map_err(|e| Refusal::from_store(store, e))?;
    let steps = laid.map_or(0, |l| cut_list(&l.job, &l.lay.cloths, &planned.draft.pieces, &planned.blocks).len());
    if project.steps_done as usize > steps {
        let message = format!("{} steps are done: the plan has {steps}.", project.steps_done);
        return Err(Refusal::fields(vec![FieldProblem::new("steps_done", project.steps_done, message)]));
    }
    Ok(())
}

/// Something was measured while cutting goes on: what is cut stays as it lies, what follows from the measure and lies on
/// cloth not begun is laid again.
fn lay_the_rest(store: &Store, id: &str, before: &Project, next: &mut Project) -> Result<(), Refusal> {
    let from_store = |e| Refusal::from_store(store, e);
    let was = before.plan().map_err(Refusal::fields)?;
    let Some(laid_was) = laid(store, id, &was).map_err(from_store)? else { return Ok(()) };
    let steps = cut_list(&laid_was.job, &laid_was.lay.cloths, &was.draft.pieces, &was.blocks);
    let done = &steps[..(before.steps_done as usize).min(steps.len())];
    let cut: Vec<String> = done.iter().flat_map(Step::frees).map(|f| f.piece.clone()).collect();
    for (piece, measured) in &mut next.measured {
        if before.measured.get(piece) != Some(&*measured) {
            measured.cut_before.extend(cut.iter().cloned());
        }
    }
    let now = next.plan().map_err(Refusal::fields)?;
    let Some(job) = &now.job else { return Ok(()) };
    let begun = |cloth: &String| done.iter().any(|s| s.cloth() == Some(cloth));
    for lay in laid_was.lay.cloths.iter().filter(|l| begun(&l.cloth)) {
        let changed = lay.placements.iter().find(|p| job.piece(&p.piece) != laid_was.job.piece(&p.piece));
        if let Some(piece) = changed.and_then(|p| laid_was.job.piece(&p.piece)) {
            let cloth = before.cloth(&lay.cloth).map_or(lay.cloth.as_str(), |c| c.name.as_str());
            let message = format!(
                "{} follows from this measure, and {cloth} is being cut: take the cuts on it back first, or cut it as it was drafted.",
                piece.name
            );
            return Err(Refusal::fields(vec![FieldProblem::new("measured", &piece.name, message)]));
        }
    }
    let again = || Refusal::internal("what is left could not be laid again beside what is cut");
    let mut lay = first_answer(job, FIRST).ok_or_else(again)?;
    let (kept, fresh) = (laid_was.lay.cloths.iter(), std::mem::take(&mut lay.cloths));
    lay.cloths = kept.filter(|l| begun(&l.cloth)).cloned().collect();
    lay.cloths.extend(fresh.into_iter().filter(|l| !begun(&l.cloth)));
    let costs =
        lay.cloths.iter().filter_map(|l| job.cloth(&l.cloth).filter(|c| !c.owned).map(|c| c.cost(l.buy_length)));
    lay.cost = costs.sum();
    if !verify(job, &lay).is_empty() {
        return Err(again());
    }
    store.keep_lay(id, &job_key(job), &lay).map_err(from_store)
}

fn keep_lay(store: &Store, id: &str, project: &Project) -> Result<(), Refusal> {
    let planned = project.plan().map_err(Refusal::fields)?;
    if let Some(laid) = laid(store, id, &planned).map_err(|e| Refusal::from_store(store, e))? {
        store.keep_lay(id, &laid.key, &laid.lay).map_err(|e| Refusal::from_store(store, e))?;
    }
    Ok(())
}

/// What a project would be with these edits; nothing is kept.
#[utoipa::path(post, path = "/api/projects/{id}/preview", params(("id" = String, Path)), request_body = Edits,
    responses((status = 200, body = ProjectView), (status = 404, body = RefusalBody), (status = 422, body = RefusalBody)))]
pub async fn preview(
    State(app): State<App>,
    Path(id): Path<String>,
    Body(change): Body<Edits>,
) -> Result<Json<ProjectView>, Refusal> {
    app.blocking(move |store| {
        let kept = store.project(&id).map_err(|e| Refusal::from_store(store, e))?;
        let (project, _) = with_edits(&kept.project, &change.edits)?;
        let before = kept.project.clone();
        view(store, &Kept { project, ..kept }, Some(&before))
    })
    .await
}

/// Takes back the last change.
#[utoipa::path(post, path = "/api/projects/{id}/undo", params(("id" = String, Path)), request_body = Based,
    responses((status = 200, body = ProjectView), (status = 409, body = RefusalBody)))]
pub async fn undo(
    State(app): State<App>,
    Path(id): Path<String>,
    Body(on): Body<Based>,
) -> Result<Json<ProjectView>, Refusal> {
    app.blocking(move |store| {
        let kept = store.undo(&id, on.based_on).map_err(|e| Refusal::from_store(store, e))?;
        view(store, &kept, None)
    })
    .await
}

/// Makes the change taken back last again.
#[utoipa::path(post, path = "/api/projects/{id}/redo", params(("id" = String, Path)), request_body = Based,
    responses((status = 200, body = ProjectView), (status = 409, body = RefusalBody)))]
pub async fn redo(
    State(app): State<App>,
    Path(id): Path<String>,
    Body(on): Body<Based>,
) -> Result<Json<ProjectView>, Refusal> {
    app.blocking(move |store| {
        let kept = store.redo(&id, on.based_on).map_err(|e| Refusal::from_store(store, e))?;
        view(store, &kept, None)
    })
    .await
}

/// A project that is laid, for what needs a lay.
pub(super) fn planned_and_laid(store: &Store, id: &str) -> Result<(Kept, Planned, Laid), Refusal> {
    let from_store = |e| Refusal::from_store(store, e);
    let kept = store.project(id).map_err(from_store)?;
    let planned = kept.project.plan().map_err(Refusal::fields)?;
    let laid = laid(store, id, &planned)
        .map_err(from_store)?
        .ok_or_else(|| Refusal::new(StatusCode::CONFLICT, "Nothing is laid yet: every part needs a cloth first."))?;
    Ok((kept, planned, laid))
}

/// One step at the table.
#[utoipa::path(get, path = "/api/projects/{id}/steps/{number}", params(("id" = String, Path), ("number" = usize, Path)),
    responses((status = 200, body = StepView), (status = 404, body = RefusalBody), (status = 409, body = RefusalBody)))]
pub async fn step(
    State(app): State<App>,
    Path((id, number)): Path<(String, usize)>,
) -> Result<Json<StepView>, Refusal> {
    app.blocking(move |store| {
        let (kept, planned, laid) = planned_and_laid(store, &id)?;
        let steps = cut_list(&laid.job, &laid.lay.cloths, &planned.draft.pieces, &planned.blocks);
        step_view(&kept.project, &laid, &planned, &steps, number).map(Json).ok_or_else(|| {
            Refusal::new(StatusCode::NOT_FOUND, format!("There is no step {number}: this plan has {}.", steps.len()))
        })
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
    /// `edge to edge`, `round templates` or `with stopped cuts`.
    pub cuts: String,
    pub drawing: Option<DrawingView>,
    /// The edits that choose it.
    pub edits: Vec<Edit>,
}

/// Other ways to lay it, each after a glance, with what differs.
#[utoipa::path(get, path = "/api/projects/{id}/alternatives", params(("id" = String, Path)),
    responses((status = 200, body = [Alternative]), (status = 409, body = RefusalBody)))]
pub async fn alternatives(State(app): State<App>, Path(id): Path<String>) -> Result<Json<Vec<Alternative>>, Refusal> {
    app.blocking(move |store| {
        let (kept, _, now) = planned_and_laid(store, &id)?;
        let project = &kept.project;
        let mut found = vec![alternative(project, &now, &now, "As it is", true, vec![])];
        for (name, edits) in other_ways(project) {
            let (other, _) = match with_edits(&Project { steps_done: 0, ..project.clone() }, &edits) {
                Ok(other) => other,
                Err(_) => continue,
            };
            let Ok(planned) = other.plan() else { continue };
            let Some(job) = planned.job else { continue };
            let key = job_key(&job);
            // The same job would be the same lay.
            if key == now.key {
                continue;
            }
            let kept_lay = store.lay(&id, &key).map_err(|e| Refusal::from_store(store, e))?;
            let Some(lay) = kept_lay.or_else(|| first_answer(&job, GLANCE)) else { continue };
            found.push(alternative(&other, &Laid { job, key, lay }, &now, name, false, edits));
        }
        Ok(Json(found))
    })
    .await
}

fn other_ways(project: &Project) -> Vec<(&'static str, Vec<Edit>)> {
    let lay = |field, value: &str| Edit::Lay { field, value: value.to_owned() };
    let mut ways = Vec::new();
    if project.lay.cuts == Cuts::Free {
        ways.push(("Edge to edge", vec![lay(LayField::Cuts, "through")]));
    } else {
        ways.push(("Cut freely", vec![lay(LayField::Cuts, "free")]));
    }
    let directed = project.cloths.iter().any(|c| c.print != Print::AllOver || c.nap);
    if project.lay.print_may_lie {
        ways.push(("Print stands up", vec![lay(LayField::PrintMayLie, "no")]));
    } else if directed {
        ways.push(("Any way up", vec![lay(LayField::PrintMayLie, "yes")]));
    }
    let notched =
        project.plan().is_ok_and(|p| p.draft.pieces.iter().any(|p| p.is_square_cut() && p.figure != Figure::Rectangle));
    if project.lay.in_notches {
        ways.push(("Corners cut last", vec![lay(LayField::InNotches, "no")]));
    } else if notched && project.lay.cuts == Cuts::Free {
        ways.push(("Small pieces in the corners", vec![lay(LayField::InNotches, "yes")]));
    }
    if planned_has(project, Part::Straps) && project.cloth_of(Part::Straps).is_some() {
        for (name, value, lie) in [
            ("Straps along", "along", StrapLie::Along),
            ("Straps across", "across", StrapLie::Across),
            ("Straps either way", "either", StrapLie::Either),
        ] {
            if project.lay.straps != lie {
                ways.push((name, vec![lay(LayField::Straps, value)]));
            }
        }
    }
    ways
}

fn alternative(project: &Project, laid: &Laid, now: &Laid, name: &str, chosen: bool, edits: Vec<Edit>) -> Alternative {
    let (length, was) = (laid.lay.bought(), now.lay.bought());
    let difference = match length.cmp(&was) {
        _ if !laid.lay.complete() => "does not fit".to_owned(),
        std::cmp::Ordering::Less => format!("−{}", show_bought(was - length, project.system)),
        std::cmp::Ordering::Equal => "same cloth".to_owned(),
        std::cmp::Ordering::Greater => format!("+{}", show_bought(length - was, project.system)),
    };
    // The cloth that takes most is the one worth looking at.
    let largest = laid.lay.cloths.iter().max_by_key(|c| c.placements.len());
    Alternative {
        name: name.to_owned(),
        chosen,
        bought: show_bought(length, project.system),
        cost: laid.lay.cost.show(),
        difference,
        cuts: match manner(&cut_list(&laid.job, &laid.lay.cloths, &[], &[])) {
            Manner::EdgeToEdge => "edge to edge",
            Manner::RoundTemplates => "round templates",
            Manner::Stopped => "with stopped cuts",
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
    responses((status = 200, body = [OtherWidths]), (status = 409, body = RefusalBody)))]
pub async fn other_widths(State(app): State<App>, Path(id): Path<String>) -> Result<Json<Vec<OtherWidths>>, Refusal> {
    app.blocking(move |store| {
        let (kept, _, laid) = planned_and_laid(store, &id)?;
        let (ruler, system) = (kept.project.ruler, kept.project.system);
        let bought = laid.lay.cloths.iter().filter(|c| laid.job.cloth(&c.cloth).is_some_and(|cloth| !cloth.owned));
        let all = bought
            .map(|c| OtherWidths {
                cloth: c.cloth.clone(),
                widths: buying::other_widths(&laid.job, &c.cloth, GLANCE)
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
