//! Laws of packing: every layer and every cut once, nothing before what it needs, and what a changed plan touches.

use std::{
    collections::{BTreeMap, BTreeSet},
    sync::Arc,
};

use hummock_core::{
    enclosure::{Enclosed, Enclosure, EnclosureKind, EnclosurePlace},
    house::{Carriage, HouseRules},
    layer::{Layer, Make},
    pack::{PackStep, PackView, Stage, StepState, StepTick, pack_steps},
    part::{Part, Strips, Take},
    plan::Plan,
    quantity::{Length, Mass},
    shipment::{EnclosureInputs, ShipmentInputs, Workings, packing},
    space::{Addition, LayerSlot},
};
use proptest::{
    prelude::*,
    sample::{select, subsequence},
};

use crate::studio::{any_catalogue, any_choices, any_piece, everyday, house, refused, rules};

fn tick(step: &PackStep) -> (String, StepTick) {
    let tick = StepTick {
        at: "2027-03-04T10:15:00Z".to_owned(),
        print: step.print.clone(),
        sheet: String::new(),
    };
    (step.key.clone(), tick)
}

/// A part as it is told apart from others: prices don't matter.
fn cut_of(part: &Part) -> String {
    format!(
        "{} {} {:?} {:?}",
        part.id,
        part.material.as_str(),
        part.count,
        part.take
    )
}

