//! Lengths, areas and volumes.

use super::quantity;

quantity! {
    /// A length in millimetres: a side, an allowance or a displacement.
    Length, "mm", mm, as_mm
}

quantity! {
    /// An area in square metres.
    Area, "m²", m2, as_m2
}

quantity! {
    /// A volume in cubic metres.
    Volume, "m³", m3, as_m3
}

const MM2_PER_M2: f64 = 1e6;
const MM_PER_M: f64 = 1e3;

impl Length {
    /// Returns another length where this one is that length but for binary dust.
    #[must_use]
    pub fn snapped_to(self, other: Self) -> Self {
        const DUST_MM: f64 = 1e-6;
        if (self.as_mm() - other.as_mm()).abs() < DUST_MM {
            other
        } else {
            self
        }
    }

    /// Makes it from a number of inches.
    ///
    /// # Panics
    /// When the number is not finite.
    #[must_use]
    pub const fn inches(value: f64) -> Self {
        Self::mm(value * 25.4)
    }

    /// Returns it in metres.
    #[must_use]
    pub const fn as_m(self) -> f64 {
        self.as_mm() / MM_PER_M
    }

    /// Returns it held between a least and a most.
    ///
    /// The least wins when the two cross.
    #[must_use]
    pub const fn clamped(self, least: Self, most: Self) -> Self {
        self.min(most).max(least)
    }

    /// Returns it rounded up to a whole number of steps; as it is when the step is nothing.
    #[must_use]
    pub fn rounded_up_to(self, step: Self) -> Self {
        if step <= Self::ZERO {
            return self;
        }
        step * f64::from(ceil_count(self / step))
    }
}

impl std::ops::Mul for Length {
    type Output = Area;
    fn mul(self, other: Self) -> Area {
        Area::m2(self.as_mm() * other.as_mm() / MM2_PER_M2)
    }
}

impl std::ops::Mul<Length> for Area {
    type Output = Volume;
    fn mul(self, depth: Length) -> Volume {
        Volume::m3(self.as_m2() * depth.as_m())
    }
}

/// How far over a whole number a ratio may be before it counts as one more.
///
/// A strip that is short by a billionth because 25.4 is not a binary fraction is not short.
const WHOLE_TOLERANCE: f64 = 1e-9;

/// Returns the least whole count that is not below the ratio: strips for a width, steps for a weight.
///
/// # Panics
/// When the ratio is above `u32::MAX`, which no bounded length over a bounded step reaches.
#[must_use]
pub fn ceil_count(ratio: f64) -> u32 {
    counted((ratio - WHOLE_TOLERANCE).ceil())
}

/// Returns the largest whole count that is not above the ratio: what goes side by side.
///
/// # Panics
/// As [`ceil_count`].
#[must_use]
pub fn floor_count(ratio: f64) -> u32 {
    counted((ratio + WHOLE_TOLERANCE).floor())
}

fn counted(whole: f64) -> u32 {
    let whole = whole.max(0.0);
    assert!(whole <= f64::from(u32::MAX), "a count fits in 32 bits");
    #[expect(
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "whole, not negative, and checked against the largest count above"
    )]
    let count = whole as u32;
    count
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_product_of_millimetres_is_in_square_metres() {
        // 1056 × 1356 = 1 431 936 mm²
        assert!(((Length::mm(1056.0) * Length::mm(1356.0)).as_m2() - 1.431_936).abs() < 1e-12);
    }

    #[test]
    fn counts_round_up_but_forgive_binary_dust() {
        for (ratio, count) in [
            (1.756, 2),
            (2.0, 2),
            (2.0 + 1e-12, 2),
            (2.001, 3),
            (-3.0, 0),
        ] {
            assert_eq!(ceil_count(ratio), count, "{ratio}");
        }
    }

    #[test]
    fn rounding_up_to_nothing_changes_nothing() {
        assert_eq!(
            Length::mm(12.3).rounded_up_to(Length::ZERO),
            Length::mm(12.3)
        );
        assert_eq!(
            Length::mm(12.3).rounded_up_to(Length::mm(10.0)),
            Length::mm(20.0)
        );
    }

    #[test]
    fn numbers_that_are_not_finite_are_refused() {
        assert!(Length::try_from(f64::NAN).is_err());
        assert!(Length::try_from(f64::INFINITY).is_err());
        assert!(serde_json::from_str::<Length>("1e999").is_err());
    }

    #[test]
    fn a_length_keeps_the_number_it_was_given() {
        let length: Length = serde_json::from_str("901.7").expect("a number is a length");
        assert_eq!(
            serde_json::to_string(&length).expect("a length is a number"),
            "901.7"
        );
    }
}
