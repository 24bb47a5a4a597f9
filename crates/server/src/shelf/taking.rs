//! What a shipment takes off the shelf and gives back.

use axum::Json;
use hummock_core::{stock::Goods, ways};
use hummock_store::Draw;

use super::{said_of, views::ShipmentShelf};
use crate::{body::ShipmentId, desk::Desk, problem::Problem, rework::beside};

/// Returns what a shipment takes off the shelf, and what the shelf lacks for it.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_shipment_shelf", get, path = "/shipments/{id}/shelf", tag = "shelf",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "What it takes, and what was taken", body = ShipmentShelf),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
pub(crate) async fn shipment_shelf(
    desk: Desk,
    ShipmentId(id): ShipmentId,
) -> Result<Json<ShipmentShelf>, Problem> {
    Ok(Json(desk.shipment_shelf(id).await?))
}

/// Takes what a shipment needs off the shelf as packing begins: everything but sheets, of each as much as there is. Once,
/// however often it is asked.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "take_from_shelf", put, path = "/shipments/{id}/shelf", tag = "shelf",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "What it takes, and what was taken", body = ShipmentShelf),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
pub(crate) async fn take(
    desk: Desk,
    ShipmentId(id): ShipmentId,
) -> Result<Json<ShipmentShelf>, Problem> {
    let stored = desk.stored(id).await?;
    let house = desk.house().await?;
    let stock = desk.store.stock().await?;
    let today = desk.clock.today();
    let inputs = stored.inputs.clone();
    let asked = std::sync::Arc::clone(&house);
    let lines = beside(move || ways::shelf_lines(&inputs, &asked.house, &stock, today)).await?;
    let catalogue = &house.house.catalogue;
    let mut wanted: Vec<Draw> = lines
        .into_iter()
        .filter(|line| !matches!(line.goods, Goods::Sheet(_)))
        .map(|line| Draw {
            said: said_of(&line.goods, catalogue),
            goods: line.goods,
            name: line.name,
            amount: line.needs,
            item: None,
        })
        .collect();
    wanted.extend(desk.cartons_of(&stored.inputs).await?);
    let title = stored.inputs.title.as_str();
    desk.store.take_for((id, title), &wanted).await?;
    Ok(Json(desk.shipment_shelf(id).await?))
}

/// Gives back what was taken for a shipment.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "give_back_to_shelf", delete, path = "/shipments/{id}/shelf", tag = "shelf",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "What it takes", body = ShipmentShelf),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
pub(crate) async fn give_back(
    desk: Desk,
    ShipmentId(id): ShipmentId,
) -> Result<Json<ShipmentShelf>, Problem> {
    let stored = desk.stored(id).await?;
    let title = stored.inputs.title.as_str();
    desk.store.give_back((id, title)).await?;
    Ok(Json(desk.shipment_shelf(id).await?))
}
