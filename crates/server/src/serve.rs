//! Serving the application until it is told to stop.

use std::{
    net::{SocketAddr, TcpListener},
    path::PathBuf,
    sync::Arc,
    time::Duration,
};

use anyhow::{Context, Result};
use axum_server::Handle;
use hummock_core::shipment::EDITION;
use hummock_store::Store;
use hyper_util::rt::TokioTimer;
use tokio::task::JoinHandle;

use crate::{
    api,
    app::App,
    clock::Clock,
    guard::Ours,
    import::import,
    pages::{PageShelf, Pages},
    rework::keep_up,
};

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
    /// The web build.
    pub pages: Pages,
    /// Further names that it answers under.
    pub allow_hosts: Vec<String>,
    /// Origins of pages that reach it through a proxy.
    pub origins: Vec<String>,
}

/// A client that has not sent the whole head of a request by then is hung up on.
const LONGEST_HEAD: Duration = Duration::from_secs(10);
/// Whoever is still being answered when it is to stop has so long.
const LONGEST_GOODBYE: Duration = Duration::from_secs(4);

/// An application that is being served.
#[derive(Debug)]
pub struct Running {
    address: SocketAddr,
    handle: Handle<SocketAddr>,
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
        pages: Arc::new(PageShelf::of(options.pages)),
    };
    let keeping_up = EndsWith(tokio::spawn(keep_up(app.clone())));
    let ours = Ours::of(options.address.ip(), &options.allow_hosts, &options.origins)?;
    let listener = TcpListener::bind(options.address).with_context(|| {
        format!(
            "{} can't be listened on: choose another with --port",
            options.address
        )
    })?;
    listener.set_nonblocking(true)?;
    let address = listener.local_addr()?;
    let handle = Handle::new();
    let mut server = axum_server::from_tcp(listener)?.handle(handle.clone());
    server
        .http_builder()
        .http1()
        .timer(TokioTimer::new())
        .header_read_timeout(LONGEST_HEAD);
    let service = api::router(app, ours).into_make_service();
    let server = tokio::spawn(server.serve(service));
    Ok(Running {
        address,
        handle,
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

    /// Tells it to finish what it is doing and stop; whoever keeps it waiting is hung up on.
    ///
    /// # Errors
    /// When serving had failed.
    pub async fn stop(self) -> Result<()> {
        self.handle.graceful_shutdown(Some(LONGEST_GOODBYE));
        Ok(self.server.await??)
    }
}
