//! What carriers are asked about a shipment, and what their own answer says beside the tariff.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{Commission, House, ShipmentInputs, Workings};
use crate::{
    Refusal,
    freight::{Content, Parcel, Quote, QuoteRequest, Tariff},
    place::Destination,
    quantity::Money,
    sums::{QuoteParcel, QuotePlace},
};

/// What one carrier is asked: the parcel as it is priced, with what it is worth in the carrier's money.
#[derive(Debug, Clone)]
pub struct CarrierAsk<'a> {
    /// Its tariff.
    pub tariff: &'a Tariff,
    /// What is sent.
    pub parcel: Parcel,
    /// Where to.
    pub place: Destination,
}

/// What a carrier's own service said beside its tariff.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Confirmed))]
pub struct Confirmation {
    /// The service, as `gannet-post/parcel`.
    pub id: String,
    /// What it said.
    pub says: CarrierSays,
    /// What it takes; `None` if it does not take it, or did not answer.
    pub total: Option<Money>,
    /// What the tariff says to the same question.
    pub by_tariff: Option<Money>,
}

/// How a carrier's own answer stands to its tariff.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CarrierSays {
    /// The same.
    Agrees,
    /// Something else.
    Differs,
    /// Nothing: the tariff alone is what there is.
    Nothing,
}

impl<'a> CarrierAsk<'a> {
    /// Returns what every carrier is asked about a worked shipment; `None` before there is a plan and a destination.
    pub(crate) fn each(
        inputs: &ShipmentInputs,
        house: &'a House,
        commission: &Commission<'_>,
        worked: &Workings,
    ) -> Vec<Self> {
        let (Some(place), Some(parcel)) = (inputs.destination(), worked.parcel(inputs, commission))
        else {
            return Vec::new();
        };
        let own = &house.catalogue.currency;
        house
            .tariffs
            .iter()
            .map(|tariff| {
                // What it is worth in the carrier's money, as the quotes take it.
                let worth = parcel.value.map(|worth| Money::new(worth, own));
                let value =
                    worth.and_then(|worth| commission.rules.converted(&worth, &tariff.currency));
                Self {
                    tariff,
                    parcel: Parcel {
                        value: value.map(|value| value.amount),
                        ..parcel
                    },
                    place: place.clone(),
                }
            })
            .collect()
    }

    /// Returns what every carrier is asked about a shipment.
    ///
    /// # Errors
    /// A [`Refusal`] when the plan as it is can't be made.
    pub fn of(inputs: &ShipmentInputs, house: &'a House) -> Result<Vec<Self>, Vec<Refusal>> {
        let Some(piece) = inputs.piece()? else {
            return Ok(Vec::new());
        };
        let commission = Commission::of(inputs, piece, house)?;
        let worked = Workings::out(inputs, house)?;
        Ok(Self::each(inputs, house, &commission, &worked))
    }

    /// Returns the parcel in plain numbers.
    #[must_use]
    pub fn parcel(&self) -> QuoteParcel {
        let outside = self.parcel.outside;
        let contents = Content::ALL.into_iter();
        QuoteParcel {
            length_mm: outside.across.as_mm(),
            width_mm: outside.up.as_mm(),
            height_mm: outside.through.as_mm(),
            mass_kg: self.parcel.mass.as_kg(),
            shape: self.parcel.shape,
            contents: contents
                .filter(|content| self.parcel.contents.hold(*content))
                .collect(),
        }
    }

    /// Returns where it goes.
    #[must_use]
    pub fn destination(&self) -> QuotePlace {
        QuotePlace {
            country: self.place.country.clone(),
            postcode: self.place.postcode.clone(),
        }
    }

    /// Returns what cover is bought for; `None` if none is bought.
    #[must_use]
    pub fn value(&self) -> Option<Decimal> {
        self.parcel.value.filter(|_| self.parcel.buys_cover)
    }

    fn quotes(&self) -> Vec<Quote> {
        // As the carrier is asked: without a value where no cover is bought.
        let parcel = Parcel {
            value: self.value(),
            buys_cover: true,
            ..self.parcel
        };
        self.tariff.quotes(&QuoteRequest::now(&parcel, &self.place))
    }

    /// Holds a carrier's answer beside its tariff: what each service takes, by its id in the tariff, with nothing for one that
    /// refuses; no answer at all where it did not give any.
    #[must_use]
    pub fn beside(&self, answer: Option<&[(String, Option<Decimal>)]>) -> Vec<Confirmation> {
        self.quotes()
            .into_iter()
            .zip(&self.tariff.services)
            .map(|(quote, service)| {
                let by_tariff = quote.total().cloned();
                let told = answer.and_then(|answer| {
                    let mut told = answer.iter();
                    told.find(|(id, _)| *id == service.id)
                });
                let total = told
                    .and_then(|(_, total)| *total)
                    .map(|total| Money::new(total, &self.tariff.currency));
                Confirmation {
                    id: quote.id,
                    says: match told {
                        None => CarrierSays::Nothing,
                        Some(_) if total == by_tariff => CarrierSays::Agrees,
                        Some(_) => CarrierSays::Differs,
                    },
                    total,
                    by_tariff,
                }
            })
            .collect()
    }
}
