//! JSON into types, and where it does not fit them.
//!
//! What reads a type is compiled for every kind of deserialiser that it meets, and the large types of the job meet half a dozen. So
//! they are read through one that is chosen at run time: here for documents, and by [`read_in_one_place!`] for everybody else.

use serde::{Deserialize, de::DeserializeOwned};
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
    read_from(document)
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
