//! A carrier's own service that is none: it rates, books once, tells collection days and tracking over simulated time, and
//! makes the faults that real ones make.

use std::{
    collections::{BTreeSet, VecDeque},
    path::{Path as FilePath, PathBuf},
    sync::{Arc, Mutex, MutexGuard, PoisonError},
    time::Duration,
};

use axum::{
    Json, Router,
    body::{Body, Bytes},
    extract::{Path, Query, State},
    http::{
        HeaderMap, StatusCode,
        header::{CONTENT_LENGTH, RETRY_AFTER},
    },
    response::{IntoResponse, Response},
    routing::{get, post, put},
};
use futures_util::stream;
use hummock_core::{
    freight::{OnItsWay, Service, Tariff},
    sending::{Fate, TrackingEvent},
    sums::{QuoteParcel, QuotePlace, QuoteSum},
};
use jiff::{ToSpan as _, civil::Date};
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use serde_json::json;
use strum::EnumCount;

/// A carrier's service that is none.
#[derive(Debug)]
pub struct Carrier {
    tariffs: Vec<Tariff>,
    state: Mutex<Books>,
    /// Where its books lie, so that they outlive it.
    file: Option<PathBuf>,
}

#[derive(Debug, Default)]
struct Books {
    booked: Vec<Booked>,
    /// Bookings that it makes after some more questions, with the count of questions by which each is made.
    later: Vec<(usize, Booked)>,
    /// Keys that are never booked by any more.
    forgotten: BTreeSet<String>,
    /// Days on which nothing more is taken.
    full: BTreeSet<Date>,
    /// Days that were added to those of its tariff.
    added: BTreeSet<Date>,
    /// What goes wrong, one after the other.
    faults: VecDeque<Fault>,
    asked: usize,
}

/// The books as they lie in their file.
#[derive(Serialize, Deserialize)]
struct InFile {
    booked: Vec<Kept>,
    forgotten: BTreeSet<String>,
}

/// A booking as it lies in the books.
#[derive(Serialize, Deserialize)]
struct Kept {
    key: String,
    #[serde(flatten)]
    booked: Booked,
}

/// What is booked.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Booked {
    /// What the caller named it by: asked again by that name, it is the same booking.
    #[serde(skip)]
    pub key: String,
    /// As `gannet-post/parcel`.
    pub service: String,
    /// What it is followed by.
    pub tracking: String,
    /// What it costs.
    pub total: Decimal,
    /// In the carrier's money.
    pub currency: String,
    /// What stands on its label, line by line.
    pub label: Vec<String>,
    /// When it is on its way.
    pub way: OnItsWay,
    /// Whether it was cancelled.
    #[serde(default)]
    pub cancelled: bool,
    /// What becomes of it in the end.
    #[serde(default = "arrives")]
    pub fate: Fate,
    /// The paper that is asked for, where it is held.
    #[serde(default)]
    pub paper: Option<String>,
}

const fn arrives() -> Fate {
    Fate::Arrived
}

/// What goes wrong, and how often yet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Fault {
    /// What goes wrong.
    #[serde(default)]
    pub kind: FaultKind,
    /// For so many requests.
    #[serde(default)]
    pub times: u32,
}

/// What goes wrong.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, EnumCount)]
#[serde(rename_all = "snake_case")]
pub enum FaultKind {
    /// Nothing.
    #[default]
    None,
    /// It answers, after half a minute.
    Slow,
    /// It says that it can't.
    Unavailable,
    /// It takes a tenth more than its tariff says.
    WrongTotal,
    /// It does what it was asked for, and the connection breaks before it says so.
    LostReply,
    /// It does what it was asked for, and says so after half a minute.
    SlowReply,
    /// It does nothing, and wants a pause of a second (429).
    Busy,
    /// It does nothing, and says that it still works on the same question (409).
    InProgress,
    /// It does nothing, and says that it may not (403).
    Forbidden,
    /// It does nothing, and says that something stands against it (409).
    Conflict,
    /// It does what it was asked for, and wants a pause of a second (429).
    BusyAfter,
    /// It does what it was asked for, and says that it still works on it (409).
    InProgressAfter,
    /// It does what it was asked for, and says that it may not (403).
    ForbiddenAfter,
    /// It does what it was asked for, and says so twice in one answer.
    AnswersTwice,
    /// It takes a whole unit of money for each that its tariff begins.
    RoundsUp,
    /// It says what it was asked for was done, and keeps nothing of it.
    Forgets,
    /// It has no list of what it holds (405); all else it answers.
    NoList,
    /// It does nothing, and says that nothing of it stands (409, `"state": "refused"`).
    RefusesForGood,
    /// It breaks the connection and books after three more questions: until then it answers 409 without a word to the same question,
    /// knows of nothing, and forgets nothing.
    BooksLater,
}

