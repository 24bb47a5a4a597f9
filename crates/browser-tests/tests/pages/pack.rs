//! The packing at the bench: one step after the other, as a list, after the plan changed, and while the server is away.

use std::path::Path;

use anyhow::{Result, ensure};
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, gives, words};

/// Does the step that is shown, which is of that number, and sees the next.
async fn done(page: &Page, number: usize) -> Result<()> {
    page.sees(".where", &format!("step {number} of")).await?;
    page.press("[data-test='verb']").await?;
    page.sees(".where", &format!("step {} of", number + 1))
        .await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_canvas_is_packed_step_by_step_and_a_changed_plan_says_what_it_touches(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "pack").await?;
    page.sees(".stage", "Set up the bench").await?;
    page.everyone_can_use_it().await?;
    // A pedal goes on, and back without loss.
    page.keys(Key::PageDown).await?;
    page.sees(".stage h2", "Look the piece over").await?;
    page.keys(Key::PageUp).await?;
    page.sees(".stage", words::NOT_DONE_YET).await?;
    page.keys(" ").await?;
    // What is asked is not answered by a slip of the hand.
    page.sees(".look", "Is it dry").await?;
    page.keys(" ").await?;
    page.sees(".look.nudged", "Is it dry").await?;
    page.sees(".stage h2", "Look the piece over").await?;
    done(&page, 2).await?;
    // What is not cut can't be laid.
    page.press_called(words::CONTACT_SHEET).await?;
    page.sees("[data-test='hint']", "First: Photograph its condition")
        .await?;
    page.press_called("Go there").await?;
    let steps = page.texts(".steps li").await?.len();
    for number in 3..steps {
        done(&page, number).await?;
    }
    page.press("[data-test='verb']").await?;
    page.sees(".finished", words::PACKED).await?;
    page.is_saved().await?;
    page.sees(".line", &format!("{steps} of {steps} done"))
        .await?;
    page.everyone_can_use_it().await?;
    page.reload().await?;
    page.sees(".finished", words::PACKED).await?;

    // A pocket can be printed as large as it is.
    page.press_called("Corner protectors").await?;
    gives(&page, "a[href$='?of=pocket']", "application/pdf").await?;
    // A score that was cut through is one press, and taken back with another.
    page.press("[data-key='layer/box']").await?;
    page.sees(".stage h2", "Box").await?;
    page.press_called("A score was cut through").await?;
    page.sees("[data-test='cut-through']", "One score is cut through")
        .await?;
    page.is_saved().await?;
    page.goto(&format!("{place}/guard")).await?;
    page.press("[data-layer='box'] button").await?;
    page.sees("[data-layer='box']", "bears 0.7 of its load")
        .await?;
    page.goto(&format!("{place}/pack")).await?;
    page.press("[data-key='layer/box']").await?;
    page.press_called(words::TAKE_IT_BACK).await?;
    page.lacks_text("[data-test='cut-through']", "cut through:")
        .await?;
    page.is_saved().await?;

    // A turn more of the second wrap: what lies under it stays.
    page.goto(&format!("{place}/guard")).await?;
    page.press("[data-layer='second_wrap'] button").await?;
    page.press("[data-layer='second_wrap'] [aria-label$='more']")
        .await?;
    page.is_saved().await?;
    page.goto(&format!("{place}/pack")).await?;
    page.sees(".is-touched", "be done again").await?;
    let touched = page.texts(".is-touched .title").await?;
    ensure!(
        touched.iter().any(|title| title == "Second wrap")
            && !touched.iter().any(|title| title == "First wrap"),
        "{touched:?}"
    );
    page.goto("/").await?;
    page.sees("main", "Look at the packing: the plan changed")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn steps_that_are_ticked_while_the_server_is_away_arrive_once_it_is_back(
    Demo(database): &Demo,
) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.open("Lantern Room", "pack").await?;
    done(&page, 1).await?;
    page.is_saved().await?;
    // The page itself is kept by now, so that it opens while nothing answers.
    page.comes_to("return navigator.serviceWorker.controller !== null", true)
        .await?;
    studio.go_away().await?;
    done(&page, 2).await?;
    // Two photographs are taken at the third step, one of them of what is no picture.
    page.sees(".stage h2", "Photograph its condition").await?;
    let picture = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/screenshots/pack.png");
    page.attach("[data-test='photographs']", &picture).await?;
    page.sees("[data-test='waiting']", "waits to be sent")
        .await?;
    let text = Path::new(env!("CARGO_MANIFEST_DIR")).join("Cargo.toml");
    page.attach("[data-test='photographs']", &text).await?;
    let two = "return document.querySelectorAll('[data-test=waiting]').length";
    page.comes_to(two, 2).await?;
    for number in 3..5 {
        done(&page, number).await?;
    }
    page.sees("[data-test='save-state']", words::KEPT_ON_THIS_PAGE)
        .await?;
    page.reload().await?;
    done(&page, 5).await?;
    page.sees(".views", "The server is away").await?;
    studio.come_back().await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees(".line", "5 of").await?;
    page.sees(".where", "step 6 of").await?;
    // The picture arrived, once; what is none says so, and stays until somebody throws it away.
    page.press_called("Photograph its condition").await?;
    page.sees("[data-test='kept']", "Throw away").await?;
    page.sees("[data-test='waiting']", "no JPEG, PNG or WebP")
        .await?;
    let shown = "const img = document.querySelector('[data-test=kept] img');
        return img !== null && img.complete && img.naturalWidth > 0;";
    page.comes_to(shown, true).await?;
    page.everyone_can_use_it().await?;
    page.press("[data-test='waiting'] button").await?;
    page.lacks("[data-test='waiting']").await?;
    page.reload().await?;
    page.press_called("Photograph its condition").await?;
    let kept = "return document.querySelectorAll('[data-test=kept]').length";
    page.comes_to(kept, 1).await?;
    page.press_called("Next").await?;
    page.reload().await?;
    // What was only looked at while it was away is as the server has it, once it is back.
    studio.go_away().await?;
    page.reload().await?;
    page.sees(".where", "step 6 of").await?;
    studio.come_back().await?;
    page.is_saved().await?;
    page.sees(".where", "step 6 of").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_parcel_like_many_before_is_ticked_on_one_screen_and_still_looked_at(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::sized(database.pool(), 390, 844).await?;
    let page = studio.page();
    page.open("Tide Table", "pack").await?;
    page.sees(".stage", "Set up the bench").await?;
    page.press(".views label:last-of-type").await?;
    page.press_called(words::ALL_DONE).await?;
    page.sees("[role='status']", "still to answer").await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    page.sees("li", "Is it dry").await?;
    // Each look is answered by itself.
    let script = "const box = [...document.querySelectorAll('[aria-label=\"All steps\"] input')].find((box) => !box.checked);
                  if (box) box.click();
                  return !box;";
    page.comes_to(script, true).await?;
    page.sees("strong[role='status']", words::PACKED).await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees(".finished", words::PACKED).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn an_address_is_pasted_as_it_came_and_looked_over(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.open("Nine Buoys", "measure").await?;
    page.is_saved().await?;
    page.press(".paste summary").await?;
    page.type_into(
        "address-block",
        "Oda Marsh\n9 Long Quay\n4120 Grindvik\nVennland\ntel 0555 12 34 56",
    )
    .await?;
    studio.go_away().await?;
    page.press_called(words::PUT_IT_INTO_THE_FIELDS).await?;
    page.sees(".paste", "couldn’t read it").await?;
    studio.come_back().await?;
    page.press_called(words::PUT_IT_INTO_THE_FIELDS).await?;
    page.sees(".paste", "Left aside: tel 0555 12 34 56").await?;
    page.holds("buyer.name", "Oda Marsh").await?;
    page.holds("buyer.street", "9 Long Quay").await?;
    page.holds("buyer.town", "Grindvik").await?;
    page.holds("buyer.postcode", "4120").await?;
    page.holds("buyer.country", "XV").await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    page.reload().await?;
    page.holds("buyer.town", "Grindvik").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_goes_in_is_listed_refused_where_it_would_dent_and_asked_for_at_its_place(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let place = page.open("Kelp Ladder", "measure").await?;
    page.is_saved().await?;
    page.choose("enclosure-kind", "hanging_kit").await?;
    page.sees(".enclosures li", "on the floor of the box")
        .await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    page.choose("enclosures.own-1.place", "under_last_wrap")
        .await?;
    page.sees(".enclosures", "dents the piece").await?;
    page.choose("enclosures.own-1.place", "on_top").await?;
    page.fill("enclosures.own-1.thickness", "15").await?;
    page.is_saved().await?;
    page.sees(".enclosures li", "15 mm thick").await?;
    page.goto(&format!("{place}/pack")).await?;
    page.sees(".steps", "Put the hanging kit in").await?;
    let titles = page.texts(".steps .title").await?;
    let at = |title: &str| titles.iter().position(|known| known == title);
    let (kit, close) = (at("Put the hanging kit in"), at("Close it"));
    ensure!(
        kit > at("Lay the wrapped piece in") && kit < close,
        "{titles:?}"
    );
    // Everything else is ticked at once, and the box still waits for it.
    page.press(".views label:last-of-type").await?;
    page.press_called(words::ALL_DONE).await?;
    page.sees("[role='status']", "still to answer").await?;
    page.is_saved().await?;
    page.reload().await?;
    page.press_called("Close it").await?;
    page.sees("[data-test='hint']", "First:").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_parcel_as_last_time_is_planned_priced_and_printed_in_ten_taps(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/").await?;
    let mut taps = 0;
    for tap in ["a[href='/again']", ".kinds li:first-child button"] {
        page.press(tap).await?;
        taps += 1;
    }
    page.sees(".follows", "needs the country").await?;
    page.fill("title", "Another Like It").await?;
    page.is_saved().await?;
    page.type_into(
        "address-block",
        "Oda Marsh\n9 Long Quay\n4120 Grindvik\nVennland",
    )
    .await?;
    page.press_called(words::PUT_IT_INTO_THE_FIELDS).await?;
    taps += 2;
    page.holds("buyer.town", "Grindvik").await?;
    page.is_saved().await?;
    page.set_day("promised", "2027-04-02").await?;
    page.is_saved().await?;
    page.sees(".follows [data-sum='to_send']", "EUR").await?;
    page.everyone_can_use_it().await?;
    let sheet = "const link = document.querySelector('[data-test=\"other\"]');
        return link !== null && link.href.includes('/pack-sheet?at=http');";
    page.comes_to(sheet, true).await?;
    taps += 1;
    ensure!(taps <= 10, "{taps}");
    page.press_called(words::PACK_IT).await?;
    page.sees(".stage", "Set up the bench").await?;
    page.goto("/").await?;
    page.sees("main", "Another Like It").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_house_says_what_goes_in_and_which_looks_stop(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules/bench").await?;
    page.press("[data-test='goes-in'] summary").await?;
    page.press("[data-test='goes-in'] .set:first-of-type > button")
        .await?;
    page.fill("enclosures.0.0.name", "thank-you card").await?;
    page.press("[data-test='looks'] > summary").await?;
    page.press("[data-test='looks'] .list summary").await?;
    page.press("[data-test='looks'] .list label").await?;
    page.everyone_can_use_it().await?;
    page.press_called(words::APPLY_TO_THE_HOUSE).await?;
    page.sees("main", "Version 2").await?;
    page.open("Kelp Ladder", "pack").await?;
    page.sees(".steps", "Put the thank-you card in").await?;
    done(&page, 1).await?;
    // Whether it is dry is only shown here.
    page.sees(".look .shown", "Is it dry").await?;
    page.keys(" ").await?;
    page.sees(".where", "step 3 of").await?;
    studio.close().await
}

/// Ticks shipments of the bench, one after the other.
async fn choose(page: &Page, titles: [&str; 2]) -> Result<()> {
    page.sees("main li", titles[0]).await?;
    for title in titles {
        let script = format!(
            "const row = [...document.querySelectorAll('main li')].find((row) => row.textContent.includes({title:?}));
             const box = row?.querySelector('[name=\"together\"]');
             if (box && !box.checked) box.click();
             return box?.checked === true;"
        );
        page.comes_to(&script, true).await?;
    }
    page.sees("[data-test='together']", "Two shipments chosen")
        .await
}

#[test_context(Demo)]
#[tokio::test]
async fn parcels_of_a_day_are_tagged_and_packed_one_after_the_other(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/").await?;
    choose(&page, ["Kelp Ladder", "Tide Table"]).await?;
    gives(&page, "[data-test='materials']", "application/pdf").await?;
    page.press_called("Tags").await?;
    page.sees("main", "Kelp Ladder").await?;
    page.sees("main", "Tide Table").await?;
    page.everyone_can_use_it().await?;
    page.back().await?;
    choose(&page, ["Kelp Ladder", "Tide Table"]).await?;
    page.press_called("Pack one after the other").await?;
    page.sees(".stage", "Set up the bench").await?;
    let first = page.address().await?;
    page.sees(".views", "one parcel to come").await?;
    // Whoever was elsewhere meanwhile, and opens the page anew, goes on where the day was.
    page.goto("/materials").await?;
    page.goto(Page::path_of(&first).split('?').next().unwrap_or_default())
        .await?;
    page.sees(".views", "one parcel to come").await?;
    page.press("[data-test='next-parcel']").await?;
    page.sees(".stage", "Set up the bench").await?;
    page.lacks_text(".views", "to come").await?;
    ensure!(page.address().await? != first);
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn orders_of_a_shop_come_in_once_and_what_is_wrong_is_named(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/orders").await?;
    // A head that nobody can guess is named once.
    page.type_into(
        "orders.csv",
        "To;No.;State\nOda Marsh;#1;Vennland\nCorrie Vane;#2;Atlantis\nBrid Tarn;#3;Saltmark\n",
    )
    .await?;
    for (column, name) in [("number", "No."), ("name", "To"), ("country", "State")] {
        page.choose(&format!("column.{column}"), name).await?;
    }
    page.sees(
        "[data-test='orders']",
        "2 new. 2 of them still to be measured. 1 to be put right",
    )
    .await?;
    page.everyone_can_use_it().await?;
    page.sees("table", "Atlantis is not a country").await?;
    page.press_called("Make two shipments").await?;
    page.sees("[data-test='orders']", "2 made.").await?;
    // Once more, the columns are known by now, and nothing is made twice.
    page.reload().await?;
    page.type_into("orders.csv", "State;To;No.\nVennland;Oda Marsh;#1\n")
        .await?;
    page.sees("[data-test='orders']", "1 known already").await?;
    page.press_called("known already").await?;
    page.sees("h1", words::UNTITLED).await?;
    page.holds("buyer.name", "Oda Marsh").await?;
    studio.close().await
}

/// Forty orders as a shop's program writes them: in its own language, with semicolons, days and decimals in its own order, two sizes in
/// inches, and one that nobody can read.
fn shops_table(first: usize, count: usize) -> Vec<u8> {
    let head = "Bestellnummer;Empfänger;Straße;PLZ;Ort;Land;Artikel;Größe;Technik;Anzahl;Preis;Versandkosten;Liefertermin;Anmerkung";
    let row = |at: usize| {
        let size = match at {
            1 | 2 => "24 x 36 x 1 1/2 in",
            3 => "sehr breit",
            _ => "60 x 80 x 2 cm",
        };
        format!(
            "{};Jürgen Möwe;Große Bleiche {at};TB1 2AA;Tern Bight;Saltmark;Ebbe {at};{size};Öl auf Leinwand;1;640,50;24,00;13.12.2027;für Zoë",
            2000 + at
        )
    };
    let lines: Vec<String> = std::iter::once(head.to_owned())
        .chain((first..first + count).map(row))
        .collect();
    // Each of its letters is one of the first 256, which Windows-1252 writes as one byte.
    let text = lines.join("\r\n");
    text.chars()
        .map(|letter| u8::try_from(u32::from(letter)).expect("it is written in one byte"))
        .collect()
}

/// Pressed: the file, *Make*, *Make* once more for the row that was mended, *To the bench*; and for the second file two.
#[test_context(Demo)]
#[tokio::test]
async fn forty_orders_of_a_shop_are_planned_in_four_presses_and_its_next_table_in_two(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let folder = tempfile::tempdir()?;
    let file = folder.path().join("bestellungen.csv");
    std::fs::write(&file, shops_table(0, 40))?;
    page.goto("/orders").await?;
    page.attach(".file", &file).await?;
    page.sees("[data-test='file']", "Empfänger").await?;
    page.sees("[data-test='how']", "14 columns").await?;
    page.sees("[data-test='orders']", "39 new. 1 to be put right")
        .await?;
    page.sees("tbody tr:first-child", "2003").await?;
    page.everyone_can_use_it().await?;
    page.press_called("Make 39 shipments").await?;
    page.sees("[data-test='orders']", "39 made. 1 to be put right")
        .await?;
    // The row is mended where it stands.
    page.type_into("mend.3.size", "90 x 120 x 4 cm").await?;
    page.keys(Key::Tab + "").await?;
    page.press_called("Make one shipment").await?;
    page.sees("[data-test='orders']", "40 made.").await?;
    let planned: i64 = sqlx::query_scalar(
        "SELECT count(*) FROM shipment WHERE found_by LIKE '%ebbe%' AND summary IS NOT NULL",
    )
    .fetch_one(database.pool())
    .await?;
    ensure!(planned == 40, "{planned} of them have a plan");
    page.press_called("To the bench").await?;
    page.sees("main", "order 2039").await?;
    std::fs::write(&file, shops_table(40, 3))?;
    page.goto("/orders").await?;
    page.attach(".file", &file).await?;
    page.sees("[data-test='how']", "as the last table of this shop")
        .await?;
    page.press_called("Make three shipments").await?;
    page.sees("[data-test='orders']", "3 made.").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_wrapped_piece_nine_millimetres_thicker_is_typed_at_its_step_and_blank_and_price_follow(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.open("Kelp Ladder", "pack").await?;
    page.press_called("Measure the wrapped piece").await?;
    page.sees(".tally", "62.03").await?;
    let cut = || async {
        page.press("[data-key='cut_box/double-wall-bc']").await?;
        page.sees(".stage h2", "Cut double wall BC").await?;
        page.texts(".takes ul li").await
    };
    let before = cut().await?;
    page.press_called("Measure the wrapped piece").await?;
    // By the sums 964 × 1270.08 × 99.28; the tape reads 9 more through.
    page.fill("choices.wrapped_across", "964").await?;
    page.sees(".stage", "measure all three sides").await?;
    page.fill("choices.wrapped_up", "1270.08").await?;
    page.fill("choices.wrapped_through", "108.28").await?;
    page.is_saved().await?;
    page.sees("[data-figure='outside']", "142 mm").await?;
    page.sees(".tally", "63.82").await?;
    // 9 thicker: the ring goes around the depth twice, so that the blank is 18 wider.
    let after = cut().await?;
    ensure!(before != after, "{before:?} is still {after:?}");
    page.reload().await?;
    page.sees(".tally", "63.82").await?;
    studio.close().await
}
