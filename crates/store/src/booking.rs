//! What carriers were asked to book, each written down before it is asked.

use std::time::Duration;

use jiff::civil::Date;
use serde_json::Value;
use sqlx::{AssertSqlSafe, FromRow, Row as _, postgres::PgRow, types::Json};
use strum::{EnumString, IntoStaticStr};
use uuid::Uuid;

use crate::{Store, StoreError, StudioId, StudioStore, row::Word};

/// How a booking stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, EnumString, IntoStaticStr)]
#[strum(serialize_all = "snake_case")]
pub enum BookingState {
    /// The carrier was asked, or is about to be.
    Asked,
    /// It is booked.
    Booked,
    /// The carrier does not take it.
    Refused,
    /// The carrier was asked to forget it, or is about to be.
    Cancelling,
    /// It is booked no more.
    Cancelled,
}

impl BookingState {
    fn key(self) -> &'static str {
        self.into()
    }
}

/// One move of a booking to another state, with what is written down of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum BookingMove<'a> {
    /// The carrier took what it was asked.
    Booked {
        /// All that it answered.
        answer: &'a Value,
        /// The number that the parcel is followed by.
        tracking: &'a str,
    },
    /// The carrier does not take what it was asked.
    Refused {
        /// Why not.
        says: &'a str,
    },
    /// Somebody asks to have it cancelled, as it stood then.
    CancelAsked(BookingState),
    /// The carrier forgot it.
    Cancelled,
    /// The carrier does not forget it: it stays booked.
    KeptBooked {
        /// The reason, in words.
        says: &'a str,
        /// All that it answered about it, if it was asked anew.
        answer: Option<&'a Value>,
        /// The number that the parcel is followed by.
        tracking: Option<&'a str>,
    },
    /// The carrier does not forget it, and never said that it is booked: it is asked about again.
    KeptAsked {
        /// The reason, in words.
        says: &'a str,
    },
    /// The carrier knows nothing of what it once booked.
    Gone {
        /// How that was found, in words.
        says: &'a str,
    },
}

impl<'a> BookingMove<'a> {
    const fn states(self) -> (BookingState, BookingState) {
        match self {
            Self::Booked { .. } => (BookingState::Asked, BookingState::Booked),
            Self::Refused { .. } => (BookingState::Asked, BookingState::Refused),
            Self::CancelAsked(from) => (from, BookingState::Cancelling),
            Self::Cancelled => (BookingState::Cancelling, BookingState::Cancelled),
            Self::KeptBooked { .. } => (BookingState::Cancelling, BookingState::Booked),
            Self::KeptAsked { .. } => (BookingState::Cancelling, BookingState::Asked),
            Self::Gone { .. } => (BookingState::Booked, BookingState::Cancelled),
        }
    }

    const fn answer(self) -> Option<&'a Value> {
        match self {
            Self::Booked { answer, .. } => Some(answer),
            Self::KeptBooked { answer, .. } => answer,
            Self::Refused { .. }
            | Self::CancelAsked(_)
            | Self::Cancelled
            | Self::KeptAsked { .. }
            | Self::Gone { .. } => None,
        }
    }

    const fn says(self) -> Option<&'a str> {
        match self {
            Self::Refused { says }
            | Self::KeptBooked { says, .. }
            | Self::KeptAsked { says }
            | Self::Gone { says } => Some(says),
            Self::Booked { .. } | Self::CancelAsked(_) | Self::Cancelled => None,
        }
    }

    /// What the shipment is followed by from then on; `None` if that stays as it is.
    const fn tracking(self) -> Option<Option<&'a str>> {
        match self {
            Self::Booked { tracking, .. } => Some(Some(tracking)),
            Self::KeptBooked { tracking, .. } => Some(tracking),
            Self::Refused { .. } | Self::Cancelled | Self::Gone { .. } => Some(None),
            Self::CancelAsked(_) | Self::KeptAsked { .. } => None,
        }
    }

    /// Whether its answer is kept too where somebody asked meanwhile to have the booking cancelled.
    const fn is_kept_while_cancelling(self) -> bool {
        matches!(self, Self::Booked { .. })
    }
}

/// What a carrier was asked to book.
#[derive(Debug, Clone, PartialEq)]
pub struct Booking {
    /// By which the carrier knows it: asked again by it, it is the same.
    pub id: Uuid,
    /// Of which shipment.
    pub shipment: Uuid,
    /// As `gannet-post/parcel`.
    pub service: String,
    /// How it stands.
    pub state: BookingState,
    /// The very question.
    pub question: Value,
    /// The day on which it is fetched or taken there.
    pub leaves_on: Date,
    /// What both addresses were known by.
    pub print: String,
    /// What the carrier answered.
    pub answer: Option<Value>,
    /// What the carrier said of the parcel since.
    pub events: Value,
    /// Why it does not take it, or why there is no answer yet.
    pub says: Option<String>,
    /// Times that the carrier was asked to book it.
    pub tries: i32,
    /// Times that the carrier was asked what it holds, since it refused after a try without an answer; `None` if it never refused so.
    pub looks: Option<i32>,
}

