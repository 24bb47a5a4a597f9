//! Designing the protection of a piece: kinds of piece, layers, findings, and Stops that are lifted.

use anyhow::Result;
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, words};

const OUTSIDE: &str = "[data-figure='outside']";

/// Opens a shipment of the demo studio from the bench, at Guard.
async fn guard(page: &Page, title: &str) -> Result<()> {
    page.press_called(title).await?;
    page.sees("h1", title).await?;
    page.is_saved().await?;
    page.keys("2").await?;
    page.sees("main", words::LAYERS_FROM_THE_ART_OUTWARD).await
}

#[test_context(Demo)]
#[tokio::test]
async fn every_kind_of_piece_has_its_own_layers(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    for (title, layers) in [
        ("Overmantel", &["glass_tape", "contact", "cradle"][..]),
        ("Nine Buoys", &["contact", "bundle", "corners"]),
        ("Tide Table", &["contact", "folio", "first_wrap"]),
        ("Lantern Room", &["window_spacer", "folio"]),
        ("Estuary Scroll", &["contact", "roll", "first_wrap", "box"]),
    ] {
        page.goto("/").await?;
        guard(&page, title).await?;
        for layer in layers {
            page.find(&format!("[data-layer='{layer}']")).await?;
        }
    }
    // The roll goes into a tube, and Box says how long it is cut.
    page.keys("3").await?;
    page.sees("main", "Card tube").await?;
    page.sees("main", "1060 mm").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_mirror_is_measured_without_a_medium(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Hall glass").await?;
    page.choose("piece.construction", "mirror").await?;
    page.fill("size", "500 x 700 x 25").await?;
    page.sees(OUTSIDE, "mm").await?;
    page.lacks("[name='piece.medium']").await?;
    page.press("details summary").await?;
    page.choose("piece.outline", "oval").await?;
    page.fill("piece.bearing_points", "6").await?;
    page.fill("piece.weight", "7 lb 2 oz").await?;
    page.sees("main", "Weighed: 3.23 kg").await?;
    page.fill("piece.weight", "heavy").await?;
    page.sees(".error", "write a weight as 3.2 kg").await?;
    page.fill("piece.weight", "3,2").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("2").await?;
    // It has no corners: six chocks hold it, and the board before it lies on them.
    page.sees("[data-layer='cradle'] .words", "six chocks")
        .await?;
    page.lacks("[data-layer='corners'] .words").await?;
    page.press("[data-layer='cradle'] button").await?;
    // Two strips of 60 mm on each chock.
    page.sees("[data-layer='cradle']", "0.7 m of").await?;
    // Pack has the chocks fixed, and cool, before the sheet lies on the mirror.
    page.keys("5").await?;
    page.press("[data-key='before/cradle']").await?;
    page.find("svg.cradle").await?;
    page.sees("main", "Draw round it with a pencil").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_gilded_frame_says_so_and_is_kept_in_foam(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Gilt Harbour").await?;
    page.choose("piece.construction", "framed_unglazed").await?;
    page.fill("size", "450 x 550 x 40").await?;
    page.choose("piece.medium", "oil").await?;
    page.choose("piece.frame", "delicate").await?;
    page.choose("piece.frame_holds", "panel").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("2").await?;
    page.sees("[data-layer='corners'] .words", "Collar of foam")
        .await?;
    page.sees("[data-layer='contact'] .words", "tissue").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_pastel_has_its_strips_outside_or_on_its_border(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Lantern Room").await?;
    page.sees("[data-layer='window_spacer'] .words", "outside the sheet")
        .await?;
    page.keys("1").await?;
    page.fill("piece.bare_border", "wide").await?;
    page.sees(".error", "wide").await?;
    page.fill("piece.bare_border", "40").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("2").await?;
    page.sees("[data-layer='window_spacer'] .words", "on the bare border")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn tape_on_glass_ends_before_a_moulding_that_is_measured(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Low Water, March").await?;
    // 520 × 380 with 20 around: 480 × 340 are seen. 330 + 470 + 2 × (588.2 − 10) = 1956.
    page.sees("[data-layer='glass_tape'] .words", "2.0 m")
        .await?;
    page.keys("1").await?;
    page.fill("piece.moulding_width", "185").await?;
    page.sees(".error", "moulding").await?;
    page.fill("piece.moulding_width", "40").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("2").await?;
    // 440 × 300 are seen: 290 + 430 + 2 × (532.5 − 10) = 1765.
    page.sees("[data-layer='glass_tape'] .words", "1.8 m")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_small_canvas_is_sent_in_a_padded_mailer_and_back_in_a_box(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Little Mill").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("size", "203 x 254 x 18").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("3").await?;
    page.sees("main", "Edge-opening box").await?;
    page.press("section.bought summary").await?;
    page.press("[data-bought='padded-mailer-300'] button")
        .await?;
    page.sees("main", "Padded mailer 300 × 440").await?;
    page.keys("2").await?;
    page.sees("[data-layer='first_wrap'] .words", "Small bubble wrap")
        .await?;
    page.lacks("[data-layer='second_wrap'] .words").await?;
    page.keys("3").await?;
    page.press("[data-style='slotted_edge']").await?;
    page.sees("main", "flat, seen from inside").await?;
    page.keys("2").await?;
    page.sees("[data-layer='first_wrap'] .words", "Large bubble wrap")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_a_layer_could_be_instead_opens_in_place(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Kelp Ladder").await?;
    // The key opens the first layer.
    page.keys("a").await?;
    page.sees("[data-layer='contact']", "must never touch acrylic")
        .await?;
    page.press_called("Acid-free tissue").await?;
    page.sees("[data-layer='contact'] .words", "Acid-free tissue")
        .await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees("[data-layer='contact'] .words", "Acid-free tissue")
        .await?;
    page.keys("z").await?;
    page.sees("[data-layer='contact'] .words", "Glassine")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn one_edit_asks_the_server_twice(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Kelp Ladder").await?;
    page.press("[data-layer='first_wrap'] .head").await?;
    page.find("[data-layer='first_wrap'] .offers button")
        .await?;
    page.find("[data-test='more'] button").await?;
    page.asks("performance.clearResourceTimings()").await?;
    page.press("[aria-label='one turn more']").await?;
    page.sees("[data-layer='first_wrap'] output", "2").await?;
    page.is_saved().await?;
    // It is stored, which tells what follows, and then asked what else could be done: with the open layer's own ways.
    let asked = "return performance.getEntriesByType('resource').map(({ name }) => name)
        .filter((name) => name.includes('/api/')).length";
    page.comes_to(asked, 2).await?;
    page.find("[data-layer='first_wrap'] .offers .chosen")
        .await?;
    assert_eq!(page.asks(asked).await?, 2);
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn layers_are_added_and_left_out(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Low Water, March").await?;
    page.press("[data-test='add-layer'] .dropdown-toggle")
        .await?;
    page.press("[data-slot-name='face_pads']").await?;
    page.find("[data-layer='face_pads']").await?;
    page.fill("choices.pad_thickness", "40").await?;
    page.sees("[data-layer='face_pads'] .words", "× 40 mm")
        .await?;
    page.press_called("Leave it out").await?;
    page.sees("main", words::LAYERS_FROM_THE_ART_OUTWARD)
        .await?;
    page.is_saved().await?;
    page.lacks("[data-layer='face_pads']").await?;
    // What must not be is said with its reason.
    page.press(".add summary").await?;
    page.sees("main", "only a stretched canvas has a hollow back")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_change_is_pressed_and_taken_back(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Low Water, March").await?;
    let before = page.texts("[data-test='odds'] h2").await?;
    page.sees("[data-test='odds']", "arrive damaged").await?;
    page.sees("[data-test='odds']", "by trade judgement")
        .await?;
    // Packed as Standard: every hazard is as in Standard, in one line.
    page.press("[data-test='odds'] summary").await?;
    let alike = "flat falls (35 %), edges and corners (40 %), pressed in (10 %), pierced (5 %)";
    page.sees("[data-test='as-standard']", alike).await?;
    // What a framer would do against the leading hazard comes first, and says what it saves.
    let first = "[data-test='more'] > li:first-child";
    page.sees(first, "Foam blocks at the corners").await?;
    page.sees(first, "reduces the main risk: edges and corners")
        .await?;
    page.sees(first, "EUR of expected damage a parcel").await?;
    page.sees("[data-test='less']", "One wrap only").await?;
    page.press_called("Foam blocks at the corners").await?;
    page.find("[data-layer='corner_blocks']").await?;
    page.is_saved().await?;
    // What is done is not offered again, and the sentence says what it made of the odds.
    page.lacks_text("[data-test='more']", "Foam blocks at the corners")
        .await?;
    assert_ne!(page.texts("[data-test='odds'] h2").await?, before);
    // It is safer on edges now, which has a bar of its own.
    page.find("[data-hazard='edges']").await?;
    page.keys("z").await?;
    page.lacks("[data-layer='corner_blocks']").await?;
    page.sees("[data-test='odds'] h2", &before[0]).await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_engineers_view_is_folded_away(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Low Water, March").await?;
    page.sees("[data-test='odds']", "arrive damaged").await?;
    page.lacks("[data-fall]").await?;
    page.press("details.engineer summary").await?;
    for fall in ["face", "long_edge", "corner"] {
        page.find(&format!("[data-fall='{fall}']")).await?;
    }
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_small_flat_piece_goes_in_a_mailer(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Postcard etching").await?;
    page.choose("piece.construction", "loose_paper").await?;
    page.choose("piece.medium", "print").await?;
    page.fill("size", "105 x 148 x 1").await?;
    page.fill("value", "5").await?;
    page.choose("buyer.country", "XS").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("2").await?;
    page.sees("[data-layer='box']", "Board mailer").await?;
    page.lacks("[data-layer='first_wrap']").await?;
    page.keys("3").await?;
    page.sees("main", words::CONTINUE_TO_PRICE).await?;
    // Worth more than the house sends in one, it goes in a box.
    page.keys("1").await?;
    page.fill("value", "260").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("2").await?;
    page.find("[data-layer='first_wrap']").await?;
    page.lacks_text("[data-layer='box']", "mailer").await?;
    page.lacks_text("[data-layer='box']", "Mailer").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_stop_is_lifted_with_a_reason_that_stays(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called("Kelp Ladder").await?;
    page.is_saved().await?;
    page.keys("1").await?;
    page.choose("piece.condition", "flaking").await?;
    // The foot says what stands against it, with all that helps.
    page.sees("[data-test='against']", "Stop").await?;
    page.press_called(words::SHOW_OPTIONS).await?;
    page.sees("[data-finding='flaking']", "Stop").await?;
    page.press_called("Continue anyway").await?;
    page.fill("reason", "Restored on arrival").await?;
    page.press_called("Go on for this reason").await?;
    page.sees("[data-finding='flaking']", "Lifted: Restored on arrival")
        .await?;
    page.is_saved().await?;
    page.reload().await?;
    page.press(".tally .figures").await?;
    page.sees("[data-finding='flaking']", "Lifted: Restored on arrival")
        .await?;
    page.press_called("Stop for this again").await?;
    page.is_saved().await?;
    page.goto("/").await?;
    page.sees("main li", "Stop: The surface is loose").await?;

    // Paint that has not cured is a Stop of its own.
    page.press_called("The Ropewalk").await?;
    page.sees("[data-test='cure']", "not cured until 2 Jun 2027")
        .await?;
    page.press_called(words::WRAP_IT_ALL_THE_SAME).await?;
    page.fill("reason", "Touch dry, taken by hand").await?;
    page.press_called("Go on for this reason").await?;
    page.sees("[data-test='cure']", "Lifted: Touch dry").await?;
    page.is_saved().await?;
    page.goto("/").await?;
    page.sees("main li", "The Ropewalk").await?;
    let stops = page.texts("main li").await?;
    assert!(
        !stops.iter().any(|line| line.contains("not cured")),
        "{stops:?}"
    );
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_preset_is_followed_by_one_shipment(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    guard(&page, "Low Water, March").await?;
    page.press("[data-test='presets'] .dropdown-toggle").await?;
    page.press_called("Twice boxed").await?;
    page.find("[data-layer='second_box']").await?;
    page.press("[data-test='presets'] .dropdown-toggle").await?;
    page.press_called("Lean").await?;
    page.is_saved().await?;
    page.sees(OUTSIDE, "mm").await?;
    page.lacks("[data-layer='second_box']").await?;
    page.lacks("[data-layer='second_wrap']").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_edges_are_filled_otherwise_and_the_box_is_lined(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called("Kelp Ladder").await?;
    page.is_saved().await?;
    page.keys("2").await?;
    page.press("[data-test='add-layer'] .dropdown-toggle")
        .await?;
    page.press("[data-slot-name='edges']").await?;
    page.sees("[data-layer='edges']", "Rolls of paper along the edges")
        .await?;
    page.sees("[data-layer='edges']", "8 × sheet to roll 1000 × 750 mm")
        .await?;
    page.sees("[data-layer='fill']", "Crumpled kraft, behind")
        .await?;
    page.press_called("A skirt of wrap").await?;
    page.sees("[data-layer='edges']", "folded lengthwise")
        .await?;
    page.is_saved().await?;

    page.press("[data-test='add-layer'] .dropdown-toggle")
        .await?;
    page.press("[data-slot-name='lining']").await?;
    page.sees("[data-layer='lining']", "Lining of the box")
        .await?;
    // One side less is a lining of five, and it says which.
    page.press("[data-layer='lining'] input[value='front']")
        .await?;
    page.sees(
        "[data-layer='lining']",
        "Lining, back, left, right, top, bottom",
    )
    .await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees("[data-layer='lining']", "five pieces").await?;
    page.everyone_can_use_it().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_layer_is_lifted_in_the_drawing_and_a_change_is_seen_before_it_is_taken(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.open("Kelp Ladder", "guard").await?;
    // Pointing at a layer, or coming to it by key, names it with its figures and its job.
    page.find("[data-handle='first_wrap']").await?;
    page.asks("document.querySelector(\"[data-handle='first_wrap']\").focus()")
        .await?;
    page.sees("[data-test='told']", "Large bubble wrap, one turn")
        .await?;
    page.sees("[data-test='told']", "EUR").await?;
    // Up is outward.
    page.keys(Key::Up).await?;
    page.lacks_text("[data-test='told']", "top to bottom")
        .await?;
    // Pressed, it opens in the list.
    page.keys(Key::Enter).await?;
    page.find("[data-layer] [aria-expanded='true']").await?;
    page.everyone_can_use_it().await?;
    // A change that is looked at lies dashed over the plan, and is not taken.
    page.lacks("[data-test='ghost']").await?;
    page.asks("document.querySelector(\"[data-test='more'] button\").focus()")
        .await?;
    page.find("[data-test='ghost']").await?;
    page.sees("[data-figure='outside']", "1021 × 1314 × 133 mm")
        .await?;
    page.asks("document.activeElement.blur()").await?;
    page.lacks("[data-test='ghost']").await?;
    studio.close().await
}
