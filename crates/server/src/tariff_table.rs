//! The prices of a tariff as a table of comma-separated values, and back.

use std::{collections::BTreeMap, str::FromStr};

use hummock_core::{
    Refusal, Refusals,
    freight::{Tariff, WeightStep, ZonePrice},
    quantity::Mass,
};
use rust_decimal::Decimal;

use serde::Serialize;

use crate::{
    csv_rows::{not_a_formula, shown, table_of},
    table::separator_of,
};

const COLUMNS: [&str; 6] = [
    "service",
    "format",
    "zone",
    "up_to_g",
    "price",
    "per_further_kg",
];
/// A line of the table: its fields are the columns.
#[derive(Default, Serialize)]
struct PriceCells {
    service: String,
    format: String,
    zone: String,
    up_to_g: String,
    price: String,
    per_further_kg: String,
}

const MOST_LINES: usize = 5000;
const MOST_REFUSALS: usize = 20;

/// Returns the prices of every service and format, a line for each step; the last of a zone has what a further kilogram costs.
pub(crate) fn prices_of(tariff: &Tariff) -> String {
    let mut lines = Vec::new();
    for service in &tariff.services {
        let own = std::iter::once(("", &service.prices));
        let formats = service
            .formats
            .iter()
            .map(|format| (format.name.as_str(), &format.prices));
        for (format, prices) in own.chain(formats) {
            for price in prices {
                for (at, step) in price.steps.iter().enumerate() {
                    let last = at + 1 == price.steps.len();
                    let further = price.per_further_kg.filter(|_| last);
                    lines.push(PriceCells {
                        service: service.id.clone(),
                        format: not_a_formula(format),
                        zone: not_a_formula(&price.zone),
                        up_to_g: step.up_to.as_g().to_string(),
                        price: step.price.to_string(),
                        per_further_kg: shown(further),
                    });
                }
            }
        }
    }
    String::from_utf8(table_of(lines)).expect("what was written is text")
}

/// Where a price stands: service, format (none for the table by weight) and zone.
type Group = (String, String, String);

/// One zone's prices while they are read.
#[derive(Default)]
struct Read {
    steps: Vec<(u64, WeightStep)>,
    further: Option<(u64, Decimal)>,
}

/// Returns a tariff with the prices of a table: those of each service, format and zone that it names are replaced.
///
/// # Errors
/// A [`Refusal`] for each cell that can't be read, or names what the tariff does not have, or whose price does not stand in
/// the tariff as a whole; with its line and column.
pub(crate) fn with_prices(tariff: &Tariff, text: &str) -> Result<Tariff, Vec<Refusal>> {
    let groups = read(text)?;
    let mut made = tariff.clone();
    let mut refusals = Refusals::default();
    let mut lines: BTreeMap<String, u64> = BTreeMap::new();
    for ((service, format, zone), found) in groups {
        let line = found.steps.first().map_or(0, |(line, _)| *line);
        let mut refuse = |column: &str, says: String| {
            refusals.refuse(format!("line {line}, {column}"), says);
        };
        let Some(at) = made.services.iter().position(|known| known.id == service) else {
            refuse("service", format!("service \"{service}\" doesn't exist"));
            continue;
        };
        let known = &mut made.services[at];
        let (place, prices) = if format.is_empty() {
            (format!("services/{at}/prices"), &mut known.prices)
        } else if let Some(of) = known.formats.iter().position(|known| known.name == format) {
            (
                format!("services/{at}/formats/{of}/prices"),
                &mut known.formats[of].prices,
            )
        } else {
            refuse(
                "format",
                format!("service service \"{service}\" has no format \"{format}\""),
            );
            continue;
        };
        let price = ZonePrice {
            zone: zone.clone(),
            steps: found.steps.iter().map(|(_, step)| step.clone()).collect(),
            per_further_kg: found.further.map(|(_, price)| price),
        };
        let index = match prices.iter().position(|known| known.zone == zone) {
            Some(index) => {
                prices[index] = price;
                index
            }
            None => {
                prices.push(price);
                prices.len() - 1
            }
        };
        lines.insert(format!("{place}/{index}"), line);
        for (step, (line, _)) in found.steps.iter().enumerate() {
            lines.insert(format!("{place}/{index}/steps/{step}"), *line);
        }
        if let Some((line, _)) = found.further {
            lines.insert(format!("{place}/{index}/per_further_kg"), line);
        }
    }
    if refusals.is_empty() {
        let refused = made.checked().err().into_iter().flatten();
        refusals.extend(
            refused.map(|refusal| Refusal::new(in_table(&refusal.field, &lines), refusal.message)),
        );
    }
    refusals.or(made)
}

