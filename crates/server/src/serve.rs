//! Serving the application until it is told to stop.

use std::{net::SocketAddr, path::PathBuf, sync::Arc};

use anyhow::{Context, Result};
use hummock_core::shipment::EDITION;
use hummock_store::Store;
use tokio::{net::TcpListener, sync::oneshot, task::JoinHandle};

use crate::{api, app::App, clock::Clock, import::import};

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
    let app = App {
        store,
        studio: imported.studio,
        clock: options.clock,
        references: Arc::default(),
    };
    bring_up_to_date(&app).await?;
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
    })
}

/// Works out again what an earlier edition of the program had worked out, since pages expect the shape of
/// this one.
async fn bring_up_to_date(app: &App) -> Result<()> {
    let old = app.store.worked_out_before(app.studio, EDITION).await?;
    if old.is_empty() {
        return Ok(());
    }
    let house = app
        .store
        .house(app.studio, Arc::clone(&app.references))
        .await?;
    let mut recomputed = app
        .recomputed(&house)
        .await
        .map_err(|_| anyhow::anyhow!("the shipments can't be read"))?;
    recomputed.retain(|shipment| old.contains(&shipment.id));
    tracing::info!(
        shipments = recomputed.len(),
        "plans of an earlier edition are worked out again"
    );
    Ok(app.store.recompute(app.studio, &recomputed).await?)
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
