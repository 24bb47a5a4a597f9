//! How several pieces lie in a box where nobody laid them: one above the other, or side by side where that is cheaper to send.

use rust_decimal::prelude::ToPrimitive;
use serde::Serialize;

use super::{Commission, House, MoreCost, ShipmentInputs, Workings, quoting::parcel_of};
use crate::{
    Refusal,
    arrange::Tiers,
    freight::{Parcel, QuoteRequest},
    house::{Choices, HouseRules},
    layer::Layer,
    place::Destination,
    plan::{Finding, FindingLevel, Laid, Plan},
    quantity::Money,
    space::{Envelope, LayerSlot},
};

/// Pieces that the rule laid side by side in place of one above the other.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TiersByRule {
    /// On how many boards they lie.
    pub tiers: u32,
    /// All told: materials, carriage and work.
    pub saves: Money,
    /// Which pieces lie on each board, counted from 0.
    #[serde(skip)]
    boards: Vec<Vec<usize>>,
}

/// Side by side, which says nothing against a plan.
pub(crate) const SIDE_BY_SIDE: &str = "side-by-side";

/// Returns what follows from a commission with its pieces laid as they cost least to send: side by side where that saves what is worth
/// saving and raises no new Stop or Mind, be it that the odds are past what the house accepts. What somebody laid by hand stays.
/// Source: house rule.
///
/// Each footprint is first priced by the parcel's sides alone; only of the cheapest the whole plan is made. That a tower is a little
/// less likely to be harmed, because it is deeper, is no reason to build one.
pub(super) fn chosen(
    inputs: &ShipmentInputs,
    house: &House,
    commission: &mut Commission<'_>,
    tower: Workings,
) -> Result<Workings, Vec<Refusal>> {
    let rules = &commission.rules;
    let by_rule = commission
        .together
        .as_ref()
        .is_some_and(|together| matches!(together.laid, Laid::ByRule) && !together.folded);
    let Some(plan) = tower.plan.as_ref().filter(|_| by_rule) else {
        return Ok(tower);
    };
    let least = rules.allowances.worth_saving(&house.catalogue.currency);
    let carried = Carried::of(inputs, house, commission, plan);
    let Some(found) = cheapest(plan, commission, &carried) else {
        return Ok(tower);
    };
    let boards: Vec<Vec<usize>> = found
        .tiers
        .iter()
        .map(|tier| tier.pieces.iter().map(|on| on.piece).collect())
        .collect();
    commission.lay(Laid::Boards(boards.clone()));
    let made = Workings::followed(inputs, house, commission, Vec::new());
    if let Ok(made) = made
        && let Some(then) = made.plan.as_ref()
    {
        let more = MoreCost::between(inputs, (&tower, plan), (&made, then));
        let saves = -more.whole.amount;
        if more.priced && saves >= least && plan.is_kept_by(then, f64::INFINITY) {
            let by = TiersByRule {
                tiers: u32::try_from(boards.len()).unwrap_or(u32::MAX),
                saves: Money::new(saves, &more.whole.currency),
                boards,
            };
            return Ok(by.noted_on(made));
        }
    }
    commission.lay(Laid::ByRule);
    Ok(tower)
}

/// Returns what follows with the pieces as they would lie in a box that is cut for them, where one above the other they don't go into
/// what somebody chose; `None` where they don't so either.
pub(super) fn in_what_was_chosen(
    inputs: &ShipmentInputs,
    house: &House,
    mut commission: Commission<'_>,
) -> Option<Workings> {
    let chosen = &inputs.choices;
    let is_chosen = chosen.saved_length.is_some()
        || chosen.bought_box.is_some()
        || chosen.travel_case.is_some();
    let cut = ShipmentInputs {
        choices: Choices {
            bought_box: None,
            travel_case: None,
            case_from: None,
            saved_length: None,
            saved_width: None,
            saved_height: None,
            second_saved_length: None,
            second_saved_width: None,
            second_saved_height: None,
            ..chosen.clone()
        },
        ..inputs.clone()
    };
    let several = is_chosen && commission.together.is_some();
    let cut = several.then(|| Workings::out_in(&cut, house, commission.detail).ok())??;
    let by = cut.tiers_by_rule?;
    by.lay(&mut commission);
    let made = Workings::followed(inputs, house, &commission, Vec::new()).ok()?;
    Some(by.noted_on(made))
}

