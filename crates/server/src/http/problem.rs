//! Refusals: a status and a body that says what, where and what is allowed.

use crate::view::{Context, ProblemView, ProjectView, project_view};
use axum::Json;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use bofta_core::FieldProblem;
use bofta_store::{Store, StoreError};
use serde::Serialize;
use utoipa::ToSchema;

/// The body of a refusal.
#[derive(Debug, Serialize, ToSchema)]
pub struct RefusalBody {
    /// One sentence.
    pub message: String,
    /// Each field that cannot stand.
    pub problems: Vec<ProblemView>,
    /// After a conflict: the project as it is now.
    pub current: Option<Box<ProjectView>>,
}

/// A refusal.
#[derive(Debug)]
pub struct Refusal {
    status: StatusCode,
    body: RefusalBody,
}

impl Refusal {
    pub fn new(status: StatusCode, message: impl Into<String>) -> Self {
        Self { status, body: RefusalBody { message: message.into(), problems: vec![], current: None } }
    }

    /// A fault of the program; the details go to the log.
    pub fn internal(error: impl std::fmt::Display) -> Self {
        tracing::error!(%error, "failed");
        Self::new(StatusCode::INTERNAL_SERVER_ERROR, "Something went wrong in the program; nothing was changed.")
    }

    /// Fields that cannot stand.
    pub fn fields(problems: Vec<FieldProblem>) -> Self {
        let message = problems.first().map(|p| p.message.clone()).unwrap_or_default();
        let mut refusal = Self::new(StatusCode::UNPROCESSABLE_ENTITY, message);
        refusal.body.problems = problems.into_iter().map(ProblemView::from).collect();
        refusal
    }

    /// The same under another status.
    pub fn with_status(mut self, status: StatusCode) -> Self {
        self.status = status;
        self
    }

    /// From the store; a conflict carries the project as it is.
    pub fn from_store(store: &Store, error: StoreError) -> Self {
        match error {
            StoreError::NotFound(_) => {
                Self::new(StatusCode::NOT_FOUND, "This project is not on the shelf; it may have been put away.")
            }
            StoreError::Nothing(what) => Self::new(StatusCode::CONFLICT, format!("There is nothing to {what}.")),
            StoreError::Conflict { now, .. } => {
                let view = project_view(&Context { store, kept: &now, before: None });
                let mut refusal =
                    Self::new(StatusCode::CONFLICT, "This project was changed in another tab or window meanwhile.");
                refusal.body.current = view.ok().map(Box::new);
                refusal
            }
            other => Self::internal(other),
        }
    }
}

impl IntoResponse for Refusal {
    fn into_response(self) -> Response {
        (self.status, Json(self.body)).into_response()
    }
}

/// A JSON body; what cannot be read is refused in the house's form, naming the place.
pub struct Body<T>(pub T);

impl<T, S> axum::extract::FromRequest<S> for Body<T>
where
    T: serde::de::DeserializeOwned,
    S: Send + Sync,
{
    type Rejection = Refusal;

    async fn from_request(request: axum::extract::Request, state: &S) -> Result<Self, Refusal> {
        match Json::<T>::from_request(request, state).await {
            Ok(Json(value)) => Ok(Self(value)),
            Err(rejection) => {
                let text = rejection.body_text();
                Err(Refusal::fields(vec![FieldProblem::new("body", "", text)]))
            }
        }
    }
}
