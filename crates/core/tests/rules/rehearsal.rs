//! The rehearsal: lists that can be packed play to their end, and lists that were spoiled on purpose are found by the rule that they break.

use std::sync::Arc;

use hummock_core::{
    act::{Act, Does, Thing},
    pack::{PackStep, Stage, pack_steps},
    part::{PartId, StripId, Take},
    plan::Plan,
    quantity::Length,
    rehearsal::{Rule, rehearse},
    shipment::{ShipmentInputs, packing},
};
use proptest::prelude::*;

use crate::{
    benches::benches,
    containers::house_with_kits,
    pack::any_enclosed,
    studio::{any_catalogue, any_choices, any_piece, everyday, refused, rules},
};

fn steps_of(inputs: &ShipmentInputs) -> Vec<PackStep> {
    let view = packing(inputs, &house_with_kits()).expect("it can be packed");
    let steps = view.expect("a plan").steps;
    steps.into_iter().map(|one| one.step).collect()
}

/// The steps of one of the packings that are read aloud.
fn list(name: &str) -> Vec<PackStep> {
    let bench = benches().into_iter().find(|bench| bench.name == name);
    let inputs = bench
        .unwrap_or_else(|| panic!("{name} is read aloud"))
        .inputs;
    steps_of(&inputs)
}

/// It kills: a false alarm. What hands have packed plays to its end.
#[test]
fn every_packing_that_was_read_aloud_plays_to_its_end() {
    let aloud = benches()
        .into_iter()
        .map(|bench| (bench.name.to_owned(), bench.inputs));
    let everyday = everyday().into_iter().map(|each| (each.name, each.inputs));
    let broken: Vec<String> = aloud
        .chain(everyday)
        .filter_map(|(name, inputs)| {
            let broken = rehearse(&steps_of(&inputs)).err()?;
            Some(format!("{name}, {}: {broken}", broken.step))
        })
        .collect();
    assert!(broken.is_empty(), "{}", broken.join("\n"));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    /// It kills: a sentence about a part that nobody cut, a part that is cut for nothing, tape that no sentence lays.
    #[test]
    fn every_drawn_list_plays_to_its_end(
        piece in any_piece(), choices in any_choices(), catalogue in any_catalogue(), enclosed in any_enclosed(),
    ) {
        let Ok(mut rules) = rules().with(&choices) else { return refused() };
        rules.enclosed = Arc::new(enclosed);
        let Ok(plan) = Plan::design(&piece, &rules, &catalogue) else { return refused() };
        let steps = pack_steps(&plan, &[&piece], &rules, &catalogue);
        prop_assert_eq!(rehearse(&steps), Ok(()));
        for step in &steps {
            let said: Vec<&str> = step.acts.iter().map(|act| act.says.as_str()).collect();
            prop_assert_eq!(&step.says, &said, "{} says what no act does", &step.key);
        }
    }
}

/// What is done to a list so that hands can't follow it any more.
type Spoils = fn(&mut Vec<PackStep>);

fn at(steps: &[PackStep], key: &str) -> usize {
    let found = steps.iter().position(|step| step.key == key);
    found.unwrap_or_else(|| panic!("{key} is a step"))
}

/// The same, of a list that doesn't say what waits for what.
fn moved_unnoticed(steps: &mut Vec<PackStep>, key: &str, after: &str) {
    for step in steps.iter_mut() {
        step.waits_for.clear();
        step.covers.clear();
    }
    moved(steps, key, after);
}

fn moved(steps: &mut Vec<PackStep>, key: &str, after: &str) {
    let step = steps.remove(at(steps, key));
    let place = at(steps, after);
    steps.insert(place + 1, step);
}

/// The first step that lays something with tape of its own.
fn taped(steps: &mut [PackStep]) -> &mut PackStep {
    let found = steps.iter_mut().find(|step| !step.strips.is_empty());
    found.expect("something is taped")
}

/// The first step that lays a part that is cut.
fn laid(steps: &mut [PackStep]) -> &mut PackStep {
    let cut = |step: &&mut PackStep| {
        let pieces = step
            .parts
            .iter()
            .filter(|part| matches!(part.take, Take::Piece { .. }));
        step.stage == Stage::Wrap && pieces.count() > 0
    };
    steps.iter_mut().find(cut).expect("something cut is laid")
}

