//! Layers: each takes the envelope of what lies inside it to a larger one, and says what it adds.
//!
//! The modules beside this one hold one kind each: its formula, worked numbers, and how it becomes a
//! [`Layer`] with mass, cost, minutes and the reason why it is there.

mod contact;
mod corner;
mod envelope;
mod face_board;
mod fill;
mod roll_size;
mod supplies;
mod wrap;

pub use contact::ContactSheet;
pub use corner::CardPocket;
pub use envelope::{Addition, Envelope};
pub use face_board::FaceBoards;
pub use fill::EdgeFill;
pub use roll_size::{RollSize, TUBE_PLAY};
pub use supplies::Supplies;
pub use wrap::{Direction, Winding, WrapStrip};

pub(crate) use supplies::Making;

use serde::Serialize;

use crate::{
    carton::SlottedBox,
    material::MaterialId,
    quantity::{Area, Length, Minutes, Money, Weight},
};

/// One layer of a plan.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Layer {
    /// What it is made of.
    pub material: MaterialId,
    /// What that is called.
    pub material_name: String,
    /// What it adds on each side.
    pub adds: Addition,
    /// What it and everything inside it fills.
    pub envelope: Envelope,
    /// Of the material that stays in the parcel.
    #[serde(rename = "area_m2")]
    pub area: Area,
    /// Of tape.
    #[serde(rename = "tape_mm")]
    pub tape: Length,
    /// With its tape.
    pub weight: Weight,
    /// Of the material that it uses up, with its tape.
    pub cost: Money,
    /// To make and set it.
    pub minutes: Minutes,
    /// Why it is there.
    pub why: &'static str,
    /// Its own dimensions.
    pub make: Make,
}

/// The kind of a layer, with the dimensions to cut it by.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Make {
    /// A sheet against the art.
    ContactSheet(ContactSheet),
    /// Four folded corner pockets.
    CardPockets(CardPocket),
    /// Boards in front and behind.
    FaceBoards(FaceBoards),
    /// A cushion wound around.
    Wrap(WrapStrip),
    /// Fill at the edges and behind.
    EdgeFill(EdgeFill),
    /// The box.
    SlottedBox(SlottedBox),
}
