//! Parts laid out on sheets.

use rust_decimal::{Decimal, prelude::ToPrimitive};
use serde::{Deserialize, Deserializer, Serialize, de};

use super::{
    Sum,
    checked::{KERF, SIDE},
};
use crate::{
    Refusal, Refusals,
    cutting::{
        CutPart, CutSheet, CuttingJob, CuttingPlan, KnifeLine, Remainder, StockSheet, UncutReason,
    },
    quantity::Length,
};

/// What is to be cut, from what.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CuttingSum {
    /// Kinds of sheets, 1 to 12; an offcut is one with price 0 and a count.
    pub sheets: Vec<CuttingStock>,
    /// What is cut, 1 to 500 entries, of all together 1000 parts at most.
    pub parts: Vec<CuttingPart>,
    /// What the blade takes away beyond each line, 0 to 20; 0, a knife, when left out.
    #[serde(default)]
    pub kerf_mm: f64,
    /// The same seed and effort give the same answer; 1 when left out.
    #[serde(default = "one")]
    pub seed: u64,
    /// Steps for each choice of one kind of sheets, 0 to 1 000 000; 1000 when left out. A choice of two kinds has twice as many, of
    /// three four times, of four or more eight times. More effort never costs more, where time does not end the search.
    #[serde(default = "thousand")]
    pub effort: u64,
    /// Stopped after so many milliseconds with the best so far, 1 to 60 000; after 20 000 when left out.
    #[serde(default)]
    pub budget_ms: Option<u64>,
}

/// A kind of sheet.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CuttingStock {
    /// Across, 1 to 10 000.
    pub width_mm: f64,
    /// Up, 1 to 10 000.
    pub height_mm: f64,
    /// Of one, 0 to 1 000 000, as a text or a number.
    #[serde(deserialize_with = "text_or_number")]
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// How many there are, 1 to 100 000; as many as are wanted when left out.
    #[serde(default)]
    pub count: Option<u32>,
}

/// A part to be cut.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CuttingPart {
    /// What it is called.
    pub name: String,
    /// Across, 1 to 10 000.
    pub width_mm: f64,
    /// Up, 1 to 10 000.
    pub height_mm: f64,
    /// How many, 1 to 1000; 1 when left out.
    #[serde(default = "single")]
    pub count: u32,
    /// Whether it may be turned by a quarter; not when left out, as for a blank with flutes.
    #[serde(default)]
    pub may_rotate: bool,
}

const fn one() -> u64 {
    1
}
const fn single() -> u32 {
    1
}
const fn thousand() -> u64 {
    1000
}

/// A price, as a text or a number.
fn text_or_number<'de, D: Deserializer<'de>>(reader: D) -> Result<Decimal, D::Error> {
    #[derive(Deserialize)]
    #[serde(untagged)]
    enum Price {
        Text(String),
        Number(serde_json::Number),
    }
    let text = match Price::deserialize(reader) {
        Ok(Price::Text(text)) => text.trim().to_owned(),
        Ok(Price::Number(number)) => number.to_string(),
        Err(_) => return Err(de::Error::custom("give a price as 2.35")),
    };
    text.parse()
        .or_else(|_| Decimal::from_scientific(&text))
        .map_err(|_| de::Error::custom(format!("{text} is not a price: give it as 2.35")))
}

/// How it is cut.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CuttingAnswer {
    /// One entry for each sheet that is opened.
    pub sheets_used: Vec<CuttingUsed>,
    /// Of those sheets.
    pub cost: f64,
    /// The parts' area over the sheets'.
    pub utilisation: f64,
    /// No way of cutting costs less.
    pub lower_bound_cost: f64,
    /// Whether time ran out before the effort was done.
    pub stopped_early: bool,
}

/// A sheet that is opened.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CuttingUsed {
    /// Which kind, counted from 0.
    pub sheet: usize,
    /// Its parts.
    pub placements: Vec<CuttingPlacement>,
    /// Running distances from the lower left corner, in the order in which they are cut; each crosses one piece from edge to
    /// edge.
    pub cuts: Vec<KnifeLine>,
    /// What is left over after the last.
    pub remainder: Vec<Remainder>,
}

/// A part where it lies.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CuttingPlacement {
    /// What it is called.
    pub name: String,
    /// From the lower left corner.
    pub x_mm: f64,
    /// From the lower left corner.
    pub y_mm: f64,
    /// Across, as it lies.
    pub width_mm: f64,
    /// Up, as it lies.
    pub height_mm: f64,
    /// Whether it lies turned by a quarter.
    pub rotated: bool,
}

/// More kinds of sheets are no shelf any more.
const MOST_SHEETS: usize = 12;
const MOST_ENTRIES: usize = 500;
const MOST_PARTS: u64 = 1000;
const MOST_EFFORT: u64 = 1_000_000;
const MOST_MS: u64 = 60_000;
const MOST_COUNT: u32 = 100_000;
const MOST_PRICE: u32 = 1_000_000;

