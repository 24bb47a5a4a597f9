//! Stress, energy, force, speed and stiffness: what falls and loads are counted in.

use super::{Area, Length, Mass, quantity};

quantity! {
    /// A stress in kilopascals.
    Stress, "kPa", kpa, as_kpa
}

quantity! {
    /// Energy taken up by a volume of cushion, in kilojoules a cubic metre.
    EnergyDensity, "kJ/m³", kj_m3, as_kj_m3
}

quantity! {
    /// A force in newtons.
    Force, "N", n, as_n
}

quantity! {
    /// A shock, as a multiple of gravity.
    Shock, "g", times_gravity, as_times_gravity
}

quantity! {
    /// A speed in metres a second.
    Speed, "m/s", m_s, as_m_s
}

quantity! {
    /// A frequency in hertz.
    Frequency, "Hz", hz, as_hz
}

quantity! {
    /// How a board resists bending, in newton metres (its flexural stiffness D).
    Stiffness, "N·m", nm, as_nm
}

quantity! {
    /// What the edge of a board bears, in kilonewtons a metre.
    EdgeCrush, "kN/m", kn_m, as_kn_m
}

/// What falls at sea level is pulled by, in metres a second squared.
pub const GRAVITY_M_S2: f64 = 9.806_65;

const N_PER_KPA_M2: f64 = 1e3;
const MM_PER_M: f64 = 1e3;

impl Force {
    /// Returns the weight of a mass, in newtons.
    #[must_use]
    pub const fn weight_of(mass: Mass) -> Self {
        Self::n(mass.as_kg() * GRAVITY_M_S2)
    }

    /// Returns the shock that it gives a mass: the force over its weight.
    #[must_use]
    pub fn shock_on(self, mass: Mass) -> Shock {
        Shock::times_gravity(self / Self::weight_of(mass))
    }
}

impl Stress {
    /// Returns the stress of a force on an area, in kilopascals.
    #[must_use]
    pub fn of(force: Force, area: Area) -> Self {
        Self::kpa(force.as_n() / area.as_m2() / N_PER_KPA_M2)
    }
}

impl std::ops::Mul<Area> for Stress {
    type Output = Force;
    fn mul(self, area: Area) -> Force {
        Force::n(self.as_kpa() * N_PER_KPA_M2 * area.as_m2())
    }
}

impl Speed {
    /// Returns the speed after a fall from a height, in metres a second: √(2gH).
    #[must_use]
    pub fn after_fall(height: Length) -> Self {
        Self::m_s((2.0 * GRAVITY_M_S2 * height.max(Length::ZERO).as_m()).sqrt())
    }

    /// Returns the height of a fall that ends at it, in millimetres: v²/(2g).
    #[must_use]
    pub fn fall_height(self) -> Length {
        Length::mm(self.as_m_s() * self.as_m_s() / (2.0 * GRAVITY_M_S2) * MM_PER_M)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_weight_on_an_area_is_a_stress() {
        // 3.2 kg × 9.80665 = 31.38128 N on 0.018 m²: 1743.4 Pa
        let weight = Force::weight_of(Mass::kg(3.2));
        let stress = Stress::of(weight, Area::m2(0.018));
        assert!((stress.as_kpa() - 1.743_404).abs() < 1e-6);
        assert!(((stress * Area::m2(0.018)).as_n() - weight.as_n()).abs() < 1e-9);
        assert!((weight.shock_on(Mass::kg(3.2)).as_times_gravity() - 1.0).abs() < 1e-12);
    }

    #[test]
    fn a_fall_and_its_speed_agree() {
        // √(2 × 9.80665 × 0.76) = 3.86084 m/s
        let speed = Speed::after_fall(Length::mm(760.0));
        assert!((speed.as_m_s() - 3.860_84).abs() < 1e-5);
        assert!((speed.fall_height().as_mm() - 760.0).abs() < 1e-9);
    }
}
