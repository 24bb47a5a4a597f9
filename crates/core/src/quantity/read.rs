//! Reading a length the way people write one.
//!
//! Accepted: `61.5`, `61.5 cm`, `615mm`, `24 3/16"`, `24-3/16 in`, `2' 1/4"`, `2ft 0.25in`, `⅜`, a
//! comma as the decimal mark, and several lengths in a row with `x`, `×`, `*` or `by` between them.

use super::{AmbiguousComma, Length, LengthUnit, TypedLength};

/// The longest text that is read; a tape measure never needs more.
const LONGEST_TEXT: usize = 80;

/// Lengths are kept to a hundredth of a millimetre, finer than any tape reads.
const PARTS_OF_MM: f64 = 100.0;

/// Why a text is not a length.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum ReadError {
    /// There was nothing to read.
    #[error("length missing: write it as 61.5 cm, 615 mm or 24 3/16 in")]
    Empty,
    /// The text is longer than any length.
    #[error("this text is too long: write a length as 61.5 cm, 615 mm or 24 3/16 in")]
    TooLong,
    /// A part of the text is neither a number nor a unit.
    #[error(
        "\"{0}\" was not understood: write a length as 61.5 cm, 615 mm, 24 3/16 in or 2' 1/4\""
    )]
    NotUnderstood(String),
    /// A word stands where a unit should.
    #[error("\"{0}\" is not a known unit: use mm, cm, m, in or ft")]
    UnknownUnit(String),
    /// A fraction is over nothing, or over nothing sensible.
    #[error("\"{0}\" is not a fraction: write one as 3/16")]
    BadFraction(String),
    /// A comma could mark thousands or decimals.
    #[error(transparent)]
    AmbiguousComma(#[from] AmbiguousComma),
    /// A sign stands before the number.
    #[error("\"{0}\" is less than zero: a length can't be negative")]
    Negative(String),
    /// Two numbers stand side by side.
    #[error(
        "\"{0}\" is two numbers in one length: put × between two sides, or a unit after each part"
    )]
    TwoNumbers(String),
    /// A bare number stands beside feet.
    #[error("\"{0}\" has no unit: beside feet it could be feet or inches")]
    UnitNeeded(String),
    /// There were more or fewer lengths than asked for.
    #[error("{found} of {wanted} lengths given: write width × height × depth")]
    WrongCount {
        /// How many were asked for.
        wanted: usize,
        /// How many were there.
        found: usize,
    },
}

/// A unit as it can be written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Written {
    Mm,
    Cm,
    M,
    In,
    Ft,
}

impl Written {
    fn from_word(word: &str) -> Option<Self> {
        Some(match word.to_lowercase().as_str() {
            "mm" | "millimetre" | "millimetres" | "millimeter" | "millimeters" => Self::Mm,
            "cm" | "centimetre" | "centimetres" | "centimeter" | "centimeters" => Self::Cm,
            "m" | "metre" | "metres" | "meter" | "meters" => Self::M,
            "in" | "ins" | "inch" | "inches" => Self::In,
            "ft" | "foot" | "feet" => Self::Ft,
            _ => return None,
        })
    }

    const fn in_mm(self) -> f64 {
        match self {
            Self::Mm => 1.0,
            Self::Cm => 10.0,
            Self::M => 1000.0,
            Self::In => 25.4,
            Self::Ft => 304.8,
        }
    }

    /// The unit of the interface that is nearest to it, for messages.
    const fn shown_as(self) -> LengthUnit {
        match self {
            Self::Mm => LengthUnit::Mm,
            Self::Cm | Self::M => LengthUnit::Cm,
            Self::In | Self::Ft => LengthUnit::In,
        }
    }

    const fn symbol(self) -> &'static str {
        match self {
            Self::Mm => "mm",
            Self::Cm => "cm",
            Self::M => "m",
            Self::In => "in",
            Self::Ft => "ft",
        }
    }
}

