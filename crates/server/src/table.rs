//! Materials as a table of comma-separated values, and back.
//!
//! A part of a part stands in a column of its own, as `curve.start_kpa`; a list of words is parted by
//! semicolons, and a list of sheets is written as JSON.

use std::{
    collections::{BTreeMap, BTreeSet},
    sync::LazyLock,
};

use hummock_core::{Refusal, Refusals, material::MaterialClass, quantity::AmbiguousComma};
use serde_json::{Map, Value};

use crate::description::description;

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

/// Returns each line of a table of a class as a material, with its number.
///
/// # Errors
/// A [`Refusal`] for a table without a head, without an id column, with a column that the class does not have or that
/// stands there twice, with uneven lines or over 500 of them.
pub(crate) fn read_table(
    class: MaterialClass,
    text: &str,
) -> Result<Vec<(u64, Value)>, Vec<Refusal>> {
    let refuse = |says: String| vec![Refusal::new("csv", says)];
    let text = text.trim_start_matches('\u{feff}').replace("\r\n", "\n");
    let separator = separator_of(&text);
    let mut reader = csv::ReaderBuilder::new()
        .trim(csv::Trim::All)
        .delimiter(separator)
        .from_reader(text.as_bytes());
    let head = reader
        .headers()
        .map_err(|error| refuse(error.to_string()))?
        .clone();
    if !head.iter().any(|column| column == "id") {
        return Err(refuse(
            "the header row must name the columns, including id: start from the exported table"
                .into(),
        ));
    }
    columns_fit(class, &head)?;
    let mut materials = Vec::new();
    for record in reader.records() {
        let record = record.map_err(|error| refuse(error.to_string()))?;
        let line = record.position().map_or(0, csv::Position::line);
        let mut material = Value::Object(Map::new());
        // An empty cell says nothing, but an empty list is a list.
        let told = |(column, text): &(&str, &str)| !text.is_empty() || LISTS.contains(column);
        for (column, text) in head.iter().zip(&record).filter(told) {
            put(&mut material, column, value(column, text, separator));
        }
        materials.push((line, material));
        if materials.len() > MOST_LINES {
            return Err(refuse(format!(
                "more than {MOST_LINES} lines: split the table"
            )));
        }
    }
    if materials.is_empty() {
        return Err(refuse("no rows below the header".into()));
    }
    Ok(materials)
}

/// Tells what parts the cells: whichever of comma, semicolon and tab parts the head most often.
pub(crate) fn separator_of(text: &str) -> u8 {
    let head = text.lines().next().unwrap_or_default();
    let times = |separator: &u8| head.bytes().filter(|byte| byte == separator).count();
    // Of two that are as frequent the comma is meant, which comes last.
    [b'\t', b';', b',']
        .into_iter()
        .max_by_key(times)
        .unwrap_or(b',')
}

fn columns_fit(class: MaterialClass, head: &csv::StringRecord) -> Result<(), Vec<Refusal>> {
    let known = columns_of(class);
    let mut seen = BTreeSet::new();
    let mut refusals = Refusals::default();
    for column in head {
        let says = if !known.contains(column) {
            let columns: Vec<&str> = known.iter().map(String::as_str).collect();
            format!(
                "unknown column: {} have {}",
                class.key().replace('_', " "),
                columns.join(", ")
            )
        } else if !seen.insert(column) {
            "this column appears twice: remove one".to_owned()
        } else {
            continue;
        };
        let shown: String = column.chars().take(LONGEST_SHOWN).collect();
        refusals.refuse(format!("csv, column \"{shown}\""), says);
        if refusals.len() == MOST_REFUSALS {
            break;
        }
    }
    refusals.or(())
}

/// How much of a wrong column's name is said back, and of so many.
const LONGEST_SHOWN: usize = 40;
const MOST_REFUSALS: usize = 20;

