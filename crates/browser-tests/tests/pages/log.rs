//! The log: parcels looked for, reckoned up, and sent again.

use anyhow::Result;
use hummock_browser_tests::Studio;
use test_context::test_context;

use crate::{Demo, words};

#[test_context(Demo)]
#[tokio::test]
async fn the_log_is_searched_reckoned_up_and_counted_into_the_odds(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called("Log").await?;
    page.sees("[data-test='holds']", "1 of 12 parcels arrived damaged")
        .await?;
    page.sees("[data-test='weights']", "weights were within")
        .await?;
    // So few say it in words; from twenty on it is drawn.
    page.sees("main", "From 20 parcels on it is drawn").await?;
    page.everyone_can_use_it().await?;
    page.press_called("Let the odds count these 12").await?;
    page.sees("[data-test='taken-over']", "Taken over").await?;
    page.sees("main", "The odds count 12 of them, 1 damaged")
        .await?;
    // What is looked for stands in the address.
    page.choose("outcome", "damaged").await?;
    page.sees("[data-test='log']", "Two Herons").await?;
    page.lacks_text("[data-test='log']", "Slack Tide").await?;
    page.reload().await?;
    page.sees("[data-test='log']", "Two Herons").await?;
    page.lacks_text("[data-test='log']", "Slack Tide").await?;
    page.press_called("Two Herons").await?;
    page.sees("[data-test='outcome']", words::ARRIVED_DAMAGED)
        .await?;
    page.back().await?;
    // One like it is begun as it was sent.
    page.press_called("As last time").await?;
    page.sees(".follows", "needs the country").await?;
    studio.close().await
}
