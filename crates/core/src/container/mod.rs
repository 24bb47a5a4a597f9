//! Containers: what a box, a kit, a mailer or a tube is to hands.
//!
//! A [`Container`] is parts, seams, openings, and the acts by which it is made ready, loaded, closed, sealed and opened again. What a
//! packing list, a pack sheet and an unpacking guide say of a box, and every strip of tape on it, follows from these and from nothing
//! else. A new container is a module beside this one that returns a [`Container`], and a line where its kind is chosen.
//! [`Container::faults`] tells what hands could not do.

mod folder;
mod folding;
mod kit;
mod made;
mod mailer;
mod mouth;
mod opens;
mod picture;
mod saved;
mod seal;
mod sleeve;
mod slotted;
mod telescope;
mod tray;
mod tube;
mod used_for;
mod way_in;

pub(crate) use kit::short_flaps_lap;
pub use kit::{BoughtBox, KitParts};
pub use made::{Carton, CartonPart};
pub use mailer::MailerBox;
pub use mouth::passes;
pub(crate) use picture::screwed;
pub use saved::{SavedBox, SecondCarton};
pub use seal::SealStrip;
pub(crate) use seal::{SEAMS, alike};
pub use sleeve::Sandwich;
pub(crate) use slotted::GLUE_HOLDS;
pub use tube::TubeBox;
pub use used_for::{BoxPlace, Use};
pub use way_in::WayIn;

use crate::{
    act::{Act, Does, Thing},
    part::{PartId, StripId},
    quantity::Length,
};

/// A side through which a hand gets in until something closes it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Opening {
    /// What closes it for good, by the kinds of strips; none where a flap or a lid holds by itself.
    pub sealed_by: Vec<StripId>,
    /// Whether what it holds gets in there.
    pub loads: bool,
}

/// What the steps of a container are called.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Titles {
    /// Making it ready.
    pub ready: String,
    /// Putting something in.
    pub load: String,
    /// Closing it.
    pub close: String,
    /// Sealing it.
    pub seal: String,
    /// Opening it, for whoever gets it.
    pub open: String,
}

/// A part of making a container ready that is a step of its own, since all of it at once is too much to read.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ReadyStage {
    /// What its step is kept by, before the name of the box.
    pub key: &'static str,
    /// What its step is called.
    pub title: &'static str,
    /// How many of the acts that make the container ready belong to it.
    pub acts: usize,
}

/// A container with everything that hands do to it.
#[derive(Debug, Clone, PartialEq)]
pub struct Container {
    /// Its parts.
    pub parts: Vec<PartId>,
    /// Every strip of tape on it, in the order in which they are laid.
    pub strips: Vec<SealStrip>,
    /// Its sides that are open before something closes them.
    pub openings: Vec<Opening>,
    /// How something gets in.
    pub way_in: WayIn,
    /// What is clear of the opening that the goods pass, both ways; `None` if it is folded around them.
    pub mouth: Option<[Length; 2]>,
    /// The first of the acts that make it ready, where they are parted into steps; what is left belongs to its own step.
    pub stages: Vec<ReadyStage>,
    /// Whether all that goes in beside the goods goes in with them, since no hand gets in later.
    pub all_at_once: bool,
    /// How a part is cut that follows what is made already; `None` if all are cut at once.
    pub follows: Option<String>,
    /// Whether what it measures in the end is typed in.
    pub measured: bool,
    /// What closes over it, and presses on the fill, with its article.
    pub lid: &'static str,
    /// What its steps are called.
    pub titles: Titles,
    /// Making it ready.
    pub ready: Vec<Act>,
    /// Putting something in.
    pub load: Vec<Act>,
    /// Closing it.
    pub close: Vec<Act>,
    /// Sealing it.
    pub seal: Vec<Act>,
    /// Opening it again.
    pub open: Vec<Act>,
}

impl Container {
    /// Returns the strips that belong to one of its acts, alike ones together with how many there are.
    #[must_use]
    pub fn strips_of(&self, act: &Act) -> Vec<(&SealStrip, u32)> {
        alike(&self.strips)
            .into_iter()
            .filter(|(strip, _)| act.strips.contains(&strip.on))
            .collect()
    }

    /// Tells whether it is pushed together over what it holds, so that nothing can be shaken before it is closed.
    #[must_use]
    pub fn is_pushed_together(&self) -> bool {
        let pushed = self.close.iter().any(|act| act.does == Does::Push);
        pushed && self.way_in != WayIn::End
    }

