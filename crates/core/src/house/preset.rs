//! Named sets of rules to start from.

use super::{Choices, Fit, HouseRules, LooseCanvasRule, Padding, rules};
use crate::layer::LayerSlot;

/// A named set of rules.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Preset {
    /// What it is for, in one sentence.
    pub why: &'static str,
    /// The rules, under the preset's name.
    pub rules: HouseRules,
}

impl HouseRules {
    /// Returns the choices with which one shipment follows these rules' schools and layers instead of the
    /// house's own.
    #[must_use]
    pub fn as_choices(&self, house: &Self) -> Choices {
        Choices {
            schools: self.schools.instead_of(house.schools),
            layers: self.layers.clone(),
            ..Choices::default()
        }
    }
}

/// Returns the presets, made from the materials and allowances of a house.
#[must_use]
pub fn presets(house: &HouseRules) -> Vec<Preset> {
    let preset = |name: &str, why, change: fn(&mut HouseRules)| {
        let mut rules = HouseRules {
            name: name.to_owned(),
            layers: std::collections::BTreeMap::new(),
            schools: super::Schools {
                padding: Padding::Standard,
                fit: Fit::Filled,
                ..house.schools
            },
            shipment: rules::ShipmentOnly::default(),
            ..house.clone()
        };
        change(&mut rules);
        Preset { why, rules }
    };
    vec![
        preset(
            "Lean",
            "Thin walls and one wrap for sturdy pieces that go a short way.",
            |rules| {
                rules.schools.padding = Padding::Lean;
                rules.schools.fit = Fit::Snug;
            },
        ),
        preset(
            "Standard",
            "Two wraps, boards and a filled box for most pieces and most journeys.",
            |_| (),
        ),
        preset(
            "Twice boxed",
            "The boxed piece is cushioned again in a second box, for value, distance or sentiment.",
            |rules| {
                rules.layers.insert(LayerSlot::SecondBox, true);
            },
        ),
        preset(
            "Board pair",
            "A further stiff board outside the cushion on both sides, for a rough route.",
            |rules| {
                rules.layers.insert(LayerSlot::OuterBoards, true);
                rules.schools.back_board = super::BackBoard::Always;
            },
        ),
        preset(
            "Rolled",
            "Whatever can be rolled goes in a tube; everything else as Standard.",
            |rules| {
                rules.schools.loose_canvas = LooseCanvasRule::Rolled;
                rules.schools.loose_paper = super::LoosePaperRule::Rolled;
            },
        ),
    ]
}

#[cfg(test)]
mod tests {
    use super::*;

    fn house() -> HouseRules {
        serde_json::from_str(include_str!("../../../../demo/house-rules.json")).expect("rules")
    }

    #[test]
    fn a_preset_for_one_shipment_is_what_the_house_with_that_preset_would_do() {
        let house = house();
        for preset in presets(&house) {
            let choices = preset.rules.as_choices(&house);
            let followed = house.with(&choices).expect("a preset can be followed");
            assert_eq!(
                followed.schools, preset.rules.schools,
                "{}",
                preset.rules.name
            );
            assert_eq!(
                followed.layers, preset.rules.layers,
                "{}",
                preset.rules.name
            );
        }
    }

    #[test]
    fn every_preset_says_what_it_is_for_and_can_stand() {
        for preset in presets(&house()) {
            assert!(preset.why.ends_with('.'));
            assert_eq!(preset.rules.check(), Ok(()));
        }
    }
}
