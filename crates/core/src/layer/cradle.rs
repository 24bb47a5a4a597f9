//! The cradle board: a board with chocks that hold a piece without corners at its bearing points.

use serde::Serialize;

use super::kind::{
    Around, Kind, Nature, Offer, Offering, Standing, StandingQuestion, from_shelf, schools,
};
use super::{CushionFace, Cushioning, Layer, Make, Making, Sides};
use crate::{
    Refusal,
    house::{Allowances, SchoolChoices, ShapedHold},
    part::{Cut, Need, PartId, StripId},
    piece::{Bearing, Piece, PieceSize},
    quantity::Length,
    space::{Addition, Envelope, LayerSlot},
};

/// A board with chocks, and a piece between them. `width`, `height` and `caliper` are those of the board.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Cradle {
    /// Across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// How thick.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// How far the board stands beyond the left edge of the piece.
    #[serde(rename = "left_mm")]
    pub left: Length,
    /// How far it stands beyond the lower edge.
    #[serde(rename = "below_mm")]
    pub below: Length,
    /// How wide every chock is, away from the piece.
    #[serde(rename = "chock_width_mm")]
    pub chock_width: Length,
    /// How high every chock stands over the board.
    #[serde(rename = "chock_height_mm")]
    pub chock_height: Length,
    /// How far the chocks stand over the face.
    #[serde(rename = "stands_off_mm")]
    pub stands_off: Length,
    /// Each chock, where it stands.
    pub chocks: Vec<Chock>,
}

/// A chock on a cradle board.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Chock {
    /// Where it touches the piece, from the left edge of the board.
    #[serde(rename = "across_mm")]
    pub across: Length,
    /// Where it touches the piece, from the lower edge of the board.
    #[serde(rename = "up_mm")]
    pub up: Length,
    /// In which direction it stands away from the piece, in degrees from the right, up counting as 90.
    #[serde(rename = "turn_deg")]
    pub turn: f64,
    /// Along the piece.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Its four corners on the board, across and up from the lower left one.
    pub corners_mm: [[Length; 2]; 4],
}

/// The corners of a chock of a length and a width that touches a piece at a point, which looks in a direction: across and up from
/// where the point is told from.
fn corners(
    [across, up]: [Length; 2],
    [out, rise]: [f64; 2],
    [length, width]: [Length; 2],
) -> [[Length; 2]; 4] {
    [(0.0, -0.5), (1.0, -0.5), (1.0, 0.5), (0.0, 0.5)].map(|(away, along)| {
        [
            across + width * (out * away) - length * (rise * along),
            up + width * (rise * away) + length * (out * along),
        ]
    })
}

/// A chock is this share of the short side long.
const OF_THE_SHORT_SIDE: f64 = 0.25;
/// The board stands this far beyond every chock, and beyond the piece.
const BEYOND: Length = Length::mm(5.0);
/// It is at least so much larger than the piece.
const LARGER: Length = Length::mm(50.0);
/// A straight side that takes less than this share of the longest chock has none.
const WORTH_A_CHOCK: f64 = 0.25;
/// So many chocks around a piece take a fall on an edge as reckoned; of fewer, each edge has fewer.
const ALL_ROUND: f64 = 4.0;

