//! Laws of several pieces in one box: each in its own layers, laid together, cushioned and boxed as one.

use std::collections::{BTreeMap, BTreeSet};

use hummock_core::{
    arrange::Rule,
    house::{Choices, HouseRules},
    pack::{Stage, pack_steps},
    part::{Part, PartId, Take},
    piece::{Construction, Medium, Piece},
    plan::{Among, FIRST, FindingLevel, Plan, References, Stack, StackTier, Together},
    quantity::Length,
    shipment::{
        LaidPiece, OtherPiece, PieceInputs, ShipmentInputs, Workings, packing, unpacking_guide,
    },
    space::{Envelope, LayerSlot},
    ways::in_two,
};
use proptest::prelude::*;

use crate::studio::{
    AnyLaid, any_catalogue, any_choices, any_laid, any_piece, catalogue, everyday, four_carriers,
    house, laid_for, piece, refused, rules,
};

pub(crate) fn among(pieces: &[Piece], rules: &HouseRules, folded: bool, laid: AnyLaid) -> Together {
    let count = pieces.len();
    let pieces = pieces.iter().enumerate().map(|(at, piece)| Among {
        key: if at == 0 {
            FIRST.to_owned()
        } else {
            format!("p{at}")
        },
        title: format!("piece {}", at + 1),
        piece: piece.clone(),
        rules: rules.clone(),
    });
    Together {
        pieces: pieces.collect(),
        laid: laid_for(laid, count),
        folded,
    }
}

fn told(part: &Part) -> String {
    format!(
        "{} {} {} {:?}",
        part.id,
        part.material.as_str(),
        part.count,
        part.take
    )
}

fn sorted(mut parts: Vec<String>) -> Vec<String> {
    parts.sort_unstable();
    parts
}

/// Every piece lies once, on its board, within the stack, and none on another: a gap lies between any two.
fn on_their_boards(stack: &Stack, within: Envelope) -> Result<(), TestCaseError> {
    let mut named: Vec<&str> = Vec::new();
    for tier in &stack.tiers {
        prop_assert!(within.across >= tier.across && within.up >= tier.up);
        let mut placed: Vec<[f64; 4]> = Vec::new();
        for on in &tier.pieces {
            let piece = stack.pieces.iter().find(|piece| piece.key == on.key);
            let wrapped = piece.expect("a piece").wrapped;
            let (across, up) = (wrapped.across.as_mm(), wrapped.up.as_mm());
            let (across, up) = if on.turned {
                (up, across)
            } else {
                (across, up)
            };
            let (left, below) = (on.left.as_mm(), on.below.as_mm());
            prop_assert!(left >= -1e-6 && left + across <= tier.across.as_mm() + 1e-6);
            prop_assert!(below >= -1e-6 && below + up <= tier.up.as_mm() + 1e-6);
            prop_assert!(wrapped.through <= tier.through);
            for [from, foot, to, top] in &placed {
                let apart = left >= to + 20.0 - 1e-6
                    || left + across <= from - 20.0 + 1e-6
                    || below >= top + 20.0 - 1e-6
                    || below + up <= foot - 20.0 + 1e-6;
                prop_assert!(apart, "{:?}", tier);
            }
            placed.push([left, below, left + across, below + up]);
            named.push(&on.key);
        }
    }
    named.sort_unstable();
    let mut all: Vec<&str> = stack
        .pieces
        .iter()
        .map(|piece| piece.key.as_str())
        .collect();
    all.sort_unstable();
    prop_assert_eq!(named, all);
    Ok(())
}

/// A piece with hardware on its back or without.
fn any_hung() -> impl Strategy<Value = Piece> {
    (any_piece(), any::<bool>()).prop_map(|(piece, hung)| Piece {
        hardware: hung.then(|| Length::mm(4.0)),
        ..piece
    })
}