impl FaultKind {
    /// Every fault, for whoever draws one.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::None,
        Self::Slow,
        Self::Unavailable,
        Self::WrongTotal,
        Self::LostReply,
        Self::SlowReply,
        Self::Busy,
        Self::InProgress,
        Self::Forbidden,
        Self::Conflict,
        Self::BusyAfter,
        Self::InProgressAfter,
        Self::ForbiddenAfter,
        Self::AnswersTwice,
        Self::RoundsUp,
        Self::Forgets,
        Self::NoList,
        Self::RefusesForGood,
        Self::BooksLater,
    ];

    /// What it says in place of its answer, and whether it does before what it was asked for; `None` if it answers.
    fn says_instead(self) -> Option<(bool, Response)> {
        let pause = || {
            let says = Refused(StatusCode::TOO_MANY_REQUESTS, "too much at once".to_owned());
            ([(RETRY_AFTER, "1")], says).into_response()
        };
        let works = || {
            let says = json!({ "says": "it is still being worked on", "state": "in_progress" });
            (StatusCode::CONFLICT, Json(says)).into_response()
        };
        let may_not = || Refused(StatusCode::FORBIDDEN, "it may not".to_owned()).into_response();
        Some(match self {
            Self::Busy => (false, pause()),
            Self::BusyAfter => (true, pause()),
            Self::InProgress => (false, works()),
            Self::InProgressAfter => (true, works()),
            Self::Forbidden => (false, may_not()),
            Self::ForbiddenAfter => (true, may_not()),
            Self::Conflict => {
                let says = "something stands against it".to_owned();
                (false, Refused(StatusCode::CONFLICT, says).into_response())
            }
            Self::RefusesForGood => {
                let says = json!({ "says": "it is not taken", "state": "refused" });
                (false, (StatusCode::CONFLICT, Json(says)).into_response())
            }
            Self::None
            | Self::BooksLater
            | Self::Slow
            | Self::Unavailable
            | Self::WrongTotal
            | Self::LostReply
            | Self::SlowReply
            | Self::AnswersTwice
            | Self::RoundsUp
            | Self::Forgets
            | Self::NoList => return None,
        })
    }
}

