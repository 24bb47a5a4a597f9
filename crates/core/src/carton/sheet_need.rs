//! Which sheet a blank is cut from.

use rust_decimal::Decimal;
use serde::Serialize;

use super::{Blank, Lap, Panel};
use crate::{
    material::{Board, Sheet},
    quantity::Length,
};

/// What a blank takes from the shelf.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum SheetNeed {
    /// It comes out of one sheet.
    One {
        /// The sheet.
        sheet: Sheet,
    },
    /// It is split at scores and lapped.
    Joined {
        /// The sheet that each part comes out of.
        sheet: Sheet,
        /// How many of them.
        sheets: u32,
        /// The parts, left to right.
        parts: Vec<JoinedPart>,
        /// Where the parts are cut apart, from the left edge; each but the last has its lap beyond that.
        cut_at_mm: Vec<Length>,
    },
    /// No sheet takes it, even split.
    NoSheet,
}

/// One part of a blank that is split.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JoinedPart {
    /// Across, with the lap where it has one.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Along the flutes.
    #[serde(rename = "height_mm")]
    pub height: Length,
}

/// A box in more parts than this is a crate's work.
const MOST_PARTS: usize = 4;

impl SheetNeed {
    /// Returns the cheapest way to cut a blank from the sheets of a board, flutes upright.
    ///
    /// One sheet is preferred to two, and so on; among sheets that do, the cheapest, then the smallest. What no sheet
    /// takes is split at its scores, into as few parts as will do, as alike as they can be. The blank is never
    /// turned, since a box stacks only with its flutes upright. Source: house rule.
    #[must_use]
    pub fn of(blank: &Blank, board: &Board, lap: Length) -> Self {
        let lap = Lap {
            reach: lap,
            caliper: board.caliper,
        };
        let whole = JoinedPart {
            width: blank.width,
            height: blank.height,
        };
        if let Some(sheet) = cheapest(board, 1, |sheet| goes_in(whole, sheet).then_some(1)) {
            return Self::One { sheet: sheet.0 };
        }
        let scores = splits_at(blank);
        for cuts in 1..MOST_PARTS.min(scores.len() + 1) {
            let ways = combinations(&scores, cuts);
            let found = ways.into_iter().filter_map(|cut_at_mm| {
                let parts = parts_of(blank, &cut_at_mm, lap);
                let (sheet, sheets) = cheapest(board, cuts + 1, |sheet| sheets_for(&parts, sheet))?;
                let widest = parts.iter().map(|part| part.width).max()?;
                Some((sheets, sheet, widest, parts, cut_at_mm))
            });
            let best = found.min_by_key(|(sheets, sheet, widest, ..)| {
                (sheet.price * Decimal::from(*sheets), *widest)
            });
            if let Some((sheets, sheet, _, parts, cut_at_mm)) = best {
                return Self::Joined {
                    sheet,
                    sheets,
                    parts,
                    cut_at_mm,
                };
            }
        }
        Self::NoSheet
    }

    /// Returns how long the laps are together of a blank in as many parts as there may be.
    #[must_use]
    pub fn most_laps(lap: Length) -> Length {
        (1..MOST_PARTS).map(|_| lap).sum()
    }
}

/// The scores that part a blank from its lower to its upper edge: every panel lies to one side of them.
fn splits_at(blank: &Blank) -> Vec<Length> {
    let inner = blank.runs_across.iter().copied();
    inner
        .filter(|at| *at > Length::ZERO && *at < blank.width)
        .filter(|at| blank.panels.iter().all(|panel| lies_beside(panel, *at)))
        .collect()
}

fn lies_beside(panel: &Panel, at: Length) -> bool {
    let across = || panel.outline.iter().map(|point| point.x);
    across().all(|x| x <= at) || across().all(|x| x >= at)
}

/// Every way to pick so many of the scores, in their order.
pub(crate) fn combinations(scores: &[Length], count: usize) -> Vec<Vec<Length>> {
    if count == 0 {
        return vec![Vec::new()];
    }
    let firsts = scores.iter().enumerate();
    firsts
        .flat_map(|(at, first)| {
            let rest = combinations(&scores[at + 1..], count - 1);
            rest.into_iter()
                .map(|rest| std::iter::once(*first).chain(rest).collect())
        })
        .collect()
}

/// The parts between the cuts, each but the last with a lap beyond its score.
fn parts_of(blank: &Blank, cuts: &[Length], lap: Lap) -> Vec<JoinedPart> {
    let widths = lap.widths(blank.width, cuts).into_iter();
    widths
        .map(|width| JoinedPart {
            width,
            height: blank.height,
        })
        .collect()
}

fn goes_in(part: JoinedPart, sheet: &Sheet) -> bool {
    part.width <= sheet.width && part.height <= sheet.height
}

/// One sheet when the parts go side by side or above each other, else one each, if each goes in.
fn sheets_for(parts: &[JoinedPart], sheet: &Sheet) -> Option<u32> {
    let beside = parts.iter().map(|part| part.width).sum::<Length>() <= sheet.width;
    let above = parts.iter().map(|part| part.height).sum::<Length>() <= sheet.height;
    match (
        parts.iter().all(|part| goes_in(*part, sheet)),
        beside || above,
    ) {
        (true, true) => Some(1),
        (true, false) => u32::try_from(parts.len()).ok(),
        (false, _) => None,
    }
}

