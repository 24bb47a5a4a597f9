//! A window spacer: strips around a face that nothing may touch. They lie outside it, or on a bare border, never on the picture.

use serde::Serialize;

use super::cradle::has_no_corners;
use super::kind::{Around, Kind, Nature, Offer, Offering, Standing, StandingQuestion, from_shelf};
use super::{Cushioning, Fixing, Layer, Make, Making, Sides, Supplies};
use crate::{
    Refusal,
    house::{Allowances, Carriage},
    part::{Cut, Need, PartId, StripId},
    piece::{Glazing, Medium, Piece},
    quantity::{Area, Length, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// A window of strips that holds the board before a face off it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WindowSpacer {
    /// Where its strips lie.
    pub lies: SpacerLies,
    /// Of each strip; of bars beside a piece how thick they are.
    #[serde(rename = "strip_width_mm")]
    pub strip_width: Length,
    /// Boards one on the other; one for bars of foam.
    pub boards: u32,
    /// That they keep off the face.
    #[serde(rename = "stands_off_mm")]
    pub stands_off: Length,
    /// Of all strips together.
    #[serde(rename = "strip_length_mm")]
    pub strip_length: Length,
    /// Each of the two strips that run through.
    #[serde(rename = "long_strip_mm")]
    pub long_strip: Length,
    /// Each of the two between them.
    #[serde(rename = "short_strip_mm")]
    pub short_strip: Length,
    /// How far a board beyond the edge of the sheet is taken up by them, all round.
    #[serde(rename = "margin_mm")]
    pub margin: Length,
}

/// Where the strips of a window lie.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SpacerLies {
    /// On the back board, outside the sheet.
    OutsideSheet,
    /// On the bare border of the sheet or the piece.
    OnBorder,
    /// Beside a piece that has a depth, as bars on a board behind it.
    Beside,
}

/// Strips lie this far away from the edge of a sheet, and the board ends as far again and a little more beyond them.
pub(crate) const OFF_THE_EDGE: Length = Length::mm(3.0);
const PAST_THE_STRIP: Length = Length::mm(8.0);
/// A strip on a border runs this far past the sheet at both ends, where it is taped.
const PAST_THE_SHEET: Length = Length::mm(20.0);

impl WindowSpacer {
    /// Returns the window for a piece: on its bare border where that is as wide as a strip and 3 more; else outside it, for a loose sheet
    /// as strips of board on the back board, for what has a depth as bars beside it that are as much higher than it.
    ///
    /// Source: house rule.
    #[must_use]
    pub fn of(
        piece: &Piece,
        inside: Envelope,
        caliper: Length,
        depth: Length,
        width: Length,
    ) -> Self {
        let [long, short] = [inside.across.max(inside.up), inside.across.min(inside.up)];
        let loose = piece.construction.is_loose();
        let on_border = has_border_for(piece, width);
        let depth = depth.max(high_over(short));
        let window = |boards: u32, stands_off, [long_strip, short_strip]: [Length; 2]| Self {
            lies: SpacerLies::OnBorder,
            strip_width: width,
            boards,
            stands_off,
            strip_length: (long_strip + short_strip) * f64::from(2 * boards),
            long_strip,
            short_strip,
            margin: Length::ZERO,
        };
        // Strips on the back board begin a sheet lower than its face.
        let high = |from: Length| ceil_count((depth + from) / caliper).max(1);
        if on_border {
            let boards = high(Length::ZERO);
            let past = if loose {
                PAST_THE_SHEET * 2.0
            } else {
                Length::ZERO
            };
            let strips = [long + past, short - width * 2.0];
            return Self {
                margin: if loose { PAST_THE_SHEET } else { Length::ZERO },
                ..window(boards, caliper * f64::from(boards), strips)
            };
        }
        let window_sides = [
            long + OFF_THE_EDGE * 2.0 + width * 2.0,
            short + OFF_THE_EDGE * 2.0,
        ];
        if loose {
            let boards = high(inside.through);
            Self {
                lies: SpacerLies::OutsideSheet,
                margin: width + PAST_THE_STRIP,
                ..window(
                    boards,
                    caliper * f64::from(boards) - inside.through,
                    window_sides,
                )
            }
        } else {
            Self {
                lies: SpacerLies::Beside,
                margin: width + OFF_THE_EDGE,
                ..window(1, depth, window_sides)
            }
        }
    }

