//! The carriers' own services: what they take, beside what their tariffs say; bookings, days and tracking.

use std::{
    collections::{BTreeMap, BTreeSet},
    sync::Arc,
};

use axum::http::{HeaderName, HeaderValue, Method};
use hummock_core::{
    sending::TrackingEvent,
    shipment::CarrierAsk,
    text::{LONGEST_TEXT, cleaned_line},
};
use hummock_store::{CarrierService, StudioId};
use jiff::civil::{Date, Time};
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize, de::DeserializeOwned};
use serde_json::{Value, json};

use super::client::{Breakers, Client, Http, NoAnswer, Patience, Question};
use crate::per_studio::PerStudio;

/// The carriers' own services, where there are any, for all studios.
#[derive(Debug, Clone, Default)]
pub(crate) struct AllCarriers {
    /// The price lists that a simulated service speaks for, in the demo alone; `None` where the one for all of them is a carrier's own.
    simulated: Option<Arc<BTreeSet<String>>>,
    http: Option<Http>,
    patience: Patience,
    client: Option<Client>,
    breakers: PerStudio<Breakers>,
}

impl AllCarriers {
    /// At an address, where there is one for all of them; each may have one of its own besides.
    pub(crate) fn at(address: Option<&str>, patience: Patience, authority: Option<&[u8]>) -> Self {
        let http = Http::trusting(authority);
        Self {
            simulated: None,
            client: address.map(|address| Client::new(http.clone(), address, patience)),
            http: Some(http),
            patience,
            breakers: PerStudio::default(),
        }
    }

    /// Returns how long after a refusal in doubt a carrier is asked what it holds, each time.
    pub(crate) const fn looks(&self) -> [std::time::Duration; 3] {
        self.patience.looks
    }

    /// The same, where the one for all of them is only simulated: it speaks in the demo, for these price lists.
    pub(crate) fn simulated(self, tariffs: BTreeSet<String>) -> Self {
        Self {
            simulated: Some(Arc::new(tariffs)),
            ..self
        }
    }

    /// Returns them for a studio, with those that it has keys of: one that fails for it is let rest for it alone.
    pub(crate) fn of(
        &self,
        (studio, demo): (StudioId, bool),
        services: Vec<CarrierService>,
    ) -> Carriers {
        let own = services.into_iter().filter_map(|service| {
            let header = HeaderName::try_from(&service.header).ok()?;
            let key = HeaderValue::try_from(&service.key.0).ok()?;
            let client = Client::new(self.http.clone()?, service.address, self.patience);
            Some((service.tariff, client.known_by(header, key)))
        });
        Carriers {
            own: own.collect(),
            client: self
                .client
                .clone()
                .filter(|_| demo || self.simulated.is_none()),
            simulated: self.simulated.clone(),
            held: false,
            breakers: self.breakers.of(studio),
        }
    }
}

/// Who answers for a carrier.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub(crate) enum CarrierReach {
    /// A service of its own, by the studio's key.
    Own,
    /// The one service that the program was started beside, for every carrier.
    Shared,
    /// A simulated one: nothing is really booked.
    Simulated,
    /// Nobody: it is booked with the carrier, or at its counter.
    None,
}

/// The carriers' own services, as one studio asks them.
#[derive(Debug, Clone)]
pub(crate) struct Carriers {
    /// Those that the studio has keys of, by their tariffs.
    own: BTreeMap<String, Client>,
    /// All others.
    client: Option<Client>,
    /// The price lists that it speaks for, where it is simulated.
    simulated: Option<Arc<BTreeSet<String>>>,
    /// Whether none of them may be asked.
    held: bool,
    breakers: Breakers,
}

#[derive(Debug, Deserialize)]
struct Rates {
    services: Vec<Rate>,
}

#[derive(Debug, Deserialize)]
struct Rate {
    service: String,
    total: Option<Decimal>,
}

#[derive(Debug, Deserialize)]
struct Told {
    events: Vec<TrackingEvent>,
}

/// Days on which a service takes parcels.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub(crate) struct Slots {
    /// The next ones first.
    pub days: Vec<Date>,
    /// What is booked until then is fetched on the same day.
    pub cut_off: Option<Time>,
}

