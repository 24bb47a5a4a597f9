//! What hands do, act by act. The words of an act are made with it, by one function, so that text and model can't differ.

mod picture;
mod place;
mod still;

pub use picture::{FaceOf, MovePicture, PictureFace};
pub use place::{Pose, Spot};
use serde::{Serialize, Serializer};
pub use still::{Held, Stands, Still, StillBox, StillThing};

use crate::{
    part::{PartId, StripId},
    quantity::{Length, Mass, Minutes},
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
    /// Wind it around.
    Wrap,
    /// Roll it up.
    Roll,
    /// Take tape around several things, so that they are one.
    Bind,
    /// Put fill in.
    Fill,
    /// Wipe or wash it, or clear it away.
    Clean,
    /// Cut tape that was laid before.
    CutOpen,
    /// Lift it off or out.
    Lift,
    /// Keep it with one hand where it lies, until the next act fixes it.
    Hold,
}

/// What an act is done to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Thing {
    /// A part that was cut, or taken off the shelf.
    Part(PartId),
    /// What a container holds.
    Goods,
    /// The piece; of several the one in hand, or each of them.
    Piece,
    /// The closed parcel.
    Parcel,
    /// The bench, with what lies ready on it.
    Bench,
    /// What is put in besides, as an invoice or a card.
    Enclosed,
}

impl Thing {
    /// Returns its key, which never changes.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Part(part) => part.key(),
            Self::Goods => "goods",
            Self::Piece => "piece",
            Self::Parcel => "parcel",
            Self::Bench => "bench",
            Self::Enclosed => "enclosed",
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

/// A screw, and the hole that is drilled for it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Driven {
    /// How long it is.
    #[serde(rename = "screw_mm")]
    pub screw: Length,
    /// How thick that is which it goes through.
    #[serde(rename = "through_mm")]
    pub through: Length,
    /// How thick that is in which it ends.
    #[serde(rename = "into_mm")]
    pub into: Length,
    /// Where the drill's stop is set.
    #[serde(rename = "stop_mm")]
    pub stop: Length,
}

/// A gap that is filled.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Filled {
    /// How wide it is.
    #[serde(rename = "gap_mm")]
    pub gap: Length,
    /// Whether what goes in is loose: poured, crumpled or blown, and not a sheet or a pad of its own.
    pub loose: bool,
}

/// A place in a box that a hand gets to.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Reached {
    /// How far in it is at most.
    #[serde(rename = "deep_mm")]
    pub deep: Length,
    /// What is clear of the opening on the way there, both ways.
    #[serde(rename = "mouth_mm")]
    pub mouth: [Length; 2],
}

/// Something that is lifted over a wall.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lifted {
    /// What it weighs.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// How high the wall is; 0 where the opening lies level with the bench.
    #[serde(rename = "over_mm")]
    pub over: Length,
    /// How much room it has in there, on the side where it has most, before any of it is filled.
    #[serde(rename = "room_mm")]
    pub room: Length,
}

/// One act.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Act {
    /// What hands do.
    pub does: Does,
    /// The key of the part that they do it to; `goods` for what a container holds, `piece`, `parcel`, `bench`, or `enclosed` for what goes in besides.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub thing: Thing,
    /// The keys of other things that they do it to as well.
    #[cfg_attr(feature = "schema", schema(value_type = Vec<String>))]
    pub also: Vec<Thing>,
    /// The key of what it goes into, onto, over or with; `None` if there is nothing.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    pub to: Option<Thing>,
    /// The strips of tape that are laid or cut, by what they close.
    #[cfg_attr(feature = "schema", schema(value_type = Vec<String>))]
    pub strips: Vec<StripId>,
    /// How long a way each of those strips goes over; `None` if that is not measured.
    #[serde(rename = "spans_mm")]
    pub spans: Option<Length>,
    /// How the piece lies while it is done; `None` if it may lie as it does.
    pub lies: Option<Pose>,
    /// Where on the piece the thing comes to lie; `None` if nothing is laid on it.
    pub at: Option<Spot>,
    /// How far it keeps what comes over it off the face; `None` if it keeps nothing off.
    #[serde(rename = "keeps_off_mm")]
    pub keeps_off: Option<Length>,
    /// How a hand gets to where it is done; `None` if nothing is in its way.
    pub reaches: Option<Reached>,
    /// When it ends; `None` if that is plain.
    pub until: Option<Until>,
    /// The last of the scores of its parts that are folded when it is done, by their order in the net; `None` if it folds none of a net.
    pub folds_to: Option<u32>,
    /// What its screws go through and end in; `None` if it drives none.
    pub drives: Option<Driven>,
    /// The gap that is filled; `None` if it fills none.
    pub fills: Option<Filled>,
    /// What is lifted, and over how high a wall; `None` if nothing is.
    pub lifts: Option<Lifted>,
    /// How long it is left alone afterwards.
    #[serde(rename = "waits_minutes")]
    pub waits: Minutes,
    /// The act in words.
    pub says: String,
    /// The same on paper, where a screen has other words for it; `None` if both have the same.
    pub prints: Option<&'static str>,
    /// How it looks; `None` if a drawing says no more than the words.
    pub picture: Option<MovePicture>,
}

