//! Every layer that can be added to an everyday piece, added; every one that can be left out, left out; and every thing
//! that a layer could be instead, taken.

use hummock_core::{
    house::{BoxRule, Choices, SavedCut},
    layer::Make,
    material::MaterialId,
    plan::{FindingLevel, Plan},
    shipment::{House, ShipmentInputs, Workings},
    space::LayerSlot,
    ways::alternatives,
};

use crate::studio::{Everyday, everyday, house};

/// Layers of which nothing may be left to make: a gap too small for a sheet, a canvas whose bars leave no hollow.
const MAY_BE_EMPTY: [LayerSlot; 3] = [
    LayerSlot::PaddingSheets,
    LayerSlot::BackFill,
    LayerSlot::Fill,
];

fn with(inputs: &ShipmentInputs, choices: &Choices, house: &House) -> Plan {
    let then = ShipmentInputs {
        choices: inputs.choices.patched(choices),
        ..inputs.clone()
    };
    let worked = Workings::out(&then, house).expect("it can be added");
    worked.plan.expect("it is measured")
}

fn stops(plan: &Plan) -> Vec<&'static str> {
    let findings = plan.findings.iter();
    let stops = findings.filter(|finding| finding.level == FindingLevel::Stop);
    stops.map(|finding| finding.code).collect()
}

#[test]
fn what_is_added_is_there_and_never_makes_a_piece_likelier_to_be_harmed() {
    // In one box; another may be cheaper around it, and bear less.
    let mut house = house();
    house.rules.schools.box_style = BoxRule::Usual;
    let mut added = 0;
    for each in everyday()
        .into_iter()
        .filter(Everyday::is_left_to_the_rules)
    {
        let now = with(&each.inputs, &Choices::default(), &house);
        let free = now
            .slots
            .iter()
            .filter(|state| state.free && !state.present);
        for state in free.clone() {
            let slot = state.slot;
            let plan = with(&each.inputs, &Choices::layer(slot, true), &house);
            let says = format!("{}: {slot:?}", each.name);
            let there = plan.layers.iter().any(|layer| layer.slot == slot);
            assert!(there || MAY_BE_EMPTY.contains(&slot), "{says} is not there");
            assert_eq!(stops(&plan), stops(&now), "{says}");
            let [before, after] = [&now, &plan].map(|plan| plan.odds.probability);
            assert!(after <= before * 1.02, "{says}: {before} became {after}");
            let [before, after] = [&now, &plan].map(|plan| plan.tally.weight.mass);
            // What takes the place of fill or of tape may be lighter than it.
            let instead = matches!(
                slot,
                LayerSlot::Edges | LayerSlot::PaddingSheets | LayerSlot::Binding
            );
            assert!(
                instead || after >= before,
                "{says}: {before:?} became {after:?}"
            );
            added += usize::from(there);
        }
    }
    assert!(added > 600, "{added}");
}

#[test]
fn what_a_layer_could_be_instead_is_made_of_what_it_says() {
    let house = house();
    let mut taken = 0;
    for each in everyday().into_iter().step_by(6) {
        for slot in LayerSlot::ALL {
            for offer in alternatives(&each.inputs, &house, slot).expect(&each.name) {
                let says = format!("{}: {slot:?}, {}", each.name, offer.label);
                assert!(offer.refused.is_some() != offer.change.is_some(), "{says}");
                let Some(change) = offer.change else { continue };
                let now = with(&each.inputs, &Choices::default(), &house);
                let plan = with(&each.inputs, &offer.choices, &house);
                let mass = plan.tally.weight.mass - now.tally.weight.mass;
                assert!((mass.as_g() - change.mass.as_g()).abs() < 1e-9, "{says}");
                let added = offer.label.starts_with("Add ");
                let left = offer.label == "Leave it out";
                let there = plan.layers.iter().any(|layer| layer.slot == slot);
                assert!(!left || !there, "{says}");
                assert!(!added || there || MAY_BE_EMPTY.contains(&slot), "{says}");
                taken += 1;
            }
        }
    }
    assert!(taken > 400, "{taken}");
}

#[test]
fn a_carton_that_was_used_bears_less_and_less_again_where_it_was_cut() {
    // A canvas 400 × 500, boxed in a carton 700 × 550 × 200 of C flute, which is 4 thick: edge crush 5000 N/m in the
    // shipped stores. √(0.004 · 2 · (L + H)) · 5.876 · 5000 / 5, times 0.6 for a split face, 0.7 for what was folded
    // before, 0.7 where it is cut down, and 0.6 where its halves were pushed together.
    let house = house();
    let canvas = everyday()
        .into_iter()
        .find(|each| each.name == "canvas 400 by 500")
        .expect("it is in the file");
    let c_flute = house
        .catalogue
        .board(&MaterialId::new("corrugated-c"))
        .expect("it is shipped");
    let crush = c_flute.edge_crush.expect("it is known").as_kn_m() * 1e3;
    let carton = |deep: &str, cut: Option<SavedCut>| {
        let choices = Choices {
            saved_length: Some("700 mm".to_owned()),
            saved_width: Some("550 mm".to_owned()),
            saved_height: Some(deep.to_owned()),
            saved_cut: cut,
            box_board: Some(c_flute.id.clone()),
            ..Choices::default()
        };
        let plan = with(&canvas.inputs, &choices, &house);
        let made = plan.layers.iter().find_map(|layer| match &layer.make {
            Make::SavedBox(saved) => Some(saved.clone()),
            _ => None,
        });
        let made = made.expect("it is in the carton");
        let stack = plan.survival.stack.expect("it can be calculated");
        let [long, _, deep] = made.inside_mm.map(|side| side.as_mm() / 1e3);
        let whole = 5.876 * crush * f64::sqrt(0.004 * 2.0 * (long + deep)) / 5.0;
        (made, stack.allowed.as_n() / whole)
    };
    for (deep, cut, changed, share) in [
        ("110 mm", None, false, 0.6 * 0.7),
        ("200 mm", None, true, 0.6 * 0.7 * 0.7),
        (
            "200 mm",
            Some(SavedCut::LengthToo),
            true,
            0.6 * 0.7 * 0.7 * 0.6,
        ),
    ] {
        let (made, found) = carton(deep, cut);
        assert_eq!(made.cut.is_some(), changed, "{deep}: {made:?}");
        assert_eq!(made.shorter.is_some(), cut.is_some(), "{deep}");
        assert!((found - share).abs() < 1e-9, "{deep}: {found} for {share}");
    }
}
