//! `bofta read-file`: reads one uploaded file from standard input and writes what is in it, as JSON, to standard output.
//! The server runs it for every file, so that a reader of another's format can fail without failing the server.

use bofta_core::measure::{Length, System};
use bofta_formats::gate::{MOST_BYTES, READER_MEMORY, READER_SECONDS, read_file};
use clap::Args;
use rlimit::Resource;
use std::io::{Read as _, Write as _};
use std::process::ExitCode;

#[derive(Args)]
pub struct ReadFileArgs {
    /// What the file is called.
    #[arg(long)]
    called: String,
    /// `in` or `cm`: what numbers without a unit are in.
    #[arg(long)]
    system: String,
    /// What a drawing without a unit is drawn in: `in`, `cm` or `mm`.
    #[arg(long)]
    unit: Option<String>,
}

pub fn run(args: &ReadFileArgs) -> ExitCode {
    // Before a byte is read; without the limits nothing is.
    let limits = [(Resource::AS, READER_MEMORY), (Resource::CPU, READER_SECONDS), (Resource::CORE, 0)];
    if limits.iter().any(|(what, most)| what.set(*most, *most).is_err()) {
        return ExitCode::FAILURE;
    }
    let mut bytes = Vec::new();
    if std::io::stdin().take(MOST_BYTES as u64 + 1).read_to_end(&mut bytes).is_err() {
        return ExitCode::FAILURE;
    }
    let system = if args.system == "cm" { System::Centimetres } else { System::Inches };
    let unit = match args.unit.as_deref() {
        Some("in") => Some(Length::INCH),
        Some("cm") => Some(Length::CENTIMETRE),
        Some("mm") => Some(Length::MILLIMETRE),
        _ => None,
    };
    let read = read_file(&bytes, &args.called, system, unit);
    match serde_json::to_vec(&read).map(|answer| std::io::stdout().write_all(&answer)) {
        Ok(Ok(())) => ExitCode::SUCCESS,
        _ => ExitCode::FAILURE,
    }
}
