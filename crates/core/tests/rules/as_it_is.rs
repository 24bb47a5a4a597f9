//! Every piece as it is: shaped ones, frames, loose surfaces, what goes in a mailer and what is a parcel by itself.

use hummock_core::{
    Refusal,
    house::{Carriage, Choices, HouseRules, ShapedHold, TubeShape},
    layer::{Cradle, FaceBoards, Make, SpacerLies, WindowSpacer},
    material::Touch,
    pack::pack_steps,
    part::PartId,
    piece::{Construction, Fragility, FrameFinish, FrameHolds, Medium, Outline, Piece},
    place::Route,
    plan::{FindingLevel, Plan},
    quantity::Length,
    shipment::ShipmentInputs,
    space::LayerSlot,
    ways::bought,
};
use proptest::prelude::*;
use serde_json::json;

use crate::studio::{any_piece, catalogue, house, piece, rules};

fn designed(piece: &Piece, rules: &HouseRules) -> Plan {
    Plan::design(piece, rules, &catalogue()).expect("a plan")
}

fn refused(piece: &Piece, choices: Choices) -> Vec<Refusal> {
    let rules = rules().with(&choices).expect("choices in range");
    Plan::design(piece, &rules, &catalogue()).expect_err("it is refused")
}

fn make_at(plan: &Plan, slot: LayerSlot) -> Option<&Make> {
    let layer = plan.layers.iter().find(|layer| layer.slot == slot)?;
    Some(&layer.make)
}

fn cradle(plan: &Plan) -> Option<&Cradle> {
    match make_at(plan, LayerSlot::Cradle)? {
        Make::Cradle(cradle) => Some(cradle),
        _ => None,
    }
}

fn boards(plan: &Plan) -> FaceBoards {
    match make_at(plan, LayerSlot::FaceBoards) {
        Some(Make::FaceBoards(boards)) => *boards,
        other => panic!("{other:?} are no boards"),
    }
}

fn spacer(plan: &Plan) -> WindowSpacer {
    match make_at(plan, LayerSlot::WindowSpacer) {
        Some(Make::WindowSpacer(spacer)) => *spacer,
        other => panic!("{other:?} is no window"),
    }
}

fn round_mirror() -> Piece {
    Piece {
        outline: Outline::Round,
        ..piece(Construction::Mirror, [600.0, 600.0, 25.0], Medium::Oil)
    }
}

#[test]
fn a_round_mirror_lies_between_four_chocks_and_a_board_lies_on_them() {
    let plan = designed(&round_mirror(), &rules());
    let cradle = cradle(&plan).expect("a cradle board");
    assert_eq!(cradle.chocks.len(), 4);
    assert!(make_at(&plan, LayerSlot::Corners).is_none());
    // The board in front is as large as the one behind, and there is no third.
    let front = boards(&plan);
    assert_eq!(
        (front.width, front.height, front.behind),
        (cradle.width, cradle.height, false)
    );
    // Whoever asks for corner protectors is told why not.
    let states = plan.slots.iter().find(|one| one.slot == LayerSlot::Corners);
    assert!(states.is_some_and(|one| !one.free && one.why.is_some()));
    // Without it nothing holds the mirror, which is said.
    let mut without = rules();
    without.layers.insert(LayerSlot::Cradle, false);
    let bare = designed(&round_mirror(), &without);
    assert!(bare.findings.iter().any(|finding| finding.code == "shaped"));
    assert!(bare.odds.probability > plan.odds.probability);
}

#[test]
fn chocks_are_set_around_the_piece_in_its_sheet() {
    let (mirror, rules) = (round_mirror(), rules());
    let plan = designed(&mirror, &rules);
    let steps = pack_steps(&plan, &[&mirror], &rules, &catalogue());
    let at = |key: &str| {
        let place = steps.iter().position(|step| step.key == key);
        place.unwrap_or_else(|| panic!("no step {key}"))
    };
    assert!(at("layer/glass_tape") < at("layer/contact"));
    assert!(at("layer/contact") < at("before/cradle"));
    assert!(at("before/cradle") < at("layer/cradle"));
    assert!(at("layer/cradle") < at("layer/face_boards"));
}

