//! Where a piece lies on its print: the board on which it is placed, and what that costs.

use super::App;
use super::problem::{ApiError, ApiErrorBody, At};
use super::projects::{Otherwise, against, laid_otherwise, planned_and_laid};
use crate::view::{DrawingView, Measure};
use crate::work::SEVERAL_LAYS;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use bofta_core::project::{Edit, MotifAt, holds_on_print};
use bofta_formats::draw::print_board;
use serde::Serialize;
use utoipa::ToSchema;

/// From an edge of the piece to the middle of a motif.
#[derive(Debug, Serialize, ToSchema)]
pub struct MotifFrom {
    pub size: Measure,
    /// It stays in the middle, however large the piece becomes.
    pub middle: bool,
}

/// A piece over its print.
#[derive(Debug, Serialize, ToSchema)]
pub struct PrintBoardView {
    /// What the cloth is called.
    pub cloth: String,
    /// The print, larger than the board by `beyond` on every side.
    pub print: DrawingView,
    /// The piece as a window, as large as the board.
    pub over: DrawingView,
    /// Pixels to each side, and up and down: moved by that the print is the same; 0 where it is the same everywhere.
    pub beyond: (f64, f64),
    /// Pixels for one inch or centimetre.
    pub per_unit: f64,
    /// It has a place on the print; else the middle is shown, and it lies anywhere.
    pub placed: bool,
    /// From its left edge.
    pub across: MotifFrom,
    /// From its lower edge.
    pub up: MotifFrom,
    /// From its left and its lower edge to the middle of the face it makes, as they are typed.
    pub face_middle: Option<(String, String)>,
    /// What the place costs against lying anywhere, or would cost in the middle.
    pub costs: Option<String>,
    /// How many of it the cloth that is planned would hold, each in its place.
    pub holds: Option<String>,
}

/// The board on which a piece is placed on its print.
#[utoipa::path(get, path = "/api/projects/{id}/pieces/{piece}/print",
    params(("id" = String, Path), ("piece" = String, Path)),
    responses((status = 200, body = PrintBoardView), (status = 404, body = ApiErrorBody), (status = 409, body = ApiErrorBody)))]
pub async fn board(
    State(app): State<App>,
    At((id, piece)): At<(String, String)>,
) -> Result<Json<PrintBoardView>, ApiError> {
    app.blocking(SEVERAL_LAYS, move |work| {
        let (kept, planned, now) = planned_and_laid(work, &id)?;
        let project = &kept.project;
        let of = planned.draft.pieces.iter().find(|p| p.id == piece && p.when.is_laid());
        let of = of.ok_or_else(|| {
            ApiError::new(StatusCode::NOT_FOUND, format!("There is no piece “{piece}” that is cut from a cloth."))
        })?;
        let cloth = project.cloth_for(of);
        let (Some(cloth), Some(board)) = (cloth, print_board(project, of, 620.0, 440.0)) else {
            let message =
                format!("Bofta doesn’t know the print of the cloth {} is cut from. Measure one repeat of it.", of.name);
            return Err(ApiError::new(StatusCode::CONFLICT, message));
        };
        let place = project.on_print.get(&piece).filter(|_| project.motif_on(of).is_some());
        let (across, up) = place.map_or((MotifAt::Middle, MotifAt::Middle), |p| (p.across, p.up));
        let from = |at: MotifAt, size| MotifFrom {
            size: Measure::new(at.on(size), project.ruler),
            middle: at == MotifAt::Middle,
        };
        let (width, height) = of.size();
        let other = if place.is_some() { "" } else { "middle" };
        let edit = Edit::PlaceOnPrint { piece: piece.clone(), across: other.to_owned(), up: other.to_owned() };
        let costs = match laid_otherwise(work, &id, project, &[edit], &now)? {
            Otherwise::TheSame | Otherwise::NotLaid(_) => None,
            // Against lying anywhere, whichever of the two is planned.
            Otherwise::Laid(_, laid) if place.is_some() => Some(against(project, &now, &laid)),
            Otherwise::Laid(_, laid) => Some(against(project, &laid, &now)),
        };
        let holds = place.and_then(|_| holds_on_print(&now.job, &now.lay, &piece, work.stop()));
        Ok(Json(PrintBoardView {
            cloth: cloth.name.clone(),
            print: board.print.into(),
            over: board.over.into(),
            beyond: board.beyond,
            per_unit: board.per_unit,
            face_middle: board.face_middle.map(|(x, y)| (project.ruler.show(x).text, project.ruler.show(y).text)),
            placed: place.is_some(),
            across: from(across, width),
            up: from(up, height),
            costs,
            holds: holds.map(|n| match n {
                1 => format!("What is planned of {} holds one of it where the print falls right.", cloth.name),
                n => format!(
                    "What is planned of {} holds {n} of it where the print falls right, and nothing else.",
                    cloth.name
                ),
            }),
        }))
    })
    .await
}
