use jiff::civil::date;

use super::*;
use crate::{
    piece::{Condition, Medium},
    shipment::{House, Workings},
};

pub(in crate::shipment) fn house() -> House {
    House {
        rules: serde_json::from_str(include_str!("../../../../../demo/house-rules.json"))
            .expect("rules"),
        catalogue: serde_json::from_str(include_str!("../../../../../demo/catalogue.json"))
            .expect("a catalogue"),
        tariffs: vec![
            serde_json::from_str(include_str!("../../../../../demo/tariffs/gannet-post.json"))
                .expect("a tariff"),
        ],
        presets: Vec::new(),
        references: std::sync::Arc::default(),
        now: None,
    }
}

pub(in crate::shipment) fn small_canvas() -> ShipmentInputs {
    serde_json::from_value(serde_json::json!({
        "title": "Slack Tide",
        "buyer": { "name": "Oda Marsh", "postcode": "TB1", "country": "XS" },
        "piece": {
            "construction": "stretched_canvas", "medium": "acrylic", "finished": "2026-10-01",
            "width": "400 mm", "height": "500 mm", "depth": "18 mm"
        }
    }))
    .expect("inputs")
}

fn line(inputs: &ShipmentInputs) -> WorkLine {
    let worked = Workings::out(inputs, &house()).expect("it works out");
    WorkLine::on(date(2026, 11, 23), inputs, worked.summary(inputs).as_ref())
}

fn is_about_to_be_packed(inputs: &ShipmentInputs) -> bool {
    let worked = Workings::out(inputs, &house()).expect("it works out");
    line(inputs).is_about_to_be_packed(worked.summary(inputs).as_ref())
}

/// The ticks of some steps.
fn ticked(
    inputs: &ShipmentInputs,
    of: impl Fn(&crate::pack::PackStep) -> bool,
) -> std::collections::BTreeMap<String, crate::pack::StepTick> {
    let view = crate::shipment::packing(inputs, &house()).expect("it works out");
    let steps = view.expect("steps").steps.into_iter().map(|one| one.step);
    steps
        .filter(of)
        .map(|step| {
            let tick = crate::pack::StepTick {
                at: "2026-11-23T10:00:00Z".to_owned(),
                print: step.print,
                sheet: String::new(),
            };
            (step.key, tick)
        })
        .collect()
}

fn fingerprint(inputs: &ShipmentInputs) -> Option<String> {
    Workings::out(inputs, &house())
        .expect("it works out")
        .fingerprint
}

#[test]
fn each_thing_settled_leads_to_the_next() {
    let mut inputs = ShipmentInputs::default();
    assert_eq!(line(&inputs).next, NextAct::Measure);
    inputs = small_canvas();
    assert_eq!(line(&inputs).next, NextAct::LookAtGuard);
    inputs.settled.guard = fingerprint(&inputs);
    assert_eq!(line(&inputs).next, NextAct::LookAtBox);
    inputs.settled.carton = fingerprint(&inputs);
    assert_eq!(line(&inputs).next, NextAct::ChooseService);
    inputs.service = Some("gannet-post/parcel".into());
    // Only what is packed next, and of which nothing is cut, can wait for materials.
    assert!(is_about_to_be_packed(&inputs) && !is_about_to_be_packed(&small_canvas()));
    assert_eq!(line(&inputs).group, WorkGroup::Cut);
    let waits = line(&inputs).waiting_for_materials();
    assert_eq!(
        (waits.next, waits.group),
        (NextAct::Pack, WorkGroup::Materials)
    );
    assert_eq!(line(&inputs).next, NextAct::Pack);
    let planned = Workings::out(&inputs, &house()).expect("it works out").plan;
    let planned = planned.expect("a plan").tally.weight.mass.as_kg();
    // A weight that is typed packs nothing; what asks something has to be answered, the rest may stay unticked.
    inputs.parcel.weight = Some(format!("{:.3} kg", planned * 1.5));
    assert_eq!(line(&inputs).next, NextAct::Pack);
    inputs.packed = ticked(&inputs, |step| step.look.is_some_and(|look| look.stops));
    assert_eq!(
        line(&inputs).next,
        NextAct::LookAtPacking,
        "what lies under them is not done"
    );
    inputs.packed = ticked(&inputs, |step| step.stage != crate::pack::Stage::Parcel);
    assert_eq!(line(&inputs).next, NextAct::LookAtWeight);
    inputs.settled.weigh.clone_from(&inputs.parcel.weight);
    assert_eq!(line(&inputs).next, NextAct::HandOver, "it is right so");
    inputs.parcel.weight = Some(format!("{planned:.3} kg"));
    assert_eq!(line(&inputs).next, NextAct::HandOver);
    assert!(
        line(&inputs)
            .stops
            .iter()
            .take_while(|stop| stop.stop != Stop::Send)
            .all(|stop| stop.mark == Mark::Done)
    );
    inputs.parcel.as_packed = Some("another plan".into());
    assert_eq!(line(&inputs).next, NextAct::LookAtWeight);
}

