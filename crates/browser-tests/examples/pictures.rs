//! Takes a picture of each main view of the demo studio, into the folder given.

use std::path::{Path, PathBuf};

use anyhow::{Context, Result};
use hummock_browser_tests::{Page, Studio};
use hummock_core::sending::Fate;
use hummock_standins::OnIt;
use sqlx::PgPool;

/// The browser's own frame takes the rest of it from a page 800 high.
const HEIGHT: u32 = 943;

/// View, shipment, stop, and what is done there before the picture.
const STOPS: [(&str, &str, &str, Before); 6] = [
    ("measure", "Low Water, March", "measure", Before::Nothing),
    ("guard", "Low Water, March", "guard", Before::Nothing),
    ("box", "Tide Table", "box", Before::Nothing),
    (
        "box-folding",
        "Tide Table",
        "box",
        Before::Press(".fold-it"),
    ),
    ("price", "Kelp Ladder", "price", Before::Nothing),
    ("pack", "Kelp Ladder", "pack", Before::Nothing),
];

/// View, address, and what it shows once it is there.
const PLACES: [(&str, &str, &str); 3] = [
    (
        "rates",
        "/carriers/swiftlane",
        "Surcharges for every service",
    ),
    ("house-rules", "/rules", "How much padding?"),
    ("log", "/log", "Does the model hold?"),
];

enum Before {
    Nothing,
    Press(&'static str),
}

#[tokio::main]
async fn main() -> Result<()> {
    let folder = PathBuf::from(
        std::env::args()
            .nth(1)
            .context("give the folder for the pictures")?,
    );
    let pool = PgPool::connect(&std::env::var("DATABASE_URL")?).await?;
    let mut studio = Studio::with_standins(&pool, 1280, HEIGHT).await?;
    let page = studio.page();
    page.sees("main", "Kelp Ladder").await?;
    page.picture(&folder.join("bench.png")).await?;
    for (view, title, stop, before) in STOPS {
        open(&page, title, stop).await?;
        if let Before::Press(css) = before {
            page.press(css).await?;
            page.is_saved().await?;
            half_folded(&page).await?;
        }
        if view == "pack" {
            for step in 1..8 {
                page.sees(".where", &format!("step {step} of")).await?;
                page.press("[data-test='verb']").await?;
            }
            page.sees(".stage h2", "Corner protectors").await?;
            page.is_saved().await?;
            page.asks("window.scrollTo(0, 0)").await?;
        }
        if view == "price" {
            page.sees("main", "Price bands").await?;
            page.sees("[data-test='price-step']", "saves").await?;
        }
        if view == "box" {
            page.sees("[data-style='slotted_edge']", "as it is made")
                .await?;
        }
        page.picture(&folder.join(format!("{view}.png"))).await?;
    }
    for (view, path, shows) in PLACES {
        page.goto(path).await?;
        page.sees("main", shows).await?;
        if view == "house-rules" {
            page.press("[name='schools.padding'][value='lean']").await?;
            page.sees(".side", "Kelp Ladder").await?;
            page.asks("window.scrollTo(0, 0)").await?;
        }
        page.picture(&folder.join(format!("{view}.png"))).await?;
    }
    orders(&page, &folder).await?;
    short_way(&page, &folder).await?;
    together(&page, &folder).await?;
    shelf(&page, &folder).await?;
    weighed(&studio, &page, &folder).await?;
    left(&mut studio, &page, &folder).await?;
    set_up(&page, &folder).await?;
    page.goto("about:blank").await.ok();
    studio.close().await
}

/// A new parcel on one page, with what follows beside its fields.
async fn short_way(page: &Page, folder: &Path) -> Result<()> {
    page.goto("/shipments/new").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("title", "Grey Heron").await?;
    page.fill("size", "600 x 800 x 38").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.set_day("piece.finished", "2027-01-04").await?;
    page.fill("value", "640").await?;
    page.choose("buyer.country", "XS").await?;
    page.sees(".follows [data-sum='to_send']", "EUR").await?;
    page.is_saved().await?;
    page.sees("[data-test='takes']", "Glassine").await?;
    page.asks("document.activeElement.blur(); window.scrollTo(0, 0)")
        .await?;
    page.picture(&folder.join("short-way.png")).await
}

/// Makes a shipment as a script says its inputs, and returns where it is.
async fn made(page: &Page, inputs: &str) -> Result<String> {
    let script = format!(
        "return (async () => {{
            const buyer = {{ name: 'Wyn Sedge', street: '4 Quay Row', town: 'Tarn Bay', postcode: 'TB11 4', country: 'XS' }};
            const piece = (construction, width, height, depth) => ({{ construction, medium: 'acrylic', finished: '2027-01-10',
                width: `${{width}} mm`, height: `${{height}} mm`, depth: `${{depth}} mm` }});
            const inputs = {{ promised: '2027-03-26', buyer, {inputs} }};
            const answer = await fetch('/api/v1/shipments', {{ method: 'POST',
                headers: {{ 'content-type': 'application/json' }}, body: JSON.stringify({{ inputs }}) }});
            return (await answer.json()).id; }})()"
    );
    let id = page.asks(&script).await?;
    let id = id.as_str().context("it was made")?;
    Ok(format!("/shipments/{id}"))
}

