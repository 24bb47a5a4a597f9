//! Nouns: what a step names was cut or taken before; what was cut or taken is used in one place.

use std::collections::{BTreeMap, BTreeSet};

use super::{Broken, Rule, cuts};
use crate::{
    act::{Act, Thing},
    pack::{PackStep, Stage},
    part::{Part, PartId, Take},
};

/// Tells whether a part comes off a sheet or a wide roll with a knife, and so is cut in a step of its own.
const fn is_cut(part: &Part) -> bool {
    matches!(
        part.take,
        Take::Piece { .. }
            | Take::Run {
                width_mm: Some(_),
                ..
            }
    )
}

/// Tells whether a part is counted out with others of its kind, so that acts speak of it in passing: tape, screws and glue.
const fn is_small(part: &Part) -> bool {
    let tape = matches!(part.take, Take::Run { width_mm: None, .. });
    tape || matches!(part.id, PartId::Screw | PartId::Glue)
}

fn named(acts: &[Act]) -> impl Iterator<Item = PartId> {
    acts.iter()
        .flat_map(Act::things)
        .filter_map(|thing| match thing {
            Thing::Part(part) => Some(part),
            _ => None,
        })
}

/// What lies cut on the bench: how many of each part.
#[derive(Default)]
struct Bench {
    cut: Vec<(Part, bool)>,
}

impl Bench {
    /// Takes one like a part; tells whether there was one.
    fn take(&mut self, part: &Part) -> bool {
        let like = |(cut, used): &&mut (Part, bool)| !*used && cut == part;
        match self.cut.iter_mut().find(like) {
            Some((_, used)) => {
                *used = true;
                true
            }
            None => false,
        }
    }
}

pub(super) fn look(steps: &[PackStep]) -> Option<Broken> {
    let broken = |step: &PackStep, thing: PartId, says: String| {
        Some(Broken::at(Rule::Nouns, step, thing.key(), says))
    };
    let mut bench = Bench::default();
    let mut there: BTreeSet<PartId> = BTreeSet::new();
    let mut last_cut: BTreeMap<PartId, &PackStep> = BTreeMap::new();
    for step in steps {
        if cuts(step) {
            for part in &step.parts {
                bench.cut.push((part.clone(), false));
                last_cut.insert(part.id, step);
            }
            continue;
        }
        for part in &step.parts {
            // Tubes and battens are sawn off, though they have a length alone.
            if !bench.take(part) && is_cut(part) {
                let says = format!("the {} was never cut, or was used before", part.id);
                return broken(step, part.id, says);
            }
        }
        there.extend(step.parts.iter().map(|part| part.id));
        // A container's own parts are made where it is made ready.
        if step.stage == Stage::Box {
            there.extend(named(&step.acts));
        }
        for part in named(&step.acts) {
            if !there.contains(&part) {
                let says = format!("no {part} was cut or taken before");
                return broken(step, part, says);
            }
        }
        // What goes into a box goes in with what fills it, share by share.
        if step.stage != Stage::Box {
            let acted: BTreeSet<PartId> = named(&step.acts).collect();
            let mut idle = step.parts.iter().filter(|part| !is_small(part));
            if let Some(part) = idle.find(|part| !acted.contains(&part.id)) {
                let says = format!("the {} is taken, and nothing is done with it", part.id);
                return broken(step, part.id, says);
            }
        }
    }
    let unused = bench.cut.iter().find(|(_, used)| !used)?;
    let step = last_cut.get(&unused.0.id)?;
    let says = format!("the {} is cut, and never used", unused.0.id);
    broken(step, unused.0.id, says)
}
