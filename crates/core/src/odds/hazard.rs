//! What can happen to a parcel, and how much of it a plan lets through.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

/// One way to come to harm.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Hazard {
    /// Falling, or tipping over, flat onto the face or the back.
    Flat,
    /// Falling on an edge or a corner.
    Edges,
    /// Something that presses in on the face.
    Pressed,
    /// A corner, a handle or a fork that goes through to the art.
    Pierced,
    /// Other parcels on top.
    Stacked,
    /// A wet floor, rain, or a damp van.
    Damp,
}

impl Hazard {
    /// Every hazard, in the order in which they are shown.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Flat,
        Self::Edges,
        Self::Pressed,
        Self::Pierced,
        Self::Stacked,
        Self::Damp,
    ];

    /// Returns what its field is called.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Flat => "flat",
            Self::Edges => "edges",
            Self::Pressed => "pressed",
            Self::Pierced => "pierced",
            Self::Stacked => "stacked",
            Self::Damp => "damp",
        }
    }
}

/// A value for each hazard; the usual one where it is left out.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(
    deny_unknown_fields,
    bound(deserialize = "T: Deserialize<'de> + Default")
)]
pub struct PerHazard<T> {
    /// Of falls flat.
    #[serde(default)]
    pub flat: T,
    /// Of falls on edges and corners.
    #[serde(default)]
    pub edges: T,
    /// Of what presses in.
    #[serde(default)]
    pub pressed: T,
    /// Of what goes through.
    #[serde(default)]
    pub pierced: T,
    /// Of a stack.
    #[serde(default)]
    pub stacked: T,
    /// Of damp.
    #[serde(default)]
    pub damp: T,
}

impl<T: Copy> PerHazard<T> {
    /// Makes it from a value for each hazard.
    pub fn by(value: impl Fn(Hazard) -> T) -> Self {
        Self {
            flat: value(Hazard::Flat),
            edges: value(Hazard::Edges),
            pressed: value(Hazard::Pressed),
            pierced: value(Hazard::Pierced),
            stacked: value(Hazard::Stacked),
            damp: value(Hazard::Damp),
        }
    }

    /// Returns the value of one hazard.
    pub const fn of(&self, hazard: Hazard) -> T {
        match hazard {
            Hazard::Flat => self.flat,
            Hazard::Edges => self.edges,
            Hazard::Pressed => self.pressed,
            Hazard::Pierced => self.pierced,
            Hazard::Stacked => self.stacked,
            Hazard::Damp => self.damp,
        }
    }

    /// Returns another value for each hazard.
    pub fn map<U: Copy>(&self, change: impl Fn(T) -> U) -> PerHazard<U> {
        PerHazard::by(|hazard| change(self.of(hazard)))
    }
}

/// How dangerous a plan leaves one hazard; it grows with danger and is only ever compared.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub enum Measure {
    /// The style of parcel has nothing to measure it by.
    #[default]
    Unmeasured,
    /// So much.
    Of(f64),
    /// Nothing is there that would hold it off at all.
    Boundless,
}

impl Measure {
    /// Makes it from a number; one that is not finite has no bound.
    #[must_use]
    pub const fn from_number(number: f64) -> Self {
        if number.is_finite() {
            Self::Of(number)
        } else {
            Self::Boundless
        }
    }

    /// Returns the number, where it has one.
    #[must_use]
    pub const fn number(self) -> Option<f64> {
        match self {
            Self::Of(number) => Some(number),
            Self::Unmeasured | Self::Boundless => None,
        }
    }

    /// Returns how many times as dangerous this is as a reference, from a quarter to twelve: twelve if this has no bound, `None` if
    /// either was not measured.
    ///
    /// Of most hazards it is the square root of the ratio. The root is deliberate: models of falls are rough, and experience says that
    /// packing moves losses by times, not by hundreds. What is pierced goes by the ratio itself. Source: trade judgement.
    #[must_use]
    pub fn against(self, reference: Self, hazard: Hazard) -> Option<f64> {
        let tempered = |ratio: f64| match hazard {
            Hazard::Pierced => ratio,
            Hazard::Flat | Hazard::Edges | Hazard::Pressed | Hazard::Stacked | Hazard::Damp => {
                ratio.sqrt()
            }
        };
        match (self, reference) {
            (Self::Unmeasured, _) | (_, Self::Unmeasured) => None,
            (Self::Boundless, Self::Boundless) => Some(1.0),
            (Self::Boundless, _) => Some(MOST),
            (_, Self::Boundless) => Some(LEAST),
            (Self::Of(one), Self::Of(other)) => Some(tempered(one / other).clamp(LEAST, MOST)),
        }
    }
}

const LEAST: f64 = 0.25;
const MOST: f64 = 12.0;

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ratios_are_roots_within_bounds() {
        let against = |one, other| Measure::Of(one).against(Measure::Of(other), Hazard::Edges);
        assert_eq!(against(4.0, 1.0), Some(2.0));
        assert_eq!(against(1.0, 100.0), Some(0.25));
        assert_eq!(against(1e6, 1.0), Some(12.0));
        let edges = Hazard::Edges;
        assert_eq!(
            Measure::Boundless.against(Measure::Of(1.0), edges),
            Some(12.0)
        );
        assert_eq!(Measure::Unmeasured.against(Measure::Of(1.0), edges), None);
        assert_eq!(Measure::from_number(f64::INFINITY), Measure::Boundless);
        // What goes through counts as it is.
        let pierced = |one, other| Measure::Of(one).against(Measure::Of(other), Hazard::Pierced);
        assert_eq!(pierced(4.0, 1.0), Some(4.0));
        assert_eq!(pierced(1.0, 100.0), Some(0.25));
    }
}
