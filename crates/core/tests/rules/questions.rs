//! Which questions of the house change most of the everyday pieces: the pages ask those first.

use hummock_core::{
    house::{HouseRules, SCHOOLS, SchoolQuestion},
    shipment::{House, ShipmentInputs, Workings},
    space::LayerSlot,
};
use rust_decimal::Decimal;

use crate::studio::{everyday, house};

/// What somebody notices of a plan: its layers, its box in millimetres, its tenths of minutes, and what sending costs.
#[derive(Debug, PartialEq)]
struct Noticed {
    layers: Vec<LayerSlot>,
    outside: [String; 3],
    minutes: String,
    to_send: Option<Decimal>,
}

impl Noticed {
    /// Returns what is noticed of a plan; `None` if there is no plan, for instance because the chosen carton is too small.
    fn of(inputs: &ShipmentInputs, house: &House) -> Option<Self> {
        let worked = Workings::out(inputs, house).ok()?;
        let plan = worked.plan.as_ref()?;
        let outside = plan.tally.outside;
        let best = worked.quotes.first().and_then(|quote| quote.cost.as_ref());
        Some(Self {
            layers: plan.layers.iter().map(|layer| layer.slot).collect(),
            outside: [outside.across, outside.up, outside.through]
                .map(|side| format!("{:.0}", side.as_mm())),
            minutes: format!("{:.1}", plan.tally.minutes.as_min()),
            to_send: best.map(|cost| cost.to_send.amount),
        })
    }
}

fn answered(rules: &HouseRules, question: &str, school: &str) -> HouseRules {
    let mut rules = serde_json::to_value(rules).expect("rules are JSON");
    rules["schools"][question] = school.into();
    serde_json::from_value(rules).expect("a school is an answer")
}

/// How many everyday pieces are packed, or cost, otherwise under one of a question's other schools: the one that changes most.
fn changed(question: &SchoolQuestion, usual: &[(ShipmentInputs, Option<Noticed>)]) -> usize {
    let house = house();
    question
        .schools
        .iter()
        .map(|school| {
            let other = House {
                rules: answered(&house.rules, question.key, school.key),
                ..house.clone()
            };
            let moved = usual.iter();
            moved
                .filter(|(inputs, noticed)| Noticed::of(inputs, &other) != *noticed)
                .count()
        })
        .max()
        .unwrap_or_default()
}

/// Kills a question that is asked first and changes less than one that is not.
#[test]
fn the_questions_asked_first_change_most_of_the_everyday_pieces() {
    let house = house();
    let usual: Vec<(ShipmentInputs, Option<Noticed>)> = everyday()
        .into_iter()
        .map(|each| {
            let noticed = Noticed::of(&each.inputs, &house);
            (each.inputs, noticed)
        })
        .collect();
    let mut counted: Vec<(usize, &str, bool)> = SCHOOLS
        .iter()
        .map(|question| {
            (
                changed(question, &usual),
                question.key,
                question.asked_first,
            )
        })
        .collect();
    counted.sort_by(|one, other| other.cmp(one));
    let first: Vec<_> = counted.iter().filter(|(_, _, first)| *first).collect();
    let least = first.iter().map(|(rows, ..)| *rows).min();
    let most_of_others = counted
        .iter()
        .filter(|(_, _, first)| !first)
        .map(|(rows, ..)| *rows)
        .max();
    assert_eq!(first.len(), 8, "{counted:?}");
    assert!(least >= most_of_others, "{counted:?}");
}
