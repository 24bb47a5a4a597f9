//! What is looked at on the bench before the next step, each of which a house may have stop or only shown.

use serde::{Deserialize, Serialize};

/// What is looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LookKind {
    /// Whether the piece is dry and clean.
    Ready,
    /// Tape on the glass.
    GlassTape,
    /// What keeps things off the face.
    Spacer,
    /// The sheet against the art.
    Sheet,
    /// What sits on the corners.
    Corners,
    /// Boards, or what lies between two.
    Boards,
    /// Whether face and top can still be told.
    FaceAndTop,
    /// The wrap.
    Wrap,
    /// A roll.
    Roll,
    /// A sealed bag.
    Bag,
    /// Whether something moves.
    Still,
    /// Whether what goes in is in; it always stops.
    Enclosed,
}

impl LookKind {
    /// Every kind that a house may only show.
    pub const OF_HOUSE: [Self; 11] = [
        Self::Ready,
        Self::GlassTape,
        Self::Spacer,
        Self::Sheet,
        Self::Corners,
        Self::Boards,
        Self::FaceAndTop,
        Self::Wrap,
        Self::Roll,
        Self::Bag,
        Self::Still,
    ];
}
