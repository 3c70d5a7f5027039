//! The cupboard: cloths known to the house.

use super::App;
use super::ledger::{EntryView, now, told};
use super::own_cuts::said_in_sizes;
use super::problem::{ApiError, ApiErrorBody, Asked, At, Body};
use super::stretch::Stretch;
use crate::laying::Keep;
use crate::view::{Change, DrawingView, ProjectView};
use crate::work::{A_REQUEST, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::FieldProblem;
use bofta_core::cloth::{AtHand, HandForm, say_all, tell_all};
use bofta_core::ledger::What;
use bofta_core::measure::{Length, Ruler};
use bofta_core::name;
use bofta_core::project::{NotEntered, ProjectCloth, Wanted};
use bofta_formats::draw::{on_shelf, swatch};
use bofta_store::{StoreError, Which};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A cloth in the cupboard.
#[derive(Debug, Serialize, ToSchema)]
pub struct CupboardCloth {
    pub id: String,
    pub name: String,
    pub material: String,
    pub width: String,
    /// Where it is kept; empty where that is not said.
    pub place: String,
    /// What of it is there, drawn.
    pub things: Vec<CupboardThing>,
    /// The same, as it is typed.
    pub at_hand: String,
    /// What of it is there, if any.
    pub owned: Option<String>,
    /// What lies with bags, a line each.
    pub with_bags: Vec<String>,
    /// How many entries its ledger has.
    pub entries: u32,
    pub price: Option<String>,
    pub swatch: Option<DrawingView>,
    /// Why it cannot be used; its text can be saved all the same.
    pub unreadable: Option<String>,
}

/// One thing that is there of a cloth, or some alike.
#[derive(Debug, Serialize, ToSchema)]
pub struct CupboardThing {
    pub label: String,
    pub kind: ThingKind,
    /// Drawn at one scale with all that is in the cupboard.
    pub drawing: DrawingView,
    /// It holds what is looked for.
    pub holds: bool,
}

/// On which shelf it lies.
#[derive(Debug, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ThingKind {
    Length,
    Sheet,
    Scrap,
}

/// Pixels of an inch.
const SCALE: f64 = 3.4;

fn things(cloth: &ProjectCloth, ruler: Ruler, holding: &[usize]) -> Vec<CupboardThing> {
    let scale = SCALE / Length::INCH.0 as f64;
    let one = |(n, thing): (usize, &AtHand)| CupboardThing {
        label: thing.tell(ruler),
        kind: match thing.form {
            HandForm::Length { .. } => ThingKind::Length,
            HandForm::Sheet { .. } | HandForm::Tube { .. } => ThingKind::Sheet,
            HandForm::Scrap(_) => ThingKind::Scrap,
        },
        drawing: on_shelf(cloth, thing, &format!("shelf-{}-{n}", cloth.id), scale).into(),
        holds: holding.contains(&n),
    };
    cloth.at_hand.iter().enumerate().map(one).collect()
}

/// Which cloth of the cupboard, into a project at which revision.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Take {
    pub based_on: i64,
    /// Id in the cupboard.
    pub cloth: String,
}

fn shown(cloth: &ProjectCloth, holding: &[usize]) -> CupboardCloth {
    // The cupboard belongs to no project: lengths are told in the system they are whole in.
    let system = cloth.own_system();
    let ruler = Ruler::default_for(system);
    CupboardCloth {
        id: cloth.id.clone(),
        name: cloth.name.clone(),
        material: cloth.material.name().to_owned(),
        width: format!("{} {}", ruler.show(cloth.width).text, system.symbol()),
        place: cloth.place.clone(),
        things: things(cloth, ruler, holding),
        at_hand: say_all(&cloth.at_hand, system),
        owned: (!cloth.at_hand.is_empty()).then(|| tell_all(&cloth.at_hand, ruler)),
        with_bags: cloth
            .ledger
            .with_bags()
            .iter()
            .map(|(bag, things)| format!("{} with {}", tell_all(things.all(), ruler), bag.name))
            .collect(),
        entries: cloth.ledger.len() as u32,
        price: cloth.price.map(|p| {
            let per = if p.per == bofta_core::measure::Length::YARD { "a yard" } else { "a metre" };
            format!("{} {per}", p.amount.show())
        }),
        swatch: Some(swatch(cloth, &format!("cupboard-{}", cloth.id), 120.0, 72.0).into()),
        unreadable: None,
    }
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
        place: String::new(),
        things: vec![],
        at_hand: String::new(),
        owned: None,
        with_bags: vec![],
        entries: 0,
        price: None,
        swatch: None,
        unreadable: Some(why.to_string()),
    }
}

/// The cloths in the cupboard, a stretch of them: of those that are looked for, by name, stuff, place, colour, and by the
/// size that can be cut from one thing of them, `holds 12 x 9 in, green`.
#[utoipa::path(get, path = "/api/cupboard", params(Stretch),
    responses((status = 200, body = CupboardView), (status = 422, body = ApiErrorBody)))]
