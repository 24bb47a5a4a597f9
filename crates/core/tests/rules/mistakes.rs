//! Every mistake of the work that a plan can know about: what finds it, and what answers it.

use crate::studio::{catalogue, house, piece, rules};
use hummock_core::{
    house::{Choices, HouseRules},
    layer::Make,
    material::{Catalogue, MaterialId},
    piece::{Condition, Construction, Medium, PaintBody, Piece, TopEdge},
    plan::{CarriedHow, Finding, FindingLevel, Plan, Recipe, carriage_of, sheet_may_touch},
    quantity::{Length, Mass},
    shipment::{House, ShipmentInputs, WorkLine, Workings},
    space::LayerSlot,
    ways::changes,
};
use jiff::civil::date;
use serde_json::{Value, json};

fn canvas() -> Piece {
    piece(
        Construction::StretchedCanvas,
        [500.0, 700.0, 24.0],
        Medium::Acrylic,
    )
}

fn framed(construction: Construction) -> Piece {
    piece(construction, [520.0, 380.0, 24.0], Medium::Print)
}

fn choose(choices: Value) -> Choices {
    serde_json::from_value(choices).expect("choices")
}

fn plan(piece: &Piece, choices: &Choices) -> Plan {
    let house = house();
    let rules: HouseRules = house.rules.with(choices).expect("choices in range");
    Plan::design(piece, &rules, &house.catalogue).expect("a plan")
}

fn found(piece: &Piece, choices: &Choices, code: &str) -> Option<Finding> {
    let findings = plan(piece, choices).findings;
    findings.into_iter().find(|finding| finding.code == code)
}

/// The finding is there, and is gone once its button is pressed: at most once for each side that a fall
/// strikes.
#[track_caller]
fn found_and_answered(piece: &Piece, choices: &Choices, code: &str) {
    assert!(found(piece, choices, code).is_some(), "{code} is not found");
    let mut whole = serde_json::to_value(choices).expect("JSON");
    for _ in 0..3 {
        let Some(finding) = found(piece, &choose(whole.clone()), code) else {
            return;
        };
        let remedy = finding
            .remedy
            .unwrap_or_else(|| panic!("{code} has no remedy: {}", finding.says));
        merge(
            &mut whole,
            serde_json::to_value(remedy.choices).expect("JSON"),
        );
    }
    assert_eq!(found(piece, &choose(whole), code), None);
}

#[track_caller]
fn refused(piece: &Piece, slot: LayerSlot, wanted: bool, says: &str) {
    let refusals = Recipe::refused(piece, &house().rules, &[(slot, wanted)].into());
    let message = &refusals.first().expect("it is refused").message;
    assert!(message.contains(says), "{message}");
}

#[test]
fn plastic_on_paint_is_refused_whatever_is_written() {
    let catalogue: Catalogue = house().catalogue;
    let sheet = MaterialId::new("polythene-sheet");
    let refusal = sheet_may_touch(&canvas(), Some(&sheet), &catalogue).expect_err("plastic");
    assert_eq!(refusal.field, "choices.contact_paper");
    assert!(refusal.message.contains("marks a bare surface"));
    let glazed = framed(Construction::FramedUnderGlass);
    assert_eq!(sheet_may_touch(&glazed, Some(&sheet), &catalogue), Ok(()));
    refused(
        &canvas(),
        LayerSlot::Contact,
        false,
        "plastic must never touch it",
    );
}

#[test]
fn a_sheet_that_needs_a_reason_is_a_stop() {
    let paper = piece(
        Construction::RigidBoard,
        [400.0, 500.0, 3.0],
        Medium::Watercolour,
    );
    let kraft = choose(json!({ "contact_paper": "brown-kraft" }));
    let finding = found(&paper, &kraft, "sheet-needs-reason").expect("brown paper on a bare sheet");
    assert_eq!(finding.level, FindingLevel::Stop);
}

#[test]
fn tape_never_goes_on_acrylic_or_coated_glass() {
    let acrylic = framed(Construction::FramedUnderAcrylic);
    refused(&acrylic, LayerSlot::GlassTape, true, "acrylic");
    let coated = Piece {
        coated_glass: true,
        ..framed(Construction::FramedUnderGlass)
    };
    refused(&coated, LayerSlot::GlassTape, true, "coating");
    refused(&canvas(), LayerSlot::GlassTape, true, "without glass");
}

