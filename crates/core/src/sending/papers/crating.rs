//! What a crating service has to know of a piece.

use jiff::civil::Date;
use serde::Serialize;

use super::about::{Ends, Letterhead, pieces};
use crate::{
    plan::{Finding, FindingAbout, FindingLevel, Plan},
    quantity::{Currency, Telling},
    shipment::ShipmentInputs,
    space::Envelope,
};

/// What a crating service has to know.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct CratingBrief {
    /// Whose it is.
    pub head: Letterhead,
    /// Both ends.
    pub ends: Ends,
    /// The day.
    pub on: String,
    /// Every piece, and what it is.
    pub pieces: Vec<[String; 2]>,
    /// What they weigh, are worth, measure wrapped, and by when they go.
    pub facts: Vec<[String; 2]>,
    /// What a crate has to do for them.
    pub needs: Vec<String>,
}

/// Returns the brief of a plan.
#[must_use]
pub fn crating_brief(
    inputs: &ShipmentInputs,
    plan: &Plan,
    (head, ends): (Letterhead, Ends),
    on: Date,
    (telling, currency): (Telling, &Currency),
) -> CratingBrief {
    let wrapped = plan
        .layers
        .iter()
        .take_while(|layer| layer.slot < crate::space::LayerSlot::Box)
        .last();
    let weight = plan.piece_weight;
    let weighs = format!(
        "{} ± {}",
        telling.mass(weight.mass),
        telling.mass(weight.plus_minus)
    );
    let worth = inputs.worth().ok().flatten();
    let facts = [
        ("Weight, bare", Some(weighs)),
        ("Worth", worth.map(|worth| telling.amount(worth, currency))),
        (
            "Wrapped size",
            wrapped.map(|layer| {
                let Envelope {
                    across,
                    up,
                    through,
                } = layer.envelope;
                telling.sides(&[across, up, through])
            }),
        ),
        (
            "Promised for",
            inputs.promised_for().map(|day| telling.day(day)),
        ),
    ];
    let of_the_piece = |finding: &&Finding| {
        finding.about == FindingAbout::Piece
            && finding.level != FindingLevel::Note
            && finding.code != "hand-over"
    };
    let mut needs = vec![match plan.survival.fragility.limit {
        Some(limit) => format!(
            "Shock limit on its face: {:.0} G.",
            limit.as_times_gravity()
        ),
        None => "Bending or crushing harms it before a shock does.".to_owned(),
    }];
    needs.push("No pressure on the face. Transport upright, top edge up.".to_owned());
    needs.extend(
        plan.findings
            .iter()
            .filter(of_the_piece)
            .map(|finding| finding.says.clone()),
    );
    CratingBrief {
        head,
        ends,
        on: telling.day(on),
        pieces: pieces(inputs)
            .into_iter()
            .map(|piece| [inputs.title_of(piece.key), piece.lines(telling).join(", ")])
            .collect(),
        facts: facts
            .into_iter()
            .filter_map(|(name, says)| Some([name.to_owned(), says?]))
            .collect(),
        needs,
    }
}
