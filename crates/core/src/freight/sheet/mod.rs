//! A carrier's price list as it is typed: each figure as text with its unit, weights down and zones across.
//!
//! A tariff that is opened and kept is the same tariff: a figure is written so that it reads back to the last digit, and a condition
//! that has no form of its own is kept as it is.

mod blank;
mod cells;
mod figures;
mod read;
mod shapes;
mod written;

pub use cells::PastedPrices;
pub use shapes::{PriceShape, ShapedSheet};

use serde::{Deserialize, Serialize};

use super::{Content, Gauge, Handover, LineKind, PerKgOf, Shape, Weekday, When};
use crate::place::Route;

/// A price list as it stands in its form. A text that is empty stands for nothing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TariffSheet {
    /// What quotes refer to it by; made from the carrier's name where it is empty.
    pub id: String,
    /// What people call the carrier.
    pub carrier: String,
    /// The money of every price in it, as EUR.
    pub currency: String,
    /// The first day that it holds on, as 2027-01-01.
    pub valid_from: String,
    /// The last day that it holds on.
    pub valid_to: String,
    /// Where it goes.
    pub zones: Vec<ZoneSheet>,
    /// In per cent.
    pub fuel_percent: String,
    /// The kinds of lines that fuel is reckoned on.
    pub fuel_on: Vec<LineKind>,
    /// In per cent.
    pub tax_percent: String,
    /// The kinds of lines that tax is reckoned on.
    pub tax_on: Vec<LineKind>,
    /// What accounts of different size get off.
    pub discount_tiers: Vec<TierSheet>,
    /// The name of the tier that this studio's account has.
    pub tier: String,
    /// When parcels are fetched, unless a service says otherwise.
    pub collection: Option<CollectionSheet>,
    /// Until when damage and loss are heard.
    pub claims: Option<ClaimsSheet>,
    /// What costs more with every service.
    pub rules: Vec<RuleSheet>,
    /// What it offers.
    pub services: Vec<ServiceSheet>,
}

/// A zone.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ZoneSheet {
    /// What people call it.
    pub name: String,
    /// Two-letter codes.
    pub countries: Vec<String>,
    /// Which postcodes of these; all where there is none.
    pub postcodes: Vec<PostcodeLine>,
}

/// Some postcodes of a zone.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum PostcodeLine {
    /// Those that begin so: `N` is the area N, `N*` every code whose first letter is N.
    BeginsWith {
        /// The beginning.
        with: String,
    },
    /// From one to another, both included.
    FromTo {
        /// The first.
        from: String,
        /// The last.
        to: String,
    },
}

/// What an account gets off.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TierSheet {
    /// What the carrier calls it.
    pub name: String,
    /// In per cent.
    pub percent: String,
    /// Off which kinds of lines.
    pub of: Vec<LineKind>,
}

/// When parcels are fetched.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CollectionSheet {
    /// On these days of the week.
    pub days: Vec<Weekday>,
    /// What is booked until then is fetched on the same day, as 14:30.
    pub cut_off: String,
}

/// How long the carrier hears of damage and loss, in days.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ClaimsSheet {
    /// After the day of delivery.
    pub damage_days: String,
    /// After the day on which it was handed over.
    pub loss_days: String,
}

/// A service.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ServiceSheet {
    /// What shipments refer to it by; made from its name where it is empty.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// Working days at best.
    pub days_from: String,
    /// Working days at worst.
    pub days_to: String,
    /// How it leaves the studio.
    pub handover: Handover,
    /// When parcels are fetched, where it is not as the carrier's others.
    pub collection: Option<CollectionSheet>,
    /// Whether it can be followed.
    pub tracked: bool,
    /// The route that it goes, where it is not by the destination.
    pub route: Option<Route>,
    /// How rough it is on top of its route; 1 where it is empty.
    pub roughness: String,
    /// How its weight is billed.
    pub billable: BillableSheet,
    /// What it takes.
    pub limits: LimitsSheet,
    /// What else it does not take.
    pub refuses: Vec<ExceptionSheet>,
    /// Flat prices for what goes into a container.
    pub formats: Vec<FormatSheet>,
    /// By zone and weight.
    pub prices: PriceTable,
    /// What costs more.
    pub rules: Vec<RuleSheet>,
    /// Against loss and damage.
    pub cover: CoverSheet,
    /// What becomes of it when cover is bought.
    pub with_cover: Option<WithCoverSheet>,
}

/// How size and weight are billed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BillableSheet {
    /// What counts as a unit of weight, as `5000 cm³/kg` or `139 in³/lb`.
    pub divisor: String,
    /// Size counts only above this volume; always where it is empty.
    pub volumetric_above: String,
    /// Each side is rounded up to it.
    pub size_step: String,
    /// The weight is rounded up to it.
    pub weight_step: String,
    /// The least that is billed.
    pub minimum: String,
}