/// What was booked.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub(crate) struct Booked {
    /// What it is followed by.
    pub tracking: String,
    /// What it costs, in the carrier's money.
    pub total: Decimal,
    /// That money.
    pub currency: String,
    /// What stands on its label.
    pub label: Vec<String>,
}

/// What a carrier holds, as it lists it.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub(crate) struct Listed {
    /// By which it was booked.
    pub key: String,
    /// What it answered when it was booked.
    #[serde(flatten)]
    pub booked: Booked,
    /// The day on which it is fetched.
    #[serde(default)]
    pub ready_on: Option<Date>,
    /// Who gets it.
    #[serde(default)]
    pub to: Vec<String>,
}

#[derive(Debug, Deserialize)]
struct Lists {
    bookings: Vec<Listed>,
}

/// A carrier lists no more bookings at once.
const MOST_BOOKINGS: usize = 5000;
/// A parcel has no more events than this, and a label no more lines.
const MOST_EVENTS: usize = 200;
const MOST_LINES: usize = 20;
/// The longest number that a parcel is followed by, in letters.
const LONGEST_NUMBER: usize = 60;
/// No carriage costs more.
const MOST_TOTAL: Decimal = Decimal::from_parts(1_000_000_000, 0, 0, false, 0);

impl Booked {
    /// What carriers answer is cleaned and bounded like what people type.
    fn cleaned(self) -> Self {
        let lines = self.label.iter().take(MOST_LINES);
        Self {
            tracking: cleaned_line(&self.tracking, LONGEST_NUMBER),
            total: self.total.clamp(Decimal::ZERO, MOST_TOTAL),
            currency: cleaned_line(&self.currency, 3),
            label: lines.map(|line| cleaned_line(line, LONGEST_TEXT)).collect(),
        }
    }
}

impl Carriers {
    async fn ask<T: DeserializeOwned>(&self, question: &Question<'_>) -> Result<T, NoAnswer> {
        let client = match self.reach(question.carrier) {
            _ if self.held => None,
            CarrierReach::Own => self.own.get(question.carrier),
            CarrierReach::Shared | CarrierReach::Simulated => self.client.as_ref(),
            CarrierReach::None => None,
        };
        let client = client.ok_or(NoAnswer::Away)?;
        client.ask(&self.breakers, question).await
    }

    /// Asks what each service of a carrier takes.
    ///
    /// # Errors
    /// [`NoAnswer`].
    pub(crate) async fn rates(
        &self,
        tariff: &str,
        body: &Value,
    ) -> Result<Vec<(String, Option<Decimal>)>, NoAnswer> {
        let question = Question {
            carrier: tariff,
            method: Method::POST,
            path: format!("/{tariff}/rates"),
            body: Some(body),
            key: None,
        };
        let rates: Rates = self.ask(&question).await?;
        let services = rates.services.into_iter();
        Ok(services.map(|rate| (rate.service, rate.total)).collect())
    }

    /// Books a service once, whatever happens on the way: a booking asked for again by its key is the same booking.
    ///
    /// # Errors
    /// [`NoAnswer`]: then it may have been booked or not, and asking again by the same key finds out.
    pub(crate) async fn book(
        &self,
        tariff: &str,
        key: &str,
        booking: &Value,
    ) -> Result<Booked, NoAnswer> {
        let question = Question {
            carrier: tariff,
            method: Method::POST,
            path: format!("/{tariff}/bookings"),
            body: Some(booking),
            key: Some(key),
        };
        self.ask(&question).await.map(Booked::cleaned)
    }

    /// Asks what a carrier holds by a key; `None` if it knows of nothing.
    ///
    /// # Errors
    /// [`NoAnswer`].
    pub(crate) async fn booking(
        &self,
        tariff: &str,
        key: &str,
    ) -> Result<Option<Booked>, NoAnswer> {
        match self.holds(tariff, key).await {
            // One that can't be asked about a key says so, and is asked to forget it.
            Err(NoAnswer::Refused(_)) => Ok(None),
            other => other,
        }
    }

