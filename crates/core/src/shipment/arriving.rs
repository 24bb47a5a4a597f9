//! When a parcel would arrive with each service, and which of them are too late for the day that was promised.

use jiff::civil::{Date, DateTime, Time};
use serde::Serialize;

use super::{House, QuotationInputs, ShipmentInputs, Workings};
use crate::{
    freight::{OnItsWay, PromiseMet, Quote},
    plan::Plan,
    quantity::Money,
};

/// When a parcel arrives with a service.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Arrival {
    /// The service.
    pub id: String,
    /// By its carrier's calendar.
    #[serde(flatten)]
    pub way: OnItsWay,
    /// What is booked after that goes on the next day that it is fetched; nothing at a counter.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub cut_off: Option<Time>,
    /// Whether the promised day is met; `None` if none is promised.
    pub promise: Option<PromiseMet>,
    /// Whether it is a quotation that does not hold any more.
    pub over: bool,
    /// What a service that is too late costs less in all than the best one that is not; `None` where it costs no less.
    pub would_save: Option<Money>,
}

/// From when on a shipment can be sent, and for which day it was promised.
pub(super) struct Calendar<'a> {
    inputs: &'a ShipmentInputs,
    house: &'a House,
    now: DateTime,
    cured_on: Option<Date>,
    promised: Option<Date>,
}

impl<'a> Calendar<'a> {
    /// By the house's clock; `None` where it has none.
    pub(super) fn of(inputs: &'a ShipmentInputs, house: &'a House, plan: &Plan) -> Option<Self> {
        Some(Self {
            inputs,
            house,
            now: house.now?,
            cured_on: plan.cure.as_ref().and_then(|cure| cure.cured_on),
            promised: inputs.promised_for(),
        })
    }

    /// Returns when a parcel is on its way with a service, from the first day on which it is cured and can still be booked; `None`
    /// where nobody named any days.
    fn way(&self, quote: &Quote) -> Option<OnItsWay> {
        let days = (quote.days_from, quote.days_to);
        let cured = |first: Date| self.cured_on.map_or(first, |day| day.max(first));
        let Some((tariff, service)) = self.house.tariff_and_service(&quote.id) else {
            let quoted = self.inputs.quotation(&quote.id);
            let named = quoted.is_none_or(QuotationInputs::names_days);
            return named.then(|| OnItsWay::from_working_day(days, cured(self.now.date())));
        };
        let first = tariff.first_day(service, self.now);
        Some(tariff.on_its_way(service, days, cured(first)))
    }

    /// Returns whether the promised day is met with a service; `None` where none is promised, or nobody named any days.
    pub(super) fn promise(&self, quote: &Quote) -> Option<PromiseMet> {
        let (day, way) = self.promised.zip(self.way(quote))?;
        Some(way.meets(day))
    }

    /// Tells whether it is a quotation that does not hold any more.
    fn is_over(&self, quote: &Quote) -> bool {
        let quoted = self.inputs.quotation(&quote.id);
        let until = quoted.and_then(QuotationInputs::until);
        until.is_some_and(|until| until < self.now.date())
    }

    /// Tells whether a service can't be what is sent by: it arrives after the promised day even when it comes early, or its price
    /// does not hold any more.
    pub(super) fn is_too_late(&self, quote: &Quote) -> bool {
        self.is_over(quote) || self.promise(quote) == Some(PromiseMet::No)
    }

    /// Returns the moment up to which no service becomes too late that is not; `None` where none ever does.
    pub(super) fn until(&self) -> Option<DateTime> {
        let quoted = self.inputs.quotations.values();
        let mut ends = quoted.filter_map(QuotationInputs::until);
        if self.promised.is_none() && ends.next().is_none() {
            return None;
        }
        let (today, time) = (self.now.date(), self.now.time());
        let cut_offs = self.house.tariffs.iter().flat_map(|tariff| {
            let services = tariff.services.iter();
            services.filter_map(|service| Some(tariff.collection_of(service)?.cut_off))
        });
        let next = cut_offs.filter(|cut_off| *cut_off >= time).min();
        Some(today.to_datetime(next.unwrap_or(Time::MAX)))
    }

    fn arrival(&self, quote: &Quote, best: Option<&Quote>) -> Option<Arrival> {
        let over = self.is_over(quote);
        // Without days there is nothing to say, but that it does not hold any more.
        let way = self.way(quote).or_else(|| {
            let days = (quote.days_from, quote.days_to);
            over.then(|| OnItsWay::from_working_day(days, self.now.date()))
        })?;
        let known = self.house.tariff_and_service(&quote.id);
        let fetched = known.and_then(|(tariff, service)| tariff.collection_of(service));
        let total = |quote: &Quote| quote.cost.as_ref().map(|cost| cost.total.amount);
        let saves = best.and_then(total).zip(total(quote));
        let saves = saves.map(|(best, late)| best - late);
        let would_save = saves.filter(|saves| saves.is_sign_positive() && !saves.is_zero());
        let own = &self.house.catalogue.currency;
        Some(Arrival {
            id: quote.id.clone(),
            way,
            cut_off: fetched.map(|fetched| fetched.cut_off),
            promise: self.promised.map(|promised| way.meets(promised)),
            over,
            would_save: would_save
                .filter(|_| self.is_too_late(quote))
                .map(|saves| Money::new(saves, own)),
        })
    }
}

/// Returns when a shipment would arrive with each service that takes it, were it handed over on the first day on which its paint has
/// cured and the service can still be booked; nothing by a house without a clock.
#[must_use]
pub fn arrivals(inputs: &ShipmentInputs, worked: &Workings, house: &House) -> Vec<Arrival> {
    let plan = worked.plan.as_ref();
    let Some(calendar) = plan.and_then(|plan| Calendar::of(inputs, house, plan)) else {
        return Vec::new();
    };
    let taken = worked.quotes.iter().filter(|quote| quote.total().is_some());
    let best = taken.clone().find(|quote| !calendar.is_too_late(quote));
    taken
        .filter_map(|quote| calendar.arrival(quote, best))
        .collect()
}
