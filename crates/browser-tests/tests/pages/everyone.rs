//! Whoever uses it: by keyboard, by ear, with a taped thumb on a phone.

use anyhow::{Context as _, Result, ensure};
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, words};

/// Every view, what it shows once it is there, and what its window is called.
pub(crate) const PLACES: [(&str, &str, &str); 36] = [
    ("/", "Kelp Ladder", "Bench · Hummock"),
    (
        "/tools/sums/cushion",
        "Shock of the fall",
        "Quick sums · Hummock",
    ),
    (
        "/tools/sums/odds",
        "Arrives damaged",
        "Quick sums · Hummock",
    ),
    (
        "/tools/sums/pocket",
        "Blank along A",
        "Quick sums · Hummock",
    ),
    ("/materials/boards", "Corrugated C", "Materials · Hummock"),
    (
        "/materials/cushion_wraps",
        "Large bubble wrap",
        "Materials · Hummock",
    ),
    ("/materials/foams", "foam", "Materials · Hummock"),
    (
        "/materials/in-stock",
        "Large bubble wrap",
        "Materials in stock · Hummock",
    ),
    (
        "/materials/offcuts",
        "Offcut A",
        "Materials in stock · Hummock",
    ),
    (
        "/materials/cartons",
        "Chair carton",
        "Materials in stock · Hummock",
    ),
    ("/carriers/marram", "Crate size 1", "Carriers · Hummock"),
    ("/again", "Stretched canvas", "A quick parcel · Hummock"),
    (
        "/orders",
        "Import the order table",
        "Orders from a shop · Hummock",
    ),
    ("/log", "Does the model hold?", "Log · Hummock"),
    (
        "/leaving",
        "Nothing leaves on that day",
        "Outgoing · Hummock",
    ),
    (
        "/tools/rough-price",
        "Enter a width, a height and a country",
        "Price estimate · Hummock",
    ),
    ("/tools/weighings", "Take over", "Scale readings · Hummock"),
    (
        "/tools/cutting",
        "Nothing was laid out yet",
        "Cutting plans · Hummock",
    ),
    (
        "/tools/cutting/blank",
        "Read it",
        "A blank drawn elsewhere · Hummock",
    ),
    ("/rules", "How much padding?", "House rules · Hummock"),
    ("/rules/layers", "Layers", "House rules · Hummock"),
    ("/rules/materials", "Materials", "House rules · Hummock"),
    ("/rules/bench", "At the bench", "House rules · Hummock"),
    ("/rules/beginnings", "Presets", "House rules · Hummock"),
    ("/rules/odds", "Odds", "House rules · Hummock"),
    ("/rules/allowances", "All numbers", "House rules · Hummock"),
    (
        "/tools/measuring-sheet",
        "Measuring sheet",
        "Measuring sheet · Hummock",
    ),
    ("/tools", "Quick sums", "Tools · Hummock"),
    ("/studio/name", "Street and number", "Settings · Hummock"),
    ("/studio/countries", "Saltmark", "Settings · Hummock"),
    (
        "/studio/ruler",
        "Its day begins as in",
        "Settings · Hummock",
    ),
    ("/studio/papers", "Your own mark", "Settings · Hummock"),
    ("/about/api", "plans", "The API · Hummock"),
    ("/about/licences", "Rust crates", "Licences · Hummock"),
    (
        "/shipments/new",
        "Goes to",
        "A new parcel · A parcel on one page · Hummock",
    ),
    (
        "/nowhere/at/all",
        "Back to the bench",
        "Not found · Hummock",
    ),
];
const STOPS: [(&str, &str, &str); 9] = [
    ("send", "Before it leaves", "Kelp Ladder · Send · Hummock"),
    (
        "after",
        "It has not left yet",
        "Kelp Ladder · After · Hummock",
    ),
    ("measure", "Width", "Kelp Ladder · Measure · Hummock"),
    ("guard", "Hazards", "Kelp Ladder · Guard · Hummock"),
    ("box", "Cut list", "Kelp Ladder · Box · Hummock"),
    (
        "wanted",
        "goes as it is",
        "Kelp Ladder · Wanted: a carton · Hummock",
    ),
    ("price", "Services", "Kelp Ladder · Price · Hummock"),
    (
        "ways",
        "worth choosing between",
        "Kelp Ladder · Every way to send it · Hummock",
    ),
    ("weigh", "Beside the plan", "Kelp Ladder · Weigh · Hummock"),
];
/// Whatever is folded is opened, and the first layer with it.
const UNFOLD: &str = "
    document.querySelectorAll('details').forEach((part) => { part.open = true; });
    document.querySelector('[data-layer] .head')?.click();";
