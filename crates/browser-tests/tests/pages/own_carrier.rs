//! A studio of one's own with its own price list, from *Set up my own studio* to *Handed over*; and what is in the way of a shipment, told
//! alike on every page.

use anyhow::{Context as _, Result, ensure};
use hummock_browser_tests::{Page, Studio};
use serde_json::{Value, json};
use test_context::test_context;

use crate::{
    Demo, gives,
    hands::{Hands, VERB, on},
    words,
};

/// A studio that sends with a carrier of its own.
struct Own {
    country: &'static str,
    /// How its pages write 4 March 2027.
    today: &'static str,
    address: &'static [(&'static str, &'static str)],
    region: Option<&'static str>,
    /// What a euro is worth; left open where there is none.
    rate: Option<&'static str>,
    money: &'static str,
    size: &'static str,
    value: &'static str,
    /// The buyer's address, as it came.
    buyer: &'static str,
    /// The carrier's number, or none.
    number: Option<&'static str>,
    /// What the counter charged, as typed.
    charged: &'static str,
    /// Whether its materials have prices.
    priced: bool,
}

/// A price list of one service to the studio's own country.
fn prices(own: &Own) -> Value {
    json!({
        "id": "buckeye-parcel", "carrier": "Buckeye Parcel", "currency": own.money,
        "fuel_percent": "0", "tax_percent": "0",
        "zones": [{ "name": "Home", "countries": [own.country] }],
        "services": [{
            "id": "ground", "name": "Ground", "days_from": 2, "days_to": 4, "handover": "drop_off", "tracked": true,
            "billable": { "divisor_cm3_per_kg": 5000, "size_step_mm": 10, "weight_step_g": 500, "minimum_g": 0 },
            "cover": { "included": "1000000", "step": "100", "price_per_step": "1.20", "most": "1000000" },
            "limits": { "mass_g": 40000, "longest_mm": 2000, "length_plus_girth_mm": 4000, "glass": true },
            "prices": [{ "zone": "Home", "steps": [{ "up_to_g": 40000, "price": "25" }], "per_further_kg": "1" }]
        }]
    })
}

/// Sends something to the API from the page, and returns the status of the answer.
fn sent(method: &str, path: &str, body: &Value) -> String {
    format!(
        "return fetch('/api/v1{path}', {{ method: '{method}', headers: {{ 'content-type': 'application/json' }}, body: JSON.stringify({body}) }})
            .then((answer) => answer.status);"
    )
}

/// From the demo to the bench of the own studio.
async fn moves_in(page: &Page, own: &Own) -> Result<()> {
    // Nothing is switched before Begin: whoever looks in and goes back is in the demo.
    page.press_called(words::SET_UP_MY_OWN_STUDIO).await?;
    page.sees("h1", words::SET_UP_YOUR_STUDIO).await?;
    page.goto("/").await?;
    page.sees("main", "Kelp Ladder").await?;
    page.press_called(words::SET_UP_MY_OWN_STUDIO).await?;
    page.sees("h1", words::SET_UP_YOUR_STUDIO).await?;
    page.fill("name", "Reed & Rush").await?;
    page.choose("sender.country", own.country).await?;
    for (part, text) in own.address {
        page.fill(&format!("sender.{part}"), text).await?;
    }
    if let Some(region) = own.region {
        page.choose("sender.region", region).await?;
    }
    if let Some(rate) = own.rate {
        page.fill("rate", rate).await?;
        page.sees("[data-test='sums']", "an hour of work").await?;
    }
    page.press("[name='goes-in'][value='card']").await?;
    page.everyone_can_use_it().await?;
    page.press("[data-test='keep-settings']").await?;
    page.sees("main", words::THE_BENCH_IS_CLEAR).await?;
    let tariff = json!({ "tariff": prices(own) });
    let kept = sent("PUT", "/tariffs/buckeye-parcel", &tariff);
    page.comes_to(&kept, 200).await
}

