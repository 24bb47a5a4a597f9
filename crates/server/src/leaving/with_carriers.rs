//! What the studio has booked, laid beside what carriers hold: what is here and not there, and the reverse.

use std::collections::{BTreeSet, HashMap, HashSet};

use axum::{Json, http::StatusCode};
use hummock_core::{
    plan::FIRST,
    quantity::{Currency, Money},
};
use hummock_store::{Booking, BookingMove, BookingState};
use jiff::{ToSpan as _, civil::Date};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{asking::key_of, settling::tariff_of};
use crate::{
    body::Body,
    desk::Desk,
    outside::{Booked, Listed, NoAnswer, Refusal},
    problem::Problem,
};

/// Bookings of parcels that were to leave so many days ago are looked at still; carriers are asked a few days further back, for
/// they may write down another day.
const DAYS_BACK: i64 = 7;
const FURTHER_BACK: i64 = 7;
/// No more bookings are looked at.
const MOST: i64 = 2000;

/// The studio's bookings beside those of its carriers.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct WithCarriersView {
    /// Whether this studio was read in from a backup and asks first whether it speaks to carriers: the one that the backup was made
    /// of may still run. Nothing is asked of any carrier before that is answered.
    held: bool,
    /// Each carrier, and whether it could be asked.
    carriers: Vec<CarrierListView>,
    /// Bookings that are as they should be.
    agree: usize,
    /// Bookings that are not.
    apart: Vec<ApartView>,
}

/// Whether a carrier could be asked what it holds.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CarrierListView {
    /// The carrier's tariff.
    tariff: String,
    /// Its name.
    carrier: String,
    /// What came of asking.
    list: CarrierList,
}

/// What came of asking a carrier for a list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum CarrierList {
    /// It listed what it holds.
    Listed,
    /// It has no such list: its bookings are taken to be as they are here.
    NoList,
    /// It does not answer just now.
    Silent,
}

/// How a booking is other here than there.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum Apart {
    /// It is booked here, and the carrier does not hold it: nobody would fetch it.
    HereOnly,
    /// The carrier holds it, and here it is cancelled, refused or not known: it would be paid for.
    ThereOnly,
    /// The carrier has not answered yet.
    Unanswered,
}

/// A booking that is other here than there.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct ApartView {
    /// How.
    what: Apart,
    /// The carrier's tariff.
    tariff: String,
    /// The carrier's name.
    carrier: String,
    /// By which the carrier knows it: send it to have it settled.
    key: String,
    /// Its shipment; `None` if there is none here.
    shipment: Option<Uuid>,
    /// The title of its shipment, or who it goes to as the carrier has it.
    title: String,
    /// What it is followed by.
    tracking: Option<String>,
    /// The day on which it leaves.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, format = Date))]
    on: Option<Date>,
    /// What the carrier takes, in its own money.
    total: Option<Money>,
}

/// Which booking is to be settled.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct SettleRequest {
    /// The carrier's tariff.
    tariff: String,
    /// By which the carrier knows it.
    key: String,
}

