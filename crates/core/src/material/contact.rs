//! Sheets that may lie against the art.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::MaterialId;
use crate::{
    piece::Medium,
    quantity::{ArealDensity, Length},
};

/// A smooth sheet sold from the roll, and the surfaces that it may touch.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ContactPaper {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Of one sheet.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Of one sheet.
    #[serde(rename = "areal_density_g_m2")]
    pub areal_density: ArealDensity,
    /// Of the roll it is cut from.
    #[serde(rename = "roll_width_mm")]
    pub roll_width: Length,
    /// Of a metre of the roll.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
    /// The surfaces that it may lie against once they are cured.
    pub may_touch: Vec<Medium>,
}
