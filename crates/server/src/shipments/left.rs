//! What is written down of a parcel that left.

use hummock_core::{
    Refusal,
    quantity::Telling,
    sending::HandedParcel,
    shipment::{ShipmentInputs, Summary},
};
use hummock_store::HouseAt;
use jiff::civil::Date;

use crate::problem::Problem;

/// Returns a parcel as it is handed over by inputs; `None` if it is not.
pub(super) fn handed_over(
    inputs: &ShipmentInputs,
    house: &HouseAt,
) -> Result<Option<HandedParcel>, Problem> {
    if inputs.handed_over().is_none() {
        return Ok(None);
    }
    let handed = HandedParcel::of(inputs, &house.house)?;
    handed.map(Some).ok_or_else(|| {
        let says = "no plan yet: measure the piece first";
        vec![Refusal::new("sending.handed_over", says)].into()
    })
}

/// Tells whether a shipment may be handed over by inputs that say so for the first time.
///
/// # Errors
/// A refusal at the day while a Stop of its plan stands, or what is in it is not dry.
pub(super) fn may_leave(
    before: &ShipmentInputs,
    (inputs, summary): (&ShipmentInputs, Option<&Summary>),
    (today, telling): (Date, Telling),
) -> Result<(), Problem> {
    if before.handed_over().is_some() || inputs.handed_over().is_none() {
        return Ok(());
    }
    let stopped = summary.map(|summary| summary.stopped(inputs, today, telling));
    match stopped.unwrap_or_default().first() {
        None => Ok(()),
        Some(first) => {
            let says = format!("to be answered before it leaves: {}", first.says);
            Err(vec![Refusal::new("sending.handed_over", says)].into())
        }
    }
}