/// From a new parcel to one that is packed and weighed.
async fn packs(page: &Page, own: &Own) -> Result<String> {
    page.keys("n").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("title", "Reed Bed").await?;
    page.fill("size", own.size).await?;
    page.choose("piece.medium", "acrylic").await?;
    page.set_day("piece.finished", "2026-10-01").await?;
    page.fill("value", own.value).await?;
    page.press(".paste summary").await?;
    page.type_into("address-block", own.buyer).await?;
    page.press_called(words::PUT_IT_INTO_THE_FIELDS).await?;
    page.holds("buyer.country", own.country).await?;
    page.sees(".follows", "Buckeye Parcel Ground").await?;
    // The card that goes into every parcel is in this one too.
    page.sees("[data-test='goes-in']", "card").await?;
    if own.priced {
        page.lacks("[data-test='unpriced']").await?;
    } else {
        page.sees(".follows [data-test='unpriced']", "missing")
            .await?;
        page.find(".follows [data-test='unpriced'] a[href*='/materials/']")
            .await?;
    }
    page.is_saved().await?;
    let id = "location.pathname.split('/')[2]";
    // No box of another kind is taken for a saving that nobody knows.
    let by_rule = format!(
        "return fetch(`/api/v1/shipments/${{{id}}}`).then((got) => got.json()).then(({{ worked }}) => worked.box_by_rule?.saves.amount ?? 'usual');"
    );
    let by_rule = page.asks(&by_rule).await?;
    let by_rule = by_rule.as_str().context("it is told")?;
    ensure!(
        by_rule == "usual" || own.priced && !by_rule.starts_with('-'),
        "{by_rule}"
    );
    page.everyone_can_use_it().await?;
    let place = Page::path_of(&page.address().await?);
    let (place, _) = place.rsplit_once('/').context("it is at a stop")?;
    let place = place.to_owned();
    gives(page, "[data-test='other']", "application/pdf").await?;
    on(page, words::PACK_IT).await?;
    page.is_at_stop("pack").await?;
    page.press(".views label:last-of-type").await?;
    on(page, words::ALL_DONE).await?;
    Hands::on(page).answer_looks().await?;
    on(page, words::WEIGH_IT).await?;
    let planned = format!(
        "return fetch(`/api/v1/shipments/${{{id}}}`).then((got) => got.json()).then(({{ summary }}) => (summary.weight.mass_g / 1000).toFixed(3));"
    );
    let planned = page.asks(&planned).await?;
    let planned = planned.as_str().context("a planned weight")?;
    page.fill("parcel.weight", &format!("{planned} kg")).await?;
    page.is_saved().await?;
    on(page, words::CONTINUE_TO_SEND).await?;
    page.is_at_stop("send").await?;
    Ok(place)
}

/// Read, numbered, labelled and handed over: each by the foot, with no carrier asked.
async fn hands_over(page: &Page, own: &Own) -> Result<()> {
    page.lacks_text("main", "imulated carrier").await?;
    page.lacks_text("main", "Book with").await?;
    page.sees("main", "no service of its own").await?;
    on(page, words::BOTH_ADDRESSES_ARE_RIGHT).await?;
    page.sees("[data-check='packed'].is-done", "steps").await?;
    page.sees("[data-check='weighed'].is-done", "Weighed")
        .await?;
    page.fill("after.cost", own.charged).await?;
    match own.number {
        Some(number) => {
            page.sees(VERB, words::IT_HAS_NO_NUMBER).await?;
            page.fill("sending.tracking", number).await?;
            page.is_saved().await?;
            page.sees("[data-check='tracking'].is-done", number).await?;
        }
        None => {
            on(page, words::IT_HAS_NO_NUMBER).await?;
            page.sees("[data-check='tracking'].is-done", "No tracking number")
                .await?;
        }
    }
    // The label, or both addresses as a sheet where there is no number.
    page.sees(VERB, words::LABEL_AND_MARKS_ARE_ON_IT).await?;
    gives(page, "[data-test='hint'] a", "application/pdf").await?;
    page.everyone_can_use_it().await?;
    on(page, words::LABEL_AND_MARKS_ARE_ON_IT).await?;
    page.sees("[data-test='hint']", "Ready").await?;
    // Before it is handed over it is on the list of the day.
    let send = Page::path_of(&page.address().await?);
    page.is_saved().await?;
    page.goto("/leaving").await?;
    page.sees("main", "Reed Bed").await?;
    page.sees("main", "still here, not booked from here")
        .await?;
    gives(page, "a[href*='hand-over-list']", "application/pdf").await?;
    page.goto(&send).await?;
    on(page, words::HANDED_OVER).await?;
    page.sees(
        "[data-test='handed']",
        &format!("Handed over on {}", own.today),
    )
    .await?;
    page.is_saved().await?;
    page.goto("/leaving").await?;
    page.sees("main", &format!("handed over {}", own.today))
        .await?;
    page.sees("main", own.number.unwrap_or("no number")).await?;
    page.goto("/?in=sent").await?;
    page.sees("main li", words::ON_ITS_WAY).await
}

