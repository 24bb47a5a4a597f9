//! Whether something passes an opening.

use crate::quantity::Length;

/// Returns whether a thing of two sides passes an opening of two sides, straight or turned in its plane.
///
/// A rectangle p × q (p ≥ q) lies in a rectangle a × b (a ≥ b) if p ≤ a and q ≤ b, or if p > a and
/// b ≥ (2pqa + (p² − q²)·√(p² + q² − a²)) / (p² + q²). Source: plane geometry.
#[must_use]
pub fn passes(thing: [Length; 2], opening: [Length; 2]) -> bool {
    let sorted = |[one, other]: [Length; 2]| [one.max(other).as_mm(), one.min(other).as_mm()];
    let ([p, q], [a, b]) = (sorted(thing), sorted(opening));
    // Binary dust of sums that come to the same.
    const DUST: f64 = 1e-6;
    if p <= a + DUST {
        return q <= b + DUST;
    }
    let square = p * p + q * q;
    let turned = (2.0 * p * q * a + (p * p - q * q) * (square - a * a).max(0.0).sqrt()) / square;
    q <= b && turned <= b + DUST
}

#[cfg(test)]
mod tests {
    use super::*;

    /// 100 × 10 through 90 × 60, turned: (2·100·10·90 + (10000 − 100)·√(10100 − 8100)) / 10100 = (180000 + 9900 × 44.72) / 10100 = 61.66:
    /// no; through 90 × 62, yes. Straight, 90 × 60 through 60 × 90.
    #[test]
    fn a_long_thing_passes_a_short_opening_that_is_wide_enough_to_turn_it() {
        let fits = |thing: [f64; 2], opening: [f64; 2]| {
            passes(thing.map(Length::mm), opening.map(Length::mm))
        };
        assert!(fits([90.0, 60.0], [60.0, 90.0]));
        assert!(!fits([90.0, 61.0], [60.0, 90.0]));
        assert!(!fits([100.0, 10.0], [90.0, 60.0]));
        assert!(fits([100.0, 10.0], [90.0, 62.0]));
    }
}
