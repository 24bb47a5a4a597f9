//! Strips: each that a step tears is laid by one of its acts, and no act lays one that is not torn.

use super::{Broken, Rule};
use crate::{
    act::{Act, Does},
    pack::PackStep,
    part::StripId,
};

fn lays(act: &Act, on: StripId) -> bool {
    act.does != Does::CutOpen && act.strips.contains(&on)
}

pub(super) fn look(steps: &[PackStep]) -> Option<Broken> {
    steps.iter().find_map(|step| {
        let torn = |on: StripId| step.strips.iter().any(|strips| strips.on == on);
        let broken =
            |on: StripId, says: String| Some(Broken::at(Rule::Strips, step, on.key(), says));
        for strips in &step.strips {
            let times = step.acts.iter().filter(|act| lays(act, strips.on)).count();
            if times != 1 {
                return broken(
                    strips.on,
                    format!("the strips {} are laid {times} times", strips.on),
                );
            }
            if strips.count == 0 {
                return broken(strips.on, format!("no strip is torn {}", strips.on));
            }
        }
        let laid = step.acts.iter().filter(|act| act.does != Does::CutOpen);
        let untorn = laid.flat_map(|act| &act.strips).find(|on| !torn(**on))?;
        broken(*untorn, format!("no strip is torn {untorn}"))
    })
}
