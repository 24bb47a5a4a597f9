//! A packing list, played by hands that take every word for what it says.
//!
//! [`rehearse`] goes through the acts of a list in their order and keeps account of what there is: what was cut, what was taken and used,
//! which tape was laid, which boxes are ready, loaded and closed, and what can still be reached. It answers with the first thing that hands
//! could not do. It shares no code with what makes the lists but the acts themselves, so that a fault of the one is found by the other.

mod boxes;
mod cast;
mod fills;
mod loads;
mod nouns;
mod paper;
mod play;
mod points;
mod room;
mod section;
mod spans;
mod strips;
mod times;
mod within;

use serde::Serialize;

use crate::{
    act::Still,
    pack::{PackStep, Stage},
    piece::Piece,
};

/// What a rehearsal looks at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// What is named was cut or taken before, and what was cut or taken is used once.
    Nouns,
    /// A box is made ready, loaded, closed and sealed, in that order.
    Boxes,
    /// Nothing is done behind what covers it, or where no hand gets to.
    Reach,
    /// Every strip that is torn is laid once, and none is laid that is not torn.
    Strips,
    /// A strip grips on both sides of what it goes over.
    Spans,
    /// A screw holds in the last thing that it enters, and does not come out of it.
    Points,
    /// Nothing heavy is lifted over a high wall.
    Loads,
    /// Loose fill lies only in a box, in a gap that it can fill.
    Fills,
    /// What is glued is left alone until it holds.
    Times,
    /// Nothing touches a face that doesn't bear it.
    Faces,
    /// Whatever is moved or turned is held, with all that lies on it.
    Held,
    /// What holds something with one hand does nothing that takes two.
    Hands,
    /// Nothing has room to move in a closed box.
    Room,
    /// What is printed can be done without a screen.
    Paper,
}

impl Rule {
    /// Every rule, in the order in which they are looked at.
    pub const ALL: [Self; 14] = [
        Self::Nouns,
        Self::Boxes,
        Self::Reach,
        Self::Strips,
        Self::Spans,
        Self::Points,
        Self::Loads,
        Self::Fills,
        Self::Times,
        Self::Faces,
        Self::Held,
        Self::Hands,
        Self::Room,
        Self::Paper,
    ];

    /// Returns its name in lists.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Nouns => "nouns",
            Self::Boxes => "boxes",
            Self::Reach => "reach",
            Self::Strips => "strips",
            Self::Spans => "spans",
            Self::Points => "points",
            Self::Loads => "loads",
            Self::Fills => "fills",
            Self::Times => "times",
            Self::Faces => "faces",
            Self::Held => "held",
            Self::Hands => "hands",
            Self::Room => "room",
            Self::Paper => "paper",
        }
    }
}

/// What hands could not do.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, thiserror::Error)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[error("{}: {says}", rule.key())]
pub struct Broken {
    /// The rule that breaks.
    pub rule: Rule,
    /// The key of the step in which it breaks.
    pub step: String,
    /// The key of the thing that it breaks on.
    pub thing: String,
    /// Why, in a sentence.
    pub says: String,
}

impl Broken {
    fn at(rule: Rule, step: &PackStep, thing: &str, says: impl Into<String>) -> Self {
        Self {
            rule,
            step: step.key.clone(),
            thing: thing.to_owned(),
            says: says.into(),
        }
    }
}

/// Tells whether a step cuts parts for others, and lays nothing itself.
fn cuts(step: &PackStep) -> bool {
    step.stage == Stage::Cut
}

/// What a rehearsal comes to.
#[derive(Debug, Clone, PartialEq)]
pub struct Rehearsal {
    /// Everything that hands could not do, by the step in which it breaks.
    pub breaks: Vec<Broken>,
    /// How everything lies after each step, one for each.
    pub stills: Vec<Still>,
}

impl Rehearsal {
    /// Plays a list. `pieces` are those of the plan, in their order.
    #[must_use]
    pub fn of(steps: &[PackStep], pieces: &[&Piece]) -> Self {
        let (broken, stills) = play::play(steps, pieces);
        let mut breaks = [
            nouns::look(steps).into_iter().collect(),
            boxes::look(steps).into_iter().collect(),
            boxes::reach(steps).into_iter().collect(),
            within::look(steps),
            strips::look(steps).into_iter().collect(),
            spans::look(steps),
            points::look(steps).into_iter().collect(),
            loads::look(steps),
            fills::look(steps),
            times::look(steps),
            broken,
            room::look(steps),
            paper::look(steps),
        ]
        .concat();
        let place = |broken: &Broken| steps.iter().position(|step| step.key == broken.step);
        breaks.sort_by_key(|broken| (place(broken), broken.rule));
        Self { breaks, stills }
    }
}

/// Plays a list to its end.
///
/// # Errors
/// What hands could not do: of all that breaks, what breaks at the earliest step.
pub fn rehearse(steps: &[PackStep], pieces: &[&Piece]) -> Result<(), Broken> {
    let rehearsed = Rehearsal::of(steps, pieces);
    rehearsed.breaks.into_iter().next().map_or(Ok(()), Err)
}
