//! Foam: behind a canvas, over the face and the back, along the edges and around the corners.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{
    Addition, Core, CushionFace, Cushioning, Envelope, Layer, LayerSlot, Make, Making, Supplies,
};
use crate::{
    Refusal,
    material::Foam,
    piece::PieceSize,
    quantity::{Area, Length, Mass, Minutes, Volume, decimal_of},
};

/// A pad in the hollow behind a canvas, thinner than the bars.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BackFill {
    /// Between the bars.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Between the bars.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Thinner than the bars.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
}

/// Foam over the face and the back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FacePads {
    /// As it comes, or two sheets together.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// On each side: one over everything, or four at the corners.
    pub pads: u32,
    /// Of one pad.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of one pad.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Of all pads on one side.
    #[serde(rename = "area_m2")]
    pub side_area: Area,
}

/// Foam along the four edges.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EdgePads {
    /// Away from the edge.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// As deep as what is wrapped.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of all four together.
    #[serde(rename = "length_mm")]
    pub length: Length,
}

/// Foam around each corner, as two bars that meet there.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CornerBlocks {
    /// How many.
    pub count: u32,
    /// Away from the edge.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Along each edge, the thickness of the other bar included.
    #[serde(rename = "leg_mm")]
    pub leg: Length,
    /// The longer bar of the two.
    #[serde(rename = "long_bar_mm")]
    pub long_bar: Length,
    /// The shorter one, which the longer one covers.
    #[serde(rename = "short_bar_mm")]
    pub short_bar: Length,
    /// Over the wrapped depth.
    #[serde(rename = "height_mm")]
    pub height: Length,
}

const PADS_AT_CORNERS: u32 = 4;
const BOTH_SIDES: f64 = 2.0;

/// What a volume of foam weighs and costs.
fn cut(foam: &Foam, volume: Volume) -> (Mass, Decimal) {
    (
        foam.density * volume,
        foam.price_per_m3() * decimal_of(volume.as_m3()),
    )
}

impl BackFill {
    /// Returns the pad for the hollow of a canvas; nothing where the bars leave none.
    #[must_use]
    pub fn behind(size: PieceSize, bar: Length, play: Length) -> Option<Self> {
        let hollow = |side: Length| side - bar * 2.0;
        let pad = Self {
            width: hollow(size.width),
            height: hollow(size.height),
            thickness: size.depth - play,
        };
        (pad.width.min(pad.height).min(pad.thickness) > Length::ZERO).then_some(pad)
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        size: PieceSize,
        inside: Envelope,
    ) -> Result<Option<Layer>, Refusal> {
        let foam = supplies.foam("house.back_foam", &supplies.rules.materials.back_foam)?;
        let allowances = supplies.allowances();
        let Some(pad) = Self::behind(size, allowances.bar_width, allowances.back_fill_play) else {
            return Ok(None);
        };
        let area = pad.width * pad.height;
        let (mass, cost) = cut(foam, area * pad.thickness);
        Ok(Some(supplies.layer(Making {
            slot: LayerSlot::BackFill,
            stuff: foam.into(),
            adds: Addition::default(),
            inside,
            area,
            mass,
            doubt: allowances.fill_doubt,
            cost,
            tape: None,
            minutes: allowances.pad_minutes,
            why: "The pad stops the cloth from swinging without touching it: it is thinner than the bars.",
            make: Make::BackFill(pad),
            cushioning: None,
        })))
    }
}