/// What carriage comes to with other sides, before the whole plan is made.
struct Carried<'a> {
    house: &'a House,
    rules: &'a HouseRules,
    parcel: Parcel,
    /// `None` before it is known where it goes.
    place: Option<Destination>,
    /// The service that somebody chose.
    service: Option<&'a str>,
}

impl<'a> Carried<'a> {
    fn of(
        inputs: &'a ShipmentInputs,
        house: &'a House,
        commission: &'a Commission<'_>,
        plan: &Plan,
    ) -> Self {
        let worth = inputs.worth().ok().flatten();
        Self {
            house,
            rules: &commission.rules,
            parcel: parcel_of(plan, &commission.constructions(), worth),
            place: inputs.destination(),
            service: inputs.service.as_deref(),
        }
    }

    /// With the cheapest service that takes it, in the studio's money; `None` where none does.
    fn at(&self, outside: Envelope) -> Option<f64> {
        let Some(place) = &self.place else {
            return Some(0.0);
        };
        let parcel = Parcel {
            outside,
            ..self.parcel
        };
        let asked = QuoteRequest::now(&parcel, place);
        let own = &self.house.catalogue.currency;
        let quotes = self.house.tariffs.iter().flat_map(|tariff| {
            let rate = self.rules.rate(&tariff.currency, own);
            let services = tariff.services.iter().filter(|service| {
                let id = format!("{}/{}", tariff.id, service.id);
                self.service.is_none_or(|chosen| chosen == id)
            });
            let asked = &asked;
            services.filter_map(move |service| {
                let total = tariff.quote(&service.id, asked)?.total()?.amount;
                (total * rate?).to_f64()
            })
        });
        quotes.min_by(f64::total_cmp)
    }
}

/// The tiers that seem cheapest, where any two pieces lie side by side in them.
fn cheapest(plan: &Plan, commission: &Commission<'_>, carried: &Carried<'_>) -> Option<Tiers> {
    let stack = plan.stack.as_ref()?;
    let together = commission.together.as_ref()?;
    let flats = together.flats(stack);
    let keeping = together.keeping(&commission.rules, &commission.house.catalogue)?;
    let held = plan.layers.first().map(|layer| layer.envelope)?;
    // What a box costs goes with its surface.
    let boxes: f64 = plan.layers.iter().filter(is_box).map(cost_of).sum();
    let surface = plan.tally.outside.surface().as_m2();
    let price = |envelope: Envelope| {
        let outside = plan.tally.outside.shifted(held, envelope);
        let carriage = carried.at(outside);
        carriage.map_or(f64::INFINITY, |carriage| {
            carriage + boxes * outside.surface().as_m2() / surface
        })
    };
    let layings = carried.house.references.layings(&flats, keeping)?;
    let found = layings.cheapest(&price)?;
    found.share_a_board().then(|| found.clone())
}

fn is_box(layer: &&Layer) -> bool {
    matches!(layer.slot, LayerSlot::Box | LayerSlot::SecondBox)
}

fn cost_of(layer: &Layer) -> f64 {
    layer.cost.amount.to_f64().unwrap_or_default()
}

impl TiersByRule {
    /// Lays the pieces of a commission as the rule did.
    pub(super) fn lay(&self, commission: &mut Commission<'_>) {
        commission.lay(Laid::Boards(self.boards.clone()));
    }

    /// Notes on what was made with it that the rule laid them so.
    pub(super) fn noted_on(self, mut made: Workings) -> Workings {
        if let Some(plan) = made.plan.as_mut() {
            let saves = &self.saves;
            let says = format!(
                "The pieces lie side by side on {} {}. That costs {} {} less to send than a stack.",
                self.tiers,
                if self.tiers == 1 { "board" } else { "boards" },
                saves.amount.round_dp(2),
                saves.currency.code(),
            );
            plan.findings.push(Finding::layer(
                FindingLevel::Note,
                SIDE_BY_SIDE,
                LayerSlot::Stack,
                says,
            ));
        }
        Workings {
            tiers_by_rule: Some(self),
            ..made
        }
    }
}
