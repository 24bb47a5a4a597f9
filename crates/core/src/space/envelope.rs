//! What a piece and its layers fill, and what a layer adds to it.

use serde::{Deserialize, Serialize};

use crate::quantity::{Area, Length, Volume};

/// A block of space along the axes of a parcel: across and up as the piece hangs, through from its face
/// to its back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Envelope {
    /// Along the width as hung.
    #[serde(rename = "across_mm")]
    pub across: Length,
    /// Along the height as hung.
    #[serde(rename = "up_mm")]
    pub up: Length,
    /// From face to back.
    #[serde(rename = "through_mm")]
    pub through: Length,
}

impl Envelope {
    /// Returns the envelope that a layer makes of it.
    #[must_use]
    pub fn grown(self, adds: Addition) -> Self {
        Self {
            across: self.across + adds.left + adds.right,
            up: self.up + adds.top + adds.bottom,
            through: self.through + adds.front + adds.back,
        }
    }

    /// Tells whether another envelope goes into it, touching at most.
    #[must_use]
    pub fn holds(self, other: Self) -> bool {
        self.across >= other.across && self.up >= other.up && self.through >= other.through
    }

    /// Returns the longer side of the face.
    #[must_use]
    pub const fn long_side(self) -> Length {
        self.across.max(self.up)
    }

    /// Returns the area of the face.
    #[must_use]
    pub fn face(self) -> Area {
        self.across * self.up
    }

    /// Returns the area of its six sides.
    #[must_use]
    pub fn surface(self) -> Area {
        (self.face() + self.across * self.through + self.up * self.through) * 2.0
    }

    /// Returns it moved on each axis as far as one envelope is from another.
    #[must_use]
    pub fn shifted(self, from: Self, to: Self) -> Self {
        Self {
            across: self.across + to.across - from.across,
            up: self.up + to.up - from.up,
            through: self.through + to.through - from.through,
        }
    }

    /// Returns how much space it fills.
    #[must_use]
    pub fn volume(self) -> Volume {
        self.face() * self.through
    }
}

/// What a layer adds on each of the six sides, seen facing the art.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Addition {
    /// Beside the left edge.
    #[serde(rename = "left_mm")]
    pub left: Length,
    /// Beside the right edge.
    #[serde(rename = "right_mm")]
    pub right: Length,
    /// Above the top edge.
    #[serde(rename = "top_mm")]
    pub top: Length,
    /// Below the bottom edge.
    #[serde(rename = "bottom_mm")]
    pub bottom: Length,
    /// Before the face.
    #[serde(rename = "front_mm")]
    pub front: Length,
    /// Behind the back.
    #[serde(rename = "back_mm")]
    pub back: Length,
}

impl Addition {
    /// Makes it from what is added at each end across, each end up, in front and behind.
    #[must_use]
    pub const fn new(across: Length, up: Length, front: Length, back: Length) -> Self {
        Self {
            left: across,
            right: across,
            top: up,
            bottom: up,
            front,
            back,
        }
    }

    /// Returns what is added on each of the six sides.
    #[must_use]
    pub const fn sides(self) -> [Length; 6] {
        [
            self.left,
            self.right,
            self.top,
            self.bottom,
            self.front,
            self.back,
        ]
    }

    /// Returns what is added on the side where it is most.
    #[must_use]
    pub fn widest(self) -> Length {
        self.sides().into_iter().max().unwrap_or_default()
    }

    /// Tells whether it takes nothing away on any side.
    #[must_use]
    pub fn is_growth(self) -> bool {
        self.sides().into_iter().all(|side| side >= Length::ZERO)
    }
}

impl std::ops::Add for Addition {
    type Output = Self;

    fn add(self, other: Self) -> Self {
        Self {
            left: self.left + other.left,
            right: self.right + other.right,
            top: self.top + other.top,
            bottom: self.bottom + other.bottom,
            front: self.front + other.front,
            back: self.back + other.back,
        }
    }
}
