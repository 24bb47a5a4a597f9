//! A loose sheet rolled up, and the tube that it goes into.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, ways_of_loose};
use super::{Layer, Make, Making, RollSize, Supplies, TubeBox, boxed::sealed_by};
use crate::{
    carton::{TRIANGLE_HEIGHT, TriangularTube},
    house::{Carriage, CoreRule},
    material::{RollCore, Tube},
    part::{Need, PartId, StripId},
    piece::{Construction, Medium, PaintBody, Piece},
    quantity::{Area, Length, Volume},
    space::{Addition, Envelope, LayerSlot},
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
    /// Whether it is rolled on a core, which stays in it.
    pub cored: bool,
}

/// Paper up to this thick rolls in the tightest.
const THIN_PAPER: Length = Length::mm(0.35);

/// Returns the tightest inner diameter for a surface: 75 mm for paper up to 0.35 mm, 100 for thicker paper, raised paint on paper
/// and acrylic on canvas, 150 for oil on canvas. Source: workshop custom.
#[must_use]
pub fn least_roll(piece: &Piece) -> Length {
    let cloth = piece.construction == Construction::LooseCanvas;
    let oil = matches!(piece.medium, Some(Medium::Oil | Medium::OilFastDrying));
    let thick_paper = piece.size.depth > THIN_PAPER || piece.paint != PaintBody::Thin;
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
const BOTH_ENDS: f64 = 2.0;

/// Fewer turns than this spring open, and lie as well flat.
const LEAST_TURNS: f64 = 1.5;

/// Tells whether a loose piece makes enough turns at its tightest diameter to be rolled.
#[must_use]
pub fn rolls_up(piece: &Piece) -> bool {
    let around = least_roll(piece) * (std::f64::consts::PI * LEAST_TURNS);
    piece.size.long_side() >= around
}

impl Roll {
    /// Returns the roll of a piece with its interleaves, on a core or a chosen diameter.
    #[must_use]
    pub fn of(piece: &Piece, interleaf: Length, inner: Length, cored: bool) -> Self {
        let size = piece.size;
        let sheet = if piece.construction == Construction::LooseCanvas {
            CLOTH
        } else {
            PAPER
        };
        let sheets = f64::from(piece.count);
        let thickness = (sheet.min(size.depth) + interleaf * 2.0) * sheets;
        let rolled = size.long_side();
        let outer = RollSize::of(inner, rolled, thickness, Length::ZERO).outer;
        Self {
            inner,
            rolled,
            along: size.short_side(),
            thickness,
            outer,
            cored,
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
        let core = core_for(piece, supplies);
        let chosen = supplies.rules.shipment.roll_inner;
        let inner = match core {
            Some(core) => core.outside,
            None => chosen.unwrap_or_else(|| least_roll(piece)),
        };
        let roll = Self::of(piece, interleaf, inner, core.is_some());
        let across = (roll.outer - inside.across) / 2.0;
        let up = (roll.along - inside.up) / 2.0;
        let through = (roll.outer - inside.through) / 2.0;
        // Two bands of paper tape, closed on themselves and not on the art.
        let band = roll.outer * std::f64::consts::PI + allowances.tape_tab;
        let needs = core
            .map(|core| Need::core(core, roll.along))
            .into_iter()
            .chain([Need::tab(supplies.inner_tape, StripId::AroundTheBandAtEachEnd, band).times(2)])
            .collect();
        supplies.layer(Making {
            slot: LayerSlot::Roll,
            needs,
            adds: Addition::new(across, up, through, through),
            inside,
            minutes: allowances.roll_minutes
                + allowances.roll_minutes_per_m * (roll.rolled + roll.along).as_m(),
            why: "Face out, paint stretches rather than creases; the band sticks to itself, not to the art.",
            make: Make::Roll(roll),
            cushioning: None,
        })
    }
}

/// The narrowest core that is wide enough for the surface, where the house rolls on cores and no diameter was
/// chosen that no core has.
fn core_for<'a>(piece: &Piece, supplies: &Supplies<'a>) -> Option<&'a RollCore> {
    if supplies.rules.schools.roll_core == CoreRule::NoCore {
        return None;
    }
    let least = supplies
        .rules
        .shipment
        .roll_inner
        .unwrap_or_else(|| least_roll(piece));
    supplies
        .catalogue
        .cores
        .iter()
        .filter(|core| !core.shelf.retired && core.longest >= piece.size.short_side())
        .filter(|core| core.outside >= least && core.outside <= least * WIDEST_CORE)
        .min_by_key(|core| core.outside)
}

