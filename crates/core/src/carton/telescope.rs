//! Two halves that slide into each other, each a ring with flaps at one end.

use super::{
    Blank, Solid,
    ring::{self, Ring, Walls},
};
use crate::{house::Allowances, part::PartId, quantity::Length};

/// A telescope by its inside size and board.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Telescope {
    /// Inside, the way that the halves slide; it may be shorter than the section is wide.
    pub length: Length,
    /// The wider side of the section, inside.
    pub width: Length,
    /// The narrower side of the section, inside.
    pub height: Length,
    /// Of the board.
    pub caliper: Length,
}

/// One half of a telescope.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Half {
    /// It slides over the other.
    Outer,
    /// It slides into the other.
    Inner,
}

/// The halves overlap at least this much, and this share of the length.
const LEAST_OVERLAP: Length = Length::mm(100.0);
const OVERLAP_SHARE: f64 = 0.15;
/// The outer half is this much wider than the inner is outside, on both sides together.
const SLIDE_PLAY: Length = Length::mm(3.0);

impl Telescope {
    /// Makes it from sides of which the two of the section come in any order.
    #[must_use]
    pub fn new(length: Length, [one, other]: [Length; 2], caliper: Length) -> Self {
        Self {
            length,
            width: one.max(other),
            height: one.min(other),
            caliper,
        }
    }

    /// Returns how long a half is inside: both overlap by the more of 100 mm and 15 %, and neither is longer than the
    /// whole. Source: packaging engineering practice.
    #[must_use]
    pub fn half(self) -> Length {
        let overlap = LEAST_OVERLAP.max(self.length * OVERLAP_SHARE);
        self.length.min((self.length + overlap) / 2.0)
    }

    /// Returns the shortest and the longest that the made halves can be set to.
    ///
    /// Shorter, the inner half would stand out of the outer; longer, they would overlap too little.
    #[must_use]
    pub fn range(self) -> [Length; 2] {
        let both = self.half() * 2.0;
        [
            self.half(),
            (both - LEAST_OVERLAP).min(both / (1.0 + OVERLAP_SHARE)),
        ]
    }

    /// Returns the section of a half, inside. The outer one leaves room for the boards of the inner, of which two
    /// lie on one side at its joint, and for sliding.
    #[must_use]
    pub fn section(self, half: Half) -> [Length; 2] {
        match half {
            Half::Inner => [self.width, self.height],
            Half::Outer => [
                self.width + self.caliper * 2.0 + SLIDE_PLAY,
                self.height + self.caliper * 3.0 + SLIDE_PLAY,
            ],
        }
    }

    fn ring(self, half: Half, allowances: &Allowances) -> Ring {
        let [along, across] = self.section(half);
        Ring {
            part: match half {
                Half::Outer => PartId::OuterHalf,
                Half::Inner => PartId::InnerHalf,
            },
            walls: Walls::Faces,
            along,
            across,
            depth: self.half() + self.caliper,
            closes_twice: false,
            caliper: self.caliper,
            tab: ring::tab(self.caliper, allowances),
            slot: ring::slot(self.caliper, allowances),
        }
    }

    /// Returns the flat blank of a half. Source: packaging engineering practice, folded again as slabs.
    #[must_use]
    pub fn blank(self, half: Half, allowances: &Allowances) -> Blank {
        self.ring(half, allowances).blank()
    }

    /// Returns what is free inside a half once it is folded, over its third wall.
    #[must_use]
    pub fn room(self, half: Half, allowances: &Allowances) -> Solid {
        self.ring(half, allowances).room()
    }
}
