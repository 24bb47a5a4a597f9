//! Tariffs: each looked over as a whole before it is kept, tried against a typed parcel, and its prices as a table.

use std::sync::Arc;

use axum::{
    Json,
    http::{HeaderValue, header},
    response::{IntoResponse, Response},
};
use hummock_core::{
    Refusal,
    freight::{Dip, PastedPrices, ShapedSheet, Tariff, TariffSheet},
    json,
    quantity::Telling,
    shipment::House,
    sums::{QuoteAnswer, QuoteParcel, QuotePlace, QuoteSum},
};
use hummock_store::HouseAt;
use jiff::civil::Date;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use serde_json::Value;

use crate::{
    body::{Asked, Body, NameInPath, refusal_for},
    desk::Desk,
    house::Affected,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    tariff_table::{prices_of, with_prices},
};

/// A tariff as it is kept.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct TariffView {
    /// Counts up with every change; send it back with the next one.
    version: i32,
    /// The tariff.
    tariff: Tariff,
    /// Weights and sizes at which a heavier or larger parcel costs less.
    dips: Vec<Dip>,
    /// The tariff as its form shows it, in the studio's own units.
    sheet: TariffSheet,
}

/// A tariff to keep.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct TariffRequest {
    /// The version that it is based on; nothing for a new one.
    #[serde(default)]
    version: Option<i32>,
    /// The whole tariff, by `/api/schemas/tariff.json`.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Option<Tariff>))]
    tariff: Option<Value>,
    /// In place of it, the tariff as its form says.
    #[serde(default)]
    sheet: Option<TariffSheet>,
    /// Whether to only look it over and say what would happen.
    #[serde(default)]
    dry_run: bool,
}

/// A tariff in one of two ways of writing it, or in neither: then a new one is begun.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct SheetRequest {
    /// The whole tariff, by `/api/schemas/tariff.json`.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Option<Tariff>))]
    tariff: Option<Value>,
    /// The tariff as its form says.
    #[serde(default)]
    sheet: Option<TariffSheet>,
}

/// A tariff in both ways of writing it.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SheetView {
    /// The tariff; nothing where it is only begun.
    tariff: Option<Tariff>,
    /// Its form.
    sheet: TariffSheet,
}

/// Cells that were copied from a spreadsheet.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct CellsRequest {
    /// The cells, parted by tabs, semicolons or commas, a row to a line.
    text: String,
    /// The zones that the price list has.
    zones: Vec<String>,
}

/// Prices to read in.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct PricesRequest {
    /// The version of the tariff that it is based on.
    version: i32,
    /// Comma-separated values with a head, as the table that is given out.
    csv: String,
    /// Whether to only say what would happen.
    #[serde(default)]
    dry_run: bool,
}

/// What keeping a tariff does, or would do.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct TariffKept {
    /// The tariff as it then is.
    #[serde(flatten)]
    view: TariffView,
    /// The shipments on the bench that change with it.
    affected: Vec<Affected>,
}

/// Which version a change is based on.
#[derive(Debug, Deserialize)]
pub(crate) struct BasedOn {
    version: i32,
}

/// A parcel to be priced by a tariff.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct QuoteRequest {
    /// A whole tariff, by `/api/schemas/tariff.json`; it need not be kept.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Option<Tariff>))]
    tariff: Option<Value>,
    /// In place of it, the id of one that is kept.
    #[serde(default)]
    tariff_id: Option<String>,
    /// In place of both, a tariff as its form says.
    #[serde(default)]
    sheet: Option<TariffSheet>,
    /// What is sent.
    parcel: QuoteParcel,
    /// Where to.
    destination: QuotePlace,
    /// What it is worth, in the tariff's currency, as 320.00; cover is bought for it.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    value: Option<Decimal>,
    /// A tier by its name; the tariff's own when left out.
    #[serde(default)]
    discount_tier: Option<String>,
    /// On which day, as 2027-03-04; a tariff's dates are not looked at when it is left out.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    date: Option<Date>,
}

/// Reads a tariff and looks it over; what is wrong is named with its place, after `under`.
fn read(tariff: Value, under: &str) -> Result<Tariff, Vec<Refusal>> {
    let tariff: Tariff = json::read(tariff).map_err(|misfit| {
        let refusal = refusal_for(&misfit);
        vec![Refusal::new(
            format!("{under}{}", slashed(&refusal.field)),
            refusal.message,
        )]
    })?;
    let looked_over = tariff.checked();
    looked_over.map(|()| tariff).map_err(|refusals| {
        let placed =
            |refusal: Refusal| Refusal::new(format!("{under}{}", refusal.field), refusal.message);
        refusals.into_iter().map(placed).collect()
    })
}

