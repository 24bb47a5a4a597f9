//! Other ways to pack the same piece: what a layer could be instead, what more or less protection would buy, and
//! what would come under the next price step. They are plans of their own, worked out when they are asked for.

mod alternatives;
mod candidates;
mod changes;
mod price_step;
mod styles;

pub use alternatives::{Alternative, alternatives};
pub use changes::{Changes, OfferedChange, changes};
pub use price_step::PriceStep;
pub use styles::{BoughtOffer, StyleOffer, bought, styles};

use rust_decimal::Decimal;

use crate::{
    house::{Began, Choices},
    plan::Plan,
    quantity::Money,
    shipment::{ShipmentInputs, Worked},
};

/// What another plan costs more than the one there is; less than zero where it saves.
struct MoreCost {
    materials: Money,
    /// Nothing before it is known where it goes.
    carriage: Option<Money>,
    labour: Money,
    /// All three together.
    whole: Money,
}

impl MoreCost {
    fn between(
        inputs: &ShipmentInputs,
        (now, one): (&Worked, &Plan),
        (then, other): (&Worked, &Plan),
    ) -> Self {
        let currency = &one.tally.materials.currency;
        let less = |then: &Money, now: &Money| Money::new(then.amount - now.amount, currency);
        let carriage = now
            .price(inputs)
            .zip(then.price(inputs))
            .map(|(now, then)| less(then, now));
        let materials = less(&other.tally.materials, &one.tally.materials);
        let labour = less(&other.tally.labour, &one.tally.labour);
        let carried = carriage
            .as_ref()
            .map_or(Decimal::ZERO, |money| money.amount);
        Self {
            whole: Money::new(materials.amount + labour.amount + carried, currency),
            materials,
            carriage,
            labour,
        }
    }
}

/// Returns choices with the preset that was picked until now, kept since something is chosen by hand, and the
/// inputs that they make.
fn choosing(
    inputs: &ShipmentInputs,
    began: Option<&Began>,
    choices: Choices,
) -> (Choices, ShipmentInputs) {
    let choices = Choices {
        preset: began.map(|began| began.preset.clone()),
        ..choices
    };
    let changed = ShipmentInputs {
        choices: inputs.choices.patched(&choices),
        ..inputs.clone()
    };
    (choices, changed)
}
