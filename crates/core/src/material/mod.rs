//! The catalogue: what is on the shelf, what it weighs and what it costs.

mod board;
mod catalogue;
mod class;
mod contact;
mod kept_case;
mod piece_goods;
mod shelf;
mod soft;
mod strength;
mod tape;

pub use board::{Board, BoardBuild, Sheet, puncture_of_wall};
pub use catalogue::{Catalogue, MaterialPrice, MissingMaterial};
pub use class::MaterialClass;
pub use contact::{ContactPaper, Touch};
pub use kept_case::KeptCase;
pub use piece_goods::{
    Batten, Kit, Mailer, PictureCarton, RollCore, SlipOnCorner, Sundry, Tube, Use,
};
pub use shelf::Shelf;
pub use soft::{CushionWrap, Fill, Film, Foam, FoamSheet};
pub use strength::Carries;
pub use tape::{Ground, Tape, TapeRefused};

use serde::{Deserialize, Serialize};

/// The name by which house rules and shipments refer to a material, as `corrugated-c`.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "schema", schema(value_type = String, example = "corrugated-c"))]
#[serde(transparent)]
pub struct MaterialId(String);

impl MaterialId {
    /// Makes it from its text.
    #[must_use]
    pub fn new(id: impl Into<String>) -> Self {
        Self(id.into())
    }

    /// Returns its text.
    #[must_use]
    pub fn as_str(&self) -> &str {
        &self.0
    }
}

impl std::fmt::Display for MaterialId {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str(&self.0)
    }
}
