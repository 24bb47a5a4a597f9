//! Prices as a spreadsheet copies them.

use serde::{Deserialize, Serialize};

use super::{
    PriceTable, ZoneColumn,
    figures::{Figures, Kind, read_amount},
};
use crate::quantity::Telling;

/// Cells that were copied from a spreadsheet, with what parts them found by themselves: tabs, semicolons or commas.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PastedPrices {
    /// The table that they make.
    pub table: PriceTable,
    /// Zones that stand in its head and that the price list does not have yet.
    pub new_zones: Vec<String>,
}

/// No price list has more weights or zones.
const MOST_ROWS: usize = 500;
const MOST_COLUMNS: usize = 100;
/// What stands in the first cell of the row of further kilograms.
const FURTHER: [&str; 6] = ["further", "additional", "each", "per kg", "more", "+"];

impl PastedPrices {
    /// Returns the table that cells make: a head of zones where its cells are no prices, weights in the first column. Columns
    /// without a head follow the zones in their order.
    #[must_use]
    pub fn read(rows: &[Vec<String>], zones: &[String], telling: Telling) -> Self {
        let figures = Figures::of(telling);
        let is_price = |cell: &str| !cell.trim().is_empty() && read_amount(cell).is_ok();
        let filled = |row: &&Vec<String>| row.iter().any(|cell| !cell.trim().is_empty());
        let mut rows: Vec<&Vec<String>> = rows.iter().filter(filled).take(MOST_ROWS).collect();
        let cells = |row: &[String]| -> Vec<String> {
            let cells = row.iter().skip(1).take(MOST_COLUMNS);
            cells.map(|cell| cell.trim().to_owned()).collect()
        };
        let has_head = rows.first().is_some_and(|row| {
            let head = cells(row);
            !head.is_empty() && !head.iter().any(|cell| is_price(cell))
        });
        let head = if has_head {
            cells(rows.remove(0))
        } else {
            Vec::new()
        };
        let across = rows.iter().map(|row| row.len()).max().unwrap_or(1) - 1;
        let across = across.min(MOST_COLUMNS).max(head.len());
        let mut new_zones = Vec::new();
        let mut table = PriceTable::default();
        for column in 0..across {
            let named = head.get(column).filter(|name| !name.is_empty());
            let zone = match named {
                Some(name) => {
                    let mut known = zones.iter();
                    let found = known.find(|zone| zone.to_lowercase() == name.to_lowercase());
                    found.cloned().unwrap_or_else(|| {
                        new_zones.push(name.clone());
                        name.clone()
                    })
                }
                None => zones.get(column).cloned().unwrap_or_else(|| {
                    let name = format!("Zone {}", column + 1);
                    new_zones.push(name.clone());
                    name
                }),
            };
            table.zones.push(ZoneColumn {
                zone,
                prices: Vec::new(),
                further: String::new(),
            });
        }
        for row in rows {
            let first = row.first().map(|cell| cell.trim()).unwrap_or_default();
            let lower = first.to_lowercase();
            let weight = lower.trim_start_matches(|c: char| !c.is_ascii_digit());
            let weight = figures.read_figure(Kind::Mass, weight);
            let is_further = FURTHER.iter().any(|word| lower.contains(word));
            let values = cells(row);
            let cell = |column: usize| values.get(column).cloned().unwrap_or_default();
            if is_further {
                for (column, zone) in table.zones.iter_mut().enumerate() {
                    zone.further = cell(column);
                }
                continue;
            }
            // What is no weight stays in its cell, where it is told so.
            let weight =
                weight.map_or_else(|_| first.to_owned(), |g| figures.figure(Kind::Mass, g));
            table.weights.push(weight);
            for (column, zone) in table.zones.iter_mut().enumerate() {
                zone.prices.push(cell(column));
            }
        }
        Self { table, new_zones }
    }
}
