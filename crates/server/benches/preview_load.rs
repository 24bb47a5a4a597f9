//! A steady load on a server on loopback: previews, beside the health check as the baseline.
//!
//! Needs `DATABASE_URL`, an empty database that it may fill. Prints the quantiles of each.

use std::{path::Path, time::Duration};

use anyhow::{Context, Result};
use hdrhistogram::Histogram;
use hummock::{Clock, ServeOptions, serve};
use reqwest::{Client, RequestBuilder};
use tokio::time::{Instant, interval_at};

const A_SECOND: u32 = 200;
const SECONDS: u32 = 10;
const WARM_UP: u32 = 200;

#[tokio::main]
async fn main() -> Result<()> {
    let running = serve(&ServeOptions {
        database_url: std::env::var("DATABASE_URL")
            .context("DATABASE_URL names an empty database")?,
        address: ([127, 0, 0, 1], 0).into(),
        start_with: Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo"),
        with_shipments: false,
        clock: Clock::Machine,
    })
    .await?;
    let base = format!("http://{}/api/v1", running.address());
    let client = Client::new();
    let inputs = serde_json::json!({ "inputs": {
        "buyer": { "country": "XS", "postcode": "TB11 4" },
        "piece": { "construction": "stretched_canvas", "medium": "acrylic",
                   "width": "900 mm", "height": "1200 mm", "depth": "38 mm" }
    } });
    load("baseline: health", || client.get(format!("{base}/health"))).await?;
    load("preview", || {
        client.post(format!("{base}/plans/preview")).json(&inputs)
    })
    .await?;
    running.stop().await
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