impl CuttingSum {
    fn checked(&self) -> Result<(), Vec<Refusal>> {
        let mut checked = Refusals::default();
        checked.number("kerf_mm", self.kerf_mm, KERF);
        if self.effort > MOST_EFFORT {
            checked.refuse("effort", format!("give 0 to {MOST_EFFORT} steps"));
        }
        if self
            .budget_ms
            .is_some_and(|ms| !(1..=MOST_MS).contains(&ms))
        {
            checked.refuse("budget_ms", format!("give 1 to {MOST_MS} milliseconds"));
        }
        if !(1..=MOST_SHEETS).contains(&self.sheets.len()) {
            checked.refuse("sheets", format!("give 1 to {MOST_SHEETS} kinds of sheets"));
        }
        for (at, sheet) in self.sheets.iter().enumerate() {
            checked
                .number(format!("sheets.{at}.width_mm"), sheet.width_mm, SIDE)
                .number(format!("sheets.{at}.height_mm"), sheet.height_mm, SIDE);
            if sheet.price < Decimal::ZERO || sheet.price > Decimal::from(MOST_PRICE) {
                let says = format!(
                    "{} is out of range: give a price from 0 to {MOST_PRICE}",
                    sheet.price
                );
                checked.refuse(format!("sheets.{at}.price"), says);
            }
            if sheet
                .count
                .is_some_and(|count| !(1..=MOST_COUNT).contains(&count))
            {
                checked.refuse(
                    format!("sheets.{at}.count"),
                    format!(
                        "give 1 to {MOST_COUNT} sheets, or leave it out for as many as are wanted"
                    ),
                );
            }
        }
        let all: u64 = self.parts.iter().map(|part| u64::from(part.count)).sum();
        if !(1..=MOST_ENTRIES).contains(&self.parts.len()) || all > MOST_PARTS {
            checked.refuse(
                "parts",
                format!(
                    "give 1 to {MOST_ENTRIES} entries, of all together {MOST_PARTS} parts at most"
                ),
            );
        }
        for (at, part) in self.parts.iter().enumerate() {
            checked
                .number(format!("parts.{at}.width_mm"), part.width_mm, SIDE)
                .number(format!("parts.{at}.height_mm"), part.height_mm, SIDE);
            if part.count == 0 {
                checked.refuse(format!("parts.{at}.count"), "give at least 1");
            }
        }
        checked.done()
    }

    fn job(&self) -> CuttingJob {
        CuttingJob {
            sheets: self
                .sheets
                .iter()
                .map(|sheet| StockSheet {
                    width: Length::mm(sheet.width_mm),
                    height: Length::mm(sheet.height_mm),
                    price: sheet.price,
                    count: sheet.count,
                })
                .collect(),
            parts: self
                .parts
                .iter()
                .map(|part| CutPart {
                    width: Length::mm(part.width_mm),
                    height: Length::mm(part.height_mm),
                    count: part.count,
                    may_turn: part.may_rotate,
                })
                .collect(),
            kerf: Length::mm(self.kerf_mm),
            seed: self.seed,
            steps: self.effort,
        }
    }

    /// Returns the answer; `is_out` is asked between steps whether there is time for no more of them.
    ///
    /// # Errors
    /// A [`Refusal`] for each number outside its range, for a part that no sheet takes, or for too few sheets.
    pub fn work_until(
        &self,
        is_out: &mut dyn FnMut() -> bool,
    ) -> Result<CuttingAnswer, Vec<Refusal>> {
        self.checked()?;
        let plan = self.job().cut(is_out).map_err(|why| {
            vec![match why {
                UncutReason::TooLarge { part } => Refusal::new(
                    format!("parts.{part}"),
                    format!("{}: {why}", self.parts[part].name),
                ),
                UncutReason::TooFew => Refusal::new("sheets", why),
            }]
        })?;
        Ok(self.told(&plan))
    }

    fn told(&self, plan: &CuttingPlan) -> CuttingAnswer {
        CuttingAnswer {
            sheets_used: plan.sheets.iter().map(|sheet| self.used(sheet)).collect(),
            cost: plan.cost.to_f64().unwrap_or_default(),
            utilisation: plan.utilisation,
            lower_bound_cost: plan.lower_bound.to_f64().unwrap_or_default(),
            stopped_early: plan.stopped_early,
        }
    }

    fn used(&self, sheet: &CutSheet) -> CuttingUsed {
        CuttingUsed {
            sheet: sheet.sheet,
            placements: sheet
                .placements
                .iter()
                .map(|placed| {
                    let part = &self.parts[placed.part];
                    let (width_mm, height_mm) = if placed.turned {
                        (part.height_mm, part.width_mm)
                    } else {
                        (part.width_mm, part.height_mm)
                    };
                    CuttingPlacement {
                        name: part.name.clone(),
                        x_mm: placed.x.as_mm(),
                        y_mm: placed.y.as_mm(),
                        width_mm,
                        height_mm,
                        rotated: placed.turned,
                    }
                })
                .collect(),
            cuts: sheet.cuts.clone(),
            remainder: sheet.remainder.clone(),
        }
    }
}

impl Sum for CuttingSum {
    type Answer = CuttingAnswer;

    fn work(&self) -> Result<CuttingAnswer, Vec<Refusal>> {
        self.work_until(&mut || false)
    }
}
