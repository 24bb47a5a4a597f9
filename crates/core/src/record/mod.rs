//! What a studio's own parcels have taught: each that left, in figures, and what many of them say about the plans.

mod log_row;
mod reckoning;

pub use log_row::LogRow;
pub use reckoning::{Band, Group, GroupBy, OffBin, Reckoning, Turned, Weighed};
