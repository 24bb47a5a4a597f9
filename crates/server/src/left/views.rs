//! What is told of a parcel that left besides what every shipment is asked.

use axum::Json;
use hummock_store::Written;
use serde::{Deserialize, Serialize};
use serde_json::Value;

use super::Recorded;
use crate::{
    body::ShipmentId,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// Where what a parcel was is kept.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum RecordStands {
    /// In its handover record.
    Whole,
    /// Its record is not where it was put: what stands in the log is still known, its plan is not.
    Missing,
    /// Its record was changed or cut off: what stands in the log is still known, its plan is not.
    Broken,
    /// Its record is still to be written.
    NotYet,
}

/// A parcel that left.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LeftView {
    /// Where what it was is kept.
    record: RecordStands,
    /// The edition of plans that it left with; `None` where its plan is not known.
    edition: Option<u64>,
    /// Whether this program works out plans of another edition.
    earlier: bool,
}

/// What of a plan says by which edition it was worked out.
#[derive(Deserialize)]
struct Planned {
    edition: u64,
}

impl LeftView {
    pub(crate) fn of(found: &Recorded, worked: &Written) -> Self {
        let record = match found {
            Recorded::Whole(_) => RecordStands::Whole,
            Recorded::Missing => RecordStands::Missing,
            Recorded::Broken => RecordStands::Broken,
            Recorded::NotYet => RecordStands::NotYet,
        };
        let known = matches!(record, RecordStands::Whole | RecordStands::NotYet);
        let planned: Option<Planned> = worked.parts();
        let edition = planned.map(|planned| planned.edition).filter(|_| known);
        let now = u64::from(hummock_core::shipment::EDITION);
        Self {
            record,
            edition,
            earlier: edition.is_some_and(|edition| edition != now),
        }
    }
}

/// What was told of a parcel when it left.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct AsItLeft {
    /// The steps of its packing; `None` where they were not kept.
    #[cfg_attr(feature = "schema", schema(value_type = Option<hummock_core::pack::PackView>))]
    packing: Option<Value>,
    /// How far it was to other prices, and what its buyer paid; `None` where that was not kept.
    #[cfg_attr(feature = "schema", schema(value_type = Option<crate::plans::Pricing>))]
    pricing: Option<Value>,
}

/// Returns how a parcel that left was packed and priced, as it was told then.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_as_it_left", get, path = "/shipments/{id}/as-it-left", tag = "shipments",
    params(("id" = uuid::Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "What was kept of it", body = AsItLeft),
        (status = 404, description = "There is none of that id, or it is at work", body = Problem),
    ),
))]
async fn show(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<AsItLeft>, Problem> {
    let stored = desk.stored(id).await?;
    let found = desk.record_of(&stored).await?;
    let found = found.ok_or_else(|| Problem::not_found("parcel of that id that has left"))?;
    let told = found.whole().map(|record| &record.told);
    Ok(Json(AsItLeft {
        packing: told.and_then(|told| told.packing.clone()),
        pricing: told.and_then(|told| told.pricing.clone()),
    }))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shipments/{id}/as-it-left" => show,
    ]
}
