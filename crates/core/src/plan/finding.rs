//! What a plan has to say: Stop, Mind or Note, about a layer, in one sentence, with what would answer it.

use serde::{Deserialize, Serialize};

use crate::{house::Choices, space::LayerSlot};

/// How much a finding matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FindingLevel {
    /// Must be answered.
    Stop,
    /// A risk.
    Mind,
    /// Good to know.
    Note,
}

/// What a finding is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FindingAbout {
    /// The piece itself.
    Piece,
    /// One layer.
    Layer,
    /// The whole parcel.
    Parcel,
}

/// One finding.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Finding {
    /// How much it matters.
    pub level: FindingLevel,
    /// Which it is; stable, so that a reason to lift it can be kept.
    pub code: &'static str,
    /// What it is about.
    pub about: FindingAbout,
    /// The layer that it is about.
    pub layer: Option<LayerSlot>,
    /// Why, and what to do, in one sentence.
    pub says: String,
    /// The change that answers it.
    pub remedy: Option<Remedy>,
    /// Why somebody went on in spite of it.
    pub lifted: Option<String>,
}

/// A change that answers a finding.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Remedy {
    /// What the button says.
    pub label: String,
    /// The choices to merge into those of the shipment.
    pub choices: Choices,
}

impl Finding {
    /// Makes one about the piece.
    pub(crate) fn piece(level: FindingLevel, code: &'static str, says: impl Into<String>) -> Self {
        Self::of(level, code, FindingAbout::Piece, None, says)
    }

    /// Makes one about a layer.
    pub(crate) fn layer(
        level: FindingLevel,
        code: &'static str,
        slot: LayerSlot,
        says: impl Into<String>,
    ) -> Self {
        Self::of(level, code, FindingAbout::Layer, Some(slot), says)
    }

    /// Makes one about the whole parcel.
    pub(crate) fn parcel(level: FindingLevel, code: &'static str, says: impl Into<String>) -> Self {
        Self::of(level, code, FindingAbout::Parcel, None, says)
    }

    fn of(
        level: FindingLevel,
        code: &'static str,
        about: FindingAbout,
        layer: Option<LayerSlot>,
        says: impl Into<String>,
    ) -> Self {
        Self {
            level,
            code,
            about,
            layer,
            says: says.into(),
            remedy: None,
            lifted: None,
        }
    }

    /// Adds the change that answers it.
    pub(crate) fn answered_by(self, label: impl Into<String>, choices: Choices) -> Self {
        Self {
            remedy: Some(Remedy {
                label: label.into(),
                choices,
            }),
            ..self
        }
    }

    /// Tells whether it is a Stop that nobody has lifted.
    #[must_use]
    pub fn is_open_stop(&self) -> bool {
        self.level == FindingLevel::Stop && self.lifted.is_none()
    }
}

impl Choices {
    /// Makes the choice that adds or leaves out one layer.
    #[must_use]
    pub fn layer(slot: LayerSlot, present: bool) -> Self {
        Self {
            layers: [(slot, present)].into(),
            ..Self::default()
        }
    }
}
