//! The API as a whole: its routes, its description and the page that shows it.

use std::time::Duration;

use axum::{
    Json, Router,
    extract::{DefaultBodyLimit, State},
    http::{HeaderName, HeaderValue, StatusCode, header},
    response::{IntoResponse, Response},
};
use serde::Serialize;
use tower_http::{
    catch_panic::CatchPanicLayer,
    compression::CompressionLayer,
    request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer},
    set_header::SetResponseHeaderLayer,
    timeout::TimeoutLayer,
    trace::{DefaultMakeSpan, TraceLayer},
};
use tracing::Level;
use utoipa::{OpenApi, ToSchema, openapi::OpenApi as Description};
use utoipa_axum::{router::OpenApiRouter, routes};
use utoipa_swagger_ui::SwaggerUi;

use crate::{
    app::App, curves, house, measures, pages, plans, problem::Problem, shipments, stores, studio,
    sums,
};

/// The largest body that is read; a shipment is a thousandth of it.
const LARGEST_BODY: usize = 256 * 1024;
const LONGEST_ANSWER: Duration = Duration::from_secs(10);
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
    components(schemas(shipments::SortName, shipments::PlaceName)),
    tags(
        (name = "shipments", description = "What is on the bench"),
        (name = "plans", description = "Working out a plan without storing it"),
        (name = "sums", description = "One formula each, in plain numbers, unrounded; for scripts and for a scrap of paper"),
        (name = "stores", description = "The catalogue by class, and cushion curves"),
        (name = "measures", description = "Reading what a tape measure said"),
        (name = "studio", description = "The studio, its rules and its shelf"),
    ),
)]
struct Api;

fn routes() -> OpenApiRouter<App> {
    let resources = OpenApiRouter::new()
        .routes(routes!(shipments::list, shipments::create))
        .routes(routes!(shipments::show, shipments::edit))
        .routes(routes!(shipments::place))
        .routes(routes!(shipments::undo))
        .routes(routes!(shipments::redo))
        .routes(routes!(plans::preview))
        .routes(routes!(plans::alternatives))
        .routes(routes!(plans::changes))
        .routes(routes!(measures::read))
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
        .merge(sums::routes());
    OpenApiRouter::with_openapi(Api::openapi()).nest("/api/v1", resources)
}

/// Returns the description of the API.
#[must_use]
pub fn description() -> Description {
    routes().split_for_parts().1
}

/// Returns the whole application: API, its description and page, and the pages.
pub(crate) fn router(app: App) -> Router {
    let (api, description) = routes().split_for_parts();
    let trace =
        TraceLayer::new_for_http().make_span_with(DefaultMakeSpan::new().level(Level::INFO));
    api.merge(SwaggerUi::new("/api/docs").url("/api/openapi.json", description))
        .fallback(pages::page)
        .method_not_allowed_fallback(wrong_method)
        .layer(DefaultBodyLimit::max(LARGEST_BODY))
        .layer(SetResponseHeaderLayer::if_not_present(
            header::X_CONTENT_TYPE_OPTIONS,
            HeaderValue::from_static("nosniff"),
        ))
        .layer(CompressionLayer::new())
        .layer(TimeoutLayer::with_status_code(
            StatusCode::GATEWAY_TIMEOUT,
            LONGEST_ANSWER,
        ))
        .layer(CatchPanicLayer::custom(panicked))
        .layer(PropagateRequestIdLayer::new(REQUEST_ID))
        .layer(trace)
        .layer(SetRequestIdLayer::new(REQUEST_ID, MakeRequestUuid))
        .with_state(app)
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
