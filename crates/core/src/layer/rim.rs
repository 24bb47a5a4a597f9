//! A strip of foam around the rim of a piece without corners, in place of a board with chocks.

use serde::Serialize;

use super::cradle::stands_off;
use super::kind::Around;
use super::{Cushioning, Layer, Make, Making, Sides};
use crate::{
    Refusal,
    part::{Cut, Need, PartId, StripId},
    piece::PieceSize,
    quantity::{Length, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// Strips of foam, end to end around a rim and higher than the piece, so that the boards lie on them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RimStrip {
    /// How many strips.
    pub count: u32,
    /// Of each strip, along the rim.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Away from the rim.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Over the depth of the piece.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// How far it stands over the face.
    #[serde(rename = "stands_off_mm")]
    pub stands_off: Length,
}

/// A longer strip is hard to bend and seldom comes out of a sheet. Source: house rule.
const LONGEST: Length = Length::mm(900.0);

impl RimStrip {
    /// Returns the strips around a rim: as few of one length as stay within 900, and a little higher than the piece. Source: house
    /// rule.
    #[must_use]
    pub fn around(rim: Length, through: Length, thickness: Length, stands_off: Length) -> Self {
        let count = ceil_count(rim / LONGEST).max(1);
        Self {
            count,
            length: rim / f64::from(count),
            thickness,
            height: through + stands_off,
            stands_off,
        }
    }

    pub(crate) fn layer(around: &Around<'_, '_>) -> Result<Layer, Refusal> {
        let (supplies, piece, inside) = (around.supplies, around.piece, around.inside());
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let allowances = supplies.allowances();
        let thickness = allowances.edge_pad_thickness;
        let rim = |grown: Length| {
            let Envelope {
                across,
                up,
                through,
            } = inside;
            let size = PieceSize {
                width: across + grown * 2.0,
                height: up + grown * 2.0,
                depth: through,
            };
            piece.outline.rim(size, piece.bearing_points())
        };
        let stands_off = stands_off(piece, allowances);
        let strip = Self::around(rim(Length::ZERO), inside.through, thickness, stands_off);
        let sides = Sides {
            across: thickness,
            up: thickness,
            ..Sides::default()
        };
        let cut = Cut::of([strip.length, strip.height]);
        let tape = supplies.wrap_tape;
        let band = rim(thickness) + allowances.tape_tab;
        Ok(supplies.layer(Making {
            slot: LayerSlot::Corners,
            needs: vec![
                Need::foam(PartId::RimStrip, foam, cut, thickness).times(strip.count),
                Need::tab(tape, StripId::FromStripToStrip, allowances.tape_tab).times(strip.count),
                Need::tab(tape, StripId::OnceRoundTheFoam, band),
            ],
            adds: Addition::new(thickness, thickness, stands_off, Length::ZERO),
            inside,
            minutes: allowances.pad_minutes * f64::from(strip.count)
                + allowances.pad_minutes_per_m * rim(Length::ZERO).as_m(),
            why: "It has no corners: foam around its rim takes knocks and carries board and wrap.",
            make: Make::RimStrip(strip),
            cushioning: Some(Cushioning::covering(foam.curve, sides)),
        }))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rim_takes_strips_of_one_length() {
        // A circle of 600 is 600π = 1884.96 round: three strips of 628.32, 25 + 3 = 28 high.
        let [rim, through, thickness, proud] = [1884.96, 25.0, 25.0, 3.0].map(Length::mm);
        let strip = RimStrip::around(rim, through, thickness, proud);
        assert_eq!(strip.count, 3);
        assert!((strip.length.as_mm() - 628.32).abs() < 1e-9);
        assert_eq!(strip.height, Length::mm(28.0));
    }
}
