//! Tape on plain glass, so that a break stays put.

use serde::Serialize;

use super::kind::{Kind, Nature, Offer, Offering, Standing, StandingQuestion};
use super::{Layer, Make, Making, Supplies};
use crate::{
    house::{Allowances, Choices, GlassPattern},
    part::{Need, StripId},
    piece::{Glazing, Piece},
    quantity::{Length, ceil_count},
    space::{Addition, Envelope, LayerSlot},
};

/// The tape on one pane.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GlassTape {
    /// How it is laid.
    pub pattern: GlassPattern,
    /// Strips that run up.
    pub upright: u32,
    /// Strips that run across.
    pub level: u32,
    /// Strips from corner to corner.
    pub diagonal: u32,
    /// Of all strips.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// What is seen of the pane, its width and its height.
    #[serde(rename = "pane_mm")]
    pub pane: [Length; 2],
    /// Whether the pane is an oval, and a strip beside its middle shorter than one over it.
    pub oval: bool,
    /// How wide the frame around the pane is taken to be, where nobody measured it.
    #[serde(rename = "assumed_moulding_mm")]
    pub assumed_moulding: Option<Length>,
}

/// Strips on a pane, alike.
type Laid = (StripId, Length, u32);

/// A strip ends so far before the frame, or before the edge of a pane without one. Source: bench practice.
pub(crate) const CLEAR: Length = Length::mm(5.0);

impl GlassTape {
    /// Returns the tape for the pane of a piece: a star on a small one, a lattice on a large one, unless a pattern was
    /// chosen.
    ///
    /// A star has both diagonals and both middles; a lattice has ⌈side/pitch⌉ − 1 strips each way, at
    /// least one. A strip is as long as the pane where it lies, but for 5 mm at both ends. Source: house rule.
    #[must_use]
    pub fn on(piece: &Piece, chosen: Option<GlassPattern>, allowances: &Allowances) -> Self {
        let pane = piece.pane_seen();
        let [width, height] = pane;
        let small = width.max(height) <= allowances.glass_star_most;
        let pattern = chosen.unwrap_or(if small {
            GlassPattern::Star
        } else {
            GlassPattern::Lattice
        });
        let (upright, level, diagonal) = match pattern {
            GlassPattern::Star => (1, 1, 2),
            GlassPattern::Lattice => {
                let strips = |side: Length| {
                    ceil_count(side / allowances.glass_pitch)
                        .saturating_sub(1)
                        .max(1)
                };
                (strips(width), strips(height), 0)
            }
        };
        let tape = Self {
            pattern,
            upright,
            level,
            diagonal,
            length: Length::ZERO,
            pane,
            // Of other shapes it is what surely lies on the pane.
            oval: piece.is_shaped(),
            assumed_moulding: piece.assumed_moulding(),
        };
        let all = tape.strips();
        Self {
            length: all
                .into_iter()
                .map(|(_, length, count)| length * f64::from(count))
                .sum(),
            ..tape
        }
    }

    /// Returns the longest strips that run up, across, and from corner to corner.
    #[must_use]
    pub fn longest(&self) -> [Length; 3] {
        let [width, height] = self.pane;
        let corner_to_corner = Length::mm(width.as_mm().hypot(height.as_mm()));
        let share = if self.oval {
            std::f64::consts::FRAC_1_SQRT_2
        } else {
            1.0
        };
        [height, width, corner_to_corner * share].map(ending)
    }

    /// The strips: beside the middle of an oval each is a chord.
    fn strips(&self) -> Vec<Laid> {
        let [width, height] = self.pane;
        let mut all: Vec<Laid> = Vec::new();
        for (on, side, count) in [
            (StripId::DownTheGlass, height, self.upright),
            (StripId::AcrossTheGlass, width, self.level),
        ] {
            for at in 1..=count {
                // From -1 at one edge to 1 at the other.
                let aside = 2.0 * f64::from(at) / f64::from(count + 1) - 1.0;
                let share = if self.oval {
                    (1.0 - aside * aside).sqrt()
                } else {
                    1.0
                };
                let length = ending(side * share);
                match all.iter_mut().find(|(of, known, _)| {
                    *of == on && (*known - length).as_mm().abs() < ALIKE.as_mm()
                }) {
                    Some((_, _, count)) => *count += 1,
                    None => all.push((on, length, 1)),
                }
            }
        }
        let [_, _, corner_to_corner] = self.longest();
        if self.diagonal > 0 {
            all.push((StripId::FromCornerToCorner, corner_to_corner, self.diagonal));
        }
        all
    }

