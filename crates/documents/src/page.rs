//! What papers are printed on.

use serde::{Deserialize, Serialize};

/// What a studio prints on, as the templates read it.
#[derive(Debug, Clone, Copy, Default, Serialize, Deserialize)]
pub(crate) struct Page {
    /// Sheets.
    #[serde(default)]
    paper: Sheet,
    /// Labels.
    #[serde(default)]
    label: Label,
    /// Whether a bar to check the printer by is four inches long, and not 100 mm.
    #[serde(default)]
    inches: bool,
}

#[derive(Debug, Clone, Copy, Default, Serialize, Deserialize)]
#[serde(rename_all = "lowercase")]
enum Sheet {
    #[default]
    A4,
    Letter,
}

#[derive(Debug, Clone, Copy, Default, Serialize, Deserialize)]
enum Label {
    /// 100 × 150 mm.
    #[default]
    #[serde(rename = "100x150")]
    Metric,
    /// 4 × 6 in.
    #[serde(rename = "4x6")]
    Inches,
}

/// What the templates read it from.
const FILE: &str = "page.json";

impl Page {
    /// Returns the file that every template reads.
    ///
    /// # Errors
    /// A sentence, where it can't be written.
    pub(crate) fn file(self) -> Result<(String, Vec<u8>), String> {
        let written = serde_json::to_vec(&self).map_err(|error| error.to_string())?;
        Ok((FILE.to_owned(), written))
    }
}