#[test]
fn nothing_may_touch_loose_pigment() {
    let charcoal = piece(
        Construction::RigidBoard,
        [610.0, 860.0, 4.0],
        Medium::PastelOrCharcoal,
    );
    refused(
        &charcoal,
        LayerSlot::WindowSpacer,
        false,
        "never be touched",
    );
    refused(&charcoal, LayerSlot::Contact, true, "loose pigment");
    refused(&charcoal, LayerSlot::Fixing, false, "held by its back");
    refused(&charcoal, LayerSlot::FaceBoards, false, "needs a board");
    let plan = plan(&charcoal, &Choices::default());
    // Two boards of 5 mm: more than the 6 mm that are the least.
    let spacer = plan
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::WindowSpacer);
    assert!(spacer.expect("bars").adds.front >= Length::mm(6.0));
}

/// It kills: a studio of before linen tape whose rules name what its shelf lacks, or whose pastels have no plan.
#[test]
fn hinges_are_of_the_tape_inside_where_a_shelf_has_no_linen() {
    let mut catalogue = catalogue();
    catalogue
        .tapes
        .retain(|tape| tape.id.as_str() != "linen-50");
    let mut older = serde_json::to_value(rules()).expect("JSON");
    let materials = older["materials"].as_object_mut().expect("materials");
    materials.remove("hinge_tape").expect("the demo names one");
    let older: HouseRules = serde_json::from_value(older).expect("older rules");
    assert!(catalogue.has(&older.materials.hinge_tape));
    let panel = piece(
        Construction::CradledPanel,
        [400.0, 500.0, 30.0],
        Medium::PastelOrCharcoal,
    );
    for rules in [rules(), older] {
        let plan = Plan::design(&panel, &rules, &catalogue).expect("a plan");
        let fixing = plan
            .layers
            .iter()
            .find(|layer| layer.slot == LayerSlot::Fixing);
        let tape = fixing.and_then(|layer| layer.tape_name.as_deref());
        assert_eq!(tape, Some("Acid-free tape 20 mm"));
    }
}

#[test]
fn corners_that_do_not_fit_the_depth_are_stopped_where_they_were_asked_for() {
    let slip_on =
        choose(json!({ "schools": { "corners": "slip_on" }, "slip_on_corner": "card-corner-25" }));
    let deep = piece(
        Construction::StretchedCanvas,
        [500.0, 700.0, 60.0],
        Medium::Acrylic,
    );
    found_and_answered(&deep, &slip_on, "corner-depth");
    assert_eq!(found(&canvas(), &slip_on, "corner-depth"), None);
}

/// The demo has bought corners for 12 to 25 mm, 25 to 40 mm (its usual ones) and 35 to 50 mm. It kills: the usual corner at any depth.
#[test]
fn bought_corners_go_by_the_depth_of_the_piece() {
    let slip_on = choose(json!({ "schools": { "corners": "slip_on" } }));
    for (depth, holds) in [(20.0, 25.0), (30.0, 40.0), (38.0, 40.0), (45.0, 50.0)] {
        let canvas = piece(
            Construction::StretchedCanvas,
            [500.0, 700.0, depth],
            Medium::Acrylic,
        );
        let plan = plan(&canvas, &slip_on);
        let corners = plan.layers.iter().find_map(|layer| match layer.make {
            Make::SlipOns(corners) => Some(corners),
            _ => None,
        });
        let corners = corners.expect("bought corners");
        assert!(corners.fits, "{depth}");
        assert_eq!(corners.depth_to, Length::mm(holds), "{depth}");
    }
}

#[test]
fn corners_of_the_house_that_do_not_fit_give_way() {
    let mut rules = house().rules;
    rules.schools.corners = hummock_core::house::CornerStyle::SlipOn;
    let deep = piece(
        Construction::StretchedCanvas,
        [500.0, 700.0, 150.0],
        Medium::Acrylic,
    );
    let plan = Plan::design(&deep, &rules, &house().catalogue).expect("a plan");
    let codes: Vec<&str> = plan.findings.iter().map(|finding| finding.code).collect();
    assert!(codes.contains(&"corners-changed"), "{codes:?}");
    assert!(!codes.contains(&"corner-depth"));
}

