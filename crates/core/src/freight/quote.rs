//! The itemised price of each service, or why it does not take the parcel.

use std::fmt;

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize, Serializer};

use super::{Billable, Cost, Handover, What, When};
use crate::quantity::{Length, Mass, Money};

/// What one service says to a parcel.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Quote {
    /// Tariff and service, as `gannet-post/tracked`.
    pub id: String,
    /// The carrier's name.
    pub carrier: String,
    /// The service's name.
    pub service: String,
    /// Working days at best.
    pub days_from: u32,
    /// Working days at worst.
    pub days_to: u32,
    /// How it leaves the studio.
    pub handover: Handover,
    /// Whether it can be followed.
    pub tracked: bool,
    /// The weights side by side.
    pub billable: Billable,
    /// The price, or the reasons against it.
    pub offer: Offer,
    /// What it comes to in the studio's currency; `None` if no rate is known.
    pub total_here: Option<Money>,
    /// What a journey with it costs on average in damage and loss beyond its cover; `None` without a value.
    pub expected_loss: Option<Money>,
    /// Price and expected loss, in the studio's money; `None` if no rate is known. It leaves out what making the parcel costs: `cost` has
    /// that too.
    pub all_told: Option<Money>,
    /// What the parcel costs the studio with it, part by part; `None` where it does not take the parcel or no rate is known.
    pub cost: Option<Cost>,
    /// How far its cover falls short of the value; `None` if it does not.
    pub uncovered: Option<Money>,
    /// What more cover than is included costs and pays back; `None` if none is sold, or nothing is to be covered.
    pub cover: Option<CoverChoice>,
}

/// Whether cover is worth its premium.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CoverChoice {
    /// Whether it is in the price, by the house's rule.
    pub bought: bool,
    /// What it costs.
    pub premium: Money,
    /// What it pays back on average.
    pub pays_back: Money,
    /// What it pays back when the worst happens.
    pub pays_at_worst: Money,
}

/// A price, or the reasons against it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Offer {
    /// The service takes the parcel.
    Priced {
        /// The zone that it goes to.
        zone: String,
        /// Every line, in the order in which they build on each other.
        lines: Vec<QuoteLine>,
        /// Their sum.
        total: Money,
        /// What is paid out at most when it is lost.
        covered: Money,
        /// What its cover leaves out, of what is in this parcel.
        excluded: Vec<String>,
    },
    /// It does not.
    Refused {
        /// Every reason.
        reasons: Vec<Reason>,
    },
}

/// What a line of a quote is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LineKind {
    /// The price of the table, or of a format.
    Base,
    /// Kilograms above the table.
    Further,
    /// What a rule adds.
    Surcharge,
    /// What the account gets off.
    Discount,
    /// Fuel.
    Fuel,
    /// Tax.
    Tax,
    /// Cover beyond what is included.
    Cover,
}

impl LineKind {
    /// Returns it as it is written.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Base => "base",
            Self::Further => "further",
            Self::Surcharge => "surcharge",
            Self::Discount => "discount",
            Self::Fuel => "fuel",
            Self::Tax => "tax",
            Self::Cover => "cover",
        }
    }
}

/// Where in its tariff a line has its rule.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Place {
    /// A step of a service's table.
    Step {
        /// The service.
        service: usize,
        /// The zone's prices.
        price: usize,
        /// The step.
        step: usize,
    },
    /// The kilograms above a service's table.
    Further {
        /// The service.
        service: usize,
        /// The zone's prices.
        price: usize,
    },
    /// A step of a format.
    FormatStep {
        /// The service.
        service: usize,
        /// The format.
        format: usize,
        /// The zone's prices.
        price: usize,
        /// The step.
        step: usize,
    },
    /// A rule for every service.
    Rule {
        /// The rule, by its place in the list.
        rule: usize,
    },
    /// A rule of a service.
    ServiceRule {
        /// The service.
        service: usize,
        /// The rule, by its place in the list.
        rule: usize,
    },
    /// A discount tier.
    Tier {
        /// The tier, by its place in the list.
        tier: usize,
    },
    /// The fuel.
    Fuel,
    /// The tax.
    Tax,
    /// A service's cover.
    Cover {
        /// The service.
        service: usize,
    },
    /// No tariff: somebody quoted it.
    Quotation,
}

impl fmt::Display for Place {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Step {
                service,
                price,
                step,
            } => {
                write!(f, "services/{service}/prices/{price}/steps/{step}")
            }
            Self::Further { service, price } => {
                write!(f, "services/{service}/prices/{price}/per_further_kg")
            }
            Self::FormatStep {
                service,
                format,
                price,
                step,
            } => {
                write!(
                    f,
                    "services/{service}/formats/{format}/prices/{price}/steps/{step}"
                )
            }
            Self::Rule { rule } => write!(f, "rules/{rule}"),
            Self::ServiceRule { service, rule } => write!(f, "services/{service}/rules/{rule}"),
            Self::Tier { tier } => write!(f, "discount_tiers/{tier}"),
            Self::Fuel => f.write_str("fuel_percent"),
            Self::Tax => f.write_str("tax_percent"),
            Self::Cover { service } => write!(f, "services/{service}/cover"),
            Self::Quotation => f.write_str("quotation"),
        }
    }
}

impl Serialize for Place {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

/// One line of a quote.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct QuoteLine {
    /// What kind of line it is.
    pub kind: LineKind,
    /// What it is for.
    pub name: String,
    /// The rule that it follows.
    pub rule: LineRule,
    /// Where that rule stands in the tariff, as `services/0/rules/2`.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub place: Place,
    /// What it comes to.
    pub amount: Money,
}

