//! What each step hides: where it lies, and which places no hand gets to any more once it is done.

use super::{
    PackStep, Stage,
    order::{BEFORE_BOARDS, BEFORE_CRADLE},
    step::{InBox, Reach},
};
use crate::{
    container::WayIn,
    enclosure::EnclosurePlace,
    layer::{FillGap, FillTurn, Make},
    plan::Plan,
    space::LayerSlot,
};

/// A place that a hand gets to, until something hides it.
#[derive(Debug, Clone, PartialEq, Eq)]
enum Place {
    /// The face of a piece.
    Face(String),
    /// Its back.
    Back(String),
    /// Its edges and corners.
    Edges(String),
    /// Around what covers face and back of it.
    Around(String),
    /// The outside of what goes into a box.
    Wrapped(LayerSlot),
    /// A side of a box inside, or the gap there.
    Gap(LayerSlot, Gap),
    /// The outside of a closed box.
    Outside(LayerSlot),
}

/// A part of a box inside.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Gap {
    /// What no hand gets to once something lies in the box.
    Under,
    /// What stays open until it is closed.
    Over,
}

/// Whose layers a key is about: the first piece of several is not named in its keys.
fn piece_of(key: &str) -> &str {
    let named = key
        .strip_prefix("piece/")
        .and_then(|rest| rest.split_once('/'));
    named.map_or("", |(piece, _)| piece)
}

/// Writes down at each step what it hides of what was done before, and of the places in which something may be put.
pub(super) fn cover(steps: &mut [PackStep], plan: &Plan) {
    let mut open: Vec<(String, Place)> = Vec::new();
    let named = |name: &str, place| (format!("place/{name}"), place);
    open.push(named("on_back", Place::Back(String::new())));
    // Neither a mailer nor a tube has room on its floor or on top.
    if way_into(plan, LayerSlot::Box) != Some(WayIn::End) {
        open.extend([
            named("on_floor", Place::Gap(LayerSlot::Box, floor_of(plan))),
            named("on_top", Place::Gap(LayerSlot::Box, Gap::Over)),
        ]);
    }
    let last_wrap = steps.iter().rposition(|step| {
        matches!(
            step.layer,
            Some(LayerSlot::FirstWrap | LayerSlot::SecondWrap | LayerSlot::InsetWrap)
        )
    });
    for (at, step) in steps.iter_mut().enumerate() {
        let hidden = hides(step, plan);
        if Some(at) == last_wrap {
            step.covers.push("place/under_last_wrap".to_owned());
        }
        open.retain(|(key, place)| {
            let hides = hidden.iter().any(|one| is_hidden(place, one));
            if hides && !step.covers.contains(key) {
                step.covers.push(key.clone());
            }
            !hides
        });
        // What is hidden in one of its places is not told once more for another.
        open.retain(|(key, _)| !step.covers.contains(key));
        open.extend(
            lies(step)
                .into_iter()
                .map(|place| (step.key.clone(), place)),
        );
    }
}

/// The floor of a box is hidden by what stands on it; the gap at the lower edge of one that lies stays open.
fn floor_of(plan: &Plan) -> Gap {
    match way_into(plan, LayerSlot::Box) {
        Some(WayIn::Edge | WayIn::ShortEdge | WayIn::Halves) => Gap::Under,
        Some(WayIn::Face | WayIn::Blank | WayIn::End) | None => Gap::Over,
    }
}

fn way_into(plan: &Plan, slot: LayerSlot) -> Option<WayIn> {
    let layer = plan.layers.iter().find(|layer| layer.slot == slot)?;
    layer.make.way_in()
}

/// Tells whether a place is hidden with another one: all that is around a piece goes with what is around all of it.
fn is_hidden(place: &Place, hidden: &Place) -> bool {
    match (place, hidden) {
        (
            Place::Face(_) | Place::Back(_) | Place::Edges(_) | Place::Around(_),
            Place::Wrapped(LayerSlot::Stack | LayerSlot::Box),
        ) => true,
        (place, hidden) => place == hidden,
    }
}

