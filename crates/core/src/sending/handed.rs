//! A parcel as it was handed over: what was planned for it, weighed and done by then. Kept as it is from that day on, whatever
//! becomes of the house that it was planned by.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::{
    Refusal,
    freight::Offer,
    odds::PieceClass,
    pack::StepState,
    place::Route,
    plan::OneIn,
    quantity::{Currency, Mass, Minutes, Money, Weight},
    shipment::{House, ShipmentInputs, UnpackingGuide, Workings, charge, packing},
    space::Envelope,
};

/// A parcel as it was handed over.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Handed))]
#[serde(remote = "Self")]
pub struct HandedParcel {
    /// Which row of the odds it went by.
    pub class: PieceClass,
    /// Which way it went.
    pub route: Route,
    /// base · route · factor: what the model expected of it before the studio's own record, as a fraction.
    pub intensity: f64,
    /// That it arrives damaged, as a fraction.
    pub probability: f64,
    /// The lower end of its range.
    pub low: f64,
    /// The upper end.
    pub high: f64,
    /// The same as people say it.
    pub one_in: OneIn,
    /// That it is lost, as a fraction.
    pub lost: f64,
    /// The preset that it started from.
    pub preset: Option<String>,
    /// As planned.
    pub weight: Weight,
    /// As planned.
    pub outside: Envelope,
    /// The scale's reading of the parcel as it was packed.
    pub weighed: Option<Mass>,
    /// Its outside, measured.
    pub measured: Option<Envelope>,
    /// The service, as `gannet-post/parcel`.
    pub service: Option<String>,
    /// The carrier's name.
    pub carrier: Option<String>,
    /// The service's name.
    pub service_name: Option<String>,
    /// What carriage was to come to, in the studio's money.
    pub carriage: Option<Money>,
    /// What is paid out at most, in the carrier's money.
    pub covered: Option<Money>,
    /// What everything in it is worth, in the studio's money.
    pub worth: Option<Money>,
    /// Of the materials.
    pub materials: Money,
    /// Of work.
    pub labour: Money,
    /// Of work.
    pub minutes: Minutes,
    /// The plastic share of the parcel.
    pub plastic: Mass,
    /// What things that were used again would have cost new.
    pub saved: Option<Money>,
    /// Of what was in it, used before.
    #[serde(rename = "used_again_g", default)]
    pub used_again: Option<Mass>,
    /// The room that this would have taken in the bin, in litres.
    #[serde(default)]
    pub used_again_litres: Option<f64>,
    /// Every step at the bench, and when it was ticked.
    pub steps: Vec<DoneStep>,
    /// How its buyer unpacks it, as that is printed: the plan that it left with, backwards.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "schema", schema(value_type = Option<Object>))]
    pub unpacking: Option<serde_json::Value>,
}

crate::json::read_in_one_place!(HandedParcel);

/// A step at the bench.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct DoneStep {
    /// By which a photograph knows it.
    pub key: String,
    /// The piece that it is about, where there are several.
    pub piece: Option<String>,
    /// What was done.
    pub title: String,
    /// When, as `2027-03-04T10:15:00Z`; `None` if nobody ticked it.
    pub at: Option<String>,
}

impl HandedParcel {
    /// Returns a parcel as it stands; `None` while there is no plan.
    ///
    /// # Errors
    /// A [`Refusal`] when the plan can't be made.
    pub fn of(inputs: &ShipmentInputs, house: &House) -> Result<Option<Self>, Vec<Refusal>> {
        let worked = Workings::out(inputs, house)?;
        let Some(plan) = &worked.plan else {
            return Ok(None);
        };
        let quote = worked.chosen_or_best(inputs).filter(|quote| {
            // The best is only a proposal.
            Some(quote.id.as_str()) == inputs.service.as_deref()
        });
        let charged = charge(inputs, house)?;
        let steps = packing(inputs, house)?
            .map(|view| view.steps)
            .unwrap_or_default();
        let found = worked.found.as_ref().filter(|found| found.stands);
        let odds = &plan.odds;
        let money = |amount: Decimal| Money::new(amount, &house.catalogue.currency);
        Ok(Some(Self {
            class: odds.class,
            route: odds.by,
            intensity: odds.intensity(),
            probability: odds.probability,
            low: odds.low,
            high: odds.high,
            one_in: odds.one_in,
            lost: odds.lost,
            preset: plan.began.as_ref().map(|began| began.preset.clone()),
            weight: plan.tally.weight,
            outside: plan.tally.outside,
            weighed: found.and_then(|found| found.mass),
            measured: found.and_then(|found| found.outside),
            service: quote.map(|quote| quote.id.clone()),
            carrier: quote.map(|quote| quote.carrier.clone()),
            service_name: quote.map(|quote| quote.service.clone()),
            carriage: quote.and_then(|quote| quote.total_here.clone()),
            covered: quote.and_then(|quote| match &quote.offer {
                Offer::Priced { covered, .. } => Some(covered.clone()),
                Offer::Refused { .. } => None,
            }),
            worth: inputs.worth().ok().flatten().map(money),
            materials: plan.tally.materials.clone(),
            labour: plan.tally.labour.clone(),
            minutes: plan.tally.minutes,
            plastic: plan.tally.plastic,
            used_again: charged.as_ref().map(|charge| charge.used_again),
            used_again_litres: charged.as_ref().map(|charge| charge.used_again_litres),
            saved: charged.map(|charge| charge.saved_by_reuse),
            unpacking: serde_json::to_value(UnpackingGuide::of(plan, inputs)).ok(),
            steps: steps
                .into_iter()
                .map(|view| DoneStep {
                    key: view.step.key,
                    piece: view.step.piece,
                    title: view.step.title,
                    at: view.at.filter(|_| view.state == StepState::Done),
                })
                .collect(),
        }))
    }

    /// Returns the money that it left in.
    #[must_use]
    pub const fn currency(&self) -> Currency {
        self.materials.currency
    }

    /// Returns the carrier's id of its tariff.
    #[must_use]
    pub fn tariff(&self) -> Option<&str> {
        self.service
            .as_deref()?
            .split_once('/')
            .map(|(tariff, _)| tariff)
    }
}