/// Choices that go with several in a box: how one alone would travel is not among them, nor what somebody measured.
fn boxed(choices: &Choices) -> HouseRules {
    let choices = Choices {
        wrapped_across: None,
        wrapped_up: None,
        wrapped_through: None,
        ..choices.clone()
    };
    rules().with(&choices).unwrap_or_else(|_| rules())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(150))]

    #[test]
    fn what_lies_together_is_all_there_within_the_stack_and_each_in_its_place(
        pieces in prop::collection::vec(any_hung(), 2..=5), choices in any_choices(), shelf in any_catalogue(), folded in any::<bool>(),
        laid in any_laid(5),
    ) {
        let rules = boxed(&choices);
        let together = among(&pieces, &rules, folded, laid);
        let Ok(plan) = Plan::together(&together, &rules, &shelf, &References::default()) else { return refused() };
        let stack = plan.stack.as_ref().expect("several pieces");
        let layer = &plan.layers[0];
        prop_assert_eq!(layer.slot, LayerSlot::Stack);
        // Nothing is left out and nothing counted twice: masses, money, minutes, parts.
        let mine = || stack.pieces.iter().flat_map(|piece| &piece.layers);
        let bare: f64 = pieces.iter().map(|piece| piece.weight(rules.allowances.piece_doubt).mass.as_g()).sum();
        let around: f64 = plan.layers.iter().map(|layer| layer.weight.mass.as_g()).sum();
        prop_assert!((plan.tally.weight.mass.as_g() - bare - around).abs() < 1e-6);
        let own: f64 = mine().map(|layer| layer.weight.mass.as_g()).sum();
        prop_assert!(layer.weight.mass.as_g() >= own);
        let parts = sorted(layer.parts.iter().map(told).collect());
        let apart = mine().flat_map(|layer| &layer.parts).chain(&stack.parts).map(told).collect();
        prop_assert_eq!(parts, sorted(apart));
        // Each place is a piece's, one behind the other, within the stack.
        let named: BTreeSet<&str> = stack.order.iter().map(|place| place.key.as_str()).collect();
        prop_assert_eq!(named.len(), pieces.len());
        let mut at = 0.0;
        for tier in &stack.tiers {
            prop_assert!(tier.from_front.as_mm() >= at - 1e-6, "{:?}", stack.tiers);
            at = tier.from_front.as_mm() + tier.through.as_mm();
        }
        on_their_boards(stack, layer.envelope)?;
        prop_assert!(at <= stack.thickness.as_mm() + 1e-6);
        // Foam lies wherever hardware looks out or at another, and nowhere else.
        let hard = |tier: &StackTier| tier.pieces.iter().any(|on| {
            stack.order.iter().any(|place| place.key == on.key && place.padded_outside)
        });
        let outside = match stack.tiers.as_slice() {
            [only] => usize::from(hard(only)),
            [first, .., last] => usize::from(hard(first)) + usize::from(hard(last)),
            [] => 0,
        };
        let between = stack.pairs.iter().filter(|pair| pair.padded).count();
        let foam: u32 = stack.parts.iter().filter(|part| part.id == PartId::OverHardware).map(|part| part.count).sum();
        prop_assert_eq!(usize::try_from(foam).unwrap_or(usize::MAX), outside + between);
        // What is around stands around it, as for one piece.
        for pair in plan.layers.windows(2) {
            let (stands, fills) = (pair[0].envelope.grown(pair[1].adds), pair[1].envelope);
            let off = |one: Length, other: Length| (one - other).as_mm().abs();
            prop_assert!(off(stands.through, fills.through) < 1e-6 && off(stands.up, fills.up) < 1e-6);
        }
        // No parcel is safer than any piece in it.
        for piece in &stack.pieces {
            prop_assert!(plan.odds.probability >= piece.probability - 1e-12);
        }
    }

    #[test]
    fn every_layer_of_every_piece_is_laid_once_and_nothing_before_what_it_needs(
        pieces in prop::collection::vec(any_hung(), 2..=4), choices in any_choices(), folded in any::<bool>(), laid in any_laid(4),
    ) {
        let (rules, shelf) = (boxed(&choices), catalogue());
        let together = among(&pieces, &rules, folded, laid);
        let Ok(plan) = Plan::together(&together, &rules, &shelf, &References::default()) else { return refused() };
        let all: Vec<&Piece> = pieces.iter().collect();
        let steps = pack_steps(&plan, &all, &rules, &shelf);
        let keys: Vec<&str> = steps.iter().map(|step| step.key.as_str()).collect();
        prop_assert_eq!(keys.iter().collect::<BTreeSet<_>>().len(), keys.len());
        let laid: BTreeSet<_> = steps.iter().filter_map(|step| Some((&step.piece, step.layer?))).collect();
        prop_assert_eq!(laid.len(), plan.every_layer().count());
        for (at, step) in steps.iter().enumerate() {
            for key in &step.waits_for {
                prop_assert!(keys[..at].contains(&key.as_str()), "{} waits for {key}", step.key);
            }
        }
        let is_tape = |part: &Part| shelf.tapes.iter().any(|tape| tape.id == part.material);
        let cuts = |part: &&Part| match part.take {
            Take::Piece { .. } => true,
            Take::Run { .. } => !is_tape(part),
            Take::Loose { .. } | Take::Each => false,
        };
        let cut = steps.iter().filter(|step| step.stage == Stage::Cut).flat_map(|step| &step.parts);
        let wanted = plan.layers.iter().flat_map(|layer| &layer.parts).filter(cuts);
        prop_assert_eq!(sorted(cut.map(told).collect()), sorted(wanted.map(told).collect()));
        let minutes: f64 = steps.iter().map(|step| step.minutes.as_min()).sum();
        prop_assert!((minutes - plan.tally.minutes.as_min()).abs() < 1e-6, "{minutes}");
        // All are wrapped before they are laid together, and laid together before they are boxed.
        let at = |key: &str| keys.iter().position(|known| *known == key);
        let together = at("layer/stack").expect("a stack");
        let wrapped = steps[..together].iter().filter(|step| step.key.ends_with("layer/first_wrap")).count();
        let own = plan.stack.iter().flat_map(|stack| &stack.pieces);
        let to_wrap = own.flat_map(|piece| &piece.layers).filter(|layer| layer.slot == LayerSlot::FirstWrap).count();
        prop_assert_eq!(wrapped, to_wrap);
        prop_assert!(keys[together..].iter().all(|key| !key.starts_with("piece/")));
        prop_assert!(Some(together) < at("layer/box"));
    }
}

