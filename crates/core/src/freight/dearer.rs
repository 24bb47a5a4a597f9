//! What each service costs more than the best one, part by part.

use std::cmp::Reverse;

use serde::Serialize;

use super::{Cost, Governs, Quote};
use crate::quantity::{Mass, Money};

/// A part of a cost that differs from service to service.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CostPart {
    /// The carrier's price, with discounts taken off.
    Carriage,
    /// What the carrier's rules add, and fuel.
    Surcharges,
    /// The carrier's tax.
    Tax,
    /// Cover beyond what is included.
    Cover,
    /// Damage and loss to expect, beyond the cover.
    ExpectedLoss,
}

impl CostPart {
    const ALL: [Self; 5] = [
        Self::Carriage,
        Self::Surcharges,
        Self::Tax,
        Self::Cover,
        Self::ExpectedLoss,
    ];

    const fn of(self, cost: &Cost) -> &Money {
        match self {
            Self::Carriage => &cost.carriage,
            Self::Surcharges => &cost.surcharges,
            Self::Tax => &cost.tax,
            Self::Cover => &cost.cover,
            Self::ExpectedLoss => &cost.expected_loss,
        }
    }
}

/// What one part of a cost adds.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct DearerPart {
    /// The part.
    pub part: CostPart,
    /// By how much this part is more than the best service's; negative if it is less.
    pub more: Money,
}

/// What a service costs more than the best one.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Dearer {
    /// The service.
    pub id: String,
    /// By how much its total is more than the best service's; negative for a cheaper service that ranks behind, for instance by its days.
    pub more: Money,
    /// The parts that differ, what adds most first. They add up to `more`.
    pub parts: Vec<DearerPart>,
    /// The weight that its size counts for, where that is billed and more than what the best one bills.
    #[serde(rename = "billed_by_size_g")]
    #[serde(skip_serializing_if = "Option::is_none")]
    pub billed_by_size: Option<Mass>,
}

/// Returns what each service costs more than the first that has a cost, in the same order.
#[must_use]
pub fn dearer(quotes: &[Quote]) -> Vec<Dearer> {
    let mut priced = quotes
        .iter()
        .filter_map(|quote| Some((quote, quote.cost.as_ref()?)));
    let Some((best, least)) = priced.next() else {
        return Vec::new();
    };
    priced
        .map(|(quote, cost)| {
            let own = &cost.total.currency;
            let beyond = |more: &Money, less: &Money| Money::new(more.amount - less.amount, own);
            let mut parts: Vec<DearerPart> = CostPart::ALL
                .into_iter()
                .map(|part| DearerPart {
                    part,
                    more: beyond(part.of(cost), part.of(least)),
                })
                .filter(|part| !part.more.amount.is_zero())
                .collect();
            parts.sort_by_key(|part| Reverse(part.more.amount));
            let billable = quote.billable;
            let by_size = billable.governs == Governs::Volumetric
                && billable.billable > best.billable.billable;
            Dearer {
                id: quote.id.clone(),
                more: beyond(&cost.total, &least.total),
                parts,
                billed_by_size: by_size.then_some(billable.billable),
            }
        })
        .collect()
}
