//! A shipment: what was typed about it, what was worked out from that, and what is to be done next.

mod address;
mod again;
mod asking;
mod box_by_rule;
mod charge;
mod dates;
mod enclosing;
mod found;
mod hints;
mod house;
mod impact;
mod inputs;
mod leaving;
mod lifting;
mod line;
mod loss;
mod more_cost;
mod order;
mod packing;
mod preview;
mod quotation;
mod quoting;
mod rough;
mod sending;
mod several;
mod stored;
mod summary;
mod worked;

pub use address::{NamedCountry, PartedAddress, part_address};
pub use again::Alike;
pub use asking::{Arrival, CarrierAsk, CarrierSays, Confirmed, arrivals};
pub(crate) use box_by_rule::BOX_BY_RULE;
pub use box_by_rule::BoxByRule;
pub use charge::{Charge, CostKind, CostLine, Policy, charge};
pub use enclosing::EnclosureInputs;
pub use found::{Figures, Found, ParcelInputs, RestsOn};
pub use hints::{FieldHint, hints};
pub(crate) use house::Commission;
pub use house::House;
pub use impact::Impact;
pub use inputs::{
    Buyer, LONGEST_TEXT, PieceFacts, PieceInputs, Settled, ShipmentInputs, StepTick, refused_text,
};
pub use leaving::{AfterInputs, ClaimInputs, Outcome, ProtectedLook, SendingInputs};
pub use line::{Mark, NextAct, Promise, Stop, StopState, WorkLine};
pub(crate) use more_cost::MoreCost;
pub use order::{Order, OrderColumns, order_key};
pub use packing::{pack_sheet, packing, unpacking_guide};
pub use preview::Preview;
pub use quotation::QuotationInputs;
pub use rough::{RoughCase, RoughQuote, rough_quote};
pub(crate) use sending::COVER_BELOW_VALUE;
pub use several::{LaidPiece, OtherPiece, OwnChoices, TogetherInputs};
pub use stored::SCHEMA;
pub use summary::{BestQuote, SectionLayer, Summary, WeighedParcel};
pub use worked::{EDITION, Worked};
