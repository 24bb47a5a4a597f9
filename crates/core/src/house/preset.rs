//! Named sets of rules to start from.

use std::collections::BTreeMap;

use super::{
    BackBoard, Choices, Fit, HouseRules, LooseCanvasRule, LoosePaperRule, Padding, Schools,
    ShipmentOnly,
};
use crate::{quantity::Telling, space::LayerSlot};

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

/// A preset that comes with the program.
struct BuiltIn {
    name: &'static str,
    why: &'static str,
    change: fn(&mut Schools, &mut BTreeMap<LayerSlot, bool>),
}

const BUILT_IN: [BuiltIn; 5] = [
    BuiltIn {
        name: "Lean",
        why: "Thin walls and one wrap, for sturdy pieces on short routes.",
        change: |schools, _| {
            schools.padding = Padding::Lean;
            schools.fit = Fit::Snug;
        },
    },
    BuiltIn {
        name: "Standard",
        why: "Two wraps, boards and a filled box for most pieces and most journeys.",
        change: |_, _| (),
    },
    BuiltIn {
        name: "Twice boxed",
        why: "A second, cushioned box around the first: for valuable or irreplaceable pieces and long routes.",
        change: |_, layers| {
            layers.insert(LayerSlot::SecondBox, true);
        },
    },
    BuiltIn {
        name: "Board pair",
        why: "Another stiff board outside the cushion on both sides, for rough routes.",
        change: |schools, layers| {
            layers.insert(LayerSlot::OuterBoards, true);
            schools.back_board = BackBoard::Always;
        },
    },
    BuiltIn {
        name: "Rolled",
        why: "Pieces that can be rolled go in a tube; all others as Standard.",
        change: |schools, _| {
            schools.loose_canvas = LooseCanvasRule::Rolled;
            schools.loose_paper = LoosePaperRule::Rolled;
        },
    },
];

impl BuiltIn {
    fn made_of(&self, house: &HouseRules) -> (Schools, BTreeMap<LayerSlot, bool>) {
        let mut schools = Schools {
            padding: Padding::Standard,
            fit: Fit::Filled,
            ..house.schools
        };
        let mut layers = BTreeMap::new();
        (self.change)(&mut schools, &mut layers);
        (schools, layers)
    }
}

/// Returns the presets, made from the materials and allowances of a house.
#[must_use]
pub fn presets(house: &HouseRules) -> Vec<Preset> {
    BUILT_IN
        .iter()
        .map(|preset| {
            let (schools, layers) = preset.made_of(house);
            Preset {
                why: preset.why,
                rules: HouseRules {
                    name: preset.name.to_owned(),
                    schools,
                    layers,
                    shipment: ShipmentOnly::default(),
                    told_in: Telling::default(),
                    ..house.clone()
                },
            }
        })
        .collect()
}

/// Returns the choices with which a shipment starts from a preset by its name: the house's own rules as they
/// stand, one that comes with the program, or one of the studio's own; `None` if there is none of that name.
#[must_use]
pub fn preset_choices(name: &str, house: &HouseRules, own: &[HouseRules]) -> Option<Choices> {
    if name == house.name {
        return Some(Choices::default());
    }
    if let Some(preset) = BUILT_IN.iter().find(|preset| preset.name == name) {
        let (schools, layers) = preset.made_of(house);
        return Some(Choices {
            schools: schools.instead_of(house.schools),
            layers,
            ..Choices::default()
        });
    }
    own.iter()
        .find(|preset| preset.name == name)
        .map(|preset| preset.as_choices(house))
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
    fn a_preset_is_found_by_its_name() {
        let house = house();
        let own = HouseRules {
            name: "Show week".into(),
            layers: [(LayerSlot::Bag, true)].into(),
            ..house.clone()
        };
        let found = |name: &str| preset_choices(name, &house, std::slice::from_ref(&own));
        assert_eq!(found(&house.name), Some(Choices::default()));
        for preset in presets(&house)
            .iter()
            .filter(|preset| preset.rules.name != house.name)
        {
            assert_eq!(
                found(&preset.rules.name),
                Some(preset.rules.as_choices(&house))
            );
        }
        assert_eq!(
            found("Show week"),
            Some(Choices::layer(LayerSlot::Bag, true))
        );
        assert_eq!(found("Nobody's"), None);
    }

    #[test]
    fn every_preset_says_what_it_is_for_and_can_stand() {
        for preset in presets(&house()) {
            assert!(preset.why.ends_with('.'));
            assert_eq!(preset.rules.check(), Ok(()));
        }
    }
}
