//! Everything on the shelf, found by its id.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use serde_json::Value;

use super::{
    Board, ContactPaper, CushionWrap, Fill, Film, Foam, Mailer, MaterialId, PictureCarton,
    RollCore, SlipOnCorner, Sundry, Tape, Tube, Use,
};
use crate::quantity::{Currency, Telling};

/// The materials that a studio has, with their prices in one currency.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(remote = "Self")]
pub struct Catalogue {
    /// Of every price in it.
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

impl Catalogue {
    /// Returns the same materials at no price, in other money: what they cost in it is not known.
    ///
    /// # Panics
    /// Never: what a catalogue is written as can be read as one.
    #[must_use]
    pub fn unpriced(&self, currency: Currency) -> Self {
        fn clear(value: &mut Value) {
            match value {
                Value::Object(fields) => {
                    for (key, value) in fields {
                        if key.starts_with(PRICE) && value.is_string() {
                            *value = Value::from("0");
                        } else {
                            clear(value);
                        }
                    }
                }
                Value::Array(values) => values.iter_mut().for_each(clear),
                Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
            }
        }
        let mut written = serde_json::to_value(self).expect("a catalogue can be written");
        clear(&mut written);
        let read: Self = serde_json::from_value(written).expect("it is a catalogue");
        Self { currency, ..read }
    }
}

impl Catalogue {
    /// Returns the same materials under the names that those of the program have when quantities are told otherwise; a name that
    /// the studio gave itself stays. `None` if every name stays.
    ///
    /// # Panics
    /// Never: what a catalogue is written as can be read as one.
    #[must_use]
    pub fn named_in(&self, shipped: &Self, before: Telling, after: Telling) -> Option<Self> {
        fn each_name(value: &mut Value, meet: &mut impl FnMut(&str, &mut Value)) {
            let Value::Object(classes) = value else {
                return;
            };
            let materials = classes.values_mut().filter_map(Value::as_array_mut);
            for fields in materials.flatten().filter_map(Value::as_object_mut) {
                let id = fields.get("id").and_then(Value::as_str).map(str::to_owned);
                if let (Some(id), Some(name)) = (id, fields.get_mut("name")) {
                    meet(&id, name);
                }
            }
        }
        let written =
            |catalogue: &Self| serde_json::to_value(catalogue).expect("it can be written");
        let mut known = BTreeMap::new();
        each_name(&mut written(shipped), &mut |id, name| {
            known.insert(id.to_owned(), name.as_str().unwrap_or_default().to_owned());
        });
        let mut renamed = false;
        let mut own = written(self);
        each_name(&mut own, &mut |id, name| {
            if let Some(shipped) = known.get(id)
                && name.as_str() == Some(&before.named(shipped))
                && before.named(shipped) != after.named(shipped)
            {
                *name = Value::from(after.named(shipped));
                renamed = true;
            }
        });
        renamed.then(|| serde_json::from_value(own).expect("it is a catalogue"))
    }
}

/// A rule or a shipment names a material that the catalogue does not hold.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("the stores hold no {class} called \"{id}\": choose one that is there")]
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
