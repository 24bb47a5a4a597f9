//! The sums of a plan.

use serde::Serialize;

use crate::{
    layer::{Addition, Envelope, Layer},
    quantity::{Currency, Mass, Minutes, Money, Weight},
};

/// What a plan comes to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Tally {
    /// Of the closed box, as a tape reads it.
    pub outside: Envelope,
    /// What all layers add to the piece.
    pub adds: Addition,
    /// Of piece, layers and tape.
    pub weight: Weight,
    /// Of the materials used up.
    pub materials: Money,
    /// To make and set every layer.
    pub minutes: Minutes,
    /// Of all that, plastic.
    #[serde(rename = "plastic_g")]
    pub plastic: Mass,
}

impl Tally {
    pub(super) fn of(piece: Weight, layers: &[Layer], currency: &Currency) -> Self {
        Self {
            outside: layers.last().expect("a plan ends with its box").envelope,
            adds: layers
                .iter()
                .fold(Addition::default(), |sum, layer| sum + layer.adds),
            weight: piece + layers.iter().map(|layer| layer.weight).sum(),
            materials: Money::new(layers.iter().map(|layer| layer.cost.amount).sum(), currency),
            minutes: layers.iter().map(|layer| layer.minutes).sum(),
            plastic: layers.iter().map(|layer| layer.plastic).sum(),
        }
    }
}