    /// Returns how far the board behind a piece stands beyond it, for the bars beside.
    pub(super) fn beside(allowances: &Allowances) -> Length {
        allowances.spacer_width + OFF_THE_EDGE
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        piece: &Piece,
        (count, fixed_to): (u32, Option<Fixing>),
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let board = supplies.board("house.spacer_board", &supplies.rules.materials.spacer_board)?;
        let allowances = supplies.allowances();
        let spacer = Self::of(
            piece,
            inside,
            board.caliper,
            allowances.spacer_depth,
            allowances.spacer_width,
        );
        let each = f64::from(count);
        let mut needs = Vec::new();
        let mut adds = Addition {
            front: spacer.stands_off,
            ..Addition::default()
        };
        let mut cushioning = None;
        let mut minutes = allowances.spacer_minutes
            + allowances.spacer_minutes_per_m * spacer.strip_length.as_m();
        if spacer.lies == SpacerLies::Beside {
            let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
            let behind = supplies.back_board;
            let margin = spacer.margin * 2.0;
            let sides = [inside.across + margin, inside.up + margin];
            // Where the piece is fixed to the board behind, that is there already.
            let there = fixed_to.map(|fixing| fixing.caliper);
            let deep = inside.through - there.unwrap_or_default();
            let bar = |name, length| {
                let cut = Cut::of([length, deep + spacer.stands_off]);
                Need::foam(name, foam, cut, spacer.strip_width).times(2 * count)
            };
            if there.is_none() {
                let board = Need::board(PartId::BoardBehind, behind, Cut::of(sides));
                needs.push(board.times(count));
                minutes = minutes
                    + allowances.board_minutes
                    + allowances.board_minutes_per_m * (sides[0] + sides[1]).as_m();
            }
            needs.extend([
                bar(PartId::LongBar, spacer.long_strip),
                bar(PartId::ShortBar, spacer.short_strip),
            ]);
            let (beside, back) = (
                spacer.margin,
                if there.is_some() {
                    Length::ZERO
                } else {
                    behind.caliper
                },
            );
            adds = Addition::new(beside, beside, spacer.stands_off, back);
            cushioning = Some(
                Cushioning::covering(
                    foam.curve,
                    Sides {
                        across: spacer.strip_width,
                        up: spacer.strip_width,
                        ..Sides::default()
                    },
                )
                .on_board(behind),
            );
        } else {
            let strip = |name, length| {
                let cut = Cut::of([length, spacer.strip_width]);
                Need::board(name, board, cut).times(2 * spacer.boards * count)
            };
            needs.extend([
                strip(PartId::LongStrip, spacer.long_strip),
                strip(PartId::ShortStrip, spacer.short_strip),
            ]);
        }
        needs.push(
            Need::tape(
                supplies.inner_tape,
                StripId::AtBothEndsOfEachStrip,
                allowances.tape_tab,
            )
            .times(8 * count),
        );
        Ok(supplies.layer(Making {
            slot: LayerSlot::WindowSpacer,
            needs,
            adds,
            inside,
            minutes: minutes * each,
            why: match spacer.lies {
                SpacerLies::OnBorder => "Strips on the bare border keep the board off the face.",
                SpacerLies::OutsideSheet => {
                    "Strips outside the sheet keep the board off the picture."
                }
                SpacerLies::Beside => {
                    "Bars beside the piece, higher than its face, keep the board off the picture."
                }
            },
            make: Make::WindowSpacer(spacer),
            cushioning,
        }))
    }

    /// Returns the area of the strips.
    #[must_use]
    pub fn area(self) -> Area {
        self.strip_length * self.strip_width
    }

    /// Returns what it adds to a folio's margin.
    pub(super) fn margin_of_folio(layers: &[Layer]) -> Length {
        let found = layers.iter().find_map(|layer| match &layer.make {
            Make::WindowSpacer(spacer) => Some(spacer.margin),
            _ => None,
        });
        found.unwrap_or(Length::ZERO)
    }
}

/// Strips that keep everything off a face that must not be touched.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, make).or(materials);

fn make(around: &Around<'_, '_>) -> Result<Option<Layer>, Refusal> {
    // One window over all loose sheets: they lie on each other with interleaves between.
    let count = match around.carriage {
        Carriage::Flat => around.piece.count,
        _ => 1,
    };
    let fixed_to = around.layers.iter().find_map(|layer| match layer.make {
        Make::Fixing(fixing) => Some(fixing),
        _ => None,
    });
    let (supplies, piece) = (around.supplies, around.piece);
    WindowSpacer::layer(supplies, piece, (count, fixed_to), around.inside()).map(Some)
}

fn materials(offering: &Offering<'_>) -> Vec<Offer> {
    if offering.piece.construction.is_loose() || offering.piece.bare_border.is_some() {
        from_shelf!(offering.catalogue.boards, spacer_board).collect()
    } else {
        from_shelf!(offering.catalogue.foams, pad_foam).collect()
    }
}

