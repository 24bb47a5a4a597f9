//! Laws of packing: every layer and every cut once, nothing before what it needs, and what a changed plan touches.

use std::collections::{BTreeMap, BTreeSet};

use hummock_core::{
    pack::{PackStep, PackView, Stage, StepState, pack_steps},
    part::{Part, Take},
    plan::Plan,
    shipment::{ShipmentInputs, StepTick, Worked, packing},
    space::LayerSlot,
};
use proptest::{prelude::*, sample::subsequence};

use crate::studio::{any_catalogue, any_choices, any_piece, everyday, house, rules};

fn tick(step: &PackStep) -> (String, StepTick) {
    let tick = StepTick {
        at: "2027-03-04T10:15:00Z".to_owned(),
        print: step.print.clone(),
    };
    (step.key.clone(), tick)
}

/// A part as it is told apart from others: prices don't matter.
fn cut_of(part: &Part) -> String {
    format!(
        "{} {} {:?} {:?}",
        part.name,
        part.material.as_str(),
        part.count,
        part.take
    )
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    #[test]
    fn every_layer_is_laid_and_every_part_is_cut_once_and_nothing_before_what_it_needs(
        piece in any_piece(), choices in any_choices(), catalogue in any_catalogue(),
    ) {
        let Ok(rules) = rules().with(&choices) else { return Ok(()) };
        let Ok(plan) = Plan::design(&piece, &rules, &catalogue) else { return Ok(()) };
        let steps = pack_steps(&plan, &piece, &rules, &catalogue);
        let keys: Vec<&str> = steps.iter().map(|step| step.key.as_str()).collect();
        prop_assert_eq!(keys.iter().collect::<BTreeSet<_>>().len(), keys.len(), "{:?}", keys);
        let mut laid: Vec<LayerSlot> = steps.iter().filter_map(|step| step.layer).collect();
        laid.sort_unstable();
        let mut layers: Vec<LayerSlot> = plan.layers.iter().map(|layer| layer.slot).collect();
        layers.sort_unstable();
        prop_assert_eq!(laid, layers);
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
        if let (Some(fill), Some(close)) = (place("layer/fill"), place("close/box")) {
            prop_assert!(place("layer/box") < Some(fill) && fill < close);
        }
        if let (Some(first), Some(second)) = (place("seal/box"), place("layer/second_box")) {
            prop_assert!(first < second);
        }
    }

    #[test]
    fn a_step_is_done_only_where_all_that_it_lies_on_is(
        at in 0_usize..40, kept in subsequence((0..60_usize).collect::<Vec<_>>(), 0..60), wrong in 0_usize..60,
    ) {
        let all = everyday();
        let inputs = &all[at % all.len()].inputs;
        let Ok(Some(view)) = packing(inputs, &house()) else { return Ok(()) };
        let steps: Vec<PackStep> = view.steps.into_iter().map(|one| one.step).collect();
        let mut ticks: BTreeMap<String, StepTick> = kept
            .iter()
            .filter_map(|at| steps.get(*at))
            .map(tick)
            .collect();
        // One of them was done as something else.
        if let Some(tick) = steps.get(wrong).and_then(|step| ticks.get_mut(&step.key)) {
            tick.print = "another".to_owned();
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
    let worked = Worked::out(&inputs, &house()).expect("a plan");
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
    usual.choices.box_style = Some(hummock_core::carton::CartonStyle::SlottedEdge);
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
    assert!(Some(certificate) < place(&wrap_first, "layer/first_wrap"));
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