/// A carton of 600 × 450 × 150 is bought, and nobody knows what it bears. The box around it is of single wall C (5.0 kN/m, 27 kg), and
/// 28 kg of canvas alone are more: double wall (8.0 kN/m, 45 kg) carries them. It kills: a strength that asks for a cut inner box.
#[test]
fn a_box_around_a_bought_carton_carries_all_that_is_inside() {
    let choices = choose(json!({ "bought_box": "carton-600", "layers": { "second_box": true } }));
    let canvas = |kg: f64| Piece {
        weighed: Some(Mass::kg(kg)),
        ..piece(
            Construction::StretchedCanvas,
            [380.0, 500.0, 60.0],
            Medium::Acrylic,
        )
    };
    let strength = plan(&canvas(28.0), &choices).strength.expect("it is told");
    assert_eq!(strength.instead_of, MaterialId::new("corrugated-c"));
    assert!((strength.carries.as_kg() - 27.0).abs() < 1e-9);
    let by = strength.by.expect("a board carries it");
    assert_eq!(by.how, CarriedHow::Outer);
    assert_eq!(by.board, MaterialId::new("double-wall-bc"));
    assert_eq!(plan(&canvas(8.0), &choices).strength, None);
}

#[test]
fn a_parcel_without_its_name_is_minded() {
    let nameless = choose(json!({ "layers": { "name_tag": false } }));
    found_and_answered(&canvas(), &nameless, "no-name");
    let unmarked = Piece {
        top: TopEdge::Unmarked,
        ..canvas()
    };
    assert!(found(&unmarked, &Choices::default(), "top-unmarked").is_some());
    assert_eq!(found(&canvas(), &Choices::default(), "top-unmarked"), None);
}

#[test]
fn a_certificate_is_remembered_before_the_box_is_closed() {
    let certified = Piece {
        certificate: true,
        ..canvas()
    };
    // The house's sets bring one only to a shipment: a plan alone has none, and says so.
    let finding = found(&certified, &Choices::default(), "certificate").expect("a certificate");
    assert_eq!(finding.level, FindingLevel::Mind);
    assert!(finding.says.contains("on the enclosures list"));
}

#[test]
fn a_reused_board_has_old_marks() {
    let saved = choose(json!({ "box_board": "saved-card" }));
    assert!(found(&canvas(), &saved, "old-marks").is_some());
    assert_eq!(found(&canvas(), &Choices::default(), "old-marks"), None);
}

#[test]
fn like_pieces_have_a_board_between_any_two() {
    let buoys = Piece {
        count: 9,
        ..piece(
            Construction::PanelSet,
            [200.0, 200.0, 22.0],
            Medium::Acrylic,
        )
    };
    refused(&buoys, LayerSlot::Bundle, false, "boards between them");
    let plan = plan(&buoys, &Choices::default());
    let bundle = plan.layers.iter().find_map(|layer| match &layer.make {
        hummock_core::layer::Make::Bundle(bundle) => Some(*bundle),
        _ => None,
    });
    assert_eq!(bundle.expect("nine lie together").boards, 8);
}

#[test]
fn crumbs_of_foam_are_said_where_paint_is_bare() {
    let pads = choose(json!({ "layers": { "face_pads": true }, "pad_foam": "eps-15" }));
    assert!(found(&canvas(), &pads, "crumbs").is_some());
    let glazed = framed(Construction::FramedUnderGlass);
    assert_eq!(found(&glazed, &pads, "crumbs"), None);
}

#[test]
fn pads_that_press_on_a_roll_are_minded() {
    let scroll = piece(
        Construction::LooseCanvas,
        [1000.0, 2600.0, 1.0],
        Medium::Acrylic,
    );
    assert_eq!(found(&scroll, &Choices::default(), "roll-ends"), None);
    let mut rules = house().rules;
    rules.allowances.tube_end_air = Length::mm(1.0);
    let plan = Plan::design(&scroll, &rules, &house().catalogue).expect("a plan");
    assert!(
        plan.findings
            .iter()
            .any(|finding| finding.code == "roll-ends")
    );
}

