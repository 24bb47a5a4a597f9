//! Within a box: a hand gets to where it is to do something.

use super::{Broken, Rule};
use crate::{pack::PackStep, quantity::Length};

/// A hand, across and through, and how far an arm reaches. Source: bench practice.
const HAND: [Length; 2] = [Length::mm(90.0), Length::mm(60.0)];
const ARM: Length = Length::mm(600.0);

pub(super) fn look(steps: &[PackStep]) -> Vec<Broken> {
    let mut broken = Vec::new();
    for step in steps {
        for act in &step.acts {
            let Some(reached) = act.reaches else {
                continue;
            };
            let [one, other] = reached.mouth;
            let says = if reached.deep > ARM {
                format!(
                    "it is {:.0} mm deep, and an arm reaches {:.0}",
                    reached.deep.as_mm(),
                    ARM.as_mm()
                )
            } else if one.max(other) < HAND[0] || one.min(other) < HAND[1] {
                format!(
                    "no hand passes an opening of {:.0} × {:.0} mm",
                    one.as_mm(),
                    other.as_mm()
                )
            } else {
                continue;
            };
            broken.push(Broken::at(Rule::Reach, step, act.thing.key(), says));
        }
    }
    broken
}
