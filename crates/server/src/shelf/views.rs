//! What is asked and answered about the shelf.

use hummock_core::{
    material::Catalogue,
    quantity::LengthUnit,
    shipment::ShipmentInputs,
    stock::{Counting, Goods, Measure, StockItem},
    ways::ShelfLine,
};
use hummock_store::{StockEvent, TakenLine};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// Something on the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfItem {
    /// Which; nothing for what only the stores say, and nobody has counted here.
    pub(super) id: Option<Uuid>,
    /// What it is.
    #[serde(flatten)]
    pub(super) goods: Goods,
    /// What its material is called.
    pub(super) material_name: String,
    /// What is written on it.
    pub(super) name: String,
    /// Where it stands.
    pub(super) place: String,
    /// How much there is, in its measure.
    pub(super) left: i64,
    /// What that is a number of.
    pub(super) measure: Measure,
    /// Why a carton is no box any more.
    pub(super) spoilt: Option<&'static str>,
}

/// Everything on the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfView {
    /// What was counted, and after it what only the stores say.
    pub(super) items: Vec<ShelfItem>,
}

/// Something to put on the shelf.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfRequest {
    /// Chosen by the caller, so that asking twice puts one there.
    #[serde(default)]
    pub(super) id: Option<Uuid>,
    /// What it is.
    #[serde(flatten)]
    pub(super) goods: Goods,
    /// What is written on it.
    #[serde(default)]
    pub(super) name: String,
    /// Where it stands.
    #[serde(default)]
    pub(super) place: String,
    /// How much there is, in its measure.
    pub(super) left: i64,
}

/// A new count.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CountRequest {
    /// How much there was when it was looked at: the count is not written over another one.
    pub(super) was: i64,
    /// What it is, and how much there is now.
    #[serde(flatten)]
    pub(super) item: ShelfRequest,
}

/// What became of something on the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfEvent {
    /// More, or less.
    pub(super) change: i64,
    /// How much there was then.
    pub(super) left: i64,
    /// `counted`, `kept`, `cut`, `not_cut`, `taken`, `given_back` or `opened`.
    pub(super) why: String,
    /// The shipment or the layout that it was for.
    pub(super) about: String,
    /// In seconds since 1970.
    pub(super) at: i64,
}

/// A carton to open.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct OpenRequest {
    /// Panels that are crushed, wet or torn, by name.
    #[serde(default)]
    pub(super) bad: Vec<String>,
    /// Where the others are put.
    #[serde(default)]
    pub(super) place: String,
    /// Whether to only say what it would give.
    #[serde(default)]
    pub(super) dry_run: bool,
}

/// A panel of a carton that is opened.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct OpenedPanel {
    /// The name of the panel.
    pub(super) name: String,
    /// Across the flutes.
    pub(super) width_mm: f64,
    /// Along them.
    pub(super) height_mm: f64,
    /// Whether it goes on the shelf: it is sound, and large enough for the house.
    pub(super) kept: bool,
}

/// A table of the shelf to read in.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct ShelfTableRequest {
    /// Comma-separated values with a head, as the table that is given out.
    pub(super) csv: String,
    /// Whether to only say what would happen.
    #[serde(default)]
    pub(super) dry_run: bool,
}

/// What a table put on the shelf, or would.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfTableResult {
    /// Counts of a material and size that are written anew.
    pub(super) counted: usize,
    /// Offcuts and cartons that are added.
    pub(super) added: usize,
    /// The shelf as it is now.
    pub(super) shelf: ShelfView,
}

/// Inputs to ask the pile about.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct PileRequest {
    /// What was typed, with the choices as they are.
    pub(super) inputs: ShipmentInputs,
    /// What a bare number is in.
    #[serde(default)]
    pub(super) unit: LengthUnit,
}

/// What a shipment takes off the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShipmentShelf {
    /// What its plan takes, what is short first.
    pub(super) lines: Vec<ShelfLine>,
    /// What was taken when packing began; `None` before.
    pub(super) taken: Option<Vec<ShelfTaken>>,
    /// Whether the plan takes something else, or more, than was taken.
    pub(super) changed: bool,
}

/// Something that was taken off the shelf.
#[derive(Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfTaken {
    /// From which item.
    pub(super) item: Uuid,
    /// What it is called.
    pub(super) name: String,
    /// How much was taken.
    pub(super) amount: i64,
    /// How much the plan wanted.
    pub(super) wanted: i64,
}

impl From<TakenLine> for ShelfTaken {
    fn from(line: TakenLine) -> Self {
        let TakenLine {
            item,
            name,
            amount,
            wanted,
        } = line;
        Self {
            item,
            name,
            amount,
            wanted,
        }
    }
}

impl From<StockEvent> for ShelfEvent {
    fn from(event: StockEvent) -> Self {
        let StockEvent {
            change,
            left,
            why,
            about,
            at,
        } = event;
        Self {
            change,
            left,
            why,
            about,
            at,
        }
    }
}

impl ShelfRequest {
    pub(super) fn item(self) -> StockItem {
        StockItem {
            id: self.id.unwrap_or_else(Uuid::now_v7).to_string(),
            goods: self.goods,
            name: self.name.trim().to_owned(),
            place: self.place.trim().to_owned(),
            left: self.left,
        }
    }
}

impl ShelfItem {
    pub(super) fn of(item: StockItem, catalogue: &Catalogue) -> Self {
        let name = Counting::of(catalogue, item.goods.material()).map_or_else(
            || item.goods.material().to_string(),
            |one| one.name.to_owned(),
        );
        Self {
            id: item.id.parse().ok(),
            measure: item.goods.measure(),
            spoilt: match &item.goods {
                Goods::Carton(carton) => carton.spoilt(),
                _ => None,
            },
            goods: item.goods,
            material_name: name,
            name: item.name,
            place: item.place,
            left: item.left,
        }
    }
}

/// What the stores say of materials that nobody has counted on the shelf.
pub(super) fn only_said(catalogue: &Catalogue, counted: &[StockItem]) -> Vec<StockItem> {
    let keys: Vec<String> = counted.iter().filter_map(|item| item.goods.key()).collect();
    Counting::all(catalogue)
        .into_iter()
        .filter_map(|(id, counting)| counting.said(id))
        .filter(|(goods, _)| goods.key().is_some_and(|key| !keys.contains(&key)))
        .map(|(goods, left)| StockItem {
            id: String::new(),
            goods,
            name: String::new(),
            place: String::new(),
            left,
        })
        .collect()
}
