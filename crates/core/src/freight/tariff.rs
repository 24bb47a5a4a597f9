//! A carrier's tariff, as data.

use jiff::civil::{Date, Time};
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{BillableBy, LineKind, Rule, When, Zone};
use crate::{
    freight::ClaimTerms,
    place::{Destination, Route},
    quantity::{Currency, Length, Mass},
};

/// A carrier's zones, services and prices.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(remote = "Self", deny_unknown_fields)]
pub struct Tariff {
    /// What quotes refer to it by: small letters, figures and hyphens.
    pub id: String,
    /// What people call the carrier.
    pub carrier: String,
    /// The money of every price in it.
    pub currency: Currency,
    /// The first day that it holds on; from ever when absent.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, example = "2027-01-01"))]
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub valid_from: Option<Date>,
    /// The last day that it holds on; for ever when absent.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, example = "2027-12-31"))]
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub valid_to: Option<Date>,
    /// Where it goes; the first zone that takes a destination is the one.
    pub zones: Vec<Zone>,
    /// In per cent of what `fuel_on` names.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub fuel_percent: Decimal,
    /// The kinds of lines that fuel is reckoned on.
    #[cfg_attr(feature = "schema", schema(default = fuel_on))]
    #[serde(default = "fuel_on")]
    pub fuel_on: Vec<LineKind>,
    /// In per cent of what `tax_on` names.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub tax_percent: Decimal,
    /// The kinds of lines that tax is reckoned on.
    #[cfg_attr(feature = "schema", schema(default = tax_on))]
    #[serde(default = "tax_on")]
    pub tax_on: Vec<LineKind>,
    /// What accounts of different size get off.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub discount_tiers: Vec<DiscountTier>,
    /// The name of the tier that this studio's account has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tier: Option<String>,
    /// When parcels are fetched, unless a service says otherwise.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub collection: Option<Collection>,
    /// Until when damage and loss are heard; as most carriers do when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub claims: Option<ClaimTerms>,
    /// For every service, before the service's own.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rules: Vec<Rule>,
    /// What it offers.
    pub services: Vec<Service>,
}

crate::json::read_in_one_place!(Tariff);

pub(super) fn fuel_on() -> Vec<LineKind> {
    use LineKind::{Base, Discount, Further, Surcharge};
    vec![Base, Further, Surcharge, Discount]
}

pub(super) fn tax_on() -> Vec<LineKind> {
    use LineKind::{Base, Discount, Fuel, Further, Surcharge};
    vec![Base, Further, Surcharge, Discount, Fuel]
}

/// What an account gets off.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct DiscountTier {
    /// What the carrier calls it.
    pub name: String,
    /// In per cent.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub percent: Decimal,
    /// Off which kinds of lines, of those before fuel, tax and cover.
    #[cfg_attr(feature = "schema", schema(default = off_the_table))]
    #[serde(default = "off_the_table")]
    pub of: Vec<LineKind>,
}

fn off_the_table() -> Vec<LineKind> {
    vec![LineKind::Base, LineKind::Further]
}

/// When parcels are fetched.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Collection {
    /// On these days of the week.
    pub days: Vec<Weekday>,
    /// What is booked until then is fetched on the same day.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "14:30"))]
    pub cut_off: Time,
}

/// A day of the week.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Weekday {
    /// Monday.
    Mon,
    /// Tuesday.
    Tue,
    /// Wednesday.
    Wed,
    /// Thursday.
    Thu,
    /// Friday.
    Fri,
    /// Saturday.
    Sat,
    /// Sunday.
    Sun,
}

impl Weekday {
    /// Tells whether a date falls on it.
    #[must_use]
    pub fn is_on(self, date: Date) -> bool {
        // Both count from Monday.
        i32::from(date.weekday().to_monday_zero_offset()) == self as i32
    }
}