/// What a service takes.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LimitsSheet {
    /// The heaviest.
    pub mass: String,
    /// The longest side.
    pub longest: String,
    /// The second side; as long as the longest where it is empty.
    pub second: String,
    /// Longest side and girth together.
    pub length_plus_girth: String,
    /// Whether glass is taken.
    pub glass: bool,
}

/// What is not taken, or not covered.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ExceptionSheet {
    /// What, in words.
    pub name: String,
    /// When that is so.
    pub when: WhenSheet,
}

/// A container that has its own prices.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct FormatSheet {
    /// What the carrier calls it.
    pub name: String,
    /// Its longest side.
    pub length: String,
    /// Its second side.
    pub width: String,
    /// Its shortest side.
    pub height: String,
    /// By zone and by what the scale reads.
    pub prices: PriceTable,
}

/// Prices: weights down, zones across.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PriceTable {
    /// Up to how much, the lightest first.
    pub weights: Vec<String>,
    /// A column for each zone.
    pub zones: Vec<ZoneColumn>,
}

/// The prices of one zone.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ZoneColumn {
    /// The zone's name.
    pub zone: String,
    /// A price for each weight; empty where the zone has no such step.
    pub prices: Vec<String>,
    /// For each kilogram begun above the last step; empty where nothing heavier goes.
    pub further: String,
}

/// A line of what costs more.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RuleSheet {
    /// What the carrier calls it.
    pub name: String,
    /// When it applies.
    pub when: WhenSheet,
    /// What it does.
    pub what: WhatSheet,
    /// The names of rules before it whose lines it takes the place of.
    pub replaces: Vec<String>,
}

/// One condition, or several that are joined.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WhenSheet {
    /// Whether all of them have to hold, or one.
    pub joined: Joined,
    /// Each of them.
    pub of: Vec<ConditionSheet>,
}

/// How conditions are joined.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Joined {
    /// All of them hold.
    All,
    /// One of them holds.
    Any,
}

/// A condition.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum ConditionSheet {
    /// Every parcel.
    Always,
    /// A measure of the parcel is over a number.
    Over {
        /// What is measured.
        gauge: Gauge,
        /// The number, with its unit.
        over: String,
    },
    /// There is glass in it.
    Glass,
    /// It is of one of these shapes.
    Shape {
        /// The shapes.
        is: Vec<Shape>,
    },
    /// One of these is in it.
    Contents {
        /// The kinds of contents.
        any_of: Vec<Content>,
    },
    /// One of these is missing.
    Without {
        /// The kinds of contents.
        any_of: Vec<Content>,
    },
    /// It goes to one of these zones.
    Zone {
        /// Their names.
        is: Vec<String>,
    },
    /// Its postcode begins with one of these.
    Postcode {
        /// The beginnings, parted by commas.
        prefixes: String,
    },
    /// It is worth more than a sum, in the tariff's currency.
    ValueOver {
        /// The sum.
        over: String,
    },
    /// One that has no form of its own: it is kept as it is.
    Kept {
        /// The condition.
        when: When,
    },
}

/// What a rule does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum WhatSheet {
    /// Adds a sum.
    Sum {
        /// How much.
        price: String,
    },
    /// Adds a sum for each kilogram begun.
    PerKg {
        /// For one.
        price: String,
        /// The weight whose kilograms are counted.
        of: PerKgOf,
    },
    /// Adds a share of lines before it.
    Percent {
        /// In per cent.
        percent: String,
        /// `base`, `surcharge`, or the name of a rule before it.
        of: Vec<String>,
    },
    /// Bills at least so much.
    Minimum {
        /// How much.
        billable: String,
    },
    /// Adds the sum of the last step that a measure is over.
    Steps {
        /// The measure.
        by: Gauge,
        /// The least first.
        steps: Vec<OverStepSheet>,
    },
}

/// A sum above a measure.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct OverStepSheet {
    /// The measure, with its unit.
    pub over: String,
    /// The sum.
    pub price: String,
}

/// Cover against loss and damage.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CoverSheet {
    /// Included in the price.
    pub included: String,
    /// The step in which more is bought.
    pub step: String,
    /// The price of a step.
    pub price_per_step: String,
    /// The most that can be covered.
    pub most: String,
    /// Whether glass is left out of it.
    pub excludes_glass: bool,
    /// What else is left out of it.
    pub exclusions: Vec<ExceptionSheet>,
}

/// What a service becomes when cover is bought.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WithCoverSheet {
    /// Working days at best.
    pub days_from: String,
    /// Working days at worst.
    pub days_to: String,
    /// Whether it can be followed.
    pub tracked: bool,
}

#[cfg(test)]
mod tests;
