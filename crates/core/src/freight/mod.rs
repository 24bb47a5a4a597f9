//! What it costs to send a parcel: tariffs, billable weight, itemised quotes, and how far it is to the next price.

mod account;
mod billable;
mod calendar;
mod check;
mod claim_terms;
mod cost;
mod dearer;
mod measured;
mod parcel;
mod price;
mod quote;
mod rule;
mod sheet;
mod steps;
mod tariff;
mod when;
mod zone;

pub use account::{AccountSavings, AccountTier, SentParcel};
pub use billable::{Billable, BillableBy, Governs};
pub use calendar::{OnItsWay, PromiseMet};
pub use check::Dip;
pub use claim_terms::ClaimTerms;
pub use cost::{Cost, Making};
pub use dearer::{CostPart, Dearer, DearerPart, dearer};
pub use measured::Gauge;
pub use parcel::{Content, Contents, Parcel, Shape};
pub use price::QuoteRequest;
pub use quote::{
    CoverChoice, LineKind, LineRule, Offer, Place, Quote, QuoteLine, Reason, only_taken_by,
};
pub use rule::{OverStep, PerKgOf, Rule, What};
pub use sheet::{
    BillableSheet, ClaimsSheet, CollectionSheet, ConditionSheet, CoverSheet, ExceptionSheet,
    FormatSheet, Joined, LimitsSheet, OverStepSheet, PastedPrices, PostcodeLine, PriceShape,
    PriceTable, RuleSheet, ServiceSheet, ShapedSheet, TariffSheet, TierSheet, WhatSheet, WhenSheet,
    WithCoverSheet, ZoneColumn, ZoneSheet,
};
pub use steps::{Along, Room, Rung, ServiceSteps, Step};
pub use tariff::{
    Collection, Cover, DiscountTier, Exclusion, Format, Handover, Limits, Refuses, Service, Tariff,
    Weekday, WeightStep, WithCover, ZonePrice,
};
pub use when::{Over, When};
pub use zone::{PostcodeRange, Zone};
