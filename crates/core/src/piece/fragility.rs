//! The shock a piece can take.

use serde::Serialize;

use super::{Condition, Construction, Medium, PaintBody, Piece};
use crate::quantity::{Frequency, Length, Shock};

/// The shock a piece can take, and how quickly it answers a knock.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fragility {
    /// On its face, as a multiple of gravity; none for loose sheets, which are bent, crushed or wetted instead.
    #[serde(rename = "limit_g")]
    pub limit: Option<Shock>,
    /// Its own, for knocks on the face.
    #[serde(rename = "face_frequency_hz")]
    pub face_frequency: Frequency,
    /// How many times the limit it takes in its own plane.
    pub plane_factor: f64,
    /// How many times the limit it takes on its back.
    pub back_factor: f64,
    /// Whether the limit was set for this piece.
    pub set: bool,
    /// Why it is taken, in one sentence.
    pub reason: &'static str,
}

/// How quickly a piece answers a knock in its own plane.
pub const PLANE_FREQUENCY: Frequency = Frequency::hz(100.0);
/// Flaking paint, heavy impasto and bare pigment take no more than this.
const LOOSE_SURFACE: f64 = 35.0;
/// In its own plane a piece takes more: a canvas, panel or board…
const STIFF_IN_PLANE: f64 = 2.5;
/// …a frame without glass…
const FRAME_IN_PLANE: f64 = 1.8;
/// …and glass.
const GLASS_IN_PLANE: f64 = 1.5;
/// On its back a pane leans on the mount.
const GLAZED_BACK: f64 = 2.0;

/// A pane or a mirror that is 380 mm on its short side.
const KNOWN_PANE: Length = Length::mm(380.0);
const KNOWN_THICKNESS: Length = Length::mm(2.0);
/// How far a pane's size moves what it takes.
const LEAST_TOUGHNESS: f64 = 0.45;
const MOST_TOUGHNESS: f64 = 2.1;

/// Returns the shock and the frequency of a pane by its short side and its thickness.
///
/// With q = (t/2)·(380/b), kept between 0.45 and 2.1: 45·q² G and 40·q Hz. A small pane is tough, a large one
/// is not. Source: plate theory, tied to an indicative value.
#[must_use]
pub fn glass_limit(short_side: Length, thickness: Length) -> (Shock, Frequency) {
    let q = toughness(short_side, thickness / KNOWN_THICKNESS);
    (Shock::times_gravity(45.0 * q * q), Frequency::hz(40.0 * q))
}

/// Returns the shock and the frequency of a mirror by its short side, whatever its thickness: 40·q² G and 50·q
/// Hz, q = 380/b.
#[must_use]
pub fn mirror_limit(short_side: Length) -> (Shock, Frequency) {
    let q = toughness(short_side, 1.0);
    (Shock::times_gravity(40.0 * q * q), Frequency::hz(50.0 * q))
}

fn toughness(short_side: Length, times: f64) -> f64 {
    (times * (KNOWN_PANE / short_side)).clamp(LEAST_TOUGHNESS, MOST_TOUGHNESS)
}

impl Fragility {
    /// Returns what a kind and a size of piece usually take: in good order, in a plain frame, under its pane, whatever was set for it.
    #[must_use]
    pub fn usual(piece: &Piece, rolled: bool) -> Self {
        let kind = by_kind(piece).filter(|_| !rolled);
        let glazed = piece.construction.is_glazed();
        Self {
            limit: kind.as_ref().map(|kind| kind.limit),
            face_frequency: kind.as_ref().map_or(LOOSE_FREQUENCY, |kind| kind.frequency),
            plane_factor: kind.as_ref().map_or(1.0, |kind| kind.plane_factor),
            back_factor: if glazed { GLAZED_BACK } else { 1.0 },
            set: false,
            reason: kind.map_or(NOTHING_TO_BREAK, |kind| kind.reason),
        }
    }

    /// Returns what a piece takes as far as its odds go: as set for it, else by its kind, its own pane and its frame. A surface that is
    /// shaken off first counts in the base of the odds, and not here.
    #[must_use]
    pub fn own(piece: &Piece, rolled: bool) -> Self {
        let usual = Self::usual(piece, rolled);
        let framed = piece.frame_finish().limit_factor();
        Self {
            limit: usual
                .limit
                .map(|limit| piece.limit.unwrap_or(limit * framed)),
            set: piece.limit.is_some(),
            ..usual
        }
    }

