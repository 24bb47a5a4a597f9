//! Every finding about a plan, by what it is about.

mod layers;
mod parcel;
mod piece;
mod survival;

use super::{Finding, Survival, Tally, recipe::Recipe};
use crate::{
    house::Choices,
    layer::{Layer, LayerSlot, Supplies},
    piece::Piece,
    quantity::{Area, Length},
};

/// A plan while it is looked over.
pub(super) struct Looked<'a> {
    pub piece: &'a Piece,
    pub supplies: &'a Supplies<'a>,
    pub recipe: &'a Recipe,
    pub layers: &'a [Layer],
    pub tally: &'a Tally,
    pub survival: &'a Survival,
}

impl Looked<'_> {
    /// Tells whether choices would leave the pads and blocks as they are.
    fn already(&self, choices: &Choices) -> bool {
        let rules = self.supplies.rules;
        let (shipment, allowances) = (&rules.shipment, &rules.allowances);
        let mm = |text: &Option<String>| text.as_deref()?.strip_suffix(" mm")?.parse::<f64>().ok();
        let same = |wanted: Option<f64>, there: Option<Length>| {
            wanted.is_none_or(|wanted| {
                there.is_some_and(|there| (there.as_mm() - wanted).abs() < 0.01)
            })
        };
        let cm2 = |area: Area| area.as_m2() * 1e4;
        choices.layers.keys().all(|&slot| self.recipe.has(slot))
            && choices
                .pad_foam
                .as_ref()
                .is_none_or(|foam| *foam == rules.materials.pad_foam)
            && same(mm(&choices.pad_thickness), Some(allowances.pad_thickness))
            && same(
                mm(&choices.block_thickness),
                Some(allowances.block_thickness),
            )
            && same(mm(&choices.block_leg), shipment.block_leg)
            && choices.pad_area_cm2.is_none_or(|area| {
                shipment
                    .pad_area
                    .is_some_and(|there| (cm2(there) - area).abs() < 0.5)
            })
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
    survival::look(looked, &mut findings);
    parcel::look(looked, &mut findings);
    findings.sort_by_key(|finding| finding.level);
    findings
}
