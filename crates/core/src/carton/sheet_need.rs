//! Which sheet a blank is cut from.

use rust_decimal::Decimal;
use serde::Serialize;

use super::Blank;
use crate::{
    material::{Board, Sheet},
    quantity::{Area, Length},
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
    /// It is split at its middle score and lapped.
    Joined {
        /// The sheet that each part comes out of.
        sheet: Sheet,
        /// How many of them.
        sheets: u32,
        /// The parts, left to right.
        parts: Vec<JoinedPart>,
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

/// The score between the second and the third wall, the middle of the ring.
const MIDDLE_SCORE: usize = 2;

impl SheetNeed {
    /// Returns the cheapest way to cut a blank from the sheets of a board, flutes upright.
    ///
    /// One sheet is preferred to two; among sheets that do, the cheapest, then the smallest. The blank is
    /// never turned, since a box stacks only with its flutes upright. Source: house rule.
    #[must_use]
    pub fn of(blank: &Blank, board: &Board, lap: Length) -> Self {
        let whole = JoinedPart {
            width: blank.width,
            height: blank.height,
        };
        if let Some(sheet) = cheapest(board, 1, |sheet| goes_in(whole, sheet).then_some(1)) {
            return Self::One { sheet: sheet.0 };
        }
        let middle = blank
            .runs_across
            .get(MIDDLE_SCORE)
            .copied()
            .unwrap_or(blank.width);
        let parts = vec![
            JoinedPart {
                width: middle + lap,
                height: blank.height,
            },
            JoinedPart {
                width: blank.width - middle,
                height: blank.height,
            },
        ];
        match cheapest(board, 2, |sheet| sheets_for(&parts, sheet)) {
            Some((sheet, sheets)) => Self::Joined {
                sheet,
                sheets,
                parts,
            },
            None => Self::NoSheet,
        }
    }

    /// Returns the board that the laps take beyond the blank; one that no sheet takes will have laps too.
    #[must_use]
    pub fn lap_area(&self, blank_height: Length, lap: Length) -> Area {
        match self {
            Self::Joined { .. } | Self::NoSheet => lap * blank_height,
            Self::One { .. } => Area::ZERO,
        }
    }
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
    most: u32,
    needs: impl Fn(&Sheet) -> Option<u32>,
) -> Option<(Sheet, u32)> {
    board
        .sheets
        .iter()
        .filter_map(|sheet| {
            needs(sheet)
                .filter(|&sheets| sheets <= most)
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
        carton::SlottedEdge,
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
        SlottedEdge {
            length,
            width,
            height,
            caliper,
        }
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
        // 836 + 40 = 876 and 1709 − 836 = 873, each 662 high: two above each other need 1324.
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
            [876.0, 873.0]
        );
        let tall = need(&[(1600.0, 1400.0, dec!(3))]);
        assert!(
            matches!(tall, SheetNeed::Joined { sheets: 1, .. }),
            "{tall:?}"
        );
    }

    #[test]
    fn a_blank_is_never_turned_across_its_flutes() {
        assert_eq!(need(&[(700.0, 1800.0, dec!(3))]), SheetNeed::NoSheet);
    }
}