    /// Returns what a piece can take: as set for it, else by its kind and its surface, whichever is less.
    ///
    /// In a frame that is delicate, ornate or old it takes 0.73 of that. Source: indicative limits by kind, packaging
    /// engineering practice.
    #[must_use]
    pub fn of(piece: &Piece, rolled: bool) -> Self {
        let Some(kind) = by_kind(piece).filter(|_| !rolled) else {
            return Self {
                limit: None,
                face_frequency: LOOSE_FREQUENCY,
                plane_factor: 1.0,
                back_factor: 1.0,
                set: false,
                reason: NOTHING_TO_BREAK,
            };
        };
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
        let weakest = Shock::times_gravity(LOOSE_SURFACE);
        let (limit, reason) = match loose {
            Some(reason) if weakest < kind.limit => (weakest, reason),
            _ => (kind.limit, kind.reason),
        };
        let glazed = piece.construction.is_glazed();
        let framed = piece.frame_finish().limit_factor();
        Self {
            limit: Some(piece.limit.unwrap_or(limit * framed)),
            face_frequency: kind.frequency,
            plane_factor: kind.plane_factor,
            back_factor: if glazed { GLAZED_BACK } else { 1.0 },
            set: piece.limit.is_some(),
            reason,
        }
    }
}

const NOTHING_TO_BREAK: &str = "Sheets between boards or rolled don't break from a shock.";
const LOOSE_FREQUENCY: Frequency = Frequency::hz(30.0);

/// What a kind takes in good order.
struct Kind {
    limit: Shock,
    frequency: Frequency,
    plane_factor: f64,
    reason: &'static str,
}

/// What a kind takes in good order; nothing for loose sheets.
fn by_kind(piece: &Piece) -> Option<Kind> {
    let of = |limit, hertz, plane_factor, reason| Kind {
        limit: Shock::times_gravity(limit),
        frequency: Frequency::hz(hertz),
        plane_factor,
        reason,
    };
    let pane = |(limit, frequency), reason| Kind {
        limit,
        frequency,
        plane_factor: GLASS_IN_PLANE,
        reason,
    };
    let short_side = piece.pane_short_side();
    Some(match piece.construction {
        Construction::StretchedCanvas => of(
            50.0,
            20.0,
            STIFF_IN_PLANE,
            "A stretched cloth swings, and its corners open.",
        ),
        Construction::FramedUnglazed => of(
            55.0,
            30.0,
            FRAME_IN_PLANE,
            "The frame's mitres open before the piece is damaged.",
        ),
        Construction::CradledPanel | Construction::RigidBoard | Construction::PanelSet => of(
            60.0,
            60.0,
            STIFF_IN_PLANE,
            "A panel is stiff, and its joints hold.",
        ),
        Construction::FramedUnderGlass => pane(
            glass_limit(short_side, piece.pane.thickness()),
            "The glass breaks before anything else: the larger the pane, the sooner.",
        ),
        Construction::FramedUnderAcrylic => of(
            55.0,
            30.0,
            FRAME_IN_PLANE,
            "Acrylic bends where glass would break.",
        ),
        Construction::Mirror => pane(
            mirror_limit(short_side),
            "A mirror is heavy glass: the larger, the sooner it breaks.",
        ),
        Construction::LoosePaper | Construction::LooseCanvas => return None,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::piece::PieceSize;

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
        let limit = |piece: &Piece| {
            Fragility::of(piece, false)
                .limit
                .expect("it is stiff")
                .as_times_gravity()
        };
        for (construction, medium, wanted) in [
            (Construction::StretchedCanvas, Medium::Oil, 50.0),
            (
                Construction::FramedUnderAcrylic,
                Medium::PastelOrCharcoal,
                35.0,
            ),
            // The pane of 600 × 800 is 560 on its short side: q = 380/560, 45 × 0.46046 = 20.7207
            (Construction::FramedUnderGlass, Medium::Print, 20.720_663),
            (Construction::CradledPanel, Medium::Acrylic, 60.0),
        ] {
            assert!((limit(&piece(construction, medium)) - wanted).abs() < 1e-6);
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

    #[test]
    fn glass_is_as_tough_as_its_pane() {
        // 297 short: q = 380/297, 45 × 1.63702 = 73.66595, 40 × 1.27946 = 51.17845
        // 600: 45 × 0.40111 = 18.05; 3 mm and 1000: q = 0.57, 14.6205 and 22.8
        // A mirror of 500: q = 0.76, 40 × 0.5776 = 23.104, 38
        let mm = Length::mm;
        for ((limit, frequency), wanted) in [
            (glass_limit(mm(297.0), mm(2.0)), (73.665_95, 51.178_45)),
            (glass_limit(mm(600.0), mm(2.0)), (18.05, 25.333_33)),
            (glass_limit(mm(1000.0), mm(3.0)), (14.620_5, 22.8)),
            (mirror_limit(mm(500.0)), (23.104, 38.0)),
            // Both stop together: 2.1² × 45 and 84; 0.45² × 45 and 18
            (glass_limit(mm(100.0), mm(2.0)), (198.45, 84.0)),
            (glass_limit(mm(3000.0), mm(2.0)), (9.112_5, 18.0)),
        ] {
            assert!(
                (limit.as_times_gravity() - wanted.0).abs() < 5e-6,
                "{limit:?}"
            );
            assert!((frequency.as_hz() - wanted.1).abs() < 5e-6, "{frequency:?}");
        }
        let paper = piece(Construction::LoosePaper, Medium::Print);
        assert_eq!(Fragility::of(&paper, false).limit, None);
    }
}
