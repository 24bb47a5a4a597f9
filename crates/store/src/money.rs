//! A studio that counts in other money: what it keeps, put into that money in the change of the house that brings it.

use hummock_core::{
    house::{HouseRules, MoneyChange},
    shipment::{SCHEMA, ShipmentInputs},
};
use serde_json::Value;
use sqlx::types::Json;
use uuid::Uuid;

use crate::{StoreError, StudioId, house::Changing};

/// How many shipments one round reads and writes.
const AT_ONCE: i64 = 500;

impl Changing<'_> {
    /// Puts presets and what is typed about shipments into the money after a change. What left, each kept layout and each row of
    /// the log keep the money before and say so from then on.
    pub(crate) async fn change_money(&mut self, change: &MoneyChange) -> Result<(), StoreError> {
        let studio = self.studio();
        self.change_presets(studio, change).await?;
        let before = change.from();
        sqlx::query(
            "UPDATE shipment SET logged = logged || jsonb_build_object('currency', $2::text)
             WHERE studio_id = $1 AND logged IS NOT NULL AND NOT logged ? 'currency'",
        )
        .bind(studio.0)
        .bind(before.code())
        .execute(self.connection())
        .await?;
        sqlx::query(
            "UPDATE cutting SET body = body || jsonb_build_object('currency', $2::text)
             WHERE studio_id = $1 AND body->>'currency' IS NULL",
        )
        .bind(studio.0)
        .bind(before.code())
        .execute(self.connection())
        .await?;
        let mut last = Uuid::nil();
        loop {
            let ids: Vec<Uuid> = sqlx::query_scalar(
                "SELECT id FROM shipment WHERE studio_id = $1 AND id > $2 ORDER BY id LIMIT $3 FOR UPDATE",
            )
            .bind(studio.0)
            .bind(last)
            .bind(AT_ONCE)
            .fetch_all(self.connection())
            .await?;
            let Some(end) = ids.last() else {
                return Ok(());
            };
            last = *end;
            self.change_states(studio, &ids, change).await?;
        }
    }

    async fn change_presets(
        &mut self,
        studio: StudioId,
        change: &MoneyChange,
    ) -> Result<(), StoreError> {
        let presets: Vec<(String, Json<HouseRules>)> =
            sqlx::query_as("SELECT name, rules FROM preset WHERE studio_id = $1")
                .bind(studio.0)
                .fetch_all(self.connection())
                .await?;
        for (name, Json(rules)) in presets {
            sqlx::query("UPDATE preset SET rules = $3 WHERE studio_id = $1 AND name = $2")
                .bind(studio.0)
                .bind(name)
                .bind(Json(change.rules(&rules)))
                .execute(self.connection())
                .await?;
        }
        Ok(())
    }

    /// Changes every state of these shipments, those to go back to as well; each counts a version up, so that an edit that was
    /// begun before is asked for again.
    async fn change_states(
        &mut self,
        studio: StudioId,
        ids: &[Uuid],
        change: &MoneyChange,
    ) -> Result<(), StoreError> {
        let states: Vec<(Uuid, i32, i32, Value)> = sqlx::query_as(
            "SELECT shipment_id, state, schema, inputs FROM shipment_state
             WHERE studio_id = $1 AND shipment_id = ANY($2)",
        )
        .bind(studio.0)
        .bind(ids)
        .fetch_all(self.connection())
        .await?;
        let (mut of, mut at, mut then) = (Vec::new(), Vec::new(), Vec::new());
        for (shipment, state, schema, inputs) in states {
            let inputs = ShipmentInputs::from_stored(schema.unsigned_abs(), inputs);
            of.push(shipment);
            at.push(state);
            then.push(Json(inputs.after_change(change)));
        }
        sqlx::query(
            "UPDATE shipment_state SET inputs = changed.inputs, schema = $5
             FROM unnest($2::uuid[], $3::int[], $4::jsonb[]) AS changed (shipment_id, state, inputs)
             WHERE shipment_state.studio_id = $1 AND shipment_state.shipment_id = changed.shipment_id
               AND shipment_state.state = changed.state",
        )
        .bind(studio.0)
        .bind(of)
        .bind(at)
        .bind(then)
        .bind(SCHEMA.cast_signed())
        .execute(self.connection())
        .await?;
        sqlx::query(
            "UPDATE shipment SET version = version + 1 WHERE studio_id = $1 AND id = ANY($2)",
        )
        .bind(studio.0)
        .bind(ids)
        .execute(self.connection())
        .await?;
        Ok(())
    }
}
