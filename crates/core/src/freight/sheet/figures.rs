//! Figures of a price list between numbers and text: what is written reads back to the last digit.

use std::str::FromStr as _;

use rust_decimal::Decimal;

use crate::{
    freight::Gauge,
    quantity::{AmbiguousComma, Bare, DecimalMark, LengthUnit, MassUnit},
};

/// A unit: how it is written, how else it is read, and how many base units it is.
struct Unit {
    symbol: &'static str,
    others: &'static [&'static str],
    in_base: f64,
}

const fn unit(symbol: &'static str, others: &'static [&'static str], in_base: f64) -> Unit {
    Unit {
        symbol,
        others,
        in_base,
    }
}

const MM_PER_INCH: f64 = 25.4;
const MM_PER_FOOT: f64 = 304.8;
const G_PER_POUND: f64 = 453.592_37;
const G_PER_OUNCE: f64 = 28.349_523_125;
const M3_PER_CUBIC_FOOT: f64 = 0.028_316_846_592;
const M3_PER_CUBIC_INCH: f64 = 1.638_706_4e-5;
const CM3_PER_KG_OF_IN3_PER_LB: f64 = 16.387_064 / 0.453_592_37;

/// What a figure is a figure of; the first of its units is the one that tariffs carry.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Kind {
    /// In mm.
    Length,
    /// In g.
    Mass,
    /// In m³.
    Volume,
    /// In cm³ per kg.
    Divisor,
}

const LENGTHS: [Unit; 5] = [
    unit("mm", &[], 1.0),
    unit("cm", &[], 10.0),
    unit("m", &[], 1000.0),
    unit("in", &["\"", "inch", "inches", "″"], MM_PER_INCH),
    unit("ft", &["foot", "feet"], MM_PER_FOOT),
];
const MASSES: [Unit; 4] = [
    unit("g", &["gram", "grams"], 1.0),
    unit("kg", &["kilo", "kilos", "kgs"], 1000.0),
    unit("lb", &["lbs", "pound", "pounds"], G_PER_POUND),
    unit("oz", &["ounce", "ounces"], G_PER_OUNCE),
];
const VOLUMES: [Unit; 4] = [
    unit("m³", &["m3", "m^3", "cbm"], 1.0),
    unit(
        "l",
        &["litre", "litres", "liter", "liters", "dm³", "dm3"],
        0.001,
    ),
    unit("ft³", &["ft3", "ft^3", "cu ft"], M3_PER_CUBIC_FOOT),
    unit("in³", &["in3", "in^3", "cu in"], M3_PER_CUBIC_INCH),
];
const DIVISORS: [Unit; 2] = [
    unit("cm³/kg", &["cm3/kg", "cm^3/kg"], 1.0),
    unit("in³/lb", &["in3/lb", "in^3/lb"], CM3_PER_KG_OF_IN3_PER_LB),
];

impl Kind {
    const fn units(self) -> &'static [Unit] {
        match self {
            Self::Length => &LENGTHS,
            Self::Mass => &MASSES,
            Self::Volume => &VOLUMES,
            Self::Divisor => &DIVISORS,
        }
    }

    /// Of what a measure of a parcel is a figure.
    pub(super) const fn of(gauge: Gauge) -> Self {
        match gauge {
            Gauge::Longest
            | Gauge::Second
            | Gauge::Shortest
            | Gauge::Girth
            | Gauge::LengthPlusGirth => Self::Length,
            Gauge::Volume => Self::Volume,
            Gauge::Mass | Gauge::Billable => Self::Mass,
        }
    }

    /// What a bare number is in.
    const fn own(self, bare: Bare) -> &'static str {
        let metric = matches!(bare.mass, MassUnit::Kg);
        match self {
            Self::Length => match bare.length {
                LengthUnit::Mm => "mm",
                LengthUnit::Cm => "cm",
                LengthUnit::In => "in",
            },
            Self::Mass => bare.mass.symbol(),
            Self::Volume if metric => "l",
            Self::Volume => "ft³",
            Self::Divisor if metric => "cm³/kg",
            Self::Divisor => "in³/lb",
        }
    }

    const fn example(self) -> &'static str {
        match self {
            Self::Length => "1200 mm, 120 cm or 48 in",
            Self::Mass => "2.5 kg, 500 g or 5 lb",
            Self::Volume => "60 l, 0.06 m³ or 2 ft³",
            Self::Divisor => "5000 cm³/kg or 139 in³/lb",
        }
    }
}

/// A figure is written in another unit than the studio's own where that saves so many digits or more.
const FEWER_DIGITS: usize = 2;
/// Nobody types a figure with more decimals; one that has more in a unit was typed in another.
const PLACES: usize = 6;

/// How figures are written and read.
#[derive(Debug, Clone, Copy)]
pub(super) struct Figures {
    pub bare: Bare,
    pub mark: DecimalMark,
}

