//! What a studio settles for every shipment: rules, stores, tariffs and presets, under one version.

use std::{collections::BTreeMap, sync::Arc};

use hummock_core::{
    freight::Tariff,
    house::{HouseRules, Manners},
    material::Catalogue,
    plan::References,
    shipment::{EDITION, House},
};
use jiff::tz::TimeZone;
use serde::Serialize;
use sqlx::{PgConnection, PgTransaction, Row as _, types::Json};
use uuid::Uuid;

use crate::{StoreError, StudioId, StudioStore, house_changes::HouseChanges};

/// Which house: counts up with every change of rules, stores, tariffs or presets.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize)]
pub struct HouseVersion(pub(crate) i32);

impl HouseVersion {
    /// Returns its number.
    #[must_use]
    pub const fn number(self) -> i32 {
        self.0
    }
}

/// A house as it was at a version.
#[derive(Debug, Clone)]
pub struct HouseAt {
    /// The version of the house.
    pub version: HouseVersion,
    /// The version of its stores alone.
    pub stores_version: i32,
    /// The studio's time zone, where it named one.
    pub zone: Option<TimeZone>,
    /// Whether the studio is the demo.
    pub demo: bool,
    /// The version of each tariff alone, by its id.
    pub tariff_versions: BTreeMap<String, i32>,
    /// Its rules, stores, tariffs and presets.
    pub house: House,
}

/// Why a change of the house was not written.
#[derive(Debug, thiserror::Error)]
pub enum SettingRefused {
    /// They changed since; this is the version that they are at.
    #[error("they changed since, and are at version {current}")]
    Stale {
        /// The version that they are at.
        current: i32,
    },
    /// Another part of the house changed since this one was checked against it: check it again.
    #[error("another part of the house changed meanwhile")]
    HouseMoved,
    /// There is nothing of that name to change.
    #[error("there is none of that name")]
    NotFound,
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for SettingRefused {
    fn from(error: sqlx::Error) -> Self {
        Self::Store(error.into())
    }
}

impl StudioStore {
    /// Returns the version of a studio's house.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn house_version(&self) -> Result<HouseVersion, StoreError> {
        let version = sqlx::query_scalar("SELECT version FROM house WHERE studio_id = $1")
            .bind(self.studio.0)
            .fetch_one(&self.pool)
            .await?;
        Ok(HouseVersion(version))
    }

