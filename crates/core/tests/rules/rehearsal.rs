//! The rehearsal: lists that can be packed play to their end, and lists that were spoiled on purpose are found by the rule that they break.

use std::{
    collections::{BTreeMap, BTreeSet},
    env, fs, iter,
    path::Path,
    sync::Arc,
};

use hummock_core::{
    act::{Act, Does, Filled, Lifted, Pose, Reached, Thing},
    house::Choices,
    pack::{PackStep, Stage, pack_steps},
    part::{PartId, StripId, Take},
    piece::Piece,
    plan::Plan,
    quantity::{Length, Mass},
    rehearsal::{Broken, Rehearsal, Rule},
    shipment::{ShipmentInputs, Workings, refused_by_hands, rehearsed},
    space::LayerSlot,
    ways::alternatives,
};
use proptest::{
    prelude::*,
    strategy::ValueTree,
    test_runner::{RngAlgorithm, TestRng, TestRunner},
};
use serde_json::{Value, json};

use crate::{
    benches::benches,
    containers::house_with_kits,
    pack::any_enclosed,
    studio::{any_catalogue, any_choices, any_piece, everyday, house, rules},
};

/// A list with what hands have to know to play it.
struct List {
    /// What is packed, as `stretched_canvas flat`.
    kind: String,
    pieces: Vec<Piece>,
    steps: Vec<PackStep>,
}

impl List {
    fn new(plan: &Plan, pieces: &[&Piece], steps: Vec<PackStep>) -> Self {
        let written = |value| serde_json::to_value(value).expect("it can be written");
        let what = match pieces {
            [piece] => written(json!(piece.construction)),
            _ => json!("several"),
        };
        let carriage = written(json!(plan.carriage));
        let text = |value: &Value| value.as_str().expect("a key").to_owned();
        Self {
            kind: format!("{} {}", text(&what), text(&carriage)),
            pieces: pieces.iter().copied().cloned().collect(),
            steps,
        }
    }

    fn of(inputs: &ShipmentInputs) -> Self {
        let house = house_with_kits();
        let worked = Workings::out(inputs, &house).expect("it can be worked out");
        let plan = worked.plan.expect("a plan");
        let list = rehearsed(&plan, inputs, &house).expect("it can be packed");
        let pieces: Vec<&Piece> = list.pieces.iter().collect();
        Self::new(&plan, &pieces, list.steps)
    }

    fn breaks(&self) -> Vec<Broken> {
        let pieces: Vec<&Piece> = self.pieces.iter().collect();
        Rehearsal::of(&self.steps, &pieces).breaks
    }
}

/// The list of one of the packings that are read aloud.
fn list(name: &str) -> List {
    let bench = benches().into_iter().find(|bench| bench.name == name);
    let bench = bench.unwrap_or_else(|| panic!("{name} is read aloud"));
    List::of(&bench.inputs)
}

/// A break that is known: a kind of plan that is still to be mended.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
struct Known {
    rule: String,
    kind: String,
    /// Its key, of one piece of several without which.
    step: String,
}

impl Known {
    fn of(broken: &Broken, kind: &str) -> Self {
        let own = broken.step.strip_prefix("piece/");
        let own = own.and_then(|rest| rest.split_once('/'));
        Self {
            rule: broken.rule.key().to_owned(),
            kind: kind.to_owned(),
            step: own.map_or(broken.step.as_str(), |(_, own)| own).to_owned(),
        }
    }
}

const KNOWN: &str = "testdata/rehearsal/known.csv";

fn known() -> BTreeSet<Known> {
    let file = Path::new(env!("CARGO_MANIFEST_DIR")).join(KNOWN);
    let list = fs::read_to_string(file).expect("the list of known breaks");
    let fields = |line: &str| {
        let [rule, kind, step] = line
            .split(',')
            .map(str::to_owned)
            .collect::<Vec<_>>()
            .try_into()
            .expect("three fields");
        Known { rule, kind, step }
    };
    list.lines().skip(1).map(fields).collect()
}

