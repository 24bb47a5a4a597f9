//! What carriers take: read, changed, doubled and tried; and what a shipment costs and brings.

use anyhow::Result;
use hummock_browser_tests::Studio;
use test_context::test_context;

use crate::{Demo, words};

#[test_context(Demo)]
#[tokio::test]
async fn rates_are_tried_changed_and_doubled(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/carriers/gannet-post").await?;
    page.sees("[data-test='tried']", "Parcel").await?;
    // 910 × 610 × 112 → 91 × 61 × 12 cm = 66 612 cm³ ÷ 6000 = 11.102 → 11.5 kg, to Saltmark: 11.60 and two kilograms more at
    // 0.85; fuel 6.5 % of 13.30 = 0.8645; tax 20 % of 14.16; cover 320 − 50 in three steps of 1.10.
    page.sees("[data-test='tried']", "1.70").await?;
    page.sees("[data-test='tried']", "3.30").await?;
    page.fill("parcel.mass_kg", "heavy").await?;
    page.sees(".try", "“heavy” is not a number").await?;
    page.fill("parcel.mass_kg", "25").await?;
    page.sees("[data-test='tried']", "Weight 25.00 kg, maximum 20.00 kg")
        .await?;
    // What is typed is tried before it is kept, and looked over as a whole.
    page.fill("fuel_percent", "110").await?;
    page.sees(".try", "The tariff has errors").await?;
    page.sees("[data-test='wrong']", "give a percentage from 0 to 100")
        .await?;
    // What is wrong leads to its field; a comma is as good as a point.
    page.press("[data-test='wrong'] button").await?;
    page.comes_to("return document.activeElement?.name", "fuel_percent")
        .await?;
    page.fill("fuel_percent", "9,0").await?;
    page.sees("[data-test='told']", words::ON_THE_BENCH).await?;
    page.press_called(words::SAVE_RATES).await?;
    page.sees("main", "edition 2").await?;
    page.everyone_can_use_it().await?;
    // What other money is worth: a rate of nothing is refused at its place, and what was typed stays.
    page.fill("rates[0].rate", "0").await?;
    page.press(".exchange .btn-primary").await?;
    page.sees(".exchange", "give the value of one NOK").await?;
    page.holds("rates[0].rate", "0").await?;
    page.fill("rates[0].rate", "0.09").await?;
    page.press(".exchange .btn-primary").await?;
    page.lacks(".exchange .wrong").await?;
    page.press_called("More").await?;
    page.press_called("Copy").await?;
    page.fill("carrier", "Tern Lines").await?;
    page.press_called(words::SAVE_RATES).await?;
    page.sees("[data-test='told']", "edition 1").await?;
    page.sees(".carriers", "Tern Lines").await?;
    page.reload().await?;
    page.holds("carrier", "Tern Lines").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_tariff_comes_in_as_text_and_its_prices_as_a_table(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/carriers/overland-quay").await?;
    page.holds("carrier", "Overland & Quay").await?;
    page.press_called("More").await?;
    page.press_called("As text").await?;
    page.fill("tariff", "{ \"id\": ").await?;
    page.press_called("Look them over").await?;
    page.sees(".error", "This can’t be read as JSON").await?;
    page.holds("tariff", "{ \"id\": ").await?;
    page.press_called("Back to the form").await?;
    page.press_called("Read prices in").await?;
    page.fill(
        "csv",
        "service,format,zone,up_to_g,price,per_further_kg\nground,,Saltmark,5000,none,\n",
    )
    .await?;
    page.press_called("Look it over").await?;
    page.sees("[data-test='wrong']", "line 2, price").await?;
    page.fill(
        "csv",
        "service,format,zone,up_to_g,price,per_further_kg\nground,,Saltmark,5000,8.10,0.70\n",
    )
    .await?;
    page.press_called("Take these prices").await?;
    page.sees("main", "edition 2").await?;
    page.sees("[data-test='told']", "No errors in the rates")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_a_shipment_costs_is_told_with_what_the_buyer_pays(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called("Low Water, March").await?;
    page.press_called(words::PRICE).await?;
    page.sees(
        "[aria-label='Shipping charge']",
        "total with expected damage",
    )
    .await?;
    // Marram counts in another currency, told in the studio's.
    page.sees("table.panel", "NOK").await?;
    page.sees("[data-test='gain']", "under cost").await?;
    page.choose("charge", "with_time").await?;
    page.is_saved().await?;
    page.lacks_text("[data-test='gain']", "16.16").await?;
    page.choose("sort", "days").await?;
    page.sees("tbody.service:nth-of-type(1)", "Swift").await?;
    page.everyone_can_use_it().await?;
    studio.close().await
}