impl Desk {
    async fn with_carriers(&self) -> Result<WithCarriersView, Problem> {
        let held = self.store.is_held().await?;
        let from = self.looked_at_from();
        let here = self.store.bookings_from(from, MOST).await?;
        let house = self.house().await?;
        let mut view = WithCarriersView {
            held,
            carriers: Vec::new(),
            agree: 0,
            apart: Vec::new(),
        };
        let mut ours = Keys::of(self, &here);
        let mut listed: HashMap<String, Vec<Listed>> = HashMap::new();
        if !held && self.carriers().await?.are_there() {
            let carriers = self.carriers().await?;
            let there = house.house.tariffs.iter();
            for tariff in there.filter(|tariff| carriers.is_there(&tariff.id)) {
                let asked = from.saturating_sub(FURTHER_BACK.days());
                let list = match carriers.list(&tariff.id, asked).await {
                    Ok(found) => {
                        listed.insert(tariff.id.clone(), found);
                        CarrierList::Listed
                    }
                    Err(NoAnswer::Refused(refusal)) if has_no_list(&refusal) => CarrierList::NoList,
                    Err(_) => CarrierList::Silent,
                };
                view.carriers.push(CarrierListView {
                    tariff: tariff.id.clone(),
                    carrier: tariff.carrier.clone(),
                    list,
                });
            }
        }
        let known: HashSet<String> = here.iter().map(key_of).collect();
        let others = listed
            .values()
            .flatten()
            .filter(|one| !known.contains(&one.key));
        let ids: Vec<Uuid> = others.filter_map(|one| id_in(&one.key)).collect();
        let elsewhere = self.store.bookings_by_id(&ids).await?;
        ours.learn(&elsewhere);
        for booking in &here {
            let key = key_of(booking);
            let tariff = tariff_of(booking);
            let there = listed.get(tariff);
            let holds = there.map(|all| all.iter().any(|one| one.key == key));
            let what = match (booking.state, holds) {
                (BookingState::Asked | BookingState::Cancelling, _) => Apart::Unanswered,
                (BookingState::Booked, Some(false)) => Apart::HereOnly,
                (BookingState::Refused | BookingState::Cancelled, Some(true)) => Apart::ThereOnly,
                (BookingState::Booked, _) => {
                    view.agree += 1;
                    continue;
                }
                (BookingState::Refused | BookingState::Cancelled, _) => continue,
            };
            let booked = booking.answer.clone();
            let booked = booked.and_then(|answer| serde_json::from_value::<Booked>(answer).ok());
            view.apart.push(ApartView {
                what,
                carrier: self.called(&house.house, tariff),
                tariff: tariff.to_owned(),
                key,
                shipment: Some(booking.shipment),
                title: self.titled(booking.shipment).await?,
                total: booked.as_ref().and_then(total_of),
                tracking: booked.map(|booked| booked.tracking),
                on: Some(booking.leaves_on),
            });
        }
        for (tariff, all) in listed {
            for one in all {
                if known.contains(&one.key) || !ours.are(&one.key) {
                    continue;
                }
                let kept = elsewhere.iter().find(|booking| key_of(booking) == one.key);
                if kept.is_some_and(|kept| kept.state == BookingState::Booked) {
                    view.agree += 1;
                    continue;
                }
                let title = match kept {
                    Some(kept) => self.titled(kept.shipment).await?,
                    None => one.to.first().cloned().unwrap_or_default(),
                };
                view.apart.push(ApartView {
                    what: Apart::ThereOnly,
                    carrier: self.called(&house.house, &tariff),
                    tariff: tariff.clone(),
                    shipment: kept.map(|kept| kept.shipment),
                    title,
                    total: total_of(&one.booked),
                    tracking: Some(one.booked.tracking),
                    on: one.ready_on,
                    key: one.key,
                });
            }
        }
        view.apart.sort_by(|one, other| {
            (one.what, one.on, &one.key).cmp(&(other.what, other.on, &other.key))
        });
        Ok(view)
    }

    /// The first day whose bookings are looked at.
    fn looked_at_from(&self) -> Date {
        self.clock.today().saturating_sub(DAYS_BACK.days())
    }

    fn called(&self, house: &hummock_core::shipment::House, tariff: &str) -> String {
        let known = house.tariffs.iter().find(|known| known.id == tariff);
        known.map_or(tariff, |known| &known.carrier).to_owned()
    }

    async fn titled(&self, shipment: Uuid) -> Result<String, Problem> {
        let stored = self.store.shipment(shipment).await?;
        Ok(stored.map_or_else(String::new, |stored| stored.inputs.title_of(FIRST)))
    }

    /// Makes a booking the same here and there: what the carrier holds and nobody here wants is cancelled there, what it does not
    /// hold is booked here no more, and what it has not answered is asked again.
    async fn settle_apart(&self, request: &SettleRequest) -> Result<(), Problem> {
        let SettleRequest { tariff, key } = request;
        let ids: Vec<Uuid> = id_in(key).into_iter().collect();
        let kept = self.store.bookings_by_id(&ids).await?.pop();
        let kept = kept.filter(|kept| key_of(kept) == *key && tariff_of(kept) == tariff);
        let carriers = self.carriers().await?;
        let silent = |_| Problem::carrier_silent();
        match kept {
            Some(kept) => match kept.state {
                BookingState::Asked | BookingState::Cancelling => self.settle(&kept).await,
                BookingState::Booked => {
                    if carriers.holds(tariff, key).await.map_err(silent)?.is_none() {
                        let says = "the carrier knows nothing of it";
                        let gone = BookingMove::Gone { says };
                        self.store.settle_booking(kept.id, gone).await?;
                    }
                    Ok(())
                }
                BookingState::Refused | BookingState::Cancelled => {
                    carriers.cancel(tariff, key).await.map_err(silent)
                }
            },
            // Made by another studio that this one was read in from, or by nobody that it knows of.
            None => {
                let here = self
                    .store
                    .bookings_from(self.looked_at_from(), MOST)
                    .await?;
                let house = self.house().await?;
                let is_one = house.house.tariffs.iter().any(|one| one.id == *tariff);
                if !is_one || !Keys::of(self, &here).are(key) {
                    return Err(Problem::not_found("booking of that key"));
                }
                carriers.cancel(tariff, key).await.map_err(silent)
            }
        }
    }
}

