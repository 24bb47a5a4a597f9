//! Load on a server on loopback: previews, beside the health check as the baseline; at a steady rate, then as fast as
//! four connections can.
//!
//! Needs `DATABASE_URL`, an empty database that it may fill; or `HUMMOCK_AT`, as `http://127.0.0.1:7373`, the address of
//! a server that runs already. Prints the quantiles of each.

use std::{path::Path, time::Duration};

use anyhow::{Context, Result};
use hdrhistogram::Histogram;
use hummock_server::{Fill, ServeOptions, serve};
use reqwest::{Client, RequestBuilder};
use tokio::time::{Instant, interval_at};

const A_SECOND: u32 = 200;
const SECONDS: u32 = 10;
const WARM_UP: u32 = 200;
const CONNECTIONS: usize = 4;

#[tokio::main]
async fn main() -> Result<()> {
    match std::env::var("HUMMOCK_AT") {
        Ok(address) => loads(&address).await,
        Err(_) => {
            let database_url =
                std::env::var("DATABASE_URL").context("DATABASE_URL names an empty database")?;
            let running = serve(&ServeOptions {
                start_with: Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo"),
                fill: Fill::NoShipments,
                ..ServeOptions::on_loopback(database_url, |_| None)
            })
            .await?;
            loads(&format!("http://{}", running.address())).await?;
            running.stop().await
        }
    }
}

async fn loads(address: &str) -> Result<()> {
    let _ = rustls::crypto::ring::default_provider().install_default();
    let base = format!("{address}/api/v1");
    let client = Client::new();
    let inputs = serde_json::json!({ "inputs": {
        "buyer": { "country": "XS", "postcode": "TB11 4" },
        "piece": { "construction": "stretched_canvas", "medium": "acrylic",
                   "width": "900 mm", "height": "1200 mm", "depth": "38 mm" }
    } });
    let health = || client.get(format!("{base}/health"));
    let preview = || client.post(format!("{base}/plans/preview")).json(&inputs);
    load("baseline: health", health).await?;
    load("preview", preview).await?;
    flat_out("baseline: health", health).await?;
    flat_out("preview", preview).await
}

/// Sends requests over a few connections, each as soon as the one before is answered.
async fn flat_out(name: &str, request: impl Fn() -> RequestBuilder) -> Result<()> {
    let until = Instant::now() + Duration::from_secs(u64::from(SECONDS));
    let mut busy = Vec::new();
    for _ in 0..CONNECTIONS {
        let again = request();
        busy.push(tokio::spawn(async move {
            let mut times = Vec::new();
            while Instant::now() < until {
                let sent = Instant::now();
                let asked = again.try_clone().expect("the body is kept");
                asked.send().await?.error_for_status()?.bytes().await?;
                times.push(sent.elapsed());
            }
            Ok::<_, reqwest::Error>(times)
        }));
    }
    let mut histogram = Histogram::<u64>::new(3)?;
    for times in busy {
        for time in times.await?? {
            histogram.record(u64::try_from(time.as_micros())?)?;
        }
    }
    println!(
        "{name}, {CONNECTIONS} connections: {} a second, p50 {} µs, p99 {} µs",
        histogram.len() / u64::from(SECONDS),
        histogram.value_at_quantile(0.5),
        histogram.value_at_quantile(0.99)
    );
    Ok(())
}

/// Sends requests at a steady rate, whether or not the former ones are answered, and prints how long
/// each took from the moment that it was due.
async fn load(name: &str, request: impl Fn() -> RequestBuilder) -> Result<()> {
    for _ in 0..WARM_UP {
        request().send().await?.error_for_status()?.bytes().await?;
    }
    let mut ticks = interval_at(Instant::now(), Duration::from_secs(1) / A_SECOND);
    let mut answers = Vec::new();
    for _ in 0..A_SECOND * SECONDS {
        let due = ticks.tick().await;
        let sent = request().send();
        answers.push(tokio::spawn(async move {
            sent.await?.error_for_status()?.bytes().await?;
            Ok::<_, reqwest::Error>(due.elapsed())
        }));
    }
    let mut histogram = Histogram::<u64>::new(3)?;
    for answer in answers {
        histogram.record(u64::try_from(answer.await??.as_micros())?)?;
    }
    let quantile = |share| histogram.value_at_quantile(share);
    println!(
        "{name}: {A_SECOND}/s for {SECONDS} s, p50 {} µs, p99 {} µs, most {} µs",
        quantile(0.5),
        quantile(0.99),
        histogram.max()
    );
    Ok(())
}
