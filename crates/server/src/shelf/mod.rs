//! The shelf: what is counted, the pile of saved cartons, and what a shipment takes of it.

mod cartons;
mod taking;
mod views;

pub(crate) use views::{
    CountRequest, ShelfEvent, ShelfItem, ShelfRequest, ShelfTableRequest, ShelfTableResult,
    ShelfTaken, ShelfView, ShipmentShelf,
};

use axum::response::IntoResponse as _;
use axum::{
    Json,
    http::{HeaderValue, StatusCode, header},
    response::Response,
};
use hummock_core::{
    material::Catalogue,
    shipment::ShipmentInputs,
    stock::{Counting, Goods, StockItem},
    ways,
};
use hummock_store::{Draw, TakenLine};
use uuid::Uuid;

use crate::{
    body::{Body, id_in},
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    shelf_table::{read_shelf, write_shelf},
};

use cartons::{carton_ids, takes_otherwise};
use views::only_said;

impl Desk {
    async fn shelf(&self) -> Result<ShelfView, Problem> {
        let house = self.house().await?;
        let catalogue = &house.house.catalogue;
        let counted = self.store.stock().await?;
        let said = only_said(catalogue, &counted);
        Ok(ShelfView {
            items: counted
                .into_iter()
                .chain(said)
                .map(|item| ShelfItem::of(item, catalogue))
                .collect(),
        })
    }

    async fn shipment_shelf(&self, id: Uuid) -> Result<ShipmentShelf, Problem> {
        let stored = self.stored(id).await?;
        if stored.handed.is_some() {
            // It took what it took.
            let taken = self.store.taken_for(id).await?;
            return Ok(ShipmentShelf {
                lines: Vec::new(),
                taken: taken.map(|taken| taken.into_iter().map(ShelfTaken::from).collect()),
                changed: false,
            });
        }
        let house = self.house().await?;
        let stock = self.store.stock().await?;
        let today = self.clock.today();
        let inputs = stored.inputs;
        let cartons = carton_ids(&inputs);
        let counted: Vec<Uuid> = stock
            .iter()
            .filter(|item| item.goods.key().is_some())
            .filter_map(|item| item.id.parse().ok())
            .collect();
        let sheets: Vec<Uuid> = stock
            .iter()
            .filter(|item| matches!(item.goods, Goods::Sheet(_)))
            .filter_map(|item| item.id.parse().ok())
            .collect();
        let lines = beside(move || ways::shelf_lines(&inputs, &house.house, &stock, today)).await?;
        let taken = self.store.taken_for(id).await?;
        let changed = taken.as_ref().is_some_and(|taken| {
            // Sheets are taken with the first tick, and follow what layouts cut.
            let others = taken.iter().filter(|line| !sheets.contains(&line.item));
            let others: Vec<TakenLine> = others.cloned().collect();
            takes_otherwise(&others, &lines, &counted, &cartons)
        });
        Ok(ShipmentShelf {
            lines,
            taken: taken.map(|taken| taken.into_iter().map(ShelfTaken::from).collect()),
            changed,
        })
    }
}

/// Says how much of something the stores name, where they name that size.
pub(crate) fn said_of(goods: &Goods, catalogue: &Catalogue) -> Option<i64> {
    let (said, count) = Counting::of(catalogue, goods.material())?.said(goods.material())?;
    (said.key() == goods.key()).then_some(count)
}

/// Returns what is on the shelf and on the pile.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_shelf", get, path = "/shelf", tag = "shelf",
    responses((status = 200, description = "What is counted, and what only the stores say", body = ShelfView)),
))]
pub(crate) async fn show(desk: Desk) -> Result<Json<ShelfView>, Problem> {
    Ok(Json(desk.shelf().await?))
}

/// Puts something on the shelf; a material and size that is there already is counted anew.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "put_on_shelf", post, path = "/shelf", tag = "shelf", request_body = ShelfRequest,
    responses(
        (status = 201, description = "The shelf as it is now", body = ShelfView),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn add(
    desk: Desk,
    Body(request): Body<ShelfRequest>,
) -> Result<(StatusCode, Json<ShelfView>), Problem> {
    let house = desk.house().await?;
    let item = request.item();
    item.checked(&house.house.catalogue)?;
    desk.put(&[item]).await?;
    Ok((StatusCode::CREATED, Json(desk.shelf().await?)))
}

impl Desk {
    /// Puts things on the shelf; what has an id that is there already is there.
    async fn put(&self, items: &[StockItem]) -> Result<(), Problem> {
        let mut new = Vec::with_capacity(items.len());
        for item in items {
            let known = match item.id.parse() {
                Ok(id) => self.store.stock_item(id).await?.is_some(),
                Err(_) => false,
            };
            if !known {
                new.push(item.clone());
            }
        }
        self.store.put_on_shelf(&new).await?;
        Ok(())
    }
}

/// Counts something anew, or changes what is written on it.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "count_on_shelf", put, path = "/shelf/{id}", tag = "shelf", request_body = CountRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shelf as it is now", body = ShelfView),
        (status = 404, description = "There is no such thing", body = Problem),
        (status = 409, description = "It was counted or drawn meanwhile", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn count(
    desk: Desk,
    ShelfId(id): ShelfId,
    Body(request): Body<CountRequest>,
) -> Result<Json<ShelfView>, Problem> {
    let house = desk.house().await?;
    let item = request.item.item();
    item.checked(&house.house.catalogue)?;
    desk.store.count_stock(id, request.was, &item).await?;
    Ok(Json(desk.shelf().await?))
}

/// Takes something off the shelf for good, with its record.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "drop_from_shelf", delete, path = "/shelf/{id}", tag = "shelf",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The shelf as it is now", body = ShelfView),
        (status = 404, description = "There is no such thing", body = Problem),
    ),
))]
pub(crate) async fn drop_item(
    desk: Desk,
    ShelfId(id): ShelfId,
) -> Result<Json<ShelfView>, Problem> {
    if !desk.store.drop_stock(id).await? {
        return Err(Problem::not_found("thing of that id on the shelf"));
    }
    Ok(Json(desk.shelf().await?))
}

