//! Fill at the edges and behind, never against the face.

use serde::Serialize;

use super::{Addition, Core, Envelope, Layer, LayerSlot, Make, Making, Supplies};
use crate::quantity::{Area, Length, Volume, decimal_of};

/// The fill between the wrapped piece and the box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EdgeFill {
    /// Room left on each side.
    #[serde(rename = "clearance_mm")]
    pub clearance: Length,
    /// Room behind: the front's share goes there too, since nothing is pressed against the face.
    #[serde(rename = "behind_mm")]
    pub behind: Length,
    /// The gaps to fill.
    #[serde(rename = "gap_m3")]
    pub gap: Volume,
    /// What goes in, loose, before it settles.
    #[serde(rename = "loose_m3")]
    pub loose: Volume,
}

impl EdgeFill {
    /// Returns the fill around an envelope with a clearance on each side.
    ///
    /// The box is larger by the clearance on all six sides; the piece lies forward, and the front's share
    /// of the room is filled behind it. Loose fill = gap ÷ the share that it keeps. Source: house rule.
    #[must_use]
    pub fn around(inside: Envelope, clearance: Length, keeps: f64) -> Self {
        let outside = inside.grown(Self::adds(clearance));
        let gap = outside.volume() - inside.volume();
        Self {
            clearance,
            behind: clearance * 2.0,
            gap,
            loose: gap / keeps,
        }
    }

    fn adds(clearance: Length) -> Addition {
        Addition::new(clearance, clearance, Length::ZERO, clearance * 2.0)
    }

    /// Returns the layer around what goes into the box, with the hollow that other layers left; nothing
    /// when there is neither.
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        core: Core,
        hollow: Volume,
        inside: Envelope,
    ) -> Option<Layer> {
        let clearance = supplies.allowances().clearance;
        if clearance == Length::ZERO && hollow == Volume::ZERO {
            return None;
        }
        let fill = Self::around(inside, clearance, supplies.allowances().fill_settling);
        let adds = Self::adds(clearance);
        let why = "A filled gap stops the piece from moving and gives way in a fall; none of it touches the face.";
        Some(fill.made(supplies, LayerSlot::Fill, core, adds, why, inside, hollow))
    }

    /// Returns the layer between two boxes, the same on all six sides: a box bears on its face.
    pub(crate) fn between_boxes(supplies: &Supplies<'_>, inside: Envelope) -> Layer {
        let gap = supplies.allowances().second_gap;
        let adds = Addition::new(gap, gap, gap, gap);
        let outside = inside.grown(adds);
        let keeps = supplies.allowances().fill_settling;
        let volume = outside.volume() - inside.volume();
        let fill = Self {
            clearance: gap,
            behind: gap,
            gap: volume,
            loose: volume / keeps,
        };
        let core = Core::around(inside.face(), inside);
        let why =
            "The first box lies in a cushion on every side, and the second one takes the knocks.";
        fill.made(
            supplies,
            LayerSlot::SecondFill,
            core,
            adds,
            why,
            inside,
            Volume::ZERO,
        )
    }

    #[expect(
        clippy::too_many_arguments,
        reason = "the two fills differ in all of them"
    )]
    fn made(
        mut self,
        supplies: &Supplies<'_>,
        slot: LayerSlot,
        core: Core,
        adds: Addition,
        why: &'static str,
        inside: Envelope,
        hollow: Volume,
    ) -> Layer {
        let stuff = supplies.fill;
        let allowances = supplies.allowances();
        self.gap += hollow;
        self.loose += hollow / allowances.fill_settling;
        let mass = stuff.density * self.loose;
        supplies.layer(Making {
            slot,
            stuff: stuff.into(),
            adds,
            inside,
            area: Area::ZERO,
            mass,
            doubt: allowances.fill_doubt,
            cost: stuff.price_per_kg * decimal_of(mass.as_kg()),
            tape: None,
            minutes: allowances.fill_minutes,
            why,
            make: Make::EdgeFill(self),
            cushioning: stuff.curve.map(|curve| core.covered(curve, adds)),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_gap_is_what_the_box_holds_beyond_the_piece() {
        // 100 × 200 × 50 with 10: 120 × 220 × 70 = 1 848 000 − 1 000 000 = 848 000 mm³;
        // at a share of 0.8 that takes 1 060 000 loose.
        let [across, up, through] = [100.0, 200.0, 50.0].map(Length::mm);
        let fill = EdgeFill::around(
            Envelope {
                across,
                up,
                through,
            },
            Length::mm(10.0),
            0.8,
        );
        assert!((fill.gap.as_m3() - 0.000_848).abs() < 1e-15);
        assert!((fill.loose.as_m3() - 0.001_06).abs() < 1e-15);
        assert_eq!(fill.behind, Length::mm(20.0));
    }
}
