//! The slotted box that opens on an edge: the piece slides in like a letter.

use serde::Serialize;

use super::{Blank, Fold, Hinge, Panel, PanelRole, Point, SheetNeed};
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

/// How far a closed flap is folded, and a wall of the ring.
const SQUARE_DEG: f64 = 90.0;
/// The ring is folded and joined before its flaps.
const RING: u32 = 1;
const FLAPS: u32 = 2;
/// The tab is cut back at both ends by this share of its width, so that it does not show in the opening.
const TAB_BEVEL: f64 = 0.5;

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

    /// Returns the widths of the four walls, from the free edge on: back, side, front, side.
    ///
    /// P1 = L + c/2, P2 = H + c, P3 = L + c, P4 = H + 2c. The joint lies behind, away from the face.
    /// Source: packaging engineering practice.
    fn walls(self) -> [Length; 4] {
        let c = self.caliper;
        [
            self.length + c / 2.0,
            self.height + c,
            self.length + c,
            self.height + c * 2.0,
        ]
    }

    /// Returns the joining tab: the house's tab less the board.
    #[must_use]
    pub fn tab(self, allowances: &Allowances) -> Length {
        (allowances.box_tab - self.caliper).max(self.caliper)
    }

    /// Returns the width of a slot: the board and the play.
    #[must_use]
    pub fn slot(self, allowances: &Allowances) -> Length {
        self.caliper + allowances.box_slot_play
    }

    /// Returns the flat blank.
    ///
    /// Walls side by side, W + 2c high, with flaps of (H + c)/2 above and below, parted by slots, and a
    /// bevelled tab that laps outside the first wall, the back. Source: packaging engineering practice.
    #[must_use]
    pub fn blank(self, allowances: &Allowances) -> Blank {
        let flap = (self.height + self.caliper) / 2.0;
        let wall = self.width + self.caliper * 2.0;
        let runs_up = vec![Length::ZERO, flap, flap + wall, wall + flap * 2.0];
        let mut runs_across = vec![Length::ZERO];
        for width in self.walls().into_iter().chain([self.tab(allowances)]) {
            runs_across.push(runs_across[runs_across.len() - 1] + width);
        }
        let mut drawing = Drawing {
            runs_across: &runs_across,
            runs_up: &runs_up,
            panels: vec![],
            hinges: vec![],
        };
        drawing.ring(self.tab(allowances));
        drawing.flaps(self.slot(allowances));
        let Drawing { panels, hinges, .. } = drawing;
        Blank::new(panels, hinges, runs_across, runs_up)
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

/// A blank while its panels are laid out on the running distances.
struct Drawing<'a> {
    runs_across: &'a [Length],
    runs_up: &'a [Length],
    panels: Vec<Panel>,
    hinges: Vec<Hinge>,
}

impl Drawing<'_> {
    const WALLS: [PanelRole; 4] = [
        PanelRole::Back,
        PanelRole::Side,
        PanelRole::Front,
        PanelRole::Side,
    ];

    fn at(&self, across: usize, up: usize) -> Point {
        Point::new(self.runs_across[across], self.runs_up[up])
    }

    fn score(&mut self, between: [usize; 2], from: Point, to: Point, step: u32) {
        self.hinges.push(Hinge {
            between,
            from,
            to,
            fold: Fold::Toward,
            angle_deg: SQUARE_DEG,
            step,
        });
    }

    /// Four walls and the tab, each hinged to the one before.
    fn ring(&mut self, tab: Length) {
        for (place, role) in Self::WALLS.into_iter().enumerate() {
            self.panels.push(Panel::rectangle(
                role,
                self.at(place, 1),
                self.at(place + 1, 2),
            ));
        }
        let bevel = tab * TAB_BEVEL;
        let (low, high) = (self.at(4, 1), self.at(5, 2));
        let outline = vec![
            low,
            Point::new(high.x, low.y + bevel),
            Point::new(high.x, high.y - bevel),
            Point::new(low.x, high.y),
        ];
        self.panels.push(Panel {
            role: PanelRole::Tab,
            outline,
        });
        for place in 1..=4 {
            self.score(
                [place - 1, place],
                self.at(place, 1),
                self.at(place, 2),
                RING,
            );
        }
    }

    /// A flap below and above each wall, half a slot short where it meets the next.
    fn flaps(&mut self, slot: Length) {
        for wall in 0..Self::WALLS.len() {
            let left = if wall == 0 { Length::ZERO } else { slot / 2.0 };
            let right = if wall == 3 { Length::ZERO } else { slot / 2.0 };
            for (lower, upper, crease) in [(0, 1, 1), (2, 3, 2)] {
                let low = Point::new(self.runs_across[wall] + left, self.runs_up[lower]);
                let high = Point::new(self.runs_across[wall + 1] - right, self.runs_up[upper]);
                let flap = self.panels.len();
                self.panels
                    .push(Panel::rectangle(PanelRole::Flap, low, high));
                let crease = self.runs_up[crease];
                self.score(
                    [wall, flap],
                    Point::new(low.x, crease),
                    Point::new(high.x, crease),
                    FLAPS,
                );
            }
        }
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
        // Walls 1678 × 568 = 953 104; flaps 2 × 47 × (1678 − 3 × 6) = 156 040;
        // tab 31 × 568 − 31 × 15.5 = 17 127.5: together 1 126 271.5 mm²
        let blank = worked().blank(&Allowances::default());
        assert!((blank.area.as_m2() - 1.126_271_5).abs() < 1e-12);
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
