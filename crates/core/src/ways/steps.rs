//! The way to a cheaper price: how far it is at each service, and what of the plan could be changed to get there.

use std::collections::BTreeMap;

use serde::Serialize;

use super::{candidates::Now, choosing};
use crate::{
    Refusal,
    freight::{Along, Parcel, Quote, QuoteRequest, ServiceSteps, Tariff},
    house::Choices,
    layer::Make,
    place::Destination,
    plan::{OneIn, Plan},
    quantity::{Length, Mass, Money},
    shipment::{CarrierAsk, Commission, Figures, House, ShipmentInputs, Workings},
    space::LayerSlot,
};

/// One service between its prices, and what brings the parcel to a cheaper one.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ServiceLadder {
    /// How far it is.
    #[serde(flatten)]
    pub steps: ServiceSteps,
    /// What the doubt about the weight could do to the price; `None` if it does nothing, or the parcel was weighed.
    pub spread: Option<Spread>,
    /// Changes of the plan that make it cheaper by this service: those that save most, and last the fit that takes least away.
    pub reachable: Vec<Reach>,
}

/// A change of the plan that brings a cheaper price.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Reach {
    /// What it is, and what the button says.
    pub label: String,
    /// The choices that make it.
    pub choices: Choices,
    /// What the carrier then takes less, in the studio's money; `None` if it does not take the parcel as it is.
    pub carriage: Option<Money>,
    /// What it saves in all: the difference of the `total` of both costs.
    pub saves: Option<Money>,
    /// That it arrives damaged, then.
    pub odds: OneIn,
}

/// What the doubt about a planned weight could do to a price.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Spread {
    /// As light as it may turn out.
    #[serde(rename = "least_g")]
    pub least: Mass,
    /// As heavy as it may turn out.
    #[serde(rename = "most_g")]
    pub most: Mass,
    /// What the carrier takes when it is as light; `None` if it does not take it.
    pub at_least: Option<Money>,
    /// What it takes when it is as heavy; `None` if it does not take it.
    pub at_most: Option<Money>,
}

/// What every service of a tariff takes at either end of the doubt, where that is not one price.
fn spreads(
    tariff: &Tariff,
    parcel: &Parcel,
    place: &Destination,
    doubt: Mass,
) -> BTreeMap<String, Spread> {
    let (least, most) = ((parcel.mass - doubt).max(Mass::g(1.0)), parcel.mass + doubt);
    let at = |mass| tariff.quotes(&QuoteRequest::now(&Parcel { mass, ..*parcel }, place));
    at(least)
        .into_iter()
        .zip(at(most))
        .filter(|(light, heavy)| light.total() != heavy.total())
        .map(|(light, heavy)| {
            let spread = Spread {
                least,
                most,
                at_least: light.total().cloned(),
                at_most: heavy.total().cloned(),
            };
            (light.id, spread)
        })
        .collect()
}

/// How many are told of each service.
const TOLD: usize = 3;

