use super::*;
use crate::{
    carton::SheetNeed,
    house::Choices,
    layer::Make,
    material::MaterialId,
    odds::WayRisk,
    part::PartId,
    piece::{Construction, Medium},
    quantity::{Length, Mass},
    space::{Envelope, LayerSlot},
};

pub(super) fn catalogue() -> Catalogue {
    serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
        .expect("the demo catalogue is one")
}

pub(super) fn rules() -> HouseRules {
    serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
        .expect("the demo rules are rules")
}

fn canvas(sides: [f64; 3]) -> Piece {
    let [width, height, depth] = sides.map(Length::mm);
    let size = PieceSize {
        width,
        height,
        depth,
    };
    Piece::new(Construction::StretchedCanvas, size, Some(Medium::Acrylic))
}

fn design(piece: &Piece, choices: &Choices) -> Plan {
    let rules = rules().with(choices).expect("choices in range");
    Plan::design(piece, &rules, &catalogue()).expect("a plan")
}

#[test]
fn every_millimetre_of_a_canvas_is_traced_to_its_layer() {
    // 900 × 1200 × 38, glassine 0.04, pockets and boards of 4, one turn of 9 each way, 15 at the edges.
    let plan = design(&canvas([900.0, 1200.0, 38.0]), &Choices::default());
    let wanted = [
        // glassine: 0.04 on all six sides
        ("contact_sheet", [900.08, 1200.08, 38.08]),
        // pockets: 4 a side across, 8 up where the tabs lap, 4 in front and 9 behind
        ("card_pockets", [908.08, 1216.08, 51.08]),
        // boards 910 × 1210: across is widened to 910; up the pockets stand out already
        ("face_boards", [910.0, 1216.08, 59.08]),
        // the name tag: a card of 0.2 behind
        ("name_tag", [910.0, 1216.08, 59.28]),
        // up: one turn of 9 there, ends of 18 across, 9 in front and 9 behind with a seam of 2
        ("wrap", [946.0, 1234.08, 79.28]),
        // across: the same turned
        ("wrap", [964.0, 1270.08, 99.28]),
        // 15 a side, 10 behind
        ("edge_fill", [994.0, 1300.08, 109.28]),
        // 4 and 8 a side for the walls and the two flaps, 4 in front, 4 + 4 + 3 behind
        ("slotted_box", [1010.0, 1308.08, 124.28]),
        // labels, thinner than a tape reads
        ("marks", [1010.0, 1308.08, 124.28]),
    ];
    assert_eq!(plan.layers.len(), wanted.len());
    for (layer, (kind, sides)) in plan.layers.iter().zip(wanted) {
        let Envelope {
            across,
            up,
            through,
        } = layer.envelope;
        assert_eq!(layer.make.kind(), kind);
        for (found, wanted) in [across, up, through].into_iter().zip(sides) {
            assert!(
                (found.as_mm() - wanted).abs() < 1e-9,
                "{kind}: {found:?} for {wanted}"
            );
        }
    }
}

#[test]
fn the_tally_is_the_sum_of_piece_and_layers() {
    let plan = design(&canvas([900.0, 1200.0, 38.0]), &Choices::default());
    let layers: Mass = plan.layers.iter().map(|layer| layer.weight.mass).sum();
    let total = plan.piece_weight.mass + layers;
    assert!((plan.tally.weight.mass.as_g() - total.as_g()).abs() < 1e-9);
    // 4698 g estimated ± 20 %: 939.6; the layers add little to that in quadrature.
    assert!((939.6..1000.0).contains(&plan.tally.weight.plus_minus.as_g()));
}

#[test]
fn choices_are_followed_and_nothing_else_changes() {
    let choices = Choices {
        first_turns: Some(2),
        second_turns: Some(0),
        pocket_leg: Some("80 mm".into()),
        clearance: Some("0 mm".into()),
        depth_clearance: Some("0 mm".into()),
        ..Choices::default()
    };
    let plan = design(&canvas([900.0, 1200.0, 38.0]), &choices);
    let kinds: Vec<&str> = plan.layers.iter().map(|layer| layer.make.kind()).collect();
    assert_eq!(
        kinds,
        [
            "contact_sheet",
            "card_pockets",
            "face_boards",
            "name_tag",
            "wrap",
            "slotted_box",
            "marks"
        ]
    );
    let Make::CardPockets(pocket) = &plan.layers[1].make else {
        panic!("no pockets")
    };
    assert_eq!(pocket.leg, Length::mm(80.0));
    let Make::Wrap(strip) = &plan.layers[4].make else {
        panic!("no wrap")
    };
    assert_eq!(strip.turns, 2);
}