/// Whether a carrier says that it has nothing of the kind.
fn has_no_list(refusal: &Refusal) -> bool {
    matches!(
        refusal.status,
        StatusCode::NOT_FOUND | StatusCode::METHOD_NOT_ALLOWED
    )
}

fn total_of(booked: &Booked) -> Option<Money> {
    let currency = Currency::try_from(booked.currency.clone()).ok()?;
    Some(Money::new(booked.total, &currency))
}

/// The id of a booking in its key.
fn id_in(key: &str) -> Option<Uuid> {
    let id = key.rsplit_once('.').map_or(key, |(_, id)| id);
    id.parse().ok()
}

/// Which keys are of this studio: a carrier may hold bookings that others made with it.
struct Keys(BTreeSet<String>);

impl Keys {
    fn of(desk: &Desk, bookings: &[Booking]) -> Self {
        let mut keys = Self(BTreeSet::from([desk.studio().to_string()]));
        keys.learn(bookings);
        keys
    }

    /// A studio that was read in from a backup has bookings that another one of its own had made.
    fn learn(&mut self, bookings: &[Booking]) {
        for key in bookings.iter().map(key_of) {
            let studio = key.rsplit_once('.').map(|(studio, _)| studio.to_owned());
            self.0.insert(studio.unwrap_or(key));
        }
    }

    /// Whether a key is a known studio's, with the id of a booking behind it.
    fn are(&self, key: &str) -> bool {
        let studio = key.rsplit_once('.').map_or(key, |(studio, _)| studio);
        id_in(key).is_some() && self.0.contains(studio)
    }
}

/// Lays the studio's bookings of the last week and of all days to come beside those that its carriers hold.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "show_with_carriers", get, path = "/leaving/carriers", tag = "leaving",
    responses((status = 200, description = "What is other here than there", body = WithCarriersView)),
))]
pub(super) async fn show(desk: Desk) -> Result<Json<WithCarriersView>, Problem> {
    Ok(Json(desk.with_carriers().await?))
}

/// Makes a booking the same here and there.
///
/// What the carrier holds and nobody here wants is cancelled there; what is booked here and the carrier knows nothing of is booked here
/// no more, so that it can be booked anew; what it has not answered is asked again.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "settle_with_carrier", post, path = "/leaving/carriers/settle", tag = "leaving", request_body = SettleRequest,
    responses(
        (status = 200, description = "How all of them stand then", body = WithCarriersView),
        (status = 404, description = "No booking of this studio has that key", body = Problem),
        (status = 409, description = "The studio was read in from a backup, and asks first", body = Problem),
        (status = 502, description = "No answer from the carrier, or a refusal", body = Problem),
    ),
))]
pub(super) async fn settle(
    desk: Desk,
    Body(request): Body<SettleRequest>,
) -> Result<Json<WithCarriersView>, Problem> {
    desk.may_speak().await?;
    desk.settle_apart(&request).await?;
    Ok(Json(desk.with_carriers().await?))
}

/// Says that this studio speaks to carriers, once it was read in from a backup; the one that the backup was made of must no longer.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "speak_to_carriers", post, path = "/leaving/carriers/speak", tag = "leaving",
    responses((status = 200, description = "It speaks to them", body = WithCarriersView)),
))]
pub(super) async fn speak(desk: Desk) -> Result<Json<WithCarriersView>, Problem> {
    desk.store.speak().await?;
    Ok(Json(desk.with_carriers().await?))
}
