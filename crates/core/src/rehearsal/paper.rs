//! Paper: what is printed asks for nothing that paper has not.

use super::{Broken, Rule};
use crate::pack::PackStep;

/// Words that mean a screen.
const OF_A_SCREEN: [&str; 9] = [
    "type ",
    "typed",
    "click",
    "the screen",
    "at Send",
    "at Box",
    "at Pack",
    "at Measure",
    "Box shows",
];

pub(super) fn look(steps: &[PackStep]) -> Vec<Broken> {
    let acts = steps
        .iter()
        .flat_map(|step| step.acts.iter().map(move |act| (step, act)));
    acts.filter_map(|(step, act)| {
        let said = act.on_paper();
        let word = OF_A_SCREEN.iter().find(|word| said.contains(**word))?;
        let says = format!("paper says \u{201c}{}\u{201d}", word.trim());
        Some(Broken::at(Rule::Paper, step, act.thing.key(), says))
    })
    .collect()
}
