//! How a box may be made, as a studio or a shipment chooses it.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

/// How a box is cut from board.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    PartialOrd,
    Ord,
    Hash,
    Default,
    Serialize,
    Deserialize,
    EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CartonStyle {
    /// Slotted, opening on an edge.
    #[default]
    SlottedEdge,
    /// Slotted, opening on the face.
    SlottedFace,
    /// A scored tray and the flat lid on it.
    TrayAndLid,
    /// Wrapped around, its half lids meeting.
    Folder,
    /// Wrapped around, its half lids lapping each other.
    FolderLapped,
    /// A scored tray, and a shallow tray over it as a lid.
    TrayAndTray,
    /// A tray of foam board, slit and folded, and the flat lid on it.
    SlitTray,
    /// Two halves that slide into each other along the length.
    Telescope,
}

/// What is cut of a carton that the studio has, where it is larger than what goes in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SavedCut {
    /// Its depth; what it has over in length is filled.
    #[default]
    Depth,
    /// Its length as well.
    LengthToo,
}

/// Which face of a carton that the studio has is outside.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SavedFace {
    /// The one that was.
    #[default]
    AsItWas,
    /// The inner one, so that nothing that is printed on it is read: its joint is opened, and taped anew.
    InsideOut,
}
