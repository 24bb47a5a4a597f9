//! What is asked and answered about shipments.

use hummock_core::{
    quantity::LengthUnit,
    sending::HandedParcel,
    shipment::{Matter, ShipmentInputs, Summary, WorkLine},
    stock::Measure,
    ways::ShelfLine,
};
use hummock_store::{Place, Sort, Written};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};
use uuid::Uuid;

use crate::{body::listed, left::LeftView};

/// A shipment with everything that was worked out for it.
#[derive(Debug, Clone, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShipmentView {
    /// The id of the shipment.
    pub(super) id: Uuid,
    /// Counts up with every edit, undo and redo; send it back with the next edit.
    pub(crate) version: i32,
    /// What was typed.
    pub(super) inputs: ShipmentInputs,
    /// Plan and quotes, as computed when the inputs last changed.
    #[cfg_attr(feature = "schema", schema(value_type = hummock_core::shipment::Workings))]
    pub(super) worked: Written,
    /// The figures of the bench, once there is a plan.
    #[cfg_attr(feature = "schema", schema(value_type = Option<Summary>))]
    pub(super) summary: Option<Figures>,
    /// Where it stands today.
    pub(super) line: WorkLine,
    /// Everything that is in the way of it, in the order in which it is told; nothing once it left.
    pub(super) against: Vec<Matter>,
    /// Whether there is an edit to take back.
    pub(super) can_undo: bool,
    /// Whether there is one to make again.
    pub(super) can_redo: bool,
    /// Where it is kept.
    #[cfg_attr(feature = "schema", schema(value_type = PlaceName))]
    pub(super) place: Place,
    /// What it is followed by: as its carrier booked it, else as it was typed.
    pub(super) tracking: Option<String>,
    /// As it was handed over; `None` before that.
    pub(super) handed: Option<HandedParcel>,
    /// Where what it was is kept, and by which edition of plans it was packed; `None` while it is at work.
    pub(super) left: Option<LeftView>,
}

/// Figures as this program tells them, or as they were written when the parcel left.
#[derive(Debug, Clone, Serialize)]
#[serde(untagged)]
pub(crate) enum Figures {
    Now(Box<Summary>),
    Then(Written),
}

impl Figures {
    /// Returns the figures of a shipment.
    pub(super) fn of(now: Option<Summary>, then: Option<Written>) -> Option<Self> {
        let now = now.map(|now| Self::Now(Box::new(now)));
        then.map(Self::Then).or(now)
    }

    pub(super) fn now(&self) -> Option<&Summary> {
        match self {
            Self::Now(summary) => Some(summary),
            Self::Then(_) => None,
        }
    }
}

/// Where a shipment is kept: at work, handed over and on its way, put away with the plan that it had, or deleted until it is
/// taken back. `sent` follows from `sending.handed_over` alone: asked for `bench`, what was handed over goes back to `sent`.
#[cfg(feature = "schema")]
#[derive(utoipa::ToSchema)]
#[schema(rename_all = "snake_case")]
#[expect(dead_code, reason = "it describes the store's own type")]
pub(crate) enum PlaceName {
    Bench,
    Sent,
    Archive,
    Bin,
}

/// A shipment on the bench.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct BenchRow {
    /// The id of the shipment.
    pub(super) id: Uuid,
    /// What was typed.
    pub(super) inputs: ShipmentInputs,
    /// By which the shop knows its order; empty where it is for none.
    pub(super) order_number: String,
    /// The figures, once there is a plan.
    #[cfg_attr(feature = "schema", schema(value_type = Option<Summary>))]
    pub(super) summary: Option<Figures>,
    /// Where it stands today.
    pub(super) line: WorkLine,
    /// Everything that is in the way of it, in the order in which it is told.
    pub(super) against: Vec<Matter>,
    /// What it is followed by.
    pub(super) tracking: Option<String>,
    /// What the shelf lacks for it, where it is about to be packed and nothing was taken for it yet.
    pub(super) lacks: Vec<Lack>,
}

/// Something that the shelf lacks for a shipment.
#[derive(Debug, Clone, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Lack {
    /// What it is called.
    pub(super) name: String,
    /// How much is lacking.
    pub(super) short: i64,
    /// What that is a number of.
    pub(super) measure: Measure,
    /// The last day on which it can be ordered and the promise holds; `None` if no day is promised, or where it is not known how
    /// long it takes.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    pub(super) order_by: Option<Date>,
    /// Whether that day is over.
    pub(super) too_late: bool,
}

