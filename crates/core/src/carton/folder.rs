//! The folder that wraps around, its half lids meeting in the middle or lapping each other.

use super::{
    Blank, BoxSize, Panel, PanelRole, Point, Solid,
    blank::Layout,
    folds::folder::{ENDS, LIDS, SIDES, TUCKS, UPPER_LID},
};
use crate::{part::PartId, quantity::Length};

/// A wrap-around folder by its inside size and board, and by how far each half lid reaches past the middle.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Folder {
    size: BoxSize,
    lap: Length,
}

const SQUARE_DEG: f64 = 90.0;
/// So far each of two lids that lap reaches past the middle.
pub(super) const LID_LAP: Length = Length::mm(40.0);
/// A tuck is never longer than this, nor than a third of the folder.
const LONGEST_TUCK: Length = Length::mm(100.0);
const TUCK_SHARE: f64 = 3.0;
/// Ends and tucks are this much narrower than the inside, to go between the walls.
const END_PLAY: Length = Length::mm(2.0);

impl Folder {
    /// The folder whose half lids meet.
    #[must_use]
    pub const fn meeting(size: BoxSize) -> Self {
        Self {
            size,
            lap: Length::ZERO,
        }
    }

    /// The folder whose half lids lap each other.
    #[must_use]
    pub const fn lapped(size: BoxSize) -> Self {
        Self { size, lap: LID_LAP }
    }

    fn laps(self) -> bool {
        self.lap > Length::ZERO
    }

    /// How far a tuck reaches in under the lids.
    #[must_use]
    pub fn tuck(self) -> Length {
        LONGEST_TUCK.min(self.size.length / TUCK_SHARE)
    }

    /// End walls, walls and half lids, each from its score on.
    fn reaches(self) -> [Length; 3] {
        let c = self.size.caliper;
        [
            self.size.height + c,
            self.size.height + c * 2.0,
            (self.size.width + c) / 2.0 + self.lap,
        ]
    }

    /// Returns the flat blank.
    ///
    /// Across: half lid, wall, base, wall, half lid of (W + c)/2, H + 2c, W + c, H + 2c, (W + c)/2; where the lids
    /// lap, each is 40 longer, and the wall of the one that closes last a board higher. Walls and lids L + 2c long, c/2
    /// past each end. Along: end walls H + c and tucks min(100, L/3), both W − 2 wide. Source:
    /// packaging engineering practice, folded again as slabs.
    #[must_use]
    pub fn blank(self) -> Blank {
        let c = self.size.caliper;
        let [end, wall, lid] = self.reaches();
        let reach = end + self.tuck();
        let x = [reach, reach + self.size.length + c];
        let y = [lid + wall, lid + wall + self.size.width + c];
        let upper_wall = if self.laps() { wall + c } else { wall };
        let upper_lid = if self.laps() { UPPER_LID } else { LIDS };
        let size = [x[1] + reach, y[1] + upper_wall + lid];
        let base = rectangle("base", PanelRole::Front, x, y);
        let mut layout = Layout::new(PartId::Folder, size, base);
        let middle = (y[0] + y[1]) / 2.0;
        let half = (self.size.width - END_PLAY) / 2.0;
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
        for (names, inner, outer, tip, lid_step) in [
            (
                ["lower wall", "lower lid"],
                y[0],
                y[0] - wall,
                Length::ZERO,
                LIDS,
            ),
            (
                ["upper wall", "upper lid"],
                y[1],
                y[1] + upper_wall,
                size[1],
                upper_lid,
            ),
        ] {
            let up = |one: Length, other: Length| [one.min(other), one.max(other)];
            let level = |ends: [Length; 2], at: Length| ends.map(|x| Point::new(x, at));
            let panel = rectangle(names[0], PanelRole::Side, past, up(inner, outer));
            let on = layout.hang(0, panel, level(x, inner), (SQUARE_DEG, SIDES));
            let panel = rectangle(names[1], PanelRole::Back, past, up(outer, tip));
            layout.hang(on, panel, level(past, outer), (SQUARE_DEG, lid_step));
        }
        layout.cut()
    }

    /// Returns what is free inside once it is folded, over its base.
    #[must_use]
    pub fn room(self) -> Solid {
        let c = self.size.caliper;
        let [end, wall, lid] = self.reaches();
        Solid::cuboid(
            [end + self.tuck() + c / 2.0, lid + wall + c / 2.0, c / 2.0],
            [self.size.length, self.size.width, self.size.height],
        )
    }
}

fn rectangle(name: &'static str, role: PanelRole, x: [Length; 2], y: [Length; 2]) -> Panel {
    Panel::rectangle(name, role, Point::new(x[0], y[0]), Point::new(x[1], y[1]))
}
