//! How a piece lies while hands are at it, and where on it a thing comes to lie.

use serde::Serialize;

/// How a piece, or what is bound with it, lies while something is done to it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Pose {
    /// Flat, its face up.
    FaceUp,
    /// Flat, its face down.
    FaceDown,
    /// On an edge.
    Standing,
}

impl Pose {
    /// Returns it as people read it.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::FaceUp => "face up",
            Self::FaceDown => "face down",
            Self::Standing => "on its edge",
        }
    }
}

/// Where on a piece, or on what is bound with it, a thing comes to lie.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Spot {
    /// Over the face.
    Face,
    /// Over the face, its edges folded over onto the back.
    FaceFolded,
    /// On a bare border around the picture.
    Border,
    /// Behind the back.
    Back,
    /// One before the face, one behind the back.
    Both,
    /// On the same board, beside it.
    Beside,
    /// Along its edges.
    Edges,
    /// Over its corners.
    Corners,
    /// All the way round.
    Around,
}
