//! HTTP: the JSON interface under `/api`, the search's event stream, the printed sheets, and the application's files.

mod assets;
mod choices;
mod claims;
mod cupboard;
mod cut_list;
mod document;
mod drawer;
mod files;
mod from_store;
pub mod guard;
mod ledger;
mod left_of;
mod left_over;
mod makes;
mod notions;
mod on_print;
mod own_cuts;
mod picture;
pub mod problem;
mod projects;
pub mod rescue;
mod scraps;
mod search;
mod stretch;
mod swatch;
mod tries;
mod upload;
mod ways_out;

use crate::work::{Turns, Work};
use axum::Router;
use axum::http::StatusCode;
use bofta_store::Store;
use guard::Names;
use hyper::server::conn::http1::Builder;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use std::sync::Arc;
use std::time::Duration;
use tokio::net::TcpListener;
use tower_http::compression::CompressionLayer;
use tower_http::timeout::RequestBodyTimeoutLayer;
use tower_http::trace::TraceLayer;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

/// How long open answers may go on once the program is asked to end.
const TO_FINISH: Duration = Duration::from_millis(1_500);

/// How long the head of a request may take, and how long a body may stand still: what is sent by halves is ended.
const HALF_SENT: Duration = Duration::from_secs(5);

/// What every handler has.
#[derive(Clone)]
struct App {
    store: Store,
    turns: Arc<Turns>,
}

impl App {
    /// Runs blocking work off the async threads, for `limit` at most and no longer than somebody waits for it.
    async fn blocking<T, F>(&self, limit: Duration, work: F) -> Result<T, problem::ApiError>
    where
        T: Send + 'static,
        F: FnOnce(&Work) -> Result<T, problem::ApiError> + Send + 'static,
    {
        let (budget, _waiting) = Work::new(self.store.clone(), &self.turns, limit);
        tokio::task::spawn_blocking(move || work(&budget)).await.map_err(problem::ApiError::internal)?
    }
}

fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(document::begun())
        .routes(routes!(projects::list, projects::create))
        .routes(routes!(projects::read, projects::archive))
        .routes(routes!(drawer::restore_project))
        .routes(routes!(projects::edit))
        .routes(routes!(projects::preview))
        .routes(routes!(projects::undo))
        .routes(routes!(projects::redo))
        .routes(routes!(projects::step))
        .routes(routes!(projects::making))
        .routes(routes!(projects::alternatives))
        .routes(routes!(projects::turns))
        .routes(routes!(on_print::board))
        .routes(routes!(tries::tries))
        .routes(routes!(claims::of_project))
        .routes(routes!(claims::of_cupboard))
        .routes(routes!(makes::makes, makes::begin))
        .routes(routes!(projects::other_widths))
        .routes(routes!(ways_out::ways))
        .routes(routes!(picture::scraps_of_picture))
        .routes(routes!(picture::camera))
        .routes(routes!(swatch::take_swatch))
        .routes(routes!(swatch::picture))
        .routes(routes!(swatch::camera_over_cloth))
        .routes(routes!(scraps::drawn))
        .routes(routes!(scraps::shapes))
        .routes(routes!(left_over::show, left_over::put_back, left_over::take_out))
        .routes(routes!(left_over::waste))
        .routes(routes!(ways_out::largest_size))
        .routes(routes!(cut_list::families))
        .routes(routes!(cut_list::text))
        .routes(routes!(cut_list::file))
        .routes(routes!(cupboard::cupboard, cupboard::put_in))
        .routes(routes!(cupboard::change_cloth))
        .routes(routes!(cupboard::cloth_ledger))
        .routes(routes!(own_cuts::own_cuts, own_cuts::keep_own_cut))
        .routes(routes!(own_cuts::forget_own_cut))
        .routes(routes!(claims::lay_aside))
        .routes(routes!(left_of::left_by_others, left_of::take_left))
        .routes(routes!(cupboard::keep))
        .routes(routes!(notions::notions, notions::put_notion_in))
        .routes(routes!(notions::change_notion, notions::forget_notion))
        .routes(routes!(notions::notions_for))
        .routes(routes!(notions::lay_notion_with))
        .routes(routes!(cupboard::take))
        .routes(routes!(cupboard::archive_cloth))
        .routes(routes!(choices::choices))
        .routes(routes!(drawer::drawer))
        .routes(routes!(drawer::restore_cloth))
        .routes(routes!(drawer::throw_project_away))
        .routes(routes!(drawer::throw_cloth_away))
        .routes(routes!(cupboard::cloth_document))
}

