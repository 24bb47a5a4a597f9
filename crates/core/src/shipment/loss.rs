//! What a journey costs on average: what is damaged or lost beyond its cover, and the hours of both.

use rust_decimal::{Decimal, prelude::ToPrimitive};

use crate::{
    freight::Quote,
    house::HouseRules,
    odds::WayRisk,
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

    /// Returns P·(harm − cover) + P_lost·(value − cover) + (P + P_lost)·hours·rate; `None` without a value. For what can't be replaced
    /// cover pays nothing that counts.
    fn at(&self, damaged: f64, lost: f64, covered: Decimal) -> Option<Money> {
        let allowances = &self.rules.allowances;
        let worth = self.worth?.to_f64()?;
        let paid = if self.odds.is_replaceable() {
            covered.to_f64()?
        } else {
            0.0
        };
        let beyond = |amount: f64| (amount - paid).max(0.0);
        let hours = allowances.loss_hours * allowances.labour_per_hour.number();
        let harm = self.odds.harmed(self.rules);
        let expected = damaged * beyond(harm) + lost * beyond(worth) + (damaged + lost) * hours;
        Some(Money::new(decimal_of(expected), self.currency))
    }

    /// Returns what it costs on average once it arrives damaged, before any cover; `None` without a value.
    pub(super) fn harm(&self) -> Option<Money> {
        self.worth?;
        let harm = decimal_of(self.odds.harmed(self.rules));
        Some(Money::new(harm, self.currency))
    }

    /// Returns what it costs on average with a service; without one, nothing is covered.
    pub(super) fn expected(&self, quote: Option<&Quote>) -> Option<Money> {
        match quote {
            Some(quote) => quote.expected_loss.clone(),
            None => self.at(self.odds.probability, self.odds.lost, Decimal::ZERO),
        }
    }

    /// Returns what the same plan costs on average on the way that a service goes, by what that covers.
    pub(super) fn on(&self, way: WayRisk, covered: Decimal) -> Option<Money> {
        let tables = &self.rules.odds;
        let (damaged, _) = self.odds.on(tables, way);
        self.at(damaged, tables.lost_on(way), covered)
    }

    /// Returns how far a cover falls short of the value; `None` if it does not.
    pub(super) fn beyond(&self, covered: Decimal) -> Option<Money> {
        self.worth
            .map(|worth| worth - covered)
            .filter(|short| *short > Decimal::ZERO)
            .map(|short| Money::new(short, self.currency))
    }
}
