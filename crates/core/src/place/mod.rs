//! Where a parcel goes, and by which kind of way.

mod route;

pub use route::{PlaceRoute, Route, RouteRow};

/// Where a parcel goes.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Destination {
    /// Its country's two-letter code.
    pub country: String,
    /// As written on the label; empty where there is none.
    pub postcode: String,
}