/// The line and column of a place, where the table has it.
fn in_table(place: &str, lines: &BTreeMap<String, u64>) -> String {
    let mut known = place;
    loop {
        if let Some(line) = lines.get(known) {
            let column = place.rsplit('/').next().unwrap_or(place);
            return format!("line {line}, {column}");
        }
        let Some((before, _)) = known.rsplit_once('/') else {
            return place.to_owned();
        };
        known = before;
    }
}

fn read(text: &str) -> Result<BTreeMap<Group, Read>, Vec<Refusal>> {
    let whole = |says: String| vec![Refusal::new("csv", says)];
    let text = text.trim_start_matches('\u{feff}').replace("\r\n", "\n");
    let separator = separator_of(&text);
    let mut reader = csv::ReaderBuilder::new()
        .trim(csv::Trim::All)
        .delimiter(separator)
        .from_reader(text.as_bytes());
    let head = reader
        .headers()
        .map_err(|error| whole(error.to_string()))?
        .clone();
    let mut columns = [0; COLUMNS.len()];
    for (at, name) in COLUMNS.iter().enumerate() {
        columns[at] = head
            .iter()
            .position(|column| column == *name)
            .ok_or_else(|| {
                whole(format!(
                    "the header row must name the columns {}: start from the exported table",
                    COLUMNS.join(", ")
                ))
            })?;
    }
    let mut groups: BTreeMap<Group, Read> = BTreeMap::new();
    let mut refusals = Refusals::default();
    for (count, record) in reader.records().enumerate() {
        let record = record.map_err(|error| whole(error.to_string()))?;
        let line = record.position().map_or(0, csv::Position::line);
        if count >= MOST_LINES {
            return Err(whole(format!(
                "more than {MOST_LINES} lines: split the table"
            )));
        }
        let cell = |at: usize| {
            record
                .get(columns[at])
                .unwrap_or_default()
                .trim_start_matches('\'')
        };
        let number = |at: usize| {
            let written = cell(at);
            // Where cells are parted by semicolons, a comma is the decimal mark.
            let plain = if separator == b';' {
                written.replace(',', ".")
            } else {
                written.to_owned()
            };
            Decimal::from_str(&plain).map_err(|_| {
                let says = format!("\"{written}\" is not a number: write it as 4.90");
                Refusal::new(format!("line {line}, {}", COLUMNS[at]), says)
            })
        };
        let up_to = number(3).and_then(|grams| {
            let grams = f64::from_str(&grams.to_string()).unwrap_or(f64::NAN);
            Mass::try_from(grams)
                .map_err(|error| Refusal::new(format!("line {line}, up_to_g"), error))
        });
        let further = if cell(5).is_empty() {
            Ok(None)
        } else {
            number(5).map(Some)
        };
        match (up_to, number(4), further) {
            (Ok(up_to), Ok(price), Ok(further)) => {
                let group = (cell(0).to_owned(), cell(1).to_owned(), cell(2).to_owned());
                let found = groups.entry(group).or_default();
                found.steps.push((line, WeightStep { up_to, price }));
                found.further = further.map(|price| (line, price)).or(found.further);
            }
            (up_to, price, further) => {
                refusals.extend(up_to.err());
                refusals.extend(price.err());
                refusals.extend(further.err());
            }
        }
        if refusals.len() >= MOST_REFUSALS {
            break;
        }
    }
    refusals.done()?;
    if groups.is_empty() {
        return Err(whole("no prices found".to_owned()));
    }
    Ok(groups)
}
