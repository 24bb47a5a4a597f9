//! What a studio settles for every shipment: rules, stores and presets; and what follows from a change.

use hummock_core::{house::HouseRules, material::Catalogue, shipment::EDITION};
use sqlx::types::Json;
use uuid::Uuid;

use crate::{Computed, Store, StoreError, StudioId};

/// Why a change of the rules or the stores was not written.
#[derive(Debug, thiserror::Error)]
pub enum SettingRefused {
    /// They changed since; this is the version that they are at.
    #[error("they changed since, and are at version {current}")]
    Stale {
        /// The version that they are at.
        current: i32,
    },
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for SettingRefused {
    fn from(error: sqlx::Error) -> Self {
        Self::Store(error.into())
    }
}

/// What was computed anew for a shipment that nobody edited.
#[derive(Debug, Clone, PartialEq)]
pub struct Recomputed {
    /// Which.
    pub id: Uuid,
    /// The version whose inputs it was computed for; a newer one keeps its own.
    pub version: i32,
    /// The plan, by the house as it is now.
    pub computed: Computed,
}

impl Store {
    /// Keeps new rules of a house beside the older ones, and what follows from them for its shipments.
    ///
    /// The version of the rules is one above the one that they are based on.
    ///
    /// # Errors
    /// [`SettingRefused::Stale`] when there are newer rules than those they are based on.
    pub async fn change_rules(
        &self,
        studio: StudioId,
        rules: &HouseRules,
        recomputed: &[Recomputed],
    ) -> Result<(), SettingRefused> {
        let version = i32::try_from(rules.version).unwrap_or(i32::MAX);
        let mut transaction = self.pool.begin().await?;
        let newest: i32 = sqlx::query_scalar(
            "SELECT version FROM house_rules WHERE studio_id = $1 ORDER BY version DESC LIMIT 1 FOR UPDATE",
        )
        .bind(studio.0)
        .fetch_one(&mut *transaction)
        .await?;
        if newest + 1 != version {
            return Err(SettingRefused::Stale { current: newest });
        }
        let written = sqlx::query(
            "INSERT INTO house_rules (studio_id, version, rules) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING",
        )
        .bind(studio.0)
        .bind(version)
        .bind(Json(rules))
        .execute(&mut *transaction)
        .await?;
        if written.rows_affected() == 0 {
            return Err(SettingRefused::Stale { current: version });
        }
        keep_recomputed(&mut transaction, studio, recomputed).await?;
        transaction.commit().await?;
        Ok(())
    }

    /// Returns the version of a studio's stores.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn catalogue_version(&self, studio: StudioId) -> Result<i32, StoreError> {
        Ok(
            sqlx::query_scalar("SELECT version FROM catalogue WHERE studio_id = $1")
                .bind(studio.0)
                .fetch_one(&self.pool)
                .await?,
        )
    }

    /// Returns the edition of the program that last wrote a studio's stores.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn catalogue_edition(&self, studio: StudioId) -> Result<u32, StoreError> {
        let edition: i32 = sqlx::query_scalar("SELECT edition FROM catalogue WHERE studio_id = $1")
            .bind(studio.0)
            .fetch_one(&self.pool)
            .await?;
        Ok(edition.unsigned_abs())
    }

    /// Changes the stores, and keeps what follows for the shipments; returns the new version.
    ///
    /// # Errors
    /// [`SettingRefused::Stale`] when the stores changed since the version that the change is based on.
    pub async fn change_catalogue(
        &self,
        studio: StudioId,
        based_on: i32,
        catalogue: &Catalogue,
        recomputed: &[Recomputed],
    ) -> Result<i32, SettingRefused> {
        let mut transaction = self.pool.begin().await?;
        let current: i32 =
            sqlx::query_scalar("SELECT version FROM catalogue WHERE studio_id = $1 FOR UPDATE")
                .bind(studio.0)
                .fetch_one(&mut *transaction)
                .await?;
        if current != based_on {
            return Err(SettingRefused::Stale { current });
        }
        sqlx::query(
            "UPDATE catalogue SET materials = $2, version = version + 1, edition = $3 WHERE studio_id = $1",
        )
        .bind(studio.0)
        .bind(Json(catalogue))
        .bind(EDITION.cast_signed())
        .execute(&mut *transaction)
        .await?;
        keep_recomputed(&mut transaction, studio, recomputed).await?;
        transaction.commit().await?;
        Ok(current + 1)
    }

    /// Keeps what was computed anew for shipments, by the house as it is.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn recompute(
        &self,
        studio: StudioId,
        recomputed: &[Recomputed],
    ) -> Result<(), StoreError> {
        let mut transaction = self.pool.begin().await?;
        keep_recomputed(&mut transaction, studio, recomputed).await?;
        transaction.commit().await?;
        Ok(())
    }

    /// Returns the ids of shipments whose plan was worked out by a program before an edition.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn worked_out_before(
        &self,
        studio: StudioId,
        edition: u32,
    ) -> Result<Vec<Uuid>, StoreError> {
        Ok(sqlx::query_scalar(
            "SELECT id FROM shipment
             WHERE studio_id = $1 AND coalesce((worked->>'edition')::integer, 0) < $2",
        )
        .bind(studio.0)
        .bind(edition.cast_signed())
        .fetch_all(&self.pool)
        .await?)
    }

    /// Returns the studio's own presets, by name.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn presets(&self, studio: StudioId) -> Result<Vec<HouseRules>, StoreError> {
        let presets: Vec<Json<HouseRules>> =
            sqlx::query_scalar("SELECT rules FROM preset WHERE studio_id = $1 ORDER BY name")
                .bind(studio.0)
                .fetch_all(&self.pool)
                .await?;
        Ok(presets.into_iter().map(|Json(rules)| rules).collect())
    }

    /// Keeps a preset under its name, in place of one that is there.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_preset(
        &self,
        studio: StudioId,
        rules: &HouseRules,
    ) -> Result<(), StoreError> {
        sqlx::query(
            "INSERT INTO preset (studio_id, name, rules) VALUES ($1, $2, $3)
             ON CONFLICT (studio_id, name) DO UPDATE SET rules = excluded.rules",
        )
        .bind(studio.0)
        .bind(&rules.name)
        .bind(Json(rules))
        .execute(&self.pool)
        .await?;
        Ok(())
    }

    /// Drops a preset; tells whether there was one.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn drop_preset(&self, studio: StudioId, name: &str) -> Result<bool, StoreError> {
        let dropped = sqlx::query("DELETE FROM preset WHERE studio_id = $1 AND name = $2")
            .bind(studio.0)
            .bind(name)
            .execute(&self.pool)
            .await?;
        Ok(dropped.rows_affected() > 0)
    }
}

/// Writes what was computed anew; inputs and versions stay, since nobody edited them.
async fn keep_recomputed(
    transaction: &mut sqlx::PgTransaction<'_>,
    studio: StudioId,
    recomputed: &[Recomputed],
) -> Result<(), sqlx::Error> {
    for Recomputed {
        id,
        version,
        computed,
    } in recomputed
    {
        sqlx::query(
            "UPDATE shipment SET worked = $3, summary = $4, rules_version = $5
             WHERE studio_id = $1 AND id = $2 AND version = $6",
        )
        .bind(studio.0)
        .bind(id)
        .bind(Json(&computed.worked))
        .bind(computed.summary.as_ref().map(Json))
        .bind(computed.rules_version.cast_signed())
        .bind(version)
        .execute(&mut **transaction)
        .await?;
    }
    Ok(())
}
