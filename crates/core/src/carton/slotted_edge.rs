//! The slotted box that opens on an edge: the piece slides in like a letter.

use super::{
    Blank, BoxSize, Solid,
    ring::{self, Ring, Walls},
};
use crate::{house::Allowances, part::PartId, quantity::Length};

/// A slotted box opening on an edge, by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SlottedEdge(pub BoxSize);

impl SlottedEdge {
    /// Walls of L, H, L and H around the opening, W + 2c between their scores. The joint lies behind, away from the
    /// face.
    fn ring(self, allowances: &Allowances) -> Ring {
        Ring {
            part: PartId::Box,
            walls: Walls::Faces,
            along: self.0.length,
            across: self.0.height,
            depth: self.0.width + self.0.caliper * 2.0,
            closes_twice: true,
            caliper: self.0.caliper,
            tab: self.tab(allowances),
            slot: self.slot(allowances),
        }
    }

    /// Returns the joining tab: the house's tab less the board.
    #[must_use]
    pub fn tab(self, allowances: &Allowances) -> Length {
        ring::tab(self.0.caliper, allowances)
    }

    /// Returns the width of a slot: the board and the play.
    #[must_use]
    pub fn slot(self, allowances: &Allowances) -> Length {
        ring::slot(self.0.caliper, allowances)
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
}

#[cfg(test)]
mod tests {
    use super::*;

    fn worked() -> SlottedEdge {
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        SlottedEdge(BoxSize {
            length,
            width,
            height,
            caliper,
        })
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
    fn inner_flaps_of_a_box_that_is_deeper_than_long_are_trimmed() {
        // (393 + 4)/2 = 198.5 each would overlap by 5 between walls (388 + 4) apart: 196.
        let [length, height] = [388.0, 393.0].map(Length::mm);
        let deep = SlottedEdge(BoxSize {
            length,
            height,
            ..worked().0
        });
        let blank = deep.blank(&Allowances::default());
        assert_eq!(blank.inner_flap, Some(Length::mm(196.0)));
        assert_eq!(blank.runs_up[1], Length::mm(198.5));
        assert_eq!(worked().blank(&Allowances::default()).inner_flap, None);
    }

    #[test]
    fn slots_and_bevels_are_not_weighed() {
        // Walls 1678 × 568 = 953 104; flaps 2 × 47 × (1678 − 4 × 6) = 155 476;
        // tab 31 × 568 − 31 × 15.5 = 17 127.5: together 1 125 707.5 mm²
        let blank = worked().blank(&Allowances::default());
        assert!((blank.area.as_m2() - 1.125_707_5).abs() < 1e-12);
        assert_eq!((blank.panels.len(), blank.hinges.len()), (13, 12));
    }
}
