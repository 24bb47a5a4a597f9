//! A studio and its settings.

use hummock_core::{
    house::{HouseRules, Manners, MoneyChange},
    material::Catalogue,
    place::{AddressFormat, Buyer, Countries, OwnCountry, PostcodePlace},
    quantity::LengthUnit,
    sending::{AddressForm, AddressGap, AddressOf, Sender, papers::Card},
    shipment::House,
};
use serde::{Deserialize, Serialize};
use sqlx::{AssertSqlSafe, PgTransaction, types::Json};
use uuid::Uuid;

use crate::{HouseVersion, SettingRefused, Store, StoreError, StudioStore, house};

/// Which studio.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct StudioId(pub(crate) Uuid);

impl StudioId {
    /// Returns its id.
    #[must_use]
    pub const fn id(self) -> Uuid {
        self.0
    }
}

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
    /// Whether it is the demo: its carriers are invented, and nothing is really booked.
    #[serde(default)]
    pub demo: bool,
    /// How it writes masses, numbers and dates, and on which paper.
    #[serde(default)]
    pub manners: Manners,
}

/// A country that the studio ships to: one of the world's, or one of its own making.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Country {
    /// Two capital letters.
    pub code: String,
    /// What people call it, where it is of the studio's own making; empty for one of the world's.
    #[serde(default)]
    pub name: String,
    /// Where its custom has the postcode, where it is of the studio's own making and has no format.
    #[serde(default)]
    pub postcode: PostcodePlace,
    /// How its addresses are written, where it is of the studio's own making.
    #[serde(default)]
    pub format: Option<AddressFormat>,
}

impl Country {
    /// Returns it as one of the studio's own making; `None` where it is one of the world's.
    #[must_use]
    pub fn own(&self) -> Option<OwnCountry> {
        let made_up = hummock_core::place::Country::of(&self.code).is_none();
        made_up.then(|| OwnCountry {
            code: self.code.clone(),
            name: if self.name.is_empty() {
                self.code.clone()
            } else {
                self.name.clone()
            },
            format: self
                .format
                .clone()
                .unwrap_or_else(|| self.postcode.format().clone()),
        })
    }
}

/// What of the house changes with settings.
#[derive(Debug)]
pub struct HouseChange<'a> {
    /// The house that was looked at.
    pub seen: HouseVersion,
    /// New rules, where they change.
    pub rules: Option<&'a HouseRules>,
    /// New stores, where they change.
    pub catalogue: Option<&'a Catalogue>,
    /// The money that the studio counts in from now on, where presets and shipments are put into it too.
    pub money: Option<&'a MoneyChange>,
}

