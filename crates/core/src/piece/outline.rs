//! The shape of a piece, seen from the front.

use serde::{Deserialize, Serialize};

use super::PieceSize;
use crate::quantity::{Area, Length};

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
    /// As many equal sides as it has bearing points, stretched to its box, standing on one of them.
    Polygon,
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

/// A point of an outline with the direction in which it looks outward.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bearing {
    /// From the left of the piece.
    pub across: Length,
    /// From below.
    pub up: Length,
    /// Away from the piece, across and up, of length one.
    pub outward: [f64; 2],
    /// How long something straight may be that lies against it; `None` where a curve leaves it free.
    pub straight: Option<Length>,
}

/// An ellipse fills this share of the box around it: π/4.
const ELLIPSE: f64 = std::f64::consts::FRAC_PI_4;
/// An irregular piece is taken to fill so much of its box.
const IRREGULAR: f64 = 0.8;
/// A chock takes at most this share of a straight side.
const OF_A_SIDE: f64 = 0.5;

impl Outline {
    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Rectangle => "rectangle",
            Self::Oval => "oval",
            Self::Arched => "arched top",
            Self::Round => "round",
            Self::Polygon => "polygon",
            Self::Irregular => "irregular",
        }
    }

    /// Returns the area of the face; a polygon has as many sides as `points`.
    ///
    /// An arch takes π/8 of the square of the width for its half circle, or an ellipse's half when it is
    /// lower than wide. Source: geometry; an irregular piece is taken to fill four fifths of its box.
    #[must_use]
    pub fn face(self, size: PieceSize, points: u32) -> Area {
        match self {
            Self::Rectangle => size.face(),
            Self::Oval | Self::Round => size.face() * ELLIPSE,
            Self::Arched => {
                let arch = arch_of(size);
                size.width * (size.height - arch) + size.width * arch * ELLIPSE
            }
            Self::Polygon => size.face() * share_of_polygon(points),
            Self::Irregular => size.face() * IRREGULAR,
        }
    }

    /// Returns how far it is around the rim; a polygon has as many sides as `points`.
    ///
    /// Of an ellipse with half axes a and b, π·(3(a + b) − √((3a + b)(a + 3b))). Source: geometry (Ramanujan's first approximation);
    /// an irregular piece is taken to be as far around as its box.
    #[must_use]
    pub fn rim(self, size: PieceSize, points: u32) -> Length {
        let ellipse = |a: Length, b: Length| {
            let (a, b) = (a.as_mm(), b.as_mm());
            let root = ((3.0 * a + b) * (a + 3.0 * b)).sqrt();
            Length::mm(std::f64::consts::PI * (3.0 * (a + b) - root))
        };
        let half = [size.width / 2.0, size.height / 2.0];
        match self {
            Self::Rectangle | Self::Irregular => (size.width + size.height) * 2.0,
            Self::Oval | Self::Round => ellipse(half[0], half[1]),
            Self::Arched => {
                let arch = arch_of(size);
                size.width + (size.height - arch) * 2.0 + ellipse(half[0], arch) / 2.0
            }
            Self::Polygon => sides_of_polygon(points)
                .into_iter()
                .map(|[from, to]| {
                    let along =
                        |axis: usize, side: Length| (side * (to[axis] - from[axis])).as_mm();
                    Length::mm(along(0, size.width).hypot(along(1, size.height)))
                })
                .sum(),
        }
    }

    /// Returns at how many points such a piece bears: as typed, where its outline leaves that open.
    #[must_use]
    pub fn bearing_points(self, typed: Option<u32>) -> u32 {
        match self {
            Self::Rectangle => 4,
            Self::Arched => ARCH,
            Self::Oval | Self::Round | Self::Irregular => typed.unwrap_or(4),
            Self::Polygon => typed.unwrap_or(6),
        }
    }

    /// Returns where a piece of a size bears; none of a rectangle, which bears on its corners.
    ///
    /// Round, oval and irregular pieces bear evenly around, four of them where x/a = y/b = 1/√2; an arch on two points below, one
    /// beside each upright and two on its curve at 45°, and on four of them where it has no uprights; a polygon, which stands on
    /// a side, in the middle of each. Source: geometry.
    #[must_use]
    pub fn bearings(self, size: PieceSize, points: u32) -> Vec<Bearing> {
        let half = [size.width / 2.0, size.height / 2.0];
        let ellipse = |turn: f64, [a, b]: [Length; 2], middle: Length| {
            let (sin, cos) = turn.sin_cos();
            // The normal of an ellipse leans to its longer axis.
            let (across, up) = (sin / a.as_mm(), cos / b.as_mm());
            let long = across.hypot(up);
            Bearing {
                across: size.width / 2.0 + a * sin,
                up: middle + b * cos,
                outward: [across / long, up / long],
                straight: None,
            }
        };
        match self {
            Self::Rectangle => Vec::new(),
            Self::Oval | Self::Round | Self::Irregular => (0..points)
                .map(|place| {
                    let turn = (f64::from(place) + 0.5) / f64::from(points);
                    ellipse(turn * std::f64::consts::TAU, half, half[1])
                })
                .collect(),
            Self::Arched => {
                let arch = arch_of(size);
                let upright = size.height - arch;
                let beside = |right: bool| Bearing {
                    across: if right { size.width } else { Length::ZERO },
                    up: upright / 2.0,
                    outward: [if right { 1.0 } else { -1.0 }, 0.0],
                    straight: Some(upright),
                };
                let below = |share: f64| Bearing {
                    across: size.width * share,
                    up: Length::ZERO,
                    outward: [0.0, -1.0],
                    straight: Some(size.width * OF_A_SIDE),
                };
                let eighth = std::f64::consts::FRAC_PI_4;
                let on_curve = |turn: f64| ellipse(turn, [half[0], arch], upright);
                let mut all = vec![
                    on_curve(eighth),
                    below(0.75),
                    below(0.25),
                    on_curve(-eighth),
                ];
                if upright > Length::ZERO {
                    all.insert(1, beside(true));
                    all.insert(4, beside(false));
                }
                all
            }
            Self::Polygon => sides_of_polygon(points)
                .into_iter()
                .map(|[from, to]| {
                    let at = |share: f64, side: Length| side * share;
                    let along = [
                        at(to[0] - from[0], size.width),
                        at(to[1] - from[1], size.height),
                    ]
                    .map(Length::as_mm);
                    let long = along[0].hypot(along[1]);
                    Bearing {
                        across: at(f64::midpoint(from[0], to[0]), size.width),
                        up: at(f64::midpoint(from[1], to[1]), size.height),
                        // Its corners go round clockwise: what lies on the left hand is outside.
                        outward: [-along[1] / long, along[0] / long],
                        straight: Some(Length::mm(long) * OF_A_SIDE),
                    }
                })
                .collect(),
        }
    }

    /// Returns the corners of a polygon as shares of its size; none of any other shape.
    #[must_use]
    pub fn corners(self, points: u32) -> Vec<BearingPoint> {
        if self != Self::Polygon {
            return Vec::new();
        }
        corners_of_polygon(points)
            .into_iter()
            .map(|[across, up]| BearingPoint { across, up })
            .collect()
    }

    /// Returns the points that it bears on as shares of the size.
    #[must_use]
    pub fn bears_at(self, size: PieceSize, points: u32) -> Vec<BearingPoint> {
        let all = self.bearings(size, points).into_iter();
        all.map(|bearing| BearingPoint {
            across: bearing.across / size.width,
            up: bearing.up / size.height,
        })
        .collect()
    }
}

