//! The scale: what it says while it comes to rest, what a reading says about a plan, and what many readings say about the
//! densities of the stores.

mod densities;
mod settling;
mod verdict;

pub use densities::{Corrections, DensityRow, WeighedPlan, WeighingRow, corrections};
pub use settling::{LiveReading, Sample, ScaleState, Settling};
pub(crate) use verdict::SCALE;
pub use verdict::{Explanation, Verdict, verdict};