/// Longer than anybody waits.
const SLOW: Duration = Duration::from_secs(30);
const SLOTS: usize = 5;
/// The number of further questions after which a delayed booking is made.
const QUESTIONS_LATER: usize = 3;

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct RateRequest {
    parcel: QuoteParcel,
    destination: QuotePlace,
    /// What cover is bought for; none is bought without.
    value: Option<Decimal>,
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct BookRequest {
    service: String,
    #[serde(flatten)]
    rate: RateRequest,
    /// The first day on which it is ready.
    ready_on: Date,
    /// Who gets it, for the label.
    #[serde(default)]
    to: Vec<String>,
    /// Who sends it, where it is fetched.
    #[serde(default)]
    from: Vec<String>,
}

#[derive(Debug, Deserialize)]
struct From {
    from: Date,
}

#[derive(Debug, Deserialize)]
struct On {
    on: Date,
}

impl Carrier {
    /// One that prices by tariffs.
    #[must_use]
    pub fn by(tariffs: Vec<Tariff>) -> Self {
        Self {
            tariffs,
            state: Mutex::default(),
            file: None,
        }
    }

    /// One that prices by tariffs and keeps its books in a file.
    ///
    /// # Errors
    /// When the file is there and holds no books.
    pub fn with_books(tariffs: Vec<Tariff>, file: &FilePath) -> anyhow::Result<Self> {
        let mut carrier = Self::by(tariffs);
        if file.exists() {
            let kept: InFile = serde_json::from_slice(&std::fs::read(file)?)?;
            let booked = kept.booked.into_iter();
            let booked = booked.map(|Kept { key, booked }| Booked { key, ..booked });
            let mut books = carrier.books();
            books.booked = booked.collect();
            books.forgotten = kept.forgotten;
            drop(books);
        }
        carrier.file = Some(file.to_owned());
        Ok(carrier)
    }

    /// Writes the books down before anybody is told: whole, beside the old ones, then in their place.
    fn keep(&self, books: &Books) -> Result<(), Refused> {
        let Some(file) = &self.file else {
            return Ok(());
        };
        let booked = books.booked.iter().map(|booked| Kept {
            key: booked.key.clone(),
            booked: booked.clone(),
        });
        let kept = InFile {
            booked: booked.collect(),
            forgotten: books.forgotten.clone(),
        };
        let write = || -> std::io::Result<()> {
            let beside = file.with_extension("new");
            std::fs::write(&beside, serde_json::to_vec(&kept)?)?;
            std::fs::File::open(&beside)?.sync_all()?;
            std::fs::rename(&beside, file)
        };
        write().map_err(|error| Refused(StatusCode::INTERNAL_SERVER_ERROR, error.to_string()))
    }

    /// Decides what becomes of what is followed by a number.
    pub fn decide(&self, number: &str, fate: Fate, paper: Option<String>) {
        let mut books = self.books();
        for booked in books
            .booked
            .iter_mut()
            .filter(|booked| booked.tracking == number)
        {
            (booked.fate, booked.paper) = (fate, paper.clone());
        }
        // It is decided again where it can't be kept.
        let _ = self.keep(&books);
    }

    /// Has something go wrong.
    pub fn fails(&self, kind: FaultKind, times: u32) {
        self.fails_in_turn(&[(kind, times)]);
    }

    /// Has several things go wrong, one after the other, each so often.
    pub fn fails_in_turn(&self, faults: &[(FaultKind, u32)]) {
        let faults = faults.iter();
        self.books().faults = faults.map(|&(kind, times)| Fault { kind, times }).collect();
    }

    /// Returns all that was booked.
    #[must_use]
    pub fn booked(&self) -> Vec<Booked> {
        self.books().booked.clone()
    }

    /// Returns how often it was asked for anything.
    #[must_use]
    pub fn asked(&self) -> usize {
        self.books().asked
    }

    /// Lets a day be full: nothing more is taken on it.
    pub fn is_full_on(&self, day: Date) {
        self.books().full.insert(day);
    }

    /// Adds a day that its tariff does not know of.
    pub fn also_comes_on(&self, day: Date) {
        self.books().added.insert(day);
    }

    fn books(&self) -> MutexGuard<'_, Books> {
        self.state.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Takes the fault of one request.
    fn fault(&self) -> FaultKind {
        let mut books = self.books();
        books.asked += 1;
        let asked = books.asked;
        let due = books.later.extract_if(.., |(by, _)| *by <= asked);
        let due: Vec<Booked> = due.map(|(_, booked)| booked).collect();
        books.booked.extend(due);
        while let Some(fault) = books.faults.front_mut() {
            if let Some(left) = fault.times.checked_sub(1) {
                fault.times = left;
                return fault.kind;
            }
            books.faults.pop_front();
        }
        FaultKind::None
    }

    fn tariff(&self, id: &str) -> Result<&Tariff, Refused> {
        let found = self.tariffs.iter().find(|tariff| tariff.id == id);
        found.ok_or(Refused(
            StatusCode::NOT_FOUND,
            "there is no such carrier".to_owned(),
        ))
    }
}

/// Why it does not.
struct Refused(StatusCode, String);

impl IntoResponse for Refused {
    fn into_response(self) -> Response {
        (self.0, Json(json!({ "says": self.1 }))).into_response()
    }
}

fn service_of<'a>(tariff: &'a Tariff, id: &str) -> Result<&'a Service, Refused> {
    let found = tariff.services.iter().find(|service| service.id == id);
    found.ok_or(Refused(
        StatusCode::NOT_FOUND,
        "there is no such service".to_owned(),
    ))
}

/// One service, and what it takes or why it does not.
#[derive(Debug, Serialize)]
struct Rated {
    service: String,
    total: Option<Decimal>,
    currency: String,
    refused: Option<String>,
}