#[test]
fn nothing_rubs_on_a_gilded_frame() {
    let gilded = Piece {
        frame: FrameFinish::Delicate,
        frame_holds: Some(FrameHolds::Panel),
        ..piece(
            Construction::FramedUnglazed,
            [450.0, 550.0, 40.0],
            Medium::Oil,
        )
    };
    let plan = designed(&gilded, &rules());
    let Some(Make::FoamCollar(collar)) = make_at(&plan, LayerSlot::Corners) else {
        panic!("a collar of foam");
    };
    // Boards before and behind are as large as the collar: tape goes from one to the other.
    let around = boards(&plan);
    assert!(around.behind && around.width == collar.long_bar);
    let sheet = plan
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::Contact);
    let shelf = catalogue();
    let paper = shelf.contact_paper(&sheet.expect("a sheet").material);
    assert_eq!(paper.expect("paper").touch(Medium::Gilding), Touch::Allowed);
    let film = Choices::layer(LayerSlot::Binding, true);
    let states = designed(&gilded, &rules().with(&film).expect("choices")).slots;
    let binding = states.iter().find(|one| one.slot == LayerSlot::Binding);
    assert!(binding.is_some_and(|one| !one.present && one.why.is_some()));
    // An ornate one has blocks that are cut out behind its corners, an old one a band around both boards.
    let ornate = Piece {
        frame: FrameFinish::Ornate,
        ..gilded.clone()
    };
    let Some(Make::CornerBlocks(blocks)) =
        make_at(&designed(&ornate, &rules()), LayerSlot::Corners).cloned()
    else {
        panic!("blocks");
    };
    assert_eq!(blocks.cut_out, Length::mm(20.0));
    let old = Piece {
        frame: FrameFinish::Old,
        ..gilded
    };
    assert!(boards(&designed(&old, &rules())).banded);
}

#[test]
fn a_frame_that_is_not_plain_takes_less() {
    // 55 × 0.73 = 40.15 without glass; a plain one 55.
    for (frame, wanted) in [
        (FrameFinish::Plain, 55.0),
        (FrameFinish::Delicate, 40.15),
        (FrameFinish::Ornate, 40.15),
        (FrameFinish::Old, 40.15),
    ] {
        let framed = Piece {
            frame,
            ..piece(
                Construction::FramedUnglazed,
                [450.0, 550.0, 40.0],
                Medium::Oil,
            )
        };
        let limit = Fragility::of(&framed, false).limit.expect("it is stiff");
        assert!(
            (limit.as_times_gravity() - wanted).abs() < 1e-9,
            "{frame:?}"
        );
    }
}

#[test]
fn canvas_in_a_frame_has_a_board_behind_and_a_panel_has_none() {
    let framed = |holds| Piece {
        frame_holds: holds,
        ..piece(
            Construction::FramedUnglazed,
            [700.0, 900.0, 45.0],
            Medium::Acrylic,
        )
    };
    let behind = |holds| boards(&designed(&framed(holds), &rules())).behind;
    assert!(behind(Some(FrameHolds::StretchedCanvas)) && behind(None));
    assert!(!behind(Some(FrameHolds::Panel)));
}

#[test]
fn powder_behind_acrylic_is_minded_until_the_acrylic_is_antistatic() {
    let pastel = |antistatic| Piece {
        antistatic,
        ..piece(
            Construction::FramedUnderAcrylic,
            [500.0, 700.0, 30.0],
            Medium::PastelOrCharcoal,
        )
    };
    let minds = |piece: &Piece| {
        let plan = designed(piece, &rules());
        let minds = plan.findings.iter();
        minds
            .filter(|finding| finding.level == FindingLevel::Mind)
            .any(|finding| finding.code == "static")
    };
    assert!(minds(&pastel(false)) && !minds(&pastel(true)));
}

