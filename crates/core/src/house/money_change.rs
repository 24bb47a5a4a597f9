//! Counting in other money from a day on: what every sum of a studio becomes.

use std::sync::Arc;

use jiff::civil::Date;
use rust_decimal::{Decimal, RoundingStrategy, prelude::ToPrimitive as _};
use serde::Serialize;

use super::{BeginLine, ExchangeRate, HouseRules};
use crate::{
    Refusal, Refusals,
    material::{Catalogue, MaterialPrice},
    quantity::{Currency, Sum},
};

/// A studio counts in other money from a day on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct MoneyChange {
    from: Currency,
    to: Currency,
    rate: Decimal,
    on: Date,
}

/// A sum of a studio before and after a change of money.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ChangedSum {
    /// What it is for.
    pub name: String,
    /// In the money before.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "24.00"))]
    pub before: Decimal,
    /// In the money after.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "25.92"))]
    pub after: Decimal,
}

/// How many significant digits a converted price keeps.
const PRICE_DIGITS: u32 = 4;
/// How many decimals a converted price may have more than its money has.
const PRICE_DECIMALS: u32 = 4;
/// How many sums are shown before a change.
const SHOWN: usize = 10;

impl MoneyChange {
    /// Makes it from what one unit of the money before is worth in the money after.
    ///
    /// # Errors
    /// A [`Refusal`] at `rate` where that is no rate: 0 or less, over 1 000 000, or of more than ten places.
    pub fn new(from: Currency, to: Currency, rate: Decimal, on: Date) -> Result<Self, Refusal> {
        let known = ExchangeRate {
            currency: from,
            rate,
            on,
        };
        match known.refused() {
            Some(says) => Err(Refusal::new("rate", says)),
            None => Ok(Self { from, to, rate, on }),
        }
    }

    /// Returns the money after it.
    #[must_use]
    pub const fn to(&self) -> Currency {
        self.to
    }

    /// Returns the money before it.
    #[must_use]
    pub const fn from(&self) -> Currency {
        self.from
    }

    /// Returns an amount in the money after, to its minor unit.
    #[must_use]
    pub fn amount(&self, amount: Decimal) -> Decimal {
        self.to.round(self.exactly(amount))
    }

    /// Returns a price of a material: to the minor unit, or to four digits where those are more, and to at most four decimals
    /// more than the money has.
    #[must_use]
    pub fn price(&self, price: Decimal) -> Decimal {
        let exact = self.exactly(price);
        let least = self.to.decimals();
        let digits = exact
            .round_sf_with_strategy(PRICE_DIGITS, RoundingStrategy::MidpointAwayFromZero)
            .map_or(least, |rounded| rounded.normalize().scale());
        let places = digits.clamp(least, least + PRICE_DECIMALS);
        let mut rounded =
            exact.round_dp_with_strategy(places, RoundingStrategy::MidpointAwayFromZero);
        rounded.rescale(places);
        rounded
    }

    fn exactly(&self, amount: Decimal) -> Decimal {
        // A product past the largest decimal (about 8 × 10²⁸) is held there.
        amount.checked_mul(self.rate).unwrap_or(Decimal::MAX)
    }

    fn sum(&self, sum: Sum) -> Sum {
        Sum::new(self.amount(sum.amount()).to_f64().unwrap_or(Sum::MOST))
    }

    /// Returns the rules of a house with every sum in the money after. The money before joins the kept rates, so that sums written in
    /// it can still be converted.
    #[must_use]
    pub fn rules(&self, rules: &HouseRules) -> HouseRules {
        let mut then = rules.clone();
        for (_, sum) in then.allowances.sums() {
            *sum = self.sum(*sum);
        }
        for line in Arc::make_mut(&mut then.beginnings) {
            let BeginLine {
                routes: _,
                classes: _,
                value_over,
                value_up_to,
                irreplaceable: _,
                start_from: _,
            } = line;
            for value in [value_over, value_up_to] {
                *value = value.map(|value| self.sum(value));
            }
        }
        then.rates.retain(|known| known.currency != self.to);
        for known in &mut then.rates {
            known.rate = ExchangeRate::rounded(self.exactly(known.rate));
        }
        then.rates.push(ExchangeRate {
            currency: self.from,
            rate: self.rate,
            on: self.on,
        });
        then
    }

    /// Returns materials with every price in the money after.
    #[must_use]
    pub fn catalogue(&self, catalogue: &Catalogue) -> Catalogue {
        let mut then = catalogue.with_prices(|price| self.price(price));
        then.currency = self.to;
        then
    }

    /// Returns ten sums of a house as they are and as they become: those that its rules name, then prices of materials.
    #[must_use]
    pub fn shown(&self, rules: &HouseRules, catalogue: &Catalogue) -> Vec<ChangedSum> {
        let mut rules = rules.clone();
        let sums = rules.allowances.sums().map(|(about, sum)| ChangedSum {
            name: about.name.to_owned(),
            before: self.from.round(sum.amount()),
            after: self.amount(sum.amount()),
        });
        let named = sums.filter(|sum| !sum.before.is_zero());
        let prices = catalogue.prices().into_iter();
        let prices = prices.map(|MaterialPrice { name, price }| ChangedSum {
            name,
            before: price,
            after: self.price(price),
        });
        let prices = prices.filter(|sum| !sum.before.is_zero());
        let mut shown: Vec<ChangedSum> = named.chain(prices).collect();
        // Of a board in several sizes the first one is enough.
        shown.dedup_by(|one, other| one.name == other.name);
        shown.truncate(SHOWN);
        shown
    }

    /// Refuses what it brings about that a house can't have.
    ///
    /// # Errors
    /// A [`Refusal`] at `rate` for each sum that becomes more than any studio names.
    pub fn check(&self, rules: &HouseRules) -> Result<(), Vec<Refusal>> {
        let mut refusals = Refusals::default();
        for refused in self.rules(rules).check().err().unwrap_or_default() {
            refusals.refuse("rate", format!("by it {}", refused.message));
        }
        refusals.or(())
    }
}
