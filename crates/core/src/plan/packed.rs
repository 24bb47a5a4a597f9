//! A piece, or several, packed: its layers and their sums, before anything is said of them.

use super::{
    Odds, References, Tally, Together,
    build::Built,
    built,
    column::{Column, Whole},
    hands,
    recipe::Recipe,
    together::Stacked,
};
use crate::{
    Refusal,
    layer::{Layer, Supplies},
    piece::Piece,
    quantity::Weight,
    space::{Envelope, LayerSlot},
};

/// What is packed.
pub(super) struct Packed<'a> {
    pub recipe: Recipe,
    pub layers: Vec<Layer>,
    /// What the wrapped piece would have filled where it was measured.
    pub predicted: Option<Envelope>,
    pub stacked: Option<Stacked<'a>>,
    pub piece_weight: Weight,
    pub tally: Tally,
}

impl<'a> Packed<'a> {
    /// Packs a piece, or several together.
    ///
    /// # Errors
    /// A [`Refusal`] where a layer can't be made.
    pub(super) fn of(
        piece: &Piece,
        together: Option<&'a Together>,
        supplies: &Supplies<'a>,
        references: &References,
    ) -> Result<Self, Refusal> {
        let rules = supplies.rules;
        let (
            recipe,
            Built {
                mut layers,
                predicted,
            },
            stacked,
        ) = built(piece, together, supplies, references)?;
        let piece_weight = match &stacked {
            Some(stacked) => stacked.weight(),
            None => piece.weight(rules.allowances.piece_doubt),
        };
        hands::count_both(&mut layers, piece_weight, &rules.allowances);
        let tally = Tally::of(piece_weight, &layers, rules, &supplies.catalogue.currency);
        Ok(Self {
            recipe,
            layers,
            predicted,
            stacked,
            piece_weight,
            tally,
        })
    }

    /// Returns all of it, as each of its pieces is seen in it.
    pub(super) const fn whole(&self) -> Whole<'_> {
        Whole {
            tally: &self.tally,
            weight: self.piece_weight,
            stacked: self.stacked.as_ref(),
        }
    }

    /// Returns each of its pieces in its own layers and those around all, with its odds.
    ///
    /// # Errors
    /// A [`Refusal`] where what a piece is compared with can't be made.
    pub(super) fn odds<'l>(
        &'l self,
        piece: &'l Piece,
        supplies: &'l Supplies<'_>,
        references: &References,
    ) -> Result<(Vec<Column<'l>>, Vec<Odds>), Refusal> {
        let stacked = self.stacked.as_ref();
        let columns = Column::each(piece, supplies, &self.recipe, &self.layers, stacked);
        let each: Result<Vec<Odds>, Refusal> = columns
            .iter()
            .map(|column| column.odds(references))
            .collect();
        let each = each?;
        Ok((columns, each))
    }

    /// Tells whether it goes in two boxes.
    pub(super) fn is_twice_boxed(&self) -> bool {
        self.layers
            .iter()
            .any(|layer| layer.slot == LayerSlot::SecondBox)
    }
}
