//! A loose sheet rolled up, and the tube that it goes into.

use serde::Serialize;

use super::{Addition, Envelope, Layer, LayerSlot, Make, Making, RollSize, Supplies};
use crate::{
    piece::{Construction, Medium, PaintBody, Piece},
    quantity::{Area, Length, decimal_of},
};

/// A rolled sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Roll {
    /// Of the core that it is rolled on.
    #[serde(rename = "inner_mm")]
    pub inner: Length,
    /// Of the side that is rolled up: the longer one.
    #[serde(rename = "rolled_mm")]
    pub rolled: Length,
    /// Along the roll.
    #[serde(rename = "along_mm")]
    pub along: Length,
    /// Of the sheet with its interleaves.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Of the roll.
    #[serde(rename = "outer_mm")]
    pub outer: Length,
}

/// The tube around a roll.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TubeBox {
    /// The least that it must be wide.
    #[serde(rename = "needed_mm")]
    pub needed: Length,
    /// What it is wide: a round tube across, a triangular one along its inner side.
    #[serde(rename = "inside_mm")]
    pub inside: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// Cut to, pads and air at both ends included.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Pad at each end.
    #[serde(rename = "end_pad_mm")]
    pub end_pad: Length,
    /// Air between each pad and the roll.
    #[serde(rename = "end_air_mm")]
    pub end_air: Length,
    /// Whether it is folded from board, because no round tube on the shelf takes it.
    pub triangular: bool,
    /// Where a triangular one is creased, as running distances from one edge; the last is its other edge.
    #[serde(rename = "creases_mm")]
    pub creases: [Length; 4],
    /// Of board, across the flutes, for a triangular one.
    #[serde(rename = "sheet_width_mm")]
    pub sheet_width: Length,
}

/// Returns the tightest inner diameter for a surface: 75 mm for prints on paper, 100 for thick paper and
/// acrylic on canvas, 150 for oil on canvas. Source: workshop custom.
#[must_use]
pub fn least_roll(piece: &Piece) -> Length {
    let cloth = piece.construction == Construction::LooseCanvas;
    let oil = matches!(piece.medium, Some(Medium::Oil | Medium::OilFastDrying));
    let thick_paper = piece.size.depth >= Length::mm(0.4) || piece.paint != PaintBody::Thin;
    Length::mm(match (cloth, oil) {
        (true, true) => 150.0,
        (true, false) => 100.0,
        (false, _) if thick_paper => 100.0,
        (false, _) => 75.0,
    })
}

/// A sheet off its bars is this thick, whatever depth was measured over its curl.
const CLOTH: Length = Length::mm(0.9);
const PAPER: Length = Length::mm(0.3);
/// A triangular tube's walls: four sides and what the creases take.
const TRIANGLE_SIDES: f64 = 4.0;
const TRIANGLE_CREASES: f64 = 5.485;
/// How much of a triangle's side its height is.
const TRIANGLE_HEIGHT: f64 = 0.866_025_403_784_438_6;
const BOTH_ENDS: f64 = 2.0;

impl Roll {
    /// Returns the roll of a piece with its interleaves.
    #[must_use]
    pub fn of(piece: &Piece, interleaf: Length, chosen: Option<Length>) -> Self {
        let size = piece.size;
        let sheet = if piece.construction == Construction::LooseCanvas {
            CLOTH
        } else {
            PAPER
        };
        let sheets = f64::from(piece.count);
        let thickness = (sheet.min(size.depth) + interleaf * 2.0) * sheets;
        let inner = chosen.unwrap_or_else(|| least_roll(piece));
        let rolled = size.width.max(size.height);
        let outer = RollSize::of(inner, rolled, thickness, Length::ZERO).outer;
        Self {
            inner,
            rolled,
            along: size.short_side(),
            thickness,
            outer,
        }
    }

    pub(crate) fn layer(supplies: &Supplies<'_>, piece: &Piece, inside: Envelope) -> Layer {
        let paper = supplies.contact_paper;
        let allowances = supplies.allowances();
        let interleaf = if supplies.has_sheet_for(piece) {
            paper.thickness
        } else {
            Length::ZERO
        };
        let roll = Self::of(piece, interleaf, supplies.rules.shipment.roll_inner);
        let across = (roll.outer - inside.across) / 2.0;
        let up = (roll.along - inside.up) / 2.0;
        let through = (roll.outer - inside.through) / 2.0;
        supplies.layer(Making {
            slot: LayerSlot::Roll,
            stuff: supplies.inner_tape.into(),
            adds: Addition::new(across, up, through, through),
            inside,
            area: Area::ZERO,
            mass: crate::quantity::Mass::ZERO,
            doubt: 0.0,
            cost: rust_decimal::Decimal::ZERO,
            // Two bands of paper tape, closed on themselves and not on the art.
            tape: Some((
                supplies.inner_tape,
                roll.outer * (std::f64::consts::PI * BOTH_ENDS) + allowances.tape_tab * BOTH_ENDS,
            )),
            minutes: allowances.roll_minutes,
            why: "Face out, the paint stretches rather than creases; the band closes on itself and not on the art.",
            make: Make::Roll(roll),
            cushioning: None,
        })
    }
}

