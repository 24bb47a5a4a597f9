//! What a container is used for.

use crate::{
    act::Lifted,
    part::PartId,
    quantity::{Length, Mass, Telling},
};

/// Which of two boxes it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BoxPlace {
    /// The only one.
    Only,
    /// The first of two.
    Inner,
    /// The one around the first.
    Outer,
}

/// What a container is used for, as far as its acts depend on it.
#[derive(Debug, Clone, Copy)]
pub struct Use {
    /// What goes in, as `the wrapped piece`.
    pub what: &'static str,
    /// What of it looks to the front, as `its face`.
    pub face: &'static str,
    /// Which of two boxes it is.
    pub place: BoxPlace,
    /// Of what goes in.
    pub mass: Mass,
    /// How much room it has in there, on the side where it has most.
    pub room: Length,
    /// Whether a pane or a mirror is in it.
    pub pane: bool,
    /// Whether fill goes along all edges before it is closed.
    pub filled: bool,
    /// How long the closed container is outside, along its longest side.
    pub outside_long: Length,
    /// What lengths are told in.
    pub telling: Telling,
}

impl Use {
    /// What a container is used for whose piece isn't known: as in a sum that is asked for by itself.
    pub(crate) fn by_sums(what: &'static str, long: Length) -> Self {
        Self {
            what,
            face: "its face",
            place: BoxPlace::Only,
            mass: Mass::ZERO,
            room: Length::ZERO,
            pane: false,
            filled: false,
            outside_long: long,
            telling: Telling::default(),
        }
    }

    /// Returns a part of the only box as the part of this one.
    pub(crate) fn part(&self, part: PartId) -> PartId {
        let [inner, outer] = part.of_two_boxes();
        match self.place {
            BoxPlace::Only => part,
            BoxPlace::Inner => inner,
            BoxPlace::Outer => outer,
        }
    }

    /// Tells whether it is too heavy to be lifted over a wall of a height.
    pub(crate) fn too_heavy_over(&self, wall: Length) -> bool {
        self.mass > LIFTED && wall > WALL
    }

    /// Returns what goes in as it is lifted over a wall.
    pub(crate) const fn over(&self, wall: Length) -> Lifted {
        Lifted {
            mass: self.mass,
            over: wall,
            room: self.room,
        }
    }

    pub(crate) fn length(&self, length: Length) -> String {
        self.telling.length(length)
    }
}

/// What is heavier is not lifted over a wall that is higher. Source: packaging engineering practice.
const LIFTED: Mass = Mass::kg(10.0);
const WALL: Length = Length::mm(500.0);
