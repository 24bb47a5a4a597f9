//! How far the packing is: which steps are done, which one is next, and what a changed plan touches.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use super::{PackStep, Stage};
use crate::{act::Still, quantity::Minutes};

/// A step that was done at the bench.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct StepTick {
    /// When, as `2027-03-04T10:15:00Z`.
    pub at: String,
    /// What the step was then, by its print.
    pub print: String,
    /// Where its parts lie, as `sheet 1, A1 to A5`, where a layout cut them; empty where it was done by hand.
    #[serde(skip_serializing_if = "String::is_empty")]
    #[cfg_attr(feature = "schema", schema(required = false))]
    pub sheet: String,
}

/// A print is longer now than it was at first (8 letters: fill, lids and marks were no steps of their own; 10: tape had metres, and
/// no strips).
const LETTERS: usize = 12;
/// The beginnings of the keys of the steps that came after the first prints.
const NEW: [&str; 7] = [
    "before/",
    "back/",
    "top/",
    "cut_lid/",
    "cut_second_lid/",
    "look/pane",
    "parcel/marks",
];

fn is_new(key: &str) -> bool {
    let own = key
        .strip_prefix("piece/")
        .and_then(|rest| rest.split_once('/'))
        .map_or(key, |(_, own)| own);
    NEW.iter().any(|new| own.starts_with(new))
}

impl StepTick {
    /// Tells whether it was made while a print was shorter.
    fn is_former(&self) -> bool {
        self.print.len() < LETTERS
    }

    /// Tells whether the step was done as it stands; of one that was ticked with a shorter print its key is all that is known.
    fn is_for(&self, step: &PackStep) -> bool {
        self.print == step.print || self.print.len() < step.print.len()
    }
}

/// How a step stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StepState {
    /// It was done as it stands.
    Done,
    /// It was done, and the plan asks for something else there by now.
    Touched,
    /// It can be done.
    Open,
    /// Something has to be done first.
    Waits,
}

/// A step, and how it stands.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StepView {
    /// The step.
    #[serde(flatten)]
    pub step: PackStep,
    /// How it stands.
    pub state: StepState,
    /// When it was done, as it was noted.
    pub at: Option<String>,
    /// Where its parts lie, as `sheet 1, A1 to A5`, where a layout cut them.
    pub sheet: Option<String>,
    /// How everything lies once it is done.
    pub still: Option<Still>,
}

/// The packing as a whole.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PackView {
    /// Every step in the order of the job.
    pub steps: Vec<StepView>,
    /// The first that is not done; `None` once all are.
    pub next: Option<String>,
    /// In short.
    pub progress: PackProgress,
    /// Steps that were done and are no longer in the plan: what they laid has to come off.
    pub gone: Vec<String>,
    /// Of the steps that are left.
    pub minutes_left: Minutes,
}

/// How far it is, in short.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PackProgress {
    /// Steps in all.
    pub steps: usize,
    /// Steps that are done as they stand.
    pub done: usize,
    /// Steps that were done and that a changed plan touches, or has no longer.
    pub touched: usize,
    /// How many cutting steps are done.
    #[serde(default)]
    pub cut: usize,
    /// How many cutting steps before the first wrap are still to be done; a box that is cut around the wrapped piece is not counted.
    #[serde(default)]
    pub to_cut: usize,
    /// How many steps are done that lay something around the piece.
    #[serde(default)]
    pub laid: usize,
    /// How many steps that stop until they are answered are still to be done; where none stops, every step counts.
    #[serde(default = "not_known")]
    pub stops_left: usize,
}

/// What was kept before it was counted is no packing that is done.
const fn not_known() -> usize {
    1
}

impl PackProgress {
    /// Tells whether it is packed: every step that stops is done, and no changed plan touches what lies.
    #[must_use]
    pub const fn is_done(&self) -> bool {
        self.touched == 0 && self.stops_left == 0
    }
}

