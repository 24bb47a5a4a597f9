//! What one plan costs more to send than another.

use rust_decimal::Decimal;

use super::{ShipmentInputs, Workings};
use crate::{plan::Plan, quantity::Money};

/// What another plan costs more than the one there is; less than zero where it saves.
pub(crate) struct MoreCost {
    pub materials: Money,
    /// Nothing before it is known where it goes.
    pub carriage: Option<Money>,
    pub labour: Money,
    /// What it costs more to send: materials, work, overhead, and what the carrier is paid.
    pub whole: Money,
    /// Whether every material of both plans has a price; where one has none, no sum here says anything.
    pub priced: bool,
}

impl MoreCost {
    pub(crate) fn between(
        inputs: &ShipmentInputs,
        (now, one): (&Workings, &Plan),
        (then, other): (&Workings, &Plan),
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
        // Where no service takes one of them, or no rate of its money is kept, only the making is compared.
        let making = |worked: &Workings| {
            let cost = worked.cost.as_ref()?;
            Some(cost.to_send.amount - cost.to_carrier.amount)
        };
        let made = making(now).zip(making(then)).map_or_else(
            || materials.amount + labour.amount,
            |(now, then)| then - now,
        );
        Self {
            whole: Money::new(made + carried, currency),
            priced: one.unpriced.is_empty() && other.unpriced.is_empty(),
            materials,
            carriage,
            labour,
        }
    }
}
