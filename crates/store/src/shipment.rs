//! Shipments and the history of their inputs.

use hummock_core::{
    record::LogRow,
    sending::HandedParcel,
    shipment::{EDITION, SCHEMA, ShipmentInputs, Summary, changed_paths},
};
use jiff::civil::DateTime;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sqlx::{FromRow, PgConnection, Row as _, postgres::PgRow, types::Json};
use strum::{EnumString, IntoStaticStr};
use uuid::Uuid;

use crate::{
    Draw, HouseVersion, PastState, RecordKey, StoreError, StudioId, StudioStore, Written,
    error::{MayRepeat, Tries},
    house::stands_at,
    row::{Word, inputs_of},
    stock,
};

/// Where a shipment is kept.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, EnumString, IntoStaticStr,
)]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum Place {
    /// At work: its plan follows the house.
    #[default]
    Bench,
    /// Handed over: it keeps the plan that it left with, and what comes of it is written down.
    Sent,
    /// Put away with the plan that it had.
    Archive,
    /// Deleted, until somebody takes it back.
    Bin,
}

impl Place {
    pub(crate) fn key(self) -> &'static str {
        self.into()
    }

    /// Returns where inputs belong that are at work.
    fn at_work(inputs: &ShipmentInputs) -> Self {
        match inputs.handed_over() {
            Some(_) => Self::Sent,
            None => Self::Bench,
        }
    }

    const fn is_at_work(self) -> bool {
        matches!(self, Self::Bench | Self::Sent)
    }
}

/// What was computed for a state of the inputs.
#[derive(Debug, Clone, PartialEq)]
pub struct Computed {
    /// Plan and quotes, kept as computed; null of a parcel whose record holds them.
    pub worked: Written,
    /// The figures of the bench, once there is a plan.
    pub summary: Option<Summary>,
    /// The house rules that it followed.
    pub rules_version: u32,
    /// The house that it followed, all of it.
    pub house: HouseVersion,
}

/// A shipment to be stored for the first time.
#[derive(Debug, Clone, PartialEq)]
pub struct NewShipment {
    /// Chosen by whoever makes it, so that asking twice makes one.
    pub id: Uuid,
    /// The id of the change that makes it: whoever asks with another one meant to make another.
    pub edit: Option<Uuid>,
    /// What was typed.
    pub inputs: ShipmentInputs,
    /// What follows from it.
    pub computed: Computed,
    /// As it was handed over, where it was.
    pub handed: Option<HandedParcel>,
}

/// A shipment as stored.
#[derive(Debug, Clone, PartialEq)]
pub struct Stored {
    /// The id of the shipment.
    pub id: Uuid,
    /// Counts up with every edit, undo and redo.
    pub version: i32,
    /// What was typed.
    pub inputs: ShipmentInputs,
    /// What was computed for it.
    pub computed: Computed,
    /// Whether there is an earlier state to go back to.
    pub can_undo: bool,
    /// Whether there is a later one.
    pub can_redo: bool,
    /// Where it is kept.
    pub place: Place,
    /// As it was handed over; `None` before that.
    pub handed: Option<HandedParcel>,
    /// Its figures as they were written when it left, whichever program reads them now; `None` before that.
    pub summary_then: Option<Written>,
    /// What holds all that it was when it left; `None` before that, and until it is written.
    pub record: Option<RecordKey>,
    /// What it is followed by, where it was booked.
    pub tracking: Option<String>,
    /// What its last edits changed, the oldest first.
    pub recent: Vec<Recent>,
}

/// What an edit changed.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Recent {
    /// The version that it made.
    pub version: i32,
    /// Where values changed.
    pub paths: Vec<Vec<String>>,
}

/// Of so many edits it is known what they changed: whoever is further behind looks at the shipment anew.
const MOST_RECENT: usize = 64;

