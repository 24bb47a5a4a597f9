//! The shelf as a table of comma-separated values, and back.

use std::collections::BTreeMap;

use hummock_core::{
    Refusal, Refusals, json,
    material::{Catalogue, KeptCase, MaterialId},
    quantity::Length,
    stock::{Goods, Measure, PileCarton, SheetGoods, StockItem},
};
use serde::Serialize;
use serde_json::{Map, Value, json};

use crate::csv_rows::{not_a_formula, table_of, word};

/// The columns, in their order.
const COLUMNS: [&str; 25] = [
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
    "opens",
    "lining_mm",
    "outside_length_mm",
    "outside_width_mm",
    "outside_depth_mm",
    "empty_g",
    "lid_screws",
    "treated",
    "journey_cost",
    "journey_minutes",
];
/// Columns with a number in them.
const NUMBERS: [&str; 11] = [
    "width_mm",
    "height_mm",
    "thickness_mm",
    "length_mm",
    "depth_mm",
    "lining_mm",
    "outside_length_mm",
    "outside_width_mm",
    "outside_depth_mm",
    "empty_g",
    "journey_minutes",
];
/// Columns with a whole number, and with yes or no.
const COUNTED: &str = "lid_screws";
const YES_OR_NO: &str = "treated";
const MOST_LINES: usize = 2000;
const MOST_REFUSALS: usize = 20;

/// A line of the table: its fields are the columns.
#[derive(Default, Serialize)]
struct ShelfCells {
    kind: String,
    material: String,
    name: String,
    place: String,
    left: String,
    width_mm: String,
    height_mm: String,
    thickness_mm: String,
    length_mm: String,
    depth_mm: String,
    board: String,
    condition: String,
    markings: String,
    origin: String,
    carrier: String,
    opens: String,
    lining_mm: String,
    outside_length_mm: String,
    outside_width_mm: String,
    outside_depth_mm: String,
    empty_g: String,
    lid_screws: String,
    treated: String,
    journey_cost: String,
    journey_minutes: String,
}

impl From<&StockItem> for ShelfCells {
    fn from(item: &StockItem) -> Self {
        // Which shelf it lies on is the place; its id is this studio's alone.
        let StockItem {
            id: _,
            goods,
            name,
            place,
            left,
        } = item;
        let mm = |length: Length| json!(length).to_string();
        let of = |kind: &str, material: &MaterialId| Self {
            kind: kind.to_owned(),
            material: material.to_string(),
            ..Self::default()
        };
        let sheet = |kind: &str, sheet: &SheetGoods| {
            let SheetGoods {
                material,
                width,
                height,
                thickness,
            } = sheet;
            Self {
                width_mm: mm(*width),
                height_mm: mm(*height),
                thickness_mm: thickness.map(mm).unwrap_or_default(),
                ..of(kind, material)
            }
        };
        let cells = match goods {
            Goods::Sheet(goods) => sheet("sheet", goods),
            Goods::Offcut(goods) => sheet("offcut", goods),
            Goods::Roll { material } => of("roll", material),
            Goods::Thing { material } => of("thing", material),
            Goods::Loose { material } => of("loose", material),
            Goods::Carton(carton) => {
                let PileCarton {
                    length,
                    width,
                    depth,
                    board,
                    condition,
                    markings,
                    origin,
                    carrier,
                    opens,
                } = carton;
                Self {
                    kind: "carton".to_owned(),
                    length_mm: mm(*length),
                    width_mm: mm(*width),
                    depth_mm: mm(*depth),
                    board: board.to_string(),
                    condition: word(condition),
                    markings: word(markings),
                    origin: word(origin),
                    carrier: not_a_formula(carrier),
                    opens: word(opens),
                    ..Self::default()
                }
            }
            Goods::Case(case) => {
                let KeptCase {
                    length,
                    width,
                    depth,
                    lining,
                    outside_length,
                    outside_width,
                    outside_depth,
                    board,
                    empty,
                    lid_screws,
                    treated,
                    journey_cost,
                    journey_minutes,
                } = case;
                Self {
                    kind: "case".to_owned(),
                    length_mm: mm(*length),
                    width_mm: mm(*width),
                    depth_mm: mm(*depth),
                    lining_mm: mm(*lining),
                    outside_length_mm: mm(*outside_length),
                    outside_width_mm: mm(*outside_width),
                    outside_depth_mm: mm(*outside_depth),
                    board: board.to_string(),
                    empty_g: json!(empty).to_string(),
                    lid_screws: lid_screws.to_string(),
                    treated: if *treated { "yes" } else { "no" }.to_owned(),
                    journey_cost: journey_cost.to_string(),
                    journey_minutes: json!(journey_minutes).to_string(),
                    ..Self::default()
                }
            }
        };
        Self {
            name: not_a_formula(name),
            place: not_a_formula(place),
            left: Value::from(shown(*left, goods.measure())).to_string(),
            ..cells
        }
    }
}

/// Returns the shelf as a table with a head; rolls in metres, fill in kilograms.
pub(crate) fn write_shelf(items: &[StockItem]) -> String {
    let bytes = table_of(items.iter().map(ShelfCells::from));
    String::from_utf8(bytes).expect("what was written is text")
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
                "the header row must name the columns, including {needed}: start from the exported table"
            )));
        }
    }
    if let Some(strange) = head.iter().find(|column| !COLUMNS.contains(column)) {
        let shown: String = strange.chars().take(40).collect();
        let says = format!("unknown column: use {}", COLUMNS.join(", "));
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
                    let says = format!("already counted on line {before}: remove one of them");
                    refusals.push(at(Refusal::new("kind", says)));
                }
                items.push(item);
            }
            Err(refused) => refusals.extend(refused.into_iter().map(at)),
        }
        if items.len() > MOST_LINES {
            return Err(refuse(format!(
                "more than {MOST_LINES} lines: split the table"
            )));
        }
        if refusals.len() >= MOST_REFUSALS {
            break;
        }
    }
    refusals.done()?;
    if items.is_empty() {
        return Err(refuse("no rows below the header".into()));
    }
    Ok(items)
}

fn item_of(cells: &BTreeMap<&str, &str>) -> Result<StockItem, Vec<Refusal>> {
    let mut row = Map::new();
    let mut refusals = Refusals::default();
    let mut number = |column: &str, text: &str| {
        let read = text.parse::<f64>().ok().filter(|number| number.is_finite());
        if read.is_none() {
            let says = format!("\u{201c}{text}\u{201d} is not a number: write it as 12.5");
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
        } else if *column == COUNTED {
            // What is no whole number is told by its field.
            let count = text.parse::<u32>().map(Value::from);
            Some(count.unwrap_or_else(|_| Value::from(*text)))
        } else if *column == YES_OR_NO {
            Some(Value::from(text.eq_ignore_ascii_case("yes")))
        } else {
            let text = text.strip_prefix('\'').unwrap_or(text);
            Some(Value::from(text))
        };
        row.extend(value.map(|value| ((*column).to_owned(), value)));
    }
    let left = cells.get("left").and_then(|text| number("left", text));
    if !cells.contains_key("left") {
        refusals.refuse("left", "amount missing");
    }
    refusals.done()?;
    let text = |column: &str| {
        cells
            .get(column)
            .map_or("", |text| text.strip_prefix('\'').unwrap_or(text))
            .to_owned()
    };
    let goods: Goods =
        json::read(Value::Object(row)).map_err(|misfit| vec![crate::body::refusal_for(&misfit)])?;
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