/// Planned, settled, begun (one of 20 steps), packed, labelled, handed over: the parcel fills, and its heading follows what is next.
#[test]
fn the_parcel_fills_and_its_heading_follows() {
    let mut inputs = small_canvas();
    let stands = |inputs: &ShipmentInputs| {
        let line = line(inputs);
        (line.parcel, line.group)
    };
    assert_eq!(
        stands(&ShipmentInputs::default()),
        (ParcelStage::Bare, WorkGroup::Plan)
    );
    assert_eq!(stands(&inputs), (ParcelStage::Bare, WorkGroup::Plan));
    inputs.settled.guard = fingerprint(&inputs);
    inputs.settled.carton = fingerprint(&inputs);
    inputs.service = Some("gannet-post/parcel".into());
    assert_eq!(stands(&inputs), (ParcelStage::Bare, WorkGroup::Cut));
    let wet = ShipmentInputs {
        piece: serde_json::from_value(serde_json::json!({
            "construction": "stretched_canvas", "medium": "acrylic", "finished": "2026-11-20",
            "width": "400 mm", "height": "500 mm", "depth": "18 mm"
        }))
        .expect("a piece"),
        ..inputs.clone()
    };
    assert_eq!(stands(&wet), (ParcelStage::Bare, WorkGroup::Paint));
    // What is set up and looked at is not cut; once all of its parts are cut it is wrapped next, and the piece is bare until
    // something lies around it.
    let steps = crate::shipment::packing(&inputs, &house()).expect("it works out");
    let steps = steps.expect("steps").steps;
    let tick = |one: &crate::pack::StepView| {
        let tick = serde_json::json!({ "print": one.step.print, "at": "2026-11-23T10:00:00Z" });
        (
            one.step.key.clone(),
            serde_json::from_value(tick).expect("a tick"),
        )
    };
    let first = |wanted: crate::pack::Stage| {
        let at = steps.iter().position(|one| one.step.stage == wanted);
        at.expect("there is such a step")
    };
    let (cut, wrap) = (
        first(crate::pack::Stage::Cut),
        first(crate::pack::Stage::Wrap),
    );
    let after = |many: usize| ShipmentInputs {
        packed: steps[..many].iter().map(tick).collect(),
        ..inputs.clone()
    };
    for (many, stage, group, is_asked) in [
        (cut, ParcelStage::Bare, WorkGroup::Cut, true),
        (wrap - 1, ParcelStage::Bare, WorkGroup::Cut, wrap - 1 == cut),
        (wrap, ParcelStage::Bare, WorkGroup::Pack, false),
        (wrap + 1, ParcelStage::Wrapped, WorkGroup::Pack, false),
    ] {
        let begun = after(many);
        assert_eq!(stands(&begun), (stage, group), "after {many} steps");
        assert_eq!(
            is_about_to_be_packed(&begun),
            is_asked,
            "after {many} steps"
        );
    }
    inputs.packed = ticked(&inputs, |_| true);
    let planned = Workings::out(&inputs, &house()).expect("it works out").plan;
    let planned = planned.expect("a plan").tally.weight.mass.as_kg();
    inputs.parcel.weight = Some(format!("{planned:.3} kg"));
    assert_eq!(stands(&inputs), (ParcelStage::Boxed, WorkGroup::HandOver));
    inputs.sending.marked = true;
    assert_eq!(
        stands(&inputs),
        (ParcelStage::Labelled, WorkGroup::HandOver)
    );
    inputs.sending.handed_over = Some("2026-11-23".into());
    assert_eq!(stands(&inputs), (ParcelStage::Gone, WorkGroup::OnItsWay));
    inputs.after.outcome = Some(Outcome::Arrived);
    assert_eq!(stands(&inputs), (ParcelStage::Gone, WorkGroup::Settle));
}

#[test]
fn a_plan_that_changed_since_asks_for_another_look() {
    let mut inputs = small_canvas();
    inputs.settled.guard = fingerprint(&inputs);
    inputs.choices.first_turns = Some(2);
    let line = line(&inputs);
    assert_eq!(line.stops[1].mark, Mark::Look);
    assert_eq!(line.next, NextAct::LookAtGuard);
}

#[test]
fn paint_that_is_not_cured_comes_first() {
    let mut inputs = small_canvas();
    inputs.piece.finished = Some("2026-11-20".into());
    assert_eq!(
        line(&inputs).next,
        NextAct::LetItCure {
            cured_on: Some(date(2026, 12, 4)),
            needs: "2 weeks".into(),
            more: 0
        }
    );
    inputs.piece.finished = None;
    assert_eq!(
        line(&inputs).next,
        NextAct::LetItCure {
            cured_on: None,
            needs: "2 weeks".into(),
            more: 0
        }
    );
}

