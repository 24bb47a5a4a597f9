//! Times: what is glued is left alone until it holds.

use super::{Broken, Rule};
use crate::{act::Does, pack::PackStep, quantity::Minutes};

/// What is glued waits itself, or is weighed down and waits then.
const UNTIL: usize = 2;

pub(super) fn look(steps: &[PackStep]) -> Vec<Broken> {
    let mut broken = Vec::new();
    for step in steps {
        for (at, act) in step.acts.iter().enumerate() {
            let waits = || {
                let next = step.acts[at..].iter().take(UNTIL);
                next.map(|act| act.waits).sum::<Minutes>()
            };
            if act.does == Does::Glue && waits() <= Minutes::ZERO {
                let thing = act.thing.key();
                broken.push(Broken::at(
                    Rule::Times,
                    step,
                    thing,
                    "glue has no time to hold",
                ));
            }
        }
    }
    broken
}
