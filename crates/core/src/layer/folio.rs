//! Loose sheets between two boards, held by paper pockets.

use serde::Serialize;

use super::kind::{
    Kind, Nature, Offer, Offering, Standing, StandingQuestion, from_shelf, ways_of_loose,
};
use super::{Cushioning, Layer, Make, Making, Sides, Supplies, WindowSpacer, mailer_for};
use crate::{
    Refusal,
    house::{Allowances, Carriage, Choices},
    part::{Cut, Grain, Need, PartId, Run, StripId},
    piece::{Piece, PieceSize},
    quantity::{Length, Minutes, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// Two boards with paper pockets for the corners of the sheets.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Folio {
    /// Of each board.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of each board.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// All round the sheet.
    #[serde(rename = "margin_mm")]
    pub margin: Length,
    /// Of one board; flutes cross.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// Of a paper pocket; 0 where hinges hold the sheet.
    #[serde(rename = "pocket_leg_mm")]
    pub pocket_leg: Length,
    /// Of the square of paper that it is folded from; 0 where hinges hold the sheet.
    #[serde(rename = "pocket_square_mm")]
    pub pocket_square: Length,
    /// Hinges that hold the sheet from behind; `None` where paper pockets do.
    pub hinges: Option<SheetHinges>,
}

/// Hinges from the back of a sheet through slits in its back board.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SheetHinges {
    /// Along the upper edge.
    pub along_upper_edge: u32,
    /// Along the lower edge, with a little slack: paper grows and shrinks.
    pub along_lower_edge: u32,
    /// Of each hinge.
    #[serde(rename = "hinge_mm")]
    pub hinge: Length,
    /// Of each slit.
    #[serde(rename = "slit_mm")]
    pub slit: Length,
    /// How far the slits lie from the edges of the board.
    #[serde(rename = "slit_in_mm")]
    pub slit_in: Length,
    /// How much those along the lower edge give.
    #[serde(rename = "slack_mm")]
    pub slack: Length,
}

/// One hinge for so much of an edge, two at least. Source: bench practice.
const APART: Length = Length::mm(300.0);
const AT_LEAST: u32 = 2;
/// So much of a hinge is stuck to the back of a sheet, so far in from its edge, and so much to the back of the board.
const ON_THE_SHEET: Length = Length::mm(20.0);
const ON_THE_BOARD: Length = Length::mm(40.0);
/// A slit is wider than a tape of 20 by its play.
const SLIT: Length = Length::mm(25.0);
/// Hinges below give so much. Source: bench practice.
const SLACK: Length = Length::mm(2.0);

impl SheetHinges {
    fn of(size: PieceSize, margin: Length, caliper: Length) -> Self {
        let along = ceil_count(size.width / APART).max(AT_LEAST);
        Self {
            along_upper_edge: along,
            along_lower_edge: along,
            hinge: ON_THE_SHEET + caliper + ON_THE_BOARD,
            slit: SLIT,
            slit_in: margin + ON_THE_SHEET.min(size.height / 4.0),
            slack: SLACK,
        }
    }

    /// Returns how many there are.
    #[must_use]
    pub const fn count(self) -> u32 {
        self.along_upper_edge + self.along_lower_edge
    }
}

/// How a sheet is held.
enum HeldBy {
    /// Paper corners of a leg of this length at most.
    Corners(Option<Length>),
    Hinges,
}

/// A paper corner reaches over a sheet to half its leg, and stays this far off the picture. Source: bench practice.
const OFF_THE_PICTURE: Length = Length::mm(3.0);

impl HeldBy {
    /// Returns what holds a sheet: paper corners, where something may touch its face, or where its bare border takes half their leg and
    /// 3 mm; else hinges from behind.
    fn of(piece: &Piece, least: Length) -> Self {
        if !piece.is_friable() {
            return Self::Corners(None);
        }
        let bare = piece.bare_border.unwrap_or_default();
        let most = (bare - OFF_THE_PICTURE) * 2.0;
        if most >= least {
            Self::Corners(Some(most))
        } else {
            Self::Hinges
        }
    }
}

