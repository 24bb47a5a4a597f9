//! House rules: every allowance, default and choice of a studio, by name.

mod allowance;
mod choices;
mod rules;

pub use allowance::{ALLOWANCES, Allowance, Allowances, OutOfAllowance};
pub use choices::Choices;
pub use rules::{BackBoard, HouseMaterials, HouseRules};

pub(crate) use choices::write_unit;
