//! What a parcel asks of hands: past what one person lifts, some steps take two.

use crate::{
    house::Allowances,
    layer::Layer,
    quantity::{Mass, Weight},
    space::{Envelope, LayerSlot},
};

/// Said at each step at which it is lifted.
const TWO_PEOPLE: &str = "Heavy or wide: two people lift and turn it.";
const BOTH: f64 = 2.0;

/// Tells whether a parcel is past what one person lifts or carries.
pub(crate) fn wants_two(outside: Envelope, mass: Mass, allowances: &Allowances) -> bool {
    mass > allowances.two_people_mass || outside.long_side() > allowances.two_people_length
}

/// Counts the minutes of both people at the steps where the piece is turned over, and says so there.
pub(super) fn count_both(layers: &mut [Layer], piece: Weight, allowances: &Allowances) {
    let mass = piece.mass + layers.iter().map(|layer| layer.weight.mass).sum();
    let outside = layers.last().map(|layer| layer.envelope);
    if !outside.is_some_and(|outside| wants_two(outside, mass, allowances)) {
        return;
    }
    for layer in layers {
        match layer.slot {
            LayerSlot::FaceBoards
            | LayerSlot::Bundle
            | LayerSlot::FirstWrap
            | LayerSlot::SecondWrap => {
                layer.minutes = layer.minutes * BOTH;
                layer.cautions.push(TWO_PEOPLE);
            }
            LayerSlot::Box | LayerSlot::SecondBox => layer.cautions.push(TWO_PEOPLE),
            _ => {}
        }
    }
}
