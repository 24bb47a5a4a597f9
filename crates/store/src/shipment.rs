//! Shipments and the history of their inputs.

use hummock_core::shipment::{ShipmentInputs, Summary};
use serde_json::Value;
use sqlx::{FromRow, PgConnection, types::Json};
use uuid::Uuid;

use crate::{Store, StoreError, StudioId};

/// What was computed for a state of the inputs.
#[derive(Debug, Clone, PartialEq)]
pub struct Computed {
    /// Plan and quotes, kept as computed.
    pub worked: Value,
    /// The figures of the bench, once there is a plan.
    pub summary: Option<Summary>,
    /// The house rules that it followed.
    pub rules_version: u32,
}

/// A shipment to be stored for the first time.
#[derive(Debug, Clone, PartialEq)]
pub struct NewShipment {
    /// Chosen by whoever makes it, so that asking twice makes one.
    pub id: Uuid,
    /// What was typed.
    pub inputs: ShipmentInputs,
    /// What follows from it.
    pub computed: Computed,
}

/// A shipment as stored.
#[derive(Debug, Clone, PartialEq)]
pub struct Stored {
    /// Which.
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
}

/// A shipment on the bench.
#[derive(Debug, Clone, PartialEq)]
pub struct Listed {
    /// Which.
    pub id: Uuid,
    /// Counts up with every edit, undo and redo.
    pub version: i32,
    /// What was typed.
    pub inputs: ShipmentInputs,
    /// The figures of the bench, once there is a plan.
    pub summary: Option<Summary>,
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
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for WriteRefused {
    fn from(error: sqlx::Error) -> Self {
        Self::Store(error.into())
    }
}

#[derive(FromRow)]
struct Row {
    id: Uuid,
    version: i32,
    at_state: i32,
    last_state: i32,
    inputs: Json<ShipmentInputs>,
    worked: Value,
    summary: Option<Json<Summary>>,
    rules_version: i32,
}

impl From<Row> for Stored {
    fn from(row: Row) -> Self {
        Self {
            id: row.id,
            version: row.version,
            inputs: row.inputs.0,
            computed: Computed {
                worked: row.worked,
                summary: row.summary.map(|Json(summary)| summary),
                rules_version: row.rules_version.unsigned_abs(),
            },
            can_undo: row.at_state > 0,
            can_redo: row.at_state < row.last_state,
        }
    }
}

#[derive(FromRow)]
struct ListedRow {
    id: Uuid,
    version: i32,
    inputs: Json<ShipmentInputs>,
    summary: Option<Json<Summary>>,
}

impl From<ListedRow> for Listed {
    fn from(row: ListedRow) -> Self {
        Self {
            id: row.id,
            version: row.version,
            inputs: row.inputs.0,
            summary: row.summary.map(|Json(summary)| summary),
        }
    }
}

const ONE: &str = "
    SELECT shipment.id, version, at_state, inputs, worked, summary, rules_version, (
        SELECT max(state) FROM shipment_state WHERE studio_id = $1 AND shipment_id = $2
    ) AS last_state
    FROM shipment
    JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
        AND shipment_id = shipment.id AND state = at_state
    WHERE shipment.studio_id = $1 AND shipment.id = $2";

impl Store {
    /// Returns the shipments of a studio, the one promised first before the others.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn shipments(&self, studio: StudioId) -> Result<Vec<Listed>, StoreError> {
        let rows: Vec<ListedRow> = sqlx::query_as(
            "SELECT shipment.id, version, inputs, summary
             FROM shipment
             JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
                 AND shipment_id = shipment.id AND state = at_state
             WHERE shipment.studio_id = $1
             ORDER BY promised NULLS LAST, created_at, shipment.id",
        )
        .bind(studio.0)
        .fetch_all(&self.pool)
        .await?;
        Ok(rows.into_iter().map(Listed::from).collect())
    }

