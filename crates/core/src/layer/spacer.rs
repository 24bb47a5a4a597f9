//! A window spacer: strips around a face that nothing may touch.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, StandingQuestion, from_shelf};
use super::{Layer, Make, Making, Supplies};
use crate::{
    Refusal,
    house::Carriage,
    part::{Cut, Need},
    piece::{Glazing, Medium, PieceSize},
    quantity::{Area, Length, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// A frame of board strips that lies on the margin of the face.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WindowSpacer {
    /// Of each strip.
    #[serde(rename = "strip_width_mm")]
    pub strip_width: Length,
    /// Boards one on the other.
    pub boards: u32,
    /// That they keep off the face.
    #[serde(rename = "stands_off_mm")]
    pub stands_off: Length,
    /// Of all strips together.
    #[serde(rename = "strip_length_mm")]
    pub strip_length: Length,
}

impl WindowSpacer {
    /// Returns the spacer for a face: as many boards as reach the wanted depth, as strips along the edges
    /// that butt at the corners.
    ///
    /// A face narrower than three strips takes narrower ones, so that a window is left. Source: house
    /// rule.
    #[must_use]
    pub fn around(size: PieceSize, caliper: Length, depth: Length, width: Length) -> Self {
        let boards = ceil_count(depth / caliper).max(1);
        let strip_width = width.min(size.short_side() / 3.0);
        let around = size.perimeter() - strip_width * 4.0;
        Self {
            strip_width,
            boards,
            stands_off: caliper * f64::from(boards),
            strip_length: around * f64::from(boards),
        }
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        size: PieceSize,
        count: u32,
        inside: Envelope,
    ) -> Result<Layer, Refusal> {
        let board = supplies.board("house.spacer_board", &supplies.rules.materials.spacer_board)?;
        let allowances = supplies.allowances();
        let spacer = Self::around(
            size,
            board.caliper,
            allowances.spacer_depth,
            allowances.spacer_width,
        );
        let each = f64::from(count);
        let strip = |name, length| {
            let cut = Cut::of([length, spacer.strip_width]);
            Need::board(name, board, cut).times(2 * spacer.boards * count)
        };
        Ok(supplies.layer(Making {
            slot: LayerSlot::WindowSpacer,
            needs: vec![
                strip("long strip", size.long_side()),
                strip("short strip", size.short_side() - spacer.strip_width * 2.0),
                Need::tape(supplies.inner_tape, "at both ends of each strip", allowances.tape_tab)
                    .times(8 * count),
            ],
            adds: Addition {
                front: spacer.stands_off,
                ..Addition::default()
            },
            inside,
            minutes: (allowances.spacer_minutes
                + allowances.spacer_minutes_per_m * spacer.strip_length.as_m())
                * each,
            why: "The strips lie on the margin and hold the board off the face: nothing presses on it.",
            make: Make::WindowSpacer(spacer),
            cushioning: None,
        }))
    }

    /// Returns the area of the strips.
    #[must_use]
    pub fn area(self) -> Area {
        self.strip_length * self.strip_width
    }
}

/// Strips that keep everything off a face that must not be touched.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    // One window over all loose sheets: they lie on each other with interleaves between.
    let count = match around.carriage {
        Carriage::Flat => around.piece.count,
        _ => 1,
    };
    let size = around.piece.size;
    WindowSpacer::layer(around.supplies, size, count, around.inside()).map(Some)
})
.or(|offering| from_shelf!(offering.catalogue.boards, spacer_board).collect());

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    let piece = asked.piece;
    asked.boxed(|| {
        if piece.is_friable() {
            Standing::Must("loose pigment must never be touched; the strips hold everything off it")
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

    #[test]
    fn two_boards_of_five_make_a_spacer_of_ten() {
        // Depth 6 of boards of 5: two, 10 mm. Around 610 × 860: 2940 − 4 × 30 = 2820, twice: 5640.
        let [width, height, depth] = [610.0, 860.0, 3.0].map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        let [caliper, wanted, strip] = [5.0, 6.0, 30.0].map(Length::mm);
        let spacer = WindowSpacer::around(size, caliper, wanted, strip);
        assert_eq!((spacer.boards, spacer.stands_off), (2, Length::mm(10.0)));
        assert_eq!(spacer.strip_length, Length::mm(5640.0));
        assert!((spacer.area().as_m2() - 0.1692).abs() < 1e-12);
    }
}
