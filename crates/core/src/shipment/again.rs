//! The same once more: what a shipment hands on to the next one of a like piece.

use std::collections::BTreeMap;

use super::{
    AfterInputs, OrderInputs, ParcelInputs, PieceFacts, PieceInputs, SendingInputs, SettledStops,
    ShipmentInputs,
};
use crate::{
    house::Choices,
    piece::{Condition, Construction, Medium, Outline},
    place::Buyer,
    quantity::Telling,
};

/// What makes two pieces alike enough to be packed the same way.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct LikeShipment {
    construction: &'static str,
    outline: &'static str,
    frame: &'static str,
    medium: Option<&'static str>,
    /// Across, up and through, in hundredths of a millimetre.
    sides: [i64; 3],
    count: u32,
}

impl ShipmentInputs {
    /// Returns these inputs for the next like piece: how it is made, packed, covered and sent stays; whose it is, when it is
    /// promised, what was measured, settled, lifted and done does not.
    ///
    /// A title stays where the piece is one of an edition.
    #[must_use]
    pub fn again(&self) -> Self {
        let piece = &self.piece;
        let facts = &piece.facts;
        let of_edition = facts.edition_of.is_some();
        let quoted = |service: &String| service.starts_with("quoted/");
        Self {
            title: if of_edition {
                self.title.clone()
            } else {
                String::new()
            },
            buyer: Buyer::default(),
            order_number: String::new(),
            order: OrderInputs::default(),
            promised: None,
            value: self.value.clone(),
            currency: self.currency,
            piece: PieceInputs {
                finished: None,
                varnished_on: None,
                condition: Condition::default(),
                notes: String::new(),
                weight: None,
                facts: PieceFacts {
                    edition: None,
                    dated: None,
                    ..facts.clone()
                },
                ..piece.clone()
            },
            others: self
                .others
                .iter()
                .map(|(key, other)| (key.clone(), other.again()))
                .collect(),
            together: self.together.clone(),
            choices: self.choices.again(),
            lifted: BTreeMap::new(),
            lifted_for: BTreeMap::new(),
            settled: SettledStops::default(),
            service: self.service.clone().filter(|service| !quoted(service)),
            parcel: ParcelInputs::default(),
            quotations: BTreeMap::new(),
            gift: false,
            enclosures: self.enclosures.clone(),
            packed: BTreeMap::new(),
            sending: SendingInputs::default(),
            after: AfterInputs::default(),
        }
    }

    /// Returns what makes pieces alike; `None` before it was measured, nor for several in one box.
    #[must_use]
    pub fn alike(&self) -> Option<LikeShipment> {
        if !self.others.is_empty() {
            return None;
        }
        let piece = self.piece().ok()??;
        #[allow(
            clippy::cast_possible_truncation,
            reason = "a side is a few metres at most"
        )]
        let hundredths = |side: crate::quantity::Length| (side.as_mm() * 100.0).round() as i64;
        let size = piece.size;
        Some(LikeShipment {
            construction: piece.construction.name(),
            outline: piece.outline.name(),
            frame: piece.frame_finish().name(),
            medium: piece.medium.map(Medium::name),
            sides: [size.width, size.height, size.depth].map(hundredths),
            count: piece.count,
        })
    }

    /// Says what kind of piece it is, in a few words; `None` before it was measured.
    #[must_use]
    pub fn kind_says(&self, telling: Telling) -> Option<String> {
        let size = self.size().ok()??;
        let many = self.piece.count.filter(|count| *count > 1);
        let mut says = many.map_or_else(String::new, |count| format!("{count} × "));
        if self.piece.outline != Outline::Rectangle {
            says += &format!("{} ", self.piece.outline.name());
        }
        says += self.piece.construction.map_or("piece", Construction::name);
        let sides = [size.width, size.height, size.depth];
        // Nobody measured the depth of a sheet.
        let measured = if self.piece.depth.is_some() { 3 } else { 2 };
        let sides = telling.sides(&sides[..measured]);
        says += &format!(", {}", sides.replace('\u{a0}', " "));
        if let Some(medium) = self.piece.medium {
            says += &format!(", {}", medium.name());
        }
        Some(says)
    }
}

impl Choices {
    /// Returns what of them holds for the next like piece: neither what the wrapped one measured, nor a carton or a case that is away with it.
    fn again(&self) -> Self {
        Self {
            wrapped_across: None,
            wrapped_up: None,
            wrapped_through: None,
            saved_length: None,
            saved_width: None,
            saved_height: None,
            saved_cut: None,
            saved_opens: None,
            saved_face: None,
            cut_through: None,
            saved_from: None,
            case_empty: None,
            case_kept: None,
            case_from: None,
            saved_carrier: None,
            second_saved_length: None,
            second_saved_width: None,
            second_saved_height: None,
            second_saved_from: None,
            ..self.clone()
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::pack::StepTick;

    #[test]
    fn how_it_is_sent_stays_and_whose_it_is_does_not() {
        let mm = |text: &str| Some(text.to_owned());
        let last = ShipmentInputs {
            title: "Low Tide".to_owned(),
            buyer: Buyer {
                name: "Mara Linde".to_owned(),
                ..Buyer::default()
            },
            value: Some("640".to_owned()),
            piece: PieceInputs {
                construction: Some(Construction::StretchedCanvas),
                width: mm("500 mm"),
                height: mm("700 mm"),
                depth: mm("38 mm"),
                weight: Some("2.1 kg".to_owned()),
                ..PieceInputs::default()
            },
            choices: Choices {
                first_turns: Some(2),
                wrapped_up: mm("760 mm"),
                ..Choices::default()
            },
            service: Some("gannet-post/tracked".to_owned()),
            packed: BTreeMap::from([("set_up/bench".to_owned(), StepTick::default())]),
            ..ShipmentInputs::default()
        };
        let next = last.again();
        assert_eq!(next.alike(), last.alike());
        assert_eq!(
            (next.value.clone(), next.service.clone()),
            (last.value.clone(), last.service.clone())
        );
        assert_eq!(next.choices.first_turns, Some(2));
        assert_eq!((next.title.as_str(), next.buyer.name.as_str()), ("", ""));
        assert_eq!(
            (next.choices.wrapped_up.clone(), next.piece.weight.clone()),
            (None, None)
        );
        assert!(next.packed.is_empty());
        // Nothing is left to hand on that was not handed on before.
        assert_eq!(next.again(), next);
        assert_eq!(
            next.kind_says(crate::quantity::LengthUnit::Cm.into())
                .as_deref(),
            Some("stretched canvas, 50.0 × 70.0 × 3.8 cm")
        );
        // Of an edition the title is the same, and the number another.
        let mut print = last;
        print.piece.facts.edition = Some(3);
        print.piece.facts.edition_of = Some(40);
        let next = print.again();
        assert_eq!(
            (next.title.as_str(), next.piece.facts.edition),
            ("Low Tide", None)
        );
    }
}
