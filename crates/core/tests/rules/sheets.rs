//! Laws that every plan, blank and quote keeps, over random pieces, rules and choices.

use crate::studio::{any_piece, catalogue, rules as house};
use hummock_core::{
    freight::{BillableBy, Contents, Parcel, Shape},
    house::{Allowances, Carriage, CartonStyle, HouseRules},
    material::Catalogue,
    piece::Piece,
    plan::{CarriedHow, Plan, carriage_of},
    quantity::{Length, Mass},
    space::Envelope,
};
use proptest::prelude::*;

/// A rolled sheet is smaller than it was flat, and a mailer has a size of its own; these go in a box.
fn any_piece_that_lies_flat() -> impl Strategy<Value = Piece> {
    any_piece().prop_filter("it is rolled", |piece| {
        carriage_of(piece, &house())
            .is_ok_and(|carriage| !matches!(carriage, Carriage::Rolled | Carriage::Mailed))
    })
}

/// What a person turns up on a plan.
#[derive(Debug, Clone, Copy)]
struct Knobs {
    first_turns: u32,
    second_turns: u32,
    clearance: f64,
    proud: f64,
}

fn any_knobs() -> impl Strategy<Value = Knobs> {
    (1..=5_u32, 0..=5_u32, 0.0..60.0_f64, 0.0..40.0_f64).prop_map(
        |(first_turns, second_turns, clearance, proud)| Knobs {
            first_turns,
            second_turns,
            clearance,
            proud,
        },
    )
}

fn turned(knobs: Knobs) -> HouseRules {
    let mut rules = house();
    rules.allowances.first_turns = knobs.first_turns;
    rules.allowances.second_turns = knobs.second_turns;
    rules.allowances.clearance = Length::mm(knobs.clearance);
    rules.allowances.board_proud = Length::mm(knobs.proud);
    // A box that no sheet takes is made otherwise, which is another thing and not more of the same.
    rules.shipment.box_style = Some(CartonStyle::SlottedEdge);
    rules
}

fn design(piece: &Piece, rules: &HouseRules, catalogue: &Catalogue) -> Plan {
    Plan::design(piece, rules, catalogue).expect("every valid piece has a plan")
}

const BY: BillableBy = BillableBy {
    divisor_cm3_per_kg: 5000.0,
    volumetric_above: None,
    size_step: Length::mm(10.0),
    weight_step: Mass::g(500.0),
    minimum: Mass::g(1000.0),
};

fn billable(plan: &Plan) -> Mass {
    let parcel = Parcel {
        outside: plan.tally.outside,
        mass: plan.tally.weight.mass,
        value: None,
        buys_cover: false,
        shape: Shape::Rectangular,
        contents: Contents::default(),
    };
    BY.weigh(&parcel).billable
}

/// Binary dust that the order of a sum may leave, in millimetres and grams.
const DUST: f64 = 1e-6;

fn at_least(more: Envelope, less: Envelope) -> bool {
    [
        (more.across, less.across),
        (more.up, less.up),
        (more.through, less.through),
    ]
    .into_iter()
    .all(|(more, less)| more.as_mm() >= less.as_mm() - DUST)
}

/// What carries a parcel: board that is not the house's own makes another box of it.
fn carried(plan: &Plan) -> Option<(String, CarriedHow)> {
    let by = plan.strength.as_ref()?.by.as_ref()?;
    Some((by.name.clone(), by.how))
}

