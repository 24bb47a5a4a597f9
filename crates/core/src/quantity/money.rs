//! Money: a decimal amount in one currency.

use rust_decimal::{Decimal, RoundingStrategy};
use serde::{Deserialize, Serialize};

/// A three-letter currency code, as `EUR`.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "schema", schema(value_type = String, example = "EUR"))]
#[serde(try_from = "String", into = "String")]
pub struct Currency(String);

impl Currency {
    /// Returns the code.
    #[must_use]
    pub fn code(&self) -> &str {
        &self.0
    }
}

impl TryFrom<String> for Currency {
    type Error = String;

    fn try_from(code: String) -> Result<Self, Self::Error> {
        if code.len() == 3 && code.bytes().all(|byte| byte.is_ascii_uppercase()) {
            Ok(Self(code))
        } else {
            Err(format!(
                "\"{code}\" is not a currency: write three capital letters, as EUR"
            ))
        }
    }
}

impl From<Currency> for String {
    fn from(currency: Currency) -> Self {
        currency.0
    }
}

/// An amount in a currency, to the minor unit.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Money {
    /// The amount, written as a decimal string so that nothing rounds it on the way.
    #[cfg_attr(feature = "schema", schema(value_type = String, example = "31.40"))]
    pub amount: Decimal,
    /// What it is counted in.
    pub currency: Currency,
}

impl Money {
    /// Makes it from an amount, rounded half up to the minor unit.
    #[must_use]
    pub fn new(amount: Decimal, currency: &Currency) -> Self {
        Self {
            amount: round_to_cents(amount),
            currency: currency.clone(),
        }
    }
}

/// Returns the amount rounded half up to two decimals, and written with both.
#[must_use]
pub fn round_to_cents(amount: Decimal) -> Decimal {
    let mut rounded = amount.round_dp_with_strategy(2, RoundingStrategy::MidpointAwayFromZero);
    rounded.rescale(2);
    rounded
}

/// Returns a measured number as a decimal with nine places (a cubic millimetre in cubic metres), to be multiplied by a price.
///
/// # Panics
/// When the number is not finite or beyond 10¹⁹, which no quantity of the job is.
#[must_use]
pub fn decimal_of(measured: f64) -> Decimal {
    const PLACES: u32 = 9;
    Decimal::try_from(measured)
        .expect("a quantity of the job fits in a decimal")
        .round_dp(PLACES)
}

#[cfg(test)]
mod tests {
    use rust_decimal_macros::dec;

    use super::*;

    #[test]
    fn halves_round_up_and_two_decimals_are_written() {
        for (amount, shown) in [
            (dec!(1.005), "1.01"),
            (dec!(2.5), "2.50"),
            (dec!(7), "7.00"),
            (dec!(0.004), "0.00"),
        ] {
            assert_eq!(round_to_cents(amount).to_string(), shown);
        }
    }

    #[test]
    fn only_three_capitals_are_a_currency() {
        assert!(Currency::try_from("EUR".to_owned()).is_ok());
        for wrong in ["eur", "EURO", "€", ""] {
            assert!(Currency::try_from(wrong.to_owned()).is_err(), "{wrong}");
        }
    }
}
