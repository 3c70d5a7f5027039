//! The flag by which a caller ends a search from outside: when its time is up, or nobody waits for the answer any more.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

/// A flag that every loop of a search looks at which can run for more than some milliseconds. Clones share it; once
/// asked for it stays.
///
/// A search that is stopped never claims what it has not finished: no bound, no proof, no "does not fit".
#[derive(Clone, Debug, Default)]
pub struct Stop(Arc<AtomicBool>);

impl Stop {
    /// A flag nobody has asked with yet.
    pub fn new() -> Self {
        Self::default()
    }

    /// Asks for the end.
    pub fn ask(&self) {
        self.0.store(true, Ordering::Relaxed);
    }

    /// Whether the end was asked for.
    pub fn asked(&self) -> bool {
        self.0.load(Ordering::Relaxed)
    }
}

/// Two flags are alike: what they belong to is compared, not whether it was stopped.
impl PartialEq for Stop {
    fn eq(&self, _: &Self) -> bool {
        true
    }
}

impl Eq for Stop {}