    /// Returns the newest rules, the shelf, the tariffs and the presets of a studio, all as they were at one
    /// version, with the references that its plans are compared with.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn house(&self, references: Arc<References>) -> Result<HouseAt, StoreError> {
        let mut connection = self.pool.acquire().await?;
        house_in(&mut connection, self.studio, references).await
    }

    /// Keeps new rules of a house beside the older ones; their version is one above the one that they are based on.
    ///
    /// They were checked against the house at `seen`. The plans that follow are worked out afterwards: see
    /// [`Store::claim_behind`].
    ///
    /// # Errors
    /// [`SettingRefused::Stale`] when there are newer rules than those they are based on,
    /// [`SettingRefused::HouseMoved`] when another part of the house changed.
    pub async fn change_rules(
        &self,
        seen: HouseVersion,
        rules: &HouseRules,
    ) -> Result<(), SettingRefused> {
        let mut change = self.begin_change().await?;
        change.write_rules(rules).await?;
        change.finish(seen).await
    }

    /// Changes the stores; returns their new version.
    ///
    /// # Errors
    /// [`SettingRefused::Stale`] when the stores changed since the version that the change is based on,
    /// [`SettingRefused::HouseMoved`] when another part of the house did.
    pub async fn change_catalogue(
        &self,
        seen: HouseVersion,
        based_on: i32,
        catalogue: &Catalogue,
    ) -> Result<i32, SettingRefused> {
        let mut change = self.begin_change().await?;
        let current: i32 = sqlx::query_scalar("SELECT version FROM catalogue WHERE studio_id = $1")
            .bind(self.studio.0)
            .fetch_one(&mut *change.transaction)
            .await?;
        if current != based_on {
            return Err(SettingRefused::Stale { current });
        }
        sqlx::query(
            "UPDATE catalogue SET materials = $2, version = version + 1, edition = $3 WHERE studio_id = $1",
        )
        .bind(self.studio.0)
        .bind(Json(catalogue))
        .bind(EDITION.cast_signed())
        .execute(&mut *change.transaction)
        .await?;
        change.finish(seen).await?;
        Ok(current + 1)
    }

    /// Keeps a tariff under its id: a new one where `based_on` is nothing, else in place of the one of that version. Returns
    /// its version.
    ///
    /// # Errors
    /// [`SettingRefused::Stale`] when it changed since, or there is one of that id already; [`SettingRefused::NotFound`] when
    /// there is none to change; [`SettingRefused::HouseMoved`] when the house changed since the tariff was checked against it.
    pub async fn keep_tariff(
        &self,
        seen: HouseVersion,
        based_on: Option<i32>,
        tariff: &Tariff,
    ) -> Result<i32, SettingRefused> {
        let mut change = self.begin_change().await?;
        let current = change.tariff_version(&tariff.id).await?;
        match (current, based_on) {
            (None, Some(_)) => return Err(SettingRefused::NotFound),
            (Some(current), based_on) if based_on != Some(current) => {
                return Err(SettingRefused::Stale { current });
            }
            _ => {}
        }
        let version: i32 = sqlx::query_scalar(
            "INSERT INTO tariff (studio_id, id, body) VALUES ($1, $2, $3)
             ON CONFLICT (studio_id, id) DO UPDATE SET body = excluded.body, version = tariff.version + 1
             RETURNING version",
        )
        .bind(self.studio.0)
        .bind(&tariff.id)
        .bind(Json(tariff))
        .fetch_one(&mut *change.transaction)
        .await?;
        change.finish(seen).await?;
        Ok(version)
    }

    /// Drops a tariff of a version.
    ///
    /// # Errors
    /// [`SettingRefused::NotFound`] when there is none, [`SettingRefused::Stale`] when it changed since,
    /// [`SettingRefused::HouseMoved`].
    pub async fn drop_tariff(
        &self,
        seen: HouseVersion,
        based_on: i32,
        id: &str,
    ) -> Result<(), SettingRefused> {
        let mut change = self.begin_change().await?;
        match change.tariff_version(id).await? {
            None => return Err(SettingRefused::NotFound),
            Some(current) if current != based_on => return Err(SettingRefused::Stale { current }),
            Some(_) => {}
        }
        sqlx::query("DELETE FROM tariff WHERE studio_id = $1 AND id = $2")
            .bind(self.studio.0)
            .bind(id)
            .execute(&mut *change.transaction)
            .await?;
        change.finish(seen).await
    }

    /// Keeps a preset under its name, in place of one that is there.
    ///
    /// # Errors
    /// [`SettingRefused::HouseMoved`] when the house changed since the preset was checked against it.
    pub async fn keep_preset(
        &self,
        seen: HouseVersion,
        rules: &HouseRules,
    ) -> Result<(), SettingRefused> {
        let mut change = self.begin_change().await?;
        sqlx::query(
            "INSERT INTO preset (studio_id, name, rules) VALUES ($1, $2, $3)
             ON CONFLICT (studio_id, name) DO UPDATE SET rules = excluded.rules",
        )
        .bind(self.studio.0)
        .bind(&rules.name)
        .bind(Json(rules))
        .execute(&mut *change.transaction)
        .await?;
        change.finish(seen).await
    }

    /// Drops a preset.
    ///
    /// # Errors
    /// [`SettingRefused::NotFound`] when there is none, [`SettingRefused::HouseMoved`].
    pub async fn drop_preset(&self, seen: HouseVersion, name: &str) -> Result<(), SettingRefused> {
        let mut change = self.begin_change().await?;
        let dropped = sqlx::query("DELETE FROM preset WHERE studio_id = $1 AND name = $2")
            .bind(self.studio.0)
            .bind(name)
            .execute(&mut *change.transaction)
            .await?;
        if dropped.rows_affected() == 0 {
            return Err(SettingRefused::NotFound);
        }
        change.finish(seen).await
    }

    /// Returns the edition of the program that last wrote a studio's stores.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn catalogue_edition(&self) -> Result<u32, StoreError> {
        let edition: i32 = sqlx::query_scalar("SELECT edition FROM catalogue WHERE studio_id = $1")
            .bind(self.studio.0)
            .fetch_one(&self.pool)
            .await?;
        Ok(edition.unsigned_abs())
    }

    /// Begins a change of the house; others wait until it is finished or dropped.
    pub(crate) async fn begin_change(&self) -> Result<Changing<'_>, SettingRefused> {
        let mut transaction = self.pool.begin().await?;
        let from =
            sqlx::query_scalar("SELECT version FROM house WHERE studio_id = $1 FOR NO KEY UPDATE")
                .bind(self.studio.0)
                .fetch_one(&mut *transaction)
                .await?;
        Ok(Changing {
            transaction,
            studio: self.studio,
            from: HouseVersion(from),
            changes: self.house_changes.clone(),
        })
    }
}

