//! Boxes: each is made ready, loaded, closed and sealed in this order, and nothing is done behind what covers it.

use std::collections::BTreeMap;

use super::{Broken, Rule, cuts};
use crate::{
    act::{Stands, Thing},
    pack::PackStep,
};

/// The box that a step is about, and how far it is afterwards; what goods are put into while it is made is loaded then.
pub(super) fn stands(step: &PackStep) -> Option<(&str, Stands)> {
    let (what, of) = step.key.split_once('/')?;
    if !matches!(of, "box" | "second_box") {
        return None;
    }
    let loads = step.acts.iter().any(|act| act.thing == Thing::Goods);
    let stands = match what {
        "layer" if loads => Stands::Loaded,
        "layer" => Stands::Ready,
        "in" => Stands::Loaded,
        "close" => Stands::Closed,
        "seal" => Stands::Sealed,
        _ => return None,
    };
    Some((of, stands))
}

pub(super) fn look(steps: &[PackStep]) -> Option<Broken> {
    let mut boxes: BTreeMap<&str, Stands> = BTreeMap::new();
    for step in steps {
        let Some((of, now)) = stands(step) else {
            continue;
        };
        let before = boxes.insert(of, now);
        let follows = match now {
            Stands::Ready => before.is_none(),
            Stands::Loaded if step.key.starts_with("layer/") => before.is_none(),
            Stands::Loaded => before == Some(Stands::Ready),
            Stands::Closed => before == Some(Stands::Loaded),
            Stands::Sealed => before == Some(Stands::Closed),
        };
        if !follows {
            let says = match now {
                Stands::Ready => "the box is made ready twice",
                Stands::Loaded => "nothing is ready to be loaded",
                Stands::Closed => "the box is closed before anything lies in it",
                Stands::Sealed => "an open box is sealed",
            };
            return Some(Broken::at(Rule::Boxes, step, of, says));
        }
    }
    let open = boxes.iter().find(|(_, stands)| **stands < Stands::Closed)?;
    let last = steps.last()?;
    Some(Broken::at(
        Rule::Boxes,
        last,
        open.0,
        "the parcel leaves with an open box",
    ))
}

/// Nothing that a step covers is done after it, and nothing is done before what it waits for.
pub(super) fn reach(steps: &[PackStep]) -> Option<Broken> {
    for (at, step) in steps.iter().enumerate() {
        let (before, after) = (&steps[..at], &steps[at + 1..]);
        if let Some(late) = after.iter().find(|other| step.covers.contains(&other.key)) {
            let says = format!("{} covers what is still to be done", step.title);
            return Some(Broken::at(Rule::Reach, late, &step.key, says));
        }
        let missing = |key: &&String| {
            let comes = after.iter().any(|other| other.key == **key);
            comes && before.iter().all(|other| other.key != **key)
        };
        if let Some(key) = step.waits_for.iter().find(missing).filter(|_| !cuts(step)) {
            return Some(Broken::at(
                Rule::Reach,
                step,
                key,
                "it is done before what it lies on",
            ));
        }
    }
    None
}
