//! From a job to a lay: planners search side by side and hand each other what they find, as long as they are let.

use super::answer::Lay;
use super::bin::{Bin, bins};
use super::job::{Job, MOST_PLANNERS};
use super::on_print::{has_places, told_of, with_places};
use super::planner::Planner;
use super::report::lay_of;
use super::stop::Stop;
use super::verify::pin_faults;
use crate::FieldProblem;
use std::ops::ControlFlow;
use std::sync::Arc;
use thiserror::Error;

/// How long to search, and on how many threads.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Budget {
    /// About so many iterations, to the end of a round; 0 gives the constructors' answer.
    pub iterations: u64,
    /// Threads that may be used, 1 or 2. They change how long it takes, never the lay.
    pub threads: usize,
    /// Ends it early, within some milliseconds.
    pub stop: Stop,
}

/// Why there is no lay.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum NoLay {
    /// A field of the job that cannot stand.
    #[error(transparent)]
    Field(#[from] FieldProblem),
    /// It was stopped before every piece had been tried anywhere.
    #[error("Bofta found no layout in the time allowed. Plan fewer pieces at once, or simplify their outlines")]
    OutOfTime,
}

impl Budget {
    /// So many iterations on the caller's own thread.
    pub fn iterations(iterations: u64) -> Self {
        Self { iterations, threads: 1, stop: Stop::new() }
    }

    /// As long as the observer lets it, each planner on a thread.
    pub fn endless() -> Self {
        Self { iterations: u64::MAX, threads: MOST_PLANNERS as usize, stop: Stop::new() }
    }

    /// The same, ended early by `stop`.
    pub fn until(self, stop: &Stop) -> Self {
        Self { stop: stop.clone(), ..self }
    }
}

/// Watches a search and may stop it.
pub trait Observer {
    /// Called after each round, several times a second, with the iterations run so far; breaking stops the search
    /// with the best lay found.
    fn tick(&mut self, iterations: u64) -> ControlFlow<()>;

    /// Called with each better lay, the first included; not more often than [`Observer::tick`].
    fn better(&mut self, lay: &Lay);
}

/// An observer that lets the budget run out.
pub struct Silent;

impl Observer for Silent {
    fn tick(&mut self, _: u64) -> ControlFlow<()> {
        ControlFlow::Continue(())
    }

    fn better(&mut self, _: &Lay) {}
}

/// Lays `job`. Deterministic in job (its seed and number of planners with it) and iterations run, whatever the threads.
///
/// # Errors
/// The field of the job that cannot stand, or that the budget's [`Stop`] came before a first lay. Pieces that fit no
/// cloth are not an error: they are in the lay's `unplaced`.
pub fn solve(job: &Job, budget: Budget, observer: &mut dyn Observer) -> Result<Lay, NoLay> {
    job.check()?;
    pin_faults(job)?;
    let bins: Arc<[_]> = bins(job).into();
    let lay = if has_places(job) {
        let jobs = with_places(job, &bins, &budget.stop);
        let whole = |lay: &Lay| {
            let mut lay = lay.clone();
            told_of(job, &mut lay);
            lay
        };
        whole(&search(&jobs, &bins, &budget, &mut Told { observer, told: &whole })?)
    } else {
        search(std::slice::from_ref(job), &bins, &budget, observer)?
    };
    debug_assert_eq!(super::verify(job, &lay), vec![], "a lay that does not hold");
    Ok(lay)
}

/// Tells another what is found, in other words.
struct Told<'a> {
    observer: &'a mut dyn Observer,
    told: &'a dyn Fn(&Lay) -> Lay,
}

impl Observer for Told<'_> {
    fn tick(&mut self, iterations: u64) -> ControlFlow<()> {
        self.observer.tick(iterations)
    }

    fn better(&mut self, lay: &Lay) {
        self.observer.better(&(self.told)(lay));
    }
}

/// Searches for the best lay of that one of `jobs` that begins best; all are of the same pieces and cloths.
fn search(jobs: &[Job], bins: &Arc<[Bin]>, budget: &Budget, observer: &mut dyn Observer) -> Result<Lay, NoLay> {
    let stop = &budget.stop;
    let begun = jobs.iter().map(|job| (job, Planner::new(job, bins, job.rules.seed, stop)));
    let Some((job, first)) = begun.min_by_key(|(_, planner)| planner.rank()) else { return Err(NoLay::OutOfTime) };
    let mut planners = vec![first];
    // What found no place may only not have been tried.
    if stop.asked() && !planners[0].complete() {
        return Err(NoLay::OutOfTime);
    }
    observer.better(&lay_of(job, &planners[0], 0, false));
    let mut iterations = 0;
    let round = round_length(job);
    let mut best = planners[0].rank();
    let wanted = job.rules.planners.max(1) as usize;
    while iterations < budget.iterations && !stop.asked() && !planners.iter().any(Planner::finished) {
        while planners.len() < wanted {
            let seed = job.rules.seed.wrapping_mul(0x9E37_79B9).wrapping_add(planners.len() as u64);
            let another = Planner::new(job, bins, seed, stop);
            // Cut short it is no other opinion.
            if stop.asked() {
                break;
            }
            planners.push(another);
        }
        if planners.len() < wanted {
            break;
        }
        let steps = round.min((budget.iterations - iterations).div_ceil(wanted as u64));
        let better = run_round(&mut planners, steps, budget.threads, stop);
        iterations += steps * wanted as u64;
        if better {
            exchange(&mut planners);
        }
        let rank = planners[0].rank();
        if rank < best {
            best = rank;
            observer.better(&lay_of(job, &planners[0], iterations, false));
        }
        if observer.tick(iterations).is_break() {
            break;
        }
    }
    exchange(&mut planners);
    Ok(lay_of(job, &planners[0], iterations, true))
}

/// Steps of a round: some milliseconds' worth.
fn round_length(job: &Job) -> u64 {
    let pieces: u64 = job.pieces.iter().map(|p| u64::from(p.count)).sum();
    (4_000 / (pieces * pieces / 4 + 16)).clamp(1, 100)
}

/// Runs every planner for so many steps, shared among `threads`; whether one found better.
fn run_round(planners: &mut [Planner<'_>], steps: u64, threads: usize, stop: &Stop) -> bool {
    let run = |planner: &mut Planner<'_>| {
        (0..steps).take_while(|_| !stop.asked()).fold(false, |better, _| planner.iterate() || better)
    };
    // Each runs, whatever the ones before it found.
    let run_all = |some: &mut [Planner<'_>]| some.iter_mut().map(run).fold(false, |any, better| any | better);
    let share = planners.len().div_ceil(threads.max(1)).max(1);
    std::thread::scope(|scope| {
        let mut shares = planners.chunks_mut(share);
        let own = shares.next();
        let others: Vec<_> = shares.map(|some| scope.spawn(move || run_all(some))).collect();
        let better = own.is_some_and(run_all);
        // A panic in the search is a panic of the search.
        others
            .into_iter()
            .map(|o| o.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic)))
            .fold(better, |a, b| a | b)
    })
}

/// Each goes on from the best of all.
fn exchange(planners: &mut [Planner<'_>]) {
    let plans: Vec<_> = planners.iter().map(Planner::plan).collect();
    for (at, planner) in planners.iter_mut().enumerate() {
        for (_, plan) in plans.iter().enumerate().filter(|(other, _)| *other != at) {
            planner.take(plan);
        }
    }
}
