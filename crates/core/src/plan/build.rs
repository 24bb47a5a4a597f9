//! Building the layers of a plan, each around those inside it.

use super::{recipe::Recipe, wrapped::measure};
use crate::{
    Refusal,
    house::Carriage,
    layer::{Around, Layer, Supplies, kind_of},
    piece::Piece,
    space::{Envelope, LayerSlot},
};

/// The layers of a plan, and what the wrapped piece would have filled where it was measured.
pub(super) struct Built {
    pub layers: Vec<Layer>,
    pub predicted: Option<Envelope>,
}

/// Returns the layers of a plan, from the art outward.
///
/// # Errors
/// A [`Refusal`] for a material that a layer needs and the shelf does not hold, or for a wrapped piece that was
/// measured less than the piece is.
pub(super) fn layers_of(
    piece: &Piece,
    supplies: &Supplies<'_>,
    recipe: &Recipe,
) -> Result<Built, Refusal> {
    around(piece, supplies, recipe, Vec::new())
}

/// Returns the layers of a plan around those that there are.
///
/// # Errors
/// As [`layers_of`].
pub(super) fn around(
    piece: &Piece,
    supplies: &Supplies<'_>,
    recipe: &Recipe,
    mut layers: Vec<Layer>,
) -> Result<Built, Refusal> {
    let mut predicted = None;
    // What is bought takes what goes into it, whatever the tape reads.
    let cut = matches!(recipe.carriage, Carriage::Flat | Carriage::Folio);
    let mut measured = supplies.rules.shipment.wrapped.filter(|_| cut);
    for &slot in recipe.present() {
        // It is measured when the last wrap is on.
        if let Some(measured) = measured.take_if(|_| slot > LayerSlot::Stack) {
            predicted = measure(&mut layers, piece.size, measured, supplies.rules.told_in)?;
        }
        let made = (kind_of(slot).make)(&Around {
            piece,
            supplies,
            carriage: recipe.carriage,
            present: recipe.present(),
            layers: &layers,
        })?;
        layers.extend(made);
    }
    Ok(Built { layers, predicted })
}
