//! Orders of a shop, a row each: what a shipment takes of one.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};

use super::{ShipmentInputs, dates::written_day};
use crate::{
    Refusal, Refusals,
    place::{Buyer, Countries},
    quantity::Telling,
    text::refused_text,
};

/// Which column of a table holds what, by the names in its head; `None` if there is none for it.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct OrderColumns {
    /// By which the shop knows the order.
    pub number: Option<String>,
    /// Who gets it.
    pub name: Option<String>,
    /// Street and number.
    pub street: Option<String>,
    /// Town.
    pub town: Option<String>,
    /// Postcode.
    pub postcode: Option<String>,
    /// Country, by its name or by its code.
    pub country: Option<String>,
    /// The piece.
    pub title: Option<String>,
    /// What it was sold for.
    pub value: Option<String>,
    /// The day it was promised for, as 2027-03-12, 12 Mar 2027 or 12.3.2027.
    pub promised: Option<String>,
}

/// An order, as it was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Order {
    /// By which the shop knows it.
    pub number: String,
    /// What a shipment of it is.
    pub inputs: ShipmentInputs,
}

/// The longest number that a shop gives an order, in characters.
const LONGEST_NUMBER: usize = 80;
/// How many bytes of the digest stand for an order.
const KEY_BYTES: usize = 16;

impl Order {
    /// Reads a row. What is not in it is as in `start`.
    ///
    /// # Errors
    /// A [`Refusal`] for a row without a number or a name, and for a country that there is not, at the field of the
    /// columns. Whether the values can stand is looked at with the shipment.
    pub fn read(
        row: &BTreeMap<String, String>,
        columns: &OrderColumns,
        countries: &Countries,
        start: &ShipmentInputs,
        telling: Telling,
    ) -> Result<Self, Vec<Refusal>> {
        let cell = |column: &Option<String>| -> String {
            let text = column.as_ref().and_then(|name| row.get(name));
            let words = text.map(|text| text.split_whitespace().collect::<Vec<_>>());
            words.unwrap_or_default().join(" ")
        };
        let mut refusals = Refusals::default();
        let number = cell(&columns.number);
        if !(1..=LONGEST_NUMBER).contains(&number.chars().count()) {
            let says = format!(
                "the order has no number of 1 to {LONGEST_NUMBER} characters: without one it could be made twice"
            );
            refusals.refuse("number", says);
        }
        let name = cell(&columns.name);
        if name.is_empty() {
            refusals.refuse("name", "nobody is named who gets it");
        }
        let typed = cell(&columns.country);
        let named = countries.named(&typed);
        if named.is_none() && !typed.is_empty() {
            let says = format!("{typed} is no country: write its name, or its code of two letters");
            refusals.refuse("country", says);
        }
        let promised = match written_day(&cell(&columns.promised), telling) {
            Ok(day) => day,
            Err(says) => {
                refusals.refuse("promised", says);
                String::new()
            }
        };
        refusals.done()?;
        let or = |text: String, otherwise: &Option<String>| {
            if text.is_empty() {
                otherwise.clone()
            } else {
                Some(text)
            }
        };
        let title = cell(&columns.title);
        Ok(Self {
            inputs: ShipmentInputs {
                order_number: number.clone(),
                title: if title.is_empty() {
                    start.title.clone()
                } else {
                    title
                },
                buyer: Buyer {
                    name,
                    street: cell(&columns.street),
                    town: cell(&columns.town),
                    postcode: cell(&columns.postcode),
                    country: named.unwrap_or_default().to_owned(),
                    ..Buyer::default()
                },
                value: or(amount_of(&cell(&columns.value)), &start.value),
                promised: or(promised, &start.promised),
                ..start.clone()
            },
            number,
        })
    }
}

/// Refuses an order's number that is no readable line of at most 80 characters; there may be none.
pub(super) fn refused_order_number(field: &str, number: &str) -> Option<Refusal> {
    let length = number.chars().count();
    if length <= LONGEST_NUMBER {
        return refused_text(field, number);
    }
    let says =
        format!("it is {length} characters long; an order number has at most {LONGEST_NUMBER}");
    Some(Refusal::new(field, says))
}

