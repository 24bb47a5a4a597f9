//! A parcel as a carrier's tape and scale read it, in whole micrometres and milligrams: no threshold is missed by the dust of
//! binary fractions.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

use super::Parcel;
use crate::quantity::{Length, Mass, Volume};

/// A whole number of micrometres, milligrams, or cubic micrometres.
pub(super) type Whole = i128;

const UM_PER_MM: f64 = 1e3;
const MG_PER_G: f64 = 1e3;
/// Cubic micrometres.
const MM3_PER_M3: f64 = 1e9;
const UM3_PER_MM3: Whole = 1_000_000_000;
pub(super) const UM3_PER_CM3: Whole = 1_000_000_000_000;
pub(super) const MG_PER_KG: Whole = 1_000_000;

#[expect(
    clippy::cast_possible_truncation,
    reason = "quantities of the job are far inside the range, and are rounded first"
)]
pub(super) fn whole(number: f64) -> Whole {
    number.round() as Whole
}

/// The same for what is far below 2⁶³, which processors turn into whole numbers themselves.
#[expect(
    clippy::cast_possible_truncation,
    reason = "as above; what is beyond is held at the end of the range"
)]
pub(super) fn small(number: f64) -> Whole {
    // Half up and away from nothing, as `round` does, which is a call on processors that are not the newest.
    Whole::from((number + 0.5_f64.copysign(number)) as i64)
}

pub(super) fn um(length: Length) -> Whole {
    small(length.as_mm() * UM_PER_MM)
}

pub(super) fn mg(mass: Mass) -> Whole {
    small(mass.as_g() * MG_PER_G)
}

pub(super) fn um3(volume: Volume) -> Whole {
    // To whole cubic millimetres first: 0.009 m³ as such is a cubic micrometre short of 250 × 300 × 120 mm.
    whole(volume.as_m3() * MM3_PER_M3) * UM3_PER_MM3
}

#[expect(
    clippy::cast_precision_loss,
    reason = "below 2⁵³ for all that is carried"
)]
fn number(whole: Whole) -> f64 {
    whole as f64
}

pub(super) fn as_length(um: Whole) -> Length {
    Length::mm(number(um) / UM_PER_MM)
}

pub(super) fn as_mass(mg: Whole) -> Mass {
    Mass::g(number(mg) / MG_PER_G)
}

/// Rounded up to a whole number of steps; as it is where the step is nothing.
pub(super) fn stepped(amount: Whole, step: Whole) -> Whole {
    if step <= 0 {
        return amount;
    }
    // Sides and masses fit into half the digits, which are divided many times as fast.
    if let (Ok(amount), Ok(step)) = (i64::try_from(amount), i64::try_from(step)) {
        let rest = amount.rem_euclid(step);
        return Whole::from(amount) + Whole::from(if rest > 0 { step - rest } else { 0 });
    }
    let rest = amount.rem_euclid(step);
    if rest > 0 {
        amount - rest + step
    } else {
        amount
    }
}

/// Sides, the longest first, and mass.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Measured {
    pub sides: [Whole; 3],
    pub mass: Whole,
}

/// What of a parcel a tariff looks at.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Gauge {
    /// The longest side, in mm.
    Longest,
    /// The second side, in mm.
    Second,
    /// The shortest side, in mm.
    Shortest,
    /// Twice the sum of the two shorter sides, in mm.
    Girth,
    /// The longest side and the girth, in mm.
    LengthPlusGirth,
    /// In m³.
    Volume,
    /// What it weighs, in g.
    Mass,
    /// What is billed, in g.
    Billable,
}

impl Gauge {
    /// All of them.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Longest,
        Self::Second,
        Self::Shortest,
        Self::Girth,
        Self::LengthPlusGirth,
        Self::Volume,
        Self::Mass,
        Self::Billable,
    ];

    /// Reads a number of this measure's unit.
    pub(super) fn whole(self, number: f64) -> Whole {
        match self {
            Self::Volume => whole(number * MM3_PER_M3) * UM3_PER_MM3,
            Self::Mass | Self::Billable => small(number * MG_PER_G),
            Self::Longest | Self::Second | Self::Shortest | Self::Girth | Self::LengthPlusGirth => {
                small(number * UM_PER_MM)
            }
        }
    }
}

impl Measured {
    /// As a carrier measures, each side rounded up to a step.
    pub(super) fn of(parcel: &Parcel, size_step: Length) -> Self {
        let step = um(size_step);
        let outside = parcel.outside;
        let sides = [outside.across, outside.up, outside.through];
        Self::sorted(sides.map(|side| stepped(um(side), step)), mg(parcel.mass))
    }

    pub(super) fn sorted(mut sides: [Whole; 3], mass: Whole) -> Self {
        sides.sort_unstable_by(|one, other| other.cmp(one));
        Self { sides, mass }
    }

    pub(super) fn girth(&self) -> Whole {
        (self.sides[1] + self.sides[2]) * 2
    }

    pub(super) fn volume(&self) -> Whole {
        self.sides.iter().product()
    }

    pub(super) fn gauge(&self, gauge: Gauge, billable: Whole) -> Whole {
        match gauge {
            Gauge::Longest => self.sides[0],
            Gauge::Second => self.sides[1],
            Gauge::Shortest => self.sides[2],
            Gauge::Girth => self.girth(),
            Gauge::LengthPlusGirth => self.sides[0] + self.girth(),
            Gauge::Volume => self.volume(),
            Gauge::Mass => self.mass,
            Gauge::Billable => billable,
        }
    }
}
