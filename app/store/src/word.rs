//! A plain enum of the core in a text column: the core knows no database, so its words are told to SQLx here.

use serde::{Deserialize, Serialize};
use sqlx::encode::IsNull;
use sqlx::error::BoxDynError;
use sqlx::postgres::{PgArgumentBuffer, PgTypeInfo, PgValueRef};
use sqlx::{Decode, Encode, Postgres, Type};

/// A plain enum as the word serde writes for it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Word<T>(pub T);

impl<T> Type<Postgres> for Word<T> {
    fn type_info() -> PgTypeInfo {
        <&str as Type<Postgres>>::type_info()
    }

    fn compatible(ty: &PgTypeInfo) -> bool {
        <&str as Type<Postgres>>::compatible(ty)
    }
}

impl<T: Serialize> Encode<'_, Postgres> for Word<T> {
    fn encode_by_ref(&self, buf: &mut PgArgumentBuffer) -> Result<IsNull, BoxDynError> {
        match serde_json::to_value(&self.0)? {
            serde_json::Value::String(s) => <&str as Encode<Postgres>>::encode(&s, buf),
            other => Err(format!("{other} is not a word").into()),
        }
    }
}

impl<'r, T: for<'a> Deserialize<'a>> Decode<'r, Postgres> for Word<T> {
    fn decode(value: PgValueRef<'r>) -> Result<Self, BoxDynError> {
        let word = <&str as Decode<Postgres>>::decode(value)?;
        Ok(Self(serde_json::from_value(serde_json::Value::String(word.to_owned()))?))
    }
}
