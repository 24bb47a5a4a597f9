//! What a layer gives in a fall, on each side of a piece.

use crate::{
    cushion::{CushionCurve, EnergyRange},
    material::{Board, BoardBuild},
    quantity::{Area, EnergyDensity, Length, Stress},
};

/// What lies on one side.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CushionFace {
    /// Of pads and blocks; what is wound, filled or laid over a side covers all of it.
    pub area: Option<Area>,
    /// Free, or loaded for bubble.
    pub thickness: Length,
}

/// What a layer gives on each side that it covers.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cushioning {
    /// Of its material.
    pub curve: CushionCurve,
    /// Whether it is board that crushes, rather than a cushion.
    pub board: bool,
    /// Before the face.
    pub front: Option<CushionFace>,
    /// Behind.
    pub back: Option<CushionFace>,
    /// Beside the left and the right edge.
    pub across: Option<CushionFace>,
    /// Above and below.
    pub up: Option<CushionFace>,
    /// A board before the face that is part of it, and crushes besides.
    pub board_before: Length,
    /// The same behind.
    pub board_behind: Length,
    /// How deep the pieces are, together, that it bears on with an area of its own beside their edges.
    pub bears_on: Option<Length>,
}

/// How thick something lies on each side; `None` if it does not.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Sides {
    /// Before the face.
    pub front: Length,
    /// Behind.
    pub back: Length,
    /// Beside the left and the right edge.
    pub across: Length,
    /// Above and below.
    pub up: Length,
}

impl Sides {
    /// The same on every side.
    #[must_use]
    pub const fn all(thickness: Length) -> Self {
        Self {
            front: thickness,
            back: thickness,
            across: thickness,
            up: thickness,
        }
    }
}

/// How board crushes: what its walls, flaps and pads take up in a fall. Source: packaging engineering practice,
/// an indicative curve for corrugated board of its own caliper.
#[must_use]
pub const fn crushing_board() -> CushionCurve {
    CushionCurve {
        start: Stress::kpa(110.0),
        growth: 0.006,
        tested: Some(EnergyRange {
            least: EnergyDensity::kj_m3(20.0),
            most: EnergyDensity::kj_m3(90.0),
        }),
        creep: None,
    }
}

impl Cushioning {
    /// Returns what a cushion gives that covers all of each side that it lies on.
    #[must_use]
    pub fn covering(curve: CushionCurve, sides: Sides) -> Self {
        let side = |thickness: Length| {
            (thickness > Length::ZERO).then_some(CushionFace {
                area: None,
                thickness,
            })
        };
        Self {
            curve,
            board: false,
            front: side(sides.front),
            back: side(sides.back),
            across: side(sides.across),
            up: side(sides.up),
            board_before: Length::ZERO,
            board_behind: Length::ZERO,
            bears_on: None,
        }
    }

    /// The same with a board behind that is part of it; solid board does not crush.
    #[must_use]
    pub fn on_board(self, board: &Board) -> Self {
        let crushes = board.build != BoardBuild::Solid;
        Self {
            board_behind: if crushes { board.caliper } else { Length::ZERO },
            ..self
        }
    }

    /// Returns what boards give that lie on each side.
    #[must_use]
    pub fn of_board(sides: Sides) -> Self {
        Self {
            board: true,
            ..Self::covering(crushing_board(), sides)
        }
    }
}
