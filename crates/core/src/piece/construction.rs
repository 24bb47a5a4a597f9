//! What carries the art, and what that weighs.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

use super::{FrameHolds, PaintBody, PieceSize};
use crate::quantity::{Area, ArealDensity, Length, LinearDensity, Mass, ceil_count};

/// What carries the art.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, Hash, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Construction {
    /// Cloth on stretcher bars.
    StretchedCanvas,
    /// A plywood panel on a cradle of battens.
    CradledPanel,
    /// A board without a cradle: hardboard, plywood, mounted print.
    RigidBoard,
    /// Paper behind glass in a wooden frame.
    FramedUnderGlass,
    /// Paper behind acrylic in a wooden frame.
    FramedUnderAcrylic,
    /// A canvas or panel in a wooden frame, without glazing.
    FramedUnglazed,
    /// A mirror, framed or not.
    Mirror,
    /// Loose sheets of paper.
    LoosePaper,
    /// A canvas off its bars.
    LooseCanvas,
    /// Like panels that travel together.
    PanelSet,
}

/// What stands before the art.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Glazing {
    /// Nothing.
    None,
    /// Glass, or the glass of a mirror.
    Glass,
    /// Acrylic sheet.
    Acrylic,
}

/// Bars that are 18 mm deep, in kg/m: indicative.
const THIN_BAR: (Length, f64) = (Length::mm(18.0), 300.0);
/// Bars that are 38 mm deep, in kg/m: indicative.
const DEEP_BAR: (Length, f64) = (Length::mm(38.0), 600.0);
/// A bar is put across for each such length of the side that it props.
const CROSSBAR_EVERY: Length = Length::mm(800.0);
const CLOTH_AND_GROUND: ArealDensity = ArealDensity::g_m2(450.0);
const CRADLED_PLYWOOD: ArealDensity = ArealDensity::g_m2(6000.0);
/// Two millimetres thick.
const GLASS: ArealDensity = ArealDensity::g_m2(5000.0);
/// Two millimetres thick.
const ACRYLIC: ArealDensity = ArealDensity::g_m2(2400.0);
/// Mount board 1.4 mm and a backing of fibreboard 3 mm, with the sheet itself.
const MOUNT_AND_BACKING: ArealDensity = ArealDensity::g_m2(850.0 + 2250.0 + 300.0);
/// Mirror glass 4 mm and a backing of fibreboard 3 mm.
const MIRROR_AND_BACKING: ArealDensity = ArealDensity::g_m2(10_000.0 + 2250.0);
/// Hardboard and mounted prints, for each millimetre of depth, up to so many.
const BOARD_G_M2_PER_MM: f64 = 900.0;
const BOARD_MOST: Length = Length::mm(6.0);
/// A canvas or panel in a frame is so much shallower than the frame.
const FRAME_LIP: Length = Length::mm(12.0);
const DRAWING_PAPER: ArealDensity = ArealDensity::g_m2(300.0);
/// A moulding is taken this wide on the face, its depth being that of the piece.
const MOULDING_FACE: Length = Length::mm(20.0);
/// Ash or oak weighs 680 g for each metre of 10 cm² section.
const ASH_G_M_PER_MM2: f64 = 0.68;

