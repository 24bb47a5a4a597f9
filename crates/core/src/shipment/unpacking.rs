//! The unpacking guide for whoever gets the parcel: the plan backwards, from the box to the art.

use serde::Serialize;

use crate::{
    layer::{Layer, Make},
    pack::container_of,
    plan::Plan,
    quantity::Telling,
    shipment::ShipmentInputs,
};

/// What is printed for the buyer.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct UnpackingGuide {
    /// The piece, or the first of several.
    pub title: String,
    /// What to know before anything is opened.
    pub before: Vec<String>,
    /// What is taken off, one thing after the other.
    pub steps: Vec<UnpackingStep>,
    /// What to do once it is out.
    pub after: Vec<String>,
}

/// One thing that is opened or taken off.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct UnpackingStep {
    /// Of which piece, where several lie in the box.
    pub piece: Option<String>,
    /// The title.
    pub title: String,
    /// How.
    pub says: String,
}

const BEFORE: [&str; 3] = [
    "Photograph the closed box first, and anything crushed, torn or wet: a claim needs these pictures.",
    "If it comes out of the cold, leave it closed for some hours: a cold piece gathers damp.",
    "Lay it flat on a clean table or bed, the side marked as the face up. Keep liquids away.",
];
const AFTER: [&str; 3] = [
    "Check the face, edges and corners in good light. If something is wrong, photograph it first, and tell us the same day.",
    "Keep the box and all packing until you are sure: the carrier may ask to see them.",
    "Afterwards reuse the box and padding, or recycle them.",
];

impl UnpackingGuide {
    /// Returns the guide of a plan.
    #[must_use]
    pub fn of(plan: &Plan, inputs: &ShipmentInputs) -> Self {
        let mut steps = Vec::new();
        let mut take_off = |layers: &[Layer], piece: Option<&str>| {
            for layer in layers.iter().rev() {
                // It is opened alike whatever lies in it, and without a measure.
                if let Some(container) = container_of(plan, layer, &[], Telling::default()) {
                    let says: Vec<&str> =
                        container.open.iter().map(|act| act.says.as_str()).collect();
                    steps.push(UnpackingStep {
                        piece: piece.map(str::to_owned),
                        title: container.titles.open.clone(),
                        says: says.join(" "),
                    });
                    continue;
                }
                let Some(undone) = layer.handling().undone else {
                    continue;
                };
                let title = match &layer.make {
                    Make::Enclosures(enclosures) => {
                        let names = enclosures.list.iter().map(|one| one.enclosure.called());
                        format!("{}: {}", undone.title, names.collect::<Vec<_>>().join(", "))
                    }
                    _ => undone.title.to_owned(),
                };
                steps.push(UnpackingStep {
                    piece: piece.map(str::to_owned),
                    title,
                    says: undone.says.to_owned(),
                });
            }
        };
        take_off(&plan.layers, None);
        if let Some(stack) = &plan.stack {
            // The front of the box is up: what lies there comes out first.
            for place in &stack.order {
                let piece = stack.pieces.iter().find(|piece| piece.key == place.key);
                if let Some(piece) = piece {
                    take_off(&piece.layers, Some(&piece.title));
                }
            }
        }
        let mut before: Vec<String> = BEFORE.map(str::to_owned).to_vec();
        if let Some(stack) = &plan.stack {
            let titles: Vec<&str> = stack
                .pieces
                .iter()
                .map(|piece| piece.title.as_str())
                .collect();
            before.push(format!(
                "The box holds {} pieces: {}. Take them out one at a time, and lay each down before the next.",
                titles.len(),
                titles.join(", ")
            ));
        }
        Self {
            title: inputs.title_of(crate::plan::FIRST),
            before,
            steps,
            after: AFTER.map(str::to_owned).to_vec(),
        }
    }
}
