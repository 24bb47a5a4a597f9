//! Cushion design: what a fall does to a piece, what a load does to a board, and what would hold.
//!
//! Each module holds one question. The formulas are common packaging engineering practice and plate
//! theory; they speak of shock and load, not of vibration or puncture.

mod boundary;
mod curve;
mod drop_height;
mod fall;
mod fit;
mod pad;
mod press;
mod series;
mod spring;
mod stack;

pub use boundary::DamageBoundary;
pub use curve::{CushionCurve, EnergyRange, TooWeak};
pub use drop_height::{CUSTOM, drop_by};
pub use fall::{FallAxis, fall_shares, fall_shock, together};
pub use fit::{CurvePoint, FitRefused, FittedCurve, fit_curve};
pub use pad::{BestPad, BestWithin, Pad};
pub use press::{Plate, Press, plate_factor, stretched};
pub(crate) use series::TriedSeries;
pub use series::{Series, SeriesLayer};
pub(crate) use spring::Springs;
pub use stack::{COLUMN, compression_strength, like_parcels_above};
