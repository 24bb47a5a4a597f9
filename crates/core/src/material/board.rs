//! Boards: corrugated card, foam-core and fibreboard.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{MaterialId, Shelf};
use crate::quantity::{ArealDensity, EdgeCrush, Length, Stiffness, decimal_of, straight_in_logs};

/// A board and the sheets that it comes in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Board {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Its thickness.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// Of one sheet.
    #[serde(rename = "areal_density_g_m2")]
    pub areal_density: ArealDensity,
    /// Whether it scores and folds, and so can be a box or a corner pocket.
    pub folds: bool,
    /// How it is built.
    #[serde(default)]
    pub build: BoardBuild,
    /// How it resists bending; unknown when absent.
    #[serde(
        rename = "stiffness_nm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub stiffness: Option<Stiffness>,
    /// What its edge bears; only corrugated has one that a box is reckoned by.
    #[serde(
        rename = "edge_crush_kn_m",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub edge_crush: Option<EdgeCrush>,
    /// What a box of it may carry gross, in kilograms; by its edge crush when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub carries_kg: Option<f64>,
    /// What length, width and height of such a box may come to outside; by its edge crush when absent.
    #[serde(rename = "united_mm", default, skip_serializing_if = "Option::is_none")]
    pub united: Option<Length>,
    /// What it takes to be pierced, in joules, 0.1 to 500; by its build and its weight or caliper when absent.
    #[serde(
        rename = "puncture_j",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub puncture: Option<f64>,
    /// The sheets on the shelf.
    pub sheets: Vec<Sheet>,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// How a board is built.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BoardBuild {
    /// Paper around flutes.
    #[default]
    Corrugated,
    /// Paper around foam.
    FoamCore,
    /// Two walls of polypropylene.
    TwinWall,
    /// Wood or fibre all through.
    Solid,
}

impl BoardBuild {
    /// Returns the share of the caliper that counts when the board stretches: 1.73 for skins around a
    /// core, one for a solid board. Source: plate theory.
    #[must_use]
    pub const fn stretch_factor(self) -> f64 {
        match self {
            Self::Corrugated | Self::FoamCore | Self::TwinWall => 1.73,
            Self::Solid => 1.0,
        }
    }

    /// Tells whether it is plastic.
    #[must_use]
    pub const fn is_plastic(self) -> bool {
        matches!(self, Self::TwinWall)
    }
}

/// A size that a board is sold in.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Sheet {
    /// Across the flutes or grain.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Along the flutes or grain.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Of one sheet.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
}

impl Board {
    /// Tells whether it is slit half through from outside and folded at its inner skin, as foam board is.
    #[must_use]
    pub fn slits(&self) -> bool {
        self.build == BoardBuild::FoamCore
    }

    /// Tells whether a box can be made of it.
    #[must_use]
    pub fn makes_boxes(&self) -> bool {
        self.folds || self.slits()
    }

    /// Returns what it takes to be pierced, in joules: as it is typed, else 3·(g/m² ÷ 430)^1.4 for corrugated board and twin-wall,
    /// caliper^1.35 in mm for what is solid, and 2·(caliper ÷ 5)^0.8 for foam board. Source: trade values.
    #[must_use]
    pub fn puncture(&self) -> f64 {
        self.puncture.unwrap_or_else(|| match self.build {
            BoardBuild::Corrugated | BoardBuild::TwinWall => {
                3.0 * (self.areal_density.as_g_m2() / 430.0).powf(1.4)
            }
            BoardBuild::Solid => puncture_of_solid(self.caliper),
            BoardBuild::FoamCore => 2.0 * (self.caliper.as_mm() / 5.0).powf(0.8),
        })
    }

    /// Returns what a square metre costs when nothing of a sheet is lost: the cheapest sheet by area,
    /// nothing for a board that has no sheets.
    #[must_use]
    pub fn price_per_m2(&self) -> Decimal {
        let by_area = |sheet: &Sheet| {
            let area = decimal_of((sheet.width * sheet.height).as_m2());
            (sheet.price, area)
        };
        // Held against each other crosswise, so that only the cheapest is divided.
        let cheapest = self
            .sheets
            .iter()
            .map(by_area)
            .filter(|(_, area)| !area.is_zero())
            .min_by(|one, other| (one.0 * other.1).cmp(&(other.0 * one.1)));
        cheapest
            .and_then(|(price, area)| price.checked_div(area))
            .unwrap_or_default()
    }
}

fn puncture_of_solid(caliper: Length) -> f64 {
    caliper.as_mm().powf(1.35)
}

/// Walls of corrugated board by their caliper, in mm, and what they take to be pierced, in joules. Source: trade values.
const WALLS: [[f64; 2]; 4] = [[1.6, 3.0], [3.0, 3.8], [4.0, 4.5], [6.8, 9.0]];

/// Returns the energy that the wall of a bought mailer or carton takes to be pierced, in joules: 0 for a wall without a stiffness, such as
/// a paper bag; a wall under 1 mm counts as solid board.
#[must_use]
pub fn puncture_of_wall(wall: Length, stiffness: Option<Stiffness>) -> f64 {
    if stiffness.is_none() {
        return 0.0;
    }
    if wall < Length::mm(1.0) {
        return puncture_of_solid(wall);
    }
    straight_in_logs(&WALLS, wall.as_mm()).expect("there are walls")
}

#[cfg(test)]
mod tests {
    use rust_decimal_macros::dec;

    use super::*;

    #[test]
    fn the_cheapest_sheet_by_area_sets_the_price() {
        // 1 × 1 m at 3.00 is 3.00 a m²; 2 × 1 m at 5.00 is 2.50
        let sheet = |width, price| Sheet {
            width: Length::mm(width),
            height: Length::mm(1000.0),
            price,
        };
        let board = Board {
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
            sheets: vec![sheet(1000.0, dec!(3)), sheet(2000.0, dec!(5))],
        };
        assert_eq!(board.price_per_m2(), dec!(2.5));
    }
}
