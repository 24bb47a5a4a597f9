//! What other currencies are worth in the studio's own, on the day that somebody looked.

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::HouseRules;
use crate::{
    Refusal, Refusals,
    quantity::{Currency, Money},
};

/// What one unit of a currency is worth in the studio's own.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ExchangeRate {
    /// The other currency.
    pub currency: Currency,
    /// What one of it is worth, above 0 and at most 1 000 000.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "0.0874"))]
    pub rate: Decimal,
    /// The day that this was so.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "2027-03-01"))]
    pub on: Date,
}

const MOST: Decimal = Decimal::from_parts(1_000_000, 0, 0, false, 0);
/// How many places are enough for a rate of any two currencies.
const PLACES: u32 = 10;

impl ExchangeRate {
    /// Returns why it is no rate, where it is none.
    pub(super) fn refused(&self) -> Option<String> {
        let fits = self.rate > Decimal::ZERO && self.rate <= MOST && self.rate.scale() <= PLACES;
        (!fits).then(|| {
            format!(
                "{} is out of range: give the value of one {}, above 0 and at most {MOST}, to {PLACES} places",
                self.rate,
                self.currency.code()
            )
        })
    }

    /// Returns a rate to as many places as are enough; the least there is where nothing is left.
    pub(super) fn rounded(rate: Decimal) -> Decimal {
        rate.round_dp(PLACES).clamp(Decimal::new(1, PLACES), MOST)
    }
}

impl HouseRules {
    /// Returns what one unit of a currency is worth in another, of which one is the studio's; `None` if no rate is kept.
    #[must_use]
    pub fn rate(&self, from: &Currency, to: &Currency) -> Option<Decimal> {
        if from == to {
            return Some(Decimal::ONE);
        }
        let of = |currency: &Currency| self.rates.iter().find(|rate| rate.currency == *currency);
        of(from)
            .map(|known| known.rate)
            .or_else(|| Decimal::ONE.checked_div(of(to)?.rate))
    }

    /// Returns an amount in another currency; `None` if no rate is kept.
    #[must_use]
    pub fn converted(&self, money: &Money, to: &Currency) -> Option<Money> {
        let rate = self.rate(&money.currency, to)?;
        Some(Money::new(money.amount.checked_mul(rate)?, to))
    }

    pub(super) fn rates_refused(&self) -> Vec<Refusal> {
        let mut refusals = Refusals::default();
        for (at, known) in self.rates.iter().enumerate() {
            if let Some(says) = known.refused() {
                refusals.refuse(format!("rates[{at}].rate"), says);
            }
            if self.rates[..at]
                .iter()
                .any(|before| before.currency == known.currency)
            {
                let says = format!("an earlier rate is already for {}", known.currency.code());
                refusals.refuse(format!("rates[{at}].currency"), says);
            }
        }
        refusals.into()
    }
}