/// A change of a shipment, and what it rests on.
#[derive(Debug, Clone, Copy)]
pub struct Edit<'a> {
    /// Of which shipment.
    pub shipment: Uuid,
    /// The version that it is based on.
    pub based_on: i32,
    /// Chosen by whoever makes it, so that one whose answer was lost can be sent again.
    pub id: Option<Uuid>,
    /// The inputs as they are then.
    pub inputs: &'a ShipmentInputs,
    /// What follows from them.
    pub computed: &'a Computed,
    /// As it is handed over by it; `None` if it is not, or was before.
    pub handed: Option<&'a HandedParcel>,
    /// The states that can be gone back to from then on, of a parcel that is taken back to work; those that are stored if it is `None`.
    pub history: Option<&'a [PastState]>,
    /// What is taken off the shelf for it from then on, in place of what was taken; `None` if that stays as it is.
    pub draws: Option<&'a [Draw]>,
}

/// What is written down of a parcel that has left: its plan stays as it went, and there is nothing to go back to.
#[derive(Debug, Clone, Copy)]
pub struct LeftEdit<'a> {
    /// Of which shipment.
    pub shipment: Uuid,
    /// The version that it is based on.
    pub based_on: i32,
    /// Chosen by whoever makes it, so that one whose answer was lost can be sent again.
    pub id: Option<Uuid>,
    /// The inputs as they are then.
    pub inputs: &'a ShipmentInputs,
}

/// A way to move through the history.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Move {
    /// To the state before.
    Undo,
    /// To the state after.
    Redo,
}

/// Why a shipment was not written.
#[derive(Debug, thiserror::Error)]
pub enum WriteRefused {
    /// There is none of that id.
    #[error("there is no such shipment")]
    NotFound,
    /// It changed since; this is how it stands now.
    #[error("the shipment changed since version {based_on}")]
    Stale {
        /// The version that the edit was based on.
        based_on: i32,
        /// The shipment as it stands.
        current: Box<Stored>,
    },
    /// There is no state to move to.
    #[error("there is nothing further that way")]
    NoState,
    /// It is not on the bench.
    #[error("the shipment is put away")]
    PutAway,
    /// The house changed since the plan was worked out: work it out again.
    #[error("the house changed meanwhile")]
    HouseMoved,
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for WriteRefused {
    fn from(error: sqlx::Error) -> Self {
        Self::Store(error.into())
    }
}

impl MayRepeat for WriteRefused {
    fn may_repeat(&self) -> bool {
        matches!(self, Self::Store(error) if error.may_repeat())
    }
}

impl FromRow<'_, PgRow> for Stored {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        let at_state: i32 = row.try_get("at_state")?;
        let [first_state, last_state]: [i32; 2] =
            [row.try_get("first_state")?, row.try_get("last_state")?];
        let rules_version: i32 = row.try_get("rules_version")?;
        let (summary, house) = summary_of(row)?;
        let handed: Option<Json<HandedParcel>> = row.try_get("handed")?;
        let Word(place) = row.try_get("place")?;
        let id = row.try_get("id")?;
        let record: Option<Vec<u8>> = row.try_get("record")?;
        let at_work = handed.is_none();
        Ok(Self {
            id,
            version: row.try_get("version")?,
            inputs: inputs_of(row)?,
            computed: Computed {
                worked: Written::from_row(row, "worked")?.unwrap_or_else(|| Written::of(&())),
                summary,
                rules_version: rules_version.unsigned_abs(),
                house,
            },
            can_undo: at_work && at_state > first_state,
            can_redo: at_work && at_state < last_state,
            place,
            summary_then: summary_then(row, !at_work)?,
            record: record.map(|digest| RecordKey {
                shipment: id,
                digest,
            }),
            handed: handed.map(|Json(handed)| handed),
            tracking: row.try_get("tracking")?,
            recent: {
                let Json(recent) = row.try_get("recent")?;
                recent
            },
        })
    }
}

/// Reads a summary and the house that it follows: one that an earlier program worked out follows none, so that it is worked
/// out anew with its plan.
pub(crate) fn summary_of(row: &PgRow) -> sqlx::Result<(Option<Summary>, HouseVersion)> {
    let edition: i32 = row.try_get("plan_edition")?;
    let house = if edition < EDITION.cast_signed() {
        HouseVersion(0)
    } else {
        HouseVersion(row.try_get("house_version")?)
    };
    let Some(summary) = Written::from_row(row, "summary")? else {
        return Ok((None, house));
    };
    Ok(match summary.parts() {
        Some(summary) => (Some(summary), house),
        None => (None, HouseVersion(0)),
    })
}

