//! Tapes, and what each holds on and harms.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use super::{MaterialId, Shelf};
use crate::quantity::LinearDensity;

/// What a tape is put on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Ground {
    /// Corrugated and other card.
    Card,
    /// Bubble wrap, bags and stretch film.
    Film,
    /// Bars, panels and frames.
    Wood,
    /// Contact sheets and interleaves.
    Paper,
    /// Plain glass and mirrors.
    Glass,
}

impl Ground {
    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Card => "card",
            Self::Film => "film",
            Self::Wood => "wood",
            Self::Paper => "paper",
            Self::Glass => "glass",
        }
    }
}

/// A tape.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Tape {
    /// What rules refer to it by.
    pub id: MaterialId,
    /// What people call it.
    pub name: String,
    /// Of its length.
    #[serde(rename = "linear_density_g_m")]
    pub linear_density: LinearDensity,
    /// Of a metre.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub price_per_m: Decimal,
    /// What it holds on; everything, when none is named.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub holds_on: Vec<Ground>,
    /// What it tears or stains when it comes off.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub harms: Vec<Ground>,
    /// Whether it is plastic.
    #[serde(default)]
    pub plastic: bool,
    /// Where it is kept.
    #[serde(default)]
    pub shelf: Shelf,
}

/// A tape does not go on a ground.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum TapeRefused {
    /// It comes off by itself.
    #[error("{tape} doesn't stick to {ground}: choose another tape")]
    LetsGo {
        /// What it is called.
        tape: String,
        /// What it was to hold on.
        ground: &'static str,
    },
    /// It takes something along when it comes off.
    #[error("{tape} harms {ground} when removed: choose a tape that peels off")]
    Harms {
        /// What it is called.
        tape: String,
        /// What it would harm.
        ground: &'static str,
    },
}

impl Tape {
    /// Tells whether it goes on a ground.
    ///
    /// # Errors
    /// [`TapeRefused`] when it does not hold there or harms what it comes off.
    pub fn goes_on(&self, ground: Ground) -> Result<(), TapeRefused> {
        let (tape, name) = (self.name.clone(), ground.name());
        if self.harms.contains(&ground) {
            return Err(TapeRefused::Harms { tape, ground: name });
        }
        if !self.holds_on.is_empty() && !self.holds_on.contains(&ground) {
            return Err(TapeRefused::LetsGo { tape, ground: name });
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_tape_is_refused_where_it_lets_go_or_harms() {
        let tape = Tape {
            id: MaterialId::new("masking"),
            name: "Masking tape".into(),
            linear_density: LinearDensity::g_m(1.6),
            price_per_m: Decimal::ZERO,
            holds_on: vec![Ground::Card, Ground::Glass, Ground::Wood],
            harms: vec![Ground::Wood],
            plastic: false,
            shelf: Shelf::default(),
        };
        assert_eq!(tape.goes_on(Ground::Glass), Ok(()));
        let says = |ground| tape.goes_on(ground).expect_err("refused").to_string();
        assert!(says(Ground::Film).contains("doesn't stick to film"));
        assert!(says(Ground::Wood).contains("harms wood"));
    }
}
