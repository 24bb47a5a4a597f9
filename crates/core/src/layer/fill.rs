//! Fill at the edges and behind, never against the face.

use serde::Serialize;

use super::bought::left_to_fill;
use super::kind::{Around, Kind, Nature, Standing, from_shelf};
use super::{Cushioning, Layer, Make, Making, PackOf, Sides, Supplies};
use crate::{
    house::Carriage,
    part::Need,
    quantity::{Length, Volume, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// The fill between the wrapped piece and the box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EdgeFill {
    /// Room left on each edge.
    #[serde(rename = "clearance_mm")]
    pub clearance: Length,
    /// Room behind, all of it there, since nothing is pressed against the face.
    #[serde(rename = "behind_mm")]
    pub behind: Length,
    /// The gaps to fill.
    #[serde(rename = "gap_m3")]
    pub gap: Volume,
    /// What goes in, loose, before it settles.
    #[serde(rename = "loose_m3")]
    pub loose: Volume,
    /// The same in whole litres, rounded up, as it is poured.
    pub loose_litres: u32,
    /// How many, where it comes by the piece.
    pub pieces: Option<u32>,
}

impl EdgeFill {
    /// Returns the fill around an envelope with a clearance on each edge, and one behind.
    ///
    /// The piece lies forward in its box. Loose fill = gap ÷ the share that it keeps. Source: house rule.
    #[must_use]
    pub fn around(inside: Envelope, clearance: Length, behind: Length, keeps: f64) -> Self {
        let outside = inside.grown(Self::adds(clearance, behind));
        let gap = outside.volume() - inside.volume();
        Self {
            clearance,
            behind,
            gap,
            loose: gap / keeps,
            loose_litres: litres(gap / keeps),
            pieces: None,
        }
    }

    fn adds(clearance: Length, behind: Length) -> Addition {
        Addition::new(clearance, clearance, Length::ZERO, behind)
    }

    /// Returns the layer around what goes into the box, with the hollow that other layers left; `None`
    /// if there is neither.
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        (hollow, taken): (Volume, Addition),
        inside: Envelope,
    ) -> Option<Layer> {
        let allowances = supplies.allowances();
        let left = |room: Length, taken: Length| (room - taken).max(Length::ZERO);
        let clearance = left(allowances.clearance, taken.left);
        let behind = left(allowances.depth_clearance, taken.back);
        if clearance + behind == Length::ZERO && hollow == Volume::ZERO {
            return None;
        }
        let fill = Self::around(inside, clearance, behind, allowances.fill_settling);
        let adds = Self::adds(clearance, behind);
        let why = "A filled gap stops the piece from moving and gives way in a fall; none of it touches the face.";
        Some(fill.made(supplies, (PackOf::Piece, why), adds, inside, hollow))
    }

    /// Returns the layer that fills what a bought box has over.
    fn in_bought(
        supplies: &Supplies<'_>,
        adds: Addition,
        hollow: Volume,
        inside: Envelope,
    ) -> Option<Layer> {
        if adds == Addition::default() && hollow == Volume::ZERO {
            return None;
        }
        let keeps = supplies.allowances().fill_settling;
        let gap = inside.grown(adds).volume() - inside.volume();
        let fill = Self {
            clearance: adds.left.min(adds.top),
            behind: adds.back,
            gap,
            loose: gap / keeps,
            loose_litres: litres(gap / keeps),
            pieces: None,
        };
        let why = "What the bought box has over is filled, so that the piece stays where it is; none of it touches the face.";
        Some(fill.made(supplies, (PackOf::Piece, why), adds, inside, hollow))
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
            loose_litres: litres(volume / keeps),
            pieces: None,
        };
        let why =
            "The first box lies in a cushion on every side, and the second one takes the knocks.";
        fill.made(supplies, (PackOf::Pack, why), adds, inside, Volume::ZERO)
    }

    /// Returns the layer that fills what is left over around a roll in its tube; `None` if that is no more
    /// than air.
    pub(crate) fn around_roll(
        supplies: &Supplies<'_>,
        gap: Length,
        inside: Envelope,
    ) -> Option<Layer> {
        if gap < LEAST_GAP {
            return None;
        }
        let adds = Addition::new(gap, Length::ZERO, gap, gap);
        // A ring around a cylinder.
        let volume = (inside.grown(adds).volume() - inside.volume()) * std::f64::consts::FRAC_PI_4;
        let fill = Self {
            clearance: gap,
            behind: gap,
            gap: volume,
            loose: volume / supplies.allowances().fill_settling,
            loose_litres: litres(volume / supplies.allowances().fill_settling),
            pieces: None,
        };
        let why =
            "What is left over in the tube is filled, so that the roll can't slide or rattle.";
        let layer = fill.made(supplies, (PackOf::Piece, why), adds, inside, Volume::ZERO);
        Some(layer)
    }

    fn made(
        mut self,
        supplies: &Supplies<'_>,
        (of, why): (PackOf, &'static str),
        adds: Addition,
        inside: Envelope,
        hollow: Volume,
    ) -> Layer {
        let stuff = supplies.pack(of).fill;
        let allowances = supplies.allowances();
        self.gap += hollow;
        self.loose += hollow / allowances.fill_settling;
        self.loose_litres = litres(self.loose);
        // Pillows keep their shape: they go into the gap as it is.
        self.pieces = stuff
            .each_litres
            .map(|one| ceil_count(self.gap.as_m3() * LITRES_PER_M3 / one));
        if self.pieces.is_some() {
            self.loose = self.gap;
            self.loose_litres = litres(self.gap);
        }
        supplies.layer(Making {
            slot: of.fill_slot(),
            needs: vec![Need::fill(stuff, self.loose)],
            adds,
            inside,
            minutes: allowances.fill_minutes
                + allowances.fill_minutes_per_m * ((inside.across + inside.up) * 2.0).as_m(),
            why,
            make: Make::EdgeFill(self),
            cushioning: stuff.curve.map(|curve| {
                let sides = Sides {
                    front: adds.front,
                    back: adds.back,
                    across: adds.left,
                    up: adds.top,
                };
                Cushioning::covering(curve, sides)
            }),
        })
    }
}

