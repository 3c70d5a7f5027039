//! The command line: `serve`, `demo`, `lay`, `check`, `draft`, `backup`, `openapi`.

mod draft;
mod lay;

use crate::{demo, http};
use anyhow::Context;
use bofta_store::Store;
use clap::{Parser, Subcommand};
use std::net::SocketAddr;
use std::path::PathBuf;
use std::process::ExitCode;

/// Plans how to cut a bag from cloth.
#[derive(Parser)]
#[command(version, about)]
pub struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serves the application.
    Serve {
        /// Folder of the database; default: bofta in the user's data folder.
        #[arg(long)]
        data: Option<PathBuf>,
        /// Address to listen on.
        #[arg(long, default_value = "127.0.0.1:4747")]
        listen: SocketAddr,
    },
    /// Serves the application with the demo's own database, which is made anew.
    Demo {
        /// Folder of the demo's database; default: bofta-demo in the user's data folder.
        #[arg(long)]
        data: Option<PathBuf>,
        /// Address to listen on.
        #[arg(long, default_value = "127.0.0.1:4747")]
        listen: SocketAddr,
    },
    /// Lays a job: reads bofta-job, writes bofta-lay.
    Lay(lay::LayArgs),
    /// Checks a lay against its job by code of its own.
    Check(lay::CheckArgs),
    /// Drafts a bag: reads bofta-bag, prints its pieces with the reason of every number.
    Draft(draft::DraftArgs),
    /// Copies the database, also while it is in use.
    Backup {
        /// The copy, which must not exist.
        to: PathBuf,
        /// Folder of the database; default: bofta in the user's data folder.
        #[arg(long)]
        data: Option<PathBuf>,
    },
    /// Prints the OpenAPI document of the server.
    Openapi,
}

/// Exit status of bad input.
const BAD_INPUT: u8 = 2;

/// Runs the command; errors are one line on standard error.
pub fn run(cli: Cli) -> ExitCode {
    let done = match cli.command {
        Command::Lay(args) => return lay::lay(&args),
        Command::Check(args) => return lay::check(&args),
        Command::Draft(args) => return draft::draft(&args),
        Command::Serve { data, listen } => serve(data, "bofta", listen, false),
        Command::Demo { data, listen } => serve(data, "bofta-demo", listen, true),
        Command::Backup { to, data } => backup(data, &to),
        Command::Openapi => {
            println!("{}", http::openapi_json());
            Ok(())
        }
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("bofta: {error:#}");
            ExitCode::from(BAD_INPUT)
        }
    }
}

fn folder(data: Option<PathBuf>, name: &str) -> anyhow::Result<PathBuf> {
    match data {
        Some(folder) => Ok(folder),
        None => {
            let dirs = directories::BaseDirs::new().context("there is no home folder; say --data DIR")?;
            Ok(dirs.data_dir().join(name))
        }
    }
}

fn backup(data: Option<PathBuf>, to: &std::path::Path) -> anyhow::Result<()> {
    let file = folder(data, "bofta")?.join("bofta.db");
    anyhow::ensure!(file.exists(), "there is no database at {}", file.display());
    anyhow::ensure!(!to.exists(), "{} exists already", to.display());
    Store::open(&file)?.backup(to)?;
    Ok(())
}

fn serve(data: Option<PathBuf>, name: &str, listen: SocketAddr, demo: bool) -> anyhow::Result<()> {
    let folder = folder(data, name)?;
    std::fs::create_dir_all(&folder).with_context(|| format!("the folder {} cannot be made", folder.display()))?;
    let file = folder.join(if demo { "demo.db" } else { "bofta.db" });
    if demo {
        for ending in ["", "-wal", "-shm"] {
            let mut old = file.clone().into_os_string();
            old.push(ending);
            match std::fs::remove_file(&old) {
                Err(e) if e.kind() != std::io::ErrorKind::NotFound => {
                    return Err(e).context("the old demo cannot be removed; is it still being served?");
                }
                _ => {}
            }
        }
    }
    let store = Store::open(&file).with_context(|| format!("{}", file.display()))?;
    if demo {
        demo::fill(&store)?;
    }
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build()?;
    runtime.block_on(http::serve(store, listen))
}
