//! Orders of a shop: what a shipment knows of its order, and what it takes of a row of the shop's table.

mod columns;
mod row;
mod words;

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};
use sha2::{Digest, Sha256};

pub use columns::{OrderColumn, OrderColumns, OrderTable};
pub use row::{OrderReading, SizeFrom};

use super::{
    ShipmentInputs,
    inputs::{read_amount, refused_long},
};
use crate::{Refusal, Refusals, text::refused_text};

/// The order that a shipment is for, as a shop knows it.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct OrderInputs {
    /// Its number, up to 80 characters.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub number: String,
    /// The shop that sold it, up to 80 characters.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub shop: String,
    /// By which the shop knows the product, up to 80 characters.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub sku: String,
    /// What the buyer paid for carriage, in the studio's currency, as 12.50.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub paid: Option<String>,
    /// What the buyer wrote with it, up to 2000 characters.
    #[serde(skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// An order, as it was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Order {
    /// By which the shop knows it.
    pub number: String,
    /// What a shipment of it is.
    pub inputs: ShipmentInputs,
    /// Where its size is from.
    pub size_from: SizeFrom,
}

/// The longest number, shop or code of a product, in characters.
const LONGEST_NUMBER: usize = 80;
const LONGEST_NOTE: usize = 2000;
/// How many bytes of the digest stand for an order.
const KEY_BYTES: usize = 16;

impl OrderInputs {
    pub(super) fn refused(&self) -> Vec<Refusal> {
        let lines = [
            ("order.number", &self.number, "an order number"),
            ("order.shop", &self.shop, "the name of a shop"),
            ("order.sku", &self.sku, "the code of a product"),
        ];
        let mut refusals: Refusals = lines
            .into_iter()
            .filter_map(|(field, text, what)| refused_line(field, text, what))
            .collect();
        refusals.extend(read_amount("order.paid", self.paid.as_deref()).err());
        refusals.extend(refused_long("order.note", &self.note, LONGEST_NOTE));
        refusals.into()
    }
}

impl ShipmentInputs {
    /// Returns the number of its order; empty where it is for none.
    #[must_use]
    pub fn order_number(&self) -> &str {
        let number = self.order.number.trim();
        if number.is_empty() {
            self.order_number.trim()
        } else {
            number
        }
    }

    /// Returns what the buyer paid for carriage; `None` where no order says it, or where it is no amount.
    #[must_use]
    pub fn paid_for_carriage(&self) -> Option<Decimal> {
        read_amount("", self.order.paid.as_deref()).ok()?
    }

    /// Writes the number of the order where both fields of it look: `order_number` is its former place.
    pub(super) fn one_order_number(&mut self) {
        let number = self.order_number().to_owned();
        self.order_number.clone_from(&number);
        self.order.number = number;
    }

    /// Makes a merge patch that changes the number of the order in one of its places change it in both; `order.number` decides
    /// where both are named.
    pub fn one_number_in(patch: &mut Map<String, Value>) {
        let of_order = match patch.get("order") {
            // What is taken away whole loses its number too.
            Some(Value::Null) => Some(Value::Null),
            Some(Value::Object(order)) => order.get("number").cloned(),
            _ => None,
        };
        if let Some(number) = of_order {
            let former = if number.is_null() {
                Value::String(String::new())
            } else {
                number
            };
            patch.insert("order_number".to_owned(), former);
        } else if let Some(number) = patch.get("order_number").cloned() {
            let order = patch
                .entry("order")
                .or_insert_with(|| Value::Object(Map::new()));
            if let Some(order) = order.as_object_mut() {
                order.insert("number".to_owned(), number);
            }
        }
    }
}

/// Refuses a text that is no readable line of at most 80 characters; it may be empty.
fn refused_line(field: &str, text: &str, what: &str) -> Option<Refusal> {
    let length = text.chars().count();
    if length <= LONGEST_NUMBER {
        return refused_text(field, text);
    }
    let says = format!("{length} characters are too many: {what} has at most {LONGEST_NUMBER}");
    Some(Refusal::new(field, says))
}

/// Returns the key of an order: a studio and an order number have one key, also where other columns of its row change.
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
    use serde_json::json;

    use super::*;

    #[test]
    fn the_number_is_one_in_both_of_its_places() {
        for (patch, both) in [
            (
                json!({ "order_number": "7" }),
                json!({ "order_number": "7", "order": { "number": "7" } }),
            ),
            (
                json!({ "order": { "number": "7" } }),
                json!({ "order_number": "7", "order": { "number": "7" } }),
            ),
            (
                json!({ "order_number": "8", "order": { "number": "7" } }),
                json!({ "order_number": "7", "order": { "number": "7" } }),
            ),
            (
                json!({ "order_number": "7", "order": { "sku": "A" } }),
                json!({ "order_number": "7", "order": { "sku": "A", "number": "7" } }),
            ),
            (
                json!({ "order": { "number": null } }),
                json!({ "order_number": "", "order": { "number": null } }),
            ),
            (
                json!({ "order": null }),
                json!({ "order_number": "", "order": null }),
            ),
            (
                json!({ "order": { "sku": "A" } }),
                json!({ "order": { "sku": "A" } }),
            ),
            (json!({ "title": "A" }), json!({ "title": "A" })),
        ] {
            let mut done = patch.as_object().cloned().expect("a patch");
            ShipmentInputs::one_number_in(&mut done);
            assert_eq!(Value::Object(done), both, "{patch}");
        }
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
