//! The search as a stream of server-sent events: each better lay, progress, and why it ended. Closing the stream stops
//! the search; what it had found is kept.

use super::App;
use super::problem::Refusal;
use super::projects::planned_and_laid;
use crate::laying::{Laid, better};
use crate::view::{LayView, lay_view};
use axum::Router;
use axum::extract::{Path, Query, State};
use axum::http::StatusCode;
use axum::response::Sse;
use axum::response::sse::{Event, KeepAlive};
use axum::routing::get;
use bofta_core::cutting::cut_list;
use bofta_core::lay::{Budget, Lay, Observer, solve, verify};
use bofta_core::project::{Planned, Project};
use bofta_store::Store;
use serde::{Deserialize, Serialize};
use std::convert::Infallible;
use std::ops::ControlFlow;
use std::time::{Duration, Instant};
use tokio::sync::mpsc::{Sender, channel};
use tokio_stream::Stream;
use tokio_stream::StreamExt;
use tokio_stream::wrappers::ReceiverStream;

/// A lay or a progress line leaves at most this often.
const EVERY: Duration = Duration::from_millis(100);

#[derive(Deserialize)]
struct Wanted {
    seconds: Option<f64>,
}

#[derive(Serialize)]
struct ProgressEvent {
    iterations: u64,
    seconds: f64,
}

#[derive(Serialize)]
struct DoneEvent {
    proven: bool,
    iterations: u64,
    seconds: f64,
}

pub(super) fn routes() -> Router<App> {
    Router::new().route("/api/projects/{id}/search", get(search))
}

async fn search(
    State(app): State<App>,
    Path(id): Path<String>,
    Query(wanted): Query<Wanted>,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, Refusal> {
    let seconds = wanted.seconds.unwrap_or(20.0).clamp(0.1, 600.0);
    let read = id.clone();
    let (kept, planned, laid) = app.blocking(move |store| planned_and_laid(store, &read)).await?;
    if kept.project.steps_done > 0 {
        return Err(Refusal::new(StatusCode::CONFLICT, "Cutting has begun: the lay stays as it is."));
    }
    let (sender, receiver) = channel(16);
    let store = app.store.clone();
    tokio::task::spawn_blocking(move || {
        let mut run = Run {
            store,
            id,
            project: kept.project,
            planned,
            best: laid,
            sender,
            start: Instant::now(),
            limit: Duration::from_secs_f64(seconds),
            told: Instant::now() - EVERY,
            unsent: false,
            gone: false,
        };
        run.search();
    });
    Ok(Sse::new(ReceiverStream::new(receiver).map(Ok)).keep_alive(KeepAlive::default()))
}

struct Run {
    store: Store,
    id: String,
    project: Project,
    planned: Planned,
    best: Laid,
    sender: Sender<Event>,
    start: Instant,
    limit: Duration,
    told: Instant,
    unsent: bool,
    gone: bool,
}

impl Run {
    fn search(&mut self) {
        let job = self.best.job.clone();
        self.unsent = true;
        let found = solve(&job, Budget::endless(), self);
        if let Ok(lay) = &found {
            self.take(lay);
        }
        self.send_lay();
        let iterations = found.map_or(0, |l| l.iterations);
        let done = DoneEvent { proven: self.best.lay.proven, iterations, seconds: self.start.elapsed().as_secs_f64() };
        self.send("done", &done);
    }

    /// Keeps `lay` if it is better than what is kept.
    fn take(&mut self, lay: &Lay) {
        if !better(lay, &self.best.lay) || !verify(&self.best.job, lay).is_empty() {
            return;
        }
        self.best.lay = lay.clone();
        self.unsent = true;
        if let Err(error) = self.store.keep_lay(&self.id, &self.best.key, lay) {
            tracing::warn!(%error, "a better lay could not be kept");
        }
    }

    fn send_lay(&mut self) {
        if !self.unsent {
            return;
        }
        self.unsent = false;
        let steps = cut_list(&self.best.job, &self.best.lay.cloths, &self.planned.draft.pieces, &self.planned.blocks);
        let view: LayView = lay_view(&self.project, &self.best, &steps);
        self.send("lay", &view);
    }

    fn send(&mut self, name: &str, body: &impl Serialize) {
        if let Ok(event) = Event::default().event(name).json_data(body) {
            self.gone |= self.sender.blocking_send(event).is_err();
        }
    }
}

impl Observer for Run {
    fn tick(&mut self, iterations: u64) -> ControlFlow<()> {
        if self.start.elapsed() >= self.limit || self.gone || self.sender.is_closed() {
            return ControlFlow::Break(());
        }
        if self.told.elapsed() >= EVERY {
            self.told = Instant::now();
            self.send_lay();
            self.send("progress", &ProgressEvent { iterations, seconds: self.start.elapsed().as_secs_f64() });
        }
        ControlFlow::Continue(())
    }

    fn better(&mut self, lay: &Lay) {
        self.take(lay);
    }
}
