//! The pages on paper: nothing over anything else, and no more sheets than it takes.

use anyhow::{Result, ensure};
use hummock_browser_tests::{Page, Studio};
use lopdf::Document;
use test_context::test_context;

use crate::{Demo, everyone::PLACES};

/// A4 less its margins, in pixels of a page.
const ON_A4: u32 = 703;
/// Lines of text that lie over each other by more than two pixels both ways. Letters of a drawing and what is only read out stand
/// elsewhere.
const OVER_EACH_OTHER: &str = "
    const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const lines = [];
    for (let node = words.nextNode(); node; node = words.nextNode()) {
        const holder = node.parentElement;
        if (node.data.trim() === '' || !holder.checkVisibility({ visibilityProperty: true })) continue;
        if (holder.closest('svg, select, option, script, style, .visually-hidden')) continue;
        const range = document.createRange();
        range.selectNodeContents(node);
        for (const box of range.getClientRects())
            if (box.width > 1 && box.height > 1) lines.push({ box, says: node.data.trim().slice(0, 40), holder });
    }
    const found = [];
    lines.forEach(({ box: one, says, holder }, at) => {
        for (const { box: other, says: also, holder: beside } of lines.slice(at + 1)) {
            if (holder === beside) continue;
            const across = Math.min(one.right, other.right) - Math.max(one.left, other.left);
            const up = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top);
            // Lines are higher than their letters.
            const height = Math.min(one.height, other.height);
            if (across > 2 && up > height * 0.4) found.push(`${says} / ${also}`);
        }
    });
    return found.slice(0, 5);";

/// Prints what is shown, and returns how many sheets it takes.
async fn printed(page: &Page, at: &str) -> Result<usize> {
    page.is_as_wide_as(ON_A4).await?;
    page.is_on_paper(true).await?;
    let over = page.asks(OVER_EACH_OTHER).await?;
    page.is_on_paper(false).await?;
    page.is_as_wide_as(1280).await?;
    ensure!(over == serde_json::json!([]), "{at} on paper: {over}");
    let made = Document::load_mem(&page.printed().await?)?;
    Ok(made.get_pages().len())
}

#[test_context(Demo)]
#[tokio::test]
async fn every_view_prints_on_a4_with_nothing_over_anything(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    for (place, shows, _) in PLACES {
        page.goto(place).await?;
        page.sees("main", shows).await?;
        let sheets = printed(&page, place).await?;
        // The whole API, described, is the only long one; what is in stock has a line for every material.
        let most = match place {
            "/about/api" => 40,
            "/materials/in-stock" => 6,
            _ => 4,
        };
        ensure!(sheets <= most, "{place} takes {sheets} sheets");
    }
    let shipment = page.open("Kelp Ladder", "price").await?;
    for (stop, shows, most) in [
        ("short", "to send", 2),
        ("measure", "Width", 3),
        ("guard", "Hazards", 4),
        ("box", "Cut list", 4),
        ("price", "Shipping charge", 2),
        ("ways", "worth choosing between", 4),
        ("pack", "Set up the bench", 2),
        ("weigh", "Beside the plan", 2),
        ("send", "Before it leaves", 3),
        ("after", "It has not left yet", 1),
    ] {
        let at = format!("{shipment}/{stop}");
        page.goto(&at).await?;
        page.is_saved().await?;
        page.sees("main", shows).await?;
        let sheets = printed(&page, stop).await?;
        ensure!(sheets <= most, "{stop} takes {sheets} sheets");
    }
    studio.close().await
}
