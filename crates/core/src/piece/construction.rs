//! What carries the art, and what that weighs.

use serde::{Deserialize, Serialize};

use super::{PaintBody, PieceSize};
use crate::quantity::{ArealDensity, Length, LinearDensity, Mass, ceil_count};

/// What carries the art.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Construction {
    /// Cloth on stretcher bars.
    StretchedCanvas,
    /// A plywood panel on a cradle of battens.
    CradledPanel,
    /// Paper behind glass in a wooden frame.
    FramedUnderGlass,
}

/// Bars that are 18 mm deep, in kg/m: indicative.
const THIN_BAR: (Length, f64) = (Length::mm(18.0), 300.0);
/// Bars that are 38 mm deep, in kg/m: indicative.
const DEEP_BAR: (Length, f64) = (Length::mm(38.0), 600.0);
/// A bar is put across for each such length of the side that it props.
const CROSSBAR_EVERY: Length = Length::mm(800.0);
const CLOTH_AND_GROUND: ArealDensity = ArealDensity::g_m2(450.0);
const CRADLED_PLYWOOD: ArealDensity = ArealDensity::g_m2(6000.0);
/// Glass 2 mm, mount board 1.4 mm and a backing of fibreboard 3 mm, with the sheet itself.
const GLAZING_AND_BACKING: ArealDensity = ArealDensity::g_m2(5000.0 + 850.0 + 2250.0 + 300.0);
/// A moulding is taken this wide on the face, its depth being that of the piece.
const MOULDING_FACE: Length = Length::mm(20.0);
/// Ash or oak weighs 680 g for each metre of 10 cm² section.
const ASH_G_M_PER_MM2: f64 = 0.68;

impl Construction {
    /// Every construction, in the order in which the interface offers them.
    pub const ALL: [Self; 3] = [
        Self::StretchedCanvas,
        Self::CradledPanel,
        Self::FramedUnderGlass,
    ];

    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::StretchedCanvas => "stretched canvas",
            Self::CradledPanel => "cradled panel",
            Self::FramedUnderGlass => "framed under glass",
        }
    }

    /// Tells whether the art lies behind glass, out of reach of any sheet.
    #[must_use]
    pub const fn is_glazed(self) -> bool {
        matches!(self, Self::FramedUnderGlass)
    }

    /// Returns what a piece of this construction weighs by its make, in grams.
    ///
    /// Source: indicative densities of the starting catalogue. It grows with every side.
    #[must_use]
    pub fn mass(self, size: PieceSize, paint: PaintBody) -> Mass {
        match self {
            Self::StretchedCanvas => {
                let cloth = CLOTH_AND_GROUND * size.face() + paint.areal_density() * size.face();
                cloth + bar(size.depth) * bar_length(size)
            }
            Self::CradledPanel => {
                CRADLED_PLYWOOD * size.face() + paint.areal_density() * size.face()
            }
            Self::FramedUnderGlass => {
                let section = MOULDING_FACE.as_mm() * size.depth.as_mm();
                GLAZING_AND_BACKING * size.face()
                    + LinearDensity::g_m(ASH_G_M_PER_MM2 * section) * size.perimeter()
            }
        }
    }
}

/// Bars by their depth: in proportion up to the thin one, then on the line through both.
fn bar(depth: Length) -> LinearDensity {
    let (thin, thin_g_m) = THIN_BAR;
    let (deep, deep_g_m) = DEEP_BAR;
    let grams = if depth <= thin {
        thin_g_m * (depth / thin)
    } else {
        thin_g_m + (deep_g_m - thin_g_m) * ((depth - thin) / (deep - thin))
    };
    LinearDensity::g_m(grams)
}

/// The way around, and the crossbars that prop each pair of sides.
fn bar_length(size: PieceSize) -> Length {
    let props = |side: Length| f64::from(ceil_count(side / CROSSBAR_EVERY).saturating_sub(1));
    size.perimeter() + size.width * props(size.height) + size.height * props(size.width)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn grams(construction: Construction, sides: [f64; 3]) -> f64 {
        let [width, height, depth] = sides.map(Length::mm);
        construction
            .mass(
                PieceSize {
                    width,
                    height,
                    depth,
                },
                PaintBody::Thin,
            )
            .as_g()
    }

    #[test]
    fn pieces_weigh_what_their_make_says() {
        // Canvas 900 × 1200 × 38: cloth and paint (450 + 400) × 1.08 = 918; around 4.2 m, one bar of
        // 0.9 m for the height over 800, one of 1.2 m for the width over 800: 6.3 m × 600 = 3780
        assert!(
            (grams(Construction::StretchedCanvas, [900.0, 1200.0, 38.0]) - 4698.0).abs() < 1e-9
        );
        // Canvas 500 × 700 × 18: 850 × 0.35 = 297.5; 2.4 m × 300 = 720
        assert!((grams(Construction::StretchedCanvas, [500.0, 700.0, 18.0]) - 1017.5).abs() < 1e-9);
        // Frame 520 × 380 × 24: 8400 × 0.1976 = 1659.84; 0.68 × 480 mm² = 326.4 g/m × 1.8 m = 587.52
        assert!(
            (grams(Construction::FramedUnderGlass, [520.0, 380.0, 24.0]) - 2247.36).abs() < 1e-9
        );
        // Panel 200 × 200: (6000 + 400) × 0.04 = 256
        assert!((grams(Construction::CradledPanel, [200.0, 200.0, 20.0]) - 256.0).abs() < 1e-9);
    }
}
