//! The column of layers as one piece sees it: its own, and those around all.

use super::{
    Detail, SlotState,
    findings::Looked,
    odds::{Asking, Odds},
    recipe::Recipe,
    reference::{Packed, References},
    survival::{Seen, Survival},
    tally::Tally,
    together::Stacked,
};
use crate::{
    Refusal,
    house::{Carriage, HouseRules},
    layer::{Layer, Supplies},
    piece::{Fragility, Piece},
    quantity::{Mass, Weight},
};

/// A piece with every layer around it.
pub(super) struct Column<'a> {
    /// What it is called, where it lies among others.
    pub title: Option<&'a str>,
    piece: &'a Piece,
    supplies: &'a Supplies<'a>,
    recipe: &'a Recipe,
    layers: std::borrow::Cow<'a, [Layer]>,
    /// Of its own layers alone.
    own: usize,
}

/// The parcel that a column is part of.
pub(super) struct Whole<'a> {
    pub tally: &'a Tally,
    /// Of all pieces, bare.
    pub weight: Weight,
    pub stacked: Option<&'a Stacked<'a>>,
}

impl<'a> Column<'a> {
    /// Returns the column of each piece.
    pub(super) fn each(
        piece: &'a Piece,
        supplies: &'a Supplies<'a>,
        recipe: &'a Recipe,
        layers: &'a [Layer],
        stacked: Option<&'a Stacked<'a>>,
    ) -> Vec<Self> {
        let Some(stacked) = stacked else {
            return vec![Self {
                title: None,
                piece,
                supplies,
                recipe,
                layers: layers.into(),
                own: 0,
            }];
        };
        // The first of the layers is the stack itself: a piece sees its own in its place.
        let outer = layers.get(1..).unwrap_or_default();
        let column = |own: &'a super::together::Own<'a>| Self {
            title: Some(&own.among.title),
            piece: &own.among.piece,
            supplies: &own.supplies,
            recipe: &own.recipe,
            layers: own.column(outer).into(),
            own: own.layers.len(),
        };
        stacked.own.iter().map(column).collect()
    }

    const fn carriage(&self) -> Carriage {
        self.recipe.carriage
    }

    /// The one whose piece takes the least.
    pub(super) fn frailest(columns: &[Self]) -> &Self {
        let limit = |column: &Self| {
            let rolled = column.carriage() == Carriage::Rolled;
            Fragility::of(column.piece, rolled).limit
        };
        let breaks = columns.iter().filter(|column| limit(column).is_some());
        breaks
            .min_by_key(|column| limit(column))
            .unwrap_or(&columns[0])
    }

    /// What of all lies inside the cushion but is no layer of this column: the other pieces in theirs.
    fn others(&self, whole: &Whole<'_>) -> Mass {
        let Some(stacked) = whole.stacked else {
            return Mass::ZERO;
        };
        let own: Mass = self.layers[..self.own]
            .iter()
            .map(|layer| layer.weight.mass)
            .sum();
        stacked.mass() - whole.weight.mass - own
    }

    pub(super) fn survival(&self, whole: &Whole<'_>, detail: Detail) -> Survival {
        let seen = Seen {
            piece: self.piece,
            supplies: self.supplies,
            carriage: self.carriage(),
            layers: &self.layers,
            outside: whole.tally.outside,
            parcel: whole.tally.weight.mass,
            piece_mass: whole.weight.mass + self.others(whole),
        };
        match detail.survival {
            true => Survival::of(&seen),
            false => Survival::folded(&seen),
        }
    }

    pub(super) fn odds(&self, references: &References) -> Result<Odds, Refusal> {
        let rules = self.supplies.rules;
        Ok(Odds::of(&Asking {
            piece: self.piece,
            rules,
            carriage: self.carriage(),
            reference: &*references.of(self.piece, self.carriage())?,
            packed: Packed {
                layers: &self.layers,
                supplies: self.supplies,
                wet: rules.way().wet,
            },
        }))
    }

    pub(super) fn looked<'l>(&'l self, tally: &'l Tally, odds: &'l Odds) -> Looked<'l> {
        Looked {
            piece: self.piece,
            supplies: self.supplies,
            recipe: self.recipe,
            layers: &self.layers,
            tally,
            odds,
        }
    }

    /// Returns how every layer stands that there is, or could be, for any of the pieces.
    pub(super) fn states(columns: &[Self], rules: &HouseRules, layers: &[Layer]) -> Vec<SlotState> {
        let mut states = columns[0].recipe.states(columns[0].piece, rules, layers);
        if let [_, others @ ..] = columns {
            for state in &mut states {
                let present =
                    |column: &Self| column.layers.iter().any(|layer| layer.slot == state.slot);
                state.present |= columns.iter().any(present);
            }
            for column in others {
                let theirs = column
                    .recipe
                    .states(column.piece, column.supplies.rules, layers);
                for (state, their) in states.iter_mut().zip(theirs) {
                    if their.free && !state.free {
                        (state.free, state.why) = (true, None);
                    }
                }
            }
        }
        states
    }
}