/// What hands have packed, and what is read aloud.
fn proven() -> Vec<(String, List)> {
    let aloud = benches()
        .into_iter()
        .map(|bench| (bench.name.to_owned(), bench.inputs));
    let everyday = everyday().into_iter().map(|each| (each.name, each.inputs));
    aloud
        .chain(everyday)
        .map(|(name, inputs)| (name, List::of(&inputs)))
        .collect()
}

/// So many plans are drawn, and with `bin/test --deep`.
const DRAWN: usize = 200;
const DRAWN_DEEP: usize = 5000;

fn is_deep() -> bool {
    let cases = env::var("PROPTEST_CASES").ok();
    cases.is_some_and(|cases| cases.parse().is_ok_and(|cases: u32| cases > 64))
}

/// Lists of drawn plans, always the same ones in the same order.
fn drawn(count: usize) -> impl Iterator<Item = List> {
    let all = (any_piece(), any_choices(), any_catalogue(), any_enclosed());
    let seed = TestRng::from_seed(RngAlgorithm::ChaCha, &[12; 32]);
    let mut runner = TestRunner::new_with_rng(ProptestConfig::default(), seed);
    let lists = iter::repeat_with(move || {
        let tree = all.new_tree(&mut runner).expect("something is drawn");
        let (piece, choices, catalogue, enclosed) = tree.current();
        let mut rules = rules().with(&choices).ok()?;
        rules.enclosed = Arc::new(enclosed);
        let plan = Plan::design(&piece, &rules, &catalogue).ok()?;
        let steps = pack_steps(&plan, &[&piece], &rules, &catalogue);
        Some(List::new(&plan, &[&piece], steps))
    });
    lists.flatten().take(count)
}

