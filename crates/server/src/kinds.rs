//! As last time: the kinds of pieces that were sent before, and a shipment's inputs for the next like piece.

use axum::Json;
use hummock_core::shipment::{LikeShipment, ShipmentInputs};
use hummock_store::{Place, Sort, Wanted};
use serde::Serialize;
use uuid::Uuid;

use crate::{
    body::ShipmentId,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// A kind of piece that was sent before.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct KindView {
    /// The last shipment of it.
    shipment: Uuid,
    /// Title of that shipment.
    title: String,
    /// Kind of the piece, in a few words.
    says: String,
    /// Number of parcels of it that were handed over, among the shipments that were looked at; 0 if it was planned alone.
    count: u32,
}

/// Inputs for the next like piece.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct AgainView {
    /// How the piece is made, packed, covered and sent; whose it is and what was measured is not among them.
    inputs: ShipmentInputs,
}

/// How many of the newest shipments are looked at, on the bench, on their way and in the archive each.
const LOOKED_AT: u32 = 200;
const MOST_KINDS: usize = 24;

/// Returns the kinds of pieces among the newest shipments, the last one first.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_kinds", get, path = "/kinds", tag = "shipments",
    responses((status = 200, description = "Up to 24 kinds", body = [KindView])),
))]
async fn list(desk: Desk) -> Result<Json<Vec<KindView>>, Problem> {
    let telling = desk.house().await?.house.rules.told_in;
    let mut newest = Vec::new();
    for place in [Place::Bench, Place::Sent, Place::Archive] {
        let wanted = Wanted {
            place,
            search: String::new(),
            sort: Sort::Newest,
            after: None,
            most: LOOKED_AT,
            without_section: true,
        };
        newest.extend(desk.store.shipments(&wanted).await?.rows);
    }
    // The ids count up with the time.
    newest.sort_by_key(|row| std::cmp::Reverse(row.id));
    let mut kinds: Vec<(LikeShipment, KindView)> = Vec::new();
    for row in newest {
        let inputs = row.inputs;
        let (Some(alike), Some(says)) = (inputs.alike(), inputs.kind_says(telling)) else {
            continue;
        };
        if let Some((_, kind)) = kinds.iter_mut().find(|(known, _)| *known == alike) {
            kind.count += u32::from(inputs.handed_over().is_some());
        } else if kinds.len() < MOST_KINDS {
            let kind = KindView {
                shipment: row.id,
                count: u32::from(inputs.handed_over().is_some()),
                title: inputs.title,
                says,
            };
            kinds.push((alike, kind));
        }
    }
    Ok(Json(kinds.into_iter().map(|(_, kind)| kind).collect()))
}

/// Returns a shipment's inputs for the next like piece, to be typed into and then made; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "again", get, path = "/shipments/{id}/again", tag = "shipments",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "Inputs", body = AgainView),
        (status = 404, description = "There is none of that id", body = Problem),
    ),
))]
async fn again(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<AgainView>, Problem> {
    let inputs = desk.stored(id).await?.inputs.again();
    Ok(Json(AgainView { inputs }))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/kinds" => list,
        get "/shipments/{id}/again" => again,
    ]
}
