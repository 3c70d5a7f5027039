//! Pictures of cloths: taken from a photo, kept, and given to whoever draws with them.

use super::App;
use super::picture::{MOST_PICTURE, marks, refused};
use super::problem::{ApiError, ApiErrorBody, Asked, At};
use super::upload::Upload;
use crate::pictures::keep_print;
use crate::work::{A_REQUEST, A_SHEET};
use axum::Json;
use axum::extract::State;
use axum::http::{StatusCode, header};
use axum::response::IntoResponse;
use bofta_core::as_sentence;
use bofta_core::measure::{Ruler, System, parse_length};
use bofta_core::project::Swatch;
use bofta_picture::camera::{jpeg, printed};
use bofta_picture::{Reference, print_of};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// What is known of the picture.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct SwatchQuery {
    /// Four corners of what is marked, as for a picture of scraps.
    marks: String,
    /// How wide what is marked is, as typed.
    width: String,
    /// How tall.
    height: String,
    /// The system it is typed in: `in` or `cm`.
    #[param(value_type = String)]
    system: System,
    /// What is marked is one repeat of the print.
    #[serde(default)]
    one_repeat: bool,
}

/// A picture of a cloth as a look has it, and the colours it has most of.
#[derive(Debug, Serialize, ToSchema)]
pub struct SwatchTaken {
    pub picture: Swatch,
    /// `#rrggbb`.
    pub ground: String,
    /// The one that stands out from it most.
    pub figure: String,
}

/// Takes the print of a cloth from a picture; a look can name it from then on.
#[utoipa::path(post, path = "/api/swatches", params(SwatchQuery),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = SwatchTaken), (status = 413, body = ApiErrorBody), (status = 422, body = ApiErrorBody)))]
pub async fn take_swatch(
    State(app): State<App>,
    Asked(query): Asked<SwatchQuery>,
    Upload(bytes): Upload<MOST_PICTURE>,
) -> Result<Json<SwatchTaken>, ApiError> {
    app.blocking(A_SHEET, move |work| {
        let system = query.system;
        let ruler = Ruler::default_for(system);
        let size = |field: &str, text: &str| {
            parse_length(text, system).map_err(|e| ApiError::field(field, text, as_sentence(e)))
        };
        let (width, height) = (size("width", &query.width)?, size("height", &query.height)?);
        let mut picture = Swatch { key: String::new(), width, height, one_repeat: query.one_repeat };
        picture.check_sizes(ruler).map_err(|p| ApiError::fields(vec![p]))?;
        let reference = Reference { marks: marks(&query.marks)?, width, height };
        let taken = {
            let _turn = work.turn()?;
            print_of(&bytes, &reference, query.one_repeat).map_err(refused)?
        };
        let kept = keep_print(&work.store, &taken).map_err(|e| ApiError::from_store(work, e))?;
        picture.key = kept.key;
        Ok(Json(SwatchTaken { picture, ground: kept.ground, figure: kept.figure }))
    })
    .await
}

/// A picture of a cloth. Under one key it is always the same.
#[utoipa::path(get, path = "/api/pictures/{key}", params(("key" = String, Path)),
    responses((status = 200, content_type = "image/jpeg"), (status = 404, body = ApiErrorBody)))]
pub async fn picture(State(app): State<App>, At(key): At<String>) -> Result<impl IntoResponse, ApiError> {
    let found = app
        .blocking(A_REQUEST, move |work| work.store.picture(&key).map_err(|e| ApiError::from_store(work, e)))
        .await?
        .ok_or_else(|| ApiError::new(StatusCode::NOT_FOUND, "This picture is no longer stored."))?;
    Ok(([(header::CONTENT_TYPE, "image/jpeg"), (header::CACHE_CONTROL, "private, max-age=31536000, immutable")], found))
}

/// The next printed cloth before the camera that stands in for one over the table.
#[utoipa::path(get, path = "/api/camera/cloth/{number}", params(("number" = u64, Path)),
    responses((status = 200, content_type = "image/jpeg")))]
pub async fn camera_over_cloth(State(app): State<App>, At(number): At<u64>) -> Result<impl IntoResponse, ApiError> {
    let bytes = app
        .blocking(A_SHEET, move |work| {
            let _turn = work.turn()?;
            Ok(jpeg(&printed(number).shot().picture, 90))
        })
        .await?;
    Ok(([(header::CONTENT_TYPE, "image/jpeg")], bytes))
}
