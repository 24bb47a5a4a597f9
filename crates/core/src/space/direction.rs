//! The two ways across a face.

use serde::{Deserialize, Serialize};

/// Which way a wrap runs around the piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Direction {
    /// Over the top and bottom edges.
    Up,
    /// Over the left and right edges.
    Across,
}

impl Direction {
    /// Returns the direction at right angles.
    #[must_use]
    pub const fn turned(self) -> Self {
        match self {
            Self::Up => Self::Across,
            Self::Across => Self::Up,
        }
    }
}
