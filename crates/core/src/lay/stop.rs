//! The flag by which a caller ends a search from outside: when its time is up, or nobody waits for the answer any more.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};

/// A flag that every loop of a search looks at which can run for more than some milliseconds. Clones share it; once
/// asked for it stays.
///
/// A search that is stopped never claims what it has not finished: no bound, no proof, no "does not fit".
#[derive(Clone, Debug, Default)]
pub struct Stop(Arc<Flag>);

#[derive(Debug, Default)]
struct Flag {
    asked: AtomicBool,
    /// Looks after which it is asked for by itself.
    looks: Option<AtomicU64>,
}

impl Stop {
    /// A flag nobody has asked with yet.
    pub fn new() -> Self {
        Self::default()
    }

    /// A flag that is raised at the so-manieth look: so that a test can stop a search at every moment there is.
    pub fn after(looks: u64) -> Self {
        Self(Arc::new(Flag { asked: AtomicBool::new(looks == 0), looks: Some(AtomicU64::new(looks)) }))
    }

    /// Asks for the end.
    pub fn ask(&self) {
        self.0.asked.store(true, Ordering::Relaxed);
    }

    /// Whether the end was asked for.
    pub fn asked(&self) -> bool {
        if let Some(looks) = &self.0.looks
            && looks.fetch_update(Ordering::Relaxed, Ordering::Relaxed, |n| n.checked_sub(1)) == Ok(1)
        {
            self.ask();
        }
        self.0.asked.load(Ordering::Relaxed)
    }
}

/// Two flags are alike: what they belong to is compared, not whether it was stopped.
impl PartialEq for Stop {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

impl Eq for Stop {}
