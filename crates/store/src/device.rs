//! Devices of the local network that were let in, and the passphrase that lets them.

use sqlx::{FromRow, Row as _, postgres::PgRow};
use uuid::Uuid;

use crate::{StoreError, StudioStore};

/// A device that is signed in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Device {
    /// The id of the device.
    pub id: Uuid,
    /// What its user calls it.
    pub name: String,
    /// When it gave the passphrase, in seconds since 1970.
    pub signed_in: i64,
    /// When it last asked for anything, to the minute, in seconds since 1970.
    pub seen: i64,
}

/// A digest of what a device shows to be known again.
pub type TokenDigest = [u8; 32];

/// A device that has been silent for longer is asked for the passphrase again.
const LONGEST_SILENCE_DAYS: i32 = 90;

impl FromRow<'_, PgRow> for Device {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            id: row.try_get("id")?,
            name: row.try_get("name")?,
            signed_in: row.try_get("signed_in")?,
            seen: row.try_get("seen")?,
        })
    }
}

impl StudioStore {
    /// Returns the studio's passphrase as it is kept, when it has one.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn passphrase(&self) -> Result<Option<String>, StoreError> {
        let hash = sqlx::query_scalar("SELECT hash FROM passphrase WHERE studio_id = $1")
            .bind(self.studio.0)
            .fetch_optional(&self.pool)
            .await?;
        Ok(hash)
    }

    /// Keeps a studio's first passphrase; returns whether it had none.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_first_passphrase(&self, hash: &str) -> Result<bool, StoreError> {
        let done = sqlx::query(
            "INSERT INTO passphrase (studio_id, hash) VALUES ($1, $2) ON CONFLICT DO NOTHING",
        )
        .bind(self.studio.0)
        .bind(hash)
        .execute(&self.pool)
        .await?;
        Ok(done.rows_affected() == 1)
    }

    /// Changes the passphrase and signs every device out.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn change_passphrase(&self, hash: &str) -> Result<(), StoreError> {
        let mut transaction = self.pool.begin().await?;
        sqlx::query(
            "INSERT INTO passphrase (studio_id, hash) VALUES ($1, $2)
             ON CONFLICT (studio_id) DO UPDATE SET hash = excluded.hash, changed_at = now()",
        )
        .bind(self.studio.0)
        .bind(hash)
        .execute(&mut *transaction)
        .await?;
        // Whoever signs in by the former one holds its row until the device is there to be deleted.
        sqlx::query("DELETE FROM device WHERE studio_id = $1")
            .bind(self.studio.0)
            .execute(&mut *transaction)
            .await?;
        transaction.commit().await?;
        Ok(())
    }

    /// Lets a device in that gave a passphrase; returns its id, or nothing when another is kept by now.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn sign_in(
        &self,
        name: &str,
        token: &TokenDigest,
        by_passphrase: &str,
    ) -> Result<Option<Uuid>, StoreError> {
        let id = sqlx::query_scalar(
            "WITH door AS (
                 SELECT studio_id FROM passphrase WHERE studio_id = $2 AND hash = $5 FOR SHARE
             )
             INSERT INTO device (id, studio_id, name, token_digest)
             SELECT $1, studio_id, $3, $4 FROM door
             RETURNING id",
        )
        .bind(Uuid::now_v7())
        .bind(self.studio.0)
        .bind(name)
        .bind(token.as_slice())
        .bind(by_passphrase)
        .fetch_optional(&self.pool)
        .await?;
        Ok(id)
    }

    /// Returns which device shows that, when one is signed in, and notes that it was seen.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn device_that_shows(&self, token: &TokenDigest) -> Result<Option<Uuid>, StoreError> {
        let found: Option<(Uuid, bool)> = sqlx::query_as(
            "SELECT id, seen_at < now() - interval '1 minute' FROM device
             WHERE studio_id = $1 AND token_digest = $2 AND seen_at > now() - make_interval(days => $3)",
        )
        .bind(self.studio.0)
        .bind(token.as_slice())
        .bind(LONGEST_SILENCE_DAYS)
        .fetch_optional(&self.pool)
        .await?;
        if let Some((id, true)) = found {
            sqlx::query("UPDATE device SET seen_at = now() WHERE id = $1")
                .bind(id)
                .execute(&self.pool)
                .await?;
        }
        Ok(found.map(|(id, _)| id))
    }

    /// Returns the devices that are signed in, the newest first.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn devices(&self) -> Result<Vec<Device>, StoreError> {
        let devices = sqlx::query_as(
            "SELECT id, name, extract(epoch FROM signed_in_at)::bigint AS signed_in,
                 extract(epoch FROM seen_at)::bigint AS seen
             FROM device
             WHERE studio_id = $1 AND seen_at > now() - make_interval(days => $2)
             ORDER BY signed_in_at DESC, id",
        )
        .bind(self.studio.0)
        .bind(LONGEST_SILENCE_DAYS)
        .fetch_all(&self.pool)
        .await?;
        Ok(devices)
    }

    /// Tells whether a device is signed in.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn is_signed_in(&self, device: Uuid) -> Result<bool, StoreError> {
        let found = sqlx::query_scalar(
            "SELECT EXISTS (SELECT FROM device WHERE studio_id = $1 AND id = $2)",
        );
        let found = found.bind(self.studio.0).bind(device);
        Ok(found.fetch_one(&self.pool).await?)
    }

    /// Signs a device out; returns whether it was signed in.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn sign_out(&self, device: Uuid) -> Result<bool, StoreError> {
        let done = sqlx::query("DELETE FROM device WHERE studio_id = $1 AND id = $2")
            .bind(self.studio.0)
            .bind(device)
            .execute(&self.pool)
            .await?;
        Ok(done.rows_affected() == 1)
    }
}