/// Where what a step lays lies.
fn lies(step: &PackStep) -> Vec<Place> {
    let own = || piece_of(&step.key).to_owned();
    match step.stage {
        Stage::SetUp | Stage::Look | Stage::Cut => return Vec::new(),
        Stage::Wrap | Stage::Box | Stage::Parcel => {}
    }
    if let Some(InBox { slot, reach }) = step.in_box {
        return vec![match reach {
            Reach::Under => Place::Gap(slot, Gap::Under),
            Reach::GoesIn | Reach::Over => Place::Gap(slot, Gap::Over),
            Reach::Closes => Place::Outside(slot),
        }];
    }
    if let Some(layer) = step.layer {
        return match layer {
            LayerSlot::GlassTape | LayerSlot::WindowSpacer => vec![Place::Face(own())],
            LayerSlot::Contact => vec![Place::Face(own()), Place::Back(own()), Place::Edges(own())],
            LayerSlot::Corners => vec![Place::Edges(own()), Place::Back(own())],
            LayerSlot::Cradle => vec![Place::Edges(own())],
            LayerSlot::Fixing | LayerSlot::BackFill | LayerSlot::BackPapers => {
                vec![Place::Back(own())]
            }
            LayerSlot::Bundle
            | LayerSlot::Folio
            | LayerSlot::Roll
            | LayerSlot::FaceBoards
            | LayerSlot::Binding
            | LayerSlot::NameTag
            | LayerSlot::Bag
            | LayerSlot::InnerPapers
            | LayerSlot::FirstWrap
            | LayerSlot::WrapPapers
            | LayerSlot::SecondWrap
            | LayerSlot::InsetWrap
            | LayerSlot::WrapFilm => vec![Place::Around(own())],
            LayerSlot::Stack
            | LayerSlot::FacePads
            | LayerSlot::EdgePads
            | LayerSlot::CornerBlocks
            | LayerSlot::OuterBoards => vec![Place::Wrapped(LayerSlot::Box)],
            LayerSlot::BoxFilm | LayerSlot::BoxWrap => {
                vec![Place::Wrapped(LayerSlot::SecondBox)]
            }
            // What lies in a box says so itself; what is on the parcel stays in sight.
            LayerSlot::BoxPapers
            | LayerSlot::Edges
            | LayerSlot::PaddingSheets
            | LayerSlot::Fill
            | LayerSlot::SecondFill
            | LayerSlot::Lining
            | LayerSlot::Box
            | LayerSlot::SecondBox
            | LayerSlot::OuterPaper
            | LayerSlot::PocketPapers
            | LayerSlot::Marks => Vec::new(),
        };
    }
    match step.encloses.as_ref().map(|one| one.enclosure.place) {
        Some(EnclosurePlace::OnBack) => vec![Place::Back(own())],
        Some(EnclosurePlace::UnderLastWrap | EnclosurePlace::OnFloor | EnclosurePlace::OnTop) => {
            vec![Place::Around(own())]
        }
        Some(EnclosurePlace::InPocket) | None => Vec::new(),
    }
}

