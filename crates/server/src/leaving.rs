//! The parcel leaves: what is looked at before, its booking with the carrier, and who fetches what on a day.

use std::time::Duration;

use axum::Json;
use hummock_core::{
    Refusal,
    freight::{Handover, OnItsWay, Quote, Service, Tariff},
    quantity::{Currency, Mass, Money},
    sending::{
        AddressGap, AddressOf, LeavingCheck, LookedOver, address_print, leaving_checks,
        papers::{Ends, Message, MessageSource, message},
    },
    shipment::{CarrierAsk, Worked},
};
use hummock_store::{
    Booking, BookingMove, BookingState, HouseAt, Place, Settings, StoreError, Stored,
};
use jiff::civil::{Date, Time};
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use uuid::Uuid;

use crate::{
    app::App,
    body::{Asked, Body, ShipmentId},
    desk::Desk,
    network::Caller,
    outside::{Booked, NoAnswer, body_of},
    problem::Problem,
    rework::beside,
    routes::{Routes, routes},
    shipments::stale,
    slots::{LeavingDay, next_days},
};

/// A parcel that is to leave.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LeavingView {
    /// Who sends, line by line, as the custom there has it.
    from: Vec<String>,
    /// Who gets it.
    to: Vec<String>,
    /// What either address wants.
    gaps: Vec<AddressGap>,
    /// What both addresses are known by: send it as `sending.addresses_read` once they were read.
    print: String,
    /// Whether it goes to another country.
    abroad: bool,
    /// What is looked at before it leaves.
    checks: Vec<LeavingCheck>,
    /// Whether all that is needed is so.
    ready: bool,
    /// How it leaves with its service; nothing before one is chosen.
    handover: Option<Handover>,
    /// Days on which it can leave, the next ones first.
    days: Vec<LeavingDay>,
    /// What is booked until then on one of these days is fetched on it; nothing at a counter.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>))]
    cut_off: Option<Time>,
    /// Whether it can be booked from here: its service has a tariff, and its carrier can be asked.
    bookable: bool,
    /// The last booking, whatever came of it.
    booking: Option<BookingView>,
    /// A message to the buyer, ready to be copied.
    message: Message,
    /// The papers that it can have.
    papers: Vec<ParcelPaper>,
}

/// A paper of a parcel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum ParcelPaper {
    /// 100 × 150 mm.
    Label,
    /// The same on A4.
    LabelA4,
    /// Handling marks for every side.
    Marks,
    /// What is in it, without a price.
    Slip,
    /// Certificates of authenticity, on the studio's own card.
    Certificate,
    /// How it looked before it was packed.
    Condition,
    /// For customs.
    Customs,
    /// What a crating service has to know.
    Crating,
    /// All that a carrier asks for after damage or loss.
    Claim,
}

/// How a booking stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum BookingStands {
    /// The carrier was asked and has not answered; it is asked again by itself, and books once.
    Asked,
    /// It is booked.
    Booked,
    /// The carrier does not take it.
    Refused,
    /// The carrier was asked to forget it.
    Cancelling,
    /// It is booked no more.
    Cancelled,
}

/// What a carrier was asked to book.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct BookingView {
    /// Which.
    id: Uuid,
    /// As `gannet-post/parcel`.
    service: String,
    /// How it stands.
    state: BookingStands,
    /// The day on which it leaves.
    on: String,
    /// What it is followed by.
    tracking: Option<String>,
    /// What the carrier takes, in its own money.
    total: Option<Money>,
    /// What its tariff said when it was booked.
    by_tariff: Option<Money>,
    /// Whether these two differ.
    differs: bool,
    /// Why it does not take it.
    says: Option<String>,
}

/// What is booked.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub(crate) struct BookRequest {
    /// Chosen by the caller: asked again by it, it is the same booking.
    id: Uuid,
    /// The version of the shipment that was looked at.
    version: i32,
    /// The day on which it leaves.
    #[cfg_attr(feature = "schema", schema(value_type = String, format = Date))]
    on: Date,
}