impl From<ShelfLine> for Lack {
    fn from(line: ShelfLine) -> Self {
        Self {
            name: line.name,
            short: line.short,
            measure: line.measure,
            order_by: line.order_by,
            too_late: line.too_late,
        }
    }
}

/// A page of shipments.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct BenchPage {
    /// The shipments, in order.
    pub(super) rows: Vec<BenchRow>,
    /// How many there are on all pages.
    pub(super) total: i64,
    /// What to ask for as `after` for the next page; null on the last.
    pub(super) next: Option<Uuid>,
}

/// Which shipments, in which order.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct ListQuery {
    /// Where they are kept.
    #[serde(default)]
    #[cfg_attr(feature = "schema", param(value_type = PlaceName, required = false))]
    pub(super) place: Place,
    /// Every word of it stands in the title, the buyer's name, the town, the order number or the code of the product; up to 120 characters.
    #[serde(default)]
    #[cfg_attr(feature = "schema", param(max_length = 120))]
    pub(super) search: String,
    /// Promised first (what was not promised comes last), by title, by buyer, or the newest first.
    #[serde(default)]
    #[cfg_attr(feature = "schema", param(value_type = SortName, required = false))]
    pub(super) sort: Sort,
    /// `next` of the page before.
    pub(super) after: Option<Uuid>,
    /// How many at most, 1 to 200.
    #[serde(default = "a_page")]
    #[cfg_attr(feature = "schema", param(minimum = 1, maximum = 200, default = 50))]
    pub(super) most: u32,
    /// Parts that are left out of each row, separated by commas. None when it is left out.
    #[serde(default, deserialize_with = "listed")]
    #[cfg_attr(feature = "schema", param(value_type = Vec<RowPart>, required = false, style = Form, explode = false))]
    pub(super) without: Vec<RowPart>,
}

/// A part of a row that a list can leave out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum RowPart {
    /// The layers: `summary.section` is then empty.
    Section,
}

/// What a list is sorted by.
#[cfg(feature = "schema")]
#[derive(utoipa::ToSchema)]
#[schema(rename_all = "snake_case")]
#[expect(dead_code, reason = "it describes the store's own type")]
pub(crate) enum SortName {
    Promised,
    Title,
    Buyer,
    Newest,
}

const fn a_page() -> u32 {
    50
}

/// A shipment to make.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct NewRequest {
    /// Chosen by the caller, so that asking twice makes one; made here when absent.
    #[serde(default)]
    pub(super) id: Option<Uuid>,
    /// Chosen by the caller, as for an edit: asking again with another one is a conflict, not the same shipment.
    #[serde(default)]
    pub(super) edit: Option<Uuid>,
    /// What was typed.
    #[serde(default)]
    pub(super) inputs: ShipmentInputs,
    /// What a bare number is in.
    #[serde(default)]
    pub(super) unit: LengthUnit,
}

/// An edit of a shipment.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct EditRequest {
    /// The version that it is based on. Where others wrote since, and touched other fields or other ticks, both stand.
    pub(super) version: i32,
    /// Chosen by the caller, so that an edit whose answer was lost can be sent again without a conflict.
    #[serde(default)]
    pub(super) edit: Option<Uuid>,
    /// What changes, as a JSON merge patch (RFC 7396) on the inputs: `null` takes a value away.
    #[cfg_attr(feature = "schema", schema(value_type = Object, example = json!({ "choices": { "first_turns": 2 } })))]
    pub(super) change: Map<String, Value>,
    /// What a bare number is in.
    #[serde(default)]
    pub(super) unit: LengthUnit,
}

/// A move through the history of a shipment.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct MoveRequest {
    /// The version that it is based on.
    pub(super) version: i32,
    /// Chosen by the caller, as for an edit.
    #[serde(default)]
    pub(super) edit: Option<Uuid>,
}

/// Where a shipment is to be kept.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct PlaceRequest {
    /// On the bench, in the archive or in the bin.
    #[cfg_attr(feature = "schema", schema(value_type = PlaceName))]
    pub(super) place: Place,
}
