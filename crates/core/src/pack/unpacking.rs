//! The unpacking guide for whoever gets the parcel: the plan backwards, from the box to the art.

use serde::Serialize;

use crate::{
    layer::{Layer, Make},
    plan::Plan,
    shipment::ShipmentInputs,
    space::LayerSlot,
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
    /// What.
    pub title: String,
    /// How.
    pub says: String,
}

const BEFORE: [&str; 3] = [
    "Photograph the closed box first, with whatever is crushed, torn or wet: a claim stands on it.",
    "Out of the cold, leave it closed for some hours: what is cold gathers damp when it is opened.",
    "Lay it flat on a clean table or bed, the side that is marked as the face up, and keep liquids away.",
];
const AFTER: [&str; 3] = [
    "Look at face, edges and corners in good light. Is something wrong, photograph it before you move on, and tell us the same day.",
    "Keep the box and everything that was in it until you are sure: a carrier asks to see them.",
    "Afterwards the box and its padding serve once more, or go to paper and plastic where you live.",
];

impl UnpackingGuide {
    /// Returns the guide of a plan.
    #[must_use]
    pub fn of(plan: &Plan, inputs: &ShipmentInputs) -> Self {
        let mut steps = Vec::new();
        let mut take_off = |layers: &[Layer], piece: Option<&str>| {
            for layer in layers.iter().rev() {
                let Some((title, says)) = undone(layer) else {
                    continue;
                };
                steps.push(UnpackingStep {
                    piece: piece.map(str::to_owned),
                    title,
                    says: says.to_owned(),
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
                "In it are {} pieces: {}. Take one out at a time, and lay it down before the next.",
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

/// What is opened or taken off of a layer, and how; nothing for what comes off with another.
fn undone(layer: &Layer) -> Option<(String, &'static str)> {
    let (title, says) = match &layer.make {
        Make::OuterPaper(_) => (
            "Outer paper",
            "Slit it along an edge of the box, only as deep as the paper.",
        ),
        Make::SlottedBox(_) | Make::CutBox(_) | Make::SavedBox(_) | Make::BoughtBox(_) => {
            let inner = layer.slot == LayerSlot::Box;
            let title = if inner { "Box" } else { "Outer box" };
            let says = if inner {
                "Slit the tape along its seams, the blade just through it: padding lies right behind the board. Open it wide before you lift anything out."
            } else {
                "Slit the tape along its seams, take the padding out, and lift the box inside out with both arms."
            };
            (title, says)
        }
        Make::Mailer(_) => (
            "Mailer",
            "Pull the strip or lift the flap, and slide out what lies between the boards; don't bend it.",
        ),
        Make::Tube(_) => (
            "Tube",
            "Take the cap and the pad off one end, and slide the roll out by its paper; never pull at one corner.",
        ),
        Make::EdgeFill(_) | Make::PaperRolls(_) | Make::CardSprings(_) | Make::Skirt(_) => (
            "Filling",
            "Take it out at the edges, until your hands reach under the piece.",
        ),
        Make::PaddingSheets(_) => (
            "Flat padding",
            "It lies behind; it comes out with the piece.",
        ),
        Make::FacePads(_) | Make::EdgePads(_) | Make::CornerBlocks(_) => (
            "Foam",
            "Peel the tape by its tabs, and lift the foam off; nothing is glued to the piece.",
        ),
        Make::Wrap(_) => (
            match layer.slot {
                LayerSlot::FirstWrap => "Wrap",
                LayerSlot::InsetWrap => "Wrap between the ends",
                _ => "Outer wrap",
            },
            "Find the end of the tape: it is folded to a tab. Peel it and unwind; don't cut into the wrap.",
        ),
        Make::StretchFilm(_) => ("Film", "Slit it at an edge, never over the face."),
        Make::SealedBag(_) => (
            "Bag",
            "Cut it open along its seal, beside the piece, and take the sachets out; they are not to be eaten.",
        ),
        Make::FaceBoards(_) => (
            "Boards",
            "Lay it face up. Peel the tape that binds them at the edges, and lift the board straight off the face; don't slide it.",
        ),
        Make::LaidTogether(_) => (
            "Pieces bound together",
            "Cut the bands of tape at the edges. Lift off one piece, then what lies under it: a board, foam or padding.",
        ),
        Make::Bundle(_) => (
            "Bundle",
            "Cut the bands at the edges, and lift the pieces off one by one, with what lies between.",
        ),
        Make::BackFill(_) => (
            "Pad behind",
            "It lies loose in the hollow behind: take it out before you hang the piece.",
        ),
        Make::CardPockets(_) | Make::SlipOns(_) => (
            "Corners",
            "They are taped to each other across the back, not to the piece: peel that by its tabs, and pull each straight off.",
        ),
        Make::Folio(_) => (
            "Two boards",
            "Peel the tape along one long side and open them like a book. Paper corners hold the sheet: push them off, don't pull the sheet.",
        ),
        Make::Roll(_) => (
            "Roll",
            "Open the band, not with a blade, and unroll it face up on a clean table. Lay something soft on its corners, and leave it a day.",
        ),
        Make::ContactSheet(_) | Make::Interleaves(_) => (
            "Sheet over the face",
            "It is taped on the back only, by a tab. Fold it open and lift it straight off the face; don't drag it.",
        ),
        Make::WindowSpacer(_) => (
            "Strips around the face",
            "They keep everything off the face: peel them from the edges, and touch nothing in between.",
        ),
        Make::GlassTape(_) => (
            "Tape on the glass",
            "Peel it slowly, folded flat back over itself. Is the glass broken, leave the tape on and tell us.",
        ),
        Make::Enclosures(enclosures) => {
            let names: Vec<&str> = enclosures
                .list
                .iter()
                .map(|one| one.enclosure.called())
                .collect();
            return Some((
                format!("Look for: {}", names.join(", ")),
                "It lies here: take it out before you throw any padding away.",
            ));
        }
        Make::Lining(_) | Make::NameTag(_) | Make::Marks(_) => return None,
    };
    Some((title.to_owned(), says))
}