impl Booking {
    /// Tells whether the carrier still owes an answer to the same question as another booking asks: the same parcel, service and day.
    #[must_use]
    pub fn is_unanswered_for(&self, other: &Self) -> bool {
        self.state == BookingState::Asked
            && self.shipment == other.shipment
            && self.service == other.service
            && self.leaves_on == other.leaves_on
    }
}

impl FromRow<'_, PgRow> for Booking {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        let (Word(state), Word(leaves_on)) = (row.try_get("state")?, row.try_get("leaves_on")?);
        Ok(Self {
            id: row.try_get("id")?,
            shipment: row.try_get("shipment_id")?,
            service: row.try_get("service")?,
            state,
            question: row.try_get("question")?,
            leaves_on,
            print: row.try_get("print")?,
            answer: row.try_get("answer")?,
            events: row.try_get("events")?,
            says: row.try_get("says")?,
            tries: row.try_get("tries")?,
            looks: row.try_get("looks")?,
        })
    }
}

const COLUMNS: &str = "id, shipment_id, service, state, question, leaves_on::text AS leaves_on, print, answer, events, says,
    coalesce(tries, 0) AS tries, looks";

/// Which bookings are due: by their next look, or by how long the carrier has been silent, where `$1` says how long that may be.
const DUE: &str = "state IN ('asked', 'cancelling')
    AND coalesce(look_at <= now(), asked_at <= now() - make_interval(secs => $1::float8))";

impl Store {
    /// Returns the studios that have bookings which a carrier is to be asked about by now: see [`StudioStore::bookings_due`].
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn studios_with_bookings_due(
        &self,
        silent_for: Option<Duration>,
    ) -> Result<Vec<StudioId>, StoreError> {
        let asked =
            format!("SELECT DISTINCT studio_id FROM booking WHERE {DUE} ORDER BY studio_id");
        let ids: Vec<Uuid> = sqlx::query_scalar(AssertSqlSafe(asked))
            .bind(silent_for.map(|silent| silent.as_secs_f64()))
            .fetch_all(&self.pool)
            .await?;
        Ok(ids.into_iter().map(StudioId).collect())
    }
}

