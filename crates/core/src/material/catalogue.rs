//! Everything on the shelf, found by its id.

use serde::{Deserialize, Serialize};

use super::{Board, ContactPaper, CushionWrap, Fill, MaterialId, Tape};
use crate::quantity::Currency;

/// The materials that a studio has, with their prices in one currency.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Catalogue {
    /// Of every price in it.
    pub currency: Currency,
    /// Sheets that may lie against the art.
    pub contact_papers: Vec<ContactPaper>,
    /// Boards for faces, corners and boxes.
    pub boards: Vec<Board>,
    /// Cushions that are wound around.
    pub cushion_wraps: Vec<CushionWrap>,
    /// Loose fill.
    pub fills: Vec<Fill>,
    /// Tapes.
    pub tapes: Vec<Tape>,
}

/// A rule or a shipment names a material that the catalogue does not hold.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("the stores hold no {class} called \"{id}\": choose one that is there")]
pub struct MissingMaterial {
    /// What kind of material was looked for.
    pub class: &'static str,
    /// What it was called.
    pub id: MaterialId,
}

/// Declares a look-up by id in one class of the catalogue.
macro_rules! find_in {
    ($(#[$doc:meta])* $find:ident, $class_field:ident, $material:ty, $class:literal) => {
        $(#[$doc])*
        ///
        /// # Errors
        /// [`MissingMaterial`] when there is none of that id.
        pub fn $find(&self, id: &MaterialId) -> Result<&$material, MissingMaterial> {
            self.$class_field
                .iter()
                .find(|material| &material.id == id)
                .ok_or_else(|| MissingMaterial { class: $class, id: id.clone() })
        }
    };
}

impl Catalogue {
    find_in! {
        /// Returns the contact paper of that id.
        contact_paper, contact_papers, ContactPaper, "contact paper"
    }
    find_in! {
        /// Returns the board of that id.
        board, boards, Board, "board"
    }
    find_in! {
        /// Returns the cushion wrap of that id.
        cushion_wrap, cushion_wraps, CushionWrap, "cushion wrap"
    }
    find_in! {
        /// Returns the fill of that id.
        fill, fills, Fill, "fill"
    }
    find_in! {
        /// Returns the tape of that id.
        tape, tapes, Tape, "tape"
    }

    /// Returns the board of that id when it scores and folds.
    ///
    /// # Errors
    /// [`MissingMaterial`] when there is none of that id, or it breaks instead of folding.
    pub fn folding_board(&self, id: &MaterialId) -> Result<&Board, MissingMaterial> {
        self.board(id)
            .ok()
            .filter(|board| board.folds)
            .ok_or_else(|| MissingMaterial {
                class: "board that folds",
                id: id.clone(),
            })
    }
}
