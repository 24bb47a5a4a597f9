//! The parcel leaves: what is looked at before, its booking with the carrier, and who fetches what on a day.

mod asking;
mod settling;
mod to_leave;
mod views;
mod with_carriers;

pub(crate) use asking::keep_asking;
pub(crate) use to_leave::ToLeave;
pub(crate) use views::{
    BookRequest, BookingView, CollectionView, DayQuery, LeavingParcel, LeavingView, ParcelPaper,
};

use axum::Json;
use hummock_core::{
    sending::{
        Inspection, leaving_checks,
        papers::{MessageSource, letters_lacking, message},
    },
    shipment::Workings,
};
use hummock_store::{Booking, BookingMove, BookingState, Place};
use jiff::civil::Date;
use serde_json::json;
use uuid::Uuid;

use crate::{
    body::{Asked, Body, ShipmentId},
    desk::Desk,
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    shipments::stale,
    slots::next_days,
};

use asking::question;
use to_leave::papers_of;

impl Desk {
    /// Returns all that is known of a shipment that is to leave.
    pub(crate) async fn to_leave(&self, id: Uuid) -> Result<ToLeave, Problem> {
        let stored = self.stored(id).await?;
        let settings = self.store.settings().await?;
        let house = self.house().await?;
        let (inputs, at) = (stored.inputs.clone(), std::sync::Arc::clone(&house));
        let worked = beside(move || Workings::out_or_refused(&inputs, &at.house)).await;
        Ok(ToLeave {
            stored,
            settings,
            house,
            worked,
        })
    }

    async fn leaving(&self, id: Uuid) -> Result<Json<LeavingView>, Problem> {
        let leaves = self.to_leave(id).await?;
        let booking = self.store.last_booking(id).await?;
        let inputs = &leaves.stored.inputs;
        let (gaps, print) = (leaves.gaps(), leaves.print());
        let booked = booking
            .as_ref()
            .filter(|booking| booking.state == BookingState::Booked);
        let checks = leaving_checks(&Inspection {
            inputs,
            summary: leaves.stored.computed.summary.as_ref(),
            today: self.clock.today(),
            telling: leaves.house.house.rules.told_in,
            gaps: &gaps,
            print: &print,
            booked_print: booked.map(|booking| booking.print.as_str()),
            tracking: leaves.tracking(),
            tracked: leaves.chosen().is_none_or(|quote| quote.tracked),
            customs: leaves.customs(),
        });
        let by_tariff = leaves.by_tariff();
        let days = next_days(by_tariff, self.clock.now());
        let days = self.leaving_days(id, by_tariff, days).await?;
        let held = self.store.is_held().await?;
        let leaves_on = booked
            .map(|booking| booking.leaves_on)
            .or(inputs.leaves_on());
        let carrier = leaves.service_called();
        let source = MessageSource {
            studio: &leaves.settings.name,
            carrier: &carrier,
            tracking: leaves.tracking(),
            on: leaves_on,
            way: inputs
                .handed_over()
                .or(leaves_on)
                .and_then(|on| leaves.way(on)),
            telling: leaves.house.house.rules.told_in,
        };
        let told = (!carrier.is_empty()).then(|| message(inputs, source));
        let ends = leaves.ends();
        let both = [ends.from.as_slice(), ends.to.as_slice()].concat();
        Ok(Json(LeavingView {
            letters_lacking: letters_lacking(&both),
            from: ends.from,
            to: ends.to,
            abroad: leaves.abroad(),
            customs: leaves.customs(),
            ready: checks.iter().all(|check| check.done || !check.needed),
            checks,
            gaps,
            print,
            handover: leaves.chosen().map(|quote| quote.handover),
            days,
            cut_off: by_tariff
                .and_then(|(tariff, service)| tariff.collection_of(service))
                .map(|fetched| fetched.cut_off),
            bookable: match by_tariff {
                Some((tariff, _)) => !held && self.carriers().await?.is_there(&tariff.id),
                None => false,
            },
            held,
            papers: papers_of(&leaves),
            booking: booking.map(BookingView::of),
            message: told,
        }))
    }

    /// Returns what leaves on a day, carrier by carrier.
    pub(crate) async fn leaving_on(&self, on: Date) -> Result<Vec<CollectionView>, Problem> {
        let house = self.house().await?;
        let mut collections: Vec<CollectionView> = Vec::new();
        for booking in self.store.leaving_on(on).await? {
            let Some(stored) = self.store.shipment(booking.shipment).await? else {
                continue;
            };
            if stored.place == Place::Bin {
                continue;
            }
            let (tariff, service) = booking.service.split_once('/').unwrap_or_default();
            let known = house.house.tariff_and_service(&booking.service);
            let carrier = known.map_or(tariff, |(tariff, _)| &tariff.carrier);
            let summary = stored.computed.summary.as_ref();
            let mass = summary.map_or(0.0, |summary| {
                let read = summary.weighed.filter(|weighed| weighed.stands);
                read.map_or(summary.weight.mass, |weighed| weighed.mass)
                    .as_g()
            });
            let buyer = &stored.inputs.buyer;
            let to = [buyer.name.trim(), buyer.town.trim()]
                .into_iter()
                .filter(|text| !text.is_empty());
            let parcel = LeavingParcel {
                shipment: stored.id,
                title: stored.inputs.title_of(hummock_core::plan::FIRST),
                to: to.collect::<Vec<_>>().join(", "),
                service: known
                    .map_or(service, |(_, service)| &service.name)
                    .to_owned(),
                tracking: stored.tracking.clone().unwrap_or_default(),
                mass_g: mass,
                handed_over: stored.inputs.sending.handed_over.clone(),
                version: stored.version,
            };
            match collections.iter_mut().find(|known| known.tariff == tariff) {
                Some(collection) => {
                    collection.mass_g += mass;
                    collection.parcels.push(parcel);
                }
                None => collections.push(CollectionView {
                    tariff: tariff.to_owned(),
                    carrier: carrier.to_owned(),
                    parcels: vec![parcel],
                    mass_g: mass,
                }),
            }
        }
        Ok(collections)
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
async fn show(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<LeavingView>, Problem> {
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
) -> Result<Json<LeavingView>, Problem> {
    if let Some(known) = desk.store.booking_by_id(request.id).await? {
        if known.shipment != id {
            return Err(Problem::booked_already());
        }
        desk.settle(&known).await?;
        return desk.leaving(id).await;
    }
    desk.may_speak().await?;
    let leaves = desk.to_leave(id).await?;
    if leaves.stored.version != request.version {
        return Err(stale(request.version, &desk.view(leaves.stored)));
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
    };
    let standing = desk.store.begin_booking(&booking).await?;
    if standing.id != request.id {
        return Err(Problem::booked_already());
    }
    desk.settle(&standing).await?;
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
async fn cancel(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<LeavingView>, Problem> {
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

/// Returns what is booked to leave on a day, carrier by carrier.
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