/// Reads the figures of a parcel that left as they were written.
pub(crate) fn summary_then(row: &PgRow, has_left: bool) -> sqlx::Result<Option<Written>> {
    match has_left {
        true => Written::from_row(row, "summary"),
        false => Ok(None),
    }
}

impl Stored {
    /// Tells whether its plan is behind a house that it is to follow, or its best service behind the clock; never of what has left.
    #[must_use]
    pub fn is_behind(&self, house: HouseVersion, now: Option<DateTime>) -> bool {
        let behind = is_behind(self.place, self.computed.house, house)
            || is_over(self.place, self.computed.summary.as_ref(), now);
        self.handed.is_none() && behind
    }

    /// Returns where values changed after a version; `None` if that is not known any more.
    #[must_use]
    pub fn changed_since(&self, version: i32) -> Option<Vec<Vec<String>>> {
        let since = (version + 1..=self.version).map(|version| {
            let edit = self.recent.iter().find(|edit| edit.version == version);
            edit.map(|edit| edit.paths.clone())
        });
        let paths: Option<Vec<_>> = since.collect();
        (version <= self.version).then_some(())?;
        paths.map(|paths| paths.concat())
    }
}

/// What is put away keeps the plan that it had, unless this program can no longer show it.
pub(crate) fn is_behind(place: Place, at: HouseVersion, house: HouseVersion) -> bool {
    at.0 == 0 || place == Place::Bench && at < house
}

/// On the bench a service becomes too late for the promised day, hour by hour.
pub(crate) fn is_over(place: Place, summary: Option<&Summary>, now: Option<DateTime>) -> bool {
    let until = summary.and_then(|summary| summary.holds_until);
    place == Place::Bench && until.zip(now).is_some_and(|(until, now)| until < now)
}

const ONE: &str = "
    SELECT shipment.id, version, at_state, schema, inputs, worked, summary, rules_version, house_version, plan_edition, place, handed, record, tracking, recent, (
        SELECT min(state) FROM shipment_state WHERE studio_id = $1 AND shipment_id = $2
    ) AS first_state, (
        SELECT max(state) FROM shipment_state WHERE studio_id = $1 AND shipment_id = $2
    ) AS last_state
    FROM shipment
    JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
        AND shipment_id = shipment.id AND state = at_state
    WHERE shipment.studio_id = $1 AND shipment.id = $2";

