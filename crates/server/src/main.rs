//! The `bofta` program: the web application and its command line.

mod cli;
mod demo;
mod http;
mod laying;
mod pictures;
mod view;
mod work;

use clap::Parser;
use std::process::ExitCode;

fn main() -> ExitCode {
    tracing_subscriber::fmt()
        .with_env_filter(
            tracing_subscriber::EnvFilter::try_from_default_env().unwrap_or_else(|_| "warn,bofta=info".into()),
        )
        .with_writer(std::io::stderr)
        .init();
    cli::run(cli::Cli::parse())
}