fn cheapest(
    board: &Board,
    most: usize,
    needs: impl Fn(&Sheet) -> Option<u32>,
) -> Option<(Sheet, u32)> {
    board
        .sheets
        .iter()
        .filter_map(|sheet| {
            needs(sheet)
                .filter(|&sheets| usize::try_from(sheets).is_ok_and(|sheets| sheets <= most))
                .map(|sheets| (sheet, sheets))
        })
        .min_by_key(|(sheet, sheets)| {
            (
                sheet.price * Decimal::from(*sheets),
                sheet.width * sheet.height,
            )
        })
        .map(|(sheet, sheets)| (sheet.clone(), sheets))
}

#[cfg(test)]
mod tests {
    use rust_decimal_macros::dec;

    use super::*;
    use crate::{
        carton::{BoxSize, SlottedEdge, Tray},
        house::Allowances,
        material::{BoardBuild, MaterialId, Shelf},
        quantity::ArealDensity,
    };

    fn board(sheets: &[(f64, f64, Decimal)]) -> Board {
        Board {
            id: MaterialId::new("card"),
            name: "Card".into(),
            caliper: Length::mm(4.0),
            areal_density: ArealDensity::g_m2(560.0),
            folds: true,
            build: BoardBuild::Corrugated,
            stiffness: None,
            edge_crush: None,
            carries_kg: None,
            united: None,
            puncture: None,
            shelf: Shelf::default(),
            sheets: sheets
                .iter()
                .map(|&(width, height, price)| Sheet {
                    width: Length::mm(width),
                    height: Length::mm(height),
                    price,
                })
                .collect(),
        }
    }

    /// 1709 × 662, its middle score at 836.
    fn blank() -> Blank {
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        SlottedEdge(BoxSize {
            length,
            width,
            height,
            caliper,
        })
        .blank(&Allowances::default())
    }

    fn need(sheets: &[(f64, f64, Decimal)]) -> SheetNeed {
        SheetNeed::of(&blank(), &board(sheets), Length::mm(40.0))
    }

    #[test]
    fn one_sheet_is_taken_where_one_does_and_the_cheapest_of_them() {
        let found = need(&[
            (2400.0, 1200.0, dec!(5)),
            (1800.0, 1200.0, dec!(4)),
            (1600.0, 1200.0, dec!(1)),
        ]);
        let SheetNeed::One { sheet } = found else {
            panic!("{found:?}")
        };
        assert_eq!(sheet.width, Length::mm(1800.0));
    }

    #[test]
    fn a_blank_wider_than_the_sheet_is_split_at_its_middle_score() {
        // 836 + 4 + 40 = 880 and 1709 − 836 − 2 = 871, each 662 high: two above each other need 1324.
        let found = need(&[(1600.0, 1200.0, dec!(3))]);
        let SheetNeed::Joined { sheets, parts, .. } = found else {
            panic!("{found:?}")
        };
        assert_eq!(sheets, 2);
        assert_eq!(
            parts
                .iter()
                .map(|part| part.width.as_mm())
                .collect::<Vec<_>>(),
            [880.0, 871.0]
        );
        let tall = need(&[(1600.0, 1400.0, dec!(3))]);
        assert!(
            matches!(tall, SheetNeed::Joined { sheets: 1, .. }),
            "{tall:?}"
        );
    }

    #[test]
    fn what_two_parts_do_not_do_three_may() {
        // Scores at 742, 836, 1580 and 1678. Two parts from sheets of 800 would be 880 and more; three, cut at 742 and
        // 836 or 1580, are 742 + 44, ... and 1709 − 836 − 2 = 871: no. In four, at 742, 836 and 1580: 742 + 44 = 786,
        // 94 − 2 + 44 = 136, 744 − 2 + 44 = 786 and 129 − 2 = 127.
        let found = need(&[(800.0, 700.0, dec!(2))]);
        let SheetNeed::Joined {
            sheets,
            parts,
            cut_at_mm,
            ..
        } = found
        else {
            panic!("{found:?}")
        };
        assert_eq!((sheets, parts.len()), (4, 4));
        let cuts: Vec<f64> = cut_at_mm.iter().map(|cut| cut.as_mm()).collect();
        assert_eq!(cuts, [742.0, 836.0, 1580.0]);
        let widths: Vec<f64> = parts.iter().map(|part| part.width.as_mm()).collect();
        assert_eq!(widths, [786.0, 136.0, 786.0, 127.0]);
    }

    #[test]
    fn what_is_higher_than_every_sheet_is_cut_from_none() {
        assert_eq!(need(&[(3000.0, 661.0, dec!(9))]), SheetNeed::NoSheet);
    }

    #[test]
    fn a_tray_is_never_cut_apart_through_a_wall() {
        // Its walls reach from one side of the base to the other: no score parts it from edge to edge but those of the
        // walls at its ends.
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 5.0].map(Length::mm);
        let tray = Tray(BoxSize {
            length,
            width,
            height,
            caliper,
        });
        let found = SheetNeed::of(
            &tray.blank(),
            &board(&[(900.0, 800.0, dec!(2))]),
            Length::mm(40.0),
        );
        let SheetNeed::Joined { cut_at_mm, .. } = found else {
            panic!("{found:?}")
        };
        // Walls of 92.5: at 92.5 or 837.5 from the left.
        let cuts: Vec<f64> = cut_at_mm.iter().map(|cut| cut.as_mm()).collect();
        assert!(cuts == [92.5] || cuts == [837.5], "{cuts:?}");
    }

    #[test]
    fn a_blank_is_never_turned_across_its_flutes() {
        assert_eq!(need(&[(700.0, 1800.0, dec!(3))]), SheetNeed::NoSheet);
    }
}
