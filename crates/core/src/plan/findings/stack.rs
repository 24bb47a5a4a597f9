//! Findings about how several pieces lie together.

use crate::{
    arrange::Rule,
    plan::{
        Finding,
        FindingLevel::{Mind, Note},
        together::Stacked,
    },
    space::LayerSlot,
};

pub(super) fn look(stacked: &Stacked<'_>, findings: &mut Vec<Finding>) {
    let mut said: Vec<Rule> = Vec::new();
    for broken in &stacked.arrangement.broken {
        if said.contains(&broken.rule) {
            continue;
        }
        said.push(broken.rule);
        // What no order keeps is only to be known; an order by hand is told what it breaks.
        let level = if stacked.by_hand { Mind } else { Note };
        let says = if stacked.by_hand {
            format!(
                "In this order, {}, or use the suggested order.",
                broken.says
            )
        } else {
            format!(
                "No order of these pieces meets every rule: {}. A board is added there.",
                broken.plain
            )
        };
        findings.push(Finding::layer(
            level,
            broken.rule.code(),
            LayerSlot::Stack,
            says,
        ));
    }
}
