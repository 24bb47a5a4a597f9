//! The log: every parcel that left, what many of them say about the plans, and both as tables for other programs.

use axum::{
    Json,
    http::{HeaderValue, header},
    response::{IntoResponse, Response},
};
use hummock_core::{
    Refusal, Refusals,
    odds::PieceClass,
    place::Route,
    record::{LogRow, Reckoning},
    text::refused_text,
};
use hummock_store::{LogSort, LogWanted, Logged};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::{
    body::Asked,
    csv_rows::{not_a_formula, shown, table_of, word},
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
};

/// Which parcels of the log.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct LogQuery {
    /// Every word of it stands in the title, the buyer's name, the town or the order number; up to 120 characters.
    #[serde(default)]
    #[cfg_attr(feature = "schema", param(max_length = 120))]
    search: String,
    /// What came of it.
    outcome: Option<OutcomeName>,
    /// Of which kind, as in the odds.
    class: Option<PieceClass>,
    /// Which way it went.
    route: Option<Route>,
    /// The carrier's name.
    carrier: Option<String>,
    /// The preset that it started from.
    preset: Option<String>,
    /// Left on this day or later.
    #[cfg_attr(feature = "schema", param(value_type = Option<String>, format = Date))]
    from: Option<Date>,
    /// Left on this day or before.
    #[cfg_attr(feature = "schema", param(value_type = Option<String>, format = Date))]
    to: Option<Date>,
    /// What a page is sorted by.
    #[serde(default)]
    #[cfg_attr(feature = "schema", param(value_type = LogSortName, required = false))]
    sort: LogSort,
    /// How many are before the page.
    #[serde(default)]
    skip: u32,
    /// How many at most, 1 to 200.
    #[serde(default = "a_page")]
    #[cfg_attr(feature = "schema", param(minimum = 1, maximum = 200, default = 50))]
    most: u32,
}

/// What came of a parcel; `none` while it is on its way.
#[derive(Debug, Clone, Copy, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum OutcomeName {
    None,
    Arrived,
    Damaged,
    Lost,
    Returned,
}

/// What the log is sorted by.
#[cfg(feature = "schema")]
#[derive(utoipa::ToSchema)]
#[schema(rename_all = "snake_case")]
#[expect(dead_code, reason = "it describes the store's own type")]
pub(crate) enum LogSortName {
    Newest,
    Oldest,
    Title,
    Buyer,
    Carriage,
    WeightOff,
    Odds,
}

const fn a_page() -> u32 {
    50
}

const LARGEST_PAGE: u32 = 200;

/// A parcel of the log.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LogLine {
    /// Its shipment.
    id: Uuid,
    /// The piece.
    title: String,
    /// Who got it.
    buyer: String,
    /// In figures.
    #[serde(flatten)]
    figures: LogRow,
}

impl From<Logged> for LogLine {
    fn from(logged: Logged) -> Self {
        Self {
            id: logged.id,
            title: logged.title,
            buyer: logged.buyer,
            figures: logged.row,
        }
    }
}

/// A page of the log.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LogPage {
    /// The parcels, in order.
    rows: Vec<LogLine>,
    /// How many there are on all pages.
    total: i64,
    /// The carriers that stand in the log.
    carriers: Vec<String>,
    /// The presets.
    presets: Vec<String>,
}

impl LogQuery {
    fn wanted(&self) -> Result<LogWanted, Problem> {
        let texts = [
            ("search", Some(&self.search)),
            ("carrier", self.carrier.as_ref()),
            ("preset", self.preset.as_ref()),
        ];
        let mut refusals: Refusals = texts
            .into_iter()
            .filter_map(|(field, text)| refused_text(field, text?))
            .collect();
        refusals.done()?;
        fn key(named: &impl Serialize) -> Option<String> {
            serde_json::to_value(named)
                .ok()?
                .as_str()
                .map(str::to_owned)
        }
        Ok(LogWanted {
            search: self.search.clone(),
            outcome: self.outcome.as_ref().and_then(key),
            class: self.class.as_ref().and_then(key),
            route: self.route.as_ref().and_then(key),
            carrier: self.carrier.clone(),
            preset: self.preset.clone(),
            from: self.from.map(|day| day.to_string()),
            to: self.to.map(|day| day.to_string()),
        })
    }
}

