//! Reading rows: a word that this program does not know is an error, and never taken for something else.

use std::str::FromStr;

use hummock_core::shipment::ShipmentInputs;
use serde_json::value::RawValue;
use sqlx::{
    Decode, FromRow, Postgres, Row as _, Type,
    error::BoxDynError,
    postgres::{PgRow, PgTypeInfo, PgValueRef},
    types::Json,
};
use uuid::Uuid;

/// A shipment that left: its inputs as they are stored, and the parcel as it was handed over.
pub(crate) struct HandedRow<H> {
    id: Uuid,
    inputs: ShipmentInputs,
    handed: H,
}

impl<'r, H: Decode<'r, Postgres> + Type<Postgres>> FromRow<'r, PgRow> for HandedRow<H> {
    fn from_row(row: &'r PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            id: row.try_get("id")?,
            inputs: inputs_of(row)?,
            handed: row.try_get("handed")?,
        })
    }
}

impl<H> HandedRow<H> {
    /// Returns its id, its inputs brought up to date, and its parcel.
    pub(crate) fn read(self) -> (Uuid, ShipmentInputs, H) {
        (self.id, self.inputs, self.handed)
    }
}

/// Reads the inputs of a row, which names their schema beside them.
pub(crate) fn inputs_of(row: &PgRow) -> sqlx::Result<ShipmentInputs> {
    let schema: i32 = row.try_get("schema")?;
    let Json(inputs): Json<&RawValue> = row.try_get("inputs")?;
    Ok(ShipmentInputs::from_written(
        schema.unsigned_abs(),
        inputs.get(),
    ))
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
