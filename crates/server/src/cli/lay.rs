//! `bofta lay` and `bofta check`.

use super::BAD_INPUT;
use bofta_core::cutting::cut_faults;
use bofta_core::lay::{Budget, Job, Lay, NoLay, Observer, Stop, solve, verify};
use bofta_core::measure::show_bought;
use bofta_formats::{read_job, read_lay_with_cuts, write_lay};
use clap::Args;
use std::ops::ControlFlow;
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use std::time::{Duration, Instant};

/// Exit status when a piece did not fit.
const INCOMPLETE: u8 = 3;
/// Exit status when the time ran out before a first lay.
const OUT_OF_TIME: u8 = 4;
/// What a first answer may take, however few seconds are given.
const FIRST_ANSWER: Duration = Duration::from_secs(2);
/// Exit status when a lay does not hold.
const FAULTY: u8 = 1;

#[derive(Args)]
pub struct LayArgs {
    /// A bofta-job file.
    job: PathBuf,
    /// Where to write the lay; default: standard output.
    #[arg(short)]
    output: Option<PathBuf>,
    /// How long to search; default: what the job says. 0 gives the first answer.
    #[arg(long)]
    seconds: Option<f64>,
    /// Seed of the search; default: what the job says.
    #[arg(long)]
    seed: Option<u64>,
    /// Searches side by side; default: what the job says. The same number gives the same lay on any machine.
    #[arg(long)]
    planners: Option<u32>,
    /// Stop after so many iterations: the same answer on any machine.
    #[arg(long)]
    iterations: Option<u64>,
    /// Tell each better lay on standard error.
    #[arg(long)]
    progress: bool,
}

#[derive(Args)]
pub struct CheckArgs {
    /// A bofta-job file.
    job: PathBuf,
    /// A bofta-lay file made for it.
    lay: PathBuf,
}

struct Clock<'a> {
    start: Instant,
    limit: Duration,
    told: Option<&'a Job>,
    /// When the last line was told.
    last: Option<Instant>,
}

/// Better lays are told at most this often.
const EVERY: Duration = Duration::from_millis(100);

impl Observer for Clock<'_> {
    fn tick(&mut self, _: u64) -> ControlFlow<()> {
        if self.start.elapsed() >= self.limit { ControlFlow::Break(()) } else { ControlFlow::Continue(()) }
    }

    fn better(&mut self, lay: &Lay) {
        if let Some(job) = self.told.filter(|_| self.last.is_none_or(|last| last.elapsed() >= EVERY)) {
            self.last = Some(Instant::now());
            let proven = if lay.proven { ", proven" } else { "" };
            let seconds = self.start.elapsed().as_secs_f64();
            eprintln!(
                "{seconds:7.2} s  {:>9} iterations  {}{proven}",
                lay.iterations,
                show_bought(lay.bought(), job.units)
            );
        }
    }
}

fn read<T>(path: &Path, parse: impl Fn(&str) -> Result<T, bofta_formats::FormatError>) -> Result<T, ExitCode> {
    let refuse = |error: String| {
        eprintln!("bofta: {}: {error}", path.display());
        ExitCode::from(BAD_INPUT)
    };
    let text = std::fs::read_to_string(path).map_err(|e| refuse(e.to_string()))?;
    parse(&text).map_err(|e| refuse(e.to_string()))
}

pub fn lay(args: &LayArgs) -> ExitCode {
    let mut job = match read(&args.job, read_job) {
        Ok(job) => job,
        Err(code) => return code,
    };
    if let Some(seed) = args.seed {
        job.rules.seed = seed;
    }
    if let Some(planners) = args.planners {
        job.rules.planners = planners;
    }
    let seconds = args.seconds.unwrap_or(job.rules.milliseconds as f64 / 1000.0);
    if !(0.0..=86_400.0).contains(&seconds) {
        eprintln!("bofta: --seconds {seconds}: from 0 to 86400 is allowed");
        return ExitCode::from(BAD_INPUT);
    }
    let iterations = if seconds == 0.0 { 0 } else { args.iterations.unwrap_or(u64::MAX) };
    let start = Instant::now();
    let told = args.progress.then_some(&job);
    let mut clock = Clock { start, limit: Duration::from_secs_f64(seconds), told, last: None };
    // The observer is only asked between rounds; this ends it within one.
    let stop = Stop::new();
    let end = stop.clone();
    let longest = Duration::from_secs_f64(seconds).max(FIRST_ANSWER);
    std::thread::spawn(move || {
        std::thread::sleep(longest);
        end.ask();
    });
    let lay = match solve(&job, Budget { iterations, stop, ..Budget::endless() }, &mut clock) {
        Ok(lay) => lay,
        Err(error) => {
            eprintln!("bofta: {}: {error}", args.job.display());
            return ExitCode::from(if error == NoLay::OutOfTime { OUT_OF_TIME } else { BAD_INPUT });
        }
    };
    let faults = verify(&job, &lay);
    if !faults.is_empty() {
        faults.iter().for_each(|fault| eprintln!("bofta: {fault}"));
        eprintln!(
            "bofta: the layout that was found has a mistake in it, so it isn’t written; please report it with the job"
        );
        return ExitCode::from(FAULTY);
    }
    let text = write_lay(&job, &lay, start.elapsed().as_secs_f64());
    let written = match &args.output {
        Some(path) => std::fs::write(path, text + "\n").map_err(|e| format!("{}: {e}", path.display())),
        None => {
            say!("{text}");
            Ok(())
        }
    };
    if let Err(error) = written {
        eprintln!("bofta: {error}");
        return ExitCode::from(BAD_INPUT);
    }
    for unplaced in &lay.unplaced {
        eprintln!("bofta: {}", unplaced.why);
    }
    if lay.complete() { ExitCode::SUCCESS } else { ExitCode::from(INCOMPLETE) }
}

pub fn check(args: &CheckArgs) -> ExitCode {
    let (job, (lay, cuts)) = match (read(&args.job, read_job), read(&args.lay, read_lay_with_cuts)) {
        (Ok(job), Ok(lay)) => (job, lay),
        (Err(code), _) | (_, Err(code)) => return code,
    };
    let mut faults: Vec<String> = verify(&job, &lay).iter().map(ToString::to_string).collect();
    // Cuts are looked at where the pieces lie as they may.
    if faults.is_empty() {
        faults.extend(lay.cloths.iter().zip(&cuts).flat_map(|(on, cuts)| cut_faults(&job, on, cuts)));
    }
    for fault in &faults {
        say!("{fault}");
    }
    if faults.is_empty() {
        say!("holds: {} pieces", lay.cloths.iter().map(|c| c.placements.len()).sum::<usize>());
        ExitCode::SUCCESS
    } else {
        ExitCode::from(FAULTY)
    }
}
