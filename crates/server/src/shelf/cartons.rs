//! Cartons of the pile: which ones do, and what opening one gives.

use axum::Json;
use hummock_core::{
    Refusal,
    house::Allowances,
    shipment::ShipmentInputs,
    stock::{Goods, SheetGoods, StockItem},
    ways::{self, PileFits, ShelfLine},
};
use hummock_store::TakenLine;
use uuid::Uuid;

use super::{
    ShelfId,
    views::{OpenRequest, OpenedPanel, PileRequest},
};
use crate::{body::Body, desk::Desk, problem::Problem, rework::beside};

/// Which carton of the pile, or which case of the shelf, a shipment goes in, and how many of it; or which two cartons, in order.
pub(super) fn carton_ids(inputs: &ShipmentInputs) -> Vec<(Uuid, i64)> {
    let choices = &inputs.choices;
    let one = |length: &Option<String>, from: &Option<String>| -> Option<Uuid> {
        length.as_ref().filter(|text| !text.is_empty())?;
        from.as_deref()?.parse().ok()
    };
    if choices.travel_case == Some(true) && choices.kept_case().is_some() {
        let case = choices.case_from.as_deref().and_then(|id| id.parse().ok());
        return case.map(|id| (id, 1)).into_iter().collect();
    }
    let Some(first) = one(&choices.saved_length, &choices.saved_from) else {
        return Vec::new();
    };
    match one(&choices.second_saved_length, &choices.second_saved_from) {
        None => vec![(first, 1)],
        Some(second) if second == first => vec![(first, 2)],
        Some(second) => {
            let mut both = vec![(first, 1), (second, 1)];
            both.sort_unstable();
            both
        }
    }
}

/// Tells whether a plan takes something else, or more, than was taken for it: of what is counted by material and size, or
/// another carton.
pub(super) fn takes_otherwise(
    taken: &[TakenLine],
    lines: &[ShelfLine],
    counted: &[Uuid],
    cartons: &[(Uuid, i64)],
) -> bool {
    let (goods, boxes): (Vec<&TakenLine>, Vec<&TakenLine>) =
        taken.iter().partition(|line| counted.contains(&line.item));
    let mut then: Vec<(&str, i64)> = goods
        .iter()
        .map(|line| (line.name.as_str(), line.wanted))
        .collect();
    let mut now: Vec<(&str, i64)> = lines
        .iter()
        .filter(|line| !matches!(line.goods, Goods::Sheet(_)) && line.left.is_some())
        .map(|line| (line.name.as_str(), line.needs))
        .collect();
    then.sort_unstable();
    now.sort_unstable();
    let mut packed_in: Vec<(Uuid, i64)> =
        boxes.iter().map(|line| (line.item, line.wanted)).collect();
    packed_in.sort_unstable();
    then != now || packed_in != cartons
}

/// Opens a saved carton into raw card: its sound panels go on the shelf as offcuts.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "open_carton", post, path = "/shelf/{id}/open", tag = "shelf", request_body = OpenRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "Its panels, and which of them are kept", body = [OpenedPanel]),
        (status = 404, description = "There is no such carton", body = Problem),
        (status = 409, description = "None left", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn open(
    desk: Desk,
    ShelfId(id): ShelfId,
    Body(request): Body<OpenRequest>,
) -> Result<Json<Vec<OpenedPanel>>, Problem> {
    let house = desk.house().await?;
    let item = desk.store.stock_item(id).await?;
    let Some(StockItem {
        goods: Goods::Carton(carton),
        ..
    }) = item
    else {
        return Err(Problem::not_found("carton of that id on the pile"));
    };
    let catalogue = &house.house.catalogue;
    let allowances: &Allowances = &house.house.rules.allowances;
    let panels = carton.opened(catalogue, allowances);
    let unknown: Vec<Refusal> = request
        .bad
        .iter()
        .filter(|bad| panels.iter().all(|panel| panel.name != bad.as_str()))
        .map(|bad| {
            Refusal::new(
                "bad",
                format!("it has no panel called \u{201c}{bad}\u{201d}"),
            )
        })
        .collect();
    if !unknown.is_empty() {
        return Err(unknown.into());
    }
    let kept = |panel: &hummock_core::stock::RawPanel| {
        panel.worth_keeping && request.bad.iter().all(|bad| bad != panel.name)
    };
    let offcuts: Vec<StockItem> = panels
        .iter()
        .filter(|panel| kept(panel))
        .map(|panel| StockItem {
            id: String::new(),
            goods: Goods::Offcut(SheetGoods {
                material: carton.board.clone(),
                width: panel.width,
                height: panel.height,
                thickness: None,
            }),
            name: String::new(),
            place: request.place.trim().to_owned(),
            left: 1,
        })
        .collect();
    if !request.dry_run {
        desk.store.open_carton(id, &offcuts).await?;
    }
    Ok(Json(
        panels
            .iter()
            .map(|panel| OpenedPanel {
                name: panel.name.to_owned(),
                width_mm: panel.width.as_mm(),
                height_mm: panel.height.as_mm(),
                kept: kept(panel),
            })
            .collect(),
    ))
}

/// Says which carton of the pile would do for a shipment, and what to look for; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "ask_the_pile", post, path = "/plans/pile", tag = "shelf", request_body = PileRequest,
    responses(
        (status = 200, description = "Those that do first, each with the choices that make it", body = PileFits),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn pile(
    desk: Desk,
    Body(request): Body<PileRequest>,
) -> Result<Json<PileFits>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    let stock = desk.store.stock().await?;
    Ok(Json(
        beside(move || ways::what_fits(&inputs, &house.house, &stock)).await?,
    ))
}