    /// Returns one shipment.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn shipment(&self, studio: StudioId, id: Uuid) -> Result<Option<Stored>, StoreError> {
        let mut connection = self.pool.acquire().await?;
        Ok(read(&mut connection, studio, id).await?)
    }

    /// Stores a new shipment, unless one of that id is there already; returns it as it stands.
    ///
    /// # Errors
    /// [`WriteRefused::Store`].
    pub async fn create(
        &self,
        studio: StudioId,
        new: &NewShipment,
    ) -> Result<Stored, WriteRefused> {
        let mut transaction = self.pool.begin().await?;
        let made = sqlx::query(
            "INSERT INTO shipment (studio_id, id, worked, summary, rules_version, promised)
             VALUES ($1, $2, $3, $4, $5, $6::date)
             ON CONFLICT DO NOTHING",
        )
        .bind(studio.0)
        .bind(new.id)
        .bind(&new.computed.worked)
        .bind(new.computed.summary.as_ref().map(Json))
        .bind(rules_version(&new.computed))
        .bind(&new.inputs.promised)
        .execute(&mut *transaction)
        .await?;
        if made.rows_affected() == 1 {
            add_state(&mut transaction, studio, new.id, 0, &new.inputs).await?;
        }
        let stored = read(&mut transaction, studio, new.id)
            .await?
            .ok_or(WriteRefused::NotFound)?;
        transaction.commit().await?;
        Ok(stored)
    }

    /// Stores an edit as a new state; later states that were undone are forgotten.
    ///
    /// # Errors
    /// [`WriteRefused::Stale`] when the shipment is not at the version that the edit was based on.
    pub async fn edit(
        &self,
        studio: StudioId,
        id: Uuid,
        based_on: i32,
        inputs: &ShipmentInputs,
        computed: &Computed,
    ) -> Result<Stored, WriteRefused> {
        let mut transaction = self.pool.begin().await?;
        let at_state = lock(&mut transaction, studio, id, based_on).await?;
        sqlx::query(
            "DELETE FROM shipment_state WHERE studio_id = $1 AND shipment_id = $2 AND state > $3",
        )
        .bind(studio.0)
        .bind(id)
        .bind(at_state)
        .execute(&mut *transaction)
        .await?;
        add_state(&mut transaction, studio, id, at_state + 1, inputs).await?;
        stand_at(&mut transaction, studio, id, at_state + 1, inputs, computed).await?;
        let stored = read(&mut transaction, studio, id)
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
        studio: StudioId,
        id: Uuid,
        towards: Move,
    ) -> Result<ShipmentInputs, WriteRefused> {
        let mut connection = self.pool.acquire().await?;
        if read(&mut connection, studio, id).await?.is_none() {
            return Err(WriteRefused::NotFound);
        }
        let found: Option<Json<ShipmentInputs>> = sqlx::query_scalar(
            "SELECT inputs FROM shipment_state
             JOIN shipment ON shipment.studio_id = shipment_state.studio_id AND shipment.id = shipment_id
             WHERE shipment.studio_id = $1 AND shipment_id = $2 AND state = at_state + $3",
        )
        .bind(studio.0)
        .bind(id)
        .bind(towards.step())
        .fetch_optional(&mut *connection)
        .await?;
        found
            .map(|Json(inputs)| inputs)
            .ok_or(WriteRefused::NoState)
    }

    /// Moves a shipment through its history, to inputs read with [`Store::inputs_after`].
    ///
    /// # Errors
    /// [`WriteRefused::Stale`] when the shipment is not at the version that the move was based on.
    pub async fn step(
        &self,
        studio: StudioId,
        id: Uuid,
        based_on: i32,
        towards: Move,
        inputs: &ShipmentInputs,
        computed: &Computed,
    ) -> Result<Stored, WriteRefused> {
        let mut transaction = self.pool.begin().await?;
        let at_state = lock(&mut transaction, studio, id, based_on).await?;
        stand_at(
            &mut transaction,
            studio,
            id,
            at_state + towards.step(),
            inputs,
            computed,
        )
        .await?;
        let stored = read(&mut transaction, studio, id)
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
    let row: Option<Row> = sqlx::query_as(ONE)
        .bind(studio.0)
        .bind(id)
        .fetch_optional(connection)
        .await?;
    Ok(row.map(Stored::from))
}

/// Keeps others from writing a shipment until the transaction ends, and returns the state it stands at.
async fn lock(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
    based_on: i32,
) -> Result<i32, WriteRefused> {
    let found: Option<(i32, i32)> = sqlx::query_as(
        "SELECT version, at_state FROM shipment WHERE studio_id = $1 AND id = $2 FOR UPDATE",
    )
    .bind(studio.0)
    .bind(id)
    .fetch_optional(&mut *connection)
    .await?;
    match found {
        None => Err(WriteRefused::NotFound),
        Some((version, at_state)) if version == based_on => Ok(at_state),
        Some(_) => {
            let current = read(connection, studio, id)
                .await?
                .ok_or(WriteRefused::NotFound)?;
            Err(WriteRefused::Stale {
                based_on,
                current: Box::new(current),
            })
        }
    }
}

async fn add_state(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
    state: i32,
    inputs: &ShipmentInputs,
) -> Result<(), sqlx::Error> {
    sqlx::query("INSERT INTO shipment_state (studio_id, shipment_id, state, inputs) VALUES ($1, $2, $3, $4)")
        .bind(studio.0)
        .bind(id)
        .bind(state)
        .bind(Json(inputs))
        .execute(connection)
        .await?;
    Ok(())
}

async fn stand_at(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
    state: i32,
    inputs: &ShipmentInputs,
    computed: &Computed,
) -> Result<(), sqlx::Error> {
    sqlx::query(
        "UPDATE shipment
         SET version = version + 1, at_state = $3, worked = $4, summary = $5, rules_version = $6,
             promised = $7::date, changed_at = now()
         WHERE studio_id = $1 AND id = $2",
    )
    .bind(studio.0)
    .bind(id)
    .bind(state)
    .bind(&computed.worked)
    .bind(computed.summary.as_ref().map(Json))
    .bind(rules_version(computed))
    .bind(&inputs.promised)
    .execute(connection)
    .await?;
    Ok(())
}

fn rules_version(computed: &Computed) -> i32 {
    i32::try_from(computed.rules_version).unwrap_or(i32::MAX)
}
