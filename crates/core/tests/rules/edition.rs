//! The edition of what is worked out goes with its shape.

use std::collections::BTreeMap;

use hummock_core::shipment::{EDITION, EDITIONS, Summary, Workings};
use serde_json::{Value, json};
use sha2::{Digest as _, Sha256};
use utoipa::ToSchema;

/// Leaves out what only explains: words, examples and numbers of a range are no part of a shape.
fn without_words(value: Value) -> Value {
    match value {
        Value::Object(fields) => {
            let kept = fields.into_iter().filter(|(name, value)| {
                !matches!(name.as_str(), "description" | "example" | "examples")
                    || value.is_object()
            });
            kept.map(|(name, value)| (name, without_words(value)))
                .collect()
        }
        Value::Array(list) => list.into_iter().map(without_words).collect(),
        other => other,
    }
}

/// As text, the fields of every object in the order of their names, in whichever order a build keeps them.
fn in_order(value: &Value) -> String {
    match value {
        Value::Object(fields) => {
            let sorted: BTreeMap<&String, String> = fields
                .iter()
                .map(|(name, value)| (name, in_order(value)))
                .collect();
            format!("{sorted:?}")
        }
        Value::Array(list) => format!("{:?}", list.iter().map(in_order).collect::<Vec<_>>()),
        other => other.to_string(),
    }
}

fn shape_of<T: ToSchema>() -> Value {
    let mut parts = Vec::new();
    T::schemas(&mut parts);
    let written = |schema| serde_json::to_value(schema).expect("a schema can be written");
    let mut parts: Vec<(String, Value)> = parts
        .into_iter()
        .map(|(name, schema)| (name, without_words(written(schema))))
        .collect();
    parts.sort_by(|one, other| one.0.cmp(&other.0));
    parts.dedup();
    json!([without_words(written(T::schema())), parts])
}

#[test]
fn a_new_shape_is_a_new_edition() {
    let shape = json!([shape_of::<Workings>(), shape_of::<Summary>()]);
    let digest = Sha256::digest(in_order(&shape));
    let print: String = digest
        .iter()
        .take(8)
        .map(|byte| format!("{byte:02x}"))
        .collect();
    let mut lines = EDITIONS.lines().rev();
    let last = lines.next().expect("a line");
    assert_eq!(
        last,
        format!("{EDITION} {print}"),
        "what is worked out has another shape: add a line to editions.txt, counted up by one, with this print"
    );
    let before = lines.next().and_then(|line| line.split_once(' '));
    // The print may be that of the line before, where figures changed and their shape did not.
    if let Some((number, _)) = before {
        assert_eq!(number.parse(), Ok(EDITION - 1), "editions count up by one");
    }
}
