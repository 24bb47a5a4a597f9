//! The scale beside the plan, every way to send it, and prices that somebody names.

use anyhow::{Context as _, Result};
use hummock_browser_tests::Studio;
use hummock_standins::{FaultKind, OnIt};
use test_context::test_context;

use crate::{Demo, words};

fn on_it(mass_g: f64) -> OnIt {
    OnIt {
        mass_g,
        ..OnIt::default()
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn a_packed_parcel_is_weighed_and_priced_by_what_it_weighs(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let (page, scale) = (studio.page(), &studio.standins()?.scale);
    page.open("Kelp Ladder", "weigh").await?;
    page.sees("[data-test='rests-on']", "Prices use what is planned")
        .await?;
    // A blanket is taken off first.
    scale.lay(on_it(400.0));
    page.sees(".state", "at rest").await?;
    page.sees("[data-test='reading']", "0.40").await?;
    page.press_called("Tare").await?;
    page.sees("[data-test='reading']", "0.00").await?;
    // 10.83 kg are planned, give or take 1.14.
    scale.lay(on_it(11_300.0));
    page.sees("[data-test='reading']", "10.9").await?;
    page.sees(".state", "at rest, as planned").await?;
    page.press_called("Take 10.9").await?;
    page.sees("[data-test='verdict']", "as planned").await?;
    page.sees("[data-test='rests-on']", "Prices use what was weighed")
        .await?;
    page.is_saved().await?;
    // More than the plan explains: what it could be, and that it is right so.
    page.fill("parcel.weight", "15").await?;
    page.sees("[data-test='verdict']", "more than the plan explains")
        .await?;
    page.press_called("Confirm this weight").await?;
    page.sees(".plan", "You confirmed this weight.").await?;
    page.fill("parcel.weight", "heavy").await?;
    page.sees(".panel", "\"heavy\" was not understood").await?;
    page.holds("parcel.weight", "heavy").await?;
    page.fill("parcel.weight", "15 kg").await?;
    page.fill("parcel.up", "1330").await?;
    page.sees("[data-test='larger']", "+16").await?;
    page.sees("[data-test='rests-on']", "what was weighed and measured")
        .await?;
    // The cable is pulled out: what is typed stays, and the page goes on.
    scale.lay(OnIt {
        unplugged: true,
        ..on_it(0.0)
    });
    page.sees(".state", "does not answer").await?;
    page.holds("parcel.weight", "15 kg").await?;
    scale.lay(on_it(900.0));
    page.sees(".state", "at rest").await?;
    page.everyone_can_use_it().await?;
    page.reload().await?;
    page.holds("parcel.weight", "15 kg").await?;
    // Planned otherwise, it was never weighed so.
    page.keys("2").await?;
    page.sees(".changes", "Less").await?;
    page.press("[data-test='less'] button, [data-test='more'] button")
        .await?;
    page.is_saved().await?;
    page.keys("6").await?;
    page.sees(
        "[data-test='stale']",
        "The plan changed or the parcel was opened",
    )
    .await?;
    page.keys("z").await?;
    page.sees("[data-test='verdict']", "Planned").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_the_readings_say_is_shown_before_it_is_taken(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/tools/weighings").await?;
    page.sees(
        "[data-test='effect']",
        "with what is proposed it would have been",
    )
    .await?;
    page.sees("table", "Corrugated C").await?;
    page.everyone_can_use_it().await?;
    page.press(".btn-primary").await?;
    page.sees("main", "Taken over: every plan follows the new densities.")
        .await?;
    page.lacks_text("table", "645").await?;
    page.goto("/materials/boards").await?;
    page.sees("main", "Corrugated C").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn every_way_is_looked_at_and_one_is_taken_and_taken_back(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "guard").await?;
    page.press_called("Compare every way to pack and send it")
        .await?;
    page.sees("[data-test='looked-at']", "that nothing beats, of")
        .await?;
    page.sees("tr.now", words::THIS_PLAN).await?;
    page.lacks_text("[data-test='looked-at']", "so far").await?;
    let before = page.texts(".line .headline").await?;
    page.press("tbody tr:not(.now) button").await?;
    page.sees(".opened", "Against this plan").await?;
    page.everyone_can_use_it().await?;
    let odds = page.texts("tr.picked td").await?;
    page.press_called("Take this way").await?;
    page.sees("main", words::HAZARDS).await?;
    page.is_saved().await?;
    // The work line says the odds that the list said.
    let said = odds.first().context("it says its odds")?;
    page.sees(".line", said).await?;
    // One way is a service and choices: each is taken back with z.
    for _ in 0..2 {
        page.keys("z").await?;
        page.is_saved().await?;
    }
    let guard = before.get(1).context("the odds of before")?;
    page.sees(".line", guard).await?;
    page.goto(&format!("{place}/ways")).await?;
    page.sees("tr.now", words::THIS_PLAN).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_packer_and_the_carriers_themselves_stand_beside_the_tariffs(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let (page, carrier) = (studio.page(), &studio.standins()?.carrier);
    page.open("Kelp Ladder", "price").await?;
    page.sees("[data-test='arrival']", "it arrives").await?;
    page.sees(
        "[data-test='confirmed']",
        "The stand-in for the carrier says the same",
    )
    .await?;
    page.press_called(words::ADD_A_QUOTATION).await?;
    page.fill("quotations.q1.from", "Brae Crating").await?;
    page.fill("quotations.q1.what", "crated and carried")
        .await?;
    page.fill("quotations.q1.price", "a lot").await?;
    page.sees("fieldset", "\"a lot\" is not a value").await?;
    page.fill("quotations.q1.price", "20").await?;
    page.fill("quotations.q1.covers", "1500").await?;
    page.fill("quotations.q1.days_to", "3").await?;
    page.sees("table", "crated and carried").await?;
    // It is the best by far, and so lies open.
    page.press_called("Send by crated and carried").await?;
    page.is_at_stop("pack").await?;
    page.is_saved().await?;
    page.sees(".tally .by", "Brae Crating crated and carried")
        .await?;
    page.press_called(words::PRICE).await?;
    page.sees("table", "crated and carried").await?;
    page.everyone_can_use_it().await?;
    // The carrier says otherwise, and then nothing at all: the tariff's price stays.
    carrier.fails(FaultKind::WrongTotal, 1000);
    page.reload().await?;
    page.press_called("Bulky").await?;
    page.sees("[data-test='confirmed']", "ask before you book")
        .await?;
    carrier.fails(FaultKind::Unavailable, 1000);
    page.reload().await?;
    page.press_called("Bulky").await?;
    page.sees("[data-test='confirmed']", "By the tariff alone")
        .await?;
    page.holds("quotations.q1.price", "20").await?;
    page.press_called("Take it away").await?;
    page.lacks_text("table", "crated and carried").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_buyer_on_the_phone_gets_a_rough_price_and_a_shipment_is_begun(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goes_to_workshop("Tools").await?;
    page.press_called("Price estimate").await?;
    page.sees("main", "Enter a width, a height and a country")
        .await?;
    page.fill("piece.width", "wide").await?;
    page.fill("piece.height", "800").await?;
    page.choose("buyer.country", "XS").await?;
    page.sees("form", "not understood").await?;
    page.holds("piece.width", "wide").await?;
    page.fill("piece.width", "600").await?;
    page.fill("value", "480").await?;
    page.sees("[data-test='rough']", "The buyer pays").await?;
    page.sees("table", "Framed under glass").await?;
    page.everyone_can_use_it().await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.lacks_text("table", "Framed under glass").await?;
    page.press_called("Begin a shipment with this").await?;
    page.holds("piece.height", "800 mm").await?;
    page.goto("/carriers/gannet-post").await?;
    page.press_called("Compare over the archive").await?;
    page.sees("[data-test='account']", "from the archive")
        .await?;
    page.sees("main", "saves").await?;
    studio.close().await
}