/// Which day.
#[derive(Debug, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::IntoParams))]
#[cfg_attr(feature = "schema", into_params(parameter_in = Query))]
#[serde(deny_unknown_fields)]
pub(crate) struct DayQuery {
    /// As 2027-03-05.
    #[cfg_attr(feature = "schema", param(value_type = String, format = Date))]
    pub(crate) on: Date,
}

/// What leaves on a day with one carrier.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct CollectionView {
    /// The carrier's tariff.
    pub(crate) tariff: String,
    /// Its name.
    pub(crate) carrier: String,
    /// Every parcel.
    pub(crate) parcels: Vec<LeavingParcel>,
    /// What they weigh together.
    mass_g: f64,
}

/// A parcel that leaves on a day.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub(crate) struct LeavingParcel {
    /// Its shipment.
    pub(crate) shipment: Uuid,
    /// The piece.
    pub(crate) title: String,
    /// Who gets it, and where.
    pub(crate) to: String,
    /// The service.
    pub(crate) service: String,
    /// What it is followed by.
    pub(crate) tracking: String,
    /// What it weighs: as the scale read it, else as planned.
    pub(crate) mass_g: f64,
    /// The day on which it was handed over; nothing before that.
    handed_over: Option<String>,
    /// The version of the shipment, to hand it over by.
    version: i32,
}

/// A carrier that did not answer is asked again after this.
const ASK_AGAIN: Duration = Duration::from_secs(15);
const ASKED_AT_ONCE: i64 = 20;

/// What is known of a shipment that is to leave.
pub(crate) struct ToLeave {
    pub(crate) stored: Stored,
    pub(crate) settings: Settings,
    pub(crate) house: std::sync::Arc<HouseAt>,
    pub(crate) worked: Worked,
}

impl ToLeave {
    /// Returns both ends, as papers have them.
    pub(crate) fn ends(&self) -> Ends {
        let (from, to) = (&self.settings.sender.address, &self.stored.inputs.buyer);
        Ends {
            from: self
                .settings
                .form_of(&from.country)
                .lines(from, self.abroad()),
            to: self.settings.form_of(&to.country).lines(to, self.abroad()),
        }
    }

    pub(crate) fn abroad(&self) -> bool {
        self.settings.is_abroad(&self.stored.inputs.buyer.country)
    }

    fn gaps(&self) -> Vec<AddressGap> {
        let (from, to) = (&self.settings.sender.address, &self.stored.inputs.buyer);
        let mut gaps = self
            .settings
            .form_of(&to.country)
            .gaps(to, AddressOf::Buyer);
        gaps.extend(
            self.settings
                .form_of(&from.country)
                .gaps(from, AddressOf::Sender),
        );
        gaps
    }

    fn print(&self) -> String {
        address_print(&self.settings.sender.address, &self.stored.inputs.buyer)
    }

    /// The service that was chosen, as it is priced, where it takes the parcel.
    pub(crate) fn chosen(&self) -> Option<&Quote> {
        let id = self.stored.inputs.service.as_deref()?;
        let mut quotes = self.worked.quotes.iter();
        quotes.find(|quote| quote.id == id && quote.total().is_some())
    }

    pub(crate) fn by_tariff(&self) -> Option<(&Tariff, &Service)> {
        self.house.house.tariff_and_service(&self.chosen()?.id)
    }

    /// Carrier and service, by their names.
    pub(crate) fn service_called(&self) -> String {
        match (&self.stored.handed, self.chosen()) {
            (Some(handed), _) => {
                let named = [handed.carrier.as_deref(), handed.service_name.as_deref()];
                named.into_iter().flatten().collect::<Vec<_>>().join(" ")
            }
            (None, Some(quote)) => format!("{} {}", quote.carrier, quote.service),
            (None, None) => String::new(),
        }
    }

