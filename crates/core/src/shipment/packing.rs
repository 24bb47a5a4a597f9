//! The steps at the bench for a shipment, and how far somebody got with them.

use super::{Commission, House, ShipmentInputs, Workings};
use crate::{
    Refusal,
    pack::{PackView, pack_steps},
    plan::Plan,
    shipment::{PackSheet, UnpackingGuide},
};

/// Returns every step of packing a shipment beside what was ticked; `None` while there is no plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn packing(inputs: &ShipmentInputs, house: &House) -> Result<Option<PackView>, Vec<Refusal>> {
    Ok(planned(inputs, house)?.map(|(_, view)| view))
}

/// Returns the steps as they are printed, to the lines of an address; `None` while there is no plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn pack_sheet(
    (inputs, to): (&ShipmentInputs, &[String]),
    house: &House,
) -> Result<Option<PackSheet>, Vec<Refusal>> {
    let planned = planned(inputs, house)?;
    Ok(planned.map(|(plan, view)| PackSheet::of(&view, &plan, (inputs, to), house.rules.told_in)))
}

/// Returns how whoever gets it unpacks a shipment; `None` while there is no plan.
///
/// # Errors
/// A [`Refusal`] when the plan can't be made.
pub fn unpacking_guide(
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Option<UnpackingGuide>, Vec<Refusal>> {
    let worked = Workings::out(inputs, house)?;
    Ok(worked.plan.map(|plan| UnpackingGuide::of(&plan, inputs)))
}

fn planned(
    inputs: &ShipmentInputs,
    house: &House,
) -> Result<Option<(Plan, PackView)>, Vec<Refusal>> {
    let worked = Workings::out(inputs, house)?;
    let (Some(plan), Some(piece)) = (worked.plan, inputs.piece()?) else {
        return Ok(None);
    };
    let commission = Commission::of(inputs, piece, house)?;
    let steps = pack_steps(
        &plan,
        &commission.pieces(),
        &commission.rules,
        &house.catalogue,
    );
    let view = PackView::of(steps, &inputs.packed);
    Ok(Some((plan, view)))
}