#[test]
fn pockets_that_would_meet_are_refused_at_the_leg() {
    let choices = Choices {
        pocket_leg: Some("120 mm".into()),
        ..Choices::default()
    };
    let rules = rules().with(&choices).expect("in range");
    let refused =
        Plan::design(&canvas([200.0, 300.0, 20.0]), &rules, &catalogue()).expect_err("they meet");
    assert_eq!(refused[0].field, "choices.pocket_leg");
    assert!(
        refused[0].message.contains("100\u{a0}mm or less"),
        "{}",
        refused[0].message
    );
}

#[test]
fn a_choice_out_of_its_range_or_off_the_shelf_is_refused_at_its_field() {
    let choices = Choices {
        first_turns: Some(7),
        clearance: Some("1 m".into()),
        ..Choices::default()
    };
    let fields: Vec<String> = rules()
        .with(&choices)
        .expect_err("out of range")
        .into_iter()
        .map(|refusal| refusal.field)
        .collect();
    assert_eq!(fields, ["choices.clearance", "choices.first_turns"]);

    let brittle = Choices {
        box_board: Some(crate::material::MaterialId::new("plywood-4")),
        ..Choices::default()
    };
    let rules = rules().with(&brittle).expect("in range");
    let refused = Plan::design(&canvas([200.0, 300.0, 20.0]), &rules, &catalogue())
        .expect_err("plywood does not fold");
    assert_eq!(refused[0].field, "choices.box_board");
}

#[test]
fn wax_is_given_a_sheet_that_it_allows() {
    let piece = Piece {
        medium: Some(Medium::Encaustic),
        ..canvas([400.0, 400.0, 30.0])
    };
    let plan = design(&piece, &Choices::default());
    assert_eq!(plan.layers[0].material.as_str(), "baking-parchment");
    assert!(
        plan.findings
            .iter()
            .any(|finding| finding.says.contains("encaustic"))
    );
}

#[test]
fn nothing_touches_bare_charcoal() {
    let bare = Piece {
        medium: Some(Medium::PastelOrCharcoal),
        ..canvas([610.0, 860.0, 20.0])
    };
    let plan = design(&bare, &Choices::default());
    let slots: Vec<LayerSlot> = plan.layers.iter().map(|layer| layer.slot).collect();
    assert_eq!(
        slots[..3],
        [
            LayerSlot::Fixing,
            LayerSlot::WindowSpacer,
            LayerSlot::FaceBoards
        ]
    );
    assert!(!slots.contains(&LayerSlot::Contact));
    let glazed = Piece {
        construction: Construction::FramedUnderGlass,
        ..bare
    };
    let plan = design(&glazed, &Choices::default());
    assert_eq!(plan.layers[0].slot, LayerSlot::GlassTape);
    assert_eq!(plan.layers[1].slot, LayerSlot::Contact);
}

#[test]
fn only_plain_glass_is_taped() {
    let framed = Piece {
        construction: Construction::FramedUnderGlass,
        ..canvas([520.0, 380.0, 24.0])
    };
    let first = |piece: &Piece| design(piece, &Choices::default()).layers[0].slot;
    assert_eq!(first(&framed), LayerSlot::GlassTape);
    let coated = Piece {
        coated_glass: true,
        ..framed.clone()
    };
    assert_ne!(first(&coated), LayerSlot::GlassTape);
    let acrylic = Piece {
        construction: Construction::FramedUnderAcrylic,
        ..framed
    };
    assert_ne!(first(&acrylic), LayerSlot::GlassTape);
}

#[test]
fn a_large_parcel_is_carried_by_two() {
    let minds = |sides| {
        let plan = design(&canvas(sides), &Choices::default());
        plan.findings
            .iter()
            .any(|finding| finding.about == FindingAbout::Parcel)
    };
    assert!(minds([1400.0, 1000.0, 38.0]));
    assert!(!minds([500.0, 700.0, 24.0]));
}

