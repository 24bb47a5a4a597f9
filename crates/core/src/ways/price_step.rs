//! A few millimetres that would save money: the nearest cheaper price step that a closer fit reaches.

use serde::Serialize;

use super::choosing;
use crate::{
    house::Choices,
    layer::Make,
    plan::Plan,
    quantity::{Length, Money},
    shipment::{House, ShipmentInputs, Workings},
    space::LayerSlot,
};

/// A closer fit that is billed less.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PriceStep {
    /// What it is, in one sentence.
    pub says: String,
    /// What it saves.
    pub saves: Money,
    /// What the button says.
    pub label: String,
    /// The choices that make it.
    pub choices: Choices,
}

/// A parcel this much smaller at its edges is still the same parcel.
const A_FEW_MM: [f64; 6] = [1.0, 2.0, 4.0, 6.0, 9.0, 12.0];

/// Returns the least that closer edges would take for the best service to be billed less, with no new Stop or
/// Mind, and the odds as good as the house asks.
pub(super) fn nearest(
    inputs: &ShipmentInputs,
    house: &House,
    worked: &Workings,
) -> Option<PriceStep> {
    let plan = worked.plan.as_ref()?;
    let now = worked.price(inputs)?;
    let there = clearance(plan)?;
    let worsening = house.rules.allowances.odds_worsening;
    let snug = house.rules.allowances.snug_clearance;
    let with = |clearance: Length| {
        let choices = Choices {
            clearance: Some(format!("{:.0} mm", clearance.as_mm())),
            ..Choices::default()
        };
        let (choices, changed) = choosing(inputs, plan.began.as_ref(), choices);
        let then = Workings::out(&changed, house).ok()?;
        let price = then.price(&changed)?.clone();
        Some((choices, then, price))
    };
    let cheaper =
        |clearance: Length| with(clearance).filter(|(_, _, price)| price.amount < now.amount);
    let closest = A_FEW_MM
        .into_iter()
        .map(|less| there - Length::mm(less))
        .rfind(|&clearance| clearance >= snug)?;
    // Where even the closest fit saves nothing, none does.
    cheaper(closest)?;
    let (clearance, choices, price) = A_FEW_MM
        .into_iter()
        .map(|less| there - Length::mm(less))
        .find_map(|clearance| {
            let (choices, then, price) = cheaper(clearance)?;
            plan.is_kept_by(then.plan.as_ref()?, worsening)
                .then_some((clearance, choices, price))
        })?;
    let saves = Money::new(now.amount - price.amount, &now.currency);
    let told = |length| house.rules.told_in.length(length);
    Some(PriceStep {
        says: format!(
            "It is just over a price step. {} less room at each edge saves {} {}.",
            told(there - clearance),
            saves.amount,
            saves.currency.code()
        ),
        saves,
        label: format!("Leave {} at each edge", told(clearance)),
        choices,
    })
}

fn clearance(plan: &Plan) -> Option<Length> {
    plan.layers.iter().find_map(|layer| match &layer.make {
        Make::EdgeFill(fill) if layer.slot == LayerSlot::Fill => Some(fill.clearance),
        _ => None,
    })
}
