//! Named sets of rules to start from.

use super::{Fit, HouseRules, LooseCanvasRule, Padding, rules};
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