/// The place in a document as a tariff names it: `services[0].billable` is `services/0/billable`.
fn slashed(path: &str) -> String {
    path.replace('[', "/").replace(']', "").replace('.', "/")
}

/// Reads a tariff in whichever of two ways it is written.
fn either(
    tariff: Option<Value>,
    sheet: Option<&TariffSheet>,
    telling: Telling,
) -> Result<Tariff, Vec<Refusal>> {
    match (tariff, sheet) {
        (Some(tariff), None) => read(tariff, ""),
        (None, Some(sheet)) => sheet.read(telling),
        (None, None) | (Some(_), Some(_)) => {
            let says = "give either a tariff or a sheet";
            Err(vec![Refusal::new("tariff", says)])
        }
    }
}

impl TariffView {
    fn of(version: i32, tariff: Tariff, telling: Telling) -> Self {
        Self {
            version,
            dips: tariff.dips(),
            sheet: TariffSheet::of(&tariff, telling),
            tariff,
        }
    }
}

fn kept<'a>(house: &'a HouseAt, id: &str) -> Result<(&'a Tariff, i32), Problem> {
    let tariff = house.house.tariffs.iter().find(|tariff| tariff.id == id);
    tariff
        .zip(house.tariff_versions.get(id).copied())
        .ok_or_else(|| Problem::not_found("tariff of that id"))
}

impl Desk {
    /// Keeps a tariff, or only says what that would do; `None` if the house changed meanwhile.
    async fn tariff_kept(
        &self,
        house: &Arc<HouseAt>,
        based_on: Option<i32>,
        tariff: Tariff,
        dry_run: bool,
    ) -> Result<Option<TariffKept>, Problem> {
        let mut tariffs = house.house.tariffs.clone();
        match tariffs.iter_mut().find(|known| known.id == tariff.id) {
            Some(known) => known.clone_from(&tariff),
            None => tariffs.push(tariff.clone()),
        }
        let then = House {
            tariffs,
            ..house.house.clone()
        };
        let affected = self.effects_of(Arc::clone(house), then).await?.affected;
        let version = if dry_run {
            Some(based_on.unwrap_or_default())
        } else {
            let made = self.store.keep_tariff(house.version, based_on, &tariff);
            self.changed(made.await)?
        };
        Ok(version.map(|version| TariffKept {
            view: TariffView::of(version, tariff, house.house.rules.told_in),
            affected,
        }))
    }
}

/// Returns every tariff.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_tariffs", get, path = "/tariffs", tag = "tariffs",
    responses((status = 200, description = "Every tariff, by id", body = [TariffView])),
))]
pub(crate) async fn list(desk: Desk) -> Result<Json<Vec<TariffView>>, Problem> {
    let house = desk.house().await?;
    let versions = &house.tariff_versions;
    let views = house.house.tariffs.iter().map(|tariff| {
        let version = versions.get(&tariff.id).copied().unwrap_or_default();
        TariffView::of(version, tariff.clone(), house.house.rules.told_in)
    });
    Ok(Json(views.collect()))
}

/// Keeps a tariff under its id, a new one or in place of the one that is there. Quotes that were archived stay as they were.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "put_tariff", put, path = "/tariffs/{id}", tag = "tariffs", request_body = TariffRequest,
    params(("id" = String, Path, description = "As `gannet-post`")),
    responses(
        (status = 200, description = "What it did, or would do", body = TariffKept),
        (status = 404, description = "There is none to change", body = Problem),
        (status = 409, description = "It changed since, or there is one of that id already", body = Problem),
        (status = 422, description = "What is wrong in it, each with its place, as `services/0/prices/1/steps/2/up_to_g`", body = Problem),
    ),
))]
pub(crate) async fn put(
    desk: Desk,
    NameInPath(id): NameInPath,
    Body(request): Body<TariffRequest>,
) -> Result<Json<TariffKept>, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let telling = house.house.rules.told_in;
        let tariff = either(request.tariff.clone(), request.sheet.as_ref(), telling)?;
        if tariff.id != id {
            return Err(vec![Refusal::new("id", "it differs from the id in the address")].into());
        }
        let kept = desk.tariff_kept(&house, request.version, tariff.clone(), request.dry_run);
        if let Some(kept) = kept.await? {
            return Ok(Json(kept));
        }
    }
}

