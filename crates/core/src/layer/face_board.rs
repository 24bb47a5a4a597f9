//! Stiff boards in front and behind.

use serde::Serialize;

use super::{Addition, Envelope, Layer, Make, Supplies, supplies::Making};
use crate::{
    house::BackBoard,
    piece::{Construction, PieceSize},
    quantity::{Area, Length, decimal_of},
};

/// Boards of one size, in front and perhaps behind.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceBoards {
    /// Across, with the proud margin on both sides.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up, with the proud margin on both sides.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// How far it stands beyond the piece all round.
    #[serde(rename = "proud_mm")]
    pub proud: Length,
    /// Of one board.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// Whether there is one behind as well.
    pub behind: bool,
}

impl FaceBoards {
    /// Returns the boards for a piece: its face with the proud margin all round.
    #[must_use]
    pub fn for_piece(size: PieceSize, proud: Length, caliper: Length, behind: bool) -> Self {
        let margin = proud * 2.0;
        Self {
            width: size.width + margin,
            height: size.height + margin,
            proud,
            caliper,
            behind,
        }
    }

    /// Returns the area of all of them.
    #[must_use]
    pub fn area(self) -> Area {
        self.width * self.height * f64::from(self.count())
    }

    fn count(self) -> u32 {
        if self.behind { 2 } else { 1 }
    }

    /// Returns what they add to an envelope: their caliper through, and the board's edge where it
    /// stands beyond what is there.
    fn adds(self, inside: Envelope) -> Addition {
        let beyond = |board: Length, there: Length| ((board - there) / 2.0).max(Length::ZERO);
        let back = if self.behind {
            self.caliper
        } else {
            Length::ZERO
        };
        Addition::new(
            beyond(self.width, inside.across),
            beyond(self.height, inside.up),
            self.caliper,
            back,
        )
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        construction: Construction,
        size: PieceSize,
        inside: Envelope,
    ) -> Layer {
        let board = supplies.face_board;
        let allowances = supplies.allowances();
        let behind = match supplies.rules.back_board {
            BackBoard::Always => true,
            BackBoard::Never => false,
            BackBoard::Canvas => construction == Construction::StretchedCanvas,
        };
        let boards = Self::for_piece(size, allowances.board_proud, board.caliper, behind);
        let adds = boards.adds(inside);
        // Two bands each way hold the pair, each lapping its own start by a tab.
        let around = |side: Length| (side + inside.through + allowances.tape_tab) * 2.0;
        let bands = (around(boards.width) + around(boards.height)) * 2.0;
        supplies.layer(Making {
            material: (&board.id, &board.name),
            adds,
            inside,
            area: boards.area(),
            stuff: board.areal_density * boards.area(),
            doubt: allowances.sheet_doubt,
            stuff_cost: board.price_per_m2() * decimal_of(boards.area().as_m2()),
            tape: (supplies.inner_tape, bands),
            minutes: allowances.board_minutes * f64::from(boards.count()),
            why: "A stiff board stands before the face, so that a knock meets board and not the art.",
            make: Make::FaceBoards(boards),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn envelope(across: f64, up: f64, through: f64) -> Envelope {
        Envelope {
            across: Length::mm(across),
            up: Length::mm(up),
            through: Length::mm(through),
        }
    }

    #[test]
    fn a_proud_board_widens_the_envelope_only_where_it_stands_out() {
        // 900 + 10 = 910 over 908: 1 a side; 1200 + 10 = 1210 under 1216: nothing.
        let [width, height, depth] = [900.0, 1200.0, 38.0].map(Length::mm);
        let boards = FaceBoards::for_piece(
            PieceSize {
                width,
                height,
                depth,
            },
            Length::mm(5.0),
            Length::mm(4.0),
            true,
        );
        let adds = boards.adds(envelope(908.0, 1216.0, 51.0));
        assert_eq!((adds.left, adds.top), (Length::mm(1.0), Length::ZERO));
        assert_eq!((adds.front, adds.back), (Length::mm(4.0), Length::mm(4.0)));
        // 2 × 0.91 × 1.21 = 2.2022
        assert!((boards.area().as_m2() - 2.2022).abs() < 1e-12);
    }
}
