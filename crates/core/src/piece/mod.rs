//! What is shipped: what carries it, how large it is, what it is made in, its condition, and
//! whether it has cured.

mod construction;
mod cure;
mod fragility;
mod frame;
mod medium;
mod outline;
mod pane;
mod size;

pub use construction::{Construction, Glazing};
pub use cure::{Cure, Varnish, cure_of};
pub use fragility::{Fragility, PLANE_FREQUENCY, glass_limit, mirror_limit};
pub use frame::{FrameFinish, FrameHolds};
pub use medium::{Medium, PaintBody};
pub use outline::{Bearing, BearingPoint, Outline};
pub use pane::Pane;
pub use size::{DEPTH, HEIGHT, PieceSize, WIDTH};

use jiff::civil::Date;
use serde::{Deserialize, Serialize};

use crate::quantity::{Area, Length, Mass, Shock, Weight};

/// In what order the surface is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, Hash)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Condition {
    /// Nothing is loose.
    #[default]
    Sound,
    /// Paint, pigment or gilding is loose.
    Flaking,
}

/// How the top of a piece is known.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TopEdge {
    /// The picture shows it.
    #[default]
    Plain,
    /// It is marked on the back.
    Marked,
    /// Nothing shows it yet.
    Unmarked,
}

/// A flat piece, measured.
#[derive(Debug, Clone, PartialEq)]
pub struct Piece {
    /// What carries the art.
    pub construction: Construction,
    /// Over everything, frame and hardware too; of one piece where it is one of a set.
    pub size: PieceSize,
    /// Its shape within that.
    pub outline: Outline,
    /// At how many points a shaped piece bears, of a polygon how many sides it has; by its outline when absent.
    pub bearing_points: Option<u32>,
    /// What it is painted, drawn or printed in; nothing for a mirror.
    pub medium: Option<Medium>,
    /// How thickly.
    pub paint: PaintBody,
    /// When the last of it was laid on; unknown counts as long ago only where nothing has to cure.
    pub finished: Option<Date>,
    /// Whether and when it was varnished.
    pub varnish: Option<Varnish>,
    /// In what order its surface is.
    pub condition: Condition,
    /// Whether its glass has a coating that tape would lift.
    pub coated_glass: bool,
    /// Whether its acrylic is antistatic.
    pub antistatic: bool,
    /// What is in its frame, where that was said.
    pub frame_holds: Option<FrameHolds>,
    /// What its frame is like.
    pub frame: FrameFinish,
    /// How wide its bare border is, on which a strip may lie, where it has one.
    pub bare_border: Option<Length>,
    /// How wide the moulding of its frame is from the outside to what is seen in it, where somebody measured it; 0 without a frame.
    pub moulding_width: Option<Length>,
    /// Of a piece under glass.
    pub pane: Pane,
    /// How far hardware stands off the back, within the depth measured.
    pub hardware: Option<Length>,
    /// Whether a certificate goes with it.
    pub certificate: bool,
    /// How its top is known.
    pub top: TopEdge,
    /// As the scale read it; of all of a set.
    pub weighed: Option<Mass>,
    /// The shock it can take, where that was set for it.
    pub limit: Option<Shock>,
    /// What it is worth, where that was given.
    pub value: Option<f64>,
    /// Whether it can't be made again, or replaced by another.
    pub irreplaceable: bool,
    /// How many like pieces travel together.
    pub count: u32,
}

/// The scale is read to this share.
const SCALE_DOUBT: f64 = 0.005;
/// A moulding that nobody measured is taken to be so wide. Source: house rule.
const MOULDING: Length = Length::mm(20.0);
/// So much is seen in the smallest frame, each way.
pub const LEAST_SEEN: Length = Length::mm(20.0);