impl From<LengthUnit> for Written {
    fn from(unit: LengthUnit) -> Self {
        match unit {
            LengthUnit::Mm => Self::Mm,
            LengthUnit::Cm => Self::Cm,
            LengthUnit::In => Self::In,
        }
    }
}

/// A length that was read, with what its text said about units.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Reading {
    /// The length.
    pub length: Length,
    /// The unit of the interface nearest to the one that was written or assumed.
    pub unit: LengthUnit,
}

/// Reads one length; a number without a unit takes `bare`.
///
/// # Errors
/// [`ReadError`], naming the part that was not understood.
///
/// ```
/// use hummock_core::quantity::{LengthUnit, read_length};
///
/// assert_eq!(read_length("61.5 cm", LengthUnit::Mm)?.length.as_mm(), 615.0);
/// assert_eq!(read_length("35 1/2", LengthUnit::In)?.length.as_mm(), 901.7);
/// assert!(read_length("12 ells", LengthUnit::Mm).is_err());
/// # Ok::<(), hummock_core::quantity::ReadError>(())
/// ```
pub fn read_length(text: &str, bare: LengthUnit) -> Result<Reading, ReadError> {
    let terms = terms_of(text)?;
    let unit = terms
        .last()
        .and_then(|term| term.unit)
        .unwrap_or(bare.into());
    Ok(Reading {
        length: sum_of(&terms, text, bare.into())?,
        unit: unit.shown_as(),
    })
}

/// Reads `count` lengths with `x`, `×`, `*` or `by` between them.
///
/// A length without a unit takes that of the next one that has one, else of the one before, else
/// `bare`: `35 1/2 x 47 1/4 x 1 1/2 in` is all inches.
///
/// # Errors
/// [`ReadError`], also when there are more or fewer than `count`, or when the only unit to take is
/// feet.
pub fn read_lengths(
    text: &str,
    count: usize,
    bare: LengthUnit,
) -> Result<Vec<TypedLength>, ReadError> {
    let parts = split_sides(text);
    if text.trim().is_empty() {
        return Err(ReadError::Empty);
    }
    if parts.len() != count {
        return Err(ReadError::WrongCount {
            wanted: count,
            found: parts.len(),
        });
    }
    let terms: Vec<_> = parts
        .iter()
        .map(|part| terms_of(part))
        .collect::<Result<_, _>>()?;
    let own: Vec<Option<Written>> = terms
        .iter()
        .map(|of_side| of_side.iter().rev().find_map(|term| term.unit))
        .collect();
    (0..count)
        .map(|side| {
            let lent = own[side].is_none().then(|| lent_unit(&own, side)).flatten();
            if lent == Some(Written::Ft) {
                return Err(ReadError::UnitNeeded(parts[side].clone()));
            }
            let unit = lent.unwrap_or(bare.into());
            let length = sum_of(&terms[side], &parts[side], unit)?;
            Ok(TypedLength::known(
                &with_unit(&parts[side], own[side].is_some(), unit),
                length,
                own[side].unwrap_or(unit).shown_as(),
            ))
        })
        .collect()
}

/// Returns the text with the unit that a bare number was read in written after it.
pub(super) fn with_unit_written(text: &str, bare: LengthUnit) -> Result<String, ReadError> {
    let has_unit = terms_of(text)?.iter().any(|term| term.unit.is_some());
    Ok(with_unit(text.trim(), has_unit, bare.into()))
}

fn with_unit(text: &str, has_unit: bool, unit: Written) -> String {
    if has_unit {
        text.to_owned()
    } else {
        format!("{text} {}", unit.symbol())
    }
}

fn lent_unit(own: &[Option<Written>], side: usize) -> Option<Written> {
    let after = own[side..].iter().flatten().next();
    let before = own[..side].iter().rev().flatten().next();
    after.or(before).copied()
}

