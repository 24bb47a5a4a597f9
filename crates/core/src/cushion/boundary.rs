//! The damage boundary: a shock harms only when it is both hard enough and long enough.

use serde::Serialize;

use crate::quantity::{Frequency, GRAVITY_M_S2, Length, Shock, Speed};

/// The corner of a piece's damage boundary.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct DamageBoundary {
    /// Peaks up to this do no harm, however long.
    #[serde(rename = "limit_g")]
    pub limit: Shock,
    /// Velocity changes up to this do no harm, however hard.
    #[serde(rename = "critical_velocity_m_s")]
    pub critical_velocity: Speed,
    /// Falls from up to here are survived whatever the cushion.
    #[serde(rename = "survives_mm")]
    pub survives: Length,
}

impl DamageBoundary {
    /// How much of its speed a parcel keeps in bouncing back, by custom.
    pub const REBOUND: f64 = 0.3;

    /// Returns the boundary of a piece with a limit and a frequency of its own in that direction.
    ///
    /// V_c = G·g/(2πf); a fall changes the velocity by (1 + r)·√(2gH), so it is harmless up to
    /// H = V_c²/(2g(1 + r)²). Source: packaging engineering practice.
    #[must_use]
    pub fn of(limit: Shock, frequency: Frequency, rebound: f64) -> Self {
        let turns = std::f64::consts::TAU * frequency.as_hz();
        let critical_velocity = Speed::m_s(limit.as_times_gravity() * GRAVITY_M_S2 / turns);
        Self {
            limit,
            critical_velocity,
            survives: (critical_velocity / (1.0 + rebound)).fall_height(),
        }
    }

    /// Returns the velocity change of a fall: (1 + r)·√(2gH).
    #[must_use]
    pub fn velocity_change(drop: Length, rebound: f64) -> Speed {
        Speed::after_fall(drop) * (1.0 + rebound)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_boundary_of_a_canvas() {
        // 50 × 9.80665/(2π × 20) = 3.9019 m/s; 3.9019²/(2 × 9.80665 × 1.69) = 0.45933 m
        let boundary = DamageBoundary::of(
            Shock::times_gravity(50.0),
            Frequency::hz(20.0),
            DamageBoundary::REBOUND,
        );
        assert!((boundary.critical_velocity.as_m_s() - 3.9019).abs() < 5e-5);
        assert!((boundary.survives.as_mm() - 459.33).abs() < 5e-3);
        let change = DamageBoundary::velocity_change(boundary.survives, DamageBoundary::REBOUND);
        assert!((change.as_m_s() - boundary.critical_velocity.as_m_s()).abs() < 1e-9);
    }
}