/// Why settings were not written.
#[derive(Debug, thiserror::Error)]
pub enum SettingsRefused {
    /// They changed since.
    #[error("the settings changed since version {0}")]
    Stale(i32),
    /// The house that they were to change with it changed since.
    #[error("the house changed since it was looked at")]
    HouseMoved,
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl Settings {
    /// Returns those of a studio that is nobody's yet.
    #[must_use]
    pub fn of_nobody() -> Self {
        Self {
            name: String::new(),
            town: String::new(),
            unit: LengthUnit::default(),
            countries: Vec::new(),
            sender: Sender::default(),
            certificate: Card::default(),
            demo: false,
            manners: Manners::default(),
        }
    }

    /// Tells whether somebody has said whose it is and where it is.
    #[must_use]
    pub fn is_set_up(&self) -> bool {
        !self.name.trim().is_empty() && !self.sender.address.country.is_empty()
    }

    /// Tells whether a country is another one than the studio's own; not while either is not known.
    #[must_use]
    pub fn is_abroad(&self, country: &str) -> bool {
        let own = &self.sender.address.country;
        !own.is_empty() && !country.is_empty() && own != country
    }

    /// Returns the countries that it knows: all of the world, and its own.
    #[must_use]
    pub fn known_countries(&self) -> Countries {
        let own = self.countries.iter().filter_map(Country::own).collect();
        let listed = self.countries.iter().map(|country| country.code.clone());
        Countries::of(own, &self.sender.address.country, listed.collect())
    }

    /// Returns the lines of an address; with its country for whoever sends from elsewhere.
    #[must_use]
    pub fn lines(&self, address: &Buyer, from_elsewhere: bool) -> Vec<String> {
        let countries = self.known_countries();
        AddressForm::of(&countries, &address.country).lines(address, from_elsewhere)
    }

    /// Returns what an address wants before a parcel can go there.
    #[must_use]
    pub fn gaps(&self, address: &Buyer, of: AddressOf) -> Vec<AddressGap> {
        let countries = self.known_countries();
        AddressForm::of(&countries, &address.country).gaps(address, of)
    }
}

/// What came in the way of settings that change with the house.
fn moved(refused: SettingRefused) -> SettingsRefused {
    match refused {
        SettingRefused::Store(error) => SettingsRefused::Store(error),
        SettingRefused::Stale { .. } | SettingRefused::HouseMoved | SettingRefused::NotFound => {
            SettingsRefused::HouseMoved
        }
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

    /// Returns the studio that holds a shipment; `None` where none does.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn studio_with_shipment(&self, id: Uuid) -> Result<Option<StudioId>, StoreError> {
        let found = sqlx::query_scalar(
            "SELECT id FROM studio WHERE EXISTS (
                 SELECT FROM shipment WHERE shipment.studio_id = studio.id AND shipment.id = $1
             )",
        )
        .bind(id)
        .fetch_optional(&self.pool)
        .await?;
        Ok(found.map(StudioId))
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

    /// Writes a studio's settings, based on a version, and in the same step new rules of the house that was looked at, where they
    /// change with them. Where the house reads something of the settings, it counts as another one from then on.
    ///
    /// # Errors
    /// [`SettingsRefused::Stale`] when the settings changed since, [`SettingsRefused::HouseMoved`] when the house did.
    pub async fn change_settings(
        &self,
        based_on: i32,
        settings: &Settings,
        house: &HouseChange<'_>,
    ) -> Result<i32, SettingsRefused> {
        let mut change = self.begin_change().await.map_err(moved)?;
        let (current, Json(before)): (i32, Json<Settings>) = sqlx::query_as(
            "SELECT settings_version, settings FROM studio WHERE id = $1 FOR NO KEY UPDATE",
        )
        .bind(self.studio.0)
        .fetch_one(change.connection())
        .await
        .map_err(StoreError::from)?;
        if current != based_on {
            return Err(SettingsRefused::Stale(based_on));
        }
        let version: i32 = sqlx::query_scalar(
            "UPDATE studio SET settings = $2, settings_version = settings_version + 1
             WHERE id = $1 RETURNING settings_version",
        )
        .bind(self.studio.0)
        .bind(Json(settings))
        .fetch_one(change.connection())
        .await
        .map_err(StoreError::from)?;
        let read_by_the_house = |settings: &Settings| {
            let telling = settings.manners.telling(settings.unit);
            let zone = settings.manners.time_zone.clone();
            (telling, settings.sender.address.country.clone(), zone)
        };
        let HouseChange {
            seen,
            rules,
            catalogue,
            money,
        } = house;
        if let Some(rules) = rules {
            change.write_rules(rules).await.map_err(moved)?;
        }
        if let Some(catalogue) = catalogue {
            sqlx::query(
                "UPDATE catalogue SET materials = $2, version = version + 1 WHERE studio_id = $1",
            )
            .bind(self.studio.0)
            .bind(Json(catalogue))
            .execute(change.connection())
            .await
            .map_err(StoreError::from)?;
        }
        if let Some(money) = money {
            change.change_money(money).await?;
        }
        let others = rules.is_some() || catalogue.is_some();
        if others || read_by_the_house(&before) != read_by_the_house(settings) {
            change.finish(*seen).await.map_err(moved)?;
        } else {
            change.finish_beside().await.map_err(moved)?;
        }
        Ok(version)
    }

    /// Tells whether the studio ever had a shipment that is still kept.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn has_shipments(&self) -> Result<bool, StoreError> {
        let there = sqlx::query_scalar("SELECT EXISTS (SELECT FROM shipment WHERE studio_id = $1)");
        Ok(there.bind(self.studio.0).fetch_one(&self.pool).await?)
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
