//! The pane of a glazed piece, and the glass of a mirror.

use serde::{Deserialize, Serialize};

use super::{Construction, Piece};
use crate::quantity::{Area, ArealDensity, Length};

/// What a pane of glass is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Pane {
    /// Two millimetres, as most frames have.
    #[default]
    Two,
    /// Three millimetres.
    Three,
    /// Two panes of two millimetres on a film.
    Laminated,
}

/// Of glass, for each millimetre.
const GLASS_G_M2_PER_MM: f64 = 2500.0;
/// A moulding covers this much of a frame at each side.
const MOULDING_FACE: Length = Length::mm(20.0);
const USUAL: Length = Length::mm(2.0);

impl Pane {
    /// Returns how thick it is.
    #[must_use]
    pub const fn thickness(self) -> Length {
        match self {
            Self::Two => USUAL,
            Self::Three => Length::mm(3.0),
            Self::Laminated => Length::mm(4.0),
        }
    }

    /// Returns what it weighs beyond a pane of two millimetres.
    pub(super) fn beyond_two(self) -> ArealDensity {
        ArealDensity::g_m2((self.thickness() - USUAL).as_mm() * GLASS_G_M2_PER_MM)
    }
}

impl Piece {
    /// Returns the sides of its pane: those of a glazed frame without its moulding, at least half of it; of a
    /// mirror all of it.
    fn pane_sides(&self) -> [Length; 2] {
        [self.size.width, self.size.height].map(|side| {
            if self.construction == Construction::Mirror {
                side
            } else {
                (side - MOULDING_FACE * 2.0).max(side / 2.0)
            }
        })
    }

    /// Returns the area of its pane; what it would be, for a piece without one.
    #[must_use]
    pub fn pane_area(&self) -> Area {
        let [across, up] = self.pane_sides();
        across * up
    }

    /// Returns the shorter side of its pane; what it would be, for a piece without one.
    #[must_use]
    pub fn pane_short_side(&self) -> Length {
        let [across, up] = self.pane_sides();
        across.min(up)
    }
}
