//! A cushion on the inside of the box, outside the clearance.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, from_shelf};
use super::{Layer, Make, Making, Sides, Supplies};
use crate::{
    Refusal,
    container::WayIn,
    part::PartId,
    quantity::Length,
    space::{Addition, BoxSide, BoxSides, Direction, Envelope, LayerSlot},
};

/// Foam on sides of the box.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lining {
    /// Of the foam.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Its pieces, each on its side.
    pub pieces: Vec<LiningPiece>,
}

/// What lies on one side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LiningPiece {
    /// Where.
    pub side: BoxSide,
    /// Along the long side of that side.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Along its short side.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Whether it is set once the piece is in: over the opening, or against a wall that is folded up then.
    pub last: bool,
}

/// What its pieces are called among the parts of the layer.
const FIRST: PartId = PartId::Lining;
pub(crate) const LAST: PartId = PartId::LiningToSetLast;

/// A cushion on the inside of the box.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN.tried(9),
    |asked| asked.boxed(|| Standing::Off),
    |around| {
        let sides = around.supplies.rules.shipment.lining_sides;
        let inside = around.inside();
        let way_in = around.way_into(&around.supplies.first, inside)?;
        Lining::layer(
            around.supplies,
            (sides.unwrap_or(BoxSides::ALL), way_in, around.long_way()),
            inside,
        )
        .map(Some)
    },
)
.or(|offering| {
    let foams = from_shelf!(offering.catalogue.foams, lining_foam);
    foams
        .chain(from_shelf!(offering.catalogue.cushion_wraps, lining_foam))
        .collect()
});

impl Lining {
    /// Returns the lining that leaves an envelope free.
    ///
    /// Front and back reach over the whole face of the box; between those that are there stand the two along its
    /// length, and between these and those the two along its width. A side that is left out shortens no neighbour.
    /// Source: house rule.
    #[must_use]
    pub fn around(
        inside: Envelope,
        (sides, way_in, long_way): (BoxSides, WayIn, Direction),
        thickness: Length,
    ) -> Self {
        let opening = way_in.opening(long_way);
        let last =
            |side: BoxSide| side == opening || !way_in.has_walls() && side != opening.opposite();
        let whole = inside.grown(sides.thick(thickness));
        // Along the longer side of the face lie the two that reach from end to end.
        let along_up = whole.up >= whole.across;
        let pieces = BoxSide::ALL
            .into_iter()
            .filter(|&side| sides.has(side))
            .map(|side| {
                let (length, width) = match side {
                    BoxSide::Front | BoxSide::Back => (whole.across, whole.up),
                    BoxSide::Left | BoxSide::Right if along_up => (whole.up, inside.through),
                    BoxSide::Left | BoxSide::Right => (inside.up, inside.through),
                    BoxSide::Top | BoxSide::Bottom if along_up => (inside.across, inside.through),
                    BoxSide::Top | BoxSide::Bottom => (whole.across, inside.through),
                };
                LiningPiece {
                    side,
                    length: length.max(width),
                    width: length.min(width),
                    last: last(side),
                }
            })
            .collect();
        Self { thickness, pieces }
    }

    /// Returns its pieces by their size and by when they are set, and how many there are of each.
    fn alike(&self) -> Vec<([Length; 2], bool, u32)> {
        let mut sizes: Vec<([Length; 2], bool, u32)> = Vec::new();
        for piece in &self.pieces {
            let (sides, last) = ([piece.length, piece.width], piece.last);
            match sizes
                .iter_mut()
                .find(|(known, when, _)| (*known, *when) == (sides, last))
            {
                Some((.., count)) => *count += 1,
                None => sizes.push((sides, last, 1)),
            }
        }
        sizes
    }

    fn layer(
        supplies: &Supplies<'_>,
        (sides, way_in, long_way): (BoxSides, WayIn, Direction),
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let id = &supplies.rules.materials.lining_foam;
        let goods = supplies.sheet_goods("choices.lining_foam", id)?;
        let allowances = supplies.allowances();
        let (layers, thickness) = goods.layers_for(allowances.lining_thickness);
        let goods = goods.as_thick(thickness);
        let lining = Self::around(inside, (sides, way_in, long_way), thickness);
        let adds = sides.thick(lining.thickness);
        let needs = lining
            .alike()
            .into_iter()
            .map(|(sides, last, count)| {
                let name = if last { LAST } else { FIRST };
                goods.need(name, sides).times(count * layers)
            })
            .collect();
        let pieces = f64::from(u8::try_from(lining.pieces.len()).unwrap_or(u8::MAX));
        Ok(supplies.layer(Making {
            slot: LayerSlot::Lining,
            needs,
            adds,
            inside,
            minutes: allowances.lining_minutes * pieces,
            why: "A foam lining stays in the box: the piece is laid into it, and it springs back.",
            cushioning: goods.cushioning(both_ends(adds)),
            make: Make::Lining(lining),
        }))
    }
}

/// What lies on both ends of a way: a side that is bare at one end is bare.
pub(super) fn both_ends(adds: Addition) -> Sides {
    Sides {
        front: adds.front,
        back: adds.back,
        across: adds.left.min(adds.right),
        up: adds.top.min(adds.bottom),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn inside() -> Envelope {
        let [across, up, through] = [500.0, 700.0, 80.0].map(Length::mm);
        Envelope {
            across,
            up,
            through,
        }
    }

    fn around(sides: BoxSides) -> Lining {
        Lining::around(
            inside(),
            (sides, WayIn::Edge, Direction::Up),
            Length::mm(25.0),
        )
    }

    fn sized(sides: BoxSides) -> Vec<(BoxSide, f64, f64)> {
        around(sides)
            .pieces
            .into_iter()
            .map(|piece| (piece.side, piece.length.as_mm(), piece.width.as_mm()))
            .collect()
    }

    #[test]
    fn pieces_stand_between_those_that_are_there() {
        // Free 500 × 700 × 80, foam 25: the box is 750 × 550 × 130 inside. Front and back 750 × 550; along the length
        // 750 × (130 − 50); along the width (550 − 50) × (130 − 50).
        assert_eq!(
            sized(BoxSides::ALL),
            [
                (BoxSide::Front, 750.0, 550.0),
                (BoxSide::Back, 750.0, 550.0),
                (BoxSide::Left, 750.0, 80.0),
                (BoxSide::Right, 750.0, 80.0),
                (BoxSide::Top, 500.0, 80.0),
                (BoxSide::Bottom, 500.0, 80.0),
            ]
        );
        let counts: Vec<(bool, u32)> = around(BoxSides::ALL)
            .alike()
            .into_iter()
            .map(|(_, last, count)| (last, count))
            .collect();
        // A portrait goes in through the right edge, whose piece is set last.
        assert_eq!(counts, [(false, 2), (false, 1), (true, 1), (false, 2)]);
    }

    #[test]
    fn a_side_left_out_shortens_no_neighbour() {
        // Floor and top only: the box is 750 high, 500 across, 80 through; each piece is 500 × 80. Back only: 700 × 500.
        let ends = BoxSides::of(&[BoxSide::Top, BoxSide::Bottom]);
        assert_eq!(
            sized(ends),
            [(BoxSide::Top, 500.0, 80.0), (BoxSide::Bottom, 500.0, 80.0)]
        );
        assert_eq!(
            sized(BoxSides::of(&[BoxSide::Back])),
            [(BoxSide::Back, 700.0, 500.0)]
        );
    }
}
