//! The paper for customs: what is in the parcel, what it is worth, where it was made, and what may be protected in it.

use jiff::civil::Date;
use rust_decimal::{Decimal, RoundingStrategy};
use serde::Serialize;

use super::about::{Ends, Letterhead, pieces};
use crate::{
    enclosure::{Enclosed, EnclosureKind},
    house::TaxNumbers,
    plan::Plan,
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

const LOOK_FOR: &str = "Ivory, tortoiseshell, mother-of-pearl, horn, feathers, reptile skin, rosewood and other protected woods need a permit at most borders. Check with both countries.";

/// Returns the paper for customs. `origin` is the country where the pieces were made, by its name.
#[must_use]
pub fn customs(
    (inputs, plan): (&ShipmentInputs, Option<&Plan>),
    (head, ends): (Letterhead, Ends),
    (on, tracking): (Date, &str),
    (mass, origin): (Option<Mass>, &str),
    (telling, currency): (Telling, &Currency),
    tax: &TaxNumbers,
) -> Customs {
    let total = inputs.worth().ok().flatten();
    let pieces = pieces(inputs);
    let worths: Vec<Decimal> = pieces
        .iter()
        .map(|piece| piece.worth().unwrap_or_default())
        .collect();
    let rounded = summing_up(&worths, currency);
    let enclosed = plan.into_iter().flat_map(Plan::enclosed);
    let lines = pieces
        .into_iter()
        .zip(rounded)
        .map(|(piece, rounded)| {
            let value = piece.worth().map(|_| rounded);
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
        .chain(enclosed.filter_map(|one| enclosed_line(one, origin)))
        .collect();
    let mut protected = vec![match inputs.sending.protected {
        None => "Not yet checked for protected materials.".to_owned(),
        Some(ProtectedLook::None) => "Checked: no protected materials.".to_owned(),
        Some(ProtectedLook::Some) => format!(
            "Contains {}. The permit is attached.",
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

/// What is enclosed as customs read it; papers about the piece itself are no goods.
fn enclosed_line(enclosed: &Enclosed, origin: &str) -> Option<CustomsLine> {
    let what = match enclosed.enclosure.kind {
        EnclosureKind::Certificate | EnclosureKind::Note | EnclosureKind::Slip => return None,
        EnclosureKind::Card
        | EnclosureKind::Sample
        | EnclosureKind::Gift
        | EnclosureKind::HangingKit
        | EnclosureKind::Other => enclosed.enclosure.called(),
    };
    Some(CustomsLine {
        what: format!("Enclosed free of charge: {what}"),
        origin: origin.to_owned(),
        count: 1,
        value: "no commercial value".to_owned(),
    })
}

/// Returns amounts rounded to what a currency has that add up to their rounded sum: each is rounded down, and what is left over goes
/// to those that lost most. Source: the largest remainder.
fn summing_up(amounts: &[Decimal], currency: &Currency) -> Vec<Decimal> {
    let decimals = currency.decimals();
    let unit = Decimal::new(1, decimals);
    let total = currency.round(amounts.iter().sum());
    let mut rounded: Vec<Decimal> = amounts
        .iter()
        .map(|amount| amount.round_dp_with_strategy(decimals, RoundingStrategy::ToZero))
        .collect();
    let mut left = total - rounded.iter().sum::<Decimal>();
    let mut most: Vec<usize> = (0..amounts.len()).collect();
    most.sort_by_key(|&at| std::cmp::Reverse(amounts[at] - rounded[at]));
    for at in most {
        if left >= unit {
            rounded[at] += unit;
            left -= unit;
        }
    }
    rounded
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
    use rust_decimal_macros::dec;

    use super::*;

    #[test]
    fn lines_add_up_to_the_total() {
        // Three of 10.005 are 30.015, told as 30.02: two lines of 10.01 and one of 10.00.
        let [euro, yen] =
            ["EUR", "JPY"].map(|code| Currency::try_from(code.to_owned()).expect("a currency"));
        let three = [dec!(10.005); 3];
        assert_eq!(
            summing_up(&three, &euro),
            [dec!(10.01), dec!(10.01), dec!(10.00)]
        );
        // Of 0.4, 0.4 and 0.7 in whole yen two are left over: 0.7 lost most, then the first of the others.
        assert_eq!(
            summing_up(&[dec!(0.4), dec!(0.4), dec!(0.7)], &yen),
            [dec!(1), dec!(0), dec!(1)]
        );
        assert_eq!(summing_up(&[], &euro), Vec::<Decimal>::new());
    }

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
