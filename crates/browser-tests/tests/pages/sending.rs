//! The parcel leaves, is followed, arrives or does not, and what was learned shows up the next time.

use std::path::Path;

use anyhow::{Context as _, Result, ensure};
use hummock_browser_tests::{Page, Studio};
use hummock_core::sending::Fate;
use hummock_standins::FaultKind;
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, gives, words};

/// The box that confirms both addresses, which can be ticked before the parcel is packed.
const READ: &str = "[name='sending.addresses_read']";

/// Makes the first wrap of the stores dearer, and answers once it is.
const DEARER: &str =
    "return fetch('/api/v1/stores').then((got) => got.json()).then(({ version, catalogue }) => {
    const material = { ...catalogue.cushion_wraps[0], price_per_m: '9.90' };
    const body = JSON.stringify({ version, material });
    const asked = { method: 'PUT', headers: { 'content-type': 'application/json' }, body };
    return fetch(`/api/v1/stores/cushion_wraps/${material.id}`, asked).then(({ status }) => status);
})";

/// Chooses a service at Price that takes the parcel.
async fn choose_service(page: &Page, place: &str) -> Result<()> {
    page.goto(&format!("{place}/price")).await?;
    page.press_called(words::SEND_BY).await?;
    // What is chosen leads on.
    page.is_at_stop("pack").await
}

/// Books what is chosen, and returns the number that it is followed by.
async fn book(page: &Page, place: &str) -> Result<String> {
    page.goto(&format!("{place}/send")).await?;
    page.press(READ).await?;
    page.sees("[data-check='addresses'].is-done", "match the order")
        .await?;
    page.press_called(words::BOOK_WITH).await?;
    page.sees("[data-test='tracking']", "-").await?;
    let shown = page.texts("[data-test='tracking']").await?;
    shown.into_iter().next().context("it has a number")
}

