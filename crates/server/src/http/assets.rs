//! The application's own files, built into the program. Any other path is a place inside the application.

use axum::http::{StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Dist;

pub(super) async fn serve(uri: Uri) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path.starts_with("api/") {
        return (
            StatusCode::NOT_FOUND,
            axum::Json(serde_json::json!({ "message": "There is nothing at this address." })),
        )
            .into_response();
    }
    let (path, file) = match Dist::get(path) {
        Some(file) if !path.is_empty() => (path, file),
        _ => match Dist::get("index.html") {
            Some(file) => ("index.html", file),
            None => return (StatusCode::NOT_FOUND, "The screens were not built into this program.").into_response(),
        },
    };
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Built files carry a hash in their names; the page itself must be asked for again.
    let cache = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    ([(header::CONTENT_TYPE, kind.as_ref()), (header::CACHE_CONTROL, cache)], file.data).into_response()
}
