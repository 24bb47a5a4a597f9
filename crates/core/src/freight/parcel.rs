//! What is handed over, and where it goes.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use strum::EnumCount;

use crate::{quantity::Mass, space::Envelope};

/// A closed parcel as a carrier sees it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Parcel {
    /// As a tape reads it.
    pub outside: Envelope,
    /// As a scale reads it, or as planned.
    pub mass: Mass,
    /// What it is worth, in the tariff's currency.
    pub value: Option<Decimal>,
    /// Whether more cover is bought where the carrier includes less than that.
    pub buys_cover: bool,
    /// Its shape.
    pub shape: Shape,
    /// What of its contents carriers ask about.
    pub contents: Contents,
}

/// The shape of a parcel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Shape {
    /// Six flat sides.
    #[default]
    Rectangular,
    /// A round tube, which rolls.
    Tube,
    /// A three-sided tube, which does not roll.
    Triangular,
}

/// What carriers ask about the contents.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, EnumCount)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Content {
    /// A pane of glass, or a mirror.
    Glass,
    /// A work on paper.
    Paper,
    /// Paint on canvas or panel.
    Painting,
    /// A second box around the first.
    DoubleBoxed,
}

impl Content {
    /// Everything that carriers ask about.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] =
        [Self::Glass, Self::Paper, Self::Painting, Self::DoubleBoxed];
}

/// Everything of it that a parcel holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Contents(u8);

impl Contents {
    /// Returns these contents and one more.
    #[must_use]
    pub const fn with(self, content: Content) -> Self {
        Self(self.0 | 1 << content as u8)
    }

    /// Returns these contents and one more, where it is there.
    #[must_use]
    pub const fn and(self, content: Content, is_there: bool) -> Self {
        if is_there { self.with(content) } else { self }
    }

    /// Tells whether it is among them.
    #[must_use]
    pub const fn hold(self, content: Content) -> bool {
        self.0 & 1 << content as u8 != 0
    }
}

impl FromIterator<Content> for Contents {
    fn from_iter<Many: IntoIterator<Item = Content>>(contents: Many) -> Self {
        contents.into_iter().fold(Self::default(), Self::with)
    }
}
