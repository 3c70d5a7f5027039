//! The command line: `serve`, `demo`, `lay`, `check`, `draft`, `backup`, `restore`, `openapi`.

#[macro_use]
mod print;
mod draft;
mod lay;
mod read_file;

use crate::http::guard::Names;
use crate::http::rescue::Rescue;
use crate::{demo, http};
use anyhow::Context;
use bofta_store::{Held, Store, StoreError, backup};
use clap::{Parser, Subcommand};
use std::io::Write as _;
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use std::sync::Arc;
use std::time::Duration;

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
    Serve(ServeArgs),
    /// Serves the application with the demo's own database, which is made anew.
    Demo(ServeArgs),
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
    /// Puts a copy in the place of the database, which is set aside under another name. Not while it is served.
    Restore {
        /// The copy.
        from: PathBuf,
        /// Folder of the database; default: bofta in the user's data folder.
        #[arg(long)]
        data: Option<PathBuf>,
    },
    /// Prints the OpenAPI document of the server.
    Openapi,
    /// Reads an uploaded file, for the server.
    #[command(hide = true)]
    ReadFile(read_file::ReadFileArgs),
}

/// Where to serve, and for whom.
#[derive(clap::Args)]
struct ServeArgs {
    /// Folder of the database; default: bofta (of the demo bofta-demo) in the user's data folder.
    #[arg(long)]
    data: Option<PathBuf>,
    /// Address to listen on.
    #[arg(long, default_value = "127.0.0.1:4747")]
    listen: SocketAddr,
    /// Listens on an address that other machines can reach: anyone who reaches it can read and change everything.
    #[arg(long)]
    network: bool,
    /// The most pages of 4 kB the database may have, for trying out a full disk.
    #[arg(long, hide = true)]
    pages: Option<u32>,
    /// Another name this server is asked under, besides localhost; may be given more than once.
    #[arg(long, value_name = "NAME")]
    host: Vec<String>,
}

/// Exit status of bad input.
const BAD_INPUT: u8 = 2;

/// Runs the command; errors are one line on standard error.
pub fn run(cli: Cli) -> ExitCode {
    let done = match cli.command {
        Command::Lay(args) => return lay::lay(&args),
        Command::Check(args) => return lay::check(&args),
        Command::Draft(args) => return draft::draft(&args),
        Command::ReadFile(args) => return read_file::run(&args),
        Command::Serve(args) => serve(&args, false),
        Command::Demo(args) => serve(&args, true),
        Command::Backup { to, data } => backup(data, &to),
        Command::Restore { from, data } => bring_back(data, &from),
        Command::Openapi => {
            say!("{}", http::openapi_json());
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

/// The database's file in a data folder.
const FILE: &str = "bofta.db";

fn backup(data: Option<PathBuf>, to: &Path) -> anyhow::Result<()> {
    let file = folder(data, "bofta")?.join(FILE);
    anyhow::ensure!(file.exists(), "there is no database at {}", file.display());
    Store::open(&file)?.backup(to)?;
    say!("copied to {}", to.display());
    Ok(())
}

fn bring_back(data: Option<PathBuf>, from: &Path) -> anyhow::Result<()> {
    let folder = folder(data, "bofta")?;
    let held = hold(&folder)?;
    let aside = backup::restore(&held, &folder, FILE, from).with_context(|| format!("{}", from.display()))?;
    say!("{} is in place", from.display());
    if let Some(aside) = aside {
        say!("the database that was there is now called {}", aside.display());
    }
    Ok(())
}

fn hold(folder: &Path) -> anyhow::Result<Held> {
    Held::folder(folder).map_err(|e| match e {
        StoreError::Busy => anyhow::anyhow!("another Bofta is already running on {}. Stop it first", folder.display()),
        other => anyhow::Error::new(other),
    })
}

fn serve(args: &ServeArgs, demo: bool) -> anyhow::Result<()> {
    anyhow::ensure!(
        args.network || args.listen.ip().is_loopback(),
        "{} can be reached from other machines: anyone who reaches it could read and change everything. If that is \
         meant, say --network",
        args.listen
    );
    let folder = folder(args.data.clone(), if demo { "bofta-demo" } else { "bofta" })?;
    let held = hold(&folder)?;
    let name = if demo { "demo.db" } else { FILE };
    if demo {
        for ending in ["", "-wal", "-shm"] {
            match std::fs::remove_file(folder.join(format!("{name}{ending}"))) {
                Err(e) if e.kind() != std::io::ErrorKind::NotFound => {
                    return Err(e).context("the old demo cannot be removed");
                }
                _ => {}
            }
        }
    }
    let runtime = tokio::runtime::Builder::new_multi_thread().worker_threads(2).enable_all().build()?;
    let served = runtime.block_on(served(args, held, &folder, name, demo));
    // What computes or waits was told to stop; it is not waited for.
    runtime.shutdown_timeout(Duration::from_millis(500));
    served
}

async fn served(args: &ServeArgs, held: Held, folder: &Path, name: &str, demo: bool) -> anyhow::Result<()> {
    let listener =
        std::net::TcpListener::bind(args.listen).with_context(|| format!("cannot listen on {}", args.listen))?;
    listener.set_nonblocking(true)?;
    let address = listener.local_addr()?;
    let again = || -> anyhow::Result<_> { Ok(tokio::net::TcpListener::from_std(listener.try_clone()?)?) };
    // Listening beyond the loopback, it is asked under the address it listens on.
    let mut hosts = args.host.clone();
    if !address.ip().is_loopback() && !address.ip().is_unspecified() {
        hosts.push(address.ip().to_string());
    }
    let names = Names::new(&hosts);
    let file = folder.join(name);
    let held = Arc::new(held);
    loop {
        match Store::open_within(&file, args.pages) {
            Ok(store) => {
                if demo {
                    demo::fill(&store)?;
                }
                announce(address);
                tracing::info!(%address, data = %folder.display(), network = args.network, "serving");
                let copies = (!demo).then(|| tokio::spawn(keep_copies(store.clone())));
                let served = http::serve(store, again()?, names).await;
                copies.inspect(tokio::task::JoinHandle::abort);
                return served;
            }
            Err(damage @ StoreError::Damaged(_)) => {
                eprintln!("bofta: {}: {damage}; open the page to bring a copy back", file.display());
                announce(address);
                let rescue = Rescue::new(held.clone(), folder.to_owned(), name, &damage);
                if !http::rescue::serve(rescue, again()?, names.clone()).await? {
                    return Ok(());
                }
            }
            Err(other) => return Err(other).with_context(|| format!("{}", file.display())),
        }
    }
}

/// Says where it is; whoever started it may have closed its ears since.
fn announce(address: SocketAddr) {
    let _ = writeln!(std::io::stdout(), "Bofta is at http://{address}");
}

/// Lets go of pictures nothing has, then looks every few minutes whether a copy is due.
async fn keep_copies(store: Store) {
    let mut tick = tokio::time::interval(Duration::from_secs(300));
    let tidied = store.clone();
    if let Ok(Err(error)) = tokio::task::spawn_blocking(move || tidied.drop_unused_pictures()).await {
        tracing::warn!(%error, "pictures that no cloth has could not be let go of");
    }
    loop {
        tick.tick().await;
        let store = store.clone();
        match tokio::task::spawn_blocking(move || store.back_up_when_due()).await {
            Ok(Ok(Some(made))) => tracing::info!(copy = %made.display(), "a copy was made"),
            Ok(Err(error)) => tracing::warn!(%error, "no copy could be made"),
            _ => {}
        }
    }
}
