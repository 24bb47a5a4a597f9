//! The API as a whole: its routes, its description and the page that shows it.

use std::{sync::LazyLock, time::Duration};

use axum::{
    Json, Router,
    body::Bytes,
    extract::{DefaultBodyLimit, Request, State},
    http::{HeaderName, HeaderValue, StatusCode, header},
    middleware::{Next, from_fn_with_state},
    response::{IntoResponse, Redirect, Response},
    routing::get,
};
use serde::Serialize;
use serde_json::{Value, json};
use tower_http::{
    catch_panic::CatchPanicLayer,
    compression::{
        CompressionLayer, DefaultPredicate, Predicate as _, predicate::NotForContentType,
    },
    request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer},
    set_header::SetResponseHeaderLayer,
    timeout::RequestBodyTimeoutLayer,
    trace::{DefaultMakeSpan, TraceLayer},
};
use tracing::Level;
use utoipa::{OpenApi, ToSchema, openapi::OpenApi as Description};
use utoipa_axum::{router::OpenApiRouter, routes};

use crate::{
    account, addresses, after,
    app::App,
    backup, curves, cutting, cuttings, documents,
    guard::{Ours, let_in},
    house, kinds, leaving, log, measures,
    network::{self, Door, let_known_in},
    orders, outside, pages, papers, photographs, plans,
    problem::Problem,
    sender, shelf, shipments, slots, stores, studio, sums, tariffs, ways, weighings,
};

/// The largest body that is read; a shipment is a thousandth of it.
const LARGEST_BODY: usize = 256 * 1024;
/// So long may pass between two parts of a body.
const LONGEST_BODY: Duration = Duration::from_secs(5);
const JSON: HeaderValue = HeaderValue::from_static("application/json");
const REQUEST_ID: HeaderName = HeaderName::from_static("x-request-id");

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Hummock",
        description = "Packing and shipping flat art: measure, layers, box, weight and price. Lengths are in \
                       millimetres and masses in grams, as the names of the fields say; money is a decimal text. \
                       Lengths that people type are texts with their unit, as `35 1/2 in`. Errors are problem \
                       documents (RFC 9457) with the field of each value that was refused.",
        license(name = "MIT OR Apache-2.0"),
    ),
    components(schemas(shipments::SortName, shipments::PlaceName, documents::PaperName, log::LogSortName, log::OutcomeName)),
    tags(
        (name = "tariffs", description = "What carriers take, as data"),
        (name = "weighings", description = "The scale on the bench, and what its readings say about the stores"),
        (name = "shipments", description = "What is on the bench"),
        (name = "plans", description = "Working out a plan without storing it"),
        (name = "sums", description = "One formula each, in plain numbers, unrounded; for scripts and for a scrap of paper"),
        (name = "stores", description = "The catalogue by class, and cushion curves"),
        (name = "shelf", description = "What is on the shelf and on the pile, what a shipment takes of it, and what fits"),
        (name = "cuttings", description = "Parts of one shipment or of several, laid out on what is on the shelf"),
        (name = "documents", description = "Drawings at true scale and cut lists, as PDF, SVG, DXF and CSV"),
        (name = "leaving", description = "The parcel leaves: addresses, booking, papers and the day; and what comes of it"),
        (name = "log", description = "Every parcel that left, and what many of them say about the plans"),
        (name = "photographs", description = "Photographs of a shipment, each at its step; the same file under the same id is kept once"),
        (name = "measures", description = "Reading what a tape measure said"),
        (name = "devices", description = "Tablets of the local network: letting them in, listing them, signing them out"),
        (name = "studio", description = "The studio, its rules and its shelf"),
    ),
)]
struct Api;

/// What is answered to whoever is known.
fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(shipments::list, shipments::create))
        .routes(routes!(shipments::show, shipments::edit))
        .routes(routes!(shipments::place))
        .routes(routes!(shipments::undo))
        .routes(routes!(shipments::redo))
        .routes(routes!(plans::preview))
        .routes(routes!(plans::alternatives))
        .routes(routes!(plans::changes))
        .routes(routes!(plans::in_two))
        .routes(routes!(plans::price))
        .routes(routes!(plans::rough))
        .routes(routes!(plans::packing))
        .routes(routes!(measures::read))
        .routes(routes!(measures::lengths))
        .routes(routes!(house::preview))
        .routes(routes!(house::change))
        .routes(routes!(house::list_presets, house::keep_preset))
        .routes(routes!(house::drop_preset))
        .routes(routes!(stores::show))
        .routes(routes!(stores::show_table, stores::take_table))
        .routes(routes!(stores::put, stores::delete))
        .routes(routes!(curves::fit))
        .routes(routes!(studio::show))
        .routes(routes!(studio::progress))
        .routes(routes!(health))
        .merge(sums::routes())
        .merge(tariffs::routes())
        .merge(account::routes())
        .merge(addresses::routes())
        .merge(kinds::routes())
        .merge(orders::routes())
        .merge(photographs::routes())
        .merge(cutting::routes())
        .merge(cuttings::routes())
        .merge(documents::routes())
        .merge(sender::routes())
        .merge(backup::routes())
        .merge(leaving::routes())
        .merge(slots::routes())
        .merge(papers::routes())
        .merge(after::routes())
        .merge(log::routes())
        .merge(shelf::routes())
        .merge(weighings::routes())
        .merge(ways::routes())
        .merge(outside::scale_routes())
        .merge(outside::carrier_routes())
        .merge(network::routes())
}

