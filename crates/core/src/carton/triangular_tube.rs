//! A tube of three sides, whose last panel laps outside its first, with a cap over each end.

use glam::DVec3;

use super::{Blank, Panel, PanelRole, Point, Solid, blank::Layout, folds};
use crate::{part::PartId, quantity::Length};

/// A triangular tube by its inside and its board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct TriangularTube {
    /// A side of the triangle, inside.
    pub side: Length,
    /// Along the tube.
    pub length: Length,
    /// Of the board.
    pub caliper: Length,
}

/// Each score turns a panel by this much, so that three sides close.
const TURN_DEG: f64 = 120.0;
const SQUARE_DEG: f64 = 90.0;
/// A flap of a cap reaches so far along the tube, at most so far.
const FLAP_SHARE: f64 = 0.6;
const LONGEST_FLAP: Length = Length::mm(80.0);
/// A cap goes over the tube with this much play.
const CAP_PLAY: Length = Length::mm(3.0);
/// Two boards on two sides and one on the others make the cap's plane so many boards longer than the inside.
const CAP_BOARDS: f64 = 6.35;
/// Its flaps' own boards around that.
const OUTSIDE_BOARDS: f64 = 8.08;
/// A flap stands back at both ends so many boards, for its neighbour's thickness.
const FLAP_BACK: f64 = 0.87;
/// Half of the root of three: how much of its side an equilateral triangle is high.
pub const TRIANGLE_HEIGHT: f64 = 0.866_025_403_784_438_6;

impl TriangularTube {
    /// Returns the tube of a length around a roll: its side √3 times the round hole that the roll takes.
    #[must_use]
    pub fn around(hole: Length, length: Length, caliper: Length) -> Self {
        Self {
            side: hole * (TRIANGLE_HEIGHT * 2.0),
            length,
            caliper,
        }
    }

    /// Returns the widths of the four panels: s + 0.866c, s + 1.732c, s + 2.887c, s.
    ///
    /// The first ends at the inner corner; the third reaches a board further out, to the plane of the last. Source:
    /// the middle planes of boards c thick around a triangle of side s.
    #[must_use]
    pub fn panels(self) -> [Length; 4] {
        let (s, c) = (self.side, self.caliper);
        let outward = 1.0 / TRIANGLE_HEIGHT;
        [
            s + c * TRIANGLE_HEIGHT,
            s + c * (TRIANGLE_HEIGHT * 2.0),
            s + c * (TRIANGLE_HEIGHT * 2.0 + outward),
            s,
        ]
    }

    /// Returns the flat sheet of the tube, flutes along it.
    #[must_use]
    pub fn blank(self) -> Blank {
        const NAMES: [&str; 4] = ["first side", "second side", "third side", "lap"];
        let mut at = [Length::ZERO; 5];
        for (place, width) in self.panels().into_iter().enumerate() {
            at[place + 1] = at[place] + width;
        }
        let panel = |place: usize| {
            let role = if place == 3 {
                PanelRole::Tab
            } else {
                PanelRole::Side
            };
            let low = Point::new(at[place], Length::ZERO);
            Panel::rectangle(
                NAMES[place],
                role,
                low,
                Point::new(at[place + 1], self.length),
            )
        };
        let mut layout =
            Layout::new(PartId::Tube, [at[4], self.length], panel(0)).lapping("the first side");
        let mut on = 0;
        for (place, left) in at.into_iter().enumerate().take(4).skip(1) {
            let score = [Length::ZERO, self.length].map(|y| Point::new(left, y));
            let step = u32::try_from(place).expect("three scores");
            on = layout.hang(on, panel(place), score, (TURN_DEG, step));
        }
        layout.cut()
    }

    /// Returns a side of a cap, between its scores: s + 6.35c + 3.
    #[must_use]
    pub fn cap_side(self) -> Length {
        self.side + self.caliper * CAP_BOARDS + CAP_PLAY
    }

    /// Returns a side of the closed tube, outside around its caps: s + 8.08c + 3.
    #[must_use]
    pub const fn cap_outside(self) -> Length {
        Length::mm(self.side.as_mm() + self.caliper.as_mm() * OUTSIDE_BOARDS + CAP_PLAY.as_mm())
    }

    /// Returns a cap: a triangle with a flap of min(0.6·s, 80) on each side, 0.87c back at both its ends.
    #[must_use]
    pub fn cap(self) -> Blank {
        let side = self.cap_side().as_mm();
        let flap = LONGEST_FLAP.min(self.side * FLAP_SHARE).as_mm();
        let back = (self.caliper * FLAP_BACK).as_mm();
        let aside = (flap * TRIANGLE_HEIGHT - back / 2.0).max(0.0);
        let point = |x: f64, y: f64| Point::new(Length::mm(x), Length::mm(y));
        let peak = side * TRIANGLE_HEIGHT;
        let corners = [(0.0, 0.0), (side, 0.0), (side / 2.0, peak)];
        let place = |(x, y): (f64, f64)| point(aside + x, flap + y);
        let height = flap + peak.max((side - back) * TRIANGLE_HEIGHT + flap / 2.0);
        let size = [Length::mm(side + aside * 2.0), Length::mm(height)];
        let base = Panel::new("end", PanelRole::Side, corners.map(place).to_vec());
        let mut layout = Layout::new(PartId::Cap, size, base);
        for (at, name) in ["lower flap", "right flap", "left flap"]
            .into_iter()
            .enumerate()
        {
            let (from, to) = (corners[at], corners[(at + 1) % 3]);
            let along = ((to.0 - from.0) / side, (to.1 - from.1) / side);
            let on = |by: f64, out: f64| {
                place((
                    from.0 + along.0 * by + along.1 * out,
                    from.1 + along.1 * by - along.0 * out,
                ))
            };
            let score = [on(back, 0.0), on(side - back, 0.0)];
            let [near, far] = score;
            let outline = vec![far, near, on(back, flap), on(side - back, flap)];
            layout.hang(
                0,
                Panel::new(name, PanelRole::Flap, outline),
                score,
                (SQUARE_DEG, folds::tube::CAP),
            );
        }
        layout.cut()
    }

    /// Returns what is free inside once the tube is folded, over its first side.
    #[must_use]
    pub fn room(self) -> Solid {
        let (side, inner) = (self.side.as_mm(), self.caliper.as_mm() / 2.0);
        let corners = vec![
            DVec3::new(0.0, 0.0, inner),
            DVec3::new(side, 0.0, inner),
            DVec3::new(side / 2.0, 0.0, inner + side * TRIANGLE_HEIGHT),
        ];
        Solid::prism(corners, DVec3::Y * self.length.as_mm())
    }
}
