//! When a rule of a tariff applies.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{
    Content, Contents, Gauge, Shape,
    measured::{Measured, Whole, mg, um, um3},
    zone::begins,
};
use crate::quantity::{Length, Mass, Volume};

/// A condition. None asks for less of anything, so that what holds for a parcel holds for a larger one.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "schema", schema(no_recursion))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum When {
    /// Whatever the parcel.
    Always,
    /// All of them hold.
    All {
        /// Which.
        of: Vec<When>,
    },
    /// One of them holds.
    Any {
        /// Which.
        of: Vec<When>,
    },
    /// The longest side is over a length.
    LongestOver {
        /// The length.
        #[serde(rename = "over_mm")]
        over: Length,
    },
    /// The second side is over a length.
    SecondOver {
        /// The length.
        #[serde(rename = "over_mm")]
        over: Length,
    },
    /// The shortest side is over a length.
    ShortestOver {
        /// The length.
        #[serde(rename = "over_mm")]
        over: Length,
    },
    /// Twice the sum of the shorter sides is over a length.
    GirthOver {
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
    /// It takes more space than a volume.
    VolumeOver {
        /// The volume.
        #[serde(rename = "over_m3")]
        over: Volume,
    },
    /// The parcel weighs more than a mass.
    MassOver {
        /// The mass.
        #[serde(rename = "over_g")]
        over: Mass,
    },
    /// More than a mass is billed.
    BillableOver {
        /// The mass.
        #[serde(rename = "over_g")]
        over: Mass,
    },
    /// There is glass in it.
    Glass,
    /// It is of one of these shapes.
    Shape {
        /// Which.
        is: Vec<Shape>,
    },
    /// One of these is in it.
    Contents {
        /// Which.
        any_of: Vec<Content>,
    },
    /// One of these is missing.
    Without {
        /// Which.
        any_of: Vec<Content>,
    },
    /// It goes to one of these zones.
    Zone {
        /// Their names.
        is: Vec<String>,
    },
    /// Its postcode begins with one of these, as a zone's prefixes do.
    Postcode {
        /// Which.
        prefixes: Vec<String>,
    },
    /// It is worth more than a sum, in the tariff's currency.
    ValueOver {
        /// The sum.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        over: Decimal,
    },
}

/// What a condition is asked about.
#[derive(Debug, Clone, Copy)]
pub(super) struct Facts<'a> {
    pub measured: Measured,
    pub billable: Whole,
    pub shape: Shape,
    pub contents: Contents,
    pub zone: &'a str,
    /// In capitals.
    pub postcode: &'a str,
    pub value: Option<Decimal>,
}

impl When {
    /// Tells whether it holds.
    pub(super) fn holds(&self, facts: &Facts<'_>) -> bool {
        if let Some((gauge, over)) = self.gauged() {
            return facts.measured.gauge(gauge, facts.billable) > over;
        }
        match self {
            Self::All { of } => of.iter().all(|when| when.holds(facts)),
            Self::Any { of } => of.iter().any(|when| when.holds(facts)),
            Self::Glass => facts.contents.hold(Content::Glass),
            Self::Shape { is } => is.contains(&facts.shape),
            Self::Contents { any_of } => any_of.iter().any(|one| facts.contents.hold(*one)),
            Self::Without { any_of } => any_of.iter().any(|one| !facts.contents.hold(*one)),
            Self::Zone { is } => is.iter().any(|zone| zone == facts.zone),
            Self::Postcode { prefixes } => begins(facts.postcode, prefixes),
            Self::ValueOver { over } => facts.value.is_some_and(|value| value > *over),
            _ => true,
        }
    }

    /// What it measures, and what that has to be over; nothing where it looks at something else.
    pub(super) fn gauged(&self) -> Option<(Gauge, Whole)> {
        Some(match self {
            Self::LongestOver { over } => (Gauge::Longest, um(*over)),
            Self::SecondOver { over } => (Gauge::Second, um(*over)),
            Self::ShortestOver { over } => (Gauge::Shortest, um(*over)),
            Self::GirthOver { over } => (Gauge::Girth, um(*over)),
            Self::LengthPlusGirthOver { over } => (Gauge::LengthPlusGirth, um(*over)),
            Self::VolumeOver { over } => (Gauge::Volume, um3(*over)),
            Self::MassOver { over } => (Gauge::Mass, mg(*over)),
            Self::BillableOver { over } => (Gauge::Billable, mg(*over)),
            _ => return None,
        })
    }

    /// Every condition in it that is none of several, with its place.
    pub(super) fn each<'a>(&'a self, at: &str, found: &mut Vec<(String, &'a Self)>) {
        match self {
            Self::All { of } | Self::Any { of } => {
                for (index, when) in of.iter().enumerate() {
                    when.each(&format!("{at}/of/{index}"), found);
                }
            }
            _ => found.push((at.to_owned(), self)),
        }
    }

    /// What it measures, and where it begins to hold.
    pub(super) fn thresholds(&self, found: &mut Vec<(Gauge, Whole)>) {
        match self {
            Self::All { of } | Self::Any { of } => {
                for when in of {
                    when.thresholds(found);
                }
            }
            _ => found.extend(self.gauged()),
        }
    }
}
