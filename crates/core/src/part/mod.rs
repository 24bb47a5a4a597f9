//! What a layer takes off the shelf, part by part.
//!
//! A layer says what it needs, as a [`Need`] of a material in that material's own measure: a piece cut from a sheet, a
//! run of a roll, a volume poured, a thing by count. [`Need::part`] is the one place where any of it is weighed and
//! priced; whoever draws stock, lays out sheets or writes a list reads the same [`Part`]s.

mod ids;
mod need;
mod strips;

pub use ids::{NamedPart, PartId, StripId};
pub(crate) use ids::{by_key, part_and_name};
pub(crate) use need::{CASE, Cut, Doubt, Need, Run, UsedAgain};
pub use strips::Strips;
pub(crate) use strips::{TAB_FOLD, Torn};

use serde::Serialize;

use crate::{
    material::MaterialId,
    quantity::{Area, Length, Mass, Minutes, Money, Volume},
};

/// One part of a layer.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Part {
    /// What it is in its layer.
    #[serde(flatten, serialize_with = "part_and_name")]
    #[cfg_attr(feature = "schema", schema(value_type = NamedPart))]
    pub id: PartId,
    /// What it is made of.
    pub material: MaterialId,
    /// What that is called.
    pub material_name: String,
    /// How many of them, all alike.
    pub count: u32,
    /// What one of them takes.
    #[serde(flatten)]
    pub take: Take,
    /// Of all of them, as they stay in the parcel.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of what all of them use up.
    pub cost: Money,
    /// Whether their material has no price in the studio's money yet: the cost is then 0, and unknown.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub unpriced: bool,
    /// To cut all of them, out of the minutes of their layer.
    #[serde(skip)]
    pub(crate) cutting: Minutes,
}

/// What one part takes off the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Take {
    /// Cut from a sheet.
    Piece {
        /// Across.
        width_mm: Length,
        /// Up.
        height_mm: Length,
        /// Of the sheet.
        thickness_mm: Length,
        /// Of its outline: what stays once slots and corners are out.
        area_m2: Area,
        /// How it may be turned on its sheet.
        grain: Grain,
    },
    /// Torn or cut off a roll.
    Run {
        /// Along the roll.
        length_mm: Length,
        /// Across the roll; `None` if it is used as wide as it comes.
        width_mm: Option<Length>,
        /// Of what stays; nothing for what goes by its length.
        area_m2: Option<Area>,
    },
    /// Poured or crumpled in.
    Loose {
        /// Before it settles.
        volume_m3: Volume,
    },
    /// By the piece.
    Each,
}

impl Take {
    /// Returns the area that stays of one of them, where it is flat.
    #[must_use]
    pub const fn area(self) -> Option<Area> {
        match self {
            Self::Piece { area_m2, .. } => Some(area_m2),
            Self::Run { area_m2, .. } => area_m2,
            Self::Loose { .. } | Self::Each => None,
        }
    }
}

/// How a piece may be turned on the sheet that it is cut from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Grain {
    /// Either way.
    #[default]
    Free,
    /// Its height along the flutes.
    Up,
    /// Its width along the flutes.
    Across,
}
