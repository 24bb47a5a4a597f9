//! The shelf: what is cut from it, the pile, what is short, and what comes in from elsewhere.

use anyhow::{Context, Result};
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;

use crate::{Demo, words};

/// A tray of 300 × 200 with walls of 50, its corners cut out, as lines that close, and two scores.
const TRAY: &str = "0\nSECTION\n2\nENTITIES\n\
    0\nLWPOLYLINE\n8\nEDGE\n90\n12\n70\n1\n\
    10\n50\n20\n0\n10\n350\n20\n0\n10\n350\n20\n50\n10\n400\n20\n50\n10\n400\n20\n250\n10\n350\n20\n250\n\
    10\n350\n20\n300\n10\n50\n20\n300\n10\n50\n20\n250\n10\n0\n20\n250\n10\n0\n20\n50\n10\n50\n20\n50\n\
    0\nLINE\n8\nFOLDS\n10\n50\n20\n0\n11\n50\n21\n300\n\
    0\nLINE\n8\nFOLDS\n10\n350\n20\n0\n11\n350\n21\n300\n\
    0\nCIRCLE\n8\nHOLES\n10\n200\n20\n150\n40\n8\n\
    0\nENDSEC\n0\nEOF\n";
const PILE: &str = "kind,name,place,left,length_mm,width_mm,depth_mm,board,condition\n\
    carton,Clock box,loft,1,1010,760,140,corrugated-c,sound\n\
    carton,Wet one,yard,1,1010,760,140,corrugated-c,was_wet\n\
    carton,Door box,loft,2,1200,1060,160,corrugated-c,sound\n";

