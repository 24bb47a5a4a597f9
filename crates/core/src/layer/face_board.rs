//! Stiff boards in front and behind.

use serde::Serialize;

use super::cradle::lies_in_chocks;
use super::kind::{Kind, Nature, Offer, Offering, Standing, StandingQuestion, from_shelf, schools};
use super::{Cushioning, Layer, Make, Making, Sides, Supplies, has_bars};
use crate::{
    Refusal,
    house::{BackBoard, BoardFit, FrontBoard, HouseRules, SchoolChoices},
    material::{Board, BoardBuild},
    part::{Cut, Need, PartId, StripId},
    piece::{FrameFinish, Piece, PieceSize},
    quantity::{Area, Length, ceil_count},
    space::{Addition, Envelope, LayerSlot},
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
    /// The one behind, where it is not as the one in front.
    pub back: Option<BoardBehind>,
    /// Whether a band goes once around them each way, because what they hold is old or loose.
    pub banded: bool,
}

/// What boards lie before and behind.
struct Faced {
    body: PieceSize,
    /// Whether something holds the body off them already: then they are as large as that.
    exact: bool,
    behind: bool,
    bound: bool,
    banded: bool,
    /// Of how many pieces each has its own.
    each: u32,
    /// Whether foam stands around the piece on the one behind, which is laid first.
    ringed: bool,
}

impl Faced {
    /// Boards outside the cushion, as large as it.
    const fn outside(inside: Envelope) -> Self {
        Self {
            body: PieceSize {
                width: inside.across,
                height: inside.up,
                depth: inside.through,
            },
            exact: true,
            behind: true,
            bound: true,
            banded: false,
            each: 1,
            ringed: false,
        }
    }
}

/// A board behind that is not as the one in front.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoardBehind {
    /// Across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Of the board.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
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
            back: None,
            banded: false,
        }
    }

    /// The board behind: its own where it has one, else as the one in front.
    fn back_board(self) -> Option<BoardBehind> {
        let alike = BoardBehind {
            width: self.width,
            height: self.height,
            caliper: self.caliper,
        };
        self.behind.then(|| self.back.unwrap_or(alike))
    }

    /// Returns the area of all of them.
    #[must_use]
    pub fn area(self) -> Area {
        let back = self.back_board();
        self.width * self.height + back.map_or(Area::ZERO, |back| back.width * back.height)
    }

    fn count(self) -> u32 {
        if self.behind { 2 } else { 1 }
    }

    /// Returns what they add to an envelope: their caliper through, and the board's edge where it
    /// stands beyond what is there.
    fn adds(self, inside: Envelope) -> Addition {
        let beyond = |board: Length, there: Length| ((board - there) / 2.0).max(Length::ZERO);
        let back = self.back_board();
        let widest = |front: Length, behind: fn(BoardBehind) -> Length| {
            back.map_or(front, |back| behind(back).max(front))
        };
        Addition::new(
            beyond(widest(self.width, |back| back.width), inside.across),
            beyond(widest(self.height, |back| back.height), inside.up),
            self.caliper,
            back.map_or(Length::ZERO, |back| back.caliper),
        )
    }

    /// Returns the layer of boards before and behind a body.
    fn layer(supplies: &Supplies<'_>, faced: &Faced, inside: Envelope) -> Layer {
        let &Faced { body, behind, .. } = faced;
        let board = supplies.face_board;
        let allowances = supplies.allowances();
        let exact = match supplies.rules.schools.board_fit {
            BoardFit::ByMaterial => board.build == BoardBuild::Solid,
            BoardFit::Proud => false,
            BoardFit::Exact => true,
        };
        let proud = if faced.exact {
            Length::ZERO
        } else if exact {
            allowances.exact_proud
        } else {
            allowances.board_proud
        };
        let other = supplies.back_board;
        let asked = supplies.rules.shipment.back_proud.filter(|_| !faced.exact);
        let back_proud = asked.unwrap_or(proud);
        let differs = behind && (other.id != board.id || back_proud != proud);
        let boards = Self {
            back: differs.then(|| BoardBehind {
                width: body.width + back_proud * 2.0,
                height: body.height + back_proud * 2.0,
                caliper: other.caliper,
            }),
            banded: faced.banded,
            ..Self::for_piece(body, proud, board.caliper, behind)
        };
        let slot = LayerSlot::FaceBoards;
        boards.made(supplies, slot, (board, other), faced, inside)
    }

    /// Returns the layer of boards outside the cushion, as large as it.
    pub(crate) fn outer_layer(supplies: &Supplies<'_>, inside: Envelope) -> Result<Layer, Refusal> {
        let board = supplies.board("choices.outer_board", &supplies.rules.materials.outer_board)?;
        let boards = Self {
            width: inside.across,
            height: inside.up,
            proud: Length::ZERO,
            caliper: board.caliper,
            behind: true,
            back: None,
            banded: false,
        };
        let (both, outer) = ((board, board), Faced::outside(inside));
        Ok(boards.made(supplies, LayerSlot::OuterBoards, both, &outer, inside))
    }

    fn made(
        self,
        supplies: &Supplies<'_>,
        slot: LayerSlot,
        (board, behind): (&Board, &Board),
        &Faced {
            bound,
            each,
            ringed,
            ..
        }: &Faced,
        inside: Envelope,
    ) -> Layer {
        let allowances = supplies.allowances();
        // Strips over every edge, from board to board or onto the back, hold it.
        let over = inside.through + self.caliper + allowances.tape_tab * 2.0;
        let along = |side: Length| ceil_count(side / allowances.board_tape_every).max(1);
        let strips = (along(self.width) + along(self.height)) * 2;
        // Each side gives by its own board: what is solid doesn't.
        let gives = |of: &Board, caliper: Length| {
            if of.build == BoardBuild::Solid {
                Length::ZERO
            } else {
                caliper
            }
        };
        let sides = Sides {
            front: gives(board, self.caliper),
            back: self
                .back_board()
                .map_or(Length::ZERO, |back| gives(behind, back.caliper)),
            ..Sides::default()
        };
        let crushes = sides.front + sides.back > Length::ZERO;
        let cut = Cut::of([self.width, self.height]);
        let apart = self.back.is_some() || ringed;
        let mut needs = match self.back_board().filter(|_| apart) {
            Some(back) => vec![
                Need::board(PartId::FrontBoard, board, cut),
                Need::board(
                    PartId::BackBoard,
                    behind,
                    Cut::of([back.width, back.height]),
                ),
            ],
            None => vec![Need::board(PartId::Board, board, cut).times(self.count())],
        };
        if bound {
            needs.push(Need::tape(supplies.card_tape, StripId::OverTheEdges, over).times(strips));
        }
        if self.banded {
            let through = inside.through + self.caliper * f64::from(self.count());
            let girth = |along: Length| (along + through) * 2.0 + allowances.tape_tab;
            needs.extend(
                [
                    (StripId::OnceAroundSideToSide, self.width),
                    (StripId::OnceAroundTopToBottom, self.height),
                ]
                .map(|(on, along)| Need::tape(supplies.card_tape, on, girth(along))),
            );
        }
        supplies.layer(Making {
            slot,
            needs: needs.into_iter().map(|need| need.each(each)).collect(),
            adds: self.adds(inside),
            inside,
            minutes: (allowances.board_minutes
                + allowances.board_minutes_per_m * (self.width + self.height).as_m())
                * f64::from(self.count() * each),
            why: if slot == LayerSlot::OuterBoards {
                "On a rough route a second stiff board outside the cushion takes knocks first."
            } else {
                "A stiff board over the face takes the knocks."
            },
            make: Make::FaceBoards(self),
            cushioning: crushes.then(|| Cushioning::of_board(sides)),
        })
    }
}

