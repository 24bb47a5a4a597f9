//! The shape of a piece, seen from the front.

use serde::{Deserialize, Serialize};

use super::PieceSize;
use crate::quantity::Area;

/// The shape of a piece within its bounding box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, Hash)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Outline {
    /// Four square corners.
    #[default]
    Rectangle,
    /// An ellipse that touches all four sides.
    Oval,
    /// Square below, half a circle above.
    Arched,
    /// A circle.
    Round,
    /// Anything else: what it is measured over is its bounding box.
    Irregular,
}

/// A point on which a piece bears, as shares of its size.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BearingPoint {
    /// Of the width, from the left: 0 to 1.
    pub across: f64,
    /// Of the height, from below: 0 to 1.
    pub up: f64,
}

/// Nearer than this to the middle is binary dust.
const MIDDLE: f64 = 1e-9;

impl BearingPoint {
    fn from_middle(across: f64, up: f64) -> Self {
        Self {
            across: f64::midpoint(1.0, across),
            up: f64::midpoint(1.0, up),
        }
    }
}

/// An ellipse fills this share of the box around it: π/4.
const ELLIPSE: f64 = std::f64::consts::FRAC_PI_4;
/// An irregular piece is taken to fill so much of its box.
const IRREGULAR: f64 = 0.8;

impl Outline {
    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Rectangle => "rectangle",
            Self::Oval => "oval",
            Self::Arched => "arched top",
            Self::Round => "round",
            Self::Irregular => "irregular",
        }
    }

    /// Returns the area of the face, in square metres.
    ///
    /// An arch takes π/8 of the square of the width for its half circle, or an ellipse's half when it is
    /// lower than wide. Source: geometry; an irregular piece is taken to fill four fifths of its box.
    #[must_use]
    pub fn face(self, size: PieceSize) -> Area {
        match self {
            Self::Rectangle => size.face(),
            Self::Oval | Self::Round => size.face() * ELLIPSE,
            Self::Arched => {
                let arch = (size.width / 2.0).min(size.height);
                size.width * (size.height - arch) + size.width * arch * ELLIPSE
            }
            Self::Irregular => size.face() * IRREGULAR,
        }
    }

    /// Returns at how many points such a piece bears, when nothing else was said.
    #[must_use]
    pub const fn bearing_points(self) -> u32 {
        4
    }

    /// Returns where so many points lie that such a piece bears on, evenly around its middle; none of a rectangle,
    /// which bears on its corners.
    ///
    /// Where an arch is square, it bears on the corner. Source: geometry.
    #[must_use]
    pub fn bears_at(self, count: u32) -> Vec<BearingPoint> {
        if self == Self::Rectangle {
            return Vec::new();
        }
        let at = |place: u32| {
            let turn = std::f64::consts::TAU * (f64::from(place) + 0.5) / f64::from(count);
            let (across, up) = turn.sin_cos();
            if self == Self::Arched && up < 0.0 {
                // One in the middle below stays there.
                let corner = if across.abs() < MIDDLE {
                    0.0
                } else {
                    across.signum()
                };
                return BearingPoint::from_middle(corner, -1.0);
            }
            BearingPoint::from_middle(across, up)
        };
        (0..count).map(at).collect()
    }

    /// Returns how many of its bearing points are square corners.
    #[must_use]
    pub const fn square_corners(self) -> u32 {
        match self {
            Self::Rectangle => 4,
            Self::Arched => 2,
            Self::Oval | Self::Round | Self::Irregular => 0,
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::quantity::Length;

    #[test]
    fn four_points_of_an_oval_lie_on_its_diagonals_and_an_arch_has_two_corners() {
        // sin 45° = 0.707107: (1 + 0.707107)/2 = 0.853553 and 0.146447.
        let (near, far) = (0.146_447, 0.853_553);
        let at = |outline: Outline| -> Vec<(f64, f64)> {
            let rounded = |share: f64| (share * 1e6).round() / 1e6;
            let points = outline.bears_at(4).into_iter();
            points
                .map(|at| (rounded(at.across), rounded(at.up)))
                .collect()
        };
        assert_eq!(
            at(Outline::Oval),
            [(far, far), (far, near), (near, near), (near, far)]
        );
        assert_eq!(
            at(Outline::Arched),
            [(far, far), (1.0, 0.0), (0.0, 0.0), (near, far)]
        );
        assert!(at(Outline::Rectangle).is_empty());
    }

    proptest! {
        #[test]
        fn bearing_points_lie_within_the_piece_and_as_many_left_as_right(count in 3_u32..=12) {
            for outline in [Outline::Oval, Outline::Round, Outline::Arched, Outline::Irregular] {
                let points = outline.bears_at(count);
                prop_assert_eq!(points.len(), count as usize);
                prop_assert!(points.iter().all(|at| (0.0..=1.0).contains(&at.across) && (0.0..=1.0).contains(&at.up)));
                let tilt: f64 = points.iter().map(|at| at.across - 0.5).sum();
                prop_assert!(tilt.abs() < 1e-9, "{:?} leans by {}", outline, tilt);
            }
        }
    }

    #[test]
    fn faces_by_their_outline() {
        let [width, height, depth] = [780.0, 1050.0, 30.0].map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        // 0.78 × 1.05 = 0.819; × π/4 = 0.643241; arch: 0.78 × 0.66 + π/8 × 0.78² = 0.5148 + 0.238918
        for (outline, area) in [
            (Outline::Rectangle, 0.819),
            (Outline::Oval, 0.643_241),
            (Outline::Arched, 0.753_718),
            (Outline::Irregular, 0.6552),
        ] {
            let found = outline.face(size).as_m2();
            assert!((found - area).abs() < 1e-6, "{outline:?}: {found}");
        }
    }
}
