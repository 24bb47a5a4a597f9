//! Money: a decimal amount in one currency.

use rust_decimal::{Decimal, RoundingStrategy, prelude::ToPrimitive as _};
use serde::{Deserialize, Serialize};

/// A three-letter currency code, as `EUR`, with the decimals that amounts in it are written with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "schema", schema(value_type = String, example = "EUR"))]
#[serde(try_from = "String", into = "String")]
pub struct Currency(Code);

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
struct Code {
    letters: [u8; 3],
    decimals: u8,
}

/// Of a currency that no standard names.
const USUAL_DECIMALS: u8 = 2;

impl Currency {
    /// Returns the code.
    ///
    /// # Panics
    /// Never: a code is three capitals.
    #[must_use]
    pub fn code(&self) -> &str {
        std::str::from_utf8(&self.0.letters).expect("three capitals")
    }

    /// Tells whether it is something that people pay with: a code of ISO 4217 with a minor unit. Gold and test codes have none.
    #[must_use]
    pub fn is_money(&self) -> bool {
        let known = iso_currency::Currency::from_code(self.code());
        known.is_some_and(|known| known.exponent().is_some())
    }

    /// Returns the sign that people write for it where it is used, as `€`; its code where there is none.
    #[must_use]
    pub fn sign(&self) -> String {
        let known = iso_currency::Currency::from_code(self.code());
        let sign = known.map(|known| known.symbol().to_string());
        sign.unwrap_or_else(|| self.code().to_owned())
    }

    /// Returns how many decimals its minor unit has: 2 for most, 0 or 3 for some.
    #[must_use]
    pub const fn decimals(&self) -> u32 {
        self.0.decimals as u32
    }

    /// Returns one minor unit: 0.01 for most, 1 for those without decimals.
    #[must_use]
    pub fn minor_unit(&self) -> Decimal {
        Decimal::new(1, self.decimals())
    }

    /// Returns an amount rounded half up to the minor unit, and written with all its decimals.
    #[must_use]
    pub fn round(&self, amount: Decimal) -> Decimal {
        let mut rounded =
            amount.round_dp_with_strategy(self.decimals(), RoundingStrategy::MidpointAwayFromZero);
        rounded.rescale(self.decimals());
        rounded
    }
}

impl TryFrom<String> for Currency {
    type Error = String;

    fn try_from(code: String) -> Result<Self, Self::Error> {
        match <[u8; 3]>::try_from(code.as_bytes()) {
            Ok(letters) if letters.iter().all(u8::is_ascii_uppercase) => {
                let known = iso_currency::Currency::from_code(&code);
                let decimals = known
                    .and_then(iso_currency::Currency::exponent)
                    .and_then(|decimals| u8::try_from(decimals).ok());
                Ok(Self(Code {
                    letters,
                    decimals: decimals.unwrap_or(USUAL_DECIMALS),
                }))
            }
            _ => Err(format!(
                "\"{code}\" is not a currency code: write three capital letters, as EUR"
            )),
        }
    }
}

impl From<Currency> for String {
    fn from(currency: Currency) -> Self {
        currency.code().to_owned()
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
            amount: currency.round(amount),
            currency: *currency,
        }
    }
}

/// A sum in the studio's own money that its rules name, as 250 for the value up to which a mailer is enough. It is not rounded.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(value_type = f64))]
#[serde(transparent)]
pub struct Sum(f64);

impl Sum {
    /// The most that any sum comes to: a thousand million, which is much in any money.
    pub const MOST: f64 = 1e9;

    /// Makes it from its number.
    #[must_use]
    pub const fn new(number: f64) -> Self {
        Self(number)
    }

    /// Returns its number.
    #[must_use]
    pub const fn number(self) -> f64 {
        self.0
    }

    /// Returns it as an exact amount.
    #[must_use]
    pub fn amount(self) -> Decimal {
        decimal_of(self.0)
    }
}

/// Returns a measured number as a decimal with nine places (a cubic millimetre in cubic metres), to be multiplied by a price.
///
/// # Panics
/// When the number is not finite or beyond 10¹⁹, which no quantity of the job is.
#[must_use]
pub fn decimal_of(measured: f64) -> Decimal {
    const PLACES: u32 = 9;
    // By way of the nearest whole number of the ninth place: a general conversion divides by ten a dozen times over, and every part of
    // every plan is priced.
    (measured * 1e9)
        .round_ties_even()
        .to_i128()
        .and_then(|whole| Decimal::try_from_i128_with_scale(whole, PLACES).ok())
        .expect("a quantity of the job fits in a decimal")
}

#[cfg(test)]
mod tests {
    use rust_decimal_macros::dec;

    use super::*;

    #[test]
    fn a_currency_rounds_to_its_own_minor_unit() {
        for (code, amount, shown) in [
            ("EUR", dec!(12.345), "12.35"),
            ("EUR", dec!(1.005), "1.01"),
            ("EUR", dec!(0.004), "0.00"),
            ("JPY", dec!(1204.5), "1205"),
            ("KWD", dec!(3.1), "3.100"),
            ("XQQ", dec!(7), "7.00"),
        ] {
            let currency = Currency::try_from(code.to_owned()).expect("a currency");
            assert_eq!(Money::new(amount, &currency).amount.to_string(), shown);
        }
    }

    #[test]
    fn gold_and_test_codes_are_no_money() {
        let is_money =
            |code: &str| Currency::try_from(code.to_owned()).is_ok_and(|code| code.is_money());
        assert!(is_money("EUR") && is_money("JPY") && is_money("BRL") && is_money("KWD"));
        for none in ["XAU", "XTS", "XXX", "QQQ"] {
            assert!(!is_money(none), "{none}");
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