impl StudioStore {
    /// Returns one shipment.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn shipment(&self, id: Uuid) -> Result<Option<Stored>, StoreError> {
        let mut connection = self.pool.acquire().await?;
        Ok(read(&mut connection, self.studio, id).await?)
    }

    /// Stores a new shipment, unless one of that id is there already; returns it as it stands.
    ///
    /// # Errors
    /// [`WriteRefused::HouseMoved`] when its plan follows another house than the one that there is,
    /// [`WriteRefused::Stale`] when another change made one of that id.
    pub async fn create(&self, new: &NewShipment) -> Result<Stored, WriteRefused> {
        let mut tries = Tries::default();
        loop {
            match self.create_once(new).await {
                Err(error) if tries.again(&error) => {}
                settled => return settled,
            }
        }
    }

    async fn create_once(&self, new: &NewShipment) -> Result<Stored, WriteRefused> {
        let mut transaction = self.pool.begin().await?;
        hold(&mut transaction, self.studio, &new.computed).await?;
        let made = sqlx::query(
            "INSERT INTO shipment
                 (studio_id, id, worked, summary, rules_version, house_version, promised, title, buyer, found_by, place, handed, logged, left_on,
                  plan_edition)
             VALUES ($1, $2, $3, $4, $5, $6, $7::date, $8, $9, $10, $11, $12, $13, $14::date, $15)
             ON CONFLICT DO NOTHING",
        )
        .bind(self.studio.0)
        .bind(new.id)
        .bind(new.computed.worked.to_row())
        .bind(new.computed.summary.as_ref().map(Json))
        .bind(rules_version(&new.computed))
        .bind(new.computed.house.0)
        .bind(&new.inputs.promised)
        .bind(&new.inputs.title)
        .bind(&new.inputs.buyer.name)
        .bind(found_by(&new.inputs))
        .bind(Place::at_work(&new.inputs).key())
        .bind(new.handed.as_ref().map(Json))
        .bind(logged(new.handed.as_ref(), &new.inputs))
        .bind(&new.inputs.sending.handed_over)
        .bind(EDITION.cast_signed())
        .execute(&mut *transaction)
        .await?;
        if made.rows_affected() == 1 {
            add_state(&mut transaction, self.studio, new.id, 0, &new.inputs).await?;
            if let Some(edit) = new.edit {
                note_made(&mut transaction, self.studio, new.id, edit).await?;
            }
        }
        let stored = read(&mut transaction, self.studio, new.id)
            .await?
            .ok_or(WriteRefused::NotFound)?;
        if made.rows_affected() == 0
            && let Some(edit) = new.edit
            && !was_made(&mut transaction, self.studio, new.id, edit).await?
        {
            return Err(WriteRefused::Stale {
                based_on: 0,
                current: Box::new(stored),
            });
        }
        transaction.commit().await?;
        Ok(stored)
    }

    /// Stores an edit as a new state; later states that were undone are forgotten. One that was stored already
    /// is not stored again.
    ///
    /// # Errors
    /// [`WriteRefused::Stale`] when the shipment is not at the version that the edit was based on,
    /// [`WriteRefused::PutAway`] when it is put away, [`WriteRefused::HouseMoved`].
    pub async fn edit(&self, edit: Edit<'_>) -> Result<Stored, WriteRefused> {
        self.change_shipment(edit, None).await
    }

    /// Stores what is written down of a parcel that has left, in the place of what was.
    ///
    /// # Errors
    /// As [`StudioStore::edit`]; the house is not asked.
    pub async fn edit_left(&self, edit: LeftEdit<'_>) -> Result<Stored, WriteRefused> {
        let mut tries = Tries::default();
        loop {
            match self.edit_left_once(edit).await {
                Err(error) if tries.again(&error) => {}
                settled => return settled,
            }
        }
    }

    async fn edit_left_once(&self, edit: LeftEdit<'_>) -> Result<Stored, WriteRefused> {
        let id = edit.shipment;
        let mut transaction = self.pool.begin().await?;
        let locked = lock(&mut transaction, self.studio, (id, edit.based_on, edit.id)).await?;
        if let Some(locked) = locked {
            sqlx::query(
                "UPDATE shipment_state SET schema = $4, inputs = $5 WHERE studio_id = $1 AND shipment_id = $2 AND state = $3",
            )
            .bind(self.studio.0)
            .bind(id)
            .bind(locked.state)
            .bind(SCHEMA.cast_signed())
            .bind(Json(edit.inputs))
            .execute(&mut *transaction)
            .await?;
            sqlx::query(
                "UPDATE shipment
                 SET version = version + 1, changed_at = now(), logged = $3, left_on = $4::date, recent = $5
                 WHERE studio_id = $1 AND id = $2",
            )
            .bind(self.studio.0)
            .bind(id)
            .bind(logged(locked.stored.handed.as_ref(), edit.inputs))
            .bind(&edit.inputs.sending.handed_over)
            .bind(Json(locked.recent(edit.inputs)))
            .execute(&mut *transaction)
            .await?;
            if let Some(edit) = edit.id {
                note_made(&mut transaction, self.studio, id, edit).await?;
            }
        }
        let stored = read(&mut transaction, self.studio, id)
            .await?
            .ok_or(WriteRefused::NotFound)?;
        transaction.commit().await?;
        Ok(stored)
    }

    /// Tells whether a change of that id was made.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn was_made(&self, shipment: Uuid, edit: Uuid) -> Result<bool, StoreError> {
        let mut connection = self.pool.acquire().await?;
        Ok(was_made(&mut connection, self.studio, shipment, edit).await?)
    }

    /// Puts a shipment in its place; returns it as it stands.
    ///
    /// # Errors
    /// [`WriteRefused::NotFound`].
    pub async fn put(&self, id: Uuid, place: Place) -> Result<Stored, WriteRefused> {
        let mut transaction = self.pool.begin().await?;
        // What has left goes back among what has left; nobody hands it over in between.
        sqlx::query("SELECT FROM shipment WHERE studio_id = $1 AND id = $2 FOR NO KEY UPDATE")
            .bind(self.studio.0)
            .bind(id)
            .execute(&mut *transaction)
            .await?;
        let place = match read(&mut transaction, self.studio, id).await? {
            Some(stored) if place.is_at_work() => Place::at_work(&stored.inputs),
            _ => place,
        };
        sqlx::query(
            "UPDATE shipment SET place = $3, changed_at = now() WHERE studio_id = $1 AND id = $2 AND place <> $3",
        )
        .bind(self.studio.0)
        .bind(id)
        .bind(place.key())
        .execute(&mut *transaction)
        .await?;
        let stored = read(&mut transaction, self.studio, id)
            .await?
            .ok_or(WriteRefused::NotFound)?;
        transaction.commit().await?;
        Ok(stored)
    }

    /// Returns the inputs that a move would lead to.
    ///
    /// # Errors
    /// [`WriteRefused::NotFound`] or [`WriteRefused::NoState`].
    pub async fn inputs_after(
        &self,
        id: Uuid,
        towards: Move,
    ) -> Result<ShipmentInputs, WriteRefused> {
        let mut connection = self.pool.acquire().await?;
        match read(&mut connection, self.studio, id).await? {
            None => return Err(WriteRefused::NotFound),
            Some(stored) if stored.handed.is_some() => return Err(WriteRefused::NoState),
            Some(_) => {}
        }
        let found: Option<(i32, Value)> = sqlx::query_as(
            "SELECT schema, inputs FROM shipment_state
             JOIN shipment ON shipment.studio_id = shipment_state.studio_id AND shipment.id = shipment_id
             WHERE shipment.studio_id = $1 AND shipment_id = $2 AND state = at_state + $3",
        )
        .bind(self.studio.0)
        .bind(id)
        .bind(towards.step())
        .fetch_optional(&mut *connection)
        .await?;
        found
            .map(|(schema, inputs)| ShipmentInputs::from_stored(schema.unsigned_abs(), inputs))
            .ok_or(WriteRefused::NoState)
    }

    /// Moves a shipment through its history, to inputs read with [`Store::inputs_after`].
    ///
    /// # Errors
    /// As [`Store::edit`].
    pub async fn step(&self, towards: Move, edit: Edit<'_>) -> Result<Stored, WriteRefused> {
        self.change_shipment(edit, Some(towards)).await
    }

    async fn change_shipment(
        &self,
        edit: Edit<'_>,
        towards: Option<Move>,
    ) -> Result<Stored, WriteRefused> {
        let mut tries = Tries::default();
        loop {
            match self.change_once(edit, towards).await {
                Err(error) if tries.again(&error) => {}
                settled => return settled,
            }
        }
    }

    /// Moves a shipment to another state: one that there is, or a new one.
    async fn change_once(
        &self,
        edit: Edit<'_>,
        towards: Option<Move>,
    ) -> Result<Stored, WriteRefused> {
        let id = edit.shipment;
        let mut transaction = self.pool.begin().await?;
        hold(&mut transaction, self.studio, edit.computed).await?;
        let locked = lock(&mut transaction, self.studio, (id, edit.based_on, edit.id)).await?;
        let Some(locked) = locked else {
            return read(&mut transaction, self.studio, id)
                .await?
                .ok_or(WriteRefused::NotFound);
        };
        if towards.is_some() && locked.stored.handed.is_some() {
            return Err(WriteRefused::NoState);
        }
        let at_state = locked.state;
        let state = match (towards, edit.history) {
            (Some(towards), _) => at_state + towards.step(),
            (None, Some(history)) => {
                let state = begin_anew(&mut transaction, self.studio, id, history).await?;
                add_state(&mut transaction, self.studio, id, state, edit.inputs).await?;
                state
            }
            (None, None) => {
                sqlx::query(
                    "DELETE FROM shipment_state WHERE studio_id = $1 AND shipment_id = $2 AND state > $3",
                )
                .bind(self.studio.0)
                .bind(id)
                .bind(at_state)
                .execute(&mut *transaction)
                .await?;
                add_state(&mut transaction, self.studio, id, at_state + 1, edit.inputs).await?;
                at_state + 1
            }
        };
        stand_at(&mut transaction, self.studio, (state, &locked), edit).await?;
        if let Some(draws) = edit.draws {
            let about = (id, edit.inputs.title.as_str());
            stock::take_instead(&mut transaction, self.studio, about, draws).await?;
        }
        if let Some(edit) = edit.id {
            note_made(&mut transaction, self.studio, id, edit).await?;
        }
        let stored = read(&mut transaction, self.studio, id)
            .await?
            .ok_or(WriteRefused::NoState)?;
        transaction.commit().await?;
        Ok(stored)
    }
}