impl FacePads {
    /// Returns pads of a thickness over a face: one over all of it, or four of a quarter of an area.
    #[must_use]
    pub fn over(inside: Envelope, thickness: Length, area: Option<Area>) -> Self {
        let whole = inside.face();
        match area.filter(|&area| area < whole) {
            None => Self {
                thickness,
                pads: 1,
                width: inside.across,
                height: inside.up,
                side_area: whole,
            },
            Some(area) => {
                let one = area / f64::from(PADS_AT_CORNERS);
                let side = Length::mm(one.as_m2().sqrt() * MM_PER_M);
                let width = side.min(inside.across / 2.0);
                let height = Length::mm(one.as_m2() / width.as_m() * MM_PER_M);
                Self {
                    thickness,
                    pads: PADS_AT_CORNERS,
                    width,
                    height,
                    side_area: area,
                }
            }
        }
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        core: Core,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let allowances = supplies.allowances();
        let shipment = &supplies.rules.shipment;
        // What the house says of every piece gives way to a narrow one; what was asked for does not.
        let thickness = if shipment.pads_asked {
            allowances.pad_thickness
        } else {
            allowances.pad_thickness.min(inside.across.min(inside.up))
        };
        let pads = Self::over(inside, thickness, shipment.pad_area);
        let area = pads.side_area * BOTH_SIDES;
        let (mass, cost) = cut(foam, area * pads.thickness);
        let t = pads.thickness;
        let overlap = if pads.pads == 1 {
            core.face
        } else {
            pads.side_area.min(core.face)
        };
        Ok(supplies.layer(Making {
            slot: LayerSlot::FacePads,
            stuff: foam.into(),
            adds: Addition::new(Length::ZERO, Length::ZERO, t, t),
            inside,
            area,
            mass,
            doubt: allowances.sheet_doubt,
            cost,
            tape: Some((
                supplies.wrap_tape,
                allowances.tape_tab * (f64::from(pads.pads) * BOTH_SIDES * 2.0),
            )),
            minutes: allowances.pad_minutes * (f64::from(pads.pads) * BOTH_SIDES),
            why: "Foam in front and behind takes a fall on the face, which a wrap around so large a face hardly softens.",
            make: Make::FacePads(pads),
            cushioning: Some(Cushioning {
                curve: foam.curve,
                front: Some(CushionFace {
                    area: overlap,
                    thickness: t,
                }),
                across: None,
                up: None,
            }),
        }))
    }
}

impl EdgePads {
    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        core: Core,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let allowances = supplies.allowances();
        let t = allowances.edge_pad_thickness;
        let pads = Self {
            thickness: t,
            width: inside.through,
            // The pads across run past those up, so that the corners are covered.
            length: (inside.across + inside.up + t * 2.0) * 2.0,
        };
        let area = pads.length * pads.width;
        let (mass, cost) = cut(foam, area * t);
        let adds = Addition::new(t, t, Length::ZERO, Length::ZERO);
        Ok(supplies.layer(Making {
            slot: LayerSlot::EdgePads,
            stuff: foam.into(),
            adds,
            inside,
            area,
            mass,
            doubt: allowances.sheet_doubt,
            cost,
            tape: Some((supplies.wrap_tape, allowances.tape_tab * 8.0)),
            minutes: allowances.pad_minutes * 4.0,
            why: "Foam along the edges takes a fall on any of them.",
            make: Make::EdgePads(pads),
            cushioning: Some(core.covered(foam.curve, adds)),
        }))
    }
}

impl CornerBlocks {
    /// Returns the blocks for an envelope: the leg at least twice the thickness, never past the middle of
    /// the short edge. Source: house rule.
    #[must_use]
    pub fn around(
        inside: Envelope,
        count: u32,
        thickness: Length,
        leg: Length,
        proud: Length,
    ) -> Self {
        let short = inside.across.min(inside.up);
        let leg = leg.max(thickness).min(short / 2.0 + thickness);
        Self {
            count,
            thickness,
            leg,
            long_bar: leg,
            short_bar: (leg - thickness).max(Length::ZERO),
            height: inside.through + proud,
        }
    }

    /// Returns the foam in one block.
    #[must_use]
    pub fn volume(self) -> Volume {
        (self.long_bar + self.short_bar) * self.thickness * self.height
    }

