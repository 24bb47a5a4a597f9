//! What a plan takes off the shelf: pieces that are cut from sheets, and everything else by its count.

use std::{borrow::Cow, collections::BTreeMap};

use super::{
    Goods,
    goods::{By, Counting},
};
use crate::{
    layer::Layer,
    material::{Catalogue, MaterialId},
    part::{Grain, Part, PartId, Take},
    plan::Plan,
    quantity::Length,
    space::LayerSlot,
};

/// A piece that is cut from a sheet.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct CutPiece {
    /// Of which layer.
    pub slot: LayerSlot,
    /// What it is in that layer.
    pub name: Cow<'static, str>,
    /// The part of the plan that it is; `None` for what somebody drew.
    pub id: Option<PartId>,
    /// What it is cut from.
    pub material: MaterialId,
    /// Across.
    pub width: Length,
    /// Up.
    pub height: Length,
    /// Of the sheet.
    pub thickness: Length,
    /// How it may be turned on its sheet.
    pub grain: Grain,
    /// How many.
    pub count: u32,
    /// Whether it is one part of a blank that no sheet takes whole.
    pub joined: bool,
    /// Where it is scored, from its lower left corner: across, and up.
    pub scores: [Vec<Length>; 2],
}

/// How much of something on the shelf.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct ShelfNeed {
    /// What, in its own measure.
    pub goods: Goods,
    /// What it is called.
    pub name: String,
    /// The layer that needs most of it.
    pub slot: LayerSlot,
    /// How much.
    pub amount: i64,
}

/// One line of what several shipments take off the shelf together.
#[derive(Debug, Clone, PartialEq)]
pub struct MaterialsLine {
    /// What, in its own measure.
    pub goods: Goods,
    /// What it is called.
    pub name: String,
    /// How much all of them take.
    pub amount: i64,
    /// How much there is; `None` if it is not counted.
    pub left: Option<i64>,
    /// Who sells it; empty where nobody is known.
    pub supplier: String,
    /// Which of them take some of it, by their place in the question.
    pub of: Vec<usize>,
}

impl MaterialsLine {
    /// Returns how much is lacking; nothing where it is not counted.
    #[must_use]
    pub fn short(&self) -> i64 {
        self.left.map_or(0, |left| (self.amount - left).max(0))
    }
}

/// Returns the pieces that a plan has cut from sheets, layer by layer.
#[must_use]
pub fn cut_pieces(plan: &Plan) -> Vec<CutPiece> {
    plan.layers
        .iter()
        .flat_map(|layer| {
            let parts = layer.parts.iter().enumerate();
            parts.filter_map(move |(at, part)| {
                // Parts of one blank stand one after the other, left to right.
                let before = &layer.parts[..at];
                let nth = before.iter().filter(|one| one.id == part.id).count();
                piece(layer, part, nth)
            })
        })
        .collect()
}

fn piece(layer: &Layer, part: &Part, nth: usize) -> Option<CutPiece> {
    let Take::Piece {
        width_mm: width,
        height_mm: height,
        thickness_mm: thickness,
        grain,
        ..
    } = part.take
    else {
        return None;
    };
    let blank = layer.make.carton().and_then(|carton| {
        carton
            .cut_blanks()
            .filter(|blank| blank.part == part.id.of_one_box())
            .nth(nth)
    });
    let inner = |runs: &[Length], end: Length| {
        runs.iter()
            .copied()
            .filter(|run| *run > Length::ZERO && *run < end)
            .collect()
    };
    Some(CutPiece {
        slot: layer.slot,
        name: Cow::Borrowed(part.id.name()),
        id: Some(part.id),
        material: part.material.clone(),
        width,
        height,
        thickness,
        grain,
        count: part.count,
        joined: blank.is_some_and(|blank| blank.joined.is_some()),
        scores: blank.map_or_else(Default::default, |blank| {
            [
                inner(&blank.runs_across, width),
                inner(&blank.runs_up, height),
            ]
        }),
    })
}

/// Returns what else a plan takes, by its count: rolls in millimetres, fill in grams, things one by one. What is cut from
/// sheets, and a carton that the studio has, are drawn on their own.
#[must_use]
pub fn shelf_needs(plan: &Plan, catalogue: &Catalogue) -> Vec<ShelfNeed> {
    let mut found: BTreeMap<String, ShelfNeed> = BTreeMap::new();
    for layer in &plan.layers {
        for part in &layer.parts {
            let Some((goods, amount)) = counted(part, catalogue) else {
                continue;
            };
            let Some(key) = goods.key() else { continue };
            found
                .entry(key)
                .and_modify(|need| need.amount += amount)
                .or_insert_with(|| ShelfNeed {
                    goods,
                    name: part.material_name.clone(),
                    slot: layer.slot,
                    amount,
                });
        }
    }
    found.into_values().filter(|need| need.amount > 0).collect()
}

fn counted(part: &Part, catalogue: &Catalogue) -> Option<(Goods, i64)> {
    let material = || part.material.clone();
    let counting = Counting::of(catalogue, &part.material)?;
    let count = i64::from(part.count);
    match (counting.by, part.take) {
        (By::Roll, Take::Run { length_mm, .. }) => Some((
            Goods::Roll {
                material: material(),
            },
            count * whole(length_mm.as_mm()),
        )),
        (By::Mass, _) => Some((
            Goods::Loose {
                material: material(),
            },
            whole(part.mass.as_g()),
        )),
        (By::Pieces(longest), Take::Run { length_mm, .. }) => {
            let from_one = longest
                .filter(|longest| length_mm > Length::ZERO && *longest > length_mm)
                .map_or(1, |longest| {
                    #[allow(clippy::cast_possible_truncation, reason = "a tube is cut into few")]
                    let from_one = (longest / length_mm).floor() as i64;
                    from_one.max(1)
                });
            let pieces = (count + from_one - 1) / from_one;
            Some((
                Goods::Thing {
                    material: material(),
                },
                pieces,
            ))
        }
        (By::Pieces(_), Take::Each) => Some((
            Goods::Thing {
                material: material(),
            },
            count,
        )),
        _ => None,
    }
}

/// A whole number of a measure, never less than it is.
fn whole(amount: f64) -> i64 {
    const DUST: f64 = 1e-6;
    #[allow(
        clippy::cast_possible_truncation,
        reason = "a plan takes less than a kilometre"
    )]
    let whole = (amount - DUST).ceil() as i64;
    whole.max(0)
}