impl Move {
    const fn step(self) -> i32 {
        match self {
            Self::Undo => -1,
            Self::Redo => 1,
        }
    }
}

async fn read(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
) -> Result<Option<Stored>, sqlx::Error> {
    let found = sqlx::query_as(ONE)
        .bind(studio.0)
        .bind(id)
        .fetch_optional(connection)
        .await?;
    Ok(found)
}

/// Keeps the house that a plan follows from changing until the transaction ends.
async fn hold(
    connection: &mut PgConnection,
    studio: StudioId,
    computed: &Computed,
) -> Result<(), WriteRefused> {
    if stands_at(connection, studio, computed.house).await? {
        Ok(())
    } else {
        Err(WriteRefused::HouseMoved)
    }
}

/// A shipment that nobody else writes until the transaction ends.
struct Locked {
    /// The state that it stands at.
    state: i32,
    stored: Stored,
}

impl Locked {
    /// Returns what its last edits changed, with one that makes these inputs of it.
    fn recent(&self, inputs: &ShipmentInputs) -> Vec<Recent> {
        let mut recent = self.stored.recent.clone();
        recent.push(Recent {
            version: self.stored.version + 1,
            paths: changed_paths(&written(&self.stored.inputs), &written(inputs)),
        });
        let old = recent.len().saturating_sub(MOST_RECENT);
        recent.split_off(old)
    }
}

