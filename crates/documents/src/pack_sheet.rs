//! The pack sheet as PDF: one page of A4 or a few.

use serde::{Deserialize, Serialize};
use serde_json::Value;

/// What is printed: the words of it come from the core, and the template sets them.
#[derive(Debug, Serialize, Deserialize)]
pub(crate) struct Document {
    /// Whose it is.
    studio: String,
    /// The sheet.
    sheet: Value,
    /// A picture of the code that leads back, as SVG; nothing where there is none.
    code: Option<String>,
}

const TEMPLATE: &str = include_str!("pack_sheet.typ");

/// Returns the document.
///
/// # Errors
/// A sentence, where it can't be set.
pub(crate) fn made(document: &Document) -> Result<Vec<u8>, String> {
    let data = serde_json::to_vec(document).map_err(|error| error.to_string())?;
    crate::pdf::set(TEMPLATE, data)
}
