//! The house rules as one versioned structure.

use serde::{Deserialize, Serialize};

use super::{Allowances, Choices};
use crate::{Refusal, material::MaterialId, quantity::Length};

/// Which pieces get a board behind as well as in front.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BackBoard {
    /// Stretched canvas only: its back is as soft as its face.
    #[default]
    Canvas,
    /// Every piece.
    Always,
    /// None.
    Never,
}

/// The materials that a plan takes unless a shipment says otherwise.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HouseMaterials {
    /// Against the art, where its medium allows.
    pub contact_paper: MaterialId,
    /// Over glass.
    pub glazing_paper: MaterialId,
    /// Folded into corner pockets.
    pub pocket_board: MaterialId,
    /// In front, and behind where the rule says so.
    pub face_board: MaterialId,
    /// Wound around.
    pub cushion_wrap: MaterialId,
    /// At the edges and behind.
    pub fill: MaterialId,
    /// Of the box.
    pub box_board: MaterialId,
    /// Inside, on paper and card.
    pub inner_tape: MaterialId,
    /// On the wrap.
    pub wrap_tape: MaterialId,
    /// On the box.
    pub seal_tape: MaterialId,
}

/// What a studio has settled for every plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HouseRules {
    /// What the studio calls this set.
    pub name: String,
    /// Counts up with every change; a stored plan names the version that it followed.
    pub version: u32,
    /// Every allowance.
    #[serde(default)]
    pub allowances: Allowances,
    /// Which pieces get a board behind.
    #[serde(default)]
    pub back_board: BackBoard,
    /// What is taken from the shelf.
    pub materials: HouseMaterials,
    /// A leg that a shipment has set for its pockets in place of the share of the short side.
    #[serde(default, skip)]
    pub pocket_leg: Option<Length>,
}

impl HouseRules {
    /// Returns these rules with what a shipment has chosen otherwise.
    ///
    /// # Errors
    /// A [`Refusal`] for each choice that is out of the range of its allowance.
    pub fn with(&self, choices: &Choices) -> Result<Self, Vec<Refusal>> {
        choices.applied_to(self)
    }
}
