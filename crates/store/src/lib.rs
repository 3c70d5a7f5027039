//! Where projects, cloths and lays are kept: SQLite through Diesel.
//!
//! A project's revision goes up with every change, undo and redo included, and a change names the revision it was made
//! on, so that two open tabs cannot silently overwrite each other. Calls block; the server keeps them off its async
//! threads.

mod cloths;
mod error;
mod lays;

mod projects;
mod schema;

pub use error::StoreError;
pub use projects::{Kept, Listed};

use diesel::connection::SimpleConnection;
use diesel::r2d2::{ConnectionManager, CustomizeConnection, Pool, PooledConnection};
use diesel::{Connection, SqliteConnection};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use std::path::Path;
use std::time::{SystemTime, UNIX_EPOCH};

const MIGRATIONS: EmbeddedMigrations = embed_migrations!();

/// An open database.
#[derive(Clone)]
pub struct Store {
    pool: Pool<ConnectionManager<SqliteConnection>>,
}

type Connected = PooledConnection<ConnectionManager<SqliteConnection>>;

/// Readers do not wait for the writer, references hold, and an acknowledged change is on the disk.
#[derive(Debug)]
struct Settings;

impl CustomizeConnection<SqliteConnection, diesel::r2d2::Error> for Settings {
    fn on_acquire(&self, connection: &mut SqliteConnection) -> Result<(), diesel::r2d2::Error> {
        connection
            .batch_execute("PRAGMA busy_timeout = 5000; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;")
            .map_err(diesel::r2d2::Error::QueryError)
    }
}

impl Store {
    /// Opens the database at `path`, making it if it is not there and bringing an older one up to date.
    ///
    /// # Errors
    /// [`StoreError`] when the file cannot be opened or is of a later version.
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        // The journal's mode stays with the file; set by one connection, so that those of the pool need not wait for it.
        SqliteConnection::establish(&path.to_string_lossy())?
            .batch_execute("PRAGMA busy_timeout = 5000; PRAGMA journal_mode = WAL;")?;
        let manager = ConnectionManager::<SqliteConnection>::new(path.to_string_lossy());
        let pool = Pool::builder().max_size(4).connection_customizer(Box::new(Settings)).build(manager)?;
        let store = Self { pool };
        store.connect()?.run_pending_migrations(MIGRATIONS).map_err(|e| StoreError::Migration(e.to_string()))?;
        Ok(store)
    }

    fn connect(&self) -> Result<Connected, StoreError> {
        Ok(self.pool.get()?)
    }

    /// Runs `work` alone among writers; nothing of it stays when it fails.
    fn write<T>(&self, work: impl FnOnce(&mut SqliteConnection) -> Result<T, StoreError>) -> Result<T, StoreError> {
        self.connect()?.immediate_transaction(work)
    }

    /// Copies the whole database to `path`, which must not exist, while it is in use.
    ///
    /// # Errors
    /// [`StoreError`] when the copy cannot be written.
    pub fn backup(&self, path: &Path) -> Result<(), StoreError> {
        let quoted = path.to_string_lossy().replace('\'', "''");
        Ok(self.connect()?.batch_execute(&format!("VACUUM INTO '{quoted}'"))?)
    }
}

/// Milliseconds since 1970.
fn now() -> i64 {
    SystemTime::now().duration_since(UNIX_EPOCH).map_or(0, |d| i64::try_from(d.as_millis()).unwrap_or(i64::MAX))
}
