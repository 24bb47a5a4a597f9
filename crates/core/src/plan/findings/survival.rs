//! Findings about what a plan survives.

use super::Looked;
use crate::{
    house::Choices,
    layer::LayerSlot,
    plan::{
        FallCase, FallReport, Finding,
        FindingLevel::{Mind, Note},
        PadAnswer, PressReport,
    },
    quantity::Length,
};

pub(super) fn look(looked: &Looked<'_>, findings: &mut Vec<Finding>) {
    findings.extend(falls_short(looked));
    findings.extend(uncushioned(looked));
    findings.extend(press_in(looked));
    findings.extend(stacked(looked));
}

/// One finding for the face, and one for the edges and the corner, which are answered alike; two where
/// the same does not give out first.
fn falls_short(looked: &Looked<'_>) -> Vec<Finding> {
    // Tipping over is the face case at another height; its bar says it.
    let short: Vec<&FallReport> = looked
        .survival
        .falls
        .iter()
        .filter(|fall| fall.survives < fall.customary && fall.case != FallCase::Tipping)
        .collect();
    let of_face = |fall: &FallReport| fall.case == FallCase::Face;
    let face: Vec<&FallReport> = short.iter().copied().filter(|fall| of_face(fall)).collect();
    let edges: Vec<&FallReport> = short
        .iter()
        .copied()
        .filter(|fall| !of_face(fall))
        .collect();
    [("fall-face", face), ("fall-edges", edges)]
        .into_iter()
        .filter_map(|(code, falls)| short_of_custom(looked, code, &falls))
        .collect()
}

fn short_of_custom(
    looked: &Looked<'_>,
    code: &'static str,
    falls: &[&FallReport],
) -> Option<Finding> {
    let worst = falls
        .iter()
        .min_by(|one, other| share(one).total_cmp(&share(other)))?;
    let ways: Vec<String> = falls
        .iter()
        .map(|fall| format!("{} {}", cm(fall.survives), way(fall.case)))
        .collect();
    let first = worst.change_first.map_or_else(String::new, |slot| {
        format!(": what gives out first is the {}", slot.name())
    });
    let says = format!(
        "Of {}\u{a0}cm it survives {}{first}. Many ship that way, and foam would hold it.",
        cm(worst.customary),
        listed(&ways)
    );
    let finding = match worst.change_first {
        Some(slot) => Finding::layer(Mind, code, slot, says),
        None => Finding::parcel(Mind, code, says),
    };
    Some(match &worst.answer {
        Some(answer) => with_answer(looked, finding, answer),
        None => finding,
    })
}

fn share(fall: &FallReport) -> f64 {
    fall.survives / fall.customary
}

const fn way(case: FallCase) -> &'static str {
    match case {
        FallCase::Face => "flat on its face",
        FallCase::LongEdge => "on a long edge",
        FallCase::ShortEdge => "on a short edge",
        FallCase::Corner => "on a corner",
        FallCase::Tipping => "tipping over",
    }
}

/// Parts of a sentence with commas, and an "and" before the last.
fn listed(parts: &[String]) -> String {
    match parts {
        [before @ .., last] if !before.is_empty() => format!("{} and {last}", before.join(", ")),
        _ => parts.concat(),
    }
}

fn with_answer(looked: &Looked<'_>, finding: Finding, answer: &PadAnswer) -> Finding {
    if answer.too_much_area {
        let says = format!(
            "{} There is too much area for so light a piece: less area, not more foam.",
            finding.says
        );
        let finding = Finding { says, ..finding };
        return finding.answered_by(
            format!(
                "Cut the {} to {:.0}\u{a0}cm²",
                answer.slot.name(),
                answer.area_cm2
            ),
            pads(looked, answer),
        );
    }
    let there = looked.layer(answer.slot).is_some();
    let verb = if there { "Change" } else { "Add" };
    let name = answer.slot.name();
    let (foam, cut) = (&answer.foam_name, answer.cut.as_mm());
    let label = match answer.leg {
        None => format!(
            "{verb} {name}: {foam}, {cut:.0}\u{a0}mm, {:.0}\u{a0}cm²",
            answer.area_cm2
        ),
        Some(leg) => format!(
            "{verb} {name}: {foam}, {cut:.0}\u{a0}mm, leg {:.0}\u{a0}mm",
            leg.as_mm()
        ),
    };
    let choices = pads(looked, answer);
    if looked.already(&choices) {
        return finding;
    }
    finding.answered_by(label, choices)
}

