//! How a studio reads quantities, in its messages and on its papers.

use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{Area, Currency, Length, LengthUnit, Mass, Volume, show::shown_in};

const NO_BREAK_SPACE: char = '\u{a0}';
const TEN: f64 = 10.0;
const A_TENTH: f64 = 0.1;
const LITRES_PER_M3: f64 = 1000.0;
/// A quart of the United States.
const LITRES_A_QUART: f64 = 0.946_352_946;
const GRAMS_PER_OUNCE: f64 = 28.349_523_125;
const OUNCES_PER_POUND: f64 = 16.0;
const MM2_PER_SQUARE_INCH: f64 = 25.4 * 25.4;
const SQUARE_INCHES_PER_SQUARE_FOOT: f64 = 144.0;
/// A mass of ten kilograms and more is told to one decimal.
const HEAVY_KG: f64 = 10.0;

/// What masses are read in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "lowercase")]
pub enum MassUnit {
    /// Kilograms and grams.
    #[default]
    Kg,
    /// Pounds and ounces.
    Lb,
}

impl MassUnit {
    /// The symbol written after a number.
    #[must_use]
    pub const fn symbol(self) -> &'static str {
        match self {
            Self::Kg => "kg",
            Self::Lb => "lb",
        }
    }
}

/// What numbers are in that are typed without a unit.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Bare {
    /// Lengths.
    pub length: LengthUnit,
    /// Masses.
    pub mass: MassUnit,
}

impl From<LengthUnit> for Bare {
    /// With masses in kilograms.
    fn from(length: LengthUnit) -> Self {
        Self {
            length,
            ..Self::default()
        }
    }
}

/// What stands before decimals.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "lowercase")]
pub enum DecimalMark {
    /// `6.90`.
    #[default]
    Point,
    /// `6,90`.
    Comma,
}

/// In which order a date is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "lowercase")]
pub enum DateOrder {
    /// 2027-03-04.
    Ymd,
    /// 4 Mar 2027.
    #[default]
    Dmy,
    /// Mar 4, 2027.
    Mdy,
}

/// Into how many parts a ruler divides the inch.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum InchParts {
    /// `1/8`.
    Eighths,
    /// `1/16`.
    #[default]
    Sixteenths,
    /// `1/32`.
    ThirtySeconds,
}

impl InchParts {
    const ALL: [Self; 3] = [Self::Eighths, Self::Sixteenths, Self::ThirtySeconds];

    /// Returns the ruler whose inch has `number` parts; `None` for a number that no ruler has.
    #[must_use]
    pub fn of(number: u8) -> Option<Self> {
        Self::ALL.into_iter().find(|parts| parts.number() == number)
    }

    /// Returns how many parts an inch has.
    #[must_use]
    pub const fn number(self) -> u8 {
        match self {
            Self::Eighths => 8,
            Self::Sixteenths => 16,
            Self::ThirtySeconds => 32,
        }
    }
}

/// How quantities are told.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Telling {
    /// What lengths are told in.
    pub length: LengthUnit,
    /// To which part of an inch, where they are told in inches.
    pub inch_parts: InchParts,
    /// What masses are told in.
    pub mass: MassUnit,
    /// What stands before decimals.
    pub decimal: DecimalMark,
    /// In which order a date stands.
    pub dates: DateOrder,
}

impl From<LengthUnit> for Telling {
    /// With lengths in the unit, and all else as it usually is.
    fn from(length: LengthUnit) -> Self {
        Self {
            length,
            ..Self::default()
        }
    }
}

impl Telling {
    /// Returns a length with its unit: `902 mm`, `90.2 cm`, `35 1/2 in`.
    #[must_use]
    pub fn length(self, length: Length) -> String {
        let number = self.length_number(length);
        format!("{number}{NO_BREAK_SPACE}{}", self.length.symbol())
    }

