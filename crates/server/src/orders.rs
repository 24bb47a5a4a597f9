//! Orders of a shop: rows of a table, looked over and then made into shipments, each once.

use std::collections::BTreeMap;

use axum::Json;
use hummock_core::{
    Refusal,
    quantity::Bare,
    shipment::{Order, OrderColumns, ShipmentInputs, order_key},
};
use serde::{Deserialize, Serialize};
use uuid::{Builder, Uuid};

use crate::{
    body::Body,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// Rows of a table of orders.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct OrdersRequest {
    /// Which column holds what.
    columns: OrderColumns,
    /// Up to 100 rows, each by the names of its columns.
    rows: Vec<BTreeMap<String, String>>,
    /// A shipment that they are like, as `again` hands it on; `None` if each piece is measured anew.
    like: Option<Uuid>,
    /// Whether shipments are made of them; they are only looked over otherwise.
    #[serde(default)]
    make: bool,
}

/// What came of a row.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct OrderView {
    /// By which the shop knows it; empty where it has none.
    number: String,
    /// The piece.
    title: String,
    /// Who gets it.
    name: String,
    /// Where.
    town: String,
    /// The shipment that was made of it, now or before.
    shipment: Option<Uuid>,
    /// Whether it was made before.
    known: bool,
    /// Why it is not made, each with the column that it is about.
    refused: Vec<Refusal>,
}

const MOST_ROWS: usize = 100;

/// Looks over rows of a table of orders, and makes a shipment of each that is asked for; an order that is known is never made twice.
///
/// A row that is refused keeps no other from being made. The columns are kept for the next table.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_orders", post, path = "/orders", tag = "shipments", request_body = OrdersRequest,
    responses(
        (status = 200, description = "What came of each row, in their order", body = [OrderView]),
        (status = 404, description = "There is no shipment that they could be like", body = Problem),
        (status = 422, description = "There are too many rows", body = Problem),
    ),
))]
async fn read(
    desk: Desk,
    Body(request): Body<OrdersRequest>,
) -> Result<Json<Vec<OrderView>>, Problem> {
    if request.rows.len() > MOST_ROWS {
        let says = format!(
            "there are {} rows; send up to {MOST_ROWS} at a time",
            request.rows.len()
        );
        return Err(vec![Refusal::new("rows", says)].into());
    }
    let start = match request.like {
        Some(id) => desk.stored(id).await?.inputs.again(),
        None => ShipmentInputs::default(),
    };
    let settings = desk.store.settings().await?;
    let countries = settings.known_countries();
    let bare = Bare {
        length: settings.unit,
        mass: settings.manners.mass,
    };
    let telling = settings.manners.telling(settings.unit);
    desk.store.keep_order_columns(&request.columns).await?;
    let mut views = Vec::with_capacity(request.rows.len());
    for row in &request.rows {
        let order = Order::read(row, &request.columns, &countries, &start, telling);
        views.push(desk.ordered(order, row, &request, bare).await?);
    }
    Ok(Json(views))
}

impl Desk {
    /// Says what comes of an order, and makes it where that is asked for.
    async fn ordered(
        &self,
        order: Result<Order, Vec<Refusal>>,
        row: &BTreeMap<String, String>,
        request: &OrdersRequest,
        bare: Bare,
    ) -> Result<OrderView, Problem> {
        let cell = |column: &Option<String>| {
            let name = column.as_ref();
            name.and_then(|name| row.get(name))
                .cloned()
                .unwrap_or_default()
        };
        let columns = &request.columns;
        let mut view = OrderView {
            number: cell(&columns.number),
            title: cell(&columns.title),
            name: cell(&columns.name),
            town: cell(&columns.town),
            shipment: None,
            known: false,
            refused: Vec::new(),
        };
        let order = match order {
            Ok(order) => order,
            Err(refused) => return Ok(OrderView { refused, ..view }),
        };
        let key = order_key(&self.studio().to_string(), &order.number);
        let id = Builder::from_custom_bytes(key).into_uuid();
        if self.store.shipment(id).await?.is_some() {
            view.known = true;
            view.shipment = Some(id);
            return Ok(view);
        }
        let checked = order.inputs.checked(bare, self.clock.today());
        let inputs = match checked {
            Ok(inputs) => inputs,
            Err(refused) => return Ok(OrderView { refused, ..view }),
        };
        view.title.clone_from(&inputs.title);
        if request.make {
            if let Err(problem) = self.made(id, None, &inputs, bare.length).await {
                // Somebody else made it at this moment.
                if self.store.shipment(id).await?.is_none() {
                    return Err(problem);
                }
                view.known = true;
            }
            view.shipment = Some(id);
        }
        Ok(view)
    }
}

/// Says which columns held what in the last table, in whatever browser that was.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_order_columns", get, path = "/orders/columns", tag = "shipments",
    responses((status = 200, description = "Nothing is named before the first table", body = OrderColumns)),
))]
async fn columns(desk: Desk) -> Result<Json<OrderColumns>, Problem> {
    let kept = desk.store.order_columns().await?;
    Ok(Json(kept.unwrap_or_default()))
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/orders" => read,
        get "/orders/columns" => columns,
    ]
}
