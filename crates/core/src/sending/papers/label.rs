//! The label, and the marks beside it.

use jiff::civil::Date;
use serde::Serialize;

use super::about::{Ends, pieces};
use crate::{
    piece::Glazing,
    quantity::{Mass, Telling},
    shipment::ShipmentInputs,
};

/// A shipping label of 100 × 150 mm.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Label {
    /// Both ends.
    pub ends: Ends,
    /// Carrier and service.
    pub carrier: String,
    /// What it is followed by.
    pub tracking: String,
    /// What the carrier wants on it besides, line by line.
    pub lines: Vec<String>,
    /// What it weighs, and when it leaves.
    pub about: String,
    /// The order or the piece, so that the right label goes on the right box.
    pub reference: String,
}

/// What a label is made of.
#[derive(Debug, Clone)]
pub struct LabelSource<'a> {
    /// Both ends.
    pub ends: Ends,
    /// Carrier and service.
    pub carrier: String,
    /// What it is followed by.
    pub tracking: &'a str,
    /// What the carrier gave for its label.
    pub lines: &'a [String],
    /// Of the closed parcel.
    pub mass: Option<Mass>,
    /// When it leaves.
    pub on: Option<Date>,
    /// How quantities are told.
    pub telling: Telling,
}

/// Returns the label of a parcel.
#[must_use]
pub fn label(inputs: &ShipmentInputs, source: LabelSource<'_>) -> Label {
    let telling = source.telling;
    let said = [&source.ends.to, &source.ends.from];
    // What stands on it already is not printed twice.
    let known = |line: &String| {
        said.iter().any(|lines| lines.contains(line))
            || *line == source.carrier
            || line == source.tracking
    };
    let lines = source
        .lines
        .iter()
        .filter(|line| !known(line))
        .cloned()
        .collect();
    let about = [
        source.mass.map(|mass| telling.mass(mass)),
        source.on.map(|day| telling.day(day)),
    ];
    Label {
        carrier: source.carrier,
        tracking: source.tracking.to_owned(),
        lines,
        about: about.into_iter().flatten().collect::<Vec<_>>().join(" · "),
        reference: match inputs.order_number() {
            "" => inputs.title_of(crate::plan::FIRST),
            number => format!("Order {number}"),
        },
        ends: source.ends,
    }
}

/// A mark that asks for care.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
pub struct HandlingMark {
    /// What is drawn.
    pub draws: &'static str,
    /// What it says.
    pub says: &'static str,
}

const UP: HandlingMark = HandlingMark {
    draws: "up",
    says: "This way up",
};
const FRAGILE: HandlingMark = HandlingMark {
    draws: "fragile",
    says: "Fragile",
};
const NO_STACK: HandlingMark = HandlingMark {
    draws: "no_stack",
    says: "Do not stack",
};
const DRY: HandlingMark = HandlingMark {
    draws: "dry",
    says: "Keep dry",
};
const GLASS: HandlingMark = HandlingMark {
    draws: "fragile",
    says: "Glass",
};
/// Before, behind, and on the four narrow sides but the floor.
const SIDES_SEEN: usize = 5;

/// Returns the marks of a parcel, one group for each side that it may lie on.
#[must_use]
pub fn handling_marks(inputs: &ShipmentInputs) -> Vec<[HandlingMark; 4]> {
    let glass = pieces(inputs)
        .iter()
        .filter_map(|piece| piece.piece.construction)
        .any(|construction| construction.glazing() == Glazing::Glass);
    let first = if glass { GLASS } else { FRAGILE };
    vec![[UP, first, NO_STACK, DRY]; SIDES_SEEN]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nothing_stands_on_it_twice() {
        let ends = Ends {
            from: vec!["Saltgrass".into()],
            to: vec!["Oda Marsh".into(), "Tern Bight".into()],
        };
        let lines = ["Gannet Post Parcel", "GP-0001", "Oda Marsh", "Depot 7"].map(String::from);
        let made = label(
            &ShipmentInputs::default(),
            LabelSource {
                ends,
                carrier: "Gannet Post Parcel".into(),
                tracking: "GP-0001",
                lines: &lines,
                mass: Some(Mass::g(3610.0)),
                on: Some(jiff::civil::date(2027, 3, 5)),
                telling: Telling::default(),
            },
        );
        assert_eq!(made.lines, ["Depot 7"]);
        assert_eq!(made.about, "3.61\u{a0}kg · 5 Mar 2027");
    }

    #[test]
    fn every_side_that_is_seen_has_its_marks() {
        let mut inputs = ShipmentInputs::default();
        let plain = handling_marks(&inputs);
        assert!(plain.iter().all(|side| side.contains(&FRAGILE)));
        inputs.piece.construction = Some(crate::piece::Construction::Mirror);
        let marks = handling_marks(&inputs);
        assert_eq!(marks.len(), 5);
        assert!(
            marks
                .iter()
                .all(|side| side.contains(&UP) && side.contains(&GLASS))
        );
    }
}
