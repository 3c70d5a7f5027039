//! A scrap while it is drawn: what its corners and measured distances come to, and shapes to start from.

use super::App;
use super::problem::{ApiError, ApiErrorBody, At, Body};
use crate::view::ProblemView;
use crate::work::{A_REQUEST, Work};
use axum::Json;
use axum::extract::State;
use bofta_core::cloth::{Fit, Scrap, ScrapDraft, ScrapShape, between};
use bofta_core::measure::{Length, Ruler, System};
use serde::Serialize;
use utoipa::ToSchema;

/// A distance from corner to corner.
#[derive(Debug, Serialize, ToSchema)]
pub struct DistanceView {
    /// Counted from 0.
    pub from: usize,
    pub to: usize,
    /// `A–B`.
    pub name: String,
    /// What it is on the drawing.
    pub text: String,
}

/// What a drawing comes to.
#[derive(Debug, Serialize, ToSchema)]
pub struct ScrapDrawn {
    /// The drawing with its corners where the measured distances put them; as it was sent where there is a problem.
    pub draft: ScrapDraft,
    pub sides: Vec<DistanceView>,
    /// What fixes the shape further, as it can still shift.
    pub next: Option<DistanceView>,
    /// `21 × 17 in`.
    pub size: String,
    /// The largest rectangle it holds.
    pub holds: Option<String>,
    /// The size of each flaw, along the threads and across.
    pub flaws: Vec<String>,
    /// The most that what is measured differs from the drawing, where it does.
    pub off: Option<String>,
    /// Why it does not stand.
    pub problem: Option<ProblemView>,
}

/// A shape to start from.
#[derive(Debug, Serialize, ToSchema)]
pub struct ScrapShapeView {
    pub key: String,
    pub name: String,
    pub draft: ScrapDraft,
}

/// What a drawing of a scrap comes to in the measures of a project. Nothing is kept.
#[utoipa::path(post, path = "/api/projects/{id}/scrap-draft", params(("id" = String, Path)), request_body = ScrapDraft,
    responses((status = 200, body = ScrapDrawn), (status = 404, body = ApiErrorBody)))]
pub async fn drawn(
    State(app): State<App>,
    At(id): At<String>,
    Body(draft): Body<ScrapDraft>,
) -> Result<Json<ScrapDrawn>, ApiError> {
    app.blocking(A_REQUEST, move |work: &Work| {
        let project = work.project(&id)?.project;
        Ok(Json(view(draft, project.system, project.ruler)))
    })
    .await
}

fn view(draft: ScrapDraft, system: System, ruler: Ruler) -> ScrapDrawn {
    let show = |l: Length| ruler.show(l).text;
    match draft.read(String::new(), (system, ruler)) {
        Ok((scrap, fit)) => {
            let Fit { off, next, .. } = fit;
            let n = scrap.corners().len();
            let distance = |from: usize, to: usize| DistanceView {
                from,
                to,
                name: between(from, to),
                text: show(scrap.side(from, to).round_to(ruler.step())),
            };
            let (width, height) = scrap.outline.size();
            let two = |w: Length, h: Length| format!("{} × {} {}", show(h), show(w), system.symbol());
            let down = |l: Length| l.floor_to(ruler.step());
            ScrapDrawn {
                sides: (0..n).map(|k| distance(k, (k + 1) % n)).collect(),
                next: next.map(|(from, to)| distance(from, to)),
                size: two(width.round_to(ruler.step()), height.round_to(ruler.step())),
                flaws: scrap
                    .flaw_outlines()
                    .iter()
                    .map(|f| f.size())
                    .map(|(w, h)| format!("{} × {}", show(h), show(w)))
                    .collect(),
                holds: scrap.holds().map(|(w, h)| two(down(w), down(h))),
                off: (off > Length::ZERO).then(|| show(off)),
                draft: typed(&scrap, draft),
                problem: None,
            }
        }
        Err(problem) => ScrapDrawn {
            draft,
            sides: vec![],
            next: None,
            size: String::new(),
            holds: None,
            flaws: vec![],
            off: None,
            problem: Some(problem.into()),
        },
    }
}

/// The drawing with the corners of `scrap`; what was typed stays as it was typed.
fn typed(scrap: &Scrap, draft: ScrapDraft) -> ScrapDraft {
    let length = |from: usize, to: usize, n: usize| {
        // Corners may have been put the other way round.
        let round = |k: usize| n - 1 - k;
        let typed = |m: &&bofta_core::cloth::TypedDistance| !m.length.trim().is_empty() && (m.from, m.to) == (from, to);
        let turned = |m: &&bofta_core::cloth::TypedDistance| (m.from, m.to) == (round(from), round(to));
        draft.measured.iter().find(typed).or_else(|| draft.measured.iter().find(turned)).map(|m| m.length.clone())
    };
    let n = scrap.corners().len();
    let mut now = scrap.draft(System::Inches);
    for (typed, kept) in now.measured.iter_mut().zip(&scrap.measured) {
        typed.length = length(kept.from, kept.to, n).unwrap_or_else(|| typed.length.clone());
    }
    now
}

/// Shapes to start a drawing from, in the measures of a project.
#[utoipa::path(get, path = "/api/projects/{id}/scrap-shapes", params(("id" = String, Path)),
    responses((status = 200, body = [ScrapShapeView]), (status = 404, body = ApiErrorBody)))]
pub async fn shapes(State(app): State<App>, At(id): At<String>) -> Result<Json<Vec<ScrapShapeView>>, ApiError> {
    app.blocking(A_REQUEST, move |work: &Work| {
        let unit = match work.project(&id)?.project.system {
            System::Inches => Length::INCH,
            System::Centimetres => Length::CENTIMETRE * 2 + Length::MILLIMETRE * 5,
        };
        let view = |shape: ScrapShape| ScrapShapeView {
            key: crate::view::key(&shape),
            name: shape.name().to_owned(),
            draft: ScrapDraft { corners: shape.corners(unit * 16, unit * 12, None), ..ScrapDraft::default() },
        };
        Ok(Json(ScrapShape::ALL.map(view).into()))
    })
    .await
}