/// A core wider than this share of what was wanted makes another tube.
const WIDEST_CORE: f64 = 1.2;

/// How a roll goes into its tube.
pub(crate) struct TubeFit<'a> {
    /// Turns of wrap around it.
    pub turns: u32,
    /// The round tube that takes it; `None` where it is folded from board.
    round: Option<&'a Tube>,
    size: RollSize,
}

impl<'a> TubeFit<'a> {
    /// Returns the narrowest tube for a roll with turns of wrap; with one turn less where that takes a narrower
    /// one and nobody asked for the turn.
    pub(crate) fn of(supplies: &Supplies<'a>, roll: Roll, turns: u32, asked: bool) -> Self {
        let whole = Self::with(supplies, roll, turns);
        if turns < 2 || asked {
            return whole;
        }
        let less = Self::with(supplies, roll, turns - 1);
        match (whole.round, less.round) {
            (Some(wide), Some(narrow)) if narrow.inside < wide.inside => less,
            (None, Some(_)) => less,
            _ => whole,
        }
    }

    fn with(supplies: &Supplies<'a>, roll: Roll, turns: u32) -> Self {
        let allowances = supplies.allowances();
        let wrap = supplies.cushion_wrap.loaded_thickness * f64::from(turns);
        let size = RollSize::of(roll.inner, roll.rolled, roll.thickness, wrap);
        let ends = (allowances.tube_end_pad + allowances.tube_end_air) * BOTH_ENDS;
        let length = roll.along + ends;
        let folded = supplies.rules.shipment.folded_tube;
        let round = supplies
            .catalogue
            .tubes
            .iter()
            .filter(|tube| !tube.shelf.retired && !folded)
            .filter(|tube| tube.inside >= size.tube_inside && tube.longest >= length)
            .min_by_key(|tube| tube.inside);
        Self { turns, round, size }
    }

    /// Tells whether it is folded from board: no round one takes the roll, or somebody asked for it.
    pub(crate) const fn is_folded(&self) -> bool {
        self.round.is_none()
    }

    /// Returns what is left over on each side of what is wrapped, beyond the play of the tube.
    pub(crate) fn gap(&self) -> Length {
        self.round.map_or(Length::ZERO, |tube| {
            (tube.inside - self.size.tube_inside) / 2.0
        })
    }
}

/// What the pads at both ends are called among the parts of the layer.
const FIRST_END: PartId = PartId::PadForTheFirstEnd;
pub(crate) const LAST_END: PartId = PartId::PadForTheLastEnd;

impl TubeBox {
    fn round(tube: &Tube, needed: Length, length: Length, ends: [Length; 2]) -> Self {
        Self {
            needed,
            inside: tube.inside,
            wall: tube.wall,
            length,
            end_pad: ends[0],
            end_air: ends[1],
            triangular: false,
            creases: [Length::ZERO; 4],
            sheet_width: Length::ZERO,
            blanks: Vec::new(),
            seal: Vec::new(),
        }
    }

    pub(crate) fn folded(caliper: Length, side: Length, length: Length, ends: [Length; 2]) -> Self {
        let tube = TriangularTube {
            side,
            length,
            caliper,
        };
        let mut at = Length::ZERO;
        let creases = tube.panels().map(|panel| {
            at += panel;
            at
        });
        Self {
            needed: side,
            inside: side,
            wall: caliper,
            length,
            end_pad: ends[0],
            end_air: ends[1],
            triangular: true,
            creases,
            sheet_width: at,
            blanks: vec![tube.blank(), tube.cap()],
            seal: Vec::new(),
        }
    }

