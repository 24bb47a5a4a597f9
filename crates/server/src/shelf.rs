//! The shelf: what is counted, the pile of saved cartons, and what a shipment takes of it.

use axum::{
    Json,
    http::{HeaderValue, StatusCode, header},
    response::{IntoResponse, Response},
};
use hummock_core::{
    Refusal,
    house::Allowances,
    material::Catalogue,
    quantity::LengthUnit,
    shipment::ShipmentInputs,
    stock::{Counting, Goods, Measure, SheetGoods, StockItem},
    ways::{self, PileFits, ShelfLine},
};
use hummock_store::{Draw, StockEvent, TakenLine};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::{
    body::{Body, ShipmentId, id_in},
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    shelf_table::{read_shelf, write_shelf},
};

/// Something on the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfItem {
    /// Which; nothing for what only the stores say, and nobody has counted here.
    id: Option<Uuid>,
    /// What it is.
    #[serde(flatten)]
    goods: Goods,
    /// What its material is called.
    material_name: String,
    /// What is written on it.
    name: String,
    /// Where it stands.
    place: String,
    /// How much there is, in its measure.
    left: i64,
    /// What that is a number of.
    measure: Measure,
    /// Why a carton is no box any more.
    spoilt: Option<&'static str>,
}

/// Everything on the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfView {
    /// What was counted, and after it what only the stores say.
    items: Vec<ShelfItem>,
}

/// Something to put on the shelf.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfRequest {
    /// Chosen by the caller, so that asking twice puts one there.
    #[serde(default)]
    id: Option<Uuid>,
    /// What it is.
    #[serde(flatten)]
    goods: Goods,
    /// What is written on it.
    #[serde(default)]
    name: String,
    /// Where it stands.
    #[serde(default)]
    place: String,
    /// How much there is, in its measure.
    left: i64,
}

/// A new count.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CountRequest {
    /// How much there was when it was looked at: the count is not written over another one.
    was: i64,
    /// What it is, and how much there is now.
    #[serde(flatten)]
    item: ShelfRequest,
}

/// What became of something on the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfEvent {
    /// More, or less.
    change: i64,
    /// How much there was then.
    left: i64,
    /// `counted`, `kept`, `cut`, `not_cut`, `taken`, `given_back` or `opened`.
    why: String,
    /// The shipment or the layout that it was for.
    about: String,
    /// In seconds since 1970.
    at: i64,
}

/// A carton to open.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct OpenRequest {
    /// Panels that are crushed, wet or torn, by name.
    #[serde(default)]
    bad: Vec<String>,
    /// Where the others are put.
    #[serde(default)]
    place: String,
    /// Whether to only say what it would give.
    #[serde(default)]
    dry_run: bool,
}

/// A panel of a carton that is opened.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct OpenedPanel {
    /// Which.
    name: String,
    /// Across the flutes.
    width_mm: f64,
    /// Along them.
    height_mm: f64,
    /// Whether it goes on the shelf: it is sound, and large enough for the house.
    kept: bool,
}

/// A table of the shelf to read in.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct ShelfTableRequest {
    /// Comma-separated values with a head, as the table that is given out.
    csv: String,
    /// Whether to only say what would happen.
    #[serde(default)]
    dry_run: bool,
}

/// What a table put on the shelf, or would.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfTableResult {
    /// Counts of a material and size that are written anew.
    counted: usize,
    /// Offcuts and cartons that are added.
    added: usize,
    /// The shelf as it is now.
    shelf: ShelfView,
}

/// Inputs to ask the pile about.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct PileRequest {
    /// What was typed, with the choices as they are.
    inputs: ShipmentInputs,
    /// What a bare number is in.
    #[serde(default)]
    unit: LengthUnit,
}

/// What a shipment takes off the shelf.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShipmentShelf {
    /// What its plan takes, what is short first.
    lines: Vec<ShelfLine>,
    /// What was taken when packing began; nothing before.
    taken: Option<Vec<ShelfTaken>>,
    /// Whether the plan takes something else, or more, than was taken.
    changed: bool,
}

/// Something that was taken off the shelf.
#[derive(Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ShelfTaken {
    /// From which item.
    item: Uuid,
    /// What it is called.
    name: String,
    /// How much was taken.
    amount: i64,
    /// How much the plan wanted.
    wanted: i64,
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
    fn item(self) -> StockItem {
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
    fn of(item: StockItem, catalogue: &Catalogue) -> Self {
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
fn only_said(catalogue: &Catalogue, counted: &[StockItem]) -> Vec<StockItem> {
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
        let house = self.house().await?;
        let stock = self.store.stock().await?;
        let today = self.app.clock.today();
        let inputs = stored.inputs;
        let cartons = carton_ids(&inputs);
        let counted: Vec<Uuid> = stock
            .iter()
            .filter(|item| item.goods.key().is_some())
            .filter_map(|item| item.id.parse().ok())
            .collect();
        let lines = beside(move || ways::shelf_lines(&inputs, &house.house, &stock, today)).await?;
        let taken = self.store.taken_for(id).await?;
        let changed = taken
            .as_ref()
            .is_some_and(|taken| takes_otherwise(taken, &lines, &counted, &cartons));
        Ok(ShipmentShelf {
            lines,
            taken: taken.map(|taken| taken.into_iter().map(ShelfTaken::from).collect()),
            changed,
        })
    }
}

/// Which carton of the pile a shipment goes in, and how many of it; or which two, in order.
fn carton_ids(inputs: &ShipmentInputs) -> Vec<(Uuid, i64)> {
    let choices = &inputs.choices;
    let one = |length: &Option<String>, from: &Option<String>| -> Option<Uuid> {
        length.as_ref().filter(|text| !text.is_empty())?;
        from.as_deref()?.parse().ok()
    };
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
fn takes_otherwise(
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

/// Opens a saved carton into raw card: its sound panels go on the shelf as offcuts.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "open_carton", post, path = "/shelf/{id}/open", tag = "shelf", request_body = OpenRequest,
    params(("id" = Uuid, Path, description = "Which")),
    responses(
        (status = 200, description = "Its panels, and which of them are kept", body = [OpenedPanel]),
        (status = 404, description = "There is no such carton", body = Problem),
        (status = 409, description = "There is none left", body = Problem),
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
    let inputs = request
        .inputs
        .checked(request.unit, desk.app.clock.today())?;
    let stock = desk.store.stock().await?;
    Ok(Json(
        beside(move || ways::what_fits(&inputs, &house.house, &stock)).await?,
    ))
}

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
    let today = desk.app.clock.today();
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
        post "/shelf/{id}/open" => open,
        post "/plans/pile" => pile,
        get "/shipments/{id}/shelf" => shipment_shelf,
        put "/shipments/{id}/shelf" => take,
        delete "/shipments/{id}/shelf" => give_back,
    ]
}
