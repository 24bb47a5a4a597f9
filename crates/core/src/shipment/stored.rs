//! Inputs as they were stored, by this edition of the program or an earlier one.

use serde_json::Value;
use serde_path_to_error::{Path, Segment};

use super::ShipmentInputs;
use crate::json;

/// Counts up when stored inputs take another shape.
pub const SCHEMA: u32 = 1;
/// How many values that no longer fit are left out of one document; it has no more than that.
const MOST_LEFT_OUT: usize = 256;

/// What brings inputs of a schema to the next one; the first is for schema 1.
const UPGRADES: [fn(&mut Value); SCHEMA as usize - 1] = [];

impl ShipmentInputs {
    /// Reads inputs as the text that was stored at a schema: at once where all of it fits, else as [`Self::from_stored`] does.
    #[must_use]
    pub fn from_written(schema: u32, document: &str) -> Self {
        // The reader of JSON takes a list for an object, by the places of its values; here that is a value that does not fit.
        if schema == SCHEMA
            && !document.contains('[')
            && let Ok(inputs) = serde_json::from_str(document)
        {
            return inputs;
        }
        Self::from_stored(schema, serde_json::from_str(document).unwrap_or_default())
    }

    /// Reads inputs that were stored at a schema, brought up to date. A value that does not fit any more, or whose
    /// field there is no longer, is left out, so that the rest can always be shown.
    #[must_use]
    pub fn from_stored(schema: u32, mut document: Value) -> Self {
        let done = usize::try_from(schema.saturating_sub(1)).unwrap_or(usize::MAX);
        for upgrade in UPGRADES.iter().skip(done) {
            upgrade(&mut document);
        }
        for _ in 0..MOST_LEFT_OUT {
            match json::read::<Self>(document.clone()) {
                Ok(inputs) => return inputs,
                Err(misfit) => {
                    if !leave_out(&mut document, &misfit.path) {
                        break;
                    }
                }
            }
        }
        Self::default()
    }
}

/// Takes the value at a path out of a document, with the whole list where it stands in one; tells whether there
/// was one to take out.
fn leave_out(document: &mut Value, path: &Path) -> bool {
    let mut keys: Vec<&str> = path
        .iter()
        .map_while(|segment| match segment {
            Segment::Map { key } => Some(key.as_str()),
            Segment::Enum { .. } | Segment::Seq { .. } | Segment::Unknown => None,
        })
        .collect();
    let Some(field) = keys.pop() else {
        return false;
    };
    let inside = keys
        .into_iter()
        .try_fold(document, |at, key| at.get_mut(key));
    inside
        .and_then(Value::as_object_mut)
        .is_some_and(|fields| fields.remove(field).is_some())
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use serde_json::json;

    use super::*;

    #[test]
    fn a_field_that_there_is_no_longer_and_a_value_that_does_not_fit_are_left_out() {
        let inputs = ShipmentInputs::from_stored(
            1,
            json!({
                "title": "Kelp Ladder", "mood": "blue",
                "buyer": { "name": "Ivo Tern", "pigeon": { "colour": 3 } },
                "piece": { "width": "900 mm", "medium": "treacle", "count": -4 },
            }),
        );
        assert_eq!(inputs.title, "Kelp Ladder");
        assert_eq!(inputs.buyer.name, "Ivo Tern");
        assert_eq!(inputs.piece.width.as_deref(), Some("900 mm"));
        assert_eq!((inputs.piece.medium, inputs.piece.count), (None, None));
    }

    #[test]
    fn what_is_no_document_at_all_is_an_empty_shipment() {
        for nothing in [json!(null), json!([1, 2]), json!("text"), json!(7)] {
            assert_eq!(
                ShipmentInputs::from_stored(1, nothing),
                ShipmentInputs::default()
            );
        }
    }

    fn any_value() -> impl Strategy<Value = Value> {
        let leaf = prop_oneof![
            Just(Value::Null),
            any::<bool>().prop_map(Value::from),
            any::<i32>().prop_map(Value::from),
            "[a-z]{0,6}".prop_map(Value::from),
        ];
        leaf.prop_recursive(3, 24, 4, |inner| {
            prop_oneof![
                prop::collection::vec(inner.clone(), 0..3).prop_map(Value::from),
                prop::collection::hash_map("[a-z_.]{1,8}", inner, 0..4)
                    .prop_map(|fields| Value::Object(fields.into_iter().collect())),
            ]
        })
    }

    proptest! {
        /// Kills a list that is read at once as an object, and a value that is lost with one that does not fit.
        #[test]
        fn a_text_is_read_as_the_document_that_it_holds(
            title in "[a-zA-Z \\[]{1,20}", width in any_value(), in_piece in any_value(), in_buyer in any_value(),
        ) {
            for piece in [json!({ "width": "900 mm" }), json!({ "width": width }), in_piece] {
                let document = json!({ "title": title, "piece": piece, "buyer": in_buyer });
                let read = ShipmentInputs::from_written(SCHEMA, &document.to_string());
                prop_assert_eq!(read, ShipmentInputs::from_stored(SCHEMA, document));
            }
        }

        #[test]
        fn whatever_else_stands_in_it_the_title_is_kept(
            title in "[a-zA-Z ]{1,20}", field in "[a-z]{1,8}x", value in any_value(), in_piece in any_value(),
        ) {
            let document = json!({ "title": title, (field): value, "piece": in_piece });
            prop_assert_eq!(ShipmentInputs::from_stored(1, document).title, title);
        }
    }
}
