//! A studio and its settings.

use hummock_core::{
    quantity::LengthUnit,
    sending::{AddressForm, PostcodePlace, Sender, papers::Card},
    shipment::{House, NamedCountry, OrderColumns},
};
use serde::{Deserialize, Serialize};
use sqlx::{AssertSqlSafe, PgTransaction, types::Json};
use uuid::Uuid;

use crate::{Store, StoreError, StudioStore, house};

/// Which studio.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct StudioId(pub(crate) Uuid);

impl std::fmt::Display for StudioId {
    fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        self.0.fmt(to)
    }
}

/// What a studio calls itself and how it reads.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Settings {
    /// Its name.
    pub name: String,
    /// Where it is.
    pub town: String,
    /// What its bare numbers are in.
    pub unit: LengthUnit,
    /// Where it ships to.
    pub countries: Vec<Country>,
    /// Its own address, as it stands on labels and papers.
    #[serde(default)]
    pub sender: Sender,
    /// The card that its certificates are printed on.
    #[serde(default)]
    pub certificate: Card,
}

/// A country that the studio ships to.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Country {
    /// Two capital letters.
    pub code: String,
    /// What people call it.
    pub name: String,
    /// Where its custom has the postcode.
    #[serde(default)]
    pub postcode: PostcodePlace,
}

/// Why settings were not written.
#[derive(Debug, thiserror::Error)]
pub enum SettingsRefused {
    /// They changed since.
    #[error("the settings changed since version {0}")]
    Stale(i32),
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl Settings {
    /// Tells whether a country is another one than the studio's own; not while either is not known.
    #[must_use]
    pub fn is_abroad(&self, country: &str) -> bool {
        let own = &self.sender.address.country;
        !own.is_empty() && !country.is_empty() && own != country
    }

    /// Returns how addresses of a country are written; of one that is not listed, with its code and the postcode before the town.
    #[must_use]
    pub fn form_of<'a>(&'a self, country: &'a str) -> AddressForm<'a> {
        let known = self.countries.iter().find(|known| known.code == country);
        AddressForm {
            country: known.map_or(country, |known| &known.name),
            postcode: known.map_or(PostcodePlace::default(), |known| known.postcode),
        }
    }

    /// Returns where it ships to, as the core finds a country by its name.
    #[must_use]
    pub fn named_countries(&self) -> Vec<NamedCountry<'_>> {
        self.countries
            .iter()
            .map(|Country { code, name, .. }| NamedCountry { code, name })
            .collect()
    }
}

/// Somebody's turn to take in start files, until it is dropped.
#[derive(Debug)]
pub struct Turn {
    _transaction: PgTransaction<'static>,
}

impl Store {
    /// Returns the one handle to what a studio keeps.
    #[must_use]
    pub fn of(&self, studio: StudioId) -> StudioStore {
        StudioStore {
            pool: self.pool.clone(),
            studio,
            house_changes: self.house_changes.clone(),
        }
    }

    /// Returns the studio of a name, if there is one.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn studio_named(&self, name: &str) -> Result<Option<StudioId>, StoreError> {
        let id = sqlx::query_scalar("SELECT id FROM studio WHERE name = $1")
            .bind(name)
            .fetch_optional(&self.pool)
            .await?;
        Ok(id.map(StudioId))
    }

    /// Waits until nobody else takes start files into a studio of a name, and keeps others waiting until it is dropped.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn turn_to_take_in(&self, name: &str) -> Result<Turn, StoreError> {
        let mut transaction = self.pool.begin().await?;
        sqlx::query("SELECT pg_advisory_xact_lock(hashtextextended($1, 0))")
            .bind(name)
            .execute(&mut *transaction)
            .await?;
        Ok(Turn {
            _transaction: transaction,
        })
    }

    /// Tells whether the start files of a studio were taken in to their end.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn is_taken_in(&self, studio: StudioId) -> Result<bool, StoreError> {
        let done = sqlx::query_scalar("SELECT taken_in FROM studio WHERE id = $1")
            .bind(studio.0)
            .fetch_one(&self.pool)
            .await?;
        Ok(done)
    }

    /// Writes down that the start files of a studio were taken in to their end.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn mark_taken_in(&self, studio: StudioId) -> Result<(), StoreError> {
        sqlx::query("UPDATE studio SET taken_in = true WHERE id = $1")
            .bind(studio.0)
            .execute(&self.pool)
            .await?;
        Ok(())
    }

    /// Drops a studio whose start files were taken in half-way, which nobody has opened yet.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn drop_half_taken_in(&self, studio: StudioId) -> Result<(), StoreError> {
        let mut transaction = self.pool.begin().await?;
        // Its shipments hold on to its rules, so that they go first.
        for table in ["cutting", "shipment"] {
            let gone = format!("DELETE FROM {table} WHERE studio_id = $1");
            sqlx::query(AssertSqlSafe(gone))
                .bind(studio.0)
                .execute(&mut *transaction)
                .await?;
        }
        sqlx::query("DELETE FROM studio WHERE id = $1 AND NOT taken_in")
            .bind(studio.0)
            .execute(&mut *transaction)
            .await?;
        transaction.commit().await?;
        Ok(())
    }

    /// Creates a studio whose start files are still to be taken in.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn begin_studio(
        &self,
        name: &str,
        settings: &Settings,
        house: &House,
    ) -> Result<StudioId, StoreError> {
        let (studio, _) = self.put_studio(name, (settings, house), false).await?;
        Ok(studio)
    }

    /// Returns the studio of an id, if there is one.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn studio_of(&self, id: Uuid) -> Result<Option<StudioId>, StoreError> {
        let id = sqlx::query_scalar("SELECT id FROM studio WHERE id = $1")
            .bind(id)
            .fetch_optional(&self.pool)
            .await?;
        Ok(id.map(StudioId))
    }

    /// Returns all studios of the database, the oldest first.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn studios(&self) -> Result<Vec<StudioId>, StoreError> {
        let ids: Vec<Uuid> = sqlx::query_scalar("SELECT id FROM studio ORDER BY created_at, id")
            .fetch_all(&self.pool)
            .await?;
        Ok(ids.into_iter().map(StudioId).collect())
    }

    /// Creates a studio of a name with all that it works with, unless there is one of that name; returns it either way, and
    /// whether it is new.
    ///
    /// Safe against another process that does the same at the same time: the name is unique, so one of them finds the other's.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn create_studio(
        &self,
        name: &str,
        settings: &Settings,
        house: &House,
    ) -> Result<(StudioId, bool), StoreError> {
        self.put_studio(name, (settings, house), true).await
    }

    async fn put_studio(
        &self,
        name: &str,
        (settings, house): (&Settings, &House),
        taken_in: bool,
    ) -> Result<(StudioId, bool), StoreError> {
        let mut transaction = self.pool.begin().await?;
        let made: Option<Uuid> = sqlx::query_scalar(
            "INSERT INTO studio (id, name, settings, taken_in) VALUES ($1, $2, $3, $4)
             ON CONFLICT (name) DO NOTHING RETURNING id",
        )
        .bind(Uuid::now_v7())
        .bind(name)
        .bind(Json(settings))
        .bind(taken_in)
        .fetch_optional(&mut *transaction)
        .await?;
        let Some(id) = made else {
            let there = sqlx::query_scalar("SELECT id FROM studio WHERE name = $1")
                .bind(name)
                .fetch_one(&mut *transaction)
                .await?;
            return Ok((StudioId(there), false));
        };
        house::create(&mut transaction, id, house).await?;
        transaction.commit().await?;
        Ok((StudioId(id), true))
    }
}

