//! Quick sums: one formula each, in plain numbers, for a bench without a shipment and for scripts.
//!
//! The names of the fields end in their units; nothing is rounded. Each input is checked against its
//! range, and every refusal names its field.

mod arrangement;
mod boards;
mod boxes;
mod checked;
mod cushions;
mod cutting;
mod falls;
mod journey;
mod parcels;
mod quote;
mod risks;
mod saved;
mod sheets;

pub use arrangement::{ArrangementAnswer, ArrangementPiece, ArrangementSum};
pub use boards::{PressInAnswer, PressInSum, RollAnswer, RollSum, StackAnswer, StackSum};
pub use boxes::{BoxAnswer, BoxNet, BoxPart, BoxStyle, BoxSum, Folding, NetHinge, NetPanel};
pub use cushions::{
    BestAnswer, CurveAnswer, CurveAt, CurveSum, CushionAnswer, CushionSum, SeriesAnswer,
    SeriesPart, SeriesSum,
};
pub use cutting::{
    CuttingAnswer, CuttingPart, CuttingPlacement, CuttingStock, CuttingSum, CuttingUsed,
};
pub use falls::{BoundaryAnswer, BoundarySum, FallAnswer, FallPart, FallSum};
pub use journey::{
    FallCore, FallSideParts, FallsSum, GlassAnswer, GlassKind, GlassSum, OddsAnswer, OddsSum,
    PressedAnswer, PressedPlate, PressedSum,
};
pub use parcels::{BillableAnswer, BillableSum};
pub use quote::{QuoteAnswer, QuoteParcel, QuotePlace, QuoteSum, QuotedLine, QuotedService};
pub use risks::{BaseAnswer, BaseSum, HarmAnswer, HarmSum, PiercedAnswer, PiercedSide, PiercedSum};
pub use saved::{SavedCartonAnswer, SavedCartonSum, SleeveAnswer};
pub use sheets::{
    ContactSheetAnswer, ContactSheetSum, CornerPocketAnswer, CornerPocketSum, WrapAnswer, WrapSum,
};

use crate::Refusal;

/// A sum that can be worked: its input is the type that it is implemented for.
pub trait Sum {
    /// What it gives.
    type Answer;

    /// Returns the answer, unrounded.
    ///
    /// # Errors
    /// A [`Refusal`] for each number outside its range.
    fn work(&self) -> Result<Self::Answer, Vec<Refusal>>;
}

#[cfg(test)]
mod tests;