/// Boards in front and behind.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN.hiding().tried(2), stands, |around| {
    let (supplies, piece) = (around.supplies, around.piece);
    let faced = Faced {
        body: around.body(),
        exact: around.is_held_off(),
        behind: !around.has_board_behind()
            && (around.has_rim_strip() || has_back_board(piece, supplies.rules)),
        // What lies between bars is closed before anything else goes around it.
        bound: around.has_bars() || !around.has(LayerSlot::Binding),
        banded: piece.frame_finish() == FrameFinish::Old,
        each: if around.has_bars() { piece.count } else { 1 },
        ringed: around.layers.iter().any(Layer::is_ring),
    };
    Ok(Some(FaceBoards::layer(supplies, &faced, around.inside())))
})
.or(swaps);

/// Boards outside the cushion.
pub(super) const OUTER: Kind = Kind::new(
    Nature::PLAIN
        .hiding()
        .tried(7)
        .left_out(super::kind::Family::OuterBoards, "Without the outer boards"),
    |asked| asked.boxed(|| Standing::Off),
    |around| FaceBoards::outer_layer(around.supplies, around.inside()).map(Some),
)
.or(|offering| from_shelf!(offering.catalogue.boards, outer_board).collect());

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    asked.flat_or_padded(|| {
        let finish = asked.piece.frame_finish();
        if asked.piece.is_friable() || has_bars(asked) {
            Standing::Must("the spacer needs a board to hold off the face")
        } else if lies_in_chocks(asked) {
            Standing::Must("a board before the piece keeps it between its chocks")
        } else if finish.is_left_free() {
            Standing::Must("boards and foam keep tape and wrap off the frame")
        } else if finish == FrameFinish::Old {
            Standing::Must("a board and a band hold an old or loose frame together")
        } else if has_front_board(asked.piece, asked.rules) {
            Standing::On
        } else {
            Standing::Off
        }
    })
}

fn swaps(offering: &Offering<'_>) -> Vec<Offer> {
    let fits = [
        ("Proud of the piece", BoardFit::Proud),
        ("Exact", BoardFit::Exact),
    ];
    let fitted = fits.map(|(label, fit)| {
        let fit = SchoolChoices {
            board_fit: Some(fit),
            ..SchoolChoices::default()
        };
        schools(label, fit)
    });
    let boards = from_shelf!(offering.catalogue.boards, face_board);
    boards.chain(fitted).collect()
}

fn has_front_board(piece: &Piece, rules: &HouseRules) -> bool {
    let worth_it = piece
        .value
        .is_some_and(|value| value > rules.allowances.board_value.number());
    match rules.schools.front_board {
        FrontBoard::Always => true,
        FrontBoard::CanvasOnly => worth_it || piece.has_stretched_cloth(),
    }
}

/// Tells whether the house puts a board behind a piece, too.
pub(super) fn has_back_board(piece: &Piece, rules: &HouseRules) -> bool {
    let by_house = match rules.schools.back_board {
        BackBoard::Always => true,
        BackBoard::Never => false,
        BackBoard::Canvas => piece.has_stretched_cloth(),
    };
    // Tape from board to board touches no frame; what is old is held between two.
    by_house || piece.frame_finish() != FrameFinish::Plain
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
