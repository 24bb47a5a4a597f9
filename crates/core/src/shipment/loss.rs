//! What a journey costs on average: what is damaged or lost beyond its cover, and the hours of both.

use rust_decimal::{Decimal, prelude::ToPrimitive};

use super::{House, ShipmentInputs};
use crate::{
    freight::{Offer, Quote},
    house::{CoverRule, HouseRules},
    plan::{Odds, Plan},
    quantity::{Currency, Money, decimal_of},
};

/// What a plan's odds would cost, by the cover of a service.
pub(super) struct Loss<'a> {
    rules: &'a HouseRules,
    odds: Odds,
    worth: Option<Decimal>,
    currency: &'a Currency,
}

impl<'a> Loss<'a> {
    pub(super) fn of(
        plan: &Plan,
        rules: &'a HouseRules,
        worth: Option<Decimal>,
        currency: &'a Currency,
    ) -> Self {
        Self {
            rules,
            odds: plan.odds.clone(),
            worth,
            currency,
        }
    }

    /// Returns P·(value − cover) + P_lost·(value − cover) + (P + P_lost)·hours·rate; nothing without a value.
    fn at(&self, damaged: f64, lost: f64, covered: Decimal) -> Option<Money> {
        let allowances = &self.rules.allowances;
        let uncovered = (self.worth? - covered).max(Decimal::ZERO).to_f64()?;
        let hours = allowances.loss_hours * allowances.labour_per_hour;
        let expected = (damaged + lost) * (uncovered + hours);
        Some(Money::new(decimal_of(expected), self.currency))
    }

    /// Returns what it costs on average with a service; without one, nothing is covered.
    pub(super) fn expected(&self, quote: Option<&Quote>) -> Option<Money> {
        match quote {
            Some(quote) => quote.expected_loss.clone(),
            None => self.at(self.odds.probability, self.odds.lost, Decimal::ZERO),
        }
    }

    /// Tells each quote what it leaves uncovered and what that costs on average, and puts the best first: where
    /// the house wants full cover, those that give it before those that do not.
    pub(super) fn told_in(&self, quotes: &mut [Quote], inputs: &ShipmentInputs, house: &House) {
        for quote in &mut *quotes {
            let Offer::Priced { covered, .. } = &quote.offer else {
                continue;
            };
            let covered = covered.amount;
            let way = house.way(inputs, house.service(&quote.id));
            let tables = &self.rules.odds;
            // The same plan on the way that this service goes.
            let intensity = self.odds.base_percent / PERCENT * way.roughness * self.odds.factor;
            let damaged = tables.known().chance(intensity).probability;
            quote.expected_loss = self.at(damaged, tables.lost_on(way), covered);
            quote.uncovered = self
                .worth
                .map(|worth| worth - covered)
                .filter(|short| *short > Decimal::ZERO)
                .map(|short| Money::new(short, self.currency));
        }
        let full = self.rules.schools.cover == CoverRule::Full;
        quotes.sort_by_cached_key(|quote| {
            let loss = quote
                .expected_loss
                .as_ref()
                .map_or(Decimal::ZERO, |loss| loss.amount);
            let total = quote.total().map(|total| total.amount + loss);
            let short = full && quote.uncovered.is_some();
            (total.is_none(), short, total, quote.id.clone())
        });
    }
}

const PERCENT: f64 = 100.0;
