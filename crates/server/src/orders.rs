//! Orders of a shop: rows of a table, looked over and then made into shipments, each once.

use std::collections::BTreeMap;

use axum::Json;
use hummock_core::{
    Refusal,
    quantity::{Bare, DateOrder, LengthUnit, Telling},
    shipment::{
        Order, OrderColumn, OrderColumns, OrderReading, OrderTable, ShipmentInputs, SizeFrom,
        order_key,
    },
};
use hummock_store::{KeptTable, ProductNamed};
use serde::{Deserialize, Serialize};
use uuid::{Builder, Uuid};

use crate::{
    body::Body,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

type Row = BTreeMap<String, String>;

/// Rows of a table of orders.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct OrdersRequest {
    /// Which column holds what.
    columns: OrderColumns,
    /// What lengths are in that have no unit in their cell, in the column of units or in the head; as the studio reads them when
    /// absent.
    #[serde(default)]
    lengths_in: Option<LengthUnit>,
    /// In which order day and month stand in `04/05/2027`; each such day is refused with both readings when absent.
    #[serde(default)]
    dates: Option<DateOrder>,
    /// The shop that the orders are from; up to 80 characters.
    #[serde(default)]
    shop: String,
    /// Up to 100 rows, each by the names of its columns.
    rows: Vec<Row>,
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
    /// By which the shop knows the product; empty where it has no code.
    sku: String,
    /// What the piece is, with its size, as the studio reads it; `None` where nothing of it is known.
    piece: Option<String>,
    /// Where the size is from; `None` for a row that is refused.
    size_from: Option<SizeFrom>,
    /// Whether all is known that a plan needs.
    planned: bool,
    /// The shipment that was made of it, now or before.
    shipment: Option<Uuid>,
    /// Whether it was made before.
    known: bool,
    /// Why it is not made, each with the column that it is about.
    refused: Vec<Refusal>,
}

const MOST_ROWS: usize = 100;
/// So many columns no table of a shop has.
const MOST_COLUMNS: usize = 400;

/// What rows are read with.
struct Reader<'a> {
    reading: OrderReading<'a>,
    bare: Bare,
    make: bool,
}

/// Looks over rows of a table of orders, and makes a shipment of each that is asked for; an order that is known is never made twice.
///
/// A row that is refused keeps no other from being made. How the table was read is kept for the next table with the same head. A
/// product that an earlier shipment was of brings its size, kind and medium where the row has none.
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
            "{} rows given: send at most {MOST_ROWS} at a time",
            request.rows.len()
        );
        return Err(vec![Refusal::new("rows", says)].into());
    }
    let OrdersRequest {
        columns,
        lengths_in,
        dates,
        shop,
        rows,
        like,
        make,
    } = request;
    let table = OrderTable {
        columns,
        lengths_in,
        dates,
        shop,
    };
    let start = match like {
        Some(id) => desk.stored(id).await?.inputs.again(),
        None => ShipmentInputs::default(),
    };
    let settings = desk.store.settings().await?;
    let countries = settings.known_countries();
    let house = desk.house().await?;
    let reader = Reader {
        reading: OrderReading {
            table: &table,
            start: &start,
            countries: &countries,
            telling: settings.manners.telling(settings.unit),
            bare: settings.unit,
            currency: house.house.catalogue.currency,
        },
        bare: Bare {
            length: settings.unit,
            mass: settings.manners.mass,
        },
        make,
    };
    if let Some(row) = rows.first() {
        let head = row.keys().cloned().collect();
        let kept = KeptTable {
            head,
            table: table.clone(),
        };
        desk.store.keep_order_table(kept).await?;
    }
    let named: Vec<ProductNamed> = rows
        .iter()
        .map(|row| ProductNamed {
            sku: reader.reading.cell(row, OrderColumn::Sku),
            title: reader.reading.cell(row, OrderColumn::Title),
        })
        .collect();
    let products = desk.store.products(&named).await?;
    let mut met: BTreeMap<String, (usize, &ProductNamed)> = BTreeMap::new();
    let mut views = Vec::with_capacity(rows.len());
    for (at, (row, product)) in rows.iter().zip(&products).enumerate() {
        let number = reader.reading.cell(row, OrderColumn::Number);
        let before = met.get(&number).filter(|_| !number.is_empty()).copied();
        let order = match before {
            Some((line, other)) if *other != named[at] => {
                Err(vec![second_piece(&number, line, other)])
            }
            _ => reader.reading.order(row, product.as_ref()),
        };
        met.entry(number).or_insert((at, &named[at]));
        views.push(desk.ordered(order, row, &reader).await?);
    }
    Ok(Json(views))
}