#[test]
fn thick_paint_is_not_rolled() {
    let scroll = Piece {
        paint: PaintBody::Impasto,
        ..piece(Construction::LooseCanvas, [800.0, 900.0, 2.0], Medium::Oil)
    };
    let rolled = choose(json!({ "carriage": "rolled" }));
    let rules = house().rules.with(&rolled).expect("in range");
    assert_eq!(
        carriage_of(&scroll, &rules)
            .expect_err("it would crack")
            .field,
        "choices.carriage"
    );
    let raised = Piece {
        paint: PaintBody::Raised,
        ..scroll
    };
    found_and_answered(&raised, &Choices::default(), "raised-roll");
}

#[test]
fn a_wet_floor_is_said_only_on_a_wet_way_and_answered_by_a_bag() {
    assert_eq!(sent(json!({}), "wet-floor"), None);
    // The Orrin Isles are wet in November.
    let wet = json!({
        "promised": "2026-11-20", "buyer": { "country": "XO", "postcode": "" },
        "piece": { "construction": "framed_under_glass", "medium": "print" }
    });
    let finding = sent(wet.clone(), "wet-floor").expect("it goes a wet way");
    let mut bagged = wet;
    let choices = finding.remedy.expect("a bag").choices;
    bagged["choices"] = serde_json::to_value(choices).expect("JSON");
    assert_eq!(sent(bagged, "wet-floor"), None);
    // What still gives off solvent stays damp in a bag.
    let bagged = choose(json!({ "layers": { "bag": true } }));
    assert!(found(&canvas(), &bagged, "bag-cured-only").is_some());
    let print = framed(Construction::FramedUnderGlass);
    assert_eq!(found(&print, &bagged, "bag-cured-only"), None);
}

#[test]
fn loose_paint_and_wax_are_said() {
    let flaking = Piece {
        condition: Condition::Flaking,
        ..canvas()
    };
    let finding = found(&flaking, &Choices::default(), "flaking").expect("it flakes");
    assert_eq!(finding.level, FindingLevel::Stop);
    let wax = piece(
        Construction::CradledPanel,
        [300.0, 300.0, 30.0],
        Medium::Encaustic,
    );
    assert!(found(&wax, &Choices::default(), "wax-warmth").is_some());
}

#[test]
fn odds_past_what_the_house_accepts_are_minded_and_nothing_else_about_falls() {
    let large = piece(
        Construction::FramedUnderGlass,
        [800.0, 1000.0, 30.0],
        Medium::Print,
    );
    let finding = found(&large, &Choices::default(), "odds").expect("1 in 23 is worth a thought");
    assert_eq!(finding.level, FindingLevel::Mind);
    assert!(finding.says.contains("1 in 23"), "{}", finding.says);
    assert_eq!(found(&canvas(), &Choices::default(), "odds"), None);
    // A canvas in nothing but a box is 1 in 64: accepted, if barely.
    let bare =
        choose(json!({ "layers": { "first_wrap": false, "second_wrap": false, "fill": false } }));
    assert_eq!(found(&canvas(), &bare, "odds"), None);
}

#[test]
fn past_the_limits_of_the_house_a_piece_is_handed_over() {
    let codes = |piece: &Piece| found(piece, &Choices::default(), "hand-over");
    assert_eq!(codes(&canvas()), None);
    let long = piece(
        Construction::StretchedCanvas,
        [1500.0, 900.0, 38.0],
        Medium::Acrylic,
    );
    assert!(
        codes(&long)
            .expect("too long")
            .says
            .contains("1614\u{a0}mm long, over 1500")
    );
    let dear = Piece {
        value: Some(5000.01),
        ..canvas()
    };
    assert!(
        codes(&dear)
            .expect("too dear")
            .says
            .contains("worth over 5000")
    );
    // The pane of 900 × 1000 is 860 × 960: 0.83 m²
    let glass = piece(
        Construction::FramedUnderGlass,
        [900.0, 1000.0, 30.0],
        Medium::Print,
    );
    assert!(
        codes(&glass)
            .expect("too much glass")
            .says
            .contains("0.83\u{a0}m², over 0.7")
    );
}