/// Writes an amount as people type one: shops part thousands, as `1,450.00` or `1.450,00`. One that could be read in two ways
/// stays as it is, and is refused with both.
fn amount_of(text: &str) -> String {
    let parts = |thousands: char, decimals: char| {
        let (whole, rest) = text.split_once(decimals)?;
        let mut groups = whole.split(thousands);
        let first = groups.next()?;
        let is_digits = |part: &str| part.bytes().all(|byte| byte.is_ascii_digit());
        let groups: Vec<&str> = groups.collect();
        let fits = !groups.is_empty()
            && (1..=3).contains(&first.len())
            && groups.iter().all(|group| group.len() == 3)
            && (1..=2).contains(&rest.len());
        (fits && is_digits(first) && is_digits(rest) && groups.iter().all(|group| is_digits(group)))
            .then(|| format!("{first}{}.{rest}", groups.concat()))
    };
    let found = parts(',', '.').or_else(|| parts('.', ','));
    found.unwrap_or_else(|| text.to_owned())
}

/// Returns what stands for an order whenever it comes: the same for the same studio and number, whatever else is in the row.
#[must_use]
pub fn order_key(studio: &str, number: &str) -> [u8; KEY_BYTES] {
    let mut digest = Sha256::new();
    digest.update("order\n");
    digest.update(studio);
    digest.update("\n");
    digest.update(number);
    let mut key = [0; KEY_BYTES];
    key.copy_from_slice(&digest.finalize()[..KEY_BYTES]);
    key
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;
    use crate::place::{OwnCountry, PostcodePlace};

    fn countries() -> Countries {
        let own = [("XS", "Saltmark"), ("XV", "Vennland")].map(|(code, name)| OwnCountry {
            code: code.into(),
            name: name.into(),
            format: PostcodePlace::BeforeTown.format().clone(),
        });
        Countries::of(own.into(), "XS", Vec::new())
    }

    fn columns() -> OrderColumns {
        let named = |name: &str| Some(name.to_owned());
        OrderColumns {
            number: named("Order"),
            name: named("Ship to"),
            town: named("City"),
            country: named("Land"),
            title: named("Item"),
            ..OrderColumns::default()
        }
    }

    fn row(cells: &[(&str, &str)]) -> BTreeMap<String, String> {
        cells
            .iter()
            .map(|(name, text)| ((*name).to_owned(), (*text).to_owned()))
            .collect()
    }

    #[test]
    fn thousands_are_read_where_they_can_be_told_from_decimals() {
        for (text, read) in [
            ("1,450.00", "1450.00"),
            ("1.450,00", "1450.00"),
            ("12,345,678.5", "12345678.5"),
            ("640.00", "640.00"),
            ("640,00", "640,00"),
            // It could be 1450 or 1.45: it is refused with both, as anywhere.
            ("1,450", "1,450"),
            ("14,50.00", "14,50.00"),
            ("", ""),
        ] {
            assert_eq!(amount_of(text), read, "{text}");
        }
    }

    #[test]
    fn a_row_is_read_by_its_columns_over_what_it_starts_from() {
        let start = ShipmentInputs {
            title: "Kelp Ladder".to_owned(),
            value: Some("640".to_owned()),
            ..ShipmentInputs::default()
        };
        let read = |cells: &[(&str, &str)]| {
            Order::read(
                &row(cells),
                &columns(),
                &countries(),
                &start,
                Telling::default(),
            )
        };
        let order = read(&[
            ("Order", " #1042 "),
            ("Ship to", "Oda  Marsh"),
            ("Land", "vennland"),
            ("Unasked", "x"),
        ])
        .expect("an order");
        assert_eq!(
            (order.number.as_str(), order.inputs.order_number.as_str()),
            ("#1042", "#1042")
        );
        let inputs = order.inputs;
        assert_eq!(
            (inputs.buyer.name.as_str(), inputs.buyer.country.as_str()),
            ("Oda Marsh", "XV")
        );
        assert_eq!(
            (inputs.title.as_str(), inputs.value.as_deref()),
            ("Kelp Ladder", Some("640"))
        );
        let refused = read(&[("Land", "Atlantis")]).expect_err("nothing is there");
        let fields: Vec<&str> = refused
            .iter()
            .map(|refusal| refusal.field.as_str())
            .collect();
        assert_eq!(fields, ["number", "name", "country"]);
    }

    proptest! {
        #[test]
        fn an_order_is_known_by_its_number_alone(number in "[#A-Z0-9-]{1,20}", other in "[#A-Z0-9-]{1,20}") {
            prop_assert_eq!(order_key("one", &number), order_key("one", &number));
            prop_assert_eq!(number == other, order_key("one", &number) == order_key("one", &other));
            prop_assert_ne!(order_key("one", &number), order_key("two", &number));
        }
    }
}
