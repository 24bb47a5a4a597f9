//! How often a piece arrives damaged by its size: between two sizes of a kind straight in logarithms.

use serde::{Deserialize, Serialize};

use super::{ClassRow, PieceClass};
use crate::quantity::straight_in_logs;

/// A kind of piece whose base goes by its size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SizedKind {
    /// A stretched canvas, by its longest side in mm.
    Canvas,
    /// A cradled panel or a rigid board, by its longest side in mm.
    Panel,
    /// A frame without glass, by its longest side in mm.
    Frame,
    /// A frame under glass, by its pane in m².
    Pane,
    /// A mirror, by its glass in m².
    Mirror,
}

/// A base at a size.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct BaseAt {
    /// In mm, or in m² of glass.
    pub size: f64,
    /// In percent.
    pub percent: f64,
}

impl SizedKind {
    /// Returns the rows that its bases stand in, from its smallest size up.
    #[must_use]
    pub const fn rows(self) -> &'static [PieceClass] {
        match self {
            Self::Canvas => &[PieceClass::Canvas, PieceClass::CanvasLarge],
            Self::Panel => &[PieceClass::Panel],
            Self::Frame => &[PieceClass::FramedUnglazed],
            Self::Pane => &[
                PieceClass::GlassSmall,
                PieceClass::GlassMedium,
                PieceClass::GlassLarge,
                PieceClass::GlassHuge,
            ],
            Self::Mirror => &[PieceClass::Mirror, PieceClass::MirrorLarge],
        }
    }
}

impl PieceClass {
    /// Returns every row of its kind, from the smallest size up; its own alone where its kind has one row, or none by size.
    pub(super) const fn rows_of_kind(self) -> &'static [Self] {
        match self {
            Self::PaperBoxed => &[Self::PaperBoxed],
            Self::PaperMailed => &[Self::PaperMailed],
            Self::Rolled => &[Self::Rolled],
            Self::FramedAcrylic => &[Self::FramedAcrylic],
            Self::Canvas | Self::CanvasLarge => SizedKind::Canvas.rows(),
            Self::Panel => SizedKind::Panel.rows(),
            Self::FramedUnglazed => SizedKind::Frame.rows(),
            Self::GlassSmall | Self::GlassMedium | Self::GlassLarge | Self::GlassHuge => {
                SizedKind::Pane.rows()
            }
            Self::Mirror | Self::MirrorLarge => SizedKind::Mirror.rows(),
        }
    }
}

impl ClassRow {
    /// Returns the bases of a row that stand at sizes, from the smallest up.
    pub(super) fn bases(&self) -> impl Iterator<Item = BaseAt> {
        let at = |percent: Option<f64>, size: Option<f64>| {
            percent
                .zip(size)
                .map(|(percent, size)| BaseAt { size, percent })
        };
        [
            at(self.base_percent_small, self.base_size_small),
            at(Some(self.base_percent), self.base_size),
            at(self.base_percent_large, self.base_size_large),
        ]
        .into_iter()
        .flatten()
    }
}

/// Returns the base of a size in percent: between two sizes ln base goes straight over ln size, below the first and above the last it
/// is level. Source: trade judgement.
pub(super) fn base_at(bases: &[BaseAt], size: f64) -> Option<f64> {
    let points: Vec<[f64; 2]> = bases.iter().map(|base| [base.size, base.percent]).collect();
    straight_in_logs(&points, size)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::odds::OddsTables;

    #[test]
    fn bases_go_straight_between_the_sizes_of_a_kind() {
        // A canvas of 1200: 0.3 × 4^(ln 1.2/ln 1.6) = 0.3 × 4^0.387923 = 0.513653; the others by an independent program.
        let tables = OddsTables::default();
        for (kind, size, percent) in [
            (SizedKind::Canvas, 1200.0, 0.513_653),
            (SizedKind::Canvas, 1400.0, 0.809_341),
            (SizedKind::Canvas, 300.0, 0.3),
            (SizedKind::Canvas, 2500.0, 1.2),
            (SizedKind::Pane, 0.16, 1.438_349),
            (SizedKind::Pane, 0.45, 2.774_586),
            (SizedKind::Mirror, 0.5, 5.739_042),
            (SizedKind::Mirror, 0.15, 2.465_13),
            (SizedKind::Panel, 1300.0, 0.553_935),
            (SizedKind::Frame, 1300.0, 1.000_66),
        ] {
            let found = tables.base_of(kind, size);
            assert!(
                (found / percent - 1.0).abs() < 5e-6,
                "{kind:?} {size}: {found} for {percent}"
            );
        }
    }
}
