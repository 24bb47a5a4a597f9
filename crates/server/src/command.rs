//! The command line: serves the application, and does the chores around it.

use std::{net::SocketAddr, path::PathBuf};

use anyhow::Result;
use clap::{Args, Parser, Subcommand};
use hummock_store::Store;
use jiff::civil::Date;
use tracing_subscriber::EnvFilter;

use crate::{Clock, Pages, ServeOptions, description, import, serve};

/// Packing and shipping for the people who make and frame flat art.
#[derive(Debug, Parser)]
#[command(version)]
struct Command {
    #[command(subcommand)]
    task: Task,
}

#[derive(Debug, Subcommand)]
enum Task {
    /// Serves the application until Ctrl-C.
    Serve {
        #[command(flatten)]
        studio: StudioArgs,
        /// Port on 127.0.0.1; 0 takes any that is free.
        #[arg(long, default_value_t = 7373)]
        port: u16,
        /// A further name that it answers under, as studio.example; may be given more than once.
        #[arg(long = "allow-host")]
        allow_hosts: Vec<String>,
        /// The origin of its pages behind a proxy, as https://studio.example; several are parted by commas.
        #[arg(long = "origin", env = "HUMMOCK_ORIGIN", value_delimiter = ',')]
        origins: Vec<String>,
    },
    /// Fills an empty database from a folder of data files.
    Import {
        #[command(flatten)]
        studio: StudioArgs,
    },
    /// Brings the tables of the database up to date.
    Migrate {
        /// The database.
        #[arg(long, env = "DATABASE_URL")]
        database_url: String,
    },
    /// Prints the description of the API.
    Openapi,
}

#[derive(Debug, Args)]
struct StudioArgs {
    /// The database.
    #[arg(long, env = "DATABASE_URL")]
    database_url: String,
    /// What an empty database is filled from.
    #[arg(long, default_value = "demo")]
    start_with: PathBuf,
    /// Leaves out the shipments of that folder.
    #[arg(long)]
    empty: bool,
    /// Takes this for the day, as 2027-03-04; for demonstrations.
    #[arg(long)]
    today: Option<Date>,
}

impl StudioArgs {
    fn clock(&self) -> Clock {
        self.today.map_or(Clock::Machine, Clock::Standing)
    }
}

/// Does what the command line says, with the pages that are handed in.
///
/// # Errors
/// When that fails; the message says what to do.
#[tokio::main]
pub async fn command(pages: Pages) -> Result<()> {
    let filter = EnvFilter::try_from_default_env().unwrap_or_else(|_| EnvFilter::new("warn"));
    tracing_subscriber::fmt()
        .with_env_filter(filter)
        .with_writer(std::io::stderr)
        .init();
    match Command::parse().task {
        Task::Serve {
            studio,
            port,
            allow_hosts,
            origins,
        } => {
            let clock = studio.clock();
            serve_until_told(&ServeOptions {
                database_url: studio.database_url,
                address: SocketAddr::from(([127, 0, 0, 1], port)),
                start_with: studio.start_with,
                with_shipments: !studio.empty,
                clock,
                pages,
                allow_hosts,
                origins,
            })
            .await
        }
        Task::Import { studio } => {
            let store = Store::open(&studio.database_url).await?;
            let imported =
                import(&store, &studio.start_with, !studio.empty, studio.clock()).await?;
            match imported.founded {
                true => println!("imported the studio with {} shipments", imported.shipments),
                false => println!("the database has a studio already; nothing was imported"),
            }
            Ok(())
        }
        Task::Migrate { database_url } => {
            Store::open(&database_url).await?;
            println!("the tables are up to date");
            Ok(())
        }
        Task::Openapi => {
            println!("{}", description().to_pretty_json()?);
            Ok(())
        }
    }
}

async fn serve_until_told(options: &ServeOptions) -> Result<()> {
    let running = serve(options).await?;
    println!("Hummock is open at http://{}", running.address());
    told_to_stop().await?;
    running.stop().await
}

/// Waits for Ctrl-C, or for the polite signal of whoever started it.
async fn told_to_stop() -> Result<()> {
    let mut polite = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate())?;
    tokio::select! {
        interrupted = tokio::signal::ctrl_c() => interrupted?,
        _ = polite.recv() => {}
    }
    Ok(())
}
