//! Cutting parts from sheets by knife lines from edge to edge: which sheets to open, where each part lies, and which cut
//! comes first.

#[allow(clippy::cast_precision_loss, reason = "a bound leaves dust for it")]
mod bound;
mod cuts;
#[allow(
    clippy::cast_precision_loss,
    reason = "it only weighs one way against another"
)]
mod fill;
#[allow(
    clippy::cast_precision_loss,
    reason = "it only weighs one way against another"
)]
mod search;
mod shelves;
mod solve;
mod tree;

use rust_decimal::{Decimal, prelude::ToPrimitive};
use serde::{Deserialize, Serialize};

use crate::quantity::Length;
use cuts::cut_up;
use search::{CuttingTask, Patience, Piece, Stock};
use tree::{Axis, Pm};

/// A kind of sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct StockSheet {
    /// Across.
    pub width: Length,
    /// Up.
    pub height: Length,
    /// Of one; an offcut costs nothing.
    pub price: Decimal,
    /// How many there are; as many as are wanted when absent.
    pub count: Option<u32>,
}

/// A part to be cut.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CutPart {
    /// Across.
    pub width: Length,
    /// Up.
    pub height: Length,
    /// How many.
    pub count: u32,
    /// Whether neither flutes nor grain say how it lies.
    pub may_turn: bool,
}

/// What is to be cut, and how long a better way is looked for.
#[derive(Debug, Clone, PartialEq)]
pub struct CuttingJob {
    /// What it may be cut from.
    pub sheets: Vec<StockSheet>,
    /// What is cut.
    pub parts: Vec<CutPart>,
    /// What the blade takes away.
    pub kerf: Length,
    /// The same seed and steps give the same answer.
    pub seed: u64,
    /// How many steps are tried for each choice of one kind of sheets; one of two kinds has twice as many, one of three four times, of
    /// four or more eight times. More steps never cost more.
    pub steps: u64,
}

/// A part where it lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Placement {
    /// Which part, by its place in the job.
    pub part: usize,
    /// From the lower left corner of the sheet.
    pub x: Length,
    /// From the lower left corner of the sheet.
    pub y: Length,
    /// Whether it lies turned by a quarter.
    pub turned: bool,
}

/// Which way a cut is measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "lowercase")]
pub enum CutAxis {
    /// Across: the cut itself runs up.
    X,
    /// Up: the cut itself runs across.
    Y,
}

/// A knife line from edge to edge of one piece.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = CuttingCut))]
pub struct KnifeLine {
    /// Its place in the order of cutting, counted from 1.
    pub n: usize,
    /// `x`: at a distance across, running up; `y`: at a distance up, running across.
    pub axis: CutAxis,
    /// The blade's near edge, from the lower left corner of the sheet; what it takes away lies beyond.
    #[serde(rename = "at_mm")]
    pub at: Length,
    /// Where the cut begins, the other way.
    #[serde(rename = "from_mm")]
    pub from: Length,
    /// Where the cut ends, the other way.
    #[serde(rename = "to_mm")]
    pub to: Length,
}

/// A piece that is left over.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = CuttingRest))]
pub struct Remainder {
    /// Its left edge, from the lower left corner of the sheet.
    #[serde(rename = "x_mm")]
    pub x: Length,
    /// Its lower edge, from the lower left corner of the sheet.
    #[serde(rename = "y_mm")]
    pub y: Length,
    /// Across.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Up.
    #[serde(rename = "height_mm")]
    pub height: Length,
}

/// One sheet, cut.
#[derive(Debug, Clone, PartialEq)]
pub struct CutSheet {
    /// Which kind, by its place in the job.
    pub sheet: usize,
    /// Its parts.
    pub placements: Vec<Placement>,
    /// In the order in which they are cut.
    pub cuts: Vec<KnifeLine>,
    /// What is left over.
    pub remainder: Vec<Remainder>,
}

/// How a job is cut.
#[derive(Debug, Clone, PartialEq)]
pub struct CuttingPlan {
    /// Every sheet that is opened.
    pub sheets: Vec<CutSheet>,
    /// Of those sheets.
    pub cost: Decimal,
    /// No way of cutting costs less than this.
    pub lower_bound: Decimal,
    /// The parts' area over the sheets'.
    pub utilisation: f64,
    /// Whether it was stopped before its steps were done.
    pub stopped_early: bool,
}

/// Why a job can't be cut.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum UncutReason {
    /// A part is larger than every sheet, as it may lie.
    #[error("larger than every sheet in the allowed direction")]
    TooLarge {
        /// Which, by its place in the job.
        part: usize,
    },
    /// There are too few sheets.
    #[error("the sheets don't hold every part: add a sheet, or leave a part out")]
    TooFew,
}

const PM_PER_MM: f64 = 1e9;
const PRICE_PLACES: u32 = 6;
/// A length that is a whole number of picometres but for the way in which it is written.
const DUST_PM: f64 = 0.01;

