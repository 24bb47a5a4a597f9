//! How an act looks: open boxes and what goes into them, drawn from the front, the right and above.

use glam::DVec3;

use crate::act::{FaceOf, MovePicture, PictureFace};

/// A side of a body as it stands on the bench.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Side {
    Left,
    Right,
    Bottom,
    Top,
    Front,
    Back,
}

impl Side {
    pub(super) const ALL: [Self; 6] = [
        Self::Left,
        Self::Right,
        Self::Bottom,
        Self::Top,
        Self::Front,
        Self::Back,
    ];

    /// Returns every other side: those of a box that is open there.
    pub(super) fn all_but(self) -> Vec<Self> {
        let others = Self::ALL.into_iter();
        others.filter(|side| *side != self).collect()
    }

    /// Whether it is seen from outside.
    const fn is_seen(self) -> bool {
        matches!(self, Self::Right | Self::Top | Self::Front)
    }
}

/// A block on the bench: to the right, up, and away from whoever stands there.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Body {
    pub low: [f64; 3],
    pub high: [f64; 3],
    /// The sides that it has.
    pub sides: Vec<Side>,
    /// Whether it is what goes in.
    pub goods: bool,
}

impl Body {
    /// Returns a part of a container with some of its sides.
    pub(super) fn part(low: [f64; 3], high: [f64; 3], sides: &[Side]) -> Self {
        Self {
            low,
            high,
            sides: sides.to_vec(),
            goods: false,
        }
    }

    /// Returns what goes in.
    pub(super) fn goods(low: [f64; 3], high: [f64; 3]) -> Self {
        Self {
            low,
            high,
            sides: Side::ALL.to_vec(),
            goods: true,
        }
    }

    /// Returns it moved.
    pub(super) fn moved(&self, by: [f64; 3]) -> Self {
        let add = |at: [f64; 3]| [0, 1, 2].map(|way: usize| at[way] + by[way]);
        Self {
            low: add(self.low),
            high: add(self.high),
            ..self.clone()
        }
    }

    /// The corners of one of its sides.
    fn side(&self, side: Side) -> [[f64; 3]; 4] {
        let [x1, y1, z1] = self.low;
        let [x2, y2, z2] = self.high;
        match side {
            Side::Left => [[x1, y1, z1], [x1, y1, z2], [x1, y2, z2], [x1, y2, z1]],
            Side::Right => [[x2, y1, z1], [x2, y1, z2], [x2, y2, z2], [x2, y2, z1]],
            Side::Bottom => [[x1, y1, z1], [x2, y1, z1], [x2, y1, z2], [x1, y1, z2]],
            Side::Top => [[x1, y2, z1], [x2, y2, z1], [x2, y2, z2], [x1, y2, z2]],
            Side::Front => [[x1, y1, z1], [x2, y1, z1], [x2, y2, z1], [x1, y2, z1]],
            Side::Back => [[x1, y1, z2], [x2, y1, z2], [x2, y2, z2], [x1, y2, z2]],
        }
    }
}

/// What lies on the bench in one act.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Scene {
    pub bodies: Vec<Body>,
    /// Which way something moves.
    pub arrow: Option<[[f64; 3]; 2]>,
}

/// What lies so far away is drawn so far to the right, and so far up.
const AWAY: [f64; 2] = [0.42, 0.3];
/// What lies one behind the other along this is drawn in one place.
pub(super) const LOOKING: DVec3 = DVec3::new(-AWAY[0], -AWAY[1], 1.0);
/// Around the drawing.
const MARGIN: f64 = 0.03;

impl Scene {
    /// Returns a scene of some bodies.
    pub(super) fn of(bodies: impl IntoIterator<Item = Body>) -> Self {
        Self {
            bodies: bodies.into_iter().collect(),
            ..Self::default()
        }
    }

    /// Returns it with an arrow.
    pub(super) fn moving(self, from: [f64; 3], to: [f64; 3]) -> Self {
        Self {
            arrow: Some([from, to]),
            ..self
        }
    }

    /// Draws it: walls that are seen from inside first, then what goes in, then walls that are seen from outside.
    pub(super) fn drawn(&self) -> MovePicture {
        let cards = || self.bodies.iter().filter(|body| !body.goods);
        let faces_of = |body: &Body, seen: bool, of: FaceOf| -> Vec<(FaceOf, [[f64; 3]; 4])> {
            Side::ALL
                .into_iter()
                .filter(|side| side.is_seen() == seen && body.sides.contains(side))
                .map(|side| (of, body.side(side)))
                .collect()
        };
        let goods = self.bodies.iter().filter(|body| body.goods);
        let faces: Vec<(FaceOf, [[f64; 3]; 4])> = cards()
            .flat_map(|body| faces_of(body, false, FaceOf::Inside))
            .chain(goods.flat_map(|body| faces_of(body, true, FaceOf::Goods)))
            .chain(cards().flat_map(|body| faces_of(body, true, FaceOf::Card)))
            .collect();
        let faces = faces
            .into_iter()
            .map(|(of, corners)| (of, corners.to_vec()))
            .collect();
        laid_out(faces, self.arrow)
    }
}

