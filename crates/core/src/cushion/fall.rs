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

/// Returns the peak shock of a fall on an edge (two axes) or a corner (three); `None` if an axis is
/// driven past its tested range.
///
/// n = (X, Y, Z)/√(X² + Y² + Z²), εᵢ = sᵢ·H·nᵢ²/Tᵢ, G = √ΣGᵢ². An upper bound: what the box itself
/// takes up by crushing is not counted. Source: packaging engineering practice.
#[must_use]
pub fn fall_shock(axes: &[FallAxis], mass: Mass, drop: Length) -> Option<Shock> {
    let outsides: Vec<Length> = axes.iter().map(|axis| axis.outside).collect();
    let peaks = axes
        .iter()
        .zip(fall_shares(&outsides))
        .map(|(axis, share)| {
            let stress = Stress::of(Force::weight_of(mass), axis.area);
            let energy = energy_of(stress, drop * share, axis.thickness);
            let peak = axis.curve.stress_at(energy)? / stress;
            Some(Shock::times_gravity(peak))
        })
        .collect::<Option<Vec<_>>>()?;
    Some(together(&peaks))
}

/// Returns the share of a fall that each of the axes takes that meet where a parcel lands: n².
#[must_use]
pub fn fall_shares(outsides: &[Length]) -> Vec<f64> {
    let diagonal: f64 = outsides.iter().map(|side| square(side.as_mm())).sum();
    outsides
        .iter()
        .map(|side| square(side.as_mm()) / diagonal)
        .collect()
}

/// Returns the shock of several axes at once: √ΣG².
#[must_use]
pub fn together(peaks: &[Shock]) -> Shock {
    let sum: f64 = peaks
        .iter()
        .map(|peak| square(peak.as_times_gravity()))
        .sum();
    Shock::times_gravity(sum.sqrt())
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