#[test]
fn a_stop_hides_no_other() {
    // Its surface is loose, and its paint wet: the paint comes first, and the plan's one Stop is told with it.
    let mut inputs = small_canvas();
    inputs.piece.condition = Condition::Flaking;
    inputs.piece.finished = Some("2026-11-20".into());
    let NextAct::LetItCure { more, .. } = line(&inputs).next else {
        panic!("the paint is wet");
    };
    assert_eq!(more, 1);
    inputs.piece.finished = Some("2026-10-01".into());
    let NextAct::Answer { says, more } = line(&inputs).next else {
        panic!("its surface is loose");
    };
    assert!(says.starts_with("The surface is loose"), "{says}");
    assert_eq!(more, 0);
    // Card corners hold up to 25: those can't take a canvas of 60. Two Stops of one plan.
    inputs.piece.depth = Some("60 mm".into());
    inputs.choices = serde_json::from_value(serde_json::json!({
        "schools": { "corners": "slip_on" }, "slip_on_corner": "card-corner-25"
    }))
    .expect("choices");
    let NextAct::Answer { more, .. } = line(&inputs).next else {
        panic!("two Stops");
    };
    assert_eq!(more, 1);
}

#[test]
fn without_a_country_or_a_carrier_the_price_is_what_is_missing() {
    let settle = |mut inputs: ShipmentInputs| {
        inputs.settled.guard = fingerprint(&inputs);
        inputs.settled.carton.clone_from(&inputs.settled.guard);
        inputs
    };
    let mut nowhere = small_canvas();
    nowhere.buyer.country.clear();
    assert_eq!(line(&settle(nowhere)).next, NextAct::SayWhere);
    // It is known where it goes, and the studio has no price list.
    let alone = House {
        tariffs: Vec::new(),
        ..house()
    };
    let inputs = settle(small_canvas());
    let worked = Workings::out(&inputs, &alone).expect("it works out");
    let mut inputs = inputs;
    inputs.settled.guard.clone_from(&worked.fingerprint);
    inputs.settled.carton.clone_from(&worked.fingerprint);
    let summary = worked.summary(&inputs);
    let alone = WorkLine::on(date(2026, 11, 23), &inputs, summary.as_ref());
    assert_eq!(alone.next, NextAct::FindCarrier);
    let mut huge = small_canvas();
    (huge.piece.width, huge.piece.height) = (Some("2700 mm".into()), Some("400 mm".into()));
    let huge = settle(huge);
    assert_eq!(line(&huge).next, NextAct::MakeItSmaller);
    assert_eq!(line(&huge).stops[3].mark, Mark::Look);
}

#[test]
fn a_promise_is_near_for_a_week() {
    let mut inputs = ShipmentInputs::default();
    assert_eq!(line(&inputs).promise, None);
    // It is 23 November.
    for (day, near) in [
        ("2026-11-22", Promise::Past),
        ("2026-11-23", Promise::Soon),
        ("2026-11-30", Promise::Soon),
        ("2026-12-01", Promise::Later),
        ("2027-11-23", Promise::Later),
    ] {
        inputs.promised = Some(day.into());
        assert_eq!(line(&inputs).promise, Some(near), "{day}");
    }
}

#[test]
fn paint_has_cured_or_not_whatever_was_lifted() {
    let mut inputs = ShipmentInputs::default();
    assert_eq!(line(&inputs).cured, None);
    inputs = small_canvas();
    inputs.piece.medium = Some(Medium::Oil);
    // Oil needs half a year: finished in June it has cured in December.
    for (finished, cured) in [
        (Some("2026-01-02"), true),
        (Some("2026-11-02"), false),
        (None, false),
    ] {
        inputs.piece.finished = finished.map(Into::into);
        assert_eq!(line(&inputs).cured, Some(cured), "{finished:?}");
    }
    inputs
        .lifted
        .insert("cure".into(), "the buyer waits for it to dry".into());
    assert_eq!(line(&inputs).cured, Some(false));
}

#[test]
fn once_it_left_what_comes_of_it_is_what_is_left() {
    let mut inputs = small_canvas();
    inputs.sending.handed_over = Some("2026-11-20".into());
    let mark = |inputs: &ShipmentInputs, stop| {
        let stops = line(inputs).stops;
        stops
            .into_iter()
            .find(|state| state.stop == stop)
            .map(|state| state.mark)
    };
    assert_eq!(line(&inputs).next, NextAct::Follow);
    assert_eq!(mark(&inputs, Stop::Send), Some(Mark::Done));
    assert_eq!(mark(&inputs, Stop::After), Some(Mark::Open));
    inputs.after.outcome = Some(Outcome::Damaged);
    assert_eq!(line(&inputs).next, NextAct::Claim);
    assert_eq!(mark(&inputs, Stop::After), Some(Mark::Look));
    inputs.after.claim.sent_on = Some("2026-11-21".into());
    assert_eq!(line(&inputs).next, NextAct::AwaitClaim);
    // Refused is decided too.
    inputs.after.claim.paid = Some("0".into());
    assert_eq!(line(&inputs).next, NextAct::PutAway);
    assert_eq!(mark(&inputs, Stop::After), Some(Mark::Done));
    inputs.after = crate::shipment::AfterInputs {
        outcome: Some(Outcome::Arrived),
        ..crate::shipment::AfterInputs::default()
    };
    assert_eq!(line(&inputs).next, NextAct::PutAway);
}