/// Six unlike pieces as they lie on two boards in one box.
async fn together(page: &Page, folder: &Path) -> Result<()> {
    let inputs = "title: 'Two Headlands', value: '640', piece: piece('stretched_canvas', 600, 800, 38),
        others: Object.fromEntries([['Slack Water', 200, 300], ['Marram', 220, 300], ['Rill', 200, 320], ['Sedge', 210, 280],
            ['Tarn', 190, 300]].map(([title, width, height], at) => [`p${at + 2}`,
            { title, value: '90', piece: piece('stretched_canvas', width, height, 18) }]))";
    let place = made(page, inputs).await?;
    page.goto(&format!("{place}/guard")).await?;
    page.sees("[data-test='several']", "Five on one board")
        .await?;
    page.picture(&folder.join("together.png")).await
}

/// What a travel case is cut from.
async fn shelf(page: &Page, folder: &Path) -> Result<()> {
    let inputs = "title: 'Winter Harbour', value: '1900', piece: piece('framed_under_acrylic', 1100, 800, 40),
        choices: { travel_case: true }";
    let place = made(page, inputs).await?;
    page.goto(&format!("{place}/box")).await?;
    page.sees("[data-test='case']", "Battens sawn").await?;
    page.press_called("Lay its parts out on sheets").await?;
    page.sees(".sheet", "Cuts, in this order").await?;
    page.sees(".sheets", "Plywood 4").await?;
    page.asks("window.scrollTo(0, 0)").await?;
    page.picture(&folder.join("cutting.png")).await
}

/// Every way to send it, and a parcel on the scale.
async fn weighed(studio: &Studio, page: &Page, folder: &Path) -> Result<()> {
    open(page, "Kelp Ladder", "ways").await?;
    page.sees("tr.now", "This plan").await?;
    page.lacks_text("[data-test='looked-at']", "so far").await?;
    page.press("tbody tr:nth-child(2) button").await?;
    page.sees(".opened", "Against this plan").await?;
    page.asks("window.scrollTo(0, 0)").await?;
    page.picture(&folder.join("ways.png")).await?;
    open(page, "Kelp Ladder", "weigh").await?;
    studio.standins()?.scale.lay(OnIt {
        mass_g: 13_560.0,
        ..OnIt::default()
    });
    page.sees(".state", "over the plan").await?;
    page.press_called("Take 13.6").await?;
    page.sees("[data-test='verdict']", "more than the plan explains")
        .await?;
    page.sees(".state", "at rest").await?;
    page.picture(&folder.join("weigh.png")).await
}

