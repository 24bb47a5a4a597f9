//! The slotted box that opens on an edge: the piece slides in like a letter.

use serde::Serialize;

use super::{
    Blank, SheetNeed, Solid,
    ring::{self, Ring, Walls},
};
use crate::{
    house::{Allowances, SealRule},
    layer::{Addition, Cushioning, Direction, Envelope, Layer, LayerSlot, Make, Sides, Supplies},
    quantity::{Length, decimal_of},
};

/// A slotted box opening on an edge, by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SlottedEdge {
    /// Inside, along the long side of the art's face.
    pub length: Length,
    /// Inside, along the short side of the art's face.
    pub width: Length,
    /// Inside, through the art.
    pub height: Length,
    /// Of the board.
    pub caliper: Length,
}

/// The box of a plan: its inside, its blank and the sheet that the blank takes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SlottedBox {
    /// Inside, along the long side of the art's face.
    #[serde(rename = "inside_length_mm")]
    pub inside_length: Length,
    /// Inside, along the short side of the art's face.
    #[serde(rename = "inside_width_mm")]
    pub inside_width: Length,
    /// Inside, through the art.
    #[serde(rename = "inside_height_mm")]
    pub inside_height: Length,
    /// Of the board.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// What a slot is wide.
    #[serde(rename = "slot_mm")]
    pub slot: Length,
    /// How far the joining tab laps.
    #[serde(rename = "tab_mm")]
    pub tab: Length,
    /// What a tape reads beyond the board, once it is filled.
    #[serde(rename = "bulge_mm")]
    pub bulge: Length,
    /// What it is cut to.
    pub blank: Blank,
    /// What it is cut from.
    pub sheet: SheetNeed,
}

impl SlottedEdge {
    /// Returns the box that leaves no more room around an envelope than it has.
    ///
    /// Its length follows the long side of the art, whichever side of the envelope is longer: a box that
    /// turned over when a layer grew would shrink on one side.
    #[must_use]
    pub const fn holding(inside: Envelope, long_way: Direction, caliper: Length) -> Self {
        let (length, width) = match long_way {
            Direction::Up => (inside.up, inside.across),
            Direction::Across => (inside.across, inside.up),
        };
        Self {
            length,
            width,
            height: inside.through,
            caliper,
        }
    }

    /// Walls of L, H, L and H around the opening, W + 2c between their scores. The joint lies behind, away from the
    /// face.
    fn ring(self, allowances: &Allowances) -> Ring {
        Ring {
            part: "box",
            walls: Walls::Faces,
            along: self.length,
            across: self.height,
            depth: self.width + self.caliper * 2.0,
            closes_twice: true,
            caliper: self.caliper,
            tab: self.tab(allowances),
            slot: self.slot(allowances),
        }
    }

    /// Returns the joining tab: the house's tab less the board.
    #[must_use]
    pub fn tab(self, allowances: &Allowances) -> Length {
        ring::tab(self.caliper, allowances)
    }

    /// Returns the width of a slot: the board and the play.
    #[must_use]
    pub fn slot(self, allowances: &Allowances) -> Length {
        ring::slot(self.caliper, allowances)
    }

    /// Returns the flat blank.
    ///
    /// Walls side by side, W + 2c high, with flaps of (H + c)/2 above and below, parted by slots, and a
    /// bevelled tab that laps outside the first wall, the back. Source: packaging engineering practice, folded again
    /// as slabs.
    #[must_use]
    pub fn blank(self, allowances: &Allowances) -> Blank {
        self.ring(allowances).blank()
    }

    /// Returns what is free inside once it is folded, over the front.
    #[must_use]
    pub fn room(self, allowances: &Allowances) -> Solid {
        self.ring(allowances).room()
    }

    /// Returns what the closed box adds to its inside: a wall on every side, a second flap at both ends
    /// of the opening, and the tab and the bulge behind.
    fn adds(self, opens_across: bool, bulge: Length) -> Addition {
        let (wall, flaps) = (self.caliper, self.caliper * 2.0);
        let (across, up) = if opens_across {
            (flaps, wall)
        } else {
            (wall, flaps)
        };
        Addition::new(across, up, wall, wall * 2.0 + bulge)
    }

