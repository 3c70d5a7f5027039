//! Lays of a project: the one kept for its job, or a quick first answer.

use bofta_core::lay::{Budget, Job, Lay, Silent, solve, verify};
use bofta_core::project::{Planned, Project};
use bofta_formats::write_job;
use bofta_store::{Store, StoreError};
use sha2::{Digest, Sha256};

/// Iterations of a first answer: a few milliseconds, and better than the constructors alone.
pub const FIRST: u64 = 150;

/// A job with its lay.
pub struct Laid {
    pub job: Job,
    pub key: String,
    pub lay: Lay,
}

/// The key of a job: the same pieces, cloths and rules give the same, whatever the project is called.
pub fn job_key(job: &Job) -> String {
    let nameless = Job { name: String::new(), ..job.clone() };
    let digest = Sha256::digest(write_job(&nameless).as_bytes());
    digest.iter().take(12).map(|b| format!("{b:02x}")).collect()
}

/// The lay of a planned project: the kept one, else a first answer. Nothing when a part has no cloth or a cloth cannot
/// be cut from; a lay that does not verify is never shown.
pub fn laid(store: &Store, id: &str, planned: &Planned) -> Result<Option<Laid>, StoreError> {
    let Some(job) = &planned.job else { return Ok(None) };
    let key = job_key(job);
    let kept = store.lay(id, &key)?.filter(|lay| verify(job, lay).is_empty());
    Ok(kept.or_else(|| first_answer(job, FIRST)).map(|lay| Laid { job: job.clone(), key, lay }))
}

/// A lay after so many iterations.
pub fn first_answer(job: &Job, iterations: u64) -> Option<Lay> {
    let lay = solve(job, Budget::iterations(iterations), &mut Silent).ok()?;
    let faults = verify(job, &lay);
    for fault in &faults {
        tracing::error!(job = job.name, %fault, "the search gave a lay that does not hold");
    }
    faults.is_empty().then_some(lay)
}

/// Whether `a` is better than `b`: more placed, then cheaper, then less bought, then simpler cuts, then shorter.
pub fn better(a: &Lay, b: &Lay) -> bool {
    let rank = |l: &Lay| {
        let left: u32 = l.unplaced.iter().map(|u| u.count).sum();
        let ragged = l.cloths.iter().filter(|c| !c.through).count();
        let needed = l.cloths.iter().map(|c| c.needed_length.0).sum::<i64>();
        (left, l.cost, l.bought(), ragged, needed)
    };
    rank(a) < rank(b)
}

/// The project's plan and lay, without keeping anything.
pub fn plan_and_lay(store: &Store, id: &str, project: &Project) -> Result<Option<Laid>, StoreError> {
    match project.plan() {
        Ok(planned) => laid(store, id, &planned),
        Err(_) => Ok(None),
    }
}
