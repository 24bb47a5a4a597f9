//! Cushion wraps, fill and tape.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::MaterialId;
use crate::quantity::{ArealDensity, Density, Length, LinearDensity};

/// A cushion sold from the roll and wound around the piece.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CushionWrap {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Of one turn, under the light load of the turns around it.
    #[serde(rename = "loaded_thickness_mm")]
    pub loaded_thickness: Length,
    /// Of one turn.
    #[serde(rename = "areal_density_g_m2")]
    pub areal_density: ArealDensity,
    /// Of the roll it is cut from.
    #[serde(rename = "roll_width_mm")]
    pub roll_width: Length,
    /// Of a metre of the roll.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
}

/// A loose fill for the room between the wrapped piece and the box.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fill {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Loose, as it goes in.
    #[serde(rename = "density_kg_m3")]
    pub density: Density,
    /// Of a kilogram.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_kg: Decimal,
}

/// A tape.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Tape {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Of its length.
    #[serde(rename = "linear_density_g_m")]
    pub linear_density: LinearDensity,
    /// Of a metre.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
}
