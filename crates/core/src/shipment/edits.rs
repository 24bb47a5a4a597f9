//! Two edits of one shipment that know nothing of each other: whether both can stand.

use serde_json::{Map, Value};

/// Where a value stands in inputs, from the outside inward.
pub(super) type Path = Vec<String>;

/// Returns where two documents differ: values, and lists as a whole.
#[must_use]
pub fn changed_paths(before: &Value, after: &Value) -> Vec<Path> {
    let mut paths = Vec::new();
    differing(before, after, &mut Vec::new(), &mut paths);
    paths
}

fn differing(before: &Value, after: &Value, at: &mut Path, paths: &mut Vec<Path>) {
    match (before, after) {
        (Value::Object(before), Value::Object(after)) => {
            let added = after.keys().filter(|key| !before.contains_key(*key));
            for key in before.keys().chain(added) {
                let part = |of: &Map<String, Value>| of.get(key).cloned().unwrap_or(Value::Null);
                at.push(key.clone());
                differing(&part(before), &part(after), at, paths);
                at.pop();
            }
        }
        // What is taken away whole is each of its values taken away.
        (Value::Object(fields), other) | (other, Value::Object(fields)) if other.is_null() => {
            for (key, value) in fields {
                at.push(key.clone());
                differing(value, &Value::Null, at, paths);
                at.pop();
            }
        }
        (before, after) if before == after => {}
        _ => paths.push(at.clone()),
    }
}

/// Takes out of a merge patch what stands there already, and returns the paths at which it would write over a value that somebody
/// else wrote meanwhile. A step that both ticked alike is ticked.
#[must_use]
pub fn clashing(now: &Value, change: &mut Map<String, Value>, since: &[Path]) -> Vec<Path> {
    let mut clashes = Vec::new();
    lay(now, change, since, &mut Vec::new(), &mut clashes);
    clashes
}

fn lay(
    now: &Value,
    change: &mut Map<String, Value>,
    since: &[Path],
    at: &mut Path,
    clashes: &mut Vec<Path>,
) {
    change.retain(|key, value| {
        at.push(key.clone());
        let stands = now.get(key).unwrap_or(&Value::Null);
        let keeps = match value {
            Value::Object(inner) if is_same_tick(at, stands, inner) => false,
            Value::Object(inner) => {
                let was_empty = inner.is_empty();
                lay(stands, inner, since, at, clashes);
                was_empty || !inner.is_empty()
            }
            value if *value == *stands => false,
            _ => {
                // A value within what is written over as a whole, or around it, is the same field.
                let touches = |path: &&Path| path.starts_with(at) || at.starts_with(path);
                if since.iter().any(|path| touches(&path)) {
                    clashes.push(at.clone());
                }
                true
            }
        };
        at.pop();
        keeps
    });
}

