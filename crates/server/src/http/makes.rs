//! What could be made of what is in the cupboard: the usual bags and the bags on the shelf, tried in nothing but the cloths
//! that were found.

use super::App;
use super::cupboard::found_cloths;
use super::problem::{ApiError, ApiErrorBody, Asked, Body};
use super::projects::new_id;
use crate::laying::{FIRST, Keep, first_answer};
use crate::view::{DrawingView, ProjectView};
use crate::work::{A_REQUEST, SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use bofta_core::bag::Family;
use bofta_core::buying::shown_names;
use bofta_core::lay::{Job, Lay};
use bofta_core::measure::System;
use bofta_core::name;
use bofta_core::project::{MadeOf, Project, ProjectCloth, SIZES, largest_of, may_hold};
use bofta_formats::draw;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Cloths that are looked at together at most.
const MOST_CLOTHS: usize = 40;

/// Of which cloths.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct Of {
    /// As it is looked for in the cupboard; empty for all of them.
    #[serde(default)]
    pub find: String,
}

/// Which bag.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
pub enum Which {
    /// The usual one of a family, by its key.
    Usual(String),
    /// One on the shelf, by its id.
    Shelf(String),
}

/// A bag that could be made.
#[derive(Debug, Serialize, ToSchema)]
pub struct Make {
    pub which: Which,
    /// The project's name, or the family's.
    pub name: String,
    /// What it is, with its sizes.
    pub bag: String,
    /// In hundredths of its own size.
    pub percent: u32,
    pub drawing: DrawingView,
    /// `Marrow check: outer, straps`, a line for each cloth that is cut.
    pub cloths: Vec<String>,
    /// What none of the cloths suits, and so is bought: a sentence; empty where nothing is.
    pub besides: String,
}

/// What could be made.
#[derive(Debug, Serialize, ToSchema)]
pub struct MakesView {
    /// Of how many cloths.
    pub cloths: u32,
    /// At their own size first.
    pub makes: Vec<Make>,
    /// The names of those that do not come from them, not at half their size either.
    pub not: Vec<String>,
    /// The names of those that were not tried to the end.
    pub untried: Vec<String>,
}

/// What to begin.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Begin {
    /// As it was looked for.
    pub find: String,
    pub which: Which,
    pub percent: u32,
}

/// The usual bags and those on the shelf that come from the cloths found, each tried for a moment; smaller where they do
/// not come at their own size.
#[utoipa::path(get, path = "/api/cupboard/makes", params(Of),
    responses((status = 200, body = MakesView), (status = 422, body = ApiErrorBody)))]
pub async fn makes(State(app): State<App>, Asked(of): Asked<Of>) -> Result<Json<MakesView>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let cloths = found_cloths(work, &of.find, MOST_CLOTHS)?;
        let mut view = MakesView { cloths: cloths.len() as u32, makes: vec![], not: vec![], untried: vec![] };
        if cloths.is_empty() {
            return Ok(Json(view));
        }
        for (which, name) in candidates(work)? {
            if work.stop().asked() {
                view.untried.push(name);
                continue;
            }
            // One that cannot be read says so on the shelf.
            let Ok(project) = of_which(work, &which, &cloths) else { continue };
            let Some(made) = project.made_of(&cloths) else {
                view.not.push(name);
                continue;
            };
            match size_of(work, &made)? {
                Fits::At(percent, laid) => {
                    let n = view.makes.len();
                    view.makes.extend(shown(which, &made, percent, (&laid.0, &laid.1), n));
                }
                Fits::Not => view.not.push(name),
                Fits::Unknown => view.untried.push(name),
            }
        }
        view.makes.sort_by_key(|make| std::cmp::Reverse(make.percent));
        Ok(Json(view))
    })
    .await
}

/// Begins a bag that could be made: a project of its own, cut from those cloths.
#[utoipa::path(post, path = "/api/cupboard/makes", request_body = Begin,
    responses((status = 200, body = ProjectView), (status = 404, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn begin(State(app): State<App>, Body(begin): Body<Begin>) -> Result<Json<ProjectView>, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let cloths = found_cloths(work, &begin.find, MOST_CLOTHS)?;
        let project = of_which(work, &begin.which, &cloths)?;
        if !SIZES.contains(&begin.percent) {
            let sizes = SIZES.map(|s| s.to_string()).join(", ");
            let message = format!("You can start a bag at one of these sizes, in percent: {sizes}.");
            return Err(ApiError::field("percent", begin.percent, message));
        }
        let made = project.made_of(&cloths).and_then(|made| made.project.at_size(begin.percent));
        let Some(mut made) = made else {
            return Err(ApiError::field("find", &begin.find, "You no longer have enough cloth for this bag."));
        };
        let name = match &begin.which {
            Which::Usual(_) => format!("{} from the cupboard", project.name),
            Which::Shelf(_) => format!("{}, from the cupboard", project.name),
        };
        // A name that is as long as it may be stays what it is.
        if name.chars().count() <= name::MOST_LETTERS {
            made.name = name;
        }
        let kept = work.store.create(&new_id(&made.name), &made).map_err(|e| ApiError::from_store(work, e))?;
        work.view(&kept, None, Keep::Yes)
    })
    .await
}