#[test]
fn a_blank_past_every_sheet_is_minded() {
    // What a slotted box finds no sheet for is made otherwise, and it says so.
    let large = design(&canvas([2000.0, 1900.0, 40.0]), &Choices::default());
    assert!(large.carton().is_some_and(Carton::can_be_cut));
    let otherwise = large
        .findings
        .iter()
        .find(|finding| finding.code == "made-otherwise");
    assert_eq!(
        otherwise.map(|finding| finding.level),
        Some(FindingLevel::Note)
    );
    // Past every sheet of the stores there is no box.
    let plan = design(&canvas([3200.0, 2900.0, 40.0]), &Choices::default());
    assert_eq!(
        plan.carton().map(|carton| &carton.sheet),
        Some(&SheetNeed::NoSheet)
    );
    assert!(plan.findings.iter().any(
        |finding| finding.code == "no-sheet-for-blank" && finding.layer == Some(LayerSlot::Box)
    ));
}

#[test]
fn pads_at_the_top_edge_are_checked_for_tipping_over() {
    let tipping = |choices: serde_json::Value| {
        let choices: Choices = serde_json::from_value(choices).expect("choices");
        let plan = design(&canvas([500.0, 700.0, 24.0]), &choices);
        let fall = plan.survival.falls.into_iter().last().expect("tipping");
        assert_eq!(fall.case, FallCase::Tipping);
        (fall.customary.as_mm(), plan.tally.outside.up.as_mm())
    };
    // Wrapped all over, it lands as from half its height.
    let (drop, standing) = tipping(serde_json::json!({}));
    assert!((drop - standing / 2.0).abs() < 1e-9);
    // Four pads of 100 cm²: 100 mm squares. 700 + 0.08 + 16 + 18 + 36 = 770.08 at the pads, 808.08 outside:
    // the top pads' middle stands (808.08 + 770.08)/2 − 50 = 739.08 up, 1.5 × 739.08²/808.08 = 1013.96
    let (drop, standing) = tipping(serde_json::json!({
        "layers": { "face_pads": true }, "pad_area_cm2": 400.0, "pad_thickness": "50 mm"
    }));
    assert!((standing - 808.08).abs() < 1e-6, "{standing}");
    assert!((drop - 1013.96).abs() < 0.01, "{drop}");
}

#[test]
fn heat_is_minded_by_what_softens() {
    let hot = WayRisk {
        hot: true,
        ..rules().way()
    };
    let minded = |medium, way: WayRisk| -> Vec<&'static str> {
        let mut rules = rules();
        rules.shipment.way = Some(way);
        let piece = Piece {
            medium: Some(medium),
            ..canvas([400.0, 500.0, 20.0])
        };
        let plan = Plan::design(&piece, &rules, &catalogue()).expect("a plan");
        let codes = plan.findings.iter().map(|finding| finding.code);
        codes
            .filter(|code| ["hot-month", "wax-warmth"].contains(code))
            .collect()
    };
    assert_eq!(minded(Medium::Resin, hot), ["hot-month"]);
    // Wax is told of once: as it is always, or as it is in the heat.
    assert_eq!(minded(Medium::Encaustic, hot), ["hot-month"]);
    assert_eq!(minded(Medium::Encaustic, rules().way()), ["wax-warmth"]);
    assert!(minded(Medium::Acrylic, hot).is_empty());
    assert!(minded(Medium::Resin, rules().way()).is_empty());
}

#[test]
fn a_box_with_a_score_cut_through_bears_less_and_takes_more_tape() {
    let cut = |count| Choices {
        cut_through: Some(count),
        ..Choices::default()
    };
    let piece = canvas([600.0, 800.0, 20.0]);
    let [whole, once, twice] = [0, 1, 2].map(|count| design(&piece, &cut(count)));
    let bears = |plan: &Plan| {
        let stack = plan.survival.stack.as_ref().expect("corrugated");
        stack.allowed.as_n()
    };
    // However many: board that is taped where it was scored bears 0.7.
    assert!((bears(&once) / bears(&whole) - 0.7).abs() < 1e-9);
    assert!((bears(&twice) / bears(&whole) - 0.7).abs() < 1e-9);
    let tape = |plan: &Plan| {
        let sealed = plan
            .layers
            .iter()
            .find(|layer| layer.slot == LayerSlot::Box);
        sealed.expect("a box").tape.as_mm()
    };
    // Each along the long side with a return of 50 at both ends.
    let carton = |plan: &Plan| {
        let mut layers = plan.layers.iter();
        layers.find_map(|layer| {
            layer
                .make
                .carton()
                .map(|carton| carton.inside_length.as_mm())
        })
    };
    let strip = carton(&whole).expect("a box") + 100.0;
    assert!((tape(&once) - tape(&whole) - strip).abs() < 1e-6);
    assert!((tape(&twice) - tape(&whole) - strip * 2.0).abs() < 1e-6);
    let told = |plan: &Plan| {
        plan.findings
            .iter()
            .any(|finding| finding.code == "cut-through")
    };
    assert_eq!([&whole, &once, &twice].map(told), [false, true, true]);
    // More than four, and the blank is cut anew.
    assert!(rules().with(&cut(5)).is_err());
}