/// The rule behind a line.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum LineRule {
    /// The price of a weight step.
    Step {
        /// Its upper end.
        #[serde(rename = "up_to_g")]
        up_to: Mass,
    },
    /// The price of a format, up to a weight.
    Format {
        /// What the carrier calls it.
        format: String,
        /// The step's upper end.
        #[serde(rename = "up_to_g")]
        up_to: Mass,
    },
    /// Kilograms above the last step.
    Further {
        /// How many are begun.
        count_kg: u32,
    },
    /// A surcharge on its condition.
    Surcharge {
        /// The condition.
        when: When,
    },
    /// A rule that adds more than one sum.
    Ruled {
        /// The condition.
        when: When,
        /// What it does.
        what: What,
    },
    /// What the account gets off.
    Tier {
        /// The tier's name.
        tier: String,
        /// The share.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        percent: Decimal,
    },
    /// A share of the lines before it.
    Percent {
        /// The share.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        percent: Decimal,
    },
    /// As somebody quoted it.
    Quoted {
        /// The last day on which it holds, where one was named.
        #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
        until: Option<Date>,
    },
    /// Cover beyond what is included.
    Cover {
        /// How many steps of it.
        steps: u32,
        /// What is included without it.
        included: Money,
    },
}

/// Why a service does not take a parcel.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Reason {
    /// It does not go there.
    NotServed,
    /// It weighs too much.
    TooHeavy {
        /// What it weighs.
        #[serde(rename = "mass_g")]
        mass: Mass,
        /// What is taken.
        #[serde(rename = "most_g")]
        most: Mass,
    },
    /// Its longest side is too long.
    TooLong {
        /// What it is.
        #[serde(rename = "longest_mm")]
        longest: Length,
        /// What is taken.
        #[serde(rename = "most_mm")]
        most: Length,
    },
    /// Its second side is too long.
    TooWide {
        /// What it is.
        #[serde(rename = "second_mm")]
        second: Length,
        /// What is taken.
        #[serde(rename = "most_mm")]
        most: Length,
    },
    /// Longest side and girth together are too long.
    TooLarge {
        /// What they are.
        #[serde(rename = "length_plus_girth_mm")]
        length_plus_girth: Length,
        /// What is taken.
        #[serde(rename = "most_mm")]
        most: Length,
    },
    /// There is glass in it.
    GlassRefused,
    /// Something else that it does not take.
    Excluded {
        /// What, in the carrier's words.
        name: String,
    },
    /// It goes into none of the containers that the service sells.
    NoFormat,
    /// The tariff does not hold on that day.
    NotInForce {
        /// The first day that it holds on.
        #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
        from: Option<Date>,
        /// The last.
        #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
        to: Option<Date>,
    },
    /// The box belongs to another carrier's service.
    OthersCarton {
        /// Whose it is.
        carrier: String,
    },
    /// No price stands for so much billable weight.
    NoPrice {
        /// What would be billed.
        #[serde(rename = "billable_g")]
        billable: Mass,
    },
}

impl fmt::Display for Reason {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::NotServed => f.write_str("Doesn't deliver there"),
            Self::TooHeavy { mass, most } => write!(
                f,
                "Weight {:.2} kg, maximum {:.2} kg",
                mass.as_kg(),
                most.as_kg()
            ),
            Self::TooLong { longest, most } => write!(
                f,
                "Longest side {} mm, maximum {} mm",
                longest.as_mm(),
                most.as_mm()
            ),
            Self::TooWide { second, most } => write!(
                f,
                "Second side {} mm, maximum {} mm",
                second.as_mm(),
                most.as_mm()
            ),
            Self::TooLarge {
                length_plus_girth,
                most,
            } => write!(
                f,
                "Length plus girth {} mm, maximum {} mm",
                length_plus_girth.as_mm(),
                most.as_mm()
            ),
            Self::GlassRefused => f.write_str("Glass not accepted"),
            Self::Excluded { name } => write!(f, "not taken: {name}"),
            Self::NotInForce { from, to } => match (from, to) {
                (Some(from), Some(to)) => write!(f, "Tariff valid from {from} to {to}"),
                (Some(from), None) => write!(f, "Tariff valid from {from}"),
                (None, Some(to)) => write!(f, "Tariff expired on {to}"),
                (None, None) => f.write_str("Tariff not valid on this day"),
            },
            Self::OthersCarton { carrier } => write!(f, "Carton belongs to {carrier}"),
            Self::NoFormat => f.write_str("Fits none of its containers"),
            Self::NoPrice { billable } => {
                write!(f, "No price for {:.2} kg", billable.as_kg())
            }
        }
    }
}

/// Has every other carrier refuse a parcel whose carton belongs to one.
pub fn only_taken_by(quotes: &mut [Quote], carrier: &str) {
    for quote in quotes.iter_mut().filter(|quote| quote.carrier != carrier) {
        let reason = Reason::OthersCarton {
            carrier: carrier.to_owned(),
        };
        match &mut quote.offer {
            Offer::Refused { reasons } => reasons.push(reason),
            offer @ Offer::Priced { .. } => {
                *offer = Offer::Refused {
                    reasons: vec![reason],
                }
            }
        }
    }
}

impl Quote {
    /// Returns the price, when the service takes the parcel.
    #[must_use]
    pub fn total(&self) -> Option<&Money> {
        match &self.offer {
            Offer::Priced { total, .. } => Some(total),
            Offer::Refused { .. } => None,
        }
    }

    /// Leaves out its lines and the parts of its cost, so that the total stands alone.
    pub(crate) fn fold(&mut self) {
        if let Offer::Priced { lines, .. } = &mut self.offer {
            lines.clear();
        }
        self.cost = None;
    }
}

#[cfg(test)]
mod tests;
