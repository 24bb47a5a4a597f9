//! What a change of the house would do to a shipment, before it is applied.

use serde::Serialize;

use super::{House, ShipmentInputs, Workings};
use crate::{plan::Change, quantity::Money};

/// What a change of the house would do to one shipment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Impact {
    /// What the plan would come to, less what it comes to; absent where there is no plan.
    pub change: Option<Change>,
    /// The best price now.
    pub price_now: Option<Money>,
    /// The best price then.
    pub price_then: Option<Money>,
    /// Why it could no longer be planned; it would then keep what it has.
    pub refused: Option<String>,
}

impl Impact {
    /// Returns what another house would do to a shipment; `None` if its layers, its box and its prices
    /// would all stay as they are.
    #[must_use]
    pub fn of(inputs: &ShipmentInputs, now: &House, then: &House) -> Option<Self> {
        let before = Workings::out(inputs, now).ok()?;
        let after = match Workings::out(inputs, then) {
            Ok(after) => after,
            Err(refusals) => {
                let refused = refusals.into_iter().next().map(|refusal| refusal.message);
                return Some(Self {
                    change: None,
                    price_now: None,
                    price_then: None,
                    refused,
                });
            }
        };
        let price = |worked: &Workings| worked.summary(inputs)?.best.map(|best| best.total);
        let (price_now, price_then) = (price(&before), price(&after));
        let (plan, other) = (before.plan.as_ref()?, after.plan.as_ref()?);
        let change = Change::between(plan, other);
        let same = before.fingerprint == after.fingerprint
            && price_now == price_then
            && change.is_nothing();
        (!same).then_some(Self {
            change: Some(change),
            price_now,
            price_then,
            refused: None,
        })
    }
}
