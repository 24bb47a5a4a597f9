//! Foam: behind a canvas, over the face and the back, along the edges and around the corners.

use serde::Serialize;

use super::cradle::lies_in_chocks;
use super::face_board::has_back_board;
use super::kind::{Kind, Nature, Offer, Offering, Standing, from_shelf};
use super::supplies::SheetGoods;
use super::{CushionFace, Cushioning, Layer, Make, Making, Sides, Supplies, has_bars};
use crate::{
    Refusal,
    part::{Cut, Need, PartId, StripId},
    piece::{Construction, PieceSize},
    quantity::{Area, Length, Minutes, Volume, floor_count},
    space::{Addition, Envelope, LayerSlot},
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
    /// How far they are cut out behind the corner, each way; nothing where they lie against it.
    #[serde(rename = "cut_out_mm")]
    pub cut_out: Length,
}

/// What a block is cut out behind a corner that stands up.
const BEHIND_A_CORNER: Length = Length::mm(20.0);

/// Four pads of this share of each side lie apart; larger ones are one pad over everything.
const LARGEST_PADS: f64 = 0.45;
/// A longer block is an edge pad.
pub(crate) const LONGEST_LEG: f64 = 0.4;
const PADS_AT_CORNERS: u32 = 4;
const SIDES_OF_A_PAD: u32 = 4;
/// As much of a strip lies on a pad as beside it.
const TABS_A_STRIP: f64 = 2.0;
const BOTH_SIDES: u32 = 2;

impl BackFill {
    /// Returns the pad for the hollow of a canvas; `None` if the bars leave none.
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
        (size, covered): (PieceSize, bool),
        inside: Envelope,
    ) -> Result<Option<Layer>, Refusal> {
        let id = &supplies.rules.materials.back_foam;
        let goods = supplies.sheet_goods("house.back_foam", id)?;
        let allowances = supplies.allowances();
        let Some(hollow) = Self::behind(size, allowances.bar_width, allowances.back_fill_play)
        else {
            return Ok(None);
        };
        // What comes off a roll is folded as often as it stays under the bars.
        let (layers, thickness) = match goods {
            SheetGoods::Foam(..) => (1, hollow.thickness),
            SheetGoods::Wrap(_) | SheetGoods::Board(_) => {
                let one = goods.thickness();
                let count = floor_count(hollow.thickness / one);
                (count, one * f64::from(count))
            }
        };
        if layers == 0 {
            return Ok(None);
        }
        let pad = Self {
            thickness,
            ..hollow
        };
        let need = goods
            .as_thick(thickness)
            .need(PartId::Pad, [pad.width, pad.height]);
        let mut needs = vec![need.times(layers)];
        // A board behind keeps it in; without one it is taped to the bars.
        if !covered {
            let strip = allowances.tape_tab * TABS_A_STRIP;
            let tape = Need::tape(supplies.inner_tape, StripId::AtItsFourSides, strip);
            needs.push(tape.times(SIDES_OF_A_PAD));
        }
        Ok(Some(supplies.layer(Making {
            slot: LayerSlot::BackFill,
            needs,
            adds: Addition::default(),
            inside,
            minutes: allowances.pad_minutes,
            why: "The pad, thinner than the bars, stops the cloth from swinging without touching it.",
            make: Make::BackFill(pad),
            cushioning: None,
        })))
    }
}

