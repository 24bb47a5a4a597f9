//! Handover records: what a parcel was when it was handed over. The file lies beside the photographs; its row keeps the digest.

use serde::{Deserialize, Serialize};
use serde_json::Value;
use sqlx::{FromRow, Row as _, postgres::PgRow};
use uuid::Uuid;

use crate::{StoreError, StudioStore};

/// What names the file of a handover record.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct RecordKey {
    /// The shipment that it is of.
    pub shipment: Uuid,
    /// SHA-256 of the file.
    pub digest: Vec<u8>,
}

/// A handover record as a backup takes it out.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RecordOut {
    /// Where its file lies.
    pub key: RecordKey,
    /// The title of its shipment.
    pub title: String,
}

/// An earlier state of a shipment's inputs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct PastState {
    /// Counted from 0.
    pub state: i32,
    /// The shape of the inputs.
    pub schema: i32,
    /// What was typed.
    pub inputs: Value,
}

impl PastState {
    /// Tells whether the parcel had left by then.
    #[must_use]
    pub fn had_left(&self) -> bool {
        self.inputs
            .pointer("/sending/handed_over")
            .is_some_and(|day| !day.is_null())
    }
}

/// All that the database holds of a parcel that left and has no record yet.
#[derive(Debug, Clone, PartialEq)]
pub struct Unrecorded {
    /// The version that it was read at.
    pub version: i32,
    /// Its rows, as PostgreSQL writes them: `shipment`, `states`, `edits`, `bookings` and `taken`.
    pub record: Value,
}

impl FromRow<'_, PgRow> for RecordOut {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            key: RecordKey {
                shipment: row.try_get("shipment_id")?,
                digest: row.try_get("digest")?,
            },
            title: row.try_get("title")?,
        })
    }
}

impl StudioStore {
    /// Returns all that is stored of a parcel that left and has no record yet; `None` of any other.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn unrecorded(&self, id: Uuid) -> Result<Option<Unrecorded>, StoreError> {
        let found: Option<(i32, Value)> = sqlx::query_as(
            "SELECT version, jsonb_build_object(
                 'shipment', to_jsonb(shipment) - '{studio_id,claimed_until,claimed_for,record,found_by}'::text[],
                 'states', (
                     SELECT jsonb_agg(jsonb_build_object('state', state, 'schema', schema, 'inputs', inputs) ORDER BY state)
                     FROM shipment_state WHERE studio_id = $1 AND shipment_id = $2
                 ),
                 'edits', (
                     SELECT coalesce(jsonb_agg(edit_id ORDER BY edit_id), '[]') FROM shipment_edit
                     WHERE studio_id = $1 AND shipment_id = $2
                 ),
                 'bookings', (
                     SELECT coalesce(jsonb_agg(to_jsonb(booking) - 'studio_id' ORDER BY booking.id), '[]') FROM booking
                     WHERE studio_id = $1 AND shipment_id = $2
                 ),
                 'taken', (SELECT to_jsonb(taken) - 'studio_id' FROM taken WHERE studio_id = $1 AND shipment_id = $2)
             )
             FROM shipment WHERE studio_id = $1 AND id = $2 AND handed IS NOT NULL AND record IS NULL",
        )
        .bind(self.studio.0)
        .bind(id)
        .fetch_optional(&self.pool)
        .await?;
        Ok(found.map(|(version, record)| Unrecorded { version, record }))
    }

    /// Returns parcels that left and have no record yet, after one of them, by their ids.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn all_unrecorded(
        &self,
        after: Option<Uuid>,
        most: u32,
    ) -> Result<Vec<Uuid>, StoreError> {
        let found = sqlx::query_scalar(
            "SELECT id FROM shipment
             WHERE studio_id = $1 AND handed IS NOT NULL AND record IS NULL AND ($2::uuid IS NULL OR id > $2)
             ORDER BY id LIMIT $3",
        )
        .bind(self.studio.0)
        .bind(after)
        .bind(i64::from(most))
        .fetch_all(&self.pool)
        .await?;
        Ok(found)
    }

    /// Writes down which file holds what a parcel was, and drops what is in it; the file is on the disk by then. Tells whether the parcel
    /// was still at that version and without a record.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_record(
        &self,
        key: &RecordKey,
        version: i32,
        bytes: usize,
    ) -> Result<bool, StoreError> {
        let mut transaction = self.pool.begin().await?;
        let written = sqlx::query(
            "UPDATE shipment SET record = $3, worked = NULL, handed = handed - 'unpacking'
             WHERE studio_id = $1 AND id = $2 AND version = $4 AND handed IS NOT NULL AND record IS NULL",
        )
        .bind(self.studio.0)
        .bind(key.shipment)
        .bind(&key.digest)
        .bind(version)
        .execute(&mut *transaction)
        .await?;
        if written.rows_affected() == 0 {
            return Ok(false);
        }
        for drop in [
            "DELETE FROM shipment_edit WHERE studio_id = $1 AND shipment_id = $2",
            "DELETE FROM shipment_state USING shipment
             WHERE shipment.studio_id = $1 AND shipment.id = $2
                 AND shipment_state.studio_id = $1 AND shipment_id = $2 AND state <> at_state",
        ] {
            sqlx::query(drop)
                .bind(self.studio.0)
                .bind(key.shipment)
                .execute(&mut *transaction)
                .await?;
        }
        sqlx::query(
            "INSERT INTO handover_record (studio_id, shipment_id, digest, bytes) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING",
        )
        .bind(self.studio.0)
        .bind(key.shipment)
        .bind(&key.digest)
        .bind(i32::try_from(bytes).unwrap_or(i32::MAX))
        .execute(&mut *transaction)
        .await?;
        transaction.commit().await?;
        Ok(true)
    }

    /// Tells which of some records a row names.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn known_records(&self, digests: &[Vec<u8>]) -> Result<Vec<Vec<u8>>, StoreError> {
        let found = sqlx::query_scalar(
            "SELECT digest FROM handover_record WHERE studio_id = $1 AND digest = ANY($2)",
        )
        .bind(self.studio.0)
        .bind(digests)
        .fetch_all(&self.pool)
        .await?;
        Ok(found)
    }
}