/// An arch bears on so many points.
const ARCH: u32 = 6;

/// How high the curve of an arch is: half a circle, or what there is of a lower piece.
fn arch_of(size: PieceSize) -> Length {
    (size.width / 2.0).min(size.height)
}

/// The corners of a regular polygon that stands on a side, in the box around it, clockwise from the left end of the lower side.
fn corners_of_polygon(sides: u32) -> Vec<[f64; 2]> {
    let turn = |at: f64| (at * std::f64::consts::TAU / f64::from(sides)).sin_cos();
    let corners: Vec<[f64; 2]> = (0..sides)
        .map(|at| {
            // Half a side left of straight down, then clockwise.
            let (sin, cos) = turn(f64::from(at) + 0.5);
            [-sin, -cos]
        })
        .collect();
    let ends = |axis: usize| {
        let along = corners.iter().map(|corner| corner[axis]);
        along.fold((f64::INFINITY, f64::NEG_INFINITY), |(least, most), at| {
            (least.min(at), most.max(at))
        })
    };
    let [(left, right), (foot, top)] = [ends(0), ends(1)];
    corners
        .into_iter()
        .map(|[across, up]| [(across - left) / (right - left), (up - foot) / (top - foot)])
        .collect()
}

/// Its sides, from corner to corner.
fn sides_of_polygon(sides: u32) -> Vec<[[f64; 2]; 2]> {
    let corners = corners_of_polygon(sides);
    let next = corners.iter().cycle().skip(1);
    corners
        .iter()
        .zip(next)
        .map(|(from, to)| [*from, *to])
        .collect()
}