/// The OpenAPI document, from the code.
pub fn openapi_json() -> String {
    document::completed(api().into_openapi()).to_pretty_json().unwrap_or_default()
}

fn router(app: App, names: Names) -> Router {
    let (api, document) = api().split_for_parts();
    // The event stream stays uncompressed, so that every event leaves at once.
    let compressed = api.merge(files::routes()).layer(CompressionLayer::new());
    let document = document::completed(document).to_pretty_json().unwrap_or_default();
    let openapi = axum::routing::get(move || async move { ([("content-type", "application/json")], document) });
    Router::new()
        .merge(compressed)
        .merge(search::routes())
        .route("/api/openapi.json", openapi)
        .route("/api/{*rest}", axum::routing::any(nothing_there))
        .method_not_allowed_fallback(wrong_method)
        .fallback(assets::serve)
        .layer(TraceLayer::new_for_http())
        .layer(axum::middleware::from_fn_with_state(names, guard::guard))
        .with_state(app)
}

async fn nothing_there() -> problem::ApiError {
    problem::ApiError::new(StatusCode::NOT_FOUND, "There is nothing at this address.")
}

async fn wrong_method() -> problem::ApiError {
    problem::ApiError::new(StatusCode::METHOD_NOT_ALLOWED, "This address does not take that method.")
}

/// Serves until the program is asked to end; then what is open has a moment to finish.
pub async fn serve(store: Store, listener: TcpListener, names: Names) -> anyhow::Result<()> {
    let turns = Turns::new();
    let app = App { store, turns: turns.clone() };
    let router = router(app, names);
    until_asked(listener, router, move || turns.close()).await
}

/// Serves `router` by HTTP/1.1; once the program is asked to end, calls `closing` and waits a moment for what is open.
pub async fn until_asked(listener: TcpListener, router: Router, closing: impl FnOnce()) -> anyhow::Result<()> {
    let (asked, mut heard) = tokio::sync::watch::channel(false);
    let serving = async {
        let router = router.layer(RequestBodyTimeoutLayer::new(HALF_SENT));
        let mut connections = Builder::new();
        connections.timer(TokioTimer::new()).header_read_timeout(HALF_SENT);
        let open = GracefulShutdown::new();
        loop {
            let accepted = tokio::select! {
                accepted = listener.accept() => accepted,
                _ = heard.wait_for(|asked| *asked) => break,
            };
            let Ok((stream, _)) = accepted else {
                // Too many are open: those that end make room.
                tokio::time::sleep(Duration::from_millis(50)).await;
                continue;
            };
            let _ = stream.set_nodelay(true);
            let service = TowerToHyperService::new(router.clone());
            let connection = connections.serve_connection(TokioIo::new(stream), service);
            let connection = open.watch(connection);
            // A connection that breaks off concerns nobody else.
            tokio::spawn(async move { drop(connection.await) });
        }
        open.shutdown().await;
    };
    let ending = async {
        asked_to_end().await;
        tracing::info!("asked to end");
        closing();
        let _ = asked.send(true);
        tokio::time::sleep(TO_FINISH).await;
    };
    tokio::select! {
        () = serving => {}
        () = ending => {}
    }
    Ok(())
}

/// Ctrl-C, or the system's request to end.
async fn asked_to_end() {
    let Ok(mut terminate) = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate()) else {
        return std::future::pending().await;
    };
    tokio::select! {
        // Without a handler for the signal the process simply ends on it.
        _ = tokio::signal::ctrl_c() => {}
        _ = terminate.recv() => {}
    }
}
