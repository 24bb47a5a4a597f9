//! What a carrier's answer makes of a booking: never twice, never lost.

use hummock_store::{Booking, BookingMove, BookingState};
use serde_json::Value;

use super::asking::key_of;
use crate::{
    desk::Desk,
    outside::{Booked, NoAnswer, Refusal},
    problem::Problem,
};

impl Desk {
    /// Asks a carrier about a booking that waits for its answer, and writes down what it says; however often, by however many.
    pub(crate) async fn settle(&self, booking: &Booking) -> Result<(), Problem> {
        // The one that a backup was made of may still ask about it.
        if self.store.is_held().await? {
            return Ok(());
        }
        match booking.state {
            BookingState::Asked if booking.looks.is_some() => self.look_again(booking).await,
            BookingState::Asked => self.ask_to_book(booking).await,
            BookingState::Cancelling => self.settle_cancelling(booking).await,
            BookingState::Booked | BookingState::Refused | BookingState::Cancelled => Ok(()),
        }
    }

    /// Settles a booking for which somebody pressed: the carrier is asked to book by the same key again, also where its refusal is in doubt.
    pub(crate) async fn press(&self, booking: &Booking) -> Result<(), Problem> {
        match booking.state {
            BookingState::Asked => self.ask_to_book(booking).await,
            BookingState::Booked
            | BookingState::Refused
            | BookingState::Cancelling
            | BookingState::Cancelled => self.settle(booking).await,
        }
    }

    /// Asks a carrier to book, by the one key that this booking has however often it is asked, and writes down what it says.
    async fn ask_to_book(&self, booking: &Booking) -> Result<(), Problem> {
        if self.store.is_held().await? || booking.state != BookingState::Asked {
            return Ok(());
        }
        let (tariff, key) = (tariff_of(booking), key_of(booking));
        let asks = &booking.question["asks"];
        let carriers = self.carriers().await?;
        // Counted before it is asked: a process that is killed meanwhile leaves a try without an answer behind.
        let asked_before = self.store.count_try(booking.id).await? > 0;
        match carriers.book(tariff, &key, asks).await {
            Ok(booked) => self.write_booked(booking, &booked).await,
            Err(NoAnswer::Refused(refusal)) => {
                let in_doubt = asked_before || refusal.after_silence;
                match in_doubt && !refusal.is_final {
                    true => self.doubt(booking, (0, &refusal.says)).await,
                    false => self.settle_refused(booking, &refusal.says).await,
                }
            }
            Err(NoAnswer::Away | NoAnswer::Resting | NoAnswer::Later) => match &booking.says {
                // This very try may have booked it: the looks begin anew.
                Some(says) if booking.looks.is_some() => self.doubt(booking, (0, says)).await,
                Some(_) | None => Ok(()),
            },
        }
    }

    /// Writes down that a refusal is in doubt, because an earlier try had no answer, and when the carrier is asked next what it holds.
    async fn doubt(&self, booking: &Booking, (looks, says): (i32, &str)) -> Result<(), Problem> {
        let all = self.app.outside.carriers.looks();
        let at = usize::try_from(looks).unwrap_or_default();
        let before = at.checked_sub(1).and_then(|before| all.get(before));
        let due = all.get(at).copied().unwrap_or_default();
        let after = due.saturating_sub(before.copied().unwrap_or_default());
        self.store
            .look_again(booking.id, (looks, says), after)
            .await?;
        Ok(())
    }

    /// Asks a carrier that refused after a try without an answer what it holds by the key; the refusal stands once the carrier said at
    /// every look that it holds nothing.
    async fn look_again(&self, booking: &Booking) -> Result<(), Problem> {
        let (tariff, key) = (tariff_of(booking), key_of(booking));
        let says = booking.says.as_deref().unwrap_or_default();
        let looks = booking.looks.unwrap_or_default() + 1;
        match self.carriers().await?.booking(tariff, &key).await {
            Ok(Some(booked)) => self.write_booked(booking, &booked).await,
            Ok(None) => {
                let all = self.app.outside.carriers.looks().len();
                match usize::try_from(looks).is_ok_and(|looks| looks >= all) {
                    true => self.settle_refused(booking, says).await,
                    false => self.doubt(booking, (looks, says)).await,
                }
            }
            // The look stays due, and the carrier is asked again in the next round.
            Err(_) => Ok(()),
        }
    }

    /// A refusal stands once the carrier holds nothing by the key and never will: an earlier try may have gone unanswered,
    /// and its booking may stand, or still be on its way.
    async fn settle_refused(&self, booking: &Booking, says: &str) -> Result<(), Problem> {
        let (tariff, key) = (tariff_of(booking), key_of(booking));
        match self.carriers().await?.booking(tariff, &key).await {
            Ok(Some(booked)) => return self.write_booked(booking, &booked).await,
            Ok(None) => {}
            Err(_) => return Ok(()),
        }
        // The carrier is asked again until it is known to hold nothing.
        if self.carriers().await?.cancel(tariff, &key).await.is_err() {
            return Ok(());
        }
        let settled = BookingMove::Refused { says };
        self.store.settle_booking(booking.id, settled).await?;
        Ok(())
    }

    async fn settle_cancelling(&self, booking: &Booking) -> Result<(), Problem> {
        let (tariff, key) = (tariff_of(booking), key_of(booking));
        let says = match self.carriers().await?.cancel(tariff, &key).await {
            Ok(()) => None,
            Err(NoAnswer::Refused(Refusal { says, .. })) => Some(says),
            Err(NoAnswer::Away | NoAnswer::Resting | NoAnswer::Later) => return Ok(()),
        };
        let Some(says) = says else {
            let settled = BookingMove::Cancelled;
            self.store.settle_booking(booking.id, settled).await?;
            return Ok(());
        };
        // It does not forget it: what it holds is asked, or was answered while it was being cancelled.
        let held = match self.carriers().await?.booking(tariff, &key).await {
            Ok(held) => held,
            Err(_) => return Ok(()),
        };
        let kept = self.store.booking_by_id(booking.id).await?;
        let known = kept.and_then(|kept| serde_json::from_value(kept.answer?).ok());
        let Some(booked) = held.or(known) else {
            let settled = BookingMove::KeptAsked { says: &says };
            self.store.settle_booking(booking.id, settled).await?;
            return Ok(());
        };
        let settled = BookingMove::KeptBooked {
            says: &says,
            answer: Some(&written(&booked)),
            tracking: Some(&booked.tracking),
        };
        self.store.settle_booking(booking.id, settled).await?;
        Ok(())
    }

    async fn write_booked(&self, booking: &Booking, booked: &Booked) -> Result<(), Problem> {
        let settled = BookingMove::Booked {
            answer: &written(booked),
            tracking: &booked.tracking,
        };
        self.store.settle_booking(booking.id, settled).await?;
        Ok(())
    }
}

fn written(booked: &Booked) -> Value {
    serde_json::to_value(booked).unwrap_or_default()
}

pub(super) fn tariff_of(booking: &Booking) -> &str {
    let tariff = booking.service.split_once('/');
    tariff.map_or(booking.service.as_str(), |(tariff, _)| tariff)
}
