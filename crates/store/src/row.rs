//! Reading rows: a word that this program does not know is an error, and never taken for something else.

use std::str::FromStr;

use hummock_core::shipment::ShipmentInputs;
use serde_json::Value;
use sqlx::{
    Decode, FromRow, Postgres, Row as _, Type,
    error::BoxDynError,
    postgres::{PgRow, PgTypeInfo, PgValueRef},
};
use uuid::Uuid;

/// A shipment that left: its inputs as they are stored, and the parcel as it was handed over.
pub(crate) struct HandedRow<H> {
    id: Uuid,
    schema: i32,
    inputs: Value,
    handed: H,
}

impl<'r, H: Decode<'r, Postgres> + Type<Postgres>> FromRow<'r, PgRow> for HandedRow<H> {
    fn from_row(row: &'r PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            id: row.try_get("id")?,
            schema: row.try_get("schema")?,
            inputs: row.try_get("inputs")?,
            handed: row.try_get("handed")?,
        })
    }
}

impl<H> HandedRow<H> {
    /// Returns its id, its inputs brought up to date, and its parcel.
    pub(crate) fn read(self) -> (Uuid, ShipmentInputs, H) {
        let inputs = ShipmentInputs::from_stored(self.schema.unsigned_abs(), self.inputs);
        (self.id, inputs, self.handed)
    }
}

/// A word or a day that stands in a column as text.
pub(crate) struct Word<T>(pub T);

impl<T> Type<Postgres> for Word<T> {
    fn type_info() -> PgTypeInfo {
        <str as Type<Postgres>>::type_info()
    }

    fn compatible(of: &PgTypeInfo) -> bool {
        <str as Type<Postgres>>::compatible(of)
    }
}

impl<'r, T: FromStr> Decode<'r, Postgres> for Word<T> {
    fn decode(value: PgValueRef<'r>) -> Result<Self, BoxDynError> {
        let word = <&str as Decode<'r, Postgres>>::decode(value)?;
        let read = word.parse().map(Self);
        read.map_err(|_| format!("this program knows no \"{word}\" there").into())
    }
}
