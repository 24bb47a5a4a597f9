//! A collar of foam around the sides of a frame that nothing may rub on.

use serde::Serialize;

use super::{Cushioning, Layer, Make, Making, Sides, Supplies};
use crate::{
    Refusal,
    part::{Cut, Need, PartId, StripId},
    quantity::Length,
    space::{Addition, Envelope, LayerSlot},
};

/// Four bars of foam around a frame, higher than it, so that the boards lie on them and not on the frame.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FoamCollar {
    /// Away from the frame.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Over the depth of what it holds.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Each of the two bars that cover the ends of the others.
    #[serde(rename = "long_bar_mm")]
    pub long_bar: Length,
    /// Each of the two between them.
    #[serde(rename = "short_bar_mm")]
    pub short_bar: Length,
    /// How far it stands over the face.
    #[serde(rename = "stands_off_mm")]
    pub stands_off: Length,
}

impl FoamCollar {
    /// Returns the collar around something: bars above and below that cover the ends of those beside it, all of them a little higher
    /// than it. Source: house rule.
    #[must_use]
    pub fn around(inside: Envelope, thickness: Length, stands_off: Length) -> Self {
        Self {
            thickness,
            height: inside.through + stands_off,
            long_bar: inside.across + thickness * 2.0,
            short_bar: inside.up,
            stands_off,
        }
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        stands_off: Length,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let allowances = supplies.allowances();
        let thickness = allowances.edge_pad_thickness;
        let collar = Self::around(inside, thickness, stands_off);
        let bar = |name, along| {
            let cut = Cut::of([along, collar.height]);
            Need::foam(name, foam, cut, thickness).times(2)
        };
        let around = (collar.long_bar + collar.short_bar) * 2.0;
        let sides = Sides {
            across: thickness,
            up: thickness,
            ..Sides::default()
        };
        Ok(supplies.layer(Making {
            slot: LayerSlot::Corners,
            needs: vec![
                bar(PartId::UpperAndLowerBar, collar.long_bar),
                bar(PartId::BarBeside, collar.short_bar),
                Need::tab(
                    supplies.wrap_tape,
                    StripId::FromBarToBar,
                    allowances.tape_tab,
                )
                .times(8),
            ],
            adds: Addition::new(thickness, thickness, collar.stands_off, Length::ZERO),
            inside,
            minutes: allowances.pad_minutes * 4.0 + allowances.pad_minutes_per_m * around.as_m(),
            why: "Nothing may rub on this frame: a foam collar keeps board, tape and wrap away.",
            make: Make::FoamCollar(collar),
            cushioning: Some(Cushioning::covering(foam.curve, sides)),
        }))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_collar_stands_over_the_frame_and_meets_at_its_corners() {
        // 450 × 550 × 35 in foam of 25: 450 + 50 = 500 above and below, 550 beside, 35 + 3 = 38 high.
        let [across, up, through, thickness, proud] =
            [450.0, 550.0, 35.0, 25.0, 3.0].map(Length::mm);
        let inside = Envelope {
            across,
            up,
            through,
        };
        let collar = FoamCollar::around(inside, thickness, proud);
        assert_eq!(
            [collar.long_bar, collar.short_bar, collar.height],
            [500.0, 550.0, 38.0].map(Length::mm)
        );
    }
}
