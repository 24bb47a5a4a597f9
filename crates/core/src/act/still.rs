//! A still: how everything lies once a step is done.

use serde::Serialize;

use super::{MovePicture, Pose, Spot};
use crate::part::PartId;

/// What holds a thing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Held {
    /// Nothing: it lies there.
    Lies,
    /// Its folds, while it is turned over once.
    Folded,
    /// A hand.
    ByHand,
    /// Tape, glue, screws, or what it is pushed over.
    Fixed,
    /// What closes around it.
    Within,
}

/// A thing that lies on the piece.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StillThing {
    /// The part.
    #[serde(flatten, serialize_with = "crate::part::part_and_name")]
    #[cfg_attr(feature = "schema", schema(value_type = crate::part::NamedPart))]
    pub part: PartId,
    /// Where on the piece it lies.
    pub at: Spot,
    /// What holds it.
    pub held: Held,
}

/// How far a box is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Stands {
    /// It is ready, and empty.
    Ready,
    /// Something lies in it.
    Loaded,
    /// It is closed.
    Closed,
    /// It is sealed.
    Sealed,
}

/// A box around the piece.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StillBox {
    /// Its place in the order of the layers, as `box` or `second_box`.
    pub slot: String,
    /// How far it is.
    pub stands: Stands,
}

/// How everything lies once a step is done.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Still {
    /// How the piece lies.
    pub lies: Pose,
    /// What lies on it, from the inside outward.
    pub things: Vec<StillThing>,
    /// The boxes around it, from the inside outward.
    pub boxes: Vec<StillBox>,
    /// The same as a section from its side, not to scale.
    pub picture: MovePicture,
}
