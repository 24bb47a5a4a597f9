//! What it costs to send a parcel: tariffs, billable weight and itemised quotes.

mod billable;
mod parcel;
mod quote;
mod tariff;

pub use billable::{Billable, BillableBy, Governs};
pub use parcel::{Destination, Parcel};
pub use quote::{LineRule, Offer, Quote, QuoteLine, Reason, only_taken_by, quotes};
pub use tariff::{
    Cover, Handover, Limits, PriceStep, Service, Surcharge, SurchargeWhen, Tariff, Zone, ZonePrice,
};
