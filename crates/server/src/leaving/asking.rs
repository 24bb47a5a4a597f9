//! What carriers are asked, and asked again until they answer.

use std::time::{Duration, Instant};

use hummock_core::{Refusal, shipment::CarrierAsk};
use hummock_store::{Booking, StoreError, StudioId};
use jiff::civil::Date;
use serde_json::{Value, json};

use super::to_leave::ToLeave;
use crate::{app::App, desk::Desk, network::Caller, outside::body_of, problem::Problem};

/// A carrier that did not answer is asked again after this.
const ASK_AGAIN: Duration = Duration::from_secs(15);
/// Looks at what carriers hold are due to within this.
const LOOK_EVERY: Duration = Duration::from_secs(5);

const ASKED_AT_ONCE: i64 = 20;

/// Returns what a carrier knows a booking by: studio and booking together, for ids are chosen by whoever books. One that was begun
/// before studios were told apart keeps its own id.
pub(super) fn key_of(booking: &Booking) -> String {
    let key = booking.question["key"].as_str().map(str::to_owned);
    key.unwrap_or_else(|| booking.id.to_string())
}

/// Returns the very question that a carrier is asked, with what its tariff says beside it.
pub(super) async fn question(desk: &Desk, leaves: &ToLeave, on: Date) -> Result<Value, Problem> {
    let refused = |field: &str, says: &str| Problem::from(vec![Refusal::new(field, says)]);
    let gaps = leaves.gaps();
    if !gaps.is_empty() {
        let refusals = gaps
            .into_iter()
            .map(|gap| Refusal::new(gap.field, gap.says));
        return Err(refusals.collect::<Vec<_>>().into());
    }
    let quote = leaves
        .quote()
        .ok_or_else(|| refused("service", "choose a service at Price first"))?;
    let (tariff, service) = leaves.by_tariff().ok_or_else(|| {
        refused(
            "service",
            "book a quoted price with the carrier who quoted it, and enter the tracking number",
        )
    })?;
    if !desk.carriers().await?.is_there(&tariff.id) {
        return Err(refused(
            "service",
            "this carrier can't be reached from here: book with the carrier, and enter the tracking number",
        ));
    }
    if on < desk.clock.today() {
        return Err(refused("on", "that day is past: choose a later one"));
    }
    // The carrier may take it on a day that its tariff does not know of.
    let can_book = on >= tariff.first_day(service, desk.clock.now());
    let is_its = can_book && tariff.next_days(service, on, 1).first() == Some(&on);
    if !is_its && !desk.takes_on(tariff, service, on).await {
        return Err(refused(
            "on",
            "the carrier doesn't collect on that day: choose another",
        ));
    }
    let inputs = &leaves.stored.inputs;
    let live = leaves.live().ok_or_else(Problem::put_away)?;
    let asks = CarrierAsk::of(inputs, &live.house.house)?;
    let ask = asks
        .iter()
        .find(|ask| ask.tariff.id == tariff.id)
        .ok_or_else(|| refused("service", "this carrier's tariff was deleted"))?;
    let ends = leaves.ends();
    let mut asked = body_of(ask);
    asked["service"] = json!(service.id);
    asked["ready_on"] = json!(on);
    asked["to"] = json!(ends.to);
    asked["from"] = json!(ends.from);
    Ok(json!({ "asks": asked, "by_tariff": quote.total() }))
}

/// Asks carriers at intervals about bookings without an answer, also about those of a process that was killed.
///
/// A booking that this process began is left alone at first: whoever began it is still asking. `started` is when the process began.
pub(crate) async fn keep_asking(app: App, started: Instant) {
    let [first_look, ..] = app.outside.carriers.looks();
    let mut asked: Option<Instant> = None;
    loop {
        let asks = asked.is_none_or(|asked| asked.elapsed() >= ASK_AGAIN);
        let silent_for = asks.then(|| started.elapsed().min(ASK_AGAIN));
        if asks {
            asked = Some(Instant::now());
        }
        if let Err(error) = ask_again(&app, silent_for).await {
            tracing::warn!(%error, "bookings can't be looked for");
        }
        tokio::time::sleep(LOOK_EVERY.min(first_look)).await;
    }
}

/// Asks about every booking that is due: with `silent_for` also about those that have waited so long for an answer.
async fn ask_again(app: &App, silent_for: Option<Duration>) -> Result<(), StoreError> {
    for studio in app.store.studios_with_bookings_due(silent_for).await? {
        match ask_in(app, studio, silent_for).await {
            Err(error @ StoreError::Away(_)) => return Err(error),
            // One that can't be read is no reason to leave out the others.
            Err(error) => tracing::error!(%studio, %error, "its bookings can't be looked for"),
            Ok(()) => {}
        }
    }
    Ok(())
}

async fn ask_in(
    app: &App,
    studio: StudioId,
    silent_for: Option<Duration>,
) -> Result<(), StoreError> {
    let desk = Desk::of(app, studio, Caller::Machine).await?;
    for booking in desk.store.bookings_due(silent_for, ASKED_AT_ONCE).await? {
        if desk.settle(&booking).await.is_err() {
            tracing::warn!(booking = %booking.id, "what a carrier said can't be written down");
        }
    }
    Ok(())
}
