//! How thick a roll becomes, and the tube that holds it.

use serde::Serialize;

use crate::quantity::Length;

/// The room left around a roll in its tube.
pub const TUBE_PLAY: Length = Length::mm(4.0);

/// A rolled sheet by its diameters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RollSize {
    /// Of the roll.
    #[serde(rename = "outer_mm")]
    pub outer: Length,
    /// The least a round tube is wide inside.
    #[serde(rename = "tube_inside_mm")]
    pub tube_inside: Length,
    /// The least a side of a triangular tube is inside.
    #[serde(rename = "triangle_side_mm")]
    pub triangle_side: Length,
}

impl RollSize {
    /// Returns the roll of a sheet of a length and a thickness around an inner diameter, with a wrap.
    ///
    /// D = √(d² + 4·L·t/π); the tube is D + 2·wrap + 4 + t wide, for the outer end that stands up; a
    /// triangle around that circle has sides √3 times as long. Source: the area of the sheet's edge is
    /// the area of the ring.
    #[must_use]
    pub fn of(inner: Length, length: Length, thickness: Length, wrap: Length) -> Self {
        let ring = 4.0 * length.as_mm() * thickness.as_mm() / std::f64::consts::PI;
        let outer = Length::mm((inner.as_mm() * inner.as_mm() + ring).sqrt());
        let tube_inside = Self::hole(outer, wrap, thickness);
        Self {
            outer,
            tube_inside,
            triangle_side: tube_inside * 3.0_f64.sqrt(),
        }
    }

    /// Returns the least that a round tube is wide inside, for a roll of a diameter with a wrap around it.
    #[must_use]
    pub fn hole(outer: Length, wrap: Length, thickness: Length) -> Length {
        outer + wrap * 2.0 + TUBE_PLAY + thickness
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_canvas_around_a_wide_core() {
        // √(150² + 4 × 1000 × 0.9/π) = √(22 500 + 1145.92) = 153.77;
        // 153.77 + 36 + 4 + 0.9 = 194.67; × 1.73205 = 337.18
        let [inner, length, thickness, wrap] = [150.0, 1000.0, 0.9, 18.0].map(Length::mm);
        let roll = RollSize::of(inner, length, thickness, wrap);
        assert!((roll.outer.as_mm() - 153.77).abs() < 5e-3);
        assert!((roll.triangle_side.as_mm() - 337.18).abs() < 5e-3);
    }
}