async fn whole_way(page: &Page, own: &Own) -> Result<String> {
    moves_in(page, own).await?;
    let place = packs(page, own).await?;
    hands_over(page, own).await?;
    Ok(place)
}

/// Inches and dollars, without a rate: no material has a price.
#[test_context(Demo)]
#[tokio::test]
async fn a_studio_without_a_rate_hands_over_with_its_own_price_list(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    let portland = Own {
        country: "US",
        today: "Mar 4, 2027",
        address: &[
            ("street", "1420 SE Oak St"),
            ("town", "Portland"),
            ("postcode", "97214"),
        ],
        region: Some("OR"),
        rate: None,
        money: "USD",
        size: "24 x 30 x 1 1/2",
        value: "640",
        buyer: "Nell Harrow\n18 Cedar Lane\nColumbus, OH 43215\nUnited States",
        number: None,
        charged: "31.20",
        priced: false,
    };
    let place = whole_way(&page, &portland).await?;
    ensure!(
        studio.standins()?.carrier.booked().is_empty(),
        "nobody booked anything"
    );
    // Its address is known to the whole program: the demo says whose it is, with the way there.
    page.goto("/studio/name").await?;
    page.press_called(words::OPEN_IT).await?;
    page.sees("main", "Kelp Ladder").await?;
    page.goto(&format!("{place}/send")).await?;
    page.sees("[data-test='elsewhere']", "Reed & Rush").await?;
    page.everyone_can_use_it().await?;
    page.press_called("Open that studio").await?;
    page.sees("[data-test='handed']", "Handed over on Mar 4, 2027")
        .await?;
    studio.close().await
}

/// Commas, and a price list in euros.
#[test_context(Demo)]
#[tokio::test]
async fn a_studio_that_types_commas_hands_over_with_its_own_price_list(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    let cologne = Own {
        country: "DE",
        today: "4 Mar 2027",
        address: &[
            ("street", "Hafenstraße 5"),
            ("postcode", "50667"),
            ("town", "Köln"),
        ],
        region: None,
        rate: None,
        money: "EUR",
        size: "60 x 80 x 3,8 cm",
        value: "640,50",
        buyer: "Jonas Kettler\nAm Speicher 4\n50667 Köln\nGermany",
        number: Some("BP 118"),
        charged: "26,40",
        priced: true,
    };
    whole_way(&page, &cologne).await?;
    studio.close().await
}

/// Yen and Japanese addresses, at a rate.
#[test_context(Demo)]
#[tokio::test]
async fn a_studio_that_counts_in_yen_hands_over_with_its_own_price_list(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    let kyoto = Own {
        country: "JP",
        today: "4 Mar 2027",
        address: &[("street", "祇園町4-5-6"), ("postcode", "605-0074")],
        region: Some("京都府"),
        rate: Some("162,5"),
        money: "JPY",
        size: "600 x 800 x 38 mm",
        value: "80000",
        buyer: "〒100-0005\n東京都千代田区丸の内1-2-3\n山田花子\n日本",
        number: Some("BP 119"),
        charged: "2600",
        priced: true,
    };
    whole_way(&page, &kyoto).await?;
    studio.close().await
}