pub async fn cupboard(State(app): State<App>, Asked(asked): Asked<Stretch>) -> Result<Json<CupboardView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let from_store = |e| ApiError::from_store(work, e);
        let Looked { found, total, wanted } = look_for(work, &asked.find)?;
        let (number, here) = asked.part(found)?;
        let ids: Vec<String> = here.iter().filter(|f| f.cloth.is_none()).map(|f| f.id.clone()).collect();
        let read = work.store.cloths(&ids).map_err(from_store)?;
        let view = |one: &Found| {
            if let Some((cloth, holding)) = &one.cloth {
                return Some(shown(cloth, if wanted.size.is_some() { holding } else { &[] }));
            }
            let (_, cloth) = read.iter().find(|(id, _)| *id == one.id)?;
            Some(cloth.as_ref().map_or_else(|why| unreadable(&one.id, &one.name, why), |c| shown(c, &[])))
        };
        Ok(Json(CupboardView { cloths: here.iter().filter_map(view).collect(), found: number, total }))
    })
    .await
}

/// What was looked for, and what was found of so many.
struct Looked {
    found: Vec<Found>,
    total: u32,
    wanted: Wanted,
}

/// The cloths of the cupboard that `find` names: read, where they had to be for that.
fn look_for(work: &Work, find: &str) -> Result<Looked, ApiError> {
    let from_store = |e| ApiError::from_store(work, e);
    let wanted = Wanted::read(find).map_err(|problem| ApiError::fields(vec![problem]))?;
    let mut found: Vec<Found> = vec![];
    let total;
    if wanted == Wanted::default() {
        let all = work.store.cloth_names().map_err(from_store)?;
        total = all.len() as u32;
        found.extend(all.into_iter().map(|(id, name)| Found { id, name, cloth: None }));
    } else {
        let all = work.store.all_cloths().map_err(from_store)?;
        total = all.len() as u32;
        for (name, (id, cloth)) in all {
            match cloth {
                Ok(cloth) => {
                    if let Some(holding) = wanted.of(&cloth, work.stop()) {
                        found.push(Found { id, name, cloth: Some((cloth, holding.things)) });
                    }
                }
                // What cannot be read is found by its name alone.
                Err(_) if wanted.size.is_none() && has_all(&name, &wanted.words) => {
                    found.push(Found { id, name, cloth: None });
                }
                Err(_) => {}
            }
        }
    }
    if work.stop().asked() {
        let message = "This search takes too long. Add a name or a place.";
        return Err(ApiError::field("find", find, message));
    }
    Ok(Looked { found, total, wanted })
}

/// The cloths that `find` names of which something is there, at most `most` of them; where there are more, that is told.
/// One that cannot be read is none of them.
pub(super) fn found_cloths(work: &Work, find: &str, most: usize) -> Result<Vec<ProjectCloth>, ApiError> {
    let found = look_for(work, find)?.found;
    let ids: Vec<String> = found.iter().filter(|f| f.cloth.is_none()).map(|f| f.id.clone()).collect();
    let read = work.store.cloths(&ids).map_err(|e| ApiError::from_store(work, e))?;
    let known = found.into_iter().filter_map(|f| f.cloth).map(|(cloth, _)| cloth);
    let cloths: Vec<ProjectCloth> =
        known.chain(read.into_iter().filter_map(|(_, c)| c.ok())).filter(|c| !c.at_hand.is_empty()).collect();
    if cloths.len() > most {
        let message = format!(
            "That finds {} cloths. Bofta compares at most {most} at once. Search by place, colour or name.",
            cloths.len()
        );
        return Err(ApiError::field("find", find, message));
    }
    Ok(cloths)
}

/// One that is looked for; read already, with the things that hold the size, where it had to be read for that.
struct Found {
    id: String,
    name: String,
    cloth: Option<(ProjectCloth, Vec<usize>)>,
}

fn has_all(name: &str, words: &[String]) -> bool {
    let name = name.to_lowercase();
    words.iter().all(|w| name.contains(w))
}

/// A cloth that comes into the cupboard.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewCloth {
    pub name: String,
    /// Key of the material.
    pub material: String,
    /// `in` or `cm`: what its sizes are told in.
    pub system: String,
    /// What of it is there, as typed.
    pub at_hand: String,
    /// Where it is kept.
    #[serde(default)]
    pub place: String,
}

/// A change of a cloth in the cupboard.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CupboardEdit {
    pub what: What,
    /// Things as they are said, the number of an entry, or a place.
    pub value: String,
}

/// A new cloth in the cupboard.
#[utoipa::path(post, path = "/api/cupboard", request_body = NewCloth,
    responses((status = 200, body = CupboardCloth), (status = 422, body = ApiErrorBody)))]
