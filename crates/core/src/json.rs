//! JSON into types, and where it does not fit them.
//!
//! What reads a type is compiled for every kind of deserialiser that it meets, and the large types of the job meet half a dozen. So
//! they are read through one that is chosen at run time: here for documents, and by [`read_in_one_place!`] for everybody else.

use serde::{
    Deserialize,
    de::{
        self, DeserializeOwned, IntoDeserializer, Unexpected, Visitor,
        value::{MapAccessDeserializer, MapDeserializer, SeqDeserializer},
    },
    forward_to_deserialize_any,
};
use serde_json::Value;
use serde_path_to_error::{Deserializer, Path, Track};

/// Where a document does not fit a type, and why.
#[derive(Debug)]
pub struct Misfit {
    /// The way to the value, from the outside inward.
    pub path: Path,
    /// Why it does not fit.
    pub says: String,
}

/// Reads a document into a type.
///
/// # Errors
/// A [`Misfit`] for the first value that does not fit.
pub fn read<T: DeserializeOwned>(document: Value) -> Result<T, Misfit> {
    read_from(Document(document))
}

/// A document whose structs are objects: the reader of JSON would take a list for one, its first value for the first field.
struct Document(Value);

impl<'de> IntoDeserializer<'de, serde_json::Error> for Document {
    type Deserializer = Self;

    fn into_deserializer(self) -> Self {
        self
    }
}

type Fields = MapDeserializer<'static, std::vec::IntoIter<(String, Document)>, serde_json::Error>;

fn fields(of: serde_json::Map<String, Value>) -> Fields {
    let fields: Vec<_> = of
        .into_iter()
        .map(|(key, value)| (key, Document(value)))
        .collect();
    MapDeserializer::new(fields.into_iter())
}

impl<'de> de::Deserializer<'de> for Document {
    type Error = serde_json::Error;

    fn deserialize_any<V: Visitor<'de>>(self, visitor: V) -> Result<V::Value, Self::Error> {
        match self.0 {
            Value::Array(values) => {
                let mut values = SeqDeserializer::new(values.into_iter().map(Document));
                let read = visitor.visit_seq(&mut values)?;
                values.end()?;
                Ok(read)
            }
            Value::Object(of) => {
                let mut fields = fields(of);
                let read = visitor.visit_map(&mut fields)?;
                fields.end()?;
                Ok(read)
            }
            plain => plain.deserialize_any(visitor),
        }
    }

    fn deserialize_struct<V: Visitor<'de>>(
        self,
        name: &'static str,
        names: &'static [&'static str],
        visitor: V,
    ) -> Result<V::Value, Self::Error> {
        match self.0 {
            Value::Array(_) => Err(de::Error::invalid_type(Unexpected::Seq, &visitor)),
            Value::Object(_) => self.deserialize_any(visitor),
            plain => plain.deserialize_struct(name, names, visitor),
        }
    }

    fn deserialize_map<V: Visitor<'de>>(self, visitor: V) -> Result<V::Value, Self::Error> {
        match self.0 {
            Value::Object(_) => self.deserialize_any(visitor),
            plain => plain.deserialize_map(visitor),
        }
    }

    fn deserialize_seq<V: Visitor<'de>>(self, visitor: V) -> Result<V::Value, Self::Error> {
        match self.0 {
            Value::Array(_) => self.deserialize_any(visitor),
            plain => plain.deserialize_seq(visitor),
        }
    }

    fn deserialize_option<V: Visitor<'de>>(self, visitor: V) -> Result<V::Value, Self::Error> {
        match self.0 {
            Value::Null => visitor.visit_none(),
            _ => visitor.visit_some(self),
        }
    }

    fn deserialize_newtype_struct<V: Visitor<'de>>(
        self,
        _: &'static str,
        visitor: V,
    ) -> Result<V::Value, Self::Error> {
        visitor.visit_newtype_struct(self)
    }

    fn deserialize_enum<V: Visitor<'de>>(
        self,
        name: &'static str,
        variants: &'static [&'static str],
        visitor: V,
    ) -> Result<V::Value, Self::Error> {
        match self.0 {
            Value::Object(of) if of.len() == 1 => {
                visitor.visit_enum(MapAccessDeserializer::new(fields(of)))
            }
            plain => plain.deserialize_enum(name, variants, visitor),
        }
    }

    forward_to_deserialize_any! {
        bool i8 i16 i32 i64 i128 u8 u16 u32 u64 u128 f32 f64 char str string bytes byte_buf unit unit_struct tuple tuple_struct
        identifier ignored_any
    }
}