/// What a thumb has to hit, and what of it is lower than a thumb with tape on it needs. Links within a sentence are
/// as high as its lines; one that stands alone is not.
const TOO_LOW: &str = "
    const thumbs = 'button, select, input, summary, a, [role=button]';
    return [...document.querySelectorAll(thumbs)].flatMap((one) => {
        const held = one.matches('[type=checkbox], [type=radio]') ? one.labels[0] ?? one : one;
        const { width, height } = held.getBoundingClientRect();
        const shown = width > 1 && height > 1 && one.checkVisibility({ visibilityProperty: true });
        const alone = one.parentElement.textContent.trim() === one.textContent.trim();
        const inline = one.matches('a') && !alone && getComputedStyle(one).display === 'inline';
        return shown && !inline && height < 43.5
            ? [`${one.tagName} ${one.name ?? ''} \"${one.textContent.trim().slice(0, 40)}\" ${height}`] : [];
    });";
/// Words that don't fit where they stand.
const CUT_OFF: &str = "
    return [...document.querySelectorAll('body *')].flatMap((one) => {
        const style = getComputedStyle(one);
        const hides = style.overflowX !== 'visible' && style.overflowX !== 'auto' && style.overflowX !== 'scroll';
        const own = [...one.childNodes].some(({ nodeType, data }) => nodeType === 3 && data.trim() !== '');
        const out = one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 1;
        const { left } = one.getBoundingClientRect();
        const aside = left < -1 && one.clientWidth > 1 && !one.closest('.skip');
        return own && ((hides && out) || aside) && one.checkVisibility() ? [one.textContent.trim()] : [];
    });";

const WIDE: &str =
    "return document.documentElement.scrollWidth - document.documentElement.clientWidth";
/// Parts of the page that are scrolled sideways by themselves; a drawing may be, which is read both ways.
const ASIDE: &str = "
    return [...document.querySelectorAll('main *')].flatMap((one) => {
        const scrolls = /auto|scroll/.test(getComputedStyle(one).overflowX) && one.scrollWidth > one.clientWidth + 1;
        return scrolls && one.querySelector('svg[role=img]') === null && one.checkVisibility()
            ? [`${one.tagName} ${one.className} ${one.textContent.trim().slice(0, 40)}`] : [];
    });";

async fn look_over(page: &Page, on_a_phone: bool) -> Result<()> {
    page.asks(UNFOLD).await?;
    page.everyone_can_use_it().await?;
    let at = page.address().await?;
    if !on_a_phone {
        page.has_forced_colours(true).await?;
        let looked = page.everyone_can_use_it().await;
        page.has_forced_colours(false).await?;
        return looked.context("in forced colours");
    }
    for width in [390, 320] {
        page.is_as_wide_as(width).await?;
        let nothing = |found: &serde_json::Value| found.as_array().is_some_and(Vec::is_empty);
        let too_low = page.asks(TOO_LOW).await?;
        ensure!(nothing(&too_low), "{at} at {width}: {too_low}");
        let cut_off = page.asks(CUT_OFF).await?;
        ensure!(nothing(&cut_off), "{at} at {width}: {cut_off}");
        let aside = page.asks(ASIDE).await?;
        ensure!(nothing(&aside), "{at} at {width}: {aside}");
        ensure!(
            page.asks(WIDE).await? == 0,
            "{at} scrolls sideways at {width}"
        );
    }
    let looked = page.everyone_can_use_it().await.context("at 320");
    page.is_as_wide_as(390).await?;
    looked
}

async fn every_place(page: &Page, on_a_phone: bool) -> Result<()> {
    for (place, shows, title) in PLACES {
        page.goto(place).await?;
        page.sees("main", shows).await?;
        page.is_called(title).await?;
        look_over(page, on_a_phone).await?;
    }
    Ok(())
}

async fn every_stop(page: &Page, on_a_phone: bool) -> Result<()> {
    page.goto("/").await?;
    page.press_called("Kelp Ladder").await?;
    page.is_saved().await?;
    let address = Page::path_of(&page.address().await?);
    let (shipment, _) = address.rsplit_once('/').unwrap_or_default();
    for (stop, shows, title) in STOPS {
        page.goto(&format!("{shipment}/{stop}")).await?;
        page.is_saved().await?;
        page.sees("main", shows).await?;
        page.is_called(title).await?;
        look_over(page, on_a_phone).await?;
        let next = page.texts("main .btn-primary").await?;
        ensure!(
            next.len() == 1,
            "{stop} has more than one next step: {next:?}"
        );
    }
    Ok(())
}

