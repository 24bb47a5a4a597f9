//! A value that was not taken, and why.

use std::ops::RangeInclusive;

use serde::{Deserialize, Serialize};

/// One value that was refused: where it stands in the input, and a sentence for the person who typed it.
///
/// Several can be reported at once, so that a form is put right in one go.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, thiserror::Error)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[error("{field}: {message}")]
pub struct Refusal {
    /// The path of the value, as `piece.width`.
    #[cfg_attr(feature = "schema", schema(example = "piece.width"))]
    pub field: String,
    /// What was given, what is allowed and what to do.
    pub message: String,
}

impl Refusal {
    /// Makes it from the path of a value and what to say about it.
    #[must_use]
    pub fn new(field: impl Into<String>, message: impl ToString) -> Self {
        Self {
            field: field.into(),
            message: message.to_string(),
        }
    }
}

/// What a number may be, with its unit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Span {
    pub least: f64,
    pub most: f64,
    pub unit: &'static str,
}

impl Span {
    pub(crate) const fn new(least: f64, most: f64, unit: &'static str) -> Self {
        Self { least, most, unit }
    }
}

/// Every refusal of one input, collected with the path of its value: a form is put right in one go.
#[derive(Debug, Default)]
pub struct Refusals(Vec<Refusal>);

impl Refusals {
    /// Notes a refusal of the value at a path.
    pub fn refuse(&mut self, at: impl Into<String>, says: impl ToString) {
        self.0.push(Refusal::new(at, says));
    }

    /// Notes a refusal that was made elsewhere.
    pub fn push(&mut self, refusal: Refusal) {
        self.0.push(refusal);
    }

    /// Notes a refusal unless something holds.
    pub fn demand(&mut self, holds: bool, at: impl Into<String>, says: impl ToString) -> &mut Self {
        if !holds {
            self.refuse(at, says);
        }
        self
    }

    /// Notes a refusal of a number that lies outside its span.
    pub(crate) fn number(&mut self, at: impl Into<String>, is: f64, span: Span) -> &mut Self {
        let Span { least, most, unit } = span;
        if !(least..=most).contains(&is) {
            let gap = if unit.is_empty() { "" } else { "\u{a0}" };
            self.refuse(
                at,
                format!("{is} is out of range: give a number from {least} to {most}{gap}{unit}"),
            );
        }
        self
    }

    /// Notes the same of a number that may be left out.
    pub(crate) fn if_given(
        &mut self,
        at: impl Into<String>,
        is: Option<f64>,
        span: Span,
    ) -> &mut Self {
        if let Some(is) = is {
            self.number(at, is, span);
        }
        self
    }

    /// Notes a refusal of a name that is empty or longer than so many letters.
    pub(crate) fn named(&mut self, at: impl Into<String>, name: &str, most: usize) -> &mut Self {
        let letters: RangeInclusive<usize> = 1..=most;
        let holds = letters.contains(&name.trim().chars().count());
        self.demand(holds, at, format!("give a name of 1 to {most} letters"))
    }

    /// Returns each refusal so far.
    pub fn iter(&self) -> impl Iterator<Item = &Refusal> {
        self.0.iter()
    }

    /// Keeps the refusals for which something holds.
    pub fn retain(&mut self, holds: impl FnMut(&Refusal) -> bool) {
        self.0.retain(holds);
    }

    /// Returns how many there are.
    #[must_use]
    pub const fn len(&self) -> usize {
        self.0.len()
    }

    /// Leaves out all after so many.
    pub fn truncate(&mut self, most: usize) {
        self.0.truncate(most);
    }

    /// Tells whether nothing was refused so far.
    #[must_use]
    pub const fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    /// Returns a value that nothing in its input was refused of, or every refusal.
    ///
    /// # Errors
    /// The refusals, in the order in which they were noted.
    pub fn or<T>(self, value: T) -> Result<T, Vec<Refusal>> {
        if self.0.is_empty() {
            Ok(value)
        } else {
            Err(self.0)
        }
    }

    /// Returns the refusals that were collected so far, if there are any, and begins anew.
    ///
    /// # Errors
    /// The refusals, in the order in which they were noted.
    pub fn done(&mut self) -> Result<(), Vec<Refusal>> {
        std::mem::take(self).or(())
    }
}

impl Extend<Refusal> for Refusals {
    fn extend<I: IntoIterator<Item = Refusal>>(&mut self, refusals: I) {
        self.0.extend(refusals);
    }
}

impl IntoIterator for Refusals {
    type Item = Refusal;
    type IntoIter = std::vec::IntoIter<Refusal>;

    fn into_iter(self) -> Self::IntoIter {
        self.0.into_iter()
    }
}

impl From<Refusals> for Vec<Refusal> {
    fn from(refusals: Refusals) -> Self {
        refusals.0
    }
}

impl From<Vec<Refusal>> for Refusals {
    fn from(refusals: Vec<Refusal>) -> Self {
        Self(refusals)
    }
}

impl FromIterator<Refusal> for Refusals {
    fn from_iter<I: IntoIterator<Item = Refusal>>(refusals: I) -> Self {
        Self(refusals.into_iter().collect())
    }
}
