//! Cushion wraps, foam, fill and films.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{MaterialId, Shelf};
use crate::{
    cushion::CushionCurve,
    quantity::{ArealDensity, Density, Length, decimal_of},
};

/// A cushion sold from the roll and wound around the piece.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CushionWrap {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Of one turn, under the light load of the turns around it.
    #[serde(rename = "loaded_thickness_mm")]
    pub loaded_thickness: Length,
    /// Of one turn.
    #[serde(rename = "areal_density_g_m2")]
    pub areal_density: ArealDensity,
    /// Of the roll it is cut from.
    #[serde(rename = "roll_width_mm")]
    pub roll_width: Length,
    /// Of a metre of the roll.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
    /// Where it tears by itself; lengths are rounded up to it.
    #[serde(
        rename = "tear_pitch_mm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub tear_pitch: Option<Length>,
    /// Whether it has bubbles on one side, which then lie outward.
    #[serde(default)]
    pub bubbles: bool,
    /// What it does in a fall; unknown when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub curve: Option<CushionCurve>,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A loose fill for the room between the wrapped piece and the box.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fill {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Loose, as it goes in.
    #[serde(rename = "density_kg_m3")]
    pub density: Density,
    /// Of a kilogram.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_kg: Decimal,
    /// Of one, where it comes by the piece, as pillows of air do.
    #[serde(
        rename = "each_litres",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub each_litres: Option<f64>,
    /// What it does in a fall; unknown when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub curve: Option<CushionCurve>,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A foam in sheets, cut into pads, strips and corner blocks.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Foam {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Of the foam.
    #[serde(rename = "density_kg_m3")]
    pub density: Density,
    /// What it does in a fall.
    pub curve: CushionCurve,
    /// Whether it leaves crumbs, and is faced in paper where it could meet the art.
    #[serde(default)]
    pub sheds: bool,
    /// The sheets on the shelf.
    pub sheets: Vec<FoamSheet>,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A size that a foam is sold in.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FoamSheet {
    /// One side.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// The other.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// As it comes.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Of one sheet.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
}

impl Foam {
    /// Returns what a cubic metre costs when nothing of a sheet is lost: the cheapest by volume.
    #[must_use]
    pub fn price_per_m3(&self) -> Decimal {
        self.sheets
            .iter()
            .filter_map(|sheet| {
                let volume = sheet.width * sheet.height * sheet.thickness;
                sheet.price.checked_div(decimal_of(volume.as_m3()))
            })
            .min()
            .unwrap_or_default()
    }

    /// Returns the least thickness, of one sheet or two laid together, that is not under the wanted one.
    #[must_use]
    pub fn thickness_from(&self, wanted: Length) -> Option<Length> {
        let single = self.sheets.iter().map(|sheet| sheet.thickness);
        let doubled = single
            .clone()
            .flat_map(|one| self.sheets.iter().map(move |other| one + other.thickness));
        single
            .chain(doubled)
            .filter(|&thickness| thickness >= wanted)
            .min()
    }
}

/// A film: to stretch around, or to seal in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Film {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Of one layer.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Of one layer.
    #[serde(rename = "areal_density_g_m2")]
    pub areal_density: ArealDensity,
    /// Of a square metre.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m2: Decimal,
    /// Whether it clings to itself; else it is a bag.
    #[serde(default)]
    pub clings: bool,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}
