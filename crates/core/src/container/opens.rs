//! How something gets into a carton by the side on which it opens.

use super::WayIn;
use crate::{house::CartonStyle, space::Opens};

impl Opens {
    /// Returns how something gets in.
    #[must_use]
    pub const fn way_in(self) -> WayIn {
        match self {
            Self::Face => WayIn::Face,
            Self::EdgeLong => WayIn::Edge,
            Self::EdgeShort => WayIn::ShortEdge,
        }
    }

    /// Returns the style of box that bears like it.
    #[must_use]
    pub const fn bears_as(self) -> CartonStyle {
        match self {
            Self::Face => CartonStyle::SlottedFace,
            Self::EdgeLong | Self::EdgeShort => CartonStyle::SlottedEdge,
        }
    }
}