/// Opens a shipment of the demo studio from the bench, at Box.
async fn at_box(page: &Page, title: &str) -> Result<()> {
    page.press_called(title).await?;
    page.sees("h1", title).await?;
    page.is_saved().await?;
    page.keys("3").await?;
    page.sees(".shelf", "From what is in stock").await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_pile_comes_in_as_a_table_and_a_blank_as_a_drawing_and_goes_to_a_cut_plan(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goes_to_workshop("Materials").await?;
    page.press_called("In stock").await?;
    page.press_called("Cartons and cases").await?;
    page.press_called(words::READ_IN_CSV).await?;
    // A line that can't be is named, and nothing is taken.
    page.fill(
        "csv",
        &PILE.replace("140,corrugated-c,sound", "140,glassine,sound"),
    )
    .await?;
    page.press_called(words::PREVIEW_THE_IMPORT).await?;
    page.sees(".errors", "line 2, board").await?;
    page.fill("csv", PILE).await?;
    page.press_called(words::PREVIEW_THE_IMPORT).await?;
    page.sees("[data-test='table-result']", "0 counted, 3 added")
        .await?;
    page.press_called(words::READ_IT_IN).await?;
    page.sees("[data-item='Clock box']", "loft").await?;
    page.sees("[data-item='Wet one']", "it was wet").await?;

    // A box of the pile is taken for a drawing, and taken back.
    page.press_called(words::BENCH).await?;
    at_box(&page, "Lantern Room").await?;
    page.press(".saved summary").await?;
    page.sees("[data-pile='Clock box']", "cut down").await?;
    page.press("[data-pile='Clock box'] button").await?;
    page.sees("[data-pile='Clock box']", "taken").await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    page.reload().await?;
    page.sees("[data-pile='Clock box']", "taken").await?;
    page.press_called(words::CUT_A_BOX_INSTEAD).await?;
    page.sees("[data-style='tray_and_tray']", "as it is made")
        .await?;
    page.is_saved().await?;

    // What is longer than any of them goes in two, pushed into each other.
    page.press_called(words::BENCH).await?;
    at_box(&page, "Kelp Ladder").await?;
    page.press(".saved summary").await?;
    page.sees("[data-pile='Two of Door box']", "pushed into each other")
        .await?;
    page.press("[data-pile='Two of Door box'] button").await?;
    page.sees(".bought", "Two cartons of yours").await?;
    page.sees(".bought", "Cut one short end off each carton")
        .await?;
    page.everyone_can_use_it().await?;
    page.press_called(words::CUT_A_BOX_INSTEAD).await?;
    page.lacks_text("main", "Two cartons of yours").await?;
    page.is_saved().await?;

    // The drawing: its layers are named, and it lies on a sheet.
    page.goto("/tools/cutting").await?;
    page.press_called("Read in a blank (DXF)").await?;
    page.fill("dxf", "hello").await?;
    page.press_called("Read it").await?;
    page.sees(".error", "no DXF file").await?;
    page.fill("dxf", TRAY).await?;
    page.press_called("Read it").await?;
    page.sees("[data-test='unread']", "Entity 4, layer HOLES: a circle")
        .await?;
    page.holds("layer.EDGE", "outline").await?;
    page.holds("layer.FOLDS", "score").await?;
    page.everyone_can_use_it().await?;
    page.press_called("Lay it out on sheets").await?;
    page.sees("main", "give it a name").await?;
    page.fill("name", "Tray for a clock").await?;
    page.choose("material", "corrugated-c").await?;
    page.fill("count", "3").await?;
    page.press_called("Lay it out on sheets").await?;
    // 110 000 mm² of Corrugated C, three of them, on the offcuts behind the rack: nothing new is opened.
    page.sees("main", "3 × Tray for a clock").await?;
    page.sees("[data-test='layout-sum']", "0.00 EUR").await?;
    page.sees(".parts", "400 × 300 mm").await?;
    page.everyone_can_use_it().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn several_are_cut_together_inner_parts_first_and_sheets_are_marked_and_taken_back(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press("section.group li:nth-child(1) [name='together']")
        .await?;
    page.press("section.group li:nth-child(2) [name='together']")
        .await?;
    page.press_called("Cut together").await?;
    page.sees("h1", "Cut together").await?;
    // What goes inside comes first; no box is among it.
    page.sees(".sheet h2", "Sheet 1").await?;
    page.lacks_text(".parts", "Box").await?;
    page.everyone_can_use_it().await?;
    page.press_called("Look for a cheaper layout").await?;
    page.sees("[data-test='looking']", "so far").await?;
    page.press_called("Stop, and keep it").await?;
    page.sees(".ways", "Look for a cheaper layout").await?;
    page.fill("place", "flat drawer").await?;
    page.press_called("Sheet 1 is cut").await?;
    page.sees("nav[aria-label='Sheets']", "1 ✓").await?;
    page.press("nav[aria-label='Sheets'] a").await?;
    page.sees(".is-done", "Kept: Offcut").await?;
    // In a second window it is marked as well; there it is taken back.
    let path = Page::path_of(&page.address().await?);
    let first_window = page.second_window(&path).await?;
    page.sees(".is-done", "Cut.").await?;
    page.press_called("Not cut: take it back").await?;
    page.sees("main", "Sheet 1 is cut").await?;
    page.to_window(first_window).await?;
    // Whoever comes back to the first one sees it too. The boxes have a layout of their own, also once inner parts are cut.
    page.reload().await?;
    page.sees("main", "Sheet 1 is cut").await?;
    page.press_called("Sheet 1 is cut").await?;
    page.sees("nav[aria-label='Sheets']", "1 ✓").await?;
    page.press_called("Then lay out the boxes").await?;
    page.sees("main", "not measured wrapped yet").await?;
    page.sees(".parts", "Box").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn what_a_layout_has_cut_is_done_at_the_bench_and_says_where_it_lies(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    let kelp = page.open("Kelp Ladder", "box").await?;
    page.press_called("Lay its parts out on sheets").await?;
    for n in 1..4 {
        page.press_called(&format!("Sheet {n} is cut")).await?;
        page.sees("nav[aria-label='Sheets']", &format!("{n} ✓"))
            .await?;
    }
    page.goto(&format!("{kelp}/pack")).await?;
    page.sees(".stage", "Set up the bench").await?;
    page.press("ol.steps li.is-done button").await?;
    page.sees(
        "[data-test='lies']",
        "Cut already: sheet 1, parts 1 to 4; sheet 2, parts 5 to 6",
    )
    .await?;
    page.everyone_can_use_it().await?;
    page.press(".views label:last-of-type").await?;
    page.sees("main", "cut already: sheet 1").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_short_shelf_says_what_helps_and_packing_takes_the_rest_once(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    at_box(&page, "The Ropewalk").await?;
    page.sees(
        "[data-short='Double wall BC']",
        "Order from Hollow Lane Board by",
    )
    .await?;
    page.sees("[data-short='Large bubble wrap']", "there are 2.50 m")
        .await?;
    page.press_called("Use Small bubble wrap instead").await?;
    page.is_saved().await?;
    page.lacks("[data-short='Large bubble wrap']").await?;
    page.keys("z").await?;
    page.sees("[data-short='Large bubble wrap']", "there are 2.50 m")
        .await?;
    // The first tick takes it off the shelf, as much as there is; the last one taken back gives it back.
    page.sees(
        "[aria-label='From what is in stock']",
        "The first tick at Pack",
    )
    .await?;
    let at_box = Page::path_of(&page.address().await?);
    let at_pack = at_box.replace("/box", "/pack");
    page.goto(&at_pack).await?;
    page.sees("[aria-label='The step']", "Set up the bench")
        .await?;
    page.keys(" ").await?;
    page.is_saved().await?;
    page.goto(&at_box).await?;
    page.sees(
        "[data-test='taken']",
        "of Large bubble wrap, Double wall BC there was less than it takes",
    )
    .await?;
    page.keys("z").await?;
    page.sees("[data-short='Large bubble wrap']", "there are 2.50 m")
        .await?;
    page.press_called("Lay its parts out on sheets").await?;
    page.sees("[data-test='lacks']", "2 on the shelf").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_find_asks_for_its_owner_and_a_crushed_carton_becomes_raw_card(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/materials/cartons").await?;
    page.press_called("New carton").await?;
    page.choose("origin", "found").await?;
    page.sees(
        "[data-test='ask-owner']",
        "Ask the owner before you take it",
    )
    .await?;
    page.fill("length_mm", "tall").await?;
    page.fill("width_mm", "24 in").await?;
    page.fill("depth_mm", "4 1/2 in").await?;
    page.fill("name", "From the quay").await?;
    page.choose("board", "corrugated-c").await?;
    page.press_called("Put it on the pile").await?;
    page.sees("form", "tall").await?;
    page.fill("length_mm", "36 in").await?;
    page.press_called("Put it on the pile").await?;
    // 36 × 24 × 4 1/2 in are 914.4 × 609.6 × 114.3 mm.
    page.sees("[data-item='From the quay']", "914 × 610 × 114 mm")
        .await?;
    page.press("[data-item='Long blind box'] .btn:not(.btn-link)")
        .await?;
    page.press("[data-item='Long blind box'] td:last-child .btn")
        .await?;
    page.sees(
        "[aria-label='Open into raw card']",
        "Creases are already left out",
    )
    .await?;
    page.everyone_can_use_it().await?;
    page.press("[aria-label='Open into raw card'] .btn-primary")
        .await?;
    page.sees("main", "Long blind box is opened").await?;
    page.lacks("[data-item='Long blind box']").await?;
    page.press_called("Offcuts").await?;
    page.sees("[data-item='Offcut 1']", "Corrugated C").await?;
    // Counted in two windows at once: what the second one did not see is not written over.
    page.press_called("In stock").await?;
    page.press("[data-item='Large bubble wrap'] button").await?;
    page.find(BUBBLE).await?;
    let first = page.second_window("/materials/in-stock").await?;
    page.press("[data-item='Large bubble wrap'] button").await?;
    page.fill(&name_of(&page, BUBBLE).await?, "3").await?;
    page.press("[data-item='Large bubble wrap'] [type='submit']")
        .await?;
    page.sees("[data-item='Large bubble wrap']", "3.00 m")
        .await?;
    page.to_window(first).await?;
    page.fill(&name_of(&page, BUBBLE).await?, "2.2").await?;
    page.press("[data-item='Large bubble wrap'] [type='submit']")
        .await?;
    page.sees("main", "it was counted elsewhere").await?;
    page.holds(&name_of(&page, BUBBLE).await?, "2.2").await?;
    // Seen now, it is counted knowingly.
    page.press("[data-item='Large bubble wrap'] [type='submit']")
        .await?;
    page.sees("[data-item='Large bubble wrap']", "2.20 m")
        .await?;
    studio.close().await
}

/// Where the count of the large bubble wrap is typed.
const BUBBLE: &str = "[data-item='Large bubble wrap'] input";

/// The name of a field that is found by where it stands.
async fn name_of(page: &Page, css: &str) -> Result<String> {
    let name = page.find(css).await?.attr("name").await?;
    name.context("a field has a name")
}

#[test_context(Demo)]
#[tokio::test]
async fn a_travel_case_of_the_shelf_is_taken_and_looked_over(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/materials/cartons").await?;
    page.press_called("New travel case").await?;
    for (name, typed) in [
        ("length_mm", "1300"),
        ("width_mm", "1000"),
        ("depth_mm", "120"),
        ("lining_mm", "50"),
        ("outside_length_mm", "1440"),
        // Less than what is free inside and the lining: it is said there.
        ("outside_width_mm", "900"),
        ("outside_depth_mm", "230"),
        ("empty_g", "21.5"),
        ("lid_screws", "20"),
        ("name", "Blue case"),
        ("place", "loft"),
    ] {
        page.fill(name, typed).await?;
    }
    page.choose("board", "plywood-4").await?;
    page.press_called("Put it on the shelf").await?;
    page.sees("form", "measure it outside").await?;
    page.fill("outside_width_mm", "1180").await?;
    page.press_called("Put it on the shelf").await?;
    page.sees("[data-item='Blue case']", "Travel case, 21.5 kg empty")
        .await?;
    page.everyone_can_use_it().await?;

    // It is offered where it fits, and nothing is built.
    page.press_called(words::BENCH).await?;
    at_box(&page, "Kelp Ladder").await?;
    page.press(".cases summary").await?;
    page.press("[data-case='Blue case'] button").await?;
    page.sees("[data-case='Blue case']", "taken").await?;
    page.sees("[data-test='case']", "21.5 kg, weighed").await?;
    page.sees("[data-test='acts']", "all 20 screws are there")
        .await?;
    page.lacks_text("[data-test='case']", "Battens sawn")
        .await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    page.reload().await?;
    page.sees("[data-case='Blue case']", "taken").await?;
    page.press_called(words::CUT_A_BOX_INSTEAD).await?;
    page.lacks_text("main", "21.5 kg, weighed").await?;
    page.is_saved().await?;

    // One that is built says its weight once.
    page.press_called("other style").await?;
    page.press("[data-style='travel_case']").await?;
    page.sees("[data-test='case']", "weigh it once").await?;
    page.fill("choices.case_empty", "heavy").await?;
    page.sees("[data-test='case']", "was not understood")
        .await?;
    page.fill("choices.case_empty", "19.2 kg").await?;
    page.sees("[data-test='case']", "19.2 kg, weighed").await?;
    page.is_saved().await?;
    studio.close().await
}
