//! What can go wrong with keeping.

use crate::Kept;
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
        now: Box<Kept>,
    },
    /// There is nothing to undo or redo.
    #[error("there is nothing to {0}")]
    Nothing(&'static str),
    /// A document in the database cannot be read by this version.
    #[error("a stored document cannot be read: {0}")]
    Document(#[from] serde_json::Error),
    /// The database.
    #[error("the database: {0}")]
    Database(#[from] diesel::result::Error),
    /// The file cannot be opened.
    #[error("the database could not be opened: {0}")]
    Connection(#[from] diesel::ConnectionError),
    /// No connection.
    #[error("the database could not be opened: {0}")]
    Pool(#[from] diesel::r2d2::PoolError),
    /// The database could not be brought up to date.
    #[error("the database could not be brought up to date: {0}")]
    Migration(String),
}