/// The pads as a choice: what the studio can cut, in whole millimetres.
fn pads(looked: &Looked<'_>, answer: &PadAnswer) -> Choices {
    let thickness = Some(format!("{} mm", answer.cut.as_mm()));
    let layer = Choices {
        pad_foam: Some(answer.foam.clone()),
        ..Choices::layer(answer.slot, true)
    };
    match answer.leg {
        None => Choices {
            pad_thickness: thickness,
            pad_area_cm2: Some(answer.area_cm2.ceil().clamp(LEAST_CM2, MOST_CM2)),
            ..layer
        },
        Some(leg) => Choices {
            block_thickness: thickness,
            block_leg: Some(format!("{} mm", leg.as_mm())),
            // Blocks stand where the fill at the edges would.
            clearance: (looked.recipe.has(LayerSlot::Fill)).then(|| "0 mm".to_owned()),
            ..layer
        },
    }
}

const LEAST_CM2: f64 = 4.0;
const MOST_CM2: f64 = 40_000.0;

fn uncushioned(looked: &Looked<'_>) -> Option<Finding> {
    let cushioned = looked.layers.iter().any(|layer| layer.cushioning.is_some());
    let rolled = looked.recipe.has(LayerSlot::Roll);
    (!cushioned && !rolled).then(|| {
        Finding::parcel(
            Mind,
            "no-cushion",
            "Nothing in this parcel gives in a fall: add a wrap or foam.",
        )
        .answered_by(
            "Add the first wrap",
            Choices::layer(LayerSlot::FirstWrap, true),
        )
    })
}

fn press_in(looked: &Looked<'_>) -> Option<Finding> {
    let press = looked
        .survival
        .press
        .as_ref()
        .filter(|press| !press.passes)?;
    let says = format!(
        "A parcel's corner on the face presses the board in {:.0}\u{a0}mm, and {:.0}\u{a0}mm is free before the art{}.",
        press.deflection.as_mm(),
        press.stand_off.as_mm(),
        match press.board_that_passes {
            Some(_) => ": a stiffer board keeps it off",
            None if looked.recipe.has(LayerSlot::FaceBoards) =>
                ": no light board on the shelf keeps it off alone; a spacer or a board outside the cushion gives it more room",
            None => ": a board in front keeps it off",
        }
    );
    let slot = if looked.recipe.has(LayerSlot::FaceBoards) {
        LayerSlot::FaceBoards
    } else {
        LayerSlot::FirstWrap
    };
    let finding = Finding::layer(Mind, "press-in", slot, says);
    Some(match press_remedy(looked, press) {
        Some((label, choices)) => finding.answered_by(label, choices),
        None => finding,
    })
}

/// The board that passes; else a spacer, where the face has room for one; else a board outside.
fn press_remedy(looked: &Looked<'_>, press: &PressReport) -> Option<(String, Choices)> {
    if !looked.recipe.has(LayerSlot::FaceBoards) {
        let choices = Choices::layer(LayerSlot::FaceBoards, true);
        return Some(("Add face boards".to_owned(), choices));
    }
    if let Some(id) = &press.board_that_passes {
        let board = looked.supplies.catalogue.board(id).ok()?;
        let choices = Choices {
            face_board: Some(id.clone()),
            ..Choices::default()
        };
        return Some((format!("Take {}", board.name), choices));
    }
    let bare = looked.piece.bare_medium().is_some();
    let (label, slot) = if bare && !looked.recipe.has(LayerSlot::WindowSpacer) {
        ("Add a window spacer", LayerSlot::WindowSpacer)
    } else if looked.recipe.has(LayerSlot::OuterBoards) {
        return None;
    } else {
        ("Add outer boards", LayerSlot::OuterBoards)
    };
    Some((label.to_owned(), Choices::layer(slot, true)))
}

fn stacked(looked: &Looked<'_>) -> Option<Finding> {
    let stack = looked.survival.stack.filter(|stack| !stack.passes)?;
    let says = format!(
        "Standing on its opening with {} like parcels on it, the box bears {:.0} of {:.0}\u{a0}N{}: mark it not to be stacked, or take a stiffer board.",
        stack.parcels,
        stack.allowed.as_n(),
        stack.load.as_n(),
        if stack.indicative {
            " (indicative: its sides are very unlike)"
        } else {
            ""
        }
    );
    Some(Finding::layer(Note, "stack", LayerSlot::Box, says))
}

fn cm(length: Length) -> String {
    format!("{:.0}", length.as_mm() / 10.0)
}