#[test]
fn what_was_laid_last_comes_off_first_and_each_piece_by_its_name() {
    let inputs = two();
    let guide = unpacking_guide(&inputs, &four_carriers())
        .expect("a plan")
        .expect("a plan");
    let titles: Vec<(Option<&str>, &str)> = guide
        .steps
        .iter()
        .map(|step| (step.piece.as_deref(), step.title.as_str()))
        .collect();
    assert_eq!(titles[0], (None, "Box"));
    let at = |wanted: (Option<&str>, &str)| {
        titles
            .iter()
            .position(|title| *title == wanted)
            .unwrap_or_else(|| panic!("{wanted:?} of {titles:?}"))
    };
    assert!(at((None, "Filling")) < at((None, "Pieces bound together")));
    for piece in ["Kelp Ladder", "Slack Water"] {
        assert!(at((None, "Pieces bound together")) < at((Some(piece), "Wrap")));
        assert!(at((Some(piece), "Wrap")) < at((Some(piece), "Corners")));
        assert!(at((Some(piece), "Corners")) < at((Some(piece), "Sheet over the face")));
    }
    assert!(
        guide
            .before
            .iter()
            .any(|says| says.contains("two pieces") || says.contains("2 pieces"))
    );
}

/// A canvas, and another beside it.
fn two() -> ShipmentInputs {
    serde_json::from_value(serde_json::json!({
        "title": "Kelp Ladder", "value": "640", "buyer": { "country": "XS", "postcode": "TB11 4" },
        "piece": { "construction": "stretched_canvas", "width": "500 mm", "height": "700 mm", "depth": "18 mm", "medium": "acrylic" },
        "others": { "b": { "title": "Slack Water", "value": "410.50",
            "piece": { "construction": "stretched_canvas", "width": "400 mm", "height": "600 mm", "depth": "18 mm", "medium": "acrylic" } } },
    }))
    .expect("inputs")
}

fn planned(inputs: &ShipmentInputs) -> Plan {
    Workings::out(inputs, &four_carriers())
        .expect("no refusal")
        .plan
        .expect("a plan")
}

