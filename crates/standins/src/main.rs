//! The program `hummock-standins`: serves a scale and a carrier that are none, on loopback, until it is told to stop.

use std::{net::SocketAddr, path::PathBuf};

use anyhow::{Context as _, Result};
use clap::Parser;
use hummock_standins::{Carrier, read_tariffs, serve_carrier};

/// A scale and a carrier that are none, for demonstrations and tests.
#[derive(Debug, Parser)]
#[command(version)]
struct Options {
    /// Port on 127.0.0.1; 0 takes any that is free.
    #[arg(long, default_value_t = 7374)]
    port: u16,
    /// A folder with the tariffs that the carrier prices by.
    #[arg(long, default_value = "demo/tariffs")]
    tariffs: PathBuf,
    /// A file with the carrier's books, so that what was booked outlives it; kept in memory without one.
    #[arg(long)]
    books: Option<PathBuf>,
}

#[tokio::main(flavor = "current_thread")]
async fn main() -> Result<()> {
    let options = Options::parse();
    let tariffs = read_tariffs(&options.tariffs)?;
    let address = SocketAddr::from(([127, 0, 0, 1], options.port));
    let carrier = match &options.books {
        Some(books) => Carrier::with_books(tariffs, books)
            .with_context(|| format!("{} holds no books", books.display()))?,
        None => Carrier::by(tariffs),
    };
    let running = serve_carrier(address, carrier)
        .await
        .with_context(|| format!("{address} can't be listened on: choose another with --port"))?;
    println!(
        "The stand-in scale and carrier are at http://{}",
        running.address()
    );
    let mut polite = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate())?;
    tokio::select! {
        interrupted = tokio::signal::ctrl_c() => interrupted?,
        _ = polite.recv() => {}
    }
    Ok(())
}
