//! What a carrier's answer makes of a booking: never twice, never lost.

use axum::http::StatusCode;
use hummock_store::{Booking, BookingMove, BookingState};
use serde_json::Value;

use super::asking::key_of;
use crate::{
    desk::Desk,
    outside::{Booked, NoAnswer},
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
            BookingState::Asked => self.settle_asked(booking).await,
            BookingState::Cancelling => self.settle_cancelling(booking).await,
            BookingState::Booked | BookingState::Refused | BookingState::Cancelled => Ok(()),
        }
    }

    async fn settle_asked(&self, booking: &Booking) -> Result<(), Problem> {
        let (tariff, key) = (tariff_of(booking), key_of(booking));
        let asks = &booking.question["asks"];
        match self.carriers().await?.book(tariff, &key, asks).await {
            Ok(booked) => self.write_booked(booking, &booked).await,
            Err(NoAnswer::Refused(_, says)) => self.settle_refused(booking, &says).await,
            Err(NoAnswer::Away | NoAnswer::Resting | NoAnswer::Later) => Ok(()),
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
        match self.carriers().await?.cancel(tariff, &key).await {
            Ok(()) => {}
            Err(NoAnswer::Refused(status, _)) if knows_nothing(status) => {}
            // It is asked again, until it is known to hold nothing.
            Err(_) => return Ok(()),
        }
        let settled = BookingMove::Refused { says };
        self.store.settle_booking(booking.id, settled).await?;
        Ok(())
    }

    async fn settle_cancelling(&self, booking: &Booking) -> Result<(), Problem> {
        let (tariff, key) = (tariff_of(booking), key_of(booking));
        let says = match self.carriers().await?.cancel(tariff, &key).await {
            Ok(()) => None,
            Err(NoAnswer::Refused(status, _)) if knows_nothing(status) => None,
            Err(NoAnswer::Refused(_, says)) => Some(says),
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

/// Whether a carrier says that there is nothing to forget.
fn knows_nothing(status: StatusCode) -> bool {
    matches!(status, StatusCode::NOT_FOUND | StatusCode::GONE)
}