/// Whether a step is ticked alike by both, whichever was first.
fn is_same_tick(at: &Path, stands: &Value, ticked: &Map<String, Value>) -> bool {
    let is_tick = at.len() == 2 && at[0] == "packed";
    is_tick
        && stands
            .get("print")
            .is_some_and(|print| Some(print) == ticked.get("print"))
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use serde_json::json;

    use super::*;

    fn path(text: &str) -> Path {
        text.split('.').map(str::to_owned).collect()
    }

    #[test]
    fn documents_differ_value_by_value() {
        let paths = |before: Value, after: Value| changed_paths(&before, &after);
        assert_eq!(
            paths(
                json!({ "title": "A", "piece": { "width": "1 mm", "height": "2 mm" }, "list": [1] }),
                json!({ "title": "B", "piece": { "width": "1 mm", "depth": "3 mm" }, "list": [1, 2] })
            ),
            ["title", "piece.height", "piece.depth", "list"].map(path)
        );
        assert_eq!(
            paths(
                json!({}),
                json!({ "packed": { "a": { "at": "1", "print": "2" } } })
            ),
            ["packed.a.at", "packed.a.print"].map(path)
        );
        assert!(paths(json!({ "a": null }), json!({})).is_empty());
    }

    #[test]
    fn an_edit_clashes_only_where_one_field_has_two_values() {
        let now = json!({ "title": "B", "piece": { "width": "1 mm" }, "packed": { "a": { "at": "1", "print": "p" } } });
        for (change, since, clashes, left) in [
            (
                json!({ "value": "12" }),
                vec!["title"],
                vec![],
                json!({ "value": "12" }),
            ),
            (
                json!({ "title": "C" }),
                vec!["title"],
                vec!["title"],
                json!({ "title": "C" }),
            ),
            // Both wrote the same.
            (json!({ "title": "B" }), vec!["title"], vec![], json!({})),
            (
                json!({ "piece": { "height": "2 mm" } }),
                vec!["piece.width"],
                vec![],
                json!({ "piece": { "height": "2 mm" } }),
            ),
            // It is taken away whole, with what was written within.
            (
                json!({ "piece": null }),
                vec!["piece.width"],
                vec!["piece"],
                json!({ "piece": null }),
            ),
            (
                json!({ "packed": { "a": { "at": "9", "print": "p" } } }),
                vec!["packed.a.at"],
                vec![],
                json!({}),
            ),
            (
                json!({ "packed": { "b": { "at": "9", "print": "q" } } }),
                vec!["packed.a.at"],
                vec![],
                json!({ "packed": { "b": { "at": "9", "print": "q" } } }),
            ),
            // One ticked the step, the other took the tick back.
            (
                json!({ "packed": { "a": null } }),
                vec!["packed.a.at"],
                vec!["packed.a"],
                json!({ "packed": { "a": null } }),
            ),
        ] {
            let mut done = change.as_object().cloned().expect("a patch");
            let since: Vec<Path> = since.into_iter().map(path).collect();
            let found = clashing(&now, &mut done, &since);
            assert_eq!(
                found,
                clashes.into_iter().map(path).collect::<Vec<_>>(),
                "{change}"
            );
            assert_eq!(Value::Object(done), left, "{change}");
        }
    }

    fn any_inputs() -> impl Strategy<Value = Value> {
        let text = || proptest::option::of("[ab]");
        (text(), text(), text(), text()).prop_map(|(title, width, height, tick)| {
            let piece: Map<String, Value> = [("width", width), ("height", height)]
                .into_iter()
                .filter_map(|(key, text)| Some((key.to_owned(), text?.into())))
                .collect();
            let mut inputs = json!({ "piece": piece });
            if let Some(title) = title {
                inputs["title"] = title.into();
            }
            if let Some(tick) = tick {
                inputs["packed"] = json!({ "step": { "at": tick, "print": tick } });
            }
            inputs
        })
    }

    /// The merge patch that makes one of the other.
    fn patch(from: &Value, to: &Value) -> Map<String, Value> {
        let mut patch = Map::new();
        for path in changed_paths(from, to) {
            let value = path.iter().try_fold(to, |part, key| part.get(key)).cloned();
            let mut at = &mut patch;
            let (last, before) = path.split_last().expect("a path");
            for key in before {
                let inner = at.entry(key.clone()).or_insert_with(|| json!({}));
                at = inner.as_object_mut().expect("an object");
            }
            at.insert(last.clone(), value.unwrap_or(Value::Null));
        }
        patch
    }

    proptest! {
        /// Two edits of one state that do not clash come to the same in either order, and each of their values stands.
        #[test]
        fn edits_that_do_not_clash_both_stand(base in any_inputs(), one in any_inputs(), other in any_inputs()) {
            let laid = |first: &Value, second: &Value| {
                let mut change = patch(&base, second);
                let clashes = clashing(first, &mut change, &changed_paths(&base, first));
                let mut all = first.clone();
                json_patch::merge(&mut all, &Value::Object(change));
                (clashes.is_empty(), all)
            };
            let (is_free, both) = laid(&one, &other);
            let (is_free_otherwise, otherwise) = laid(&other, &one);
            prop_assert_eq!(is_free, is_free_otherwise);
            if is_free {
                for path in changed_paths(&both, &otherwise) {
                    prop_assert!(path.starts_with(&["packed".to_owned()]), "{both} and {otherwise}");
                }
                for side in [&one, &other] {
                    for path in changed_paths(&base, side) {
                        let at = |of: &Value| path.iter().try_fold(of, |part, key| part.get(key)).cloned();
                        prop_assert!(at(&both) == at(side), "{path:?} of {side} in {both}");
                    }
                }
            }
        }
    }
}