    /// Asks whether a carrier holds a booking by a key: only where it says that it knows of nothing, it does not.
    ///
    /// # Errors
    /// [`NoAnswer`], and where it says anything else.
    pub(crate) async fn holds(&self, tariff: &str, key: &str) -> Result<Option<Booked>, NoAnswer> {
        let question = Question {
            carrier: tariff,
            method: Method::GET,
            path: format!("/{tariff}/bookings/{key}"),
            body: None,
            key: Some(key),
        };
        match self.ask(&question).await {
            Ok(booked) => Ok(Some(Booked::cleaned(booked))),
            Err(NoAnswer::Refused(refusal)) if refusal.knows_nothing() => Ok(None),
            Err(other) => Err(other),
        }
    }

    /// Asks for all that a carrier holds and that is fetched on a day or later.
    ///
    /// # Errors
    /// [`NoAnswer`]: one that has no such list says so.
    pub(crate) async fn list(&self, tariff: &str, from: Date) -> Result<Vec<Listed>, NoAnswer> {
        let question = Question {
            carrier: tariff,
            method: Method::GET,
            path: format!("/{tariff}/bookings?from={from}"),
            body: None,
            key: None,
        };
        let lists: Lists = self.ask(&question).await?;
        let listed = lists.bookings.into_iter().take(MOST_BOOKINGS);
        let cleaned = listed.map(|one| Listed {
            key: cleaned_line(&one.key, LONGEST_TEXT),
            booked: one.booked.cleaned(),
            ready_on: one.ready_on,
            to: one
                .to
                .iter()
                .take(MOST_LINES)
                .map(|line| cleaned_line(line, LONGEST_TEXT))
                .collect(),
        });
        Ok(cleaned.collect())
    }

    /// Has a carrier forget a booking, so that nothing is booked by its key any more; it may be asked as often as one likes. A carrier
    /// that knows nothing of the booking counts as one that forgot it.
    ///
    /// # Errors
    /// [`NoAnswer`].
    pub(crate) async fn cancel(&self, tariff: &str, key: &str) -> Result<(), NoAnswer> {
        let question = Question {
            carrier: tariff,
            method: Method::DELETE,
            path: format!("/{tariff}/bookings/{key}"),
            body: None,
            key: Some(key),
        };
        match self.ask::<Value>(&question).await {
            Ok(_) => Ok(()),
            Err(NoAnswer::Refused(refusal)) if refusal.knows_nothing() => Ok(()),
            Err(other) => Err(other),
        }
    }

    /// Asks on which days a service takes parcels, from one on.
    ///
    /// # Errors
    /// [`NoAnswer`].
    pub(crate) async fn slots(
        &self,
        tariff: &str,
        service: &str,
        from: Date,
    ) -> Result<Slots, NoAnswer> {
        let question = Question {
            carrier: tariff,
            method: Method::GET,
            path: format!("/{tariff}/{service}/slots?from={from}"),
            body: None,
            key: None,
        };
        self.ask(&question).await
    }

    /// Asks what has become of a parcel until a day.
    ///
    /// # Errors
    /// [`NoAnswer`].
    pub(crate) async fn follow(
        &self,
        tariff: &str,
        number: &str,
        on: Date,
    ) -> Result<Vec<TrackingEvent>, NoAnswer> {
        let number: String = form_urlencoded::byte_serialize(number.as_bytes()).collect();
        let question = Question {
            carrier: tariff,
            method: Method::GET,
            // A gap is no plus in a path.
            path: format!("/tracking/{}?on={on}", number.replace('+', "%20")),
            body: None,
            key: None,
        };
        let told: Told = self.ask(&question).await?;
        let events = told.events.into_iter().take(MOST_EVENTS);
        let cleaned = events.map(|event| TrackingEvent {
            says: cleaned_line(&event.says, LONGEST_TEXT),
            paper: event.paper.map(|paper| cleaned_line(&paper, LONGEST_TEXT)),
            ..event
        });
        Ok(cleaned.collect())
    }

    /// None of them can be asked.
    pub(crate) fn held(self) -> Self {
        Self { held: true, ..self }
    }