/// Returns the columns that a class has: the fields of its materials, as the API describes them.
fn columns_of(class: MaterialClass) -> &'static BTreeSet<String> {
    static COLUMNS: LazyLock<BTreeMap<String, BTreeSet<String>>> = LazyLock::new(|| {
        let description = description();
        let schemas = &description["components"]["schemas"];
        MaterialClass::ALL
            .into_iter()
            .map(|class| {
                let mut columns = BTreeSet::new();
                let shelf = &schemas["Catalogue"]["properties"][class.key()]["items"];
                add_columns(schemas, shelf, "", &mut columns);
                (class.key().to_owned(), columns)
            })
            .collect()
    });
    &COLUMNS[class.key()]
}

/// Adds the columns of a schema: each of its fields, and those of the parts that it has.
fn add_columns(schemas: &Value, schema: &Value, path: &str, columns: &mut BTreeSet<String>) {
    if let Some(name) = schema["$ref"].as_str() {
        let name = name.rsplit('/').next().unwrap_or(name);
        return add_columns(schemas, &schemas[name], path, columns);
    }
    let parts = ["oneOf", "allOf", "anyOf"]
        .into_iter()
        .filter_map(|key| schema[key].as_array())
        .flatten();
    let has_fields = schema["properties"].is_object();
    let mut plain = !has_fields;
    for part in parts {
        // One that may be absent is one of nothing and of what it is.
        if part["type"] != "null" {
            add_columns(schemas, part, path, columns);
            plain = false;
        }
    }
    for (key, field) in schema["properties"].as_object().into_iter().flatten() {
        let path = if path.is_empty() {
            key.clone()
        } else {
            format!("{path}.{key}")
        };
        add_columns(schemas, field, &path, columns);
    }
    if plain && !path.is_empty() {
        columns.insert(path.to_owned());
    }
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
        Value::String(text) => no_formula(text),
        Value::Array(parts) if parts.iter().all(Value::is_string) => parts
            .iter()
            .filter_map(Value::as_str)
            .collect::<Vec<_>>()
            .join(";"),
        other => other.to_string(),
    }
}

/// What a spreadsheet takes for the start of a formula.
const FORMULA: [char; 4] = ['=', '+', '-', '@'];
/// What keeps it from doing so.
const QUOTE: char = '\'';

/// Writes a text so that no spreadsheet takes it for a formula; [`as_it_was`] undoes it.
fn no_formula(text: &str) -> String {
    let quoted = text.strip_prefix(QUOTE);
    let mistaken = text.starts_with(FORMULA) || quoted.is_some_and(would_be_unquoted);
    if mistaken {
        format!("{QUOTE}{text}")
    } else {
        text.to_owned()
    }
}

fn as_it_was(text: &str) -> &str {
    text.strip_prefix(QUOTE)
        .filter(|rest| would_be_unquoted(rest))
        .unwrap_or(text)
}

fn would_be_unquoted(rest: &str) -> bool {
    rest.starts_with(FORMULA) || rest.starts_with(QUOTE)
}

/// Columns that hold a list of words.
const LISTS: [&str; 4] = ["may_touch", "touch_with_reason", "holds_on", "harms"];
/// Columns whose text is never a number, whatever it looks like.
const TEXTS: [&str; 5] = ["id", "name", "shelf.supplier", "shelf.substitute", "use"];

fn value(column: &str, text: &str, separator: u8) -> Value {
    if LISTS.contains(&column) {
        let words = text
            .split(';')
            .map(str::trim)
            .filter(|word| !word.is_empty());
        return words.map(Value::from).collect::<Vec<_>>().into();
    }
    let last = column.rsplit('.').next().unwrap_or(column);
    if TEXTS.contains(&column) {
        return as_it_was(text).into();
    }
    // Where commas part no cells they mark decimals, unless they could mark thousands.
    let decimal = separator != b',' && AmbiguousComma::in_number(text).is_none();
    let pointed = text.replacen(',', ".", 1);
    let number = if decimal && pointed.parse::<f64>().is_ok() {
        &pointed
    } else {
        text
    };
    if last.starts_with("price") {
        return number.into();
    }
    serde_json::from_str(number).unwrap_or_else(|_| as_it_was(text).into())
}