/// Returns a page of the parcels that left, searched, filtered and sorted here.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_log", get, path = "/log", tag = "log", params(LogQuery),
    responses(
        (status = 200, description = "A page", body = LogPage),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn list(desk: Desk, Asked(query): Asked<LogQuery>) -> Result<Json<LogPage>, Problem> {
    if !(1..=LARGEST_PAGE).contains(&query.most) {
        let says = format!(
            "{} is out of range: a page has 1 to {LARGEST_PAGE} rows",
            query.most
        );
        return Err(vec![Refusal::new("most", says)].into());
    }
    let wanted = query.wanted()?;
    let part = (i64::from(query.skip), i64::from(query.most));
    let (rows, total) = desk.store.log(&wanted, query.sort, part).await?;
    let [carriers, presets] = desk.store.log_names().await?;
    Ok(Json(LogPage {
        rows: rows.into_iter().map(LogLine::from).collect(),
        total,
        carriers,
        presets,
    }))
}

/// Reckons up the parcels that are asked for: odds said against what happened, weights, money, minutes.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "reckon_log", get, path = "/log/reckoning", tag = "log", params(LogQuery),
    responses(
        (status = 200, description = "What they say, each counted once", body = Reckoning),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn reckoning(desk: Desk, Asked(query): Asked<LogQuery>) -> Result<Json<Reckoning>, Problem> {
    let logged = desk.store.whole_log(&query.wanted()?).await?;
    let house = desk.house().await?;
    let told = beside(move || {
        let (rules, own) = (&house.house.rules, &house.house.catalogue.currency);
        let rows: Vec<LogRow> = logged
            .into_iter()
            .map(|logged| logged.row.in_money_of(rules, own))
            .collect();
        Reckoning::of(&rows)
    });
    Ok(Json(told.await))
}

/// Returns the parcels that are asked for as a table, a row each.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_log_table", get, path = "/log.csv", tag = "log", params(LogQuery),
    responses(
        (status = 200, description = "CSV with a head; no text of it is a formula", body = String, content_type = "text/csv"),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn table(desk: Desk, Asked(query): Asked<LogQuery>) -> Result<Response, Problem> {
    let logged = desk.store.whole_log(&query.wanted()?).await?;
    let table = beside(move || table_of(logged.iter().map(LogCells::from))).await;
    let headers = [
        (
            header::CONTENT_TYPE,
            HeaderValue::from_static("text/csv; charset=utf-8"),
        ),
        (
            header::CONTENT_DISPOSITION,
            HeaderValue::from_static("attachment; filename=\"log.csv\""),
        ),
    ];
    Ok((headers, table).into_response())
}

/// A line of the table: its fields are the columns.
#[derive(Default, Serialize)]
struct LogCells {
    shipment: String,
    title: String,
    buyer: String,
    left_on: String,
    class: String,
    route: String,
    preset: String,
    carrier: String,
    service: String,
    outcome: String,
    probability: String,
    lost: String,
    intensity: String,
    planned_g: String,
    plus_minus_g: String,
    weighed_g: String,
    planned_across_mm: String,
    planned_up_mm: String,
    planned_through_mm: String,
    measured_across_mm: String,
    measured_up_mm: String,
    measured_through_mm: String,
    carriage: String,
    billed: String,
    shipping_paid: String,
    minutes: String,
    took: String,
    worth: String,
    paid: String,
    saved: String,
    used_again_g: String,
    used_again_litres: String,
    order_number: String,
    currency: String,
}

impl From<&Logged> for LogCells {
    fn from(logged: &Logged) -> Self {
        let LogRow {
            left_on,
            class,
            route,
            preset,
            carrier,
            service,
            outcome,
            intensity,
            probability,
            lost,
            planned_g,
            plus_minus_g,
            weighed_g,
            planned_mm: [across, up, through],
            measured_mm,
            carriage,
            billed,
            minutes,
            took,
            worth,
            paid,
            saved,
            used_again_g,
            used_again_litres,
            order_number,
            shipping_paid,
            currency,
        } = &logged.row;
        let measured = |side: usize| shown(measured_mm.map(|sides| sides[side]));
        let text = |text: &Option<String>| not_a_formula(text.as_deref().unwrap_or_default());
        Self {
            shipment: logged.id.to_string(),
            title: not_a_formula(&logged.title),
            buyer: not_a_formula(&logged.buyer),
            left_on: left_on.to_string(),
            class: word(class),
            route: word(route),
            preset: text(preset),
            carrier: text(carrier),
            service: text(service),
            outcome: outcome.as_ref().map(word).unwrap_or_default(),
            probability: probability.to_string(),
            lost: lost.to_string(),
            intensity: intensity.to_string(),
            planned_g: planned_g.to_string(),
            plus_minus_g: plus_minus_g.to_string(),
            weighed_g: shown(*weighed_g),
            planned_across_mm: across.to_string(),
            planned_up_mm: up.to_string(),
            planned_through_mm: through.to_string(),
            measured_across_mm: measured(0),
            measured_up_mm: measured(1),
            measured_through_mm: measured(2),
            carriage: shown(*carriage),
            billed: shown(*billed),
            shipping_paid: shown(*shipping_paid),
            minutes: minutes.to_string(),
            took: shown(*took),
            worth: shown(*worth),
            paid: shown(*paid),
            saved: shown(*saved),
            used_again_g: shown(*used_again_g),
            used_again_litres: shown(*used_again_litres),
            order_number: not_a_formula(order_number),
            currency: currency.map_or_else(String::new, String::from),
        }
    }
}

/// Returns the parcels that are asked for as JSON, without pages.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "read_log", get, path = "/log.json", tag = "log", params(LogQuery),
    responses(
        (status = 200, description = "Every parcel", body = [LogLine]),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
async fn whole(desk: Desk, Asked(query): Asked<LogQuery>) -> Result<Json<Vec<LogLine>>, Problem> {
    let logged = desk.store.whole_log(&query.wanted()?).await?;
    Ok(Json(logged.into_iter().map(LogLine::from).collect()))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/log" => list,
        get "/log/reckoning" => reckoning,
        get "/log.csv" => table,
        get "/log.json" => whole,
    ]
}
