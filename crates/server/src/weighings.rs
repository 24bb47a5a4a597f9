//! What all readings say about the densities of the stores.

use std::collections::BTreeMap;

use axum::Json;
use hummock_core::{
    material::{Catalogue, MaterialClass, MaterialId},
    shipment::{House, Workings},
    weigh::{Corrections, WeighedPlan, corrections},
};
use hummock_store::{HouseAt, Listed};
use serde::{Deserialize, Serialize};

use crate::{
    body::Body,
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    stores::StoresView,
};

/// How many of the last ones are looked at.
const MOST: i64 = 300;

/// What the readings say, and of which stores.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct WeighingsView {
    /// The version of the stores that it is said of; send it back to take the changes.
    version: i32,
    /// What they say.
    #[serde(flatten)]
    corrections: Corrections,
}

/// Densities to take over.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct DensitiesRequest {
    /// The version of the stores that they were proposed for.
    version: i32,
    /// The materials whose density is to be as the readings have it; those that are not proposed are left alone.
    materials: Vec<MaterialId>,
}

impl Desk {
    async fn corrections(&self, house: std::sync::Arc<HouseAt>) -> Result<Corrections, Problem> {
        let weighed = self.store.weighed(MOST).await?;
        Ok(beside(move || read(weighed, &house.house)).await)
    }
}

fn read(weighed: Vec<Listed>, house: &House) -> Corrections {
    let parcels: Vec<WeighedPlan> = weighed
        .into_iter()
        .filter_map(|shipment| {
            let worked = Workings::out(&shipment.inputs, house).ok()?;
            let found = worked.found.filter(|found| found.stands)?;
            let plan = worked.plan?;
            Some(WeighedPlan::of(shipment.inputs.title, &plan, found.mass?))
        })
        .collect();
    let fills = ids_of(&house.catalogue, MaterialClass::Fills);
    let allowances = &house.rules.allowances;
    corrections(&parcels, &house.catalogue, |id| {
        if fills.contains(id) {
            allowances.fill_doubt
        } else {
            allowances.sheet_doubt
        }
    })
}

fn ids_of(catalogue: &Catalogue, class: MaterialClass) -> Vec<MaterialId> {
    let materials = catalogue.class(class);
    let ids = materials.iter().filter_map(|one| one["id"].as_str());
    ids.map(MaterialId::new).collect()
}

/// Says what the weighed parcels say about the densities of the stores, with what taking that over would change.
///
/// The last 300 that were weighed as they were planned are looked at, those put away among them.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_weighings", get, path = "/weighings", tag = "weighings",
    responses((status = 200, description = "Every material that they bear on, and every parcel", body = WeighingsView)),
))]
pub(crate) async fn list(desk: Desk) -> Result<Json<WeighingsView>, Problem> {
    let house = desk.house().await?;
    let version = house.stores_version;
    let corrections = desk.corrections(house).await?;
    Ok(Json(WeighingsView {
        version,
        corrections,
    }))
}

/// Writes the densities that the readings propose into the stores; every plan follows them.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "take_densities", post, path = "/weighings/densities", tag = "weighings", request_body = DensitiesRequest,
    responses(
        (status = 200, description = "The stores as they are now", body = StoresView),
        (status = 409, description = "The stores changed since", body = Problem),
    ),
))]
pub(crate) async fn take(
    desk: Desk,
    Body(request): Body<DensitiesRequest>,
) -> Result<Json<StoresView>, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let found = desk.corrections(std::sync::Arc::clone(&house)).await?;
        let densities: BTreeMap<MaterialId, f64> = found
            .materials
            .into_iter()
            .filter(|row| row.proposed && request.materials.contains(&row.material))
            .map(|row| (row.material, row.then))
            .collect();
        let catalogue = house.house.catalogue.with_densities(&densities);
        if let Some(stores) = desk.changed_to(&house, request.version, catalogue).await? {
            return Ok(Json(stores));
        }
    }
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/weighings" => list,
        post "/weighings/densities" => take,
    ]
}
