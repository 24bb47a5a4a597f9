//! House rules: every allowance, default, school and choice of a studio, by name.

mod allowance;
mod beginning;
mod box_style;
mod choices;
mod look_kind;
mod manners;
mod money_change;
mod preset;
mod rates;
mod rules;
mod school;

pub use allowance::{ALLOWANCES, Allowance, Allowances, OutOfAllowance};
pub use beginning::{BeginLine, BeginQuestion, Beginning, shipped_beginnings};
pub use box_style::{CartonStyle, SavedCut, SavedFace};
pub use choices::{ChoiceShape, Choices, EachChoice};
pub use look_kind::LookKind;
pub use manners::{
    DateOrder, DecimalMark, LabelSize, Manners, MassUnit, PaperSize, Prices, TaxNumber, TaxNumbers,
};
pub use money_change::{ChangedSum, MoneyChange};
pub use preset::{Preset, preset_choices, presets};
pub use rates::ExchangeRate;
pub use rules::{Carriage, GlassPattern, HouseMaterials, HouseRules, ShipmentOnly, TubeShape};
pub use school::{
    BackBoard, BoardFit, BoxRule, ChargeRule, ContactRule, CoreRule, CornerStyle, CoverRule,
    CuttingRule, EdgeRule, Facing, Fit, FrontBoard, LargePieces, LooseCanvasRule, LoosePaperRule,
    MarksRule, OutsideRule, Padding, PlasticRule, ReusedRule, SCHOOLS, School, SchoolChoices,
    SchoolQuestion, Schools, SealRule, ShapedHold, TapeRule,
};

pub(crate) use choices::write_unit;
