//! A tray with butted corners, and the flat lid on it.

use super::{Blank, BoxSize, Panel, PanelRole, Point, Solid, blank::Layout};
use crate::quantity::Length;

/// A scored tray by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Tray(pub BoxSize);

/// All four walls are folded before the corners are taped.
const WALLS: u32 = 1;
const SQUARE_DEG: f64 = 90.0;

impl Tray {
    /// How high a wall stands above its score: it starts at the middle of the base.
    fn wall(self) -> Length {
        self.0.height + self.0.caliper / 2.0
    }

    /// Returns the flat blank.
    ///
    /// Base (L + c) × (W + c), walls H + c/2, corner squares out; the walls at the ends are c/2 shorter at either
    /// end, so that they stand between the long ones. Source: packaging engineering practice, folded again as slabs.
    #[must_use]
    pub fn blank(self) -> Blank {
        let (c, wall) = (self.0.caliper, self.wall());
        let (long, short) = (self.0.length + c, self.0.width + c);
        let size = [long + wall * 2.0, short + wall * 2.0];
        let [x, y] = [[wall, wall + long], [wall, wall + short]];
        let side = |name, low: [Length; 2], high: [Length; 2]| {
            let [low, high] = [low, high].map(|[x, y]| Point::new(x, y));
            Panel::rectangle(name, PanelRole::Side, low, high)
        };
        let base = Panel::rectangle(
            "base",
            PanelRole::Front,
            Point::new(x[0], y[0]),
            Point::new(x[1], y[1]),
        );
        let mut layout = Layout::new("tray", size, base).closed_by("Tape the four corners.");
        let mut hang = |panel, [x1, y1, x2, y2]: [Length; 4]| {
            let score = [Point::new(x1, y1), Point::new(x2, y2)];
            layout.hang(0, panel, score, (SQUARE_DEG, WALLS));
        };
        hang(
            side("lower wall", [x[0], Length::ZERO], [x[1], y[0]]),
            [x[0], y[0], x[1], y[0]],
        );
        hang(
            side("upper wall", [x[0], y[1]], [x[1], size[1]]),
            [x[0], y[1], x[1], y[1]],
        );
        let between = [y[0] + c / 2.0, y[1] - c / 2.0];
        let [low, high] = between;
        hang(
            side("left wall", [Length::ZERO, low], [x[0], high]),
            [x[0], low, x[0], high],
        );
        hang(
            side("right wall", [x[1], low], [size[0], high]),
            [x[1], low, x[1], high],
        );
        layout.cut()
    }

    /// Returns the flat lid, (L + 2c) × (W + 2c): it lies on the walls and ends with them.
    #[must_use]
    pub fn lid(self) -> Blank {
        let size = [self.0.length, self.0.width].map(|side| side + self.0.caliper * 2.0);
        let high = Point::new(size[0], size[1]);
        let low = Point::new(Length::ZERO, Length::ZERO);
        Layout::new(
            "lid",
            size,
            Panel::rectangle("lid", PanelRole::Back, low, high),
        )
        .cut()
    }

    /// Returns what is free inside once it is folded, over its base.
    #[must_use]
    pub fn room(self) -> Solid {
        let inside = self.wall() + self.0.caliper / 2.0;
        Solid::cuboid(
            [inside, inside, self.0.caliper / 2.0],
            [self.0.length, self.0.width, self.0.height],
        )
    }
}