/// What is in the way, as the API tells it, in the words of a page: the first matter, and how many follow.
const FIRST: &str = "return fetch('/api/v1/shipments?most=200').then((got) => got.json()).then(({ rows }) => rows.map(({ id, against }) => [
    id, against.length === 0 ? '' : `${against[0].level === 'stop' ? 'Stop: ' : ''}${against[0].says}${against.length > 1 ? ` +${against.length - 1} more` : ''}`,
    against.filter(({ code }) => !code).map(({ says }) => says),
]));";

/// Kills a page that says of a shipment what another does not.
#[test_context(Demo)]
#[tokio::test]
async fn every_page_tells_the_same_that_is_in_the_way(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("main li", "Kelp Ladder").await?;
    let told = page.asks(FIRST).await?;
    let told: Vec<(String, String, Vec<String>)> = serde_json::from_value(told)?;
    ensure!(
        told.iter().any(|(_, first, _)| !first.is_empty()),
        "{told:?}"
    );
    let plain = |text: &str| text.replace(['\u{a0}', '\u{202f}'], " ");
    for (id, first, _) in &told {
        let row = format!(
            "const row = [...document.querySelectorAll('main li')].find((row) => row.querySelector(`a[href*='{id}']`));
             return row.innerText.replace(/[\\s\\u00a0\\u202f]+/g, ' ');"
        );
        let row = page.asks(&row).await?;
        let row = row.as_str().context("a row")?;
        for part in plain(first).split(" +") {
            ensure!(
                row.contains(part),
                "the bench says \"{row}\", not \"{part}\""
            );
        }
    }
    let said = "return (document.querySelector('[data-test=against] p')?.innerText ?? '').replace(/[\\s\\u00a0\\u202f]+/g, ' ').trim()";
    for (id, first, others) in told {
        for stop in ["short", "guard", "price", "send"] {
            page.goto(&format!("/shipments/{id}/{stop}")).await?;
            page.comes_to(said, plain(&first))
                .await
                .with_context(|| format!("the foot at {stop} of {id}"))?;
        }
        // The sheet of the foot tells what no finding of the plan says.
        page.press(".foot .figures").await?;
        for matter in others {
            page.sees("#tally-sheet", &plain(&matter)).await?;
        }
    }
    studio.close().await
}

/// Rows of the bench on a phone: the piece keeps its room beside the carrier's name, and nothing runs past the margin.
#[test_context(Demo)]
#[tokio::test]
async fn a_row_of_the_bench_leaves_the_piece_its_room_on_a_phone(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::sized(database.pool(), 390, 844).await?;
    let page = studio.page();
    for (width, piece) in [(390, 150), (320, 105)] {
        page.goto("/").await?;
        page.is_as_wide_as(width).await?;
        page.sees("main li", "The Ropewalk").await?;
        let narrow = format!(
            "return [...document.querySelectorAll('main li .line > .piece, main li .line > .next')].filter((part) => part.clientWidth < {piece}).map((part) => `${{part.innerText}}: ${{part.clientWidth}}`)"
        );
        page.comes_to(&narrow, json!([])).await?;
        for place in ["/", "/leaving", "/shipments/new"] {
            page.goto(place).await?;
            page.comes_to("return innerWidth", width).await?;
            page.sees("h1", "").await?;
            let past = format!(
                "return [...document.querySelectorAll('select, input, button, a')].filter((part) => part.checkVisibility() && part.getBoundingClientRect().right > {width} + 0.5).map((part) => part.outerHTML.slice(0, 90))"
            );
            page.comes_to(&past, json!([]))
                .await
                .with_context(|| format!("{place} at {width}"))?;
        }
    }
    studio.close().await
}
