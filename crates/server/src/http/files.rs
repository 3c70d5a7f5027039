//! Files to take away: the cut sheet as PDF, a lay as SVG, the cut list as CSV, the job and the lay in the open formats.

use super::App;
use super::problem::{ApiError, At};
use super::projects::{planned_and_laid, planned_and_perhaps_laid};
use crate::work::{A_REQUEST, A_SHEET, Work};
use axum::Router;
use axum::extract::State;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use bofta_formats::cut_table::CutTable;
use bofta_formats::sheet::{self, SheetError};
use bofta_formats::{csv, draw, outlines, write_job, write_lay};

pub(super) fn routes() -> Router<App> {
    Router::new()
        .route("/api/projects/{id}/cut-sheet.pdf", get(cut_sheet))
        .route("/api/projects/{id}/making-sheet.pdf", get(making_sheet))
        .route("/api/projects/{id}/cut-list.csv", get(cut_list))
        .route("/api/projects/{id}/cut-list.xlsx", get(cut_list_xlsx))
        .route("/api/projects/{id}/outlines.dxf", get(outlines_dxf))
        .route("/api/projects/{id}/outlines.svg", get(outlines_svg))
        .route("/api/projects/{id}/document.json", get(document))
        .route("/api/projects/{id}/job.json", get(job))
        .route("/api/projects/{id}/lay.json", get(lay))
        .route("/api/projects/{id}/lay/{cloth}", get(lay_svg))
}

fn file(kind: &'static str, name: &str, data: impl Into<Vec<u8>>) -> Response {
    let inline = format!("inline; filename=\"{name}\"");
    // Opened on its own, nothing in it runs and nothing is fetched.
    let policy = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox".to_owned();
    let headers = [
        (header::CONTENT_TYPE, kind.to_owned()),
        (header::CONTENT_DISPOSITION, inline),
        (header::CONTENT_SECURITY_POLICY, policy),
    ];
    (headers, data.into()).into_response()
}

async fn cut_sheet(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_SHEET, move |work| {
        let (kept, planned, laid) = planned_and_laid(work, &id)?;
        let _turn = work.turn()?;
        let pdf = sheet::cut_sheet(&kept.project, &planned, &laid.job, &laid.lay, (&pictures(work), work.stop()));
        on_paper("cut-sheet.pdf", pdf)
    })
    .await
}

async fn making_sheet(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_SHEET, move |work| {
        let (kept, planned, laid) = planned_and_perhaps_laid(work, &id)?;
        let _turn = work.turn()?;
        let laid = laid.as_ref().map(|l| (&l.job, &l.lay));
        let pdf = sheet::making_sheet(&kept.project, &planned, laid, (&pictures(work), work.stop()));
        on_paper("making-sheet.pdf", pdf)
    })
    .await
}

/// The pictures of cloths that are kept. One that cannot be had is drawn in the colour of its ground.
fn pictures(work: &Work) -> impl Fn(&str) -> Option<Vec<u8>> + Send + Sync {
    let store = work.store.clone();
    move |key| store.picture(key).ok().flatten()
}

fn on_paper(name: &str, pdf: Result<Vec<u8>, SheetError>) -> Result<Response, ApiError> {
    let pdf = pdf.map_err(|e| match e {
        e @ SheetError::OutOfTime { .. } => ApiError::field(name, "", format!("{e}.")),
        fault => ApiError::internal(fault),
    })?;
    Ok(file("application/pdf", name, pdf))
}

async fn cut_list(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        Ok(file("text/csv; charset=utf-8", "cut-list.csv", csv::cut_list(&cut_table(work, &id)?)))
    })
    .await
}

async fn cut_list_xlsx(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let book = cut_table(work, &id)?.to_xlsx().map_err(ApiError::internal)?;
        Ok(file("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "cut-list.xlsx", book))
    })
    .await
}

/// The cut list as a table; where there is a layout, it says what does not fit.
fn cut_table(work: &Work, id: &str) -> Result<CutTable, ApiError> {
    let (kept, planned, laid) = planned_and_perhaps_laid(work, id)?;
    Ok(CutTable::of(&kept.project, &planned, laid.as_ref().map(|l| &l.lay)))
}

async fn outlines_dxf(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.project(&id)?;
        let planned = kept.project.plan().map_err(ApiError::fields)?;
        let dxf = outlines::write_dxf(&planned.draft.pieces, kept.project.system).map_err(ApiError::internal)?;
        Ok(file("image/vnd.dxf", "outlines.dxf", dxf))
    })
    .await
}

async fn outlines_svg(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let kept = work.project(&id)?;
        let planned = kept.project.plan().map_err(ApiError::fields)?;
        Ok(file("image/svg+xml", "outlines.svg", outlines::write_svg(&planned.draft.pieces)))
    })
    .await
}

/// The text the project is kept as, whether it can be read or not.
async fn document(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let text = work.store.document(&id).map_err(|e| ApiError::from_store(work, e))?;
        Ok(file("application/json", "project.json", text))
    })
    .await
}

async fn job(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let (_, _, laid) = planned_and_laid(work, &id)?;
        Ok(file("application/json", "job.json", write_job(&laid.job)))
    })
    .await
}

async fn lay(State(app): State<App>, At(id): At<String>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let (_, _, laid) = planned_and_laid(work, &id)?;
        Ok(file("application/json", "lay.json", write_lay(&laid.job, &laid.lay, 0.0)))
    })
    .await
}

async fn lay_svg(State(app): State<App>, At((id, cloth)): At<(String, String)>) -> Result<Response, ApiError> {
    app.blocking(A_REQUEST, move |work| {
        let (kept, _, laid) = planned_and_laid(work, &id)?;
        let wanted = cloth.trim_end_matches(".svg");
        let drawing = laid
            .lay
            .cloths
            .iter()
            .find(|c| c.cloth == wanted)
            .and_then(|c| draw::cloth_lay(&kept.project, &laid.job, c, 960.0, 500.0, "file"));
        match drawing {
            Some(drawing) => {
                Ok(file("image/svg+xml", "lay.svg", draw::with_pictures(&drawing.to_svg(), &pictures(work))))
            }
            None => Err(ApiError::new(StatusCode::NOT_FOUND, format!("Nothing is laid on a cloth “{wanted}”."))),
        }
    })
    .await
}
