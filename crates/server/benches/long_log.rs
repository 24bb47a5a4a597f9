//! The log of 10 000 parcels: its first page, and what its charts are drawn from; each beside a health check of the same run.
//!
//! Needs `DATABASE_URL`, an empty database that it fills.

use std::path::Path;

use anyhow::{Context, Result};
use hdrhistogram::Histogram;
use hummock_server::{ServeOptions, serve};
use reqwest::Client;
use sqlx::PgPool;
use tokio::time::Instant;

const PARCELS: i64 = 10_000;
const TIMES: u32 = 60;

#[tokio::main]
async fn main() -> Result<()> {
    let database_url =
        std::env::var("DATABASE_URL").context("DATABASE_URL names an empty database")?;
    let running = serve(&ServeOptions {
        start_with: Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo"),
        ..ServeOptions::on_loopback(&database_url, |_| None)
    })
    .await?;
    let base = format!("http://{}/api/v1", running.address());
    let parcels = fill(&database_url).await?;
    let client = Client::new();
    for (what, path) in [
        ("health", "/health"),
        ("first page", "/log"),
        ("first page, by title", "/log?sort=title"),
        (
            "first page, furthest off its weight",
            "/log?sort=weight_off",
        ),
        ("first page, searched", "/log?search=heron%207"),
        ("first page, damaged ones", "/log?outcome=damaged"),
        ("last page", &format!("/log?skip={}", parcels - 50)),
        ("what the charts are drawn from", "/log/reckoning"),
        (
            "the same, of one year",
            "/log/reckoning?from=2025-01-01&to=2025-12-31",
        ),
    ] {
        let mut taken = Histogram::<u64>::new(3)?;
        for _ in 0..TIMES {
            let asked = Instant::now();
            let answer = client.get(format!("{base}{path}")).send().await?;
            answer.error_for_status()?.bytes().await?;
            taken.record(u64::try_from(asked.elapsed().as_micros())?)?;
        }
        println!(
            "{what}, of {parcels} parcels: p50 {} µs, p99 {} µs",
            taken.value_at_quantile(0.5),
            taken.value_at_quantile(0.99)
        );
    }
    running.stop().await
}

/// Copies the demo studio's log until there are so many; they left over the years before. Returns how many there are.
async fn fill(database_url: &str) -> Result<i64> {
    let pool = PgPool::connect(database_url).await?;
    sqlx::query(
        "WITH first AS (
             SELECT *, row_number() OVER (ORDER BY id) AS nth, count(*) OVER () AS many FROM shipment WHERE logged IS NOT NULL
         ), copied AS (
             SELECT studio_id, id, gen_random_uuid() AS copy, number, number * many + nth AS at
             FROM first, generate_series(1, $1 / 12 + 1) AS number WHERE number * many + nth <= $1
         ), made AS (
             INSERT INTO shipment (studio_id, id, worked, summary, rules_version, house_version, plan_edition, promised, title, buyer,
                 found_by, place, handed, tracking, logged, left_on)
             SELECT studio_id, copy, worked, summary, rules_version, house_version, plan_edition, promised, title || ' ' || number, buyer,
                 found_by || ' ' || number, place, handed, tracking,
                 logged || jsonb_build_object('left_on', (left_on - (at % 1400)::int)::text), left_on - (at % 1400)::int
             FROM copied JOIN shipment USING (studio_id, id)
         )
         INSERT INTO shipment_state (studio_id, shipment_id, state, inputs, schema)
         SELECT copied.studio_id, copy, 0, inputs, schema FROM copied
         JOIN shipment ON shipment.studio_id = copied.studio_id AND shipment.id = copied.id
         JOIN shipment_state ON shipment_state.shipment_id = copied.id AND state = at_state",
    )
    .bind(PARCELS)
    .execute(&pool)
    .await?;
    sqlx::query("ANALYZE").execute(&pool).await?;
    let many = sqlx::query_scalar("SELECT count(*) FROM shipment WHERE logged IS NOT NULL");
    Ok(many.fetch_one(&pool).await?)
}
