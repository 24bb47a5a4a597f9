//! What a plan has to say: Stop, Mind or Note, about a layer, in one sentence.

use serde::{Deserialize, Serialize};

use super::Tally;
use crate::{
    carton::SheetNeed,
    layer::{Layer, Make, Supplies},
    piece::Piece,
    quantity::Length,
};

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
    /// The sheet against the art.
    ContactSheet,
    /// The corner pockets.
    CardPockets,
    /// The face boards.
    FaceBoards,
    /// The box.
    Box,
    /// The whole parcel.
    Parcel,
}

/// One finding.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Finding {
    /// How much it matters.
    pub level: FindingLevel,
    /// What it is about.
    pub about: FindingAbout,
    /// Why, and what to do, in one sentence.
    pub says: String,
}

/// Tape needs this much of a pocket to land on.
const TAPE_LANDING: Length = Length::mm(25.0);

/// Returns every finding about a plan, the gravest first.
pub(super) fn all(
    piece: &Piece,
    supplies: &Supplies<'_>,
    layers: &[Layer],
    tally: &Tally,
) -> Vec<Finding> {
    let mut findings: Vec<Finding> = [
        contact(piece, supplies),
        glass(piece),
        lifting(supplies, tally),
    ]
    .into_iter()
    .flatten()
    .chain(layers.iter().filter_map(|layer| about_make(&layer.make)))
    .collect();
    findings.sort_by_key(|finding| finding.level);
    findings
}

fn finding(level: FindingLevel, about: FindingAbout, says: impl Into<String>) -> Finding {
    Finding {
        level,
        about,
        says: says.into(),
    }
}

fn contact(piece: &Piece, supplies: &Supplies<'_>) -> Option<Finding> {
    let medium = piece.medium;
    let paper = supplies.contact_paper;
    if piece.construction.is_glazed() {
        return None;
    }
    if !paper.may_touch.contains(&medium) {
        let says = format!(
            "No sheet in the stores may touch {}: put it under glass, or a window mount over it, before it is wrapped.",
            medium.name()
        );
        return Some(finding(
            FindingLevel::Stop,
            FindingAbout::ContactSheet,
            says,
        ));
    }
    (paper.id != supplies.rules.materials.contact_paper).then(|| {
        let says = format!(
            "{} takes the place of the house's sheet, which may not touch {}.",
            paper.name,
            medium.name()
        );
        finding(FindingLevel::Note, FindingAbout::ContactSheet, says)
    })
}

fn glass(piece: &Piece) -> Option<Finding> {
    piece.construction.is_glazed().then(|| {
        finding(
            FindingLevel::Mind,
            FindingAbout::ContactSheet,
            "Tape plain glass with low-tack tape before the sheet goes on, so that a break stays put; never tape acrylic or coated glass.",
        )
    })
}

fn lifting(supplies: &Supplies<'_>, tally: &Tally) -> Option<Finding> {
    let allowances = supplies.allowances();
    let heavy = tally.weight.mass > allowances.two_people_mass;
    let long = tally.outside.long_side() > allowances.two_people_length;
    (heavy || long).then(|| {
        finding(
            FindingLevel::Mind,
            FindingAbout::Parcel,
            "This parcel is past what one person carries: have two to lift it.",
        )
    })
}

fn about_make(make: &Make) -> Option<Finding> {
    match make {
        Make::CardPockets(pocket) if pocket.leg < TAPE_LANDING => Some(finding(
            FindingLevel::Mind,
            FindingAbout::CardPockets,
            "The pockets are too short for tape to land on: bind all four with one band around the piece.",
        )),
        Make::SlottedBox(carton) => match &carton.sheet {
            SheetNeed::One { .. } => None,
            SheetNeed::Joined { .. } => Some(finding(
                FindingLevel::Note,
                FindingAbout::Box,
                "The blank is wider than any sheet: split it at the middle score and tape the lap, which is weaker there.",
            )),
            SheetNeed::NoSheet => Some(finding(
                FindingLevel::Mind,
                FindingAbout::Box,
                "No sheet of this board takes the blank, even split at its middle score: choose a board with larger sheets.",
            )),
        },
        _ => None,
    }
}
