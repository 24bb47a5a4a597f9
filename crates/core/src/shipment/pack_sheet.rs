//! The pack sheet: the steps of one parcel on paper, for a bench without a screen.

use jiff::civil::Date;
use serde::Serialize;

use super::ShipmentInputs;
use crate::{
    drawing::Drawing,
    layer::Make,
    pack::{PackView, Stage, StepState, Strips},
    part::{Part, Take},
    plan::Plan,
    quantity::{Length, Telling},
};

/// What is printed.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct PackSheet {
    /// The piece.
    pub title: String,
    /// What it is, whose it is and when it is promised, line by line.
    pub about: Vec<String>,
    /// What the parcel comes to.
    pub comes_to: String,
    /// What is in the hand.
    pub tools: String,
    /// What is cut and taken, material by material.
    pub cuts: Vec<SheetCuts>,
    /// Every step that is not a cut, in the order of the job.
    pub steps: Vec<SheetStep>,
    /// The blank of the box, where one is cut.
    pub drawing: Option<Drawing>,
}

/// What is cut from one material.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct SheetCuts {
    /// What it is called.
    pub material: String,
    /// Each part with its sides.
    pub parts: Vec<String>,
    /// Whether it is done.
    pub done: bool,
}

/// One step.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct SheetStep {
    /// What is done.
    pub title: String,
    /// How.
    pub says: String,
    /// What could hurt.
    pub minds: String,
    /// What is looked at before going on.
    pub asks: String,
    /// Tape as it is torn.
    pub tape: String,
    /// Whether it is done.
    pub done: bool,
}

impl PackSheet {
    /// Returns the sheet of a packing, which goes to the lines of an address. Quantities are told as `telling` has them.
    #[must_use]
    pub fn of(
        view: &PackView,
        plan: &Plan,
        (inputs, to): (&ShipmentInputs, &[String]),
        telling: Telling,
    ) -> Self {
        let done = |state: StepState| state == StepState::Done;
        let cuts = view
            .steps
            .iter()
            .filter(|one| one.step.stage == Stage::Cut)
            .filter_map(|one| {
                let name = &one.step.parts.first()?.material_name;
                Some(SheetCuts {
                    material: match &one.sheet {
                        Some(sheet) => format!("{name}, cut already: {sheet}"),
                        None => name.clone(),
                    },
                    parts: one
                        .step
                        .parts
                        .iter()
                        .map(|part| told(part, telling))
                        .collect(),
                    done: done(one.state),
                })
            })
            .collect();
        let steps = view
            .steps
            .iter()
            .filter(|one| one.step.stage != Stage::Cut)
            .map(|one| SheetStep {
                title: match &one.step.piece {
                    Some(piece) => format!("{piece}: {}", one.step.title),
                    None => one.step.title.clone(),
                },
                says: one.step.says.join(" "),
                minds: one.step.cautions.join(" "),
                asks: one
                    .step
                    .look
                    .map(|look| look.asks.to_owned())
                    .unwrap_or_default(),
                tape: torn(&one.step.strips, telling),
                done: done(one.state),
            })
            .collect();
        let mut tools: Vec<_> = view.steps.iter().flat_map(|one| &one.step.tools).collect();
        tools.sort_unstable();
        tools.dedup();
        let names: Vec<&str> = tools.into_iter().map(|tool| tool.name()).collect();
        let outside = plan.tally.outside;
        let sides = telling.sides(&[outside.across, outside.up, outside.through]);
        let cartons = plan.layers.iter().find_map(|layer| match &layer.make {
            Make::SlottedBox(carton) | Make::CutBox(carton) => Some(carton),
            _ => None,
        });
        let title = if inputs.title.trim().is_empty() {
            "Untitled".to_owned()
        } else {
            inputs.title.clone()
        };
        Self {
            about: about(inputs, to, telling),
            comes_to: format!(
                "{sides} outside, {} ± {}, about {:.0} minutes",
                telling.mass(plan.tally.weight.mass),
                telling.mass(plan.tally.weight.plus_minus),
                plan.tally.minutes.as_min()
            ),
            tools: names.join(", "),
            cuts,
            steps,
            drawing: cartons.map(|carton| Drawing::of_blank(&carton.blank, &title, telling)),
            title,
        }
    }
}

fn about(inputs: &ShipmentInputs, to: &[String], telling: Telling) -> Vec<String> {
    let to = (!to.is_empty()).then(|| format!("To {}", to.join(", ")));
    let promised = inputs.promised.as_deref().map(|day| {
        let told = day
            .parse::<Date>()
            .map_or_else(|_| day.to_owned(), |day| telling.day(day));
        format!("Promised for {told}")
    });
    let number = inputs.order_number();
    let order = (!number.is_empty()).then(|| format!("Order {number}"));
    let note = inputs.order.note.trim();
    let note = (!note.is_empty()).then(|| format!("The buyer wrote: {note}"));
    [inputs.kind_says(telling), order, to, promised, note]
        .into_iter()
        .flatten()
        .collect()
}

/// A part with its sides, as somebody cuts it.
fn told(part: &Part, telling: Telling) -> String {
    let side = |length: Length| telling.length(length);
    let count = part.count;
    let name = part.name;
    match part.take {
        Take::Piece {
            width_mm,
            height_mm,
            ..
        } => {
            format!("{count} × {} × {}, {name}", side(width_mm), side(height_mm))
        }
        Take::Run {
            length_mm,
            width_mm: Some(width),
            ..
        } => {
            format!(
                "{count} × {} long, {} wide, {name}",
                side(length_mm),
                side(width)
            )
        }
        Take::Run { length_mm, .. } => format!("{count} × {} long, {name}", side(length_mm)),
        Take::Loose { .. } | Take::Each => format!("{count} × {name}"),
    }
}

fn torn(strips: &[Strips], telling: Telling) -> String {
    let each: Vec<String> = strips
        .iter()
        .map(|strip| {
            let filament = if strip.filament { " of filament" } else { "" };
            format!(
                "{} × {}{filament} {}",
                strip.count,
                telling.length(strip.length),
                strip.on
            )
        })
        .collect();
    each.join("; ")
}