    /// Returns what a tool measures, to the tenth of a millimetre: `2.5 mm`, or in inches.
    #[must_use]
    pub fn tool(self, length: Length) -> String {
        if self.length == LengthUnit::In {
            return self.length(length);
        }
        let number = self.marked(format!("{:.1}", length.as_mm()));
        let number = number.trim_end_matches('0').trim_end_matches(['.', ',']);
        format!("{number}{NO_BREAK_SPACE}mm")
    }

    fn length_number(self, length: Length) -> String {
        self.marked(shown_in(length, self.length, self.inch_parts))
    }

    /// Returns sides with × between them and the unit once: `520 × 380 mm`; nothing if there are none.
    #[must_use]
    pub fn sides(self, sides: &[Length]) -> String {
        if sides.is_empty() {
            return String::new();
        }
        let shown: Vec<String> = sides.iter().map(|side| self.length_number(*side)).collect();
        format!(
            "{}{NO_BREAK_SPACE}{}",
            shown.join(" × "),
            self.length.symbol()
        )
    }

    /// Returns a mass: kilograms to two decimals below ten and to one above, or pounds and ounces.
    #[must_use]
    pub fn mass(self, mass: Mass) -> String {
        match self.mass {
            MassUnit::Lb => self.pounds(mass),
            MassUnit::Kg => {
                let kg = mass.as_kg();
                let decimals = if kg < HEAVY_KG { 2 } else { 1 };
                format!("{}{NO_BREAK_SPACE}kg", self.number(kg, decimals))
            }
        }
    }

    /// Pounds with whole ounces; below a pound, tenths of an ounce.
    fn pounds(self, mass: Mass) -> String {
        let ounces = mass.as_g() / GRAMS_PER_OUNCE;
        let tenths = half_up(ounces * 10.0);
        if tenths < OUNCES_PER_POUND * 10.0 {
            return format!("{}{NO_BREAK_SPACE}oz", self.number(tenths / 10.0, 1));
        }
        let whole = half_up(ounces);
        let pounds = (whole / OUNCES_PER_POUND).floor();
        let told = format!("{pounds:.0}{NO_BREAK_SPACE}lb");
        match whole - pounds * OUNCES_PER_POUND {
            0.0 => told,
            left => format!("{told} {left:.0}{NO_BREAK_SPACE}oz"),
        }
    }

    /// Returns a mass in kilograms, for papers that have it so by law, and as the studio weighs beside it where that is otherwise.
    #[must_use]
    pub fn mass_by_law(self, mass: Mass) -> String {
        let metric = Self {
            mass: MassUnit::Kg,
            ..self
        };
        match self.mass {
            MassUnit::Kg => metric.mass(mass),
            MassUnit::Lb => format!("{} ({})", metric.mass(mass), self.mass(mass)),
        }
    }

    /// Returns sides in centimetres or millimetres, for papers that have them so by law, and in inches beside them where the studio
    /// measures so.
    #[must_use]
    pub fn sides_by_law(self, sides: &[Length]) -> String {
        if self.length != LengthUnit::In || sides.is_empty() {
            return self.sides(sides);
        }
        let metric = Self {
            length: LengthUnit::Mm,
            ..self
        };
        format!("{} ({})", metric.sides(sides), self.sides(sides))
    }

    /// Returns a length off a roll: metres to two decimals, or feet to one.
    #[must_use]
    pub fn run(self, length: Length) -> String {
        const MM_A_FOOT: f64 = 304.8;
        match self.length {
            LengthUnit::In => {
                let feet = self.number(length.as_mm() / MM_A_FOOT, 1);
                format!("{feet}{NO_BREAK_SPACE}ft")
            }
            LengthUnit::Mm | LengthUnit::Cm => {
                format!("{}{NO_BREAK_SPACE}m", self.number(length.as_m(), 2))
            }
        }
    }