    /// Returns the tape that closes both openings in an H, and the joining tab; with every seam and edge taped,
    /// the long edges of both openings and the four edges along the walls too.
    fn seal(self, tape_return: Length, every_seam: bool) -> Length {
        let returns = tape_return * 2.0;
        let opening = (self.length + returns) + (self.height + returns) * 2.0;
        let joined = opening * 2.0 + self.width + returns;
        if every_seam {
            joined + (self.length + returns) * 4.0 + (self.width + returns) * 3.0
        } else {
            joined
        }
    }

    /// Returns the layer of a box around what it holds: the box, or a second one around it.
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        slot: LayerSlot,
        long_way: Direction,
        inside: Envelope,
    ) -> Layer {
        let board = supplies.box_board;
        let allowances = supplies.allowances();
        let holding = Self::holding(inside, long_way, board.caliper);
        let blank = holding.blank(allowances);
        let sheet = SheetNeed::of(&blank, board, allowances.sheet_lap);
        let area = blank.area + sheet.lap_area(blank.height, allowances.sheet_lap);
        let every = supplies.rules.schools.seal == SealRule::EverySeam;
        let sealed = holding.seal(allowances.seal_return, every);
        supplies.layer(crate::layer::Making {
            slot,
            stuff: board.into(),
            adds: holding.adds(long_way == Direction::Up, allowances.box_bulge),
            inside,
            area,
            mass: board.areal_density * area,
            doubt: allowances.sheet_doubt,
            cost: board.price_per_m2() * decimal_of((blank.width * blank.height).as_m2()),
            tape: Some((supplies.seal_tape, sealed)),
            minutes: allowances.box_minutes
                + allowances.box_minutes_per_m * (blank.width + blank.height).as_m()
                + allowances.seal_minutes
                + allowances.seal_minutes_per_m * sealed.as_m(),
            why: "Opening on an edge takes the least board, and leaves both faces in one piece.",
            make: Make::SlottedBox(SlottedBox {
                inside_length: holding.length,
                inside_width: holding.width,
                inside_height: holding.height,
                caliper: holding.caliper,
                slot: holding.slot(allowances),
                tab: holding.tab(allowances),
                bulge: allowances.box_bulge,
                blank,
                sheet,
            }),
            cushioning: Some(Cushioning::of_board(Sides::all(board.caliper))),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn worked() -> SlottedEdge {
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        SlottedEdge {
            length,
            width,
            height,
            caliper,
        }
    }

    #[test]
    fn the_blank_of_a_small_box() {
        // 742 + 94 + 744 + 98 + 31 = 1709; 47 + 568 + 47 = 662
        let blank = worked().blank(&Allowances::default());
        assert_eq!(
            (blank.width, blank.height),
            (Length::mm(1709.0), Length::mm(662.0))
        );
        let across: Vec<f64> = blank.runs_across.iter().map(|run| run.as_mm()).collect();
        assert_eq!(across, [0.0, 742.0, 836.0, 1580.0, 1678.0, 1709.0]);
        let up: Vec<f64> = blank.runs_up.iter().map(|run| run.as_mm()).collect();
        assert_eq!(up, [0.0, 47.0, 615.0, 662.0]);
    }

    #[test]
    fn slots_and_bevels_are_not_weighed() {
        // Walls 1678 × 568 = 953 104; flaps 2 × 47 × (1678 − 4 × 6) = 155 476;
        // tab 31 × 568 − 31 × 15.5 = 17 127.5: together 1 125 707.5 mm²
        let blank = worked().blank(&Allowances::default());
        assert!((blank.area.as_m2() - 1.125_707_5).abs() < 1e-12);
        assert_eq!((blank.panels.len(), blank.hinges.len()), (13, 12));
    }

    #[test]
    fn the_closed_box_is_larger_by_its_board() {
        // Opening on the ends across: two flaps there, a wall above and below; a wall in front; a wall,
        // the tab and the bulge behind.
        let adds = worked().adds(true, Length::mm(3.0));
        assert_eq!((adds.left, adds.top), (Length::mm(8.0), Length::mm(4.0)));
        assert_eq!((adds.front, adds.back), (Length::mm(4.0), Length::mm(11.0)));
    }

    #[test]
    fn both_openings_are_sealed_in_an_h() {
        // (740 + 100) + 2 × (90 + 100) = 1220, twice; the tab 560 + 100: 3100
        assert_eq!(worked().seal(Length::mm(50.0), false), Length::mm(3100.0));
        // Four edges of 740 + 100 and three of 560 + 100 more: 3100 + 3360 + 1980
        assert_eq!(worked().seal(Length::mm(50.0), true), Length::mm(8440.0));
    }
}
