//! On which side a carton opens that was made for something else.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

use crate::quantity::Length;

/// On which side a carton opens, by the side of the art that lies there.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Hash, Serialize, Deserialize, EnumCount)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Opens {
    /// On its large side: the art is laid in.
    #[default]
    Face,
    /// On a long narrow side, as the carton of a mirror or a monitor: the art slides in.
    EdgeLong,
    /// On a short narrow side.
    EdgeShort,
}

impl Opens {
    /// Every one, the usual one first.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] =
        [Self::Face, Self::EdgeLong, Self::EdgeShort];

    /// Returns how the sides of what goes in lie in the carton: along its opening, across it, and deep. They are given as the longer and
    /// the shorter side of the face, and through.
    #[must_use]
    pub const fn in_carton(self, [long, short, through]: [Length; 3]) -> [Length; 3] {
        match self {
            Self::Face => [long, short, through],
            Self::EdgeLong => [long, through, short],
            Self::EdgeShort => [short, through, long],
        }
    }

    /// Returns how the three ways of a carton, along its opening, across it and deep, lie for what is in it: the longer and the shorter
    /// side of the face, and through.
    #[must_use]
    pub fn around_art<T: Copy>(self, [along, across, deep]: [T; 3]) -> [T; 3] {
        match self {
            Self::Face => [along, across, deep],
            Self::EdgeLong => [along, deep, across],
            Self::EdgeShort => [deep, along, across],
        }
    }

    /// What people say of it, after *opens*.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Face => "on its large side",
            Self::EdgeLong => "on a long edge",
            Self::EdgeShort => "on a short edge",
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_goes_in_lies_as_the_carton_opens_and_back_again() {
        // 800 × 600 × 50: a mirror's carton is 800 along its opening, 50 across it and 600 deep.
        let sides = [800.0, 600.0, 50.0].map(Length::mm);
        assert_eq!(
            Opens::EdgeLong.in_carton(sides),
            [800.0, 50.0, 600.0].map(Length::mm)
        );
        assert_eq!(
            Opens::EdgeShort.in_carton(sides),
            [600.0, 50.0, 800.0].map(Length::mm)
        );
        for opens in Opens::ALL {
            assert_eq!(opens.around_art(opens.in_carton(sides)), sides);
        }
    }
}