    /// Returns the hollow between the blocks, for the fill.
    #[must_use]
    pub fn hollow(self, inside: Envelope) -> Volume {
        let ring = inside
            .grown(Addition::new(
                self.thickness,
                self.thickness,
                Length::ZERO,
                Length::ZERO,
            ))
            .face();
        let between = Area::m2((ring.as_m2() - inside.face().as_m2()).max(0.0));
        let blocks = (self.long_bar + self.short_bar) * self.thickness * f64::from(self.count);
        Area::m2((between.as_m2() - blocks.as_m2()).max(0.0)) * inside.through
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        core: Core,
        count: u32,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let allowances = supplies.allowances();
        let blocks = Self::around(
            inside,
            count,
            allowances.block_thickness,
            supplies
                .rules
                .shipment
                .block_leg
                .unwrap_or(allowances.block_thickness * allowances.block_leg_share),
            allowances.block_proud,
        );
        let each = f64::from(count);
        let (mass, cost) = cut(foam, blocks.volume() * each);
        let (t, proud) = (blocks.thickness, allowances.block_proud / 2.0);
        // Two blocks bear on each edge, over what lies beside the core.
        let bears = (blocks.leg - blocks.thickness) * core.through * 2.0;
        let face = (bears > Area::ZERO).then_some(CushionFace {
            area: bears,
            thickness: t,
        });
        Ok(supplies.layer(Making {
            slot: LayerSlot::CornerBlocks,
            stuff: foam.into(),
            adds: Addition::new(t, t, proud, proud),
            inside,
            area: Area::ZERO,
            mass,
            doubt: allowances.sheet_doubt,
            cost,
            tape: Some((supplies.wrap_tape, allowances.tape_tab * (2.0 * each))),
            minutes: Minutes::min_of(allowances.block_minutes.as_min() * each),
            why: "Most falls end on an edge or a corner; blocks take them there, and hold the piece in the middle of its box.",
            make: Make::CornerBlocks(blocks),
            cushioning: Some(Cushioning {
                curve: foam.curve,
                front: None,
                across: face,
                up: face,
            }),
        }))
    }
}

const MM_PER_M: f64 = 1e3;

#[cfg(test)]
mod tests {
    use super::*;

    fn envelope() -> Envelope {
        let [across, up, through] = [560.0, 740.0, 80.0].map(Length::mm);
        Envelope {
            across,
            up,
            through,
        }
    }

    #[test]
    fn a_back_fill_is_thinner_than_the_bars() {
        let [width, height, depth] = [900.0, 1200.0, 38.0].map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        let pad = BackFill::behind(size, Length::mm(40.0), Length::mm(5.0)).expect("a hollow");
        assert_eq!(
            (pad.width, pad.thickness),
            (Length::mm(820.0), Length::mm(33.0))
        );
        let small = PieceSize {
            width: Length::mm(70.0),
            ..size
        };
        assert_eq!(
            BackFill::behind(small, Length::mm(40.0), Length::mm(5.0)),
            None
        );
    }

    #[test]
    fn a_wanted_area_becomes_four_pads() {
        // 400 cm² in four of 100 cm²: 100 × 100 mm
        let pads = FacePads::over(envelope(), Length::mm(50.0), Some(Area::m2(0.04)));
        assert_eq!(pads.pads, 4);
        assert!((pads.width.as_mm() - 100.0).abs() < 1e-9);
        assert!((pads.height.as_mm() - 100.0).abs() < 1e-9);
        assert_eq!(FacePads::over(envelope(), Length::mm(50.0), None).pads, 1);
    }

    #[test]
    fn a_corner_block_is_two_bars() {
        // Leg 2 × 40 = 80: bars of 80 and 40, 83 high: (0.08 + 0.04) × 0.04 × 0.083 = 0.0003984 m³
        let blocks = CornerBlocks::around(
            envelope(),
            4,
            Length::mm(40.0),
            Length::mm(80.0),
            Length::mm(3.0),
        );
        assert_eq!(
            (blocks.long_bar, blocks.short_bar),
            (Length::mm(80.0), Length::mm(40.0))
        );
        assert!((blocks.volume().as_m3() - 0.000_398_4).abs() < 1e-12);
        // Ring 640 × 820 − 560 × 740 = 110 400; blocks 4 × 4800 = 19 200; 91 200 × 80 mm³
        assert!((blocks.hollow(envelope()).as_m3() - 0.007_296).abs() < 1e-12);
    }
}
