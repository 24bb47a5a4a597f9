//! Moving in: a studio of one's own beside the demo, in four countries, up to the first parcel abroad.

use anyhow::Result;
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;

use crate::{Demo, words};

/// Where a studio moves in, and what it finds on its screens.
struct Moves {
    country: &'static str,
    /// The parts of its address beside the name, by field.
    address: &'static [(&'static str, &'static str)],
    region: Option<&'static str>,
    /// Where its first parcel goes.
    abroad: &'static str,
    /// What a euro is worth there, and an hour of work by it.
    rate: Option<(&'static str, &'static str)>,
    size: &'static str,
    outside: &'static str,
    weighs: &'static str,
    price: (&'static str, &'static str),
}

const PRINT: &str = "
    fetch(document.querySelector(\"a[href*='/pack-sheet']\").href)
        .then((sheet) => { window.printed = `${sheet.status} ${sheet.headers.get('content-type')}`; });";

async fn moves_in(page: &Page, moves: &Moves) -> Result<()> {
    page.sees("[data-test='demo-band']", "nothing is really booked")
        .await?;
    page.press_called(words::SET_UP_MY_OWN_STUDIO).await?;
    page.sees("h1", words::SET_UP_YOUR_STUDIO).await?;
    // One field for the name, up to six for the address, two for a country, one for the rate, and Begin: twelve at most.
    page.fill("name", "Reed & Rush").await?;
    page.choose("sender.country", moves.country).await?;
    page.holds("sender.name", "Reed & Rush").await?;
    for (part, text) in moves.address {
        page.fill(&format!("sender.{part}"), text).await?;
    }
    if let Some(region) = moves.region {
        page.choose("sender.region", region).await?;
    }
    if let Some((rate, hour)) = moves.rate {
        page.fill("rate", rate).await?;
        page.sees("[data-test='sums']", hour).await?;
    }
    page.choose("another-country", moves.abroad).await?;
    page.press_called("Add it").await?;
    page.press("[data-test='keep-settings']").await?;
    page.sees("main", words::THE_BENCH_IS_CLEAR).await?;
    page.lacks("[data-test='set-up-band']").await?;

    page.keys("n").await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Reed Bed").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("size", moves.size).await?;
    page.choose("piece.medium", "acrylic").await?;
    page.set_day("piece.finished", "2027-01-04").await?;
    page.fill("buyer.name", "Morag Tait").await?;
    page.fill("buyer.street", "2 Shore Road").await?;
    page.choose("buyer.country", moves.abroad).await?;
    page.sees("[data-figure='outside']", moves.outside).await?;
    page.is_saved().await?;
    page.press_called(words::PRICE).await?;
    page.sees("[data-test='no-carrier']", "No carrier yet")
        .await?;
    page.press_called(words::ADD_A_QUOTATION).await?;
    page.fill("quotations.q1.from", "Tern Couriers").await?;
    page.fill("quotations.q1.price", moves.price.0).await?;
    page.sees("main", moves.price.1).await?;
    page.is_saved().await?;
    page.press_called("Weigh").await?;
    page.sees("nav[aria-label='Work line']", moves.weighs)
        .await?;
    page.press_called("Pack").await?;
    // What is printed comes as a document.
    page.find("a[href*='/pack-sheet']").await?;
    page.asks(PRINT).await?;
    page.comes_to("return window.printed", "200 application/pdf")
        .await
}

/// In Germany, where numbers are typed with a comma.
const fn cologne() -> Moves {
    Moves {
        country: "DE",
        address: &[
            ("street", "Hafenstraße 5"),
            ("postcode", "50667"),
            ("town", "Köln"),
        ],
        region: None,
        abroad: "GB",
        rate: None,
        size: "60 x 80 x 3,8 cm",
        outside: " mm",
        weighs: " kg",
        price: ("48,5", "48.50 EUR"),
    }
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_in_the_united_states_measures_in_inches(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let portland = Moves {
        country: "US",
        address: &[
            ("street", "1420 SE Oak St"),
            ("town", "Portland"),
            ("postcode", "97214"),
        ],
        region: Some("OR"),
        abroad: "GB",
        rate: None,
        size: "24 x 32 x 1 1/2 in",
        outside: " in",
        weighs: " lb",
        price: ("48.5", "48.50 USD"),
    };
    moves_in(&page, &portland).await?;
    // The demo is reached again, and is as it was; neither sees anything of the other.
    page.goto("/studio/settings").await?;
    page.sees("[data-test='studios']", "the demo").await?;
    page.press_called(words::OPEN_IT).await?;
    page.sees("main", "Kelp Ladder").await?;
    page.lacks_text("main", "Reed Bed").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_in_germany_types_commas(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    moves_in(&page, &cologne()).await?;
    // Numbers with a comma on every screen, once the studio says so.
    page.goto("/studio/ruler").await?;
    page.choose("decimal", "comma").await?;
    page.press("[data-test='keep-settings']").await?;
    // The page is left only once the server has kept it.
    let kept = "const asked = new XMLHttpRequest(); asked.open('GET', '/api/v1/studio/settings', false); asked.send(); return asked.responseText.includes('\"comma\"')";
    page.comes_to(kept, true).await?;
    page.goto("/").await?;
    let comma = r"return /\d,\d\d\sEUR/.test(document.querySelector('main').textContent)";
    page.comes_to(comma, true).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_in_japan_counts_in_yen(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let kyoto = Moves {
        country: "JP",
        address: &[("street", "祇園町4-5-6"), ("postcode", "605-0074")],
        region: Some("京都府"),
        abroad: "FR",
        rate: Some(("162,5", "3900")),
        size: "600 x 800 x 38 mm",
        outside: " mm",
        weighs: " kg",
        price: ("7200", "7200 JPY"),
    };
    moves_in(&page, &kyoto).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_in_brazil_writes_its_neighbourhood(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let recife = Moves {
        country: "BR",
        address: &[
            ("street", "Rua da Aurora 325"),
            ("neighbourhood", "Boa Vista"),
            ("town", "Recife"),
            ("postcode", "50050-000"),
        ],
        region: Some("PE"),
        abroad: "PT",
        rate: None,
        size: "60 x 80 x 4 cm",
        outside: " mm",
        weighs: " kg",
        price: ("310", "310.00 BRL"),
    };
    moves_in(&page, &recife).await?;
    studio.close().await
}

/// An address in Köln, pasted as it came, and a country that the studio has not sent to before.
#[test_context(Demo)]
#[tokio::test]
async fn a_country_is_added_where_it_is_met(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.open("Kelp Ladder", "measure").await?;
    page.press(".paste summary").await?;
    page.fill(
        "address-block",
        "Galerie Nordlicht GmbH, z. Hd. Jonas Kettler, Am Speicher 4, 50667 Köln, Germany",
    )
    .await?;
    page.press_called(words::PUT_IT_INTO_THE_FIELDS).await?;
    page.holds("buyer.country", "DE").await?;
    page.holds("buyer.name", "Jonas Kettler").await?;
    page.holds("buyer.company", "Galerie Nordlicht GmbH")
        .await?;
    page.holds("buyer.town", "Köln").await?;
    page.press("[data-test='add-country']").await?;
    page.lacks("[data-test='add-country']").await?;
    page.goto("/studio/countries").await?;
    page.sees("[data-test='sent-to']", "Germany").await?;
    studio.close().await
}

/// The demo counts in dollars from a day on: the rate is asked, ten sums are shown, and a shipment at work follows.
#[test_context(Demo)]
#[tokio::test]
async fn a_studio_counts_in_other_money(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/studio/money").await?;
    page.holds("currency", "EUR").await?;
    page.lacks("[name='rate']").await?;
    page.fill("currency", "usd").await?;
    page.holds("currency", "USD").await?;
    page.fill("rate", "1,08").await?;
    page.sees("[data-test='sums']", "an hour of work").await?;
    page.sees("[data-test='sums']", "25.92").await?;
    page.everyone_can_use_it().await?;
    page.press("[data-test='keep-settings']").await?;
    page.lacks("[data-test='sums']").await?;
    page.open("Kelp Ladder", "measure").await?;
    page.sees("main", "Worth, in USD").await?;
    page.goto("/log").await?;
    page.sees("[data-test='log']", "EUR").await?;
    studio.close().await
}

/// What the program brought is marked in the stores until somebody looked at it.
#[test_context(Demo)]
#[tokio::test]
async fn prices_that_the_program_brought_are_to_be_checked(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/materials/boards").await?;
    page.sees("main", "Prices in EUR, without tax").await?;
    page.lacks("[data-test='to-check']").await?;
    page.goto("/").await?;
    page.press_called(words::SET_UP_MY_OWN_STUDIO).await?;
    page.sees("h1", words::SET_UP_YOUR_STUDIO).await?;
    page.press("[data-test='keep-settings']").await?;
    page.sees("[data-test='settings-trouble']", "give the studio a name")
        .await?;
    // What is refused switches nothing.
    page.sees("[data-test='keep-settings']", "Begin").await?;
    page.fill("name", "Reed & Rush").await?;
    page.choose("sender.country", "DE").await?;
    page.press("[data-test='keep-settings']").await?;
    page.sees("main", words::THE_BENCH_IS_CLEAR).await?;
    page.goto("/materials/boards").await?;
    page.sees("[data-test='to-check']", "came with Hummock")
        .await?;
    page.sees("main table", "check price").await?;
    page.everyone_can_use_it().await?;
    page.press_called("All are correct").await?;
    page.lacks("[data-test='to-check']").await?;
    page.lacks_text("main", "check price").await?;
    studio.close().await
}

/// A made-up price list of twelve weights and four zones, as a spreadsheet in Germany gives it out.
const LIST: &str = "bis kg;Home;Nachbarn;Insel;Weit weg
1;4,90;9,80;11,40;24,00
2;5,40;10,60;12,90;29,50
3;5,90;11,40;14,50;35,00
5;6,90;13,20;17,20;46,00
7;7,90;15,10;19,80;57,50
10;9,50;18,40;24,00;74,00
12;10,80;20,90;27,50;86,00
15;12,60;24,30;31,90;1O3,00
20;15,90;29,80;38,00;131,00
25;19,20;35,40;45,50;159,00
28;21,30;38,90;51,00;176,00
30;22,80;41,20;55,00;188,00
";

#[test_context(Demo)]
#[tokio::test]
async fn a_carrier_is_made_from_a_pasted_price_list(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    moves_in(&page, &cologne()).await?;
    let pack = Page::path_of(&page.address().await?);
    page.goto("/carriers").await?;
    page.sees("[data-test='empty']", "No price lists yet")
        .await?;
    page.press("[data-test='empty'] button").await?;
    page.press("[data-shape='volume']").await?;
    page.fill("carrier", "Möwe & Söhne").await?;
    page.press_called("Paste a table").await?;
    page.fill("services/0/prices/cells", LIST).await?;
    page.press_called("Take this table").await?;
    page.holds("services/0/prices/weights/11", "30 kg").await?;
    page.holds("services/0/prices/zones/2/prices/7", "31,90")
        .await?;
    // The letter O in place of a nought is told at its cell, and nothing else is taken for it.
    page.sees("[data-test='wrong']", "\"1O3,00\" is not a number")
        .await?;
    page.fill("services/0/prices/zones/3/prices/7", "103,00")
        .await?;
    page.sees("[data-test='wrong']", "give at least one country")
        .await?;
    page.choose("zones/1/add", "FR").await?;
    page.choose("zones/2/add", "GB").await?;
    page.choose("zones/3/add", "US").await?;
    page.sees("[data-test='told']", "No errors in the rates")
        .await?;
    // 910 × 610 × 112 → 91 × 61 × 12 cm = 66 612 cm³ ÷ 5000 = 13.33 → 13.5 kg: up to 15 kg, without fuel, tax or cover.
    page.choose("country", "GB").await?;
    page.sees("[data-test='tried']", "31.90").await?;
    page.everyone_can_use_it().await?;
    page.press_called(words::SAVE_RATES).await?;
    page.sees(".carriers", "Möwe & Söhne").await?;
    page.sees("main", "edition 1").await?;
    page.goto(&pack.replace("/pack", "/price")).await?;
    page.sees("table.panel", "Möwe & Söhne").await?;
    studio.close().await
}
