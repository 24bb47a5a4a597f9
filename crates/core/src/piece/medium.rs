//! What a piece is painted, drawn or printed in.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

use crate::quantity::ArealDensity;

/// The surface that a contact sheet would lie against.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, Hash, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Medium {
    /// Oil paint.
    Oil,
    /// Oil paint with a fast-drying medium.
    OilFastDrying,
    /// Acrylic paint.
    Acrylic,
    /// Gouache or watercolour.
    Watercolour,
    /// Pigmented wax.
    Encaustic,
    /// A print in ink.
    Print,
    /// A drawing in pencil or ink.
    Drawing,
    /// A work on paper that was waxed.
    WaxedPaper,
    /// Pastel or charcoal.
    PastelOrCharcoal,
    /// A photograph.
    Photograph,
    /// Poured resin: soft when it is warm.
    Resin,
    /// Gold, silver or metal leaf.
    Gilding,
    /// Glued paper and things, with edges that stand up.
    Collage,
    /// Spray paint.
    SprayPaint,
}

impl Medium {
    /// Every medium, in the order in which the interface offers them.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Oil,
        Self::OilFastDrying,
        Self::Acrylic,
        Self::Watercolour,
        Self::Encaustic,
        Self::Print,
        Self::Drawing,
        Self::WaxedPaper,
        Self::PastelOrCharcoal,
        Self::Photograph,
        Self::Resin,
        Self::Gilding,
        Self::Collage,
        Self::SprayPaint,
    ];

    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Oil => "oil",
            Self::OilFastDrying => "oil with a fast-drying medium",
            Self::Acrylic => "acrylic",
            Self::Watercolour => "gouache or watercolour",
            Self::Encaustic => "encaustic",
            Self::Print => "print",
            Self::Drawing => "drawing",
            Self::WaxedPaper => "waxed work on paper",
            Self::PastelOrCharcoal => "pastel or charcoal",
            Self::Photograph => "photograph",
            Self::Resin => "resin",
            Self::Gilding => "gilding",
            Self::Collage => "collage",
            Self::SprayPaint => "spray paint",
        }
    }
}

impl Medium {
    /// Tells whether nothing may press on it, so that a board is held off it unless somebody says otherwise:
    /// resin takes a print when it is warm, and the edges of a collage stand up.
    #[must_use]
    pub const fn takes_no_pressure(self) -> bool {
        matches!(self, Self::Resin | Self::Collage)
    }
}

/// How thickly the paint lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, Hash)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PaintBody {
    /// The weave or the paper shows through.
    #[default]
    Thin,
    /// Brush marks stand up.
    Raised,
    /// Laid on with a knife.
    Impasto,
}

impl PaintBody {
    /// Returns what the paint weighs.
    ///
    /// Source: indicative values of the starting catalogue, 0.4 kg/m² thin to 2.5 kg/m² for heavy
    /// impasto; raised paint is taken between.
    #[must_use]
    pub const fn areal_density(self) -> ArealDensity {
        ArealDensity::g_m2(match self {
            Self::Thin => 400.0,
            Self::Raised => 1200.0,
            Self::Impasto => 2500.0,
        })
    }
}
