//! Opening a database: who may, what is looked at first, and how it is then used.

use crate::{FileKey, Store, StoreError, backup};
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::r2d2::{ConnectionManager, CustomizeConnection, Pool};
use diesel::sql_types::{BigInt, Text};
use diesel::{Connection, SqliteConnection};
use diesel_migrations::{EmbeddedMigrations, MigrationHarness, embed_migrations};
use std::fs::{File, OpenOptions, TryLockError};
use std::path::{Path, PathBuf};
use std::time::Duration;

const MIGRATIONS: EmbeddedMigrations = embed_migrations!();
/// `BFTA`, written into the file by its second migration.
const APPLICATION: i64 = 0x4246_5441;
/// How long a call waits for another program that holds the database.
const PATIENCE: Duration = Duration::from_secs(4);

/// A data folder held for one server: a second one on the same folder is refused.
#[derive(Debug)]
pub struct Held {
    // The lock is the system's: it goes with the process, however that ends.
    _lock: File,
}

impl Held {
    /// Holds `folder`, making it if it is not there.
    ///
    /// # Errors
    /// [`StoreError::Busy`] when another process holds it, or the folder or its lock cannot be made.
    pub fn folder(folder: &Path) -> Result<Self, StoreError> {
        let file = |path: PathBuf| move |why| StoreError::File { path: path.display().to_string(), why };
        std::fs::create_dir_all(folder).map_err(file(folder.to_owned()))?;
        let path = folder.join("in-use.lock");
        let lock =
            OpenOptions::new().create(true).truncate(false).write(true).open(&path).map_err(file(path.clone()))?;
        match lock.try_lock() {
            Ok(()) => Ok(Self { _lock: lock }),
            Err(TryLockError::WouldBlock) => Err(StoreError::Busy),
            Err(TryLockError::Error(why)) => Err(file(path)(why)),
        }
    }
}

/// Readers do not wait for the writer, references hold, and an acknowledged change is on the disk.
#[derive(Debug)]
struct Settings {
    /// The most pages the file may have, for trying out a full disk.
    pages: Option<u32>,
}

impl CustomizeConnection<SqliteConnection, diesel::r2d2::Error> for Settings {
    fn on_acquire(&self, connection: &mut SqliteConnection) -> Result<(), diesel::r2d2::Error> {
        let wait = PATIENCE.as_millis();
        let mut set = format!("PRAGMA busy_timeout = {wait}; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON;");
        if let Some(pages) = self.pages {
            set.push_str(&format!("PRAGMA max_page_count = {pages};"));
        }
        connection.batch_execute(&set).map_err(diesel::r2d2::Error::QueryError)
    }
}

impl Store {
    /// Opens the database at `path`, making it if it is not there and bringing an older one up to date. Before anything
    /// is written, it is looked at: what it is, whether it is newer than this program, and whether it is whole.
    ///
    /// # Errors
    /// [`StoreError::Newer`], [`StoreError::Foreign`], [`StoreError::Damaged`], or that it cannot be opened or written.
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        Self::open_within(path, None)
    }

    /// The same, the file having at most so many pages of 4096 bytes: beyond them the disk counts as full.
    ///
    /// # Errors
    /// As [`Store::open`].
    pub fn open_within(path: &Path, pages: Option<u32>) -> Result<Self, StoreError> {
        backup::finish_restoring(path)?;
        if let Some(lost) = lost(path) {
            return Err(StoreError::Damaged(lost.to_owned()));
        }
        let mut first = SqliteConnection::establish(&path.to_string_lossy())?;
        first.batch_execute(&format!("PRAGMA busy_timeout = {};", PATIENCE.as_millis()))?;
        examine(&mut first, path)?;
        // The journal's mode stays with the file; set by one connection, so that those of the pool need not wait for it.
        first.batch_execute("PRAGMA journal_mode = WAL;")?;
        drop(first);
        let manager = ConnectionManager::<SqliteConnection>::new(path.to_string_lossy());
        let pool = Pool::builder()
            .max_size(4)
            .min_idle(Some(1))
            .connection_timeout(PATIENCE * 2)
            .connection_customizer(Box::new(Settings { pages }))
            .build(manager)?;
        let key = FileKey::of(path).map_err(|why| StoreError::File { path: path.display().to_string(), why })?;
        let store = Self { pool, path: path.to_owned(), file: key };
        store.connect()?.run_pending_migrations(MIGRATIONS).map_err(|e| StoreError::Database(e.to_string()))?;
        Ok(store)
    }
}