    /// Returns what hands could not do, or would leave undone: a seam that is sealed never or twice, a side that stays open, a part that
    /// nothing is done with, a parcel that can't be opened. Empty for a container that can be packed.
    #[must_use]
    pub fn faults(&self) -> Vec<String> {
        let mut faults = Vec::new();
        let closes = || self.close.iter().chain(&self.seal);
        for (strip, _) in alike(&self.strips) {
            let laid = |acts: &mut dyn Iterator<Item = &Act>| {
                acts.filter(|act| act.does == Does::Tape && act.strips.contains(&strip.on))
                    .count()
            };
            let times = [laid(&mut self.ready.iter()), laid(&mut closes())];
            let wanted = if strip.first { [1, 0] } else { [0, 1] };
            if times != wanted {
                faults.push(format!(
                    "the strip {} is laid {} times before and {} times after",
                    strip.on.key(),
                    times[0],
                    times[1]
                ));
            }
        }
        for act in self.ready.iter().chain(closes()) {
            for on in &act.strips {
                if !self.strips.iter().any(|strip| strip.on == *on) {
                    faults.push(format!("no strip is torn {}", on.key()));
                }
            }
        }
        for opening in &self.openings {
            for on in &opening.sealed_by {
                let strip = self.strips.iter().find(|strip| strip.on == *on);
                match strip {
                    None => faults.push(format!("nothing seals what is open {}", on.key())),
                    Some(strip) if strip.first == opening.loads => {
                        faults.push(format!("{} is sealed at the wrong time", on.key()));
                    }
                    Some(_) => {}
                }
            }
            let opened = |on: &StripId| self.open.iter().any(|act| act.strips.contains(on));
            if opening.loads && !opening.sealed_by.iter().all(opened) {
                faults.push("what was taped shut is not cut open".to_owned());
            }
        }
        if self.openings.iter().filter(|one| one.loads).count() != 1 {
            faults.push("it is not loaded through one side".to_owned());
        }
        let handled = |part: PartId| {
            let all = self.ready.iter().chain(&self.load).chain(closes());
            let mut all = all.flat_map(|act| std::iter::once(act.thing).chain(act.to));
            all.any(|thing| thing == Thing::Part(part))
        };
        for part in &self.parts {
            if !handled(*part) {
                faults.push(format!("nothing is done with the {part}"));
            }
        }
        if !self.load.iter().any(|act| act.thing == Thing::Goods) {
            faults.push("nothing goes in".to_owned());
        }
        if self.close.is_empty() {
            faults.push("nothing closes it".to_owned());
        }
        let comes_out = |act: &Act| matches!(act.does, Does::Lift | Does::Slide | Does::Fold);
        if !self.open.iter().any(comes_out) {
            faults.push("nothing opens it".to_owned());
        }
        faults
    }
}

/// Kinds of strips of a seal that are there, of some.
fn those(strips: &[SealStrip], of: &[StripId]) -> Vec<StripId> {
    of.iter()
        .copied()
        .filter(|on| strips.iter().any(|strip| strip.on == *on))
        .collect()
}

/// The acts of a seal that any box may have after its opening is taped, and what is written on an inner box.
fn seal_after(of: &Use, part: PartId, strips: &[SealStrip]) -> Vec<Act> {
    let mut acts = Vec::new();
    if !those(strips, &[StripId::AlongTheEdges]).is_empty() {
        acts.push(Act::tape(
            part,
            &[StripId::AlongTheEdges],
            "Tape every edge that is still bare, from corner to corner.",
        ));
    }
    if !those(strips, &[StripId::OverTheNarrowSides]).is_empty() {
        acts.push(Act::tape(
            part,
            &[StripId::OverTheNarrowSides],
            "Cover the narrow sides with strips side by side, each lapping the one before.",
        ));
    }
    acts.push(Act::on(Does::Look, part, "Rub every strip down."));
    if of.place == BoxPlace::Inner {
        acts.push(Act::on(
            Does::Write,
            part,
            "Write on it which side is the face and which edge the top: the outer box hides both.",
        ));
    }
    acts
}

/// The title of a step that seals a part.
fn sealing(part: PartId) -> String {
    format!("Seal the {part}")
}
