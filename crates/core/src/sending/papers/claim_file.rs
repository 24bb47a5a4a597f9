//! The claim file: all that a carrier asks for when a parcel was damaged or lost, in one paper.

use jiff::civil::Date;
use serde::Serialize;

use super::about::{Ends, Letterhead, pieces};
use super::condition::PictureLine;
use crate::{
    quantity::{Currency, Telling},
    sending::{ClaimKind, Deadline, HandedParcel, TrackingEvent},
    shipment::{Outcome, ShipmentInputs},
};

/// All that a carrier asks for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct ClaimFile {
    /// Whose it is.
    pub head: Letterhead,
    /// Both ends.
    pub ends: Ends,
    /// The day.
    pub on: String,
    /// What it is.
    pub title: String,
    /// What is claimed, and until when it is heard.
    pub asks: Vec<[String; 2]>,
    /// Every piece, and what it is worth.
    pub pieces: Vec<[String; 3]>,
    /// What happened, as it was seen.
    pub damage: String,
    /// The parcel: sizes, weights, price and cover.
    pub parcel: Vec<[String; 2]>,
    /// Days and receipts.
    pub papers: Vec<[String; 2]>,
    /// What the carrier said of it on its way: day and words.
    pub events: Vec<[String; 2]>,
    /// How it was packed: each step, and when it was done.
    pub steps: Vec<[String; 2]>,
    /// Its photographs, in the order in which they follow.
    pub photographs: Vec<PictureLine>,
    /// How many more there are than are printed.
    pub more_photographs: usize,
}

/// What a claim file is made of.
#[derive(Debug, Clone)]
pub struct ClaimSource<'a> {
    /// Whose it is.
    pub head: Letterhead,
    /// Both ends.
    pub ends: Ends,
    /// The parcel as it was handed over.
    pub handed: &'a HandedParcel,
    /// What it is followed by.
    pub tracking: Option<&'a str>,
    /// Until when it is heard.
    pub deadline: Deadline,
    /// What the carrier said.
    pub events: &'a [TrackingEvent],
    /// What stands under its photographs.
    pub photographs: Vec<PictureLine>,
    /// How many more there are than are printed.
    pub more_photographs: usize,
    /// The day.
    pub today: Date,
    /// How quantities are told.
    pub telling: Telling,
    /// The studio's money.
    pub currency: Currency,
}

impl ClaimFile {
    /// Returns the claim file of a shipment.
    #[must_use]
    pub fn of(inputs: &ShipmentInputs, source: ClaimSource<'_>) -> Self {
        let ClaimSource {
            head,
            ends,
            handed,
            tracking,
            deadline,
            events,
            photographs,
            more_photographs,
            today,
            telling,
            currency,
        } = source;
        let what = match deadline.kind {
            ClaimKind::Damage => "damage",
            ClaimKind::Loss => "loss",
        };
        let carrier = handed
            .carrier
            .clone()
            .unwrap_or_else(|| "the carrier".to_owned());
        let asked = inputs
            .claim_asked()
            .map(|asked| telling.amount(asked, &currency));
        let asks = [
            ("Claimed for", Some(what.to_owned())),
            ("Amount", asked),
            ("From", Some(carrier)),
            ("Reply due", Some(telling.day(deadline.last_day))),
            (
                "Your number",
                Some(inputs.after.claim.number.trim().to_owned()),
            ),
        ];
        Self {
            head,
            ends,
            on: telling.day(today),
            title: inputs.title_of(crate::plan::FIRST),
            asks: told(asks),
            pieces: pieces(inputs)
                .into_iter()
                .map(|piece| {
                    [
                        inputs.title_of(piece.key),
                        piece.lines(telling).join(", "),
                        piece.worth().map_or_else(
                            || "not told".to_owned(),
                            |worth| telling.amount(worth, &currency),
                        ),
                    ]
                })
                .collect(),
            damage: damage(inputs),
            parcel: parcel(handed, telling),
            papers: papers(inputs, tracking, telling),
            events: events
                .iter()
                .map(|event| [telling.day(event.day()), event.says.clone()])
                .collect(),
            steps: handed
                .steps
                .iter()
                .filter_map(|step| {
                    let title = match &step.piece {
                        Some(piece) => format!("{piece}: {}", step.title),
                        None => step.title.clone(),
                    };
                    // What nobody noted says nothing for or against it.
                    let at = step.at.as_deref()?.get(..16)?;
                    Some([title, at.replace('T', " ")])
                })
                .collect(),
            photographs,
            more_photographs,
        }
    }
}

fn told<const N: usize>(facts: [(&str, Option<String>); N]) -> Vec<[String; 2]> {
    facts
        .into_iter()
        .filter_map(|(name, says)| Some([name.to_owned(), says.filter(|says| !says.is_empty())?]))
        .collect()
}

fn damage(inputs: &ShipmentInputs) -> String {
    let after = &inputs.after;
    let mut says = match after.outcome {
        Some(Outcome::Lost) => "The parcel did not arrive.".to_owned(),
        _ => after.damage.trim().to_owned(),
    };
    if let Some(failed) = after.failed {
        says += &format!("\nThe layer that gave way: {}.", failed.name());
    }
    says
}

fn parcel(handed: &HandedParcel, telling: Telling) -> Vec<[String; 2]> {
    let size = handed.measured.unwrap_or(handed.outside);
    let sides = telling.sides(&[size.across, size.up, size.through]);
    let measured = if handed.measured.is_some() {
        "measured"
    } else {
        "as planned"
    };
    let weight = handed.weighed.map_or_else(
        || format!("{}, as planned", telling.mass(handed.weight.mass)),
        |mass| format!("{}, weighed", telling.mass(mass)),
    );
    let service = [handed.carrier.as_deref(), handed.service_name.as_deref()];
    let service = service.into_iter().flatten().collect::<Vec<_>>().join(", ");
    told([
        ("Outside", Some(format!("{sides}, {measured}"))),
        ("Weight", Some(weight)),
        ("Service", Some(service)),
        (
            "Carriage",
            handed
                .carriage
                .as_ref()
                .map(|money| telling.amount(money.amount, &money.currency)),
        ),
        (
            "Covered up to",
            handed
                .covered
                .as_ref()
                .map(|money| telling.amount(money.amount, &money.currency)),
        ),
    ])
}

fn papers(inputs: &ShipmentInputs, tracking: Option<&str>, telling: Telling) -> Vec<[String; 2]> {
    let arrived = match inputs.after.outcome {
        Some(Outcome::Lost) => "Reported lost",
        _ => "Delivered",
    };
    told([
        ("Tracking number", tracking.map(str::to_owned)),
        ("Receipt", Some(inputs.sending.receipt.trim().to_owned())),
        (
            "Handed over",
            inputs.handed_over().map(|day| telling.day(day)),
        ),
        (arrived, inputs.outcome_on().map(|day| telling.day(day))),
        (
            "Promised for",
            inputs.promised_for().map(|day| telling.day(day)),
        ),
    ])
}
