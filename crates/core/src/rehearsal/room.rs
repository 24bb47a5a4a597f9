//! Room: what goes into a box is held on every side once it is closed.

use super::{Broken, Rule};
use crate::{act::Thing, pack::PackStep, quantity::Length};

/// So much may be left. Source: bench practice.
const LEFT: Length = Length::mm(3.0);

pub(super) fn look(steps: &[PackStep]) -> Vec<Broken> {
    let mut broken = Vec::new();
    for (at, step) in steps.iter().enumerate() {
        let loads = step.acts.iter().filter(|act| act.thing == Thing::Goods);
        let Some(room) = loads
            .filter_map(|act| act.lifts)
            .map(|lifted| lifted.room)
            .max()
        else {
            continue;
        };
        let is_load = |step: &&PackStep| {
            step.acts
                .iter()
                .any(|act| act.thing == Thing::Goods && act.lifts.is_some())
        };
        let before = steps[..at].iter().rev().take_while(|step| !is_load(step));
        let after = steps[at + 1..].iter().take_while(|step| !is_load(step));
        let around = before
            .chain(after)
            .chain([step])
            .flat_map(|step| &step.acts);
        let filled: Length = around
            .filter_map(|act| act.fills)
            .map(|filled| filled.gap)
            .sum();
        if room > filled + LEFT {
            let says = format!(
                "it has {:.0} mm of room in the closed box, and {:.0} are filled",
                room.as_mm(),
                filled.as_mm()
            );
            broken.push(Broken::at(Rule::Room, step, Thing::Goods.key(), says));
        }
    }
    broken
}