impl FacePads {
    /// Returns pads of a thickness over a face: one over all of it, or four of a quarter of an area each, that lie
    /// within the piece and apart from each other.
    #[must_use]
    pub fn over(inside: Envelope, body: PieceSize, thickness: Length, area: Option<Area>) -> Self {
        let whole = inside.face();
        let most = body.face() * (LARGEST_PADS * LARGEST_PADS * f64::from(PADS_AT_CORNERS));
        match area.filter(|&area| area < most) {
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
                let most = [body.width, body.height].map(|along| along * LARGEST_PADS);
                let width = side
                    .min(most[0])
                    .max(Length::mm(one.as_m2() / most[1].as_m() * MM_PER_M));
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
        body: PieceSize,
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
        let pads = Self::over(inside, body, thickness, shipment.pad_area);
        let t = pads.thickness;
        let covers = Sides {
            front: t,
            back: t,
            ..Sides::default()
        };
        let own = (pads.pads > 1).then_some(CushionFace {
            area: Some(pads.side_area),
            thickness: t,
        });
        let mut cushioning = Cushioning::covering(foam.curve, covers);
        if own.is_some() {
            (cushioning.front, cushioning.back) = (own, own);
        }
        Ok(supplies.layer(Making {
            slot: LayerSlot::FacePads,
            needs: vec![
                Need::foam(PartId::Pad, foam, Cut::of([pads.width, pads.height]), t).times(pads.pads * BOTH_SIDES),
                Need::tab(supplies.wrap_tape, StripId::OverEachPad, allowances.tape_tab).times(pads.pads * BOTH_SIDES * 2),
            ],
            adds: Addition::new(Length::ZERO, Length::ZERO, t, t),
            inside,
            minutes: (allowances.pad_minutes
                + allowances.pad_minutes_per_m * (pads.width + pads.height).as_m())
                * f64::from(pads.pads * BOTH_SIDES),
            why: "Foam in front and behind cushions a fall on the face; wrap alone hardly cushions a face this large.",
            make: Make::FacePads(pads),
            cushioning: Some(cushioning),
        }))
    }
}

impl EdgePads {
    pub(crate) fn layer(supplies: &Supplies<'_>, inside: Envelope) -> Result<Layer, Refusal> {
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let allowances = supplies.allowances();
        let t = allowances.edge_pad_thickness;
        let pads = Self {
            thickness: t,
            width: inside.through,
            // The pads across run past those up, so that the corners are covered.
            length: (inside.across + inside.up + t * 2.0) * 2.0,
        };
        // Those across cover the ends of those up.
        let bar =
            |along| Need::foam(PartId::EdgePad, foam, Cut::of([along, pads.width]), t).times(2);
        let needs = vec![
            bar(inside.across + t * 2.0),
            bar(inside.up),
            Need::tab(
                supplies.wrap_tape,
                StripId::FromPadToPad,
                allowances.tape_tab,
            )
            .times(8),
        ];
        let adds = Addition::new(t, t, Length::ZERO, Length::ZERO);
        Ok(supplies.layer(Making {
            slot: LayerSlot::EdgePads,
            needs,
            adds,
            inside,
            minutes: allowances.pad_minutes * 4.0
                + allowances.pad_minutes_per_m * pads.length.as_m(),
            why: "Foam along the edges cushions a fall on any of them.",
            make: Make::EdgePads(pads),
            cushioning: Some(Cushioning::covering(
                foam.curve,
                Sides {
                    across: t,
                    up: t,
                    ..Sides::default()
                },
            )),
        }))
    }
}

impl CornerBlocks {
    /// Returns the blocks for an envelope: a leg is at least twice the thickness and at most 0.4 of the short
    /// edge, so that two of them never meet; a thickness that leaves no such leg gives way. Source: house rule.
    #[must_use]
    pub fn around(
        inside: Envelope,
        body: PieceSize,
        count: u32,
        (thickness, leg): (Length, Length),
        proud: Length,
    ) -> Self {
        let longest = body.short_side() * LONGEST_LEG;
        let thickness = thickness.min(longest / 2.0);
        let leg = leg.clamped(thickness * 2.0, longest);
        Self {
            count,
            thickness,
            leg,
            long_bar: leg,
            short_bar: (leg - thickness).max(Length::ZERO),
            height: inside.through + proud,
            cut_out: Length::ZERO,
        }
    }

