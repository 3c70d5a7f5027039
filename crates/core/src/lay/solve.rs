//! From a job to a lay: planners search side by side and hand each other what they find, as long as they are let.

use super::answer::Lay;
use super::ground::grounds;
use super::job::Job;
use super::planner::Planner;
use super::report::lay_of;
use super::verify::pin_faults;
use crate::FieldProblem;
use std::ops::ControlFlow;
use std::sync::Arc;

/// How long to search, and on how many threads.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Budget {
    /// About so many iterations, to the end of a round; 0 gives the constructors' answer.
    pub iterations: u64,
    /// Threads that may be used, 1 or 2. They change how long it takes, never the lay.
    pub threads: usize,
}

impl Budget {
    /// So many iterations on the caller's own thread.
    pub const fn iterations(iterations: u64) -> Self {
        Self { iterations, threads: 1 }
    }

    /// As long as the observer lets it, on two threads.
    pub const fn endless() -> Self {
        Self { iterations: u64::MAX, threads: 2 }
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

/// Planners side by side, whatever the number of threads: so the lay does not depend on it.
const PLANNERS: usize = 2;

/// Lays `job`. Deterministic in job, seed and iterations run.
///
/// # Errors
/// The field of the job that cannot stand. Pieces that fit no cloth are not an error: they are in the lay's `unplaced`.
pub fn solve(job: &Job, budget: Budget, observer: &mut dyn Observer) -> Result<Lay, FieldProblem> {
    job.check()?;
    pin_faults(job)?;
    let grounds: Arc<[_]> = grounds(job).into();
    let mut planners = vec![Planner::new(job, &grounds, job.rules.seed)];
    observer.better(&lay_of(job, &planners[0], 0, false));
    let mut iterations = 0;
    let round = round_length(job);
    let mut best = planners[0].rank();
    while iterations < budget.iterations && !planners.iter().any(Planner::finished) {
        if planners.len() < PLANNERS {
            planners.push(Planner::new(job, &grounds, job.rules.seed.wrapping_mul(0x9E37_79B9).wrapping_add(1)));
        }
        let steps = round.min((budget.iterations - iterations).div_ceil(PLANNERS as u64));
        let better = run_round(&mut planners, steps, budget.threads > 1);
        iterations += steps * PLANNERS as u64;
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
    let lay = lay_of(job, &planners[0], iterations, true);
    debug_assert_eq!(super::verify(job, &lay), vec![], "a lay that does not hold");
    Ok(lay)
}

/// Steps of a round: some milliseconds' worth.
fn round_length(job: &Job) -> u64 {
    let pieces: u64 = job.pieces.iter().map(|p| u64::from(p.count)).sum();
    (4_000 / (pieces * pieces / 4 + 16)).clamp(1, 100)
}

fn run_round(planners: &mut [Planner<'_>], steps: u64, side_by_side: bool) -> bool {
    let run = |planner: &mut Planner<'_>| (0..steps).fold(false, |better, _| planner.iterate() || better);
    match planners {
        [first, second] if side_by_side => std::thread::scope(|scope| {
            let other = scope.spawn(|| run(second));
            let better = run(first);
            // A panic in the search is a panic of the search.
            other.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic)) || better
        }),
        // Each runs, whatever the ones before it found.
        all => all.iter_mut().map(run).collect::<Vec<_>>().contains(&true),
    }
}

/// Each goes on from the better of the two.
fn exchange(planners: &mut [Planner<'_>]) {
    if let [first, second] = planners {
        let (a, b) = (first.plan(), second.plan());
        first.take(&b);
        second.take(&a);
    }
}
