//! Days on which a parcel can leave: as its carrier says itself, else as its tariff does.

use axum::Json;
use hummock_core::freight::{OnItsWay, Service, Tariff};
use jiff::civil::{Date, DateTime, Time};
use serde::Serialize;
use uuid::Uuid;

use crate::{
    body::ShipmentId,
    desk::Desk,
    problem::Problem,
    routes::{Routes, routes},
};

/// A day on which parcels leave.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LeavingDay {
    /// The day.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    on: Date,
    /// How many other parcels leave with this carrier on it.
    others: usize,
}

/// Days on which a parcel can leave with its service.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct SlotsView {
    /// Whether the carrier said so itself just now; else they are those of its tariff.
    by_carrier: bool,
    /// The next ones first.
    days: Vec<LeavingDay>,
    /// What is booked until then on one of these days is fetched on it; nothing at a counter.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    cut_off: Option<Time>,
}

/// How many days are offered.
const DAYS: usize = 6;

/// Days on which a parcel can leave: those of its carrier that can still be booked, else working days.
pub(crate) fn next_days(by_tariff: Option<(&Tariff, &Service)>, now: DateTime) -> Vec<Date> {
    if let Some((tariff, service)) = by_tariff {
        return tariff.next_days(service, tariff.first_day(service, now), DAYS);
    }
    let mut days = Vec::with_capacity(DAYS);
    let mut from = now.date();
    while days.len() < DAYS {
        let next = OnItsWay::from_working_day((0, 0), from).handed_over;
        days.push(next);
        match next.tomorrow() {
            Ok(after) => from = after,
            Err(_) => break,
        }
    }
    days
}

impl Desk {
    /// Returns days with what else leaves on them by the same carrier.
    pub(crate) async fn leaving_days(
        &self,
        shipment: Uuid,
        by_tariff: Option<(&Tariff, &Service)>,
        days: Vec<Date>,
    ) -> Result<Vec<LeavingDay>, Problem> {
        let tariff = by_tariff.map(|(tariff, _)| format!("{}/", tariff.id));
        let mut told = Vec::with_capacity(days.len());
        for on in days {
            let there = self.store.leaving_on(on).await?;
            let others = there.iter().filter(|other| {
                let its = |tariff: &str| other.service.starts_with(tariff);
                other.shipment != shipment && tariff.as_deref().is_some_and(its)
            });
            told.push(LeavingDay {
                on,
                others: others.count(),
            });
        }
        Ok(told)
    }

    /// Tells whether a carrier says itself that it takes a parcel on a day.
    pub(crate) async fn takes_on(&self, tariff: &Tariff, service: &Service, on: Date) -> bool {
        let Ok(carriers) = self.carriers().await else {
            return false;
        };
        let slots = carriers.slots(&tariff.id, &service.id, on).await;
        slots.is_ok_and(|slots| slots.days.contains(&on))
    }
}

/// Asks the carrier of the chosen service on which days it takes a parcel, which its tariff need not know: a day may be full, or one
/// may have been added. Where it does not answer, these are the days of its tariff.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_slots", get, path = "/shipments/{id}/slots", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "Days on which it can leave", body = SlotsView),
        (status = 404, description = "There is no such shipment", body = Problem),
    ),
))]
async fn show(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<SlotsView>, Problem> {
    let leaves = desk.to_leave(id).await?;
    let by_tariff = leaves.by_tariff();
    let now = desk.clock.now();
    let today = now.date();
    let said = match by_tariff {
        Some((tariff, service)) => desk
            .carriers()
            .await?
            .slots(&tariff.id, &service.id, today)
            .await
            .ok(),
        None => None,
    };
    let by_carrier = said.is_some();
    let (days, cut_off) = said.map_or_else(
        || {
            let fetched = by_tariff.and_then(|(tariff, service)| tariff.collection_of(service));
            (
                next_days(by_tariff, now),
                fetched.map(|fetched| fetched.cut_off),
            )
        },
        |said| (said.days, said.cut_off),
    );
    // A day that is over is none, whatever a carrier says; nor is one whose cut-off has passed.
    let missed = cut_off.is_some_and(|cut_off| now.time() > cut_off);
    let days = days
        .into_iter()
        .filter(|day| *day > today || *day == today && !missed)
        .take(DAYS)
        .collect();
    Ok(Json(SlotsView {
        by_carrier,
        days: desk.leaving_days(id, by_tariff, days).await?,
        cut_off,
    }))
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shipments/{id}/slots" => show,
    ]
}
