//! Sheets that may lie against the art.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{MaterialId, Shelf};
use crate::{
    piece::Medium,
    quantity::{ArealDensity, Length},
};

/// A smooth sheet sold from the roll, and the surfaces that it may touch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
    /// Where it comes in sheets, as wide as the roll would be: how long they are.
    #[serde(
        rename = "sheet_length_mm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub sheet_length: Option<Length>,
    /// The surfaces that it may lie against once they are cured.
    pub may_touch: Vec<Medium>,
    /// The surfaces that it may lie against when a reason is written; every other one never.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub touch_with_reason: Vec<Medium>,
    /// Whether it is a film of plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Whether a film lets go of what it lies on: coated with silicone, or polyester.
    #[serde(default)]
    pub lets_go: bool,
    /// Whether it scratches acrylic glazing.
    #[serde(default)]
    pub scratches_acrylic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// How strongly a sheet is kept off a surface.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Touch {
    /// It may lie there.
    Allowed,
    /// It may when a reason is written.
    WithReason,
    /// It never may, whatever anybody writes.
    Never,
}

impl ContactPaper {
    /// Returns whether it may lie against a surface.
    ///
    /// A plastic film never touches a bare surface, since it prints its pattern and sticks when it is warm; but one
    /// that is made to let go may lie where it is listed.
    #[must_use]
    pub fn touch(&self, medium: Medium) -> Touch {
        if self.plastic && !self.lets_go {
            Touch::Never
        } else if self.may_touch.contains(&medium) {
            Touch::Allowed
        } else if self.touch_with_reason.contains(&medium) {
            Touch::WithReason
        } else {
            Touch::Never
        }
    }
}