impl Construction {
    /// Every construction, in the order in which the interface offers them.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::StretchedCanvas,
        Self::CradledPanel,
        Self::RigidBoard,
        Self::FramedUnderGlass,
        Self::FramedUnderAcrylic,
        Self::FramedUnglazed,
        Self::Mirror,
        Self::LoosePaper,
        Self::LooseCanvas,
        Self::PanelSet,
    ];

    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::StretchedCanvas => "stretched canvas",
            Self::CradledPanel => "cradled panel",
            Self::RigidBoard => "rigid board",
            Self::FramedUnderGlass => "framed piece under glass",
            Self::FramedUnderAcrylic => "framed piece under acrylic",
            Self::FramedUnglazed => "framed piece without glazing",
            Self::Mirror => "mirror",
            Self::LoosePaper => "loose paper",
            Self::LooseCanvas => "loose canvas",
            Self::PanelSet => "set of panels",
        }
    }

    /// Returns what stands before the art.
    #[must_use]
    pub const fn glazing(self) -> Glazing {
        match self {
            Self::FramedUnderGlass | Self::Mirror => Glazing::Glass,
            Self::FramedUnderAcrylic => Glazing::Acrylic,
            _ => Glazing::None,
        }
    }

    /// Tells whether the art lies behind glass or acrylic, out of reach of any sheet.
    #[must_use]
    pub fn is_glazed(self) -> bool {
        self.glazing() != Glazing::None
    }

    /// Tells whether it has a frame of moulding around it.
    #[must_use]
    pub const fn is_framed(self) -> bool {
        matches!(
            self,
            Self::FramedUnderGlass | Self::FramedUnderAcrylic | Self::FramedUnglazed | Self::Mirror
        )
    }

    /// Tells whether nothing stiff carries it.
    #[must_use]
    pub const fn is_loose(self) -> bool {
        self.sheet_depth().is_some()
    }

    /// Returns how thick a loose sheet is where nobody measured it; `None` for a piece that has a depth.
    #[must_use]
    pub const fn sheet_depth(self) -> Option<Length> {
        match self {
            Self::LoosePaper => Some(Length::mm(0.3)),
            Self::LooseCanvas => Some(Length::mm(1.2)),
            Self::StretchedCanvas
            | Self::CradledPanel
            | Self::RigidBoard
            | Self::FramedUnderGlass
            | Self::FramedUnderAcrylic
            | Self::FramedUnglazed
            | Self::Mirror
            | Self::PanelSet => None,
        }
    }

    /// Tells whether its face is cloth that gives, with bars only along the edges.
    #[must_use]
    pub const fn is_cloth(self) -> bool {
        matches!(self, Self::StretchedCanvas | Self::LooseCanvas)
    }

    /// Returns what one piece of this construction weighs by its make, in grams: `face` is the area of its face by its outline,
    /// `holds` what is in its frame.
    ///
    /// Source: indicative densities of the starting catalogue. It grows with every side.
    #[must_use]
    pub fn mass(
        self,
        size: PieceSize,
        face: Area,
        paint: PaintBody,
        holds: Option<FrameHolds>,
    ) -> Mass {
        let painted = paint.areal_density() * face;
        match self {
            Self::StretchedCanvas => canvas(size, face) + painted,
            Self::CradledPanel | Self::PanelSet => CRADLED_PLYWOOD * face + painted,
            Self::RigidBoard => {
                let board = size.depth.min(BOARD_MOST).as_mm() * BOARD_G_M2_PER_MM;
                ArealDensity::g_m2(board) * face + painted
            }
            Self::FramedUnderGlass => GLASS * face + framed(size, face, painted, holds),
            Self::FramedUnderAcrylic => ACRYLIC * face + framed(size, face, painted, holds),
            Self::FramedUnglazed => framed(size, face, painted, holds),
            Self::Mirror => MIRROR_AND_BACKING * face + moulding(size),
            Self::LoosePaper => DRAWING_PAPER * face,
            Self::LooseCanvas => CLOTH_AND_GROUND * face + painted,
        }
    }
}

/// Cloth, ground and bars.
fn canvas(size: PieceSize, face: Area) -> Mass {
    CLOTH_AND_GROUND * face + bar(size.depth) * bar_length(size)
}

/// A frame with what is in it, without its pane.
fn framed(size: PieceSize, face: Area, painted: Mass, holds: Option<FrameHolds>) -> Mass {
    let held = match holds {
        None => Mass::ZERO,
        Some(FrameHolds::Paper) => MOUNT_AND_BACKING * face,
        Some(FrameHolds::Panel) => CRADLED_PLYWOOD * face + painted,
        Some(FrameHolds::StretchedCanvas) => {
            let depth = (size.depth - FRAME_LIP).max(size.depth / 2.0);
            canvas(PieceSize { depth, ..size }, face) + painted
        }
    };
    held + moulding(size)
}

/// The frame, its depth that of the piece.
fn moulding(size: PieceSize) -> Mass {
    let section = MOULDING_FACE.as_mm() * size.depth.as_mm();
    LinearDensity::g_m(ASH_G_M_PER_MM2 * section) * size.perimeter()
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
        let size = PieceSize {
            width,
            height,
            depth,
        };
        let holds = construction.usually_holds();
        construction
            .mass(size, size.face(), PaintBody::Thin, holds)
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
        // Mirror 780 × 1050 × 30: 12 250 × 0.819 = 10 032.75; 0.68 × 600 = 408 g/m × 3.66 m = 1493.28
        assert!((grams(Construction::Mirror, [780.0, 1050.0, 30.0]) - 11_526.03).abs() < 1e-9);
        // Hardboard 300 × 400 × 3: 2700 × 0.12 + 400 × 0.12 = 372
        assert!((grams(Construction::RigidBoard, [300.0, 400.0, 3.0]) - 372.0).abs() < 1e-9);
    }
}
