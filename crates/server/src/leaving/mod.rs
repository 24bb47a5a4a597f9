//! The parcel leaves: what is looked at before, its booking with the carrier, and who fetches what on a day.

mod asking;
mod on_a_day;
mod settling;
mod to_leave;
mod views;
mod with_carriers;

pub(crate) use asking::keep_asking;
pub(crate) use to_leave::{Facts, Live, ToLeave};
pub(crate) use views::{
    BookRequest, BookingView, CollectionView, DayQuery, LeavingTold, LeavingView, ParcelPaper,
};

use axum::Json;
use hummock_core::{
    sending::{
        Inspection, leaving_checks,
        papers::{MessageSource, letters_lacking, message},
    },
    shipment::Workings,
};
use hummock_store::{Booking, BookingMove, BookingState, Place, Stored};
use serde_json::json;
use uuid::Uuid;

use crate::{
    body::{Asked, Body, ShipmentId},
    desk::Desk,
    outside::CarrierReach,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    shipments::stale,
    slots::next_days,
};

use asking::question;

impl Desk {
    /// Returns all that is known of a shipment that is to leave.
    pub(crate) async fn to_leave(&self, id: Uuid) -> Result<ToLeave, Problem> {
        let stored = self.stored(id).await?;
        match self.record_of(&stored).await? {
            None => self.leaves_now(stored).await,
            Some(found) => {
                let settings = self.store.settings().await?;
                let house = self.house().await?;
                let record = found.whole().cloned();
                Ok(ToLeave::left(stored, record, (settings, &house)))
            }
        }
    }

    /// Returns the same by the house as it is now, whether it has left or not.
    pub(crate) async fn leaves_now(&self, stored: Stored) -> Result<ToLeave, Problem> {
        let settings = self.store.settings().await?;
        let house = self.house().await?;
        let (inputs, at) = (stored.inputs.clone(), std::sync::Arc::clone(&house));
        let worked = beside(move || Workings::out_or_refused(&inputs, &at.house)).await;
        Ok(ToLeave::at_work(stored, settings, Live { house, worked }))
    }

    async fn leaving(&self, id: Uuid) -> Result<Json<LeavingTold>, Problem> {
        let leaves = self.to_leave(id).await?;
        let then = leaves.record().and_then(|record| {
            // What was written down of it since is looked at anew.
            let sending = &record.inputs()?.sending;
            let told = record.told.leaving.as_ref();
            told.filter(|_| *sending == leaves.stored.inputs.sending)
        });
        let Some(mut told) = then.cloned() else {
            let now = self.leaving_now(&leaves).await?;
            return Ok(Json(LeavingTold::Now(Box::new(now))));
        };
        let booking = self.store.last_booking(id).await?;
        told["booking"] = json!(booking.map(BookingView::of));
        told["held"] = json!(self.store.is_held().await?);
        Ok(Json(LeavingTold::Then(told)))
    }

    /// Returns how a parcel stands, by what is known of it.
    pub(crate) async fn leaving_now(&self, leaves: &ToLeave) -> Result<LeavingView, Problem> {
        let id = leaves.stored.id;
        let booking = self.store.last_booking(id).await?;
        let inputs = &leaves.stored.inputs;
        let (gaps, print) = (leaves.gaps(), leaves.print());
        let booked = booking
            .as_ref()
            .filter(|booking| booking.state == BookingState::Booked);
        let by_tariff = leaves.by_tariff();
        let held = self.store.is_held().await?;
        let carriers = self.carriers().await?;
        let reach = by_tariff.map_or(CarrierReach::None, |(tariff, _)| carriers.reach(&tariff.id));
        let bookable = !held && reach != CarrierReach::None;
        let checks = leaving_checks(&Inspection {
            inputs,
            summary: leaves.stored.computed.summary.as_ref(),
            today: self.clock.today(),
            telling: leaves.telling(),
            gaps: &gaps,
            print: &print,
            booked_print: booked.map(|booking| booking.print.as_str()),
            tracking: leaves.tracking(),
            tracked: leaves.chosen().is_none_or(|chosen| chosen.tracked),
            bookable,
            customs: leaves.customs(),
        });
        let days = next_days(by_tariff, self.clock.now());
        let days = self.leaving_days(id, by_tariff, days).await?;
        let leaves_on = booked
            .map(|booking| booking.leaves_on)
            .or(inputs.leaves_on());
        let carrier = leaves.service_called();
        let source = MessageSource {
            studio: &leaves.facts.settings.name,
            carrier: &carrier,
            tracking: leaves.tracking(),
            on: leaves_on,
            way: inputs
                .handed_over()
                .or(leaves_on)
                .and_then(|on| leaves.way(on)),
            telling: leaves.telling(),
        };
        let told = (!carrier.is_empty()).then(|| message(inputs, source));
        let ends = leaves.ends();
        let both = [ends.from.as_slice(), ends.to.as_slice()].concat();
        Ok(LeavingView {
            letters_lacking: letters_lacking(&both),
            from: ends.from,
            to: ends.to,
            abroad: leaves.abroad(),
            customs: leaves.customs(),
            ready: checks.iter().all(|check| check.done || !check.needed),
            checks,
            gaps,
            print,
            handover: leaves.chosen().map(|chosen| chosen.handover),
            days,
            cut_off: by_tariff
                .and_then(|(tariff, service)| tariff.collection_of(service))
                .map(|fetched| fetched.cut_off),
            bookable,
            reach,
            held,
            papers: leaves.papers(),
            booking: booking.map(BookingView::of),
            message: told,
        })
    }
}

