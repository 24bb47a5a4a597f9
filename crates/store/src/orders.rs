//! What is known of the shops that orders come from: how their tables are read, and the products that were met before.

use hummock_core::shipment::{OrderTable, PieceInputs, ShipmentInputs};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sqlx::types::Json;

use crate::{StoreError, StudioStore};

/// How a table with a head was read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct KeptTable {
    /// The names in its head, sorted.
    pub head: Vec<String>,
    /// How it was read.
    pub table: OrderTable,
}

/// A product, as an order names it.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct ProductNamed {
    /// The shop's code of it; empty where it has none.
    pub sku: String,
    /// Its title; empty where it has none.
    pub title: String,
}

/// The tables of so many shops are remembered, those that were read last.
const MOST_KEPT: usize = 12;

impl StudioStore {
    /// Returns how tables of shops were read, the last one first.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn order_tables(&self) -> Result<Vec<KeptTable>, StoreError> {
        let kept: Option<Json<Vec<KeptTable>>> =
            sqlx::query_scalar("SELECT order_tables FROM studio WHERE id = $1")
                .bind(self.studio.0)
                .fetch_one(&self.pool)
                .await?;
        Ok(kept.map(|Json(tables)| tables).unwrap_or_default())
    }

    /// Keeps how a table was read, for the next one with the same head.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_order_table(&self, kept: KeptTable) -> Result<(), StoreError> {
        let mut tables = self.order_tables().await?;
        if tables.first() == Some(&kept) {
            return Ok(());
        }
        tables.retain(|one| one.head != kept.head);
        tables.insert(0, kept);
        tables.truncate(MOST_KEPT);
        sqlx::query("UPDATE studio SET order_tables = $2, order_columns = $3 WHERE id = $1")
            .bind(self.studio.0)
            .bind(Json(&tables))
            .bind(Json(&tables[0].table.columns))
            .execute(&self.pool)
            .await?;
        Ok(())
    }

    /// Returns the piece of the last shipment of each product, by its code or else by its title; `None` for a product that no
    /// shipment with a size is of.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn products(
        &self,
        named: &[ProductNamed],
    ) -> Result<Vec<Option<PieceInputs>>, StoreError> {
        const FOUND: &str = "
            SELECT schema, inputs FROM shipment
            JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
                AND shipment_id = shipment.id AND state = at_state
            WHERE shipment.studio_id = $1 AND place <> 'bin' AND inputs->'piece' ? 'width' AND inputs->'piece' ? 'height'";
        let (skus, titles): (Vec<&str>, Vec<&str>) = named
            .iter()
            .map(|one| (one.sku.as_str(), one.title.as_str()))
            .unzip();
        let ask = format!(
            "SELECT coalesce(of_sku.schema, of_title.schema), coalesce(of_sku.inputs, of_title.inputs)
             FROM unnest($2::text[], $3::text[]) WITH ORDINALITY AS wanted (sku, title, at)
             LEFT JOIN LATERAL (
                 {FOUND} AND inputs->'order' ? 'sku' AND inputs->'order'->>'sku' = wanted.sku AND wanted.sku <> ''
                 ORDER BY created_at DESC LIMIT 1
             ) AS of_sku ON true
             LEFT JOIN LATERAL (
                 {FOUND} AND lower(title) = lower(wanted.title) AND wanted.title <> ''
                 ORDER BY created_at DESC LIMIT 1
             ) AS of_title ON true
             ORDER BY wanted.at"
        );
        let found: Vec<(Option<i32>, Option<Value>)> = sqlx::query_as(sqlx::AssertSqlSafe(ask))
            .bind(self.studio.0)
            .bind(skus)
            .bind(titles)
            .fetch_all(&self.pool)
            .await?;
        Ok(found
            .into_iter()
            .map(|(schema, inputs)| {
                let schema = u32::try_from(schema?).unwrap_or(1);
                let again = ShipmentInputs::from_stored(schema, inputs?).again();
                Some(PieceInputs {
                    // How many were bought then says nothing of now.
                    count: None,
                    ..again.piece
                })
            })
            .collect())
    }
}
