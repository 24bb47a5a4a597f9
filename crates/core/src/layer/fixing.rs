//! Fixing from behind: a board behind a piece that nothing may touch, and hinges that hold the piece to it by its back.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, StandingQuestion, from_shelf};
use super::{Layer, Make, Making, Supplies, WindowSpacer};
use crate::{
    part::{Cut, Need, PartId, StripId},
    piece::{Piece, PieceSize},
    quantity::{Length, Mass, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// Hinges of tape from the back of a piece through slits in the board behind it, onto that board's back.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fixing {
    /// Of the board behind, across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of the board behind, up.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Of the board behind.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// How far the board stands beyond the piece all round.
    #[serde(rename = "beyond_mm")]
    pub beyond: Length,
    /// Hinges along each of the two long edges.
    pub along_long_edges: u32,
    /// Hinges along each of the two short edges.
    pub along_short_edges: u32,
    /// Of each hinge.
    #[serde(rename = "hinge_mm")]
    pub hinge: Length,
    /// Of each slit.
    #[serde(rename = "slit_mm")]
    pub slit: Length,
    /// Whether the piece has no corners: its hinges lie evenly around it, as far in from its outline as they would from its edges.
    pub around: bool,
    /// How far the slits lie from the edges of the board.
    #[serde(rename = "slit_in_mm")]
    pub slit_in: Length,
    /// How far in from the edge of the piece they lie.
    #[serde(rename = "under_mm")]
    pub under: Length,
    /// What each hinge bears.
    #[serde(rename = "bears_g")]
    pub bears: Mass,
}

/// One hinge for so much of an edge. Source: bench practice.
const APART: Length = Length::mm(300.0);
/// Nearer to each other they leave the board no strength between its slits. Source: bench practice.
const NEAREST: Length = Length::mm(100.0);
/// A hinge bears so much at most. Source: bench practice.
const BEARS: Mass = Mass::kg(0.5);
/// How much of a hinge is stuck to the back of the piece, and as much to the back of the board.
const STUCK: Length = Length::mm(60.0);
/// A slit for a tape of 50, with play at both ends.
const SLIT: Length = Length::mm(55.0);
/// Slits lie so far in from the edges of the piece, so that they stay hidden and a hand gets to the hinges from the side.
const UNDER_THE_PIECE: Length = Length::mm(20.0);
const EDGES_OF_A_KIND: u32 = 2;

impl Fixing {
    /// Returns the hinges for a piece of a size and a mass on a board of a caliper that stands beyond it all round.
    ///
    /// One for each 300 of an edge, at least one on each, and more along the long edges until none bears over 0.5 kg. Source: bench
    /// practice.
    #[must_use]
    pub fn of(size: PieceSize, mass: Mass, beyond: Length, caliper: Length) -> Self {
        let along = |side: Length| ceil_count(side / APART).max(1);
        let short = along(size.short_side());
        // Of one long and one short edge together.
        let borne = ceil_count(mass / (BEARS * f64::from(EDGES_OF_A_KIND)));
        let long = along(size.long_side()).max(borne.saturating_sub(short));
        let count = EDGES_OF_A_KIND * (long + short);
        let under = UNDER_THE_PIECE.min(size.short_side() / 4.0);
        Self {
            width: size.width + beyond * 2.0,
            height: size.height + beyond * 2.0,
            caliper,
            beyond,
            along_long_edges: long,
            along_short_edges: short,
            hinge: STUCK * 2.0 + caliper,
            slit: SLIT,
            around: false,
            slit_in: beyond + under,
            under,
            bears: mass / f64::from(count),
        }
    }

    /// Returns how many hinges there are.
    #[must_use]
    pub const fn count(self) -> u32 {
        EDGES_OF_A_KIND * (self.along_long_edges + self.along_short_edges)
    }

    /// Tells whether hinges hold a piece: none lies nearer to the next than the board bears.
    #[must_use]
    pub fn holds(self, size: PieceSize) -> bool {
        self.along_long_edges <= 1 || size.long_side() / f64::from(self.along_long_edges) >= NEAREST
    }

    pub(crate) fn layer(supplies: &Supplies<'_>, piece: &Piece, inside: Envelope) -> Layer {
        let board = supplies.back_board;
        let allowances = supplies.allowances();
        let each = f64::from(piece.count);
        let weight = piece.weight(allowances.piece_doubt);
        let beyond = WindowSpacer::beside(allowances);
        let mass = (weight.mass + weight.plus_minus) / each;
        let fixing = Self {
            around: piece.is_shaped(),
            ..Self::of(piece.size, mass, beyond, board.caliper)
        };
        let sides = [fixing.width, fixing.height];
        let board_minutes = allowances.board_minutes
            + allowances.board_minutes_per_m * (sides[0] + sides[1]).as_m();
        supplies.layer(Making {
            slot: LayerSlot::Fixing,
            needs: vec![
                Need::board(PartId::BoardBehind, board, Cut::of(sides)).times(piece.count),
                Need::tape(
                    supplies.hinge_tape,
                    StripId::ThroughTheBoardBehind,
                    fixing.hinge,
                )
                .times(fixing.count() * piece.count),
            ],
            adds: Addition {
                back: board.caliper,
                ..Addition::default()
            },
            inside,
            minutes: (board_minutes + allowances.hinge_minutes * f64::from(fixing.count())) * each,
            why: "Nothing may touch its face, so hinges hold it by its back.",
            make: Make::Fixing(fixing),
            cushioning: None,
        })
    }
}

/// A board behind with hinges.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    let (supplies, piece) = (around.supplies, around.piece);
    Ok(Some(Fixing::layer(supplies, piece, around.inside())))
})
.or(|offering| from_shelf!(offering.catalogue.boards, back_board).collect());

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    let piece = asked.piece;
    asked.flat(|| {
        if piece.is_friable() {
            Standing::Must("nothing may touch the face, so the piece is held by its back")
        } else {
            Standing::Never("its face bears a sheet and a board, and those hold it")
        }
    })
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn fixing(sides: [f64; 3], mass: f64) -> (Fixing, PieceSize) {
        let [width, height, depth] = sides.map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        let [beyond, caliper] = [33.0, 4.0].map(Length::mm);
        (Fixing::of(size, Mass::kg(mass), beyond, caliper), size)
    }

    /// It kills: a share of one edge taken for the other's, and a board that ends at the piece.
    #[test]
    fn a_panel_hangs_on_two_hinges_along_each_edge() {
        // 500/300 = 1.7 and 400/300 = 1.3: two along each, eight of 2 × 60 + 4 = 124; 1.6 kg on eight are 200 g. The board is
        // 400 + 66 by 500 + 66, its slits 33 + 20 from its edges.
        let (panel, size) = fixing([400.0, 500.0, 30.0], 1.6);
        assert_eq!((panel.along_long_edges, panel.along_short_edges), (2, 2));
        let told = [panel.hinge, panel.slit_in, panel.width, panel.height];
        assert_eq!(told, [124.0, 53.0, 466.0, 566.0].map(Length::mm));
        assert!((panel.bears.as_g() - 200.0).abs() < 1e-9);
        assert!(panel.holds(size));
    }

    /// It kills: hinges that are not added for the mass, and a limit on their distance that never tells.
    #[test]
    fn a_heavy_panel_has_more_until_they_lie_too_near() {
        // 6.2 kg want 12.4, thirteen, so seven on a long and a short edge: five along 500, 100 apart, which just holds. At 7.2 kg
        // fifteen, eight on both: six along 500, 83 apart.
        let (held, size) = fixing([400.0, 500.0, 30.0], 6.2);
        assert_eq!((held.along_long_edges, held.along_short_edges), (5, 2));
        assert!(held.holds(size));
        let (too_heavy, size) = fixing([400.0, 500.0, 30.0], 7.2);
        assert_eq!(too_heavy.along_long_edges, 6);
        assert!(!too_heavy.holds(size));
    }

    proptest! {
        /// It kills: a count rounded down, and an edge without a hinge.
        #[test]
        fn no_hinge_bears_more_than_it_can(
            width in 20.0..4000.0_f64, height in 20.0..4000.0_f64, mass in 0.01..60.0_f64,
        ) {
            let (fixing, _) = fixing([width, height, 20.0], mass);
            prop_assert!(fixing.bears <= BEARS);
            prop_assert!(fixing.along_short_edges >= 1 && fixing.count() >= 4);
            let apart = width.max(height) / f64::from(fixing.along_long_edges);
            prop_assert!(apart <= APART.as_mm() + 1e-9);
        }
    }
}