/// A length in whole picometres, never less than it is.
fn up(length: Length) -> Pm {
    #[allow(
        clippy::cast_possible_truncation,
        reason = "lengths are checked to be under 10 m"
    )]
    let pm = (length.as_mm() * PM_PER_MM - DUST_PM).ceil() as Pm;
    pm
}

/// The same, never more than it is.
fn down(length: Length) -> Pm {
    #[allow(
        clippy::cast_possible_truncation,
        reason = "lengths are checked to be under 10 m"
    )]
    let pm = (length.as_mm() * PM_PER_MM + DUST_PM).floor() as Pm;
    pm
}

fn length(pm: Pm) -> Length {
    #[allow(clippy::cast_precision_loss, reason = "10 m are few enough picometres")]
    let mm = pm as f64 / PM_PER_MM;
    Length::mm(mm)
}

fn units(price: Decimal) -> i64 {
    let units = price * Decimal::from(10_i64.pow(PRICE_PLACES));
    units.round().to_i64().unwrap_or(i64::MAX)
}

fn money(units: i64) -> Decimal {
    Decimal::new(units, PRICE_PLACES).normalize()
}

struct Until<'a>(&'a mut dyn FnMut() -> bool);

impl Patience for Until<'_> {
    fn is_out(&mut self) -> bool {
        (self.0)()
    }
}

impl CuttingJob {
    /// Returns the cheapest way of cutting it that is found; of equally cheap ones the fewest sheets, each cut so that its
    /// largest remainder is large.
    ///
    /// `is_out` is asked between steps whether there is time for no more of them.
    ///
    /// # Errors
    /// [`UncutReason`] for a part that no sheet takes, or where the sheets run out.
    pub fn cut(&self, is_out: &mut dyn FnMut() -> bool) -> Result<CuttingPlan, UncutReason> {
        let kerf = up(self.kerf);
        let stock: Vec<Stock> = self
            .sheets
            .iter()
            .map(|sheet| Stock {
                // The last cut's width lies beyond the sheet's edge.
                w: down(sheet.width) + kerf,
                h: down(sheet.height) + kerf,
                price: units(sheet.price),
                count: sheet.count.unwrap_or(u32::MAX),
            })
            .collect();
        let mut pieces = Vec::new();
        let mut of = Vec::new();
        for (at, part) in self.parts.iter().enumerate() {
            let piece = Piece {
                w: up(part.width) + kerf,
                h: up(part.height) + kerf,
                turns: part.may_turn,
            };
            let fits = piece.ways(0).any(|lying| {
                stock
                    .iter()
                    .any(|one| one.count > 0 && lying.w <= one.w && lying.h <= one.h)
            });
            if !fits {
                return Err(UncutReason::TooLarge { part: at });
            }
            for _ in 0..part.count {
                pieces.push(piece);
                of.push(at);
            }
        }
        let narrowest = pieces.iter().map(|piece| piece.w.min(piece.h)).min();
        let asked = CuttingTask {
            stock: &stock,
            pieces: &pieces,
            narrowest: narrowest.unwrap_or(1),
        };
        let found = solve::solve(&asked, self.seed, self.steps, &mut Until(is_out))
            .ok_or(UncutReason::TooFew)?;
        let area = |w: Length, h: Length| (w * h).as_m2();
        let whole: f64 = found
            .sheets
            .iter()
            .map(|laid| {
                area(
                    self.sheets[laid.stock].width,
                    self.sheets[laid.stock].height,
                )
            })
            .sum();
        let parts: f64 = self
            .parts
            .iter()
            .map(|part| area(part.width, part.height) * f64::from(part.count))
            .sum();
        let sheets = found
            .sheets
            .iter()
            .map(|laid| {
                let cut = cut_up(&laid.tree, kerf);
                CutSheet {
                    sheet: laid.stock,
                    placements: cut
                        .placed
                        .iter()
                        .map(|(lying, x, y)| Placement {
                            part: of[lying.part as usize],
                            x: length(*x),
                            y: length(*y),
                            turned: lying.turned,
                        })
                        .collect(),
                    cuts: cut
                        .lines
                        .iter()
                        .zip(1..)
                        .map(|(line, n)| KnifeLine {
                            n,
                            axis: match line.axis {
                                Axis::X => CutAxis::X,
                                Axis::Y => CutAxis::Y,
                            },
                            at: length(line.at),
                            from: length(line.from),
                            to: length(line.to),
                        })
                        .collect(),
                    remainder: cut
                        .rest
                        .iter()
                        .map(|rest| Remainder {
                            x: length(rest.x),
                            y: length(rest.y),
                            width: length(rest.w),
                            height: length(rest.h),
                        })
                        .collect(),
                }
            })
            .collect();
        Ok(CuttingPlan {
            sheets,
            cost: money(found.cost),
            lower_bound: money(found.bound),
            utilisation: parts / whole,
            stopped_early: found.stopped_early,
        })
    }
}
