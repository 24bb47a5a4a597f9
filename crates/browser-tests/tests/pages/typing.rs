//! Nothing that is typed is lost: with the server away, over reloads, in two windows, and when it is refused.

use anyhow::Result;
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, words};

/// Opens a shipment of the bench where it is measured.
async fn measure(page: &Page, title: &str) -> Result<()> {
    page.press_called(title).await?;
    page.sees("h1", title).await?;
    page.is_saved().await?;
    page.keys("1").await?;
    page.find("[name='title']").await?;
    Ok(())
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_typed_before_a_shipment_could_be_opened_is_laid_over_it(
    Demo(database): &Demo,
) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    measure(&page, "Kelp Ladder").await?;
    let path = page.address().await?;
    page.press_called(words::BENCH).await?;
    page.sees("main", "Kelp Ladder").await?;
    studio.go_away().await?;
    page.back().await?;
    page.sees(".trouble", "Changes are kept here").await?;
    page.fill("title", "Kelp Ladder, typed blind").await?;
    page.sees("[data-test='save-state']", words::KEPT_ON_THIS_PAGE)
        .await?;
    studio.come_back().await?;
    page.is_saved().await?;
    page.sees("h1", "Kelp Ladder, typed blind").await?;
    // The rest of it is as it was.
    page.holds("piece.width", "900 mm").await?;
    let page = studio.page();
    page.reload().await?;
    page.is_saved().await?;
    page.sees("h1", "Kelp Ladder, typed blind").await?;
    assert_eq!(page.address().await?, path);
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_new_shipment_that_was_left_while_the_server_was_away_reaches_the_bench(
    Demo(database): &Demo,
) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.find("[name='title']").await?;
    studio.go_away().await?;
    page.fill("title", "Left in the rain").await?;
    page.sees("[data-test='save-state']", words::KEPT_ON_THIS_PAGE)
        .await?;
    page.press_called(words::BENCH).await?;
    page.sees(
        "[data-test='outbox']",
        "Left in the rain, kept in this browser",
    )
    .await?;
    studio.come_back().await?;
    page.sees("main ul", "Left in the rain").await?;
    page.lacks("[data-test='outbox']").await?;
    page.press_called("Left in the rain").await?;
    page.is_saved().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_refused_at_size_number_and_reason_outlives_a_reload(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    measure(&page, "The Ropewalk").await?;
    page.fill("size", "35 wide").await?;
    page.sees(".error", "1 of 3 lengths given").await?;
    page.press_called(words::WRAP_IT_ALL_THE_SAME).await?;
    page.type_into("reason", "The buyer knows that it").await?;
    page.keys(Key::Tab).await?;
    page.reload().await?;
    page.holds("size", "35 wide").await?;
    page.sees(".error", "1 of 3 lengths given").await?;
    page.holds("reason", "The buyer knows that it").await?;
    page.sees("[data-test='save-state']", words::A_VALUE_NEEDS_CORRECTING)
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_conflict_is_still_there_after_two_reloads(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    measure(&page, "Kelp Ladder").await?;
    studio.go_away().await?;
    page.fill("title", "Kelp Ladder, mine").await?;
    page.sees("[data-test='save-state']", words::KEPT_ON_THIS_PAGE)
        .await?;
    // Somebody else is quicker, with another title.
    for ask in [
        "UPDATE shipment SET version = version + 1",
        "UPDATE shipment_state SET inputs = jsonb_set(inputs, '{title}', '\"Kelp Ladder, theirs\"')",
    ] {
        sqlx::query(ask).execute(database.pool()).await?;
    }
    studio.come_back().await?;
    for _ in 0..2 {
        page.sees("[data-test='conflict']", "Kelp Ladder, mine")
            .await?;
        page.reload().await?;
    }
    page.sees("[data-test='conflict']", "Kelp Ladder, mine")
        .await?;
    page.press_called(words::KEEP_YOURS).await?;
    page.is_saved().await?;
    page.sees("h1", "Kelp Ladder, mine").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn undo_takes_a_refused_value_back_and_redo_brings_it_again(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    measure(&page, "Kelp Ladder").await?;
    page.fill("piece.width", "nine").await?;
    page.sees("[data-test='save-state']", words::A_VALUE_NEEDS_CORRECTING)
        .await?;
    page.press_called(words::UNDO).await?;
    page.holds("piece.width", "900 mm").await?;
    page.is_saved().await?;
    page.press_called("Redo").await?;
    page.holds("piece.width", "nine").await?;
    page.sees("[data-test='save-state']", words::A_VALUE_NEEDS_CORRECTING)
        .await?;
    studio.close().await
}

/// Centimetres in a studio of millimetres: the page asks once, and takes either answer.
#[test_context(Demo)]
#[tokio::test]
async fn a_size_that_could_be_in_another_unit_is_asked_for(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    measure(&page, "Kelp Ladder").await?;
    page.fill("size", "80x60x2").await?;
    page.sees("[data-test='unit-doubt']", "80 mm × 60 mm × 2 mm")
        .await?;
    page.everyone_can_use_it().await?;
    page.press_called("80 cm × 60 cm × 2 cm").await?;
    page.lacks("[data-test='unit-doubt']").await?;
    page.holds("piece.width", "80 cm").await?;
    page.holds("piece.depth", "2 cm").await?;
    // What has its unit is not asked for, nor is a usual size.
    page.fill("size", "80x60x2 cm").await?;
    page.holds("piece.height", "60 cm").await?;
    page.lacks("[data-test='unit-doubt']").await?;
    page.fill("size", "800x600x38").await?;
    page.holds("piece.width", "800 mm").await?;
    page.lacks("[data-test='unit-doubt']").await?;
    // A sheet of paper has no depth to measure.
    page.choose("piece.construction", "loose_paper").await?;
    page.fill("piece.depth", "").await?;
    page.sees("main", "reads as 800").await?;
    page.is_saved().await?;
    studio.close().await
}
