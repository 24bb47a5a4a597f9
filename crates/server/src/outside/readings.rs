//! The scale on the bench: its readings, passed on as they come, with whether it rests and what that says about a plan.

use std::convert::Infallible;

use axum::{
    Json,
    response::{
        IntoResponse,
        sse::{Event, KeepAlive, Sse},
    },
};
use futures_util::{StreamExt as _, stream};
use hummock_core::{
    Refusal,
    quantity::{Mass, Weight},
    weigh::{LiveReading, Settling},
};
use serde::{Deserialize, Serialize};
use tokio::sync::broadcast::error::RecvError;
use uuid::Uuid;

use super::scale::Heard;
use crate::{
    body::Asked,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// Whether there is a scale.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ScaleView {
    /// Whether the program was told of one.
    connected: bool,
    /// Where it is told what lies on it, for it is only a stand-in.
    stand_in: Option<String>,
}

/// What to say of the readings.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct ReadingsQuery {
    /// What is taken off: a tray, a blanket. 0 to 100 000.
    #[serde(default)]
    #[cfg_attr(feature = "schema", param(minimum = 0, maximum = 100_000))]
    tare_g: f64,
    /// The shipment whose plan it is held against.
    #[cfg_attr(feature = "schema", param(value_type = Option<Uuid>))]
    shipment: Option<Uuid>,
}

/// One reading, as it is passed on.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ToldReading {
    /// What the scale says.
    #[serde(flatten)]
    reading: LiveReading,
    /// What the plan says; `None` without one.
    planned: Option<Weight>,
    /// How much more it reads than planned; `None` while it does not rest.
    off_g: Option<f64>,
}

const MOST_TARE_G: f64 = 100_000.0;
/// Tells whether there is a scale.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_scale", get, path = "/scale", tag = "weighings",
    responses((status = 200, description = "Whether there is one", body = ScaleView)),
))]
pub(crate) async fn show(desk: Desk) -> Json<ScaleView> {
    // Only a stand-in has a page of its own beside it.
    let stand_in = desk
        .app
        .outside
        .scale
        .address
        .as_deref()
        .filter(|_| desk.app.outside.stand_in)
        .and_then(|scale| Some(scale.strip_suffix("/scale")?.to_owned() + "/"));
    Json(ScaleView {
        connected: desk.app.outside.scale.address.is_some(),
        stand_in,
    })
}

/// Passes the readings of the scale on as they come, as server-sent events, each a `ToldReading`: with whether it rests, less a
/// tare, and beside what a plan says. A scale that does not answer is said to be away, and called again until it does.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "follow_scale", get, path = "/scale/readings", tag = "weighings", params(ReadingsQuery),
    responses(
        (status = 200, description = "Readings, until whoever asked goes away", body = ToldReading, content_type = "text/event-stream"),
        (status = 404, description = "There is no such shipment", body = Problem),
        (status = 422, description = "A tare that is none", body = Problem),
    ),
))]
pub(crate) async fn readings(
    desk: Desk,
    Asked(query): Asked<ReadingsQuery>,
) -> Result<impl IntoResponse, Problem> {
    if !(0.0..=MOST_TARE_G).contains(&query.tare_g) {
        let says = format!(
            "{} is out of range: a tare is 0 to {MOST_TARE_G} g",
            query.tare_g
        );
        return Err(vec![Refusal::new("tare_g", says)].into());
    }
    let tare = Mass::g(query.tare_g);
    let planned = match query.shipment {
        None => None,
        Some(id) => {
            let stored = desk.stored(id).await?;
            stored.computed.summary.map(|summary| summary.weight)
        }
    };
    let heard = desk.app.outside.scale.heard();
    let settling = Settling::default();
    let events = stream::unfold(
        (heard, settling),
        move |(mut heard, mut settling)| async move {
            let next = loop {
                match heard.recv().await {
                    Ok(next) => break next,
                    // A slow page goes on with what is said now.
                    Err(RecvError::Lagged(_)) => {}
                    Err(RecvError::Closed) => return None,
                }
            };
            let reading = match next {
                Heard::Sample(at_ms, sample) => settling.takes(at_ms, sample, tare),
                Heard::Nothing => {
                    settling = Settling::default();
                    LiveReading::AWAY
                }
            };
            let rests = reading.state == hummock_core::weigh::ScaleState::Stable;
            let off = reading.net.zip(planned).filter(|_| rests);
            let told = ToldReading {
                reading,
                planned,
                off_g: off.map(|(net, planned)| (net - planned.mass).as_g()),
            };
            let event = Event::default().json_data(told).ok()?;
            Some((Ok::<_, Infallible>(event), (heard, settling)))
        },
    );
    let events = events.take_until(Box::pin(desk.until_signed_out()));
    Ok(Sse::new(events).keep_alive(KeepAlive::default()))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/scale" => show,
        get "/scale/readings" => readings,
    ]
}