/// Puts a value at a path, whose parts are those of a known column and so a few at most.
fn put(material: &mut Value, path: &str, value: Value) {
    let mut at = material;
    let (inside, field) = path.rsplit_once('.').unwrap_or(("", path));
    for key in inside.split('.').filter(|key| !key.is_empty()) {
        let Value::Object(fields) = at else { return };
        at = fields
            .entry(key)
            .or_insert_with(|| Value::Object(Map::new()));
    }
    if let Value::Object(fields) = at {
        fields.insert(field.to_owned(), value);
    }
}

#[cfg(test)]
mod tests {
    use hummock_core::material::Catalogue;
    use proptest::prelude::*;
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
            let lines = read_table(class, &table).expect("a table");
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
            ("name,mass_g\nTag,4", "including id"),
            ("id,name", "no rows below the header"),
            ("id,name\na,b,c", "found record with 3 fields"),
            ("id,name,colour\na,b,red", "unknown column"),
            ("id,name,id\na,b,c", "appears twice"),
        ] {
            let refused = read_table(MaterialClass::Tapes, text).expect_err(text);
            assert!(refused[0].message.contains(says), "{}", refused[0].message);
        }
    }

    #[test]
    fn a_column_of_thousands_of_dots_is_a_column_that_there_is_not() {
        let text = format!("id,name,{}x\na,b,1", "x.".repeat(100_000));
        let refused = read_table(MaterialClass::Tapes, &text).expect_err("it is refused");
        assert!(refused[0].message.contains("unknown column"));
        assert!(refused[0].field.len() < 100, "{}", refused[0].field);
    }

    #[test]
    fn every_column_that_is_given_out_is_known() {
        let catalogue: Catalogue =
            serde_json::from_str(include_str!("../../../demo/catalogue.json"))
                .expect("a catalogue");
        for class in MaterialClass::ALL {
            let table = write_table(&catalogue.class(class));
            let head = table.lines().next().expect("a head");
            for column in head.split(',') {
                assert!(
                    columns_of(class).contains(column),
                    "{}: {column}",
                    class.key()
                );
            }
        }
        assert!(columns_of(MaterialClass::Boards).contains("shelf.lead_days"));
        assert!(!columns_of(MaterialClass::Boards).contains("shelf"));
    }

    #[test]
    fn comma_semicolon_and_tab_are_told_apart() {
        let wanted = json!({
            "id": "tag", "name": "Tag; grey, small", "linear_density_g_m": 1.5, "price_per_m": "0.25"
        });
        for text in [
            "id,name,linear_density_g_m,price_per_m\ntag,\"Tag; grey, small\",1.5,0.25",
            "\u{feff}id;name;linear_density_g_m;price_per_m\r\ntag;\"Tag; grey, small\";1,5;0,25\r\n",
            "id\tname\tlinear_density_g_m\tprice_per_m\ntag\tTag; grey, small\t1.5\t0.25",
        ] {
            let read = read_table(MaterialClass::Tapes, text).expect(text);
            assert_eq!(read, [(2, wanted.clone())], "{text}");
        }
    }

    proptest! {
        #[test]
        fn a_name_comes_back_as_it_was_and_is_never_a_formula(
            lead in "[=+@'-]{0,3}", rest in "[a-z0-9=+@'\"; ,-]{0,12}[a-z]",
        ) {
            let name = format!("{lead}{rest}").trim().to_owned();
            let table = write_table(&[json!({ "id": "tag", "name": name })]);
            // As a spreadsheet reads it.
            let mut reader = csv::Reader::from_reader(table.as_bytes());
            let line = reader.records().next().expect("a line").expect("a record");
            prop_assert!(!line[1].starts_with(FORMULA), "{}", &line[1]);
            let read = read_table(MaterialClass::Tapes, &table).expect("a table");
            prop_assert_eq!(read[0].1["name"].as_str(), Some(name.as_str()));
        }
    }
}
