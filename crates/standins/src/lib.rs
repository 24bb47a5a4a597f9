//! Stand-ins for what a studio has outside the program: a scale on its bench, and its carriers' own service. They speak
//! HTTP on loopback, are told what to do, and make every fault that the real ones make.

mod carrier;
mod scale;

use std::{net::SocketAddr, path::Path, sync::Arc};

use anyhow::{Context as _, Result};
use axum::{Router, response::Html, routing::get};
use hummock_core::freight::Tariff;
use tokio::{net::TcpListener, task::JoinHandle};

pub use carrier::{Booked, Carrier, Fault, FaultKind};
pub use scale::{OnIt, Scale};

/// Stand-ins that are being served.
#[derive(Debug)]
pub struct Running {
    address: SocketAddr,
    server: JoinHandle<()>,
    /// What lies on the scale.
    pub scale: Arc<Scale>,
    /// What was booked.
    pub carrier: Arc<Carrier>,
}

impl Running {
    /// Returns where they listen.
    #[must_use]
    pub const fn address(&self) -> SocketAddr {
        self.address
    }

    /// Returns where the scale sends its readings.
    #[must_use]
    pub fn scale_url(&self) -> String {
        format!("http://{}/scale", self.address)
    }

    /// Returns where the carrier is asked.
    #[must_use]
    pub fn carrier_url(&self) -> String {
        format!("http://{}/carrier", self.address)
    }
}

impl Drop for Running {
    fn drop(&mut self) {
        self.server.abort();
    }
}

/// Serves a scale with nothing on it, and a carrier that prices by tariffs.
///
/// # Errors
/// When the address is taken.
pub async fn serve(address: SocketAddr, tariffs: Vec<Tariff>) -> Result<Running> {
    serve_carrier(address, Carrier::by(tariffs)).await
}

/// Serves a scale with nothing on it, and a carrier.
///
/// # Errors
/// When the address is taken.
pub async fn serve_carrier(address: SocketAddr, carrier: Carrier) -> Result<Running> {
    let listener = TcpListener::bind(address).await?;
    let address = listener.local_addr()?;
    let scale = Arc::new(Scale::default());
    let carrier = Arc::new(carrier);
    let router = router(&carrier)
        .route("/", get(|| async { Html(include_str!("bench.html")) }))
        .nest("/scale", scale::routes(Arc::clone(&scale)));
    let server = tokio::spawn(async move {
        // It ends with whoever holds it.
        let _ = axum::serve(listener, router).await;
    });
    Ok(Running {
        address,
        server,
        scale,
        carrier,
    })
}

/// Answers for a carrier under `/carrier`, for whoever serves it himself: behind TLS, or only to somebody with a key.
pub fn router(carrier: &Arc<Carrier>) -> Router {
    Router::new().nest("/carrier", carrier::routes(Arc::clone(carrier)))
}

/// Reads every tariff of a folder, in the order of their names.
///
/// # Errors
/// When there is no such folder, or a file of it is no tariff.
pub fn read_tariffs(folder: &Path) -> Result<Vec<Tariff>> {
    let listed =
        std::fs::read_dir(folder).with_context(|| format!("{} can't be read", folder.display()))?;
    let mut files = listed
        .map(|entry| entry.map(|entry| entry.path()))
        .collect::<std::io::Result<Vec<_>>>()?;
    files.retain(|file| file.extension().is_some_and(|kind| kind == "json"));
    files.sort();
    files
        .iter()
        .map(|file| {
            let text = std::fs::read_to_string(file)?;
            serde_json::from_str(&text).with_context(|| format!("{} is no tariff", file.display()))
        })
        .collect()
}