/// What no hand gets to once a step is done.
fn hides(step: &PackStep, plan: &Plan) -> Vec<Place> {
    let own = || piece_of(&step.key).to_owned();
    let all = || {
        vec![
            Place::Face(own()),
            Place::Back(own()),
            Place::Edges(own()),
            Place::Around(own()),
        ]
    };
    match step.stage {
        Stage::SetUp | Stage::Look | Stage::Cut => return Vec::new(),
        Stage::Wrap | Stage::Box | Stage::Parcel => {}
    }
    if let Some(layer) = step.layer {
        let layer_of = || plan.every_layer().find(|one| one.slot == layer);
        match layer {
            LayerSlot::Contact => return vec![Place::Face(own())],
            LayerSlot::Fixing => return vec![Place::Back(own())],
            // The piece lies on the board, once it is laid there.
            LayerSlot::Cradle => {
                let lies = !step.key.ends_with(BEFORE_CRADLE);
                return lies.then(|| Place::Back(own())).into_iter().collect();
            }
            LayerSlot::FaceBoards => {
                let behind = layer_of().is_some_and(|one| match &one.make {
                    Make::FaceBoards(boards) => boards.behind,
                    _ => false,
                });
                if step.key.ends_with(BEFORE_BOARDS) {
                    return vec![Place::Back(own())];
                }
                let mut sides = vec![Place::Face(own())];
                sides.extend(behind.then(|| Place::Back(own())));
                return sides;
            }
            LayerSlot::Bundle
            | LayerSlot::Folio
            | LayerSlot::Roll
            | LayerSlot::Binding
            | LayerSlot::Bag
            | LayerSlot::FirstWrap
            | LayerSlot::SecondWrap
            | LayerSlot::InsetWrap
            | LayerSlot::WrapFilm => return all(),
            LayerSlot::Stack => return vec![Place::Wrapped(LayerSlot::Stack)],
            LayerSlot::FacePads | LayerSlot::OuterBoards => {
                return vec![Place::Wrapped(LayerSlot::Stack)];
            }
            LayerSlot::BoxFilm | LayerSlot::BoxWrap => {
                return vec![Place::Outside(LayerSlot::Box)];
            }
            LayerSlot::OuterPaper => {
                return vec![
                    Place::Outside(LayerSlot::Box),
                    Place::Outside(LayerSlot::SecondBox),
                ];
            }
            LayerSlot::GlassTape
            | LayerSlot::WindowSpacer
            | LayerSlot::Corners
            | LayerSlot::BackFill
            | LayerSlot::BackPapers
            | LayerSlot::NameTag
            | LayerSlot::InnerPapers
            | LayerSlot::WrapPapers
            | LayerSlot::EdgePads
            | LayerSlot::CornerBlocks
            | LayerSlot::BoxPapers
            | LayerSlot::Edges
            | LayerSlot::PaddingSheets
            | LayerSlot::Fill
            | LayerSlot::Lining
            | LayerSlot::Box
            | LayerSlot::SecondFill
            | LayerSlot::SecondBox
            | LayerSlot::PocketPapers
            | LayerSlot::Marks => {}
        }
    }
    match step.in_box {
        Some(InBox {
            slot,
            reach: Reach::GoesIn,
        }) => going_in(slot),
        Some(InBox {
            slot,
            reach: Reach::Closes,
        }) => vec![Place::Gap(slot, Gap::Over), Place::Gap(slot, Gap::Under)],
        Some(InBox {
            reach: Reach::Under | Reach::Over,
            ..
        })
        | None => Vec::new(),
    }
}

/// What goes into a box hides what lies under it, and is itself no longer reached all round.
fn going_in(slot: LayerSlot) -> Vec<Place> {
    let mut hidden = vec![Place::Gap(slot, Gap::Under), Place::Wrapped(slot)];
    if slot == LayerSlot::SecondBox {
        hidden.push(Place::Outside(LayerSlot::Box));
    }
    hidden
}

impl FillTurn {
    /// Returns the beginning of the key of the step that lays its share.
    pub(super) const fn key(self) -> &'static str {
        match self {
            Self::Before => "before",
            Self::OnPiece => "back",
            Self::After => "layer",
        }
    }
}

impl FillGap {
    /// Returns what it is called in a title.
    pub(super) const fn name(self) -> &'static str {
        match self {
            Self::Floor => "floor",
            Self::Walls => "sides",
            Self::Front => "front",
            Self::Behind => "back",
            Self::Edges => "edges",
            Self::Top => "top",
            Self::Around => "gap around the roll",
        }
    }
}