/// Returns how far it is to the next prices at every service that goes there, and which changes of the plan get to a cheaper
/// one: those that raise no new Stop or Mind and leave the odds as good as the house asks. Nothing before there is a plan and a
/// destination.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn price_steps(
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Vec<ServiceLadder>, Vec<Refusal>> {
    let Some(piece) = inputs.piece()? else {
        return Ok(Vec::new());
    };
    let commission = Commission::of(inputs, piece, house)?;
    let worked = Workings::out(inputs, house)?;
    let doubt = match worked.rests_on.mass {
        Figures::Measured => None,
        Figures::Planned => worked
            .plan
            .as_ref()
            .map(|plan| plan.tally.weight.plus_minus),
    };
    let asks = CarrierAsk::each(inputs, house, &commission, &worked);
    if asks.is_empty() {
        return Ok(Vec::new());
    }
    let mut ladders: Vec<ServiceLadder> = asks
        .iter()
        .flat_map(|ask| {
            let CarrierAsk {
                tariff,
                parcel,
                place,
            } = ask;
            let spreads = doubt.map(|doubt| spreads(tariff, parcel, place, doubt));
            let steps = tariff.steps(&QuoteRequest::now(parcel, place)).into_iter();
            let ladders = steps.map(move |steps| ServiceLadder {
                spread: spreads
                    .as_ref()
                    .and_then(|spreads| spreads.get(&steps.id).cloned()),
                steps,
                reachable: Vec::new(),
            });
            ladders.collect::<Vec<_>>()
        })
        .collect();
    // Other plans are compared as they are planned, whatever this one was found to weigh.
    let inputs = &inputs.unweighed();
    let weighed = worked.found.is_some();
    let as_planned = if weighed {
        Workings::out(inputs, house)?
    } else {
        worked
    };
    let worked = &as_planned;
    let Some(plan) = worked.plan.as_ref() else {
        return Ok(Vec::new());
    };
    let now = Now::of(inputs, (&commission, &house.catalogue), plan);
    // A millimetre less room changes least of all.
    let closer = closer(plan, &commission, &ladders).into_iter();
    let less = now.less().into_iter();
    let candidates: Vec<(bool, String, Choices)> = closer
        .map(|(label, choices)| (true, label, choices))
        .chain(less.map(|candidate| (false, candidate.label, candidate.choices)))
        .collect();
    let worsening = commission.rules.allowances.odds_worsening;
    let mut closest: Vec<Option<Reach>> = vec![None; ladders.len()];
    for (is_closer, label, choices) in candidates {
        let (choices, changed) = choosing(inputs, plan.began.as_ref(), choices);
        let Ok(then) = Workings::out(&changed, house) else {
            continue;
        };
        let Some(other) = then
            .plan
            .as_ref()
            .filter(|other| plan.is_kept_by(other, worsening))
        else {
            continue;
        };
        for (ladder, closest) in ladders.iter_mut().zip(&mut closest) {
            let quoted = |worked: &'_ Workings| -> Option<Quote> {
                let found = worked
                    .quotes
                    .iter()
                    .find(|quote| quote.id == ladder.steps.id);
                found.filter(|quote| quote.total_here.is_some()).cloned()
            };
            let Some(after) = quoted(&then) else { continue };
            let before = quoted(worked);
            let told = before.as_ref().and_then(|before| saved(before, &after));
            if before.is_some() && told.is_none() {
                continue;
            }
            let (carriage, saves) = told.unzip();
            let reach = Reach {
                label: label.clone(),
                choices: choices.clone(),
                carriage,
                saves,
                odds: other.odds.one_in,
            };
            if is_closer {
                // They come from the closest to the widest: the last that does it takes least away.
                *closest = Some(reach);
            } else {
                ladder.reachable.push(reach);
            }
        }
    }
    for (ladder, closest) in ladders.iter_mut().zip(closest) {
        let most = |reach: &Reach| reach.saves.as_ref().map(|saves| saves.amount);
        ladder
            .reachable
            .sort_by_key(|reach| std::cmp::Reverse(most(reach)));
        ladder.reachable.truncate(TOLD);
        ladder.reachable.extend(closest);
    }
    Ok(ladders)
}

/// What the carrier is paid less, and what is saved in all; `None` unless both are over zero.
fn saved(before: &Quote, after: &Quote) -> Option<(Money, Money)> {
    let (now, then) = (before.cost.as_ref()?, after.cost.as_ref()?);
    let carriage = now.to_carrier.amount - then.to_carrier.amount;
    let all = now.total.amount - then.total.amount;
    let positive = carriage > Default::default() && all > Default::default();
    positive.then(|| {
        (
            Money::new(carriage, &now.total.currency),
            Money::new(all, &now.total.currency),
        )
    })
}

/// Just as much less room in the box as the nearest steps ask for.
fn closer(
    plan: &Plan,
    commission: &Commission<'_>,
    ladders: &[ServiceLadder],
) -> Vec<(String, Choices)> {
    let allowances = &commission.rules.allowances;
    let there = plan.layers.iter().find_map(|layer| match &layer.make {
        Make::EdgeFill(fill) if layer.slot == LayerSlot::Fill => Some(fill.clearance),
        _ => None,
    });
    let Some(there) = there else {
        return Vec::new();
    };
    let mut wanted: Vec<Length> = ladders
        .iter()
        .flat_map(|ladder| &ladder.steps.steps)
        .filter(|step| matches!(step.along, Along::Across | Along::Up))
        .filter_map(|step| step.less_mm)
        // Half of it at each edge, in whole millimetres.
        .map(|less| Length::mm((less.as_mm() / 2.0).ceil()))
        .map(|less| there - less)
        .filter(|left| *left >= allowances.snug_clearance)
        .collect();
    wanted.sort_unstable();
    wanted.dedup();
    let told_in = commission.rules.told_in;
    wanted
        .into_iter()
        .map(|left| {
            let choices = Choices {
                clearance: Some(format!("{:.0} mm", left.as_mm())),
                ..Choices::default()
            };
            let label = format!(
                "Leave {} at each edge, not {}",
                told_in.length(left),
                told_in.length(there)
            );
            (label, choices)
        })
        .collect()
}