impl StudioStore {
    /// Writes down what a carrier is to be asked, and returns the booking that stands: this one, or the one that there is already.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn begin_booking(&self, booking: &Booking) -> Result<Booking, StoreError> {
        sqlx::query(
            "INSERT INTO booking (studio_id, id, shipment_id, service, state, question, leaves_on, print)
             VALUES ($1, $2, $3, $4, 'asked', $5, $6::date, $7) ON CONFLICT DO NOTHING",
        )
        .bind(self.studio.0)
        .bind(booking.id)
        .bind(booking.shipment)
        .bind(&booking.service)
        .bind(Json(&booking.question))
        .bind(booking.leaves_on.to_string())
        .bind(&booking.print)
        .execute(&self.pool)
        .await?;
        let standing = self.booking(booking.shipment).await?;
        match standing {
            Some(standing) => Ok(standing),
            // It was made, and refused or cancelled since.
            None => Ok(self
                .booking_by_id(booking.id)
                .await?
                .unwrap_or_else(|| booking.clone())),
        }
    }

    /// Returns a booking by its id, however it stands.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn booking_by_id(&self, id: Uuid) -> Result<Option<Booking>, StoreError> {
        self.one_booking(id, "id = $2").await
    }

    /// Returns the booking of a shipment that stands: asked, booked or being cancelled.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn booking(&self, shipment: Uuid) -> Result<Option<Booking>, StoreError> {
        self.one_booking(
            shipment,
            "shipment_id = $2 AND state IN ('asked', 'booked', 'cancelling')",
        )
        .await
    }

    /// Returns the last booking of a shipment, whatever came of it.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn last_booking(&self, shipment: Uuid) -> Result<Option<Booking>, StoreError> {
        self.one_booking(
            shipment,
            "shipment_id = $2 ORDER BY asked_at DESC, id DESC LIMIT 1",
        )
        .await
    }

    async fn one_booking(&self, by: Uuid, which: &str) -> Result<Option<Booking>, StoreError> {
        let asked = format!("SELECT {COLUMNS} FROM booking WHERE studio_id = $1 AND {which}");
        Ok(sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(by)
            .fetch_optional(&self.pool)
            .await?)
    }

    /// Returns at most `most` bookings that a carrier is to be asked about, the longest due first: those that it refused after a try without
    /// an answer and whose next look is due, and with `silent_for` those that have waited that long for an answer.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn bookings_due(
        &self,
        silent_for: Option<Duration>,
        most: i64,
    ) -> Result<Vec<Booking>, StoreError> {
        let asked = format!(
            "SELECT {COLUMNS} FROM booking WHERE {DUE} AND studio_id = $2
             ORDER BY coalesce(look_at, asked_at) LIMIT $3"
        );
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(silent_for.map(|silent| silent.as_secs_f64()))
            .bind(self.studio.0)
            .bind(most)
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Counts that a carrier is about to be asked to book; returns how often it had been asked before.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn count_try(&self, id: Uuid) -> Result<i32, StoreError> {
        let tries: Option<i32> = sqlx::query_scalar(
            "UPDATE booking SET tries = coalesce(tries, 0) + 1 WHERE studio_id = $1 AND id = $2 RETURNING tries",
        )
        .bind(self.studio.0)
        .bind(id)
        .fetch_optional(&self.pool)
        .await?;
        Ok(tries.unwrap_or(1) - 1)
    }

    /// Writes down that a carrier refused after a try without an answer, or how often it was asked since what it holds, and when it is
    /// asked next; nothing where the booking was settled meanwhile.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn look_again(
        &self,
        id: Uuid,
        (looks, says): (i32, &str),
        after: Duration,
    ) -> Result<(), StoreError> {
        sqlx::query(
            "UPDATE booking SET looks = $3, says = $4, look_at = now() + make_interval(secs => $5)
             WHERE studio_id = $1 AND id = $2 AND state = 'asked'",
        )
        .bind(self.studio.0)
        .bind(id)
        .bind(looks)
        .bind(says)
        .bind(after.as_secs_f64())
        .execute(&self.pool)
        .await?;
        Ok(())
    }

    /// Returns the bookings of shipments on the bench that leave on a day or later, however they stand, the first ones first; so
    /// many at most.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn bookings_from(&self, day: Date, most: i64) -> Result<Vec<Booking>, StoreError> {
        let asked = format!(
            "SELECT {COLUMNS} FROM booking WHERE studio_id = $1 AND leaves_on >= $2::date AND EXISTS (
                 SELECT FROM shipment WHERE studio_id = $1 AND shipment.id = shipment_id AND place = 'bench'
             ) ORDER BY leaves_on, asked_at, id LIMIT $3"
        );
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(day.to_string())
            .bind(most)
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Returns the bookings of some ids, however they stand.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn bookings_by_id(&self, ids: &[Uuid]) -> Result<Vec<Booking>, StoreError> {
        let asked = format!("SELECT {COLUMNS} FROM booking WHERE studio_id = $1 AND id = ANY($2)");
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(ids)
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Returns the bookings that leave on a day, in the order in which they were made.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn leaving_on(&self, day: Date) -> Result<Vec<Booking>, StoreError> {
        let asked = format!(
            "SELECT {COLUMNS} FROM booking WHERE studio_id = $1 AND state = 'booked' AND leaves_on = $2::date
             ORDER BY service, asked_at, id"
        );
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(day.to_string())
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Writes down what became of a booking, unless that is known already, with what its shipment is followed by from then on;
    /// returns it as it stands.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn settle_booking(
        &self,
        id: Uuid,
        settled: BookingMove<'_>,
    ) -> Result<Option<Booking>, StoreError> {
        let (from, to) = settled.states();
        let mut transaction = self.pool.begin().await?;
        if settled.is_kept_while_cancelling() {
            sqlx::query(
                "UPDATE booking SET answer = $3 WHERE studio_id = $1 AND id = $2 AND state = 'cancelling'",
            )
            .bind(self.studio.0)
            .bind(id)
            .bind(settled.answer().map(Json))
            .execute(&mut *transaction)
            .await?;
        }
        let moved: Option<Uuid> = sqlx::query_scalar(
            "UPDATE booking SET state = $4, answer = coalesce($5, answer), says = $6, looks = NULL, look_at = NULL
             WHERE studio_id = $1 AND id = $2 AND state = $3 RETURNING shipment_id",
        )
        .bind(self.studio.0)
        .bind(id)
        .bind(from.key())
        .bind(to.key())
        .bind(settled.answer().map(Json))
        .bind(settled.says())
        .fetch_optional(&mut *transaction)
        .await?;
        if let Some((shipment, tracking)) = moved.zip(settled.tracking()) {
            sqlx::query("UPDATE shipment SET tracking = $3 WHERE studio_id = $1 AND id = $2")
                .bind(self.studio.0)
                .bind(shipment)
                .bind(tracking)
                .execute(&mut *transaction)
                .await?;
        }
        transaction.commit().await?;
        self.booking_by_id(id).await
    }

    /// Keeps what a carrier said of a parcel.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_events(&self, id: Uuid, events: &Value) -> Result<(), StoreError> {
        sqlx::query(
            "UPDATE booking SET events = $3 WHERE studio_id = $1 AND id = $2 AND events IS DISTINCT FROM $3",
        )
        .bind(self.studio.0)
        .bind(id)
        .bind(Json(events))
        .execute(&self.pool)
        .await?;
        Ok(())
    }
}
