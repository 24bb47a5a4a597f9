//! A mass that is predicted, with how far it may be off.

use serde::{Deserialize, Serialize};

use super::Mass;

/// A predicted mass and its uncertainty, both in grams.
///
/// Independent parts add their uncertainties in quadrature, so a parcel of eight layers is known
/// better than the sum of eight doubts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Weight {
    /// The mass expected.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// How far it may be off either way.
    #[serde(rename = "plus_minus_g")]
    pub plus_minus: Mass,
}

impl Weight {
    /// Makes it from a mass and the share of it that is in doubt (0.08 for sheet goods).
    #[must_use]
    pub fn with_doubt(mass: Mass, share: f64) -> Self {
        Self {
            mass,
            plus_minus: mass * share,
        }
    }
}

impl std::ops::Add for Weight {
    type Output = Self;

    fn add(self, other: Self) -> Self {
        Self {
            mass: self.mass + other.mass,
            plus_minus: Mass::g(self.plus_minus.as_g().hypot(other.plus_minus.as_g())),
        }
    }
}

impl std::iter::Sum for Weight {
    fn sum<I: Iterator<Item = Self>>(parts: I) -> Self {
        parts.fold(Self::default(), |total, part| total + part)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn doubts_add_in_quadrature() {
        // 300 ± 30 and 400 ± 40: √(900 + 1600) = 50
        let total =
            Weight::with_doubt(Mass::g(300.0), 0.1) + Weight::with_doubt(Mass::g(400.0), 0.1);
        assert_eq!(total.mass, Mass::g(700.0));
        assert!((total.plus_minus.as_g() - 50.0).abs() < 1e-12);
    }
}