#[test]
fn two_canvases_lie_face_to_face_with_a_board_of_the_larger_between() {
    // Each alone in its wraps is as thick as its own plan says; between them one board. Both faces look inward.
    let inputs = two();
    let plan = planned(&inputs);
    let stack = plan.stack.expect("two pieces");
    let thick = |of: &str| {
        let piece = stack
            .pieces
            .iter()
            .find(|piece| piece.key == of)
            .expect("a piece");
        piece.wrapped.through.as_mm()
    };
    let shelf = catalogue();
    let board = shelf
        .board(&rules().materials.folio_board)
        .expect("a board")
        .caliper
        .as_mm();
    let sum = thick("first") + thick("b") + board;
    assert!((stack.thickness.as_mm() - sum).abs() < 1e-9, "{sum}");
    assert!(stack.broken.is_empty());
    let faces: Vec<bool> = stack.order.iter().map(|place| place.faces_front).collect();
    assert_eq!(faces, [false, true]);
    let first = &stack.pieces[0].wrapped;
    assert_eq!(
        (stack.pairs[0].across, stack.pairs[0].up),
        (first.across, first.up)
    );
    // 640 and 410.50 are covered together.
    assert_eq!(
        inputs
            .worth()
            .expect("amounts")
            .expect("a worth")
            .to_string(),
        "1050.50"
    );
    // The parcel as a whole holds both with all that is around them.
    let alone = planned(&inputs.with_pieces(&["first"]));
    assert!(plan.tally.weight.mass > alone.tally.weight.mass);
    assert!(plan.tally.outside.through > alone.tally.outside.through);
}

#[test]
fn an_order_by_hand_stands_and_is_told_what_it_breaks() {
    let mut inputs = two();
    let laid = |piece: &str, faces_front| LaidPiece {
        piece: piece.to_owned(),
        faces_front,
        beside: false,
    };
    inputs.together.order = Some(vec![laid("b", true), laid("first", true)]);
    let plan = planned(&inputs);
    let stack = plan.stack.as_ref().expect("two pieces");
    assert!(stack.by_hand);
    assert_eq!(stack.order[0].key, "b");
    let found = plan
        .findings
        .iter()
        .find(|finding| finding.code == "stack-face-outward");
    let found = found.expect("a face points outward");
    assert_eq!(found.level, FindingLevel::Mind);
    // One that names a piece that is there no longer is passed over.
    inputs.together.order = Some(vec![laid("c", true), laid("first", true)]);
    assert!(!planned(&inputs).stack.expect("two pieces").by_hand);
}

/// A canvas of 600 × 800, and five of about 200 × 300.
fn six() -> ShipmentInputs {
    let mut inputs = two();
    inputs.piece.width = Some("600 mm".into());
    inputs.piece.height = Some("800 mm".into());
    let small = inputs.others.remove("b").expect("the other");
    for (key, width) in [("a", 200), ("b", 205), ("c", 210), ("d", 200), ("e", 195)] {
        let mut one = small.clone();
        one.title = format!("Small {key}");
        one.piece.width = Some(format!("{width} mm"));
        one.piece.height = Some("300 mm".into());
        inputs.others.insert(key.to_owned(), one);
    }
    inputs
}

#[test]
fn small_ones_lie_side_by_side_where_that_is_cheaper_to_send() {
    let mut inputs = six();
    let worked = Workings::out(&inputs, &four_carriers()).expect("no refusal");
    let by = worked.tiers_by_rule.as_ref().expect("side by side");
    let plan = worked.plan.as_ref().expect("a plan");
    let stack = plan.stack.as_ref().expect("six pieces");
    assert!(by.tiers < 6 && stack.tiers.len() == by.tiers as usize && !stack.by_hand);
    assert!(plan.findings.iter().any(|one| one.code == "side-by-side"));
    assert!(stack.broken.iter().all(|one| one.rule != Rule::LikeDepths));
    // One above the other by hand costs more by what is said, and is deeper.
    let laid = stack.order.iter().map(|place| LaidPiece {
        piece: place.key.clone(),
        faces_front: place.faces_front,
        beside: false,
    });
    inputs.together.order = Some(laid.collect());
    let tower = Workings::out(&inputs, &four_carriers()).expect("no refusal");
    assert!(tower.tiers_by_rule.is_none());
    let thick = |worked: &Workings| {
        let plan = worked.plan.as_ref().expect("a plan");
        plan.tally.outside.through
    };
    assert!(thick(&tower) > thick(&worked) + Length::mm(100.0));
    let costs = |worked: &Workings| worked.cost.as_ref().expect("a cost").to_send.amount;
    assert!(costs(&tower) > costs(&worked));
    // Weighed, the parcel lies as it did.
    let mut weighed = six();
    weighed.parcel.weight = Some("12 kg".into());
    let found = Workings::out(&weighed, &four_carriers()).expect("no refusal");
    assert_eq!(found.tiers_by_rule, worked.tiers_by_rule);
    assert_eq!(
        found.plan.and_then(|plan| plan.stack),
        worked.plan.and_then(|plan| plan.stack)
    );
}

