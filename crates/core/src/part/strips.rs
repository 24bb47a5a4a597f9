//! Tape as a person tears it: so many strips of one length.

use serde::Serialize;

use super::StripId;
use crate::quantity::Length;

/// So much of a strip's end is folded over to a tab, by which it is peeled off. Source: bench practice.
pub(crate) const TAB_FOLD: Length = Length::mm(15.0);

/// Strips of tape that are torn alike.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Strips {
    /// What they close, cover or hold.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub on: StripId,
    /// How many.
    pub count: u32,
    /// How long each is torn, its tab included.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// How much of one end is folded over to a tab; 0 without one.
    #[serde(rename = "fold_mm")]
    pub fold: Length,
    /// Whether it is filament.
    pub filament: bool,
}

/// One strip, before it is known how many there are like it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Torn {
    pub on: StripId,
    pub length: Length,
    pub fold: Length,
    pub filament: bool,
}

impl Torn {
    /// A strip of plain tape that stays where it is.
    pub(crate) const fn plain(on: StripId, length: Length) -> Self {
        Self {
            on,
            length,
            fold: Length::ZERO,
            filament: false,
        }
    }

    /// Returns so many of them.
    pub(crate) const fn times(self, count: u32) -> Strips {
        let Self {
            on,
            length,
            fold,
            filament,
        } = self;
        Strips {
            on,
            count,
            length,
            fold,
            filament,
        }
    }
}