    pub(crate) fn tracking(&self) -> Option<&str> {
        let typed = self.stored.inputs.sending.tracking.trim();
        let typed = (!typed.is_empty()).then_some(typed);
        self.stored.tracking.as_deref().or(typed)
    }

    /// What the closed parcel weighs: as it was read, else as planned; of one that has left, as it was then.
    pub(crate) fn mass(&self) -> Option<Mass> {
        if let Some(handed) = &self.stored.handed {
            return handed.weighed.or(Some(handed.weight.mass));
        }
        let found = self.worked.found.as_ref().filter(|found| found.stands);
        let planned = self.worked.plan.as_ref().map(|plan| plan.tally.weight.mass);
        found.and_then(|found| found.mass).or(planned)
    }

    /// When it leaves, and when it arrives by its carrier's calendar.
    fn way(&self, on: Date) -> Option<OnItsWay> {
        let quote = self.chosen()?;
        let days = (quote.days_from, quote.days_to);
        Some(match self.by_tariff() {
            Some((tariff, service)) => tariff.on_its_way(service, days, on),
            None => OnItsWay::from_working_day(days, on),
        })
    }
}

impl BookingView {
    fn of(booking: Booking) -> Self {
        let answer: Option<Booked> = booking
            .answer
            .and_then(|answer| serde_json::from_value(answer).ok());
        let money = |amount: Decimal, code: &str| {
            let currency = Currency::try_from(code.to_owned()).ok()?;
            Some(Money::new(amount, &currency))
        };
        let asked = &booking.question["by_tariff"];
        let by_tariff = asked["amount"]
            .as_str()
            .and_then(|amount| amount.parse().ok())
            .zip(asked["currency"].as_str())
            .and_then(|(amount, code)| money(amount, code));
        let total = answer
            .as_ref()
            .and_then(|booked| money(booked.total, &booked.currency));
        let stands = match booking.state {
            BookingState::Asked => BookingStands::Asked,
            BookingState::Booked => BookingStands::Booked,
            BookingState::Refused => BookingStands::Refused,
            BookingState::Cancelling => BookingStands::Cancelling,
            BookingState::Cancelled => BookingStands::Cancelled,
        };
        Self {
            id: booking.id,
            service: booking.service,
            state: stands,
            on: booking.leaves_on.to_string(),
            tracking: answer.map(|booked| booked.tracking),
            differs: total.is_some() && total != by_tariff,
            total,
            by_tariff,
            says: booking.says,
        }
    }
}

impl Desk {
    /// Returns all that is known of a shipment that is to leave.
    pub(crate) async fn to_leave(&self, id: Uuid) -> Result<ToLeave, Problem> {
        let stored = self.stored(id).await?;
        let settings = self.store.settings().await?;
        let house = self.house().await?;
        let (inputs, at) = (stored.inputs.clone(), std::sync::Arc::clone(&house));
        let worked = beside(move || Worked::out_or_refused(&inputs, &at.house)).await;
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
        let checks = leaving_checks(&LookedOver {
            inputs,
            summary: leaves.stored.computed.summary.as_ref(),
            gaps: &gaps,
            print: &print,
            booked_print: booked.map(|booking| booking.print.as_str()),
            tracking: leaves.tracking(),
            tracked: leaves.chosen().is_none_or(|quote| quote.tracked),
            abroad: leaves.abroad(),
        });
        let today = self.app.clock.today();
        let by_tariff = leaves.by_tariff();
        let days = next_days(by_tariff, today);
        let days = self.leaving_days(id, by_tariff, days).await?;
        let leaves_on = booked
            .map(|booking| booking.leaves_on)
            .or(inputs.leaves_on());
        let told = message(
            inputs,
            MessageSource {
                studio: &leaves.settings.name,
                carrier: &leaves.service_called(),
                tracking: leaves.tracking(),
                on: leaves_on,
                way: inputs
                    .handed_over()
                    .or(leaves_on)
                    .and_then(|on| leaves.way(on)),
            },
        );
        let ends = leaves.ends();
        Ok(Json(LeavingView {
            from: ends.from,
            to: ends.to,
            abroad: leaves.abroad(),
            ready: checks.iter().all(|check| check.done || !check.needed),
            checks,
            gaps,
            print,
            handover: leaves.chosen().map(|quote| quote.handover),
            days,
            cut_off: by_tariff
                .and_then(|(tariff, service)| tariff.collection_of(service))
                .map(|fetched| fetched.cut_off),
            bookable: by_tariff.is_some() && self.carriers().are_there(),
            papers: papers_of(&leaves),
            booking: booking.map(BookingView::of),
            message: told,
        }))
    }

