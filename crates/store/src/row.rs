//! Reading words of a row: what this program does not know is an error, and never taken for something else.

use std::str::FromStr;

use sqlx::{
    Decode, Postgres, Type,
    error::BoxDynError,
    postgres::{PgTypeInfo, PgValueRef},
};

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