fn split_sides(text: &str) -> Vec<String> {
    text.to_lowercase()
        .replace("by", "×")
        .split(['x', '×', '*', '✕'])
        .map(|side| side.trim().to_owned())
        .collect()
}

/// A number with the unit written after it, if one was.
#[derive(Debug, Clone, Copy)]
struct Term {
    value: f64,
    unit: Option<Written>,
}

/// Adds the terms of one length: `2 ft` and `1/4 in`.
fn sum_of(terms: &[Term], text: &str, bare: Written) -> Result<Length, ReadError> {
    let mut millimetres = 0.0;
    let mut above: Option<Written> = None;
    for term in terms {
        let unit = match (term.unit, above) {
            (Some(unit), _) => unit,
            (None, Some(Written::Ft)) => Written::In,
            (None, None) if terms.len() == 1 => bare,
            (None, _) => return Err(ReadError::TwoNumbers(text.trim().to_owned())),
        };
        if above.is_some_and(|larger| larger.in_mm() <= unit.in_mm()) {
            return Err(ReadError::TwoNumbers(text.trim().to_owned()));
        }
        millimetres += term.value * unit.in_mm();
        above = Some(unit);
    }
    Ok(Length::mm(
        (millimetres * PARTS_OF_MM).round() / PARTS_OF_MM,
    ))
}

fn terms_of(text: &str) -> Result<Vec<Term>, ReadError> {
    if text.trim().is_empty() {
        return Err(ReadError::Empty);
    }
    if text.chars().count() > LONGEST_TEXT {
        return Err(ReadError::TooLong);
    }
    let mut scan = Scan { rest: text.trim() };
    let mut terms = Vec::new();
    while !scan.at_end() {
        let value = scan.value(text)?;
        let unit = scan.unit()?;
        terms.push(Term { value, unit });
    }
    Ok(terms)
}

/// What is left to read of a text.
struct Scan<'a> {
    rest: &'a str,
}

impl<'a> Scan<'a> {
    fn skip_space(&mut self) {
        self.rest = self.rest.trim_start();
    }

    fn at_end(&mut self) -> bool {
        self.skip_space();
        self.rest.is_empty()
    }

    /// Takes a whole or decimal number, a fraction, or a whole number and a fraction.
    fn value(&mut self, text: &str) -> Result<f64, ReadError> {
        self.skip_space();
        if let Some(fraction) = self.vulgar() {
            return Ok(fraction);
        }
        let Some(number) = self.number()? else {
            return Err(self.refuse_here(text));
        };
        if let Some(below) = self.over()? {
            return fraction(number, below);
        }
        Ok(number.parse_value()? + self.fraction_after(number)?)
    }

    /// Takes the fraction that may follow a whole number: `3/16` of `24 3/16` or `24-3/16`.
    fn fraction_after(&mut self, whole: Number<'_>) -> Result<f64, ReadError> {
        let before = self.rest;
        let joined = self.rest.trim_start();
        self.rest = joined.strip_prefix(['-', '–', '‑']).unwrap_or(joined);
        self.skip_space();
        let found = match self.vulgar() {
            Some(part) => Some(part),
            None => match self.number()? {
                Some(above) => match self.over()? {
                    Some(below) => Some(fraction(above, below)?),
                    None => None,
                },
                None => None,
            },
        };
        match found {
            Some(_) if !whole.is_whole() => Err(ReadError::TwoNumbers(whole.text.to_owned())),
            Some(part) => Ok(part),
            None => {
                self.rest = before;
                Ok(0.0)
            }
        }
    }

    fn vulgar(&mut self) -> Option<f64> {
        let first = self.rest.chars().next()?;
        let (above, below) = match first {
            '¼' => (1.0, 4.0),
            '½' => (1.0, 2.0),
            '¾' => (3.0, 4.0),
            '⅛' => (1.0, 8.0),
            '⅜' => (3.0, 8.0),
            '⅝' => (5.0, 8.0),
            '⅞' => (7.0, 8.0),
            '⅓' => (1.0, 3.0),
            '⅔' => (2.0, 3.0),
            _ => return None,
        };
        self.rest = &self.rest[first.len_utf8()..];
        Some(above / below)
    }