/// Reads a type from what has another shape than a document, such as the query of an address.
///
/// # Errors
/// A [`Misfit`] for the first value that does not fit.
pub fn read_from<'de, T: Deserialize<'de>>(
    from: impl serde::Deserializer<'de>,
) -> Result<T, Misfit> {
    let mut track = Track::new();
    let tracked = Deserializer::new(from, &mut track);
    let read = erased_serde::deserialize(&mut <dyn erased_serde::Deserializer<'_>>::erase(tracked));
    read.map_err(|error| Misfit {
        path: track.path(),
        says: error.to_string(),
    })
}

/// Implements `Serialize` and `Deserialize` for a type that derives both with `#[serde(remote = "Self")]`, so that all
/// readers of that type share one compiled function.
macro_rules! read_in_one_place {
    ($type:ident) => {
        impl serde::Serialize for $type {
            fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
                Self::serialize(self, serializer)
            }
        }

        impl<'de> serde::Deserialize<'de> for $type {
            fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
                fn read(
                    from: &mut dyn erased_serde::Deserializer<'_>,
                ) -> Result<$type, erased_serde::Error> {
                    $type::deserialize(from)
                }
                read(&mut <dyn erased_serde::Deserializer<'_>>::erase(
                    deserializer,
                ))
                .map_err(serde::de::Error::custom)
            }
        }
    };
}
pub(crate) use read_in_one_place;

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;
    use crate::shipment::ShipmentInputs;

    #[test]
    fn a_list_is_no_object_however_deep_it_stands() {
        for (document, path) in [
            (json!([]), "."),
            (json!({ "piece": [] }), "piece"),
            (json!({ "piece": ["900 mm"] }), "piece"),
            (json!({ "sending": [] }), "sending"),
            (json!({ "others": [[]] }), "others"),
        ] {
            let misfit = read::<ShipmentInputs>(document).expect_err("it does not fit");
            assert_eq!(misfit.path.to_string(), path);
            assert!(
                misfit.says.starts_with("invalid type: sequence"),
                "{}",
                misfit.says
            );
        }
        // Nothing is no object, and no list.
        assert!(read::<serde_json::Map<String, Value>>(json!(null)).is_err());
        assert!(read::<Vec<String>>(json!(null)).is_err());
        // What is a list stays one.
        assert_eq!(
            read::<(u8, String)>(json!([1, "a"])).ok(),
            Some((1, "a".to_owned()))
        );
        assert_eq!(
            read::<Vec<Option<i64>>>(json!([1, null])).ok(),
            Some(vec![Some(1), None])
        );
    }

    /// The words are those of the reader of JSON itself, and the place is found inside what is read in one place.
    #[test]
    fn a_misfit_says_where_and_why() {
        for (document, path, says) in [
            (
                json!({ "piece": { "count": -4 } }),
                "piece.count",
                "invalid value: integer `-4`, expected u32",
            ),
            (
                json!({ "buyer": { "pigeon": 1 } }),
                "buyer.pigeon",
                "unknown field `pigeon`",
            ),
            (
                json!({ "title": null }),
                "title",
                "invalid type: null, expected a string",
            ),
            (
                json!(7),
                ".",
                "invalid type: integer `7`, expected struct ShipmentInputs",
            ),
        ] {
            let misfit = read::<ShipmentInputs>(document.clone()).expect_err("it does not fit");
            let plainly: Result<ShipmentInputs, _> = serde_json::from_value(document);
            let plainly = plainly.expect_err("nor does it plainly").to_string();
            assert_eq!(misfit.path.to_string(), path);
            assert!(misfit.says.starts_with(says), "{}", misfit.says);
            assert_eq!(misfit.says, plainly);
        }
    }
}
