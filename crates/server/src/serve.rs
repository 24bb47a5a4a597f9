//! Serving the application until it is told to stop.

use std::{net::SocketAddr, path::PathBuf, sync::Arc};

use anyhow::{Context, Result};
use hummock_core::shipment::EDITION;
use hummock_store::Store;
use tokio::{net::TcpListener, sync::oneshot, task::JoinHandle};

use crate::{api, app::App, clock::Clock, import::import, rework::keep_up};

/// What to serve, and where.
#[derive(Debug, Clone)]
pub struct ServeOptions {
    /// The database.
    pub database_url: String,
    /// Where to listen; port 0 takes any that is free.
    pub address: SocketAddr,
    /// What an empty database is filled from.
    pub start_with: PathBuf,
    /// Whether its shipments are taken too.
    pub with_shipments: bool,
    /// What day it is.
    pub clock: Clock,
}

/// An application that is being served.
#[derive(Debug)]
pub struct Running {
    address: SocketAddr,
    stop: oneshot::Sender<()>,
    server: JoinHandle<std::io::Result<()>>,
    _keeping_up: EndsWith,
}

/// Work that ends when this is dropped.
#[derive(Debug)]
struct EndsWith(JoinHandle<()>);

impl Drop for EndsWith {
    fn drop(&mut self) {
        self.0.abort();
    }
}

/// Fills the database if it is empty, and serves until told to stop.
///
/// # Errors
/// When the database can't be reached, the start files can't be read, or the address is taken.
pub async fn serve(options: &ServeOptions) -> Result<Running> {
    let store = Store::open(&options.database_url).await?;
    let imported = import(
        &store,
        &options.start_with,
        options.with_shipments,
        options.clock,
    )
    .await?;
    tracing::info!(
        founded = imported.founded,
        shipments = imported.shipments,
        "the studio is open"
    );
    // Pages expect the shape of this edition.
    store
        .mark_worked_out_before(imported.studio, EDITION)
        .await?;
    let app = App {
        store,
        studio: imported.studio,
        clock: options.clock,
        houses: Arc::default(),
        bell: Arc::default(),
    };
    let keeping_up = EndsWith(tokio::spawn(keep_up(app.clone())));
    let listener = TcpListener::bind(options.address).await.with_context(|| {
        format!(
            "{} can't be listened on: choose another with --port",
            options.address
        )
    })?;
    let address = listener.local_addr()?;
    let (stop, stopped) = oneshot::channel();
    let server = tokio::spawn(async move {
        let until = async { stopped.await.unwrap_or(()) };
        axum::serve(listener, api::router(app))
            .with_graceful_shutdown(until)
            .await
    });
    Ok(Running {
        address,
        stop,
        server,
        _keeping_up: keeping_up,
    })
}

impl Running {
    /// Returns where it listens.
    #[must_use]
    pub const fn address(&self) -> SocketAddr {
        self.address
    }

    /// Tells it to finish what it is doing and stop.
    ///
    /// # Errors
    /// When serving had failed.
    pub async fn stop(self) -> Result<()> {
        // It may have stopped by itself, in which case nobody listens.
        let _ = self.stop.send(());
        Ok(self.server.await??)
    }
}
