//! What every material on the shelf records beside its own numbers.

use serde::{Deserialize, Serialize};

use super::MaterialId;

/// Where a material comes from, how much of it is there and whether it is still used.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default)]
pub struct Shelf {
    /// How much is there: sheets, metres, kilograms or pieces, as it is sold; unknown when absent.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub stock: Option<f64>,
    /// Saved from an earlier delivery: it costs nothing, but it weighs.
    #[serde(skip_serializing_if = "is_false")]
    pub reused: bool,
    /// No longer offered; plans that name it keep it.
    #[serde(skip_serializing_if = "is_false")]
    pub retired: bool,
    /// Who sells it.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub supplier: String,
    /// Working days until it comes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lead_days: Option<u32>,
    /// What takes its place when it runs out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub substitute: Option<MaterialId>,
    /// Its price came with the program, and nobody of the studio has looked at it yet.
    #[serde(skip_serializing_if = "is_false")]
    pub to_check: bool,
}

// The signature is what serde asks for.
#[expect(
    clippy::trivially_copy_pass_by_ref,
    reason = "serde hands a reference to the field"
)]
const fn is_false(flag: &bool) -> bool {
    !*flag
}
