//! A plan: what a piece, the house rules and the catalogue give.

mod finding;
mod tally;

pub use finding::{Finding, FindingAbout, FindingLevel};
pub use tally::Tally;

use serde::Serialize;

use crate::{
    Refusal,
    carton::{SlottedBox, SlottedEdge},
    house::HouseRules,
    layer::{
        CardPocket, ContactSheet, Direction, EdgeFill, Envelope, FaceBoards, Layer, Make, Supplies,
        WrapStrip,
    },
    material::Catalogue,
    piece::{Cure, Piece, PieceSize, cure_of},
    quantity::{Length, Weight},
};

/// How a piece is protected and boxed, every number traceable to its layer.
///
/// It depends on nothing but the piece, the rules and the catalogue: the same three give the same bytes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Plan {
    /// The version of the house rules that it followed.
    pub rules_version: u32,
    /// The piece, measured.
    pub size: PieceSize,
    /// What the piece weighs, estimated from its make.
    pub piece_weight: Weight,
    /// When its paint has cured; absent when nothing has to.
    pub cure: Option<Cure>,
    /// From the art outward; the last is the box.
    pub layers: Vec<Layer>,
    /// The sums.
    pub tally: Tally,
    /// What is to be answered, minded or known.
    pub findings: Vec<Finding>,
}

const FIRST_WRAP: &str =
    "Flat side in, bubbles out: the turns cushion the face, and the rolled ends two edges.";
const SECOND_WRAP: &str =
    "At right angles to the first, it pads the two edges that the first one left thinner.";

impl Plan {
    /// Returns the plan for a piece by the rules, from the materials on the shelf.
    ///
    /// # Errors
    /// A [`Refusal`] for a material that is not there, or for pockets whose leg is over half the short
    /// side.
    pub fn design(
        piece: &Piece,
        rules: &HouseRules,
        catalogue: &Catalogue,
    ) -> Result<Self, Vec<Refusal>> {
        let supplies = Supplies::find(piece, rules, catalogue).map_err(|refusal| vec![refusal])?;
        pockets_do_not_meet(piece.size, rules).map_err(|refusal| vec![refusal])?;
        let layers = layers_around(piece, &supplies);
        let piece_weight = piece.estimated_weight(rules.allowances.piece_doubt);
        let tally = Tally::of(piece_weight, &layers, &catalogue.currency);
        let findings = finding::all(piece, &supplies, &layers, &tally);
        Ok(Self {
            rules_version: rules.version,
            size: piece.size,
            piece_weight,
            cure: cure_of(piece.medium, piece.paint, piece.finished),
            layers,
            tally,
            findings,
        })
    }

    /// Returns the box, the last of the layers.
    #[must_use]
    pub fn carton(&self) -> Option<&SlottedBox> {
        self.layers.iter().find_map(|layer| match &layer.make {
            Make::SlottedBox(carton) => Some(carton),
            _ => None,
        })
    }
}

/// Builds each layer around the envelope of those inside it.
fn layers_around(piece: &Piece, supplies: &Supplies<'_>) -> Vec<Layer> {
    let size = piece.size;
    let bare = Envelope {
        across: size.width,
        up: size.height,
        through: size.depth,
    };
    let mut layers: Vec<Layer> = Vec::new();
    let inside = |layers: &[Layer]| layers.last().map_or(bare, |layer| layer.envelope);

    layers.push(ContactSheet::layer(supplies, size, bare));
    layers.push(CardPocket::layer(supplies, size, inside(&layers)));
    layers.push(FaceBoards::layer(
        supplies,
        piece.construction,
        size,
        inside(&layers),
    ));
    let allowances = supplies.allowances();
    let long_way = if size.height >= size.width {
        Direction::Up
    } else {
        Direction::Across
    };
    layers.extend(WrapStrip::layer(
        supplies,
        long_way,
        allowances.first_turns,
        FIRST_WRAP,
        inside(&layers),
    ));
    let across = long_way.turned();
    layers.extend(WrapStrip::layer(
        supplies,
        across,
        allowances.second_turns,
        SECOND_WRAP,
        inside(&layers),
    ));
    layers.extend(EdgeFill::layer(supplies, inside(&layers)));
    layers.push(SlottedEdge::layer(supplies, long_way, inside(&layers)));
    layers
}

/// Two pockets on one edge may touch, but not meet.
fn pockets_do_not_meet(size: PieceSize, rules: &HouseRules) -> Result<(), Refusal> {
    let most = size.short_side() / 2.0;
    match rules.pocket_leg {
        Some(leg) if leg > most => Err(Refusal::new(
            "choices.pocket_leg",
            PocketsMeet { leg, most },
        )),
        _ => Ok(()),
    }
}

/// Two pockets would meet on the short side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("two pockets of {} mm would meet on the short side: set the leg to {} mm or less", leg.as_mm(), most.as_mm())]
struct PocketsMeet {
    leg: Length,
    most: Length,
}

#[cfg(test)]
mod tests;
