//! The unpacking guide as PDF: a page of A4 that goes with the parcel.

use serde::{Deserialize, Serialize};
use serde_json::Value;

/// What is printed: the words of it come from the core, and the template sets them.
#[derive(Debug, Serialize, Deserialize)]
pub(crate) struct Document {
    /// Whose it is.
    studio: String,
    /// The guide.
    guide: Value,
}

const TEMPLATE: &str = include_str!("unpacking.typ");

/// Returns the document.
///
/// # Errors
/// A sentence, where it can't be set.
pub(crate) fn made(document: &Document) -> Result<Vec<u8>, String> {
    let data = serde_json::to_vec(document).map_err(|error| error.to_string())?;
    crate::pdf::set(TEMPLATE, data)
}
