//! Plans that are behind their house: finding them, sharing them out, and keeping what was worked out anew.

use std::time::Duration;

use hummock_core::shipment::{EDITION, ShipmentInputs};
use sqlx::{AssertSqlSafe, FromRow, Row as _, postgres::PgRow, types::Json};
use uuid::Uuid;

use crate::{
    Computed, HouseVersion, StoreError, StudioStore, error::Tries, house::stands_at, row::inputs_of,
};

/// A shipment whose plan is behind the house, claimed by whoever asked.
#[derive(Debug, Clone, PartialEq)]
pub struct Behind {
    /// The id of the shipment.
    pub id: Uuid,
    /// The version of its inputs.
    pub version: i32,
    /// What was typed.
    pub inputs: ShipmentInputs,
}

/// What was computed anew for a shipment that nobody edited.
#[derive(Debug, Clone, PartialEq)]
pub struct Recomputed {
    /// The id of the shipment.
    pub id: Uuid,
    /// The version whose inputs it was computed for; a newer one keeps its own.
    pub version: i32,
    /// The plan, and the house that it follows.
    pub computed: Computed,
}

/// How far the bench has followed the last change of the house.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Progress {
    /// The house as it is.
    pub house: HouseVersion,
    /// Shipments that are still to be worked out by it.
    pub behind: i64,
    /// Shipments on the bench.
    pub open: i64,
}

/// What has left stays as it went. Archived ones keep what they had, unless this edition of the program can no longer show it.
fn is_behind() -> String {
    format!(
        "handed IS NULL AND (place = 'bench' AND house_version < (SELECT version FROM house WHERE studio_id = $1)
        OR house_version = 0 OR plan_edition < {EDITION})"
    )
}

impl FromRow<'_, PgRow> for Behind {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            id: row.try_get("id")?,
            version: row.try_get("version")?,
            inputs: inputs_of(row)?,
        })
    }
}

impl StudioStore {
    /// Claims shipments whose plans are behind the house or the program, the bench before the others and those promised first before
    /// those promised later; nobody else is given them until the claim runs out, or the house changes again.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn claim_behind(
        &self,
        most: u32,
        lease: Duration,
    ) -> Result<Vec<Behind>, StoreError> {
        let ask = format!(
            "WITH claimed AS (
                 UPDATE shipment SET claimed_until = now() + make_interval(secs => $3),
                     claimed_for = (SELECT version FROM house WHERE studio_id = $1)
                 WHERE studio_id = $1 AND id IN (
                     SELECT id FROM shipment
                     WHERE studio_id = $1 AND {}
                         AND (claimed_until IS NULL OR claimed_until <= now()
                             OR claimed_for < (SELECT version FROM house WHERE studio_id = $1))
                     ORDER BY place <> 'bench', coalesce(promised, 'infinity'::date), created_at, id
                     LIMIT $2
                     FOR NO KEY UPDATE SKIP LOCKED
                 )
                 RETURNING id, version, at_state
             )
             SELECT id, version, schema, inputs FROM claimed
             JOIN shipment_state ON studio_id = $1 AND shipment_id = id AND state = at_state
             ORDER BY id",
            is_behind()
        );
        let behind = sqlx::query_as(AssertSqlSafe(ask))
            .bind(self.studio.0)
            .bind(i64::from(most))
            .bind(lease.as_secs_f64())
            .fetch_all(&self.pool)
            .await?;
        Ok(behind)
    }

    /// Keeps what was computed anew by a house, if that is still the house; inputs and versions stay, since nobody
    /// edited them, and a shipment that was edited since keeps its own. Returns how many were written.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_recomputed(
        &self,
        house: HouseVersion,
        recomputed: &[Recomputed],
    ) -> Result<u64, StoreError> {
        // Two writers take the same shipments in the same order.
        let mut in_order: Vec<&Recomputed> = recomputed.iter().collect();
        in_order.sort_by_key(|one| one.id);
        let mut tries = Tries::default();
        loop {
            match self.keep_in_order(house, &in_order).await {
                Err(error) if tries.again(&error) => {}
                settled => return settled,
            }
        }
    }

    async fn keep_in_order(
        &self,
        house: HouseVersion,
        recomputed: &[&Recomputed],
    ) -> Result<u64, StoreError> {
        let mut transaction = self.pool.begin().await?;
        if !stands_at(&mut transaction, self.studio, house).await? {
            return Ok(0);
        }
        let mut written = 0;
        for Recomputed {
            id,
            version,
            computed,
        } in recomputed
        {
            let done = sqlx::query(
                "UPDATE shipment SET worked = $3, summary = $4, rules_version = $5, house_version = $6,
                     plan_edition = $8, claimed_until = NULL
                 WHERE studio_id = $1 AND id = $2 AND version = $7 AND handed IS NULL",
            )
            .bind(self.studio.0)
            .bind(id)
            .bind(computed.worked.to_row())
            .bind(computed.summary.as_ref().map(Json))
            .bind(computed.rules_version.cast_signed())
            .bind(computed.house.0)
            .bind(version)
            .bind(EDITION.cast_signed())
            .execute(&mut *transaction)
            .await?;
            written += done.rows_affected();
        }
        transaction.commit().await?;
        Ok(written)
    }

    /// Returns how far the bench has followed the last change of the house.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn progress(&self) -> Result<Progress, StoreError> {
        let ask = format!(
            "SELECT (SELECT version FROM house WHERE studio_id = $1),
                 (SELECT count(*) FROM shipment WHERE studio_id = $1 AND {}),
                 (SELECT count(*) FROM shipment WHERE studio_id = $1 AND place = 'bench')",
            is_behind()
        );
        let (version, behind, open) = sqlx::query_as(AssertSqlSafe(ask))
            .bind(self.studio.0)
            .fetch_one(&self.pool)
            .await?;
        Ok(Progress {
            house: HouseVersion(version),
            behind,
            open,
        })
    }
}