impl Cradle {
    /// Returns the board for a piece that fills so much, of which so much stands over its face.
    ///
    /// Each chock is a quarter of the short side long, at most the longest allowed and half a straight side, and as high as the piece
    /// and a little more. The board is as large as piece and chocks and 5 all round, at least 50 larger than the piece. Source:
    /// house rule.
    #[must_use]
    pub fn around(
        inside: Envelope,
        bearings: &[Bearing],
        caliper: Length,
        stands_off: Length,
        allowances: &Allowances,
    ) -> Self {
        let width = allowances.chock_width;
        let short = inside.across.min(inside.up);
        let longest = (short * OF_THE_SHORT_SIDE).min(allowances.chock_most);
        let length = |bearing: &Bearing| {
            let straight = bearing.straight.unwrap_or(longest);
            longest.min(straight)
        };
        let most = bearings.iter().map(length).max().unwrap_or(longest);
        let chocks = || {
            let each = bearings.iter().map(|one| (one, length(one)));
            each.filter(|(_, length)| *length >= most * WORTH_A_CHOCK)
        };
        // How far the chocks reach beyond each side of the piece.
        let mut beyond = [BEYOND; 4];
        for (bearing, length) in chocks() {
            let at = [bearing.across, bearing.up];
            for [across, up] in corners(at, bearing.outward, [length, width]) {
                let reaches = [
                    Length::ZERO - across,
                    across - inside.across,
                    Length::ZERO - up,
                    up - inside.up,
                ];
                for (side, reach) in beyond.iter_mut().zip(reaches) {
                    *side = (*side).max(reach + BEYOND);
                }
            }
        }
        let [left, right, below, above] = beyond;
        let spread = |one: Length, other: Length| {
            let missing = (LARGER - one - other).max(Length::ZERO) / 2.0;
            (one + missing, one + other + missing * 2.0)
        };
        let ((left, across), (below, up)) = (spread(left, right), spread(below, above));
        Self {
            width: inside.across + across,
            height: inside.up + up,
            caliper,
            left,
            below,
            chock_width: width,
            chock_height: inside.through + stands_off,
            stands_off,
            chocks: chocks()
                .map(|(bearing, length)| Chock {
                    across: bearing.across + left,
                    up: bearing.up + below,
                    corners_mm: corners(
                        [bearing.across + left, bearing.up + below],
                        bearing.outward,
                        [length, width],
                    ),
                    turn: bearing.outward[1].atan2(bearing.outward[0]).to_degrees(),
                    length,
                })
                .collect(),
        }
    }

    /// Returns what its chocks give on an edge: on each of the four edges two of four lean at 45°, which together are √2 times one of them in
    /// area and in thickness. Source: house rule.
    #[must_use]
    pub fn bears(&self, depth: Length) -> CushionFace {
        let count = u32::try_from(self.chocks.len()).unwrap_or(u32::MAX);
        let share = (f64::from(count) / ALL_ROUND).min(1.0);
        let shortest = self.chocks.iter().map(|chock| chock.length).min();
        let one = shortest.unwrap_or(Length::ZERO) * depth;
        CushionFace {
            area: Some(one * (std::f64::consts::SQRT_2 * share)),
            thickness: self.chock_width * std::f64::consts::SQRT_2,
        }
    }

    pub(crate) fn layer(around: &Around<'_, '_>) -> Result<Layer, Refusal> {
        let (supplies, piece, inside) = (around.supplies, around.piece, around.inside());
        let allowances = supplies.allowances();
        let foam = supplies.foam("choices.pad_foam", &supplies.rules.materials.pad_foam)?;
        let board = supplies.back_board;
        let size = PieceSize {
            width: inside.across,
            height: inside.up,
            depth: inside.through,
        };
        let points = piece.bearing_points();
        let bearings = piece.outline.bearings(size, points);
        let stands_off = stands_off(piece, allowances);
        let cradle = Self::around(inside, &bearings, board.caliper, stands_off, allowances);
        let (left, below) = (cradle.left, cradle.below);
        let bears = cradle.bears(around.bearing_depth());
        let count = u32::try_from(cradle.chocks.len()).unwrap_or(u32::MAX);
        let mut needs = vec![Need::board(
            PartId::CradleBoard,
            board,
            Cut::of([cradle.width, cradle.height]),
        )];
        // Chocks of one length are one part.
        let mut lengths: Vec<(Length, u32)> = Vec::new();
        for chock in &cradle.chocks {
            match lengths.iter_mut().find(|(known, _)| *known == chock.length) {
                Some((_, count)) => *count += 1,
                None => lengths.push((chock.length, 1)),
            }
        }
        needs.extend(lengths.into_iter().map(|(length, count)| {
            let cut = Cut::of([length, cradle.chock_height]);
            Need::foam(PartId::Chock, foam, cut, cradle.chock_width).times(count)
        }));
        needs.push(
            Need::tape(
                supplies.card_tape,
                StripId::FromEachChockToTheBoard,
                allowances.tape_tab,
            )
            .times(2 * count),
        );
        Ok(supplies.layer(Making {
            slot: LayerSlot::Cradle,
            needs,
            adds: Addition {
                left,
                right: cradle.width - inside.across - left,
                bottom: below,
                top: cradle.height - inside.up - below,
                front: stands_off,
                back: board.caliper,
            },
            inside,
            minutes: allowances.chock_minutes * f64::from(count)
                + allowances.board_minutes
                + allowances.board_minutes_per_m * (cradle.width + cradle.height).as_m(),
            why: "It has no corners: chocks at its bearing points, glued to a board, keep it from turning.",
            make: Make::Cradle(cradle),
            cushioning: Some(Cushioning {
                across: Some(bears),
                up: Some(bears),
                bears_on: Some(around.bearing_depth()),
                ..Cushioning::covering(foam.curve, Sides::default()).on_board(board)
            }),
        }))
    }
}