/// Keeps a new carrier, under a name that no other has.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "add_tariff", post, path = "/tariffs", tag = "tariffs", request_body = TariffRequest,
    responses(
        (status = 200, description = "What it did, or would do", body = TariffKept),
        (status = 422, description = "What is wrong in it, each with its place in its form, as `services/0/prices/zones/1/prices/2`", body = Problem),
    ),
))]
pub(crate) async fn add(
    desk: Desk,
    Body(request): Body<TariffRequest>,
) -> Result<Json<TariffKept>, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let telling = house.house.rules.told_in;
        let mut tariff = either(request.tariff.clone(), request.sheet.as_ref(), telling)?;
        let known = &house.house.tariffs;
        let is_free = |id: &str| known.iter().all(|tariff| tariff.id != id);
        let numbered = (2..).map(|number| format!("{}-{number}", tariff.id));
        let mut ids = std::iter::once(tariff.id.clone()).chain(numbered);
        tariff.id = ids.find(|id| is_free(id)).unwrap_or_default();
        let kept = desk.tariff_kept(&house, None, tariff, request.dry_run);
        if let Some(kept) = kept.await? {
            return Ok(Json(kept));
        }
    }
}

/// Returns a tariff as its form shows it, or what a form says as a tariff, or the form of a new carrier; nothing is kept.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_sheet", post, path = "/tariffs/sheet", tag = "tariffs", request_body = SheetRequest,
    responses(
        (status = 200, description = "Both ways of writing it", body = SheetView),
        (status = 422, description = "What is wrong in it, each with its place in what was sent", body = Problem),
    ),
))]
pub(crate) async fn show_sheet(
    desk: Desk,
    Body(request): Body<SheetRequest>,
) -> Result<Json<SheetView>, Problem> {
    let house = desk.house().await?;
    let rules = &house.house.rules;
    if request.tariff.is_none() && request.sheet.is_none() {
        let own = &house.house.catalogue.currency;
        let sheet = TariffSheet::blank(own, &rules.home, rules.told_in);
        return Ok(Json(SheetView {
            tariff: None,
            sheet,
        }));
    }
    let tariff = either(request.tariff, request.sheet.as_ref(), rules.told_in)?;
    Ok(Json(SheetView {
        sheet: TariffSheet::of(&tariff, rules.told_in),
        tariff: Some(tariff),
    }))
}

/// Returns the shapes that a new carrier's price list can begin in, each with an example of invented prices; nothing is kept.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_shapes", get, path = "/tariffs/shapes", tag = "tariffs",
    responses((status = 200, description = "The simplest first, in the studio's own money and units", body = Vec<ShapedSheet>)),
))]
pub(crate) async fn list_shapes(desk: Desk) -> Result<Json<Vec<ShapedSheet>>, Problem> {
    let house = desk.house().await?;
    let rules = &house.house.rules;
    let own = &house.house.catalogue.currency;
    Ok(Json(ShapedSheet::all(own, &rules.home, rules.told_in)))
}

/// Returns the table of prices that cells of a spreadsheet make.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_cells", post, path = "/tariffs/cells", tag = "tariffs", request_body = CellsRequest,
    responses((status = 200, description = "A table for the form", body = PastedPrices)),
))]
pub(crate) async fn read_cells(
    desk: Desk,
    Body(request): Body<CellsRequest>,
) -> Result<Json<PastedPrices>, Problem> {
    let house = desk.house().await?;
    let text = request.text.trim_matches(['\u{feff}', '\r', '\n']);
    // A comma parts cells only where nothing else does: it may stand before decimals.
    let parts = [b'\t', b';', b','].into_iter();
    let mut parts = parts.filter(|part| text.as_bytes().contains(part));
    let reader = csv::ReaderBuilder::new()
        .has_headers(false)
        .flexible(true)
        .delimiter(parts.next().unwrap_or(b'\t'))
        .from_reader(text.as_bytes());
    let rows = reader.into_records().filter_map(Result::ok);
    let rows: Vec<Vec<String>> = rows
        .map(|row| row.iter().map(str::to_owned).collect())
        .collect();
    let telling = house.house.rules.told_in;
    Ok(Json(PastedPrices::read(&rows, &request.zones, telling)))
}

/// Drops a tariff. Shipments that chose one of its services are told the best of the others; archived ones stay as they were.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "delete_tariff", delete, path = "/tariffs/{id}", tag = "tariffs",
    params(
        ("id" = String, Path, description = "As `gannet-post`"),
        ("version" = i32, Query, description = "The version that it is based on"),
    ),
    responses(
        (status = 204, description = "It is gone"),
        (status = 404, description = "There is none of that id", body = Problem),
        (status = 409, description = "It changed since", body = Problem),
    ),
))]
pub(crate) async fn delete(
    desk: Desk,
    NameInPath(id): NameInPath,
    Asked(based_on): Asked<BasedOn>,
) -> Result<axum::http::StatusCode, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        kept(&house, &id)?;
        let made = desk.store.drop_tariff(house.version, based_on.version, &id);
        if desk.changed(made.await)?.is_some() {
            desk.store.drop_carrier_service(&id).await?;
            return Ok(axum::http::StatusCode::NO_CONTENT);
        }
    }
}

