//! The API as a whole: its routes, its description and the page that shows it.

use std::{sync::LazyLock, time::Duration};

use axum::{
    Json, Router,
    body::Bytes,
    extract::{DefaultBodyLimit, Request, State},
    http::{HeaderName, HeaderValue, StatusCode, header},
    middleware::{Next, from_fn, from_fn_with_state},
    response::{IntoResponse, Redirect, Response},
    routing::get,
};
use serde::Serialize;
use tower::ServiceBuilder;
use tower_http::{
    catch_panic::CatchPanicLayer,
    compression::{
        CompressionLayer, DefaultPredicate, Predicate as _, predicate::NotForContentType,
    },
    request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer},
    set_header::SetResponseHeaderLayer,
    timeout::RequestBodyTimeoutLayer,
    trace::TraceLayer,
};

use crate::{
    account, addresses, after,
    app::App,
    backup, carrier_service, countries, curves, cutting, cuttings,
    description::{description, tariff_schema},
    documents,
    guard::{Ours, let_in},
    house, kinds, leaving, left, log, measures,
    network::{self, Door, let_known_in, say_whose},
    orders, outside, pages, papers, photographs, plans,
    problem::{Problem, told_to_people},
    routes::{Routes, routes},
    sender, settings, shelf, shipments, slots, stores, studio, studios, sums, tariffs, ways,
    weighings,
};

/// The largest body that is read; a shipment is a thousandth of it.
const LARGEST_BODY: usize = 256 * 1024;
/// So long may pass between two parts of a body.
const LONGEST_BODY: Duration = Duration::from_secs(5);
const JSON: HeaderValue = HeaderValue::from_static("application/json");
const REQUEST_ID: HeaderName = HeaderName::from_static("x-request-id");

/// What is answered to whoever is known.
fn routes() -> Routes {
    routes![
        get "/shipments" => shipments::list,
        post "/shipments" => shipments::create,
        get "/shipments/{id}" => shipments::show,
        patch "/shipments/{id}" => shipments::edit,
        put "/shipments/{id}/place" => shipments::place,
        post "/shipments/{id}/undo" => shipments::undo,
        post "/shipments/{id}/redo" => shipments::redo,
        post "/plans/preview" => plans::preview,
        post "/plans/alternatives" => plans::alternatives,
        post "/plans/changes" => plans::changes,
        post "/plans/in-two" => plans::in_two,
        post "/plans/price" => plans::price,
        post "/plans/rough" => plans::rough,
        post "/plans/packing" => plans::packing,
        post "/measures/read" => measures::read,
        post "/measures/lengths" => measures::lengths,
        post "/studio/rules/preview" => house::preview,
        put "/studio/rules" => house::change,
        get "/studio/presets" => house::list_presets,
        post "/studio/presets" => house::keep_preset,
        delete "/studio/presets/{name}" => house::drop_preset,
        get "/stores" => stores::show,
        post "/stores/prices-checked" => stores::prices_checked,
        get "/stores/{class}/table" => stores::show_table,
        post "/stores/{class}/table" => stores::take_table,
        put "/stores/{class}/{id}" => stores::put,
        delete "/stores/{class}/{id}" => stores::delete,
        post "/curves/fit" => curves::fit,
        get "/studio" => studio::show,
        get "/studio/progress" => studio::progress,
        get "/health" => health,
    ]
    .merge(sums::routes())
    .merge(tariffs::routes())
    .merge(carrier_service::routes())
    .merge(account::routes())
    .merge(addresses::routes())
    .merge(kinds::routes())
    .merge(orders::routes())
    .merge(photographs::routes())
    .merge(cutting::routes())
    .merge(cuttings::routes())
    .merge(documents::routes())
    .merge(countries::routes())
    .merge(sender::routes())
    .merge(settings::routes())
    .merge(studios::routes())
    .merge(backup::routes())
    .merge(leaving::routes())
    .merge(left::routes())
    .merge(slots::routes())
    .merge(papers::routes())
    .merge(after::routes())
    .merge(log::routes())
    .merge(shelf::routes())
    .merge(weighings::routes())
    .merge(ways::routes())
    .merge(outside::readings::routes())
    .merge(outside::asked::routes())
    .merge(network::devices::routes())
}

