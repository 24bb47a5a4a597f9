//! Findings about the whole parcel.

use super::Looked;
use crate::{
    house::LargePieces,
    piece::Glazing,
    plan::{
        Finding,
        FindingLevel::{Mind, Note, Stop},
    },
    quantity::Area,
};

pub(super) fn look(looked: &Looked<'_>, findings: &mut Vec<Finding>) {
    findings.extend(hand_over(looked));
    findings.extend(no_mailer(looked));
}

/// What would go in a mailer by the house's rule, and is too large for every one on the shelf.
fn no_mailer(looked: &Looked<'_>) -> Option<Finding> {
    looked.recipe.no_mailer.then(|| {
        Finding::parcel(
            Note,
            "no-mailer",
            "The house rules choose a mailer, but none in Materials is large enough. It goes in a box.",
        )
    })
}

/// What something comes to, over what it may; where both round to the same, that it is a little over.
fn over([is, most]: &[String; 2]) -> String {
    if is == most {
        format!("a little over {most}")
    } else {
        format!("{is}, over {most}")
    }
}

/// The limits past which the house would rather have others pack it, as they stand in a sentence.
fn past_limits(looked: &Looked<'_>) -> Vec<String> {
    let allowances = looked.supplies.allowances();
    let (mass, longest) = (looked.tally.weight.mass, looked.tally.outside.long_side());
    let piece = looked.piece;
    let pane = piece.pane_area();
    let telling = looked.telling();
    let mut past = Vec::new();
    if mass > allowances.hand_over_mass {
        let told = [mass, allowances.hand_over_mass].map(|mass| telling.mass(mass));
        past.push(format!("it weighs {}", over(&told)));
    }
    if longest > allowances.hand_over_length {
        let [is, most] = [longest, allowances.hand_over_length].map(|length| looked.told(length));
        past.push(if is == most {
            format!("it is a little over {most} long")
        } else {
            format!("it is {is} long, over {most}")
        });
    }
    let most = Area::m2(allowances.hand_over_glass);
    if piece.construction.glazing() == Glazing::Glass && pane > most {
        let told = [pane, most].map(|area| telling.area(area));
        past.push(format!("its glass is {}", over(&told)));
    }
    if piece
        .value
        .is_some_and(|value| value > allowances.hand_over_value.number())
    {
        past.push(format!(
            "it is worth over {:.0}",
            allowances.hand_over_value.number()
        ));
    }
    past
}

fn hand_over(looked: &Looked<'_>) -> Option<Finding> {
    let past = past_limits(looked);
    if past.is_empty() {
        return None;
    }
    let why = past.join(", and ");
    Some(match looked.supplies.rules.schools.large {
        LargePieces::PackThem => Finding::parcel(
            Mind,
            "hand-over",
            format!(
                "More than the studio usually packs itself: {why}. Ask a packer or an art courier for a price, and compare."
            ),
        ),
        // It is the piece that is too large, whatever is wound around it.
        LargePieces::HandOver => Finding::piece(
            Stop,
            "hand-over",
            format!(
                "The house rules send this to a crating service: {why}. Hand it over, or write why you pack it here."
            ),
        ),
    })
}
