//! Spans: a strip that goes over something grips on both sides of it.

use super::{Broken, Rule};
use crate::{pack::PackStep, quantity::Length};

/// So much of a strip grips at each end. Source: bench practice.
const GRIP: Length = Length::mm(30.0);
/// Lengths are summed in binary.
const DUST: Length = Length::mm(1e-6);

pub(super) fn look(steps: &[PackStep]) -> Vec<Broken> {
    let mut broken = Vec::new();
    for step in steps {
        for act in &step.acts {
            let Some(way) = act.spans else {
                continue;
            };
            let least = way + GRIP * 2.0;
            let laid = step
                .strips
                .iter()
                .filter(|strips| act.strips.contains(&strips.on));
            for strips in laid {
                let grips = strips.length - strips.fold;
                if grips + DUST < least {
                    let says = format!(
                        "a strip of {:.0} mm goes over {:.0} mm, and has to grip {:.0} at each end",
                        grips.as_mm(),
                        way.as_mm(),
                        GRIP.as_mm()
                    );
                    broken.push(Broken::at(Rule::Spans, step, strips.on.key(), says));
                }
            }
        }
    }
    broken
}
