//! From a blank studio to a printed pack sheet with a price of its own carrier, and from there to *Handed over*: counted.

use anyhow::{Result, ensure};
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;

use crate::{Demo, gives, hands::Hands, words};

/// A blank studio and its first parcel.
struct Blank {
    country: &'static str,
    size: &'static str,
    value: &'static str,
    /// The shape of the price sheet, and the field of its first price.
    shape: &'static str,
    cell: &'static str,
    price: &'static str,
    /// What the page then says that the carrier is paid.
    to_carrier: &'static str,
    /// What the scale says, in the studio's unit.
    weight: &'static str,
    buyer: &'static [(&'static str, &'static str)],
    sender: &'static [(&'static str, &'static str)],
}

const TAKES_ALL: &str = "services/0/prices/zones/0/prices/4";

async fn to_the_pack_sheet(hands: &mut Hands<'_>, own: &Blank) -> Result<()> {
    let page = hands.page;
    page.goto("/set-up").await?;
    hands.fill("name", "Reed & Rush").await?;
    hands.choose("sender.country", own.country).await?;
    hands.press_at("[data-test='keep-settings']").await?;
    page.sees("main", words::THE_BENCH_IS_CLEAR).await?;

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
    page.sees("h1", words::CARRIERS).await?;
    hands.press_at("[data-test='empty'] button").await?;
    page.everyone_can_use_it().await?;
    hands
        .press_at(&format!("[data-shape='{}']", own.shape))
        .await?;
    page.is_at("[name$='/prices/0']").await?;
    hands.fill(own.cell, own.price).await?;
    page.sees("[data-test='told']", "No errors in the rates")
        .await?;
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

/// Packed, weighed, both addresses typed where the foot leads, and handed over: the foot is the only way.
async fn to_handed_over(hands: &mut Hands<'_>, own: &Blank) -> Result<()> {
    let page = hands.page;
    hands.goes_on(words::PACK_IT).await?;
    page.is_at_stop("pack").await?;
    hands.press_at(".views label:last-of-type").await?;
    hands.goes_on(words::ALL_DONE).await?;
    hands.answer_looks().await?;
    hands.goes_on(words::WEIGH_IT).await?;
    hands.fill("parcel.weight", own.weight).await?;
    page.is_saved().await?;
    hands.goes_on(words::CONTINUE_TO_SEND).await?;

    hands.goes_on("Complete the address").await?;
    page.is_at_stop("measure").await?;
    hands.fill_each("buyer", own.buyer).await?;
    page.is_saved().await?;
    hands.press_at("nav a[href$='/send']").await?;
    hands.goes_on("Complete your address").await?;
    page.sees("h1", "Settings").await?;
    hands.fill_each("sender", own.sender).await?;
    hands.press("Save settings").await?;
    page.everyone_can_use_it().await?;
    hands.press("Back to the parcel").await?;
    page.is_at_stop("send").await?;

    hands.goes_on(words::BOTH_ADDRESSES_ARE_RIGHT).await?;
    hands.goes_on(words::IT_HAS_NO_NUMBER).await?;
    hands.goes_on(words::LABEL_AND_MARKS_ARE_ON_IT).await?;
    hands.goes_on(words::HANDED_OVER).await?;
    page.sees("[data-test='handed']", "Handed over on").await?;
    page.is_saved().await
}

async fn counted(page: &Page, own: &Blank) -> Result<()> {
    let mut hands = Hands::on(page);
    to_the_pack_sheet(&mut hands, own).await?;
    let (fields, presses) = (hands.fields, hands.presses);
    ensure!(
        fields <= 9 && presses <= 9,
        "{fields} fields and {presses} presses"
    );
    to_handed_over(&mut hands, own).await?;
    let opened = page
        .asks("return localStorage.getItem('hummock.workshop')")
        .await?;
    ensure!(
        opened != "true",
        "the workshop was opened on the way: {opened}"
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
        weight: "4.3 kg",
        buyer: &[
            ("name", "Ada Sundew"),
            ("street", "Deichweg 4"),
            ("postcode", "26721"),
            ("town", "Emden"),
        ],
        sender: &[
            ("street", "Hafengang 12"),
            ("postcode", "24103"),
            ("town", "Kiel"),
        ],
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
        weight: "9 lb 8 oz",
        buyer: &[
            ("name", "Nell Harrow"),
            ("street", "18 Cedar Lane"),
            ("town", "Columbus"),
            ("region", "OH"),
            ("postcode", "43215"),
        ],
        sender: &[
            ("street", "1420 SE Oak St"),
            ("town", "Portland"),
            ("region", "OR"),
            ("postcode", "97214"),
        ],
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
        weight: "3.1 kg",
        buyer: &[
            ("name", "Mori Sora"),
            ("postcode", "604-8001"),
            ("region", "京都府"),
            ("street", "Nakagyo-ku Kiyamachi 4-2"),
        ],
        sender: &[
            ("postcode", "150-0001"),
            ("region", "東京都"),
            ("street", "Shibuya-ku Jingumae 1-5-8"),
        ],
    };
    counted(&studio.page(), &own).await?;
    studio.close().await
}
