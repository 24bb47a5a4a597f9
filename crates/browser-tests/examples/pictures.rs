//! Takes a picture of each main view of the demo studio, into the folder given.

use std::path::{Path, PathBuf};

use anyhow::{Context, Result};
use hummock_browser_tests::{Page, Studio};
use sqlx::PgPool;

/// The browser's own frame takes the rest of it from a page 800 high.
const HEIGHT: u32 = 943;

/// View, shipment, stop, and what is done there before the picture.
const STOPS: [(&str, &str, &str, Before); 9] = [
    ("measure", "Low Water, March", "measure", Before::Nothing),
    ("guard", "Low Water, March", "guard", Before::Nothing),
    ("guard-rolled", "Estuary Scroll", "guard", Before::Nothing),
    (
        "guard-engineer",
        "Low Water, March",
        "guard",
        Before::Press("details.engineer summary"),
    ),
    ("large-glazed", "Harbour chart", "guard", Before::Nothing),
    ("box", "Tide Table", "box", Before::Nothing),
    (
        "box-folding",
        "Tide Table",
        "box",
        Before::Press(".fold-it"),
    ),
    (
        "box-sealed",
        "Kelp Ladder",
        "box",
        Before::Press("[data-style='telescope']"),
    ),
    ("price", "Kelp Ladder", "price", Before::Nothing),
];

/// Title, construction, size and value of what is not among the demo studio's shipments.
const BEGUN: [(&str, &str, &str, &str); 1] = [(
    "Harbour chart",
    "framed_under_glass",
    "800 x 1000 x 30",
    "900",
)];

/// View, address, and what it shows once it is there.
const PLACES: [(&str, &str, &str); 4] = [
    ("rates", "/rates/swiftlane", "Additional handling"),
    ("house-rules", "/studio", "How much padding?"),
    ("stores", "/stores/foams", "Polyester urethane foam 32"),
    ("sums", "/sums/cushion", "71.7 G"),
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
    let studio = Studio::sized(&pool, 1280, HEIGHT).await?;
    let page = studio.page();
    page.sees("main", "Kelp Ladder").await?;
    page.picture(&folder.join("bench.png")).await?;
    for begun in BEGUN {
        begin(&page, begun).await?;
    }
    for (view, title, stop, before) in STOPS {
        open(&page, title, stop).await?;
        if let Before::Press(css) = before {
            page.press(css).await?;
            page.is_saved().await?;
            match view {
                "guard-engineer" => show(&page, "details.engineer").await?,
                "box-folding" => half_folded(&page).await?,
                "box-sealed" => {
                    page.sees(".seal", "where the halves meet").await?;
                    page.asks("document.querySelector('.seal').scrollIntoView()")
                        .await?;
                }
                _ => {}
            }
        }
        if view == "price" {
            page.sees("main", "Between its prices").await?;
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
        if view == "stores" {
            page.press("[data-material='urethane-32'] button").await?;
            page.find("form.editor .curve").await?;
        }
        page.picture(&folder.join(format!("{view}.png"))).await?;
    }
    shelf(&page, &folder).await?;
    page.goto("about:blank").await.ok();
    studio.close().await?;
    phone(&pool, &folder).await
}

/// What is cut together, a carton of the pile, what to look for, and what is short.
async fn shelf(page: &Page, folder: &Path) -> Result<()> {
    open(page, "Lantern Room", "box").await?;
    page.press(".saved summary").await?;
    page.sees("[data-test='pile']", "Mirror box from Ormside")
        .await?;
    page.asks("document.querySelector('.saved figure').scrollIntoView({ block: 'end' })")
        .await?;
    page.picture(&folder.join("pile.png")).await?;
    open(page, "Lantern Room", "wanted").await?;
    page.sees(".wanted", "goes as it is").await?;
    page.picture(&folder.join("wanted.png")).await?;
    open(page, "The Ropewalk", "box").await?;
    page.sees("[data-short='Large bubble wrap']", "there are")
        .await?;
    page.asks("document.querySelector('[data-short]').scrollIntoView({ block: 'center' })")
        .await?;
    page.picture(&folder.join("short-shelf.png")).await?;
    page.goto("/").await?;
    page.press_called("Cut several together").await?;
    for row in 1..=3 {
        page.press(&format!(
            "section:nth-of-type(2) li:nth-child({row}) [name='together']"
        ))
        .await?;
    }
    page.press_called("Lay out 3 shipments").await?;
    page.sees(".sheet", "Cuts, in this order").await?;
    page.press("[name='layout-of'][value='all'] + label")
        .await?;
    page.sees(".sheets", "Double wall BC").await?;
    page.asks("window.scrollTo(0, 0)").await?;
    page.picture(&folder.join("cutting.png")).await
}

/// The net of a box, as it is followed with a thumb.
async fn phone(pool: &PgPool, folder: &Path) -> Result<()> {
    let studio = Studio::sized(pool, 390, HEIGHT).await?;
    let page = studio.page();
    open(&page, "Kelp Ladder", "box").await?;
    page.sees("main", "flat, seen from inside").await?;
    page.asks("document.querySelector('.part').scrollIntoView({ block: 'center' })")
        .await?;
    page.picture(&folder.join("box-phone.png")).await?;
    page.goto("about:blank").await.ok();
    studio.close().await
}

/// A folder with its walls half up.
async fn half_folded(page: &Page) -> Result<()> {
    page.press("[data-style='folder']").await?;
    page.sees("[data-test='folding']", "left tuck").await?;
    page.is_saved().await?;
    page.find("[data-test='folding'] canvas").await?;
    page.asks(
        "const at = document.querySelector(\"[name='fold-at']\"); at.value = 31; at.dispatchEvent(new Event('input', { bubbles: true }));",
    )
    .await?;
    page.asks("document.querySelector(\"[data-test='folding']\").scrollIntoView()")
        .await?;
    Ok(())
}

/// Begins a shipment of a print, as a person does.
async fn begin(
    page: &Page,
    (title, construction, size, value): (&str, &str, &str, &str),
) -> Result<()> {
    page.goto("/").await?;
    page.press_called("New shipment").await?;
    page.fill("title", title).await?;
    page.choose("piece.construction", construction).await?;
    page.choose("piece.medium", "print").await?;
    page.fill("size", size).await?;
    page.fill("value", value).await?;
    page.choose("buyer.country", "XS").await?;
    page.is_saved().await
}

/// Opens a shipment from the bench, at a stop.
async fn open(page: &Page, title: &str, stop: &str) -> Result<()> {
    page.goto("/").await?;
    page.press_called(title).await?;
    page.is_saved().await?;
    let address = page.address().await?;
    let (shipment, _) = address
        .rsplit_once('/')
        .context("a shipment's address ends with its stop")?;
    let path = shipment
        .find("/shipments/")
        .map_or(shipment, |at| &shipment[at..]);
    page.goto(&format!("{path}/{stop}")).await?;
    page.is_saved().await?;
    if stop == "guard" {
        page.sees("main", "Layers, from the art outward").await?;
        page.sees("#changes", "More protection").await?;
    }
    Ok(())
}

/// Scrolls to a part of the page, once its falls are told.
async fn show(page: &Page, css: &str) -> Result<()> {
    page.find(&format!("{css} [data-fall]")).await?;
    page.asks(&format!(
        "document.querySelector('{css}').scrollIntoView({{ block: 'center' }})"
    ))
    .await?;
    Ok(())
}
