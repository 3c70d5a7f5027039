//! Ways of dressing the bag, held beside each other: each drawn, with what it takes and costs.

use super::App;
use super::problem::{ApiError, ApiErrorBody, At};
use super::projects::{against, at_a_glance, is_a_glance};
use crate::laying::{Laid, job_key};
use crate::view::DrawingView;
use crate::work::{SEVERAL_LAYS, Work};
use axum::Json;
use axum::extract::State;
use bofta_core::piece::Part;
use bofta_core::project::{Project, ProjectCloth, Try, bought_text, cost_text};
use bofta_formats::draw;
use serde::Serialize;
use utoipa::ToSchema;

/// A bag dressed one way.
#[derive(Debug, Serialize, ToSchema)]
pub struct TryView {
    /// What it is called; empty of how the bag is dressed now, where that is not kept.
    pub name: String,
    /// The bag is dressed so now.
    pub chosen: bool,
    pub drawing: DrawingView,
    /// `Moss canvas: outer, straps`, a line for each cloth that a part of this bag comes from first.
    pub cloths: Vec<String>,
    /// What it takes, if it can be laid.
    pub bought: String,
    pub cost: String,
    /// What it changes against now; empty of that itself, and where one of both is not laid.
    pub difference: String,
    /// It was looked at for a moment only: a search may find better.
    pub glance: bool,
    /// What keeps it from being cut as it is, in a sentence.
    pub lacks: Option<String>,
}

/// The ways that are kept, and how the bag is dressed now, the first of them.
#[utoipa::path(get, path = "/api/projects/{id}/tries", params(("id" = String, Path)),
    responses((status = 200, body = [TryView]), (status = 404, body = ApiErrorBody)))]
pub async fn tries(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<TryView>>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let project = work.project(&id)?.project.uncut();
        let now = Dressed::of(work, &id, &project, 0)?;
        let kept = |t: &&Try| project.is_dressed_as(t);
        let name = project.tries.iter().find(kept).map_or_else(String::new, |t| t.name.clone());
        let mut found = vec![now.view(name, true, None, 0)];
        for (n, one) in project.tries.iter().enumerate().filter(|(_, t)| !project.is_dressed_as(t)) {
            let dressed = Dressed::of(work, &id, &project.dressed_as(one), n + 1)?;
            found.push(dressed.view(one.name.clone(), false, now.laid.as_ref().ok(), project.gone_from(one)));
        }
        Ok(Json(found))
    })
    .await
}

/// A project in some cloths: drawn, and laid if it can be.
struct Dressed {
    project: Project,
    /// What this bag has.
    parts: Vec<Part>,
    drawing: DrawingView,
    laid: Result<Laid, String>,
}

impl Dressed {
    fn of(work: &Work, id: &str, project: &Project, n: usize) -> Result<Self, ApiError> {
        let planned = project.plan().map_err(ApiError::fields)?;
        let has = |part: &Part| planned.draft.pieces.iter().any(|p| p.part == *part && p.when.is_laid());
        let parts = Part::ALL.into_iter().filter(has).collect();
        let drawing = draw::bag(project, &planned.draft, 960.0, 400.0).drawing.keyed(&format!("try-{n}"));
        let laid = match planned.job {
            Some(job) => {
                let key = job_key(&job);
                at_a_glance(work, id, job, key)?
            }
            None => Err(match (planned.unassigned.as_slice(), planned.problems.first()) {
                ([], Some(problem)) => problem.message.clone(),
                ([], None) => "There is nothing to lay yet.".to_owned(),
                (parts, _) => {
                    let names: Vec<String> = parts.iter().map(|p| p.name().to_lowercase()).collect();
                    format!("No cloth yet for {}.", names.join(", "))
                }
            }),
        };
        Ok(Self { project: project.clone(), parts, drawing: drawing.into(), laid })
    }

    fn view(&self, name: String, chosen: bool, now: Option<&Laid>, gone: usize) -> TryView {
        let project = &self.project;
        let of = |cloth: &ProjectCloth| -> Option<String> {
            let from = |part: &&Part| project.cloth_of(**part).is_some_and(|c| c.id == cloth.id);
            let parts: Vec<String> = self.parts.iter().filter(from).map(|p| p.name().to_lowercase()).collect();
            (!parts.is_empty()).then(|| format!("{}: {}", cloth.name, parts.join(", ")))
        };
        let laid = self.laid.as_ref();
        let lacks = match (gone, laid) {
            (0, Err(why)) => Some(why.clone()),
            (0, Ok(laid)) if !laid.lay.complete() => Some("Some pieces don’t fit.".to_owned()),
            (0, Ok(_)) => None,
            (1, _) => Some("One of its cloths is no longer in this project.".to_owned()),
            (n, _) => Some(format!("{n} of its cloths are no longer in this project.")),
        };
        TryView {
            name,
            chosen,
            cloths: project.cloths.iter().filter_map(of).collect(),
            bought: laid.map_or_else(|_| String::new(), |l| bought_text(project, &l.lay)),
            cost: laid.map_or_else(|_| String::new(), |l| cost_text(project, &l.lay)),
            difference: match (laid, now) {
                (Ok(laid), Some(now)) => against(project, laid, now),
                _ => String::new(),
            },
            glance: laid.is_ok_and(|l| is_a_glance(&l.lay)),
            lacks,
            drawing: self.drawing.clone(),
        }
    }
}
