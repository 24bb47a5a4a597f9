//! One parcel that left, in figures: as it was planned, and as it turned out.

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::{
    house::HouseRules,
    odds::PieceClass,
    place::Route,
    quantity::{Currency, Mass},
    sending::HandedParcel,
    shipment::{Outcome, ShipmentInputs},
};

/// One parcel that left, in figures.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LogRow {
    /// The day on which the carrier took it.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    pub left_on: Date,
    /// Which row of the odds it went by.
    pub class: PieceClass,
    /// Which way it went.
    pub route: Route,
    /// The preset that it started from.
    pub preset: Option<String>,
    /// The carrier's name.
    pub carrier: Option<String>,
    /// The service's name.
    pub service: Option<String>,
    /// What came of it; `None` while it is on its way.
    pub outcome: Option<Outcome>,
    /// base · route · factor: what the model expected of it before the studio's own record, as a fraction.
    pub intensity: f64,
    /// That it arrives damaged, as it was said then, as a fraction.
    pub probability: f64,
    /// That it is lost, as a fraction.
    pub lost: f64,
    /// As planned.
    pub planned_g: f64,
    /// How far the plan said that this may be off.
    pub plus_minus_g: f64,
    /// As the scale read it.
    pub weighed_g: Option<f64>,
    /// Outside, as planned: across, up, through.
    pub planned_mm: [f64; 3],
    /// Outside, as it was measured.
    pub measured_mm: Option<[f64; 3]>,
    /// What carriage was to come to, in the studio's money.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub carriage: Option<Decimal>,
    /// What it came to by the carrier's bill.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub billed: Option<Decimal>,
    /// Minutes of packing, as planned.
    pub minutes: f64,
    /// Minutes that it took.
    pub took: Option<f64>,
    /// What everything in it is worth.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub worth: Option<Decimal>,
    /// What the carrier paid for damage or loss.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub paid: Option<Decimal>,
    /// What things that were used again would have cost new.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub saved: Option<Decimal>,
    /// Of what was in it, used before.
    #[serde(default)]
    pub used_again_g: Option<f64>,
    /// The room that this would have taken in the bin, in litres.
    #[serde(default)]
    pub used_again_litres: Option<f64>,
    /// By which the shop knows the order; empty where it was for none.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub order_number: String,
    /// What the buyer paid for carriage.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub shipping_paid: Option<Decimal>,
    /// The money that its sums are in; the studio's where it never counted in another.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub currency: Option<Currency>,
}

impl LogRow {
    /// Returns the row of a parcel that was handed over; `None` if it was not.
    #[must_use]
    pub fn of(handed: &HandedParcel, inputs: &ShipmentInputs) -> Option<Self> {
        let outside = |size: crate::space::Envelope| {
            [size.across, size.up, size.through].map(|side| side.as_mm())
        };
        Some(Self {
            left_on: inputs.handed_over()?,
            class: handed.class,
            route: handed.route,
            preset: handed.preset.clone(),
            carrier: handed.carrier.clone(),
            service: handed.service_name.clone(),
            outcome: inputs.after.outcome,
            intensity: handed.intensity,
            probability: handed.probability,
            lost: handed.lost,
            planned_g: handed.weight.mass.as_g(),
            plus_minus_g: handed.weight.plus_minus.as_g(),
            weighed_g: handed.weighed.map(Mass::as_g),
            planned_mm: outside(handed.outside),
            measured_mm: handed.measured.map(outside),
            carriage: handed.carriage.as_ref().map(|money| money.amount),
            billed: inputs.billed(),
            minutes: handed.minutes.as_min(),
            took: inputs
                .after
                .minutes
                .map(f64::from)
                .or_else(|| Some(handed.ticked_minutes()?.as_min())),
            worth: handed.worth.as_ref().map(|money| money.amount),
            paid: inputs.claim_paid(),
            saved: handed.saved.as_ref().map(|money| money.amount),
            used_again_g: handed.used_again.map(Mass::as_g),
            used_again_litres: handed.used_again_litres,
            order_number: inputs.order_number().to_owned(),
            shipping_paid: inputs.paid_for_carriage(),
            currency: Some(handed.currency()),
        })
    }

    /// Returns the row with its sums in the studio's money; without them where no rate of the money that it left in is kept.
    #[must_use]
    pub fn in_money_of(mut self, rules: &HouseRules, own: &Currency) -> Self {
        let left_in = self.currency.unwrap_or(*own);
        let rate = rules.rate(&left_in, own);
        if left_in != *own {
            for sum in [
                &mut self.carriage,
                &mut self.billed,
                &mut self.shipping_paid,
                &mut self.worth,
                &mut self.paid,
                &mut self.saved,
            ] {
                *sum = sum
                    .zip(rate)
                    .map(|(sum, rate)| own.round(sum.saturating_mul(rate)));
            }
            self.currency = rate.is_some().then_some(*own);
        }
        self
    }

    /// Tells whether it is known in what state it arrived, so that it says something about the odds.
    #[must_use]
    pub const fn is_known(&self) -> bool {
        matches!(self.outcome, Some(Outcome::Arrived | Outcome::Damaged))
    }

    /// Tells whether it arrived damaged.
    #[must_use]
    pub const fn is_damaged(&self) -> bool {
        matches!(self.outcome, Some(Outcome::Damaged))
    }
}