fn nothing_shrinks(less: &Plan, more: &Plan) -> Result<(), TestCaseError> {
    if carried(less) != carried(more) {
        return Err(TestCaseError::reject("another board carries it"));
    }
    prop_assert!(
        at_least(more.tally.outside, less.tally.outside),
        "outside shrank"
    );
    let (heavier, lighter) = (more.tally.weight.mass.as_g(), less.tally.weight.mass.as_g());
    prop_assert!(
        heavier >= lighter - DUST,
        "weight fell from {lighter} to {heavier}"
    );
    prop_assert!(billable(more) >= billable(less), "billable weight fell");
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig { failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn each_envelope_contains_the_former(piece in any_piece_that_lies_flat(), knobs in any_knobs()) {
        let plan = design(&piece, &turned(knobs), &catalogue());
        let size = plan.size;
        let mut inside = Envelope { across: size.width, up: size.height, through: size.depth };
        for layer in &plan.layers {
            prop_assert!(layer.adds.is_growth());
            prop_assert!(layer.envelope.holds(inside));
            prop_assert_eq!(layer.envelope, inside.grown(layer.adds));
            inside = layer.envelope;
        }
        prop_assert_eq!(inside, plan.tally.outside);
    }

    #[test]
    fn the_same_input_gives_the_same_bytes(piece in any_piece(), knobs in any_knobs()) {
        let bytes = || serde_json::to_vec(&design(&piece, &turned(knobs), &catalogue())).expect("JSON");
        prop_assert_eq!(bytes(), bytes());
    }

    #[test]
    fn more_turns_never_shrink_anything(piece in any_piece(), knobs in any_knobs()) {
        let plan = |knobs| design(&piece, &turned(knobs), &catalogue());
        let less = plan(knobs);
        nothing_shrinks(&less, &plan(Knobs { first_turns: knobs.first_turns + 1, ..knobs }))?;
        nothing_shrinks(&less, &plan(Knobs { second_turns: knobs.second_turns + 1, ..knobs }))?;
    }

    #[test]
    fn more_clearance_or_a_prouder_board_never_shrinks_anything(
        piece in any_piece(), knobs in any_knobs(), more in 0.0..20.0_f64,
    ) {
        let plan = |knobs| design(&piece, &turned(knobs), &catalogue());
        let less = plan(knobs);
        nothing_shrinks(&less, &plan(Knobs { clearance: knobs.clearance + more, ..knobs }))?;
        nothing_shrinks(&less, &plan(Knobs { proud: knobs.proud + more, ..knobs }))?;
    }

    #[test]
    fn thicker_board_never_shrinks_anything(piece in any_piece(), knobs in any_knobs(), more in 0.0..6.0_f64) {
        // A set of like pieces may lie otherwise when the boards between them are thicker: wider, and less deep.
        let piece = Piece { count: 1, ..piece };
        let thin = catalogue();
        let mut thick = thin.clone();
        // Fewer boards of a spacer reach its depth when each is thicker, so that one stays as it is.
        let spacer = &house().materials.spacer_board;
        for board in thick.boards.iter_mut().filter(|board| board.id != *spacer) {
            board.caliper += Length::mm(more);
        }
        let rules = turned(knobs);
        nothing_shrinks(&design(&piece, &rules, &thin), &design(&piece, &rules, &thick))?;
    }

    #[test]
    fn the_wrapped_piece_fits_in_the_box_with_its_clearance(piece in any_piece_that_lies_flat(), knobs in any_knobs()) {
        let plan = design(&piece, &turned(knobs), &catalogue());
        let carton = plan.layers.iter().find_map(|layer| layer.make.carton()).expect("every plan has a box");
        let wrapped = plan
            .layers
            .iter()
            .rev()
            .find(|layer| !matches!(layer.make.kind(), "edge_fill" | "slotted_box" | "cut_box" | "marks"))
            .expect("something is wrapped")
            .envelope;
        let room = 2.0 * knobs.clearance - DUST;
        let behind = Allowances::default().depth_clearance.as_mm() - DUST;
        // A set of like pieces lies as its bundle does, what is held off its boards as what holds it.
        let (across, up) = plan
            .layers
            .iter()
            .rev()
            .find(|layer| layer.holds_several() || layer.holds_off())
            .map_or((piece.size.width, piece.size.height), |bundle| {
                (bundle.envelope.across, bundle.envelope.up)
            });
        let upright = up >= across;
        let (long, short) =
            if upright { (wrapped.up, wrapped.across) } else { (wrapped.across, wrapped.up) };
        for (inside, wrapped, room) in [
            (carton.inside_length, long, room),
            (carton.inside_width, short, room),
            (carton.inside_height, wrapped.through, behind),
        ] {
            // A sheet that is glued on both faces takes its caliper of the depth, twice.
            let glued = if carton.doubled { carton.caliper.as_mm() * 2.0 } else { 0.0 };
            let glued = if inside == carton.inside_height { glued } else { 0.0 };
            prop_assert!(inside.as_mm() - wrapped.as_mm() - glued >= room);
        }
    }
}