/// A change of the house that is being written.
pub(crate) struct Changing<'a> {
    transaction: PgTransaction<'a>,
    studio: StudioId,
    from: HouseVersion,
    changes: HouseChanges,
}

impl Changing<'_> {
    /// Returns the studio whose house it is.
    pub(crate) const fn studio(&self) -> StudioId {
        self.studio
    }

    /// Returns the connection that it is written by.
    pub(crate) fn connection(&mut self) -> &mut PgConnection {
        &mut self.transaction
    }

    /// Writes new rules beside the older ones.
    pub(crate) async fn write_rules(&mut self, rules: &HouseRules) -> Result<(), SettingRefused> {
        let version = i32::try_from(rules.version).unwrap_or(i32::MAX);
        let newest: i32 =
            sqlx::query_scalar("SELECT max(version) FROM house_rules WHERE studio_id = $1")
                .bind(self.studio.0)
                .fetch_one(&mut *self.transaction)
                .await?;
        if newest + 1 != version {
            return Err(SettingRefused::Stale { current: newest });
        }
        sqlx::query("INSERT INTO house_rules (studio_id, version, rules) VALUES ($1, $2, $3)")
            .bind(self.studio.0)
            .bind(version)
            .bind(Json(rules))
            .execute(&mut *self.transaction)
            .await?;
        Ok(())
    }

    /// Keeps what was written beside the house, which is the same afterwards.
    pub(crate) async fn finish_beside(self) -> Result<(), SettingRefused> {
        Ok(self.transaction.commit().await?)
    }

    /// Returns the version of a tariff, where there is one.
    async fn tariff_version(&mut self, id: &str) -> Result<Option<i32>, sqlx::Error> {
        sqlx::query_scalar("SELECT version FROM tariff WHERE studio_id = $1 AND id = $2")
            .bind(self.studio.0)
            .bind(id)
            .fetch_optional(&mut *self.transaction)
            .await
    }

    /// Counts the house's version up and keeps the change, if the house is still the one that it was checked against.
    pub(crate) async fn finish(mut self, seen: HouseVersion) -> Result<(), SettingRefused> {
        if self.from != seen {
            return Err(SettingRefused::HouseMoved);
        }
        sqlx::query("UPDATE house SET version = version + 1 WHERE studio_id = $1")
            .bind(self.studio.0)
            .execute(&mut *self.transaction)
            .await?;
        self.transaction.commit().await?;
        self.changes.one_more();
        Ok(())
    }
}