/// Everything under the version, whoever may ask for it.
#[cfg(feature = "schema")]
pub(crate) fn all_routes() -> Routes {
    routes().merge(network::devices::open_routes())
}

fn versioned(routes: Routes) -> Router<App> {
    Router::new().nest("/api/v1", routes.into_router())
}

const OWN_SCRIPTS_ONLY: HeaderValue = HeaderValue::from_static(
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; frame-ancestors 'none'; base-uri 'none'; form-action 'self'",
);

/// What the log says beside whatever happens in a request: by which method and path, and by which id its answer goes out.
fn spoken_of<B>(request: &axum::http::Request<B>) -> tracing::Span {
    let id = request.headers().get(&REQUEST_ID);
    tracing::info_span!(
        "request",
        method = %request.method(),
        path = request.uri().path(),
        id = id.and_then(|id| id.to_str().ok()).unwrap_or_default(),
    )
}

/// Returns the whole application: API, its description and page, and the pages.
pub(crate) fn router(app: App, ours: Ours, door: Door) -> Router {
    let known = versioned(routes());
    let open = versioned(network::devices::open_routes());
    let trace = TraceLayer::new_for_http().make_span_with(spoken_of);
    // An archive is small already, and whoever fetches it wants to know how far it is.
    let pressed = DefaultPredicate::new().and(NotForContentType::const_new("application/zip"));
    let said = |name, value| SetResponseHeaderLayer::if_not_present(name, value);
    // Each from outside in. As layers of the router each would be copied, with all below it, for every request.
    let answered = ServiceBuilder::new()
        .layer(CompressionLayer::new().compress_when(pressed))
        .layer(said(header::CONTENT_SECURITY_POLICY, OWN_SCRIPTS_ONLY))
        .layer(said(
            header::REFERRER_POLICY,
            HeaderValue::from_static("same-origin"),
        ))
        .layer(said(
            header::X_CONTENT_TYPE_OPTIONS,
            HeaderValue::from_static("nosniff"),
        ))
        .layer(said(
            HeaderName::from_static("cross-origin-resource-policy"),
            HeaderValue::from_static("same-origin"),
        ))
        .layer(from_fn(told_to_people))
        .layer(from_fn_with_state(ours, let_in))
        .layer(DefaultBodyLimit::max(LARGEST_BODY));
    let taken = ServiceBuilder::new()
        .layer(from_fn_with_state(app.longest_answer, in_time))
        .layer(SetRequestIdLayer::new(REQUEST_ID, MakeRequestUuid))
        .layer(trace)
        .layer(PropagateRequestIdLayer::new(REQUEST_ID))
        .layer(CatchPanicLayer::custom(panicked))
        .layer(RequestBodyTimeoutLayer::new(LONGEST_BODY));
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
        .layer(from_fn_with_state((app.clone(), door), say_whose))
        // What stands in the API changes with every edit, and names people.
        .layer(said(
            header::CACHE_CONTROL,
            HeaderValue::from_static("no-store"),
        ))
        .route("/api/docs", get(to_description))
        .route("/api/docs/", get(to_description))
        .fallback(pages::page)
        .method_not_allowed_fallback(wrong_method)
        .layer(answered)
        .layer(taken)
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
        "this path doesn't support that method",
    )
}

fn panicked(_: Box<dyn std::any::Any + Send>) -> Response {
    tracing::error!("a handler panicked");
    Problem::slip().into_response()
}

/// How the application is.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct Health {
    /// Whether the database answers.
    database: bool,
}

/// Tells whether the database answers.
#[cfg_attr(feature = "schema", utoipa::path(
    get, path = "/health", tag = "studio",
    responses(
        (status = 200, description = "All is well", body = Health),
        (status = 503, description = "The database is away", body = Problem),
    ),
))]
pub(crate) async fn health(State(app): State<App>) -> Result<Json<Health>, Problem> {
    app.store.ping().await?;
    Ok(Json(Health { database: true }))
}
