//! What screws join in a travel case: how long they are, how many, and the hole that is drilled for each.

use serde::Serialize;

use crate::{
    act::{Driven, MovePicture},
    container::screwed,
    material::Sundry,
    quantity::Length,
};

/// What is joined.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Joins {
    /// Two battens glued edge to edge, by a plate across their joint.
    Plate,
    /// Two lengths of a side of the frame, by a cleat.
    Cleat,
    /// Two sides of the frame.
    Corner,
    /// A corner brace and the frame.
    Brace,
    /// A foot and the long side above it.
    Foot,
    /// A handle and a short side.
    Handle,
    /// A batten and the face that it lies on.
    Batten,
    /// A batten and both parts of a face that meet on it.
    Butt,
    /// One face and the frame: the floor.
    Floor,
    /// The other face and the frame.
    Lid,
}

impl Joins {
    /// Tells whether its screws are driven from inside the case.
    #[must_use]
    pub const fn from_inside(self) -> bool {
        match self {
            Self::Plate | Self::Cleat | Self::Brace | Self::Foot | Self::Batten | Self::Butt => {
                true
            }
            Self::Corner | Self::Handle | Self::Floor | Self::Lid => false,
        }
    }
}

/// Screws of one length that join the same two things.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Joint {
    /// What they join.
    pub joins: Joins,
    /// Whether they are driven from inside the case.
    pub from_inside: bool,
    /// How many, in the whole case.
    pub count: u32,
    /// How long each is.
    #[serde(rename = "screw_mm")]
    pub screw: Length,
    /// How thick that is which they go through.
    #[serde(rename = "through_mm")]
    pub through: Length,
    /// How thick that is in which they end.
    #[serde(rename = "into_mm")]
    pub into: Length,
    /// What the hole is drilled with.
    #[serde(rename = "drill_mm")]
    pub drill: Length,
    /// Where the drill's stop is set.
    #[serde(rename = "stop_mm")]
    pub stop: Length,
}

/// How deep a screw ends at least in the last thing. Source: woodworking practice.
const LEAST_HOLD: Length = Length::mm(10.0);
/// How far before its far side. Source: woodworking practice.
const BEFORE_FAR_SIDE: Length = Length::mm(2.0);
/// A hole of this share of a screw's diameter holds and does not split. Source: woodworking practice.
const DRILL_SHARE: f64 = 2.0 / 3.0;
/// Drills are sold in steps of this.
const DRILL_STEP: Length = Length::mm(0.5);
/// The stop is set this much short of the screw.
const STOP_SHORT: Length = Length::mm(2.0);

/// Tells whether a screw holds in the last of the things that it joins, and ends before its far side.
#[must_use]
pub fn holds(screw: Length, through: Length, into: Length) -> bool {
    screw - through >= LEAST_HOLD && screw + BEFORE_FAR_SIDE <= through + into
}

impl Joint {
    /// Returns what one of its screws goes through and ends in.
    pub(super) const fn driven(&self) -> Driven {
        Driven {
            screw: self.screw,
            through: self.through,
            into: self.into,
            stop: self.stop,
        }
    }

    /// Returns how one of its screws sits, cut open.
    pub(super) fn picture(&self) -> MovePicture {
        screwed([self.through, self.into, self.screw].map(Length::as_mm))
    }
}

/// What a joint asks of a screw.
pub(super) struct Asked {
    pub joins: Joins,
    pub through: Length,
    pub into: Length,
    /// No longer than this.
    pub most: Length,
    pub count: u32,
}

impl Asked {
    /// Returns the longest screw of the shelf that is no longer than asked, with its joint; `None` if none holds.
    pub(super) fn screwed<'a>(&self, sold: &[&'a Sundry]) -> Option<(&'a Sundry, Joint)> {
        let long_enough = |screw: &&&Sundry| screw.screw_length() <= self.most;
        let screw = sold
            .iter()
            .filter(long_enough)
            .max_by(|one, other| one.screw_length().cmp(&other.screw_length()))?;
        let length = screw.screw_length();
        let steps = (screw.thickness * DRILL_SHARE / DRILL_STEP)
            .floor()
            .max(1.0);
        holds(length, self.through, self.into).then(|| {
            let joint = Joint {
                joins: self.joins,
                from_inside: self.joins.from_inside(),
                count: self.count,
                screw: length,
                through: self.through,
                into: self.into,
                drill: DRILL_STEP * steps,
                stop: length - STOP_SHORT,
            };
            (*screw, joint)
        })
    }
}