/// Returns a volume in whole litres, rounded up.
fn litres(volume: Volume) -> u32 {
    ceil_count(volume.as_m3() * LITRES_PER_M3)
}

const LITRES_PER_M3: f64 = 1000.0;

/// Less than this is air.
const LEAST_GAP: Length = Length::mm(3.0);

/// Fill at the edges and behind, or around a roll.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN.tried(8),
    |asked| match asked.carriage {
        Carriage::Rolled => Standing::On,
        _ => asked.boxed(|| Standing::On),
    },
    |around| {
        let (supplies, inside) = (around.supplies, around.inside());
        Ok(match around.tube_fit() {
            Some(fit) => EdgeFill::around_roll(supplies, fit.gap(), inside),
            None => match supplies.bought()? {
                Some(bought) => EdgeFill::in_bought(
                    supplies,
                    left_to_fill(around, bought, taken(around))?,
                    hollow(around),
                    inside,
                ),
                None => EdgeFill::layer(supplies, (hollow(around), taken(around)), inside),
            },
        })
    },
)
.or(|offering| from_shelf!(offering.catalogue.fills, fill).collect());

/// Fill between two boxes.
pub(super) const BETWEEN: Kind = Kind::new(
    Nature::PLAIN,
    |asked| {
        asked.boxed(|| match asked.rules.layers.get(&LayerSlot::SecondBox) {
            Some(true) => Standing::Must("the second box cushions the first one with it"),
            _ => Standing::Never("it belongs to the second box: add or leave out that"),
        })
    },
    |around| {
        let layer = EdgeFill::between_boxes(around.supplies, around.inside());
        Ok(Some(layer))
    },
)
.or(|offering| from_shelf!(offering.catalogue.fills, second_fill).collect());

/// What stands along the edges and behind in place of fill.
fn taken(around: &Around<'_, '_>) -> Addition {
    let there = around.layers.iter();
    there
        .filter(|layer| matches!(layer.slot, LayerSlot::Edges | LayerSlot::PaddingSheets))
        .fold(Addition::default(), |sum, layer| sum + layer.adds)
}

/// What corner blocks leave hollow between them.
fn hollow(around: &Around<'_, '_>) -> Volume {
    let layers = around.layers.windows(2);
    layers
        .filter_map(|pair| match &pair[1].make {
            Make::CornerBlocks(blocks) => Some(blocks.hollow(pair[0].envelope)),
            _ => None,
        })
        .sum()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_gap_is_what_the_box_holds_beyond_the_piece() {
        // 100 × 200 × 50 with 10, 20 behind: 120 × 220 × 70 = 1 848 000 − 1 000 000 = 848 000 mm³;
        // at a share of 0.8 that takes 1 060 000 loose.
        let [across, up, through] = [100.0, 200.0, 50.0].map(Length::mm);
        let fill = EdgeFill::around(
            Envelope {
                across,
                up,
                through,
            },
            Length::mm(10.0),
            Length::mm(20.0),
            0.8,
        );
        assert!((fill.gap.as_m3() - 0.000_848).abs() < 1e-15);
        assert!((fill.loose.as_m3() - 0.001_06).abs() < 1e-15);
        // 1.06 litres are poured from two.
        assert_eq!(fill.loose_litres, 2);
        assert_eq!(fill.behind, Length::mm(20.0));
    }
}
