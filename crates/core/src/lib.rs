//! The job itself: how a flat piece is measured, protected, boxed, weighed and priced.
//!
//! Data flows one way: piece, house rules and catalogue give a plan; the plan gives a parcel; the
//! parcel and a tariff give quotes. Nothing here reads a clock, a file, a database or a network; what
//! is needed from outside comes in as an argument.
//!
//! The modules stand on floors, and a module uses only those on the floors below its own (a test reads this list):
//!
//! 1. `json`, `quantity`, `refusal`
//! 2. `cushion`, `cutting`, `piece`, `space`, `text`
//! 3. `arrange`, `place`
//! 4. `freight`, `material`, `odds`
//! 5. `enclosure`, `part`
//! 6. `act`, `house`
//! 7. `carton`
//! 8. `container`
//! 9. `layer`
//! 10. `plan`, `sums`
//! 11. `pack`, `stock`, `weigh`
//! 12. `drawing`, `rehearsal`
//! 13. `shipment`
//! 14. `sending`, `ways`
//! 15. `record`

pub mod act;
pub mod arrange;
pub mod carton;
pub mod container;
pub mod cushion;
pub mod cutting;
pub mod drawing;
pub mod enclosure;
pub mod freight;
pub mod house;
pub mod json;
pub mod layer;
pub mod material;
pub mod odds;
pub mod pack;
pub mod part;
pub mod piece;
pub mod place;
pub mod plan;
pub mod quantity;
pub mod record;
mod refusal;
pub mod rehearsal;
pub mod sending;
pub mod shipment;
pub mod space;
pub mod stock;
pub mod sums;
pub mod text;
pub mod ways;
pub mod weigh;

pub use refusal::{Refusal, Refusals};
