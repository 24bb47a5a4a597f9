//! What is in a frame, and what the frame is like.

use serde::{Deserialize, Serialize};

use super::{Construction, Piece};

/// What is in a frame.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, Hash)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FrameHolds {
    /// A panel or a board.
    Panel,
    /// A canvas on its bars.
    StretchedCanvas,
    /// Paper on its mount.
    Paper,
}

/// What a frame is like.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, Hash)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum FrameFinish {
    /// Sound wood or metal that may be touched.
    #[default]
    Plain,
    /// Gilded, painted or waxed: nothing may rub on it.
    Delicate,
    /// Its corners or its mouldings stand up.
    Ornate,
    /// Its joints or its coating are old or loose.
    Old,
}

/// A frame that is delicate, ornate or old takes this share of the shock that a plain one takes.
const WEAKER: f64 = 0.73;

impl FrameFinish {
    /// What people call it, as it stands in a sentence.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Plain => "plain frame",
            Self::Delicate => "gilded, painted or waxed frame",
            Self::Ornate => "ornate frame",
            Self::Old => "old or loose frame",
        }
    }

    /// Tells whether neither card, tape nor film may lie on it.
    #[must_use]
    pub const fn is_left_free(self) -> bool {
        match self {
            Self::Delicate | Self::Ornate => true,
            Self::Plain | Self::Old => false,
        }
    }

    /// Returns the share of the shock of a piece in a plain frame that a piece in this one takes.
    #[must_use]
    pub const fn limit_factor(self) -> f64 {
        match self {
            Self::Plain => 1.0,
            Self::Delicate | Self::Ornate | Self::Old => WEAKER,
        }
    }
}

impl Construction {
    /// Returns what is in the frame of a piece of which nobody said it; `None` where there is no frame, or nothing but a pane.
    #[must_use]
    pub const fn usually_holds(self) -> Option<FrameHolds> {
        match self {
            Self::FramedUnglazed => Some(FrameHolds::StretchedCanvas),
            Self::FramedUnderGlass | Self::FramedUnderAcrylic => Some(FrameHolds::Paper),
            Self::StretchedCanvas
            | Self::CradledPanel
            | Self::RigidBoard
            | Self::Mirror
            | Self::LoosePaper
            | Self::LooseCanvas
            | Self::PanelSet => None,
        }
    }
}

impl Piece {
    /// Returns what is in its frame; `None` where it has none.
    #[must_use]
    pub fn frame_holds(&self) -> Option<FrameHolds> {
        let usual = self.construction.usually_holds()?;
        Some(self.frame_holds.unwrap_or(usual))
    }

    /// Returns what its frame is like; plain where it has none.
    #[must_use]
    pub const fn frame_finish(&self) -> FrameFinish {
        if self.construction.is_framed() {
            self.frame
        } else {
            FrameFinish::Plain
        }
    }

    /// Tells whether stretched cloth is in it, bare or in a frame.
    #[must_use]
    pub fn has_stretched_cloth(&self) -> bool {
        self.construction == Construction::StretchedCanvas
            || self.frame_holds() == Some(FrameHolds::StretchedCanvas)
    }
}