fn rated(tariff: &Tariff, request: &RateRequest, fault: FaultKind) -> Result<Vec<Rated>, Refused> {
    let sum = QuoteSum {
        parcel: &request.parcel,
        destination: &request.destination,
        value: request.value,
        discount_tier: None,
        date: None,
    };
    let answer = sum.by(tariff).map_err(|refusals| {
        let says: Vec<String> = refusals
            .into_iter()
            .map(|refusal| format!("{}: {}", refusal.field, refusal.message))
            .collect();
        Refused(StatusCode::UNPROCESSABLE_ENTITY, says.join("; "))
    })?;
    let taken = |total: Decimal| match fault {
        FaultKind::WrongTotal => tariff.currency.round(total * Decimal::new(11, 1)),
        FaultKind::RoundsUp => total.ceil(),
        _ => total,
    };
    let services = answer.services.into_iter().map(|quoted| Rated {
        service: quoted.service,
        total: quoted.total.map(taken),
        currency: tariff.currency.code().to_owned(),
        refused: quoted.refused,
    });
    Ok(services.collect())
}

/// Does what was asked for, as the fault has it.
async fn faulty(
    carrier: &Carrier,
    done: impl FnOnce(FaultKind) -> Result<Response, Refused>,
) -> Response {
    let fault = carrier.fault();
    if fault == FaultKind::Unavailable {
        let says = "try again later".to_owned();
        return Refused(StatusCode::SERVICE_UNAVAILABLE, says).into_response();
    }
    if fault == FaultKind::Slow {
        tokio::time::sleep(SLOW).await;
    }
    if let Some((does, says)) = fault.says_instead() {
        if does {
            // What it did is told to nobody.
            drop(done(fault));
        }
        return says;
    }
    let response = done(fault).unwrap_or_else(IntoResponse::into_response);
    if matches!(fault, FaultKind::LostReply | FaultKind::BooksLater) {
        // The head goes out, and the connection breaks in the body.
        let broken = stream::iter([
            Ok(Bytes::from_static(b"{")),
            Err(std::io::Error::other("the connection broke")),
        ]);
        return Response::new(Body::from_stream(broken));
    }
    if fault == FaultKind::SlowReply {
        tokio::time::sleep(SLOW).await;
    }
    if fault == FaultKind::AnswersTwice {
        return twice(response).await;
    }
    response
}

/// An answer, and the same once more behind it.
async fn twice(response: Response) -> Response {
    let (parts, body) = response.into_parts();
    let once = axum::body::to_bytes(body, usize::MAX)
        .await
        .unwrap_or_default();
    let mut response = Response::from_parts(parts, Body::from([&once[..], &once[..]].concat()));
    response.headers_mut().remove(CONTENT_LENGTH);
    response
}

pub(crate) fn routes(carrier: Arc<Carrier>) -> Router {
    Router::new()
        .route("/fault", put(set_fault))
        .route("/bookings", get(bookings))
        .route("/tracking/{number}", get(tracking))
        .route("/{tariff}/rates", post(rates))
        .route("/tracking/{number}/fate", put(set_fate))
        .route("/{tariff}/bookings", post(book).get(held))
        .route("/{tariff}/bookings/{key}", get(one_booking).delete(cancel))
        .route("/{tariff}/{service}/slots", get(slots))
        .with_state(carrier)
}

async fn set_fault(State(carrier): State<Arc<Carrier>>, Json(fault): Json<Fault>) -> Json<Fault> {
    carrier.fails(fault.kind, fault.times);
    Json(fault)
}

async fn bookings(State(carrier): State<Arc<Carrier>>) -> Json<Vec<Booked>> {
    Json(carrier.booked())
}

async fn rates(
    State(carrier): State<Arc<Carrier>>,
    Path(id): Path<String>,
    Json(request): Json<RateRequest>,
) -> Response {
    faulty(&carrier, |fault| {
        let services = rated(carrier.tariff(&id)?, &request, fault)?;
        Ok(Json(json!({ "services": services })).into_response())
    })
    .await
}