#[test]
fn a_piece_is_put_beside_another_by_hand_and_told_what_that_breaks() {
    let mut inputs = two();
    inputs.others.get_mut("b").expect("the other").piece.depth = Some("60 mm".into());
    let laid = |piece: &str, beside| LaidPiece {
        piece: piece.to_owned(),
        faces_front: true,
        beside,
    };
    inputs.together.order = Some(vec![laid("first", false), laid("b", true)]);
    let plan = planned(&inputs);
    let stack = plan.stack.as_ref().expect("two pieces");
    assert!(stack.by_hand && stack.tiers.len() == 1 && stack.pairs.is_empty());
    assert!(plan.findings.iter().any(|one| one.code == "stack-depths"));
    // A board lies before and behind what lies side by side.
    let over = stack
        .parts
        .iter()
        .filter(|part| part.id == PartId::OverSeveral);
    assert_eq!(over.map(|part| part.count).sum::<u32>(), 2);
    let steps = packing(&inputs, &four_carriers())
        .expect("a plan")
        .expect("a plan")
        .steps;
    let step = steps
        .iter()
        .find(|step| step.step.key == "layer/stack")
        .expect("laid together");
    assert!(
        step.step
            .says
            .iter()
            .any(|says| says.contains("side by side")),
        "{:?}",
        step.step.says
    );
}

#[test]
fn like_pieces_typed_one_by_one_are_packed_as_a_set() {
    let mut inputs = two();
    let other = inputs.others.remove("b").expect("the other");
    for key in ["b", "c"] {
        let mut like = other.clone();
        like.piece = inputs.piece.clone();
        inputs.others.insert(key.to_owned(), like);
    }
    let plan = planned(&inputs);
    assert!(plan.stack.is_none());
    assert!(plan.findings.iter().any(|one| one.code == "as-a-set"));
    let mut set = inputs.with_pieces(&["first"]);
    set.piece.count = Some(3);
    assert_eq!(plan.layers, planned(&set).layers);
    // One that is another lies among them as itself.
    inputs.others.get_mut("c").expect("the third").piece.width = Some("501 mm".into());
    assert!(planned(&inputs).stack.is_some());
}

#[test]
fn a_choice_for_one_piece_is_its_own_and_one_for_the_shipment_is_everybodys() {
    let mut inputs = two();
    let has = |inputs: &ShipmentInputs, of: usize, slot: LayerSlot| {
        let stack = planned(inputs).stack.expect("two pieces");
        stack.pieces[of]
            .layers
            .iter()
            .any(|layer| layer.slot == slot)
    };
    assert!(has(&inputs, 0, LayerSlot::Corners) && has(&inputs, 1, LayerSlot::Corners));
    let other = inputs.others.get_mut("b").expect("the other");
    other.choices.layers.insert(LayerSlot::Corners, false);
    assert!(has(&inputs, 0, LayerSlot::Corners) && !has(&inputs, 1, LayerSlot::Corners));
    inputs.choices.layers.insert(LayerSlot::Corners, false);
    let other = inputs.others.get_mut("b").expect("the other");
    other.choices.layers.insert(LayerSlot::Corners, true);
    assert!(!has(&inputs, 0, LayerSlot::Corners) && has(&inputs, 1, LayerSlot::Corners));
    // What goes around all is not one piece's.
    let other = inputs.others.get_mut("b").expect("the other");
    other.choices.layers.insert(LayerSlot::FacePads, true);
    let refused = inputs.checked(
        hummock_core::quantity::LengthUnit::Mm,
        jiff::civil::date(2027, 3, 4),
    );
    assert_eq!(
        refused.expect_err("it is refused")[0].field,
        "others.b.choices.layers"
    );
}

