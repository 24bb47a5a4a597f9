//! What goes in besides the piece: papers, gifts and hanging kits, each at its place.

mod sets;

pub use sets::{EnclosureSet, ListedEnclosure, goes_into_every_parcel, shipped_sets};
pub(crate) use sets::{SetAsked, enclosure_refused, is_key, sets_refused};

use serde::{Deserialize, Serialize};
use strum::EnumCount;

use crate::quantity::{Length, LengthRange, Mass};

/// What kind of thing it is.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EnclosureKind {
    /// Of authenticity.
    Certificate,
    /// On care and hanging.
    Note,
    /// With a greeting.
    Card,
    /// What is in the parcel.
    Slip,
    /// Of a material or a colour.
    Sample,
    /// Something small.
    Gift,
    /// Screws, hooks and wire.
    HangingKit,
    /// Anything else.
    Other,
}

/// Where it lies; never over the face.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, EnumCount,
)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EnclosurePlace {
    /// On the back of the piece.
    OnBack,
    /// Behind, under the last wrap.
    UnderLastWrap,
    /// On the floor of the box.
    OnFloor,
    /// On top of the wrapped piece, at its upper edge.
    OnTop,
    /// In a pocket outside.
    InPocket,
}

/// What such a thing usually is, until somebody says otherwise.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UsualEnclosure {
    /// Where it lies.
    pub place: EnclosurePlace,
    /// How thick it is.
    pub thickness: Length,
    /// What it weighs.
    pub mass: Mass,
    /// Whether it would dent what lies on it.
    pub hard: bool,
}

/// Something that goes in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Enclosure {
    /// What kind of thing it is.
    pub kind: EnclosureKind,
    /// What the studio calls it; its kind where that is empty.
    #[serde(default)]
    pub name: String,
    /// Where it lies.
    pub place: EnclosurePlace,
    /// How thick it is, 0 to 80 mm.
    #[serde(rename = "thickness_mm")]
    pub thickness: Length,
    /// What it weighs, 0 to 5000 g.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Whether it would dent what lies on it; such a thing goes on the floor or on top, at an edge.
    #[serde(default)]
    pub hard: bool,
}

/// One that goes into a shipment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Enclosed {
    /// What the shipment calls it by.
    pub key: String,
    /// What it is and where it lies.
    #[serde(flatten)]
    pub enclosure: Enclosure,
    /// The set of the house that brought it; `None` if the shipment did.
    pub set: Option<String>,
}

/// No enclosure is thicker.
pub const THICKNESS: LengthRange = LengthRange {
    name: "the thickness",
    least: Length::ZERO,
    most: Length::mm(80.0),
    remedy: "send thicker things in a separate parcel",
};
/// No enclosure is heavier, in grams.
pub const HEAVIEST_G: f64 = 5000.0;

impl EnclosureKind {
    /// Every kind.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Certificate,
        Self::Note,
        Self::Card,
        Self::Slip,
        Self::Sample,
        Self::Gift,
        Self::HangingKit,
        Self::Other,
    ];

    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Certificate => "certificate",
            Self::Note => "care note",
            Self::Card => "card",
            Self::Slip => "packing slip",
            Self::Sample => "sample",
            Self::Gift => "small gift",
            Self::HangingKit => "hanging kit",
            Self::Other => "enclosure",
        }
    }

    /// Returns what such a thing usually is. Source: house rule.
    #[must_use]
    pub const fn usual(self) -> UsualEnclosure {
        use EnclosurePlace::{InPocket, OnFloor, OnTop, UnderLastWrap};
        let (place, thickness, grams, hard) = match self {
            Self::Certificate => (UnderLastWrap, 1.0, 25.0, false),
            Self::Note => (OnTop, 0.5, 8.0, false),
            Self::Card => (OnTop, 1.0, 12.0, false),
            Self::Slip => (InPocket, 0.2, 5.0, false),
            Self::Sample => (OnTop, 3.0, 20.0, false),
            Self::Gift => (OnFloor, 20.0, 100.0, true),
            Self::HangingKit => (OnFloor, 12.0, 60.0, true),
            Self::Other => (OnTop, 2.0, 20.0, false),
        };
        UsualEnclosure {
            place,
            thickness: Length::mm(thickness),
            mass: Mass::g(grams),
            hard,
        }
    }
}

impl EnclosurePlace {
    /// Every place, from the art outward.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::OnBack,
        Self::UnderLastWrap,
        Self::OnFloor,
        Self::OnTop,
        Self::InPocket,
    ];

    /// Where that is, as it ends a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::OnBack => "on the back of the piece",
            Self::UnderLastWrap => "behind, under the last wrap",
            Self::OnFloor => "on the floor of the box",
            Self::OnTop => "on top of the wrapped piece",
            Self::InPocket => "in a pocket outside",
        }
    }

    /// Tells whether something hard may lie there: in the gap of an edge, and nowhere else.
    #[must_use]
    pub const fn takes_hard(self) -> bool {
        matches!(self, Self::OnFloor | Self::OnTop)
    }
}

impl Enclosure {
    /// Returns one of a kind, as such a thing usually is.
    #[must_use]
    pub fn usual(kind: EnclosureKind) -> Self {
        let usual = kind.usual();
        Self {
            kind,
            name: String::new(),
            place: usual.place,
            thickness: usual.thickness,
            mass: usual.mass,
            hard: usual.hard,
        }
    }

    /// What it is called, as it stands in a sentence.
    #[must_use]
    pub fn called(&self) -> &str {
        let name = self.name.trim();
        if name.is_empty() {
            self.kind.name()
        } else {
            name
        }
    }

    /// Returns why it may not lie where it is said to.
    #[must_use]
    pub fn misplaced(&self) -> Option<String> {
        (self.hard && !self.place.takes_hard()).then(|| {
            format!(
                "something hard {} dents the piece: place it on the floor or on top, at an edge",
                self.place.name()
            )
        })
    }
}