impl TubeBox {
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        roll: Roll,
        wrap: Length,
        inside: Envelope,
    ) -> Layer {
        let allowances = supplies.allowances();
        let size = RollSize::of(roll.inner, roll.rolled, roll.thickness, wrap);
        let ends = (allowances.tube_end_pad + allowances.tube_end_air) * BOTH_ENDS;
        let length = inside.up + ends;
        let round = supplies
            .catalogue
            .tubes
            .iter()
            .filter(|tube| !tube.shelf.retired)
            .filter(|tube| tube.inside >= size.tube_inside && tube.longest >= length)
            .min_by_key(|tube| tube.inside);
        let board = supplies.box_board;
        let tube = match round {
            Some(tube) => Self {
                needed: size.tube_inside,
                inside: tube.inside,
                wall: tube.wall,
                length,
                end_pad: allowances.tube_end_pad,
                end_air: allowances.tube_end_air,
                triangular: false,
                creases: [Length::ZERO; 4],
                sheet_width: Length::ZERO,
            },
            None => Self {
                needed: size.triangle_side,
                inside: size.triangle_side,
                wall: board.caliper,
                length,
                end_pad: allowances.tube_end_pad,
                end_air: allowances.tube_end_air,
                triangular: true,
                creases: creases(size.triangle_side, board.caliper),
                sheet_width: size.triangle_side * TRIANGLE_SIDES + board.caliper * TRIANGLE_CREASES,
            },
        };
        let (across, through) = tube.outside();
        let adds = Addition::new(
            (across - inside.across) / 2.0,
            (length - inside.up) / 2.0 + tube.wall,
            (through - inside.through) / 2.0,
            (through - inside.through) / 2.0,
        );
        let area = tube.sheet_width * length;
        let (stuff, mass, cost) = match round {
            Some(round) => (
                round.into(),
                round.linear_density * length,
                round.price_per_m * decimal_of(length.as_m()),
            ),
            None => (
                board.into(),
                board.areal_density * area,
                board.price_per_m2() * decimal_of(area.as_m2()),
            ),
        };
        supplies.layer(Making {
            slot: LayerSlot::Box,
            stuff,
            adds,
            inside,
            area,
            mass,
            doubt: allowances.sheet_doubt,
            cost,
            tape: Some((
                supplies.seal_tape,
                across * (std::f64::consts::PI * BOTH_ENDS) + allowances.seal_return * BOTH_ENDS,
            )),
            minutes: allowances.seal_minutes * BOTH_ENDS,
            why: "A tube holds the roll round; pads at both ends, with air before them, take a drop on its end.",
            make: Make::Tube(tube),
            cushioning: None,
        })
    }

    /// What it is across and through outside.
    fn outside(self) -> (Length, Length) {
        if self.triangular {
            // A wall around a triangle makes it larger by 2·√3 walls along each side.
            let side = self.inside + self.wall * (2.0 * 3.0_f64.sqrt());
            (side, side * TRIANGLE_HEIGHT)
        } else {
            let across = self.inside + self.wall * 2.0;
            (across, across)
        }
    }
}

/// Panels s + 0.866c, s + 1.732c, s + 2.887c and s, of which the last laps outside the first, as running
/// distances. Source: house rule; each panel goes around the board of those before it.
fn creases(side: Length, board: Length) -> [Length; 4] {
    const THICKER: [f64; 4] = [0.866, 1.732, 2.887, 0.0];
    let mut at = Length::ZERO;
    THICKER.map(|boards| {
        at += side + board * boards;
        at
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::piece::PieceSize;

    #[test]
    fn a_triangular_tube_is_creased_three_times() {
        // s 300, c 4: 303.464, + 306.928 = 610.392, + 311.548 = 921.94, + 300 = 1221.94 = 4 × 300 + 5.485 × 4
        let found = creases(Length::mm(300.0), Length::mm(4.0)).map(Length::as_mm);
        for (found, wanted) in found.into_iter().zip([303.464, 610.392, 921.94, 1221.94]) {
            assert!((found - wanted).abs() < 1e-9, "{found} for {wanted}");
        }
    }

    #[test]
    fn oil_on_canvas_is_rolled_widest() {
        let size = |depth| PieceSize {
            width: Length::mm(1000.0),
            height: Length::mm(2600.0),
            depth: Length::mm(depth),
        };
        for (construction, medium, depth, inner) in [
            (Construction::LooseCanvas, Medium::Oil, 1.0, 150.0),
            (Construction::LooseCanvas, Medium::Acrylic, 1.0, 100.0),
            (Construction::LoosePaper, Medium::Print, 0.2, 75.0),
            (Construction::LoosePaper, Medium::Watercolour, 0.6, 100.0),
        ] {
            let piece = Piece::new(construction, size(depth), Some(medium));
            assert_eq!(
                least_roll(&piece),
                Length::mm(inner),
                "{construction:?} {medium:?}"
            );
        }
        // 0.9 + 2 × 0.04 = 0.98; √(150² + 4 × 2600 × 0.98/π) = √(22 500 + 3244.2) = 160.45
        let piece = Piece::new(Construction::LooseCanvas, size(1.0), Some(Medium::Oil));
        let roll = Roll::of(&piece, Length::mm(0.04), None);
        assert!(
            (roll.outer.as_mm() - 160.45).abs() < 0.01,
            "{:?}",
            roll.outer
        );
        assert_eq!(
            (roll.rolled, roll.along),
            (Length::mm(2600.0), Length::mm(1000.0))
        );
    }
}
