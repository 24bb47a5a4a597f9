//! House rules: every allowance, default, school and choice of a studio, by name.

mod allowance;
mod choices;
mod preset;
mod rules;
mod school;

pub use allowance::{ALLOWANCES, Allowance, Allowances, OutOfAllowance};
pub use choices::Choices;
pub use preset::{Preset, presets};
pub use rules::{Carriage, GlassPattern, HouseMaterials, HouseRules, ShipmentOnly};
pub use school::{
    BackBoard, BoardFit, ContactRule, CornerStyle, CoverRule, Facing, Fit, FrontBoard, LargePieces,
    LooseCanvasRule, LoosePaperRule, Padding, PlasticRule, ReusedRule, SCHOOLS, School,
    SchoolChoices, SchoolQuestion, Schools, TapeRule,
};

pub(crate) use choices::write_unit;