    pub(crate) fn layer(supplies: &Supplies<'_>, fit: &TubeFit<'_>, inside: Envelope) -> Layer {
        let allowances = supplies.allowances();
        let ends = [allowances.tube_end_pad, allowances.tube_end_air];
        let length = inside.up + (ends[0] + ends[1]) * BOTH_ENDS;
        let board = supplies.first.board;
        let round = fit.round;
        let mut tube = match round {
            Some(tube) => Self::round(tube, fit.size.tube_inside, length, ends),
            None => Self::folded(board.caliper, fit.size.triangle_side, length, ends),
        };
        let (across, through) = tube.outside();
        let adds = Addition::new(
            (across - inside.across) / 2.0,
            (length - inside.up) / 2.0 + tube.wall,
            (through - inside.through) / 2.0,
            (through - inside.through) / 2.0,
        );
        let mut needs: Vec<Need<'_>> = match round {
            Some(round) => vec![Need::tube(round, length)],
            // One sheet and two caps, each out of its own rectangle.
            None => tube
                .blanks
                .iter()
                .zip([1, 2])
                .map(|(blank, count)| Need::board(blank.part, board, blank.cut()).times(count))
                .collect(),
        };
        let pad = tube.room_across() * ends[0];
        let pads = [FIRST_END, LAST_END].map(|name| {
            Need::fill(supplies.first.fill, pad / allowances.fill_settling).called(name)
        });
        needs.extend(pads.into_iter().filter(|_| pad > Volume::ZERO));
        let around = if tube.triangular {
            across * 3.0
        } else {
            across * std::f64::consts::PI
        };
        tube.seal = TubeBox::sealed(around + allowances.seal_return, length, tube.triangular);
        needs.extend(sealed_by(supplies, &tube.seal));
        supplies.layer(Making {
            slot: LayerSlot::Box,
            needs,
            adds,
            inside,
            minutes: allowances.tube_minutes + allowances.seal_minutes * BOTH_ENDS,
            why: "The tube keeps the roll round; pads at both ends cushion a drop on its end.",
            make: Make::Tube(tube),
            cushioning: None,
        })
    }

    /// The area across it, inside.
    fn room_across(&self) -> Area {
        let square = self.inside * self.inside;
        if self.triangular {
            square * (TRIANGLE_HEIGHT / 2.0)
        } else {
            square * std::f64::consts::FRAC_PI_4
        }
    }

    /// What it is across and through outside.
    fn outside(&self) -> (Length, Length) {
        if self.triangular {
            let side = self.folded_from().cap_outside();
            (side, side * TRIANGLE_HEIGHT)
        } else {
            let across = self.inside + self.wall * 2.0;
            (across, across)
        }
    }

    /// The tube that is folded from board, of the same inside.
    const fn folded_from(&self) -> TriangularTube {
        TriangularTube {
            side: self.inside,
            length: self.length,
            caliper: self.wall,
        }
    }
}

/// A loose canvas or sheet rolled up.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN,
    |asked| {
        asked.loose(|carriage| match carriage {
            Carriage::Rolled => Standing::Must("the roll goes into the tube"),
            Carriage::Mailed | Carriage::Padded => asked.boxed(|| Standing::Off),
            _ => Standing::Never("these sheets are sent flat"),
        })
    },
    |around| {
        Ok(Some(Roll::layer(
            around.supplies,
            around.piece,
            around.inside(),
        )))
    },
)
.or(ways_of_loose);

#[cfg(test)]
mod tests {
    use super::*;
    use crate::piece::PieceSize;

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
        let roll = Roll::of(&piece, Length::mm(0.04), Length::mm(150.0), false);
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

    #[test]
    fn a_sheet_that_makes_no_turns_is_not_rolled() {
        // 1.5 × π × 100 = 471.2
        let piece = |height| {
            let [width, height, depth] = [300.0, height, 1.0].map(Length::mm);
            let size = PieceSize {
                width,
                height,
                depth,
            };
            Piece::new(Construction::LooseCanvas, size, Some(Medium::Acrylic))
        };
        assert!(!rolls_up(&piece(471.0)));
        assert!(rolls_up(&piece(472.0)));
    }
}
