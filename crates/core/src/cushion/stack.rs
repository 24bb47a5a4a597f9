//! What a box bears when others stand on it.

use crate::quantity::{EdgeCrush, Force, Length};

/// The constant of the formula in newtons and metres.
const COLUMN_FACTOR: f64 = 5.876;
const N_PER_KN: f64 = 1e3;
/// How high parcels stand on each other in a depot or a van.
pub const COLUMN: Length = Length::mm(1200.0);

/// Returns what a corrugated box bears before it crushes, flutes upright, in newtons.
///
/// 5.876 · edge crush · √(caliper · perimeter). Source: packaging engineering practice.
#[must_use]
pub fn compression_strength(edge_crush: EdgeCrush, caliper: Length, perimeter: Length) -> Force {
    let root = (caliper.as_m() * perimeter.as_m()).sqrt();
    Force::n(COLUMN_FACTOR * edge_crush.as_kn_m() * N_PER_KN * root)
}

/// Returns how many like parcels stand on one, resting on a side of this height: ⌈1200/height⌉, at
/// least one.
#[must_use]
pub fn like_parcels_above(height: Length) -> u32 {
    crate::quantity::ceil_count(COLUMN / height).max(1)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_small_box_of_c_flute() {
        // 5.876 × 5000 × √(0.004 × 1.7) = 29 380 × 0.0824621 = 2422.7 N
        let strength =
            compression_strength(EdgeCrush::kn_m(5.0), Length::mm(4.0), Length::mm(1700.0));
        assert!((strength.as_n() - 2422.7).abs() < 0.05);
        assert_eq!(like_parcels_above(Length::mm(110.0)), 11);
        assert_eq!(like_parcels_above(Length::mm(2000.0)), 1);
    }
}