    /// Returns an area: square metres to two decimals, or square feet to one.
    #[must_use]
    pub fn area(self, area: Area) -> String {
        match self.length {
            LengthUnit::In => {
                let feet = square_inches(area) / SQUARE_INCHES_PER_SQUARE_FOOT;
                format!("{}{NO_BREAK_SPACE}sq ft", self.number(feet, 1))
            }
            LengthUnit::Mm | LengthUnit::Cm => {
                format!("{}{NO_BREAK_SPACE}m²", self.number(area.as_m2(), 2))
            }
        }
    }

    /// Returns a small area: whole square centimetres, or square inches to one decimal.
    #[must_use]
    pub fn small_area(self, area: Area) -> String {
        const CM2_PER_M2: f64 = 1e4;
        match self.length {
            LengthUnit::In => {
                let inches = self.number(square_inches(area), 1);
                format!("{inches}{NO_BREAK_SPACE}sq in")
            }
            LengthUnit::Mm | LengthUnit::Cm => {
                format!("{:.0}{NO_BREAK_SPACE}cm²", area.as_m2() * CM2_PER_M2)
            }
        }
    }

    /// Returns a number rounded to `decimals` places.
    #[must_use]
    pub fn number(self, number: f64, decimals: usize) -> String {
        self.marked(format!("{number:.decimals$}"))
    }

    /// Returns how much is poured: in litres, or in quarts where lengths are told in inches; to a tenth below ten.
    #[must_use]
    pub fn poured(self, volume: Volume) -> String {
        let litres = volume.as_m3() * LITRES_PER_M3;
        let (amount, name) = match self.length {
            LengthUnit::In => (litres / LITRES_A_QUART, "quart"),
            LengthUnit::Mm | LengthUnit::Cm => (litres, "litre"),
        };
        let told = if amount < TEN {
            self.number(amount.max(A_TENTH), 1)
        } else {
            self.number(amount, 0)
        };
        let told = told
            .strip_suffix(".0")
            .or(told.strip_suffix(",0"))
            .unwrap_or(&told);
        let many = if told == "1" { "" } else { "s" };
        format!("{told}{NO_BREAK_SPACE}{name}{many}")
    }

    /// Returns an amount with its currency, to the decimals of it.
    #[must_use]
    pub fn amount(self, amount: Decimal, currency: &Currency) -> String {
        let number = self.marked(currency.round(amount).to_string());
        format!("{number}{NO_BREAK_SPACE}{}", currency.code())
    }

    /// Returns a day with its year: `4 Mar 2027`, `Mar 4, 2027` or `2027-03-04`.
    #[must_use]
    pub fn day(self, day: Date) -> String {
        let format = match self.dates {
            DateOrder::Ymd => "%Y-%m-%d",
            DateOrder::Dmy => "%-d %b %Y",
            DateOrder::Mdy => "%b %-d, %Y",
        };
        day.strftime(format).to_string()
    }

    /// Returns the name of a material with the measures in it as the studio reads them: `Masking tape 25 mm` is a
    /// `Masking tape 1 in` where it measures in inches.
    #[must_use]
    pub fn named(self, name: &str) -> String {
        let words: Vec<&str> = name.split(' ').collect();
        let mut told: Vec<String> = Vec::with_capacity(words.len());
        let mut at = 0;
        while let Some(word) = words.get(at) {
            let number: Option<f64> = word.parse().ok().filter(|number| *number >= 0.0);
            let unit = words.get(at + 1).copied().unwrap_or_default();
            let measure = number.and_then(|number| self.measured(number, unit));
            at += if measure.is_some() { 2 } else { 1 };
            told.push(measure.map_or_else(
                || (*word).to_owned(),
                |measure| measure.replace(NO_BREAK_SPACE, " "),
            ));
        }
        told.join(" ")
    }

