//! What hands do to a container, act by act. The words of an act are made with it, by one function, so that text and model can't differ.

use serde::{Serialize, Serializer};

use super::MovePicture;
use crate::{
    part::{PartId, StripId},
    quantity::{Length, Mass, Minutes, Telling},
};

/// What hands do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Does {
    /// Press a line along which it folds.
    Score,
    /// Cut, slit or trim.
    Cut,
    /// Fold or unfold.
    Fold,
    /// Turn it inside out or over.
    Turn,
    /// Set it on one of its sides.
    Stand,
    /// Lay it down.
    Lay,
    /// Slide it into something or along it.
    Slide,
    /// Push it over something.
    Push,
    /// Tear strips of tape and press them on.
    Tape,
    /// Drill holes, and drive screws into them.
    Screw,
    /// Spread glue, and press together.
    Glue,
    /// Write on it, or cross something out.
    Write,
    /// Look at it or measure it.
    Look,
    /// Cut tape that was laid before.
    CutOpen,
    /// Lift it off or out.
    Lift,
}

/// What an act is done to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Thing {
    /// A part of the container.
    Part(PartId),
    /// What the container holds.
    Goods,
}

impl Thing {
    /// Returns its key, which never changes.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Part(part) => part.key(),
            Self::Goods => "goods",
        }
    }
}

impl Serialize for Thing {
    fn serialize<S: Serializer>(&self, into: S) -> Result<S::Ok, S::Error> {
        into.serialize_str(self.key())
    }
}

/// When an act ends that could go on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Until {
    /// It presses on what is inside.
    Presses,
    /// It meets its stop.
    Stop,
    /// Two parts lap by a length.
    Laps {
        /// By how much.
        lap_mm: Length,
    },
    /// It is a length inside.
    Measures {
        /// How long.
        inside_mm: Length,
    },
}

/// One act.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Act {
    /// What hands do.
    pub does: Does,
    /// The key of the part that they do it to, or `goods` for what the container holds.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub thing: Thing,
    /// The key of the part that it goes into, onto or over; `None` if there is none.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub to: Option<Thing>,
    /// The strips of tape that are laid or cut, by what they close.
    #[cfg_attr(feature = "schema", schema(value_type = Vec<String>))]
    pub strips: Vec<StripId>,
    /// When it ends; `None` if that is plain.
    pub until: Option<Until>,
    /// The last of the scores of its parts that are folded when it is done, by their order in the net; `None` if it folds none of a net.
    pub folds_to: Option<u32>,
    /// How long it is left alone afterwards.
    #[serde(rename = "waits_minutes")]
    pub waits: Minutes,
    /// The act in words.
    pub says: String,
    /// How it looks; `None` if a drawing says no more than the words.
    pub picture: Option<MovePicture>,
}

impl Act {
    /// Returns an act in words.
    pub(crate) fn new(does: Does, thing: Thing, says: impl Into<String>) -> Self {
        Self {
            does,
            thing,
            to: None,
            strips: Vec::new(),
            until: None,
            folds_to: None,
            waits: Minutes::ZERO,
            says: says.into(),
            picture: None,
        }
    }

    /// Returns an act on a part.
    pub(crate) fn on(does: Does, part: PartId, says: impl Into<String>) -> Self {
        Self::new(does, Thing::Part(part), says)
    }

    /// Returns an act on what the container holds.
    pub(crate) fn goods(does: Does, into: PartId, says: impl Into<String>) -> Self {
        Self::new(does, Thing::Goods, says).to(into)
    }

    /// Returns strips that are laid on a part.
    pub(crate) fn tape(part: PartId, strips: &[StripId], says: impl Into<String>) -> Self {
        Self {
            strips: strips.to_vec(),
            ..Self::on(Does::Tape, part, says)
        }
    }

    /// Returns strips that are cut to open the container.
    pub(crate) fn cut_open(part: PartId, strips: &[StripId], says: impl Into<String>) -> Self {
        Self {
            strips: strips.to_vec(),
            ..Self::on(Does::CutOpen, part, says)
        }
    }

    /// Returns the same, into, onto or over another part.
    pub(crate) fn to(self, part: PartId) -> Self {
        Self {
            to: Some(Thing::Part(part)),
            ..self
        }
    }

    /// Returns the same with its end.
    pub(crate) fn until(self, until: Until) -> Self {
        Self {
            until: Some(until),
            ..self
        }
    }

    /// Returns the same, done when the nets of its parts are folded up to a step.
    pub(crate) fn folding_to(self, step: u32) -> Self {
        Self {
            folds_to: Some(step),
            ..self
        }
    }

    /// Returns the same with its picture, where there is one.
    pub(crate) fn seen_if(self, picture: Option<MovePicture>) -> Self {
        Self { picture, ..self }
    }

    /// Returns the same with a time in which nothing is touched.
    pub(crate) fn waiting(self, waits: Minutes) -> Self {
        Self { waits, ..self }
    }

    /// Returns the same with its picture.
    pub(crate) fn seen(self, picture: MovePicture) -> Self {
        Self {
            picture: Some(picture),
            ..self
        }
    }
}

/// Which of two boxes it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BoxPlace {
    /// The only one.
    Only,
    /// The first of two.
    Inner,
    /// The one around the first.
    Outer,
}

/// What a container is used for, as far as its acts depend on it.
#[derive(Debug, Clone, Copy)]
pub struct Use {
    /// What goes in, as `the wrapped piece`.
    pub what: &'static str,
    /// What of it looks to the front, as `its face`.
    pub face: &'static str,
    /// Which of two boxes it is.
    pub place: BoxPlace,
    /// Of what goes in.
    pub mass: Mass,
    /// Whether a pane or a mirror is in it.
    pub pane: bool,
    /// Whether fill goes along all edges before it is closed.
    pub filled: bool,
    /// How long the closed container is outside, along its longest side.
    pub outside_long: Length,
    /// What lengths are told in.
    pub telling: Telling,
}

impl Use {
    /// What a container is used for whose piece isn't known: as in a sum that is asked for by itself.
    pub(crate) fn by_sums(what: &'static str, long: Length) -> Self {
        Self {
            what,
            face: "its face",
            place: BoxPlace::Only,
            mass: Mass::ZERO,
            pane: false,
            filled: false,
            outside_long: long,
            telling: Telling::default(),
        }
    }

    /// Returns a part of the only box as the part of this one.
    pub(crate) fn part(&self, part: PartId) -> PartId {
        let [inner, outer] = part.of_two_boxes();
        match self.place {
            BoxPlace::Only => part,
            BoxPlace::Inner => inner,
            BoxPlace::Outer => outer,
        }
    }

    /// Tells whether it is too heavy to be lifted over a wall of a height.
    pub(crate) fn too_heavy_over(&self, wall: Length) -> bool {
        self.mass > LIFTED && wall > WALL
    }

    pub(crate) fn length(&self, length: Length) -> String {
        self.telling.length(length)
    }
}

/// What is heavier is not lifted over a wall that is higher. Source: packaging engineering practice.
const LIFTED: Mass = Mass::kg(10.0);
const WALL: Length = Length::mm(500.0);
