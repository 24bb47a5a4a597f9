//! A packing list, played by hands that take every word for what it says.
//!
//! [`rehearse`] goes through the acts of a list in their order and keeps account of what there is: what was cut, what was taken and used,
//! which tape was laid, which boxes are ready, loaded and closed, and what can still be reached. It answers with the first thing that hands
//! could not do. It shares no code with what makes the lists but the acts themselves, so that a fault of the one is found by the other.

mod boxes;
mod nouns;
mod points;
mod strips;

use serde::Serialize;

use crate::pack::{PackStep, Stage};

/// What a rehearsal looks at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// Every strip that is torn is laid once, and none is laid that is not torn.
    Strips,
    /// A screw holds in the last thing that it enters, and does not come out of it.
    Points,
    /// Nothing is done behind what covers it.
    Reach,
    /// What is named was cut or taken before, and what was cut or taken is used once.
    Nouns,
    /// A box is made ready, loaded, closed and sealed, in that order.
    Boxes,
}

impl Rule {
    /// Every rule, in the order in which they are looked at.
    pub const ALL: [Self; 5] = [
        Self::Nouns,
        Self::Boxes,
        Self::Reach,
        Self::Strips,
        Self::Points,
    ];

    /// Returns its name in lists.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Strips => "strips",
            Self::Points => "points",
            Self::Reach => "reach",
            Self::Nouns => "nouns",
            Self::Boxes => "boxes",
        }
    }

    /// Looks at a whole list by this rule alone.
    fn look(self, steps: &[PackStep]) -> Option<Broken> {
        match self {
            Self::Strips => strips::look(steps),
            Self::Points => points::look(steps),
            Self::Reach => boxes::reach(steps),
            Self::Nouns => nouns::look(steps),
            Self::Boxes => boxes::look(steps),
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

/// Plays a list to its end.
///
/// # Errors
/// What hands could not do: of all rules that break, the one that breaks at the earliest step.
pub fn rehearse(steps: &[PackStep]) -> Result<(), Broken> {
    let place = |broken: &Broken| steps.iter().position(|step| step.key == broken.step);
    let broken = Rule::ALL.into_iter().filter_map(|rule| rule.look(steps));
    match broken.min_by_key(place) {
        Some(broken) => Err(broken),
        None => Ok(()),
    }
}
