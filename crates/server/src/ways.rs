//! The front of ways of a shipment, told while it grows.

use std::{
    convert::Infallible,
    num::NonZero,
    time::{Duration, Instant},
};

use axum::response::{
    IntoResponse,
    sse::{Event, KeepAlive, Sse},
};
use futures_util::{StreamExt as _, stream};
use hummock_core::{
    Refusal,
    ways::{Explorer, Front},
};
use serde::Deserialize;
use tokio::sync::mpsc;

use crate::{
    body::{Asked, ShipmentId},
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// How far to look.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct WaysQuery {
    /// How many plans are made at most, each with every service that takes it: 1 to 5000.
    #[serde(default = "usual")]
    #[cfg_attr(feature = "schema", param(minimum = 1, maximum = 5000, default = 1500))]
    most: u32,
}

const fn usual() -> u32 {
    1500
}

const MOST: u32 = 5000;
/// Nobody looks at a picture more often.
const TOLD_EVERY: Duration = Duration::from_millis(200);
/// How many fronts wait for a page that is slow; others are left out.
const WAITING: usize = 2;

/// Looks for the ways to pack and send a shipment that nothing beats in cost, odds, minutes and plastic, and tells them as
/// server-sent events, each a `Front`, while there are more; whoever goes away stops it. One search runs at a time, on every
/// core; nothing is stored.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "explore_ways", get, path = "/shipments/{id}/ways", tag = "plans",
    params(("id" = uuid::Uuid, Path, description = "The shipment"), WaysQuery),
    responses(
        (status = 200, description = "Fronts, the last one `done`; none before there is a plan and it is known where it goes", body = Front, content_type = "text/event-stream"),
        (status = 404, description = "There is no such shipment", body = Problem),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn explore(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    Asked(query): Asked<WaysQuery>,
) -> Result<impl IntoResponse, Problem> {
    if !(1..=MOST).contains(&query.most) {
        let says = format!("{} is out of range: give 1 to {MOST} plans", query.most);
        return Err(vec![Refusal::new("most", says)].into());
    }
    let inputs = desk.stored(id).await?.inputs;
    let house = desk.house().await?;
    let (told, heard) = mpsc::channel::<Front>(WAITING);
    let turns = desk.app.jobs.exploring.turns();
    tokio::spawn(async move {
        let turn = tokio::select! {
            turn = turns.acquire_owned() => turn,
            () = told.closed() => return,
        };
        let telling = told.clone();
        let searched = tokio::task::spawn_blocking(move || {
            match Explorer::of(&inputs, &house.house, query.most) {
                Ok(Some(explorer)) => search(explorer, &telling),
                Ok(None) | Err(_) => Front::NOTHING,
            }
        });
        let found = searched.await;
        // Whoever is slow to read keeps nobody else waiting.
        drop(turn);
        // A search that fails ends its stream, and nothing else.
        if let Ok(front) = found {
            let _ = told.send(front).await;
        }
    });
    let events = stream::unfold(heard, |mut heard| async {
        let front = heard.recv().await?;
        let event = Event::default().json_data(front).ok()?;
        Some((Ok::<_, Infallible>(event), heard))
    });
    let events = events.take_until(Box::pin(desk.until_signed_out()));
    Ok(Sse::new(events).keep_alive(KeepAlive::default()))
}

/// Looks until there is nothing more, or nobody listens, and tells what there is on the way to whoever is quick enough.
fn search(mut explorer: Explorer<'_>, told: &mpsc::Sender<Front>) -> Front {
    let threads = std::thread::available_parallelism().map_or(1, NonZero::get);
    let mut last: Option<Instant> = None;
    while !explorer.is_done() && !told.is_closed() {
        explorer.go_on(threads);
        let due = last.is_none_or(|last| last.elapsed() >= TOLD_EVERY);
        if due && !explorer.is_done() {
            last = Some(Instant::now());
            let _ = told.try_send(explorer.front());
        }
    }
    explorer.front()
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shipments/{id}/ways" => explore,
    ]
}
