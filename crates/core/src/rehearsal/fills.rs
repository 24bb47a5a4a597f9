//! Fills: what is loose stays where it is put only in a box, and only in a gap that it can fill.

use super::{Broken, Rule};
use crate::{
    pack::{PackStep, Stage},
    quantity::Length,
};

/// A narrower gap takes flat sheets. Source: bench practice.
const NARROW: Length = Length::mm(10.0);

pub(super) fn look(steps: &[PackStep]) -> Vec<Broken> {
    let mut broken = Vec::new();
    for step in steps {
        for act in &step.acts {
            let Some(filled) = act.fills.filter(|filled| filled.loose) else {
                continue;
            };
            let says = if step.stage != Stage::Box {
                "loose fill lies between open boards".to_owned()
            } else if filled.gap < NARROW {
                format!(
                    "a gap of {:.0} mm is too narrow for loose fill",
                    filled.gap.as_mm()
                )
            } else {
                continue;
            };
            broken.push(Broken::at(Rule::Fills, step, act.thing.key(), says));
        }
    }
    broken
}
