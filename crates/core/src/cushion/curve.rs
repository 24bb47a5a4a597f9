//! The cushion curve of a material, in stress–energy form.

use serde::{Deserialize, Serialize};

use crate::quantity::{EnergyDensity, Length, Stress};

/// The energies between which a curve was tested.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EnergyRange {
    /// Below it stress falls with the root of the energy.
    #[serde(rename = "epsilon_min_kj_m3")]
    pub least: EnergyDensity,
    /// Above it nothing is known.
    #[serde(rename = "epsilon_max_kj_m3")]
    pub most: EnergyDensity,
}

/// The dynamic stress of a cushion by the energy it takes up: σ = a·e^(b·ε), first impact, near 20 °C.
///
/// Source: packaging engineering practice.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CushionCurve {
    /// The stress at which it starts.
    #[serde(rename = "a_kpa")]
    pub start: Stress,
    /// How fast it stiffens, in cubic metres a kilojoule.
    #[serde(rename = "b_m3_per_kj")]
    pub growth: f64,
    /// Where it was tested; without one it is taken to hold everywhere.
    #[serde(flatten)]
    pub tested: Option<EnergyRange>,
    /// The most that it bears for long without creeping.
    #[serde(rename = "creep_kpa", default, skip_serializing_if = "Option::is_none")]
    pub creep: Option<Stress>,
}

/// A number of a curve that cannot be one.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("a and b must be positive, and the tested range must begin below its end")]
pub struct TooWeak;

impl CushionCurve {
    /// Makes a curve that holds everywhere.
    #[must_use]
    pub const fn endless(start: Stress, growth: f64) -> Self {
        Self {
            start,
            growth,
            tested: None,
            creep: None,
        }
    }

    /// Tells whether the numbers make a curve.
    ///
    /// # Errors
    /// [`TooWeak`] when a or b is not above nothing, or the range is upside down.
    pub fn check(&self) -> Result<(), TooWeak> {
        let range = self
            .tested
            .is_none_or(|range| range.least >= EnergyDensity::ZERO && range.least < range.most);
        if self.start > Stress::ZERO && self.growth > 0.0 && self.growth.is_finite() && range {
            Ok(())
        } else {
            Err(TooWeak)
        }
    }

    /// Returns the dynamic stress at an energy, in kilopascals; nothing above the tested range.
    ///
    /// Below the range it is the stress at its start, scaled with √(ε/ε_min).
    #[must_use]
    pub fn stress_at(&self, energy: EnergyDensity) -> Option<Stress> {
        match self.tested {
            Some(range) if energy > range.most * (1.0 + ENDS) => None,
            Some(range) if energy < range.least => {
                Some(self.exponential(range.least) * (energy / range.least).sqrt())
            }
            _ => Some(self.exponential(energy)),
        }
    }

    /// Returns the stress whatever was tested, for drawing the curve on.
    #[must_use]
    pub fn stress_beyond(&self, energy: EnergyDensity) -> Stress {
        self.stress_at(energy)
            .unwrap_or_else(|| self.exponential(energy))
    }

    /// Returns the energy at which a stress is reached, in kilojoules a cubic metre; nothing for a
    /// stress that an endless curve starts above.
    #[must_use]
    pub fn energy_at(&self, stress: Stress) -> Option<EnergyDensity> {
        if let Some(range) = self.tested {
            let first = self.exponential(range.least);
            if stress < first {
                let share = stress / first;
                return Some(range.least * (share * share));
            }
        }
        (stress > self.start)
            .then(|| EnergyDensity::kj_m3((stress / self.start).ln() / self.growth))
    }

    /// Returns the most energy that it was tested at.
    #[must_use]
    pub fn most_tested(&self) -> Option<EnergyDensity> {
        self.tested.map(|range| range.most)
    }

    /// Returns the share of the tested range that an energy uses; of ten times 1/b without one.
    #[must_use]
    pub fn share_used(&self, energy: EnergyDensity) -> f64 {
        let most = self
            .most_tested()
            .unwrap_or(EnergyDensity::kj_m3(UNTESTED_SPAN / self.growth));
        energy / most
    }

    /// Returns the curve for a second and later impacts: the stress is higher by a factor.
    #[must_use]
    pub fn hardened(self, factor: f64) -> Self {
        Self {
            start: self.start * factor,
            ..self
        }
    }

    /// Returns G·T/H at the best area, e·a·b: between 3 and 5 for real cushions.
    #[must_use]
    pub fn efficiency(&self) -> f64 {
        std::f64::consts::E * self.start.as_kpa() * self.growth
    }

    fn exponential(&self, energy: EnergyDensity) -> Stress {
        Stress::kpa(self.start.as_kpa() * (self.growth * energy.as_kj_m3()).min(STEEPEST).exp())
    }
}

/// Energies a billionth over the end of the range are binary dust.
const ENDS: f64 = 1e-9;
/// An exponent that still gives a finite stress.
const STEEPEST: f64 = 600.0;
/// How far an endless curve is taken to be of use, in units of 1/b.
const UNTESTED_SPAN: f64 = 10.0;

/// Returns the energy that a static stress gives up in falling on a thickness: ε = s·H/T.
pub(super) fn energy_of(static_stress: Stress, drop: Length, thickness: Length) -> EnergyDensity {
    EnergyDensity::kj_m3(static_stress.as_kpa() * (drop / thickness))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn urethane() -> CushionCurve {
        CushionCurve {
            tested: Some(EnergyRange {
                least: EnergyDensity::kj_m3(3.0),
                most: EnergyDensity::kj_m3(45.0),
            }),
            ..CushionCurve::endless(Stress::kpa(25.5), 0.048)
        }
    }

    #[test]
    fn stress_grows_with_energy_and_meets_itself_at_the_start_of_the_range() {
        // 25.5 × e^(0.048 × 33.125) = 25.5 × 4.9035 = 125.04
        let at = |energy| urethane().stress_at(EnergyDensity::kj_m3(energy));
        assert!((at(33.125).expect("tested").as_kpa() - 125.04).abs() < 0.01);
        // At 3: 25.5 × e^0.144 = 29.449; at 0.75, half of it: √(1/4)
        let first = at(3.0).expect("tested").as_kpa();
        assert!((first - 29.449).abs() < 0.001);
        assert!((at(0.75).expect("low branch").as_kpa() - first / 2.0).abs() < 1e-9);
        assert_eq!(at(45.1), None);
    }

    #[test]
    fn an_energy_is_found_back_from_its_stress() {
        for energy in [0.2, 2.9, 3.0, 20.0, 44.0] {
            let energy = EnergyDensity::kj_m3(energy);
            let stress = urethane().stress_at(energy).expect("tested");
            let back = urethane().energy_at(stress).expect("reached");
            assert!((back.as_kj_m3() - energy.as_kj_m3()).abs() < 1e-9);
        }
        let endless = CushionCurve::endless(Stress::kpa(25.5), 0.048);
        assert_eq!(endless.energy_at(Stress::kpa(25.0)), None);
    }

    #[test]
    fn numbers_that_make_no_curve_are_named() {
        assert_eq!(
            CushionCurve::endless(Stress::ZERO, 0.1).check(),
            Err(TooWeak)
        );
        assert_eq!(
            CushionCurve::endless(Stress::kpa(9.0), -0.1).check(),
            Err(TooWeak)
        );
        assert_eq!(urethane().check(), Ok(()));
    }
}
