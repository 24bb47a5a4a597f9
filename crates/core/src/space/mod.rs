//! Where things are in a parcel: its axes and sides, what fills it, and the places of its layers.
//!
//! Everything above stands on it, layers, boxes and the rules of the house, and it on nothing but lengths.

mod direction;
mod envelope;
mod opens;
mod sides;
mod slot;

pub use direction::Direction;
pub use envelope::{Addition, Envelope};
pub use opens::Opens;
pub use sides::{BoxSide, BoxSides};
pub use slot::LayerSlot;