/// The bag that is meant: a usual one is measured as most of `cloths` are.
fn of_which(work: &Work, which: &Which, cloths: &[ProjectCloth]) -> Result<Project, ApiError> {
    match which {
        Which::Shelf(id) => Ok(work.project(id)?.project),
        Which::Usual(key) => {
            let unknown = || ApiError::field("which", key, format!("“{}” is not a kind of bag.", name::clean(key)));
            let (family, system) = (Family::of(key).ok_or_else(unknown)?, system_of(cloths));
            Ok(Project { bag: family.default_for(system), ..Project::new(family.name(), system) })
        }
    }
}

/// What most of the cloths are measured in.
fn system_of(cloths: &[ProjectCloth]) -> System {
    let inches = cloths.iter().filter(|c| c.own_system() == System::Inches).count();
    if inches * 2 >= cloths.len() { System::Inches } else { System::Centimetres }
}

/// What is tried, by name: the bags on the shelf, then the usual ones; each is read when its turn comes. A list of one's own
/// has no usual one, and a tube is found, not cut.
fn candidates(work: &Work) -> Result<Vec<(Which, String)>, ApiError> {
    let named = work.store.named().map_err(|e| ApiError::from_store(work, e))?;
    let shelf = named.into_iter().map(|named| (Which::Shelf(named.id), named.name));
    let families = Family::ALL.iter().filter(|f| !matches!(f, Family::CutList | Family::FoundTube));
    let usual = families.map(|f| (Which::Usual(f.key().to_owned()), f.name().to_owned()));
    Ok(shelf.chain(usual).collect())
}

/// Whether a bag comes from what is there.
enum Fits {
    At(u32, Box<(Job, Lay)>),
    Not,
    /// It was not tried to the end.
    Unknown,
}

fn size_of(work: &Work, made: &MadeOf) -> Result<Fits, ApiError> {
    let (mut found, mut unknown) = (None, false);
    let percent = largest_of(|percent| {
        let job = made.project.at_size(percent).and_then(|p| p.plan().ok()).and_then(|planned| planned.job);
        let Some(job) = job.filter(may_hold) else { return Ok(false) };
        let turn = work.turn()?;
        let answer = first_answer(&job, FIRST, work.stop());
        drop(turn);
        match answer {
            Ok(lay) if lay.complete() => {
                found = Some((percent, (job, lay)));
                Ok(true)
            }
            Ok(_) => Ok(false),
            Err(_) => {
                unknown = true;
                Ok(false)
            }
        }
    })?;
    Ok(match (percent, found) {
        (Some(percent), Some((at, laid))) if at == percent => Fits::At(percent, Box::new(laid)),
        _ if unknown || work.stop().asked() => Fits::Unknown,
        _ => Fits::Not,
    })
}

fn shown(which: Which, made: &MadeOf, percent: u32, (job, lay): (&Job, &Lay), n: usize) -> Option<Make> {
    let project = made.project.at_size(percent)?;
    let planned = project.plan().ok()?;
    let line = |cloth: &ProjectCloth| -> Option<String> {
        let on = lay.cloths.iter().filter(|on| project.cloth(&on.cloth).is_some_and(|c| c.id == cloth.id));
        let ids: Vec<&str> = on.flat_map(|on| &on.placements).map(|p| p.piece.as_str()).collect();
        let mut parts: Vec<String> = vec![];
        for piece in planned.draft.pieces.iter().filter(|p| ids.contains(&p.id.as_ref())) {
            let part = piece.part.name().to_lowercase();
            if !parts.contains(&part) {
                parts.push(part);
            }
        }
        (!parts.is_empty() && !cloth.is_bought()).then(|| format!("{}: {}", cloth.name, parts.join(", ")))
    };
    // A list of one's own is drawn by no bag: by what lies on its first cloth.
    let key = format!("make-{n}");
    let laid = || lay.cloths.first().and_then(|on| draw::thumbnail(&project, job, on, 960.0, 400.0, &key));
    let drawing = match project.bag.body.family() {
        Family::CutList => laid()?,
        _ => draw::bag(&project, &planned.draft, 960.0, 400.0).drawing.keyed(&key),
    };
    let besides: Vec<String> = made.besides.iter().map(|p| p.name().to_lowercase()).collect();
    Some(Make {
        which,
        name: project.name.clone(),
        bag: project.bag.headline(project.ruler),
        percent,
        drawing: drawing.into(),
        cloths: project.cloths.iter().filter_map(line).collect(),
        besides: if besides.is_empty() {
            String::new()
        } else {
            format!("You also have to buy {}.", shown_names(&besides))
        },
    })
}
