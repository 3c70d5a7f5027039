//! HTTP: the JSON interface under `/api`, the search's event stream, the printed sheets, and the application's files.

mod assets;
mod cupboard;
mod cut_list;
mod files;
mod problem;
mod projects;
mod search;
mod upload;

use anyhow::Context as _;
use axum::Router;
use bofta_store::Store;
use std::net::SocketAddr;
use tower_http::compression::CompressionLayer;
use tower_http::trace::TraceLayer;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

#[derive(OpenApi)]
#[openapi(info(title = "Bofta", description = "The server's interface to its own application."))]
struct Document;

/// What every handler has.
#[derive(Clone)]
struct App {
    store: Store,
}

impl App {
    /// Runs blocking work off the async threads.
    async fn blocking<T, F>(&self, work: F) -> Result<T, problem::Refusal>
    where
        T: Send + 'static,
        F: FnOnce(&Store) -> Result<T, problem::Refusal> + Send + 'static,
    {
        let store = self.store.clone();
        tokio::task::spawn_blocking(move || work(&store)).await.map_err(problem::Refusal::internal)?
    }
}

fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Document::openapi())
        .routes(routes!(projects::list, projects::create))
        .routes(routes!(projects::read, projects::put_away))
        .routes(routes!(projects::restore))
        .routes(routes!(projects::edit))
        .routes(routes!(projects::preview))
        .routes(routes!(projects::undo))
        .routes(routes!(projects::redo))
        .routes(routes!(projects::step))
        .routes(routes!(projects::alternatives))
        .routes(routes!(projects::other_widths))
        .routes(routes!(cut_list::families))
        .routes(routes!(cut_list::text))
        .routes(routes!(cut_list::file))
        .routes(routes!(cupboard::cupboard))
        .routes(routes!(cupboard::keep))
        .routes(routes!(cupboard::take))
        .routes(routes!(cupboard::drop_cloth))
}

/// The OpenAPI document, from the code.
pub fn openapi_json() -> String {
    api().into_openapi().to_pretty_json().unwrap_or_default()
}

fn router(app: App) -> Router {
    let (api, document) = api().split_for_parts();
    // The event stream stays uncompressed, so that every event leaves at once.
    let compressed = api.merge(files::routes()).layer(CompressionLayer::new());
    let document = document.to_pretty_json().unwrap_or_default();
    let openapi = axum::routing::get(move || async move { ([("content-type", "application/json")], document) });
    Router::new()
        .merge(compressed)
        .merge(search::routes())
        .route("/api/openapi.json", openapi)
        .fallback(assets::serve)
        .layer(TraceLayer::new_for_http())
        .with_state(app)
}

/// Serves until interrupted.
pub async fn serve(store: Store, listen: SocketAddr) -> anyhow::Result<()> {
    let listener = tokio::net::TcpListener::bind(listen).await.with_context(|| format!("cannot listen on {listen}"))?;
    println!("Bofta is at http://{}", listener.local_addr()?);
    axum::serve(listener, router(App { store }))
        .with_graceful_shutdown(async {
            // Without a handler for the signal the process simply ends on it.
            let _ = tokio::signal::ctrl_c().await;
        })
        .await?;
    Ok(())
}
