//! How something gets into a box: through which side, and what a hand still reaches once it is in.

use serde::Serialize;
use strum::EnumCount;

use crate::{
    house::CartonStyle,
    space::{BoxSide, Direction},
};

/// How something gets into a box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, EnumCount)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WayIn {
    /// It slides through a long edge and stands in the box.
    Edge,
    /// It slides through a short edge and stands in the box, on the other one.
    ShortEdge,
    /// It is laid through the face, on its back.
    Face,
    /// It is laid face down on the open blank, whose walls are folded up around it.
    Blank,
    /// It slides into one half, and the other half is pushed over it.
    Halves,
    /// It is pushed into one end of a mailer or a tube.
    End,
}

impl WayIn {
    /// Every way.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Edge,
        Self::ShortEdge,
        Self::Face,
        Self::Blank,
        Self::Halves,
        Self::End,
    ];

    /// Returns the side that is open while something goes in, where the long side of the art lies that way; the long edge that a
    /// box opens on runs along it.
    #[must_use]
    pub const fn opening(self, long_way: Direction) -> BoxSide {
        match (self, long_way) {
            (Self::Face, _) => BoxSide::Front,
            (Self::Blank, _) => BoxSide::Back,
            (Self::Edge, Direction::Up)
            | (Self::ShortEdge | Self::Halves | Self::End, Direction::Across) => BoxSide::Right,
            (Self::Edge, Direction::Across)
            | (Self::ShortEdge | Self::Halves | Self::End, Direction::Up) => BoxSide::Top,
        }
    }

    /// Tells whether the box has walls before something lies in it.
    #[must_use]
    pub const fn has_walls(self) -> bool {
        !matches!(self, Self::Blank)
    }

    /// Tells whether a hand reaches the gap on a side once something lies in the box.
    ///
    /// The side that is open, always; the narrow sides of a box that is open over the whole face, since they are no deeper than
    /// what lies there; of a box that is open on an edge, neither the floor nor a gap as narrow as it is long.
    #[must_use]
    pub fn reaches(self, side: BoxSide, long_way: Direction) -> bool {
        let opening = self.opening(long_way);
        side == opening
            || match self {
                Self::Face | Self::Blank => side != opening.opposite(),
                Self::End => true,
                Self::Edge | Self::ShortEdge | Self::Halves => false,
            }
    }
}

impl CartonStyle {
    /// Returns how something gets into a box of this style.
    #[must_use]
    pub const fn way_in(self) -> WayIn {
        match self {
            Self::SlottedEdge => WayIn::Edge,
            Self::SlottedFace | Self::TrayAndLid | Self::TrayAndTray | Self::SlitTray => {
                WayIn::Face
            }
            Self::Folder | Self::FolderLapped => WayIn::Blank,
            Self::Telescope => WayIn::Halves,
        }
    }

    /// Tells whether its lid is measured from the folded tray, and cut after it.
    #[must_use]
    pub const fn lid_follows(self) -> bool {
        match self {
            Self::TrayAndLid | Self::TrayAndTray | Self::SlitTray => true,
            Self::SlottedEdge
            | Self::SlottedFace
            | Self::Folder
            | Self::FolderLapped
            | Self::Telescope => false,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_can_be_reached_follows_from_the_open_side() {
        use BoxSide::{Back, Bottom, Front, Left, Right, Top};
        let reached = |way: WayIn, long_way| -> Vec<BoxSide> {
            BoxSide::ALL
                .into_iter()
                .filter(|side| way.reaches(*side, long_way))
                .collect()
        };
        // A portrait goes in through its right edge, a landscape from above; only that gap is open afterwards.
        assert_eq!(reached(WayIn::Edge, Direction::Up), [Right]);
        assert_eq!(reached(WayIn::Edge, Direction::Across), [Top]);
        assert_eq!(reached(WayIn::Halves, Direction::Up), [Top]);
        // Through the face all but what is under it, face up in a tray and face down on a blank.
        assert_eq!(
            reached(WayIn::Face, Direction::Up),
            [Front, Left, Right, Top, Bottom]
        );
        assert_eq!(
            reached(WayIn::Blank, Direction::Up),
            [Back, Left, Right, Top, Bottom]
        );
    }
}