async fn book(
    State(carrier): State<Arc<Carrier>>,
    Path(id): Path<String>,
    headers: HeaderMap,
    Json(request): Json<BookRequest>,
) -> Response {
    faulty(&carrier, |fault| {
        let key = headers
            .get("idempotency-key")
            .and_then(|key| key.to_str().ok());
        let key = key.filter(|key| !key.is_empty()).ok_or(Refused(
            StatusCode::BAD_REQUEST,
            "a booking is named by the header Idempotency-Key".to_owned(),
        ))?;
        let tariff = carrier.tariff(&id)?;
        let service = service_of(tariff, &request.service)?;
        let rates = rated(tariff, &request.rate, fault)?;
        let rate = rates.into_iter().find(|rate| rate.service == service.id);
        let rate = rate.expect("each service is rated");
        let total = rate.total.ok_or(Refused(
            StatusCode::CONFLICT,
            rate.refused.unwrap_or_default(),
        ))?;
        let mut books = carrier.books();
        if books.later.iter().any(|(_, later)| later.key == key) {
            return Err(Refused(StatusCode::CONFLICT, String::new()));
        }
        if books.forgotten.contains(key) {
            let says = "it was cancelled".to_owned();
            return Err(Refused(StatusCode::CONFLICT, says));
        }
        if let Some(known) = books.booked.iter().find(|booked| booked.key == key) {
            return Ok(Json(known.clone()).into_response());
        }
        if books.full.contains(&request.ready_on) {
            let says = "that day is full: choose another".to_owned();
            return Err(Refused(StatusCode::CONFLICT, says));
        }
        let tracking = format!(
            "{}-{:04}",
            initials(&tariff.carrier),
            books.booked.len() + 1
        );
        let way = tariff.on_its_way(
            service,
            (service.days_from, service.days_to),
            request.ready_on,
        );
        let mut label = vec![
            format!("{} {}", tariff.carrier, service.name),
            tracking.clone(),
        ];
        label.extend(request.to);
        label.extend(request.from);
        let booked = Booked {
            key: key.to_owned(),
            service: format!("{}/{}", tariff.id, service.id),
            tracking,
            total,
            currency: rate.currency,
            label,
            way,
            cancelled: false,
            fate: Fate::Arrived,
            paper: None,
        };
        match fault {
            FaultKind::Forgets => {}
            FaultKind::BooksLater => {
                let by = books.asked + QUESTIONS_LATER;
                books.later.push((by, booked.clone()));
            }
            _ => {
                books.booked.push(booked.clone());
                carrier.keep(&books)?;
            }
        }
        Ok((StatusCode::CREATED, Json(booked)).into_response())
    })
    .await
}

/// All that it holds and that is fetched on a day or later.
async fn held(
    State(carrier): State<Arc<Carrier>>,
    Path(id): Path<String>,
    Query(From { from }): Query<From>,
) -> Response {
    faulty(&carrier, |fault| {
        carrier.tariff(&id)?;
        if fault == FaultKind::NoList {
            let says = "there is no such list".to_owned();
            return Err(Refused(StatusCode::METHOD_NOT_ALLOWED, says));
        }
        let books = carrier.books();
        let of = |booked: &&Booked| booked.service.split('/').next() == Some(id.as_str());
        let open = books.booked.iter().filter(of);
        let open = open.filter(|booked| !booked.cancelled && booked.way.handed_over >= from);
        let listed = open.map(|booked| {
            json!({
                "key": booked.key, "tracking": booked.tracking, "total": booked.total, "currency": booked.currency,
                "label": booked.label, "ready_on": booked.way.handed_over, "to": booked.label.get(2..).unwrap_or_default(),
            })
        });
        let listed: Vec<_> = listed.collect();
        Ok(Json(json!({ "bookings": listed })).into_response())
    })
    .await
}

/// What it holds by a key; nothing of what was cancelled.
async fn one_booking(
    State(carrier): State<Arc<Carrier>>,
    Path((_, key)): Path<(String, String)>,
) -> Response {
    faulty(&carrier, |_| {
        let books = carrier.books();
        let mut known = books.booked.iter();
        let found = known.find(|booked| booked.key == key && !booked.cancelled);
        let found = found.ok_or(Refused(
            StatusCode::NOT_FOUND,
            "nothing is booked by that key".to_owned(),
        ))?;
        Ok(Json(found.clone()).into_response())
    })
    .await
}

fn initials(name: &str) -> String {
    let firsts = name
        .split_whitespace()
        .filter_map(|word| word.chars().next());
    firsts.filter(|first| first.is_alphabetic()).collect()
}

