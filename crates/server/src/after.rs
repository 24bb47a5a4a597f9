//! What comes of a parcel: where it is, until when a claim is heard, how it turned out beside the plan, and what was learned.

use axum::Json;
use hummock_core::{
    odds::PieceClass,
    sending::{Deadline, Fate, ParcelBeside, TrackedParcel, TrackingEvent},
    shipment::Outcome,
};
use hummock_store::{BookingState, Stored};
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::{
    body::ShipmentId,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// What comes of a parcel.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct AfterView {
    /// How it turned out beside the plan; `None` before it was handed over.
    beside: Option<ParcelBeside>,
    /// What the carrier says, the first thing first.
    events: Vec<TrackingEvent>,
    /// What follows from that today.
    following: TrackedParcel,
    /// Whether the carrier answered just now; else this is what it said the last time.
    answered: bool,
    /// Whether its carrier can be asked at all.
    followed: bool,
    /// Until when damage or loss is heard; `None` while neither can be claimed.
    deadline: Option<Deadline>,
    /// The last day on which it was to arrive, by its carrier's calendar.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    expected: Option<Date>,
    /// Whether that day is over, and nobody said that it arrived.
    overdue: bool,
    /// Whether it goes to another country.
    abroad: bool,
    /// Whether it meets customs on its way, which ask for a paper.
    customs: bool,
}

/// Something that was learned from an earlier parcel.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LessonView {
    /// Its shipment.
    shipment: Uuid,
    /// The piece.
    title: String,
    /// The day on which it left.
    on: Option<String>,
    /// What came of it.
    outcome: Option<Outcome>,
    /// The layer that failed, by its name.
    failed: Option<&'static str>,
    /// What to do otherwise.
    says: String,
}

/// What of a plan says which lessons are about a like piece.
#[derive(Deserialize)]
struct PlanWorked {
    plan: PlanOdds,
}

#[derive(Deserialize)]
struct PlanOdds {
    odds: OddsClass,
}

#[derive(Deserialize)]
struct OddsClass {
    class: PieceClass,
}

/// How many of the newest lessons are shown.
const MOST_LESSONS: usize = 5;
/// How many of the newest parcels with a lesson are looked through.
const LOOKED_THROUGH: i64 = 400;

impl Desk {
    /// Returns what a carrier says of a parcel: just now, or the last time that it answered.
    pub(crate) async fn followed(
        &self,
        stored: &Stored,
    ) -> Result<(Vec<TrackingEvent>, bool, bool), Problem> {
        let booking = self.store.booking(stored.id).await?;
        let Some(booking) = booking.filter(|booking| booking.state == BookingState::Booked) else {
            return Ok((Vec::new(), false, false));
        };
        let known: Vec<TrackingEvent> =
            serde_json::from_value(booking.events.clone()).unwrap_or_default();
        let Some(number) = &stored.tracking else {
            return Ok((known, false, false));
        };
        let (tariff, _) = booking.service.split_once('/').unwrap_or_default();
        let carriers = self.carriers().await?;
        match carriers.follow(tariff, number, self.clock.today()).await {
            Ok(events) => {
                let told = serde_json::to_value(&events).unwrap_or_default();
                self.store.keep_events(booking.id, &told).await?;
                Ok((events, true, true))
            }
            Err(_) => Ok((known, false, true)),
        }
    }
}

/// Returns where a parcel is, until when a claim is heard, and how it turned out beside the plan.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_after", get, path = "/shipments/{id}/after", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "As it stands today", body = AfterView),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
async fn show(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<AfterView>, Problem> {
    let stored = desk.stored(id).await?;
    let (events, answered, followed) = desk.followed(&stored).await?;
    let today = desk.clock.today();
    let leaves = desk.to_leave(id).await?;
    let inputs = &stored.inputs;
    let handed = stored.handed.as_ref();
    let service = handed
        .and_then(|handed| handed.service.as_deref())
        .and_then(|service| leaves.facts.service(service));
    let expected = inputs
        .handed_over()
        .zip(service)
        .map(|(left, (tariff, service))| {
            tariff
                .on_its_way(service, (service.days_from, service.days_to), left)
                .latest
        });
    let following = TrackedParcel::of(&events, today);
    let on_its_way = inputs.after.outcome.is_none()
        && !matches!(
            following.fate,
            Fate::Arrived | Fate::Damaged | Fate::Returned
        );
    Ok(Json(AfterView {
        beside: handed.map(|handed| ParcelBeside::of(handed, inputs)),
        following,
        answered,
        followed,
        deadline: handed.and_then(|handed| {
            Deadline::of_parcel(
                inputs,
                handed,
                &events,
                leaves.facts.tariff.as_slice(),
                today,
            )
        }),
        overdue: on_its_way && expected.is_some_and(|expected| expected < today),
        expected,
        events,
        abroad: leaves.abroad(),
        customs: leaves.customs(),
    }))
}

/// Returns what was learned from earlier parcels of a like kind, the last one first.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_lessons", get, path = "/shipments/{id}/lessons", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "Up to five; none before there is a plan", body = [LessonView]),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
async fn lessons(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<Vec<LessonView>>, Problem> {
    let stored = desk.stored(id).await?;
    let worked: Option<PlanWorked> = stored.computed.worked.parts();
    let Some(class) = worked.map(|worked| worked.plan.odds.class) else {
        return Ok(Json(Vec::new()));
    };
    let learned = desk.store.with_lessons(LOOKED_THROUGH).await?;
    let alike = learned
        .into_iter()
        .filter(|(other, _, handed)| *other != id && handed.class == class);
    let told = alike
        .take(MOST_LESSONS)
        .map(|(shipment, inputs, _)| LessonView {
            shipment,
            title: inputs.title_of(hummock_core::plan::FIRST),
            on: inputs.sending.handed_over.clone(),
            outcome: inputs.after.outcome,
            failed: inputs
                .after
                .failed
                .map(hummock_core::space::LayerSlot::name),
            says: inputs.after.lesson.trim().to_owned(),
        });
    Ok(Json(told.collect()))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shipments/{id}/after" => show,
        get "/shipments/{id}/lessons" => lessons,
    ]
}
