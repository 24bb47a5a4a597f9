//! Three whole days, counted in presses and fields: a framer with five parcels on a tablet, a print seller on a phone, and a gallery
//! with three pieces in one box that arrive damaged.

use std::path::Path;

use anyhow::{Context as _, Result, ensure};
use hummock_browser_tests::Studio;
use hummock_core::sending::Fate;
use hummock_standins::{OnIt, Scale};
use test_context::test_context;

use crate::{Demo, gives, hands::Hands, words};

const VERB: &str = "[data-test='verb']";

impl Hands<'_> {
    /// Presses the one verb of the page, once it says that.
    async fn follow(&mut self, says: &str) -> Result<()> {
        self.page.sees(VERB, says).await?;
        self.press_at(VERB).await
    }

    /// From the plan to the carrier's number, the parcel on the scale as heavy as it was planned.
    async fn packed_and_booked(&mut self, scale: &Scale) -> Result<()> {
        let page = self.page;
        self.follow(words::CONTINUE_TO_BOX).await?;
        self.follow(words::CONTINUE_TO_PRICE).await?;
        self.follow(words::SEND_BY).await?;
        page.is_at_stop("pack").await?;
        self.press_at(".views label:last-of-type").await?;
        self.follow(words::ALL_DONE).await?;
        self.answer_looks().await?;
        page.sees("strong[role='status']", words::PACKED).await?;
        let planned = page
            .asks(
                "const id = location.pathname.split('/')[2];
                 return fetch(`/api/v1/shipments/${id}`).then((got) => got.json()).then(({ summary }) => summary.weight.mass_g);",
            )
            .await?;
        scale.lay(OnIt {
            mass_g: planned.as_f64().context("a planned weight")?,
            ..OnIt::default()
        });
        self.follow(words::WEIGH_IT).await?;
        self.follow("Take ").await?;
        self.follow(words::CONTINUE_TO_SEND).await?;
        self.follow(words::BOTH_ADDRESSES_ARE_RIGHT).await?;
        let border = "return document.querySelector(\"[name='sending.protected']\") !== null";
        if page.asks(border).await? == true {
            self.choose("sending.protected", "none").await?;
        }
        self.follow(words::BOOK_WITH).await?;
        page.sees("[data-test='tracking']", "-").await?;
        self.press_at("[name='sending.marked']").await?;
        page.sees("[data-check='marked'].is-done", "marks are on")
            .await?;
        page.is_saved().await
    }
}

/// A parcel: opened, two plans, a service, the list, all done, its looks (at most ten), weighed, taken, on to Send, addresses, booked,
/// marked: 13 and the looks. Then five ticks for the labels, and the list to sign for each carrier.
#[test_context(Demo)]
#[tokio::test]
async fn a_framer_sends_five_parcels_by_tablet(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1024, 768).await?;
    let page = studio.page();
    let scale = &studio.standins()?.scale;
    let mut hands = Hands::on(&page);
    let parcels = FIVE;
    for title in parcels {
        let before = hands.acts();
        hands.press(title).await?;
        page.is_at_stop("guard").await?;
        hands
            .packed_and_booked(scale)
            .await
            .with_context(|| title.to_owned())?;
        hands.press_at(".mark").await?;
        page.sees("h1", words::ON_THE_BENCH).await?;
        let acts = hands.acts() - before;
        ensure!(acts <= 24, "{title} took {acts} presses");
    }
    page.sees("main", "To hand over").await?;
    let before = hands.acts();
    for title in parcels {
        let row = format!(
            "[...document.querySelectorAll('main li')].find((row) => row.textContent.includes('{title}')).querySelector('input').click(); return true;"
        );
        page.asks(&row).await?;
        hands.presses += 1;
    }
    page.sees("[data-test='together']", "Five shipments chosen")
        .await?;
    gives(&page, "[data-test='labels']", "application/pdf").await?;
    hands.press("Let go").await?;
    hands.press("Outgoing today").await?;
    page.sees("h1", words::OUTGOING).await?;
    page.sees("main", "All 5 are handed over").await?;
    hands.press("All 5 are handed over").await?;
    page.sees("main", "handed over 4 Mar 2027").await?;
    page.lacks_text("main", "still here").await?;
    ensure!(hands.acts() - before <= 10, "{}", hands.acts() - before);
    page.everyone_can_use_it().await?;
    studio.close().await
}