/// Where the strips go that hold the paper corners.
pub(crate) const OVER_CORNERS: StripId = StripId::OverEachPaperCorner;

/// Tells whether strips hold a sheet on its back board, before the front board is there.
pub(crate) const fn holds_a_sheet(strips: StripId) -> bool {
    matches!(strips, OVER_CORNERS | StripId::ThroughTheBackBoard)
}

/// Layers of paper that a pocket puts around the sheet.
const POCKET_LAYERS: f64 = 4.0;
const POCKETS: u32 = 4;

impl Folio {
    /// Returns the folio for sheets of a size.
    ///
    /// A paper pocket is a square of √2·leg folded corner to corner into the middle of the open edge; the
    /// leg is the short side over a share, held between its bounds. Source: house rule.
    #[must_use]
    pub fn around(
        size: PieceSize,
        caliper: Length,
        margin: Length,
        allowances: &Allowances,
    ) -> Self {
        let pocket_leg = (size.short_side() / allowances.paper_pocket_share)
            .clamped(allowances.paper_pocket_least, allowances.paper_pocket_most)
            .min(size.short_side() / 2.0);
        Self {
            width: size.width + margin * 2.0,
            height: size.height + margin * 2.0,
            margin,
            caliper,
            pocket_leg,
            pocket_square: pocket_leg * std::f64::consts::SQRT_2,
            hinges: None,
        }
    }

    /// Returns the same for a piece of which nothing may touch the face, where it is one.
    fn holding(self, piece: &Piece, allowances: &Allowances) -> Self {
        match HeldBy::of(piece, allowances.paper_pocket_least) {
            HeldBy::Corners(most) => {
                let pocket_leg = most.map_or(self.pocket_leg, |most| self.pocket_leg.min(most));
                Self {
                    pocket_leg,
                    pocket_square: pocket_leg * std::f64::consts::SQRT_2,
                    ..self
                }
            }
            HeldBy::Hinges => Self {
                pocket_leg: Length::ZERO,
                pocket_square: Length::ZERO,
                hinges: Some(SheetHinges::of(piece.size, self.margin, self.caliper)),
                ..self
            },
        }
    }

