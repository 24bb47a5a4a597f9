//! The six sides of a box.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

use super::Addition;
use crate::quantity::Length;

/// A side of a box, seen facing the art.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BoxSide {
    /// Before the face.
    Front,
    /// Behind.
    Back,
    /// Beside the left edge.
    Left,
    /// Beside the right edge.
    Right,
    /// Above.
    Top,
    /// Below.
    Bottom,
}

/// Some of the sides of a box.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct BoxSides([bool; 6]);

impl BoxSide {
    /// Every side.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Front,
        Self::Back,
        Self::Left,
        Self::Right,
        Self::Top,
        Self::Bottom,
    ];
}

impl BoxSide {
    /// Returns the side across from it.
    #[must_use]
    pub const fn opposite(self) -> Self {
        match self {
            Self::Front => Self::Back,
            Self::Back => Self::Front,
            Self::Left => Self::Right,
            Self::Right => Self::Left,
            Self::Top => Self::Bottom,
            Self::Bottom => Self::Top,
        }
    }
}

impl BoxSides {
    /// All six.
    pub const ALL: Self = Self([true; 6]);

    /// Returns those that are named.
    #[must_use]
    pub fn of(named: &[BoxSide]) -> Self {
        Self(BoxSide::ALL.map(|side| named.contains(&side)))
    }

    /// Tells whether a side is among them.
    #[must_use]
    pub const fn has(self, side: BoxSide) -> bool {
        self.0[side as usize]
    }

    /// Returns what a thickness on each of them adds.
    #[must_use]
    pub fn thick(self, thickness: Length) -> Addition {
        let on = |side| {
            if self.has(side) {
                thickness
            } else {
                Length::ZERO
            }
        };
        Addition {
            left: on(BoxSide::Left),
            right: on(BoxSide::Right),
            top: on(BoxSide::Top),
            bottom: on(BoxSide::Bottom),
            front: on(BoxSide::Front),
            back: on(BoxSide::Back),
        }
    }
}
