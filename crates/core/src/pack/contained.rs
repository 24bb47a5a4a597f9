//! The containers of a plan: each with what it holds in this plan.

use super::words::{BOUND, ROLL};
use crate::{
    container::{BoxPlace, Container, Use},
    house::Carriage,
    layer::{FillGap, FillTurn, Layer, Make},
    piece::{Glazing, Piece},
    plan::Plan,
    quantity::{Length, Mass, Telling},
    space::{Addition, LayerSlot},
};

/// What goes into the first box of a plan.
pub(super) fn goods_of(plan: &Plan) -> &'static str {
    match (&plan.stack, plan.carriage) {
        (Some(_), _) => BOUND,
        (None, Carriage::Rolled) => ROLL,
        (None, Carriage::Mailed) => "the two boards",
        (None, Carriage::Flat | Carriage::Folio | Carriage::Padded) => "the wrapped piece",
    }
}

/// Returns a layer of a plan as hands make, load, close and open it; `None` if it is no container. `pieces` are those of the plan.
#[must_use]
pub fn container_of(
    plan: &Plan,
    layer: &Layer,
    pieces: &[&Piece],
    telling: Telling,
) -> Option<Container> {
    let twice = plan
        .layers
        .iter()
        .any(|one| one.slot == LayerSlot::SecondBox);
    let (place, fill) = match (layer.slot, twice) {
        (LayerSlot::SecondBox, _) => (BoxPlace::Outer, LayerSlot::SecondFill),
        (_, true) => (BoxPlace::Inner, LayerSlot::Fill),
        (_, false) => (BoxPlace::Only, LayerSlot::Fill),
    };
    let what = if place == BoxPlace::Outer {
        "the inner box"
    } else {
        goods_of(plan)
    };
    let face = match what {
        BOUND => "the front",
        "the two boards" => "the face of the sheet",
        _ => "its face",
    };
    // What is around it is still to come.
    let around: Mass = plan
        .layers
        .iter()
        .filter(|one| one.slot >= layer.slot)
        .map(|one| one.weight.mass)
        .sum();
    let filled = plan.layers.iter().any(|one| match &one.make {
        Make::EdgeFill(it) if one.slot == fill => it
            .laid(FillTurn::After)
            .any(|place| place.gap == FillGap::Edges),
        _ => false,
    });
    layer.make.container(&Use {
        what,
        face,
        place,
        room: room_in(plan, place),
        mass: plan.tally.weight.mass - around,
        pane: pieces
            .iter()
            .any(|piece| piece.construction.glazing() == Glazing::Glass),
        filled,
        outside_long: layer.envelope.long_side(),
        telling,
    })
}

/// How much room what goes into a box has there, on the side where it has most: all that is laid beside it within the box.
fn room_in(plan: &Plan, place: BoxPlace) -> Length {
    let within = |slot: LayerSlot| match place {
        BoxPlace::Outer => slot == LayerSlot::SecondFill,
        BoxPlace::Only | BoxPlace::Inner => matches!(
            slot,
            LayerSlot::Edges | LayerSlot::PaddingSheets | LayerSlot::Fill | LayerSlot::Lining
        ),
    };
    let layers = plan.layers.iter().filter(|layer| within(layer.slot));
    let all = layers.fold(Addition::default(), |sum, layer| sum + layer.adds);
    all.widest()
}