/// Quick parcel, which one, the address as it came, into the fields, the pack sheet.
#[test_context(Demo)]
#[tokio::test]
async fn a_print_seller_sends_one_as_last_time_in_five_on_a_phone(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::sized(database.pool(), 390, 844).await?;
    let page = studio.page();
    let mut hands = Hands::on(&page);
    hands.press("Quick parcel").await?;
    hands.press_at(".kinds li:first-child button").await?;
    page.sees(".follows", "needs the country").await?;
    hands
        .type_into(
            "address-block",
            "Oda Marsh\n9 Long Quay\n4120 Grindvik\nVennland",
        )
        .await?;
    hands.press("Put it into the fields").await?;
    page.holds("buyer.country", "XV").await?;
    page.sees(".follows [data-sum='to_send']", "EUR").await?;
    page.is_saved().await?;
    gives(&page, "[data-test='other']", "application/pdf").await?;
    hands.press("Print the pack sheet").await?;
    ensure!(hands.acts() <= 5, "{}", hands.acts());
    page.everyone_can_use_it().await?;
    studio.close().await
}

/// Three pieces: each a press and six fields, the first with its country and worth as well; then packed, booked and handed over; then
/// damaged, with one photograph, what gave way, and a claim that is paid.
#[test_context(Demo)]
#[tokio::test]
async fn a_gallery_sends_three_in_a_box_and_claims(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    let mut hands = Hands::on(&page);
    hands.press("New parcel").await?;
    hands
        .choose("piece.construction", "stretched_canvas")
        .await?;
    hands.fill("title", "Ebb, I").await?;
    hands.fill("size", "400 x 500 x 20").await?;
    hands.choose("piece.medium", "acrylic").await?;
    hands.set_day("piece.finished", "2026-11-04").await?;
    hands.fill("value", "400").await?;
    hands.press_at(".paste summary").await?;
    hands
        .type_into(
            "address-block",
            "Perpetua Sloe\n3 Tollgate Row\nTarrow Bridge TB11 4\nSaltmark",
        )
        .await?;
    hands.press("Put it into the fields").await?;
    page.holds("buyer.country", "XS").await?;
    page.is_saved().await?;
    hands.press("More about the piece").await?;
    for (key, title) in [("p2", "Ebb, II"), ("p3", "Ebb, III")] {
        hands.press("Another piece in the same box").await?;
        let field = |name: &str| format!("others.{key}.{name}");
        hands.fill(&field("title"), title).await?;
        hands
            .choose(&field("piece.construction"), "stretched_canvas")
            .await?;
        hands.fill(&field("size"), "400 x 500 x 20").await?;
        hands.choose(&field("piece.medium"), "acrylic").await?;
        hands
            .set_day(&field("piece.finished"), "2026-11-04")
            .await?;
        hands.fill(&field("value"), "400").await?;
        page.is_saved().await?;
    }
    page.sees(".line", "three pieces").await?;
    let address = hummock_browser_tests::Page::path_of(&page.address().await?);
    let (place, _) = address.rsplit_once('/').context("it is at a stop")?;
    hands.follow(words::CONTINUE_TO_GUARD).await?;
    hands.packed_and_booked(&studio.standins()?.scale).await?;
    hands.follow(words::HANDED_OVER).await?;
    page.sees("[data-test='handed']", "Handed over on 4 Mar 2027")
        .await?;
    page.is_saved().await?;
    ensure!(hands.acts() <= 62, "sent after {}", hands.acts());
    let number = page.texts("[data-test='tracking']").await?;
    let number = number.first().context("a number")?;
    let carrier = &studio.standins()?.carrier;
    carrier.decide(number, Fate::Damaged, None);
    let there = carrier.booked()[0].way.latest.to_string();
    studio.comes_to_the(&there).await?;
    let before = hands.acts();
    page.goto(&format!("{place}/after")).await?;
    page.sees("[data-test='said']", "delivered damaged").await?;
    hands.press("Arrived damaged").await?;
    hands
        .fill("after.damage", "All three dented at the lower left corner")
        .await?;
    hands.choose("after.failed", "box").await?;
    let picture = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots/pack.png");
    page.attach("[data-test='photographs']", &picture).await?;
    page.find("[data-test='kept'] img").await?;
    gives(&page, "[data-test='claim-file']", "application/pdf").await?;
    hands.set_day("after.claim.sent_on", &there).await?;
    hands.fill("after.claim.number", "C 91").await?;
    hands.fill("after.claim.paid", "900").await?;
    page.sees("main", words::THE_CARRIER_HAS_DECIDED).await?;
    page.is_saved().await?;
    hands.press("Put it in the archive").await?;
    page.sees("[data-test='put-away']", "in the archive")
        .await?;
    ensure!(
        hands.acts() - before <= 8,
        "claimed after {}",
        hands.acts() - before
    );
    page.goto("/log").await?;
    page.sees("main", "Ebb, I").await?;
    studio.close().await
}

const FIVE: [&str; 5] = [
    "Low Water, March",
    "Kelp Ladder",
    "Nine Buoys",
    "Tide Table",
    "Lantern Room",
];
