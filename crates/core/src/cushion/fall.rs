//! Falls on an edge or a corner, where two or three faces share the fall.

use super::{CushionCurve, curve::energy_of};
use crate::quantity::{Area, Force, Length, Mass, Shock, Stress};

/// One of the axes that meet where a parcel lands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FallAxis {
    /// Of the parcel along this axis.
    pub outside: Length,
    /// Of the cushion on this axis.
    pub curve: CushionCurve,
    /// Of the cushion that lies against what is stiff.
    pub area: Area,
    /// Of the cushion.
    pub thickness: Length,
}

/// Returns the peak shock of a fall on an edge (two axes) or a corner (three); nothing when an axis is
/// driven past its tested range.
///
/// n = (X, Y, Z)/√(X² + Y² + Z²), εᵢ = sᵢ·H·nᵢ²/Tᵢ, G = √ΣGᵢ². An upper bound: what the box itself
/// takes up by crushing is not counted. Source: packaging engineering practice.
#[must_use]
pub fn fall_shock(axes: &[FallAxis], mass: Mass, drop: Length) -> Option<Shock> {
    let diagonal: f64 = axes.iter().map(|axis| square(axis.outside.as_mm())).sum();
    let mut sum = 0.0;
    for axis in axes {
        let stress = Stress::of(Force::weight_of(mass), axis.area);
        let share = square(axis.outside.as_mm()) / diagonal;
        let energy = energy_of(stress, drop * share, axis.thickness);
        sum += square(axis.curve.stress_at(energy)? / stress);
    }
    Some(Shock::times_gravity(sum.sqrt()))
}

const fn square(number: f64) -> f64 {
    number * number
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_cube_on_its_corner() {
        // 60 cm² and 40 mm on each axis: s = 31.38128/0.006 = 5.2302 kPa; ε = 5.2302 × 760/3/40 = 33.125;
        // σ = 125.04; G = 23.907 on each, √3 × 23.907 = 41.410
        let axis = FallAxis {
            outside: Length::mm(300.0),
            curve: CushionCurve::endless(Stress::kpa(25.5), 0.048),
            area: Area::m2(0.006),
            thickness: Length::mm(40.0),
        };
        let shock =
            fall_shock(&[axis; 3], Mass::kg(3.2), Length::mm(760.0)).expect("no tested range");
        assert!((shock.as_times_gravity() - 41.410).abs() < 5e-4);
    }
}
