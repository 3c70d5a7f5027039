//! What can go wrong with keeping.

use crate::StoredProject;
use bofta_core::project::kept::KeptError;
use thiserror::Error;

/// A call to the store that failed; nothing was changed.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No such project, or it was put away.
    #[error("there is no project “{0}”")]
    NotFound(String),
    /// The project has changed since the revision the change was made on. Holds it as it is now.
    #[error("the project has been changed elsewhere since revision {based_on}; it is now at {}", now.revision)]
    Conflict {
        /// The revision the refused change was made on.
        based_on: i64,
        /// The project as it is.
        now: Box<StoredProject>,
    },
    /// There is nothing to undo or redo.
    #[error("there is nothing to {0}")]
    Nothing(&'static str),
    /// A document that cannot be read by this version; the rest of the database can.
    #[error("what is kept of “{id}” cannot be read: {why}")]
    Unreadable {
        /// The project's or cloth's key.
        id: String,
        /// Why.
        why: KeptError,
    },
    /// No room is left on the disk.
    #[error("the disk is full: nothing more can be kept until there is room")]
    Full,
    /// The file or its folder may not be written to.
    #[error("the data folder may only be read: nothing can be kept in it")]
    ReadOnly,
    /// Another program holds the database.
    #[error("another program holds the database: try again when it has finished")]
    Busy,
    /// The file that was opened is no longer at its place.
    #[error(
        "{0} was moved, deleted or replaced while Bofta was running, so your change isn’t saved there. Put the folder back, or restart Bofta"
    )]
    Replaced(String),
    /// The file is broken.
    #[error("the database is damaged: {0}")]
    Damaged(String),
    /// A database of a later version, which this one would not understand.
    #[error("this database was made by a newer Bofta (it knows of “{0}”): use that one, or another data folder")]
    Newer(String),
    /// The file is something else.
    #[error("{0} is not a database of Bofta")]
    Foreign(String),
    /// A document without a JSON form: a fault of the program.
    #[error("a document could not be written: {0}")]
    Document(#[from] serde_json::Error),
    /// Any other failure of the database.
    #[error("the database: {0}")]
    Database(String),
    /// A file beside the database.
    #[error("{path}: {why}")]
    File {
        /// Which.
        path: String,
        /// What the system says.
        why: std::io::Error,
    },
}

impl StoreError {
    /// By what SQLite says; Diesel hands on its text, not its code (<https://www.sqlite.org/rescode.html>).
    fn said(text: &str) -> Self {
        let has = |part: &str| text.contains(part);
        if has("disk is full") {
            Self::Full
        } else if has("readonly database") {
            Self::ReadOnly
        } else if has("is locked") || has("timed out waiting for connection") {
            Self::Busy
        } else if has("malformed") || has("file is not a database") || has("disk I/O error") {
            Self::Damaged(text.to_owned())
        } else {
            Self::Database(text.to_owned())
        }
    }

    /// What cannot be read of `id`.
    pub(crate) fn unreadable(id: &str) -> impl FnOnce(KeptError) -> Self {
        let id = id.to_owned();
        move |why| Self::Unreadable { id, why }
    }
}

impl From<diesel::result::Error> for StoreError {
    fn from(error: diesel::result::Error) -> Self {
        Self::said(&error.to_string())
    }
}

impl From<diesel::ConnectionError> for StoreError {
    fn from(error: diesel::ConnectionError) -> Self {
        Self::said(&error.to_string())
    }
}

impl From<diesel::r2d2::PoolError> for StoreError {
    fn from(error: diesel::r2d2::PoolError) -> Self {
        Self::said(&error.to_string())
    }
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        Self::said(&error.to_string())
    }
}