/// Tells whether the board before a face has to stand as far off it as on a window spacer.
pub(super) fn is_held_away(piece: &Piece) -> bool {
    piece
        .medium
        .is_some_and(crate::piece::Medium::takes_no_pressure)
}

/// How far chocks, or a collar, stand over the face of a piece.
pub(super) fn stands_off(piece: &Piece, allowances: &Allowances) -> Length {
    if is_held_away(piece) {
        allowances.spacer_depth.max(allowances.block_proud)
    } else {
        allowances.block_proud
    }
}

/// A board with chocks, for what has no corners.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    Cradle::layer(around).map(Some)
})
.or(boards);

/// Tells whether a piece has no corners to hold it by, and does not lie between bars because nothing may touch its face.
pub(super) fn has_no_corners(piece: &Piece) -> bool {
    piece.is_shaped() && !piece.needs_spacer()
}

/// Tells whether a piece lies between chocks.
pub(super) fn lies_in_chocks(asked: &StandingQuestion<'_>) -> bool {
    let chosen = asked.rules.layers.get(&LayerSlot::Cradle).copied();
    stands(asked).is_there(chosen)
}

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    asked.flat(|| {
        if !has_no_corners(asked.piece) {
            Standing::Never("its corners, or hinges on its back, hold it")
        } else if asked.rules.schools.shaped == ShapedHold::Rim {
            Standing::Never("foam around its rim holds it")
        } else {
            Standing::On
        }
    })
}

fn boards(offering: &Offering<'_>) -> Vec<Offer> {
    let boards = from_shelf!(offering.catalogue.boards, back_board);
    boards
        .chain([held_by("Foam around its rim", ShapedHold::Rim)])
        .collect()
}

/// An offer to hold a piece without corners otherwise.
pub(super) fn held_by(label: &str, shaped: ShapedHold) -> Offer {
    schools(
        label,
        SchoolChoices {
            shaped: Some(shaped),
            ..SchoolChoices::default()
        },
    )
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::piece::Outline;

    fn around(outline: Outline, width: f64, height: f64) -> Cradle {
        let [across, up, through] = [width, height, 25.0].map(Length::mm);
        let inside = Envelope {
            across,
            up,
            through,
        };
        let size = PieceSize {
            width: across,
            height: up,
            depth: through,
        };
        let bearings = outline.bearings(size, outline.bearing_points(None));
        let [caliper, proud] = [4.0, 3.0].map(Length::mm);
        Cradle::around(inside, &bearings, caliper, proud, &Allowances::default())
    }

    fn near(one: Length, wanted: f64) {
        assert!((one.as_mm() - wanted).abs() < 1e-2, "{one:?} for {wanted}");
    }

    #[test]
    fn four_chocks_hold_a_round_piece_at_its_diagonals() {
        // 600 across: a quarter is 150. They touch it 300 · 0.70711 = 212.13 off its middle, and reach 212.13 + 28.28 + 53.03 = 293.45,
        // within it; so the board is 50 larger, and the first stands at 25 + 300 + 212.13. 25 + 3 high.
        let round = around(Outline::Round, 600.0, 600.0);
        near(round.width, 650.0);
        near(round.chocks[0].across, 537.13);
        near(round.chocks[0].length, 150.0);
        near(round.chock_height, 28.0);
        assert!((round.chocks[0].turn - 45.0).abs() < 1e-9);
        // √2 · 150 · 25 = 5303.3 mm², √2 · 40 = 56.57.
        let bears = round.bears(Length::mm(25.0));
        assert!((bears.area.expect("its own").as_m2() - 0.005_303_3).abs() < 1e-7);
        near(bears.thickness, 56.57);
    }

    #[test]
    fn six_hold_an_arch() {
        // 400 × 600: 100 long. Below and beside they stand 40 and 5 beyond: 45. On the curve they reach 541.42 + 28.28 + 35.36 = 605.06:
        // 10.06. So 400 + 90 by 600 + 45 + 10.06.
        let arch = around(Outline::Arched, 400.0, 600.0);
        assert_eq!(arch.chocks.len(), 6);
        near(arch.width, 490.0);
        near(arch.height, 655.06);
        near(arch.below, 45.0);
    }
}
