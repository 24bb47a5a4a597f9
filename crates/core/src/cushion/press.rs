//! Press-in: another parcel's corner rests on the face.

use crate::quantity::{Force, Length, Stiffness};

/// A board as a plate that is held along its edges.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Plate {
    /// One side.
    pub side_a: Length,
    /// The other.
    pub side_b: Length,
    /// Its flexural stiffness.
    pub stiffness: Stiffness,
    /// The thickness that counts once it stretches: 1.73 × caliper for corrugated and foam-core, the
    /// thickness itself for solid board. It only bends when absent.
    pub stretch_thickness: Option<Length>,
}

/// How far a plate gives.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Press {
    /// By bending alone.
    pub linear: Length,
    /// With the stretching that sets in past half the thickness.
    pub deflection: Length,
}

/// The factor α of a simply supported plate under a load at its middle, by the ratio of its sides.
const FACTORS: [(f64, f64); 8] = [
    (1.0, 0.0116),
    (1.1, 0.01265),
    (1.2, 0.01353),
    (1.4, 0.01484),
    (1.6, 0.01570),
    (1.8, 0.01620),
    (2.0, 0.01651),
    (3.0, 0.01695),
];
/// How much of the cubed deflection resists by stretching.
const STRETCHING: f64 = 0.272;
/// Newton's steps to the root; it is convex, so each is closer.
const STEPS: usize = 60;
const MM_PER_M: f64 = 1e3;

impl Plate {
    /// Returns how far it gives under a load at its middle.
    ///
    /// δ = P·α·a²/D with a the shorter side. Source: plate theory.
    #[must_use]
    pub fn under(self, load: Force) -> Press {
        let linear = Length::mm(load.as_n() / self.rate() * MM_PER_M);
        Press {
            linear,
            deflection: self
                .stretch_thickness
                .map_or(linear, |thickness| stretched(linear, thickness)),
        }
    }

    /// Returns the load for a metre of deflection: k = D/(α·a²), in newtons a metre.
    #[must_use]
    pub fn rate(self) -> f64 {
        let short = self.side_a.min(self.side_b).as_m();
        self.stiffness.as_nm() / (plate_factor(self.side_a, self.side_b) * short * short)
    }
}

/// Returns α for a plate of these sides, on the line between tabled ratios; 0.01695 from three to one on.
#[must_use]
pub fn plate_factor(side_a: Length, side_b: Length) -> f64 {
    let ratio = side_a.max(side_b) / side_a.min(side_b);
    let above = FACTORS.iter().position(|&(tabled, _)| tabled >= ratio);
    match above {
        Some(0) => FACTORS[0].1,
        Some(place) => {
            let ((from, low), (to, high)) = (FACTORS[place - 1], FACTORS[place]);
            low + (high - low) * (ratio - from) / (to - from)
        }
        None => FACTORS[FACTORS.len() - 1].1,
    }
}

/// Returns the deflection once a plate stretches: δ/t + 0.272·(δ/t)³ = δ_lin/t.
#[must_use]
pub fn stretched(linear: Length, thickness: Length) -> Length {
    if thickness <= Length::ZERO {
        return linear;
    }
    let wanted = linear / thickness;
    let mut ratio = wanted;
    for _ in 0..STEPS {
        let over = ratio + STRETCHING * ratio.powi(3) - wanted;
        ratio -= over / (1.0 + 3.0 * STRETCHING * ratio * ratio);
    }
    thickness * ratio
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_corner_of_a_parcel_on_two_boards() {
        // 740/560 = 1.32143: α = 0.01353 + 0.60714 × 0.00131 = 0.0143254;
        // δ = 100 × 0.0143254 × 0.56²/18 = 24.958 mm. With t = 4 × 1.73 = 6.92: δ/t = 1.8591, since
        // 1.8591 + 0.272 × 6.4256 = 3.6069 = 24.958/6.92; δ = 12.865.
        let plate = Plate {
            side_a: Length::mm(560.0),
            side_b: Length::mm(740.0),
            stiffness: Stiffness::nm(18.0),
            stretch_thickness: Some(Length::mm(6.92)),
        };
        assert!((plate_factor(plate.side_a, plate.side_b) - 0.014_325).abs() < 5e-7);
        let press = plate.under(Force::n(100.0));
        assert!((press.linear.as_mm() - 24.958).abs() < 5e-4);
        assert!((press.deflection.as_mm() - 12.865).abs() < 5e-4);
    }

    #[test]
    fn the_factor_follows_its_table() {
        for (ratio, factor) in [
            (1.0, 0.0116),
            (1.3, 0.014_185),
            (2.0, 0.01651),
            (3.0, 0.01695),
            (9.0, 0.01695),
        ] {
            let found = plate_factor(Length::mm(100.0 * ratio), Length::mm(100.0));
            assert!((found - factor).abs() < 1e-9, "{ratio}: {found}");
        }
    }
}
