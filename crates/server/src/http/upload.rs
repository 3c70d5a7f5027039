//! An uploaded file: its bytes, and its reading in a process of its own.

use super::problem::ApiError;
use axum::body::Bytes;
use axum::extract::{FromRequest, Request};
use axum::http::{StatusCode, header};
use bofta_core::measure::System;
use bofta_core::name;
use bofta_formats::cut_list::Found;
use bofta_formats::gate::{FileRead, READER_MEMORY, READER_SECONDS, Refused, too_large};
use std::path::{Path, PathBuf};
use std::process::Stdio;
use std::time::Duration;
use tokio::io::{AsyncReadExt as _, AsyncWriteExt as _};
use tokio::process::Command;
use tokio::sync::Semaphore;
use tokio_stream::StreamExt as _;

/// How much of a file that is refused is still read, in bytes. A browser that is cut off while it sends never sees
/// the answer, so the rest is read and thrown away; beyond this the connection is closed on it.
const PATIENCE: usize = 512 * 1024 * 1024;
/// The most a reader may answer, in bytes: four hundred rows with their outlines are far below.
const MOST_ANSWERED: u64 = 32 << 20;
/// Files read side by side; others wait.
static READERS: Semaphore = Semaphore::const_new(2);

/// The bytes of a file of at most `MOST`; a larger one is refused by a sentence.
pub struct Upload<const MOST: usize>(pub Bytes);

impl<const MOST: usize, S: Send + Sync> FromRequest<S> for Upload<MOST> {
    type Rejection = ApiError;

    async fn from_request(request: Request, _: &S) -> Result<Self, ApiError> {
        // A form of another page can send text and forms without asking, but not this.
        let kind = request.headers().get(header::CONTENT_TYPE).and_then(|v| v.to_str().ok()).unwrap_or_default();
        if !kind.eq_ignore_ascii_case("application/octet-stream") {
            let message = "A file is sent as application/octet-stream.";
            return Err(ApiError::field("file", kind, message).with_status(StatusCode::UNSUPPORTED_MEDIA_TYPE));
        }
        let mut stream = request.into_body().into_data_stream();
        let (mut kept, mut seen) = (Vec::new(), 0usize);
        while let Some(part) = stream.next().await {
            let part = part.map_err(|e| broken(&e))?;
            seen += part.len();
            if seen > PATIENCE {
                break;
            } else if seen > MOST {
                kept = Vec::new();
            } else {
                kept.extend_from_slice(&part);
            }
        }
        if seen > MOST {
            let message = format!("The file cannot be taken: {}.", too_large(seen, MOST));
            return Err(ApiError::field("file", "", message).with_status(StatusCode::PAYLOAD_TOO_LARGE));
        }
        Ok(Self(kept.into()))
    }
}

fn broken(error: &axum::Error) -> ApiError {
    tracing::info!(%error, "an upload broke off");
    ApiError::field("file", "", "The file didn’t arrive whole. Send it again.").with_status(StatusCode::BAD_REQUEST)
}

/// The file of the program that runs, also after another was put in its place: Linux keeps it open under this name.
fn this_program() -> std::io::Result<PathBuf> {
    let own = Path::new("/proc/self/exe");
    if own.exists() || own.is_symlink() { Ok(own.to_owned()) } else { std::env::current_exe() }
}

/// Reads a file in a process of its own, with limits of memory and time: whatever a reader does, this program goes on.
pub async fn read_apart(bytes: Bytes, called: &str, system: System, unit: Option<&str>) -> Result<Found, ApiError> {
    let called = &name::clean(called);
    let because = |why: String| ApiError::field("file", called, why);
    let _turn = READERS.acquire().await.map_err(ApiError::internal)?;
    let mut command = Command::new(this_program().map_err(ApiError::internal)?);
    command.arg("read-file").arg(format!("--called={called}")).args(["--system", system.symbol()]);
    if let Some(unit) = unit {
        command.args(["--unit", unit]);
    }
    command.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::null()).kill_on_drop(true).env_clear();
    let mut child = command.spawn().map_err(ApiError::internal)?;
    let (stdin, stdout) = (child.stdin.take(), child.stdout.take());
    let talk = async {
        let (Some(mut stdin), Some(stdout)) = (stdin, stdout) else { return None };
        let send = async move {
            // A reader that has seen enough closes its end.
            let _ = stdin.write_all(&bytes).await;
        };
        let receive = async move {
            let mut answer = Vec::new();
            stdout.take(MOST_ANSWERED).read_to_end(&mut answer).await.ok().map(|_| answer)
        };
        let (_, answer) = tokio::join!(send, receive);
        child.wait().await.ok().filter(|status| status.success()).and(answer)
    };
    let told = tokio::time::timeout(Duration::from_secs(READER_SECONDS), talk).await;
    match told {
        Err(_) => {
            Err(because(format!("{called} takes longer than {READER_SECONDS} s to read, so it can’t be a cut list.")))
        }
        Ok(None) => {
            tracing::info!(called, "a reader failed on a file");
            Err(because(format!(
                "{called} can’t be read. The file is damaged, or takes more than {} MB to read.",
                READER_MEMORY >> 20
            )))
        }
        Ok(Some(answer)) => match serde_json::from_slice::<FileRead>(&answer).map_err(ApiError::internal)? {
            Ok(found) => Ok(found),
            Err(Refused::Because(why)) => Err(because(why)),
            // The screen asks for the unit and sends it again.
            Err(Refused::NoUnit(why)) => Err(ApiError::field("unit", called, why)),
        },
    }
}
