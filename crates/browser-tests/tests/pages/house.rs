//! House rules, stores and quick sums, as a person changes them.

use anyhow::Result;
use hummock_browser_tests::Studio;
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, words};

/// A window that the driver turns to is not brought to the front.
const COME_BACK: &str = "
    Object.defineProperty(document, 'visibilityState', { value: 'visible' });
    window.dispatchEvent(new Event('focus'));";
const OPEN_ALL: &str =
    "document.querySelectorAll('details').forEach((part) => { part.open = true })";

/// The file of a backup stays with whoever saved it; here it is the window that keeps it, over a page that is loaded anew.
const SAVE: &str = "
    window.saved = undefined;
    fetch('/api/v1/studio/backup/file').then((answer) => answer.blob()).then((file) => {
        const reader = new FileReader();
        reader.onload = () => {
            sessionStorage.setItem('saved', reader.result.split(',')[1]);
            window.saved = file;
        };
        reader.readAsDataURL(file);
    })";
const BEGIN: &str = "
    fetch('/api/v1/studio/restore', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{\"bytes\":1000}' })
        .then(() => window.dispatchEvent(new Event('focus')))";
const CHOOSE: &str = "
    const files = new DataTransfer();
    const saved = Uint8Array.from(atob(sessionStorage.getItem('saved')), (letter) => letter.charCodeAt(0));
    files.items.add(new File([saved], 'hummock.zip'));
    const field = document.querySelector(\"[name='backup']\");
    field.files = files.files;
    field.dispatchEvent(new Event('change'));";

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_is_taken_to_another_machine_as_one_file(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/studio/backup").await?;
    page.sees(
        "[data-test='backup']",
        "goes into a studio where nothing is kept",
    )
    .await?;
    page.lacks("[name='backup']").await?;
    page.sees("[data-test='nightly']", "bin/start --backups")
        .await?;
    page.press_called("Make a backup").await?;
    page.sees("[data-test='backup-made']", "Made on 4 Mar 2027, with")
        .await?;
    page.sees("[data-test='backup-made']", "It was read once")
        .await?;
    page.sees("[data-test='backup-file']", "Save the file")
        .await?;
    page.everyone_can_use_it().await?;
    page.asks(SAVE).await?;
    page.comes_to(
        "return window.saved !== undefined && window.saved.size > 1000",
        true,
    )
    .await?;
    studio.starts_anew(database.pool()).await?;
    page.asks(COME_BACK).await?;
    // It is another studio's by now, so the page is loaded anew.
    page.comes_to("return window.saved === undefined", true)
        .await?;
    page.sees("[data-test='backup']", "No shipment is kept here yet")
        .await?;
    // Something else by mistake: it says so, and nothing is lost.
    page.asks(&CHOOSE.replace("[saved]", "['a letter']"))
        .await?;
    // What it would take the place of is named before anything goes.
    page.sees("[data-test='backup-asks']", "the name and address of")
        .await?;
    page.press_called("Leave it as it is").await?;
    page.lacks("[data-test='backup-asks']").await?;
    page.asks(&CHOOSE.replace("[saved]", "['a letter']"))
        .await?;
    page.press_called("Replace it").await?;
    page.sees("[data-test='backup-trouble']", "not a zip file")
        .await?;
    // Another page began to send one, and was closed: that is in nobody's way.
    page.asks(BEGIN).await?;
    page.sees("[data-test='backup']", "Sending it: 1 kB")
        .await?;
    page.asks(CHOOSE).await?;
    page.press_called("Replace it").await?;
    page.sees(
        "[data-test='backup-read']",
        "shipments and no photographs are here",
    )
    .await?;
    page.sees(
        "[data-test='backup-read']",
        "asks whether it speaks to carriers",
    )
    .await?;
    page.press_called("Open the bench").await?;
    page.press_called("Kelp Ladder").await?;
    page.is_saved().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_rule_shows_what_it_would_change_before_it_is_applied(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goes_to_workshop("House rules").await?;
    page.sees("main", "How much padding?").await?;
    page.sees(".side", "Nothing is changed").await?;
    page.press("[name='schools.padding'][value='lean']").await?;
    page.sees(".side", "of 8 shipments would").await?;
    page.sees(".side", "Kelp Ladder").await?;
    page.sees(".side", "−20 mm through").await?;
    page.press_called("Put back").await?;
    page.sees(".side", "Nothing is changed").await?;

    page.press("[name='schools.padding'][value='lean']").await?;
    page.sees(".side", "Kelp Ladder").await?;
    page.press_called(words::APPLY_TO_THE_HOUSE).await?;
    page.sees("main", "Version 2").await?;
    page.sees(".side", "Nothing is changed").await?;
    page.goto("/").await?;
    page.press_called("Kelp Ladder").await?;
    page.is_saved().await?;
    page.keys("2").await?;
    page.sees("main", "version 2").await?;
    page.lacks("[data-layer='second_wrap']").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn rules_that_were_changed_on_two_pages_keep_both_changes(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules/allowances").await?;
    page.sees("main", "Engineer’s view").await?;
    page.asks(OPEN_ALL).await?;
    page.fill("allowances.clearance_mm", "21").await?;
    page.sees("[data-test='effects']", "shipments would")
        .await?;
    let first = page.second_window("/rules/allowances").await?;
    page.sees("main", "Engineer’s view").await?;
    page.asks(OPEN_ALL).await?;
    page.fill("allowances.depth_clearance_mm", "12").await?;
    page.sees("[data-test='effects']", "shipments would")
        .await?;
    page.press_called(words::APPLY_TO_THE_HOUSE).await?;
    page.sees("main", "Version 2").await?;

    // Whoever comes back to the page that was open before is told, and has both.
    page.to_window(first).await?;
    page.asks(COME_BACK).await?;
    page.sees(
        "[data-test='elsewhere']",
        "changed on another page meanwhile",
    )
    .await?;
    page.holds("allowances.clearance_mm", "21").await?;
    page.holds("allowances.depth_clearance_mm", "12").await?;
    page.press_called(words::APPLY_TO_THE_HOUSE).await?;
    page.sees("main", "Version 3").await?;
    page.lacks("[data-test='elsewhere']").await?;
    page.reload().await?;
    page.sees("main", "Engineer’s view").await?;
    page.asks(OPEN_ALL).await?;
    page.holds("allowances.clearance_mm", "21").await?;
    page.holds("allowances.depth_clearance_mm", "12").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_value_out_of_range_is_told_at_its_field(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules/allowances").await?;
    page.sees("main", "All numbers").await?;
    page.asks("document.querySelectorAll('details').forEach((part) => { part.open = true })")
        .await?;
    page.fill("allowances.clearance_mm", "500").await?;
    page.sees(".error", "it must be from 0 to 80 mm").await?;
    // Seen from another part, it is told under which one it stands.
    page.press_called("Questions").await?;
    page.sees("nav [href='/rules/allowances']", "a value is not taken")
        .await?;
    page.press("nav [href='/rules/allowances']").await?;
    page.asks(OPEN_ALL).await?;
    page.fill("allowances.clearance_mm", "1 in").await?;
    page.sees(".error", "is not a number").await?;
    page.fill("allowances.clearance_mm", "10").await?;
    page.sees(".side", "shipments would").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn rules_are_kept_as_a_preset(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules").await?;
    page.press("[name='schools.fit'][value='snug']").await?;
    // What is changed under one part stays changed under the others.
    page.press_called("Beginnings").await?;
    page.press_called("Keep these rules as a preset").await?;
    page.fill("preset-name", "Lean").await?;
    page.press_called("Keep it").await?;
    page.sees(".error", "comes with Hummock").await?;
    page.fill("preset-name", "Show week").await?;
    page.press_called("Keep it").await?;
    page.sees("[data-preset='Show week']", "kept by this studio")
        .await?;
    page.press_called("Put back").await?;
    page.press("[data-preset='Show week'] .btn").await?;
    page.sees(".side", "shipments would").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_material_is_changed_and_one_in_use_is_kept(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goes_to_workshop("Materials").await?;
    page.sees("main", "Glassine").await?;
    page.press("[data-material='glassine'] button").await?;
    page.fill("material.price_per_m", "dear").await?;
    page.press_called("Save the material").await?;
    page.sees(".error", "is not a price").await?;
    page.fill("material.price_per_m", "0.44").await?;
    page.press_called("Save the material").await?;
    page.sees("[data-material='glassine']", "0.44").await?;
    page.press("[data-material='glassine'] button").await?;
    page.press_called("Delete for good").await?;
    page.sees(".trouble", "retire it").await?;

    page.press_called("Tapes").await?;
    page.press_called("New tape").await?;
    page.fill("material.name", "Cloth tape").await?;
    page.fill("material.id", "cloth-48").await?;
    page.fill("material.linear_density_g_m", "9").await?;
    page.fill("material.price_per_m", "0.11").await?;
    page.press_called("Put it on the shelf").await?;
    page.sees("[data-material='cloth-48']", "0.11").await?;
    page.press("[data-material='cloth-48'] button").await?;
    page.press_called("Delete for good").await?;
    page.lacks("[data-material='cloth-48']").await?;
    page.reload().await?;
    page.sees("main", "Acid-free tape").await?;
    page.lacks("[data-material='cloth-48']").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_table_and_a_suppliers_points_are_read_in(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/materials/tapes").await?;
    page.press_called(words::READ_IN_CSV).await?;
    page.fill(
        "csv",
        "id,name,linear_density_g_m,price_per_m\nnew-tape,New tape,-2,0.03",
    )
    .await?;
    page.press_called(words::PREVIEW_THE_IMPORT).await?;
    page.sees(".errors", "line 2, linear_density_g_m").await?;
    page.fill(
        "csv",
        "id,name,linear_density_g_m,price_per_m\nnew-tape,New tape,2,0.03",
    )
    .await?;
    page.press_called(words::PREVIEW_THE_IMPORT).await?;
    page.sees("[data-test='table-result']", "1 new: new-tape")
        .await?;
    page.press_called(words::READ_IT_IN).await?;
    page.sees("[data-material='new-tape']", "New tape").await?;

    page.goto("/materials/foams").await?;
    page.press_called("cushion points").await?;
    // σ = 20·e^(0.06·ε) at ε = 10, 20 and 30, on 50 mm from 500 mm
    page.fill(
        "points",
        "material,thickness_mm,drop_mm,static_stress_kpa,peak_g\nharbour foam,50,500,1,36.4424\nharbour foam,50,500,2,33.2012\nharbour foam,50,500,3,40.3310",
    )
    .await?;
    page.press_called("Fit a and b").await?;
    page.sees("[data-fit='harbour foam']", "a 20.00 kPa, b 0.0600")
        .await?;
    page.choose("onto", "urethane-32").await?;
    page.press_called("Take this curve").await?;
    page.sees("[data-material='urethane-32']", "· 0.06").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_quick_sum_becomes_a_shipment(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goes_to_workshop("Tools").await?;
    page.press_called("Quick sums").await?;
    page.sees("[data-test='figures']", "159 mm").await?;
    page.press_called("Cushion").await?;
    // 3.2 kg on 180 cm², 40 mm, 760 mm
    page.sees("[data-test='figures']", "71.7 G").await?;
    page.sees("[data-test='figures']", "588 mm").await?;
    page.fill("area_cm2", "0").await?;
    page.sees(".error", "give a number from 0.1").await?;
    page.fill("area_cm2", "1500").await?;
    page.sees("[data-test='figures']", "less area, not more foam")
        .await?;
    // The numbers stand in the address.
    page.reload().await?;
    page.holds("area_cm2", "1500").await?;

    page.press_called(words::CONTACT_SHEET).await?;
    page.fill("width_mm", "450").await?;
    page.sees("[data-test='figures']", "606 mm").await?;
    page.press_called("Make this a shipment").await?;
    page.holds("piece.width", "450 mm").await?;
    page.holds("piece.height", "1200 mm").await?;
    page.fill("title", "From a scrap of paper").await?;
    page.is_saved().await?;
    page.reload().await?;
    page.holds("piece.depth", "38 mm").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_measuring_sheet_is_empty_and_whole(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goes_to_workshop("Tools").await?;
    page.press_called("Measuring sheet").await?;
    for words in [
        "Stretched canvas",
        "Loose canvas",
        "Pastel or charcoal",
        "Hardware stands off",
        "Condition",
    ] {
        page.sees("main", words).await?;
    }
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_studios_own_record_moves_the_odds(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules/odds").await?;
    page.press("[data-test='own-record'] summary").await?;
    page.press("[data-test='own-record'] .btn").await?;
    page.fill("record.0.sent", "40").await?;
    page.fill("record.0.damaged", "41").await?;
    page.sees(".error", "than were sent").await?;
    page.fill("record.0.damaged", "4").await?;
    page.sees(".side", "shipments would").await?;
    page.press_called(words::APPLY_TO_THE_HOUSE).await?;
    page.sees("main", "Version 2").await?;
    page.goto("/").await?;
    page.press_called("Kelp Ladder").await?;
    page.is_saved().await?;
    page.keys("2").await?;
    page.sees("[data-test='odds']", "your own record of 40 sent")
        .await?;
    // 40 canvases at 0.3 % are 0.12 expected; k = (4 + 4)/(4 + 0.12) = 1.942, and 230/1.942 is 120.
    page.sees("[data-test='odds'] h2", "1 in 120").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_studio_says_from_whom_to_begin(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules/beginnings").await?;
    page.press("[data-test='begin'] summary").await?;
    let lines = page.texts("[data-test='beginnings'] > li").await?.len();
    assert_eq!(lines, 4);
    page.press_called("Show all 7 lines").await?;
    let lines = page.texts("[data-test='beginnings'] > li").await?.len();
    assert_eq!(lines, 7);
    // Everything is boxed twice from now on: no line before it holds, and the first that holds counts.
    for _ in 0..lines {
        page.press("[data-test='beginnings'] > li:first-child .plain:last-child")
            .await?;
    }
    page.press("[data-test='begin'] > .btn").await?;
    page.choose("begin.0.from", "Twice boxed").await?;
    page.sees(".side", "Low Water, March").await?;
    page.press_called(words::APPLY_TO_THE_HOUSE).await?;
    page.sees("main", "Version 2").await?;
    page.goto("/").await?;
    page.press_called("Low Water, March").await?;
    page.is_saved().await?;
    page.keys("2").await?;
    page.find("[data-layer='second_box']").await?;
    page.sees("[data-test='odds']", "Begun from Twice boxed (line 1")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_odds_are_a_quick_sum_with_sliders(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/tools/sums/odds").await?;
    // 1 − e^−0.003 = 0.0029955, one in 334; on a route of 2.5 1 − e^−0.0075 = 0.0074719, one in 134
    page.sees("[data-test='figures']", "1 in 330").await?;
    let slide = "const slider = document.querySelector('[name=route]'); slider.value = '2.5'; slider.dispatchEvent(new Event('input', { bubbles: true }))";
    page.asks(slide).await?;
    page.sees("[data-test='figures']", "1 in 130").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn changed_rules_and_materials_are_not_left_by_accident(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules").await?;
    page.press("[name='schools.padding'][value='lean']").await?;
    page.sees(".side", "Kelp Ladder").await?;
    page.goes_to_workshop("Materials").await?;
    page.sees(".modal.show", "You have not kept the changed rules")
        .await?;
    page.press_called("Stay here").await?;
    page.lacks(".modal.show").await?;
    page.sees(".side", "Kelp Ladder").await?;
    page.goes_to_workshop("Materials").await?;
    page.press_called("Leave all the same").await?;
    page.sees("h1", "Materials").await?;

    page.goto("/materials/tapes").await?;
    page.press_called("New tape").await?;
    page.fill("material.name", "Gummed cloth").await?;
    page.goes_to_workshop("House rules").await?;
    page.sees(".modal.show", "what you typed about this material")
        .await?;
    page.press_called("Stay here").await?;
    page.lacks(".modal.show").await?;
    page.holds("material.name", "Gummed cloth").await?;
    // Nothing was changed at the rules, so nothing is asked there.
    page.goes_to_workshop("House rules").await?;
    page.press_called("Leave all the same").await?;
    page.sees("main", "How much padding?").await?;
    page.press_called(words::BENCH).await?;
    page.sees("h1", words::ON_THE_BENCH).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_rule_is_found_by_any_of_its_words(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/rules").await?;
    page.sees("main", "How much padding?").await?;
    page.keys("/").await?;
    // Only the reason of the overhead speaks of rent.
    page.keys("rent tools").await?;
    page.sees("[data-test='found']", "overhead on materials and work")
        .await?;
    page.keys(Key::Enter).await?;
    page.is_at("[name='allowances.overhead_percent']").await?;
    assert!(page.address().await?.ends_with("/rules/allowances"));
    page.everyone_can_use_it().await?;
    page.back().await?;
    page.sees("main", "How much padding?").await?;
    studio.close().await
}
