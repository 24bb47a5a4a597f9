//! The paper for customs: what is in the parcel, what it is worth, where it was made, and what may be protected in it.

use jiff::civil::Date;
use serde::Serialize;

use super::about::{Ends, Letterhead, pieces};
use crate::{
    house::TaxNumbers,
    quantity::{Currency, Mass, Telling},
    shipment::{ProtectedLook, ShipmentInputs},
};

/// What customs are told.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct Customs {
    /// Whose it is.
    pub head: Letterhead,
    /// Both ends.
    pub ends: Ends,
    /// The day.
    pub on: String,
    /// By what it is followed.
    pub tracking: String,
    /// Why it is sent.
    pub reason: &'static str,
    /// The numbers that the sender is known by at customs, each with its name; those that it has.
    pub numbers: Vec<[String; 2]>,
    /// Every piece.
    pub lines: Vec<CustomsLine>,
    /// What everything is worth.
    pub total: String,
    /// What the parcel weighs.
    pub mass: String,
    /// What was looked for, and what was found.
    pub protected: Vec<String>,
}

/// A piece as customs read it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
pub struct CustomsLine {
    /// What it is, in words that anybody understands.
    pub what: String,
    /// Where it was made.
    pub origin: String,
    /// How many.
    pub count: u32,
    /// What it is worth.
    pub value: String,
}

const LOOK_FOR: &str = "Ivory, tortoiseshell, mother-of-pearl, horn, feathers, reptile skin, rosewood and other protected woods need a permit at most borders: check with both countries.";

/// Returns the paper for customs. `origin` is the country where the pieces were made, by its name.
#[must_use]
pub fn customs(
    inputs: &ShipmentInputs,
    (head, ends): (Letterhead, Ends),
    (on, tracking): (Date, &str),
    (mass, origin): (Option<Mass>, &str),
    (telling, currency): (Telling, &Currency),
    tax: &TaxNumbers,
) -> Customs {
    let lines = pieces(inputs)
        .into_iter()
        .map(|piece| {
            let value = piece.worth();
            let artist = piece.piece.facts.artist.trim();
            let by = if artist.is_empty() {
                String::new()
            } else {
                format!(" by {artist}")
            };
            let made = [piece.made(), telling.sides_by_law(&piece.sides())]
                .into_iter()
                .filter(|text| !text.is_empty());
            CustomsLine {
                what: format!(
                    "Work of art, \"{}\"{by}: {}",
                    inputs.title_of(piece.key),
                    made.collect::<Vec<_>>().join(", ")
                ),
                origin: origin.to_owned(),
                count: piece.count(),
                value: value.map_or_else(
                    || "not told".to_owned(),
                    |value| telling.amount(value, currency),
                ),
            }
        })
        .collect();
    let total = inputs.worth().ok().flatten();
    let mut protected = vec![match inputs.sending.protected {
        None => "Nobody has looked for protected materials yet.".to_owned(),
        Some(ProtectedLook::None) => "Looked for; nothing protected is in it.".to_owned(),
        Some(ProtectedLook::Some) => format!(
            "In it: {}. The permit is attached.",
            inputs.sending.protected_what.trim()
        ),
    }];
    protected.push(LOOK_FOR.to_owned());
    Customs {
        head,
        ends,
        on: telling.day(on),
        tracking: tracking.to_owned(),
        reason: if inputs.gift { "Gift" } else { "Sale" },
        numbers: numbers(tax),
        lines,
        total: total.map_or_else(
            || "not told".to_owned(),
            |total| telling.amount(total, currency),
        ),
        mass: mass
            .map(|mass| telling.mass_by_law(mass))
            .unwrap_or_default(),
        protected,
    }
}

fn numbers(tax: &TaxNumbers) -> Vec<[String; 2]> {
    tax.numbers()
        .into_iter()
        .map(|number| [number.name.to_owned(), number.text.trim().to_owned()])
        .filter(|[_, number]| !number.is_empty())
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_the_numbers_that_there_are_stand_on_it() {
        let tax = TaxNumbers {
            eori: " DE123456789012345 ".into(),
            other: "EIN 12-3456789".into(),
            ..TaxNumbers::default()
        };
        let told = numbers(&tax);
        let pairs: Vec<(&str, &str)> = told
            .iter()
            .map(|[name, number]| (name.as_str(), number.as_str()))
            .collect();
        assert_eq!(
            pairs,
            [
                ("EORI number", "DE123456789012345"),
                ("Other number", "EIN 12-3456789")
            ]
        );
    }
}
