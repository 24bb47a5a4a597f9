//! Asking somebody outside over HTTP: with a time for every answer, again after a pause where that may help, and not at all
//! while it fails time after time.

use std::{
    collections::HashMap,
    sync::{Arc, Mutex, PoisonError},
    time::{Duration, Instant},
};

use axum::http::{
    HeaderMap, HeaderName, HeaderValue, Method, StatusCode,
    header::{CONTENT_TYPE, RETRY_AFTER},
};
use hummock_core::text::{LONGEST_TEXT, cleaned_line};
use reqwest::{Certificate, ClientBuilder, Response, redirect::Policy};
use serde::de::DeserializeOwned;
use serde_json::Value;
use tokio::time::{sleep, timeout};

use super::breaker::Breaker;

/// How long somebody outside is waited for.
#[derive(Debug, Clone, Copy)]
pub struct Patience {
    /// For one answer.
    pub answer: Duration,
    /// So often it is asked in all.
    pub tries: u32,
    /// Before the second time; twice as long before each further one.
    pub pause: Duration,
    /// After so many failures one after the other it is let rest.
    pub opens_after: u32,
    /// For so long.
    pub rests: Duration,
    /// A carrier that refused a booking after a try without an answer is asked what it holds so long after the refusal, each time anew;
    /// only after the last one the refusal stands.
    pub looks: [Duration; 3],
}

impl Default for Patience {
    fn default() -> Self {
        Self {
            answer: Duration::from_millis(1500),
            tries: 3,
            pause: Duration::from_millis(150),
            opens_after: 4,
            rests: Duration::from_secs(30),
            looks: [10, 60, 600].map(Duration::from_secs),
        }
    }
}

/// Why there is no answer.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub(crate) enum NoAnswer {
    /// It does not answer, in time or at all.
    #[error("no answer")]
    Away,
    /// It failed so often that it is not asked for a while.
    #[error("it failed several times and is not asked for a while")]
    Resting,
    /// It answers that it can't say yet, or wants a pause: it is asked again later.
    #[error("it asks for a pause")]
    Later,
    /// It answers that it won't.
    #[error("{}", .0.says)]
    Refused(Refusal),
}

/// A carrier's answer that it won't.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Refusal {
    /// Status of the answer, from 400 to 499.
    pub status: StatusCode,
    /// Its reason, in words.
    pub says: String,
    /// Whether it says itself that nothing of it stands (`"state": "refused"`).
    pub is_final: bool,
    /// Whether a try before it, of the same question, had no answer.
    pub after_silence: bool,
}

impl Refusal {
    /// Tells whether the carrier says that it holds nothing of the kind: 404 or 410.
    pub(crate) fn knows_nothing(&self) -> bool {
        matches!(self.status, StatusCode::NOT_FOUND | StatusCode::GONE)
    }
}

/// How one try failed.
enum Failure {
    Away,
    /// It wants a pause of so long.
    Later(Duration),
    Refused(Refusal),
}

impl From<Failure> for NoAnswer {
    fn from(failure: Failure) -> Self {
        match failure {
            Failure::Away => Self::Away,
            Failure::Later(_) => Self::Later,
            Failure::Refused(refusal) => Self::Refused(refusal),
        }
    }
}

/// The longest pause that is heeded.
const LONGEST_PAUSE: Duration = Duration::from_secs(600);

/// The pause that an answer asks for, in seconds or until a date; `None` if it asks for none.
fn pause_in(headers: &HeaderMap) -> Option<Duration> {
    let text = headers.get(RETRY_AFTER)?.to_str().ok()?.trim();
    // A date is one of its own clock: a minute does for it.
    let seconds = text.parse().unwrap_or(60);
    Some(Duration::from_secs(seconds).min(LONGEST_PAUSE))
}

/// Whether an answer says nothing about the question yet: out of time, too early, too often, or still at work on it.
fn is_not_yet(status: StatusCode, asks_for_a_pause: bool, says: &Value) -> bool {
    match status {
        StatusCode::REQUEST_TIMEOUT | StatusCode::TOO_EARLY | StatusCode::TOO_MANY_REQUESTS => true,
        StatusCode::CONFLICT => asks_for_a_pause || says["state"] == "in_progress",
        _ => false,
    }
}

/// Nobody outside has more to say.
const LARGEST: usize = 1 << 20;

/// By which questions leave the machine.
#[derive(Debug, Clone)]
pub(crate) struct Http(reqwest::Client);

impl Http {
    /// One that trusts whom the machine trusts, and an authority of one's own (PEM).
    ///
    /// # Panics
    /// Where not even a connection without TLS can be made.
    pub(crate) fn trusting(authority: Option<&[u8]>) -> Self {
        let begun = || {
            ClientBuilder::new()
                .no_proxy()
                .redirect(Policy::none())
                // An answer that nobody waits for any more is not read.
                .pool_idle_timeout(IDLE)
        };
        let own = authority.map(Certificate::from_pem_bundle).transpose();
        let own = own.unwrap_or_else(|error| {
            tracing::warn!(%error, "the authority of the carriers' services can't be read");
            None
        });
        let trusting = begun().tls_certs_merge(own.unwrap_or_default()).build();
        let http = trusting.or_else(|error| {
            tracing::warn!(%error, "this machine has no trusted certificates: carriers can't be reached by https");
            begun().tls_certs_only([]).build()
        });
        Self(http.expect("a client without TLS needs nothing"))
    }
}

