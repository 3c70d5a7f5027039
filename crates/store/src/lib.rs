//! Where projects, cloths and lays are kept: SQLite through Diesel.
//!
//! A project's revision goes up with every change, undo and redo included, and a change names the revision it was made
//! on, so that two open tabs cannot silently overwrite each other. Calls block; the server keeps them off its async
//! threads.
//!
//! [`Store::open`] looks before it writes: a database of a newer version, of another program or with damage is refused.
//! [`backup`] keeps copies and brings them back.

pub mod backup;
mod cards;
mod cloths;
mod cut_plans;
mod error;
mod lays;
mod notions;
mod open;
mod own_cuts;
mod pictures;
mod projects;
mod schema;

pub use cloths::{Changed, OfBag, PutAway, StoredCloth, Which};
pub use error::StoreError;
pub use lays::StoredLay;
pub use notions::{Recorded, StoredLedger};
pub use open::Held;
pub use own_cuts::StoredOwnCut;
pub use projects::{Named, StoredProject};

use diesel::SqliteConnection;
use diesel::r2d2::{ConnectionManager, Pool, PooledConnection};
use std::os::unix::fs::MetadataExt;
use std::path::{Path, PathBuf};
use std::time::{SystemTime, UNIX_EPOCH};

/// An open database.
#[derive(Clone)]
pub struct Store {
    pool: Pool<ConnectionManager<SqliteConnection>>,
    path: PathBuf,
    /// The file that was opened, as the system knows it.
    file: FileKey,
}

type Connected = PooledConnection<ConnectionManager<SqliteConnection>>;

impl Store {
    fn connect(&self) -> Result<Connected, StoreError> {
        Ok(self.pool.get()?)
    }

    /// Runs `work` alone among writers; nothing of it stays when it fails.
    ///
    /// Before it and after it, the file must still be the one that was opened: into a folder that was moved away or
    /// replaced meanwhile, nothing is acknowledged.
    fn write<T>(&self, work: impl FnOnce(&mut SqliteConnection) -> Result<T, StoreError>) -> Result<T, StoreError> {
        self.file.still_at(&self.path)?;
        // SQLite ends a transaction by itself when the disk is full, so that Diesel's own rollback fails too; what is told
        // is why the work failed.
        let mut failed = None;
        let done = self.connect()?.immediate_transaction(|c| {
            work(c).map_err(|error| {
                failed = Some(error);
                diesel::result::Error::RollbackTransaction
            })
        });
        let done = done.map_err(|error| failed.unwrap_or_else(|| error.into()))?;
        self.file.still_at(&self.path)?;
        Ok(done)
    }
}

/// Which file a path leads to: its device and its number there.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct FileKey(u64, u64);

impl FileKey {
    fn of(path: &Path) -> std::io::Result<Self> {
        let about = std::fs::metadata(path)?;
        Ok(Self(about.dev(), about.ino()))
    }

    fn still_at(self, path: &Path) -> Result<(), StoreError> {
        match Self::of(path) {
            Ok(now) if now == self => Ok(()),
            _ => Err(StoreError::Replaced(path.display().to_string())),
        }
    }
}

/// Milliseconds since 1970.
fn now() -> i64 {
    SystemTime::now().duration_since(UNIX_EPOCH).map_or(0, |d| i64::try_from(d.as_millis()).unwrap_or(i64::MAX))
}
