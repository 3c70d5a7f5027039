//! Refusals: a status and a body that says what, where and what is allowed; and the extractors that refuse in that form.

use crate::view::{ProblemView, ProjectView};
use axum::Json;
use axum::extract::rejection::{JsonRejection, PathRejection, QueryRejection};
use axum::extract::{FromRequest, FromRequestParts, Path, Query, Request};
use axum::http::request::Parts;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use bofta_core::{FieldProblem, excerpt};
use serde::Serialize;
use serde::de::DeserializeOwned;
use utoipa::ToSchema;

/// The body of a refusal.
#[derive(Debug, Serialize, ToSchema)]
pub struct ApiErrorBody {
    /// One sentence.
    pub message: String,
    /// Each field that cannot stand.
    pub problems: Vec<ProblemView>,
    /// After a conflict: the project as it is now.
    pub current: Option<Box<ProjectView>>,
    /// After a conflict: the change that was refused, in a few words.
    pub yours: Option<String>,
}

/// A refusal.
#[derive(Debug)]
pub struct ApiError {
    status: StatusCode,
    body: Box<ApiErrorBody>,
}

impl ApiError {
    pub fn new(status: StatusCode, message: impl Into<String>) -> Self {
        let body =
            ApiErrorBody { message: excerpt(&message.into(), 500), problems: vec![], current: None, yours: None };
        Self { status, body: Box::new(body) }
    }

    /// A fault of the program; the details go to the log. Whether anything was kept is not known here.
    pub fn internal(error: impl std::fmt::Display) -> Self {
        tracing::error!(%error, "failed");
        let message = "Something went wrong in Bofta. Reload the page. Your saved work is safe.";
        Self::new(StatusCode::INTERNAL_SERVER_ERROR, message)
    }

    /// What stands against how things are now.
    pub fn conflict(message: impl Into<String>) -> Self {
        Self::new(StatusCode::CONFLICT, message)
    }

    /// Fields that cannot stand.
    pub fn fields(problems: Vec<FieldProblem>) -> Self {
        let message = problems.first().map(|p| p.message.clone()).unwrap_or_default();
        let mut refusal = Self::new(StatusCode::UNPROCESSABLE_ENTITY, message);
        refusal.body.problems = problems.into_iter().map(ProblemView::from).collect();
        refusal
    }

    /// One field that cannot stand.
    pub fn field(field: &str, value: impl ToString, message: impl Into<String>) -> Self {
        Self::fields(vec![FieldProblem::new(field, value, message)])
    }

    /// The same, with the project as it is now.
    pub fn with_current(mut self, current: Option<ProjectView>) -> Self {
        self.body.current = current.map(Box::new);
        self
    }

    /// The same, naming the change that was refused.
    pub fn with_yours(mut self, yours: String) -> Self {
        self.body.yours = Some(yours);
        self
    }

    /// The same under another status.
    pub fn with_status(mut self, status: StatusCode) -> Self {
        self.status = status;
        self
    }

    /// The sentence.
    pub fn message(&self) -> &str {
        &self.body.message
    }
}

/// `text` as a sentence.
pub(super) fn sentence(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |first| format!("{}{}.", first.to_uppercase(), chars.as_str()))
}

impl IntoResponse for ApiError {
    fn into_response(self) -> Response {
        let later = matches!(self.status, StatusCode::SERVICE_UNAVAILABLE | StatusCode::INSUFFICIENT_STORAGE);
        let mut response = (self.status, Json(*self.body)).into_response();
        if later {
            response.headers_mut().insert(header::RETRY_AFTER, HeaderValue::from_static("2"));
        }
        response
    }
}

/// Why, without the library's own sentence before it.
fn cause(text: String) -> String {
    let said = text.split_once(": ").filter(|(lead, _)| lead.starts_with("Failed to") || lead.starts_with("Invalid"));
    said.map_or(text.as_str(), |(_, why)| why).trim_end_matches('.').to_owned()
}

/// A JSON body; what cannot be read is refused in the house's form, naming the place.
pub struct Body<T>(pub T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequest<S> for Body<T> {
    type Rejection = ApiError;

    async fn from_request(request: Request, state: &S) -> Result<Self, ApiError> {
        match Json::<T>::from_request(request, state).await {
            Ok(Json(value)) => Ok(Self(value)),
            Err(rejection) => {
                let said = match &rejection {
                    JsonRejection::MissingJsonContentType(_) => {
                        "Send the body as JSON, with Content-Type application/json.".to_owned()
                    }
                    JsonRejection::JsonSyntaxError(e) => format!("The body is not JSON: {}.", cause(e.body_text())),
                    JsonRejection::JsonDataError(e) => {
                        format!("The body is not what this address expects: {}.", cause(e.body_text()))
                    }
                    other if other.status() == StatusCode::PAYLOAD_TOO_LARGE => {
                        "The body is too large for this address.".to_owned()
                    }
                    other => format!("The body cannot be read: {}.", cause(other.body_text())),
                };
                let refusal = ApiError::field("body", "", said);
                Err(match rejection {
                    JsonRejection::MissingJsonContentType(_) => refusal.with_status(StatusCode::UNSUPPORTED_MEDIA_TYPE),
                    JsonRejection::JsonSyntaxError(_) => refusal.with_status(StatusCode::BAD_REQUEST),
                    other if other.status() == StatusCode::PAYLOAD_TOO_LARGE => {
                        refusal.with_status(StatusCode::PAYLOAD_TOO_LARGE)
                    }
                    _ => refusal,
                })
            }
        }
    }
}

/// What stands in the path; refused by name.
pub struct At<T>(pub T);

impl<T: DeserializeOwned + Send, S: Send + Sync> FromRequestParts<S> for At<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let refuse = |e: PathRejection| {
            let message = format!("The path cannot be read: {}.", cause(e.body_text()));
            ApiError::field("path", "", message).with_status(StatusCode::BAD_REQUEST)
        };
        Path::<T>::from_request_parts(parts, state).await.map(|Path(value)| Self(value)).map_err(refuse)
    }
}

/// What is asked after the `?`; refused by name.
pub struct Asked<T>(pub T);

impl<T: DeserializeOwned, S: Send + Sync> FromRequestParts<S> for Asked<T> {
    type Rejection = ApiError;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, ApiError> {
        let refuse = |e: QueryRejection| {
            let message = format!("The part after the ? can’t be read: {}.", cause(e.body_text()));
            ApiError::field("query", "", message).with_status(StatusCode::BAD_REQUEST)
        };
        Query::<T>::from_request_parts(parts, state).await.map(|Query(value)| Self(value)).map_err(refuse)
    }
}