#[test]
fn what_the_board_does_not_carry_is_made_of_one_that_does() {
    // 1400 × 1000 × 38: outside about 1520 + 1120 + 130, over C's 1900 × (27 ÷ 14)^¼; BC carries it.
    let large = canvas([1400.0, 1000.0, 38.0]);
    let plan = design(&large, &Choices::default());
    let strength = plan.strength.as_ref().expect("C does not carry it");
    let by = strength.by.as_ref().expect("BC does");
    assert_eq!(
        (by.board.as_str(), by.how),
        ("double-wall-bc", CarriedHow::Single)
    );
    assert!(strength.outside > strength.united && strength.mass <= strength.carries);
    let carton = plan
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::Box);
    assert_eq!(carton.expect("a box").material.as_str(), "double-wall-bc");
    // Its former odds stand beside it: BC is never the worse of the two.
    let former = strength.former.expect("the whole plan is told");
    assert!(former.about <= plan.odds.one_in.about);
    // Said before everything else of its weight.
    let notes = plan
        .findings
        .iter()
        .filter(|finding| finding.level == FindingLevel::Note);
    assert_eq!(
        notes.map(|finding| finding.code).next(),
        Some("stronger-board")
    );
    // Who asks for C keeps it, and is told what would carry it.
    let asked = Choices {
        box_board: Some(MaterialId::new("corrugated-c")),
        ..Choices::default()
    };
    let plan = design(&large, &asked);
    let weak = plan
        .findings
        .iter()
        .find(|finding| finding.code == "weak-board");
    let remedy = weak
        .expect("it is told")
        .remedy
        .as_ref()
        .expect("an answer");
    assert_eq!(
        remedy.choices.box_board,
        Some(MaterialId::new("double-wall-bc"))
    );
    // A canvas within the limit keeps its board.
    assert_eq!(
        design(&canvas([600.0, 800.0, 20.0]), &Choices::default()).strength,
        None
    );
}

#[test]
fn faces_are_doubled_where_no_board_carries_it_alone() {
    // A panel of 900 × 1200 at 50 kg: past BC's 45; doubled BC counts 16 kN/m, 72 kg and 3050.
    let [width, height, depth] = [900.0, 1200.0, 20.0].map(Length::mm);
    let size = PieceSize {
        width,
        height,
        depth,
    };
    let heavy = Piece {
        weighed: Some(Mass::g(50_000.0)),
        ..Piece::new(Construction::CradledPanel, size, Some(Medium::Acrylic))
    };
    let plan = design(&heavy, &Choices::default());
    let by = plan
        .strength
        .as_ref()
        .and_then(|one| one.by.clone())
        .expect("it is carried");
    assert_eq!(by.how, CarriedHow::Doubled);
    let layer = plan
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::Box)
        .expect("a box");
    let carton = layer.make.carton().expect("it is cut");
    let held = &plan.layers[plan
        .layers
        .iter()
        .position(|one| one.slot == LayerSlot::Box)
        .expect("it is there")
        - 1];
    // Inside it is two boards deeper than what it holds.
    let glued = carton.inside_height - held.envelope.through;
    assert!((glued.as_mm() - carton.caliper.as_mm() * 2.0).abs() < 1e-9);
    let sheets = layer
        .parts
        .iter()
        .find(|part| part.id == PartId::SheetGluedInside);
    assert_eq!(sheets.expect("they are cut").count, 2);
    // Twice the edge crush bears twice.
    let single = Choices {
        box_board: Some(by.board),
        ..Choices::default()
    };
    let single = design(&heavy, &single);
    let bears = |plan: &Plan| {
        plan.survival
            .stack
            .as_ref()
            .expect("corrugated")
            .allowed
            .as_n()
    };
    assert!(bears(&plan) > bears(&single) * 1.9);
}
