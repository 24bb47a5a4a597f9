//! What a damaged parcel costs: the value of what is in it, or a pane.

/// A piece as far as the harm to it goes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Harmed {
    /// What it is worth.
    pub value: f64,
    /// Whether it lies under a pane of glass in a frame; a mirror and acrylic don't.
    pub glazed: bool,
    /// Whether tape, film or a second pane holds the splinters.
    pub guarded: bool,
    /// Which part of what harms it is falls, flat and on edges, from 0 to 1.
    pub fall_part: f64,
    /// What a new pane costs, with the work.
    pub repair: f64,
}

/// The share of harmful falls of a frame under glass that break its pane and nothing else. Source: trade judgement.
const PANE_ALONE: f64 = 0.7;
/// The share of broken panes without tape whose splinters cut the art. Source: trade judgement.
const CUT_BARE: f64 = 0.5;
/// The share of broken panes with tape or film, or of laminated ones, whose splinters cut the art. Source: trade judgement.
const CUT_GUARDED: f64 = 0.1;

impl Harmed {
    /// Returns what it costs on average once it is damaged: the value; under glass a pane's repair where the pane alone breaks and no
    /// splinter cuts the art.
    #[must_use]
    pub fn harm(&self) -> f64 {
        if !self.glazed {
            return self.value;
        }
        let cut = if self.guarded { CUT_GUARDED } else { CUT_BARE };
        let pane = PANE_ALONE * self.fall_part;
        let of_pane = cut * self.value + (1.0 - cut) * self.repair;
        (1.0 - pane) * self.value + pane * of_pane
    }
}

/// Returns what a damaged parcel of several pieces costs on average: the root of the sum of squares, because seldom all are hurt.
/// Source: trade judgement.
#[must_use]
pub fn harm_of(pieces: &[Harmed]) -> f64 {
    let squares = pieces.iter().map(|piece| piece.harm().powi(2));
    squares.sum::<f64>().sqrt()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_pane_is_cheaper_than_what_lies_under_it() {
        // 0.7 × 0.75 = 0.525 of cases break the pane alone. Bare: 0.475 × 600 + 0.525 × (0.5 × 600 + 0.5 × 50) = 285 + 170.625;
        // taped: 285 + 0.525 × (0.1 × 600 + 0.9 × 50) = 285 + 55.125.
        let bare = Harmed {
            value: 600.0,
            glazed: true,
            guarded: false,
            fall_part: 0.75,
            repair: 50.0,
        };
        assert!((bare.harm() - 455.625).abs() < 1e-9);
        let taped = Harmed {
            guarded: true,
            ..bare
        };
        assert!((taped.harm() - 340.125).abs() < 1e-9);
    }

    #[test]
    fn several_are_seldom_all_hurt() {
        let worth = |value| Harmed {
            value,
            glazed: false,
            guarded: false,
            fall_part: 0.0,
            repair: 0.0,
        };
        // √(6 × 100²) = 244.949; √(1000² + 5²) = 1000.0125
        assert!((harm_of(&[worth(100.0); 6]) - 244.949).abs() < 1e-3);
        assert!((harm_of(&[worth(1000.0), worth(5.0)]) - 1000.0125).abs() < 1e-3);
    }
}
