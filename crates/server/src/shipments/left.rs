//! What is written down of a parcel that left.

use hummock_core::{
    Refusal,
    quantity::Telling,
    sending::HandedParcel,
    shipment::{ShipmentInputs, Summary},
};
use hummock_store::{Edit, HouseAt, Place, Stored};
use jiff::civil::Date;
use uuid::Uuid;

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
        let says = "there is no plan of it yet: measure the piece first";
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

/// What changes about a parcel that has left: what is typed of it, and not its plan.
pub(super) struct Left<'a> {
    pub(super) stored: &'a Stored,
    pub(super) inputs: &'a ShipmentInputs,
}

impl<'a> Left<'a> {
    /// Returns it where a parcel has left and goes on being so.
    pub(super) fn still(stored: &'a Stored, inputs: &'a ShipmentInputs) -> Option<Self> {
        let left = stored.place == Place::Sent
            && inputs.handed_over().is_some()
            && inputs.changed_after_leaving(&stored.inputs).is_empty();
        left.then_some(Self { stored, inputs })
    }

    pub(super) const fn of(&self, based_on: i32, edit: Option<Uuid>) -> Edit<'a> {
        Edit {
            shipment: self.stored.id,
            based_on,
            id: edit,
            inputs: self.inputs,
            computed: &self.stored.computed,
            handed: None,
            keeps_plan: true,
            draws: None,
        }
    }
}