fn versioned(routes: OpenApiRouter<App>) -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Api::openapi()).nest("/api/v1", routes)
}

/// Returns the description of the API.
#[must_use]
pub fn description() -> Value {
    told_whole(
        &versioned(routes().merge(network::open_routes()))
            .split_for_parts()
            .1,
    )
}

/// Returns the schema of a tariff, by itself.
pub(crate) fn tariff_schema() -> Value {
    const HERE: &str = "#/components/schemas/";
    let mut schemas = description()["components"]["schemas"].take();
    let mut wanted = vec!["Tariff".to_owned()];
    let mut defs = serde_json::Map::new();
    while let Some(name) = wanted.pop() {
        if defs.contains_key(&name) {
            continue;
        }
        let schema = schemas[&name].take();
        let text = schema.to_string();
        let named = text.split(HERE).skip(1);
        wanted.extend(named.filter_map(|rest| Some(rest.split('"').next()?.to_owned())));
        defs.insert(name, schema);
    }
    let whole = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "/api/schemas/tariff.json",
        "title": "A carrier's tariff",
        "$ref": format!("{HERE}Tariff"),
        "$defs": defs,
    });
    let text = whole.to_string().replace(HERE, "#/$defs/");
    serde_json::from_str(&text).expect("it was JSON before")
}

/// What any request may be answered with, whatever it asks for.
const ANY_TIME: [(&str, &str); 10] = [
    ("400", "The request can't be read"),
    ("401", "A device of the local network is not signed in"),
    ("403", "A page of another origin asked for a change"),
    ("404", "There is none of that name"),
    ("413", "The body is over 256 KB"),
    ("415", "The body is not JSON"),
    ("422", "Values that were refused, each with its field"),
    ("421", "The server does not answer under that name"),
    ("503", "The database is away; ask again"),
    ("504", "It took too long and was given up"),
];

/// Adds what holds for every operation: that a problem is a document of its own kind, and what any request may be
/// answered with.
fn told_whole(description: &Description) -> Value {
    let mut document = serde_json::to_value(description).expect("it can be written");
    let problem = json!({ "application/problem+json": { "schema": { "$ref": "#/components/schemas/Problem" } } });
    let paths = document["paths"].as_object_mut().into_iter().flatten();
    let operations = paths.flat_map(|(path, methods)| {
        let methods = methods.as_object_mut().into_iter().flatten();
        methods.map(move |(_, operation)| (path.contains('{'), operation))
    });
    for (names_one, operation) in operations {
        let has_body = operation["requestBody"].is_object();
        let has_parameters = operation["parameters"].is_array();
        let Some(responses) = operation["responses"].as_object_mut() else {
            continue;
        };
        for (status, says) in ANY_TIME {
            let may_be = match status {
                "404" => names_one,
                "413" | "415" => has_body,
                "422" => has_body || has_parameters,
                _ => true,
            };
            if may_be {
                responses
                    .entry(status)
                    .or_insert_with(|| json!({ "description": says }));
            }
        }
        for (status, response) in responses {
            if status.starts_with(['4', '5']) {
                response["content"] = problem.clone();
            }
        }
    }
    let schemas = document["components"]["schemas"].as_object_mut();
    for schema in schemas.into_iter().flat_map(|schemas| schemas.values_mut()) {
        let fields = schema.get_mut("properties").and_then(Value::as_object_mut);
        for field in fields.into_iter().flat_map(|fields| fields.values_mut()) {
            give_range(field);
        }
    }
    document
}

/// Puts the range that the words about a number begin with into its schema, so that programs know it too.
fn give_range(field: &mut Value) {
    let is_number = |kind: &Value| kind == "number" || kind == "integer";
    let kind = &field["type"];
    let numeric = is_number(kind)
        || kind
            .as_array()
            .is_some_and(|kinds| kinds.iter().any(is_number));
    let said = field["description"].as_str().and_then(range_in);
    if let Some((least, most)) = said.filter(|_| numeric) {
        field["minimum"] = json!(least);
        field["maximum"] = json!(most);
    }
}

/// Reads "1 to 10 000", wherever in a sentence that stands first.
fn range_in(says: &str) -> Option<(f64, f64)> {
    let (before, after) = says.split_once(" to ")?;
    let is_part = |letter: char| letter.is_ascii_digit() || matches!(letter, '.' | ' ' | '\u{a0}');
    let start = before.rfind(|letter| !is_part(letter)).map_or(0, |at| {
        at + before[at..].chars().next().map_or(0, char::len_utf8)
    });
    let end = after.find(|letter| !is_part(letter)).unwrap_or(after.len());
    let number = |digits: &str| {
        let plain: String = digits
            .trim_end_matches(['.', ' '])
            .chars()
            .filter(|letter| !letter.is_whitespace())
            .collect();
        plain.parse().ok()
    };
    Some((number(&before[start..])?, number(&after[..end])?))
}