impl Figures {
    fn marked(self, number: String) -> String {
        match self.mark {
            DecimalMark::Point => number,
            DecimalMark::Comma => {
                let marked = number.replace('.', ",");
                // Three places after a comma have two readings.
                if AmbiguousComma::in_number(&marked).is_some() {
                    number
                } else {
                    marked
                }
            }
        }
    }

    /// Writes an amount of money, or a share, with the places that it has.
    pub(super) fn amount(self, amount: Decimal) -> String {
        self.marked(amount.to_string())
    }

    /// Writes a bare number.
    pub(super) fn number(self, number: f64) -> String {
        self.marked(number.to_string())
    }

    /// Writes a figure in the studio's own unit, or in the one that it seems to have been typed in.
    pub(super) fn figure(self, kind: Kind, value: f64) -> String {
        let units = kind.units();
        let own = kind.own(self.bare);
        let own_first = units
            .iter()
            .filter(|unit| unit.symbol == own)
            .chain(units.iter().filter(|unit| unit.symbol != own));
        let written = own_first.filter_map(|unit| {
            let number = format!("{:.PLACES$}", value / unit.in_base);
            let number = number
                .trim_end_matches('0')
                .trim_end_matches('.')
                .to_owned();
            let digits = significant(&number);
            let text = format!("{} {}", self.marked(number), unit.symbol);
            (self.read_figure(kind, &text) == Ok(value)).then_some((digits, text))
        });
        let best = written.reduce(|best, other| {
            if other.0 + FEWER_DIGITS <= best.0 {
                other
            } else {
                best
            }
        });
        best.map_or_else(|| format!("{value} {}", units[0].symbol), |(_, text)| text)
    }

    /// Reads a figure; a bare number is in the studio's own unit.
    ///
    /// # Errors
    /// A sentence that says what was not understood.
    pub(super) fn read_figure(self, kind: Kind, text: &str) -> Result<f64, String> {
        let text = text.trim();
        let ends = text
            .find(|c: char| !(c.is_ascii_digit() || is_mark(c)))
            .unwrap_or(text.len());
        let (number, name) = text.split_at(ends);
        let not_understood = || {
            let what = if text.is_empty() {
                "price missing".to_owned()
            } else {
                format!("\"{text}\" was not understood")
            };
            format!("{what}: write it as {}", kind.example())
        };
        let typed = name.trim().to_lowercase();
        let own = kind.own(self.bare);
        let name = if typed.is_empty() { own } else { &typed };
        let units = kind.units().iter();
        let mut named = units.filter(|unit| unit.symbol == name || unit.others.contains(&name));
        let unit = named.next().ok_or_else(not_understood)?;
        let number: f64 = plain(number)?.parse().map_err(|_| not_understood())?;
        Ok(in_base(number, unit.in_base))
    }
}

/// A number of a unit in base units, without the dust of binary fractions: 48 in are 1219.2 mm.
fn in_base(number: f64, factor: f64) -> f64 {
    let product = number * factor;
    // The base unit itself is taken to its last digit.
    if (factor - 1.0).abs() < f64::EPSILON {
        return product;
    }
    format!("{product:.DIGITS$e}").parse().unwrap_or(product)
}

/// Digits behind the first that a figure in another unit is taken to.
const DIGITS: usize = 12;

/// How many digits a number has, without noughts before and behind.
fn significant(number: &str) -> usize {
    let digits = number.trim_start_matches(['0', '.', '-']);
    let digits: String = digits.chars().filter(char::is_ascii_digit).collect();
    if number.contains('.') {
        digits.len()
    } else {
        digits.trim_end_matches('0').len()
    }
}

const fn is_mark(c: char) -> bool {
    matches!(
        c,
        '.' | ',' | '\'' | '’' | ' ' | '\u{a0}' | '\u{202f}' | '-' | '+'
    )
}

/// Returns a number as people write it with a point before its decimals, and nothing between its thousands.
///
/// # Errors
/// A sentence that names both readings of `1,200`.
pub(super) fn plain(number: &str) -> Result<String, String> {
    let number: String = number
        .chars()
        .filter(|c| !matches!(c, '\'' | '’' | ' ' | '\u{a0}' | '\u{202f}'))
        .collect();
    if let Some(ambiguous) = AmbiguousComma::in_number(number.trim_start_matches(['-', '+'])) {
        return Err(ambiguous.to_string());
    }
    let (commas, points) = (number.matches(',').count(), number.matches('.').count());
    let without = |mark: char, before: &str| {
        let whole = before.trim_start_matches(['-', '+']);
        let mut groups = whole.split(mark);
        let leads = groups
            .next()
            .is_some_and(|first| (1..=THOUSANDS).contains(&first.len()));
        let grouped = leads && groups.all(|group| group.len() == THOUSANDS);
        // What is not parted into thousands is left for whoever reads it to refuse.
        grouped.then(|| before.replace(mark, ""))
    };
    let parted = match (commas, points) {
        (0, 0 | 1) => Some(number.clone()),
        (0, _) => without('.', &number),
        (1, 0) => Some(number.replace(',', ".")),
        (_, 0) => without(',', &number),
        // Of two marks the last stands before the decimals.
        _ => {
            let last = if number.rfind(',') > number.rfind('.') {
                ','
            } else {
                '.'
            };
            let other = if last == ',' { '.' } else { ',' };
            let halves = number.split_once(last);
            halves.and_then(|(before, after)| Some(format!("{}.{after}", without(other, before)?)))
        }
    };
    Ok(parted.unwrap_or(number))
}

