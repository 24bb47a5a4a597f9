//! The shock a piece can take.

use serde::Serialize;

use super::{Condition, Construction, Medium, PaintBody, Piece};
use crate::quantity::{Frequency, Shock};

/// The shock a piece can take, and how quickly it answers a knock.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fragility {
    /// As a multiple of gravity.
    #[serde(rename = "limit_g")]
    pub limit: Shock,
    /// Its own, for knocks on the face.
    #[serde(rename = "face_frequency_hz")]
    pub face_frequency: Frequency,
    /// Whether the limit was set for this piece.
    pub set: bool,
    /// Why it is taken, in one sentence.
    pub reason: &'static str,
}

/// How quickly a piece answers a knock in its own plane.
pub const PLANE_FREQUENCY: Frequency = Frequency::hz(100.0);
/// Flaking paint, heavy impasto and bare pigment take no more than this.
const LOOSE_SURFACE: f64 = 35.0;

impl Fragility {
    /// Returns what a piece can take: as set for it, else by its kind and its surface, whichever is less.
    ///
    /// Source: indicative limits by kind, packaging engineering practice.
    #[must_use]
    pub fn of(piece: &Piece, rolled: bool) -> Self {
        let (limit, hertz, reason) = by_kind(piece.construction, rolled);
        let loose = match piece.medium {
            _ if piece.condition == Condition::Flaking => {
                Some("Loose or flaking paint is shaken off first.")
            }
            Some(Medium::PastelOrCharcoal) => Some("Pastel and charcoal are shaken off first."),
            Some(_) if piece.paint == PaintBody::Impasto => {
                Some("Heavy impasto cracks at its own weight first.")
            }
            _ => None,
        };
        let (limit, reason) = match loose {
            Some(reason) if LOOSE_SURFACE < limit => (LOOSE_SURFACE, reason),
            _ => (limit, reason),
        };
        Self {
            limit: piece.limit.unwrap_or(Shock::times_gravity(limit)),
            face_frequency: Frequency::hz(hertz),
            set: piece.limit.is_some(),
            reason,
        }
    }
}

/// Limit, frequency and reason of a kind in good order.
const fn by_kind(construction: Construction, rolled: bool) -> (f64, f64, &'static str) {
    if rolled {
        return (100.0, 30.0, "A roll has nothing to break but its paint.");
    }
    match construction {
        Construction::StretchedCanvas => (
            50.0,
            20.0,
            "A stretched cloth swings, and its corners open.",
        ),
        Construction::FramedUnglazed => (
            50.0,
            20.0,
            "The frame's mitres open before the piece is hurt.",
        ),
        Construction::CradledPanel | Construction::RigidBoard | Construction::PanelSet => {
            (60.0, 60.0, "A panel is stiff, and its joints hold.")
        }
        Construction::FramedUnderGlass => (45.0, 40.0, "The glass breaks before anything else."),
        Construction::FramedUnderAcrylic => (55.0, 30.0, "Acrylic bends where glass would break."),
        Construction::Mirror => (40.0, 50.0, "A mirror is large, heavy glass."),
        Construction::LoosePaper => (80.0, 30.0, "Paper between boards has nothing to break."),
        Construction::LooseCanvas => (
            80.0,
            30.0,
            "Cloth between boards has nothing to break but its paint.",
        ),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{piece::PieceSize, quantity::Length};

    fn piece(construction: Construction, medium: Medium) -> Piece {
        let [width, height, depth] = [600.0, 800.0, 20.0].map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        Piece::new(construction, size, Some(medium))
    }

    #[test]
    fn the_weaker_of_kind_and_surface_counts() {
        let limit = |piece: &Piece| Fragility::of(piece, false).limit.as_times_gravity();
        for (construction, medium, wanted) in [
            (Construction::StretchedCanvas, Medium::Oil, 50.0),
            (
                Construction::FramedUnderGlass,
                Medium::PastelOrCharcoal,
                35.0,
            ),
            (Construction::FramedUnderGlass, Medium::Print, 45.0),
            (Construction::CradledPanel, Medium::Acrylic, 60.0),
        ] {
            assert!((limit(&piece(construction, medium)) - wanted).abs() < 1e-12);
        }
        let flaking = Piece {
            condition: Condition::Flaking,
            ..piece(Construction::CradledPanel, Medium::Oil)
        };
        assert!((limit(&flaking) - 35.0).abs() < 1e-12);
        let set = Piece {
            limit: Some(Shock::times_gravity(70.0)),
            ..flaking
        };
        assert!((limit(&set) - 70.0).abs() < 1e-12);
        assert!(Fragility::of(&set, false).set);
    }
}