    /// Tells whether anybody can be asked.
    pub(crate) fn are_there(&self) -> bool {
        !self.held && (self.client.is_some() || !self.own.is_empty())
    }

    /// Returns who answers for the carrier of a tariff, be it that nobody may be asked just now.
    pub(crate) fn reach(&self, tariff: &str) -> CarrierReach {
        let is_one = |listed: &Arc<BTreeSet<String>>| listed.contains(tariff);
        match (&self.client, &self.simulated) {
            _ if self.own.contains_key(tariff) => CarrierReach::Own,
            (Some(_), None) => CarrierReach::Shared,
            (Some(_), Some(listed)) if is_one(listed) => CarrierReach::Simulated,
            (Some(_), Some(_)) | (None, _) => CarrierReach::None,
        }
    }

    /// Tells whether the carrier of a tariff can be asked.
    pub(crate) fn is_there(&self, tariff: &str) -> bool {
        !self.held && self.reach(tariff) != CarrierReach::None
    }
}

/// Returns the question about a parcel as carriers read it.
pub(crate) fn body_of(ask: &CarrierAsk<'_>) -> Value {
    json!({
        "parcel": ask.parcel(),
        "destination": ask.destination(),
        "value": ask.value(),
    })
}

#[cfg(test)]
mod tests {
    use std::time::Duration;

    use hummock_core::freight::OnItsWay;
    use hummock_standins::{FaultKind, Running, read_tariffs, serve};

    use super::*;

    async fn standin() -> (Running, Carriers) {
        // As the server itself does; it may have been settled by another test.
        let _ = rustls::crypto::ring::default_provider().install_default();
        let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/tariffs");
        let tariffs = read_tariffs(&folder).expect("the demo's tariffs");
        let running = serve(([127, 0, 0, 1], 0).into(), tariffs)
            .await
            .expect("a free port");
        let patience = Patience {
            answer: Duration::from_millis(400),
            pause: Duration::from_millis(1),
            rests: Duration::from_secs(600),
            ..Patience::default()
        };
        let carriers = Carriers {
            client: Some(Client::new(
                Http::trusting(None),
                running.carrier_url(),
                patience,
            )),
            own: BTreeMap::new(),
            simulated: None,
            held: false,
            breakers: Breakers::default(),
        };
        (running, carriers)
    }

    fn booking() -> Value {
        json!({
            "service": "parcel",
            "parcel": { "length_mm": 600, "width_mm": 400, "height_mm": 100, "mass_kg": 3.6 },
            "destination": { "country": "XS", "postcode": "TB1" },
            "value": "320", "ready_on": "2027-03-05", "to": ["Oda Marsh", "Tern Bight"],
        })
    }

    #[tokio::test]
    async fn a_booking_whose_reply_is_lost_is_made_once() {
        let (running, carriers) = standin().await;
        running.carrier.fails(FaultKind::LostReply, 2);
        let booked = carriers
            .book("gannet-post", "one", &booking())
            .await
            .expect("the third reply arrives");
        let again = carriers
            .book("gannet-post", "one", &booking())
            .await
            .expect("it is there");
        assert_eq!(booked, again);
        assert_eq!(running.carrier.booked().len(), 1);
        assert_eq!(running.carrier.asked(), 4, "three times, and once more");
        let other = carriers
            .book("gannet-post", "two", &booking())
            .await
            .expect("another");
        assert_ne!(booked.tracking, other.tracking);
        assert!(booked.label.contains(&"Oda Marsh".to_owned()));
    }

