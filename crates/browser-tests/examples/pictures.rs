//! Takes a picture of each main view of the demo studio, into the folder given.

use std::path::PathBuf;

use anyhow::{Context, Result};
use hummock_browser_tests::Studio;
use sqlx::PgPool;

/// The browser's own frame takes the rest of it from a page 800 high.
const HEIGHT: u32 = 943;

/// View, shipment and stop; a view without a shipment is the bench.
const VIEWS: [(&str, &str, &str); 4] = [
    ("measure", "Low Water, March", "measure"),
    ("guard", "Kelp Ladder", "guard"),
    ("box", "Low Water, March", "box"),
    ("price", "Kelp Ladder", "price"),
];

#[tokio::main]
async fn main() -> Result<()> {
    let folder = PathBuf::from(
        std::env::args()
            .nth(1)
            .context("give the folder for the pictures")?,
    );
    let pool = PgPool::connect(&std::env::var("DATABASE_URL")?).await?;
    let studio = Studio::sized(&pool, 1280, HEIGHT).await?;
    let page = studio.page();
    page.sees("main", "Kelp Ladder").await?;
    page.picture(&folder.join("bench.png")).await?;
    for (view, title, stop) in VIEWS {
        page.goto("/").await?;
        page.press_called(title).await?;
        page.is_saved().await?;
        let address = page.address().await?;
        let (shipment, _) = address
            .rsplit_once('/')
            .context("a shipment's address ends with its stop")?;
        let path = shipment
            .find("/shipments/")
            .map_or(shipment, |at| &shipment[at..]);
        page.goto(&format!("{path}/{stop}")).await?;
        page.is_saved().await?;
        page.picture(&folder.join(format!("{view}.png"))).await?;
    }
    studio.close().await
}
