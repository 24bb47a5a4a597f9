//! The parcel leaves: its addresses and papers, what is looked at before it goes, and what comes of it afterwards.

mod beside;
mod checks;
mod claim;
mod following;
mod handed;
pub mod papers;
mod postal;

pub use beside::{Beside, ParcelBeside};
pub use checks::{LeavingCheck, LookedOver, leaving_checks};
pub use claim::{ClaimKind, Deadline};
pub use following::{Fate, Following, TrackingEvent};
pub use handed::{DoneStep, Handed};
pub use postal::{AddressForm, AddressGap, AddressOf, PostcodePlace, Sender, address_print};