#[test]
fn strips_lie_outside_a_pastel_and_the_sheet_comes_before_them() {
    let pastel = |border: Option<f64>| Piece {
        bare_border: border.map(Length::mm),
        ..piece(
            Construction::LoosePaper,
            [500.0, 650.0, 0.3],
            Medium::PastelOrCharcoal,
        )
    };
    let margin = |plan: &Plan| match make_at(plan, LayerSlot::Folio) {
        Some(Make::Folio(folio)) => folio.margin,
        _ => panic!("a folio"),
    };
    // Strips of 30 and 8 more: 38. On a border of 40 the boards keep their 25.
    let outside = designed(&pastel(None), &rules());
    assert_eq!(
        (spacer(&outside).lies, margin(&outside)),
        (SpacerLies::OutsideSheet, Length::mm(38.0))
    );
    let bordered = designed(&pastel(Some(40.0)), &rules());
    assert_eq!(
        (spacer(&bordered).lies, margin(&bordered)),
        (SpacerLies::OnBorder, Length::mm(25.0))
    );
    let sheet = pastel(None);
    let steps = pack_steps(&outside, &[&sheet], &rules(), &catalogue());
    let keys: Vec<&str> = steps.iter().map(|step| step.key.as_str()).collect();
    let at = |key: &str| keys.iter().position(|one| *one == key);
    assert!(at("before/folio").is_some() && at("before/folio") < at("layer/window_spacer"));
    assert!(at("layer/window_spacer") < at("layer/folio"));
}

#[test]
fn a_small_canvas_goes_wrapped_thin_into_a_padded_mailer() {
    let padded = rules()
        .with(&Choices {
            carriage: Some(Carriage::Padded),
            ..Choices::default()
        })
        .expect("choices");
    let canvas = |sides| piece(Construction::StretchedCanvas, sides, Medium::Acrylic);
    let mailer = |sides| {
        let plan = designed(&canvas(sides), &padded);
        let wrap = plan
            .layers
            .iter()
            .find(|layer| layer.slot == LayerSlot::FirstWrap);
        assert_eq!(wrap.expect("a wrap").material.as_str(), "bubble-small");
        match make_at(&plan, LayerSlot::Box) {
            Some(Make::Mailer(mailer)) => (mailer.count, mailer.inside_width.as_mm()),
            other => panic!("{other:?} is no mailer"),
        }
    };
    // 203 and 10 of the boards and 14 of the wrap's rolled ends are 227; 18, boards of 8, 7 of wrap and 2 of its seam 35 through; with the
    // slack 272, just over 270: the next is 300 wide.
    assert_eq!(mailer([203.0, 254.0, 18.0]), (1, 300.0));
    // 508 long: two pushed over it from both ends.
    assert_eq!(mailer([254.0, 508.0, 18.0]).0, 2);
    let why = |piece: &Piece| {
        let choices = Choices {
            carriage: Some(Carriage::Padded),
            ..Choices::default()
        };
        refused(piece, choices).remove(0).message
    };
    let glazed = piece(
        Construction::FramedUnderGlass,
        [203.0, 254.0, 18.0],
        Medium::Print,
    );
    assert!(why(&glazed).contains("glass"));
    assert!(why(&canvas([203.0, 254.0, 41.0])).contains("too deep"));
}

#[test]
fn a_padded_mailer_is_named_for_what_is_small_and_cheap() {
    let house = house();
    let named = |value: &str, depth: &str| -> Vec<bool> {
        let inputs = json!({
            "title": "", "value": value,
            "buyer": { "name": "A", "street": "B", "town": "C", "country": "XS", "postcode": "TB11 4" },
            "piece": {
                "construction": "stretched_canvas", "medium": "acrylic",
                "width": "203 mm", "height": "254 mm", "depth": depth,
            },
        });
        let inputs: ShipmentInputs = serde_json::from_value(inputs).expect("inputs");
        let offers = bought(&inputs, &house).expect("offers");
        let padded = offers
            .iter()
            .filter(|offer| offer.choices.carriage == Some(Carriage::Padded));
        padded
            .filter(|offer| offer.refused.is_none())
            .map(|offer| offer.keeps)
            .collect()
    };
    assert!(named("90", "18 mm").iter().any(|keeps| *keeps));
    // Dearer than the house sends in one: offered, not named.
    let dear = named("400", "18 mm");
    assert!(!dear.is_empty() && dear.iter().all(|keeps| !keeps));
    assert!(named("90", "60 mm").is_empty());
}

