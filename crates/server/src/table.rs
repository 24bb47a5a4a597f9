//! Materials as a table of comma-separated values, and back.
//!
//! A part of a part stands in a column of its own, as `curve.start_kpa`; a list of words is parted by
//! semicolons, and a list of sheets is written as JSON.

use std::collections::BTreeSet;

use hummock_core::Refusal;
use serde_json::{Map, Value};

/// Columns that come first, in this order.
const FIRST: [&str; 2] = ["id", "name"];
/// The most lines that are read.
const MOST_LINES: usize = 500;

/// Returns materials as a table with a head.
pub(crate) fn write_table(materials: &[Value]) -> String {
    let rows: Vec<Map<String, Value>> = materials
        .iter()
        .map(|material| {
            let mut row = Map::new();
            flatten(material, "", &mut row);
            row
        })
        .collect();
    let others: BTreeSet<&str> = rows
        .iter()
        .flat_map(|row| row.keys().map(String::as_str))
        .filter(|column| !FIRST.contains(column))
        .collect();
    let columns: Vec<&str> = FIRST.into_iter().chain(others).collect();
    let mut writer = csv::Writer::from_writer(Vec::new());
    let mut write = |record: Vec<String>| writer.write_record(record).expect("memory takes it");
    write(columns.iter().map(|&column| column.to_owned()).collect());
    for row in &rows {
        write(
            columns
                .iter()
                .map(|&column| row.get(column).map_or_else(String::new, cell))
                .collect(),
        );
    }
    let bytes = writer.into_inner().expect("memory takes it");
    String::from_utf8(bytes).expect("what was written is text")
}

/// Returns each line of a table as a material, with its number.
///
/// # Errors
/// A [`Refusal`] for a table without a head, without an id column, with uneven lines or over 500 of them.
pub(crate) fn read_table(text: &str) -> Result<Vec<(u64, Value)>, Vec<Refusal>> {
    let refuse = |says: String| vec![Refusal::new("csv", says)];
    let mut reader = csv::ReaderBuilder::new()
        .trim(csv::Trim::All)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let head = reader
        .headers()
        .map_err(|error| refuse(error.to_string()))?
        .clone();
    if !head.iter().any(|column| column == "id") {
        return Err(refuse(
            "the first line must name the columns, id among them: begin with the table that is given out".into(),
        ));
    }
    let mut materials = Vec::new();
    for record in reader.records() {
        let record = record.map_err(|error| refuse(error.to_string()))?;
        let line = record.position().map_or(0, csv::Position::line);
        let mut material = Value::Object(Map::new());
        // An empty cell says nothing, but an empty list is a list.
        let told = |(column, text): &(&str, &str)| !text.is_empty() || LISTS.contains(column);
        for (column, text) in head.iter().zip(&record).filter(told) {
            put(&mut material, column, value(column, text));
        }
        materials.push((line, material));
        if materials.len() > MOST_LINES {
            return Err(refuse(format!(
                "there are over {MOST_LINES} lines: part the table"
            )));
        }
    }
    if materials.is_empty() {
        return Err(refuse("there is no line under the head".into()));
    }
    Ok(materials)
}

fn flatten(value: &Value, path: &str, row: &mut Map<String, Value>) {
    match value {
        Value::Object(fields) => {
            for (key, part) in fields {
                let path = if path.is_empty() {
                    key.clone()
                } else {
                    format!("{path}.{key}")
                };
                flatten(part, &path, row);
            }
        }
        Value::Null => {}
        other => {
            row.insert(path.to_owned(), other.clone());
        }
    }
}

fn cell(value: &Value) -> String {
    match value {
        Value::String(text) => text.clone(),
        Value::Array(parts) if parts.iter().all(Value::is_string) => parts
            .iter()
            .filter_map(Value::as_str)
            .collect::<Vec<_>>()
            .join(";"),
        other => other.to_string(),
    }
}

/// Columns that hold a list of words.
const LISTS: [&str; 4] = ["may_touch", "touch_with_reason", "holds_on", "harms"];
/// Columns whose text is never a number, whatever it looks like.
const TEXTS: [&str; 5] = ["id", "name", "shelf.supplier", "shelf.substitute", "use"];

fn value(column: &str, text: &str) -> Value {
    if LISTS.contains(&column) {
        let words = text
            .split(';')
            .map(str::trim)
            .filter(|word| !word.is_empty());
        return words.map(Value::from).collect::<Vec<_>>().into();
    }
    let last = column.rsplit('.').next().unwrap_or(column);
    if TEXTS.contains(&column) || last.starts_with("price") {
        return text.into();
    }
    serde_json::from_str(text).unwrap_or_else(|_| text.into())
}

fn put(material: &mut Value, path: &str, value: Value) {
    let (key, rest) = path
        .split_once('.')
        .map_or((path, None), |(key, rest)| (key, Some(rest)));
    let Value::Object(fields) = material else {
        return;
    };
    match rest {
        None => {
            fields.insert(key.to_owned(), value);
        }
        Some(rest) => {
            let part = fields
                .entry(key)
                .or_insert_with(|| Value::Object(Map::new()));
            put(part, rest, value);
        }
    }
}

#[cfg(test)]
mod tests {
    use hummock_core::material::{Catalogue, MaterialClass};
    use serde_json::json;

    use super::*;

    #[test]
    fn every_class_comes_back_from_its_table_as_it_was() {
        let catalogue: Catalogue =
            serde_json::from_str(include_str!("../../../demo/catalogue.json"))
                .expect("a catalogue");
        for class in MaterialClass::ALL {
            let table = write_table(&catalogue.class(class));
            let mut read = catalogue.clone();
            let lines = read_table(&table).expect("a table");
            assert_eq!(lines.len(), catalogue.class(class).len());
            for (_, material) in lines {
                read = read.with(class, material).expect("it was there");
            }
            assert_eq!(read, catalogue, "{}", class.key());
        }
    }

    #[test]
    fn parts_and_lists_have_columns_of_their_own() {
        let table = write_table(&[json!({
            "id": "glassine", "name": "Glassine, 40 g", "may_touch": ["oil", "print"], "curve": { "start_kpa": 17.0 }
        })]);
        assert_eq!(
            table,
            "id,name,curve.start_kpa,may_touch\nglassine,\"Glassine, 40 g\",17.0,oil;print\n"
        );
    }

    #[test]
    fn what_is_not_a_table_is_refused_with_what_to_do() {
        for (text, says) in [
            ("", "must name the columns"),
            ("name,mass_g\nTag,4", "id among them"),
            ("id,name", "no line under the head"),
            ("id,name\na,b,c", "found record with 3 fields"),
        ] {
            let refused = read_table(text).expect_err(text);
            assert!(refused[0].message.contains(says), "{}", refused[0].message);
        }
    }
}