/// The first act that drives screws.
fn screwed(steps: &mut [PackStep]) -> &mut Act {
    let mut acts = steps.iter_mut().flat_map(|step| &mut step.acts);
    let thin = Length::mm(30.0);
    acts.find(|act| act.drives.is_some_and(|driven| driven.into <= thin))
        .expect("something is screwed")
}

fn longer(steps: &mut [PackStep], by: f64) {
    let drives = &mut screwed(steps).drives;
    let driven = drives.as_mut().expect("screws");
    driven.screw += Length::mm(by);
    driven.stop += Length::mm(by);
}

/// Forty lists, each spoiled in one way, with the rule that finds it.
const SPOILED: [(&str, Rule, Spoils); 40] = [
    // What was never cut, or is cut for nothing.
    ("canvas-edge-box", Rule::Nouns, |steps| {
        steps.retain(|step| step.stage != Stage::Cut)
    }),
    ("frame-tray-and-lid", Rule::Nouns, |steps| {
        steps.retain(|step| !step.key.starts_with("cut_box/"))
    }),
    ("panel-folder", Rule::Nouns, |steps| {
        steps.retain(|step| step.key != "layer/face_boards")
    }),
    ("gilded-frame", Rule::Nouns, |steps| {
        steps.retain(|step| step.key != "layer/contact")
    }),
    ("print-mailer", Rule::Nouns, |steps| {
        steps.retain(|step| step.key != "layer/folio")
    }),
    ("canvas-twice-boxed", Rule::Nouns, |steps| {
        steps.retain(|step| step.key != "layer/second_wrap")
    }),
    // Laid before it is cut.
    ("canvas-edge-box", Rule::Nouns, |steps| {
        let cut = steps
            .iter()
            .position(|step| step.stage == Stage::Cut)
            .expect("a cut");
        let step = steps.remove(cut);
        steps.push(step);
    }),
    ("mirror-set-of-four", Rule::Nouns, |steps| {
        let cut = steps
            .iter()
            .rposition(|step| step.stage == Stage::Cut)
            .expect("a cut");
        let step = steps.remove(cut);
        steps.push(step);
    }),
    // Used twice, counted wrong, another size.
    ("canvas-edge-box", Rule::Nouns, |steps| {
        let mut again = laid(steps).clone();
        let place = at(steps, &again.key);
        again.key = "layer/again".to_owned();
        steps.insert(place + 1, again);
    }),
    ("panel-folder", Rule::Nouns, |steps| {
        laid(steps).parts[0].count += 1
    }),
    ("pastel", Rule::Nouns, |steps| {
        let parts = &mut laid(steps).parts;
        if let Take::Piece { width_mm, .. } = &mut parts[0].take {
            *width_mm += Length::mm(10.0);
        }
    }),
    ("three-pieces", Rule::Nouns, |steps| {
        let parts = laid(steps).parts.clone();
        let last = steps
            .iter_mut()
            .rfind(|step| step.stage == Stage::Wrap)
            .expect("a wrap");
        last.parts.extend(parts);
    }),
    // A sentence about what is not there, and a part that no sentence is about.
    ("canvas-edge-box", Rule::Nouns, |steps| {
        laid(steps).acts[0].thing = Thing::Part(PartId::BarBeside);
    }),
    ("round-mirror", Rule::Nouns, |steps| {
        laid(steps).acts[0].to = Some(Thing::Part(PartId::Skirt));
    }),
    ("oil-tube", Rule::Nouns, |steps| {
        let step = steps
            .iter_mut()
            .find(|step| step.stage == Stage::Wrap && !step.acts.is_empty());
        step.expect("a wrap").acts[0].thing = Thing::Part(PartId::EdgePad);
    }),
    ("gilded-frame", Rule::Nouns, |steps| {
        let step = steps
            .iter_mut()
            .find(|step| step.key == "layer/contact")
            .expect("a sheet");
        for act in &mut step.acts {
            act.thing = Thing::Piece;
        }
    }),
    ("print-sandwich", Rule::Nouns, |steps| {
        let step = steps
            .iter_mut()
            .find(|step| step.stage == Stage::Look)
            .expect("a look");
        step.acts[0].thing = Thing::Part(PartId::Board);
    }),
    // Tape: an act that lays none, one that lays it again, one that was never torn, strips without an act.
    ("canvas-edge-box", Rule::Strips, |steps| {
        for act in &mut taped(steps).acts {
            act.strips.clear();
        }
    }),
    ("frame-tray-and-lid", Rule::Strips, |steps| {
        let step = taped(steps);
        let again = step
            .acts
            .iter()
            .find(|act| !act.strips.is_empty())
            .expect("tape")
            .clone();
        step.acts.push(again);
    }),
    ("panel-folder", Rule::Strips, |steps| {
        taped(steps).acts[0].strips.push(StripId::AroundEachCap)
    }),
    ("pastel", Rule::Strips, |steps| taped(steps).strips.clear()),
    ("mirror-set-of-two", Rule::Strips, |steps| {
        let step = steps
            .iter_mut()
            .find(|step| step.key == "seal/box")
            .expect("a seal");
        step.strips.truncate(step.strips.len() - 1);
    }),
    ("tall-canvas-telescope", Rule::Strips, |steps| {
        let step = steps
            .iter_mut()
            .find(|step| step.key == "layer/box")
            .expect("a box");
        step.acts.retain(|act| act.strips.is_empty());
    }),
    ("canvas-two-mailers", Rule::Strips, |steps| {
        let step = steps
            .iter_mut()
            .rfind(|step| !step.strips.is_empty())
            .expect("tape");
        step.acts
            .iter_mut()
            .for_each(|act| act.does = Does::CutOpen);
    }),
    ("round-mirror", Rule::Strips, |steps| {
        taped(steps).strips[0].count = 0
    }),
    // Screws: one that comes out, one that hardly holds, a hole as deep as it.
    ("case-glazed", Rule::Points, |steps| longer(steps, 18.0)),
    ("case-canvas", Rule::Points, |steps| longer(steps, 20.0)),
    ("case-glazed", Rule::Points, |steps| longer(steps, -3.0)),
    ("case-canvas", Rule::Points, |steps| {
        let drives = screwed(steps).drives.as_mut().expect("screws");
        drives.stop = drives.screw;
    }),
    // Boxes: loaded before they stand, closed before they are loaded, sealed before they are closed, left open, made twice.
    ("canvas-edge-box", Rule::Boxes, |steps| {
        moved_unnoticed(steps, "layer/box", "in/box")
    }),
    ("frame-tray-and-lid", Rule::Boxes, |steps| {
        moved_unnoticed(steps, "in/box", "close/box")
    }),
    ("mirror-set-of-four", Rule::Boxes, |steps| {
        moved_unnoticed(steps, "close/box", "seal/box")
    }),
    ("canvas-edge-box", Rule::Boxes, |steps| {
        steps.retain(|step| step.key != "close/box")
    }),
    ("case-glazed", Rule::Boxes, |steps| {
        steps.retain(|step| step.key != "close/box")
    }),
    ("canvas-twice-boxed", Rule::Boxes, |steps| {
        let again = steps[at(steps, "in/second_box")].clone();
        let place = at(steps, "close/second_box");
        steps.insert(place + 1, again);
    }),
    ("mirror-set-of-two", Rule::Boxes, |steps| {
        steps.retain(|step| step.key != "in/box")
    }),
    // What is covered already, and what lies on something that is not there.
    ("canvas-edge-box", Rule::Reach, |steps| {
        moved(steps, "layer/contact", "layer/first_wrap")
    }),
    ("panel-folder", Rule::Reach, |steps| {
        moved(steps, "layer/corners", "layer/first_wrap")
    }),
    ("gilded-frame", Rule::Reach, |steps| {
        moved(steps, "look/photographs", "layer/first_wrap")
    }),
    ("canvas-twice-boxed", Rule::Reach, |steps| {
        moved(steps, "layer/corners", "layer/second_wrap")
    }),
];

/// It kills: a rule that looks away, and a break that is told of another rule.
#[test]
fn forty_lists_that_were_spoiled_are_found_by_the_rule_that_they_break() {
    let missed: Vec<String> = SPOILED
        .into_iter()
        .enumerate()
        .filter_map(|(at, (name, rule, spoil))| {
            let mut steps = list(name);
            spoil(&mut steps);
            match rehearse(&steps) {
                Ok(()) => Some(format!("{at}: {name} was spoiled, and plays to its end")),
                Err(broken) if broken.rule == rule => None,
                Err(broken) => Some(format!("{at}: {name}: {broken} at {}", broken.step)),
            }
        })
        .collect();
    assert!(missed.is_empty(), "{}", missed.join("\n"));
}
