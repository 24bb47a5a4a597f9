//! Building the layers of a plan, each around those inside it.

use super::recipe::Recipe;
use crate::{
    Refusal,
    layer::{Around, Layer, Supplies, kind_of},
    piece::Piece,
};

/// Returns the layers of a plan, from the art outward.
///
/// # Errors
/// A [`Refusal`] for a material that a layer needs and the shelf does not hold.
pub(super) fn layers_of(
    piece: &Piece,
    supplies: &Supplies<'_>,
    recipe: &Recipe,
) -> Result<Vec<Layer>, Refusal> {
    let mut layers = Vec::with_capacity(recipe.present().len());
    for &slot in recipe.present() {
        let made = (kind_of(slot).make)(&Around {
            piece,
            supplies,
            carriage: recipe.carriage,
            present: recipe.present(),
            layers: &layers,
        })?;
        layers.extend(made);
    }
    Ok(layers)
}