#[test]
fn sheets_to_a1_are_a_parcel_by_themselves_on_a_dry_way() {
    let print = |sides, value| Piece {
        value: Some(value),
        ..piece(Construction::LoosePaper, sides, Medium::Print)
    };
    let a1 = [594.0, 841.0, 0.3];
    let is_sandwich = |piece: &Piece, rules: &HouseRules| {
        let plan = designed(piece, rules);
        matches!(make_at(&plan, LayerSlot::Box), Some(Make::Sandwich(_)))
    };
    let rules = rules();
    assert!(is_sandwich(&print(a1, 250.0), &rules));
    // Both sides of every bound: dearer, larger, wet, overseas.
    assert!(!is_sandwich(&print(a1, 251.0), &rules));
    assert!(!is_sandwich(&print([595.0, 841.0, 0.3], 20.0), &rules));
    let on = |route, wet| {
        let mut rules = rules.clone();
        rules.shipment.way = Some(rules.odds.played(route, wet));
        is_sandwich(&print(a1, 20.0), &rules)
    };
    assert!(on(Route::Abroad, false));
    assert!(!on(Route::National, true) && !on(Route::Overseas, false));
    // Whoever names a board has the sleeve of it: 594 + 80 = 674 by 921, 4 around.
    let board = Choices {
        box_board: Some(hummock_core::material::MaterialId::new("corrugated-b")),
        ..Choices::default()
    };
    let plan = designed(&print(a1, 20.0), &rules.with(&board).expect("choices"));
    let Some(Make::Sandwich(sleeve)) = make_at(&plan, LayerSlot::Box) else {
        panic!("a sleeve");
    };
    assert!(sleeve.of_board);
    assert_eq!(sleeve.along, Length::mm(674.0));
}

#[test]
fn a_triangular_tube_is_folded_for_whoever_asks() {
    let canvas = piece(
        Construction::LooseCanvas,
        [800.0, 1000.0, 1.0],
        Medium::Acrylic,
    );
    let triangular = |tube| {
        let choices = Choices {
            tube,
            ..Choices::default()
        };
        let plan = designed(&canvas, &rules().with(&choices).expect("choices"));
        let said = plan
            .findings
            .iter()
            .any(|one| one.code == "triangular-tube");
        match make_at(&plan, LayerSlot::Box) {
            Some(Make::Tube(tube)) => (tube.triangular, said),
            other => panic!("{other:?} is no tube"),
        }
    };
    assert_eq!(triangular(None), (false, false));
    assert_eq!(triangular(Some(TubeShape::Round)), (false, false));
    // Nobody is told of what they asked for.
    assert_eq!(triangular(Some(TubeShape::Triangular)), (true, false));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    #[test]
    fn what_has_no_corners_has_no_pockets_and_lies_on_a_board_that_carries_its_chocks(piece in any_piece()) {
        let Ok(plan) = Plan::design(&piece, &rules(), &catalogue()) else {
            return Err(TestCaseError::reject("the job refuses it"));
        };
        let chocked = plan.carriage == Carriage::Flat && piece.is_shaped()
            && !piece.needs_spacer();
        prop_assert_eq!(cradle(&plan).is_some(), chocked);
        prop_assert!(!chocked || make_at(&plan, LayerSlot::Corners).is_none());
        let Some(cradle) = cradle(&plan) else { return Ok(()) };
        for [across, up] in cradle.chocks.iter().flat_map(|chock| chock.corners_mm) {
            let (x, y) = (across.as_mm(), up.as_mm());
            prop_assert!(x >= 5.0 - 1e-6 && x <= cradle.width.as_mm() - 5.0 + 1e-6);
            prop_assert!(y >= 5.0 - 1e-6 && y <= cradle.height.as_mm() - 5.0 + 1e-6);
        }
        prop_assert!(cradle.width >= piece.size.width + Length::mm(50.0 - 1e-6));
        prop_assert!(cradle.chock_height >= piece.size.depth + Length::mm(3.0 - 1e-6));
    }
}

