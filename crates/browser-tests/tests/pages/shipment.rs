//! The whole way of a shipment, from tape measure to price, as a person goes it.

use anyhow::Result;
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;
use thirtyfour::Key;

use crate::{Demo, words};

const OUTSIDE: &str = "[data-figure='outside']";

/// Opens a shipment of the demo studio from the bench, at a stop.
async fn open(page: &Page, title: &str, stop: &str) -> Result<String> {
    page.press_called(title).await?;
    page.sees("h1", title).await?;
    page.is_saved().await?;
    let address = page.address().await?;
    let path = address
        .split_once("/shipments/")
        .map_or("", |(_, rest)| rest);
    let id = path.split('/').next().unwrap_or_default();
    let path = format!("/shipments/{id}/{stop}");
    page.goto(&path).await?;
    page.is_saved().await?;
    Ok(path)
}

#[test_context(Demo)]
#[tokio::test]
async fn the_bench_shows_what_is_to_be_done(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("main", "The Ropewalk").await?;
    let lines = page.texts("main li").await?;
    assert!(lines.len() >= 4, "{lines:?}");
    for line in &lines {
        for part in [" mm", " kg", " EUR", "1 in ", "arrive damaged"] {
            assert!(line.contains(part), "{part} is missing from {line}");
        }
        let promised = ["Mar", "Apr"].iter().any(|month| line.contains(month));
        assert!(promised, "no day is promised in {line}");
    }
    page.sees("main li", "Stop: It dries by 2 Jun 2027").await?;
    // A search stays in the address, and a key leads to it.
    page.keys("/").await?;
    page.keys("kelp").await?;
    page.lacks_text("main", "The Ropewalk").await?;
    page.sees("main", "Kelp Ladder").await?;
    assert_eq!(page.texts("main li").await?.len(), 1);
    assert!(page.address().await?.ends_with("?q=kelp"));
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_shipment_is_archived_deleted_and_taken_back(Demo(database): &Demo) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let press_more = async |act: &str| -> Result<()> {
        page.press_called("More for Kelp Ladder").await?;
        page.press_called(act).await
    };
    page.sees("main li", "Kelp Ladder").await?;
    press_more("Delete").await?;
    page.sees("[data-test='moved']", "“Kelp Ladder” is deleted.")
        .await?;
    page.lacks_text("main ul", "Kelp Ladder").await?;
    page.press_called(words::UNDO).await?;
    page.sees("main li", "Kelp Ladder").await?;
    press_more("Archive").await?;
    page.lacks_text("main ul", "Kelp Ladder").await?;
    page.choose("place", "archive").await?;
    page.sees("main li", "Kelp Ladder").await?;
    // Where one looks stands in the address.
    page.reload().await?;
    let stop = open(&page, "Kelp Ladder", "guard").await?;
    page.sees("[data-test='put-away']", "To change it, take it back.")
        .await?;
    page.find("fieldset[disabled]").await?;
    studio.go_away().await?;
    page.press_called("Back to the bench").await?;
    page.sees(
        "[data-test='put-away']",
        "It stays there: the server can’t be reached",
    )
    .await?;
    studio.come_back().await?;
    page.press_called("Back to the bench").await?;
    page.lacks("[data-test='put-away']").await?;
    page.goto(&stop.replace("guard", "measure")).await?;
    page.fill("title", "Kelp Ladder II").await?;
    page.is_saved().await?;
    page.goto("/?by=title").await?;
    page.sees("main li", "Kelp Ladder II").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn from_tape_measure_to_price_in_inches(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("h1", words::ON_THE_BENCH).await?;
    page.keys("u").await?;
    page.keys("u").await?;
    page.sees("main li", " in").await?;
    page.keys("n").await?;
    page.sees("h1", "A new parcel").await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Slack Tide").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    // The drawing lights the side that is being typed.
    page.type_into("size", "35 1/2 x 47").await?;
    page.find(".lit[data-side='height']").await?;
    page.fill("size", "35 1/2 x 47 1/4 x 1 1/2 in").await?;
    page.holds("piece.width", "35 1/2 in").await?;
    page.holds("piece.depth", "1 1/2 in").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.set_day("piece.finished", "2027-01-04").await?;
    page.fill("buyer.name", "Perpetua Sloe").await?;
    page.fill("buyer.town", "Tarrow Bridge").await?;
    page.choose("buyer.country", "XS").await?;
    // 901.7 + 10 + 36 + 18 + 30 + 16 = 1011.7 → 39 13/16; 1200.15 + 16.08 + 18 + 36 + 30 + 8 = 1308.23
    // → 51 1/2; 38.1 + 13.08 + 8 + 0.2 + 20 + 20 + 10 + 15 = 124.38 → 4 7/8
    page.sees(OUTSIDE, "39 13/16 × 51 1/2 × 4 7/8 in").await?;
    page.is_saved().await?;

    page.keys(Key::Escape).await?;
    page.press_called(words::CONTINUE_TO_GUARD).await?;
    page.sees("main", words::LAYERS_FROM_THE_ART_OUTWARD)
        .await?;
    for layer in [
        "contact",
        "corners",
        "face_boards",
        "name_tag",
        "first_wrap",
        "second_wrap",
        "fill",
        "box",
    ] {
        page.find(&format!("[data-layer='{layer}']")).await?;
    }
    page.press_called(words::CONTINUE_TO_BOX).await?;
    // 2 × 1300.23 + 2 × 109.38 + 49 = 2868.22 → 112 15/16; 995.7 + 109.38 + 12 = 1117.08 → 44
    page.sees("main", "112 15/16 × 44 in").await?;
    page.press_called(words::CONTINUE_TO_PRICE).await?;
    page.sees("main", words::SERVICES).await?;
    page.sees("main", "Fuel").await?;
    page.press_called(words::SEND_BY).await?;
    page.is_at_stop("pack").await?;
    page.is_saved().await?;

    page.goto("/").await?;
    page.sees("main li", "Slack Tide").await?;
    page.sees("main li", "material short: Large bubble wrap")
        .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn from_tape_measure_to_price_in_millimetres(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Neap").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("piece.width", "900").await?;
    page.fill("piece.height", "120 cm").await?;
    page.fill("piece.depth", "38").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.set_day("piece.finished", "2027-01-04").await?;
    page.choose("buyer.country", "XV").await?;
    page.sees(OUTSIDE, "1010 × 1308 × 124 mm").await?;
    page.holds("piece.width", "900 mm").await?;
    page.is_saved().await?;

    page.keys(Key::Escape).await?;
    page.press_called(words::CONTINUE_TO_GUARD).await?;
    page.press("[data-layer='first_wrap'] button").await?;
    page.press("[data-layer='first_wrap'] [aria-label='one turn more']")
        .await?;
    // By the house's rule the box is now another one; the usual one is a press away.
    page.press(".tally .figures").await?;
    page.press_called("Make the edge-opening box").await?;
    page.keys(Key::Escape).await?;
    // One turn more: 36 across for the rolled ends, 18 up, 18 through. Single wall no longer carries it: double wall of 6.8 adds 4, 2 and
    // 3 times 2.8.
    page.sees(OUTSIDE, "1057 × 1332 × 151 mm").await?;
    page.press("[data-layer='fill'] button").await?;
    page.type_into("choices.clearance", "5").await?;
    // What is left free behind stays; 20 shorter each way single wall carries it again.
    page.sees(OUTSIDE, "1026 × 1306 × 142 mm").await?;
    // No hand fills so narrow a gap: it stays in its field, and is not stored.
    page.sees(".error", "Nobody can pack it like that").await?;
    page.fill("choices.clearance", "10").await?;
    page.press("[data-layer='corners'] button").await?;
    page.fill("choices.pocket_leg", "80").await?;
    page.sees("[data-layer='corners']", "leg 80").await?;
    page.press("[data-layer='face_boards'] button").await?;
    page.fill("choices.board_proud", "10").await?;
    page.sees("[data-layer='face_boards']", "920 × 1220 mm, 10 mm proud")
        .await?;
    page.press_called("Fibreboard 3").await?;
    page.sees("[data-layer='face_boards']", "Fibreboard 3, 920 × 1220 mm")
        .await?;
    page.is_saved().await?;

    // Everything is there after a reload, and back leads to where one was.
    let address = page.address().await?;
    page.reload().await?;
    page.press("[data-layer='fill'] button").await?;
    page.holds("choices.clearance", "10 mm").await?;
    page.keys(Key::Escape).await?;
    page.press_called(words::CONTINUE_TO_BOX).await?;
    page.sees("main", "flat, seen from inside").await?;
    page.back().await?;
    page.sees("main", words::LAYERS_FROM_THE_ART_OUTWARD)
        .await?;
    assert_eq!(page.address().await?, address);
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_refused_value_says_why_and_is_not_lost(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    open(&page, "Kelp Ladder", "measure").await?;
    page.fill("piece.width", "40 m").await?;
    page.sees(".error", "a larger piece goes to a crating service")
        .await?;
    page.fill("title", "Kelp Ladder II").await?;
    page.sees("[data-test='save-state']", words::A_VALUE_NEEDS_CORRECTING)
        .await?;
    for (typed, says) in [
        ("wide", "was not understood"),
        ("-900", "a length can't be negative"),
        ("0", "must be from 20 mm"),
        ("12 ells", "is not a known unit"),
    ] {
        page.fill("piece.width", typed).await?;
        page.sees(".error", says).await?;
    }
    // The good part is stored, the refused text is still in the field after a reload.
    page.reload().await?;
    page.sees("h1", "Kelp Ladder II").await?;
    page.holds("piece.width", "12 ells").await?;
    page.sees(".error", "is not a known unit").await?;
    page.fill("piece.width", "910").await?;
    page.is_saved().await?;
    page.set_day("piece.finished", "2027-03-05").await?;
    page.sees(".error", "in the future").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn two_tabs_on_one_shipment_lose_nothing(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let path = open(&page, "Kelp Ladder", "measure").await?;
    // Half-way through a value that is not taken yet, so that coming back does not fetch the newer one.
    page.fill("piece.width", "8").await?;
    page.sees(".error", "must be from 20 mm").await?;
    let first = page.second_window(&path).await?;
    page.holds("piece.width", "8 mm").await?;
    page.fill("piece.width", "950 mm").await?;
    page.is_saved().await?;

    page.to_window(first).await?;
    page.holds("piece.width", "8 mm").await?;
    page.fill("piece.width", "880 mm").await?;
    page.sees("[data-test='conflict']", "changed in another tab")
        .await?;
    page.sees("[data-test='conflict']", "880 mm").await?;
    page.sees("[data-test='conflict']", "950 mm").await?;
    page.press_called(words::KEEP_YOURS).await?;
    page.is_saved().await?;
    page.holds("piece.width", "880 mm").await?;
    // Theirs is one step back.
    page.keys(Key::Escape).await?;
    page.press_called(words::UNDO).await?;
    page.holds("piece.width", "950 mm").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_tab_that_one_comes_back_to_shows_how_it_stands_now(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let path = open(&page, "Kelp Ladder", "measure").await?;
    let first = page.second_window(&path).await?;
    page.is_saved().await?;
    page.fill("piece.width", "950 mm").await?;
    page.is_saved().await?;
    page.to_window(first).await?;
    page.asks("window.dispatchEvent(new Event('focus'))")
        .await?;
    page.holds("piece.width", "950 mm").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn undo_and_redo_outlive_a_reload(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    open(&page, "Kelp Ladder", "guard").await?;
    let before = page.texts(OUTSIDE).await?;
    page.press("[data-layer='first_wrap'] button").await?;
    page.press("[data-layer='first_wrap'] [aria-label='one turn more']")
        .await?;
    page.sees("[data-layer='first_wrap'] output", "2").await?;
    page.is_saved().await?;
    page.reload().await?;
    page.is_saved().await?;
    let after = page.texts(OUTSIDE).await?;
    assert_ne!(before, after);
    page.keys("z").await?;
    page.sees(OUTSIDE, &before[0]).await?;
    page.sees("[data-test='undone']", "Undone: turns of the first wrap.")
        .await?;
    page.keys("Z").await?;
    page.sees(OUTSIDE, &after[0]).await?;
    page.sees(
        "[data-test='undone']",
        "Done again: turns of the first wrap.",
    )
    .await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_keyboard_alone_is_enough(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.sees("h1", words::ON_THE_BENCH).await?;
    page.keys("?").await?;
    page.sees(".modal", "new parcel").await?;
    // A panel that is still opening does not have the focus yet, and so does not hear the key.
    page.find(".modal:focus, .modal :focus").await?;
    page.keys(Key::Escape).await?;
    page.lacks(".modal:focus, .modal :focus").await?;
    page.lacks(".modal.show").await?;
    page.keys("n").await?;
    page.sees("h1", "A new parcel").await?;
    // What it is has the focus; Tab leads through the page in the order of the work.
    page.keys("Stretched").await?;
    page.keys(Key::Tab + "Ebb").await?;
    page.keys(Key::Tab + "40 x 50 x 1.8 cm").await?;
    page.sees(".short-way", "400 × 500 × 18 mm").await?;
    page.keys(Key::Tab + "Gouache").await?;
    page.sees(OUTSIDE, "mm").await?;
    page.is_saved().await?;
    page.holds("piece.medium", "watercolour").await?;
    // Out of the field, the number keys lead along the work line.
    page.keys(Key::Tab + Key::Tab).await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("2").await?;
    page.sees("main", words::LAYERS_FROM_THE_ART_OUTWARD)
        .await?;
    page.keys("3").await?;
    page.sees("main", "flat, seen from inside").await?;
    page.keys("4").await?;
    page.sees("main", "Prices need a destination").await?;
    page.keys("1").await?;
    page.holds("title", "Ebb").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_change_of_unit_changes_every_figure_and_no_field(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    open(&page, "Low Water, March", "measure").await?;
    // Its certificate, a millimetre thick, lies under the wrap.
    page.sees(OUTSIDE, "628 × 490 × 107 mm").await?;
    page.keys("u").await?;
    page.sees(OUTSIDE, "62.8 × 49.0 × 10.7 cm").await?;
    page.sees("nav[aria-label='Work line']", "52.0 × 38.0 × 2.4 cm")
        .await?;
    page.keys("u").await?;
    page.sees(
        "nav[aria-label='Work line']",
        "20 1/2 × 14 15/16 × 15/16 in",
    )
    .await?;
    assert_eq!(page.value("piece.width").await?, "520 mm");
    // What is typed bare is in the unit shown, and stays so when the unit changes.
    page.fill("piece.width", "21").await?;
    page.holds("piece.width", "21 in").await?;
    page.is_saved().await?;
    page.reload().await?;
    page.holds("piece.width", "21 in").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn markup_in_a_name_is_shown_and_not_run(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    open(&page, "Kelp Ladder", "measure").await?;
    let markup = "<img src=x onerror=window.ran=1><script>window.ran=1</script>";
    page.fill("title", markup).await?;
    page.fill("buyer.name", markup).await?;
    page.is_saved().await?;
    page.sees("h1", markup).await?;
    page.goto("/").await?;
    page.sees("main li", markup).await?;
    assert_eq!(
        page.asks("return window.ran ?? null").await?,
        serde_json::Value::Null
    );
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_is_typed_while_the_server_is_away_is_saved_when_it_is_back(
    Demo(database): &Demo,
) -> Result<()> {
    let mut studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    open(&page, "Kelp Ladder", "measure").await?;
    studio.go_away().await?;
    page.fill("title", "Kelp Ladder, by storm").await?;
    page.sees("[data-test='save-state']", words::KEPT_ON_THIS_PAGE)
        .await?;
    studio.come_back().await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees("h1", "Kelp Ladder, by storm").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn nothing_scrolls_sideways_on_any_screen(Demo(database): &Demo) -> Result<()> {
    for (width, height) in [(1280, 800), (1024, 768), (390, 844)] {
        let studio = Studio::sized(database.pool(), width, height).await?;
        let page = studio.page();
        page.sees("main", "Kelp Ladder").await?;
        let wide =
            "return document.documentElement.scrollWidth > document.documentElement.clientWidth";
        assert_eq!(page.asks(wide).await?, false, "bench at {width}");
        let path = open(&page, "Kelp Ladder", "measure").await?;
        for stop in ["measure", "guard", "box", "price"] {
            page.goto(&path.replace("measure", stop)).await?;
            page.is_saved().await?;
            page.keys("u").await?;
            assert_eq!(page.asks(wide).await?, false, "{stop} at {width}");
        }
        for (place, shows) in [
            ("/tools/sums/cushion", "Shock of the fall"),
            ("/materials/boards", "Corrugated C"),
            ("/rules", "How much padding?"),
            ("/tools/measuring-sheet", "Measuring sheet"),
        ] {
            page.goto(place).await?;
            page.sees("main", shows).await?;
            assert_eq!(page.asks(wide).await?, false, "{place} at {width}");
        }
        studio.close().await?;
    }
    Ok(())
}

#[test_context(Demo)]
#[tokio::test]
async fn a_price_step_is_taken_at_price(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Just over").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("size", "900 x 1162 x 38").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.set_day("piece.finished", "2027-01-04").await?;
    page.choose("buyer.country", "XS").await?;
    // 900 + 10 + 36 + 18 + 30 + 16 = 1010; 1162 + 16.08 + 18 + 36 + 30 + 8 = 1270.08
    page.sees(OUTSIDE, "1010 × 1270 × 124 mm").await?;
    page.is_saved().await?;
    page.asks("document.activeElement.blur()").await?;
    page.keys("4").await?;
    page.sees(
        "[data-test='price-step']",
        "Leave 14 mm at each edge, not 15 mm",
    )
    .await?;
    page.press("[aria-label^='Apply: Leave 14']").await?;
    // A millimetre less at each edge.
    page.sees(OUTSIDE, "1008 × 1268 × 124 mm").await?;
    page.is_saved().await?;
    page.lacks_text("[data-test='price-step']", "Leave 14 mm")
        .await?;
    studio.close().await
}