impl Piece {
    /// Makes a plain rectangular piece in good order, of which nothing else is known.
    #[must_use]
    pub const fn new(construction: Construction, size: PieceSize, medium: Option<Medium>) -> Self {
        Self {
            construction,
            size,
            outline: Outline::Rectangle,
            bearing_points: None,
            medium,
            paint: PaintBody::Thin,
            finished: None,
            varnish: None,
            condition: Condition::Sound,
            coated_glass: false,
            antistatic: false,
            frame_holds: None,
            frame: FrameFinish::Plain,
            bare_border: None,
            moulding_width: None,
            pane: Pane::Two,
            hardware: None,
            certificate: false,
            top: TopEdge::Plain,
            weighed: None,
            limit: None,
            value: None,
            irreplaceable: false,
            count: 1,
        }
    }

    /// Returns what it weighs: as the scale read it, else estimated from what it is made of.
    ///
    /// `doubt` is the share of an estimate that may be off: 0.2 by the default house rule.
    #[must_use]
    pub fn weight(&self, doubt: f64) -> Weight {
        if let Some(mass) = self.weighed {
            return Weight::with_doubt(mass, SCALE_DOUBT);
        }
        let face = self.face();
        let mut one = self
            .construction
            .mass(self.size, face, self.paint, self.frame_holds());
        if self.construction == Construction::FramedUnderGlass {
            one += self.pane.beyond_two() * face;
        }
        Weight::with_doubt(one * f64::from(self.count), doubt)
    }

    /// Tells whether its face must never be touched, and nothing stands before it yet.
    #[must_use]
    pub fn is_friable(&self) -> bool {
        let loose = self.medium == Some(Medium::PastelOrCharcoal);
        loose && self.construction.glazing() == Glazing::None
    }

    /// Tells whether a window spacer must hold everything off its face: loose pigment, and thick paint that
    /// would otherwise be pressed between boards.
    #[must_use]
    pub fn needs_spacer(&self) -> bool {
        let pressed = self.construction.is_loose() && self.paint == PaintBody::Impasto;
        self.is_friable() || pressed
    }

    /// Tells whether bare paint, print or drawing is what the first layer would lie against.
    #[must_use]
    pub fn bare_medium(&self) -> Option<Medium> {
        self.medium
            .filter(|_| self.construction.glazing() == Glazing::None)
    }

    /// Tells whether brush marks or more stand up from its face, and no pane is over them.
    #[must_use]
    pub fn has_raised_paint(&self) -> bool {
        self.paint != PaintBody::Thin && self.bare_medium().is_some()
    }

    /// Returns how wide the moulding of its frame is taken to be; `None` where it was measured, or where there is no frame to speak of.
    #[must_use]
    pub fn assumed_moulding(&self) -> Option<Length> {
        (self.construction.is_framed() && self.moulding_width.is_none()).then_some(MOULDING)
    }

    /// Returns what is seen within its frame, width and height.
    #[must_use]
    pub fn pane_seen(&self) -> [Length; 2] {
        let moulding = self.assumed_moulding().or(self.moulding_width);
        let around = moulding.unwrap_or_default() * 2.0;
        [self.size.width, self.size.height].map(|side| (side - around).max(LEAST_SEEN))
    }

    /// Returns at how many points it bears.
    #[must_use]
    pub fn bearing_points(&self) -> u32 {
        self.outline.bearing_points(self.bearing_points)
    }

    /// Returns the area of its face, by its outline.
    #[must_use]
    pub fn face(&self) -> Area {
        self.outline.face(self.size, self.bearing_points())
    }

    /// Tells whether it has no corners to hold it by, or none but those below.
    #[must_use]
    pub fn is_shaped(&self) -> bool {
        self.outline != Outline::Rectangle
    }

    /// Returns when it has cured, paint and varnish both; `None` if it is ready on the day it is
    /// finished.
    #[must_use]
    pub fn cure(&self) -> Option<Cure> {
        cure_of(self.medium?, self.paint, self.finished, self.varnish)
    }
}
