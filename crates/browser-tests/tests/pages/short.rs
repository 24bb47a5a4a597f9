//! A parcel on one page, counted in presses and fields; the foot, which leads on; and the one sum that every page tells.

use anyhow::{Context as _, Result, ensure};
use hummock_browser_tests::Studio;
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, gives, hands::Hands, words};

impl Hands<'_> {
    /// From the bench to the pack sheet of a plain canvas.
    async fn first_parcel(&mut self, size: &str, outside: &str) -> Result<()> {
        let page = self.page;
        self.press("New parcel").await?;
        self.choose("piece.construction", "stretched_canvas")
            .await?;
        self.fill("size", size).await?;
        self.choose("piece.medium", "acrylic").await?;
        self.set_day("piece.finished", "2027-01-04").await?;
        self.fill("value", "640").await?;
        self.choose("buyer.country", "XS").await?;
        page.sees("[data-test='says']", outside).await?;
        page.sees("[data-test='says']", "arrive damaged").await?;
        page.sees("[data-test='takes']", "Glassine").await?;
        page.sees(".follows [data-sum='to_send']", "EUR").await?;
        page.is_saved().await?;
        gives(page, "[data-test='other']", "application/pdf").await?;
        self.press("Print the pack sheet").await?;
        ensure!(
            self.acts() <= 8,
            "it took {} presses and fields",
            self.acts()
        );
        Ok(())
    }
}

/// 600 + 10 + 36 + 18 + 30 + 16 = 710; 800 + 16.08 + 18 + 36 + 30 + 8 = 908.08; 38 + 13.08 + 8 + 0.2 + 20 + 20 + 10 + 15 = 124.28.
#[test_context(Demo)]
#[tokio::test]
async fn a_painters_first_parcel_is_printed_in_eight(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let mut hands = Hands::on(&page);
    hands
        .first_parcel("600 x 800 x 38", "710 × 908 × 124 mm")
        .await?;
    studio.close().await
}

