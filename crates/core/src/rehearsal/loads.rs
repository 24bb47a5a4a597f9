//! Loads: over 10 kg nothing is lifted over a wall higher than 500.

use super::{Broken, Rule};
use crate::{
    pack::PackStep,
    quantity::{Length, Mass},
};

/// Source: bench practice.
const HEAVY: Mass = Mass::kg(10.0);
const HIGH: Length = Length::mm(500.0);

pub(super) fn look(steps: &[PackStep]) -> Vec<Broken> {
    let acts = steps
        .iter()
        .flat_map(|step| step.acts.iter().map(move |act| (step, act)));
    acts.filter_map(|(step, act)| {
        let lifted = act.lifts?;
        (lifted.mass > HEAVY && lifted.over > HIGH).then(|| {
            let says = format!(
                "{:.1} kg are lifted over a wall of {:.0} mm",
                lifted.mass.as_kg(),
                lifted.over.as_mm()
            );
            Broken::at(Rule::Loads, step, act.thing.key(), says)
        })
    })
    .collect()
}