    /// Returns the paper for its pockets, squares side by side across a roll as far as it goes.
    fn pocket_paper(self, roll_width: Length) -> Run {
        let square = self.pocket_square;
        let [least, most] = [1.0, f64::from(POCKETS)];
        let beside = (roll_width / square).floor().clamp(least, most);
        let rows = (most / beside).ceil();
        Run::of([square * rows, square * beside]).staying(square * square * most)
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        piece: &Piece,
        (mailed, window): (bool, Length),
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let materials = &supplies.rules.materials;
        let allowances = supplies.allowances();
        let (board, margin) = if mailed {
            let margin = allowances.posted_margin;
            let thin = supplies.board("choices.folio_board", &materials.mailer_board)?;
            let grown = inside.grown(Addition::new(margin, margin, thin.caliper, thin.caliper));
            // Where no mailer takes them, the boards are the parcel themselves.
            let board = match mailer_for(supplies, true, grown) {
                Some(_) => thin,
                None => supplies.board("choices.folio_board", &materials.folio_board)?,
            };
            (board, margin)
        } else {
            let board = supplies.board("choices.folio_board", &materials.folio_board)?;
            (board, allowances.folio_margin)
        };
        let paper = supplies.contact_paper;
        // Strips around the sheet lie on the back board, too.
        let folio = Self::around(piece.size, board.caliper, margin.max(window), allowances)
            .holding(piece, allowances);
        let cut = Cut::of([folio.width, folio.height]);
        let mut needs = vec![
            Need::board(PartId::FrontBoard, board, cut.along(Grain::Up)),
            Need::board(PartId::BackBoard, board, cut.along(Grain::Across)),
        ];
        let (behind, held) = if let Some(hinges) = folio.hinges {
            let tape = supplies.contact_tape;
            let strips = Need::tape(tape, StripId::ThroughTheBackBoard, hinges.hinge);
            needs.push(strips.times(hinges.count()));
            (
                board.caliper,
                allowances.hinge_minutes * f64::from(hinges.count()),
            )
        } else {
            let pocket_paper = folio.pocket_paper(paper.roll_width);
            needs.extend([
                Need::paper(PartId::PaperForPockets, paper, pocket_paper),
                Need::tape(supplies.inner_tape, OVER_CORNERS, allowances.tape_tab).times(POCKETS),
            ]);
            (
                board.caliper + paper.thickness * POCKET_LAYERS,
                Minutes::ZERO,
            )
        };
        needs.extend([
            Need::tab(
                supplies.inner_tape,
                StripId::AlongBothShortEdges,
                folio.width.min(folio.height),
            )
            .times(2),
            Need::tab(
                supplies.inner_tape,
                StripId::AlongBothLongEdges,
                folio.width.max(folio.height),
            )
            .times(2),
        ]);
        Ok(supplies.layer(Making {
            slot: LayerSlot::Folio,
            needs,
            adds: Addition::new(
                (folio.width - inside.across) / 2.0,
                (folio.height - inside.up) / 2.0,
                board.caliper,
                behind,
            ),
            inside,
            minutes: held
                + allowances.folio_minutes
                + allowances.folio_minutes_per_m * (folio.width + folio.height).as_m(),
            why: if folio.hinges.is_some() {
                "Two boards with crossed flutes can't bend. Nothing may touch the face, so hinges hold the sheet from behind."
            } else {
                "Two boards with crossed flutes can't bend. Paper pockets hold the sheets by their corners; no tape touches them."
            },
            make: Make::Folio(folio),
            cushioning: Some(Cushioning::of_board(Sides {
                front: board.caliper,
                back: board.caliper,
                ..Sides::default()
            })),
        }))
    }
}

/// Two boards that hold loose sheets.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    let mailed = around.carriage == Carriage::Mailed;
    let window = WindowSpacer::margin_of_folio(around.layers);
    Folio::layer(
        around.supplies,
        around.piece,
        (mailed, window),
        around.inside(),
    )
    .map(Some)
})
.or(swaps);

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    let mailed = asked.carriage == Carriage::Mailed;
    if mailed {
        return Standing::Must("the boards are the only stiff part of a mailer");
    }
    asked.loose(|carriage| match carriage {
        Carriage::Rolled => asked.boxed(|| Standing::Off),
        _ => Standing::Must("loose sheets need boards"),
    })
}

fn swaps(offering: &Offering<'_>) -> Vec<Offer> {
    let boards = &offering.catalogue.boards;
    let mut offers: Vec<Offer> = match offering.carriage {
        // In a mailer they are thinner than as a parcel by themselves: it is named for both.
        Carriage::Mailed => boards
            .iter()
            .filter(|board| !board.shelf.retired)
            .map(|board| {
                let choices = Choices {
                    mailer_board: Some(board.id.clone()),
                    folio_board: Some(board.id.clone()),
                    ..Choices::default()
                };
                (board.name.clone(), choices)
            })
            .collect(),
        _ => from_shelf!(boards, folio_board).collect(),
    };
    offers.extend(ways_of_loose(offering));
    offers
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn etchings_lie_back_from_the_corners_of_their_boards() {
        // 297 + 50 = 347 and 420 + 50 = 470; leg 297/7 = 42.43, square √2 × 42.43 = 60
        let [width, height, depth] = [297.0, 420.0, 2.0].map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        let folio = Folio::around(
            size,
            Length::mm(4.0),
            Length::mm(25.0),
            &Allowances::default(),
        );
        assert_eq!(
            (folio.width, folio.height),
            (Length::mm(347.0), Length::mm(470.0))
        );
        assert!((folio.pocket_leg.as_mm() - 42.428_571).abs() < 1e-6);
        assert!((folio.pocket_square.as_mm() - 60.003).abs() < 1e-3);
    }
}