/// 24 in = 609.6 + 110 = 719.6; 30 in = 762 + 108.08 = 870.08; 1 1/2 in = 38.1 + 86.28 = 124.38: 28 5/16, 34 1/4, 4 7/8 in.
#[test_context(Demo)]
#[tokio::test]
async fn a_first_parcel_in_inches_is_printed_in_eight(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.keys("u").await?;
    page.keys("u").await?;
    page.sees("main li", " in").await?;
    let mut hands = Hands::on(&page);
    hands
        .first_parcel("24 x 30 x 1 1/2", "28 5/16 × 34 1/4 × 4 7/8 in")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_first_parcel_is_printed_on_a_phone(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::sized(database.pool(), 390, 844).await?;
    let page = studio.page();
    let mut hands = Hands::on(&page);
    hands
        .first_parcel("600 x 800 x 38", "710 × 908 × 124 mm")
        .await?;
    page.goto("/").await?;
    page.sees("main li", words::UNTITLED).await?;
    page.press_called(words::UNTITLED).await?;
    page.keys(Key::Escape).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_first_parcel_is_begun_and_packed_by_keys_alone(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("h1", words::ON_THE_BENCH).await?;
    page.keys("n").await?;
    page.is_at("[name='piece.construction']").await?;
    page.keys("Stretched").await?;
    page.keys(Key::Tab + "Ebb").await?;
    page.keys(Key::Tab + "400 x 500 x 18").await?;
    page.keys(Key::Tab + "Acrylic").await?;
    page.is_at("[name='piece.medium']").await?;
    page.keys(Key::Tab + "01042027").await?;
    page.holds("piece.finished", "2027-01-04").await?;
    // Past the parts of the day and its picker.
    while !page
        .asks("return document.activeElement?.name === 'value'")
        .await?
        .as_bool()
        .unwrap_or(true)
    {
        page.keys(Key::Tab).await?;
    }
    page.keys("320").await?;
    page.keys(Key::Tab + "Saltmark").await?;
    page.holds("buyer.country", "XS").await?;
    page.sees(".follows [data-sum='to_send']", "EUR").await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    // The verb is reached with Tab, and pressed with Enter.
    while !page
        .asks("return document.activeElement?.dataset.test === 'verb'")
        .await?
        .as_bool()
        .unwrap_or(true)
    {
        page.keys(Key::Tab).await?;
    }
    page.keys(Key::Enter).await?;
    page.is_at_stop("pack").await?;
    page.sees(".stage", "Set up the bench").await?;
    page.keys(" ").await?;
    page.sees(".stage h2", "Look the piece over").await?;
    studio.close().await
}

/// Choosing, weighing, booking and handing over: each is the one verb of its stop.
#[test_context(Demo)]
#[tokio::test]
async fn the_foot_alone_leads_from_measure_to_the_carrier(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let (page, scale) = (studio.page(), &studio.standins()?.scale);
    page.open("Kelp Ladder", "measure").await?;
    let verb = "[data-test='verb']";
    let on = async |says: &str| -> Result<()> {
        page.sees(verb, says).await?;
        page.press(verb).await
    };
    on(words::CONTINUE_TO_GUARD).await?;
    on(words::CONTINUE_TO_BOX).await?;
    on(words::CONTINUE_TO_PRICE).await?;
    on(words::SEND_BY).await?;
    page.is_at_stop("pack").await?;
    page.sees(".stage", "Set up the bench").await?;
    on("Done, next").await?;
    page.sees(".where", "step 2 of").await?;
    // The rest as a list, so that each look is answered by itself.
    page.press(".views label:last-of-type").await?;
    on(words::ALL_DONE).await?;
    let answered = "const box = [...document.querySelectorAll('[aria-label=\"All steps\"] input')].find((box) => !box.checked);
                    if (box) box.click();
                    return !box;";
    page.comes_to(answered, true).await?;
    scale.lay(hummock_standins::OnIt {
        mass_g: 10_900.0,
        ..hummock_standins::OnIt::default()
    });
    on(words::WEIGH_IT).await?;
    on("Take 10.9").await?;
    on(words::CONTINUE_TO_SEND).await?;
    on(words::BOTH_ADDRESSES_ARE_RIGHT).await?;
    on("Book with Gannet Post").await?;
    page.sees("[data-test='tracking']", "-").await?;
    page.press("[name='sending.marked']").await?;
    page.sees("[data-check='marked'].is-done", "marks are on")
        .await?;
    page.sees("[data-test='against']", "May arrive after the promised day")
        .await?;
    on(words::HANDED_OVER).await?;
    page.sees("[data-test='handed']", "Handed over on 4 Mar 2027")
        .await?;
    on("Follow it").await?;
    page.sees("main", words::ON_ITS_WAY).await?;
    let primary = page.texts("main .btn-primary").await?;
    ensure!(
        primary.len() == 1,
        "one next step, and no other: {primary:?}"
    );
    studio.close().await
}

/// Each amount on a page says which sum it is, and each part of what the parcel costs is one that the core told for one of its services.
/// What was looked at comes back beside what is wrong, so that a page without amounts can't pass.
const AMOUNTS: &str = r#"
    const id = location.pathname.split('/')[2];
    return fetch(`/api/v1/shipments/${id}`).then((got) => got.json()).then(({ worked, summary }) => {
        const told = [worked.cost, summary?.cost, ...worked.quotes.map(({ cost }) => cost)].filter(Boolean);
        const plain = (text) => text.replace(/[\u202f\u00a0\s]+/g, ' ').trim();
        const words = document.createTreeWalker(document.querySelector('main'), NodeFilter.SHOW_TEXT);
        const wrong = [];
        let seen = 0;
        for (let node = words.nextNode(); node; node = words.nextNode()) {
            const holder = node.parentElement;
            if (!holder?.checkVisibility() || holder.closest('option, style, script')) continue;
            const named = holder.closest('[data-sum]')?.dataset.sum;
            for (const [found] of plain(node.textContent).matchAll(/\d[\d ]*\.\d\d EUR/g)) {
                if (!named) wrong.push(`no name: ${plain(holder.closest('p, li, td, th, div')?.textContent ?? found)}`);
            }
            if (!named) continue;
            const amount = plain(node.textContent).replace(/ EUR$/, '');
            if (!/^\d+\.\d\d$/.test(amount)) continue;
            seen += 1;
            const parts = told.filter((cost) => named in cost);
            if (parts.length > 0 && !parts.some((cost) => cost[named].amount === amount))
                wrong.push(`${named}: ${amount} is none of ${parts.map((cost) => cost[named].amount)}`);
        }
        return { seen: seen > 0, wrong };
    });"#;

#[test_context(Demo)]
#[tokio::test]
async fn every_amount_on_a_page_is_a_part_of_the_one_sum(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("main li", "EUR").await?;
    let links = page
        .asks("return [...document.querySelectorAll('main li a')].map((link) => link.getAttribute('href').split('/')[2])")
        .await?;
    let ids: Vec<&str> = links
        .as_array()
        .context("a list")?
        .iter()
        .filter_map(|id| id.as_str())
        .collect();
    ensure!(ids.len() >= 8, "{ids:?}");
    let fine = serde_json::json!({ "seen": true, "wrong": [] });
    for id in ids {
        for (stop, shows) in [
            ("short", "to send"),
            ("guard", "Hazards"),
            ("box", "stock"),
            ("price", "Shipping charge"),
            ("weigh", "Prices use"),
            ("send", "Before it leaves"),
        ] {
            page.goto(&format!("/shipments/{id}/{stop}")).await?;
            page.sees("main", shows).await?;
            page.comes_to(AMOUNTS, fine.clone())
                .await
                .with_context(|| format!("{stop} of {id}"))?;
        }
    }
    studio.close().await
}

/// What the pages could do before they were set anew, and no other test drives.
#[test_context(Demo)]
#[tokio::test]
async fn former_acts_are_still_there(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::with_standins(database.pool(), 1280, 800).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "price").await?;
    // A service is chosen, sorted otherwise, and not taken after all.
    page.press_called(words::SEND_BY).await?;
    page.is_at_stop("pack").await?;
    page.goto(&format!("{place}/price")).await?;
    page.choose("sort", "days").await?;
    page.sees(".service.chosen", "chosen").await?;
    page.press_called("Don’t send by it after all").await?;
    page.lacks(".service.chosen").await?;
    page.press("details.asked summary").await?;
    page.sees(".asked[open]", "costs nothing more").await?;
    page.press("details.asked ~ details.asked summary").await?;
    page.sees("[data-test='cover']", "on average").await?;
    page.choose("charge", "at_cost").await?;
    page.sees("[data-test='gain']", "under cost").await?;
    page.press_called("Every way to send it").await?;
    page.sees("tr.now", words::THIS_PLAN).await?;
    page.press_called("Back to Guard").await?;
    // A part of the money opens its lines, and the figures say what they are made of.
    page.press(".parts button.carrier").await?;
    page.sees(".tally dl", "carriage").await?;
    page.keys(Key::Escape).await?;
    page.lacks(".tally.open").await?;
    // One step back at the bench, and what was done is not done after all.
    page.goto(&format!("{place}/pack")).await?;
    page.press_called("Done, next").await?;
    page.sees(".where", "step 2 of").await?;
    page.press_called("Back").await?;
    page.sees(".where", "step 1 of").await?;
    page.press_called(words::NOT_DONE_YET).await?;
    page.sees("[data-test='verb']", "Done, next").await?;
    // It need not be weighed, and it may go without all that is asked for.
    page.goto(&format!("{place}/weigh")).await?;
    page.press_called("Send by the planned weight").await?;
    page.is_at_stop("send").await?;
    page.press_called("Handed over all the same").await?;
    page.sees("[data-test='handed']", words::HANDED_OVER)
        .await?;
    page.press_called("Take back: it is still here").await?;
    // It is asked first: nothing changes for whoever stays.
    page.press_called("Keep it sealed").await?;
    page.sees("[data-test='handed']", words::HANDED_OVER)
        .await?;
    page.press_called("Take back: it is still here").await?;
    page.press_called(words::TAKE_IT_BACK).await?;
    page.sees("[data-test='verb']", "Choose a service").await?;
    page.goto(&format!("{place}/wanted")).await?;
    page.sees("[data-test='verb']", "Print the card").await?;
    page.goto(&format!("{place}/quick")).await?;
    page.is_at_stop("short").await?;
    studio.close().await
}