/// Returns what is looked at before a parcel leaves, its booking, and what its buyer is told.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_leaving", get, path = "/shipments/{id}/leaving", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "As it stands", body = LeavingView),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
async fn show(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<LeavingTold>, Problem> {
    desk.leaving(id).await
}

/// Books the chosen service for a day, once: asked again by the same id, by anybody, however the answer was lost, it is one booking.
///
/// The question is written down before the carrier is asked. Where no answer comes, the booking stands as `asked`, and is asked again by
/// itself until the carrier says yes or no.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "book", post, path = "/shipments/{id}/booking", tag = "leaving", request_body = BookRequest,
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "As it stands: booked, refused, or still asked", body = LeavingView),
        (status = 404, description = "There is no such shipment", body = Problem),
        (status = 409, description = "It changed since, or is booked already; or the studio was read in from a backup, and asks first", body = Problem),
        (status = 422, description = "What is missing before it can be booked, each with its field", body = Problem),
    ),
))]
async fn book(
    desk: Desk,
    ShipmentId(id): ShipmentId,
    Body(request): Body<BookRequest>,
) -> Result<Json<LeavingTold>, Problem> {
    if let Some(known) = desk.store.booking_by_id(request.id).await? {
        if known.shipment != id {
            return Err(Problem::booked_already());
        }
        desk.press(&known).await?;
        return desk.leaving(id).await;
    }
    desk.may_speak().await?;
    let leaves = desk.to_leave(id).await?;
    if leaves.stored.version != request.version {
        return Err(stale(request.version, &desk.view(leaves.stored).await?));
    }
    if leaves.stored.place != Place::Bench {
        return Err(Problem::put_away());
    }
    let mut question = question(&desk, &leaves, request.on).await?;
    question["key"] = json!(format!("{}.{}", desk.studio(), request.id));
    let service = leaves.stored.inputs.service.clone().unwrap_or_default();
    let booking = Booking {
        id: request.id,
        shipment: id,
        service,
        state: BookingState::Asked,
        question,
        leaves_on: request.on,
        print: leaves.print(),
        answer: None,
        events: json!([]),
        says: None,
        tries: 0,
        looks: None,
    };
    let standing = desk.store.begin_booking(&booking).await?;
    if standing.id != request.id && !standing.is_unanswered_for(&booking) {
        return Err(Problem::booked_already());
    }
    desk.press(&standing).await?;
    desk.leaving(id).await
}

/// Cancels the booking of a parcel that has not left.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "cancel_booking", delete, path = "/shipments/{id}/booking", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "As it stands: cancelled, or still to be forgotten by the carrier", body = LeavingView),
        (status = 404, description = "There is no such shipment, or nothing is booked", body = Problem),
        (status = 409, description = "It has left; or the studio was read in from a backup, and asks first", body = Problem),
    ),
))]
async fn cancel(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<LeavingTold>, Problem> {
    let stored = desk.stored(id).await?;
    if stored.place != Place::Bench {
        return Err(Problem::put_away());
    }
    let booking = desk.store.booking(id).await?;
    let booking = booking.ok_or_else(|| Problem::not_found("booking"))?;
    desk.may_speak().await?;
    let asked = BookingMove::CancelAsked(booking.state);
    let moved = desk.store.settle_booking(booking.id, asked).await?;
    if let Some(moved) = moved {
        desk.settle(&moved).await?;
    }
    desk.leaving(id).await
}

/// Returns what leaves on a day, carrier by carrier: what is booked for it, and what is handed over without a booking.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "list_leaving", get, path = "/leaving", tag = "leaving", params(DayQuery),
    responses((status = 200, description = "A collection for each carrier", body = [CollectionView])),
))]
async fn day(
    desk: Desk,
    Asked(query): Asked<DayQuery>,
) -> Result<Json<Vec<CollectionView>>, Problem> {
    desk.leaving_on(query.on).await.map(Json)
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shipments/{id}/leaving" => show,
        post "/shipments/{id}/booking" => book,
        delete "/shipments/{id}/booking" => cancel,
        get "/leaving" => day,
        get "/leaving/carriers" => with_carriers::show,
        post "/leaving/carriers/settle" => with_carriers::settle,
        post "/leaving/carriers/speak" => with_carriers::speak,
    ]
}
