//! When a rule of a tariff applies.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{
    Content, Contents, Gauge, Shape,
    measured::{Measured, Whole},
    zone::begins,
};
use crate::quantity::{Length, Mass, Volume};

/// A condition. None asks for less of anything, so that what holds for a parcel holds for a larger one.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(from = "WrittenWhen", into = "WrittenWhen")]
pub enum When {
    /// Every parcel.
    Always,
    /// All of some conditions.
    All(Vec<When>),
    /// At least one of some conditions.
    Any(Vec<When>),
    /// A measure of the parcel is over a number.
    Over(Over),
    /// There is glass in it.
    Glass,
    /// It is of one of these shapes.
    Shape(Vec<Shape>),
    /// One of these is in it.
    Contents(Vec<Content>),
    /// One of these is missing.
    Without(Vec<Content>),
    /// It goes to one of the zones of these names.
    Zone(Vec<String>),
    /// Its postcode begins with one of these, as a zone's prefixes do.
    Postcode(Vec<String>),
    /// It is worth more than a sum, in the tariff's currency.
    ValueOver(Decimal),
}

/// That a measure of a parcel is over a number.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Over {
    /// What is measured.
    pub gauge: Gauge,
    /// The number, in the unit of the gauge.
    pub number: f64,
}

impl Over {
    /// Returns the number as measures are compared.
    pub(super) fn whole(self) -> Whole {
        self.gauge.whole(self.number)
    }
}

/// A condition. None asks for less of anything, so that what holds for a parcel holds for a larger one.
#[derive(Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "schema", schema(as = When, no_recursion))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
// A tariff writes its kind beside its fields, and each measure as a kind of its own. The comment above is what the API's
// description says of `When`.
enum WrittenWhen {
    /// Whatever the parcel.
    Always,
    /// All of them hold.
    All {
        /// The conditions.
        of: Vec<When>,
    },
    /// One of them holds.
    Any {
        /// The conditions.
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
    /// Its postcode begins with one of these, as a zone's prefixes do.
    Postcode {
        /// The beginnings of postcodes.
        prefixes: Vec<String>,
    },
    /// It is worth more than a sum, in the tariff's currency.
    ValueOver {
        /// The sum.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        over: Decimal,
    },
}

impl From<WrittenWhen> for When {
    fn from(written: WrittenWhen) -> Self {
        let over = |gauge, number| Self::Over(Over { gauge, number });
        match written {
            WrittenWhen::Always => Self::Always,
            WrittenWhen::All { of } => Self::All(of),
            WrittenWhen::Any { of } => Self::Any(of),
            WrittenWhen::LongestOver { over: most } => over(Gauge::Longest, most.as_mm()),
            WrittenWhen::SecondOver { over: most } => over(Gauge::Second, most.as_mm()),
            WrittenWhen::ShortestOver { over: most } => over(Gauge::Shortest, most.as_mm()),
            WrittenWhen::GirthOver { over: most } => over(Gauge::Girth, most.as_mm()),
            WrittenWhen::LengthPlusGirthOver { over: most } => {
                over(Gauge::LengthPlusGirth, most.as_mm())
            }
            WrittenWhen::VolumeOver { over: most } => over(Gauge::Volume, most.as_m3()),
            WrittenWhen::MassOver { over: most } => over(Gauge::Mass, most.as_g()),
            WrittenWhen::BillableOver { over: most } => over(Gauge::Billable, most.as_g()),
            WrittenWhen::Glass => Self::Glass,
            WrittenWhen::Shape { is } => Self::Shape(is),
            WrittenWhen::Contents { any_of } => Self::Contents(any_of),
            WrittenWhen::Without { any_of } => Self::Without(any_of),
            WrittenWhen::Zone { is } => Self::Zone(is),
            WrittenWhen::Postcode { prefixes } => Self::Postcode(prefixes),
            WrittenWhen::ValueOver { over } => Self::ValueOver(over),
        }
    }
}

impl From<When> for WrittenWhen {
    fn from(when: When) -> Self {
        match when {
            When::Always => Self::Always,
            When::All(of) => Self::All { of },
            When::Any(of) => Self::Any { of },
            When::Over(Over { gauge, number }) => {
                let (length, mass) = (Length::mm(number), Mass::g(number));
                match gauge {
                    Gauge::Longest => Self::LongestOver { over: length },
                    Gauge::Second => Self::SecondOver { over: length },
                    Gauge::Shortest => Self::ShortestOver { over: length },
                    Gauge::Girth => Self::GirthOver { over: length },
                    Gauge::LengthPlusGirth => Self::LengthPlusGirthOver { over: length },
                    Gauge::Volume => Self::VolumeOver {
                        over: Volume::m3(number),
                    },
                    Gauge::Mass => Self::MassOver { over: mass },
                    Gauge::Billable => Self::BillableOver { over: mass },
                }
            }
            When::Glass => Self::Glass,
            When::Shape(is) => Self::Shape { is },
            When::Contents(any_of) => Self::Contents { any_of },
            When::Without(any_of) => Self::Without { any_of },
            When::Zone(is) => Self::Zone { is },
            When::Postcode(prefixes) => Self::Postcode { prefixes },
            When::ValueOver(over) => Self::ValueOver { over },
        }
    }
}

/// Described as it is written.
#[cfg(feature = "schema")]
impl utoipa::ToSchema for When {
    fn name() -> std::borrow::Cow<'static, str> {
        "When".into()
    }

