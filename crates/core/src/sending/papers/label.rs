//! The label, and the marks beside it.

use jiff::civil::Date;
use serde::Serialize;

use super::about::{Ends, pieces};
use crate::{
    house::MarksRule,
    layer::{Make, Mark, Marks},
    piece::{Construction, Glazing},
    plan::Plan,
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

/// A mark that is printed, cut out and stuck on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
pub struct HandlingMark {
    /// What is drawn.
    pub draws: Mark,
    /// What it says.
    pub says: &'static str,
    /// Where it goes.
    pub goes: &'static str,
}

/// Returns every mark of a parcel, one by one: those of its plan, or, where the plan has none, those that what is in it asks for.
#[must_use]
pub fn handling_marks(inputs: &ShipmentInputs, plan: &Plan) -> Vec<HandlingMark> {
    let all = pieces(inputs);
    let mut inside = all.iter().filter_map(|piece| piece.piece.construction);
    let pane = inside
        .clone()
        .find(|one| *one == Construction::Mirror || one.glazing() == Glazing::Glass);
    let inside = pane.or_else(|| inside.next());
    let planned = plan.layers.iter().find_map(|layer| match &layer.make {
        Make::Marks(marks) => Some(marks.clone()),
        _ => None,
    });
    let marks = planned.unwrap_or_else(|| {
        let inside = inside.unwrap_or(Construction::StretchedCanvas);
        Marks::of(inside, plan.carriage, MarksRule::All)
    });
    let each = marks.labels.iter().flat_map(|label| {
        let count = usize::try_from(label.count).unwrap_or(0);
        std::iter::repeat_n(label.mark, count)
    });
    each.map(|mark| HandlingMark {
        draws: mark,
        says: mark.text(),
        goes: mark.says().split_once(", ").map_or("", |(_, goes)| goes),
    })
    .collect()
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
}
