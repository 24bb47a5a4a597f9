//! Reading a mass the way people write one.
//!
//! Accepted: `3.2`, `3,2 kg`, `3200 g`, `7 lb`, `7 lb 2 oz`, `7.5 lb`. A bare number is in kilograms.

use super::{AmbiguousComma, Mass};

/// Why a text is not a mass.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum ReadMassError {
    /// A part of the text is neither a number nor a unit.
    #[error("\"{0}\" was not understood: write a weight as 3.2 kg, 3200 g or 7 lb 2 oz")]
    NotUnderstood(String),
    /// A comma could mark thousands or decimals.
    #[error(transparent)]
    AmbiguousComma(#[from] AmbiguousComma),
    /// It is below nothing or above what is lifted.
    #[error("{0:.3}\u{a0}kg is out of range: a piece weighs from 0.01 to 500\u{a0}kg")]
    OutOfRange(f64),
}

const GRAMS_PER_POUND: f64 = 453.592_37;
const GRAMS_PER_OUNCE: f64 = GRAMS_PER_POUND / 16.0;
const LEAST: Mass = Mass::g(10.0);
const MOST: Mass = Mass::kg(500.0);
/// The longest text that is read.
const LONGEST_TEXT: usize = 40;
/// Masses are kept to a tenth of a gram.
const PARTS_OF_G: f64 = 10.0;

/// Reads a mass; a bare number is in kilograms.
///
/// # Errors
/// [`ReadMassError`] for a text that is not a mass, or one outside 0.01 to 500 kg.
///
/// ```
/// use hummock_core::quantity::read_mass;
///
/// assert_eq!(read_mass("3,2 kg")?.as_g(), 3200.0);
/// assert_eq!(read_mass("7 lb 2 oz")?.as_g(), 3231.8);
/// assert!(read_mass("a lot").is_err());
/// # Ok::<(), hummock_core::quantity::ReadMassError>(())
/// ```
pub fn read_mass(text: &str) -> Result<Mass, ReadMassError> {
    let not_understood =
        || ReadMassError::NotUnderstood(text.trim().chars().take(LONGEST_TEXT).collect());
    if text.chars().count() > LONGEST_TEXT {
        return Err(not_understood());
    }
    let number = |c: char| !(c.is_ascii_digit() || c == '.' || c == ',');
    if let Some(ambiguous) = text.split(number).find_map(AmbiguousComma::in_number) {
        return Err(ambiguous.into());
    }
    let parts = parts_of(text).ok_or_else(not_understood)?;
    let grams = match parts[..] {
        [(number, Unit::Bare | Unit::Kg)] => number * 1e3,
        [(number, Unit::G)] => number,
        [(number, Unit::Lb)] => number * GRAMS_PER_POUND,
        [(number, Unit::Oz)] => number * GRAMS_PER_OUNCE,
        [(pounds, Unit::Lb), (ounces, Unit::Oz)] => {
            pounds * GRAMS_PER_POUND + ounces * GRAMS_PER_OUNCE
        }
        _ => return Err(not_understood()),
    };
    let mass =
        Mass::try_from((grams * PARTS_OF_G).round() / PARTS_OF_G).map_err(|_| not_understood())?;
    if (LEAST..=MOST).contains(&mass) {
        Ok(mass)
    } else {
        Err(ReadMassError::OutOfRange(mass.as_kg()))
    }
}

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Unit {
    Bare,
    G,
    Kg,
    Lb,
    Oz,
}

fn parts_of(text: &str) -> Option<Vec<(f64, Unit)>> {
    let mut rest = text.trim();
    let mut parts = Vec::new();
    while !rest.is_empty() {
        let digits = rest
            .find(|c: char| !(c.is_ascii_digit() || c == '.' || c == ','))
            .unwrap_or(rest.len());
        let number: f64 = rest[..digits].replace(',', ".").parse().ok()?;
        rest = rest[digits..].trim_start();
        let word = rest
            .find(|c: char| !c.is_alphabetic())
            .unwrap_or(rest.len());
        let unit = match rest[..word].to_lowercase().as_str() {
            "" => Unit::Bare,
            "g" | "gram" | "grams" => Unit::G,
            "kg" | "kilo" | "kilos" => Unit::Kg,
            "lb" | "lbs" | "pound" | "pounds" => Unit::Lb,
            "oz" | "ounce" | "ounces" => Unit::Oz,
            _ => return None,
        };
        rest = rest[word..].trim_start();
        parts.push((number, unit));
    }
    Some(parts)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn masses_as_people_write_them() {
        for (text, grams) in [
            ("3.2", 3200.0),
            ("3,2kg", 3200.0),
            (" 3200 g ", 3200.0),
            // 7 × 453.59237 = 3175.1466
            ("7 lb", 3175.1),
            // 7 lb 2 oz: 3175.1466 + 2 × 28.349523 = 3231.8457
            ("7lb 2oz", 3231.8),
            ("40 OZ", 1134.0),
        ] {
            assert_eq!(read_mass(text), Ok(Mass::g(grams)), "{text}");
        }
    }

    #[test]
    fn what_is_not_a_mass_is_named() {
        for text in [
            "",
            "heavy",
            "3 stone",
            "-2 kg",
            "2 oz 7 lb",
            "1.2.3 kg",
            "3 kg 4",
        ] {
            let error = read_mass(text).expect_err(text);
            assert!(matches!(error, ReadMassError::NotUnderstood(_)), "{text}");
        }
        let two = read_mass("1,200 g").expect_err("two readings");
        assert!(two.to_string().contains("1200 or 1.2"), "{two}");
        assert_eq!(read_mass("900 kg"), Err(ReadMassError::OutOfRange(900.0)));
        assert_eq!(read_mass("0"), Err(ReadMassError::OutOfRange(0.0)));
    }
}
