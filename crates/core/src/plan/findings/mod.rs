//! Every finding about a plan, by what it is about.

mod layers;
mod odds;
mod parcel;
mod piece;
mod stack;

pub(crate) use odds::ODDS_PAST_ACCEPTED;

use super::{Finding, Odds, Tally, recipe::Recipe, together::Stacked};
use crate::{
    layer::{Layer, Supplies},
    piece::Piece,
    quantity::{Length, Telling},
    space::LayerSlot,
};

/// A plan while it is looked over.
pub(super) struct Looked<'a> {
    pub piece: &'a Piece,
    pub supplies: &'a Supplies<'a>,
    pub recipe: &'a Recipe,
    pub layers: &'a [Layer],
    pub tally: &'a Tally,
    pub odds: &'a Odds,
}

impl Looked<'_> {
    /// How the studio reads quantities.
    fn telling(&self) -> Telling {
        self.supplies.rules.told_in
    }

    /// Tells a length as the studio measures.
    fn told(&self, length: Length) -> String {
        self.telling().length(length)
    }

    fn layer(&self, slot: LayerSlot) -> Option<&Layer> {
        self.layers.iter().find(|layer| layer.slot == slot)
    }
}

/// Returns every finding about a plan, the gravest first. Of several pieces each is looked over in its own column; what is
/// said of all of them is said once, what is not is said by name.
pub(super) fn all(
    looked: &[(Option<&str>, Looked<'_>)],
    stacked: Option<&Stacked<'_>>,
) -> Vec<Finding> {
    let mut findings: Vec<Finding> = Vec::new();
    let mut each: Vec<Vec<Finding>> = Vec::with_capacity(looked.len());
    for (_, looked) in looked {
        let mut own = Vec::new();
        piece::look(looked, &mut own);
        layers::look(looked, &mut own);
        each.push(own);
    }
    if let [only] = &mut each[..] {
        findings.append(only);
    }
    for (at, own) in each.iter().enumerate() {
        for finding in own {
            if findings
                .iter()
                .any(|known| known.code == finding.code && known.layer == finding.layer)
            {
                continue;
            }
            findings.push(said_once(finding, at, looked, &each));
        }
    }
    if let Some((_, first)) = looked.first() {
        odds::look(first, &mut findings);
        parcel::look(first, &mut findings);
    }
    if let Some(stacked) = stacked {
        stack::look(stacked, &mut findings);
    }
    findings.sort_by_key(|finding| finding.level);
    findings
}

/// A finding with the names of those that it is said of, where it is not said of all in the same words.
fn said_once(
    finding: &Finding,
    first: usize,
    looked: &[(Option<&str>, Looked<'_>)],
    each: &[Vec<Finding>],
) -> Finding {
    let alike: Vec<(usize, &Finding)> = each
        .iter()
        .enumerate()
        .skip(first)
        .filter_map(|(at, own)| {
            let same = own
                .iter()
                .find(|other| other.code == finding.code && other.layer == finding.layer)?;
            Some((at, same))
        })
        .collect();
    let of_all =
        alike.len() == looked.len() && alike.iter().all(|(_, other)| other.says == finding.says);
    if of_all {
        return finding.clone();
    }
    let mut sentences: Vec<(String, Vec<&str>)> = Vec::new();
    for (at, other) in &alike {
        let title = looked[*at].0.unwrap_or_default();
        match sentences.iter_mut().find(|(says, _)| *says == other.says) {
            Some((_, titles)) => titles.push(title),
            None => sentences.push((other.says.clone(), vec![title])),
        }
    }
    let says: Vec<String> = sentences
        .into_iter()
        .map(|(says, titles)| format!("{}: {says}", titles.join(", ")))
        .collect();
    Finding {
        level: alike
            .iter()
            .map(|(_, other)| other.level)
            .min()
            .unwrap_or(finding.level),
        says: says.join(" "),
        ..finding.clone()
    }
}