impl StudioStore {
    /// Returns which columns of a shop's table hold what, as they were named the last time.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn order_columns(&self) -> Result<Option<OrderColumns>, StoreError> {
        let kept: Option<Json<OrderColumns>> =
            sqlx::query_scalar("SELECT order_columns FROM studio WHERE id = $1")
                .bind(self.studio.0)
                .fetch_one(&self.pool)
                .await?;
        Ok(kept.map(|Json(columns)| columns))
    }

    /// Keeps which columns hold what for the next table.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_order_columns(&self, columns: &OrderColumns) -> Result<(), StoreError> {
        sqlx::query(
            "UPDATE studio SET order_columns = $2 WHERE id = $1 AND order_columns IS DISTINCT FROM $2",
        )
        .bind(self.studio.0)
        .bind(Json(columns))
        .execute(&self.pool)
        .await?;
        Ok(())
    }

    /// Returns a studio's settings.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn settings(&self) -> Result<Settings, StoreError> {
        let Json(settings) = sqlx::query_scalar("SELECT settings FROM studio WHERE id = $1")
            .bind(self.studio.0)
            .fetch_one(&self.pool)
            .await?;
        Ok(settings)
    }

    /// Returns a studio's settings with the version that they are at.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn settings_at(&self) -> Result<(i32, Settings), StoreError> {
        let (version, Json(settings)): (i32, Json<Settings>) =
            sqlx::query_as("SELECT settings_version, settings FROM studio WHERE id = $1")
                .bind(self.studio.0)
                .fetch_one(&self.pool)
                .await?;
        Ok((version, settings))
    }

    /// Writes a studio's settings, based on a version.
    ///
    /// # Errors
    /// [`SettingsRefused::Stale`] when they changed since.
    pub async fn change_settings(
        &self,
        based_on: i32,
        settings: &Settings,
    ) -> Result<i32, SettingsRefused> {
        let version: Option<i32> = sqlx::query_scalar(
            "UPDATE studio SET settings = $3, settings_version = settings_version + 1
             WHERE id = $1 AND settings_version = $2 RETURNING settings_version",
        )
        .bind(self.studio.0)
        .bind(based_on)
        .bind(Json(settings))
        .fetch_optional(&self.pool)
        .await
        .map_err(StoreError::from)?;
        version.ok_or(SettingsRefused::Stale(based_on))
    }

    /// Tells whether the studio was read in from a backup, and nobody has said since that it speaks to carriers.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn is_held(&self) -> Result<bool, StoreError> {
        let held = sqlx::query_scalar("SELECT held IS NOT NULL FROM studio WHERE id = $1");
        Ok(held.bind(self.studio.0).fetch_one(&self.pool).await?)
    }

    /// Writes down that the studio speaks to carriers.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn speak(&self) -> Result<(), StoreError> {
        sqlx::query("UPDATE studio SET held = NULL WHERE id = $1")
            .bind(self.studio.0)
            .execute(&self.pool)
            .await?;
        Ok(())
    }

    /// Returns a studio's own mark, as PNG.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn mark(&self) -> Result<Option<Vec<u8>>, StoreError> {
        Ok(sqlx::query_scalar("SELECT mark FROM studio WHERE id = $1")
            .bind(self.studio.0)
            .fetch_one(&self.pool)
            .await?)
    }

    /// Keeps a studio's own mark, or takes it away.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_mark(&self, png: Option<&[u8]>) -> Result<(), StoreError> {
        sqlx::query("UPDATE studio SET mark = $2 WHERE id = $1")
            .bind(self.studio.0)
            .bind(png)
            .execute(&self.pool)
            .await?;
        Ok(())
    }
}
