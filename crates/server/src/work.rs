//! The budget of a request: what it computes ends when its time is up, when nobody waits for the answer any more, and
//! when the program closes; and only so much is computed at once, each in its turn.

use crate::http::problem::ApiError;
use axum::http::StatusCode;
use bofta_core::lay::Stop;
use bofta_store::Store;
use std::collections::HashMap;
use std::sync::atomic::{AtomicBool, AtomicU64, AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, PoisonError, Weak};
use std::time::{Duration, Instant};
use tokio::runtime::Handle;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// How long a request may compute.
pub const A_REQUEST: Duration = Duration::from_millis(2_500);
/// How long one may that asks for several lays: other ways to lay it, other widths.
pub const SEVERAL_LAYS: Duration = Duration::from_secs(8);
/// How long the drawing of a printed sheet may take.
pub const A_SHEET: Duration = Duration::from_secs(20);
/// How long a request waits for its turn before it is told to come back.
const PATIENCE: Duration = Duration::from_secs(15);
/// How long a job that took too long is not tried again.
const SLOW_FOR: Duration = Duration::from_secs(10);
/// Searches that may be open at once, running or waiting for their turn.
const MOST_SEARCHES: usize = 64;

/// Who may compute now. Glances and searches wait in lines of their own, first come first served: however many searches
/// are open, one runs at a time, and hands its turn on to the next after a moment.
#[derive(Debug)]
pub struct Turns {
    glances: Arc<Semaphore>,
    searches: Arc<Semaphore>,
    open_searches: AtomicUsize,
    waiting_searches: AtomicUsize,
    /// The flags of all that runs, to be raised together when the program closes.
    running: Mutex<Vec<Weak<Flag>>>,
    closing: AtomicBool,
    /// Jobs that no time was enough for just now, by key: they are not tried again at every look.
    slow: Mutex<HashMap<String, Instant>>,
}

/// The stop flag of one request.
#[derive(Debug, Default)]
struct Flag {
    stop: Stop,
    /// When its time is up, in milliseconds from its beginning.
    until: AtomicU64,
    timed_out: AtomicBool,
}

impl Turns {
    /// As many glances side by side as there are processors, and one search.
    pub fn new() -> Arc<Self> {
        let processors = std::thread::available_parallelism().map_or(2, usize::from);
        Arc::new(Self {
            glances: Arc::new(Semaphore::new(processors)),
            searches: Arc::new(Semaphore::new(1)),
            open_searches: AtomicUsize::new(0),
            waiting_searches: AtomicUsize::new(0),
            running: Mutex::new(vec![]),
            closing: AtomicBool::new(false),
            slow: Mutex::new(HashMap::new()),
        })
    }

    fn begin(&self) -> Arc<Flag> {
        let flag = Arc::new(Flag::default());
        let mut running = self.running.lock().unwrap_or_else(PoisonError::into_inner);
        running.retain(|f| f.strong_count() > 0);
        running.push(Arc::downgrade(&flag));
        if self.closing.load(Ordering::SeqCst) {
            flag.stop.ask();
        }
        flag
    }

    /// Ends everything that is computed, now and later.
    pub fn close(&self) {
        self.closing.store(true, Ordering::SeqCst);
        let running = self.running.lock().unwrap_or_else(PoisonError::into_inner);
        running.iter().filter_map(Weak::upgrade).for_each(|flag| flag.stop.ask());
    }
}

/// What a handler works with: the store, and the budget of its request. Used on a thread that may block.
pub struct Work {
    pub store: Store,
    turns: Arc<Turns>,
    flag: Arc<Flag>,
    begun: Instant,
    runtime: Handle,
}

/// The end of a request, however it comes: what still computes for it stops.
pub struct Waiting(Arc<Flag>);

impl Drop for Waiting {
    fn drop(&mut self) {
        self.0.stop.ask();
    }
}