    /// Returns a number of millimetres or grams in the studio's unit; `None` where it reads that unit itself, and of another unit.
    fn measured(self, number: f64, unit: &str) -> Option<String> {
        if unit == LengthUnit::Mm.symbol() && self.length == LengthUnit::In {
            return Length::try_from(number)
                .ok()
                .map(|length| self.length(length));
        }
        if unit == "g" && self.mass == MassUnit::Lb {
            return Mass::try_from(number).ok().map(|mass| self.mass(mass));
        }
        None
    }

    fn marked(self, number: String) -> String {
        match self.decimal {
            DecimalMark::Point => number,
            DecimalMark::Comma => number.replace('.', ","),
        }
    }
}

fn square_inches(area: Area) -> f64 {
    const MM2_PER_M2: f64 = 1e6;
    area.as_m2() * MM2_PER_M2 / MM2_PER_SQUARE_INCH
}

/// Half up, as a person rounds.
fn half_up(value: f64) -> f64 {
    (value + 0.5).floor()
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;
    use proptest::prelude::*;

    use super::*;
    use crate::quantity::read_mass;

    const AMERICAN: Telling = Telling {
        length: LengthUnit::In,
        inch_parts: InchParts::Sixteenths,
        mass: MassUnit::Lb,
        decimal: DecimalMark::Point,
        dates: DateOrder::Mdy,
    };
    const GERMAN: Telling = Telling {
        length: LengthUnit::Cm,
        inch_parts: InchParts::Sixteenths,
        mass: MassUnit::Kg,
        decimal: DecimalMark::Comma,
        dates: DateOrder::Dmy,
    };

    /// One mass as both units write it.
    #[derive(Deserialize)]
    struct Case {
        g: f64,
        kg: String,
        lb: String,
    }

    #[test]
    fn what_is_poured_is_told_to_a_tenth_below_ten() {
        // 2.46 litres are 2.5, one is one, a drop is a tenth; 12.4 are 12. In quarts 2.46/0.946 = 2.6.
        let told = |litres: f64, telling: Telling| {
            let told = telling.poured(Volume::m3(litres / 1000.0));
            told.replace(NO_BREAK_SPACE, " ")
        };
        let here = Telling::default();
        assert_eq!(
            [2.46, 1.0, 0.01, 12.4].map(|litres| told(litres, here)),
            ["2.5 litres", "1 litre", "0.1 litres", "12 litres"]
        );
        let inches = Telling {
            length: LengthUnit::In,
            ..here
        };
        assert_eq!(told(2.46, inches), "2.6 quarts");
    }

    #[test]
    fn a_mass_has_its_precision_in_each_unit() {
        // The pages write masses too, and are held to the same cases.
        // 3231.8 g ÷ 28.349523125 = 113.998 oz → 114 = 7 × 16 + 2
        let cases: Vec<Case> =
            serde_json::from_str(include_str!("../../testdata/shown-masses.json")).expect("cases");
        for case in cases {
            let plain = |text: String| text.replace(NO_BREAK_SPACE, " ");
            let mass = Mass::g(case.g);
            assert_eq!(
                plain(Telling::default().mass(mass)),
                case.kg,
                "{} g",
                case.g
            );
            assert_eq!(plain(AMERICAN.mass(mass)), case.lb, "{} g", case.g);
        }
    }

    #[test]
    fn every_quantity_is_told_as_a_studio_reads_it() {
        let sides = [Length::mm(520.0), Length::mm(381.5)];
        // 520 ÷ 25.4 = 20.472 = 20 + 7.55 sixteenths → 20 1/2; 381.5 ÷ 25.4 = 15.0197 → 15
        assert_eq!(AMERICAN.sides(&sides), "20 1/2 × 15\u{a0}in");
        assert_eq!(GERMAN.sides(&sides), "52,0 × 38,2\u{a0}cm");
        assert_eq!(
            AMERICAN.sides_by_law(&sides),
            "520 × 382\u{a0}mm (20 1/2 × 15\u{a0}in)"
        );
        assert_eq!(GERMAN.sides_by_law(&sides), GERMAN.sides(&sides));
        assert_eq!(AMERICAN.sides(&[]), "");
        let mass = Mass::kg(3.61);
        assert_eq!(GERMAN.mass_by_law(mass), "3,61\u{a0}kg");
        // 3610 ÷ 28.3495 = 127.34 oz = 7 lb 15 oz
        assert_eq!(
            AMERICAN.mass_by_law(mass),
            "3.61\u{a0}kg (7\u{a0}lb 15\u{a0}oz)"
        );
        // 0.5 m² = 775 sq in = 5.38 sq ft
        assert_eq!(AMERICAN.area(Area::m2(0.5)), "5.4\u{a0}sq ft");
        assert_eq!(AMERICAN.small_area(Area::m2(0.01)), "15.5\u{a0}sq in");
        assert_eq!(GERMAN.area(Area::m2(0.5)), "0,50\u{a0}m²");
        assert_eq!(GERMAN.small_area(Area::m2(0.01)), "100\u{a0}cm²");
        let day = date(2027, 3, 4);
        assert_eq!(AMERICAN.day(day), "Mar 4, 2027");
        assert_eq!(GERMAN.day(day), "4 Mar 2027");
        let euros = Currency::try_from("EUR".to_owned()).expect("a code");
        assert_eq!(GERMAN.amount(Decimal::new(690, 2), &euros), "6,90\u{a0}EUR");
        let finer = Telling {
            inch_parts: InchParts::ThirtySeconds,
            ..AMERICAN
        };
        // 381.5 mm = 15 in and 0.63 of a thirty-second
        assert_eq!(finer.length(sides[1]), "15 1/32\u{a0}in");
        let coarser = Telling {
            inch_parts: InchParts::Eighths,
            ..AMERICAN
        };
        assert_eq!(coarser.length(Length::mm(901.7)), "35 1/2\u{a0}in");
    }

    #[test]
    fn a_name_has_its_measures_as_they_are_read() {
        // 60 ÷ 25.4 = 2.362 = 2 and 5.8 sixteenths; 30 ÷ 28.35 = 1.06
        for (name, american) in [
            ("Masking tape 25 mm", "Masking tape 1 in"),
            ("Studio seal, 60 mm", "Studio seal, 2 3/8 in"),
            ("Silica gel 30 g", "Silica gel 1.1 oz"),
            ("Stretch film 20 \u{b5}m", "Stretch film 20 \u{b5}m"),
            ("Board mm 3", "Board mm 3"),
            ("Tape -4 mm", "Tape -4 mm"),
        ] {
            assert_eq!(AMERICAN.named(name), american);
            assert_eq!(GERMAN.named(name), name);
        }
    }

    proptest! {
        /// Reading a mass as it was told gives it back to half of what was shown.
        #[test]
        fn a_told_mass_reads_back(g in 11.0..400_000.0_f64, comma in any::<bool>(), pounds in any::<bool>()) {
            let telling = Telling {
                mass: if pounds { MassUnit::Lb } else { MassUnit::Kg },
                decimal: if comma { DecimalMark::Comma } else { DecimalMark::Point },
                ..Telling::default()
            };
            let told = telling.mass(Mass::g(g)).replace(NO_BREAK_SPACE, " ");
            let read = read_mass(&told).expect("what is told can be read").as_g();
            let precision = match (pounds, g < 16.0 * GRAMS_PER_OUNCE, g < HEAVY_KG * 1e3) {
                (true, true, _) => GRAMS_PER_OUNCE / 10.0,
                (true, false, _) => GRAMS_PER_OUNCE,
                (false, _, true) => 10.0,
                (false, _, false) => 100.0,
            };
            // A mass is kept to 0.1 g, half of which may come on top.
            prop_assert!((read - g).abs() <= precision / 2.0 + 0.051, "{g} told as {told}");
        }
    }
}
