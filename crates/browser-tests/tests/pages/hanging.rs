//! A server that hangs, a part of the page that can't be loaded, and a slow line.

use anyhow::Result;
use hummock_browser_tests::Studio;
use test_context::test_context;

use crate::{Demo, words};

/// Stopped while somebody types: the page says so, the bench is reached, and nothing that was typed is lost.
#[test_context(Demo)]
#[tokio::test]
async fn nobody_waits_for_a_server_that_hangs(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let (line, page) = studio.over_a_line().await?;
    page.open("Kelp Ladder", "measure").await?;
    page.is_saved().await?;
    line.hold("/api/");
    page.fill("title", "Kelp Ladder, in a calm").await?;
    page.sees("[data-test='silent']", "The server does not answer")
        .await?;
    page.press_called(words::BENCH).await?;
    page.sees("main", "Low Water, March").await?;
    page.sees("[data-test='outbox']", "Kelp Ladder, in a calm")
        .await?;
    line.open();
    page.lacks("[data-test='outbox']").await?;
    page.lacks("[data-test='silent']").await?;
    page.sees("main ul", "Kelp Ladder, in a calm").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_part_that_can_not_be_loaded_says_so_and_is_tried_again(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let (line, page) = studio.over_a_line().await?;
    // Before the first page, so that the browser has kept nothing of it.
    line.cut("PriceStop");
    let place = page.open("Kelp Ladder", "guard").await?;
    page.is_saved().await?;
    page.press(&format!("a[href='{place}/price']")).await?;
    page.sees("[data-test='part-missing']", "can’t be loaded")
        .await?;
    // The server is there, and of the same build as the page.
    page.lacks_text("[data-test='part-missing']", "renewed")
        .await?;
    // Whatever is open goes on.
    page.sees("h1", "Kelp Ladder").await?;
    line.open();
    page.press("[data-test='part-missing'] button").await?;
    page.sees("main", words::SERVICES).await?;
    page.lacks("[data-test='part-missing']").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_part_on_a_slow_line_is_said_to_be_on_its_way(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let (line, page) = studio.over_a_line().await?;
    line.hold("PriceStop");
    let place = page.open("Kelp Ladder", "guard").await?;
    page.is_saved().await?;
    page.press(&format!("a[href='{place}/price']")).await?;
    page.sees("[data-test='part-pending']", "Loading").await?;
    line.open();
    page.sees("main", words::SERVICES).await?;
    page.lacks("[data-test='part-pending']").await?;
    studio.close().await
}
