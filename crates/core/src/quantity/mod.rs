//! Quantities of the job, finite by construction, and the ways people write them.
//!
//! Each quantity is a newtype over one `f64` in the unit that its JSON carries, so what goes in as
//! `38` mm comes out as `38` mm and not as a rounding of metres. NaN and infinity cannot be built:
//! every constructor refuses them, and so does deserialisation.

mod comma;
mod length;
mod logs;
mod measure;
mod mechanics;
mod money;
mod range;
mod read;
mod read_mass;
mod show;
mod telling;
mod typed;
mod weight;

pub use comma::AmbiguousComma;
pub use length::{Area, Length, Volume, ceil_count, floor_count};
pub use logs::straight_in_logs;
pub use measure::{ArealDensity, Density, LinearDensity, Mass, Minutes};
pub use mechanics::{
    EdgeCrush, EnergyDensity, Force, Frequency, GRAVITY_M_S2, Shock, Speed, Stiffness, Stress,
};
pub use money::{Currency, Money, Sum, decimal_of};
pub use range::{LengthRange, OutOfRange};
pub use read::{ReadError, Reading, read_length, read_lengths};
pub use read_mass::{ReadMassError, read_mass};
pub use show::show_length;
pub use telling::{Bare, DateOrder, DecimalMark, InchParts, MassUnit, Telling};
pub use typed::{TypedLength, TypedSize};
pub use weight::Weight;

use serde::{Deserialize, Serialize};
use strum::EnumCount;

/// The unit that a studio reads and types lengths in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, EnumCount)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "lowercase")]
pub enum LengthUnit {
    /// Millimetres, shown whole.
    #[default]
    Mm,
    /// Centimetres, shown to one decimal.
    Cm,
    /// Inches, shown to a sixteenth.
    In,
}

impl LengthUnit {
    /// Every unit, in the order in which the interface offers them.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [Self::Mm, Self::Cm, Self::In];

    /// The symbol written after a number.
    #[must_use]
    pub const fn symbol(self) -> &'static str {
        match self {
            Self::Mm => "mm",
            Self::Cm => "cm",
            Self::In => "in",
        }
    }

    /// How many millimetres one of this unit is.
    #[must_use]
    pub const fn in_mm(self) -> f64 {
        match self {
            Self::Mm => 1.0,
            Self::Cm => 10.0,
            Self::In => 25.4,
        }
    }
}

/// Declares a quantity: a finite number of one unit that adds, scales and compares.
macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $unit:literal, $new:ident, $get:ident) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Default, serde::Serialize, serde::Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[cfg_attr(feature = "schema", schema(value_type = f64))]
        #[serde(try_from = "f64", into = "f64")]
        pub struct $name(f64);

        impl $name {
            /// Nothing of it.
            pub const ZERO: Self = Self(0.0);

            #[doc = concat!("Makes it from a number of ", $unit, ".")]
            ///
            /// # Panics
            /// When the number is not finite; numbers from outside go through `TryFrom`.
            #[must_use]
            pub const fn $new(value: f64) -> Self {
                assert!(value.is_finite(), "a quantity is a finite number");
                Self(value)
            }

            #[doc = concat!("Returns it in ", $unit, ".")]
            #[must_use]
            pub const fn $get(self) -> f64 {
                self.0
            }

            /// Returns the larger of the two.
            #[must_use]
            pub const fn max(self, other: Self) -> Self {
                if other.0 > self.0 { other } else { self }
            }

            /// Returns the smaller of the two.
            #[must_use]
            pub const fn min(self, other: Self) -> Self {
                if other.0 < self.0 { other } else { self }
            }
        }

        impl Eq for $name {}

        impl std::hash::Hash for $name {
            fn hash<H: std::hash::Hasher>(&self, state: &mut H) {
                // Nothing is the same with either sign.
                (self.0 + 0.0).to_bits().hash(state);
            }
        }

        impl Ord for $name {
            fn cmp(&self, other: &Self) -> std::cmp::Ordering {
                self.0.partial_cmp(&other.0).expect("finite numbers have an order")
            }
        }

        impl PartialOrd for $name {
            fn partial_cmp(&self, other: &Self) -> Option<std::cmp::Ordering> {
                Some(self.cmp(other))
            }
        }

        impl TryFrom<f64> for $name {
            type Error = &'static str;

            fn try_from(value: f64) -> Result<Self, Self::Error> {
                if value.is_finite() { Ok(Self(value)) } else { Err("not a finite number") }
            }
        }

        impl From<$name> for f64 {
            fn from(quantity: $name) -> Self {
                quantity.0
            }
        }

        impl std::ops::Add for $name {
            type Output = Self;
            fn add(self, other: Self) -> Self {
                Self::$new(self.0 + other.0)
            }
        }

        impl std::ops::AddAssign for $name {
            fn add_assign(&mut self, other: Self) {
                *self = *self + other;
            }
        }

        impl std::ops::Sub for $name {
            type Output = Self;
            fn sub(self, other: Self) -> Self {
                Self::$new(self.0 - other.0)
            }
        }

        impl std::ops::Mul<f64> for $name {
            type Output = Self;
            fn mul(self, factor: f64) -> Self {
                Self::$new(self.0 * factor)
            }
        }

        impl std::ops::Div<f64> for $name {
            type Output = Self;
            fn div(self, divisor: f64) -> Self {
                Self::$new(self.0 / divisor)
            }
        }

        impl std::ops::Div for $name {
            type Output = f64;
            fn div(self, other: Self) -> f64 {
                self.0 / other.0
            }
        }

        impl std::iter::Sum for $name {
            fn sum<I: Iterator<Item = Self>>(parts: I) -> Self {
                parts.fold(Self::ZERO, |total, part| total + part)
            }
        }
    };
}
use quantity;
