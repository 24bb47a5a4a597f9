//! The range that a length must lie in, and what is said when it does not.

use super::{Length, LengthUnit, show_length};

/// A named range of lengths, with why it is there.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct LengthRange {
    /// What is measured, as it stands in a sentence: "the width".
    pub name: &'static str,
    /// The least allowed.
    pub least: Length,
    /// The most allowed.
    pub most: Length,
    /// What to do about a length outside it; a sentence without its full stop.
    pub remedy: &'static str,
}

/// A length was outside its range.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("{name} is {given}; it must be from {least} to {most}: {remedy}")]
pub struct OutOfRange {
    name: &'static str,
    given: String,
    least: String,
    most: String,
    remedy: &'static str,
}

impl LengthRange {
    /// Returns the length when it lies in the range.
    ///
    /// # Errors
    /// [`OutOfRange`], naming the range in the given unit.
    pub fn check(&self, length: Length, unit: LengthUnit) -> Result<Length, OutOfRange> {
        if (self.least..=self.most).contains(&length) {
            return Ok(length);
        }
        Err(OutOfRange {
            name: self.name,
            given: show_length(length, unit),
            least: show_length(self.least, unit),
            most: show_length(self.most, unit),
            remedy: self.remedy,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const WIDTH: LengthRange = LengthRange {
        name: "the width",
        least: Length::mm(20.0),
        most: Length::mm(4000.0),
        remedy: "a larger piece goes to a crating service",
    };

    #[test]
    fn both_ends_are_inside() {
        for inside in [20.0, 900.0, 4000.0] {
            assert!(
                WIDTH.check(Length::mm(inside), LengthUnit::Mm).is_ok(),
                "{inside}"
            );
        }
    }

    #[test]
    fn forty_metres_is_refused_in_a_sentence() {
        let refused = WIDTH
            .check(Length::mm(40_000.0), LengthUnit::Mm)
            .expect_err("too wide");
        assert_eq!(
            refused.to_string(),
            "the width is 40000\u{a0}mm; it must be from 20\u{a0}mm to 4000\u{a0}mm: a larger piece goes to a crating service"
        );
    }
}
