//! What to do when the cloth runs short, and how large the bag can be from what there is.

use super::App;
use super::problem::{ApiError, ApiErrorBody, At};
use super::projects::{Otherwise, laid_otherwise, planned_and_laid};
use crate::laying::Laid;
use crate::work::{SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::buying::{headline, shown_names};
use bofta_core::cloth::Money;
use bofta_core::measure::{Length, show_bought};
use bofta_core::project::{Edit, Project, Tried, largest, ways_out};
use serde::Serialize;
use std::cell::RefCell;
use utoipa::ToSchema;

/// One way out.
#[derive(Debug, Serialize, ToSchema)]
pub struct WayOut {
    pub name: String,
    /// Every piece lies somewhere then.
    pub whole: bool,
    /// What it costs, or what it still leaves out.
    pub told: String,
    /// The edits that take it.
    pub edits: Vec<Edit>,
}

/// A bag of the size that comes from what there is.
#[derive(Debug, Serialize, ToSchema)]
pub struct SizedView {
    /// In hundredths of what it is now; nothing when it does not come at half its size either.
    pub percent: Option<u32>,
    /// What the bag is then.
    pub bag: String,
    /// What keeps it from being larger, a sentence.
    pub limited: String,
    pub edits: Vec<Edit>,
}

/// Ways out of a plan that leaves pieces out, each tried for a moment: those that lay every piece first, cheapest first,
/// then those that leave out less. Empty when nothing is left out.
#[utoipa::path(get, path = "/api/projects/{id}/ways-out", params(("id" = String, Path)),
    responses((status = 200, body = [WayOut]), (status = 409, body = ApiErrorBody)))]
pub async fn ways(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<WayOut>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let (kept, planned, now) = planned_and_laid(work, &id)?;
        let project = &kept.project;
        if now.lay.complete() || project.steps_done > 0 {
            return Ok(Json(vec![]));
        }
        let left_out = |laid: &Laid| laid.lay.unplaced.iter().map(|u| u.count).sum::<u32>();
        let before = left_out(&now);
        let mut found: Vec<((u32, Money, Length), WayOut)> = vec![];
        for way in ways_out(project, &planned, &now.lay) {
            match laid_otherwise(work, &id, project, &way.edits, &now)? {
                Otherwise::TheSame => {}
                // Not ruled out, and so not left out: it stands last.
                Otherwise::NotLaid(_) => {
                    let told = "not fully tried in a quick look".to_owned();
                    let order = (u32::MAX, Money(0), Length::ZERO);
                    found.push((order, WayOut { name: way.name, whole: false, told, edits: way.edits }));
                }
                Otherwise::Laid(_, laid) => {
                    let left = left_out(&laid);
                    if left < before {
                        let more = laid.job.bought(&laid.lay) - now.job.bought(&now.lay);
                        let cost = Money(laid.lay.cost.0 - now.lay.cost.0);
                        let told = told(project, &laid, (more, cost));
                        found.push((
                            (left, cost, more),
                            WayOut { name: way.name, whole: left == 0, told, edits: way.edits },
                        ));
                    }
                }
            }
        }
        found.sort_by_key(|(order, _)| *order);
        Ok(Json(found.into_iter().map(|(_, way)| way).collect()))
    })
    .await
}

/// What a way buys `more` than now at what `cost`, and what it still leaves out.
fn told(project: &Project, laid: &Laid, (more, cost): (Length, Money)) -> String {
    let price = if cost.0 > 0 { project.money(cost) } else { "its price is not known".to_owned() };
    let buys = if more > Length::ZERO {
        format!("{} more to buy, {price}", show_bought(more, project.system))
    } else {
        "nothing more to buy".to_owned()
    };
    match headline(&laid.job, &laid.lay) {
        Some(missing) => format!("{buys}; still {missing}"),
        None => buys,
    }
}

/// The largest bag of these proportions that comes from what there is, each size tried for a moment.
#[utoipa::path(get, path = "/api/projects/{id}/largest", params(("id" = String, Path)),
    responses((status = 200, body = SizedView), (status = 409, body = ApiErrorBody)))]
pub async fn largest_size(State(app): State<App>, At(id): At<String>) -> Result<Json<SizedView>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let (kept, _, now) = planned_and_laid(work, &id)?;
        let project = &kept.project;
        let failed = RefCell::new(None);
        let sized = largest(|percent| {
            try_size(work, &id, project, &now, percent).unwrap_or_else(|error| {
                failed.replace(Some(error));
                Tried::NoBag
            })
        });
        if let Some(error) = failed.into_inner() {
            return Err(error);
        }
        Ok(Json(match sized {
            Some(sized) => {
                let edits = if sized.percent == 100 { vec![] } else { vec![Edit::Scale { percent: sized.percent }] };
                let bag = scaled(project, sized.percent).map_or_else(String::new, |p| p.bag.headline(p.ruler));
                let limited = match sized.limits.as_slice() {
                    [] => "Bofta doesn’t look for a larger size.".to_owned(),
                    names => format!("Any larger, and {} doesn’t fit.", shown_names(names)),
                };
                SizedView { percent: Some(sized.percent), bag, limited, edits }
            }
            None => SizedView {
                percent: None,
                bag: String::new(),
                limited: "Even at half size, this is not enough cloth.".to_owned(),
                edits: vec![],
            },
        }))
    })
    .await
}

fn scaled(project: &Project, percent: u32) -> Option<Project> {
    project.uncut().edited(&Edit::Scale { percent }).ok().map(|(scaled, _)| scaled)
}

fn try_size(work: &Work, id: &str, project: &Project, now: &Laid, percent: u32) -> Result<Tried, ApiError> {
    let of = |laid: &Laid| match laid.lay.unplaced.as_slice() {
        [] => Tried::Whole,
        left => Tried::Short(
            left.iter().filter_map(|u| laid.job.piece(&u.piece)).map(|p| p.name.clone()).collect::<Vec<_>>(),
        ),
    };
    if percent == 100 {
        return Ok(of(now));
    }
    Ok(match laid_otherwise(work, id, project, &[Edit::Scale { percent }], now)? {
        Otherwise::Laid(_, laid) => of(&laid),
        Otherwise::TheSame => Tried::NoBag,
        // Whether it fits is not known then, and nothing is said of it.
        Otherwise::NotLaid(why) => {
            let message = format!("Bofta couldn’t work out the largest size in a quick look: {why}.");
            return Err(ApiError::new(StatusCode::CONFLICT, message));
        }
    })
}
