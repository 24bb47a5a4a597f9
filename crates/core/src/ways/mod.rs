//! Other ways to pack the same piece: what a layer could be instead, what more or less protection would buy, and
//! what would come under the next price step. They are plans of their own, worked out when they are asked for.

mod alternatives;
mod candidates;
mod changes;
mod front;
mod parting;
mod pile;
mod price_step;
mod shelf;
mod steps;
mod styles;

pub use alternatives::{Alternative, alternatives};
pub use changes::{Changes, OfferedChange, changes};
pub use front::{BeatenWay, Explorer, Front, Way};
pub use parting::{InTwo, PartedParcel, PartedWay, in_two};
pub use pile::{CaseFit, FitWay, PileFit, PileFits, WantedCarton, WantedWay, what_fits};
pub use price_step::PriceStep;
pub use shelf::{
    PlanNeeds, ShelfLine, ShelfTake, Substitute, lacking, lacking_for, left_of, materials_together,
    shelf_lines, shelf_takes,
};
pub use steps::{Reach, ServiceLadder, Spread, price_steps};
pub use styles::{BoughtOffer, CaseOffer, StyleOffer, bought, styles, travel_case};

use styles::BoxQuestion;

use crate::{
    house::{Beginning, Choices},
    shipment::ShipmentInputs,
};

/// Returns choices with the preset that was picked until now, kept since something is chosen by hand, and the
/// inputs that they make.
fn choosing(
    inputs: &ShipmentInputs,
    began: Option<&Beginning>,
    choices: Choices,
) -> (Choices, ShipmentInputs) {
    let choices = Choices {
        preset: began.map(|began| began.preset.clone()),
        ..choices
    };
    let changed = ShipmentInputs {
        choices: inputs.choices.patched(&choices),
        ..inputs.clone()
    };
    (choices, changed)
}
