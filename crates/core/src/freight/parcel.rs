//! What is handed over, and where it goes.

use rust_decimal::Decimal;

use crate::{
    quantity::{Length, Mass, Volume},
    space::Envelope,
};

/// A closed parcel as a carrier sees it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Parcel {
    /// As a tape reads it.
    pub outside: Envelope,
    /// As a scale reads it, or as planned.
    pub mass: Mass,
    /// What it is to be covered for, in the tariff's currency.
    pub value: Option<Decimal>,
    /// Whether there is glass in it.
    pub has_glass: bool,
}

/// Where a parcel goes.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Destination {
    /// Its country's two-letter code.
    pub country: String,
    /// As written on the label; empty where there is none.
    pub postcode: String,
}

impl Parcel {
    /// Returns its sides, the longest first.
    #[must_use]
    pub fn sides(&self) -> [Length; 3] {
        let mut sides = [self.outside.across, self.outside.up, self.outside.through];
        sides.sort_by(|one, other| other.cmp(one));
        sides
    }

    /// Returns the same parcel with each side rounded up to a step, as a carrier measures it.
    #[must_use]
    pub fn measured_to(self, step: Length) -> Self {
        let Envelope {
            across,
            up,
            through,
        } = self.outside;
        let outside = Envelope {
            across: across.rounded_up_to(step),
            up: up.rounded_up_to(step),
            through: through.rounded_up_to(step),
        };
        Self { outside, ..self }
    }

    /// Returns twice the sum of the two shorter sides.
    #[must_use]
    pub fn girth(&self) -> Length {
        let [_, middle, shortest] = self.sides();
        (middle + shortest) * 2.0
    }

    /// Returns the longest side and the girth together.
    #[must_use]
    pub fn length_plus_girth(&self) -> Length {
        self.sides()[0] + self.girth()
    }

    /// Returns how much space it takes.
    #[must_use]
    pub fn volume(&self) -> Volume {
        self.outside.volume()
    }
}