/// Returns a tariff's prices as comma-separated values with a head.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_prices", get, path = "/tariffs/{id}/table", tag = "tariffs",
    params(("id" = String, Path, description = "As `gannet-post`")),
    responses(
        (status = 200, description = "A table", body = String, content_type = "text/csv"),
        (status = 404, description = "There is none of that id", body = Problem),
    ),
))]
pub(crate) async fn show_table(
    desk: Desk,
    NameInPath(id): NameInPath,
) -> Result<Response, Problem> {
    let house = desk.house().await?;
    let (tariff, _) = kept(&house, &id)?;
    let name = format!("attachment; filename=\"{}.csv\"", tariff.id);
    let named = HeaderValue::from_str(&name).expect("ids are plain letters");
    let kind = HeaderValue::from_static("text/csv; charset=utf-8");
    let headers = [
        (header::CONTENT_TYPE, kind),
        (header::CONTENT_DISPOSITION, named),
    ];
    Ok((headers, prices_of(tariff)).into_response())
}

/// Reads prices in: those of each service, format and zone that the table names take the place of what is there; the others stay.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_prices", post, path = "/tariffs/{id}/table", tag = "tariffs", request_body = PricesRequest,
    params(("id" = String, Path, description = "As `gannet-post`")),
    responses(
        (status = 200, description = "What it did, or would do", body = TariffKept),
        (status = 404, description = "There is none of that id", body = Problem),
        (status = 409, description = "It changed since", body = Problem),
        (status = 422, description = "Values that were refused, each with its line and column", body = Problem),
    ),
))]
pub(crate) async fn take_table(
    desk: Desk,
    NameInPath(id): NameInPath,
    Body(request): Body<PricesRequest>,
) -> Result<Json<TariffKept>, Problem> {
    let mut tries = desk.tries();
    loop {
        let house = tries.next().await?;
        let (tariff, _) = kept(&house, &id)?;
        let tariff = with_prices(tariff, &request.csv)?;
        let kept = desk.tariff_kept(&house, Some(request.version), tariff, request.dry_run);
        if let Some(kept) = kept.await? {
            return Ok(Json(kept));
        }
    }
}

/// Prices a parcel by a tariff, with every line, its rule, and the way to the next prices.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "/sums/quote", post, path = "/sums/quote", tag = "sums", request_body = QuoteRequest,
    responses(
        (status = 200, description = "What each service takes", body = QuoteAnswer),
        (status = 404, description = "There is no tariff of that id", body = Problem),
        (status = 422, description = "Values out of range, or what is wrong in the tariff, each with its place", body = Problem),
    ),
))]
pub(crate) async fn quote(
    desk: Desk,
    Body(request): Body<QuoteRequest>,
) -> Result<Json<QuoteAnswer>, Problem> {
    let refuse = |says: &str| Problem::from(vec![Refusal::new("tariff", says)]);
    let tariff = match (request.tariff, &request.tariff_id, &request.sheet) {
        (Some(tariff), None, None) => read(tariff, "tariff/")?,
        (None, Some(id), None) => kept(&*desk.house().await?, id)?.0.clone(),
        (None, None, Some(sheet)) => {
            let telling = desk.house().await?.house.rules.told_in;
            sheet.read(telling).map_err(|refusals| {
                let under =
                    |one: Refusal| Refusal::new(format!("sheet/{}", one.field), one.message);
                refusals.into_iter().map(under).collect::<Vec<_>>()
            })?
        }
        (None, None, None) => {
            return Err(refuse(
                "give a tariff, or the tariff_id of one that is kept",
            ));
        }
        _ => return Err(refuse("give a tariff or a tariff_id, not both")),
    };
    let answer = beside(move || {
        QuoteSum {
            parcel: &request.parcel,
            destination: &request.destination,
            value: request.value,
            discount_tier: request.discount_tier.as_deref(),
            date: request.date,
        }
        .by(&tariff)
    });
    Ok(Json(answer.await?))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/tariffs" => list,
        post "/tariffs" => add,
        post "/tariffs/sheet" => show_sheet,
        get "/tariffs/shapes" => list_shapes,
        post "/tariffs/cells" => read_cells,
        put "/tariffs/{id}" => put,
        delete "/tariffs/{id}" => delete,
        get "/tariffs/{id}/table" => show_table,
        post "/tariffs/{id}/table" => take_table,
        post "/sums/quote" => quote,
    ]
}