/// No file, or an empty one, reads as a new database; beside a journal, or copies of what was in it, it is one that was
/// lost. Copies belong to the database they are named after.
fn lost(path: &Path) -> Option<&'static str> {
    let length = std::fs::metadata(path).map(|file| file.len()).ok();
    if length.is_some_and(|length| length > 0) {
        return None;
    }
    let journal = std::fs::metadata(format!("{}-wal", path.display())).is_ok_and(|file| file.len() > 0);
    let stem = path.file_stem().is_some_and(|stem| stem == backup::NAME);
    let folder = path.parent().filter(|_| stem);
    let copies = folder.is_some_and(|folder| backup::copies(folder).is_ok_and(|all| !all.is_empty()));
    match length {
        None if journal => Some("the file is missing, and its journal is there"),
        None if copies => Some("the file is missing, and there are copies of what was in it"),
        Some(_) if copies => Some("the file is empty, and there are copies of what was in it"),
        _ => None,
    }
}

#[derive(QueryableByName)]
struct Number {
    #[diesel(sql_type = BigInt)]
    value: i64,
}

#[derive(QueryableByName)]
struct Word {
    #[diesel(sql_type = Text)]
    value: String,
}

/// Looks at a copy that is to be brought back, as [`Store::open`] does before it writes. A file without a table holds
/// nothing to bring.
pub(crate) fn examine_copy(path: &Path) -> Result<(), StoreError> {
    let mut copy = SqliteConnection::establish(&path.to_string_lossy())?;
    examine(&mut copy, path)?;
    let tables = diesel::sql_query("SELECT COUNT(*) AS value FROM sqlite_master").get_result::<Number>(&mut copy)?;
    if tables.value == 0 { Err(StoreError::Foreign(path.display().to_string())) } else { Ok(()) }
}

/// Reads what the file is; nothing is written.
fn examine(c: &mut SqliteConnection, path: &Path) -> Result<(), StoreError> {
    let foreign = || StoreError::Foreign(path.display().to_string());
    let number = |c: &mut SqliteConnection, sql: &str| -> Result<i64, StoreError> {
        Ok(diesel::sql_query(sql).get_result::<Number>(c)?.value)
    };
    let application = number(c, "SELECT application_id AS value FROM pragma_application_id")?;
    let tables = number(c, "SELECT COUNT(*) AS value FROM sqlite_master WHERE type = 'table'")?;
    let ours = "SELECT COUNT(*) AS value FROM sqlite_master WHERE name IN ('__diesel_schema_migrations', 'states')";
    if (application != 0 && application != APPLICATION) || (tables > 0 && number(c, ours)? != 2) {
        return Err(foreign());
    }
    if tables == 0 {
        return Ok(());
    }
    let damage: Vec<Word> = diesel::sql_query("SELECT quick_check AS value FROM pragma_quick_check LIMIT 3").load(c)?;
    if damage.iter().any(|line| line.value != "ok") {
        let said: Vec<&str> = damage.iter().map(|line| line.value.as_str()).collect();
        return Err(StoreError::Damaged(said.join("; ")));
    }
    let known: Vec<String> = diesel::migration::MigrationSource::<diesel::sqlite::Sqlite>::migrations(&MIGRATIONS)
        .map_err(|e| StoreError::Database(e.to_string()))?
        .iter()
        .map(|m| m.name().version().to_string())
        .collect();
    let applied = c.applied_migrations().map_err(|e| StoreError::Database(e.to_string()))?;
    match applied.iter().map(ToString::to_string).find(|version| !known.contains(version)) {
        Some(version) => Err(StoreError::Newer(version)),
        None => Ok(()),
    }
}