/// Returns what became of something on the shelf, the newest first, 100 at most.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_shelf_record", get, path = "/shelf/{id}/record", tag = "shelf",
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "The record", body = [ShelfEvent]),
        (status = 404, description = "There is no such thing", body = Problem),
    ),
))]
pub(crate) async fn record(
    desk: Desk,
    ShelfId(id): ShelfId,
) -> Result<Json<Vec<ShelfEvent>>, Problem> {
    if desk.store.stock_item(id).await?.is_none() {
        return Err(Problem::not_found("thing of that id on the shelf"));
    }
    let events = desk.store.stock_events(id).await?;
    Ok(Json(events.into_iter().map(ShelfEvent::from).collect()))
}

/// Returns the shelf as comma-separated values with a head.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_shelf_table", get, path = "/shelf/table", tag = "shelf",
    responses((status = 200, description = "A table", body = String, content_type = "text/csv")),
))]
pub(crate) async fn show_table(desk: Desk) -> Result<Response, Problem> {
    let table = write_shelf(&desk.store.stock().await?);
    let headers = [
        (
            header::CONTENT_TYPE,
            HeaderValue::from_static("text/csv; charset=utf-8"),
        ),
        (
            header::CONTENT_DISPOSITION,
            HeaderValue::from_static("attachment; filename=\"shelf.csv\""),
        ),
    ];
    Ok((headers, table).into_response())
}

/// Reads a table in: counts of a material and size are written anew, offcuts and cartons are added; all lines or none.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_shelf_table", post, path = "/shelf/table", tag = "shelf", request_body = ShelfTableRequest,
    responses(
        (status = 200, description = "What it did, or would do", body = ShelfTableResult),
        (status = 422, description = "Values that were refused, each with its line and column", body = Problem),
    ),
))]
pub(crate) async fn take_table(
    desk: Desk,
    Body(request): Body<ShelfTableRequest>,
) -> Result<Json<ShelfTableResult>, Problem> {
    let house = desk.house().await?;
    let items = read_shelf(&request.csv, &house.house.catalogue)?;
    let counted = items
        .iter()
        .filter(|item| item.goods.key().is_some())
        .count();
    if !request.dry_run {
        desk.store.put_on_shelf(&items).await?;
    }
    Ok(Json(ShelfTableResult {
        counted,
        added: items.len() - counted,
        shelf: desk.shelf().await?,
    }))
}

impl Desk {
    /// The cartons of the pile that a shipment goes in; one, two, or none.
    async fn cartons_of(&self, inputs: &ShipmentInputs) -> Result<Vec<Draw>, Problem> {
        let mut draws = Vec::new();
        for (id, amount) in carton_ids(inputs) {
            let item = self.store.stock_item(id).await?;
            draws.extend(item.map(|item| Draw {
                name: item.name,
                goods: item.goods,
                amount,
                said: None,
                item: Some(id),
            }));
        }
        Ok(draws)
    }
}

/// The id in the path; one that is none is not found.
pub(crate) struct ShelfId(pub(crate) Uuid);

impl<S: Send + Sync> axum::extract::FromRequestParts<S> for ShelfId {
    type Rejection = Problem;

    async fn from_request_parts(
        parts: &mut axum::http::request::Parts,
        state: &S,
    ) -> Result<Self, Problem> {
        id_in(parts, state, "thing of that id on the shelf")
            .await
            .map(Self)
    }
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shelf" => show,
        post "/shelf" => add,
        get "/shelf/table" => show_table,
        post "/shelf/table" => take_table,
        put "/shelf/{id}" => count,
        delete "/shelf/{id}" => drop_item,
        get "/shelf/{id}/record" => record,
        post "/shelf/{id}/open" => cartons::open,
        post "/plans/pile" => cartons::pile,
        get "/shipments/{id}/shelf" => taking::shipment_shelf,
        put "/shipments/{id}/shelf" => taking::take,
        delete "/shipments/{id}/shelf" => taking::give_back,
    ]
}