/// An order of two pieces has two rows of one number: as one of them is made, the other would be taken for known.
fn second_piece(number: &str, line: usize, other: &ProductNamed) -> Refusal {
    let piece = if other.title.is_empty() {
        &other.sku
    } else {
        &other.title
    };
    Refusal::new(
        "number",
        format!(
            "order {number} has another piece in an earlier row ({}, {piece}): write {number}-2 here for a parcel of its own, or add \
             this piece to that shipment",
            line + 1
        ),
    )
}

impl Desk {
    /// Says what comes of an order, and makes it where that is asked for.
    async fn ordered(
        &self,
        order: Result<Order, Vec<Refusal>>,
        row: &Row,
        reader: &Reader<'_>,
    ) -> Result<OrderView, Problem> {
        let table = reader.reading.table;
        let cell = |column| reader.reading.cell(row, column);
        let mut view = OrderView {
            number: cell(OrderColumn::Number),
            title: cell(OrderColumn::Title),
            name: cell(OrderColumn::Name),
            town: cell(OrderColumn::Town),
            sku: cell(OrderColumn::Sku),
            piece: None,
            size_from: None,
            planned: false,
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
        if let Some(stored) = self.store.shipment(id).await? {
            view.describe(&stored.inputs, reader.reading.telling);
            view.known = true;
            view.shipment = Some(id);
            return Ok(view);
        }
        let checked = order.inputs.checked(reader.bare, self.clock.today());
        let inputs = match checked {
            Ok(inputs) => inputs,
            Err(mut refused) => {
                for refusal in &mut refused {
                    refusal.field = table.column_of(&refusal.field).to_owned();
                }
                return Ok(OrderView { refused, ..view });
            }
        };
        view.describe(&inputs, reader.reading.telling);
        view.size_from = Some(order.size_from);
        if reader.make {
            if let Err(problem) = self.made(id, None, &inputs, reader.bare.length).await {
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

impl OrderView {
    fn describe(&mut self, inputs: &ShipmentInputs, telling: Telling) {
        self.title.clone_from(&inputs.title);
        self.piece = inputs.kind_says(telling);
        self.planned = matches!(inputs.piece(), Ok(Some(_)));
    }
}

/// The beginning of a table.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct HeadRequest {
    /// The names of its columns.
    head: Vec<String>,
    /// Its first rows, up to 100, each by the names of its columns.
    #[serde(default)]
    rows: Vec<Row>,
}

/// How a table is read.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct HeadView {
    /// How.
    #[serde(flatten)]
    table: OrderTable,
    /// Whether a table with this head was read so before; it is a guess otherwise.
    kept: bool,
}

/// Says how a table is read: as the last one with the same head was, or else as its head and its first rows suggest.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "guess_order_columns", post, path = "/orders/head", tag = "shipments", request_body = HeadRequest,
    responses(
        (status = 200, description = "Which column holds what", body = HeadView),
        (status = 422, description = "There are too many columns or rows", body = Problem),
    ),
))]
async fn head(desk: Desk, Body(request): Body<HeadRequest>) -> Result<Json<HeadView>, Problem> {
    let HeadRequest { mut head, rows } = request;
    if head.len() > MOST_COLUMNS || rows.len() > MOST_ROWS {
        let says = format!("send up to {MOST_COLUMNS} columns and {MOST_ROWS} rows");
        return Err(vec![Refusal::new("head", says)].into());
    }
    let tables = desk.store.order_tables().await?;
    let guess = OrderTable::guessed(&head, &rows);
    head.sort_unstable();
    // A shop that added a column is the same shop.
    let same = tables.iter().find(|kept| kept.head == head).or_else(|| {
        tables
            .iter()
            .find(|kept| kept.table.columns.number.is_some() && kept.table.fits(&head))
    });
    let view = match same.cloned() {
        Some(KeptTable { table, .. }) => HeadView {
            table: OrderTable {
                dates: table.dates.or(guess.dates),
                ..table
            },
            kept: true,
        },
        None => HeadView {
            table: guess,
            kept: false,
        },
    };
    Ok(Json(view))
}

/// Says which columns held what in the last table, in whatever browser that was.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_order_columns", get, path = "/orders/columns", tag = "shipments",
    responses((status = 200, description = "Nothing is named before the first table", body = OrderColumns)),
))]
async fn columns(desk: Desk) -> Result<Json<OrderColumns>, Problem> {
    let last = desk.store.order_tables().await?.into_iter().next();
    Ok(Json(
        last.map(|kept| kept.table.columns).unwrap_or_default(),
    ))
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/orders" => read,
        post "/orders/head" => head,
        get "/orders/columns" => columns,
    ]
}
