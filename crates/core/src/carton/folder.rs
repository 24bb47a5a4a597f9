//! The folder that wraps around, its half lids meeting in the middle.

use super::{Blank, BoxSize, Panel, PanelRole, Point, Solid, blank::Layout};
use crate::quantity::Length;

/// A wrap-around folder by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Folder(pub BoxSize);

const SQUARE_DEG: f64 = 90.0;
/// The ends fold in first, so that the lids close over their tucks.
const ENDS: u32 = 1;
const TUCKS: u32 = 2;
const SIDES: u32 = 3;
const LIDS: u32 = 4;
/// A tuck is never longer than this, nor than a third of the folder.
const LONGEST_TUCK: Length = Length::mm(100.0);
const TUCK_SHARE: f64 = 3.0;
/// Ends and tucks are this much narrower than the inside, to go between the walls.
const END_PLAY: Length = Length::mm(2.0);

impl Folder {
    /// How far a tuck reaches in under the lids.
    #[must_use]
    pub fn tuck(self) -> Length {
        LONGEST_TUCK.min(self.0.length / TUCK_SHARE)
    }

    /// End walls, walls and half lids, each from its score on.
    fn reaches(self) -> [Length; 3] {
        let c = self.0.caliper;
        [
            self.0.height + c,
            self.0.height + c * 2.0,
            (self.0.width + c) / 2.0,
        ]
    }

    /// Returns the flat blank.
    ///
    /// Across: half lid, wall, base, wall, half lid of (W + c)/2, H + 2c, W + c, H + 2c, (W + c)/2; walls and lids
    /// L + 2c long, c/2 past each end. Along: end walls H + c and tucks min(100, L/3), both W − 2 wide. Source:
    /// packaging engineering practice, folded again as slabs.
    #[must_use]
    pub fn blank(self) -> Blank {
        let c = self.0.caliper;
        let [end, wall, lid] = self.reaches();
        let reach = end + self.tuck();
        let x = [reach, reach + self.0.length + c];
        let y = [lid + wall, lid + wall + self.0.width + c];
        let size = [x[1] + reach, y[1] + wall + lid];
        let base = rectangle("base", PanelRole::Front, x, y);
        let mut layout = Layout::new("folder", size, base)
            .closed_by("Tape the middle, then both ends and their corners.");
        let middle = (y[0] + y[1]) / 2.0;
        let half = (self.0.width - END_PLAY) / 2.0;
        let between = [middle - half, middle + half];
        let upright = |at: Length| between.map(|y| Point::new(at, y));
        for (names, inner, outer, tip) in [
            (["left end", "left tuck"], x[0], x[0] - end, Length::ZERO),
            (["right end", "right tuck"], x[1], x[1] + end, size[0]),
        ] {
            let across = |one: Length, other: Length| [one.min(other), one.max(other)];
            let panel = rectangle(names[0], PanelRole::Side, across(inner, outer), between);
            let on = layout.hang(0, panel, upright(inner), (SQUARE_DEG, ENDS));
            let panel = rectangle(names[1], PanelRole::Flap, across(outer, tip), between);
            layout.hang(on, panel, upright(outer), (SQUARE_DEG, TUCKS));
        }
        let past = [x[0] - c / 2.0, x[1] + c / 2.0];
        for (names, inner, outer, tip) in [
            (["lower wall", "lower lid"], y[0], y[0] - wall, Length::ZERO),
            (["upper wall", "upper lid"], y[1], y[1] + wall, size[1]),
        ] {
            let up = |one: Length, other: Length| [one.min(other), one.max(other)];
            let level = |ends: [Length; 2], at: Length| ends.map(|x| Point::new(x, at));
            let panel = rectangle(names[0], PanelRole::Side, past, up(inner, outer));
            let on = layout.hang(0, panel, level(x, inner), (SQUARE_DEG, SIDES));
            let panel = rectangle(names[1], PanelRole::Back, past, up(outer, tip));
            layout.hang(on, panel, level(past, outer), (SQUARE_DEG, LIDS));
        }
        layout.cut()
    }

    /// Returns what is free inside once it is folded, over its base.
    #[must_use]
    pub fn room(self) -> Solid {
        let c = self.0.caliper;
        let [end, wall, lid] = self.reaches();
        Solid::cuboid(
            [end + self.tuck() + c / 2.0, lid + wall + c / 2.0, c / 2.0],
            [self.0.length, self.0.width, self.0.height],
        )
    }
}

fn rectangle(name: &'static str, role: PanelRole, x: [Length; 2], y: [Length; 2]) -> Panel {
    Panel::rectangle(name, role, Point::new(x[0], y[0]), Point::new(x[1], y[1]))
}