impl Act {
    /// Returns an act in words.
    pub(crate) fn new(does: Does, thing: Thing, says: impl Into<String>) -> Self {
        Self {
            does,
            thing,
            also: Vec::new(),
            to: None,
            strips: Vec::new(),
            spans: None,
            lies: None,
            at: None,
            keeps_off: None,
            reaches: None,
            until: None,
            folds_to: None,
            drives: None,
            fills: None,
            lifts: None,
            waits: Minutes::ZERO,
            says: says.into(),
            prints: None,
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

    /// Returns the same, into, onto, over or with another part.
    pub(crate) fn to(self, part: PartId) -> Self {
        self.with(Thing::Part(part))
    }

    /// Returns the same, into, onto, over or with another thing.
    pub(crate) fn with(self, thing: Thing) -> Self {
        Self {
            to: Some(thing),
            ..self
        }
    }

    /// Returns the same, done to other parts as well.
    pub(crate) fn and(mut self, parts: impl IntoIterator<Item = PartId>) -> Self {
        self.also.extend(parts.into_iter().map(Thing::Part));
        self
    }

    /// Returns everything that it is about: what it is done to, and what that goes into, onto, over or with.
    pub fn things(&self) -> impl Iterator<Item = Thing> {
        let also = self.also.iter().copied();
        std::iter::once(self.thing).chain(also).chain(self.to)
    }

    /// Returns the same, with strips of tape that are laid.
    pub(crate) fn taped(self, strips: &[StripId]) -> Self {
        Self {
            strips: strips.to_vec(),
            ..self
        }
    }

    /// Returns the same, with a thing that comes to lie on the piece.
    pub(crate) fn at(self, spot: Spot) -> Self {
        Self {
            at: Some(spot),
            ..self
        }
    }

    /// Returns the same, done while the piece lies in a way.
    pub(crate) fn lying(self, pose: Pose) -> Self {
        Self {
            lies: Some(pose),
            ..self
        }
    }

    /// Returns the same, with strips that go over so long a way.
    pub(crate) fn spanning(self, way: Length) -> Self {
        Self {
            spans: Some(way),
            ..self
        }
    }

    /// Returns the same, keeping what comes over it off the face.
    pub(crate) fn keeping_off(self, gap: Length) -> Self {
        Self {
            keeps_off: Some(gap),
            ..self
        }
    }

    /// Returns the same, done within a box.
    pub(crate) fn reaching(self, reaches: Option<Reached>) -> Self {
        Self { reaches, ..self }
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

    /// Returns the same with the screws that it drives, where there are any.
    pub(crate) fn driving(self, drives: Option<Driven>) -> Self {
        Self { drives, ..self }
    }

    /// Returns the same, filling a gap.
    pub(crate) fn filling(self, gap: Length, loose: bool) -> Self {
        Self {
            fills: Some(Filled { gap, loose }),
            ..self
        }
    }

    /// Returns the same, in which something is lifted.
    pub(crate) fn lifting(self, lifts: Lifted) -> Self {
        Self {
            lifts: Some(lifts),
            ..self
        }
    }

    /// Returns the same with other words on paper.
    pub(crate) fn printing(self, prints: &'static str) -> Self {
        Self {
            prints: Some(prints),
            ..self
        }
    }

    /// Returns it in words, as paper has them.
    #[must_use]
    pub fn on_paper(&self) -> &str {
        self.prints.unwrap_or(&self.says)
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
