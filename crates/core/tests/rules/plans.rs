//! Laws that every generated plan keeps, over random pieces and random rules of the house.

use crate::studio::{any_piece, catalogue};
use hummock_core::{
    house::{ALLOWANCES, Carriage, Choices, HouseRules, SCHOOLS},
    layer::{Make, SpacerLies},
    material::{MaterialId, Touch},
    piece::Construction,
    plan::{CarriedHow, FindingAbout, Plan, Recipe, carriage_of},
    space::LayerSlot,
};
use proptest::prelude::*;
use serde_json::{Value, json};

/// Any allowance within its range, any school, any layer wanted or not, any sheet against the art.
fn any_house() -> impl Strategy<Value = HouseRules> {
    let shares = prop::collection::vec(0.0..=1.0_f64, ALLOWANCES.len());
    let schools = prop::collection::vec(0..100_usize, SCHOOLS.len());
    let layers = prop::collection::vec(prop::option::of(any::<bool>()), LayerSlot::ALL.len());
    let papers: Vec<MaterialId> = catalogue()
        .contact_papers
        .into_iter()
        .map(|paper| paper.id)
        .collect();
    (shares, schools, layers, prop::sample::select(papers)).prop_map(
        |(shares, schools, layers, paper)| {
            let mut house: Value =
                serde_json::from_str(include_str!("../../../../demo/house-rules.json"))
                    .expect("rules");
            house["allowances"] = ALLOWANCES
                .iter()
                .zip(shares)
                .map(|(allowance, share)| {
                    let number = allowance.least + share * (allowance.most - allowance.least);
                    let whole = matches!(allowance.unit, "turns" | "sheets" | "journeys");
                    let number = if whole {
                        json!(hummock_core::quantity::ceil_count(number))
                    } else {
                        json!(number)
                    };
                    (allowance.key.to_owned(), number)
                })
                .collect::<serde_json::Map<_, _>>()
                .into();
            house["schools"] = SCHOOLS
                .iter()
                .zip(schools)
                .map(|(question, place)| {
                    let school = question.schools[place % question.schools.len()];
                    (question.key.to_owned(), json!(school.key))
                })
                .collect::<serde_json::Map<_, _>>()
                .into();
            let mut house: HouseRules = serde_json::from_value(house).expect("random rules");
            house.layers = LayerSlot::ALL
                .into_iter()
                .zip(layers)
                .filter_map(|(slot, wanted)| Some((slot, wanted?)))
                .collect();
            house.materials.contact_paper = paper;
            house
                .with(&Choices::default())
                .expect("rules of a house apply")
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn a_forbidden_material_never_touches_the_art(piece in any_piece(), rules in any_house()) {
        let catalogue = catalogue();
        let plan = Plan::design(&piece, &rules, &catalogue).expect("every valid piece has a plan");
        if let Some(medium) = piece.bare_medium() {
            let first = plan.layers.first().expect("a plan has layers");
            // What may touch nothing on its face is held by its edges: by chocks, or by foam that stands over its face.
            let spacing = rules.allowances.spacer_depth;
            let off = match &first.make {
                Make::RimStrip(strip) => strip.stands_off >= spacing,
                Make::FoamCollar(collar) => collar.stands_off >= spacing,
                _ => matches!(first.slot, LayerSlot::Contact | LayerSlot::Fixing | LayerSlot::WindowSpacer | LayerSlot::Cradle),
            };
            prop_assert!(off, "{:?} lies on a bare face", first.slot);
            for layer in plan.layers.iter().filter(|layer| layer.slot == LayerSlot::Contact) {
                let paper = catalogue.contact_paper(&layer.material).expect("it is on the shelf");
                prop_assert_eq!(paper.touch(medium), Touch::Allowed, "{}", paper.name);
            }
        }
        for layer in &plan.layers {
            let on_glass = matches!(layer.make, Make::GlassTape(_));
            prop_assert!(!on_glass || piece.construction.name() == "mirror"
                || piece.construction == Construction::FramedUnderGlass);
            prop_assert!(!on_glass || !piece.coated_glass);
        }
    }

    #[test]
    fn a_generated_plan_has_no_open_stop_but_about_the_piece(piece in any_piece(), rules in any_house()) {
        let plan = Plan::design(&piece, &rules, &catalogue()).expect("every valid piece has a plan");
        for finding in plan.findings.iter().filter(|finding| finding.is_open_stop()) {
            prop_assert_eq!(finding.about, FindingAbout::Piece, "{}: {}", finding.code, finding.says);
        }
    }

    /// It kills: bars without a board on them, corners around an open sandwich, and a pastel that nothing holds.
    #[test]
    fn layers_lie_in_the_order_of_the_job_and_each_once(piece in any_piece(), rules in any_house()) {
        let plan = Plan::design(&piece, &rules, &catalogue()).expect("every valid piece has a plan");
        let slots: Vec<LayerSlot> = plan.layers.iter().map(|layer| layer.slot).collect();
        // The board before a face is bound to the board behind as soon as it lies on its bars.
        let closed = plan.layers.iter().any(|layer| {
            matches!(&layer.make, Make::WindowSpacer(spacer) if spacer.lies == SpacerLies::Beside)
        });
        let boards = |slot: &LayerSlot| closed && *slot == LayerSlot::FaceBoards;
        let others: Vec<LayerSlot> = slots.iter().copied().filter(|slot| !boards(slot)).collect();
        prop_assert!(others.windows(2).all(|pair| pair[0] < pair[1]), "{:?}", slots);
        if closed {
            let at = slots.iter().position(|slot| *slot == LayerSlot::FaceBoards).expect("boards");
            let there = |slots: &[LayerSlot]| slots.iter().all(|slot| *slot <= LayerSlot::Contact);
            prop_assert!(there(&slots[..at]) && !there(&slots[at + 1..]), "{:?}", slots);
        }
        // What nothing may touch is fixed before anything else.
        let fixed = plan.layers.iter().any(|layer| layer.slot == LayerSlot::Fixing);
        prop_assert_eq!(fixed, piece.is_friable() && plan.carriage == Carriage::Flat);
        prop_assert!(!fixed || closed);
        for layer in &plan.layers {
            let state = plan.slots.iter().find(|state| state.slot == layer.slot).expect("a state");
            prop_assert!(state.present);
        }
    }

    #[test]
    fn what_the_job_forbids_is_refused_when_a_shipment_asks_for_it(piece in any_piece(), rules in any_house()) {
        let plan = Plan::design(&piece, &rules, &catalogue()).expect("every valid piece has a plan");
        // What no mailer on the shelf takes goes in a box; what is refused before that is known is told of the mailer.
        prop_assume!(carriage_of(&piece, &rules).is_ok_and(|carriage| carriage == plan.carriage));
        // What one box does not carry goes in two, as if somebody had asked for them.
        let mut rules = rules;
        let by = plan.strength.as_ref().and_then(|one| one.by.as_ref());
        if by.is_some_and(|by| by.how == CarriedHow::Outer) {
            rules.layers.insert(LayerSlot::SecondBox, true);
        }
        for state in plan.slots.iter().filter(|state| !state.free) {
            let asked = [(state.slot, !state.present)].into();
            let refused = Recipe::refused(&piece, &rules, &asked);
            // A layer that the job asks for can be asked for, and one that it forbids left out.
            prop_assert_eq!(refused.len(), 1, "{:?}", state);
            prop_assert!(refused[0].message.contains(state.why.expect("a reason")));
        }
    }

    #[test]
    fn every_remedy_can_be_applied(piece in any_piece()) {
        let catalogue = catalogue();
        let house: HouseRules =
            serde_json::from_str(include_str!("../../../../demo/house-rules.json")).expect("rules");
        let plan = Plan::design(&piece, &house, &catalogue).expect("every valid piece has a plan");
        for finding in &plan.findings {
            if let Some(remedy) = &finding.remedy {
                let rules = house.with(&remedy.choices).expect("a remedy is in range");
                prop_assert!(Recipe::refused(&piece, &rules, &remedy.choices.layers).is_empty(),
                    "{}: {}", finding.code, remedy.label);
                prop_assert!(Plan::design(&piece, &rules, &catalogue).is_ok(), "{}", remedy.label);
            }
        }
    }
}
