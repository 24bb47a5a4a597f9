//! Trays with butted corners, scored or slit, and the flat lid or the tray that closes them.

use super::{Blank, BoxSize, Panel, PanelRole, Point, Solid, blank::Layout, folds::tray::WALLS};
use crate::{part::PartId, quantity::Length};

/// A scored tray by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Tray(pub BoxSize);

/// A tray of foam board by its inside size and board: slit half through from outside, and folded at its inner skin.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SlitTray(pub BoxSize);

/// A lid that is a tray goes no deeper over the one it closes.
const DEEPEST_LID: Length = Length::mm(40.0);
/// Across both ends, between a tray and the tray over it.
pub(crate) const LID_PLAY: Length = Length::mm(2.0);
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
        self.called(PartId::Tray)
    }

    /// Returns the flat blank as the part of a box that it is.
    pub(super) fn called(self, part: PartId) -> Blank {
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
            PanelRole::Back,
            Point::new(x[0], y[0]),
            Point::new(x[1], y[1]),
        );
        let mut layout = Layout::new(part, size, base);
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
            PartId::Lid,
            size,
            Panel::rectangle("lid", PanelRole::Front, low, high),
        )
        .cut()
    }

    /// Returns the tray that goes over it as a lid: min(40, H + c) deep, inside 2 over its outside. Source: house rule;
    /// the bench measures it from the made tray.
    #[must_use]
    pub fn tray_over(self) -> Self {
        let BoxSize {
            length,
            width,
            height,
            caliper,
        } = self.0;
        let outside = caliper * 2.0 + LID_PLAY;
        Self(BoxSize {
            length: length + outside,
            width: width + outside,
            height: DEEPEST_LID.min(height + caliper),
            caliper,
        })
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

impl SlitTray {
    /// Returns the flat blank.
    ///
    /// Base L × W, walls H; the long walls reach a board past each end of the base, into the corner squares, and cover
    /// the ends of the short ones. Source: packaging engineering practice, folded again as slabs that lie outside their
    /// scores.
    #[must_use]
    pub fn blank(self) -> Blank {
        let BoxSize {
            length,
            width,
            height,
            caliper,
        } = self.0;
        let size = [length + height * 2.0, width + height * 2.0];
        let [x, y] = [[height, height + length], [height, height + width]];
        // Slit from outside, every panel lies outside the line that it turns about.
        let outside = caliper * -0.5;
        let panel = |name, role, x: [Length; 2], y: [Length; 2]| {
            let [low, high] = [Point::new(x[0], y[0]), Point::new(x[1], y[1])];
            Panel::rectangle(name, role, low, high).lifted(outside)
        };
        let base = panel("base", PanelRole::Back, x, y);
        let mut layout = Layout::new(PartId::Tray, size, base);
        let past = [x[0] - caliper, x[1] + caliper];
        for (name, from, at) in [
            ("lower wall", Length::ZERO, y[0]),
            ("upper wall", size[1], y[1]),
        ] {
            let score = x.map(|x| Point::new(x, at));
            let wall = panel(name, PanelRole::Side, past, [from.min(at), from.max(at)]);
            layout.hang(0, wall, score, (SQUARE_DEG, WALLS));
        }
        for (name, from, at) in [
            ("left wall", Length::ZERO, x[0]),
            ("right wall", size[0], x[1]),
        ] {
            let score = y.map(|y| Point::new(at, y));
            let wall = panel(name, PanelRole::Side, [from.min(at), from.max(at)], y);
            layout.hang(0, wall, score, (SQUARE_DEG, WALLS));
        }
        layout.cut()
    }

    /// Returns the flat lid, as that of a scored tray.
    #[must_use]
    pub fn lid(self) -> Blank {
        Tray(self.0).lid()
    }

    /// Returns what is free inside once it is folded, on its base.
    #[must_use]
    pub fn room(self) -> Solid {
        let BoxSize {
            length,
            width,
            height,
            ..
        } = self.0;
        Solid::cuboid([height, height, Length::ZERO], [length, width, height])
    }
}
