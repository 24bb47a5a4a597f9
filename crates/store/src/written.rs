//! JSON as it was written: plan, quotes and figures go from their row to an answer without being read.

use std::sync::Arc;

use serde::{Deserialize, Serialize};
use serde_json::{Value, value::RawValue};
use sqlx::{Row as _, postgres::PgRow, types::Json};

/// A document as it was written.
#[derive(Debug, Clone, Serialize)]
#[serde(transparent)]
pub struct Written(Arc<RawValue>);

impl Written {
    /// Writes something.
    ///
    /// # Panics
    /// Never for what can be written as JSON.
    #[must_use]
    pub fn of(what: &impl Serialize) -> Self {
        let raw = serde_json::value::to_raw_value(what).expect("it can be written");
        Self(raw.into())
    }

    /// Reads all of it.
    #[must_use]
    pub fn read(&self) -> Value {
        serde_json::from_str(self.0.get()).unwrap_or_default()
    }

    /// Reads the parts of it that a type names; `None` if they are of another shape.
    #[must_use]
    pub fn parts<'a, T: Deserialize<'a>>(&'a self) -> Option<T> {
        serde_json::from_str(self.0.get()).ok()
    }

    pub(crate) fn from_row(row: &PgRow, column: &str) -> sqlx::Result<Option<Self>> {
        let raw: Option<Json<Box<RawValue>>> = row.try_get(column)?;
        Ok(raw.map(|Json(raw)| Self(raw.into())))
    }

    pub(crate) fn to_row(&self) -> Json<&RawValue> {
        Json(&self.0)
    }
}

impl PartialEq for Written {
    /// PostgreSQL writes the same otherwise than this program does.
    fn eq(&self, other: &Self) -> bool {
        self.read() == other.read()
    }
}