#[test]
fn kraft_never_lies_on_acrylic_and_film_goes_on_glass() {
    let first = |construction, slot| {
        let plan = plan(&framed(construction), &Choices::default());
        let layer = plan.layers.into_iter().find(|layer| layer.slot == slot);
        layer.expect("it is there")
    };
    let sheet = |construction| first(construction, LayerSlot::Contact).material;
    assert_eq!(
        sheet(Construction::FramedUnderGlass).as_str(),
        "brown-kraft"
    );
    assert_eq!(sheet(Construction::FramedUnderAcrylic).as_str(), "glassine");
    let tape = first(Construction::FramedUnderGlass, LayerSlot::GlassTape);
    assert_eq!(tape.material.as_str(), "low-tack-50");
}

#[test]
fn new_surfaces_get_what_may_touch_them() {
    for (medium, sheet) in [
        (Medium::Photograph, "photo-tissue"),
        (Medium::Resin, "release-film"),
        (Medium::Gilding, "acid-free-tissue"),
        (Medium::Collage, "glassine"),
        (Medium::SprayPaint, "glassine"),
    ] {
        let panel = piece(Construction::CradledPanel, [300.0, 400.0, 25.0], medium);
        let plan = plan(&panel, &Choices::default());
        let spaced = plan
            .layers
            .iter()
            .any(|layer| layer.slot == LayerSlot::WindowSpacer);
        assert_eq!(spaced, medium.takes_no_pressure(), "{medium:?}");
        let contact = plan
            .layers
            .iter()
            .find(|layer| layer.slot == LayerSlot::Contact);
        assert_eq!(
            contact.expect("a sheet").material.as_str(),
            sheet,
            "{medium:?}"
        );
    }
}

#[test]
fn no_sheet_for_a_blank_is_answered_by_a_board_that_has_one() {
    let huge = piece(
        Construction::StretchedCanvas,
        [2200.0, 1700.0, 40.0],
        Medium::Acrylic,
    );
    let thin = choose(json!({ "box_board": "corrugated-b" }));
    found_and_answered(&huge, &thin, "no-sheet-for-blank");
}

#[test]
fn a_pad_that_buckles_is_stopped_where_it_was_asked_for() {
    // Four pads of 4 cm² are 20 mm wide, and 60 mm thick.
    let thin = choose(json!({
        "layers": { "face_pads": true }, "pad_area_cm2": 16.0, "pad_thickness": "60 mm"
    }));
    found_and_answered(&canvas(), &thin, "pad-buckles");
}

fn merge(whole: &mut Value, patch: Value) {
    json_patch::merge(whole, &patch);
}

fn inputs(change: Value) -> ShipmentInputs {
    let mut inputs = json!({
        "title": "Slack Tide", "value": "320",
        "buyer": {
            "name": "Oda Marsh", "street": "22 Signal Terrace", "town": "Tarrow Bridge",
            "postcode": "TB1", "country": "XS"
        },
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic", "finished": "2026-10-01",
            "width": "400 mm", "height": "500 mm", "depth": "18 mm"
        }
    });
    merge(&mut inputs, change);
    serde_json::from_value(inputs).expect("inputs")
}

fn sent(change: Value, code: &str) -> Option<Finding> {
    let worked = Workings::out(&inputs(change), &house()).expect("it works out");
    let findings = worked.plan.expect("a plan").findings;
    findings.into_iter().find(|finding| finding.code == code)
}

#[test]
fn an_address_left_for_the_counter_is_said() {
    assert_eq!(sent(json!({}), "half-an-address"), None);
    let finding = sent(json!({ "buyer": { "street": "" } }), "half-an-address").expect("half");
    assert!(
        finding.says.contains("lacks the street"),
        "{}",
        finding.says
    );
}

#[test]
fn cover_below_the_value_is_minded_once_a_service_is_chosen() {
    let chosen = |service: &str| json!({ "service": service, "value": "9000000" });
    let codes = |change: Value| {
        let worked = Workings::out(&inputs(change), &house()).expect("it works out");
        worked
            .plan
            .expect("a plan")
            .findings
            .into_iter()
            .map(|finding| finding.code)
            .collect::<Vec<_>>()
    };
    assert!(codes(chosen("gannet-post/parcel")).contains(&"cover-below-value"));
    assert!(!codes(json!({ "service": "gannet-post/parcel" })).contains(&"cover-below-value"));
}

