//! The kinds of pieces that have odds of their own.

use serde::{Deserialize, Serialize};

use crate::{
    piece::{Construction, Piece},
    quantity::{Area, Length},
};

/// How a parcel travels, as far as its odds go.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub(crate) enum Travels {
    /// In a box.
    Boxed,
    /// In a mailer.
    Mailed,
    /// In a tube.
    Rolled,
}

/// What a row of the table starts with, in percent.
pub(super) struct StartRow {
    /// How many in a hundred arrive damaged.
    pub base: f64,
    /// At which size, in mm or in m² of glass.
    pub size: Option<f64>,
    /// How many at a smaller size, and that size.
    pub small: Option<(f64, f64)>,
    /// How many at a larger size, and that size.
    pub large: Option<(f64, f64)>,
    /// The share of each hazard, in the order of [`Hazard::ALL`](super::Hazard::ALL).
    pub shares: [f64; 6],
}

macro_rules! classes {
    ($($(#[$doc:meta])* $class:ident = $name:literal: $base:literal at $size:expr, $small:expr, $large:expr, [$($share:literal),+];)*) => {
        /// A kind of piece with a row of its own in the table of odds.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "snake_case")]
        pub enum PieceClass {
            $($(#[$doc])* $class,)*
        }

        impl PieceClass {
            /// Every class, in the order in which they are shown.
            pub const ALL: &[Self] = &[$(Self::$class,)*];

            /// What people call it.
            #[must_use]
            pub const fn name(self) -> &'static str {
                match self { $(Self::$class => $name,)* }
            }

            /// What it starts with. Source: trade judgement.
            #[must_use]
            pub(super) const fn start(self) -> StartRow {
                match self {
                    $(Self::$class => StartRow {
                        base: $base,
                        size: $size,
                        small: $small,
                        large: $large,
                        shares: [$($share),+],
                    },)*
                }
            }
        }
    };
}

classes! {
    /// Loose sheets between boards, in a box.
    PaperBoxed = "paper between boards, boxed": 0.2 at None, None, None, [0.0, 20.0, 40.0, 15.0, 5.0, 20.0];
    /// Loose sheets between boards, in a mailer.
    PaperMailed = "paper between boards, in a mailer": 0.4 at None, None, None, [0.0, 20.0, 40.0, 15.0, 5.0, 20.0];
    /// A sheet rolled in a tube.
    Rolled = "rolled in a tube": 0.3 at None, None, None, [0.0, 20.0, 70.0, 0.0, 0.0, 10.0];
    /// A stretched canvas up to 1.2 m.
    Canvas = "stretched canvas to 1.2 m": 0.3 at Some(1000.0), None, None, [15.0, 35.0, 20.0, 20.0, 5.0, 5.0];
    /// A larger one.
    CanvasLarge = "stretched canvas over 1.2 m": 1.2 at Some(1600.0), None, None, [15.0, 35.0, 20.0, 20.0, 5.0, 5.0];
    /// A cradled panel or a rigid board; sets of them too.
    Panel = "cradled panel or rigid board": 0.3 at Some(1000.0), None, Some((0.9, 1600.0)), [15.0, 45.0, 15.0, 10.0, 10.0, 5.0];
    /// In a frame, without glazing.
    FramedUnglazed = "framed, unglazed": 0.6 at Some(1000.0), None, Some((1.5, 1600.0)), [15.0, 50.0, 15.0, 10.0, 5.0, 5.0];
    /// In a frame, under acrylic.
    FramedAcrylic = "framed under acrylic": 0.6 at Some(1000.0), None, Some((1.5, 1600.0)), [15.0, 45.0, 15.0, 10.0, 10.0, 5.0];
    /// Under a pane of glass up to 0.13 m².
    GlassSmall = "under glass to 0.13 m²": 1.0 at Some(0.08), None, None, [35.0, 40.0, 10.0, 5.0, 5.0, 5.0];
    /// …up to 0.5 m².
    GlassMedium = "under glass to 0.5 m²": 2.0 at Some(0.3), None, None, [35.0, 40.0, 10.0, 5.0, 5.0, 5.0];
    /// …up to 0.7 m².
    GlassLarge = "under glass to 0.7 m²": 3.5 at Some(0.6), None, None, [35.0, 40.0, 10.0, 5.0, 5.0, 5.0];
    /// …and larger.
    GlassHuge = "under glass over 0.7 m²": 6.0 at Some(0.9), None, None, [35.0, 40.0, 10.0, 5.0, 5.0, 5.0];
    /// A mirror up to 0.5 m².
    Mirror = "mirror to 0.5 m²": 4.0 at Some(0.3), Some((1.3, 0.06)), None, [40.0, 40.0, 7.0, 3.0, 5.0, 5.0];
    /// A larger one.
    MirrorLarge = "mirror over 0.5 m²": 8.0 at Some(0.8), None, None, [40.0, 40.0, 7.0, 3.0, 5.0, 5.0];
}

const LARGE_CANVAS: Length = Length::mm(1200.0);
const SMALL_PANE: Area = Area::m2(0.13);
const MEDIUM_PANE: Area = Area::m2(0.5);
const LARGE_PANE: Area = Area::m2(0.7);
const LARGE_MIRROR: Area = Area::m2(0.5);

impl PieceClass {
    /// Returns the class of a piece by how it travels.
    #[must_use]
    pub(crate) fn of(piece: &Piece, travels: Travels) -> Self {
        let pane = piece.pane_area();
        match piece.construction {
            _ if travels == Travels::Rolled => Self::Rolled,
            Construction::LoosePaper | Construction::LooseCanvas if travels == Travels::Mailed => {
                Self::PaperMailed
            }
            Construction::LoosePaper | Construction::LooseCanvas => Self::PaperBoxed,
            Construction::StretchedCanvas if piece.size.long_side() > LARGE_CANVAS => {
                Self::CanvasLarge
            }
            Construction::StretchedCanvas => Self::Canvas,
            Construction::CradledPanel | Construction::RigidBoard | Construction::PanelSet => {
                Self::Panel
            }
            Construction::FramedUnglazed => Self::FramedUnglazed,
            Construction::FramedUnderAcrylic => Self::FramedAcrylic,
            Construction::FramedUnderGlass if pane <= SMALL_PANE => Self::GlassSmall,
            Construction::FramedUnderGlass if pane <= MEDIUM_PANE => Self::GlassMedium,
            Construction::FramedUnderGlass if pane <= LARGE_PANE => Self::GlassLarge,
            Construction::FramedUnderGlass => Self::GlassHuge,
            Construction::Mirror if pane <= LARGE_MIRROR => Self::Mirror,
            Construction::Mirror => Self::MirrorLarge,
        }
    }

    /// The share of what is pressed in, in percent, that a studio began with before what is pierced had a share.
    pub(super) const fn pressed_before(self) -> f64 {
        match self {
            Self::PaperBoxed | Self::PaperMailed => 55.0,
            Self::Rolled => 70.0,
            Self::Canvas | Self::CanvasLarge => 40.0,
            Self::Panel | Self::FramedUnglazed | Self::FramedAcrylic => 25.0,
            Self::GlassSmall | Self::GlassMedium | Self::GlassLarge | Self::GlassHuge => 15.0,
            Self::Mirror | Self::MirrorLarge => 10.0,
        }
    }

    /// Returns the size that a piece's base goes by: the longest side in mm, of panes and mirrors the glass in m².
    pub(crate) fn size_of(self, piece: &Piece) -> f64 {
        if self.is_glass() {
            piece.pane_area().as_m2()
        } else {
            piece.size.long_side().as_mm()
        }
    }

    /// Tells whether it breaks as glass does.
    #[must_use]
    pub const fn is_glass(self) -> bool {
        matches!(
            self,
            Self::GlassSmall
                | Self::GlassMedium
                | Self::GlassLarge
                | Self::GlassHuge
                | Self::Mirror
                | Self::MirrorLarge
        )
    }

    /// Tells whether it is loose sheets, flat or rolled.
    #[must_use]
    pub const fn is_loose(self) -> bool {
        matches!(self, Self::PaperBoxed | Self::PaperMailed | Self::Rolled)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::piece::{Medium, PieceSize};

    #[test]
    fn a_piece_is_classed_by_make_size_and_way() {
        let class = |construction, [w, h, d]: [f64; 3], travels| {
            let [width, height, depth] = [w, h, d].map(Length::mm);
            let size = PieceSize {
                width,
                height,
                depth,
            };
            PieceClass::of(
                &Piece::new(construction, size, Some(Medium::Print)),
                travels,
            )
        };
        let boxed = |construction, sides| class(construction, sides, Travels::Boxed);
        use Construction as C;
        for (found, wanted) in [
            (
                boxed(C::StretchedCanvas, [900.0, 1200.0, 38.0]),
                PieceClass::Canvas,
            ),
            (
                boxed(C::StretchedCanvas, [900.0, 1201.0, 38.0]),
                PieceClass::CanvasLarge,
            ),
            // The pane of 340 × 460 is 300 × 420: 0.126 m²
            (
                boxed(C::FramedUnderGlass, [340.0, 460.0, 24.0]),
                PieceClass::GlassSmall,
            ),
            (
                boxed(C::FramedUnderGlass, [520.0, 380.0, 24.0]),
                PieceClass::GlassMedium,
            ),
            (
                boxed(C::FramedUnderGlass, [800.0, 1000.0, 30.0]),
                PieceClass::GlassHuge,
            ),
            (boxed(C::Mirror, [500.0, 700.0, 25.0]), PieceClass::Mirror),
            (
                boxed(C::Mirror, [780.0, 1050.0, 30.0]),
                PieceClass::MirrorLarge,
            ),
            (boxed(C::PanelSet, [200.0, 200.0, 22.0]), PieceClass::Panel),
            (
                class(C::LoosePaper, [105.0, 148.0, 1.0], Travels::Mailed),
                PieceClass::PaperMailed,
            ),
            (
                class(C::LooseCanvas, [800.0, 1000.0, 1.0], Travels::Rolled),
                PieceClass::Rolled,
            ),
        ] {
            assert_eq!(found, wanted);
        }
    }
}
