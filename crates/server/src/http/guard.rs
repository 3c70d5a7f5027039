//! Who may ask: only pages this program served, under names that are its own. docs/trust.md has the list of threats.
//!
//! Host is checked against rebinding of names (a page of a hostile site whose name is made to mean this machine); Origin
//! and `Sec-Fetch-Site` (W3C Fetch Metadata) against requests that pages of other origins make this browser send.

use super::problem::ApiError;
use axum::extract::{Request, State};
use axum::http::uri::Authority;
use axum::http::{HeaderMap, HeaderName, HeaderValue, Method, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use std::sync::Arc;

/// The names this server answers to.
#[derive(Clone, Debug)]
pub struct Names(Arc<[String]>);

impl Names {
    /// The loopback's, and those that were added.
    pub fn new(added: &[String]) -> Self {
        let own = ["localhost", "127.0.0.1", "[::1]"].map(str::to_owned);
        Self(own.into_iter().chain(added.iter().map(|n| n.to_lowercase())).collect())
    }

    fn has(&self, authority: &Authority) -> bool {
        let host = authority.host().to_lowercase();
        self.0.iter().any(|name| *name == host || format!("[{name}]") == host)
    }
}

/// Refuses what is asked under another name or by a page of another origin.
pub async fn guard(State(names): State<Names>, request: Request, next: Next) -> Response {
    let refused = match check(&names, &request) {
        Ok(()) => None,
        Err(refusal) => {
            tracing::warn!(method = %request.method(), path = request.uri().path(), why = refusal.message(), "refused");
            Some(refusal.into_response())
        }
    };
    let (method, path) = (request.method().clone(), request.uri().path().to_owned());
    let mut response = match refused {
        Some(response) => response,
        None => {
            let response = next.run(request).await;
            if response.status().is_client_error() || response.status().is_server_error() {
                tracing::info!(%method, path, status = response.status().as_u16(), "refused");
            }
            response
        }
    };
    protect(response.headers_mut(), path.starts_with("/api/"));
    response
}

fn check(names: &Names, request: &Request) -> Result<(), ApiError> {
    let headers = request.headers();
    let text = |name: HeaderName| headers.get(name).and_then(|v| v.to_str().ok());
    let host = text(header::HOST).or(request.uri().authority().map(Authority::as_str)).unwrap_or_default();
    let host: Authority = host.parse().map_err(|_| wrong_name(host))?;
    if !names.has(&host) {
        return Err(wrong_name(host.as_str()));
    }
    if !request.uri().path().starts_with("/api/") && matches!(*request.method(), Method::GET | Method::HEAD) {
        return Ok(());
    }
    let elsewhere = || {
        let message = "Another site’s page asked for this. Bofta answers its own pages only.";
        Err(ApiError::new(StatusCode::FORBIDDEN, message))
    };
    // `none` is an address typed by hand; `same-site` is another port of this machine.
    if !matches!(text(HeaderName::from_static("sec-fetch-site")), None | Some("same-origin" | "none")) {
        return elsewhere();
    }
    match text(header::ORIGIN) {
        None => Ok(()),
        Some(origin) if origin.split_once("://").is_some_and(|(_, from)| from == host.as_str()) => Ok(()),
        Some(_) => elsewhere(),
    }
}

fn wrong_name(host: &str) -> ApiError {
    let shown: String = bofta_core::name::clean(host).chars().take(100).collect();
    let message =
        format!("“{shown}” is not a name of this server. Names besides localhost are added with --host NAME.");
    ApiError::new(StatusCode::MISDIRECTED_REQUEST, message)
}

/// What every answer tells the browser it may do with it.
fn protect(headers: &mut HeaderMap, data: bool) {
    // Without a referrer at all a browser would send forms of these pages as from nowhere (Origin: null).
    // Styles may stand in elements: drawings and dialogs set them. Scripts may not, and nothing comes from outside.
    const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; \
        font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";
    let fixed: [(HeaderName, &'static str); 5] = [
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::X_FRAME_OPTIONS, "DENY"),
        (header::REFERRER_POLICY, "same-origin"),
        (HeaderName::from_static("cross-origin-resource-policy"), "same-origin"),
        (HeaderName::from_static("cross-origin-opener-policy"), "same-origin"),
    ];
    for (name, value) in fixed {
        headers.insert(name, HeaderValue::from_static(value));
    }
    if !headers.contains_key(header::CONTENT_SECURITY_POLICY) {
        headers.insert(header::CONTENT_SECURITY_POLICY, HeaderValue::from_static(POLICY));
    }
    if data {
        headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
    }
}
