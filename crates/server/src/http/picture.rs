//! Scraps traced from a picture, and the stand-in for the camera over the table that takes such pictures.

use super::App;
use super::problem::{ApiError, ApiErrorBody, Asked, At};
use super::upload::Upload;
use crate::work::A_SHEET;
use axum::Json;
use axum::extract::State;
use axum::http::header;
use axum::response::IntoResponse;
use bofta_core::as_sentence;
use bofta_core::cloth::{Flaw, FlawKind, ScrapDraft};
use bofta_core::measure::{Length, parse_length};
use bofta_picture::camera::{jpeg, table};
use bofta_picture::{Marks, NotTraced, Outlined, Reference, trace};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// The largest picture that is read, in bytes: a dozen megapixels are a third of it.
pub(super) const MOST_PICTURE: usize = 32 << 20;

/// What is known of the picture.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PictureQuery {
    /// Four corners in pixels, upper left, upper right, lower right, lower left: `12,30 990,28 1010,700 4,690`.
    marks: String,
    /// How wide what is marked is, as typed.
    width: String,
    /// How tall.
    height: String,
    /// How close the outlines are to be told, as typed; empty for 1.5 mm.
    #[serde(default)]
    tolerance: String,
}

/// A scrap that was seen.
#[derive(Debug, Serialize, ToSchema)]
pub struct SeenScrap {
    pub draft: ScrapDraft,
    /// Its corners on the picture, in pixels.
    pub on_picture: Vec<PictureMark>,
    /// `21 × 17 in` over all.
    pub size: String,
    /// The largest rectangle it holds.
    pub holds: Option<String>,
    /// Small places that look like the mat and are taken as print.
    pub specks: usize,
}

/// A place on a picture, in pixels from its upper left.
#[derive(Debug, Serialize, ToSchema)]
pub struct PictureMark {
    pub x: f64,
    pub y: f64,
}

/// All that was seen on a picture.
#[derive(Debug, Serialize, ToSchema)]
pub struct SeenView {
    /// Largest first.
    pub scraps: Vec<SeenScrap>,
    /// Scraps that reach over the edge of what is marked, and are left out.
    pub cut_off: usize,
    /// Something else than the mat is seen along the rim: a mark may be off its corner.
    pub rim: bool,
    /// How close the outlines are told.
    pub tolerance: String,
}

/// The scraps on a picture; nothing is kept.
#[utoipa::path(post, path = "/api/projects/{id}/picture", params(("id" = String, Path), PictureQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = SeenView), (status = 404, body = ApiErrorBody), (status = 413, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn scraps_of_picture(
    State(app): State<App>,
    At(id): At<String>,
    Asked(query): Asked<PictureQuery>,
    Upload(bytes): Upload<MOST_PICTURE>,
) -> Result<Json<SeenView>, ApiError> {
    app.blocking(A_SHEET, move |work| {
        let project = work.project(&id)?.project;
        let (system, ruler) = (project.system, project.ruler);
        let size = |field: &str, text: &str| {
            parse_length(text, system).map_err(|e| ApiError::field(field, text, as_sentence(e)))
        };
        let tolerance = match query.tolerance.trim() {
            "" => Length::tenth_mm(15),
            text => size("tolerance", text)?,
        };
        if !(Length::tenth_mm(3)..=Length::CENTIMETRE * 3).contains(&tolerance) {
            let message = "An outline is told to between 0.3 mm and 3 cm.";
            return Err(ApiError::field("tolerance", &query.tolerance, message));
        }
        let (width, height) = (size("width", &query.width)?, size("height", &query.height)?);
        let reference = Reference { marks: marks(&query.marks)?, width, height };
        let _turn = work.turn()?;
        let seen = trace(&bytes, &reference, tolerance).map_err(refused)?;
        let show = |l: Length| ruler.show(l.round_to(ruler.step())).text;
        let scraps =
            seen.scraps.iter().map(|one| scrap(one, &|w, h| format!("{} × {} {}", show(h), show(w), system.symbol())));
        let told = format!("{} mm", (seen.tolerance.0 as f64 / Length::MILLIMETRE.0 as f64 * 10.0).round() / 10.0);
        Ok(Json(SeenView { scraps: scraps.collect(), cut_off: seen.cut_off, rim: seen.rim, tolerance: told }))
    })
    .await
}

fn scrap(one: &Outlined, two: &dyn Fn(Length, Length) -> String) -> SeenScrap {
    let holes = one.holes.iter().map(|corners| Flaw { kind: FlawKind::Hole, corners: corners.clone() });
    let draft = ScrapDraft { corners: one.corners.clone(), flaws: holes.collect(), ..ScrapDraft::default() };
    // A finer ruler than any: what is seen need not lie on a line of it.
    let read =
        draft.read(String::new(), (bofta_core::measure::System::Centimetres, bofta_core::measure::Ruler::Millimetre));
    let (width, height) = read.as_ref().map_or((Length::ZERO, Length::ZERO), |(s, _)| s.outline.size());
    SeenScrap {
        on_picture: one.on_picture.iter().map(|&(x, y)| PictureMark { x, y }).collect(),
        size: two(width, height),
        holds: read.ok().and_then(|(s, _)| s.holds()).map(|(w, h)| two(w, h)),
        specks: one.specks,
        draft,
    }
}

pub(super) fn marks(text: &str) -> Result<Marks, ApiError> {
    let problem = || ApiError::field("marks", text, "Four corners are given, each as across,down in pixels.");
    let place = |pair: &str| {
        let (x, y) = pair.split_once(',')?;
        Some((x.parse().ok()?, y.parse().ok()?))
    };
    let all: Option<Vec<(f64, f64)>> = text.split_whitespace().map(place).collect();
    all.and_then(|all| Marks::try_from(all).ok()).ok_or_else(problem)
}

pub(super) fn refused(why: NotTraced) -> ApiError {
    let field = match why {
        NotTraced::MarksOutside | NotTraced::MarksCross | NotTraced::TooFar => "marks",
        NotTraced::KnownSize => "width",
        _ => "picture",
    };
    ApiError::field(field, "", why.to_string())
}

/// The next picture of the camera that stands in for one over the table: the same number is the same picture.
#[utoipa::path(get, path = "/api/camera/{number}", params(("number" = u64, Path)),
    responses((status = 200, content_type = "image/jpeg")))]
pub async fn camera(State(app): State<App>, At(number): At<u64>) -> Result<impl IntoResponse, ApiError> {
    let bytes = app
        .blocking(A_SHEET, move |work| {
            let _turn = work.turn()?;
            Ok(jpeg(&table(number).shot().picture, 90))
        })
        .await?;
    Ok(([(header::CONTENT_TYPE, "image/jpeg")], bytes))
}
