//! Points: a screw ends at least 10 deep in the last thing that it enters and 2 before its far side, and its hole ends before it does.

use super::{Broken, Rule};
use crate::{pack::PackStep, quantity::Length};

/// Source: woodworking practice.
const DEEP: Length = Length::mm(10.0);
const BEFORE: Length = Length::mm(2.0);
/// A thicker thing holds a screw without a hole. Source: woodworking practice.
const DRILLED_TO: Length = Length::mm(25.0);

pub(super) fn look(steps: &[PackStep]) -> Option<Broken> {
    steps.iter().find_map(|step| {
        step.acts.iter().find_map(|act| {
            let driven = act.drives?;
            let broken = |says: &str| Some(Broken::at(Rule::Points, step, act.thing.key(), says));
            let (through, into) = (driven.through, driven.into);
            if driven.screw + BEFORE > through + into {
                return broken("the screw comes out at the far side");
            }
            if driven.screw < through + DEEP {
                return broken("the screw hardly holds");
            }
            if into <= DRILLED_TO && driven.stop >= driven.screw {
                return broken("the hole is as deep as the screw is long");
            }
            None
        })
    })
}