    fn number(&mut self) -> Result<Option<Number<'a>>, ReadError> {
        let end = self
            .rest
            .find(|c: char| !(c.is_ascii_digit() || c == '.' || c == ','))
            .unwrap_or(self.rest.len());
        let text = &self.rest[..end];
        if !text.bytes().any(|byte| byte.is_ascii_digit()) {
            return Ok(None);
        }
        self.rest = &self.rest[end..];
        Number::new(text).map(Some)
    }

    /// Takes `/16`, the lower part of a fraction.
    fn over(&mut self) -> Result<Option<Number<'a>>, ReadError> {
        let trimmed = self.rest.trim_start();
        let Some(after) = trimmed.strip_prefix(['/', '⁄']) else {
            return Ok(None);
        };
        self.rest = after.trim_start();
        match self.number()? {
            Some(below) => Ok(Some(below)),
            None => Err(ReadError::BadFraction(format!("/{}", after.trim()))),
        }
    }

    fn unit(&mut self) -> Result<Option<Written>, ReadError> {
        self.skip_space();
        for (mark, unit) in [
            ("''", Written::In),
            ("\"", Written::In),
            ("″", Written::In),
            ("”", Written::In),
            ("'", Written::Ft),
            ("′", Written::Ft),
            ("’", Written::Ft),
        ] {
            if let Some(after) = self.rest.strip_prefix(mark) {
                self.rest = after;
                return Ok(Some(unit));
            }
        }
        let end = self
            .rest
            .find(|c: char| !c.is_alphabetic())
            .unwrap_or(self.rest.len());
        let word = &self.rest[..end];
        if word.is_empty() {
            return Ok(None);
        }
        let unit =
            Written::from_word(word).ok_or_else(|| ReadError::UnknownUnit(word.to_owned()))?;
        self.rest = self.rest[end..]
            .strip_prefix('.')
            .unwrap_or(&self.rest[end..]);
        Ok(Some(unit))
    }

    fn refuse_here(&self, text: &str) -> ReadError {
        if self.rest.starts_with(['-', '−']) {
            return ReadError::Negative(text.trim().to_owned());
        }
        ReadError::NotUnderstood(
            self.rest
                .split_whitespace()
                .next()
                .unwrap_or(text)
                .to_owned(),
        )
    }
}

/// A run of digits with at most one decimal mark.
#[derive(Debug, Clone, Copy)]
struct Number<'a> {
    text: &'a str,
}

impl<'a> Number<'a> {
    fn new(text: &'a str) -> Result<Self, ReadError> {
        if text.matches([',', '.']).count() > 1 {
            return Err(ReadError::NotUnderstood(text.to_owned()));
        }
        if let Some(ambiguous) = AmbiguousComma::in_number(text) {
            return Err(ambiguous.into());
        }
        Ok(Self { text })
    }

    fn is_whole(self) -> bool {
        self.text.bytes().all(|byte| byte.is_ascii_digit())
    }

    fn parse_value(self) -> Result<f64, ReadError> {
        self.text
            .replace(',', ".")
            .parse()
            .map_err(|_| ReadError::NotUnderstood(self.text.to_owned()))
    }
}

fn fraction(above: Number<'_>, below: Number<'_>) -> Result<f64, ReadError> {
    let refuse = || ReadError::BadFraction(format!("{}/{}", above.text, below.text));
    if !above.is_whole() || !below.is_whole() {
        return Err(refuse());
    }
    let (above, below) = (above.parse_value()?, below.parse_value()?);
    if below > 0.0 {
        Ok(above / below)
    } else {
        Err(refuse())
    }
}

#[cfg(test)]
mod tests;