impl PackView {
    /// Lays what was ticked beside the steps.
    ///
    /// A step is done only where all that it lies on is: what has to come off takes with it what lies over it. What was cut for
    /// it is not asked again.
    #[must_use]
    pub fn of(steps: Vec<PackStep>, ticks: &BTreeMap<String, StepTick>) -> Self {
        let mut done: Vec<&str> = Vec::new();
        let cuts: Vec<&str> = steps
            .iter()
            .filter(|step| step.stage == Stage::Cut)
            .map(|step| step.key.as_str())
            .collect();
        let began_before = steps.iter().rposition(|step| {
            step.stage.lays() && ticks.get(&step.key).is_some_and(StepTick::is_former)
        });
        let mut states = Vec::with_capacity(steps.len());
        for (at, step) in steps.iter().enumerate() {
            let mut waits_for = step.waits_for.iter().map(String::as_str);
            let can = waits_for.clone().all(|key| done.contains(&key));
            let lies = waits_for.all(|key| done.contains(&key) || cuts.contains(&key));
            let state = match ticks.get(&step.key) {
                // What a layout cut lies there, even before the steps at this bench that come first.
                Some(tick) if tick.is_for(step) && (lies || !tick.sheet.is_empty()) => {
                    StepState::Done
                }
                Some(_) => StepState::Touched,
                // A packing that began while this was part of another step has it done with that one.
                None if lies && began_before.is_some_and(|last| at < last) && is_new(&step.key) => {
                    StepState::Done
                }
                None if can => StepState::Open,
                None => StepState::Waits,
            };
            if state == StepState::Done {
                done.push(&step.key);
            }
            states.push(state);
        }
        let gone: Vec<String> = ticks
            .keys()
            .filter(|key| !steps.iter().any(|step| step.key == **key))
            .cloned()
            .collect();
        let count = |wanted: StepState| states.iter().filter(|state| **state == wanted).count();
        let first: Vec<&str> = steps
            .iter()
            .take_while(|step| !step.stage.lays())
            .map(|step| step.key.as_str())
            .collect();
        let cut = done.iter().filter(|key| cuts.contains(key)).count();
        let stops = |step: &PackStep| step.look.is_some_and(|look| look.stops);
        let none_stops = !steps.iter().any(stops);
        let stops_left = steps
            .iter()
            .zip(&states)
            .filter(|(step, state)| (none_stops || stops(step)) && **state != StepState::Done)
            .count();
        let progress = PackProgress {
            stops_left,
            steps: steps.len(),
            done: count(StepState::Done),
            touched: count(StepState::Touched) + gone.len(),
            cut,
            to_cut: first
                .iter()
                .filter(|key| cuts.contains(key) && !done.contains(key))
                .count(),
            laid: steps
                .iter()
                .filter(|step| step.stage.lays() && done.contains(&step.key.as_str()))
                .count(),
        };
        let left = |(step, state): &(&PackStep, &StepState)| {
            (**state != StepState::Done).then_some(step.minutes)
        };
        let minutes_left = steps
            .iter()
            .zip(&states)
            .filter_map(|pair| left(&pair))
            .sum();
        let next = steps
            .iter()
            .zip(&states)
            .find(|(_, state)| **state != StepState::Done)
            .map(|(step, _)| step.key.clone());
        let steps = steps
            .into_iter()
            .zip(states)
            .map(|(step, state)| StepView {
                at: ticks.get(&step.key).map(|tick| tick.at.clone()),
                sheet: ticks
                    .get(&step.key)
                    .filter(|tick| state == StepState::Done && !tick.sheet.is_empty())
                    .map(|tick| tick.sheet.clone()),
                step,
                state,
                still: None,
            })
            .collect();
        Self {
            steps,
            next,
            progress,
            gone,
            minutes_left,
        }
    }

    /// Returns the same with how everything lies after each of its steps.
    #[must_use]
    pub fn seen(mut self, stills: Vec<Still>) -> Self {
        for (view, still) in self.steps.iter_mut().zip(stills) {
            view.still = Some(still);
        }
        self
    }
}
