//! Everything on the shelf, found by its id.

use std::collections::BTreeMap;

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value, json};

use super::{
    Batten, Board, ContactPaper, CushionWrap, Fill, Film, Foam, Mailer, MaterialId, PictureCarton,
    RollCore, SlipOnCorner, Sundry, Tape, Tube, Use,
};
use crate::quantity::{Currency, Telling};

/// The materials that a studio has, with their prices in one currency.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(remote = "Self")]
pub struct Catalogue {
    /// The money of every price in it.
    pub currency: Currency,
    /// Sheets that may lie against the art.
    pub contact_papers: Vec<ContactPaper>,
    /// Boards for faces, corners and boxes.
    pub boards: Vec<Board>,
    /// Cushions that are wound around.
    pub cushion_wraps: Vec<CushionWrap>,
    /// Loose fill.
    pub fills: Vec<Fill>,
    /// Tapes.
    pub tapes: Vec<Tape>,
    /// Foams for pads and blocks.
    #[serde(default)]
    pub foams: Vec<Foam>,
    /// Stretch film and bags.
    #[serde(default)]
    pub films: Vec<Film>,
    /// Bought corners.
    #[serde(default)]
    pub slip_on_corners: Vec<SlipOnCorner>,
    /// Tags, sachets and labels.
    #[serde(default)]
    pub sundries: Vec<Sundry>,
    /// Round tubes.
    #[serde(default)]
    pub tubes: Vec<Tube>,
    /// Cores that sheets are rolled on.
    #[serde(default)]
    pub cores: Vec<RollCore>,
    /// Battens of wood, for the frame of a case.
    #[serde(default)]
    pub battens: Vec<Batten>,
    /// Stiff and padded mailers.
    #[serde(default)]
    pub mailers: Vec<Mailer>,
    /// Bought picture cartons.
    #[serde(default)]
    pub picture_cartons: Vec<PictureCarton>,
}

crate::json::read_in_one_place!(Catalogue);

/// Every price of a material is under a key that begins so.
const PRICE: &str = "price";

/// A price of a material.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct MaterialPrice {
    /// The material's name, and for how much of it the price is.
    pub name: String,
    /// The price.
    pub price: Decimal,
}

/// Meets every material of a catalogue as it is written.
fn each_material(written: &mut Value, meet: &mut impl FnMut(&mut Map<String, Value>)) {
    let classes = written
        .as_object_mut()
        .into_iter()
        .flat_map(Map::values_mut);
    let materials = classes.filter_map(Value::as_array_mut).flatten();
    materials.filter_map(Value::as_object_mut).for_each(meet);
}

/// Meets every price of a material as it is written, its sheets' ones with it.
fn each_price(fields: &mut Map<String, Value>, meet: &mut impl FnMut(&str, &mut Value)) {
    for (key, value) in fields {
        match value {
            Value::String(_) if key.starts_with(PRICE) => meet(key, value),
            Value::Object(inner) => each_price(inner, meet),
            Value::Array(values) => {
                for inner in values.iter_mut().filter_map(Value::as_object_mut) {
                    each_price(inner, meet);
                }
            }
            Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
        }
    }
}

/// Says of a material as it is written whether its price is to be looked at.
fn set_to_check(fields: &mut Map<String, Value>, to_check: bool) {
    let shelf = fields.entry("shelf").or_insert_with(|| json!({}));
    if let Some(shelf) = shelf.as_object_mut() {
        shelf.insert("to_check".to_owned(), Value::from(to_check));
    }
}

/// Returns a price that is written.
fn price_in(value: &Value) -> Option<Decimal> {
    value.as_str()?.parse().ok()
}

impl Catalogue {
    fn written(&self) -> Value {
        serde_json::to_value(self).expect("a catalogue can be written")
    }

    fn read_back(written: Value) -> Self {
        serde_json::from_value(written).expect("what was written as a catalogue is one")
    }

    /// Returns the same materials at no price, in other money: what they cost in it is not known, and every price is to be looked at.
    #[must_use]
    pub fn unpriced(&self, currency: Currency) -> Self {
        let mut written = self.with_prices(|_| Decimal::ZERO).written();
        each_material(&mut written, &mut |fields| set_to_check(fields, true));
        Self {
            currency,
            ..Self::read_back(written)
        }
    }

    /// Returns the same materials with every price changed.
    #[must_use]
    pub fn with_prices(&self, change: impl Fn(Decimal) -> Decimal) -> Self {
        let mut written = self.written();
        each_material(&mut written, &mut |fields| {
            each_price(fields, &mut |_, value| {
                if let Some(price) = price_in(value) {
                    *value = Value::from(change(price).to_string());
                }
            });
        });
        Self::read_back(written)
    }

    /// Returns the same materials as nobody's: none is on the shelf and none has a supplier, and every price is to be looked at.
    #[must_use]
    pub fn of_nobody(&self) -> Self {
        let mut written = self.written();
        each_material(&mut written, &mut |fields| {
            if let Some(shelf) = fields.get_mut("shelf").and_then(Value::as_object_mut) {
                for own in ["stock", "supplier", "lead_days"] {
                    shelf.remove(own);
                }
            }
            set_to_check(fields, true);
        });
        Self::read_back(written)
    }

    /// Returns the same materials once somebody has looked at every price.
    #[must_use]
    pub fn all_looked_at(&self) -> Self {
        let mut written = self.written();
        each_material(&mut written, &mut |fields| set_to_check(fields, false));
        Self::read_back(written)
    }

    /// Returns the same materials once somebody has looked at one of them.
    pub(super) fn looked_at(&self, id: &str) -> Self {
        let mut written = self.written();
        each_material(&mut written, &mut |fields| {
            if fields.get("id").and_then(Value::as_str) == Some(id) {
                set_to_check(fields, false);
            }
        });
        Self::read_back(written)
    }

