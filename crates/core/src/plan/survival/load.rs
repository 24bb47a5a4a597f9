//! Loads at rest: a corner that presses in on the face, and a stack.

use serde::Serialize;

use crate::{
    cushion::{Plate, compression_strength, like_parcels_above, stretched},
    layer::{Layer, Make, Supplies},
    material::{Board, MaterialId},
    piece::Piece,
    quantity::{ArealDensity, Force, Length, Mass, Stiffness},
    space::LayerSlot,
};

/// How far the face gives under a corner.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PressReport {
    /// Of the innermost board.
    #[serde(rename = "deflection_mm")]
    pub deflection: Length,
    /// What it may give before it reaches the art; `None` if the piece bears the board all over.
    #[serde(rename = "stand_off_mm")]
    pub stand_off: Option<Length>,
    /// Whether it stays off.
    pub passes: bool,
    /// The lightest board on the shelf that would, where this one does not.
    pub board_that_passes: Option<MaterialId>,
}

/// What the box bears.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StackReport {
    /// With the studio's safety.
    #[serde(rename = "allowed_n")]
    pub allowed: Force,
    /// Of the like parcels on top.
    #[serde(rename = "load_n")]
    pub load: Force,
    /// How many they are.
    pub parcels: u32,
    /// Whether it bears them.
    pub passes: bool,
    /// Whether the sides are so unlike that it is a guess.
    pub indicative: bool,
}

/// A corner of another parcel on the face.
///
/// The box panel and the face board bend together where they touch; with a cushion between, the board
/// gives once the panel has closed half of it. What the board may give is what lies soft between it and
/// the art.
pub(super) fn press(
    piece: &Piece,
    supplies: &Supplies<'_>,
    layers: &[Layer],
) -> Option<PressReport> {
    let load = Force::n(supplies.allowances().press_load);
    let outer = layers.iter().rev().find_map(|layer| {
        let board = supplies.catalogue.board(&layer.material).ok()?;
        let column = layer.column(board.shelf.reused)?;
        plate(board, (column.length, column.height))
    })?;
    let soft: Length = layers
        .iter()
        .filter(|layer| layer.is_cushion())
        .map(|layer| layer.adds.front)
        .sum();
    // Paper between two boards has nothing to be pressed in on.
    if layers.iter().any(|layer| layer.slot == LayerSlot::Folio) {
        return None;
    }
    let sides = layers.iter().find_map(|layer| match &layer.make {
        Make::FaceBoards(boards) if layer.slot == LayerSlot::FaceBoards => {
            Some((boards.width, boards.height))
        }
        _ => None,
    });
    let off = stand_off(piece, supplies, layers);
    let beside = outer_board_rate(supplies, layers);
    let Some(sides) = sides else {
        return Some(PressReport::of(outer.under(load).deflection, Some(soft)));
    };
    let gives = |board: &Board| {
        plate(board, sides).map(|board| {
            let closing = soft * HALF_CLOSED;
            let panel = outer.rate() + beside;
            let left = Force::n((load.as_n() - panel * closing.as_m()).max(0.0));
            let linear = Length::mm(left.as_n() / (panel + board.rate()) * MM_PER_M);
            stretched(linear, board.stretch_thickness.unwrap_or(Length::ZERO))
        })
    };
    let there = PressReport::of(gives(supplies.face_board)?, off);
    if there.passes {
        return Some(there);
    }
    let stiffer = supplies
        .catalogue
        .boards
        .iter()
        .filter(|board| !board.shelf.retired && board.areal_density <= HEAVIEST_REMEDY)
        .filter(|board| gives(board).is_some_and(|gives| off.is_none_or(|off| gives <= off)))
        .min_by_key(|board| board.areal_density);
    Some(PressReport {
        board_that_passes: stiffer.map(|board| board.id.clone()),
        ..there
    })
}

/// What a board outside the cushion adds to the panel that it lies against, in newtons a metre.
fn outer_board_rate(supplies: &Supplies<'_>, layers: &[Layer]) -> f64 {
    layers
        .iter()
        .find_map(|layer| match &layer.make {
            Make::FaceBoards(boards) if layer.slot == LayerSlot::OuterBoards => {
                let board = supplies.catalogue.board(&layer.material).ok()?;
                plate(board, (boards.width, boards.height))
            }
            _ => None,
        })
        .map_or(0.0, Plate::rate)
}

/// Nobody puts a heavier board in front of a picture to keep a corner off it.
const HEAVIEST_REMEDY: ArealDensity = ArealDensity::g_m2(3000.0);

impl PressReport {
    fn of(deflection: Length, stand_off: Option<Length>) -> Self {
        Self {
            deflection,
            stand_off,
            passes: stand_off.is_none_or(|off| deflection <= off),
            board_that_passes: None,
        }
    }
}

const HALF_CLOSED: f64 = 0.5;
const MM_PER_M: f64 = 1e3;

fn plate(board: &Board, (side_a, side_b): (Length, Length)) -> Option<Plate> {
    let stiffness: Stiffness = board.stiffness?;
    Some(Plate {
        side_a,
        side_b,
        stiffness,
        stretch_thickness: Some(board.caliper * board.build.stretch_factor()),
    })
}

/// What lies between the innermost board and the art: pockets hold the board off, so does a spacer; a
/// panel is stiff enough to be lain on; glazing lies back in its rabbet.
fn stand_off(piece: &Piece, supplies: &Supplies<'_>, layers: &[Layer]) -> Option<Length> {
    let inside_board = layers
        .iter()
        .take_while(|layer| layer.slot != LayerSlot::FaceBoards);
    let off: Length = inside_board.map(|layer| layer.adds.front).sum();
    if piece.construction.is_framed() {
        Some(off + supplies.allowances().rabbet_depth)
    } else {
        piece.construction.is_cloth().then_some(off)
    }
}

/// What the box bears standing on its opening, flutes upright.
pub(super) fn stack(
    supplies: &Supplies<'_>,
    layers: &[Layer],
    parcel: Mass,
) -> Option<StackReport> {
    let (column, board) = layers.iter().rev().find_map(|layer| {
        let board = supplies.catalogue.board(&layer.material).ok()?;
        Some((layer.column(board.shelf.reused)?, board))
    })?;
    let perimeter = column.perimeter()?;
    let strength = compression_strength(board.edge_crush?, board.caliper, perimeter);
    let allowed = strength * (column.share * column.joined / supplies.allowances().stack_safety);
    let parcels = like_parcels_above(column.height);
    let load = Force::weight_of(parcel) * f64::from(parcels);
    let ratio = column.length / column.depth;
    Some(StackReport {
        allowed,
        load,
        parcels,
        passes: load <= allowed,
        indicative: ratio > UNLIKE_SIDES,
    })
}

const UNLIKE_SIDES: f64 = 3.0;