#[test]
fn foam_that_crumbs_lies_in_paper() {
    // Bars of 25 around a panel of 400 × 600: each piece of polystyrene has a sheet of its narrow side and its thickness, twice, and 60,
    // by its long side and its thickness.
    let panel = piece(
        Construction::CradledPanel,
        [400.0, 600.0, 30.0],
        Medium::Oil,
    );
    let mut rules = rules();
    rules.layers.insert(LayerSlot::EdgePads, true);
    let parts = |rules: &HouseRules| {
        let plan = designed(&panel, rules);
        let layer = plan
            .layers
            .into_iter()
            .find(|one| one.slot == LayerSlot::EdgePads);
        layer.expect("edge pads").parts
    };
    let cases = |rules: &HouseRules| -> u32 {
        let parts = parts(rules);
        let cases = parts.iter().filter(|part| part.id == PartId::CaseOfPaper);
        cases.map(|part| part.count).sum()
    };
    assert_eq!(cases(&rules), 0);
    rules.materials.pad_foam = hummock_core::material::MaterialId::new("eps-15");
    assert_eq!(cases(&rules), 4);
}

#[test]
fn foam_around_the_rim_takes_the_place_of_chocks() {
    let mut rules = rules();
    rules.schools.shaped = ShapedHold::Rim;
    let mirror = round_mirror();
    let plan = designed(&mirror, &rules);
    assert!(cradle(&plan).is_none());
    let Some(Make::RimStrip(strip)) = make_at(&plan, LayerSlot::Corners) else {
        panic!("foam around the rim");
    };
    // 600π = 1884.96 round, and the sheet around it: three strips of 628.3 and a little; the rim of 600 + 2 × 25 is as far as the boards before and behind reach.
    assert_eq!(strip.count, 3);
    assert!((strip.length.as_mm() - 628.32).abs() < 0.5);
    let around = boards(&plan);
    assert!(around.behind && (around.width.as_mm() - 650.0).abs() < 0.5);
    // It is held, and a knock on its rim meets foam: safer than with nothing at all.
    assert!(plan.findings.iter().all(|finding| finding.code != "shaped"));
    let mut without = rules.clone();
    without.layers.insert(LayerSlot::Corners, false);
    let bare = designed(&mirror, &without);
    assert!(bare.findings.iter().any(|finding| finding.code == "shaped"));
    assert!(bare.odds.probability > plan.odds.probability);
    // Each offers the other.
    let steps = pack_steps(&plan, &[&mirror], &rules, &catalogue());
    let strips = steps.iter().find(|step| step.key == "layer/corners");
    assert!(strips.is_some_and(|step| step.title == "Foam around the rim"));
    let sheet = steps.iter().find(|step| step.key == "layer/contact");
    assert!(sheet.is_some_and(|step| step.says[0].contains("all round")));
}

#[test]
fn a_wrap_goes_around_the_inner_of_two_boxes() {
    let canvas = piece(
        Construction::StretchedCanvas,
        [600.0, 800.0, 40.0],
        Medium::Acrylic,
    );
    let mut rules = rules();
    // It needs an inner box.
    let wrapped = |rules: &HouseRules| {
        let states = designed(&canvas, rules).slots;
        let one = states
            .into_iter()
            .find(|one| one.slot == LayerSlot::BoxWrap);
        one.expect("a state")
    };
    assert!(wrapped(&rules).why.is_some());
    rules.layers.insert(LayerSlot::SecondBox, true);
    let before = designed(&canvas, &rules);
    rules.layers.insert(LayerSlot::BoxWrap, true);
    let plan = designed(&canvas, &rules);
    let Some(Make::Wrap(strip)) = make_at(&plan, LayerSlot::BoxWrap) else {
        panic!("a wrap around the inner box");
    };
    assert_eq!(strip.turns, 1);
    // It lies between the boxes, after the inner one is closed, and makes nothing riskier.
    let steps = pack_steps(&plan, &[&canvas], &rules, &catalogue());
    let at = |key: &str| steps.iter().position(|step| step.key == key);
    assert!(at("seal/box") < at("layer/box_wrap") && at("layer/box_wrap") < at("in/second_box"));
    assert!(at("layer/box_wrap").is_some());
    assert!(plan.odds.probability <= before.odds.probability);
    assert!(plan.tally.outside.through > before.tally.outside.through);
}
