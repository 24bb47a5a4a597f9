//! Showing a length: millimetres whole, centimetres to one decimal, inches to a sixteenth.

use super::{InchParts, Length, LengthUnit};

const NO_BREAK_SPACE: char = '\u{a0}';

/// Returns the length as it is read at the bench, with its unit: `902 mm`, `90.2 cm`, `35 1/2 in`.
///
/// Halves are rounded up. Reading the text back gives the length to the shown precision.
///
/// ```
/// use hummock_core::quantity::{Length, LengthUnit, show_length};
///
/// assert_eq!(show_length(Length::inches(35.5), LengthUnit::In), "35 1/2\u{a0}in");
/// assert_eq!(show_length(Length::inches(35.5), LengthUnit::Mm), "902\u{a0}mm");
/// ```
#[must_use]
pub fn show_length(length: Length, unit: LengthUnit) -> String {
    let number = shown_in(length, unit, InchParts::Sixteenths);
    format!("{number}{NO_BREAK_SPACE}{}", unit.symbol())
}

/// The number alone, in a unit; inches to a part of them.
pub(super) fn shown_in(length: Length, unit: LengthUnit, parts: InchParts) -> String {
    match unit {
        LengthUnit::Mm => format!("{:.0}", rounded(length.as_mm())),
        LengthUnit::Cm => format!("{:.1}", rounded(length.as_mm()) / LengthUnit::Cm.in_mm()),
        LengthUnit::In => inches(length, f64::from(parts.number())),
    }
}

/// Half up, as a person rounds, and never a negative zero.
fn rounded(value: f64) -> f64 {
    (value + 0.5).floor() + 0.0
}

fn inches(length: Length, parts: f64) -> String {
    let count = rounded(length.as_mm() / LengthUnit::In.in_mm() * parts);
    let whole = (count / parts).floor();
    let (mut above, mut below) = (count - whole * parts, parts);
    while above > 0.0 && above % 2.0 == 0.0 {
        (above, below) = (above / 2.0, below / 2.0);
    }
    match (whole, above) {
        (whole, 0.0) => format!("{whole:.0}"),
        (0.0, above) => format!("{above:.0}/{below:.0}"),
        (whole, above) => format!("{whole:.0} {above:.0}/{below:.0}"),
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::quantity::read_length;

    #[test]
    fn each_unit_has_its_precision() {
        // The pages write lengths too, and are held to the same cases.
        // 614.36 / 25.4 × 16 = 386.999 → 387 sixteenths = 24 3/16
        let cases: Vec<Case> =
            serde_json::from_str(include_str!("../../testdata/shown-lengths.json"))
                .expect("the cases are JSON");
        for case in cases {
            for unit in LengthUnit::ALL {
                let wanted = format!("{}\u{a0}{}", case.shown[unit.symbol()], unit.symbol());
                assert_eq!(
                    show_length(Length::mm(case.mm), unit),
                    wanted,
                    "{} mm",
                    case.mm
                );
            }
        }
    }

    #[derive(serde::Deserialize)]
    struct Case {
        mm: f64,
        shown: std::collections::BTreeMap<String, String>,
    }

    proptest! {
        /// Reading what was shown gives the same length to the shown precision, in every unit.
        #[test]
        fn what_was_shown_reads_back(mm in 0.0..6000.0_f64, bare in prop::sample::select(LengthUnit::ALL.to_vec())) {
            for (unit, precision) in [(LengthUnit::Mm, 1.0), (LengthUnit::Cm, 1.0), (LengthUnit::In, 25.4 / 16.0)] {
                let shown = show_length(Length::mm(mm), unit);
                let read = read_length(&shown, bare).expect("what is shown can be read").length;
                // A reading is kept to 0.01 mm, half of which may come on top.
                prop_assert!((read.as_mm() - mm).abs() <= precision / 2.0 + 0.005 + 1e-9, "{mm} shown as {shown}");
                prop_assert_eq!(show_length(read, unit), shown);
            }
        }
    }
}
