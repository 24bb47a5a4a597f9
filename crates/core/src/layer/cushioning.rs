//! What a layer gives in a fall, and the stiff core that it gives against.

use crate::{
    cushion::CushionCurve,
    piece::{Piece, PieceSize},
    quantity::{Area, Length},
};

use super::{Addition, Envelope};

/// The stiff core of a parcel: what a cushion presses on, and what it can press on without harm.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Core {
    /// Bars, frame or board, seen from the front; not bare canvas.
    pub face: Area,
    /// Along the width as hung.
    pub across: Length,
    /// Along the height as hung.
    pub up: Length,
    /// From face to back.
    pub through: Length,
}

/// A cushion on one side of the core.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CushionFace {
    /// That overlaps what is stiff.
    pub area: Area,
    /// Free, or loaded for bubble.
    pub thickness: Length,
}

/// What a layer gives on each side that it cushions.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cushioning {
    /// Of its material.
    pub curve: CushionCurve,
    /// Before the face.
    pub front: Option<CushionFace>,
    /// Beside the left and the right edge.
    pub across: Option<CushionFace>,
    /// Above and below.
    pub up: Option<CushionFace>,
}

impl Core {
    /// Returns the core of a piece without a board before it: the bars of a canvas, else its whole face.
    #[must_use]
    pub fn of_piece(piece: &Piece, body: PieceSize, bar: Length, inside: Envelope) -> Self {
        let face = if piece.construction.is_cloth() {
            let hollow = |side: Length| (side - bar * 2.0).max(Length::ZERO);
            let hollow = hollow(body.width) * hollow(body.height);
            Area::m2((body.face().as_m2() - hollow.as_m2()).max(0.0))
        } else {
            piece.outline.face(body)
        };
        Self::around(face, inside)
    }

    /// Returns the core of what has a stiff face of an area.
    #[must_use]
    pub const fn around(face: Area, inside: Envelope) -> Self {
        Self {
            face,
            across: inside.across,
            up: inside.up,
            through: inside.through,
        }
    }

    /// Returns what a cushion gives that covers all of the core by what it adds on each side.
    #[must_use]
    pub fn covered(self, curve: CushionCurve, adds: Addition) -> Cushioning {
        let side = |area: Area, thickness: Length| {
            (thickness > Length::ZERO).then_some(CushionFace { area, thickness })
        };
        Cushioning {
            curve,
            front: side(self.face, adds.front),
            across: side(self.up * self.through, adds.left),
            up: side(self.across * self.through, adds.bottom),
        }
    }
}
