//! A carrier's tariff, as data.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{BillableBy, Destination, Parcel};
use crate::{
    odds::Route,
    quantity::{Currency, Length, Mass},
};

/// A carrier's zones, services and prices.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Tariff {
    /// What quotes refer to it by.
    pub id: String,
    /// What people call the carrier.
    pub carrier: String,
    /// Of every price in it.
    pub currency: Currency,
    /// Where it goes; the first zone that takes a destination is the one.
    pub zones: Vec<Zone>,
    /// On base and surcharges.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub fuel_percent: Decimal,
    /// On everything but cover.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub tax_percent: Decimal,
    /// What it offers.
    pub services: Vec<Service>,
}

/// A zone: countries, or the postcodes of some of them.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Zone {
    /// What people call it.
    pub name: String,
    /// Two-letter codes.
    pub countries: Vec<String>,
    /// When not empty, only postcodes that start with one of these.
    #[serde(default)]
    pub postcode_prefixes: Vec<String>,
}

/// A way to send a parcel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Service {
    /// What shipments refer to it by.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// Working days at best.
    pub days_from: u32,
    /// Working days at worst.
    pub days_to: u32,
    /// How it leaves the studio.
    pub handover: Handover,
    /// Whether it can be followed.
    pub tracked: bool,
    /// The route that it goes, whatever the destination; by the destination when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub route: Option<Route>,
    /// How rough it is on top of its route, 1 unless it is known better.
    #[serde(default = "as_its_route")]
    pub roughness: f64,
    /// How its weight is billed.
    pub billable: BillableBy,
    /// What it takes.
    pub limits: Limits,
    /// By zone; a zone that is not here is not served.
    pub prices: Vec<ZonePrice>,
    /// All that apply add up.
    #[serde(default)]
    pub surcharges: Vec<Surcharge>,
    /// Against loss and damage.
    pub cover: Cover,
}

const fn as_its_route() -> f64 {
    1.0
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
pub struct Limits {
    /// The heaviest.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// The longest side.
    #[serde(rename = "longest_mm")]
    pub longest: Length,
    /// Longest side and girth together.
    #[serde(rename = "length_plus_girth_mm")]
    pub length_plus_girth: Length,
    /// Whether glass is taken.
    pub glass: bool,
}

/// Prices to one zone.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ZonePrice {
    /// The zone's name.
    pub zone: String,
    /// By billable weight, the lightest first.
    pub steps: Vec<PriceStep>,
    /// For each kilogram begun above the last step; absent when nothing heavier goes.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    #[serde(default)]
    pub per_further_kg: Option<Decimal>,
}

/// A price up to a weight.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PriceStep {
    /// The heaviest that it holds for.
    #[serde(rename = "up_to_g")]
    pub up_to: Mass,
    /// The price.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
}

/// A sum added on a condition.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Surcharge {
    /// What people call it.
    pub name: String,
    /// When it applies.
    pub when: SurchargeWhen,
    /// What it adds.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
}

/// The condition of a surcharge.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum SurchargeWhen {
    /// The longest side is over a length.
    LongestOver {
        /// The length.
        #[serde(rename = "over_mm")]
        over: Length,
    },
    /// Longest side and girth together are over a length.
    LengthPlusGirthOver {
        /// The length.
        #[serde(rename = "over_mm")]
        over: Length,
    },
    /// The parcel weighs more than a mass.
    MassOver {
        /// The mass.
        #[serde(rename = "over_g")]
        over: Mass,
    },
    /// There is glass in it.
    Glass,
}

/// Cover against loss and damage.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Cover {
    /// Included in the price.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub included: Decimal,
    /// The step in which more is bought.
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
}

impl Tariff {
    /// Returns the zone that a destination lies in.
    #[must_use]
    pub fn zone_of(&self, destination: &Destination) -> Option<&Zone> {
        self.zones.iter().find(|zone| zone.takes(destination))
    }
}

impl Zone {
    fn takes(&self, destination: &Destination) -> bool {
        let postcode = destination.postcode.trim().to_uppercase();
        let country = self.countries.contains(&destination.country);
        let prefixes = &self.postcode_prefixes;
        country
            && (prefixes.is_empty()
                || prefixes
                    .iter()
                    .any(|prefix| postcode.starts_with(prefix.as_str())))
    }
}

impl SurchargeWhen {
    /// Tells whether the surcharge applies to a parcel as measured by the carrier.
    #[must_use]
    pub fn applies(self, measured: &Parcel) -> bool {
        match self {
            Self::LongestOver { over } => measured.sides()[0] > over,
            Self::LengthPlusGirthOver { over } => measured.length_plus_girth() > over,
            Self::MassOver { over } => measured.mass > over,
            Self::Glass => measured.has_glass,
        }
    }
}
