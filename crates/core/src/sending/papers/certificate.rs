//! Certificates of authenticity, on the studio's own card.

use serde::{Deserialize, Serialize};

use super::about::{Named, pieces};
use crate::{Refusal, quantity::Telling, shipment::ShipmentInputs};

/// The card that a studio prints certificates on.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Card {
    /// Across.
    pub width_mm: f64,
    /// Up.
    pub height_mm: f64,
}

impl Default for Card {
    /// A postcard, lying.
    fn default() -> Self {
        Self {
            width_mm: 148.0,
            height_mm: 105.0,
        }
    }
}

const SIDES_MM: std::ops::RangeInclusive<f64> = 80.0..=420.0;

impl Card {
    /// Returns a [`Refusal`] for a side that no printer takes.
    #[must_use]
    pub fn refused(self) -> Vec<Refusal> {
        [
            ("certificate.width_mm", self.width_mm),
            ("certificate.height_mm", self.height_mm),
        ]
        .into_iter()
        .filter(|(_, side)| !SIDES_MM.contains(side))
        .map(|(field, side)| {
            let says = format!(
                "{side} is out of range: a card measures {} to {} mm",
                SIDES_MM.start(),
                SIDES_MM.end()
            );
            Refusal::new(field, says)
        })
        .collect()
    }
}

/// What a certificate says of one piece.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Certificate {
    /// Its title.
    pub title: String,
    /// What it says, each with its name; nothing is printed that was not given.
    pub facts: Vec<[String; 2]>,
    /// The day that it is dated; nothing leaves a line for it.
    pub dated: Option<String>,
}

/// Returns the certificates of a shipment: one for each piece that has one, in their order.
#[must_use]
pub fn certificates(inputs: &ShipmentInputs, telling: Telling) -> Vec<Certificate> {
    let with_one = pieces(inputs)
        .into_iter()
        .filter(|piece| piece.piece.certificate);
    with_one
        .map(|piece| certificate(inputs, &piece, telling))
        .collect()
}

fn certificate(inputs: &ShipmentInputs, piece: &Named<'_>, telling: Telling) -> Certificate {
    let facts = &piece.piece.facts;
    let dated = facts.dated.as_deref().and_then(|text| text.parse().ok());
    let said = [
        ("Artist", facts.artist.trim().to_owned()),
        ("Year", facts.year.trim().to_owned()),
        ("Medium", piece.made()),
        ("Size", telling.sides(&piece.sides())),
        ("Edition", piece.edition()),
        ("Signed", facts.signature.trim().to_owned()),
    ];
    Certificate {
        title: inputs.title_of(piece.key),
        facts: said
            .into_iter()
            .filter(|(_, says)| !says.is_empty())
            .map(|(name, says)| [name.to_owned(), says])
            .collect(),
        dated: dated.map(|day| telling.day(day)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::shipment::{OtherPiece, PieceFacts};

    #[test]
    fn each_piece_with_a_certificate_has_its_own() {
        let mut inputs = ShipmentInputs {
            title: "Low Water, March".into(),
            ..ShipmentInputs::default()
        };
        inputs.piece.width = Some("520 mm".into());
        inputs.piece.height = Some("380 mm".into());
        assert!(certificates(&inputs, Telling::default()).is_empty());
        inputs.piece.certificate = true;
        inputs.piece.facts = PieceFacts {
            artist: "Ilse Fenn".into(),
            medium: "reduction linocut on paper".into(),
            edition: Some(4),
            edition_of: Some(12),
            dated: Some("2027-03-04".into()),
            ..PieceFacts::default()
        };
        let mut other = OtherPiece {
            title: "Kelp".into(),
            ..OtherPiece::default()
        };
        other.piece.certificate = true;
        inputs.others.insert("a".into(), other);
        let made = certificates(&inputs, Telling::default());
        assert_eq!(made.len(), 2);
        assert_eq!(made[0].dated.as_deref(), Some("4 Mar 2027"));
        let facts: Vec<String> = made[0]
            .facts
            .iter()
            .map(|[name, says]| format!("{name}: {says}"))
            .collect();
        assert_eq!(
            facts,
            [
                "Artist: Ilse Fenn",
                "Medium: reduction linocut on paper",
                "Size: 520 × 380\u{a0}mm",
                "Edition: 4 of 12"
            ]
        );
        assert_eq!(
            (made[1].title.as_str(), made[1].dated.as_ref()),
            ("Kelp", None)
        );
    }

    #[test]
    fn a_card_that_no_printer_takes_is_refused() {
        assert!(Card::default().refused().is_empty());
        let narrow = Card {
            width_mm: 20.0,
            ..Card::default()
        };
        assert_eq!(narrow.refused()[0].field, "certificate.width_mm");
    }
}