/// A way to send a parcel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Service {
    /// What shipments refer to it by: small letters, figures and hyphens.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// Working days at best.
    pub days_from: u32,
    /// Working days at worst.
    pub days_to: u32,
    /// How it leaves the studio.
    pub handover: Handover,
    /// When parcels are fetched, where it is not as the carrier's others.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub collection: Option<Collection>,
    /// Whether it can be followed.
    pub tracked: bool,
    /// The route that it goes, whatever the destination; by the destination when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub route: Option<Route>,
    /// How rough it is on top of its route, 1 unless it is known better.
    #[cfg_attr(feature = "schema", schema(default = as_its_route))]
    #[serde(default = "as_its_route")]
    pub roughness: f64,
    /// How its weight is billed.
    pub billable: BillableBy,
    /// What it takes.
    pub limits: Limits,
    /// What else it does not take.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub refuses: Vec<Refuses>,
    /// Flat prices for what goes into a container, a letter or a packet; the least price that holds is taken.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub formats: Vec<Format>,
    /// By zone and billable weight; a zone that is neither here nor in a format is not served.
    #[serde(default)]
    pub prices: Vec<ZonePrice>,
    /// What is added, rule after rule.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rules: Vec<Rule>,
    /// Against loss and damage.
    pub cover: Cover,
    /// What becomes of it when cover is bought.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub with_cover: Option<WithCover>,
}

const fn as_its_route() -> f64 {
    1.0
}

/// What a service becomes when cover is bought.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WithCover {
    /// Working days at best.
    pub days_from: u32,
    /// Working days at worst.
    pub days_to: u32,
    /// Whether it can be followed.
    pub tracked: bool,
}

/// How a parcel leaves the studio.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Handover {
    /// Taken to the counter.
    DropOff,
    /// Fetched.
    Collection,
}

/// What a service takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Limits {
    /// The heaviest.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// The longest side.
    #[serde(rename = "longest_mm")]
    pub longest: Length,
    /// The second side; as long as the longest when absent.
    #[serde(default, rename = "second_mm", skip_serializing_if = "Option::is_none")]
    pub second: Option<Length>,
    /// Longest side and girth together.
    #[serde(rename = "length_plus_girth_mm")]
    pub length_plus_girth: Length,
    /// Whether glass is taken.
    pub glass: bool,
}

/// Something that a service does not take.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Refuses {
    /// What, in words.
    pub name: String,
    /// When that is so.
    pub when: When,
}

/// What goes for a flat price, or by weight, as long as it goes in.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Format {
    /// What the carrier calls it.
    pub name: String,
    /// Its longest side.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Its second side.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Its shortest side.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// By zone and by what the scale reads; size counts for nothing more here.
    pub prices: Vec<ZonePrice>,
}

/// Prices to one zone.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ZonePrice {
    /// The zone's name.
    pub zone: String,
    /// By weight, the lightest first.
    pub steps: Vec<WeightStep>,
    /// For each kilogram begun above the last step; absent when nothing heavier goes.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub per_further_kg: Option<Decimal>,
}

/// A price up to a weight.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WeightStep {
    /// The heaviest that it holds for.
    #[serde(rename = "up_to_g")]
    pub up_to: Mass,
    /// The price.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
}

/// Cover against loss and damage.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Cover {
    /// Included in the price.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub included: Decimal,
    /// The step in which more is bought; `None` if none is sold.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub step: Decimal,
    /// The price of a step.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_step: Decimal,
    /// The most that can be covered.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub most: Decimal,
    /// Whether glass is left out of it.
    #[serde(default)]
    pub excludes_glass: bool,
    /// What else is left out of it, in words.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub exclusions: Vec<Exclusion>,
}

/// Something that is not covered.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Exclusion {
    /// What, in words.
    pub name: String,
    /// When that is so.
    pub when: When,
}

impl Tariff {
    /// Returns the zone that a destination lies in.
    #[must_use]
    pub fn zone_of(&self, destination: &Destination) -> Option<&Zone> {
        self.zones.iter().find(|zone| zone.takes(destination))
    }

    /// Tells whether it holds on a day.
    #[must_use]
    pub fn holds_on(&self, day: Date) -> bool {
        self.valid_from.is_none_or(|from| from <= day) && self.valid_to.is_none_or(|to| day <= to)
    }

    /// Returns when parcels of a service are fetched; `None` if they are taken to the counter.
    #[must_use]
    pub fn collection_of<'a>(&'a self, service: &'a Service) -> Option<&'a Collection> {
        match service.handover {
            Handover::DropOff => None,
            Handover::Collection => service.collection.as_ref().or(self.collection.as_ref()),
        }
    }
}