/// A parcel that is booked, and the same one after it arrived damaged.
async fn left(studio: &mut Studio, page: &Page, folder: &Path) -> Result<()> {
    let place = page.open("Kelp Ladder", "price").await?;
    page.press_called("Send by").await?;
    page.is_saved().await?;
    page.goto(&format!("{place}/send")).await?;
    page.press("[name='sending.addresses_read']").await?;
    page.sees("[data-check='addresses'].is-done", "match the order")
        .await?;
    page.press_called("Book with").await?;
    page.sees("[data-test='tracking']", "-").await?;
    page.asks("window.scrollTo(0, 0)").await?;
    page.picture(&folder.join("send.png")).await?;
    page.press_called("Handed over").await?;
    page.is_saved().await?;
    let carrier = &studio.standins()?.carrier;
    let booked = carrier.booked().pop().context("it is booked")?;
    carrier.decide(&booked.tracking, Fate::Damaged, None);
    studio.comes_to_the(&booked.way.latest.to_string()).await?;
    page.goto(&format!("{place}/after")).await?;
    page.sees("[data-test='said']", "delivered damaged").await?;
    page.press_called("Arrived damaged").await?;
    page.fill(
        "after.damage",
        "The lower left corner of the box is crushed; two corners of the canvas and the stretcher are cracked.",
    )
    .await?;
    page.choose("after.failed", "corners").await?;
    page.is_saved().await?;
    page.asks("window.scrollTo(0, 0)").await?;
    page.picture(&folder.join("after.png")).await
}

/// A studio of one's own, while it is set up.
async fn set_up(page: &Page, folder: &Path) -> Result<()> {
    page.goto("/").await?;
    page.press_called("Set up my own studio").await?;
    page.sees("h1", "Set up your studio").await?;
    page.fill("name", "Reed & Rush").await?;
    page.choose("sender.country", "US").await?;
    page.fill("sender.street", "1420 SE Oak St").await?;
    page.fill("sender.town", "Portland").await?;
    page.fill("sender.postcode", "97214").await?;
    page.choose("sender.region", "OR").await?;
    page.asks("document.activeElement.blur(); window.scrollTo(0, 0)")
        .await?;
    page.picture(&folder.join("studio.png")).await
}

/// A shop's table of which one row is to be mended.
const ORDERS: &str = "Order,Ship to,Street,Postcode,Town,Country,Item,Size,Technique,Price,Shipping,Deliver by
#1201,Maud Ferrier,2 Heron Row,TB1 4CD,Tern Bight,Saltmark,Slack Tide,540 x 720 x 38 mm,oil on canvas,640.00,24.00,2027-03-19
#1202,Isolde Pryce,11 Weir Lane,TB2 7HJ,Tern Bight,Saltmark,Winter Reed (A3 print),,,45.00,6.00,2027-03-16
#1203,Teodor Alm,7 Quay Street,SB4 1QR,Saltby,Vennland,Low Lamp,60 x 80,acrylic on canvas,480.00,18.00,2027-03-22
";

async fn orders(page: &Page, folder: &Path) -> Result<()> {
    let file = std::env::temp_dir().join(format!("orders-{}.csv", std::process::id()));
    std::fs::write(&file, ORDERS)?;
    page.goto("/orders").await?;
    page.attach(".file", &file).await?;
    std::fs::remove_file(&file)?;
    page.sees("[data-test='orders']", "2 new. 1 to be put right")
        .await?;
    page.picture(&folder.join("orders.png")).await
}

/// A folder with its walls half up.
async fn half_folded(page: &Page) -> Result<()> {
    page.press_called("other style").await?;
    page.press("[data-style='folder']").await?;
    page.sees("[data-test='folding']", "their tucks in against it")
        .await?;
    page.is_saved().await?;
    page.find("[data-test='folding'] canvas").await?;
    page.asks(
        "const at = document.querySelector(\"[name='fold-at']\"); at.value = 4.55; at.dispatchEvent(new Event('input', { bubbles: true }));",
    )
    .await?;
    page.asks("document.querySelector(\"[data-test='folding']\").scrollIntoView()")
        .await?;
    Ok(())
}

/// Opens a shipment from the bench, at a stop.
async fn open(page: &Page, title: &str, stop: &str) -> Result<()> {
    page.open(title, stop).await?;
    page.is_saved().await?;
    if stop == "guard" {
        page.sees("main", "Layers, from the art outward").await?;
        page.sees("#changes", "More protection").await?;
    }
    Ok(())
}
