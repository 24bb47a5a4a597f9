//! What a reading says about a plan: as it was planned, or off by more than the plan explains, and by what that could come.

use serde::Serialize;

use crate::{
    layer::{Layer, Make},
    material::{Board, Catalogue},
    part::Take,
    plan::Plan,
    quantity::{Mass, Weight},
    space::LayerSlot,
};

/// What a reading says about a plan.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Verdict {
    /// What the plan said.
    pub planned: Weight,
    /// What the scale read.
    #[serde(rename = "read_g")]
    pub read: Mass,
    /// How much more it read than was planned.
    #[serde(rename = "off_g")]
    pub off: Mass,
    /// Whether that is within what the plan leaves open.
    pub as_planned: bool,
    /// What it could come from, the likeliest first; `None` if it is as planned.
    pub explained: Vec<Explanation>,
}

/// Something that would make a parcel so much heavier or lighter.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Explanation {
    /// What may have been done otherwise.
    pub says: String,
    /// How much that makes.
    #[serde(rename = "makes_g")]
    pub makes: Mass,
}

/// No plan is known better than the scale that reads it.
pub(crate) const SCALE: Mass = Mass::g(20.0);
/// How many are told.
const TOLD: usize = 3;

/// Returns what a reading says about a plan.
///
/// A reading within the plan's doubt, or within 20 g, is as planned. Past that, whatever could have been done otherwise is tried:
/// another board in place of each, a turn of a wrap more or less, a layer left out, a piece that was only estimated. Told is what
/// explains at least half of the difference and leaves no more than the plan's doubt open. Source: house rule.
#[must_use]
pub fn verdict(plan: &Plan, catalogue: &Catalogue, read: Mass) -> Verdict {
    let planned = plan.tally.weight;
    let off = read - planned.mass;
    let open = planned.plus_minus.max(SCALE);
    let as_planned = size_of(off) <= open;
    let mut tried: Vec<Explanation> = Vec::new();
    if !as_planned {
        for layer in &plan.layers {
            tried.extend(other_boards(layer, catalogue));
            tried.extend(another_turn(layer));
            tried.extend(left_out(layer));
        }
        tried.extend(the_piece_itself(plan, off));
    }
    let leaves = |one: &Explanation| size_of(off - one.makes);
    tried.retain(|one| leaves(one) <= open && leaves(one) * 2.0 <= size_of(off));
    tried.sort_by_key(leaves);
    tried.truncate(TOLD);
    Verdict {
        planned,
        read,
        off,
        as_planned,
        explained: tried,
    }
}

fn size_of(mass: Mass) -> Mass {
    Mass::g(mass.as_g().abs())
}

/// The same panels out of another board.
fn other_boards(layer: &Layer, catalogue: &Catalogue) -> Vec<Explanation> {
    let Ok(board) = catalogue.board(&layer.material) else {
        return Vec::new();
    };
    let panels: f64 = layer
        .parts
        .iter()
        .filter(|part| part.material == board.id)
        .filter_map(|part| match part.take {
            Take::Piece { area_m2, .. } => Some(area_m2.as_m2() * f64::from(part.count)),
            Take::Run { .. } | Take::Loose { .. } | Take::Each => None,
        })
        .sum();
    let could_be =
        |other: &&Board| other.id != board.id && !other.shelf.retired && other.folds == board.folds;
    catalogue
        .boards
        .iter()
        .filter(could_be)
        .map(|other| {
            let more = other.areal_density.as_g_m2() - board.areal_density.as_g_m2();
            Explanation {
                says: format!(
                    "{} in place of {} for the {}",
                    other.name,
                    lower(&board.name),
                    layer.slot.name()
                ),
                makes: Mass::g(more * panels),
            }
        })
        .collect()
}

/// A turn more or less; what the outer turns are longer is within the doubt.
fn another_turn(layer: &Layer) -> Vec<Explanation> {
    let Make::Wrap(wrap) = &layer.make else {
        return Vec::new();
    };
    let one = layer.weight.mass * (1.0 / f64::from(wrap.turns.max(1)));
    let name = layer.slot.name();
    let mut turns = vec![Explanation {
        says: format!("a turn more of the {name}"),
        makes: one,
    }];
    if wrap.turns > 1 {
        turns.push(Explanation {
            says: format!("a turn less of the {name}"),
            makes: one * -1.0,
        });
    }
    turns
}

fn left_out(layer: &Layer) -> Option<Explanation> {
    (layer.slot != LayerSlot::Box).then(|| Explanation {
        says: format!("the {} left out", layer.slot.name()),
        makes: layer.weight.mass * -1.0,
    })
}

/// A piece that was never weighed may well be off by twice its doubt.
fn the_piece_itself(plan: &Plan, off: Mass) -> Option<Explanation> {
    let doubt = plan.piece_weight.plus_minus;
    let estimated = doubt.as_g() > plan.piece_weight.mass.as_g() * 0.05;
    (estimated && size_of(off) <= doubt * 2.0).then(|| Explanation {
        says: "the piece's weight, an estimate".to_owned(),
        makes: off,
    })
}

fn lower(name: &str) -> String {
    let mut letters = name.chars();
    match (letters.next(), letters.clone().next()) {
        // A name that begins with an abbreviation keeps it.
        (Some(first), Some(next)) if next.is_lowercase() => {
            first.to_lowercase().chain(letters).collect()
        }
        _ => name.to_owned(),
    }
}
