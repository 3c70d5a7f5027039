//! The search as a stream of server-sent events: each better lay, progress, and why it ended. Closing the stream stops
//! the search; what it had found is kept.

use super::App;
use super::problem::{ApiError, Asked, At};
use crate::laying::{Keep, Laid, job_key, laid};
use crate::view::{LayView, lay_view};
use crate::work::{A_REQUEST, SearchTurn, Waiting, Work};
use axum::Router;
use axum::extract::State;
use axum::response::Sse;
use axum::response::sse::{Event, KeepAlive};
use axum::routing::get;
use bofta_core::cutting::cut_list;
use bofta_core::lay::{Budget, Job, Lay, Observer, better, solve, verify};
use bofta_core::project::{Planned, Project};
use bofta_store::StoredProject;
use serde::{Deserialize, Serialize};
use std::convert::Infallible;
use std::ops::ControlFlow;
use std::pin::Pin;
use std::task::Poll;
use std::time::{Duration, Instant};
use tokio::runtime::Handle;
use tokio::sync::mpsc::error::TrySendError;
use tokio::sync::mpsc::{Sender, channel};
use tokio_stream::Stream;
use tokio_stream::StreamExt;
use tokio_stream::wrappers::ReceiverStream;

/// The most planners of a search: each keeps no-fit tables of its own, of 96 MB at most.
const MOST_SIDE_BY_SIDE: u32 = 4;

/// How long a stream may go unread before its search ends.
const UNREAD: Duration = Duration::from_secs(10);

/// A lay or a progress line leaves at most this often.
const EVERY: Duration = Duration::from_millis(100);

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
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
    At(id): At<String>,
    Asked(wanted): Asked<Wanted>,
) -> Result<Sse<impl Stream<Item = Result<Event, Infallible>>>, ApiError> {
    let seconds = wanted.seconds.unwrap_or(20.0);
    if !(0.1..=600.0).contains(&seconds) {
        return Err(ApiError::field("seconds", seconds, "A search runs from 0.1 to 600 seconds."));
    }
    let read = id.clone();
    let (kept, planned, job, laid) = app.blocking(A_REQUEST, move |work| laid_or_not(work, &read)).await?;
    if kept.project.steps_done > 0 {
        return Err(ApiError::conflict("You have begun to cut, so the layout stays as it is."));
    }
    let turn = SearchTurn::join(&app.turns)?;
    let (sender, receiver) = channel(16);
    // The budget begins with the turn: the run itself counts the time in which it is the one that runs.
    let (work, waiting) = Work::new(app.store.clone(), &app.turns, LONGEST);
    let stream = ReceiverStream::new(receiver).map(Ok);
    tracing::info!(id, seconds, "a search begins");
    let runtime = Handle::current();
    tokio::task::spawn_blocking(move || {
        let mut run = Run {
            key: job_key(&job),
            work,
            id,
            project: kept.project,
            planned,
            job,
            best: laid.map(|l| l.lay),
            sender,
            turn,
            limit: Duration::from_secs_f64(seconds),
            left: Duration::from_secs_f64(seconds),
            since: Instant::now(),
            told: None,
            unsent: false,
            gone: false,
            read: Instant::now(),
            runtime,
        };
        run.search();
    });
    Ok(Sse::new(Guarded { stream, _waiting: waiting }).keep_alive(KeepAlive::default()))
}

/// Searches that wait for their turn end with the day.
const LONGEST: Duration = Duration::from_secs(86_400);

/// The stream of a search; when whoever listens is gone, so is the guard, and the search stops.
struct Guarded<S> {
    stream: S,
    _waiting: Waiting,
}

impl<S: Stream + Unpin> Stream for Guarded<S> {
    type Item = S::Item;

    fn poll_next(mut self: Pin<&mut Self>, context: &mut std::task::Context<'_>) -> Poll<Option<S::Item>> {
        Pin::new(&mut self.stream).poll_next(context)
    }
}

/// A project with its job, and its lay if a glance finds one.
fn laid_or_not(work: &Work, id: &str) -> Result<(StoredProject, Planned, Job, Option<Laid>), ApiError> {
    let kept = work.project(id)?;
    let planned = kept.project.plan().map_err(ApiError::fields)?;
    let Some(job) = planned.job.clone() else {
        return Err(ApiError::conflict("There is no layout yet. Give every part a cloth first."));
    };
    let laying = laid(work, id, &planned, Keep::Yes).map_err(|e| ApiError::from_store(work, e))?;
    Ok((kept, planned, job, laying.laid))
}