/// Keeps others from writing a shipment until the transaction ends, and returns it as it stands; `None` if the change of that id was
/// made already.
async fn lock(
    connection: &mut PgConnection,
    studio: StudioId,
    (shipment, based_on, edit): (Uuid, i32, Option<Uuid>),
) -> Result<Option<Locked>, WriteRefused> {
    let found: Option<(i32, i32, Word<Place>)> = sqlx::query_as(
        "SELECT version, at_state, place FROM shipment WHERE studio_id = $1 AND id = $2 FOR NO KEY UPDATE",
    )
    .bind(studio.0)
    .bind(shipment)
    .fetch_optional(&mut *connection)
    .await?;
    let (version, state, Word(place)) = found.ok_or(WriteRefused::NotFound)?;
    if let Some(edit) = edit
        && was_made(connection, studio, shipment, edit).await?
    {
        return Ok(None);
    }
    if !place.is_at_work() {
        return Err(WriteRefused::PutAway);
    }
    let stored = read(connection, studio, shipment)
        .await?
        .ok_or(WriteRefused::NotFound)?;
    if version == based_on {
        return Ok(Some(Locked { state, stored }));
    }
    Err(WriteRefused::Stale {
        based_on,
        current: Box::new(stored),
    })
}

/// Puts the states that can be gone back to in the place of those that are stored; returns the number of the next one.
async fn begin_anew(
    connection: &mut PgConnection,
    studio: StudioId,
    shipment: Uuid,
    history: &[PastState],
) -> Result<i32, sqlx::Error> {
    sqlx::query("DELETE FROM shipment_state WHERE studio_id = $1 AND shipment_id = $2")
        .bind(studio.0)
        .bind(shipment)
        .execute(&mut *connection)
        .await?;
    let mut next = 0;
    for past in history {
        sqlx::query("INSERT INTO shipment_state (studio_id, shipment_id, state, schema, inputs) VALUES ($1, $2, $3, $4, $5)")
            .bind(studio.0)
            .bind(shipment)
            .bind(next)
            .bind(past.schema)
            .bind(&past.inputs)
            .execute(&mut *connection)
            .await?;
        next += 1;
    }
    Ok(next)
}