    /// Returns every price, in the order in which materials are listed.
    #[must_use]
    pub fn prices(&self) -> Vec<MaterialPrice> {
        let mut prices = Vec::new();
        each_material(&mut self.written(), &mut |fields| {
            let name = fields.get("name").and_then(Value::as_str);
            let name = name.unwrap_or_default().to_owned();
            each_price(fields, &mut |key, value| {
                let each = match key.strip_prefix("price_per_") {
                    Some("m") => ", a metre",
                    Some("kg") => ", a kilogram",
                    _ => "",
                };
                prices.extend(price_in(value).map(|price| MaterialPrice {
                    name: format!("{name}{each}"),
                    price,
                }));
            });
        });
        prices
    }

    /// Returns the same materials under the names that those of the program have when quantities are told otherwise; a name that
    /// the studio gave itself stays. `None` if every name stays.
    #[must_use]
    pub fn named_in(&self, shipped: &Self, before: Telling, after: Telling) -> Option<Self> {
        fn each_name(written: &mut Value, meet: &mut impl FnMut(&str, &mut Value)) {
            each_material(written, &mut |fields| {
                let id = fields.get("id").and_then(Value::as_str).map(str::to_owned);
                if let (Some(id), Some(name)) = (id, fields.get_mut("name")) {
                    meet(&id, name);
                }
            });
        }
        let mut known = BTreeMap::new();
        each_name(&mut shipped.written(), &mut |id, name| {
            known.insert(id.to_owned(), name.as_str().unwrap_or_default().to_owned());
        });
        let mut renamed = false;
        let mut own = self.written();
        each_name(&mut own, &mut |id, name| {
            if let Some(shipped) = known.get(id)
                && name.as_str() == Some(&before.named(shipped))
                && before.named(shipped) != after.named(shipped)
            {
                *name = Value::from(after.named(shipped));
                renamed = true;
            }
        });
        renamed.then(|| Self::read_back(own))
    }
}

/// A rule or a shipment names a material that the catalogue does not hold.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("no {class} is called \"{id}\": choose another")]
pub struct MissingMaterial {
    /// What kind of material was looked for.
    pub class: &'static str,
    /// What it was called.
    pub id: MaterialId,
}

/// Declares a look-up by id in one class of the catalogue.
macro_rules! find_in {
    ($(#[$doc:meta])* $find:ident, $class_field:ident, $material:ty, $class:literal) => {
        $(#[$doc])*
        ///
        /// # Errors
        /// [`MissingMaterial`] when there is none of that id.
        pub fn $find(&self, id: &MaterialId) -> Result<&$material, MissingMaterial> {
            self.$class_field
                .iter()
                .find(|material| &material.id == id)
                .ok_or_else(|| MissingMaterial { class: $class, id: id.clone() })
        }
    };
}

impl Catalogue {
    find_in! {
        /// Returns the contact paper of that id.
        contact_paper, contact_papers, ContactPaper, "contact paper"
    }
    find_in! {
        /// Returns the board of that id.
        board, boards, Board, "board"
    }
    find_in! {
        /// Returns the cushion wrap of that id.
        cushion_wrap, cushion_wraps, CushionWrap, "cushion wrap"
    }
    find_in! {
        /// Returns the fill of that id.
        fill, fills, Fill, "fill"
    }
    find_in! {
        /// Returns the tape of that id.
        tape, tapes, Tape, "tape"
    }
    find_in! {
        /// Returns the foam of that id.
        foam, foams, Foam, "foam"
    }
    find_in! {
        /// Returns the film of that id.
        film, films, Film, "film"
    }
    find_in! {
        /// Returns the bought corner of that id.
        slip_on_corner, slip_on_corners, SlipOnCorner, "slip-on corner"
    }
    find_in! {
        /// Returns the tag, sachet or label of that id.
        sundry, sundries, Sundry, "tag, sachet or label"
    }
    find_in! {
        /// Returns the tube of that id.
        tube, tubes, Tube, "tube"
    }

    find_in! {
        /// Returns the bought carton of that id.
        picture_carton, picture_cartons, PictureCarton, "bought carton"
    }

    /// Returns the first thing of a use that is not retired.
    #[must_use]
    pub fn sundry_for(&self, purpose: Use) -> Option<&Sundry> {
        self.sundries
            .iter()
            .find(|sundry| sundry.purpose == purpose && !sundry.shelf.retired)
    }

    /// Returns the screws that are not retired.
    pub fn screws(&self) -> impl Iterator<Item = &Sundry> {
        let screws = self.sundries.iter();
        screws.filter(|one| one.purpose == Use::Screw && !one.shelf.retired)
    }

    /// Returns the board of that id when it scores and folds.
    ///
    /// # Errors
    /// [`MissingMaterial`] when there is none of that id, or it breaks instead of folding.
    pub fn folding_board(&self, id: &MaterialId) -> Result<&Board, MissingMaterial> {
        self.board_that(id, "board that folds", |board| board.folds)
    }

    /// Returns the board of that id when a box can be made of it.
    ///
    /// # Errors
    /// [`MissingMaterial`] when there is none of that id, or it can be neither folded nor slit.
    pub fn box_board(&self, id: &MaterialId) -> Result<&Board, MissingMaterial> {
        self.board_that(id, "board that folds or is slit", Board::makes_boxes)
    }

    fn board_that(
        &self,
        id: &MaterialId,
        class: &'static str,
        does: impl Fn(&Board) -> bool,
    ) -> Result<&Board, MissingMaterial> {
        self.board(id)
            .ok()
            .filter(|board| does(board))
            .ok_or_else(|| MissingMaterial {
                class,
                id: id.clone(),
            })
    }
}