struct Run {
    work: Work,
    id: String,
    key: String,
    project: Project,
    planned: Planned,
    job: Job,
    best: Option<Lay>,
    sender: Sender<Event>,
    turn: SearchTurn,
    limit: Duration,
    /// How long it may still run, and since when it does.
    left: Duration,
    since: Instant,
    told: Option<Instant>,
    unsent: bool,
    gone: bool,
    /// When the stream last took an event.
    read: Instant,
    runtime: Handle,
}

impl Run {
    fn search(&mut self) {
        if !self.turn.take(self.work.stop()) {
            return;
        }
        let begun = Instant::now();
        self.since = begun;
        self.work.may_run(self.left);
        // As many planners as there are processors, within bounds; the lay is of the job all the same.
        let mut job = self.job.clone();
        let processors = std::thread::available_parallelism().map_or(2, usize::from) as u32;
        job.rules.planners = processors.clamp(job.rules.planners, MOST_SIDE_BY_SIDE.max(job.rules.planners));
        self.unsent = true;
        let budget = Budget::endless().until(self.work.stop());
        let found = solve(&job, budget, self);
        if let Ok(lay) = &found {
            self.take(lay);
        }
        // What is left to send waits for its reader, and no other search waits for it.
        self.turn.give_up();
        self.send_lay();
        let iterations = found.map_or(0, |l| l.iterations);
        let proven = self.best.as_ref().is_some_and(|lay| lay.proven);
        let seconds = begun.elapsed().as_secs_f64();
        tracing::info!(id = self.id, iterations, seconds, proven, "a search ends");
        if let Ok(event) = Event::default().event("done").json_data(DoneEvent { proven, iterations, seconds }) {
            let sent = tokio::time::timeout(UNREAD, self.sender.send(event));
            let _ = self.runtime.block_on(sent);
        }
    }

    /// Keeps `lay` if it is better than what is kept.
    fn take(&mut self, lay: &Lay) {
        if self.best.as_ref().is_some_and(|best| !better(&self.job, lay, best)) || !verify(&self.job, lay).is_empty() {
            return;
        }
        self.best = Some(lay.clone());
        self.unsent = true;
        if let Err(error) = self.work.store.keep_lay(&self.id, &self.key, lay) {
            tracing::warn!(%error, "a better lay could not be kept");
        }
    }

    fn send_lay(&mut self) {
        if !self.unsent {
            return;
        }
        // Nobody reads it at present: what is better then is sent later.
        if self.sender.capacity() == 0 {
            return;
        }
        self.unsent = false;
        let Some(lay) = self.best.clone() else { return };
        let laid = Laid { job: self.job.clone(), key: self.key.clone(), lay };
        let steps = cut_list(&laid.job, &laid.lay.cloths, &self.planned.draft.pieces, &self.planned.blocks);
        let missing = laid.missing(&self.project, &self.work);
        let view: LayView = lay_view(&self.project, &laid, missing.as_ref(), &steps);
        self.send("lay", &view);
    }

    fn send(&mut self, name: &str, body: &impl Serialize) {
        let Ok(event) = Event::default().event(name).json_data(body) else { return };
        match self.sender.try_send(event) {
            Ok(()) => self.read = Instant::now(),
            Err(TrySendError::Closed(_)) => self.gone = true,
            // A stream that nobody reads gives its turn up.
            Err(TrySendError::Full(_)) => self.gone |= self.read.elapsed() > UNREAD,
        }
    }
}

impl Observer for Run {
    fn tick(&mut self, iterations: u64) -> ControlFlow<()> {
        self.left = self.left.saturating_sub(self.since.elapsed());
        self.since = Instant::now();
        self.work.may_run(LONGEST);
        if self.left.is_zero() || self.gone || self.sender.is_closed() || !self.turn.pass_on(self.work.stop()) {
            return ControlFlow::Break(());
        }
        // Waiting for its turn does not count.
        self.since = Instant::now();
        self.work.may_run(self.left);
        if self.told.is_none_or(|told| told.elapsed() >= EVERY) {
            self.told = Some(Instant::now());
            self.send_lay();
            self.send("progress", &ProgressEvent { iterations, seconds: (self.limit - self.left).as_secs_f64() });
        }
        ControlFlow::Continue(())
    }

    fn better(&mut self, lay: &Lay) {
        self.take(lay);
    }
}