const OWN_SCRIPTS_ONLY: HeaderValue = HeaderValue::from_static(
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
);

/// Returns the whole application: API, its description and page, and the pages.
pub(crate) fn router(app: App, ours: Ours, door: Door) -> Router {
    let (known, _) = versioned(routes()).split_for_parts();
    let (open, _) = versioned(network::open_routes()).split_for_parts();
    let trace =
        TraceLayer::new_for_http().make_span_with(DefaultMakeSpan::new().level(Level::INFO));
    // An archive is small already, and whoever fetches it wants to know how far it is.
    let pressed = DefaultPredicate::new().and(NotForContentType::const_new("application/zip"));
    let said = |name, value| SetResponseHeaderLayer::if_not_present(name, value);
    known
        .route(
            "/api/openapi.json",
            get(async || described(|told| &told.api).await),
        )
        .route(
            "/api/schemas/tariff.json",
            get(async || described(|told| &told.tariff).await),
        )
        .layer(from_fn_with_state((app.clone(), door), let_known_in))
        .merge(open)
        // What stands in the API changes with every edit, and names people.
        .layer(said(
            header::CACHE_CONTROL,
            HeaderValue::from_static("no-store"),
        ))
        .route("/api/docs", get(to_description))
        .route("/api/docs/", get(to_description))
        .fallback(pages::page)
        .method_not_allowed_fallback(wrong_method)
        .layer(DefaultBodyLimit::max(LARGEST_BODY))
        .layer(from_fn_with_state(ours, let_in))
        .layer(said(
            header::X_CONTENT_TYPE_OPTIONS,
            HeaderValue::from_static("nosniff"),
        ))
        .layer(said(
            header::REFERRER_POLICY,
            HeaderValue::from_static("same-origin"),
        ))
        .layer(said(header::CONTENT_SECURITY_POLICY, OWN_SCRIPTS_ONLY))
        .layer(CompressionLayer::new().compress_when(pressed))
        .layer(RequestBodyTimeoutLayer::new(LONGEST_BODY))
        .layer(CatchPanicLayer::custom(panicked))
        .layer(PropagateRequestIdLayer::new(REQUEST_ID))
        .layer(trace)
        .layer(SetRequestIdLayer::new(REQUEST_ID, MakeRequestUuid))
        .layer(from_fn_with_state(app.longest_answer, in_time))
        .with_state(app)
}

/// What programs read of the API: worked out when somebody asks first, for every start would wait for it.
struct Described {
    api: Bytes,
    tariff: Bytes,
}

async fn described(which: fn(&Described) -> &Bytes) -> Result<Response, Problem> {
    static TOLD: LazyLock<Described> = LazyLock::new(|| Described {
        api: description().to_string().into(),
        tariff: tariff_schema().to_string().into(),
    });
    let told = tokio::task::spawn_blocking(move || which(&TOLD).clone()).await;
    let told = told.map_err(|_| Problem::slip())?;
    Ok(([(header::CONTENT_TYPE, JSON)], told).into_response())
}

async fn to_description() -> Redirect {
    Redirect::permanent("/about/api")
}

/// Gives an answer that takes too long up, with a problem document.
async fn in_time(State(longest): State<Duration>, request: Request, next: Next) -> Response {
    tokio::time::timeout(longest, next.run(request))
        .await
        .unwrap_or_else(|_| Problem::too_long().into_response())
}

async fn wrong_method() -> Problem {
    Problem::unreadable(
        StatusCode::METHOD_NOT_ALLOWED,
        "this path does not take that method",
    )
}

fn panicked(_: Box<dyn std::any::Any + Send>) -> Response {
    tracing::error!("a handler panicked");
    Problem::slip().into_response()
}

/// How the application is.
#[derive(Debug, Serialize, ToSchema)]
pub(crate) struct Health {
    /// Whether the database answers.
    database: bool,
}

/// Tells whether the database answers.
#[utoipa::path(
    get, path = "/health", tag = "studio",
    responses(
        (status = 200, description = "All is well", body = Health),
        (status = 503, description = "The database is away", body = Problem),
    ),
)]
pub(crate) async fn health(State(app): State<App>) -> Result<Json<Health>, Problem> {
    app.store.ping().await?;
    Ok(Json(Health { database: true }))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_range_is_read_from_the_words() {
        for (says, range) in [
            ("1 to 10 000.", Some((1.0, 10_000.0))),
            (
                "Of all boards together, 0.001 to 100 000; 100 when left out.",
                Some((0.001, 100_000.0)),
            ),
            ("0 to 1.", Some((0.0, 1.0))),
            ("Working days to the door.", None),
            ("From art to box, in all.", None),
        ] {
            assert_eq!(range_in(says), range, "{says}");
        }
    }
}
