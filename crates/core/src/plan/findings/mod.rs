//! Every finding about a plan, by what it is about.

mod layers;
mod odds;
mod parcel;
mod piece;

pub(crate) use odds::ODDS_PAST_ACCEPTED;

use super::{Finding, Odds, Tally, recipe::Recipe};
use crate::{
    layer::{Layer, Supplies},
    piece::Piece,
    quantity::{Length, show_length},
    space::LayerSlot,
};

/// A plan while it is looked over.
pub(super) struct Looked<'a> {
    pub piece: &'a Piece,
    pub supplies: &'a Supplies<'a>,
    pub recipe: &'a Recipe,
    pub layers: &'a [Layer],
    pub tally: &'a Tally,
    pub odds: &'a Odds,
}

impl Looked<'_> {
    /// Tells a length as the studio measures.
    fn told(&self, length: Length) -> String {
        show_length(length, self.supplies.rules.told_in)
    }

    fn layer(&self, slot: LayerSlot) -> Option<&Layer> {
        self.layers.iter().find(|layer| layer.slot == slot)
    }
}

/// Returns every finding about a plan, the gravest first.
pub(super) fn all(looked: &Looked<'_>) -> Vec<Finding> {
    let mut findings = Vec::new();
    piece::look(looked, &mut findings);
    layers::look(looked, &mut findings);
    odds::look(looked, &mut findings);
    parcel::look(looked, &mut findings);
    findings.sort_by_key(|finding| finding.level);
    findings
}
