//! The box that a shipment gets where nobody chose one.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{
    Commission, House, MoreCost, ShipmentInputs, Workings, quoting::parcel_of,
    worked::chosen_or_best,
};
use crate::{
    Refusal,
    freight::{Parcel, Quote, QuoteRequest, Service, Tariff},
    house::{BoxRule, CartonStyle},
    layer::PackOf,
    place::Destination,
    plan::{Finding, FindingLevel, OtherBox, Plan},
    quantity::Money,
    space::LayerSlot,
};

/// A box that the house's rule chose in place of the usual one.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoxByRule {
    /// How it is made.
    pub style: CartonStyle,
    /// What it is made in place of.
    pub instead_of: CartonStyle,
    /// What the usual one is called.
    pub usual_name: &'static str,
    /// All told: materials, carriage and work.
    pub saves: Money,
}

/// That the box is another one than the usual; which says nothing against a plan.
pub(crate) const BOX_BY_RULE: &str = "box-by-rule";

/// Returns what follows from a commission with the box that the house's rule chooses: of those that raise no new Stop or
/// Mind, and leave the odds as good as the house asks for, the one that costs least to send; the usual one unless another saves what
/// is worth saving. What somebody chose stays. Source: house rule.
///
/// What a style saves is first reckoned from its box alone, and the parcel's carriage with it; only where that saves is
/// the whole plan made.
pub(super) fn chosen(
    inputs: &ShipmentInputs,
    house: &House,
    commission: Commission<'_>,
    usual: Workings,
) -> Result<Workings, Vec<Refusal>> {
    let rules = &commission.rules;
    let free = rules.shipment.box_style.is_none() && rules.schools.box_style == BoxRule::Cheapest;
    // What it would save is not known before every material has its price.
    let priced = |plan: &&Plan| plan.unpriced.is_empty();
    let Some(plan) = usual.plan.as_ref().filter(|_| free).filter(priced) else {
        return Ok(usual);
    };
    // Of two boxes it is the one around the piece.
    let first = plan
        .layers
        .iter()
        .find(|layer| layer.slot == LayerSlot::Box);
    let Some(instead_of) = first
        .and_then(|layer| layer.make.carton())
        .map(|carton| carton.style)
    else {
        return Ok(usual);
    };
    let least = rules.allowances.worth_saving(&house.catalogue.currency);
    let worsening = rules.allowances.odds_worsening;
    let others = plan
        .other_boxes(&commission.piece, rules, &house.catalogue)
        .map_err(|refusal| vec![refusal])?;
    let seems = Seems::of(inputs, house, &commission, &usual, plan);
    let worth_a_look: Vec<CartonStyle> = others
        .iter()
        .filter(|other| seems.saving(other) >= least)
        .map(|other| other.style)
        .collect();
    let mut best: Option<(BoxByRule, Workings)> = None;
    let mut commission = commission;
    for style in worth_a_look {
        commission.rules.shipment.box_style = Some(style);
        let Ok(made) = Workings::followed(inputs, house, &commission, Vec::new()) else {
            continue;
        };
        let Some(then) = made.plan.as_ref() else {
            continue;
        };
        let more = MoreCost::between(inputs, (&usual, plan), (&made, then));
        let saves = -more.whole.amount;
        let most = best.as_ref().map_or(least, |(by, _)| by.saves.amount);
        if more.priced && saves >= most && plan.is_kept_by(then, worsening) {
            let by = BoxByRule {
                style,
                instead_of,
                usual_name: instead_of.name(),
                saves: Money::new(saves, &more.whole.currency),
            };
            best = Some((by, made));
        }
    }
    Ok(best.map_or(usual, |(by, made)| by.noted_on(made)))
}

impl BoxByRule {
    /// Notes on what was made with it that it was chosen.
    pub(super) fn noted_on(self, mut made: Workings) -> Workings {
        if let Some(plan) = made.plan.as_mut() {
            plan.findings.push(self.finding());
        }
        Workings {
            box_by_rule: Some(self),
            ..made
        }
    }

    /// Says so, where one would look for the box that one knows.
    fn finding(&self) -> Finding {
        let usual = self.usual_name.to_lowercase();
        let saves = &self.saves;
        let says = format!(
            "The box is {}. It costs {} {} less to send than the {usual}, and is about as safe.",
            self.style.with_article(),
            saves.amount.round_dp(2),
            saves.currency.code(),
        );
        let keep = PackOf::Piece.choices(Some(self.instead_of), None);
        Finding::layer(FindingLevel::Note, BOX_BY_RULE, LayerSlot::Box, says)
            .answered_by(format!("Make the {usual}"), keep)
    }
}

/// How a shipment is carried with the box that it has now.
struct Carried<'a> {
    /// The price of its service.
    now: &'a Quote,
    tariff: &'a Tariff,
    service: &'a Service,
    place: Destination,
}

/// What a shipment seems to save with another box, before the whole plan is made.
struct Seems<'a> {
    parcel: Parcel,
    /// The service that it goes with now, where it is known where it goes.
    carried: Option<Carried<'a>>,
    /// What one unit of that carrier's money is worth in the studio's; `None` if no rate of it is kept.
    rate: Option<Decimal>,
    /// What materials and work are multiplied by, so that the studio's share is in them.
    with_overhead: Decimal,
}

impl<'a> Seems<'a> {
    fn of(
        inputs: &ShipmentInputs,
        house: &'a House,
        commission: &Commission<'_>,
        worked: &'a Workings,
        plan: &Plan,
    ) -> Self {
        let carried = inputs.destination().and_then(|place| {
            let now = chosen_or_best(&worked.quotes, inputs)?;
            let (tariff, service) = house.tariff_and_service(&now.id)?;
            Some(Carried {
                now,
                tariff,
                service,
                place,
            })
        });
        let bought = carried.as_ref().is_some_and(|carried| {
            let cover = carried.now.cover.as_ref();
            cover.is_none_or(|cover| cover.bought)
        });
        let rate = carried.as_ref().and_then(|carried| {
            let own = &house.catalogue.currency;
            commission.rules.rate(&carried.tariff.currency, own)
        });
        let worth = inputs.worth().ok().flatten();
        Self {
            parcel: Parcel {
                buys_cover: bought,
                ..parcel_of(
                    plan,
                    &commission.constructions(),
                    worth.and_then(|worth| worth.checked_div(rate?)),
                )
            },
            carried,
            rate,
            with_overhead: commission.rules.allowances.with_overhead(),
        }
    }

    fn saving(&self, other: &OtherBox) -> Decimal {
        let parcel = Parcel {
            outside: other.outside,
            mass: other.mass,
            ..self.parcel
        };
        let carriage = self.carried.as_ref().and_then(|carried| {
            let asked = QuoteRequest::now(&parcel, &carried.place);
            let then = carried.tariff.quote(&carried.service.id, &asked)?;
            Some((then.total()?.amount - carried.now.total()?.amount) * self.rate?)
        });
        -other.cost.amount * self.with_overhead - carriage.unwrap_or_default()
    }
}
