//! What could hurt, where the hand is: in a sentence where it first comes up in a stage, and as a small sign from there on.

use super::{PackStep, Sign};
use crate::{
    layer::{FIBREBOARD, FILM, FOAM, GLASS, KNIFE, Tool},
    piece::{Glazing, Piece},
};

/// Said at the steps that cut, whichever layer the part is for.
pub(super) const IN_CUTTING: [&str; 3] = [KNIFE, FOAM, FIBREBOARD];

/// Two people, at a step in which a piece or a parcel is lifted.
const TWO_PEOPLE: &str = "Too heavy for one person: two people lift it, one at each short side.";
/// Said where a parcel waits for whoever takes it, in a hot month.
pub(super) const HOT: &str = "It is hot on the route: keep the parcel in the shade until the handover, never in a parked car.";
/// Said where acrylic is looked at.
const STATIC: &str = "Acrylic holds a charge: wipe it with a damp cloth; dry rubbing lifts pastel and attracts dust.";

impl Sign {
    /// Returns what is said where it first comes up.
    const fn says(self) -> &'static str {
        match self {
            Self::Knife => KNIFE,
            Self::Glass => GLASS,
            Self::Dust => FOAM,
            Self::TwoPeople => TWO_PEOPLE,
            Self::Film => FILM,
            Self::Static => STATIC,
        }
    }

    /// Returns the sign that a sentence stands for; `None` for one that no sign stands for.
    fn of(says: &str) -> Option<Self> {
        if says == FIBREBOARD {
            return Some(Self::Dust);
        }
        [
            Self::Knife,
            Self::Glass,
            Self::Dust,
            Self::TwoPeople,
            Self::Film,
            Self::Static,
        ]
        .into_iter()
        .find(|sign| sign.says() == says)
    }

    /// Returns what touching a piece asks for.
    pub(super) fn of_piece(piece: &Piece) -> Vec<Self> {
        match piece.construction.glazing() {
            Glazing::Glass => vec![Self::Glass],
            Glazing::Acrylic => vec![Self::Static],
            Glazing::None => Vec::new(),
        }
    }
}

/// Gives every step its signs, and leaves each sentence only at the first step of its stage. `lifting` are the keys of the steps in
/// which something is lifted that is past one person.
pub(super) fn marked(steps: &mut [PackStep], lifting: &[String]) {
    let mut said: Vec<(super::Stage, &'static str)> = Vec::new();
    for step in steps {
        let mut sentences = std::mem::take(&mut step.cautions);
        if step.stage != super::Stage::SetUp && step.tools.contains(&Tool::Knife) {
            sentences.push(KNIFE);
        }
        if lifting.contains(&step.key) {
            sentences.push(TWO_PEOPLE);
        }
        sentences.extend(step.signs.iter().map(|sign| sign.says()));
        for sentence in sentences {
            step.signs.extend(Sign::of(sentence));
            if !said.contains(&(step.stage, sentence)) {
                said.push((step.stage, sentence));
                step.cautions.push(sentence);
            }
        }
        step.signs.sort_unstable();
        step.signs.dedup();
    }
}