    /// Returns the layer of blocks on the bare corners of an ornate frame: cut out behind each, so that nothing touches what stands up.
    pub(crate) fn behind_corners(
        supplies: &Supplies<'_>,
        body: (PieceSize, Length),
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let layer = Self::layer(supplies, body, BLOCK_CORNERS, inside)?;
        let Make::CornerBlocks(blocks) = layer.make else {
            return Ok(layer);
        };
        let cut_out = BEHIND_A_CORNER.min(blocks.short_bar / 2.0);
        let front = blocks.height - inside.through;
        let adds = Addition {
            front,
            back: Length::ZERO,
            ..layer.adds
        };
        Ok(Layer {
            slot: LayerSlot::Corners,
            adds,
            envelope: inside.grown(adds),
            why: "Its corners stand out: blocks cut out behind them hold the frame and keep boards off.",
            make: Make::CornerBlocks(Self { cut_out, ..blocks }),
            ..layer
        })
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
        (body, bearing_depth): (PieceSize, Length),
        count: u32,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let allowances = supplies.allowances();
        let blocks = Self::around(
            inside,
            body,
            count,
            (
                allowances.block_thickness,
                supplies
                    .rules
                    .shipment
                    .block_leg
                    .unwrap_or(allowances.block_thickness * allowances.block_leg_share),
            ),
            allowances.block_proud,
        );
        let each = f64::from(count);
        let (t, proud) = (blocks.thickness, allowances.block_proud / 2.0);
        // Two blocks bear on each edge, over what lies beside the core.
        let bears = (blocks.leg - blocks.thickness) * bearing_depth * 2.0;
        let face = (bears > Area::ZERO).then_some(CushionFace {
            area: Some(bears),
            thickness: t,
        });
        Ok(supplies.layer(Making {
            slot: LayerSlot::CornerBlocks,
            needs: vec![
                Need::foam(PartId::LongBar, foam, Cut::of([blocks.long_bar, blocks.height]), t).times(count),
                Need::foam(PartId::ShortBar, foam, Cut::of([blocks.short_bar, blocks.height]), t).times(count),
                Need::tab(supplies.wrap_tape, StripId::FromBarToBar, allowances.tape_tab).times(2 * count),
            ],
            adds: Addition::new(t, t, proud, proud),
            inside,
            minutes: Minutes::min_of(allowances.block_minutes.as_min() * each),
            why: "Most falls end on an edge or a corner; blocks cushion both and centre the piece in the box.",
            make: Make::CornerBlocks(blocks),
            cushioning: Some(Cushioning {
                across: face,
                up: face,
                bears_on: Some(bearing_depth),
                ..Cushioning::covering(foam.curve, Sides::default())
            }),
        }))
    }
}

const MM_PER_M: f64 = 1e3;

/// A pad in the hollow behind a canvas.
pub(super) const BEHIND: Kind = Kind::new(
    Nature::PLAIN,
    |asked| {
        asked.flat(|| match asked.piece.construction {
            Construction::StretchedCanvas if has_bars(asked) || lies_in_chocks(asked) => {
                Standing::Never("the board behind the canvas closes its hollow")
            }
            Construction::StretchedCanvas => Standing::Off,
            _ => Standing::Never("only a stretched canvas has a hollow back"),
        })
    },
    |around| {
        let (supplies, piece) = (around.supplies, around.piece);
        let covered = around.has(LayerSlot::FaceBoards) && has_back_board(piece, supplies.rules);
        BackFill::layer(supplies, (piece.size, covered), around.inside())
    },
)
.or(|offering| {
    let foams = from_shelf!(offering.catalogue.foams, back_foam);
    foams
        .chain(from_shelf!(offering.catalogue.cushion_wraps, back_foam))
        .collect()
});

/// Foam over the face and the back.
pub(super) const FACE: Kind = Kind::new(
    Nature::PLAIN
        .hiding()
        .tried(4)
        .left_out(super::kind::Family::FaceFoam, "Without the face pads"),
    |asked| asked.boxed(|| Standing::Off),
    |around| FacePads::layer(around.supplies, around.body(), around.inside()).map(Some),
)
.or(foams);

/// Foam along the four edges.
pub(super) const EDGES: Kind = Kind::new(
    Nature::PLAIN
        .tried(5)
        .left_out(super::kind::Family::EdgeFoam, "Without the edge pads"),
    |asked| asked.boxed(|| Standing::Off),
    |around| EdgePads::layer(around.supplies, around.inside()).map(Some),
)
.or(foams);

/// Foam around each corner.
pub(super) const CORNERS: Kind = Kind::new(
    Nature::PLAIN
        .tried(6)
        .left_out(super::kind::Family::EdgeFoam, "Without the corner blocks"),
    |asked| asked.boxed(|| Standing::Off),
    |around| {
        let body = (around.body(), around.bearing_depth());
        CornerBlocks::layer(around.supplies, body, BLOCK_CORNERS, around.inside()).map(Some)
    },
)
.or(foams);

/// A wrapped piece is a block with four corners, whatever its outline.
const BLOCK_CORNERS: u32 = 4;

fn foams(offering: &Offering<'_>) -> Vec<Offer> {
    from_shelf!(offering.catalogue.foams, pad_foam).collect()
}

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

    fn body() -> PieceSize {
        let [width, height, depth] = [500.0, 700.0, 24.0].map(Length::mm);
        PieceSize {
            width,
            height,
            depth,
        }
    }

    #[test]
    fn blocks_on_a_short_edge_never_meet_and_pads_lie_apart() {
        // 0.4 × 100 = 40 of leg, and half of that of foam; 0.45 × 100 × 0.45 × 700 × 4 = 567 cm² at most
        let narrow = PieceSize {
            width: Length::mm(100.0),
            ..body()
        };
        let wanted = (Length::mm(40.0), Length::mm(200.0));
        let blocks = CornerBlocks::around(envelope(), narrow, 4, wanted, Length::mm(3.0));
        assert_eq!(
            (blocks.leg, blocks.thickness),
            (Length::mm(40.0), Length::mm(20.0))
        );
        let pads = |cm2: f64| {
            let area = Some(Area::m2(cm2 / 1e4));
            FacePads::over(envelope(), narrow, Length::mm(25.0), area)
        };
        assert_eq!(pads(568.0).pads, 1);
        let four = pads(560.0);
        assert_eq!(four.pads, 4);
        assert!(four.width <= Length::mm(45.0) && four.height <= Length::mm(315.0));
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
        let pads = FacePads::over(envelope(), body(), Length::mm(50.0), Some(Area::m2(0.04)));
        assert_eq!(pads.pads, 4);
        assert!((pads.width.as_mm() - 100.0).abs() < 1e-9);
        assert!((pads.height.as_mm() - 100.0).abs() < 1e-9);
        assert_eq!(
            FacePads::over(envelope(), body(), Length::mm(50.0), None).pads,
            1
        );
    }

    #[test]
    fn a_corner_block_is_two_bars() {
        // Leg 2 × 40 = 80: bars of 80 and 40, 83 high: (0.08 + 0.04) × 0.04 × 0.083 = 0.0003984 m³
        let blocks = CornerBlocks::around(
            envelope(),
            body(),
            4,
            (Length::mm(40.0), Length::mm(80.0)),
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
