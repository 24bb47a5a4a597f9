//! The description of the API, made from its handlers and types. What is served is `docs/openapi.json`, which
//! `bin/describe-api` writes with this and a test holds to it.

use serde_json::{Value, json};
use utoipa::{OpenApi as _, openapi::OpenApi as Description};

use crate::{api, documents, log, plans, shipments};

#[derive(utoipa::OpenApi)]
#[openapi(
    info(
        title = "Hummock",
        description = "Packing and shipping flat art: measure, layers, box, weight and price. Lengths are in \
                       millimetres and masses in grams, as the names of the fields say; money is a decimal text. \
                       Lengths that people type are texts with their unit, as `35 1/2 in`. Errors are problem \
                       documents (RFC 9457) with the field of each value that was refused.",
        license(name = "MIT OR Apache-2.0"),
    ),
    components(schemas(plans::PreviewPart, shipments::SortName, shipments::PlaceName, shipments::RowPart, documents::PaperName, documents::DrawnOf, log::LogSortName, log::OutcomeName)),
    tags(
        (name = "tariffs", description = "What carriers take, as data"),
        (name = "weighings", description = "The scale on the bench, and what its readings say about the stores"),
        (name = "shipments", description = "What is on the bench"),
        (name = "plans", description = "Working out a plan without storing it"),
        (name = "sums", description = "One formula each, in plain numbers, unrounded; for scripts and for a scrap of paper"),
        (name = "stores", description = "The catalogue by class, and cushion curves"),
        (name = "shelf", description = "What is on the shelf and on the pile, what a shipment takes of it, and what fits"),
        (name = "cuttings", description = "Parts of one shipment or of several, laid out on what is on the shelf"),
        (name = "documents", description = "Drawings at true scale and cut lists, as PDF, SVG, DXF and CSV"),
        (name = "leaving", description = "The parcel leaves: addresses, booking, papers and the day; and what comes of it"),
        (name = "log", description = "Every parcel that left, and what many of them say about the plans"),
        (name = "photographs", description = "Photographs of a shipment, each at its step; the same file under the same id is kept once"),
        (name = "measures", description = "Reading what a tape measure said"),
        (name = "devices", description = "Tablets of the local network: letting them in, listing them, signing them out"),
        (name = "studio", description = "The studio, its rules and its shelf"),
    ),
)]
struct Api;

/// Returns the description of the API.
#[must_use]
pub fn description() -> Value {
    let mut document = told_whole(&api::all_routes().description("/api/v1", Api::openapi()));
    in_words_of_json(&mut document);
    document
}

/// Comments in the code call a value that is missing `None`; in JSON it is `null`.
fn in_words_of_json(value: &mut Value) {
    match value {
        Value::String(text) => {
            if text.contains("`None`") {
                *text = text.replace("`None`", "`null`");
            }
        }
        Value::Array(list) => list.iter_mut().for_each(in_words_of_json),
        Value::Object(fields) => fields.values_mut().for_each(in_words_of_json),
        Value::Null | Value::Bool(_) | Value::Number(_) => {}
    }
}

/// What any request may be answered with, whatever it asks for.
const ANY_TIME: [(&str, &str); 10] = [
    ("400", "The request can't be read"),
    ("401", "A device of the local network is not signed in"),
    ("403", "A page of another origin asked for a change"),
    ("404", "There is none of that name"),
    ("413", "The body is over 256 KB"),
    ("415", "The body is not JSON"),
    ("422", "Values that were refused, each with its field"),
    ("421", "The server does not answer under that name"),
    ("503", "The database is away; ask again"),
    ("504", "It took too long and was given up"),
];

/// Adds what holds for every operation: that a problem is a document of its own kind, and what any request may be
/// answered with.
fn told_whole(description: &Description) -> Value {
    let mut document = serde_json::to_value(description).expect("it can be written");
    let problem = json!({ "application/problem+json": { "schema": { "$ref": "#/components/schemas/Problem" } } });
    let paths = document["paths"].as_object_mut().into_iter().flatten();
    let operations = paths.flat_map(|(path, methods)| {
        let methods = methods.as_object_mut().into_iter().flatten();
        methods.map(move |(_, operation)| (path.contains('{'), operation))
    });
    for (names_one, operation) in operations {
        let has_body = operation["requestBody"].is_object();
        let has_parameters = operation["parameters"].is_array();
        let Some(responses) = operation["responses"].as_object_mut() else {
            continue;
        };
        for (status, says) in ANY_TIME {
            let may_be = match status {
                "404" => names_one,
                "413" | "415" => has_body,
                "422" => has_body || has_parameters,
                _ => true,
            };
            if may_be {
                responses
                    .entry(status)
                    .or_insert_with(|| json!({ "description": says }));
            }
        }
        for (status, response) in responses {
            if status.starts_with(['4', '5']) {
                response["content"] = problem.clone();
            }
        }
    }
    let schemas = document["components"]["schemas"].as_object_mut();
    for schema in schemas.into_iter().flat_map(|schemas| schemas.values_mut()) {
        let fields = schema.get_mut("properties").and_then(Value::as_object_mut);
        for field in fields.into_iter().flat_map(|fields| fields.values_mut()) {
            give_range(field);
        }
    }
    document
}

/// Puts the range that the words about a number begin with into its schema, so that programs know it too.
fn give_range(field: &mut Value) {
    let is_number = |kind: &Value| kind == "number" || kind == "integer";
    let kind = &field["type"];
    let numeric = is_number(kind)
        || kind
            .as_array()
            .is_some_and(|kinds| kinds.iter().any(is_number));
    let said = field["description"].as_str().and_then(range_in);
    if let Some((least, most)) = said.filter(|_| numeric) {
        field["minimum"] = json!(least);
        field["maximum"] = json!(most);
    }
}

/// Reads "1 to 10 000", wherever in a sentence that stands first.
fn range_in(says: &str) -> Option<(f64, f64)> {
    let (before, after) = says.split_once(" to ")?;
    let is_part = |letter: char| letter.is_ascii_digit() || matches!(letter, '.' | ' ' | '\u{a0}');
    let start = before.rfind(|letter| !is_part(letter)).map_or(0, |at| {
        at + before[at..].chars().next().map_or(0, char::len_utf8)
    });
    let end = after.find(|letter| !is_part(letter)).unwrap_or(after.len());
    let number = |digits: &str| {
        let plain: String = digits
            .trim_end_matches(['.', ' '])
            .chars()
            .filter(|letter| !letter.is_whitespace())
            .collect();
        plain.parse().ok()
    };
    Some((number(&before[start..])?, number(&after[..end])?))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_range_is_read_from_the_words() {
        for (says, range) in [
            ("1 to 10 000.", Some((1.0, 10_000.0))),
            (
                "Of all boards together, 0.001 to 100 000; 100 when left out.",
                Some((0.001, 100_000.0)),
            ),
            ("0 to 1.", Some((0.0, 1.0))),
            ("Working days to the door.", None),
            ("From art to box, in all.", None),
        ] {
            assert_eq!(range_in(says), range, "{says}");
        }
    }
}