    fn schemas(
        schemas: &mut Vec<(
            String,
            utoipa::openapi::RefOr<utoipa::openapi::schema::Schema>,
        )>,
    ) {
        <WrittenWhen as utoipa::ToSchema>::schemas(schemas);
    }
}

#[cfg(feature = "schema")]
impl utoipa::PartialSchema for When {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        WrittenWhen::schema()
    }
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
        match self {
            Self::Always => true,
            Self::All(of) => of.iter().all(|when| when.holds(facts)),
            Self::Any(of) => of.iter().any(|when| when.holds(facts)),
            Self::Over(over) => facts.measured.gauge(over.gauge, facts.billable) > over.whole(),
            Self::Glass => facts.contents.hold(Content::Glass),
            Self::Shape(is) => is.contains(&facts.shape),
            Self::Contents(any_of) => any_of.iter().any(|one| facts.contents.hold(*one)),
            Self::Without(any_of) => any_of.iter().any(|one| !facts.contents.hold(*one)),
            Self::Zone(is) => is.iter().any(|zone| zone == facts.zone),
            Self::Postcode(prefixes) => begins(facts.postcode, prefixes),
            Self::ValueOver(over) => facts.value.is_some_and(|value| value > *over),
        }
    }

    /// Returns the conditions that stand in it, if it is made of others.
    pub(super) fn of(&self) -> Option<&[Self]> {
        match self {
            Self::All(of) | Self::Any(of) => Some(of),
            Self::Always
            | Self::Over(_)
            | Self::Glass
            | Self::Shape(_)
            | Self::Contents(_)
            | Self::Without(_)
            | Self::Zone(_)
            | Self::Postcode(_)
            | Self::ValueOver(_) => None,
        }
    }

    /// Finds every condition in it that is not made of others, with its place.
    pub(super) fn each<'a>(&'a self, at: &str, found: &mut Vec<(String, &'a Self)>) {
        let Some(of) = self.of() else {
            found.push((at.to_owned(), self));
            return;
        };
        for (index, when) in of.iter().enumerate() {
            when.each(&format!("{at}/of/{index}"), found);
        }
    }

    /// Finds what it measures, and where it begins to hold.
    pub(super) fn thresholds(&self, found: &mut Vec<(Gauge, Whole)>) {
        if let Self::Over(over) = self {
            found.push((over.gauge, over.whole()));
        }
        for when in self.of().unwrap_or_default() {
            when.thresholds(found);
        }
    }
}
