//! Tape on plain glass, so that a break stays put.

use serde::Serialize;

use super::kind::{Kind, Nature, Offer, Offering, Standing, StandingQuestion};
use super::{Layer, Make, Making, Supplies};
use crate::{
    house::{Allowances, Choices, GlassPattern},
    part::{Need, StripId},
    piece::{Glazing, PieceSize},
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
}

impl GlassTape {
    /// Returns the tape for a pane: a star on a small one, a lattice on a large one, unless a pattern was
    /// chosen.
    ///
    /// A star has both diagonals and both middles; a lattice has ⌈side/pitch⌉ − 1 strips each way, at
    /// least one. Source: house rule.
    #[must_use]
    pub fn on(size: PieceSize, chosen: Option<GlassPattern>, allowances: &Allowances) -> Self {
        let (width, height) = (size.width, size.height);
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
        let corner_to_corner = diagonal_of(size);
        Self {
            pattern,
            upright,
            level,
            diagonal,
            length: height * f64::from(upright)
                + width * f64::from(level)
                + corner_to_corner * f64::from(diagonal),
        }
    }

    pub(crate) fn layer(
        supplies: &Supplies<'_>,
        size: PieceSize,
        count: u32,
        inside: Envelope,
    ) -> Layer {
        let allowances = supplies.allowances();
        let each = f64::from(count);
        let tape = supplies.glass_tape;
        let laid = Self::on(
            size,
            supplies.rules.shipment.glass_pattern,
            supplies.allowances(),
        );
        supplies.layer(Making {
            slot: LayerSlot::GlassTape,
            needs: vec![
                Need::tab(tape, StripId::DownTheGlass, size.height).times(laid.upright * count),
                Need::tab(tape, StripId::AcrossTheGlass, size.width).times(laid.level * count),
                Need::tab(tape, StripId::FromCornerToCorner, diagonal_of(size))
                    .times(laid.diagonal * count),
            ],
            adds: Addition::default(),
            inside,
            minutes: (allowances.glass_minutes
                + allowances.glass_minutes_per_m * laid.length.as_m())
                * each,
            why: "If the glass breaks, the tape keeps its pieces off the art.",
            make: Make::GlassTape(laid),
            cushioning: None,
        })
    }
}

fn diagonal_of(size: PieceSize) -> Length {
    Length::mm(size.width.as_mm().hypot(size.height.as_mm()))
}

/// Tape on plain glass, so that a break stays put.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    let piece = around.piece;
    let layer = GlassTape::layer(around.supplies, piece.size, piece.count, around.inside());
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

    fn tape(width: f64, height: f64) -> GlassTape {
        let [width, height, depth] = [width, height, 20.0].map(Length::mm);
        let size = PieceSize {
            width,
            height,
            depth,
        };
        GlassTape::on(size, None, &Allowances::default())
    }

    #[test]
    fn a_small_pane_gets_a_star() {
        // 300 × 400: two diagonals of 500, a middle each way: 1000 + 700
        let tape = tape(300.0, 400.0);
        assert_eq!(
            (tape.pattern, tape.length),
            (GlassPattern::Star, Length::mm(1700.0))
        );
    }

    #[test]
    fn a_large_pane_gets_a_lattice() {
        // 690/150 = 4.6: four upright strips of 940; 940/150 = 6.27: six level strips of 690:
        // 3760 + 4140 = 7900
        let tape = tape(690.0, 940.0);
        assert_eq!((tape.upright, tape.level, tape.diagonal), (4, 6, 0));
        assert_eq!(tape.length, Length::mm(7900.0));
    }
}
