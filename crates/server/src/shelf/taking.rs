//! What a shipment takes off the shelf and gives back.

use std::sync::Arc;

use axum::Json;
use hummock_core::{
    shipment::{AfterInputs, SendingInputs, SettledStops, ShipmentInputs},
    stock::Goods,
    ways,
};
use hummock_store::{Draw, HouseAt};

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

/// Takes what a shipment needs off the shelf before its packing begins: everything but sheets, of each as much as there is. Once,
/// however often it is asked. Packing takes the same by itself with its first tick, and sheets with it.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "take_from_shelf", put, path = "/shipments/{id}/shelf", tag = "shelf",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "What it takes, and what was taken", body = ShipmentShelf),
        (status = 404, description = "There is no such shipment", body = Problem),
        (status = 409, description = "It has left", body = Problem),
    ),
))]
pub(crate) async fn take(
    desk: Desk,
    ShipmentId(id): ShipmentId,
) -> Result<Json<ShipmentShelf>, Problem> {
    let stored = desk.stored(id).await?;
    if stored.handed.is_some() {
        return Err(Problem::put_away());
    }
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

impl Desk {
    /// Returns what a shipment takes off the shelf once an edit is written: all that its plan wants from the first tick on, nothing where
    /// the last tick was taken back. `None` where the edit changes nothing of that.
    pub(crate) async fn draws_between(
        &self,
        (before, after): (&ShipmentInputs, &ShipmentInputs),
        house: &Arc<HouseAt>,
    ) -> Result<Option<Vec<Draw>>, Problem> {
        if !after.is_begun() {
            return Ok(before.is_begun().then(Vec::new));
        }
        if before.is_begun() && taken_by(before) == taken_by(after) {
            return Ok(None);
        }
        let stock = self.store.stock().await?;
        let (inputs, asked) = (after.clone(), Arc::clone(house));
        let takes = beside(move || ways::shelf_takes(&inputs, &asked.house, &stock)).await;
        // A plan that can't be made any more takes what it took.
        let Ok(takes) = takes else { return Ok(None) };
        let catalogue = &house.house.catalogue;
        let mut draws: Vec<Draw> = takes
            .into_iter()
            .map(|take| Draw {
                said: said_of(&take.goods, catalogue),
                goods: take.goods,
                name: take.name,
                amount: take.amount,
                item: None,
            })
            .collect();
        draws.extend(self.cartons_of(after).await?);
        Ok(Some(draws))
    }
}

/// What of a shipment decides what it takes off the shelf.
fn taken_by(inputs: &ShipmentInputs) -> ShipmentInputs {
    let by_layouts = inputs
        .packed
        .iter()
        .filter(|(_, tick)| !tick.sheet.is_empty());
    ShipmentInputs {
        packed: by_layouts
            .map(|(key, tick)| (key.clone(), tick.clone()))
            .collect(),
        title: String::new(),
        settled: SettledStops::default(),
        sending: SendingInputs::default(),
        after: AfterInputs::default(),
        ..inputs.clone()
    }
}
