//! What the store refuses, as the server refuses it.

use super::problem::{ApiError, sentence};
use crate::laying::Keep;
use crate::view::{Context, project_view};
use crate::work::Work;
use axum::http::StatusCode;
use bofta_store::StoreError;

impl ApiError {
    /// From the store, for reading and for changes that were not made: what fails there leaves everything as it was.
    pub fn from_store(work: &Work, error: StoreError) -> Self {
        let told = |status, error: &StoreError| {
            tracing::warn!(%error, "the store refused");
            Self::new(status, sentence(&error.to_string()))
        };
        match error {
            StoreError::NotFound(_) => {
                Self::new(StatusCode::NOT_FOUND, "This project is not on the shelf. Look in the drawer.")
            }
            StoreError::Nothing(what) => Self::conflict(format!("There is nothing to {what}.")),
            StoreError::Conflict { now, .. } => {
                let view = project_view(&Context { work, kept: &now, change: None, keep: Keep::Yes });
                Self::conflict("This project was changed in another tab or window.").with_current(view.ok())
            }
            StoreError::Unreadable { .. } => told(StatusCode::UNPROCESSABLE_ENTITY, &error),
            StoreError::Full => told(StatusCode::INSUFFICIENT_STORAGE, &error),
            StoreError::ReadOnly | StoreError::Busy | StoreError::Damaged(_) | StoreError::Replaced(_) => {
                told(StatusCode::SERVICE_UNAVAILABLE, &error)
            }
            other => Self::internal(other),
        }
    }
}
