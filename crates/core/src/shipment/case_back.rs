//! How a travel case comes back: what it weighs empty, what that costs, and what is left for it until then.

use serde::Serialize;

use super::House;
use crate::{
    freight::{Parcel, Quote, QuoteRequest},
    house::HouseRules,
    layer::{Joins, Layer, Make, TravelCase},
    material::KeptCase,
    place::Destination,
    plan::Plan,
    quantity::{Length, Mass, Money},
};

/// How a travel case comes back.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CaseBack {
    /// What it weighs empty.
    #[serde(rename = "empty_g")]
    pub empty: Mass,
    /// What whoever receives it pays until it is back.
    pub deposit: Money,
    /// What carriage of the empty case comes to with the same service, in the studio's money; `None` before it is known where it goes,
    /// and where no rate of the service's money is kept.
    pub carriage: Option<Money>,
    /// How it goes on the shelf when it is back; `None` for one that stands there already, and is counted again.
    pub keep: Option<KeptCase>,
}

impl CaseBack {
    pub(super) fn of(
        plan: &Plan,
        rules: &HouseRules,
        house: &House,
        (parcel, sent_by, place): (&Parcel, Option<&Quote>, Option<Destination>),
    ) -> Option<Self> {
        let (layer, case) = plan.layers.iter().find_map(|layer| match &layer.make {
            Make::TravelCase(case) => Some((layer, case)),
            _ => None,
        })?;
        let empty = case.empty;
        let carriage = sent_by.zip(place).and_then(|(quote, place)| {
            let (tariff, service) = house.tariff_and_service(&quote.id)?;
            let back = Parcel {
                mass: empty,
                buys_cover: false,
                ..*parcel
            };
            let then = tariff.quote(&service.id, &QuoteRequest::now(&back, &place))?;
            let own = &house.catalogue.currency;
            let rate = rules.rate(&tariff.currency, own)?;
            Some(Money::new(then.total()?.amount * rate, own))
        });
        Some(Self {
            empty,
            deposit: Money::new(
                rules.allowances.case_deposit.amount(),
                &house.catalogue.currency,
            ),
            carriage,
            keep: (!case.kept).then(|| kept(layer, case, rules)),
        })
    }
}

/// A case that was built for a shipment, as it stands on the shelf afterwards: each further journey bears as much of it as this one.
fn kept(layer: &Layer, case: &TravelCase, rules: &HouseRules) -> KeptCase {
    let [length, width, depth] = case.inside_mm.map(|side| side - case.lining * 2.0);
    let standing = match case.joint(Joins::Foot) {
        Some(_) => rules.allowances.case_foot,
        None => Length::ZERO,
    };
    KeptCase {
        length,
        width,
        depth,
        lining: case.lining,
        outside_length: case.face_mm[0],
        outside_width: case.face_mm[1] + standing,
        outside_depth: layer.envelope.through,
        board: layer.material.clone(),
        empty: case.empty,
        lid_screws: case.lid_screws,
        treated: case.treated,
        journey_cost: layer.cost.amount,
        journey_minutes: case.build / f64::from(case.journeys.max(1)),
    }
}
