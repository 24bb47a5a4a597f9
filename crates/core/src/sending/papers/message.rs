//! What a buyer is told when the parcel has left.

use jiff::civil::Date;
use serde::Serialize;

use crate::{freight::OnItsWay, quantity::Telling, shipment::ShipmentInputs};

/// A message to a buyer, ready to be copied.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Message {
    /// Its first line, for a mail.
    pub subject: String,
    /// All of it, with line breaks.
    pub text: String,
}

/// What is known when a buyer is told.
#[derive(Debug, Clone, Copy)]
pub struct MessageSource<'a> {
    /// Whose it is.
    pub studio: &'a str,
    /// Carrier and service.
    pub carrier: &'a str,
    /// What it is followed by.
    pub tracking: Option<&'a str>,
    /// When it leaves, or left.
    pub on: Option<Date>,
    /// When it arrives, by the carrier's calendar.
    pub way: Option<OnItsWay>,
    /// How days are told.
    pub telling: Telling,
}

/// Returns the message to the buyer of a shipment.
#[must_use]
pub fn message(inputs: &ShipmentInputs, source: MessageSource<'_>) -> Message {
    let day = |day| source.telling.day(day);
    let title = inputs.title_of(crate::plan::FIRST);
    let more = match inputs.others.len() {
        0 => String::new(),
        1 => " and another piece".to_owned(),
        many => format!(" and {many} more pieces"),
    };
    let name = inputs.buyer.name.trim();
    let hello = if name.is_empty() {
        "Hello,".to_owned()
    } else {
        format!("Dear {name},")
    };
    let left = match (inputs.handed_over(), source.on) {
        (Some(left), _) => format!(
            "\"{title}\"{more} left here on {} with {}.",
            day(left),
            source.carrier
        ),
        (None, Some(on)) => format!(
            "\"{title}\"{more} leaves here on {} with {}.",
            day(on),
            source.carrier
        ),
        (None, None) => format!("\"{title}\"{more} goes to you with {}.", source.carrier),
    };
    let followed = source
        .tracking
        .map(|number| format!("Its tracking number is {number}."));
    let arrives = source.way.map(|way| {
        if way.earliest == way.latest {
            format!("It should arrive on {}.", day(way.latest))
        } else {
            format!(
                "It should arrive between {} and {}.",
                day(way.earliest),
                day(way.latest)
            )
        }
    });
    let advice = "When it arrives, please photograph the closed box before you open it. Lay it flat, the side marked as the face up, and follow the sheet in the parcel. Keep the box until you have checked everything. If anything is wrong, send us photographs on the same day: the carrier gives us only a few days.";
    let news = [Some(left), followed, arrives]
        .into_iter()
        .flatten()
        .collect::<Vec<_>>()
        .join(" ");
    Message {
        subject: format!("{title} is on its way to you"),
        text: [
            hello,
            news,
            advice.to_owned(),
            format!("With kind regards\n{}", source.studio),
        ]
        .join("\n\n"),
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    #[test]
    fn it_names_the_number_and_the_days() {
        let mut inputs = ShipmentInputs {
            title: "Kelp Ladder".into(),
            ..ShipmentInputs::default()
        };
        inputs.buyer.name = "Oda Marsh".into();
        let way = OnItsWay {
            handed_over: date(2027, 3, 5),
            earliest: date(2027, 3, 9),
            latest: date(2027, 3, 11),
        };
        let source = MessageSource {
            studio: "Saltgrass",
            carrier: "Gannet Post Parcel",
            tracking: Some("GP-0417"),
            on: Some(date(2027, 3, 5)),
            way: Some(way),
            telling: Telling::default(),
        };
        let told = message(&inputs, source).text;
        assert!(told.starts_with("Dear Oda Marsh,\n\n\"Kelp Ladder\" leaves here on 5 Mar 2027 with Gannet Post Parcel. Its tracking number is GP-0417. It should arrive between 9 Mar 2027 and 11 Mar 2027."), "{told}");
        inputs.sending.handed_over = Some("2027-03-04".into());
        let told = message(
            &inputs,
            MessageSource {
                tracking: None,
                way: None,
                ..source
            },
        )
        .text;
        assert!(
            told.contains("left here on 4 Mar 2027") && !told.contains("number"),
            "{told}"
        );
    }
}
