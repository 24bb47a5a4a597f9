//! The flat sandwich: two boards with sheets between them that are the parcel themselves, in a sleeve of paper or board.

use super::boxed::{no_mailer, sealed_by};
use super::{Cushioning, Layer, Make, Making, OuterPaper, Sandwich, Sides, Supplies};
use crate::{
    Refusal,
    part::{Cut, Need, PartId},
    piece::Piece,
    quantity::{Length, Stiffness},
    space::{Addition, Envelope, LayerSlot},
};

/// A sleeve of board laps itself so far, where it is taped.
const LAP: Length = Length::mm(40.0);

impl Sandwich {
    /// Returns the sleeve of board around something: around its long side and its thickness, once, with a lap; as long as its short
    /// side. It adds twice its caliper to the long side and to the thickness. Source: house rule.
    #[must_use]
    pub fn of_board(inside: Envelope, caliper: Length, stiffness: Option<Stiffness>) -> Self {
        Self {
            of_board: true,
            around: (inside.long_side() + inside.through + caliper * 2.0) * 2.0 + LAP,
            along: inside.across.min(inside.up),
            wall: caliper,
            stiffness,
            seal: Vec::new(),
        }
    }

    /// Tells whether boards without a box may be so large as those of a piece.
    fn takes(supplies: &Supplies<'_>, piece: &Piece) -> bool {
        let allowances = supplies.allowances();
        let (one, other) = (allowances.sandwich_long, allowances.sandwich_short);
        piece.construction.is_loose()
            && piece.size.long_side() <= one.max(other)
            && piece.size.short_side() <= one.min(other)
    }

    /// Returns the layer of a sleeve around two boards: of the board that was asked for, else of paper.
    ///
    /// # Errors
    /// A [`Refusal`] for sheets that are larger than the house sends without a box.
    pub(super) fn layer(
        supplies: &Supplies<'_>,
        (piece, inside): (&Piece, Envelope),
    ) -> Result<Layer, Refusal> {
        if !Self::takes(supplies, piece) {
            return Err(no_mailer());
        }
        let allowances = supplies.allowances();
        let [long, short] = [inside.long_side(), inside.across.min(inside.up)];
        let (mut made, mut needs, wall) = if supplies.rules.shipment.board_asked {
            let board = supplies.first.board;
            let made = Self::of_board(inside, board.caliper, board.stiffness);
            let cut = Cut::of([made.around, made.along]);
            (
                made,
                vec![Need::board(PartId::Sleeve, board, cut)],
                board.caliper,
            )
        } else {
            let paper =
                supplies.paper("choices.outer_paper", &supplies.rules.materials.outer_paper)?;
            let lap = allowances.outer_paper_lap;
            let sheet = OuterPaper::around(inside, paper.roll_width, lap, false);
            let made = Self {
                of_board: false,
                around: sheet.around,
                along: sheet.along,
                wall: paper.thickness,
                stiffness: None,
                seal: Vec::new(),
            };
            (
                made,
                sheet.needs(PartId::Sleeve, paper, lap),
                paper.thickness,
            )
        };
        made.seal = Sandwich::sealed([long, made.along], allowances.seal_return);
        needs.extend(sealed_by(supplies, &made.seal));
        let across = inside.across >= inside.up;
        // Paper folds over all four edges, board leaves two of them open.
        let (beyond_long, beyond_short) = (wall, if made.of_board { Length::ZERO } else { wall });
        let (left, top) = if across {
            (beyond_long, beyond_short)
        } else {
            (beyond_short, beyond_long)
        };
        Ok(supplies.layer(Making {
            slot: LayerSlot::Box,
            needs,
            adds: Addition::new(left, top, wall, wall),
            inside,
            minutes: allowances.mailer_minutes * 2.0
                + allowances.folio_minutes_per_m * ((long + short).as_m() / 2.0),
            why: "Two boards with crossed flutes need no box: taped all round, they go as a large letter.",
            cushioning: made.of_board.then(|| Cushioning::of_board(Sides::all(wall))),
            make: Make::Sandwich(made),
        }))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_sleeve_goes_once_around_the_long_side() {
        // Boards of 674 × 921, 10 thick, in C: 2 × (921 + 10 + 8) + 40 = 1918 around, 674 along.
        let [across, up, through, caliper] = [674.0, 921.0, 10.0, 4.0].map(Length::mm);
        let inside = Envelope {
            across,
            up,
            through,
        };
        let sleeve = Sandwich::of_board(inside, caliper, None);
        assert_eq!(
            [sleeve.around, sleeve.along],
            [1918.0, 674.0].map(Length::mm)
        );
    }
}