pub async fn put_in(State(app): State<App>, Body(new): Body<NewCloth>) -> Result<Json<CupboardCloth>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let fields = |problem| ApiError::fields(vec![problem]);
        let known = work.store.cloth_names().map_err(|e| ApiError::from_store(work, e))?;
        let names: Vec<&str> = known.iter().map(|(_, name)| name.as_str()).collect();
        let system = super::cut_list::system_of(&new.system)?;
        let mut cloth = ProjectCloth::new_in_cupboard(&new.name, &new.material, system, &names).map_err(fields)?;
        let none = matches!(new.at_hand.trim(), "" | "none" | "0");
        let said = said_in_sizes(work, &new.at_hand)?;
        let there = (!none).then_some((What::PutIn, "at_hand", &said));
        for (what, field, value) in there.into_iter().chain([(What::Place, "place", &new.place)]) {
            let named = |p| fields(FieldProblem { field: field.into(), ..p });
            cloth = cloth.changed_in_cupboard(what, value, now()).map_err(named)?;
        }
        let name = cloth.name.clone();
        let kept = changed(work, Which::Called(&[&name]), |there| match there {
            [] => Ok(cloth),
            _ => Err(ApiError::field("name", &name, format!("There is a cloth “{name}” already."))),
        })?;
        Ok(Json(shown(&kept, &[])))
    })
    .await
}

/// The one cloth that `change` makes of those it finds, as it is kept.
fn changed(
    work: &Work,
    which: Which<'_>,
    change: impl FnOnce(&[ProjectCloth]) -> Result<ProjectCloth, ApiError>,
) -> Result<ProjectCloth, ApiError> {
    let kept = work.store.change_cloths(which, |there| Ok(vec![change(there)?]));
    kept.map_err(|e| ApiError::from_store(work, e))??.pop().ok_or_else(|| no_cloth(""))
}

/// Changes what is said of a cloth in the cupboard.
#[utoipa::path(post, path = "/api/cupboard/{id}", params(("id" = String, Path)), request_body = CupboardEdit,
    responses((status = 200, body = CupboardCloth), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn change_cloth(
    State(app): State<App>,
    At(id): At<String>,
    Body(edit): Body<CupboardEdit>,
) -> Result<Json<CupboardCloth>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let value = match edit.what {
            What::PutIn | What::ThrowAway | What::Correct => said_in_sizes(work, &edit.value)?,
            What::TakeBack | What::Place => edit.value,
        };
        let kept = changed(work, Which::Key(&id), |there| {
            let cloth = there.first().ok_or_else(|| no_cloth(&id))?;
            // What is typed here has one field.
            let named = |p| ApiError::fields(vec![FieldProblem { field: "value".into(), ..p }]);
            cloth.changed_in_cupboard(edit.what, &value, now()).map_err(named)
        })?;
        Ok(Json(shown(&kept, &[])))
    })
    .await
}

/// Every entry of a cloth's ledger, the newest first.
#[utoipa::path(get, path = "/api/cupboard/{id}/ledger", params(("id" = String, Path)),
    responses((status = 200, body = [EntryView]), (status = 404, body = ApiErrorBody)))]
pub async fn cloth_ledger(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<EntryView>>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let cloth = work.store.cloth(&id).map_err(|e| ApiError::from_store(work, e))?.ok_or_else(|| no_cloth(&id))?;
        let ruler = Ruler::default_for(cloth.own_system());
        Ok(Json(told(&cloth.ledger, |entry| cloth.tell_entry(entry, ruler))))
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

/// What cannot be entered in a ledger.
pub(super) fn not_entered(why: NotEntered) -> ApiError {
    ApiError::new(StatusCode::CONFLICT, why.to_string())
}

/// What keeping a cloth of a bag in the cupboard entered in its ledger.
#[derive(Debug, Serialize, ToSchema)]
pub struct Kept {
    /// An entry in words; none where what is there stays as it was.
    pub entered: Vec<String>,
}

/// Puts a project's cloth into the cupboard.
#[utoipa::path(post, path = "/api/projects/{id}/cloths/{cloth}/keep", params(("id" = String, Path), ("cloth" = String, Path)),
    responses((status = 200, body = Kept), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn keep(State(app): State<App>, At((id, cloth)): At<(String, String)>) -> Result<Json<Kept>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.project(&id)?;
        let Some(found) = kept.project.cloth(&cloth) else {
            let message = format!("There is no cloth “{}” in this project.", name::clean(&cloth));
            return Err(ApiError::new(StatusCode::NOT_FOUND, message));
        };
        let mut entries = 0;
        let next = changed(work, Which::Key(&found.id), |there| match there.first() {
            Some(known) => {
                entries = known.ledger.len();
                known.kept_from(found, &id, now()).map_err(not_entered)
            }
            None => Ok(found.clone().put_in_cupboard(now())),
        })?;
        let mut entered: Vec<String> =
            next.ledger.iter().skip(entries).map(|e| next.tell_entry(e, kept.project.ruler)).collect();
        let from_store = |e| ApiError::from_store(work, e);
        if work.store.cloths_in_the_drawer().map_err(from_store)?.iter().any(|c| c.id == next.id) {
            work.store.restore_cloth(&next.id).map_err(from_store)?;
            entered.push(format!("{} was in the drawer and is back in the cupboard", next.name));
        }
        Ok(Json(Kept { entered }))
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
        let (next, label) = before.with_cloth(&cloth).map_err(ApiError::fields)?;
        let kept = work.store.change(&id, take.based_on, &label, &next).map_err(from_store)?;
        work.view(&kept, Some(Change { before: &before, edits: &[] }), Keep::Yes)
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
