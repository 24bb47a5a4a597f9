//! What the carriers' own services take, beside what their tariffs say.

use axum::Json;
use futures_util::future::join_all;
use hummock_core::shipment::{CarrierAsk, Confirmation};
use serde::Serialize;
use serde_json::Value;

use super::carriers::body_of;
use crate::{
    body::Body,
    desk::Desk,
    plans::PreviewRequest,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
};

/// What the carriers' own services say about a shipment.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CarriersSay {
    /// Whether any is asked here at all.
    asked: bool,
    /// Each service, beside its tariff.
    services: Vec<Confirmation>,
}

/// Asks the carriers' own services what they take, and holds that beside their tariffs; nothing is stored.
///
/// A carrier that does not answer in time, or fails time after time, is left out of it: then the tariff alone is what there is.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "ask_carriers", post, path = "/plans/carriers", tag = "plans", request_body = PreviewRequest,
    responses(
        (status = 200, description = "Nothing before the piece is measured and it is known where it goes", body = CarriersSay),
        (status = 422, description = "Values that were refused, each with its field", body = Problem),
    ),
))]
pub(crate) async fn ask(
    desk: Desk,
    Body(request): Body<PreviewRequest>,
) -> Result<Json<CarriersSay>, Problem> {
    let house = desk.house().await?;
    let inputs = desk.asked_inputs(&house, request.inputs, request.unit)?;
    let carriers = desk.carriers().await?;
    if !carriers.are_there() {
        return Ok(Json(CarriersSay {
            asked: false,
            services: Vec::new(),
        }));
    }
    let at_work = std::sync::Arc::clone(&house);
    let bodies = beside(move || {
        let asks = CarrierAsk::of(&inputs, &at_work.house)?;
        let bodies: Vec<(String, Value)> = asks
            .iter()
            .map(|ask| (ask.tariff.id.clone(), body_of(ask)))
            .collect();
        Ok::<_, Vec<hummock_core::Refusal>>((inputs, bodies))
    });
    let (inputs, bodies) = bodies.await?;
    // All at once: who is away keeps nobody else waiting.
    let asked = bodies.iter().map(async |(tariff, body)| {
        // Who can't be asked at all says nothing, and is not said to be away.
        let is_there = carriers.is_there(tariff);
        let answer = if is_there {
            carriers.rates(tariff, body).await.ok()
        } else {
            None
        };
        (is_there, answer)
    });
    let answers: Vec<_> = join_all(asked).await;
    let services = beside(move || {
        let asks = CarrierAsk::of(&inputs, &house.house)?;
        let beside = asks
            .iter()
            .zip(&answers)
            .filter(|(_, (is_there, _))| *is_there);
        let services = beside.flat_map(|(ask, (_, answer))| ask.beside(answer.as_deref()));
        Ok::<_, Vec<hummock_core::Refusal>>(services.collect())
    });
    Ok(Json(CarriersSay {
        asked: true,
        services: services.await?,
    }))
}

pub(crate) fn routes() -> Routes {
    routes![
        post "/plans/carriers" => ask,
    ]
}
