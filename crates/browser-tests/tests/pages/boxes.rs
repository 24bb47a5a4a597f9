//! The box: its style, what it is cut to, and how it folds.

use anyhow::Result;
use hummock_browser_tests::{Page, Studio};
use test_context::test_context;

use crate::{Demo, words};

/// Opens a shipment of the demo studio from the bench, at Box.
async fn at_box(page: &Page, title: &str) -> Result<()> {
    page.press_called(title).await?;
    page.sees("h1", title).await?;
    page.is_saved().await?;
    page.keys("3").await?;
    page.sees("[data-style='slotted_edge']", "as it is made")
        .await?;
    page.press_called("other style").await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_box_is_made_in_another_style_and_taken_back(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    at_box(&page, "Kelp Ladder").await?;
    page.press("[data-style='telescope']").await?;
    page.sees("main", "Inner half, flat, seen from inside")
        .await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees("[data-style='telescope']", "as it is made")
        .await?;
    page.everyone_can_use_it().await?;

    page.press_called("other style").await?;
    // A flat lid over such a canvas would bow: it says so, and can't be pressed.
    page.sees("[data-style='tray_and_lid']", "it bows between its tapes")
        .await?;
    page.press("[data-style='folder']").await?;
    // No sheet takes it whole: each part is drawn by itself.
    page.sees("main", "Folder, part 1 of 3, flat, seen from inside")
        .await?;
    page.is_saved().await?;
    // Taken back twice: to the telescope, then to the box as it was.
    page.keys("z").await?;
    page.sees("[data-style='telescope']", "as it is made")
        .await?;
    page.keys("z").await?;
    page.sees("[data-style='slotted_edge']", "as it is made")
        .await?;
    page.lacks_text("main", "Inner half").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn the_rule_chooses_a_box_until_a_hand_does_and_again_after(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Neap").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("size", "900 x 1200 x 38").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.choose("buyer.country", "XV").await?;
    page.is_saved().await?;
    page.press_called(words::CONTINUE_TO_GUARD).await?;
    page.press("[data-layer='first_wrap'] button").await?;
    page.press("[data-layer='first_wrap'] [aria-label='one turn more']")
        .await?;
    page.is_saved().await?;
    page.keys("3").await?;
    page.sees("[data-style='tray_and_tray']", "as it is made")
        .await?;
    page.sees(".by-rule", "the house rule chose it").await?;
    page.press("[data-style='slotted_edge']").await?;
    page.sees(".by-rule", "Chosen by hand").await?;
    page.is_saved().await?;
    page.press_called("Let the house rule choose").await?;
    page.sees("[data-style='tray_and_tray']", "as it is made")
        .await?;
    page.everyone_can_use_it().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_box_is_folded_step_by_step(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    at_box(&page, "Kelp Ladder").await?;
    page.press_called("Fold it").await?;
    page.sees("[data-test='proof']", "It closes").await?;
    page.find("[data-test='folding'] canvas").await?;
    page.sees("[data-test='folding'] [aria-current='step']", "Score it")
        .await?;
    page.press("[data-test='folding'] li:nth-child(4) button")
        .await?;
    page.sees(
        "[data-test='folding'] [aria-current='step']",
        "Fold in the short flaps",
    )
    .await?;
    page.press("[data-test='folding'] li:nth-child(8) button")
        .await?;
    page.press_called("Play").await?;
    page.sees(
        "[data-test='folding'] [aria-current='step']",
        "Tape the opening in an H",
    )
    .await?;
    page.everyone_can_use_it().await?;

    // Another style is folded at once.
    page.press("[data-style='folder']").await?;
    page.sees("[data-test='folding']", "their tucks in against it")
        .await?;
    page.is_saved().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_travel_case_says_its_screws_its_holes_and_its_steps(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    at_box(&page, "Kelp Ladder").await?;
    page.press("[data-style='travel_case']").await?;
    page.sees("[data-test='joints']", "lid on the frame")
        .await?;
    page.sees("[data-test='joints']", "stop at").await?;
    page.sees("[data-test='acts']", "Set the lid on by its marked corner")
        .await?;
    page.is_saved().await?;
    page.everyone_can_use_it().await?;
    page.keys("5").await?;
    page.press_called("Screw the lid on").await?;
    page.sees("main", "Drive a screw into every hole").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_piece_that_no_sheet_takes_is_given_a_box_that_can_be_cut(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called(words::NEW_PARCEL).await?;
    page.press_called(words::CHANGE_SOMETHING).await?;
    page.fill("title", "Two metres").await?;
    page.choose("piece.construction", "stretched_canvas")
        .await?;
    page.fill("size", "2000 x 1500 x 38").await?;
    page.choose("piece.medium", "acrylic").await?;
    page.is_saved().await?;
    page.keys(thirtyfour::Key::Tab + thirtyfour::Key::Tab)
        .await?;
    // No sheet takes a slotted box of it: another is made, and it says so.
    page.press(".tally .figures").await?;
    page.sees(".tally", "No sheet holds an edge-opening box")
        .await?;
    page.sees(".tally", "It is made as").await?;
    page.keys("3").await?;
    page.sees("main", "flat, seen from inside").await?;
    page.is_saved().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_sum_of_a_box_is_drawn_part_by_part_and_folded(Demo(database): &Demo) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.goto("/tools/sums/triangular-tube").await?;
    // 153.8 + 4 + 0.9 = 158.7, × √3 = 274.9
    page.sees("[data-test='figures']", "275 mm").await?;
    page.fill("wrap_mm", "18").await?;
    // 36 more: 194.7 × √3 = 337.2
    page.sees("[data-test='figures']", "337 mm").await?;
    page.press_called("Fold it").await?;
    page.sees(
        "[data-test='folding']",
        "Tape the edge of the last side to the first",
    )
    .await?;
    page.everyone_can_use_it().await?;
    page.goto("/tools/sums/corner-pocket").await?;
    page.press_called("Fold it").await?;
    page.sees("[data-test='folding']", "Tape the tab outside wall B.")
        .await?;
    page.goto("/tools/sums/tray").await?;
    page.sees("main", "Lid across").await?;
    page.fill("caliper_mm", "5").await?;
    page.sees("[data-test='figures']", "930 mm").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_box_is_made_anew_around_the_wrapped_piece_as_it_was_measured(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    at_box(&page, "Kelp Ladder").await?;
    page.sees(
        ".wrapped",
        "lay a tape to it, and cut the box to what it reads",
    )
    .await?;
    page.fill("choices.wrapped_across", "970").await?;
    page.sees(
        ".wrapped",
        "measure all three sides of the wrapped piece, or none of them",
    )
    .await?;
    page.fill("choices.wrapped_up", "1276 mm").await?;
    page.fill("choices.wrapped_through", "110").await?;
    page.sees(".wrapped", "thicker than the sums say: the blank is")
        .await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees(".wrapped", "thicker than the sums say: the blank is")
        .await?;
    page.everyone_can_use_it().await?;

    // It can't be less than the canvas itself, 1200 high; what was typed stays.
    page.fill("choices.wrapped_up", "1100").await?;
    page.sees(".wrapped", "when the piece is 1200 mm").await?;
    page.fill("choices.wrapped_up", "1276").await?;
    page.press_called("Take the measure back").await?;
    page.lacks_text(".wrapped", "than the sums say").await?;
    page.is_saved().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_carton_of_the_stores_takes_the_place_of_a_box_and_gives_way_again(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    at_box(&page, "Low Water, March").await?;
    page.press("section.bought summary").await?;
    page.press("[data-bought='corners-two'] button").await?;
    page.sees("main", "Fold both halves along their creases")
        .await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees("[data-bought='corners-two']", "taken").await?;
    page.everyone_can_use_it().await?;
    page.press_called("other style").await?;
    page.press("[data-style='folder_lapped']").await?;
    page.sees("main", "Folder, flat, seen from inside").await?;
    page.is_saved().await?;
    page.keys("z").await?;
    page.sees("[data-bought='corners-two']", "taken").await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_carton_that_the_studio_has_is_cut_down_to_the_piece(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    at_box(&page, "Low Water, March").await?;
    page.press("section.saved summary").await?;
    page.fill("choices.saved_length", "800").await?;
    page.sees(
        "section.saved",
        "measure the carton inside on all three sides",
    )
    .await?;
    page.fill("choices.saved_width", "600").await?;
    page.fill("choices.saved_height", "200").await?;
    page.sees("main", "A carton of yours, cut down").await?;
    page.sees("main", "Trim its four upper flaps to 302 mm")
        .await?;
    page.choose("choices.saved_cut", "length_too").await?;
    page.sees("main", "Push the tongues into the other half")
        .await?;
    page.is_saved().await?;
    page.reload().await?;
    page.sees("main", "A carton of yours, cut down").await?;
    page.sees("main", "Push the tongues into the other half")
        .await?;
    page.everyone_can_use_it().await?;

    // One that is too small says so at its field, and what was typed stays.
    page.fill("choices.saved_length", "300").await?;
    page.sees("section.saved", "even cut down or with a sleeve")
        .await?;
    page.holds("choices.saved_length", "300 mm").await?;
    // A mirror's carton, which opens on a long edge: its two sides there, then how deep. The piece slides in.
    page.fill("choices.saved_length", "900").await?;
    page.fill("choices.saved_width", "200").await?;
    page.fill("choices.saved_height", "800").await?;
    page.choose("choices.saved_opens", "edge_long").await?;
    page.choose("choices.saved_cut", "depth").await?;
    page.sees("main dl", "on a long narrow side").await?;
    page.is_saved().await?;
    page.press_called(words::CUT_A_BOX_INSTEAD).await?;
    page.sees("[data-style='slotted_edge']", "as it is made")
        .await?;
    page.is_saved().await?;
    studio.close().await
}

#[test_context(Demo)]
#[tokio::test]
async fn a_piece_past_the_limits_has_a_brief_for_who_crates_it(
    Demo(database): &Demo,
) -> Result<()> {
    let studio = Studio::open(database.pool()).await?;
    let page = studio.page();
    page.press_called("The Ropewalk").await?;
    page.is_saved().await?;
    page.press_called(words::SHOW_OPTIONS).await?;
    page.press_called("A brief for a crating service").await?;
    page.sees("article", "Brief for a crating service").await?;
    page.sees("article", "1400 × 1000 × 38 mm").await?;
    page.sees("article", "takes a shock of 50 G on its face")
        .await?;
    page.sees("article", "Galt House").await?;
    page.everyone_can_use_it().await?;
    page.press_called("Back to Box").await?;
    page.sees("[data-style='slotted_edge']", "as it is made")
        .await?;
    // It is told how the box is sealed, strip by strip.
    page.sees("[aria-label='How it is sealed']", "Along the joint: 1 ×")
        .await?;
    studio.close().await
}
