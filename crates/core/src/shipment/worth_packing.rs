//! Whether a piece is worth its packing: what it costs to pack and send it, beside what it is worth.

use rust_decimal::Decimal;

use crate::{
    house::Allowances,
    plan::{Finding, FindingLevel, Plan},
    quantity::{Money, decimal_of},
};

/// That it costs much of what it is worth, which says nothing against a plan.
pub(crate) const WORTH_ITS_PACKING: &str = "worth-its-packing";

/// Returns a Note where materials, work and carriage come to more than the house's share of the value; `None` without a value.
pub(super) fn look(
    plan: &Plan,
    carriage: Option<&Money>,
    worth: Option<Decimal>,
    allowances: &Allowances,
) -> Option<Finding> {
    let worth = worth.filter(|worth| *worth > Decimal::ZERO)?;
    let carried = carriage.map_or(Decimal::ZERO, |money| money.amount);
    let comes_to = plan.tally.materials.amount + plan.tally.labour.amount + carried;
    let most = worth * decimal_of(allowances.packing_share);
    (comes_to > most).then(|| {
        let currency = plan.tally.materials.currency.code();
        let of = if carriage.is_some() {
            "Materials, labour and carriage"
        } else {
            "Materials and work"
        };
        let share = (comes_to / worth * Decimal::ONE_HUNDRED).round();
        let says = format!(
            "{of} cost {} {currency}, {share} % of its value of {} {currency}. Savings shows the cheapest way this studio accepts.",
            comes_to.round_dp(2),
            worth.round_dp(2),
        );
        Finding::parcel(FindingLevel::Note, WORTH_ITS_PACKING, says)
    })
}
