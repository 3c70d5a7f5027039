//! What is served while the database is damaged: one page that says so, and brings a copy back.

use super::guard::{Names, guard};
use super::problem::{ApiError, sentence};
use super::{assets, until_asked};
use axum::extract::{Form, State};
use axum::http::{HeaderMap, HeaderValue, Method, StatusCode, Uri, header};
use axum::response::{Html, IntoResponse, Response};
use axum::routing::post;
use bofta_store::backup::{Copied, copies, projects_in, restore};
use bofta_store::{Held, StoreError};
use serde::Deserialize;
use std::path::PathBuf;
use std::sync::Arc;
use tokio::net::TcpListener;
use tokio::sync::Notify;

/// A damaged database in a data folder that is held.
pub struct Rescue {
    pub held: Arc<Held>,
    pub folder: PathBuf,
    /// The database's file in it.
    pub name: String,
    /// What is wrong with it.
    pub why: String,
    restored: Notify,
}

impl Rescue {
    pub fn new(held: Arc<Held>, folder: PathBuf, name: &str, why: &StoreError) -> Arc<Self> {
        Arc::new(Self { held, folder, name: name.to_owned(), why: why.to_string(), restored: Notify::new() })
    }
}

/// Serves the page until a copy is restored (true) or the program is asked to end.
pub async fn serve(rescue: Arc<Rescue>, listener: TcpListener, names: Names) -> anyhow::Result<bool> {
    let router = axum::Router::new()
        .route("/restore", post(bring_back))
        .fallback(page)
        // A browser that kept its connection would go on seeing this page once the copy is in place.
        .layer(axum::middleware::map_response(|mut response: Response| async {
            response.headers_mut().insert(header::CONNECTION, HeaderValue::from_static("close"));
            response
        }))
        .layer(axum::middleware::from_fn_with_state(names, guard))
        .with_state(rescue.clone());
    tokio::select! {
        ended = until_asked(listener, router, || {}) => ended.map(|()| false),
        () = rescue.restored.notified() => {
            // The answer is still on its way.
            tokio::time::sleep(std::time::Duration::from_millis(300)).await;
            Ok(true)
        }
    }
}

async fn page(State(rescue): State<Arc<Rescue>>, method: Method, uri: Uri, headers: HeaderMap) -> Response {
    if uri.path().starts_with("/assets/") {
        return assets::serve(method, uri, headers).await;
    }
    if uri.path().starts_with("/api/") {
        let message = "The database is damaged. Open Bofta’s first page to restore a copy.";
        return ApiError::new(StatusCode::SERVICE_UNAVAILABLE, message).into_response();
    }
    let list = match copies(&rescue.folder) {
        Ok(copies) if copies.is_empty() => {
            "<p>There is no copy in the backup folder. If you keep one elsewhere, stop Bofta and run <code>bofta restore FILE</code>.</p>".to_owned()
        }
        Ok(copies) => format!("<ul>{}</ul>", copies.iter().map(entry).collect::<String>()),
        Err(e) => format!("<p>The copies cannot be listed: {}</p>", escaped(&e.to_string())),
    };
    let body = format!(
        "<h1>Your data is damaged</h1><p>{}</p><p>Nothing was changed. The damaged file is \
         <code>{}</code>; it is set aside under another name, not deleted, when a copy takes its place. Choose the \
         newest copy first; what was done after it was made is missing from it.</p>{list}",
        escaped(&sentence(&rescue.why)),
        escaped(&rescue.folder.join(&rescue.name).display().to_string()),
    );
    (StatusCode::SERVICE_UNAVAILABLE, Html(whole(&body, ""))).into_response()
}

#[derive(Deserialize)]
struct Wanted {
    copy: String,
}

async fn bring_back(State(rescue): State<Arc<Rescue>>, Form(wanted): Form<Wanted>) -> Response {
    let done = tokio::task::spawn_blocking({
        let rescue = rescue.clone();
        move || {
            // By its name among those there are: never a path that was sent.
            let all = copies(&rescue.folder)?;
            let copy = all.into_iter().find(|c| name_of(c) == wanted.copy).ok_or(StoreError::NotFound(wanted.copy))?;
            restore(&rescue.held, &rescue.folder, &rescue.name, &copy.path)
        }
    })
    .await;
    match done {
        Ok(Ok(_)) => {
            tracing::warn!("a copy was restored");
            rescue.restored.notify_one();
            let again = r#"<meta http-equiv="refresh" content="2; url=/">"#;
            let body = "<h1>The copy is restored</h1><p>The shelf opens in a moment; <a href=\"/\">go there</a>.</p>";
            Html(whole(body, again)).into_response()
        }
        Ok(Err(e)) => {
            let body = format!(
                "<h1>This copy can’t be used</h1><p>{}.</p><p><a href=\"/\">Back to the copies</a></p>",
                escaped(&e.to_string())
            );
            (StatusCode::CONFLICT, Html(whole(&body, ""))).into_response()
        }
        Err(e) => ApiError::internal(e).into_response(),
    }
}

fn name_of(copy: &Copied) -> String {
    copy.path.file_name().unwrap_or_default().to_string_lossy().into_owned()
}

fn entry(copy: &Copied) -> String {
    let name = escaped(&name_of(copy));
    let when = readable(name_of(copy).trim_start_matches("bofta-").trim_end_matches(".db"));
    format!(
        "<li><form method=\"post\" action=\"/restore\"><input type=\"hidden\" name=\"copy\" value=\"{name}\">\
         <span><strong>{when} (UTC)</strong>, {}, {} kB</span> <button>Restore this copy</button></form></li>",
        match projects_in(&copy.path) {
            Some(1) => "1 project".to_owned(),
            Some(n) => format!("{n} projects"),
            None => "cannot be read".to_owned(),
        },
        copy.bytes.div_ceil(1024)
    )
}

/// `2026-11-25T18-00-00.000` as `2026-11-25, 18:00`; any other name as it is.
fn readable(stamp: &str) -> String {
    match stamp.split_once('T').and_then(|(day, time)| Some((day, time.get(..5)?))) {
        Some((day, time)) => format!("{}, {}", escaped(day), escaped(time).replace('-', ":")),
        None => escaped(stamp),
    }
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}

/// A page of its own, in the colours of the house: the application's own screens need the database.
fn whole(body: &str, head: &str) -> String {
    const STYLE: &str = "body{background:#f4eee2;color:#1f2a44;font:17px/1.5 'Alegreya Sans',sans-serif;margin:0;padding:3rem 1.5rem}\
        main{max-width:44rem;margin:auto;background:#fffdf8;border:2px solid #a9412a;border-radius:4px;padding:1.5rem 2rem}\
        h1{font-size:1.7rem;margin:0 0 .5rem}code{background:#f4eee2;padding:.1em .3em;overflow-wrap:anywhere}\
        ul{list-style:none;padding:0}li{border-top:1px solid #d8cdb8;padding:.6rem 0}form{display:flex;flex-wrap:wrap;gap:.8rem;align-items:center;justify-content:space-between}\
        button{font:inherit;font-weight:700;color:#fffdf8;background:#a9412a;border:0;border-radius:4px;padding:.5rem 1rem;cursor:pointer}\
        :focus-visible{outline:3px solid #2f6f9f;outline-offset:2px}a{color:#2f6f9f}";
    format!(
        "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" \
         content=\"width=device-width, initial-scale=1\">{head}<title>Bofta: damaged</title><style>{STYLE}</style></head>\
         <body><main>{body}</main></body></html>"
    )
}
