//! The folded corner pocket as a net: a face, two walls with a back flap each, and the tab that closes the corner.

use super::{Blank, Panel, PanelRole, Point, Solid, blank::Layout};
use crate::{part::PartId, quantity::Length};

/// A corner pocket by its dimensions.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PocketNet {
    /// How far it reaches along each edge.
    pub leg: Length,
    /// The wall under the inner back flap, which bears the tab.
    pub wall_a: Length,
    /// The wall under the outer back flap.
    pub wall_b: Length,
    /// How far the tab laps outside wall B.
    pub tab: Length,
    /// What is trimmed off each back flap at the other wall.
    pub flap_trim: Length,
    /// Of the board.
    pub caliper: Length,
}

const SQUARE_DEG: f64 = 90.0;
const WALLS: u32 = 1;
const TAB: u32 = 2;
const INNER_FLAP: u32 = 3;
const OUTER_FLAP: u32 = 4;

impl PocketNet {
    /// Returns the flat blank, the face in its lower left corner, wall A to the right and wall B above.
    ///
    /// Wall A goes on one board past the face, so that the tab, creased there, lies outside wall B; between that and
    /// wall B it is slit. Source: house rule, folded again as slabs.
    #[must_use]
    pub fn blank(self) -> Blank {
        let zero = Length::ZERO;
        let (leg, far_a, far_b) = (self.leg, self.leg + self.wall_a, self.leg + self.wall_b);
        let (crease, flap) = (leg + self.caliper, leg - self.flap_trim);
        let rectangle = |name, role, x: [Length; 2], y: [Length; 2]| {
            Panel::rectangle(name, role, Point::new(x[0], y[0]), Point::new(x[1], y[1]))
        };
        let upright = |at: Length, to: Length| [Point::new(at, zero), Point::new(at, to)];
        let level =
            |at: Length, from: Length, to: Length| [Point::new(from, at), Point::new(to, at)];
        let face = rectangle("face", PanelRole::Front, [zero, leg], [zero, leg]);
        let mut layout =
            Layout::new(PartId::CornerPocket, [far_a + leg, far_b + leg], face).lapping("wall B");
        let wall = rectangle("wall A", PanelRole::Side, [leg, far_a], [zero, crease]);
        let a = layout.hang(0, wall, upright(leg, leg), (SQUARE_DEG, WALLS));
        let wall = rectangle("wall B", PanelRole::Side, [zero, leg], [leg, far_b]);
        let b = layout.hang(0, wall, level(leg, zero, leg), (SQUARE_DEG, WALLS));
        let tab = rectangle(
            "tab",
            PanelRole::Tab,
            [leg, far_a],
            [crease, crease + self.tab],
        );
        layout.hang(a, tab, level(crease, leg, far_a), (SQUARE_DEG, TAB));
        let back = rectangle(
            "inner back flap",
            PanelRole::Flap,
            [far_a, far_a + leg],
            [zero, flap],
        );
        layout.hang(a, back, upright(far_a, flap), (SQUARE_DEG, INNER_FLAP));
        let back = rectangle(
            "outer back flap",
            PanelRole::Flap,
            [zero, flap],
            [far_b, far_b + leg],
        );
        layout.hang(b, back, level(far_b, zero, flap), (SQUARE_DEG, OUTER_FLAP));
        layout.cut()
    }

    /// Returns what is free inside for the corner of a piece of a depth, over the face.
    #[must_use]
    pub fn room(self, depth: Length) -> Solid {
        let half = self.caliper / 2.0;
        Solid::cuboid(
            [Length::ZERO, Length::ZERO, half],
            [self.leg - half, self.leg - half, depth],
        )
    }
}