/// A turn at computing; it ends when this is dropped.
pub struct Turn(#[allow(dead_code)] OwnedSemaphorePermit);

impl Work {
    /// Work for one request that may take `limit`, and the guard whoever waits for it holds.
    pub fn new(store: Store, turns: &Arc<Turns>, limit: Duration) -> (Self, Waiting) {
        let (flag, begun) = (turns.begin(), Instant::now());
        let work = Self { store, turns: turns.clone(), flag: flag.clone(), begun, runtime: Handle::current() };
        work.may_run(limit);
        let timed = Arc::downgrade(&flag);
        work.runtime.spawn(async move {
            while let Some(flag) = timed.upgrade() {
                let left = Duration::from_millis(flag.until.load(Ordering::SeqCst)).saturating_sub(begun.elapsed());
                if left.is_zero() {
                    flag.timed_out.store(true, Ordering::SeqCst);
                    return flag.stop.ask();
                }
                drop(flag);
                // The end may be moved.
                tokio::time::sleep(left.min(Duration::from_millis(200))).await;
            }
        });
        (work, Waiting(flag))
    }

    /// From now on it may compute for so long.
    pub fn may_run(&self, longer: Duration) {
        let until = (self.begun.elapsed() + longer).as_millis() as u64;
        self.flag.until.store(until, Ordering::SeqCst);
    }

    /// Whether the time of a look was not enough for this job a moment ago.
    pub fn was_slow(&self, job: &str) -> bool {
        let mut slow = self.turns.slow.lock().unwrap_or_else(PoisonError::into_inner);
        slow.retain(|_, at| at.elapsed() < SLOW_FOR);
        slow.contains_key(job)
    }

    /// The time of a look was not enough for this job. That is never stored: on a busy machine it says nothing of the job.
    pub fn is_slow(&self, job: &str) {
        let mut slow = self.turns.slow.lock().unwrap_or_else(PoisonError::into_inner);
        slow.insert(job.to_owned(), Instant::now());
    }

    /// Ends what is computed.
    pub fn stop(&self) -> &Stop {
        &self.flag.stop
    }

    /// Whether its own time ran out, not that of whoever asked.
    pub fn timed_out(&self) -> bool {
        self.flag.timed_out.load(Ordering::SeqCst)
    }

    /// Waits for a turn at computing; the clock of the request stands still meanwhile.
    pub fn turn(&self) -> Result<Turn, ApiError> {
        let until = self.flag.until.load(Ordering::SeqCst);
        let since = Instant::now();
        self.may_run(PATIENCE * 2);
        let waited = async { tokio::time::timeout(PATIENCE, self.turns.glances.clone().acquire_owned()).await };
        let permit = self.runtime.block_on(waited);
        self.flag.until.store(until + since.elapsed().as_millis() as u64, Ordering::SeqCst);
        match permit {
            Ok(Ok(permit)) => Ok(Turn(permit)),
            _ => Err(busy()),
        }
    }
}

fn busy() -> ApiError {
    ApiError::new(StatusCode::SERVICE_UNAVAILABLE, "Bofta is working out many layouts at once. Try again in a moment.")
}

/// The turn of a search, handed round among all that are open.
pub struct SearchTurn {
    turns: Arc<Turns>,
    runtime: Handle,
    permit: Option<OwnedSemaphorePermit>,
    since: Instant,
}

impl SearchTurn {
    /// How long a search runs before it lets the next one.
    const MOMENT: Duration = Duration::from_millis(250);

    /// Joins the line of searches.
    pub fn join(turns: &Arc<Turns>) -> Result<Self, ApiError> {
        if turns.open_searches.fetch_add(1, Ordering::SeqCst) >= MOST_SEARCHES {
            turns.open_searches.fetch_sub(1, Ordering::SeqCst);
            let message = format!("{MOST_SEARCHES} searches are open already. Close one, or try again later.");
            return Err(ApiError::new(StatusCode::SERVICE_UNAVAILABLE, message));
        }
        Ok(Self { turns: turns.clone(), runtime: Handle::current(), permit: None, since: Instant::now() })
    }

    /// Takes the turn, waiting for it in a moment's steps; false once `stop` is asked for.
    pub fn take(&mut self, stop: &Stop) -> bool {
        self.turns.waiting_searches.fetch_add(1, Ordering::SeqCst);
        let line = self.turns.searches.clone();
        let waited = self.runtime.block_on(async {
            let mut turn = std::pin::pin!(line.acquire_owned());
            loop {
                match tokio::time::timeout(Duration::from_millis(50), &mut turn).await {
                    Ok(permit) => return permit.ok(),
                    Err(_) if stop.asked() => return None,
                    Err(_) => {}
                }
            }
        });
        self.turns.waiting_searches.fetch_sub(1, Ordering::SeqCst);
        self.since = Instant::now();
        self.permit = waited;
        self.permit.is_some()
    }

    /// Lets the next search run; this one does not go on.
    pub fn give_up(&mut self) {
        self.permit = None;
    }

    /// Lets another search run if one waits and this one has had its moment; false once `stop` is asked for.
    pub fn pass_on(&mut self, stop: &Stop) -> bool {
        if self.since.elapsed() < Self::MOMENT || self.turns.waiting_searches.load(Ordering::SeqCst) == 0 {
            return !stop.asked();
        }
        self.permit = None;
        self.take(stop)
    }
}

impl Drop for SearchTurn {
    fn drop(&mut self) {
        self.turns.open_searches.fetch_sub(1, Ordering::SeqCst);
    }
}
