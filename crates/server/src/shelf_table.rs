//! The shelf as a table of comma-separated values, and back.

use std::collections::BTreeMap;

use hummock_core::{
    Refusal, Refusals, json,
    material::Catalogue,
    stock::{Goods, Measure, StockItem},
};
use serde_json::{Map, Value};

/// The columns, in their order.
const COLUMNS: [&str; 15] = [
    "kind",
    "material",
    "name",
    "place",
    "left",
    "width_mm",
    "height_mm",
    "thickness_mm",
    "length_mm",
    "depth_mm",
    "board",
    "condition",
    "markings",
    "origin",
    "carrier",
];
/// Columns with a number in them.
const NUMBERS: [&str; 5] = [
    "width_mm",
    "height_mm",
    "thickness_mm",
    "length_mm",
    "depth_mm",
];
const MOST_LINES: usize = 2000;
const MOST_REFUSALS: usize = 20;

/// Returns the shelf as a table with a head; rolls in metres, fill in kilograms.
pub(crate) fn write_shelf(items: &[StockItem]) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(COLUMNS).expect("memory takes it");
    for item in items {
        let mut row = serde_json::to_value(item).expect("stock can be written");
        row["left"] = shown(item.left, item.goods.measure()).into();
        let cells = COLUMNS.map(|column| match &row[column] {
            Value::Null => String::new(),
            Value::String(text) => not_a_formula(text),
            other => other.to_string(),
        });
        writer.write_record(cells).expect("memory takes it");
    }
    let bytes = writer.into_inner().expect("memory takes it");
    String::from_utf8(bytes).expect("what was written is text")
}

/// A text that a spreadsheet would take for a formula begins with an apostrophe.
pub(crate) fn not_a_formula(text: &str) -> String {
    if text.starts_with(['=', '+', '-', '@', '\t', '\r']) {
        return format!("'{text}");
    }
    text.to_owned()
}

#[allow(
    clippy::cast_precision_loss,
    reason = "a shelf holds less than a thousand kilometres"
)]
fn shown(left: i64, measure: Measure) -> f64 {
    match measure {
        Measure::Pieces => left as f64,
        Measure::Mm | Measure::G => left as f64 / 1000.0,
    }
}

/// Returns what a table puts on the shelf.
///
/// # Errors
/// A [`Refusal`] for each line that can't be, with its column; none is taken then.
pub(crate) fn read_shelf(
    text: &str,
    catalogue: &Catalogue,
) -> Result<Vec<StockItem>, Vec<Refusal>> {
    let refuse = |says: String| vec![Refusal::new("csv", says)];
    let text = text.trim_start_matches('\u{feff}').replace("\r\n", "\n");
    let mut reader = csv::ReaderBuilder::new()
        .trim(csv::Trim::All)
        .delimiter(crate::table::separator_of(&text))
        .from_reader(text.as_bytes());
    let head = reader
        .headers()
        .map_err(|error| refuse(error.to_string()))?
        .clone();
    for needed in ["kind", "left"] {
        if !head.iter().any(|column| column == needed) {
            return Err(refuse(format!(
                "the first line must name the columns, {needed} among them: begin with the table that is given out"
            )));
        }
    }
    if let Some(strange) = head.iter().find(|column| !COLUMNS.contains(column)) {
        let shown: String = strange.chars().take(40).collect();
        let says = format!("there is no such column: there are {}", COLUMNS.join(", "));
        return Err(vec![Refusal::new(format!("csv, column \"{shown}\""), says)]);
    }
    let mut items = Vec::new();
    let mut refusals = Refusals::default();
    let mut keys: BTreeMap<String, u64> = BTreeMap::new();
    for record in reader.records() {
        let record = record.map_err(|error| refuse(error.to_string()))?;
        let line = record.position().map_or(0, csv::Position::line);
        let cells: BTreeMap<&str, &str> = head
            .iter()
            .zip(&record)
            .filter(|(_, text)| !text.is_empty())
            .collect();
        let at = |refusal: Refusal| {
            Refusal::new(format!("line {line}, {}", refusal.field), refusal.message)
        };
        match item_of(&cells).and_then(|item| item.checked(catalogue).map(|()| item)) {
            Ok(item) => {
                if let Some(key) = item.goods.key()
                    && let Some(before) = keys.insert(key, line)
                {
                    let says =
                        format!("it is counted on line {before} already: leave one of them out");
                    refusals.push(at(Refusal::new("kind", says)));
                }
                items.push(item);
            }
            Err(refused) => refusals.extend(refused.into_iter().map(at)),
        }
        if items.len() > MOST_LINES {
            return Err(refuse(format!(
                "there are over {MOST_LINES} lines: split the table"
            )));
        }
        if refusals.len() >= MOST_REFUSALS {
            break;
        }
    }
    refusals.done()?;
    if items.is_empty() {
        return Err(refuse("there is no line under the head".into()));
    }
    Ok(items)
}

fn item_of(cells: &BTreeMap<&str, &str>) -> Result<StockItem, Vec<Refusal>> {
    let mut row = Map::new();
    let mut refusals = Refusals::default();
    let mut number = |column: &str, text: &str| {
        let read = text.parse::<f64>().ok().filter(|number| number.is_finite());
        if read.is_none() {
            let says = format!("\u{201c}{text}\u{201d} is no number: write it as 12.5");
            refusals.refuse(column, says);
        }
        read
    };
    for (column, text) in cells {
        if *column == "left" {
            continue;
        }
        let value = if NUMBERS.contains(column) {
            number(column, text).map(Value::from)
        } else {
            let text = text.strip_prefix('\'').unwrap_or(text);
            Some(Value::from(text))
        };
        row.extend(value.map(|value| ((*column).to_owned(), value)));
    }
    let left = cells.get("left").and_then(|text| number("left", text));
    if !cells.contains_key("left") {
        refusals.refuse("left", "it is missing: say how much there is");
    }
    refusals.done()?;
    let text = |column: &str| {
        cells
            .get(column)
            .map_or("", |text| text.strip_prefix('\'').unwrap_or(text))
            .to_owned()
    };
    let goods: Goods = json::read(Value::Object(row.clone()))
        .map_err(|misfit| vec![crate::body::refusal_for(&misfit)])?;
    let left = left.unwrap_or_default();
    let times = match goods.measure() {
        Measure::Pieces if left.fract() != 0.0 => {
            return Err(vec![Refusal::new("left", "count whole pieces")]);
        }
        Measure::Pieces => 1.0,
        Measure::Mm | Measure::G => 1000.0,
    };
    #[allow(
        clippy::cast_possible_truncation,
        reason = "it saturates, and is checked then"
    )]
    let left = (left * times).round() as i64;
    Ok(StockItem {
        id: String::new(),
        goods,
        name: text("name"),
        place: text("place"),
        left,
    })
}
