//! The packing slip: what is in the parcel, without its price.

use jiff::civil::Date;
use serde::Serialize;

use super::about::{Ends, Letterhead, pieces};
use crate::{layer::Make, plan::Plan, quantity::Telling, shipment::ShipmentInputs};

/// What is in a parcel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Slip {
    /// Whose it is.
    pub head: Letterhead,
    /// Both ends.
    pub ends: Ends,
    /// The day.
    pub on: String,
    /// By which the shop knows the order, as `Order #1042`; empty where it is for none.
    pub order: String,
    /// Every piece with what it is, line by line.
    pub pieces: Vec<SlipPiece>,
    /// What lies with it, and where.
    pub with_it: Vec<String>,
    /// Whether it is a gift, so that nobody looks for a bill.
    pub gift: bool,
}

/// A piece in a parcel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct SlipPiece {
    /// Its title.
    pub title: String,
    /// What it is, line by line.
    pub lines: Vec<String>,
}

/// Returns the packing slip of a parcel.
#[must_use]
pub fn slip(
    inputs: &ShipmentInputs,
    plan: Option<&Plan>,
    head: Letterhead,
    ends: Ends,
    on: Date,
    telling: Telling,
) -> Slip {
    let with_it = plan.iter().flat_map(|plan| plan.every_layer());
    let with_it = with_it
        .filter_map(|layer| match &layer.make {
            Make::Enclosures(enclosures) => Some(&enclosures.list),
            _ => None,
        })
        .flatten()
        .map(|one| format!("{}, {}", one.enclosure.called(), one.enclosure.place.name()));
    Slip {
        head,
        ends,
        on: telling.day(on),
        order: match inputs.order_number() {
            "" => String::new(),
            number => format!("Order {number}"),
        },
        pieces: pieces(inputs)
            .into_iter()
            .map(|piece| SlipPiece {
                title: inputs.title_of(piece.key),
                lines: piece.lines(telling),
            })
            .collect(),
        with_it: with_it.collect(),
        gift: inputs.gift,
    }
}