#[test]
fn a_service_without_tracking_is_said_once_it_is_chosen() {
    let mut house = house();
    let service = &mut house.tariffs[0].services[0];
    service.tracked = false;
    let chosen = inputs(json!({ "service": format!("gannet-post/{}", service.id) }));
    let untracked = |house: &House, inputs: &ShipmentInputs| {
        let worked = Workings::out(inputs, house).expect("it works out");
        let findings = worked.plan.expect("a plan").findings;
        findings.iter().any(|finding| finding.code == "untracked")
    };
    assert!(untracked(&house, &chosen));
    assert!(!untracked(&house, &inputs(json!({}))));
    house.tariffs[0].services[0].tracked = true;
    assert!(!untracked(&house, &chosen));
}

#[test]
fn the_price_step_is_passed_by_a_closer_fit() {
    let worked = |inputs: &ShipmentInputs| Workings::out(inputs, &house()).expect("it works out");
    let price = |inputs: &ShipmentInputs| {
        let best = worked(inputs).summary(inputs).expect("a plan").best;
        best.expect("a price").total.amount
    };
    let mut pressed = 0;
    for mm in 300..500 {
        let before = inputs(json!({ "piece": { "height": format!("{mm} mm") } }));
        let offered = changes(&before, &house()).expect("it works out");
        let Some(step) = offered.expect("a plan").price_step else {
            continue;
        };
        let after = ShipmentInputs {
            choices: step.choices,
            ..before.clone()
        };
        assert_eq!(price(&before) - price(&after), step.saves.amount, "{mm} mm");
        // By the house's rule a saving may worsen the odds by a tenth.
        let odds = |inputs| worked(inputs).plan.expect("a plan").odds.probability;
        assert!(odds(&after) <= odds(&before) * 1.1, "{mm} mm");
        pressed += 1;
    }
    assert!(pressed > 0);
}

#[test]
fn two_findings_never_share_a_remedy() {
    for each in crate::studio::everyday() {
        let worked = Workings::out(&each.inputs, &house()).expect("it works out");
        let remedies: Vec<Value> = worked
            .plan
            .expect("a plan")
            .findings
            .into_iter()
            .filter_map(|finding| finding.remedy)
            .map(|remedy| serde_json::to_value(remedy.choices).expect("JSON"))
            .collect();
        for (place, remedy) in remedies.iter().enumerate() {
            assert!(!remedies[..place].contains(remedy), "{}", each.name);
        }
    }
}

#[test]
fn a_stop_is_lifted_by_a_written_reason_that_is_kept() {
    let flaking = json!({ "piece": { "condition": "flaking" } });
    assert!(
        sent(flaking.clone(), "flaking")
            .expect("it flakes")
            .is_open_stop()
    );
    let mut lifted = flaking;
    merge(
        &mut lifted,
        json!({ "lifted": { "flaking": "the buyer has it restored on arrival" } }),
    );
    let finding = sent(lifted, "flaking").expect("it still flakes");
    assert!(!finding.is_open_stop());
    assert_eq!(
        finding.lifted.as_deref(),
        Some("the buyer has it restored on arrival")
    );
}

#[test]
fn paint_that_has_not_cured_stops_until_a_reason_is_written() {
    let line = |change: Value| {
        let inputs = inputs(change);
        let worked = Workings::out(&inputs, &house()).expect("it works out");
        let line = WorkLine::on(
            date(2026, 11, 24),
            &inputs,
            worked.summary(&inputs).as_ref(),
        );
        serde_json::to_value(line.next).expect("JSON")["kind"].clone()
    };
    let wet = json!({ "piece": { "finished": "2026-11-20" } });
    assert_eq!(line(wet.clone()), "let_it_cure");
    let mut lifted = wet;
    merge(
        &mut lifted,
        json!({ "lifted": { "cure": "touch dry, and delivered by hand" } }),
    );
    assert_eq!(line(lifted), "look_at_guard");
}