    pub(crate) fn layer(supplies: &Supplies<'_>, piece: &Piece, inside: Envelope) -> Layer {
        let allowances = supplies.allowances();
        let tape = supplies.glass_tape;
        let laid = Self::on(piece, supplies.rules.shipment.glass_pattern, allowances);
        let needs = laid
            .strips()
            .into_iter()
            .map(|(on, length, count)| Need::tab(tape, on, length).times(count * piece.count))
            .collect();
        supplies.layer(Making {
            slot: LayerSlot::GlassTape,
            needs,
            adds: Addition::default(),
            inside,
            minutes: (allowances.glass_minutes
                + allowances.glass_minutes_per_m * laid.length.as_m())
                * f64::from(piece.count),
            why: "If the glass breaks, the tape keeps its pieces off the art.",
            make: Make::GlassTape(laid),
            cushioning: None,
        })
    }
}

/// Strips that differ by less are torn alike.
const ALIKE: Length = Length::mm(0.5);

/// A strip that is laid over a way, without what is left free at both its ends.
fn ending(way: Length) -> Length {
    (way - CLEAR * 2.0).max(CLEAR)
}

/// Tape on plain glass, so that a break stays put.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    let layer = GlassTape::layer(around.supplies, around.piece, around.inside());
    Ok(Some(layer))
})
.or(patterns);

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    asked.flat(|| match asked.piece.construction.glazing() {
        Glazing::Glass if asked.piece.coated_glass => {
            Standing::Never("tape lifts the coating of coated glass")
        }
        Glazing::Glass => Standing::On,
        Glazing::Acrylic => Standing::Never("tape pulls at acrylic and leaves marks on it"),
        Glazing::None => Standing::Never("without glass there is nothing to tape"),
    })
}

fn patterns(_: &Offering<'_>) -> Vec<Offer> {
    [
        ("Star", GlassPattern::Star),
        ("Lattice", GlassPattern::Lattice),
    ]
    .map(|(label, pattern)| {
        let choices = Choices {
            glass_pattern: Some(pattern),
            ..Choices::default()
        };
        (label.to_owned(), choices)
    })
    .into()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::piece::{Construction, Medium, Outline, PieceSize};

    fn tape(construction: Construction, sides: [f64; 2], moulding: Option<f64>) -> GlassTape {
        let [width, height] = sides.map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth: Length::mm(20.0),
        };
        let piece = Piece {
            moulding_width: moulding.map(Length::mm),
            outline: if construction == Construction::Mirror && width == height {
                Outline::Round
            } else {
                Outline::Rectangle
            },
            ..Piece::new(construction, size, Some(Medium::Print))
        };
        GlassTape::on(&piece, None, &Allowances::default())
    }

    #[test]
    fn a_small_pane_gets_a_star() {
        // 350 × 450 with a moulding of 25: 300 × 400 are seen. Middles of 290 and 390, two diagonals of 500 − 10: 680 + 980.
        let known = tape(Construction::FramedUnderGlass, [350.0, 450.0], Some(25.0));
        assert_eq!(
            (known.pattern, known.length, known.assumed_moulding),
            (GlassPattern::Star, Length::mm(1660.0), None)
        );
        // Where nobody measured it, 20 are assumed: 310 × 410 are seen.
        let assumed = tape(Construction::FramedUnderGlass, [350.0, 450.0], None);
        assert_eq!(assumed.pane, [310.0, 410.0].map(Length::mm));
        assert_eq!(assumed.assumed_moulding, Some(Length::mm(20.0)));
    }

    #[test]
    fn a_large_pane_gets_a_lattice() {
        // A mirror without a frame: 690/150 = 4.6: four upright strips of 930; 940/150 = 6.27: six level ones of 680:
        // 3720 + 4080 = 7800
        let tape = tape(Construction::Mirror, [690.0, 940.0], Some(0.0));
        assert_eq!((tape.upright, tape.level, tape.diagonal), (4, 6, 0));
        assert_eq!(tape.length, Length::mm(7800.0));
    }

    #[test]
    fn strips_on_a_round_pane_are_chords() {
        // 600 across: 600/150 = 4, so three each way, 150 apart. Over the middle 600 − 10; beside it, half a radius off,
        // 600 × √(1 − ¼) = 519.6, less 10. Each way 590 + 2 × 509.6 = 1609.2.
        let round = tape(Construction::Mirror, [600.0, 600.0], Some(0.0));
        assert_eq!((round.upright, round.level), (3, 3));
        assert!((round.length.as_mm() - 3218.46).abs() < 0.01, "{round:?}");
        // A small one: the diagonals are diameters, too. 300 × 4 − 40.
        let small = tape(Construction::Mirror, [300.0, 300.0], Some(0.0));
        assert!((small.length.as_mm() - 1160.0).abs() < 0.01, "{small:?}");
    }
}
