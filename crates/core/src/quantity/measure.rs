//! Masses, densities and working time.

use super::{Area, Length, Volume, quantity};

quantity! {
    /// A mass in grams.
    Mass, "g", g, as_g
}

quantity! {
    /// The mass of sheet goods, in grams a square metre.
    ArealDensity, "g/m²", g_m2, as_g_m2
}

quantity! {
    /// The mass of tapes and bars, in grams a metre.
    LinearDensity, "g/m", g_m, as_g_m
}

quantity! {
    /// The mass of loose fill, in kilograms a cubic metre.
    Density, "kg/m³", kg_m3, as_kg_m3
}

quantity! {
    /// Working time in minutes.
    Minutes, "min", min_of, as_min
}

const GRAMS_PER_KG: f64 = 1e3;

impl Mass {
    /// Makes it from a number of kilograms.
    ///
    /// # Panics
    /// When the number is not finite.
    #[must_use]
    pub const fn kg(value: f64) -> Self {
        Self::g(value * GRAMS_PER_KG)
    }

    /// Returns it in kilograms.
    #[must_use]
    pub const fn as_kg(self) -> f64 {
        self.as_g() / GRAMS_PER_KG
    }
}

impl std::ops::Mul<Area> for ArealDensity {
    type Output = Mass;
    fn mul(self, area: Area) -> Mass {
        Mass::g(self.as_g_m2() * area.as_m2())
    }
}

impl std::ops::Mul<Length> for LinearDensity {
    type Output = Mass;
    fn mul(self, length: Length) -> Mass {
        Mass::g(self.as_g_m() * length.as_m())
    }
}

impl std::ops::Mul<Volume> for Density {
    type Output = Mass;
    fn mul(self, volume: Volume) -> Mass {
        Mass::kg(self.as_kg_m3() * volume.as_m3())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn densities_give_grams() {
        // 560 g/m² × 2 m² = 1120 g; 2.6 g/m × 1.5 m = 3.9 g; 18 kg/m³ × 0.01 m³ = 180 g
        assert_eq!(ArealDensity::g_m2(560.0) * Area::m2(2.0), Mass::g(1120.0));
        assert!(((LinearDensity::g_m(2.6) * Length::mm(1500.0)).as_g() - 3.9).abs() < 1e-12);
        assert!(((Density::kg_m3(18.0) * Volume::m3(0.01)).as_g() - 180.0).abs() < 1e-9);
    }
}
