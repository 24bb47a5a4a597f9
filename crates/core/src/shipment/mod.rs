//! A shipment: what was typed about it, what was worked out from that, and what is to be done next.

mod box_by_rule;
mod charge;
mod dates;
mod hints;
mod house;
mod impact;
mod inputs;
mod lifting;
mod line;
mod loss;
mod more_cost;
mod preview;
mod quoting;
mod sending;
mod stored;
mod summary;
mod worked;

pub(crate) use box_by_rule::BOX_BY_RULE;
pub use box_by_rule::BoxByRule;
pub use charge::{Charge, CostKind, CostLine, Policy, charge};
pub use hints::{FieldHint, hints};
pub(crate) use house::Commission;
pub use house::House;
pub use impact::Impact;
pub use inputs::{Buyer, LONGEST_TEXT, PieceInputs, Settled, ShipmentInputs, refused_text};
pub use line::{Mark, NextAct, Promise, Stop, StopState, WorkLine};
pub(crate) use more_cost::MoreCost;
pub use preview::Preview;
pub use stored::SCHEMA;
pub use summary::{BestQuote, SectionLayer, Summary};
pub use worked::{EDITION, Worked};
