//! From a blank studio to a printed pack sheet with a price of its own carrier, and on to *Handed over*: counted.

use anyhow::{Result, ensure};
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;

use crate::{Demo, gives, hands::Hands};

/// A studio that knows nothing yet, and its first parcel.
struct Blank {
    country: &'static str,
    size: &'static str,
    value: &'static str,
    /// The shape of the carrier's price sheet, and where its first price is typed.
    shape: &'static str,
    cell: &'static str,
    price: &'static str,
    /// What the page then says that the carrier is paid.
    to_carrier: &'static str,
}

const TAKES_ALL: &str = "services/0/prices/zones/0/prices/4";

async fn to_the_pack_sheet(hands: &mut Hands<'_>, own: &Blank) -> Result<()> {
    let page = hands.page;
    page.goto("/set-up").await?;
    hands.fill("name", "Reed & Rush").await?;
    hands.choose("sender.country", own.country).await?;
    hands.press_at("[data-test='keep-settings']").await?;
    page.sees("main", "The bench is clear").await?;

    hands.press("New parcel").await?;
    hands
        .choose("piece.construction", "stretched_canvas")
        .await?;
    hands.fill("size", own.size).await?;
    hands.choose("piece.medium", "acrylic").await?;
    hands.set_day("piece.finished", "2026-10-01").await?;
    hands.fill("value", own.value).await?;
    hands.choose("buyer.country", own.country).await?;
    page.sees(".follows", "No carrier’s price yet").await?;
    page.is_saved().await?;

    // The way to a price begins where the price is missing, and ends there.
    hands.press("Add a carrier").await?;
    page.sees("h1", "Carriers").await?;
    hands.press_at("[data-test='empty'] button").await?;
    page.everyone_can_use_it().await?;
    hands
        .press_at(&format!("[data-shape='{}']", own.shape))
        .await?;
    page.is_at("[name$='/prices/0']").await?;
    hands.fill(own.cell, own.price).await?;
    page.sees("[data-test='told']", "hold together").await?;
    page.everyone_can_use_it().await?;
    hands.press("Save rates").await?;
    hands.press("Back to the parcel").await?;
    page.sees(".follows", "My carrier").await?;
    page.sees("[data-sum='to_carrier']", own.to_carrier).await?;
    gives(page, "[data-test='other']", "application/pdf").await?;
    // It is printed by one press more.
    hands.presses += 1;
    Ok(())
}

async fn counted(page: &Page, own: &Blank) -> Result<()> {
    let mut hands = Hands::on(page);
    to_the_pack_sheet(&mut hands, own).await?;
    let (fields, presses) = (hands.fields, hands.presses);
    ensure!(
        fields <= 9 && presses <= 9,
        "{fields} fields and {presses} presses"
    );
    Ok(())
}

/// Millimetres and euros, and a price for each weight.
#[test_context(Demo)]
#[tokio::test]
async fn a_blank_studio_has_a_price_after_nine_fields(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let own = Blank {
        country: "DE",
        size: "600 x 800 x 38",
        value: "640",
        shape: "weights",
        cell: TAKES_ALL,
        price: "18,90",
        to_carrier: "18.90",
    };
    counted(&studio.page(), &own).await?;
    studio.close().await
}

/// Inches and dollars, and a large parcel that counts as a heavier one.
#[test_context(Demo)]
#[tokio::test]
async fn a_blank_studio_in_inches_has_a_price_after_nine_fields(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let own = Blank {
        country: "US",
        size: "24 x 30 x 1 1/2",
        value: "640",
        shape: "volume",
        cell: TAKES_ALL,
        price: "31.20",
        to_carrier: "31.20",
    };
    counted(&studio.page(), &own).await?;
    studio.close().await
}

/// Yen, without a rate: its sums have no hundredths.
#[test_context(Demo)]
#[tokio::test]
async fn a_blank_studio_in_yen_has_a_price_after_nine_fields(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let own = Blank {
        country: "JP",
        size: "400 x 500 x 20 mm",
        value: "80000",
        shape: "weights",
        cell: TAKES_ALL,
        price: "2600",
        to_carrier: "2600",
    };
    counted(&studio.page(), &own).await?;
    studio.close().await
}
