//! The parcel leaves: its addresses and papers, what is looked at before it goes, and what comes of it afterwards.

mod beside;
mod checks;
mod claim;
mod following;
mod handed;
pub mod papers;
mod postal;

pub use beside::{Comparison, ParcelBeside};
pub use checks::{Inspection, LeavingCheck, leaving_checks};
pub use claim::{ClaimKind, Deadline};
pub use following::{Fate, TrackedParcel, TrackingEvent};
pub use handed::{DoneStep, HandedParcel};
pub use postal::{AddressForm, AddressGap, AddressOf, Sender, address_print};