/// Up to five things, each anywhere that it may lie.
pub(crate) fn any_enclosed() -> impl Strategy<Value = Vec<Enclosed>> {
    let one = (
        select(&EnclosureKind::ALL[..]),
        select(&EnclosurePlace::ALL[..]),
        0_u32..=120,
        0_u32..=5000,
    );
    prop::collection::vec(one, 0..=5).prop_map(|all| {
        let made =
            |(at, (kind, place, tenths, grams)): (usize, (_, EnclosurePlace, _, _))| Enclosed {
                key: format!("one-{at}"),
                enclosure: Enclosure {
                    kind,
                    name: String::new(),
                    place,
                    thickness: Length::mm(f64::from(tenths) / 10.0),
                    mass: Mass::g(f64::from(grams)),
                    hard: place.takes_hard() && grams % 2 == 0,
                },
                set: None,
            };
        all.into_iter().enumerate().map(made).collect()
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    #[test]
    fn every_layer_is_laid_and_every_part_is_cut_once_and_nothing_before_what_it_needs(
        piece in any_piece(), choices in any_choices(), catalogue in any_catalogue(), enclosed in any_enclosed(),
    ) {
        let Ok(mut rules) = rules().with(&choices) else { return refused() };
        rules.enclosed = Arc::new(enclosed);
        let Ok(plan) = Plan::design(&piece, &rules, &catalogue) else { return refused() };
        let steps = pack_steps(&plan, &[&piece], &rules, &catalogue);
        let keys: Vec<&str> = steps.iter().map(|step| step.key.as_str()).collect();
        let mut put_in: Vec<&str> = steps.iter().filter_map(|step| Some(step.encloses.as_ref()?.key.as_str())).collect();
        put_in.sort_unstable();
        let listed: Vec<&str> = rules.enclosed.iter().map(|one| one.key.as_str()).collect();
        prop_assert_eq!(put_in, listed);
        prop_assert_eq!(keys.iter().collect::<BTreeSet<_>>().len(), keys.len(), "{:?}", keys);
        let mut laid: Vec<LayerSlot> = steps.iter().filter_map(|step| step.layer).collect();
        laid.sort_unstable();
        laid.dedup();
        let lays = |layer: &&Layer| !matches!(layer.make, Make::Enclosures(_));
        let mut layers: Vec<LayerSlot> = plan.layers.iter().filter(lays).map(|layer| layer.slot).collect();
        layers.sort_unstable();
        prop_assert_eq!(laid, layers);
        // Every part of the plan is laid by one step, and no step lays what the plan has not.
        let parts_of = |parts: &mut dyn Iterator<Item = &Part>| {
            let mut parts: Vec<String> = parts.map(cut_of).collect();
            parts.sort_unstable();
            parts
        };
        let in_steps = parts_of(&mut steps.iter().filter(|step| step.stage != Stage::Cut).flat_map(|step| &step.parts));
        let in_plan = parts_of(&mut plan.layers.iter().flat_map(|layer| &layer.parts));
        prop_assert_eq!(in_steps, in_plan);
        // Every strip of tape is torn in one step, and the strips of a layer are its tape.
        let torn = |strips: &mut dyn Iterator<Item = &Strips>| {
            let mut torn: Vec<String> = strips.map(|one| format!("{one:?}")).collect();
            torn.sort_unstable();
            torn
        };
        prop_assert_eq!(
            torn(&mut steps.iter().flat_map(|step| &step.strips)),
            torn(&mut plan.layers.iter().flat_map(|layer| &layer.strips))
        );
        for layer in &plan.layers {
            let strips: f64 = layer.strips.iter().map(|one| one.length.as_mm() * f64::from(one.count)).sum();
            prop_assert!((strips - layer.tape.as_mm()).abs() < 1e-6, "{:?}", layer.slot);
        }
        let mut cut: Vec<String> = steps
            .iter()
            .filter(|step| step.stage == Stage::Cut)
            .flat_map(|step| step.parts.iter().map(cut_of))
            .collect();
        cut.sort_unstable();
        let is_tape = |part: &Part| catalogue.tapes.iter().any(|tape| tape.id == part.material);
        let mut wanted: Vec<String> = plan
            .layers
            .iter()
            .flat_map(|layer| &layer.parts)
            .filter(|part| match part.take {
                Take::Piece { .. } => true,
                Take::Run { .. } => !is_tape(part),
                Take::Loose { .. } | Take::Each => false,
            })
            .map(cut_of)
            .collect();
        wanted.sort_unstable();
        prop_assert_eq!(cut, wanted);
        for (at, step) in steps.iter().enumerate() {
            for key in &step.waits_for {
                prop_assert!(keys[..at].contains(&key.as_str()), "{} waits for {key}", step.key);
            }
            // What it lays is cut by then.
            for part in step.parts.iter().filter(|_| step.layer.is_some()) {
                let cut = steps.iter().find(|one| one.stage == Stage::Cut && one.parts.contains(part));
                prop_assert!(cut.is_none_or(|cut| step.waits_for.contains(&cut.key)), "{}", step.key);
            }
        }
        let minutes: f64 = steps.iter().map(|step| step.minutes.as_min()).sum();
        prop_assert!((minutes - plan.tally.minutes.as_min()).abs() < 1e-6);
        // From the art outward, and whatever is in a box lies there before it is closed.
        let place = |key: &str| keys.iter().position(|known| *known == key);
        for fill in ["before/fill", "back/filler", "layer/fill"].iter().filter_map(|key| place(key)) {
            // Into a mailer no hand gets: there it is laid before.
            let mailed = plan.layers.iter().any(|layer| matches!(layer.make, Make::Mailer(_)));
            prop_assert!((mailed || place("layer/box") < Some(fill)) && Some(fill) < place("close/box"));
        }
        // What is told to be covered was done, or is a place, and is covered once.
        let mut covered = BTreeSet::new();
        for (at, step) in steps.iter().enumerate() {
            for key in &step.covers {
                let done = key.starts_with("place/") || keys[..at].contains(&key.as_str());
                prop_assert!(done && covered.insert(key), "{} covers {key}", step.key);
            }
        }
        if let (Some(first), Some(second)) = (place("seal/box"), place("layer/second_box")) {
            prop_assert!(first < second);
        }
    }

    #[test]
    fn nothing_that_would_cover_an_enclosure_is_done_while_it_is_out(
        piece in any_piece(), choices in any_choices(), enclosed in any_enclosed(),
        ticked in prop::collection::vec(any::<bool>(), 80), most in any::<bool>(),
    ) {
        let Ok(mut rules) = rules().with(&choices) else { return refused() };
        rules.enclosed = Arc::new(enclosed);
        let catalogue = house().catalogue;
        let Ok(plan) = Plan::design(&piece, &rules, &catalogue) else { return refused() };
        let steps = pack_steps(&plan, &[&piece], &rules, &catalogue);
        // Either anything was ticked, or all but some of what goes in.
        let ticks: BTreeMap<String, StepTick> = steps
            .iter()
            .zip(ticked.iter().cycle())
            .filter(|(step, ticked)| **ticked || most && step.encloses.is_none())
            .map(|(step, _)| tick(step))
            .collect();
        let view = PackView::of(steps, &ticks);
        let mut out = None;
        for one in &view.steps {
            let covers = one.step.stage != Stage::Cut;
            prop_assert!(out.is_none() || !covers || one.state != StepState::Done, "{} with {out:?} out", one.step.key);
            if one.step.encloses.is_some() && one.state != StepState::Done {
                out = Some(&one.step.key);
            }
        }
    }

    #[test]
    fn what_goes_in_thickens_the_parcel_where_it_lies_and_weighs_what_it_weighs(
        piece in any_piece(), choices in any_choices(), catalogue in any_catalogue(), enclosed in any_enclosed(),
    ) {
        let Ok(bare) = rules().with(&choices) else { return refused() };
        let rules = HouseRules { enclosed: Arc::new(enclosed), ..bare };
        let Ok(plan) = Plan::design(&piece, &rules, &catalogue) else { return refused() };
        let papers = plan.layers.iter().filter(|layer| matches!(layer.make, Make::Enclosures(_)));
        let mass: f64 = papers.clone().map(|layer| layer.weight.mass.as_g()).sum();
        let listed: f64 = rules.enclosed.iter().map(|one| one.enclosure.mass.as_g()).sum();
        prop_assert!((mass - listed).abs() < 1e-6);
        let sum = |side: fn(&Addition) -> Length| -> f64 {
            papers.clone().map(|layer| side(&layer.adds).as_mm()).sum()
        };
        let thick = |places: &[EnclosurePlace]| -> f64 {
            let lies = rules.enclosed.iter().filter(|one| places.contains(&one.enclosure.place));
            lies.map(|one| one.enclosure.thickness.as_mm()).sum()
        };
        prop_assert_eq!(sum(|adds| adds.front) + sum(|adds| adds.left) + sum(|adds| adds.right), 0.0);
        use EnclosurePlace::{OnBack, OnFloor, OnTop, UnderLastWrap};
        if matches!(plan.carriage, Carriage::Flat | Carriage::Folio) {
            prop_assert!((sum(|adds| adds.back) - thick(&[OnBack, UnderLastWrap])).abs() < 1e-9);
            prop_assert!((sum(|adds| adds.bottom) - thick(&[OnFloor])).abs() < 1e-9);
            prop_assert!((sum(|adds| adds.top) - thick(&[OnTop])).abs() < 1e-9);
        }
    }

    #[test]
    fn a_step_is_done_only_where_all_that_it_lies_on_is(
        at in 0_usize..40, kept in subsequence((0..60_usize).collect::<Vec<_>>(), 0..60), wrong in 0_usize..60,
    ) {
        let all = everyday();
        let inputs = &all[at % all.len()].inputs;
        let Ok(Some(view)) = packing(inputs, &house()) else { return refused() };
        let steps: Vec<PackStep> = view.steps.into_iter().map(|one| one.step).collect();
        let mut ticks: BTreeMap<String, StepTick> = kept
            .iter()
            .filter_map(|at| steps.get(*at))
            .map(tick)
            .collect();
        // One of them was done as something else.
        if let Some(tick) = steps.get(wrong).and_then(|step| ticks.get_mut(&step.key)) {
            tick.print = "of another step".to_owned();
        }
        let view = PackView::of(steps.clone(), &ticks);
        let state = |key: &str| view.steps.iter().find(|one| one.step.key == key).map(|one| one.state);
        for one in &view.steps {
            let on: Vec<_> = one.step.waits_for.iter().filter_map(|key| {
                let cut = steps.iter().any(|step| step.key == *key && step.stage == Stage::Cut);
                (!cut).then(|| state(key))
            }).collect();
            let ticked = ticks.get(&one.step.key);
            let lies = on.iter().all(|state| *state == Some(StepState::Done));
            match one.state {
                StepState::Done => prop_assert!(lies && ticked.is_some_and(|tick| tick.print == one.step.print)),
                StepState::Touched => prop_assert!(ticked.is_some_and(|tick| !lies || tick.print != one.step.print)),
                StepState::Open | StepState::Waits => prop_assert!(ticked.is_none()),
            }
        }
        let done = view.steps.iter().filter(|one| one.state == StepState::Done).count();
        prop_assert_eq!(view.progress.done, done);
        prop_assert_eq!(view.next.is_none(), done == steps.len());
        // Whoever goes on by what is next gets to the end.
        for _ in 0..=steps.len() {
            let Some(next) = PackView::of(steps.clone(), &ticks).next else { break };
            let step = steps.iter().find(|step| step.key == next).expect("a step");
            ticks.extend([tick(step)]);
        }
        let view = PackView::of(steps.clone(), &ticks);
        prop_assert_eq!((view.next, view.progress.done), (None, steps.len()));
        prop_assert!(view.minutes_left.as_min().abs() < 1e-9);
    }
}

fn packed(inputs: &ShipmentInputs, until: &str) -> ShipmentInputs {
    let view = packing(inputs, &house()).expect("a plan").expect("a plan");
    let keys = view.steps.iter().map(|one| &one.step);
    let mut packed = BTreeMap::new();
    for step in keys {
        packed.extend([tick(step)]);
        if step.key == until {
            break;
        }
    }
    ShipmentInputs {
        packed,
        ..inputs.clone()
    }
}

#[test]
fn a_plan_that_changes_touches_what_is_laid_otherwise_and_all_over_it_but_nothing_under_it() {
    let canvas = everyday()
        .into_iter()
        .find(|each| each.name.contains("canvas"))
        .expect("a canvas");
    let mut inputs = packed(&canvas.inputs, "seal/box");
    let view = |inputs: &ShipmentInputs| packing(inputs, &house()).expect("it is").expect("a plan");
    assert_eq!(view(&inputs).progress.touched, 0);
    let worked = Workings::out(&inputs, &house()).expect("a plan");
    assert_eq!(worked.packed, Some(view(&inputs).progress));
    // A turn more of the first wrap: what is in it stays, and everything from there out comes off.
    inputs.choices.first_turns = Some(3);
    let touched = view(&inputs);
    let state = |key: &str| {
        let one = touched.steps.iter().find(|one| one.step.key == key);
        one.map(|one| one.state)
    };
    for (key, wanted) in [
        ("set_up/bench", StepState::Done),
        ("layer/contact", StepState::Done),
        ("layer/first_wrap", StepState::Touched),
        ("layer/box", StepState::Touched),
        ("seal/box", StepState::Touched),
        ("parcel/address", StepState::Waits),
    ] {
        assert_eq!(state(key), Some(wanted), "{key}");
    }
    // A layer that is no longer there has to come off.
    inputs.choices.first_turns = None;
    inputs.choices.layers.insert(LayerSlot::NameTag, false);
    assert_eq!(view(&inputs).gone, ["layer/name_tag"]);
    // A dearer sheet is the same sheet.
    let mut dearer = house();
    for board in &mut dearer.catalogue.boards {
        for sheet in &mut board.sheets {
            sheet.price += rust_decimal::Decimal::ONE;
        }
    }
    let mut usual = canvas.inputs;
    usual.choices.box_style = Some(hummock_core::house::CartonStyle::SlottedEdge);
    let same = packed(&usual, "seal/box");
    let view = packing(&same, &dearer).expect("it is").expect("a plan");
    assert_eq!(view.progress.touched, 0);
}

#[test]
fn the_certificate_is_in_before_the_wrap_and_the_box_waits_for_a_measure_where_the_house_wraps_first()
 {
    let mut canvas = everyday()
        .into_iter()
        .find(|each| each.name.contains("canvas"))
        .expect("a canvas")
        .inputs;
    canvas.piece.certificate = true;
    let keys = |inputs: &ShipmentInputs| -> Vec<String> {
        let view = packing(inputs, &house()).expect("it is").expect("a plan");
        view.steps.into_iter().map(|one| one.step.key).collect()
    };
    let wrap_first = keys(&canvas);
    let place = |keys: &[String], key: &str| keys.iter().position(|known| known == key);
    let certificate = place(&wrap_first, "papers/certificate").expect("it is asked");
    // Two wraps: it goes in before the one that hides it.
    assert!(Some(certificate) < place(&wrap_first, "layer/second_wrap"));
    let measure = place(&wrap_first, "measure/wrapped").expect("it is measured");
    let cut = wrap_first
        .iter()
        .position(|key| key.starts_with("cut_box/"));
    assert!(Some(measure) < cut);
    canvas.choices.schools.cutting = Some(hummock_core::house::CuttingRule::BoxFirst);
    let box_first = keys(&canvas);
    assert_eq!(place(&box_first, "measure/wrapped"), None);
    let cut = box_first.iter().position(|key| key.starts_with("cut_box/"));
    assert!(cut < place(&box_first, "layer/contact"));
}

#[test]
fn what_the_house_lists_goes_in_unless_the_shipment_says_otherwise() {
    // A canvas 500 × 700: its certificate, 1 mm and 25 g, lies behind under the wrap; a gift's card, 1 mm and 12 g, on top;
    // a hanging kit of its own, 12 mm and 60 g, on the floor. So it is 1 deeper and 1 + 12 taller than without.
    let house = house();
    let mut canvas = everyday()
        .into_iter()
        .find(|each| each.name == "canvas 500 by 700")
        .or_else(|| {
            everyday()
                .into_iter()
                .find(|each| each.name.starts_with("canvas"))
        })
        .expect("a canvas")
        .inputs;
    let wrapped = |inputs: &ShipmentInputs| {
        let plan = Workings::out(inputs, &house)
            .expect("a plan")
            .plan
            .expect("a plan");
        let inner = plan
            .layers
            .iter()
            .rfind(|layer| layer.slot < LayerSlot::Edges);
        let grams: f64 = plan
            .layers
            .iter()
            .filter(|layer| matches!(layer.make, Make::Enclosures(_)))
            .map(|layer| layer.weight.mass.as_g())
            .sum();
        (inner.expect("layers").envelope, grams)
    };
    let (before, none) = wrapped(&canvas);
    assert_eq!(none, 0.0);
    canvas.piece.certificate = true;
    canvas.gift = true;
    let kit = EnclosureInputs {
        kind: Some(EnclosureKind::HangingKit),
        ..EnclosureInputs::default()
    };
    canvas.enclosures.insert("kit".to_owned(), kit);
    let (after, grams) = wrapped(&canvas);
    let more = |after: Length, before: Length| ((after - before).as_mm() * 1e6).round() / 1e6;
    assert_eq!(
        (
            more(after.across, before.across),
            more(after.up, before.up),
            more(after.through, before.through)
        ),
        (0.0, 13.0, 1.0)
    );
    assert_eq!(grams, 97.0);
    // The card stays out, the certificate goes on the back and is thicker.
    let out = EnclosureInputs {
        left_out: true,
        ..EnclosureInputs::default()
    };
    canvas.enclosures.insert("gift-card".to_owned(), out);
    let thicker = EnclosureInputs {
        place: Some(EnclosurePlace::OnBack),
        thickness: Some("2.5 mm".to_owned()),
        ..EnclosureInputs::default()
    };
    canvas.enclosures.insert("certificate".to_owned(), thicker);
    let (after, grams) = wrapped(&canvas);
    assert_eq!((more(after.up, before.up), grams), (12.0, 85.0));
    assert_eq!(more(after.through, before.through), 2.5);
    // Something hard behind would dent the canvas.
    let kit = canvas.enclosures.get_mut("kit").expect("it is there");
    kit.place = Some(EnclosurePlace::UnderLastWrap);
    let refused = Workings::out(&canvas, &house).expect_err("it is hard");
    assert_eq!(refused[0].field, "enclosures.kit.place");
}

#[test]
fn a_telescope_is_pushed_together_to_the_length_of_the_plan_and_its_own_is_typed() {
    let mut canvas = everyday()
        .into_iter()
        .find(|each| each.name.contains("canvas"))
        .expect("a canvas")
        .inputs;
    canvas.choices.box_style = Some(hummock_core::house::CartonStyle::Telescope);
    let closing = |inputs: &ShipmentInputs| {
        let view = packing(inputs, &house()).expect("it is").expect("a plan");
        let close = view
            .steps
            .into_iter()
            .find(|one| one.step.key == "close/box");
        close.expect("it is closed").step
    };
    let plan = Workings::out(&canvas, &house())
        .expect("a plan")
        .plan
        .expect("a plan");
    let carton = plan
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::Box)
        .expect("a box");
    let long = carton.envelope.long_side().as_mm().round();
    let close = closing(&canvas);
    let told = close.says.join(" ");
    assert!(told.contains("until it presses on the fill"), "{told}");
    assert!(
        told.contains(&format!("{long}\u{a0}mm is planned")),
        "{told}"
    );
    assert_eq!(close.types.len(), 1, "{:?}", close.types);
    canvas.choices.box_style = Some(hummock_core::house::CartonStyle::SlottedEdge);
    assert!(closing(&canvas).types.is_empty());
}
