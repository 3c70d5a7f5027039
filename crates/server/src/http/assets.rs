//! The application's own files, built into the program, packed once when they were built. A place inside the application
//! answers with its page; any other path is not there.

use super::problem::ApiError;
use axum::http::{HeaderMap, Method, StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Dist;

/// The first part of the paths that are places of the application.
const PLACES: [&str; 4] = ["", "cupboard", "drawer", "projects"];

pub(super) async fn serve(method: Method, uri: Uri, headers: HeaderMap) -> Response {
    if !matches!(method, Method::GET | Method::HEAD) {
        let refusal = ApiError::new(StatusCode::METHOD_NOT_ALLOWED, "Nothing can be changed at this address.");
        return ([(header::ALLOW, "GET, HEAD")], refusal).into_response();
    }
    let path = uri.path().trim_start_matches('/');
    let place = PLACES.contains(&path.split('/').next().unwrap_or_default()) && !path.contains('.');
    let path = if place { "index.html" } else { path };
    match file(path, &headers) {
        Some(response) => response,
        None if place => (StatusCode::NOT_FOUND, "The screens were not built into this program.").into_response(),
        None => ApiError::new(StatusCode::NOT_FOUND, "There is nothing at this address.").into_response(),
    }
}

/// The file, packed as the browser can take it.
fn file(path: &str, headers: &HeaderMap) -> Option<Response> {
    let accepted = headers.get(header::ACCEPT_ENCODING).and_then(|v| v.to_str().ok()).unwrap_or_default();
    let takes = |name: &str| {
        let mut all = accepted.split(',').map(|part| part.trim().split(';').map(str::trim).collect::<Vec<_>>());
        all.any(|part| part[0] == name && !part[1..].contains(&"q=0"))
    };
    let (encoding, file) = [("br", "br"), ("gzip", "gz")]
        .into_iter()
        .filter(|(name, _)| takes(name))
        .find_map(|(name, ending)| Some((Some(name), Dist::get(&format!("{path}.{ending}"))?)))
        .or_else(|| Some((None, Dist::get(path)?)))?;
    let kind = mime_guess::from_path(path).first_or_octet_stream();
    // Built files carry a hash in their names; the page itself must be asked for again.
    let cache = if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    let mut response =
        ([(header::CONTENT_TYPE, kind.as_ref()), (header::CACHE_CONTROL, cache)], file.data).into_response();
    response.headers_mut().insert(header::VARY, header::HeaderValue::from_static("accept-encoding"));
    if let Some(encoding) = encoding {
        response.headers_mut().insert(header::CONTENT_ENCODING, header::HeaderValue::from_static(encoding));
    }
    Some(response)
}
