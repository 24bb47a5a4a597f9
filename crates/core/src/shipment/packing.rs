//! The steps at the bench for a shipment, and how far somebody got with them.

use super::{Commission, House, ShipmentInputs, Worked};
use crate::{
    Refusal,
    pack::{PackView, pack_steps},
};

/// Returns every step of packing a shipment beside what was ticked; nothing while there is no plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn packing(inputs: &ShipmentInputs, house: &House) -> Result<Option<PackView>, Vec<Refusal>> {
    let worked = Worked::out(inputs, house)?;
    let (Some(plan), Some(piece)) = (&worked.plan, inputs.piece()?) else {
        return Ok(None);
    };
    let commission = Commission::of(inputs, piece, house)?;
    let steps = pack_steps(plan, &commission.piece, &commission.rules, &house.catalogue);
    Ok(Some(PackView::of(steps, &inputs.packed)))
}