const THOUSANDS: usize = 3;

/// A number without the sign or the letters of its money; a single letter is a slip of the keyboard, and stays.
fn without_money(typed: &str) -> &str {
    let sign = |c: char| c.is_whitespace() || matches!(c, '€' | '$' | '£' | '¥' | '%');
    let number = typed.trim_matches(sign);
    let before = number.trim_start_matches(char::is_alphabetic);
    let number = if number.len() > before.len() + 1 {
        before
    } else {
        number
    };
    let behind = number.trim_end_matches(char::is_alphabetic);
    let number = if number.len() > behind.len() + 1 {
        behind
    } else {
        number
    };
    number.trim_matches(sign)
}

/// Reads an amount of money, or a share: `6,20`, `€ 6.20` and `1 234.50 EUR` too.
///
/// # Errors
/// A sentence that says what was not understood.
pub(super) fn read_amount(text: &str) -> Result<Decimal, String> {
    let typed = text.trim();
    let number = without_money(typed);
    if typed.is_empty() {
        return Err("price missing: write it as 6.20".to_owned());
    }
    Decimal::from_str(&plain(number)?)
        .map_err(|_| format!("\"{typed}\" is not a number: write it as 6.20 or 6,20"))
}

#[cfg(test)]
mod tests {
    use super::*;

    const METRIC: Figures = Figures {
        bare: Bare {
            length: LengthUnit::Mm,
            mass: MassUnit::Kg,
        },
        mark: DecimalMark::Point,
    };
    const INCHES: Figures = Figures {
        bare: Bare {
            length: LengthUnit::In,
            mass: MassUnit::Lb,
        },
        mark: DecimalMark::Point,
    };

    #[test]
    fn a_figure_is_written_in_the_unit_that_it_was_typed_in() {
        // 48 in = 1219.2 mm, 5 lb = 2267.96185 g; 139 in³/lb = 139 × 16.387064 ÷ 0.45359237 = 5021.69… cm³/kg.
        for (figures, kind, value, text) in [
            (METRIC, Kind::Length, 1200.0, "1200 mm"),
            (METRIC, Kind::Length, 1219.2, "48 in"),
            (INCHES, Kind::Length, 1219.2, "48 in"),
            (INCHES, Kind::Length, 1200.0, "1200 mm"),
            (METRIC, Kind::Mass, 2000.0, "2 kg"),
            (METRIC, Kind::Mass, 2_267.961_85, "5 lb"),
            (METRIC, Kind::Volume, 0.06, "60 l"),
            (METRIC, Kind::Divisor, 5000.0, "5000 cm³/kg"),
            (METRIC, Kind::Divisor, 5_021.693_588_012, "139 in³/lb"),
        ] {
            assert_eq!(figures.figure(kind, value), text);
            assert_eq!(figures.read_figure(kind, text), Ok(value), "{text}");
        }
        assert_eq!(INCHES.read_figure(Kind::Length, "48"), Ok(1219.2));
        assert_eq!(METRIC.read_figure(Kind::Mass, "0,5"), Ok(500.0));
        assert!(METRIC.read_figure(Kind::Mass, "2 stones").is_err());
        assert!(METRIC.read_figure(Kind::Length, "").is_err());
    }

    #[test]
    fn an_amount_is_read_as_price_lists_write_it() {
        for (text, amount) in [
            ("6.20", "6.20"),
            ("6,20", "6.20"),
            ("€ 6,20", "6.20"),
            ("1.234,50 EUR", "1234.50"),
            ("1,234.50", "1234.50"),
            ("1 234,5", "1234.5"),
            ("-3,5 %", "-3.5"),
        ] {
            assert_eq!(
                read_amount(text).map(|read| read.to_string()),
                Ok(amount.to_owned()),
                "{text}"
            );
        }
        assert_eq!(
            read_amount("6..2x"),
            Err("\"6..2x\" is not a number: write it as 6.20 or 6,20".to_owned())
        );
        assert_eq!(
            read_amount("1,200"),
            Err("\"1,200\" could be 1200 or 1.2: write it without the comma".to_owned())
        );
    }
}
