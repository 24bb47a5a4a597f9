//! A studio of 1000 shipments with three photographs each, out as one file and in again, and the most memory that the server took for it.
//!
//! Needs `DATABASE_URL`, an empty database that it fills. The baseline is the same photographs copied from one folder to another.

use std::{fs, io::Write as _, path::Path};

use anyhow::{Context, Result, ensure};
use hummock_server::{Fill, Pictures, Running, ServeOptions, serve};
use reqwest::Client;
use serde_json::{Value, json};
use sqlx::PgPool;
use tokio::time::Instant;
use uuid::Uuid;

const SHIPMENTS: i64 = 1_000;
const EACH: i32 = 3;
const PICTURE: usize = 300_000;
const PART: usize = 4 << 20;

#[tokio::main]
async fn main() -> Result<()> {
    let database_url =
        std::env::var("DATABASE_URL").context("DATABASE_URL names an empty database")?;
    let [here, there, copy] = ["here", "there", "copy"].map(|_| tempfile::tempdir());
    let (here, there, copy) = (here?, there?, copy?);
    let running = open(&database_url, here.path(), true).await?;
    let pool = PgPool::connect(&database_url).await?;
    let photographs = fill(&pool, here.path()).await?;
    let client = Client::new();
    println!("{SHIPMENTS} shipments, {photographs} photographs of {PICTURE} bytes");

    let copied = Instant::now();
    for folder in fs::read_dir(here.path())? {
        for file in fs::read_dir(folder?.path())? {
            let file = file?;
            fs::copy(file.path(), copy.path().join(file.file_name()))?;
        }
    }
    println!(
        "the photographs copied (baseline): {} ms",
        copied.elapsed().as_millis()
    );

    println!("most memory before: {}", most_memory());
    let base = format!("http://{}/api/v1/studio", running.address());
    let began = Instant::now();
    client
        .post(format!("{base}/backup"))
        .send()
        .await?
        .error_for_status()?;
    let view = settled(&client, &base).await?;
    println!(
        "made: {} ms, {} bytes",
        began.elapsed().as_millis(),
        view["made"]["bytes"]
    );
    println!("most memory after it was made: {}", most_memory());
    let file = copy.path().join("studio.zip");
    let fetched = Instant::now();
    let mut answer = client
        .get(format!("{base}/backup/file"))
        .send()
        .await?
        .error_for_status()?;
    let mut to = fs::File::create(&file)?;
    while let Some(piece) = answer.chunk().await? {
        to.write_all(&piece)?;
    }
    println!("fetched: {} ms", fetched.elapsed().as_millis());
    running.stop().await?;

    sqlx::query("DELETE FROM studio").execute(&pool).await?;
    let running = open(&database_url, there.path(), false).await?;
    let base = format!("http://{}/api/v1/studio", running.address());
    let sent = Instant::now();
    send(&client, &base, &file).await?;
    println!("sent: {} ms", sent.elapsed().as_millis());
    let view = settled(&client, &base).await?;
    println!("sent and read in: {} ms", sent.elapsed().as_millis());
    ensure!(view["read"]["photographs"] == json!(photographs), "{view}");
    println!("most memory after all: {}", most_memory());
    running.stop().await
}

async fn open(database_url: &str, photographs: &Path, with_shipments: bool) -> Result<Running> {
    serve(&ServeOptions {
        start_with: Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo"),
        fill: if with_shipments {
            Fill::Everything
        } else {
            Fill::NoShipments
        },
        pictures: Pictures::in_folder(photographs)?,
        ..ServeOptions::on_loopback(database_url, |_| None)
    })
    .await
}

async fn settled(client: &Client, base: &str) -> Result<Value> {
    loop {
        let view: Value = client
            .get(format!("{base}/backup"))
            .send()
            .await?
            .json()
            .await?;
        if view["doing"].is_null() {
            ensure!(view["failed"].is_null(), "{view}");
            return Ok(view);
        }
        tokio::time::sleep(std::time::Duration::from_millis(20)).await;
    }
}

