//! Lays of a project: the one kept for its job, or a quick first answer, which is kept from then on.

use crate::http::problem::ApiError;
use crate::work::Work;
use bofta_core::buying::Missing;
use bofta_core::lay::{Budget, Job, Lay, NoLay, Silent, Stop, solve, verify};
use bofta_core::project::{Planned, Project};
use bofta_formats::write_job;
use bofta_store::{StoreError, StoredLay};
use sha2::{Digest, Sha256};
use std::panic::{AssertUnwindSafe, catch_unwind};

/// Iterations of a first answer: a few milliseconds, and better than the constructors alone.
pub const FIRST: u64 = 150;

/// A job with its lay.
pub struct Laid {
    pub job: Job,
    pub key: String,
    pub lay: Lay,
}

impl Laid {
    /// What the lay leaves out, if it does.
    pub fn missing(&self, project: &Project, work: &Work) -> Option<Missing> {
        project.missing(&self.job, &self.lay, work.stop())
    }
}

/// How far a project is laid.
#[derive(Default)]
pub struct Laying {
    /// The lay, if there is one.
    pub laid: Option<Laid>,
    /// Why there is none, although every part has a cloth.
    pub failed: Option<String>,
}

/// Whether a first answer is kept with the project.
#[derive(Clone, Copy, PartialEq, Eq)]
pub enum Keep {
    Yes,
    /// What is only shown is not.
    No,
}

/// The key of a job: the same pieces, cloths and rules give the same, whatever the project is called.
pub fn job_key(job: &Job) -> String {
    let nameless = Job { name: String::new(), ..job.clone() };
    let digest = Sha256::digest(write_job(&nameless).as_bytes());
    digest.iter().take(12).map(|b| format!("{b:02x}")).collect()
}

/// The lay of a planned project: the one it is being cut by, else the kept one, else a first answer. Nothing when a part has no cloth or a cloth cannot
/// be cut from; a lay that does not verify is never shown.
pub fn laid(work: &Work, id: &str, planned: &Planned, keep: Keep) -> Result<Laying, StoreError> {
    let Some(job) = &planned.job else { return Ok(Laying::default()) };
    let key = job_key(job);
    let done = |lay: Lay| Laying { laid: Some(Laid { job: job.clone(), key: key.clone(), lay }), failed: None };
    if let Some(fixed) = &planned.fixed {
        return Ok(done(fixed.clone()));
    }
    match work.store.lay(id, &key)? {
        Some(StoredLay::Lay(lay)) if verify(job, &lay).is_empty() => return Ok(done(*lay)),
        // Earlier versions stored this, too, although it says nothing of the job.
        Some(StoredLay::Failed(why)) if !why.starts_with("No lay was found in the time") => {
            return Ok(Laying { laid: None, failed: Some(why) });
        }
        _ => {}
    }
    let failed = |why: String| Laying { laid: None, failed: Some(why) };
    if work.was_slow(&key) {
        return Ok(failed(NotLaid::OutOfTime.to_string()));
    }
    let turn = match work.turn() {
        Ok(turn) => turn,
        Err(refusal) => return Ok(failed(refusal.message().to_owned())),
    };
    let answer = first_answer(job, FIRST, work.stop());
    drop(turn);
    Ok(match answer {
        Ok(lay) => {
            if keep == Keep::Yes {
                work.store.keep_lay(id, &key, &lay)?;
            }
            done(lay)
        }
        Err(why) => {
            match &why {
                NotLaid::OutOfTime if work.timed_out() => work.is_slow(&key),
                // Nobody waited for it: that says nothing of the job.
                NotLaid::OutOfTime => {}
                NotLaid::Because(why) if keep == Keep::Yes => work.store.keep_failure(id, &key, why)?,
                NotLaid::Because(_) => {}
            }
            failed(why.to_string())
        }
    })
}

/// Why there is no layout; a sentence without its stop.
#[derive(Debug, thiserror::Error)]
pub enum NotLaid {
    /// It takes longer than a look may.
    #[error(
        "Bofta found no layout in the time a look may take. There may be too many pieces, or their outlines are too fine. Try fewer pieces or plainer outlines, or press Look further on the Lay stage"
    )]
    OutOfTime,
    /// Any other reason, the same at every try.
    #[error("{0}")]
    Because(String),
}

/// A lay after so many iterations, or why there is none.
///
/// # Errors
/// [`NotLaid`].
pub fn first_answer(job: &Job, iterations: u64, stop: &Stop) -> Result<Lay, NotLaid> {
    // A fault of the search is a sentence on its project too.
    let found = catch_unwind(AssertUnwindSafe(|| solve(job, Budget::iterations(iterations).until(stop), &mut Silent)));
    let found = found.map_err(|_| {
        NotLaid::Because(
            "Something went wrong while Bofta worked out this layout. Change a size a little, or choose another layout"
                .to_owned(),
        )
    })?;
    let lay = found.map_err(|e| match e {
        NoLay::Field(problem) => NotLaid::Because(problem.message),
        NoLay::OutOfTime => NotLaid::OutOfTime,
    })?;
    let faults = verify(job, &lay);
    for fault in &faults {
        tracing::error!(job = job.name, %fault, "the search gave a lay that does not hold");
    }
    if faults.is_empty() {
        return Ok(lay);
    }
    let why = "Bofta’s own check found a mistake in this layout, so it isn’t shown. Change a size a little, or choose another layout";
    Err(NotLaid::Because(why.to_owned()))
}

/// The project's plan and lay; nothing new is kept.
pub fn plan_and_lay(work: &Work, id: &str, project: &Project) -> Result<Option<Laid>, StoreError> {
    match project.plan() {
        Ok(planned) => Ok(laid(work, id, &planned, Keep::No)?.laid),
        Err(_) => Ok(None),
    }
}

/// A project that is laid, or why it is not.
pub fn must_be_laid(laying: Laying) -> Result<Laid, ApiError> {
    match laying {
        Laying { laid: Some(laid), .. } => Ok(laid),
        Laying { failed: Some(why), .. } => Err(ApiError::conflict(format!("{why}."))),
        _ => Err(ApiError::conflict("There is no layout yet. Give every part a cloth first.")),
    }
}