#[test_context(Demo)]
#[tokio::test]
async fn one_shipment_from_new_to_arrived(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Neap").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("size", "400 x 500 x 18").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.set_day("piece.finished", "2026-10-01").await?;
    page.fill("buyer.name", "Perpetua Sloe").await?;
    page.fill("buyer.street", "Tollgate Row").await?;
    page.fill("buyer.town", "Tarrow Bridge").await?;
    page.fill("buyer.postcode", "TB11 4").await?;
    page.choose("buyer.country", "XS").await?;
    page.fill("value", "320").await?;
    page.is_saved().await?;
    let address = Page::path_of(&page.address().await?);
    let place = address
        .rsplit_once('/')
        .context("it is at a stop")?
        .0
        .to_owned();
    page.keys(Key::Escape).await?;
    page.press_called(words::CONTINUE_TO_GUARD).await?;
    page.press_called(words::CONTINUE_TO_BOX).await?;
    page.press_called(words::CONTINUE_TO_PRICE).await?;
    page.press_called(words::SEND_BY).await?;
    page.is_at_stop("pack").await?;
    // Packed as one list, each look answered.
    page.sees(".stage", "Set up the bench").await?;
    page.press(".views label:last-of-type").await?;
    page.press_called(words::ALL_DONE).await?;
    let answered = "const box = [...document.querySelectorAll('[aria-label=\"All steps\"] input')].find((box) => !box.checked);
                    if (box) box.click();
                    return !box;";
    page.comes_to(answered, true).await?;
    page.is_saved().await?;
    page.goto(&format!("{place}/weigh")).await?;
    page.fill("parcel.weight", "2.6").await?;
    page.is_saved().await?;
    // A driver looks for a house number.
    page.goto(&format!("{place}/send")).await?;
    page.sees("[data-test='gaps']", "no house number").await?;
    page.lacks_text("main", "Both addresses are right").await?;
    page.goto(&format!("{place}/measure")).await?;
    page.fill("buyer.street", "3 Tollgate Row").await?;
    page.is_saved().await?;
    let number = book(&page, &place).await?;
    page.sees(".line .here", &number).await?;
    page.sees("[data-check='packed'].is-done", "steps are done")
        .await?;
    page.sees("[data-check='tracking'].is-done", &number)
        .await?;
    page.sees("[data-test='message']", &number).await?;
    for paper in [
        "label",
        "label_a4",
        "marks",
        "slip",
        "condition",
        "addresses",
        "thank_you",
    ] {
        gives(&page, &format!("[data-paper='{paper}']"), "application/pdf").await?;
    }
    gives(&page, "a[href$='calendar.ics']", "text/calendar").await?;
    page.everyone_can_use_it().await?;
    page.press("[name='sending.marked']").await?;
    page.sees("[data-check='marked'].is-done", "marks are on")
        .await?;
    page.press_called(words::HANDED_OVER).await?;
    page.sees("[data-test='handed']", "Handed over on 4 Mar 2027")
        .await?;
    page.fill("sending.receipt", "R 204").await?;
    page.is_saved().await?;
    // Its plan is sealed.
    page.goto(&format!("{place}/guard")).await?;
    page.sees("[data-test='left']", "its plan is sealed")
        .await?;
    page.find("fieldset[disabled]").await?;
    // Whatever the house does from now on.
    page.goto(&format!("{place}/price")).await?;
    page.find("tbody.service.chosen").await?;
    let told = page.texts(".stage").await?;
    ensure!(page.asks(DEARER).await? == 200, "the stores are changed");
    page.reload().await?;
    page.find("tbody.service.chosen").await?;
    ensure!(page.texts(".stage").await? == told, "its prices moved");
    page.goto(&format!("{place}/pack")).await?;
    page.sees("[data-test='left']", "its plan is sealed")
        .await?;
    page.sees(".steps", words::CONTACT_SHEET).await?;
    page.goto(&format!("{place}/box")).await?;
    page.sees(".stage", "Net").await?;
    page.lacks("[aria-label='From what is in stock']").await?;
    page.goto("/?in=sent").await?;
    page.sees("main li", words::ON_ITS_WAY).await?;
    // Twelve days later it is there.
    studio.comes_to_the("2027-03-16").await?;
    page.goto(&format!("{place}/after")).await?;
    page.sees("[data-test='said']", "delivered").await?;
    page.press_called("Arrived whole").await?;
    page.sees("[data-test='outcome']", "Arrived whole").await?;
    page.fill("after.cost", "a lot").await?;
    page.sees("main", "\"a lot\" is not a value").await?;
    page.fill("after.cost", "9.80").await?;
    page.sees("[data-row='carriage']", "9.80").await?;
    page.fill("after.minutes", "31").await?;
    page.sees("[data-row='packing']", "31 min").await?;
    page.sees("[data-row='weight']", "2.60").await?;
    page.fill("after.lesson", "One turn less would do").await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    page.reload().await?;
    page.holds("after.lesson", "One turn less would do").await?;
    page.press_called("Put it in the archive").await?;
    page.sees("[data-test='put-away']", "in the archive")
        .await?;
    // The next like piece is told.
    page.open("Kelp Ladder", "guard").await?;
    page.sees("[data-test='lessons']", "One turn less would do")
        .await?;
    page.sees("[data-test='lessons']", "Neap").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn one_that_arrives_damaged_is_claimed_and_paid(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "price").await?;
    choose_service(&page, &place).await?;
    let number = book(&page, &place).await?;
    page.press_called(words::HANDED_OVER).await?;
    page.sees("[data-test='handed']", "4 Mar 2027").await?;
    page.is_saved().await?;
    studio
        .standins()?
        .carrier
        .decide(&number, Fate::Damaged, None);
    // On the day on which it is delivered.
    let way = studio.standins()?.carrier.booked()[0].way;
    studio.comes_to_the(&way.latest.to_string()).await?;
    page.goto(&format!("{place}/after")).await?;
    page.sees("[data-test='said']", "delivered damaged").await?;
    page.sees("[data-test='waits']", "ask the buyer").await?;
    page.press_called(words::ARRIVED_DAMAGED).await?;
    page.fill("after.damage", "Two corners crushed, the stretcher cracked")
        .await?;
    page.choose("after.failed", "corners").await?;
    let picture = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots/pack.png");
    page.attach("[data-test='photographs']", &picture).await?;
    page.find("[data-test='kept'] img").await?;
    page.sees("[data-test='deadline']", "by").await?;
    gives(&page, "[data-test='claim-file']", "application/pdf").await?;
    gives(&page, "a[href$='claim.zip']", "application/zip").await?;
    page.everyone_can_use_it().await?;
    page.goto("/?in=sent").await?;
    page.sees("main li", "Claim it from the carrier").await?;
    page.goto(&format!("{place}/after")).await?;
    page.set_day("after.claim.sent_on", &way.latest.to_string())
        .await?;
    page.fill("after.claim.number", "C 88").await?;
    page.sees("main", "With the carrier since").await?;
    page.fill("after.claim.paid", "plenty").await?;
    page.sees("main", "\"plenty\" is not a value").await?;
    page.holds("after.claim.paid", "plenty").await?;
    page.fill("after.claim.paid", "280").await?;
    page.sees("main", words::THE_CARRIER_HAS_DECIDED).await?;
    page.is_saved().await?;
    page.press_called("Put it in the archive").await?;
    page.sees("[data-test='put-away']", "in the archive")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn one_is_held_at_a_border_until_a_paper_comes(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::with_standins(database.pool(), 1024, 768).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "measure").await?;
    page.choose("buyer.country", "XV").await?;
    page.is_saved().await?;
    choose_service(&page, &place).await?;
    page.goto(&format!("{place}/send")).await?;
    page.sees("[data-check='protected']", "ivory").await?;
    page.choose("sending.protected", "some").await?;
    page.fill("sending.protected_what", "shell inlay").await?;
    page.sees("[data-check='protected'].is-done", "Contains shell inlay")
        .await?;
    page.sees("[data-test='to']", "VENNLAND").await?;
    page.is_saved().await?;
    let number = book(&page, &place).await?;
    gives(&page, "[data-paper='customs']", "application/pdf").await?;
    page.press_called(words::HANDED_OVER).await?;
    page.is_saved().await?;
    let paper = Some("an invoice with a tax number".to_owned());
    studio
        .standins()?
        .carrier
        .decide(&number, Fate::Held, paper);
    let way = studio.standins()?.carrier.booked()[0].way;
    studio.comes_to_the(&way.earliest.to_string()).await?;
    page.goto(&format!("{place}/after")).await?;
    page.sees("[data-test='held']", "an invoice with a tax number")
        .await?;
    page.sees("[data-test='held']", "left").await?;
    page.everyone_can_use_it().await?;
    // The paper came, and it goes on.
    studio
        .standins()?
        .carrier
        .decide(&number, Fate::Arrived, None);
    studio.comes_to_the("2027-04-20").await?;
    page.reload().await?;
    page.sees("[data-test='said']", "delivered").await?;
    page.lacks("[data-test='held']").await?;
    page.press_called("Arrived whole").await?;
    page.sees("[data-test='outcome']", "Arrived whole").await?;
    page.is_saved().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_carrier_that_says_nothing_refuses_or_takes_more_is_told_as_it_is(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 390, 844).await?;
    let (page, carrier) = (studio.page(), &studio.standins()?.carrier);
    let place = page.open("Kelp Ladder", "price").await?;
    choose_service(&page, &place).await?;
    page.goto(&format!("{place}/send")).await?;
    // It does what it was asked for, and its answer is lost, twice of the three times that it is asked.
    carrier.fails(FaultKind::LostReply, 2);
    page.press(READ).await?;
    page.sees("[data-check='addresses'].is-done", "match the order")
        .await?;
    page.press_called(words::BOOK_WITH).await?;
    // It is asked again by itself, and was booked once.
    page.sees("[data-test='tracking']", "-").await?;
    assert_eq!(carrier.booked().len(), 1);
    page.everyone_can_use_it().await?;
    page.press_called("Cancel the booking").await?;
    page.sees("main", "An earlier booking was cancelled")
        .await?;
    // However often the page asks it for its days meanwhile.
    carrier.fails(FaultKind::WrongTotal, 1000);
    page.press_called(words::BOOK_WITH).await?;
    page.sees("[data-test='differs']", "The carrier takes")
        .await?;
    carrier.fails(FaultKind::None, 0);
    page.press_called("Cancel the booking").await?;
    page.sees("main", "An earlier booking was cancelled")
        .await?;
    // Booked elsewhere, its number is typed.
    page.fill("sending.tracking", "KX 9").await?;
    page.is_saved().await?;
    page.sees(".line .here", "KX 9").await?;
    gives(&page, "[data-paper='label']", "application/pdf").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn parcels_of_a_day_are_handed_over_together(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    for title in ["Kelp Ladder", "Nine Buoys"] {
        let place = page.open(title, "price").await?;
        choose_service(&page, &place).await?;
        book(&page, &place).await?;
    }
    page.press_called("Outgoing today").await?;
    page.sees("main", "Kelp Ladder").await?;
    page.sees("main", "still here").await?;
    gives(&page, "a[href*='hand-over-list']", "application/pdf").await?;
    page.everyone_can_use_it().await?;
    let all = "const all = [...document.querySelectorAll('main .btn-primary')].find((one) => !one.disabled);
               if (all) all.click();
               return !document.querySelector('main').textContent.includes('still here');";
    page.comes_to(all, true).await?;
    page.goto("/?in=sent").await?;
    page.sees("main ul", "Kelp Ladder").await?;
    page.sees("main ul", "Nine Buoys").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn who_sends_is_typed_once_and_stands_on_every_label(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    // Where the house rules stood, what was below them has an address of its own.
    page.goto("/studio#sender").await?;
    page.fill("sender.street", "The Net Loft, 5 Capstan Row")
        .await?;
    page.press("[data-test='keep-settings']").await?;
    page.lacks("[data-test='keep-settings']:not(:disabled)")
        .await?;
    page.press_called("Label and card").await?;
    page.fill("sender.email", "bench").await?;
    page.press_called("Keep label and card").await?;
    page.sees("[data-test='sender']", "is not an email address")
        .await?;
    page.holds("sender.email", "bench").await?;
    page.fill("sender.email", "loft@saltgrass.example").await?;
    page.press_called("Keep label and card").await?;
    page.lacks("[data-test='sender-trouble']").await?;
    page.everyone_can_use_it().await?;
    page.open("Kelp Ladder", "send").await?;
    page.sees("[data-test='from']", "5 Capstan Row").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_a_carrier_forgot_is_settled_and_a_copy_asks_before_it_speaks(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let (page, carrier) = (studio.page(), &studio.standins()?.carrier);
    let place = page.open("Kelp Ladder", "price").await?;
    choose_service(&page, &place).await?;
    page.goto(&format!("{place}/send")).await?;
    page.sees("main", "Fetched on").await?;
    page.comes_to(
        "return document.querySelectorAll('[name=leaves-on]').length > 0",
        true,
    )
    .await?;
    // Its days were asked for by now: the next question is the booking.
    page.comes_to("return performance.getEntriesByType('resource').some((one) => one.name.endsWith('/slots') && one.responseEnd > 0)", true)
        .await?;
    page.press(READ).await?;
    page.sees("[data-check='addresses'].is-done", "match the order")
        .await?;
    carrier.fails(FaultKind::Forgets, 1);
    page.press_called(words::BOOK_WITH).await?;
    page.sees("[data-test='tracking']", "-").await?;
    carrier.fails(FaultKind::None, 0);
    page.goto("/leaving").await?;
    page.press_called("Carrier bookings").await?;
    page.sees("[data-test='apart']", "Kelp Ladder").await?;
    page.sees("main", "Booked here, missing at the carrier")
        .await?;
    page.everyone_can_use_it().await?;
    page.press_called("Delete it here").await?;
    page.sees("[data-test='agree']", "Nothing is booked")
        .await?;
    page.goto(&format!("{place}/send")).await?;
    page.press_called(words::BOOK_WITH).await?;
    page.sees("[data-test='tracking']", "-").await?;
    page.goto("/leaving/carriers").await?;
    page.sees(
        "[data-test='agree']",
        "one booking, the same here and with the carriers",
    )
    .await?;
    // As it is once it was read in from a backup.
    sqlx::query("UPDATE studio SET held = 'restored'")
        .execute(database.pool())
        .await?;
    page.goto(&format!("{place}/send")).await?;
    page.sees(
        "[data-test='held']",
        "Confirm first that the original is stopped",
    )
    .await?;
    page.lacks_text("main", "Cancel the booking").await?;
    page.press("[data-test='held'] a").await?;
    page.sees("[data-test='held']", "Does this studio book with carriers?")
        .await?;
    page.everyone_can_use_it().await?;
    page.press_called("Yes, the other one is stopped").await?;
    page.sees("[data-test='agree']", "one booking").await?;
    page.goto(&format!("{place}/send")).await?;
    page.press_called("Cancel the booking").await?;
    page.sees("main", "An earlier booking was cancelled")
        .await?;
    studio.close().await
}

/// An oil of which nobody says when it was finished: the same Stop at every stop, nothing green under it, and no way out of the door.
#[test_context(Demo)]
#[tokio::test]
async fn what_is_not_dry_passes_every_stop_and_leaves_by_none(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("The Ropewalk", "measure").await?;
    page.sees("[data-test='against']", "It dries by").await?;
    page.set_day("piece.finished", "").await?;
    page.sees(
        "[data-test='against']",
        "the day it was finished is missing",
    )
    .await?;
    page.is_saved().await?;
    for stop in ["guard", "box", "price", "pack", "weigh", "send"] {
        page.goto(&format!("{place}/{stop}")).await?;
        page.sees(
            "[data-test='against']",
            "the day it was finished is missing",
        )
        .await
        .with_context(|| format!("at {stop}"))?;
        page.lacks(".foot .btn-primary")
            .await
            .with_context(|| format!("at {stop}"))?;
    }
    page.sees(
        "[aria-label='Before it leaves']",
        "the day it was finished is missing",
    )
    .await?;
    page.find("[data-test='verb']:disabled").await?;
    page.lacks_text("[aria-label='Handing over']", "Handed over all the same")
        .await?;
    page.goto("/").await?;
    page.sees("main", "The Ropewalk").await?;
    page.sees("main li", "the day it was finished is missing")
        .await?;
    // What helps is told where the foot opens: the day, or a reason.
    page.goto(&format!("{place}/guard")).await?;
    page.press_called(words::SHOW_OPTIONS).await?;
    page.sees(
        "[data-finding='cure']",
        "the day it was finished is missing",
    )
    .await?;
    studio.close().await
}
