//! The odds of a journey: how likely a plan is to arrive damaged, set by experience and moved by physics.
//!
//! P = 1 − exp(−k · base · route · factor). *base* says how often such a piece arrives damaged when it is
//! packed as the shipped Standard packs it; *factor* compares a plan with that, hazard by hazard; *route*
//! says how rough the way is; *k* is what the studio's own parcels have taught. The tables are trade
//! judgement and say so. Only compared plans mean anything: a probability here promises nothing.

mod base;
mod chance;
mod class;
mod fall;
mod harm;
mod hazard;
mod rest;
mod tables;

pub use base::SizedKind;
pub use chance::{Chance, KnownRecord, alike, compared, together};
pub use class::PieceClass;
pub(crate) use class::Travels;
pub use fall::{FallDanger, FallParts, FallSides, Faller, danger_of_falls};
pub use harm::{Harmed, harm_of};
pub use hazard::{Hazard, Measure, PerHazard};
pub use rest::{
    Damp, PlateOver, SOFT_J_PER_MM, edge_measure, pierced_measure, pressed_measure, tube_measure,
    tube_stiffness,
};
pub use tables::{ClassRow, CountedRecord, OddsTables, RecordRow, WayRisk};
