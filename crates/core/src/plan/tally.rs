//! The sums of a plan.

use rust_decimal::Decimal;
use serde::Serialize;

use crate::{
    freight::Making,
    house::{Allowances, HouseRules},
    layer::Layer,
    quantity::{Currency, Mass, Minutes, Money, Weight, decimal_of},
    space::{Addition, Envelope},
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
    /// What that is worth at the studio's rate.
    pub labour: Money,
    /// Of all that, plastic.
    #[serde(rename = "plastic_g")]
    pub plastic: Mass,
}

const MINUTES_AN_HOUR: f64 = 60.0;

/// Returns what work is worth at the studio's rate.
pub(super) fn labour_of(minutes: Minutes, allowances: &Allowances) -> Decimal {
    decimal_of(minutes.as_min() / MINUTES_AN_HOUR * allowances.labour_per_hour.number())
}

impl Tally {
    /// Returns what making it costs, with the studio's share on materials and work.
    #[must_use]
    pub(crate) fn making(&self, allowances: &Allowances) -> Making {
        let (materials, work) = (self.materials.amount, self.labour.amount);
        let share = allowances.with_overhead() - Decimal::ONE;
        Making {
            materials,
            work,
            overhead: self.materials.currency.round((materials + work) * share),
        }
    }

    pub(super) fn of(
        piece: Weight,
        layers: &[Layer],
        rules: &HouseRules,
        currency: &Currency,
    ) -> Self {
        let minutes: Minutes = layers.iter().map(|layer| layer.minutes).sum();
        Self {
            outside: layers.last().expect("a plan ends with its box").envelope,
            adds: layers
                .iter()
                .fold(Addition::default(), |sum, layer| sum + layer.adds),
            weight: piece + layers.iter().map(|layer| layer.weight).sum(),
            materials: Money::new(layers.iter().map(|layer| layer.cost.amount).sum(), currency),
            minutes,
            labour: Money::new(labour_of(minutes, &rules.allowances), currency),
            plastic: layers.iter().map(|layer| layer.plastic).sum(),
        }
    }
}