async fn slots(
    State(carrier): State<Arc<Carrier>>,
    Path((id, service)): Path<(String, String)>,
    Query(From { from }): Query<From>,
) -> Response {
    faulty(&carrier, |_| {
        let tariff = carrier.tariff(&id)?;
        let service = service_of(tariff, &service)?;
        let (full, added) = {
            let books = carrier.books();
            (books.full.clone(), books.added.clone())
        };
        let mut days = tariff.next_days(service, from, SLOTS + full.len());
        days.extend(added.into_iter().filter(|day| *day >= from));
        days.sort_unstable();
        days.dedup();
        days.retain(|day| !full.contains(day));
        days.truncate(SLOTS);
        let until = tariff.collection_of(service).map(|fetched| fetched.cut_off);
        Ok(Json(json!({ "days": days, "cut_off": until })).into_response())
    })
    .await
}

/// Forgets a booking; asked twice, or for what it does not know yet, it never books it all the same.
async fn cancel(
    State(carrier): State<Arc<Carrier>>,
    Path((_, key)): Path<(String, String)>,
) -> Response {
    faulty(&carrier, |_| {
        let mut books = carrier.books();
        for booked in books.booked.iter_mut().filter(|booked| booked.key == key) {
            booked.cancelled = true;
        }
        if books.later.iter().any(|(_, later)| later.key == key) {
            let says = "nothing is booked by that key".to_owned();
            return Err(Refused(StatusCode::NOT_FOUND, says));
        }
        books.forgotten.insert(key);
        carrier.keep(&books)?;
        Ok(Json(json!({ "cancelled": true })).into_response())
    })
    .await
}

#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct FateRequest {
    fate: Fate,
    paper: Option<String>,
}

async fn set_fate(
    State(carrier): State<Arc<Carrier>>,
    Path(number): Path<String>,
    Json(request): Json<FateRequest>,
) -> Json<Vec<Booked>> {
    carrier.decide(&number, request.fate, request.paper);
    Json(carrier.booked())
}

/// For so many days it is held before it goes back.
const HELD_DAYS: i64 = 10;

/// What becomes of a parcel day by day, as it was decided.
fn becomes(booked: &Booked) -> Vec<TrackingEvent> {
    let way = booked.way;
    let event = |on: Date, fate, says: &str| TrackingEvent {
        on,
        at: Some(format!("{on}T16:20:00+01:00")),
        fate,
        says: says.to_owned(),
        paper: None,
        until: None,
    };
    let later = |day: Date, days: i64| day.saturating_add(days.days());
    let mut events = vec![event(way.handed_over, Fate::HandedOver, "handed over")];
    match booked.fate {
        Fate::Held => events.push(TrackingEvent {
            paper: booked
                .paper
                .clone()
                .or_else(|| Some("a signed invoice in two copies".to_owned())),
            until: Some(later(way.earliest, HELD_DAYS)),
            ..event(way.earliest, Fate::Held, "held by customs")
        }),
        Fate::Lost => {
            events.push(event(way.earliest, Fate::OnItsWay, "at the last depot"));
            events.push(event(later(way.latest, 5), Fate::Lost, "can't be found"));
        }
        Fate::Returned => {
            events.push(event(way.latest, Fate::OnItsWay, "nobody took it in"));
            events.push(event(
                later(way.latest, 4),
                Fate::Returned,
                "back at the sender",
            ));
        }
        fate => {
            events.push(event(way.earliest, Fate::OnItsWay, "at the last depot"));
            let end = match fate {
                Fate::Damaged => event(way.latest, Fate::Damaged, "arrived, the box crushed"),
                _ => event(way.latest, Fate::Arrived, "arrived"),
            };
            events.push(end);
        }
    }
    events
}

/// What has happened to it until a day of the simulated time.
async fn tracking(
    State(carrier): State<Arc<Carrier>>,
    Path(number): Path<String>,
    Query(On { on }): Query<On>,
) -> Response {
    faulty(&carrier, |_| {
        let books = carrier.books();
        let found = books
            .booked
            .iter()
            .find(|booked| booked.tracking == number && !booked.cancelled);
        let found = found.ok_or(Refused(
            StatusCode::NOT_FOUND,
            "nothing is followed by that number".to_owned(),
        ))?;
        let mut events = becomes(found);
        events.retain(|event| event.on <= on);
        Ok(Json(json!({ "events": events })).into_response())
    })
    .await
}
