//! The slotted box that opens on the face: the piece is laid in from above.

use super::{
    Blank, BoxSize, Solid,
    ring::{self, Ring, Walls},
};
use crate::{house::Allowances, part::PartId, quantity::Length};

/// A slotted box opening on the face, by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct SlottedFace(pub BoxSize);

impl SlottedFace {
    fn ring(self, allowances: &Allowances) -> Ring {
        Ring {
            part: PartId::Box,
            walls: Walls::Sides,
            along: self.0.length,
            across: self.0.width,
            depth: self.0.height + self.0.caliper * 2.0,
            closes_twice: true,
            caliper: self.0.caliper,
            tab: ring::tab(self.0.caliper, allowances),
            slot: ring::slot(self.0.caliper, allowances),
        }
    }

    /// Returns the flat blank: the four narrow sides around the opening, H + 2c between their scores, with flaps of
    /// (W + c)/2 that meet before and behind the art. Source: packaging engineering practice, folded again as slabs.
    #[must_use]
    pub fn blank(self, allowances: &Allowances) -> Blank {
        self.ring(allowances).blank()
    }

    /// Returns how long a flap is.
    #[must_use]
    pub fn flap(self, allowances: &Allowances) -> Length {
        self.ring(allowances).flap()
    }

    /// Returns what is free inside once it is folded, over its third wall.
    #[must_use]
    pub fn room(self, allowances: &Allowances) -> Solid {
        self.ring(allowances).room()
    }
}