/// How much of the box around it a polygon fills: half the sum of x·y' − x'·y around it.
fn share_of_polygon(sides: u32) -> f64 {
    let around: f64 = sides_of_polygon(sides)
        .into_iter()
        .map(|[from, to]| from[0] * to[1] - to[0] * from[1])
        .sum();
    around.abs() / 2.0
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn size(width: f64, height: f64) -> PieceSize {
        let [width, height, depth] = [width, height, 30.0].map(Length::mm);
        PieceSize {
            width,
            height,
            depth,
        }
    }

    const SHAPES: [Outline; 5] = [
        Outline::Oval,
        Outline::Round,
        Outline::Arched,
        Outline::Polygon,
        Outline::Irregular,
    ];

    #[test]
    fn four_points_of_an_oval_lie_on_its_diagonals_and_an_arch_has_six() {
        // sin 45° = 0.707107: (1 + 0.707107)/2 = 0.853553 and 0.146447. An arch of 400 × 600: half a circle of 200 over uprights
        // of 400; on the curve 200 + 200 × 0.707107 = 341.421 across, 400 + 141.421 = 541.421 up, which is 0.902369 of 600;
        // beside the uprights 200 up; below at a quarter and three quarters.
        let at = |outline: Outline| -> Vec<(f64, f64)> {
            let rounded = |share: f64| (share * 1e6).round() / 1e6;
            let points = outline.bears_at(size(400.0, 600.0), outline.bearing_points(None));
            points
                .iter()
                .map(|at| (rounded(at.across), rounded(at.up)))
                .collect()
        };
        let (near, far) = (0.146_447, 0.853_553);
        assert_eq!(
            at(Outline::Oval),
            [(far, far), (far, near), (near, near), (near, far)]
        );
        let (third, high) = (0.333_333, 0.902_369);
        assert_eq!(
            at(Outline::Arched),
            [
                (far, high),
                (1.0, third),
                (0.75, 0.0),
                (0.25, 0.0),
                (0.0, third),
                (near, high)
            ]
        );
        assert!(at(Outline::Rectangle).is_empty());
        // Lower than half as wide: no uprights.
        assert_eq!(Outline::Arched.bearings(size(400.0, 150.0), 6).len(), 4);
    }

    #[test]
    fn a_hexagon_stands_on_a_side() {
        // In a box of 400 × 346.41 its sides are 200: below from 100 to 300, the next goes up to 400 at half the height, so that its
        // middle lies 350 across and 86.6025 up and looks 30° down; the chock may be half of 200. Three quarters of the box.
        let six = size(400.0, 346.410_161_5);
        let sides = Outline::Polygon.bearings(six, 6);
        let near = |one: f64, other: f64| assert!((one - other).abs() < 1e-6, "{one} for {other}");
        let find = |across: f64, up: f64| {
            let is_at = |one: &&Bearing| {
                (one.across.as_mm() - across).abs() < 1e-6 && (one.up.as_mm() - up).abs() < 1e-6
            };
            *sides.iter().find(is_at).expect("a side there")
        };
        assert_eq!(find(200.0, 0.0).outward[1].round(), -1.0);
        let side = find(350.0, 86.602_540_4);
        near(side.outward[0], 0.866_025_4);
        near(side.outward[1], -0.5);
        near(side.straight.expect("straight").as_mm(), 100.0);
        near(Outline::Polygon.face(six, 6) / six.face(), 0.75);
        near(share_of_polygon(3), 0.5);
        near(share_of_polygon(4), 1.0);
    }

    proptest! {
        #[test]
        fn bearing_points_lie_on_the_piece_look_away_from_it_and_balance(
            count in 3_u32..=12, width in 50.0..2000.0, height in 50.0..2000.0,
        ) {
            for outline in SHAPES {
                let points = outline.bearing_points(Some(count));
                let all = outline.bearings(size(width, height), points);
                prop_assert!((3..=12).contains(&all.len()));
                for one in &all {
                    let from_middle = [one.across.as_mm() / width - 0.5, one.up.as_mm() / height - 0.5];
                    prop_assert!(from_middle.iter().all(|at| at.abs() <= 0.5 + 1e-9));
                    prop_assert!((one.outward[0].hypot(one.outward[1]) - 1.0).abs() < 1e-9);
                    let away = from_middle[0] * width * one.outward[0] + from_middle[1] * height * one.outward[1];
                    prop_assert!(away > 0.0, "{:?} {:?}", outline, one);
                }
                let tilt: f64 = all.iter().map(|one| one.across.as_mm() - width / 2.0).sum();
                prop_assert!(tilt.abs() < 1e-6, "{:?} leans by {}", outline, tilt);
                let share = outline.face(size(width, height), points) / size(width, height).face();
                prop_assert!((0.4..=1.0 + 1e-9).contains(&share));
            }
        }
    }

    #[test]
    fn faces_by_their_outline() {
        let size = size(780.0, 1050.0);
        // 0.78 × 1.05 = 0.819; × π/4 = 0.643241; arch: 0.78 × 0.66 + π/8 × 0.78² = 0.5148 + 0.238918
        for (outline, area) in [
            (Outline::Rectangle, 0.819),
            (Outline::Oval, 0.643_241),
            (Outline::Arched, 0.753_718),
            (Outline::Irregular, 0.6552),
        ] {
            let found = outline.face(size, 4).as_m2();
            assert!((found - area).abs() < 1e-6, "{outline:?}: {found}");
        }
    }
}
