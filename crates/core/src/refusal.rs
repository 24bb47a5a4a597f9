//! A value that was not taken, and why.

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