#[test]
fn fields_of_another_piece_are_named_by_it_and_what_it_lacks_is_asked_for() {
    let mut inputs = two();
    let other = inputs.others.get_mut("b").expect("the other");
    other.piece.width = Some("wide".into());
    other.value = Some("-1".into());
    let checked = inputs.clone().checked(
        hummock_core::quantity::LengthUnit::Mm,
        jiff::civil::date(2027, 3, 4),
    );
    let mut fields: Vec<String> = checked
        .expect_err("nonsense")
        .into_iter()
        .map(|refusal| refusal.field)
        .collect();
    fields.sort_unstable();
    assert_eq!(fields, ["others.b.piece.width", "others.b.value"]);
    let mut inputs = two();
    inputs.others.get_mut("b").expect("the other").piece.depth = None;
    let worked = Workings::out(&inputs, &house()).expect("half of it");
    assert_eq!(
        (worked.missing, worked.plan),
        (vec!["others.b.piece.depth".to_owned()], None)
    );
    // A roll or a mailer is for one piece alone.
    let mut inputs = two();
    inputs.choices.carriage = Some(hummock_core::house::Carriage::Rolled);
    assert!(Workings::out(&inputs, &house()).is_err());
    // Bare numbers take the unit they were typed in.
    let mut inputs = two();
    inputs.others.get_mut("b").expect("the other").piece.width = Some("40".into());
    let checked = inputs
        .checked(
            hummock_core::quantity::LengthUnit::Cm,
            jiff::civil::date(2027, 3, 4),
        )
        .expect("it stands");
    assert_eq!(checked.others["b"].piece.width.as_deref(), Some("40 cm"));
    // Twelve at most.
    let mut inputs = two();
    let other = inputs.others["b"].clone();
    inputs.others = (0..12)
        .map(|at| (format!("p{at}"), other.clone()))
        .collect();
    let checked = inputs.checked(
        hummock_core::quantity::LengthUnit::Mm,
        jiff::civil::date(2027, 3, 4),
    );
    assert_eq!(checked.expect_err("thirteen")[0].field, "others");
}

#[test]
fn thin_frames_lie_in_the_folds_of_one_pad_and_canvases_keep_their_wraps() {
    let frame = piece(
        Construction::FramedUnderAcrylic,
        [300.0, 400.0, 18.0],
        Medium::Print,
    );
    let canvas = piece(
        Construction::StretchedCanvas,
        [300.0, 400.0, 18.0],
        Medium::Acrylic,
    );
    let (rules, shelf) = (rules(), catalogue());
    let together = among(
        &[frame.clone(), frame, canvas],
        &rules,
        true,
        (0, Vec::new()),
    );
    let plan = Plan::together(&together, &rules, &shelf, &References::default()).expect("a plan");
    let stack = plan.stack.expect("three");
    let folded: Vec<bool> = stack.pieces.iter().map(|piece| piece.folded).collect();
    assert_eq!(folded, [true, true, false]);
    let wrapped = |of: usize| {
        stack.pieces[of]
            .layers
            .iter()
            .any(|layer| layer.slot == LayerSlot::FirstWrap)
    };
    assert!(!wrapped(0) && !wrapped(1) && wrapped(2));
    assert!(stack.pairs.iter().any(|pair| pair.folded));
    assert!(stack.parts.iter().any(|part| part.id == PartId::FoldedPad));
}

#[test]
fn what_is_no_rectangle_is_chocked_at_its_bearing_points() {
    let mut round = piece(
        Construction::CradledPanel,
        [300.0, 300.0, 20.0],
        Medium::Oil,
    );
    round.outline = hummock_core::piece::Outline::Round;
    let square = piece(
        Construction::CradledPanel,
        [300.0, 300.0, 20.0],
        Medium::Oil,
    );
    let (mut rules, shelf) = (rules(), catalogue());
    let points = round.bearing_points();
    let pieces = [square, round];
    let chocks = |rules: &HouseRules| -> [u32; 2] {
        let together = among(&pieces, rules, false, (0, Vec::new()));
        let plan = Plan::together(&together, rules, &shelf, &References::default());
        let stack = plan.expect("a plan").stack.expect("two");
        let count = |parts: &[Part]| -> u32 {
            let chocks = parts.iter().filter(|part| part.id == PartId::Chock);
            chocks.map(|part| part.count).sum()
        };
        let own = stack.pieces.iter().flat_map(|piece| &piece.layers);
        [
            count(&stack.parts),
            own.map(|layer| count(&layer.parts)).sum(),
        ]
    };
    // On its own board, and where that is left out between the others.
    assert_eq!(chocks(&rules), [0, points]);
    rules.layers.insert(LayerSlot::Cradle, false);
    assert_eq!(chocks(&rules), [points, 0]);
}

