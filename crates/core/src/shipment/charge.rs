//! What a shipment costs the studio, and what the buyer pays for it.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{Commission, House, ShipmentInputs, Workings, inputs::read_amount};
use crate::{
    Refusal,
    freight::Cost,
    house::{ChargeRule, ReusedRule, SchoolChoices},
    material::MaterialId,
    part::UsedAgain,
    plan::Plan,
    quantity::{Mass, Money},
    stock::{Batch, BatchShipment, CutTool, LayoutOf},
};

/// What a shipment costs, line by line, and what each way of charging makes of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Charge {
    /// What it costs the studio.
    pub lines: Vec<CostLine>,
    /// Their sum.
    pub costs: Money,
    /// What the materials come to when every sheet that is opened for it is paid whole.
    pub opened: Money,
    /// How many sheets are opened for it.
    pub sheets: u32,
    /// What it would have cost more, had nothing been used before.
    pub saved_by_reuse: Money,
    /// Of what is in it, used before.
    #[serde(rename = "used_again_g")]
    pub used_again: Mass,
    /// The room that this would have taken in the bin, lying flat, in litres; what goes by the piece is not counted.
    pub used_again_litres: f64,
    /// The service that was reckoned with; `None` before it is known where it goes.
    pub service: Option<String>,
    /// What the carrier takes, with tax and cover.
    pub carriage: Money,
    /// What the buyer paid the shop for carriage; `None` where no order says it.
    pub paid: Option<Money>,
    /// What of that is left over when the carrier is paid; less than zero where it does not cover it.
    pub over_carriage: Option<Money>,
    /// What the buyer pays by the studio's rule.
    pub pays: Money,
    /// What stays with the studio; less than zero where it pays itself.
    pub gain: Money,
    /// The rule.
    pub rule: ChargeRule,
    /// What the buyer would pay by each rule.
    pub policies: Vec<Policy>,
}

/// One line of what it costs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CostLine {
    /// What it is for.
    pub kind: CostKind,
    /// What it comes to.
    pub amount: Money,
}

/// What a line of the costs is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CostKind {
    /// Of what the plan takes.
    Materials,
    /// Minutes at the studio's rate.
    Work,
    /// The studio's share for rent, tools and the rest.
    Overhead,
    /// What the carrier takes, without tax and cover.
    Carriage,
    /// The carrier's tax.
    Tax,
    /// Cover beyond what is included.
    Cover,
    /// What is damaged or lost on average, beyond the cover.
    Loss,
}

/// A way of charging, and what it comes to.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Policy {
    /// The rule.
    pub rule: ChargeRule,
    /// What the buyer pays by it.
    pub pays: Money,
    /// What stays with the studio.
    pub gain: Money,
}

/// The parts are laid out only well enough to count sheets.
const STEPS: u64 = 40;