    /// Asks a carrier about a booking that waits for its answer, and writes down what it says; however often, by however many.
    pub(crate) async fn settle(&self, booking: &Booking) -> Result<(), Problem> {
        let Some((tariff, _)) = booking.service.split_once('/') else {
            return Ok(());
        };
        let key = key_of(booking);
        match booking.state {
            BookingState::Asked => match self
                .carriers()
                .book(tariff, &key, &booking.question["asks"])
                .await
            {
                Ok(booked) => {
                    let answer = serde_json::to_value(&booked).unwrap_or_default();
                    let settled = BookingMove::Booked {
                        answer: &answer,
                        tracking: &booked.tracking,
                    };
                    self.store.settle_booking(booking.id, settled).await?;
                }
                Err(NoAnswer::Refused(_, says)) => {
                    let settled = BookingMove::Refused { says: &says };
                    self.store.settle_booking(booking.id, settled).await?;
                }
                Err(NoAnswer::Away | NoAnswer::Resting) => {}
            },
            BookingState::Cancelling => match self.carriers().cancel(tariff, &key).await {
                Ok(()) => {
                    let settled = BookingMove::Cancelled;
                    self.store.settle_booking(booking.id, settled).await?;
                }
                // It has gone by then: it stays booked.
                Err(NoAnswer::Refused(_, says)) => {
                    let answer: Option<Booked> = booking
                        .answer
                        .clone()
                        .and_then(|answer| serde_json::from_value(answer).ok());
                    let settled = BookingMove::KeptBooked {
                        says: &says,
                        tracking: answer.as_ref().map(|booked| booked.tracking.as_str()),
                    };
                    self.store.settle_booking(booking.id, settled).await?;
                }
                Err(NoAnswer::Away | NoAnswer::Resting) => {}
            },
            BookingState::Booked | BookingState::Refused | BookingState::Cancelled => {}
        }
        Ok(())
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

fn papers_of(leaves: &ToLeave) -> Vec<ParcelPaper> {
    let inputs = &leaves.stored.inputs;
    let planned = leaves.worked.plan.is_some();
    let has_certificate =
        inputs.piece.certificate || inputs.others.values().any(|other| other.piece.certificate);
    [
        (ParcelPaper::Label, leaves.tracking().is_some()),
        (ParcelPaper::LabelA4, leaves.tracking().is_some()),
        (ParcelPaper::Marks, true),
        (ParcelPaper::Slip, true),
        (ParcelPaper::Certificate, has_certificate),
        (ParcelPaper::Condition, true),
        (ParcelPaper::Customs, leaves.abroad()),
        (ParcelPaper::Crating, planned),
        (ParcelPaper::Claim, leaves.stored.handed.is_some()),
    ]
    .into_iter()
    .filter(|(_, there)| *there)
    .map(|(paper, _)| paper)
    .collect()
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
        (status = 409, description = "It changed since, or is booked already", body = Problem),
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

/// Returns what a carrier knows a booking by: studio and booking together, for ids are chosen by whoever books. One that was begun
/// before studios were told apart keeps its own id.
fn key_of(booking: &Booking) -> String {
    let key = booking.question["key"].as_str().map(str::to_owned);
    key.unwrap_or_else(|| booking.id.to_string())
}

/// Returns the very question that a carrier is asked, with what its tariff says beside it.
async fn question(desk: &Desk, leaves: &ToLeave, on: Date) -> Result<Value, Problem> {
    let refused = |field: &str, says: &str| Problem::from(vec![Refusal::new(field, says)]);
    let gaps = leaves.gaps();
    if !gaps.is_empty() {
        let refusals = gaps
            .into_iter()
            .map(|gap| Refusal::new(gap.field, gap.says));
        return Err(refusals.collect::<Vec<_>>().into());
    }
    let quote = leaves.chosen().ok_or_else(|| {
        refused(
            "service",
            "choose a service that takes it first, under Price",
        )
    })?;
    let (tariff, service) = leaves.by_tariff().ok_or_else(|| {
        refused(
            "service",
            "a price that somebody quoted is booked with whoever quoted it: type the number that it is followed by",
        )
    })?;
    if !desk.carriers().are_there() {
        return Err(refused(
            "service",
            "no carrier can be asked from here: book it with the carrier, and type the number that it is followed by",
        ));
    }
    if on < desk.app.clock.today() {
        return Err(refused(
            "on",
            "that day is over: choose one that is still to come",
        ));
    }
    // The carrier may take it on a day that its tariff does not know of.
    let is_its = tariff.next_days(service, on, 1).first() == Some(&on);
    if !is_its && !desk.takes_on(tariff, service, on).await {
        return Err(refused(
            "on",
            "the carrier takes nothing on that day: choose one of its days",
        ));
    }
    let inputs = &leaves.stored.inputs;
    let asks = CarrierAsk::of(inputs, &leaves.house.house)?;
    let ask = asks
        .iter()
        .find(|ask| ask.tariff.id == tariff.id)
        .ok_or_else(|| refused("service", "its carrier has no tariff here any more"))?;
    let ends = leaves.ends();
    let mut asked = body_of(ask);
    asked["service"] = json!(service.id);
    asked["ready_on"] = json!(on);
    asked["to"] = json!(ends.to);
    asked["from"] = json!(ends.from);
    Ok(json!({ "asks": asked, "by_tariff": quote.total() }))
}

/// Cancels the booking of a parcel that has not left.
#[cfg_attr(feature = "schema", utoipa::path(
    operation_id = "cancel_booking", delete, path = "/shipments/{id}/booking", tag = "leaving",
    params(("id" = Uuid, Path, description = "Which shipment")),
    responses(
        (status = 200, description = "As it stands: cancelled, or still to be forgotten by the carrier", body = LeavingView),
        (status = 404, description = "There is no such shipment, or nothing is booked", body = Problem),
        (status = 409, description = "It has left", body = Problem),
    ),
))]
async fn cancel(desk: Desk, ShipmentId(id): ShipmentId) -> Result<Json<LeavingView>, Problem> {
    let stored = desk.stored(id).await?;
    if stored.place != Place::Bench {
        return Err(Problem::put_away());
    }
    let booking = desk.store.booking(id).await?;
    let booking = booking.ok_or_else(|| Problem::not_found("booking"))?;
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

/// Asks carriers again about what they have not answered, until it is dropped: what a process that was killed had begun, too.
pub(crate) async fn keep_asking(app: App) {
    loop {
        if let Err(error) = ask_again(&app).await {
            tracing::warn!(%error, "bookings can't be looked for");
        }
        tokio::time::sleep(ASK_AGAIN).await;
    }
}

async fn ask_again(app: &App) -> Result<(), StoreError> {
    for studio in app.store.studios().await? {
        let desk = Desk::of(app, studio, Caller::Machine);
        for booking in desk.store.unanswered(ASKED_AT_ONCE).await? {
            if desk.settle(&booking).await.is_err() {
                tracing::warn!(booking = %booking.id, "what a carrier said can't be written down");
            }
        }
    }
    Ok(())
}

pub(crate) fn routes() -> Routes {
    routes![
        get "/shipments/{id}/leaving" => show,
        post "/shipments/{id}/booking" => book,
        delete "/shipments/{id}/booking" => cancel,
        get "/leaving" => day,
    ]
}