/// A connection that was not used for so long is not used again.
const IDLE: Duration = Duration::from_secs(20);

/// Whoever is asked at an address.
#[derive(Debug, Clone)]
pub(crate) struct Client {
    http: Http,
    base: String,
    /// What the studio is known by there, and in which header; never written down.
    key: Option<(HeaderName, HeaderValue)>,
    patience: Patience,
}

/// Which carriers are let rest, each by itself.
#[derive(Debug, Clone, Default)]
pub(crate) struct Breakers(Arc<Mutex<HashMap<String, Breaker>>>);

impl Breakers {
    fn of<T>(&self, carrier: &str, patience: Patience, then: impl FnOnce(&mut Breaker) -> T) -> T {
        let mut all = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let fresh = || Breaker::new(patience.opens_after, patience.rests);
        then(all.entry(carrier.to_owned()).or_insert_with(fresh))
    }
}

/// One question.
pub(crate) struct Question<'a> {
    /// Which carrier it is for.
    pub carrier: &'a str,
    pub method: Method,
    pub path: String,
    pub body: Option<&'a Value>,
    /// What the question is named by, where it changes something: asked again by that name, it changes nothing more.
    pub key: Option<&'a str>,
}

impl Client {
    pub(crate) fn new(http: Http, base: impl Into<String>, patience: Patience) -> Self {
        Self {
            http,
            base: base.into().trim_end_matches('/').to_owned(),
            key: None,
            patience,
        }
    }

    /// Returns a client that sends the studio's key in a header with every question.
    pub(crate) fn known_by(self, header: HeaderName, mut key: HeaderValue) -> Self {
        key.set_sensitive(true);
        Self {
            key: Some((header, key)),
            ..self
        }
    }

    /// Asks, and again after a pause while nobody answers; every question is one that may be asked twice.
    pub(crate) async fn ask<T: DeserializeOwned>(
        &self,
        breakers: &Breakers,
        question: &Question<'_>,
    ) -> Result<T, NoAnswer> {
        let mut pause = self.patience.pause;
        let mut silent = false;
        for left in (0..self.patience.tries.max(1)).rev() {
            let may_ask = |breaker: &mut Breaker| breaker.may_ask(Instant::now());
            if !breakers.of(question.carrier, self.patience, may_ask) {
                return Err(NoAnswer::Resting);
            }
            let answer = timeout(self.patience.answer, self.asked_once(question)).await;
            let answer = answer.unwrap_or(Err(Failure::Away));
            breakers.of(question.carrier, self.patience, |breaker| match &answer {
                Err(Failure::Away) => breaker.went(false, Instant::now()),
                Err(Failure::Later(wait)) => breaker.rests_for(*wait, Instant::now()),
                // Who refuses is well.
                Ok(_) | Err(Failure::Refused(..)) => breaker.went(true, Instant::now()),
            });
            match answer {
                Ok(answer) => return Ok(answer),
                Err(Failure::Away) if left > 0 => {
                    silent = true;
                    sleep(pause).await;
                    pause *= 2;
                }
                Err(Failure::Refused(refusal)) => {
                    return Err(NoAnswer::Refused(Refusal {
                        after_silence: silent,
                        ..refusal
                    }));
                }
                Err(failure) => return Err(failure.into()),
            }
        }
        Err(NoAnswer::Away)
    }

    async fn asked_once<T: DeserializeOwned>(&self, question: &Question<'_>) -> Result<T, Failure> {
        let body = question.body.map(Value::to_string).unwrap_or_default();
        let address = format!("{}{}", self.base, question.path);
        let mut request = self
            .http
            .0
            .request(question.method.clone(), address)
            .header(CONTENT_TYPE, HeaderValue::from_static("application/json"))
            .body(body);
        if let Some((header, key)) = &self.key {
            request = request.header(header, key);
        }
        if let Some(key) = question.key {
            request = request.header("idempotency-key", key);
        }
        let response = request.send().await.map_err(away)?;
        let status = response.status();
        let pause = pause_in(response.headers());
        let body = read_body(response).await?;
        if status.is_server_error() {
            return Err(pause.map_or(Failure::Away, Failure::Later));
        }
        if !status.is_success() {
            let says: Value = serde_json::from_slice(&body).unwrap_or_default();
            if is_not_yet(status, pause.is_some(), &says) {
                return Err(Failure::Later(pause.unwrap_or_default()));
            }
            let is_final = says["state"] == "refused";
            let says = says["says"].as_str().unwrap_or("it gave no reason");
            return Err(Failure::Refused(Refusal {
                status,
                says: cleaned_line(says, LONGEST_TEXT),
                is_final,
                after_silence: false,
            }));
        }
        serde_json::from_slice(&body).map_err(|error| {
            tracing::warn!(%error, "an answer from outside was not understood");
            Failure::Away
        })
    }
}

async fn read_body(mut response: Response) -> Result<Vec<u8>, Failure> {
    let mut body = Vec::new();
    while let Some(chunk) = response.chunk().await.map_err(away)? {
        if body.len() + chunk.len() > LARGEST {
            return Err(Failure::Away);
        }
        body.extend_from_slice(&chunk);
    }
    Ok(body)
}

fn away(error: reqwest::Error) -> Failure {
    // An address may hold what nobody else is to read.
    let error = error.without_url();
    tracing::debug!(%error, "somebody outside is away");
    Failure::Away
}