#[test]
fn everyday_pieces_two_by_two_raise_nothing_that_neither_has_alone() {
    // A judgement about the stack would be worth nothing if it warned whenever two things share a box.
    let house = four_carriers();
    let all = everyday();
    let flat: Vec<&ShipmentInputs> = all
        .iter()
        .map(|each| &each.inputs)
        .filter(|inputs| inputs.piece.count.unwrap_or(1) == 1)
        .collect();
    let mut tried = 0;
    let mut warned: BTreeMap<String, u32> = BTreeMap::new();
    for two in flat.chunks(2).filter(|two| two.len() == 2) {
        let mut inputs = two[0].clone();
        let (piece, value): (PieceInputs, _) = (two[1].piece.clone(), two[1].value.clone());
        inputs.others.insert(
            "b".into(),
            OtherPiece {
                piece,
                value,
                ..OtherPiece::default()
            },
        );
        let Ok(Some(plan)) = Workings::out(&inputs, &house).map(|worked| worked.plan) else {
            continue;
        };
        tried += 1;
        let alone = [two[0].clone(), inputs.with_pieces(&["b"])]
            .map(|inputs| Workings::out(&inputs, &house).ok()?.plan);
        let known = |code: &str| {
            alone
                .iter()
                .flatten()
                .any(|plan| plan.findings.iter().any(|finding| finding.code == code))
        };
        for finding in plan
            .findings
            .iter()
            .filter(|finding| finding.level != FindingLevel::Note && !known(finding.code))
        {
            *warned.entry(finding.code.to_owned()).or_default() += 1;
        }
        // Every step of it can be told.
        assert!(packing(&inputs, &house).expect("steps").is_some());
    }
    assert!(tried >= 20, "{tried}");
    println!("{tried} tried: {warned:?}");
    let most: u32 = warned.values().sum();
    assert!(most * 4 <= tried, "of {tried}: {warned:?}");
}

#[test]
fn parted_in_two_every_piece_is_in_one_parcel_and_both_are_priced() {
    let mut inputs = two();
    let other = inputs.others["b"].clone();
    inputs.others.insert(
        "c".into(),
        OtherPiece {
            title: "Third".into(),
            ..other
        },
    );
    let found = in_two(&inputs, &four_carriers())
        .expect("no refusal")
        .expect("several");
    // Three pieces: one of the others, the other, or both go by themselves.
    assert_eq!(found.parted.len(), 3);
    for way in &found.parted {
        let mut all: Vec<&str> = way
            .stays
            .pieces
            .iter()
            .chain(&way.goes.pieces)
            .map(String::as_str)
            .collect();
        all.sort_unstable();
        assert_eq!(all, ["b", "c", "first"]);
        assert_eq!(way.inputs.others.len() + 1, way.goes.pieces.len());
        assert_eq!(way.inputs.buyer, inputs.buyer);
        let (one, other) = (
            way.stays.all_told.as_ref().expect("a price"),
            way.goes.all_told.as_ref().expect("a price"),
        );
        let both = way.all_told.as_ref().expect("a price").amount;
        assert_eq!(one.amount + other.amount, both);
        let together = found.together.all_told.as_ref().expect("a price").amount;
        assert_eq!(way.saves.as_ref().expect("a price").amount, together - both);
    }
    let told: Vec<_> = found
        .parted
        .iter()
        .map(|way| way.all_told.as_ref().expect("a price").amount)
        .collect();
    assert!(told.is_sorted());
    assert_eq!(
        in_two(&inputs.with_pieces(&["b"]), &four_carriers()),
        Ok(None)
    );
}

#[test]
fn what_lies_beside_others_has_a_wrap_of_its_own_whatever_pad_others_share() {
    let frame = piece(
        Construction::FramedUnglazed,
        [300.0, 400.0, 18.0],
        Medium::Acrylic,
    );
    let (rules, shelf) = (rules(), catalogue());
    let folded = |laid: AnyLaid| -> Vec<bool> {
        let pieces = [frame.clone(), frame.clone(), frame.clone()];
        let together = among(&pieces, &rules, true, laid);
        let plan = Plan::together(&together, &rules, &shelf, &References::default());
        let stack = plan.expect("a plan").stack.expect("three");
        stack.pieces.iter().map(|piece| piece.folded).collect()
    };
    assert_eq!(folded((0, Vec::new())), [true; 3]);
    // The second lies beside the first, the third above both.
    let beside = vec![(false, true), (true, true), (false, false)];
    assert_eq!(folded((2, beside)), [false, false, true]);
}
