//! What a tariff adds to the price of its table, rule after rule.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{
    Gauge, When,
    measured::{MG_PER_KG, Measured, Whole, mg, stepped},
};
use crate::quantity::Mass;

/// A rule: when it applies, what it does, and which rules before it then do not.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Rule {
    /// What the carrier calls it; the line of a quote bears it.
    pub name: String,
    /// When it applies.
    pub when: When,
    /// What it does.
    pub what: What,
    /// The names of rules before it whose lines it takes the place of; it adds to all others.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub replaces: Vec<String>,
}

/// What a rule does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum What {
    /// Adds a sum.
    Sum {
        /// How much.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        price: Decimal,
    },
    /// Adds a sum for each kilogram begun.
    PerKg {
        /// For one.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        price: Decimal,
        /// The weight whose kilograms are counted.
        #[serde(default)]
        of: PerKgOf,
    },
    /// Adds a share of lines before it.
    Percent {
        /// How much of them, in per cent.
        #[cfg_attr(feature = "schema", schema(value_type = String))]
        percent: Decimal,
        /// `base` and `surcharge` for all of a kind, or the name of a rule before it.
        of: Vec<String>,
    },
    /// Bills at least so much, before the table is looked at.
    Minimum {
        /// How much.
        #[serde(rename = "billable_g")]
        billable: Mass,
    },
    /// Adds the sum of the last step that a measure is over.
    Steps {
        /// The measure.
        by: Gauge,
        /// The least first.
        steps: Vec<OverStep>,
    },
}

/// The weight that is paid for by the kilogram.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PerKgOf {
    /// What is billed.
    #[default]
    Billable,
    /// What it weighs.
    Actual,
}

/// A sum above a measure.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct OverStep {
    /// In the unit of what is measured: mm, m³ or g.
    pub over: f64,
    /// The sum.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
}

impl PerKgOf {
    pub(super) const fn gauge(self) -> Gauge {
        match self {
            Self::Billable => Gauge::Billable,
            Self::Actual => Gauge::Mass,
        }
    }
}

/// Whole kilograms, each that is begun counted.
pub(super) fn kg_begun(mass: Whole) -> Whole {
    stepped(mass.max(0), MG_PER_KG) / MG_PER_KG
}

impl What {
    /// What it adds by the parcel alone, unrounded; `None` if it goes by lines, or adds none.
    pub(super) fn adds(&self, measured: &Measured, billable: Whole) -> Option<Decimal> {
        match self {
            Self::Sum { price } => Some(*price),
            Self::PerKg { price, of } => {
                let count = kg_begun(measured.gauge(of.gauge(), billable));
                Some(*price * Decimal::from_i128_with_scale(count, 0))
            }
            Self::Steps { by, steps } => {
                let is = measured.gauge(*by, billable);
                steps
                    .iter()
                    .rfind(|step| is > by.whole(step.over))
                    .map(|step| step.price)
            }
            Self::Percent { .. } | Self::Minimum { .. } => None,
        }
    }

    /// The least that is billed by it.
    pub(super) fn minimum(&self) -> Option<Whole> {
        match self {
            Self::Minimum { billable } => Some(mg(*billable)),
            _ => None,
        }
    }

    /// The measures at which what it adds changes, other than kilogram by kilogram.
    pub(super) fn thresholds(&self, found: &mut Vec<(Gauge, Whole)>) {
        if let Self::Steps { by, steps } = self {
            found.extend(steps.iter().map(|step| (*by, by.whole(step.over))));
        }
    }
}