/// It kills: a false alarm, a sentence about a part that nobody cut, a part that is cut for nothing, tape that no sentence lays, a piece
/// that nothing holds as it is turned. Of 5,000 drawn plans the 200 are the first; with all of them a line that is known and breaks
/// nowhere any more is told, too.
#[test]
fn every_list_plays_to_its_end() {
    let listed = known();
    let deep = is_deep();
    let mut found: BTreeMap<Known, (usize, String)> = BTreeMap::new();
    let count = if deep { DRAWN_DEEP } else { DRAWN };
    let named = (1..).map(|at| format!("drawn {at}")).zip(drawn(count));
    for (name, list) in proven().into_iter().chain(named) {
        for broken in list.breaks() {
            let told = || (0, format!("{name}, {}: {broken}", broken.step));
            found
                .entry(Known::of(&broken, &list.kind))
                .or_insert_with(told)
                .0 += 1;
        }
        for step in &list.steps {
            let said: Vec<&str> = step.acts.iter().map(|act| act.says.as_str()).collect();
            assert_eq!(step.says, said, "{} says what no act does", step.key);
        }
    }
    if env::var_os("HUMMOCK_WRITE").is_some() {
        let lines = found
            .keys()
            .map(|known| format!("{},{},{}\n", known.rule, known.kind, known.step));
        let all: String = iter::once("rule,kind,step\n".to_owned())
            .chain(lines)
            .collect();
        let file = Path::new(env!("CARGO_MANIFEST_DIR")).join(KNOWN);
        fs::write(file, all).expect("the list is written");
    }
    let counts = found
        .iter()
        .map(|(known, (count, _))| format!("{count} × {known:?}"));
    println!("{}", counts.collect::<Vec<_>>().join("\n"));
    let new = found.iter().filter(|(known, _)| !listed.contains(known));
    let new: Vec<&str> = new.map(|(_, (_, told))| told.as_str()).collect();
    assert!(new.is_empty(), "{}", new.join("\n"));
    let gone: Vec<&Known> = listed
        .iter()
        .filter(|known| deep && !found.contains_key(known))
        .collect();
    assert!(gone.is_empty(), "these break nowhere any more: {gone:?}");
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

/// The step that tapes boards over their edges.
fn spanning(steps: &mut [PackStep]) -> &mut PackStep {
    let spans = |step: &&mut PackStep| step.acts.iter().any(|act| act.spans.is_some());
    steps.iter_mut().find(spans).expect("boards are taped")
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

/// The first act that lifts something into a box.
fn lifted(steps: &mut [PackStep]) -> &mut Lifted {
    let mut acts = steps.iter_mut().flat_map(|step| &mut step.acts);
    acts.find_map(|act| act.lifts.as_mut())
        .expect("something is lifted")
}

fn longer(steps: &mut [PackStep], by: f64) {
    let drives = &mut screwed(steps).drives;
    let driven = drives.as_mut().expect("screws");
    driven.screw += Length::mm(by);
    driven.stop += Length::mm(by);
}

/// Lists, each spoiled in one way, with the rule that finds it.
const SPOILED: [(&str, Rule, Spoils); 56] = [
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
    // Lifted too high for what it weighs, and loose fill where nothing holds it.
    ("canvas-edge-box", Rule::Loads, |steps| {
        let lifts = lifted(steps);
        (lifts.mass, lifts.over) = (Mass::kg(23.0), Length::mm(1120.0));
    }),
    ("mirror-set-of-four", Rule::Loads, |steps| {
        let lifts = lifted(steps);
        (lifts.mass, lifts.over) = (Mass::kg(10.1), Length::mm(501.0));
    }),
    ("canvas-edge-box", Rule::Fills, |steps| {
        let filled = Some(Filled {
            gap: Length::mm(30.0),
            loose: true,
        });
        laid(steps).acts[0].fills = filled;
    }),
    ("panel-folder", Rule::Fills, |steps| {
        let filled = Some(Filled {
            gap: Length::mm(6.0),
            loose: true,
        });
        let load = at(steps, "in/box");
        steps[load].acts[0].fills = filled;
    }),
    // Strips too short for what they go over.
    ("canvas-edge-box", Rule::Spans, |steps| {
        let length = &mut spanning(steps).strips[0].length;
        *length = *length - Length::mm(80.0);
    }),
    ("gilded-frame", Rule::Spans, |steps| {
        let step = spanning(steps);
        for act in &mut step.acts {
            act.spans = act.spans.map(|way| way + Length::mm(80.0));
        }
    }),
    // Boards that nothing binds, and boards that are turned before anything does.
    ("canvas-edge-box", Rule::Held, |steps| {
        let step = spanning(steps);
        step.strips.clear();
        step.acts.retain(|act| act.strips.is_empty());
    }),
    ("panel-folder", Rule::Held, |steps| {
        let step = spanning(steps);
        let tape = step.acts.iter_mut().find(|act| act.spans.is_some());
        tape.expect("tape").lies = Some(Pose::Standing);
    }),
    // Paint that lies on the bench, and a board that nothing keeps off a pastel.
    ("canvas-edge-box", Rule::Faces, |steps| {
        let contact = at(steps, "layer/contact");
        steps[contact].acts[0].at = None;
    }),
    ("pastel", Rule::Faces, |steps| {
        for act in steps.iter_mut().flat_map(|step| &mut step.acts) {
            act.keeps_off = None;
        }
    }),
    // A hand that holds the boards and tapes them.
    ("canvas-edge-box", Rule::Hands, |steps| {
        let step = spanning(steps);
        let mut held = step.acts[1].clone();
        held.does = Does::Hold;
        step.acts.insert(2, held);
    }),
    // Glue that is given no time.
    ("case-glazed", Rule::Times, |steps| {
        screwed(steps).does = Does::Glue;
    }),
    // Fill that nobody puts in, a pad at the far end of a deep box, a mouth that takes no hand.
    ("canvas-edge-box", Rule::Room, |steps| {
        for act in steps.iter_mut().flat_map(|step| &mut step.acts) {
            act.fills = None;
        }
    }),
    ("canvas-edge-box", Rule::Reach, |steps| {
        let load = at(steps, "in/box");
        steps[load].acts[0].reaches = Some(Reached {
            deep: Length::mm(610.0),
            mouth: [Length::mm(700.0), Length::mm(100.0)],
        });
    }),
    ("canvas-edge-box", Rule::Reach, |steps| {
        let load = at(steps, "in/box");
        steps[load].acts[0].reaches = Some(Reached {
            deep: Length::mm(300.0),
            mouth: [Length::mm(700.0), Length::mm(55.0)],
        });
    }),
    // Paper that asks for a keyboard.
    ("print-mailer", Rule::Paper, |steps| {
        let weigh = at(steps, "parcel/weigh");
        steps[weigh].acts[0].says = "Type the weight, then type the sides.".to_owned();
    }),
];

/// It kills: a rule that looks away, and a break that is told of another rule.
#[test]
fn lists_that_were_spoiled_are_found_by_the_rule_that_they_break() {
    let missed: Vec<String> = SPOILED
        .into_iter()
        .enumerate()
        .filter_map(|(at, (name, rule, spoil))| {
            let mut list = list(name);
            let before = list.breaks();
            spoil(&mut list.steps);
            let after = list.breaks();
            match after.iter().find(|broken| !before.contains(broken)) {
                None => Some(format!("{at}: {name} was spoiled, and plays to its end")),
                Some(broken) if broken.rule == rule => None,
                Some(broken) => Some(format!("{at}: {name}: {broken} at {}", broken.step)),
            }
        })
        .collect();
    assert!(missed.is_empty(), "{}", missed.join("\n"));
}

fn chosen(inputs: &ShipmentInputs, choices: &Choices) -> ShipmentInputs {
    ShipmentInputs {
        choices: inputs.choices.patched(choices),
        ..inputs.clone()
    }
}

/// It kills: an offer that is refused as it is taken.
#[test]
fn what_is_offered_is_not_refused() {
    let house = house();
    let mut taken = 0;
    let mut refused = Vec::new();
    for each in everyday().into_iter().step_by(6) {
        for slot in LayerSlot::ALL {
            for offer in alternatives(&each.inputs, &house, slot).expect(&each.name) {
                if offer.change.is_none() {
                    continue;
                }
                let then = chosen(&each.inputs, &offer.choices);
                let worked = Workings::out(&then, &house).expect("it can be worked out");
                let plan = worked.plan.as_ref();
                let found = refused_by_hands(&each.inputs, (&then, plan), &house);
                let told = found
                    .iter()
                    .map(|refusal| format!("{}, {slot:?}, {}: {refusal}", each.name, offer.label));
                refused.extend(told);
                taken += 1;
            }
        }
    }
    assert!(taken > 400, "{taken}");
    assert!(refused.is_empty(), "{}", refused.join("\n"));
}

/// A canvas with 25 of loose fill at its edges takes 12 as well; 6 are too narrow, and 10 is the nearest that is not. It kills: a check
/// of previews instead of what is stored, a refusal of what broke before, a nearest length that can't be packed either.
#[test]
fn a_gap_too_narrow_for_its_fill_is_refused_with_the_nearest_that_is_not() {
    let house = house();
    let mut all = everyday().into_iter();
    let canvas = all
        .find(|each| each.name == "canvas 400 by 500")
        .expect("it is in the file");
    let with = |clearance: &str| {
        chosen(
            &canvas.inputs,
            &Choices {
                clearance: Some(clearance.to_owned()),
                ..Choices::default()
            },
        )
    };
    let told = |before: &ShipmentInputs, after: &ShipmentInputs| {
        let worked = Workings::out(after, &house).expect("it can be worked out");
        refused_by_hands(before, (after, worked.plan.as_ref()), &house)
    };
    let [wide, narrow, narrower] = ["12 mm", "6 mm", "5 mm"].map(with);
    assert_eq!(told(&canvas.inputs, &wide), []);
    let refused = told(&canvas.inputs, &narrow);
    let [refusal] = refused.as_slice() else {
        panic!("{refused:?}");
    };
    assert_eq!(refusal.field, "choices.clearance");
    let says = "The nearest that can be packed is 10\u{a0}mm.";
    assert!(refusal.message.contains(says), "{refusal}");
    // It stood there already, and another one breaks nothing more.
    assert_eq!(told(&narrow, &narrower), []);
    assert_eq!(told(&narrow, &narrow), []);
}