async fn was_made(
    connection: &mut PgConnection,
    studio: StudioId,
    shipment: Uuid,
    edit: Uuid,
) -> Result<bool, sqlx::Error> {
    sqlx::query_scalar(
        "SELECT EXISTS (SELECT 1 FROM shipment_edit WHERE studio_id = $1 AND shipment_id = $2 AND edit_id = $3)",
    )
    .bind(studio.0)
    .bind(shipment)
    .bind(edit)
    .fetch_one(connection)
    .await
}

async fn note_made(
    connection: &mut PgConnection,
    studio: StudioId,
    shipment: Uuid,
    edit: Uuid,
) -> Result<(), sqlx::Error> {
    sqlx::query("INSERT INTO shipment_edit (studio_id, shipment_id, edit_id) VALUES ($1, $2, $3)")
        .bind(studio.0)
        .bind(shipment)
        .bind(edit)
        .execute(connection)
        .await?;
    Ok(())
}

async fn add_state(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
    state: i32,
    inputs: &ShipmentInputs,
) -> Result<(), sqlx::Error> {
    sqlx::query("INSERT INTO shipment_state (studio_id, shipment_id, state, schema, inputs) VALUES ($1, $2, $3, $4, $5)")
        .bind(studio.0)
        .bind(id)
        .bind(state)
        .bind(SCHEMA.cast_signed())
        .bind(Json(inputs))
        .execute(connection)
        .await?;
    Ok(())
}

async fn stand_at(
    connection: &mut PgConnection,
    studio: StudioId,
    (state, locked): (i32, &Locked),
    edit: Edit<'_>,
) -> Result<(), sqlx::Error> {
    // What was handed over before stays, and its row follows what is typed since.
    let before = locked.stored.handed.as_ref();
    let Edit {
        inputs, computed, ..
    } = edit;
    sqlx::query(
        "UPDATE shipment
         SET version = version + 1, at_state = $3, worked = $4, summary = $5, rules_version = $6, house_version = $7,
             promised = $8::date, title = $9, buyer = $10, found_by = $11, changed_at = now(), claimed_until = NULL,
             place = $12, handed = CASE WHEN $12 = 'bench' THEN NULL ELSE coalesce($13, handed) END,
             logged = CASE WHEN $12 = 'bench' THEN NULL ELSE $14 END, left_on = $15::date, recent = $16,
             plan_edition = $17, record = NULL
         WHERE studio_id = $1 AND id = $2",
    )
    .bind(studio.0)
    .bind(edit.shipment)
    .bind(state)
    .bind(computed.worked.to_row())
    .bind(computed.summary.as_ref().map(Json))
    .bind(rules_version(computed))
    .bind(computed.house.0)
    .bind(&inputs.promised)
    .bind(&inputs.title)
    .bind(&inputs.buyer.name)
    .bind(found_by(inputs))
    .bind(Place::at_work(inputs).key())
    .bind(edit.handed.map(Json))
    .bind(logged(edit.handed.or(before), inputs))
    .bind(&inputs.sending.handed_over)
    .bind(Json(locked.recent(inputs)))
    .bind(EDITION.cast_signed())
    .execute(connection)
    .await?;
    Ok(())
}

/// The row of the log; `None` before it was handed over.
fn logged(handed: Option<&HandedParcel>, inputs: &ShipmentInputs) -> Option<Json<LogRow>> {
    LogRow::of(handed?, inputs).map(Json)
}

fn written(inputs: &ShipmentInputs) -> Value {
    serde_json::to_value(inputs).unwrap_or_default()
}

fn rules_version(computed: &Computed) -> i32 {
    i32::try_from(computed.rules_version).unwrap_or(i32::MAX)
}

/// What a search looks through, in small letters.
fn found_by(inputs: &ShipmentInputs) -> String {
    let buyer = &inputs.buyer;
    [
        inputs.title.as_str(),
        &buyer.name,
        &buyer.town,
        inputs.order_number(),
        &inputs.order.sku,
    ]
    .map(|text| text.to_lowercase())
    .join(" ")
}