/// Tells whether a bare border is wide enough for strips on it, with the picture free between them. Of what has a depth strips on a
/// border hold nothing, so bars beside it keep off what nothing may touch.
fn has_border_for(piece: &Piece, width: Length) -> bool {
    let borne = piece.construction.is_loose() || !piece.is_friable();
    let wide = |border| border >= width + OFF_THE_EDGE && width * 3.0 <= piece.size.short_side();
    borne && piece.bare_border.is_some_and(wide)
}

/// How far a board is kept off a face over a span. Source: bench practice.
fn high_over(span: Length) -> Length {
    let [lowest, middling, highest] = [6.0, 9.0, 12.0].map(Length::mm);
    if span <= Length::mm(400.0) {
        lowest
    } else if span <= Length::mm(700.0) {
        middling
    } else {
        highest
    }
}

/// Tells whether bars stand beside a piece on a board behind it: the board before its face lies on them, and everything else goes
/// around both boards.
pub(crate) fn has_bars(asked: &StandingQuestion<'_>) -> bool {
    let chosen = asked.rules.layers.get(&LayerSlot::WindowSpacer).copied();
    asked.carriage == Carriage::Flat
        && stands(asked).is_there(chosen)
        && !has_border_for(asked.piece, asked.rules.allowances.spacer_width)
}

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    let piece = asked.piece;
    asked.boxed(|| {
        let left_free = piece.frame_finish().is_left_free() && !piece.needs_spacer();
        if asked.carriage == Carriage::Flat && (has_no_corners(piece) || left_free) {
            Standing::Never(
                "its edge protection stands higher than the face and keeps the board off",
            )
        } else if piece.is_friable() {
            Standing::Must("loose pigment must never be touched; the strips keep everything off it")
        } else if piece.needs_spacer() {
            Standing::Must("thick paint must not be pressed between boards")
        } else if piece.construction.glazing() != Glazing::None {
            Standing::Never("the glazing already keeps everything off the face")
        } else if piece.medium.is_some_and(Medium::takes_no_pressure) {
            Standing::On
        } else {
            Standing::Off
        }
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::piece::{Construction, PieceSize};

    fn spacer(construction: Construction, sides: [f64; 3], border: Option<f64>) -> WindowSpacer {
        let [width, height, depth] = sides.map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        let piece = Piece {
            bare_border: border.map(Length::mm),
            ..Piece::new(construction, size, Some(Medium::PastelOrCharcoal))
        };
        let inside = Envelope {
            across: width,
            up: height,
            through: depth,
        };
        let [caliper, wanted, strip] = [5.0, 6.0, 30.0].map(Length::mm);
        WindowSpacer::of(&piece, inside, caliper, wanted, strip)
    }

    #[test]
    fn two_boards_of_five_lie_outside_a_sheet() {
        // 6 over a sheet of 0.3 are two boards of 5, 9.7 over its face. 3 away all round: 860 + 6 + 60 = 926 and 610 + 6 = 616, twice two
        // of each, 6168 in all; the folio's margin is at least 30 + 8.
        let sheet = spacer(Construction::LoosePaper, [610.0, 860.0, 0.3], None);
        assert_eq!(
            (sheet.lies, sheet.boards, sheet.margin),
            (SpacerLies::OutsideSheet, 2, Length::mm(38.0))
        );
        assert!((sheet.stands_off.as_mm() - 9.7).abs() < 1e-9);
        let [long, short, all] = [926.0, 616.0, 6168.0].map(Length::mm);
        assert_eq!(
            [sheet.long_strip, sheet.short_strip, sheet.strip_length],
            [long, short, all]
        );
    }

    #[test]
    fn on_a_border_the_long_strips_run_past_the_sheet() {
        // A border of 33 takes a strip of 30: 860 + 40 = 900 long, 610 − 60 = 550 between them; one of 32 does not.
        let strips = |border| {
            let sheet = spacer(Construction::LoosePaper, [610.0, 860.0, 0.3], Some(border));
            (sheet.lies, sheet.long_strip, sheet.short_strip)
        };
        let [long, short] = [900.0, 550.0].map(Length::mm);
        assert_eq!(strips(33.0), (SpacerLies::OnBorder, long, short));
        assert_eq!(strips(32.0).0, SpacerLies::OutsideSheet);
    }

    #[test]
    fn bars_stand_beside_what_has_a_depth() {
        // A panel 400 × 600 × 30: bars of 30, 3 away: 600 + 66 = 666 and 406, 6 higher than it.
        let panel = spacer(Construction::CradledPanel, [400.0, 600.0, 30.0], None);
        assert_eq!(
            (panel.lies, panel.stands_off),
            (SpacerLies::Beside, Length::mm(6.0))
        );
        let [long, short, margin] = [666.0, 406.0, 33.0].map(Length::mm);
        assert_eq!(
            [panel.long_strip, panel.short_strip, panel.margin],
            [long, short, margin]
        );
    }
}