async fn send(client: &Client, base: &str, file: &Path) -> Result<()> {
    use std::os::unix::fs::FileExt as _;

    let file = fs::File::open(file)?;
    let whole = usize::try_from(file.metadata()?.len())?;
    let announced = client
        .post(format!("{base}/restore"))
        .json(&json!({ "bytes": whole }));
    let announced: Value = announced.send().await?.error_for_status()?.json().await?;
    let id = announced["id"].as_str().context("an id")?;
    let mut from = 0;
    while from < whole {
        let mut part = vec![0; PART.min(whole - from)];
        file.read_exact_at(&mut part, u64::try_from(from)?)?;
        from += part.len();
        let at = from - part.len();
        let put = client
            .put(format!("{base}/restore/{id}?from={at}"))
            .body(part);
        put.send().await?.error_for_status()?;
    }
    Ok(())
}

/// Copies the demo studio's shipments until there are so many, and gives each its photographs. Returns how many there are of these.
async fn fill(pool: &PgPool, folder: &Path) -> Result<i64> {
    sqlx::query(
        "WITH first AS (SELECT studio_id, id, row_number() OVER (ORDER BY id) AS place FROM shipment),
         missing AS (SELECT $1 - count(*) AS many FROM shipment),
         copied AS (
             SELECT studio_id, id, gen_random_uuid() AS copy FROM first, generate_series(1, $1) AS number
             ORDER BY number, place LIMIT (SELECT many FROM missing)
         ), made AS (
             INSERT INTO shipment (studio_id, id, worked, summary, rules_version, house_version, plan_edition, promised, title, buyer,
                 found_by, place, handed, tracking, logged, left_on)
             SELECT studio_id, copy, worked, summary, rules_version, house_version, plan_edition, promised, title, buyer,
                 found_by, place, handed, tracking, logged, left_on
             FROM copied JOIN shipment USING (studio_id, id)
         )
         INSERT INTO shipment_state (studio_id, shipment_id, state, inputs, schema)
         SELECT copied.studio_id, copy, 0, inputs, schema FROM copied
         JOIN shipment ON shipment.studio_id = copied.studio_id AND shipment.id = copied.id
         JOIN shipment_state ON shipment_state.shipment_id = copied.id AND state = at_state",
    )
    .bind(SHIPMENTS)
    .execute(pool)
    .await?;
    sqlx::query(
        "INSERT INTO photograph (studio_id, id, shipment_id, step, taken_at, width, height, bytes, digest)
         SELECT studio_id, gen_random_uuid(), id, 'look/photographs', '2027-03-04T10:15:00Z', 1600, 1200, $2,
             sha256(convert_to(id::text || number, 'UTF8'))
         FROM shipment, generate_series(1, $1) AS number",
    )
    .bind(EACH)
    .bind(i32::try_from(PICTURE)?)
    .execute(pool)
    .await?;
    sqlx::query("ANALYZE").execute(pool).await?;
    let all: Vec<(Uuid, Uuid)> = sqlx::query_as("SELECT studio_id, id FROM photograph")
        .fetch_all(pool)
        .await?;
    let mut picture = vec![0; PICTURE];
    for (studio, id) in &all {
        // Nothing that could be pressed smaller.
        let mut seed = id.as_u128();
        for byte in &mut picture {
            seed = seed
                .wrapping_mul(6_364_136_223_846_793_005)
                .wrapping_add(1_442_695_040_888_963_407);
            *byte = seed.to_be_bytes()[3];
        }
        let folder = folder.join(studio.to_string());
        fs::create_dir_all(&folder)?;
        fs::write(folder.join(format!("{id}.jpg")), &picture)?;
    }
    Ok(i64::try_from(all.len())?)
}

/// The most that this process held at once, with the client that asks.
fn most_memory() -> String {
    let status = fs::read_to_string("/proc/self/status").unwrap_or_default();
    let line = status.lines().find_map(|line| line.strip_prefix("VmHWM:"));
    line.unwrap_or("unknown").trim().to_owned()
}
