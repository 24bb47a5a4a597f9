//! What stands outside the program: the scale on the bench, and the carriers' own services. Each may be away, slow or wrong;
//! whoever asks is told so, and goes on without.

pub(crate) mod asked;
mod breaker;
mod carriers;
mod client;
pub(crate) mod readings;
mod scale;

pub(crate) use carriers::{AllCarriers, Booked, CarrierReach, Carriers, Listed, body_of};
pub use client::Patience;
pub(crate) use client::{NoAnswer, Refusal};
pub(crate) use scale::Scale;

/// Whoever stands outside, as the application was started beside them.
#[derive(Debug, Clone, Default)]
pub(crate) struct Beside {
    /// The scale on the bench.
    pub scale: Scale,
    /// The carriers' own services.
    pub carriers: AllCarriers,
    /// Whether both are only stand-ins.
    pub stand_in: bool,
}
