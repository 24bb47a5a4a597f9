//! What is bought and used by the piece: slip-on corners, tags, sachets and tubes.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{MaterialId, Shelf};
use crate::{
    quantity::{Length, LinearDensity, Mass, Stiffness},
    space::Opens,
};

/// A bought corner that slips on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SlipOnCorner {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// The thinnest piece that it holds.
    #[serde(rename = "depth_from_mm")]
    pub depth_from: Length,
    /// The thickest piece that goes in.
    #[serde(rename = "depth_to_mm")]
    pub depth_to: Length,
    /// How far it reaches along each edge.
    #[serde(rename = "leg_mm")]
    pub leg: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// Of one.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of one.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

impl SlipOnCorner {
    /// Tells whether a depth goes in and is held.
    #[must_use]
    pub fn fits(&self, depth: Length) -> bool {
        (self.depth_from..=self.depth_to).contains(&depth)
    }
}

/// What a thing used by the piece is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Use {
    /// Says which piece it is, and which side is the face and the top.
    NameTag,
    /// Keeps a sealed bag dry.
    Desiccant,
    /// Asks for care.
    Label,
    /// Says whose work it is, on a parcel that is dressed.
    StudioMark,
    /// Set over an edge, cut to its length.
    EdgeProfile,
    /// Holds the faces of a case on its frame.
    Screw,
    /// Holds the corners of a case together.
    CornerBrace,
    /// On a case that is heavy.
    Handle,
    /// Below a case.
    Foot,
    /// Holds board on board; one of it is a gram.
    Glue,
    /// Screwed across the joint of two battens.
    Plate,
}

/// A batten of wood, sawn to length.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Batten {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Its shorter side.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Its longer side.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// As it is sold.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// Of a metre.
    #[serde(rename = "linear_density_g_m")]
    pub linear_density: LinearDensity,
    /// Of a metre.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
    /// Whether it is heat-treated and stamped, as wood that crosses a border has to be.
    #[serde(default)]
    pub treated: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A small thing used by the piece.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Sundry {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// What it is for.
    #[serde(rename = "use")]
    pub purpose: Use,
    /// Of one; of a screw its diameter.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// Of a screw: from its head to its point. `None` of anything else, and of a screw of which it isn't said: such a one is taken as 30.
    #[serde(rename = "length_mm", default)]
    pub length: Option<Length>,
    /// Of one.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of one.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// Screws were of this length before others were sold.
const USUAL_SCREW: Length = Length::mm(30.0);

impl Sundry {
    /// Returns how long it is as a screw.
    #[must_use]
    pub fn screw_length(&self) -> Length {
        self.length.unwrap_or(USUAL_SCREW)
    }
}

/// A round tube, cut to length.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Tube {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Clear inside.
    #[serde(rename = "inside_mm")]
    pub inside: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// The longest that it is sold in.
    #[serde(rename = "longest_mm")]
    pub longest: Length,
    /// Of its length.
    #[serde(rename = "linear_density_g_m")]
    pub linear_density: LinearDensity,
    /// Of a metre.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A core that a sheet is rolled on: a cut of tube that stays in the roll.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RollCore {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Across, where the sheet lies on it.
    #[serde(rename = "outside_mm")]
    pub outside: Length,
    /// The longest that it is sold in.
    #[serde(rename = "longest_mm")]
    pub longest: Length,
    /// Of its length.
    #[serde(rename = "linear_density_g_m")]
    pub linear_density: LinearDensity,
    /// Of a metre.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A stiff mailer or a padded one.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Mailer {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Clear inside, along its shorter side.
    #[serde(rename = "inside_width_mm")]
    pub inside_width: Length,
    /// Clear inside, along its longer side.
    #[serde(rename = "inside_length_mm")]
    pub inside_length: Length,
    /// Of one wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// How a wall resists bending; unknown when absent.
    #[serde(
        rename = "stiffness_nm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub stiffness: Option<Stiffness>,
    /// Of one.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of one.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

const fn two() -> u32 {
    2
}

/// Parts of a kit lap by at least this, where its entry says nothing else. Source: packaging engineering practice.
const fn usual_lap() -> Length {
    Length::mm(60.0)
}

/// What kind of kit a bought carton is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Kit {
    /// One slotted carton.
    Carton,
    /// Two trays, one over the other.
    Trays,
    /// Two halves, each closed at one end.
    Telescope,
    /// A set of corners that slide into each other, with middles where there are three, six or eight parts.
    Corners,
}

/// How many parts a set of corners has.
pub(super) const SETS: [u32; 5] = [2, 3, 4, 6, 8];

/// A bought carton: halves or corners that slide into each other, a tray with a lid, a box of one size, or one that is
/// scored for several depths.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PictureCarton {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// The largest face that goes in, its longer side.
    #[serde(rename = "longest_mm")]
    pub longest: Length,
    /// …its shorter side.
    #[serde(rename = "widest_mm")]
    pub widest: Length,
    /// …and how deep.
    #[serde(rename = "deepest_mm")]
    pub deepest: Length,
    /// Where its longer side slides: how far it closes.
    #[serde(
        rename = "shortest_mm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub shortest: Option<Length>,
    /// Where its shorter side slides: how far it closes.
    #[serde(
        rename = "narrowest_mm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub narrowest: Option<Length>,
    /// Where its depth slides: how far it closes.
    #[serde(
        rename = "shallowest_mm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub shallowest: Option<Length>,
    /// Where it is scored for several depths: each of them.
    #[serde(rename = "depths_mm", default, skip_serializing_if = "Vec::is_empty")]
    pub depths: Vec<Length>,
    /// How many parts it has.
    #[serde(default = "two")]
    pub parts: u32,
    /// What kind of kit it is; where nothing is said, one part is a carton, two that don't slide are trays, and all others are a set of
    /// corners.
    #[serde(rename = "kit", default, skip_serializing_if = "Option::is_none")]
    pub kit_said: Option<Kit>,
    /// How far the parts of a set of corners lap at least.
    #[serde(rename = "lap_mm", default = "usual_lap")]
    pub lap: Length,
    /// On which side it opens.
    #[serde(default)]
    pub opens: Opens,
    /// What it adds outside to each of its three sides; twice its wall where nothing is said.
    #[serde(
        rename = "outside_adds_mm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub outside_adds: Option<Length>,
    /// How its wall resists bending; unknown when absent.
    #[serde(
        rename = "stiffness_nm",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    pub stiffness: Option<Stiffness>,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// Of one.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Of one.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price: Decimal,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

impl PictureCarton {
    /// Returns what kind of kit it is.
    #[must_use]
    pub const fn kit(&self) -> Kit {
        match (self.kit_said, self.parts) {
            (Some(kit), _) => kit,
            (None, 0 | 1) => Kit::Carton,
            (None, 2) if self.shortest.is_none() && self.narrowest.is_none() => Kit::Trays,
            (None, _) => Kit::Corners,
        }
    }
}