/// Draws faces, the ones behind first.
pub(super) fn laid_out(
    faces: Vec<(FaceOf, Vec<[f64; 3]>)>,
    arrow: Option<[[f64; 3]; 2]>,
) -> MovePicture {
    let flat = |[x, y, z]: [f64; 3]| [x + z * AWAY[0], y + z * AWAY[1]];
    let places = faces
        .iter()
        .flat_map(|(_, corners)| corners)
        .chain(arrow.iter().flatten())
        .map(|at| flat(*at));
    let mut low = [f64::INFINITY; 2];
    let mut high = [f64::NEG_INFINITY; 2];
    for at in places {
        for way in [0, 1] {
            low[way] = low[way].min(at[way]);
            high[way] = high[way].max(at[way]);
        }
    }
    let margin = (high[0] - low[0]).max(high[1] - low[1]) * MARGIN;
    let put = |at: [f64; 3]| {
        let [x, y] = flat(at);
        [x - low[0] + margin, high[1] - y + margin].map(f64::round)
    };
    MovePicture {
        width: (high[0] - low[0] + margin * 2.0).round(),
        height: (high[1] - low[1] + margin * 2.0).round(),
        faces: faces
            .into_iter()
            .map(|(of, corners)| PictureFace {
                of,
                points: corners.into_iter().map(put).collect(),
            })
            .collect(),
        arrow: arrow.map(|ends| ends.map(put)),
    }
}

/// Tenths of a millimetre, so that a screw keeps its shape.
const FINE: f64 = 10.0;
/// Of a countersunk head and its shank, to either side of the middle.
const HEAD: f64 = 4.0;
const SHANK: f64 = 1.8;
/// How far the head and the tip taper.
const TAPER: f64 = 3.5;
/// What is drawn beside the screw, above it and below its tip.
const BESIDE: f64 = 20.0;
const BELOW: f64 = 10.0;

/// Draws a screw, cut open, in millimetres: through one thing into another, and so deep in that.
pub(crate) fn screwed([through, into, screw]: [f64; 3]) -> MovePicture {
    let deep = into.min((screw - through).max(0.0) + BELOW);
    let rect = |top: f64, bottom: f64| {
        let [left, right] = [-BESIDE, BESIDE];
        [[left, top], [right, top], [right, bottom], [left, bottom]].to_vec()
    };
    let shank = |to: f64| [[SHANK, to], [-SHANK, to]];
    let [right, left] = shank(TAPER);
    let [tip_right, tip_left] = shank((screw - TAPER).max(TAPER));
    let body = vec![
        [-HEAD, 0.0],
        [HEAD, 0.0],
        right,
        tip_right,
        [0.0, screw],
        tip_left,
        left,
    ];
    let faces = [
        (FaceOf::Inside, rect(through, through + deep)),
        (FaceOf::Card, rect(0.0, through)),
        (FaceOf::Goods, body),
    ];
    let flat = |points: Vec<[f64; 2]>| -> Vec<[f64; 3]> {
        let put = |[x, down]: [f64; 2]| [x * FINE, -down * FINE, 0.0];
        points.into_iter().map(put).collect()
    };
    let arrow = [[0.0, BELOW * FINE, 0.0], [0.0, FINE, 0.0]];
    let faces = faces.map(|(of, points)| (of, flat(points))).to_vec();
    laid_out(faces, Some(arrow))
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A screw of 25 through 4 into 144: the upper thing is 4 high, the lower one is drawn down to 10 below the tip, at 35, and the arrow
    /// begins 10 above: 45 in all, and a margin of 3 % at both ends: 45 × 10 + 2 × 13.5 = 477.
    #[test]
    fn a_screw_is_drawn_through_one_thing_into_another() {
        let drawn = screwed([4.0, 144.0, 25.0]);
        assert_eq!(drawn.height, 477.0);
        let ends = |of| {
            let face = drawn.faces.iter().find(|face| face.of == of);
            let points = &face.expect("a face").points;
            let down = points.iter().map(|point| point[1]);
            [
                down.clone().fold(f64::MAX, f64::min),
                down.fold(0.0, f64::max),
            ]
        };
        let [card, screw] = [FaceOf::Card, FaceOf::Goods].map(ends);
        assert_eq!(card[1] - card[0], 40.0);
        assert_eq!(screw[1] - screw[0], 250.0);
        // It ends before the far side of what it is screwed into.
        assert!(ends(FaceOf::Inside)[1] > screw[1]);
    }

    /// A tray of 100 × 20 × 50 with goods above it: back, bottom and left are seen from inside, front and right from outside.
    #[test]
    fn what_is_inside_is_drawn_before_what_is_outside() {
        let tray = Side::Top.all_but();
        let scene = Scene::of([
            Body::part([0.0; 3], [100.0, 20.0, 50.0], &tray),
            Body::goods([10.0, 40.0, 10.0], [90.0, 50.0, 40.0]),
        ])
        .moving([50.0, 40.0, 25.0], [50.0, 22.0, 25.0]);
        let drawn = scene.drawn();
        let of: Vec<FaceOf> = drawn.faces.iter().map(|face| face.of).collect();
        let count = |kind| of.iter().filter(|one| **one == kind).count();
        assert_eq!(
            [FaceOf::Inside, FaceOf::Goods, FaceOf::Card].map(count),
            [3, 3, 2]
        );
        assert_eq!(of[0], FaceOf::Inside);
        assert_eq!(of.last(), Some(&FaceOf::Card));
        // 100 across and 50 away: 100 + 21 = 121, and a margin of 3.63 at both sides.
        assert_eq!(drawn.width, 128.0);
        // The arrow points down.
        let [from, to] = drawn.arrow.expect("an arrow");
        assert!(to[1] > from[1]);
    }
}