/// Returns what a shipment costs and what the buyer pays; `None` before there is a plan.
///
/// # Errors
/// A [`Refusal`] when the plan as it is can't be made.
pub fn charge(inputs: &ShipmentInputs, house: &House) -> Result<Option<Charge>, Vec<Refusal>> {
    let Some(piece) = inputs.piece()? else {
        return Ok(None);
    };
    let commission = Commission::of(inputs, piece, house)?;
    let worked = Workings::out(inputs, house)?;
    let Some(plan) = worked.plan.as_ref() else {
        return Ok(None);
    };
    let own = &house.catalogue.currency;
    let money = |amount: Decimal| Money::new(amount, own);
    let allowances = &commission.rules.allowances;
    // Where no rate of the carrier's money is kept, what it takes is left out.
    let cost = worked.cost.clone().unwrap_or_else(|| {
        let making = plan.tally.making(allowances);
        Cost::made(making, plan.odds.expected_loss.as_ref(), own)
    });
    let (materials, work) = (cost.materials.amount, cost.work.amount);
    let overhead = cost.overhead.amount;
    let lines: Vec<CostLine> = [
        (CostKind::Materials, materials),
        (CostKind::Work, work),
        (CostKind::Overhead, overhead),
        (
            CostKind::Carriage,
            cost.carriage.amount + cost.surcharges.amount,
        ),
        (CostKind::Tax, cost.tax.amount),
        (CostKind::Cover, cost.cover.amount),
        (CostKind::Loss, cost.expected_loss.amount),
    ]
    .into_iter()
    .filter(|(_, amount)| !amount.is_zero())
    .map(|(kind, amount)| CostLine {
        kind,
        amount: money(amount),
    })
    .collect();
    let costs = cost.total.amount;
    let whole = cost.to_carrier.amount;
    let free_above = allowances.charge_free_above.amount();
    let worth = inputs.worth().ok().flatten().unwrap_or_default();
    let is_free = free_above > Decimal::ZERO && worth >= free_above;
    let by = |rule: ChargeRule| {
        let pays = match rule {
            ChargeRule::AtCost => whole,
            ChargeRule::WithMaterials => whole + materials,
            ChargeRule::WithTime => whole + materials + work + overhead,
            ChargeRule::Flat => allowances.charge_flat.amount(),
            ChargeRule::Included => Decimal::ZERO,
        };
        let pays = own.round(if is_free { Decimal::ZERO } else { pays });
        Policy {
            rule,
            pays: money(pays),
            gain: money(pays - costs),
        }
    };
    let rule = commission.rules.schools.charge;
    let Policy { pays, gain, .. } = by(rule);
    let (opened, sheets) = opened(plan, house);
    let used_again: UsedAgain = plan.layers.iter().map(|layer| layer.used_again).sum();
    let paid = read_amount("order.paid", inputs.order.paid.as_deref())
        .map_err(|refusal| vec![refusal])?
        .map(|paid| own.round(paid));
    Ok(Some(Charge {
        costs: money(costs),
        carriage: money(own.round(whole)),
        paid: paid.map(money),
        over_carriage: paid.map(|paid| money(paid - own.round(whole))),
        opened: money(opened),
        sheets,
        saved_by_reuse: money(as_new(inputs, house).unwrap_or(materials) - materials),
        used_again: used_again.mass,
        used_again_litres: used_again.litres(),
        service: worked
            .chosen_or_best(inputs)
            .filter(|quote| quote.cost.is_some())
            .map(|quote| format!("{} {}", quote.carrier, quote.service)),
        pays,
        gain,
        rule,
        policies: ChargeRule::ALL.iter().map(|rule| by(*rule)).collect(),
        lines,
    }))
}

/// What the materials come to with every sheet paid whole, and how many sheets are opened.
fn opened(plan: &Plan, house: &House) -> (Decimal, u32) {
    let batch = Batch {
        shipments: vec![BatchShipment { plan }],
        blanks: &[],
        of: LayoutOf::All,
        tool: CutTool::Knife,
        offcuts: Vec::new(),
        catalogue: &house.catalogue,
        allowances: &house.rules.allowances,
        seed: 1,
        steps: STEPS,
    };
    let laid = batch.lay_out(&mut || false);
    let cut = |id: &MaterialId| {
        laid.materials
            .iter()
            .any(|material| material.material == *id)
    };
    let parts = plan.layers.iter().flat_map(|layer| &layer.parts);
    let others: Decimal = parts
        .filter(|part| !cut(&part.material))
        .map(|part| part.cost.amount)
        .sum();
    let sheets = laid.materials.iter().flat_map(|material| &material.opens);
    (laid.cost + others, sheets.map(|sheets| sheets.count).sum())
}

/// What the materials would cost if everything were new.
fn as_new(inputs: &ShipmentInputs, house: &House) -> Option<Decimal> {
    let mut new = inputs.clone();
    new.choices.schools = SchoolChoices {
        reused: Some(ReusedRule::AsNew),
        ..new.choices.schools
    };
    let plan = Workings::out(&new, house).ok()?.plan?;
    Some(plan.tally.materials.amount)
}
