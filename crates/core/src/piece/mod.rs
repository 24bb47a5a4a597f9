//! What is shipped: what carries it, how large it is, what it is made in and whether that has cured.

mod construction;
mod cure;
mod medium;
mod size;

pub use construction::Construction;
pub use cure::{Cure, cure_of};
pub use medium::{Medium, PaintBody};
pub use size::{DEPTH, HEIGHT, PieceSize, WIDTH};

use jiff::civil::Date;

use crate::quantity::Weight;

/// A flat piece, measured.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Piece {
    /// What carries the art.
    pub construction: Construction,
    /// Over everything, frame and hardware too.
    pub size: PieceSize,
    /// What it is painted, drawn or printed in.
    pub medium: Medium,
    /// How thickly.
    pub paint: PaintBody,
    /// When the last of it was laid on; unknown counts as long ago only where nothing has to cure.
    pub finished: Option<Date>,
}

impl Piece {
    /// Returns the weight estimated from what the piece is made of, with its doubt.
    ///
    /// `doubt` is the share that may be off: 0.2 by the default house rule.
    #[must_use]
    pub fn estimated_weight(&self, doubt: f64) -> Weight {
        Weight::with_doubt(self.construction.mass(self.size, self.paint), doubt)
    }
}
