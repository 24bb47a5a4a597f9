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
    piece::PieceSize,
    quantity::Length,
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
    /// Of a paper pocket.
    #[serde(rename = "pocket_leg_mm")]
    pub pocket_leg: Length,
    /// Of the square of paper that it is folded from.
    #[serde(rename = "pocket_square_mm")]
    pub pocket_square: Length,
}

/// Where the strips go that hold the paper corners.
pub(crate) const OVER_CORNERS: StripId = StripId::OverEachPaperCorner;

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
        size: PieceSize,
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
        let folio = Self::around(size, board.caliper, margin.max(window), allowances);
        let cut = Cut::of([folio.width, folio.height]);
        let pocket_paper = folio.pocket_paper(paper.roll_width);
        let behind = board.caliper + paper.thickness * POCKET_LAYERS;
        Ok(supplies.layer(Making {
            slot: LayerSlot::Folio,
            needs: vec![
                Need::board(PartId::FrontBoard, board, cut.along(Grain::Up)),
                Need::board(PartId::BackBoard, board, cut.along(Grain::Across)),
                Need::paper(PartId::PaperForPockets, paper, pocket_paper),
                Need::tape(supplies.inner_tape, OVER_CORNERS, allowances.tape_tab)
                    .times(POCKETS),
                Need::tab(supplies.inner_tape, StripId::AlongBothShortEdges, folio.width.min(folio.height))
                    .times(2),
                Need::tab(supplies.inner_tape, StripId::AlongBothLongEdges, folio.width.max(folio.height))
                    .times(2),
            ],
            adds: Addition::new(
                (folio.width - inside.across) / 2.0,
                (folio.height - inside.up) / 2.0,
                board.caliper,
                behind,
            ),
            inside,
            minutes: allowances.folio_minutes
                + allowances.folio_minutes_per_m * (folio.width + folio.height).as_m(),
            why: "Two boards with crossed flutes can't bend. Paper pockets hold the sheets by their corners; no tape touches them.",
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
        around.piece.size,
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
