//! Findings about the whole parcel.

use super::Looked;
use crate::{
    house::LargePieces,
    plan::{
        Finding,
        FindingLevel::{Mind, Stop},
    },
};

pub(super) fn look(looked: &Looked<'_>, findings: &mut Vec<Finding>) {
    findings.extend([lifting(looked), hand_over(looked)].into_iter().flatten());
}

fn lifting(looked: &Looked<'_>) -> Option<Finding> {
    let allowances = looked.supplies.allowances();
    let heavy = looked.tally.weight.mass > allowances.two_people_mass;
    let long = looked.tally.outside.long_side() > allowances.two_people_length;
    (heavy || long).then(|| {
        Finding::parcel(
            Mind,
            "two-people",
            "This parcel is past what one person carries: have two to lift it.",
        )
    })
}

fn hand_over(looked: &Looked<'_>) -> Option<Finding> {
    let rules = looked.supplies.rules;
    let heavy = looked.tally.weight.mass > rules.allowances.hand_over_mass;
    let long = looked.tally.outside.long_side() > rules.allowances.hand_over_length;
    if !heavy && !long {
        return None;
    }
    let (level, says) = match rules.schools.large {
        LargePieces::PackThem => (
            Mind,
            "This parcel is past the studio's limit for carriers' belts: ask a crating service what they would take for it.",
        ),
        LargePieces::HandOver => (
            Stop,
            "By the rules of the house a parcel this large goes to a crating service: hand it over, or write why it is packed here.",
        ),
    };
    Some(if level == Stop {
        // It is the piece that is too large, whatever is wound around it.
        Finding::piece(level, "hand-over", says)
    } else {
        Finding::parcel(level, "hand-over", says)
    })
}
