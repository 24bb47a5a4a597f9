//! Where a parcel goes: countries, how their addresses are written and read, and by which kind of way.

mod address;
mod country;
mod customs;
mod fold;
mod format;
mod paste;
mod postcode_place;
mod route;

pub use address::Buyer;
pub use country::{Countries, Country, OwnCountry, usual_route};
pub use customs::meets_customs;
pub(crate) use fold::fold;
pub use format::{AddressFormat, AddressLine, AddressPart, FullFormat, PostcodeShape, Region};
pub use paste::{PartedAddress, part_address};
pub use postcode_place::PostcodePlace;
pub use route::{PlaceRoute, Route, RouteRow};

/// Where a parcel goes.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Destination {
    /// Its country's two-letter code.
    pub country: String,
    /// As written on the label; empty where there is none.
    pub postcode: String,
}