#[test_context(Demo)]
#[tokio::test]
async fn every_place_can_be_used_by_everyone(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    every_place(&studio.page(), false).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn every_stop_can_be_used_by_everyone(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    every_stop(&studio.page(), false).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn every_place_can_be_used_on_a_phone(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::sized(database.pool(), 390, 844).await?;
    every_place(&studio.page(), true).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn every_stop_can_be_used_on_a_phone(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::sized(database.pool(), 390, 844).await?;
    every_stop(&studio.page(), true).await?;
    studio.close().await
}

/// Tells whether two elements differ in an edge, a weight or a fill, so that a state is seen also in the browser's forced colours.
const TOLD_APART: &str = "
    const look = (one) => {
        const { outlineStyle, outlineWidth, borderTopStyle, borderTopWidth, fontWeight, textDecorationLine } = getComputedStyle(one);
        const { backgroundColor, forcedColorAdjust } = getComputedStyle(one);
        const edge = outlineStyle === 'none' ? '' : outlineWidth;
        return [edge, borderTopStyle, borderTopWidth, fontWeight, textDecorationLine, forcedColorAdjust === 'none' ? backgroundColor : '']
            .join();
    };
    const [is, other] = arguments[0].map((css) => document.querySelector(css));
    return is !== null && other !== null && look(is) !== look(other);";

#[test_context(Demo)]
#[tokio::test]
async fn every_state_is_told_apart_in_forced_colours(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "guard").await?;
    page.press_called(words::CONTINUE_TO_BOX).await?;
    page.is_at_stop("box").await?;
    page.has_forced_colours(true).await?;
    for (at, is, other) in [
        ("/box", ".place[aria-current]", ".place:not([aria-current])"),
        ("/box", ".line .here", ".line .stop:not(.here)"),
        ("/box", ".line .done .mark", ".line .open .mark"),
        (
            "/box",
            "button.chosen[data-style]",
            "button[data-style]:not(.chosen)",
        ),
        (
            "/box",
            ".btn-check:checked + .btn",
            ".btn-check:not(:checked) + .btn",
        ),
        ("/box", "main .btn-primary", "main .btn:not(.btn-primary)"),
        (
            "/pack",
            ".steps .here button",
            ".steps li:not(.here) button",
        ),
        ("/price", ".money-materials", ".money-work"),
    ] {
        page.goto(&format!("{place}{at}")).await?;
        page.find(is).await?;
        page.find(other).await?;
        let script =
            TOLD_APART.replace("arguments[0]", &serde_json::json!([is, other]).to_string());
        ensure!(
            page.asks(&script).await? == true,
            "{at}: {is} looks as {other}"
        );
    }
    // What is drawn lies on paper, whatever the page has behind it.
    page.goto(&format!("{place}/guard")).await?;
    page.find("main svg[role]").await?;
    let on_paper =
        "return getComputedStyle(document.querySelector('main svg[role]')).forcedColorAdjust";
    ensure!(page.asks(on_paper).await? == "none");
    studio.close().await
}

/// A title, a buyer and a note of one word each, longer than any line of a phone.
#[test_context(Demo)]
#[tokio::test]
async fn a_word_longer_than_its_line_is_parted(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::sized(database.pool(), 390, 844).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "measure").await?;
    let word = "Donaudampfschifffahrtselektrizitaetenhauptbetriebswerkbau";
    page.fill("title", word).await?;
    page.fill("buyer.name", word).await?;
    page.fill("buyer.town", word).await?;
    page.fill("order.number", word).await?;
    page.is_saved().await?;
    page.is_as_wide_as(320).await?;
    for (at, shows) in [
        ("/", word),
        (&format!("{place}/measure"), "Width"),
        (&format!("{place}/guard"), "Hazards"),
        (&format!("{place}/short"), "to send"),
        (&format!("{place}/pack"), "Set up the bench"),
        (&format!("{place}/send"), "Before it leaves"),
    ] {
        page.goto(at).await?;
        page.sees("main", shows).await?;
        ensure!(page.asks(WIDE).await? == 0, "{at} scrolls sideways");
        let cut_off = page.asks(CUT_OFF).await?;
        ensure!(cut_off == serde_json::json!([]), "{at}: {cut_off}");
    }
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn whoever_goes_somewhere_by_keyboard_begins_there(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("main", "Kelp Ladder").await?;
    // The first thing that Tab comes to leads past the strip.
    page.keys(Key::Tab).await?;
    page.is_at(".skip").await?;
    page.keys(Key::Enter).await?;
    page.is_at("main").await?;

    page.press_called("Kelp Ladder").await?;
    page.is_called("Kelp Ladder · Guard · Hummock").await?;
    page.is_at("main").await?;
    page.keys("1").await?;
    page.is_called("Kelp Ladder · Measure · Hummock").await?;
    page.is_at("main").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_workshop_stays_open_for_who_opened_it(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("main", "Kelp Ladder").await?;
    let shown = "return document.querySelector('#workshop').checkVisibility();";
    page.comes_to(shown, false).await?;
    page.goes_to_workshop("Carriers").await?;
    page.is_called("Carriers · Hummock").await?;
    page.comes_to(shown, true).await?;
    page.reload().await?;
    page.comes_to(shown, true).await?;
    page.press_called(words::OUTGOING).await?;
    page.is_called("Outgoing · Hummock").await?;
    page.press_called("Workshop").await?;
    page.comes_to(shown, false).await?;
    studio.close().await
}

/// By the key and by the button.
#[test_context(Demo)]
#[tokio::test]
async fn help_is_about_the_page_that_one_is_at(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("main", "Kelp Ladder").await?;
    page.keys("?").await?;
    page.sees("[data-test='help']", "Each row is a parcel")
        .await?;
    page.press(".modal .btn-close").await?;
    page.lacks(".modal.show").await?;
    page.press_called("Kelp Ladder").await?;
    page.is_called("Kelp Ladder · Guard · Hummock").await?;
    page.press_called("Help").await?;
    page.sees("[data-test='help']", "from the art outward")
        .await?;
    page.sees(".modal", "undo the last change").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn single_letter_keys_can_be_switched_off(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("main", "Kelp Ladder").await?;
    page.press_called("Help").await?;
    page.press("[name='keys-work']").await?;
    page.press(".modal .btn-close").await?;
    page.lacks(".modal.show").await?;
    page.keys("n").await?;
    page.reload().await?;
    page.sees("main", "Kelp Ladder").await?;
    page.keys("n").await?;
    page.press_called("Help").await?;
    page.press("[name='keys-work']").await?;
    page.press(".modal .btn-close").await?;
    page.lacks(".modal.show").await?;
    page.is_called("Bench · Hummock").await?;
    page.keys("n").await?;
    page.is_called("A new parcel · A parcel on one page · Hummock")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_wrong_is_read_out_when_it_is_quiet(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called("Kelp Ladder").await?;
    page.is_saved().await?;
    page.keys("1").await?;
    page.fill("size", "wide").await?;
    page.sees_hidden("[data-test='aloud']", "A value needs correcting")
        .await?;
    page.lacks("[role='alert'], [aria-live='assertive']")
        .await?;
    studio.close().await
}

/// A link that was kept from before places moved leads to where they are now.
#[test_context(Demo)]
#[tokio::test]
async fn former_addresses_lead_on(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    for (before, now, shows) in [
        ("/stores/tapes", "/materials/tapes", "Masking tape"),
        ("/stores", "/materials", "Catalogue"),
        ("/shelf", "/materials/in-stock", "In stock"),
        ("/shelf/offcuts", "/materials/offcuts", "Offcut A"),
        ("/shelf/pile", "/materials/cartons", "Chair carton"),
        ("/rates/marram", "/carriers/marram", "Crate size 1"),
        ("/sums/odds", "/tools/sums/odds", "Arrives damaged"),
        ("/rough", "/tools/rough-price", "Price estimate"),
        ("/cutting", "/tools/cutting", "Cutting plans"),
        (
            "/measuring-sheet",
            "/tools/measuring-sheet",
            "Measuring sheet",
        ),
        ("/tags?of=", "/tools/tags?of=", "Tags for wrapped pieces"),
        ("/weighings", "/tools/weighings", "Scale readings"),
        ("/studio", "/rules", "How much padding?"),
        (
            "/studio#backup",
            "/studio/backup",
            "The whole studio in one file",
        ),
        ("/studio/settings", "/studio/name", "The studio is called"),
    ] {
        page.goto(before).await?;
        page.sees("main", shows).await?;
        page.comes_to("return location.pathname + location.search", now)
            .await?;
    }
    studio.close().await
}
