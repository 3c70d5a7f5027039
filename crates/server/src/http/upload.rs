//! An uploaded file as a body.

use super::problem::Refusal;
use axum::body::Bytes;
use axum::extract::{FromRequest, Request};
use axum::http::StatusCode;
use bofta_core::FieldProblem;
use bofta_formats::outlines::LARGEST;
use tokio_stream::StreamExt as _;

/// How much of a file that is refused is still read, in bytes. A browser that is cut off while it sends never sees
/// the answer, so the rest is read and thrown away; beyond this the connection is closed on it.
const PATIENCE: usize = 512 * 1024 * 1024;

/// The bytes of a file of at most [`LARGEST`]; a larger one is refused by a sentence.
pub struct Upload(pub Bytes);

impl<S: Send + Sync> FromRequest<S> for Upload {
    type Rejection = Refusal;

    async fn from_request(request: Request, _: &S) -> Result<Self, Refusal> {
        let mut stream = request.into_body().into_data_stream();
        let (mut kept, mut seen) = (Vec::new(), 0usize);
        while let Some(part) = stream.next().await {
            let part = part.map_err(|e| broken(&e))?;
            seen += part.len();
            if seen > PATIENCE {
                break;
            } else if seen > LARGEST {
                kept = Vec::new();
            } else {
                kept.extend_from_slice(&part);
            }
        }
        if seen > LARGEST { Err(too_large()) } else { Ok(Self(kept.into())) }
    }
}

fn too_large() -> Refusal {
    let message = format!("The file is over {} MB: that is no cut list.", LARGEST >> 20);
    Refusal::fields(vec![FieldProblem::new("file", "", message)]).with_status(StatusCode::PAYLOAD_TOO_LARGE)
}

fn broken(error: &axum::Error) -> Refusal {
    tracing::info!(%error, "an upload broke off");
    Refusal::fields(vec![FieldProblem::new("file", "", "The file did not arrive whole; send it again.")])
}
