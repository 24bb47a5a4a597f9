//! Other ways to pack the same piece: what a layer could be instead, and what more or less protection would buy.

mod alternatives;
mod candidates;
mod changes;

pub use alternatives::{Alternative, alternatives};
pub use changes::{Changes, OfferedChange, changes};
