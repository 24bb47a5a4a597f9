//! How a travel case comes back: what it weighs empty, what that costs, and what is left for it until then.

use serde::Serialize;

use super::House;
use crate::{
    freight::{Parcel, Quote, QuoteRequest},
    house::HouseRules,
    layer::Make,
    place::Destination,
    plan::Plan,
    quantity::{Mass, Money},
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
}

impl CaseBack {
    pub(super) fn of(
        plan: &Plan,
        rules: &HouseRules,
        house: &House,
        (parcel, sent_by, place): (&Parcel, Option<&Quote>, Option<Destination>),
    ) -> Option<Self> {
        let empty = plan.layers.iter().find_map(|layer| match &layer.make {
            Make::TravelCase(case) => Some(case.empty),
            _ => None,
        })?;
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
        })
    }
}
