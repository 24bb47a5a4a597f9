//! The materials list: what several shipments take off the shelf together, to gather before the day begins.

use serde::Serialize;

use super::about::Letterhead;
use crate::{
    quantity::{Length, Mass, Telling},
    stock::{Goods, MaterialsLine, Measure},
};

/// What several shipments take.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct MaterialsList {
    /// Whose list it is.
    pub head: Letterhead,
    /// The day on which it is printed.
    pub on: String,
    /// The shipments, each with its number in the list.
    pub shipments: Vec<String>,
    /// Every material.
    pub rows: Vec<MaterialsRow>,
}

/// One material.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct MaterialsRow {
    /// What it is called, a sheet with its sides.
    pub name: String,
    /// How much all of them take.
    pub takes: String,
    /// How much there is; empty where it is not counted.
    pub left: String,
    /// How much is lacking, and from whom it comes; empty where nothing is.
    pub short: String,
    /// For which shipments, by their numbers.
    pub of: String,
}

impl MaterialsList {
    /// Returns the list of shipments, by their titles.
    #[must_use]
    pub fn of(
        (head, on): (Letterhead, String),
        titles: &[String],
        lines: &[MaterialsLine],
        telling: Telling,
    ) -> Self {
        Self {
            head,
            on,
            shipments: titles.to_vec(),
            rows: lines.iter().map(|line| row(line, telling)).collect(),
        }
    }
}

fn row(line: &MaterialsLine, telling: Telling) -> MaterialsRow {
    let amount = |amount: i64| told(&line.goods, amount, telling);
    let short = match (line.short(), line.supplier.trim()) {
        (0, _) => String::new(),
        (short, "") => amount(short),
        (short, supplier) => format!("{}, from {supplier}", amount(short)),
    };
    let of: Vec<String> = line.of.iter().map(|at| (at + 1).to_string()).collect();
    MaterialsRow {
        name: match &line.goods {
            Goods::Sheet(sheet) | Goods::Offcut(sheet) => {
                let sides: Vec<Length> = [sheet.width, sheet.height]
                    .into_iter()
                    .chain(sheet.thickness)
                    .collect();
                format!("{}, {}", line.name, telling.sides(&sides))
            }
            Goods::Roll { .. }
            | Goods::Thing { .. }
            | Goods::Loose { .. }
            | Goods::Carton(_)
            | Goods::Case(_) => line.name.clone(),
        },
        takes: amount(line.amount),
        left: line.left.map(amount).unwrap_or_default(),
        short,
        of: of.join(", "),
    }
}

/// An amount in the measure in which it is counted.
fn told(goods: &Goods, amount: i64, telling: Telling) -> String {
    #[allow(
        clippy::cast_precision_loss,
        reason = "a shelf holds less than a thousand kilometres"
    )]
    let number = amount as f64;
    match (goods.measure(), goods) {
        (Measure::Mm, _) => telling.run(Length::mm(number)),
        (Measure::G, _) => telling.mass(Mass::g(number)),
        (Measure::Pieces, Goods::Sheet(_) | Goods::Offcut(_)) if amount == 1 => {
            "1 sheet".to_owned()
        }
        (Measure::Pieces, Goods::Sheet(_) | Goods::Offcut(_)) => format!("{amount} sheets"),
        (Measure::Pieces, _) => amount.to_string(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{material::MaterialId, stock::SheetGoods};

    #[test]
    fn each_is_told_in_the_measure_in_which_it_is_gathered() {
        let line = |goods, amount, left: Option<i64>| MaterialsLine {
            goods,
            name: "Something".to_owned(),
            amount,
            left,
            supplier: "Reed Board".to_owned(),
            of: vec![0, 2],
        };
        let material = || MaterialId::new("something");
        let [width, height] = [1200.0, 800.0].map(Length::mm);
        let sheet = Goods::Sheet(SheetGoods {
            material: material(),
            width,
            height,
            thickness: None,
        });
        let lines = [
            // Three are wanted and one is there: two are short.
            line(sheet, 3, Some(1)),
            line(
                Goods::Roll {
                    material: material(),
                },
                12_400,
                Some(50_000),
            ),
            line(
                Goods::Loose {
                    material: material(),
                },
                430,
                None,
            ),
        ];
        let head = Letterhead {
            studio: "Saltgrass".to_owned(),
            lines: Vec::new(),
        };
        let titles = ["Kelp", "Tern", "Dune"].map(String::from);
        let list = MaterialsList::of(
            (head, "5 Mar 2027".to_owned()),
            &titles,
            &lines,
            Telling::default(),
        );
        let said: Vec<[&str; 4]> = list
            .rows
            .iter()
            .map(|row| [&*row.name, &*row.takes, &*row.left, &*row.short])
            .collect();
        assert_eq!(
            said,
            [
                [
                    "Something, 1200 × 800\u{a0}mm",
                    "3 sheets",
                    "1 sheet",
                    "2 sheets, from Reed Board"
                ],
                ["Something", "12.40\u{a0}m", "50.00\u{a0}m", ""],
                ["Something", "0.43\u{a0}kg", "", ""],
            ]
        );
        assert_eq!(list.rows[0].of, "1, 3");
    }
}
