//! What stands outside the program: the scale on the bench, and the carriers' own services. Each may be away, slow or wrong;
//! whoever asks is told so, and goes on without.

mod asked;
mod breaker;
mod carriers;
mod client;
mod scale;

pub(crate) use asked::routes as carrier_routes;
pub(crate) use carriers::{AllCarriers, Booked, Carriers, body_of};
pub(crate) use client::NoAnswer;
pub use client::Patience;
pub(crate) use scale::{Scale, routes as scale_routes};
