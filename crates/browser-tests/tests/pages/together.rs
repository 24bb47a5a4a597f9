//! Several pieces in one box: measured one by one, laid by the rules or by hand, packed to the end, and parted in two.

use anyhow::{Result, ensure};
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;

use crate::{Demo, words};

/// Adds a canvas to the shipment that is open at Measure.
async fn add_a_canvas(page: &Page, key: &str, title: &str, size: &str) -> Result<()> {
    page.press_called("Another piece in the same box").await?;
    let field = |name: &str| format!("others.{key}.{name}");
    page.fill(&field("title"), title).await?;
    page.choose(&field("piece.construction"), "stretched_canvas")
        .await?;
    page.fill(&field("size"), size).await?;
    page.holds(&field("piece.width"), "400 mm").await?;
    page.choose(&field("piece.medium"), "acrylic").await?;
    page.set_day(&field("piece.finished"), "2027-01-10").await?;
    page.fill(&field("value"), "410.50").await?;
    page.is_saved().await
}

#[test_context(Demo)]
#[tokio::test]
async fn two_pieces_are_laid_together_and_packed_to_the_end(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "measure").await?;
    add_a_canvas(&page, "p2", "Slack Water", "400 x 600 x 18").await?;
    page.sees(".pieces", "Slack Water").await?;
    page.sees(".line", "two pieces").await?;
    page.everyone_can_use_it().await?;
    // What is wrong with one of them is said at its own field, and nothing of the other is lost.
    page.fill("others.p2.value", "lots").await?;
    page.sees("form", "is not a value").await?;
    page.fill("others.p2.value", "410.50").await?;
    page.is_saved().await?;

    page.goto(&format!("{place}/guard")).await?;
    page.sees("[data-test='stack']", "face to face, a board between them")
        .await?;
    let members = "return document.querySelectorAll('[data-test=member]').length";
    page.comes_to(members, 2).await?;
    page.everyone_can_use_it().await?;
    // By hand: the keys move a piece and turn it, and what the order breaks is said.
    page.press("[data-piece='first'] .acts button:nth-child(4)")
        .await?;
    page.sees("[data-test='stack']", "a face points outward")
        .await?;
    page.press_called("Find the best order").await?;
    page.sees("[data-test='stack']", "The best order by the rules")
        .await?;
    // Side by side by hand: both on one board, drawn from above, and apart again with a key.
    page.press("[data-piece] ~ [data-piece] .acts button:nth-child(3)")
        .await?;
    page.sees("[data-test='several']", "Two on one board")
        .await?;
    page.sees("[data-test='tier'] text", "Kelp Ladder").await?;
    page.everyone_can_use_it().await?;
    page.press("[data-piece='p2'] .acts button:nth-child(1)")
        .await?;
    page.lacks("[data-test='several']").await?;
    page.press_called("Find the best order").await?;
    page.sees("[data-test='stack']", "The best order by the rules")
        .await?;
    // One of them goes without corner protectors.
    page.press("[data-piece='p2'] .acts button:nth-child(5)")
        .await?;
    page.sees("[data-piece='p2'] .own", "Folded corners")
        .await?;
    let corners = "const row = [...document.querySelectorAll(\"[data-piece='p2'] .own li\")].find((li) => li.textContent.includes('Folded corners'));
        row.querySelector('button').click(); return true;";
    page.asks(corners).await?;
    page.sees("[data-piece='p2'] .own", "Add:").await?;
    page.is_saved().await?;

    page.goto(&format!("{place}/pack")).await?;
    page.sees(".steps", "Slack Water: First wrap").await?;
    let titles = page.texts(".steps .title").await?;
    let at = |title: &str| titles.iter().position(|one| one == title);
    ensure!(at("Kelp Ladder: Corner protectors").is_some(), "{titles:?}");
    ensure!(at("Slack Water: Corner protectors").is_none(), "{titles:?}");
    ensure!(
        at("Slack Water: First wrap") < at("Lay the pieces together"),
        "{titles:?}"
    );
    let steps = titles.len();
    for number in 1..steps {
        page.sees(".where", &format!("step {number} of")).await?;
        if titles[number - 1] == "Lay the pieces together" {
            page.sees(".stage", "down first, its face").await?;
        }
        page.press("[data-test='verb']").await?;
    }
    page.press("[data-test='verb']").await?;
    page.sees(".finished", words::PACKED).await?;
    page.is_saved().await?;
    page.sees(".line", &format!("{steps} of {steps} done"))
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_shipment_is_parted_in_two_and_each_half_has_its_pieces(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "measure").await?;
    add_a_canvas(&page, "p2", "Slack Water", "400 x 600 x 18").await?;
    page.goto(&format!("{place}/guard")).await?;
    page.press_called("One parcel or two?").await?;
    page.sees("[data-test='parting']", "One parcel").await?;
    page.sees("[data-test='parting']", "Slack Water by itself")
        .await?;
    page.everyone_can_use_it().await?;
    page.press_called("Split it").await?;
    page.sees("h1", "Slack Water").await?;
    page.holds("title", "Slack Water").await?;
    page.holds("piece.width", "400 mm").await?;
    // The address goes with both.
    let town = page.value("buyer.town").await?;
    page.goto(&format!("{place}/measure")).await?;
    page.sees("h1", "Kelp Ladder").await?;
    page.lacks_text(".pieces", "Slack Water").await?;
    page.holds("buyer.town", &town).await?;
    studio.close().await
}