/// Keeps the house from changing until the transaction ends; tells whether it is at a version.
pub(crate) async fn stands_at(
    connection: &mut PgConnection,
    studio: StudioId,
    version: HouseVersion,
) -> Result<bool, sqlx::Error> {
    let current: i32 =
        sqlx::query_scalar("SELECT version FROM house WHERE studio_id = $1 FOR SHARE")
            .bind(studio.0)
            .fetch_one(connection)
            .await?;
    Ok(current == version.0)
}

/// Writes a studio's first house.
pub(crate) async fn create(
    connection: &mut PgConnection,
    studio: Uuid,
    house: &House,
) -> Result<(), sqlx::Error> {
    sqlx::query("INSERT INTO house (studio_id) VALUES ($1)")
        .bind(studio)
        .execute(&mut *connection)
        .await?;
    sqlx::query("INSERT INTO house_rules (studio_id, version, rules) VALUES ($1, $2, $3)")
        .bind(studio)
        .bind(i32::try_from(house.rules.version).unwrap_or(i32::MAX))
        .bind(Json(&house.rules))
        .execute(&mut *connection)
        .await?;
    sqlx::query("INSERT INTO catalogue (studio_id, materials, edition) VALUES ($1, $2, $3)")
        .bind(studio)
        .bind(Json(&house.catalogue))
        .bind(EDITION.cast_signed())
        .execute(&mut *connection)
        .await?;
    for tariff in &house.tariffs {
        sqlx::query("INSERT INTO tariff (studio_id, id, body) VALUES ($1, $2, $3)")
            .bind(studio)
            .bind(&tariff.id)
            .bind(Json(tariff))
            .execute(&mut *connection)
            .await?;
    }
    Ok(())
}

/// Reads the house by a connection that may be in the middle of writing it.
pub(crate) async fn house_in(
    connection: &mut PgConnection,
    studio: StudioId,
    references: Arc<References>,
) -> Result<HouseAt, StoreError> {
    let row = sqlx::query(
        "SELECT house.version AS version, catalogue.version AS stores_version, rules, materials, (
             SELECT coalesce(jsonb_agg(body ORDER BY id), '[]') FROM tariff WHERE studio_id = $1
         ) AS tariffs, (
             SELECT coalesce(jsonb_object_agg(id, version), '{}') FROM tariff WHERE studio_id = $1
         ) AS tariff_versions, (
             SELECT coalesce(jsonb_agg(rules ORDER BY name), '[]') FROM preset WHERE studio_id = $1
         ) AS presets, (
             SELECT settings -> 'unit' FROM studio WHERE id = $1
         ) AS unit, (
             SELECT coalesce(settings -> 'manners', '{}') FROM studio WHERE id = $1
         ) AS manners, (
             SELECT coalesce(settings #>> '{sender,address,country}', '') FROM studio WHERE id = $1
         ) AS home, (
             SELECT coalesce((settings ->> 'demo')::boolean, false) FROM studio WHERE id = $1
         ) AS demo
         FROM house JOIN house_rules USING (studio_id) JOIN catalogue USING (studio_id)
         WHERE studio_id = $1
         ORDER BY house_rules.version DESC
         LIMIT 1",
    )
    .bind(studio.0)
    .fetch_one(connection)
    .await?;
    let Json(rules): Json<HouseRules> = row.try_get("rules")?;
    let Json(unit) = row.try_get("unit")?;
    let Json(manners): Json<Manners> = row.try_get("manners")?;
    let Json(catalogue) = row.try_get("materials")?;
    let Json(tariffs) = row.try_get("tariffs")?;
    let Json(tariff_versions) = row.try_get("tariff_versions")?;
    let Json(presets) = row.try_get("presets")?;
    Ok(HouseAt {
        version: HouseVersion(row.try_get("version")?),
        stores_version: row.try_get("stores_version")?,
        zone: manners.zone(),
        demo: row.try_get("demo")?,
        tariff_versions,
        house: House {
            rules: HouseRules {
                told_in: manners.telling(unit),
                home: row.try_get("home")?,
                allowances: rules.allowances.within_range(),
                ..rules
            },
            catalogue,
            tariffs,
            presets,
            references,
            now: None,
        },
    })
}
