//! What is bought and used by the piece: slip-on corners, tags, sachets and tubes.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{MaterialId, Shelf};
use crate::quantity::{Length, LinearDensity, Mass};

/// A bought corner that slips on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SlipOnCorner {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// The thinnest piece that it holds.
    #[serde(rename = "depth_from_mm")]
    pub depth_from: Length,
    /// The thickest piece that goes in.
    #[serde(rename = "depth_to_mm")]
    pub depth_to: Length,
    /// How far it reaches along each edge.
    #[serde(rename = "leg_mm")]
    pub leg: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// Of one.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of one.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

impl SlipOnCorner {
    /// Tells whether a depth goes in and is held.
    #[must_use]
    pub fn fits(&self, depth: Length) -> bool {
        (self.depth_from..=self.depth_to).contains(&depth)
    }
}

/// What a thing used by the piece is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Use {
    /// Says which piece it is, and which side is the face and the top.
    NameTag,
    /// Keeps a sealed bag dry.
    Desiccant,
    /// Asks for care.
    Label,
}

/// A small thing used by the piece.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Sundry {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// What it is for.
    #[serde(rename = "use")]
    pub purpose: Use,
    /// Of one.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Of one.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of one.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A round tube, cut to length.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Tube {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Clear inside.
    #[serde(rename = "inside_mm")]
    pub inside: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// The longest that it is sold in.
    #[serde(rename = "longest_mm")]
    pub longest: Length,
    /// Of its length.
    #[serde(rename = "linear_density_g_m")]
    pub linear_density: LinearDensity,
    /// Of a metre.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}
