//! The description of the API as it is handed out: `docs/openapi.json`, which `bin/describe-api` writes.

use serde_json::{Value, json};

/// The description of the API, as `bin/describe-api` wrote it.
pub(crate) const DESCRIPTION: &str = include_str!("../../../docs/openapi.json");

/// Returns the description of the API.
pub(crate) fn description() -> Value {
    serde_json::from_str(DESCRIPTION).expect("it was written as JSON")
}

/// Returns the schema of a tariff, by itself.
pub(crate) fn tariff_schema() -> Value {
    const HERE: &str = "#/components/schemas/";
    let mut schemas = description()["components"]["schemas"].take();
    let mut wanted = vec!["Tariff".to_owned()];
    let mut defs = serde_json::Map::new();
    while let Some(name) = wanted.pop() {
        if defs.contains_key(&name) {
            continue;
        }
        let schema = schemas[&name].take();
        let text = schema.to_string();
        let named = text.split(HERE).skip(1);
        wanted.extend(named.filter_map(|rest| Some(rest.split('"').next()?.to_owned())));
        defs.insert(name, schema);
    }
    let whole = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "/api/schemas/tariff.json",
        "title": "A carrier's tariff",
        "$ref": format!("{HERE}Tariff"),
        "$defs": defs,
    });
    let text = whole.to_string().replace(HERE, "#/$defs/");
    serde_json::from_str(&text).expect("it was JSON before")
}
