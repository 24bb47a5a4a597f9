//! Hazards at rest: what presses in, the edges of paper and rolls, and damp.

use crate::quantity::{Length, Stiffness};

/// A flat board between the outside and the art, with all that is soft between the two.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PlateOver {
    /// Of the board.
    pub stiffness: Stiffness,
    /// Between it and the art.
    pub soft: Length,
}

/// Even a board that lies on the art has so much to give.
const LEAST_SOFT: Length = Length::mm(2.0);
/// Of wound card, in pascals.
const TUBE_MODULUS_PA: f64 = 1.5e9;
const PLATE_BENDING: f64 = 12.0;
const TUBE_OF: Length = Length::mm(100.0);

fn spread(stiffness: Stiffness, soft: Length) -> f64 {
    (stiffness.as_nm() * soft.max(LEAST_SOFT).as_mm()).sqrt()
}

/// Returns how far a load presses in on the face: 1/Σ√(D·S), without a bound where there is no board.
///
/// A plate on something soft spreads a load. Source: plate theory for a plate on a soft bed, as a measure to
/// compare by.
#[must_use]
pub fn pressed_measure(plates: &[PlateOver]) -> f64 {
    let sum: f64 = plates
        .iter()
        .map(|plate| spread(plate.stiffness, plate.soft))
        .sum();
    sum.recip()
}

/// Returns the bending stiffness of a tube's wall: E·t³/12 with 1.5 GPa.
#[must_use]
pub fn tube_stiffness(wall: Length) -> Stiffness {
    Stiffness::nm(TUBE_MODULUS_PA * wall.as_m().powi(3) / PLATE_BENDING)
}

/// Returns how far a load crushes a tube: (d/100)/√(D·S).
#[must_use]
pub fn tube_measure(diameter: Length, wall: Stiffness, wrap: Length) -> f64 {
    (diameter / TUBE_OF) / spread(wall, wrap)
}

/// Returns how easily an edge of loose paper, or the end of a roll, is hurt: 1/(room before it in mm · board
/// across it in mm), without a bound where there is neither. Source: trade judgement.
#[must_use]
pub fn edge_measure(room: Length, board: Length) -> f64 {
    (room.as_mm() * board.as_mm()).recip()
}

/// How hard a soft layer is to pierce, in joules a millimetre. Source: trade judgement.
pub const SOFT_J_PER_MM: f64 = 0.05;

/// Returns how easily something goes through to the art: ½·(1/E in front + 1/E behind), E in joules what all that lies on a side takes
/// together; without a bound where one side has nothing. Source: trade judgement.
#[must_use]
pub fn pierced_measure(front: f64, back: f64) -> f64 {
    (front.recip() + back.recip()) / 2.0
}

/// What is done against damp, and what the way brings of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Damp {
    /// A sealed bag or sleeve.
    pub bagged: bool,
    /// Every seam of the box taped.
    pub seams_taped: bool,
    /// A wet route or season.
    pub wet: bool,
}

impl Damp {
    /// Returns its measure: 1, times 0.3 in a bag, 0.7 with every seam taped, 4 on a wet way. Source: trade
    /// judgement.
    #[must_use]
    pub fn measure(self) -> f64 {
        let when = |is: bool, times: f64| if is { times } else { 1.0 };
        when(self.bagged, 0.3) * when(self.seams_taped, 0.7) * when(self.wet, 4.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn plates(plates: &[(f64, f64)]) -> f64 {
        let plates: Vec<PlateOver> = plates
            .iter()
            .map(|&(nm, mm)| PlateOver {
                stiffness: Stiffness::nm(nm),
                soft: Length::mm(mm),
            })
            .collect();
        pressed_measure(&plates)
    }

    #[test]
    fn boards_over_something_soft() {
        for (given, wanted) in [
            // √(5.5 × 20) + √(5.5 × 2) = 10.48809 + 3.31662 = 13.80471
            (&[(5.5, 20.0), (5.5, 2.0)][..], 0.072_439_0),
            // √(5.5 × 11) + √11 = 7.77817 + 3.31662 = 11.09480
            (&[(5.5, 11.0), (5.5, 2.0)], 0.090_132_3),
            // √330 + √110 + √11 = 18.16590 + 13.80471 = 31.97061
            (&[(5.5, 60.0), (5.5, 20.0), (5.5, 2.0)], 0.031_278_7),
            // A board on the art gives 2 mm.
            (&[(5.5, 0.0)], 0.301_511),
        ] {
            let found = plates(given);
            assert!((found / wanted - 1.0).abs() < 2e-6, "{found} for {wanted}");
        }
        assert!(plates(&[]).is_infinite());
    }

    #[test]
    fn what_goes_through_meets_boards_and_what_is_soft() {
        // Of C (4.5 J), bubble and paper: 9 + 0.9 before, 9 + 1.4 behind; one board behind: 4.5 + 1.4; one on each side: 4.5 + 0.9.
        for (front, back, wanted) in [
            (9.9, 10.4, 0.098_582_0),
            (9.9, 5.9, 0.135_251),
            (5.4, 5.9, 0.177_338),
            (4.5, 4.5, 0.222_222),
        ] {
            let found = pierced_measure(front, back);
            assert!((found / wanted - 1.0).abs() < 5e-6, "{found} for {wanted}");
        }
        assert!(pierced_measure(0.0, 4.5).is_infinite());
    }

    #[test]
    fn tubes_paper_and_damp() {
        // 1.5e9 × 0.002³/12 = 1 N·m; (100/100)/√(1 × 18) = 0.235702
        let wall = tube_stiffness(Length::mm(2.0));
        let tube = tube_measure(Length::mm(100.0), wall, Length::mm(18.0));
        assert!((tube - 0.235_702).abs() < 5e-7);
        // 1/(40 × 3.2) and 1/(30 × 4)
        assert!((edge_measure(Length::mm(40.0), Length::mm(3.2)) - 0.007_812_5).abs() < 1e-12);
        assert!((edge_measure(Length::mm(30.0), Length::mm(4.0)) - 0.008_333_33).abs() < 5e-9);
        // 0.3 × 0.7 × 4 = 0.84
        let damp = Damp {
            bagged: true,
            seams_taped: true,
            wet: true,
        };
        assert!((damp.measure() - 0.84).abs() < 1e-12);
    }
}