    #[tokio::test]
    async fn who_is_slow_or_away_is_asked_again_and_then_left_alone() {
        let (running, carriers) = standin().await;
        let body =
            json!({ "parcel": booking()["parcel"], "destination": booking()["destination"] });
        running.carrier.fails(FaultKind::Unavailable, 2);
        assert!(
            carriers.rates("gannet-post", &body).await.is_ok(),
            "the third time it answers"
        );
        assert_eq!(running.carrier.asked(), 3);
        running.carrier.fails(FaultKind::Slow, 1);
        assert!(
            carriers.rates("gannet-post", &body).await.is_ok(),
            "the second time it is quick"
        );
        running.carrier.fails(FaultKind::Unavailable, 100);
        assert_eq!(
            carriers.rates("gannet-post", &body).await,
            Err(NoAnswer::Away)
        );
        assert_eq!(
            carriers.rates("gannet-post", &body).await,
            Err(NoAnswer::Resting)
        );
        let asked = running.carrier.asked();
        assert_eq!(
            carriers.rates("gannet-post", &body).await,
            Err(NoAnswer::Resting)
        );
        assert_eq!(running.carrier.asked(), asked, "nobody asks while it rests");
    }

    /// Kills a cancellation that takes 404 for a failure.
    #[tokio::test]
    async fn what_a_carrier_knows_nothing_of_is_cancelled() {
        let (running, carriers) = standin().await;
        running.carrier.fails(FaultKind::BooksLater, 1);
        let silent = carriers.book("gannet-post", "one", &booking()).await;
        let refused = match silent {
            Err(NoAnswer::Refused(refused)) => refused,
            other => panic!("{other:?}"),
        };
        // The second of its tries was answered, without a word.
        assert!(refused.after_silence && !refused.is_final, "{refused:?}");
        assert_eq!(carriers.booking("gannet-post", "one").await, Ok(None));
        assert_eq!(carriers.cancel("gannet-post", "one").await, Ok(()));
    }

    #[tokio::test]
    async fn a_simulated_carrier_speaks_for_its_own_price_lists_alone() {
        let (_running, shared) = standin().await;
        assert_eq!(shared.reach("buckeye-parcel"), CarrierReach::Shared);
        let listed = BTreeSet::from(["gannet-post".to_owned()]);
        let simulated = Carriers {
            simulated: Some(Arc::new(listed)),
            ..shared.clone()
        };
        assert_eq!(simulated.reach("gannet-post"), CarrierReach::Simulated);
        assert_eq!(simulated.reach("buckeye-parcel"), CarrierReach::None);
        let nobody = Carriers {
            client: None,
            ..simulated
        };
        assert_eq!(nobody.reach("gannet-post"), CarrierReach::None);
        // Whoever may not be asked is still told who would answer.
        let held = shared.held();
        assert_eq!(held.reach("buckeye-parcel"), CarrierReach::Shared);
        assert!(!held.is_there("buckeye-parcel") && !held.are_there());
    }

    #[tokio::test]
    async fn who_refuses_is_not_asked_again() {
        let (running, carriers) = standin().await;
        let mut heavy = booking();
        heavy["parcel"]["mass_kg"] = json!(900);
        let refused = carriers
            .book("gannet-post", "heavy", &heavy)
            .await
            .expect_err("too heavy");
        assert!(matches!(refused, NoAnswer::Refused(_)), "{refused:?}");
        assert_eq!(running.carrier.asked(), 1);
        assert!(running.carrier.booked().is_empty());
    }

    #[tokio::test]
    async fn days_and_tracking_follow_the_simulated_time() {
        let (running, carriers) = standin().await;
        let booked = carriers
            .book("gannet-post", "one", &booking())
            .await
            .expect("it is booked");
        let asked = |path: String| Question {
            carrier: "gannet-post",
            method: Method::GET,
            path,
            body: None,
            key: None,
        };
        let slots: Value = carriers
            .ask(&asked(
                "/gannet-post/parcel/slots?from=2027-03-05".to_owned(),
            ))
            .await
            .expect("days");
        assert!(
            slots["days"].as_array().is_some_and(|days| days.len() == 5),
            "{slots}"
        );
        let way: OnItsWay = running.carrier.booked()[0].way;
        let told = async |day: Date| -> usize {
            let path = format!("/tracking/{}?on={day}", booked.tracking);
            let told: Value = carriers.ask(&asked(path)).await.expect("it is followed");
            told["events"].as_array().map_or(0, Vec::len)
        };
        assert_eq!(told("2027-03-01".parse().expect("a day")).await, 0);
        assert_eq!(told(way.handed_over).await, 1);
        assert_eq!(told(way.latest).await, 3);
    }
}
