//! A change of the house rules over 10 000 shipments, of which 100 are on the bench, and the first page of a list.
//!
//! Needs `DATABASE_URL`, an empty database that it fills.

use std::{path::Path, time::Duration};

use anyhow::{Context, Result};
use hdrhistogram::Histogram;
use hummock_server::{Fill, ServeOptions, serve};
use reqwest::Client;
use serde_json::{Value, json};
use sqlx::PgPool;
use tokio::time::{Instant, interval};

const ON_THE_BENCH: u32 = 100;
const ARCHIVED: i32 = 9_900;
const PAGES: u32 = 100;

#[tokio::main]
async fn main() -> Result<()> {
    let database_url =
        std::env::var("DATABASE_URL").context("DATABASE_URL names an empty database")?;
    let running = serve(&ServeOptions {
        start_with: Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo"),
        fill: Fill::NoShipments,
        ..ServeOptions::on_loopback(&database_url, |_| None)
    })
    .await?;
    let base = format!("http://{}/api/v1", running.address());
    let client = Client::new();
    fill(&client, &base, &database_url).await?;
    let get = async |path: &str| -> Result<Value> {
        Ok(client
            .get(format!("{base}{path}"))
            .send()
            .await?
            .error_for_status()?
            .json()
            .await?)
    };

    for query in [
        "?most=50",
        "?place=archive",
        "?place=archive&sort=title&search=tide%207",
    ] {
        let mut pages = Histogram::<u64>::new(3)?;
        for _ in 0..PAGES {
            let asked = Instant::now();
            get(&format!("/shipments{query}")).await?;
            pages.record(u64::try_from(asked.elapsed().as_micros())?)?;
        }
        println!(
            "first page of shipments{query}: p50 {} µs, p99 {} µs",
            pages.value_at_quantile(0.5),
            pages.value_at_quantile(0.99)
        );
    }

    let mut health = tokio::spawn(healthy(client.clone(), base.clone(), 400));
    println!("health before: {}", (&mut health).await??);
    let mut rules = get("/studio").await?["rules"].take();
    rules["allowances"]["first_turns"] = json!(3);
    let health = tokio::spawn(healthy(client.clone(), base.clone(), 400));
    let changed = Instant::now();
    let asked = json!({ "rules": rules });
    let answer = client.put(format!("{base}/studio/rules")).json(&asked);
    answer.send().await?.error_for_status()?;
    let answered = changed.elapsed();
    while get("/studio/progress").await?["behind"] != 0 {}
    println!(
        "a rules change over {} shipments, {ON_THE_BENCH} open: answered in {} ms, applied in {} ms",
        ARCHIVED.unsigned_abs() + ON_THE_BENCH,
        answered.as_millis(),
        changed.elapsed().as_millis()
    );
    println!("health meanwhile: {}", health.await??);
    let status = std::fs::read_to_string("/proc/self/status").unwrap_or_default();
    for line in status.lines().filter(|line| line.starts_with("VmHWM")) {
        println!("most memory, with the client that asks: {line}");
    }
    running.stop().await
}

async fn fill(client: &Client, base: &str, database_url: &str) -> Result<()> {
    for number in 0..ON_THE_BENCH {
        let inputs = json!({
            "title": format!("Tide {number}"),
            "promised": format!("2027-03-{:02}", 1 + number % 28),
            "buyer": { "name": "Ivo Tern", "country": "XS", "postcode": "TB11 4" },
            "piece": { "construction": "stretched_canvas", "medium": "acrylic", "width": format!("{} mm", 400 + number),
                       "height": "1200 mm", "depth": "38 mm" }
        });
        let made = client.post(format!("{base}/shipments"));
        made.json(&json!({ "inputs": inputs }))
            .send()
            .await?
            .error_for_status()?;
    }
    // The others are copies that were archived.
    let pool = PgPool::connect(database_url).await?;
    sqlx::query(
        "WITH copied AS (
             SELECT studio_id, id, gen_random_uuid() AS copy, number
             FROM shipment, generate_series(1, $1 / 100) AS number
         ), made AS (
             INSERT INTO shipment (studio_id, id, worked, summary, rules_version, house_version, plan_edition, promised, title, buyer,
                 found_by, place)
             SELECT studio_id, copy, worked, summary, rules_version, house_version, plan_edition, promised, title, buyer, found_by,
                 'archive'
             FROM copied JOIN shipment USING (studio_id, id)
         )
         INSERT INTO shipment_state (studio_id, shipment_id, state, inputs)
         SELECT copied.studio_id, copy, 0, inputs FROM copied
         JOIN shipment_state ON shipment_id = copied.id",
    )
    .bind(ARCHIVED)
    .execute(&pool)
    .await?;
    sqlx::query("ANALYZE").execute(&pool).await?;
    Ok(())
}

/// Asks for health over and over, and says how long that took.
async fn healthy(client: Client, base: String, times: u32) -> Result<String> {
    let mut histogram = Histogram::<u64>::new(3)?;
    let mut tick = interval(Duration::from_millis(5));
    for _ in 0..times {
        tick.tick().await;
        let asked = Instant::now();
        client
            .get(format!("{base}/health"))
            .send()
            .await?
            .error_for_status()?;
        histogram.record(u64::try_from(asked.elapsed().as_micros())?)?;
    }
    Ok(format!(
        "p50 {} µs, p99 {} µs",
        histogram.value_at_quantile(0.5),
        histogram.value_at_quantile(0.99)
    ))
}
