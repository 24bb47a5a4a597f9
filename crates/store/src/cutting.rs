//! Layouts, and the sheets of them that were cut.

use hummock_core::stock::StockItem;
use serde_json::{Value, json};
use sqlx::types::Json;
use uuid::Uuid;

use crate::{
    ShelfRefused, StoreError, StudioStore,
    stock::{Draw, add, counted, draw, keep, lock},
};

/// A layout, as it was made.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredCutting {
    /// The id of the layout.
    pub id: Uuid,
    /// What it says; the server's own.
    pub body: Value,
    /// In seconds since 1970.
    pub made_at: i64,
    /// The sheets that were cut.
    pub done: Vec<SheetDone>,
}

/// A sheet that was cut.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SheetDone {
    /// Which, counted from 1.
    pub n: i32,
    /// What was kept of it.
    pub kept: Vec<Uuid>,
    /// In seconds since 1970.
    pub at: i64,
}

/// What a sheet is drawn from.
#[derive(Debug, Clone, PartialEq)]
pub enum DrawnFrom {
    /// New sheets, where they are counted.
    New(Draw),
    /// An offcut.
    Offcut(Uuid, String),
}

impl StudioStore {
    /// Keeps a layout, in place of one of its id of which no sheet is cut yet; tells whether it did.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_cutting(&self, id: Uuid, body: &Value) -> Result<bool, StoreError> {
        let done = sqlx::query(
            "INSERT INTO cutting (studio_id, id, body) VALUES ($1, $2, $3)
             ON CONFLICT (studio_id, id) DO UPDATE SET body = excluded.body
             WHERE NOT EXISTS (SELECT FROM cutting_sheet WHERE studio_id = $1 AND cutting_id = $2)",
        )
        .bind(self.studio.0)
        .bind(id)
        .bind(body)
        .execute(&self.pool)
        .await?;
        Ok(done.rows_affected() == 1)
    }

    /// Returns a layout.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn cutting(&self, id: Uuid) -> Result<Option<StoredCutting>, StoreError> {
        let found: Option<(Json<Value>, i64)> = sqlx::query_as(
            "SELECT body, extract(epoch FROM made_at)::bigint FROM cutting WHERE studio_id = $1 AND id = $2",
        )
        .bind(self.studio.0)
        .bind(id)
        .fetch_optional(&self.pool)
        .await?;
        let Some((body, made_at)) = found else {
            return Ok(None);
        };
        let rows: Vec<(i32, Vec<Uuid>, i64)> = sqlx::query_as(
            "SELECT n, kept, extract(epoch FROM done_at)::bigint FROM cutting_sheet
             WHERE studio_id = $1 AND cutting_id = $2 ORDER BY n",
        )
        .bind(self.studio.0)
        .bind(id)
        .fetch_all(&self.pool)
        .await?;
        let done = rows
            .into_iter()
            .map(|(n, kept, at)| SheetDone { n, kept, at })
            .collect();
        Ok(Some(StoredCutting {
            id,
            body: body.0,
            made_at,
            done,
        }))
    }

    /// Returns the newest layouts, without their sheets that were cut.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn cuttings(&self) -> Result<Vec<StoredCutting>, StoreError> {
        let rows: Vec<(Uuid, Json<Value>, i64)> = sqlx::query_as(
            "SELECT id, body, extract(epoch FROM made_at)::bigint FROM cutting
             WHERE studio_id = $1 ORDER BY made_at DESC, id DESC LIMIT 50",
        )
        .bind(self.studio.0)
        .fetch_all(&self.pool)
        .await?;
        let cutting = |(id, body, made_at): (Uuid, Json<Value>, i64)| StoredCutting {
            id,
            body: body.0,
            made_at,
            done: Vec::new(),
        };
        Ok(rows.into_iter().map(cutting).collect())
    }

    /// Returns the layouts that parts of a shipment were cut by, the oldest first, each with the numbers of its sheets that were cut.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn cut_for(&self, shipment: Uuid) -> Result<Vec<(Value, Vec<i32>)>, StoreError> {
        let rows: Vec<(Json<Value>, Vec<i32>)> = sqlx::query_as(
            "SELECT body, array_agg(n ORDER BY n) FROM cutting
             JOIN cutting_sheet ON cutting_sheet.studio_id = cutting.studio_id AND cutting_id = cutting.id
             WHERE cutting.studio_id = $1 AND body->'shipments' @> $2
             GROUP BY cutting.id, body, made_at ORDER BY made_at, cutting.id",
        )
        .bind(self.studio.0)
        .bind(json!([{ "id": shipment }]))
        .fetch_all(&self.pool)
        .await?;
        Ok(rows
            .into_iter()
            .map(|(body, done)| (body.0, done))
            .collect())
    }

    /// Notes that a sheet of a layout, as it was seen, was cut: draws it, and keeps what is kept, once, however often it is asked.
    ///
    /// # Errors
    /// [`ShelfRefused::NoneLeft`] where another bench was first, [`ShelfRefused::LaidOutAnew`] where it was laid out anew.
    pub async fn sheet_is_cut(
        &self,
        (cutting, n, about): (Uuid, i32, &str),
        (from, seen): (&DrawnFrom, &Value),
        offcuts: &[StockItem],
    ) -> Result<(), ShelfRefused> {
        let mut transaction = self.pool.begin().await?;
        // Who lays it out anew waits, or is waited for: what is cut is what was seen.
        let body: Option<Json<Value>> = sqlx::query_scalar(
            "SELECT body FROM cutting WHERE studio_id = $1 AND id = $2 FOR UPDATE",
        )
        .bind(self.studio.0)
        .bind(cutting)
        .fetch_optional(&mut *transaction)
        .await?;
        match body {
            None => return Err(ShelfRefused::NotFound),
            Some(body) if body.0 != *seen => return Err(ShelfRefused::LaidOutAnew),
            Some(_) => {}
        }
        let first = sqlx::query(
            "INSERT INTO cutting_sheet (studio_id, cutting_id, n) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING",
        )
        .bind(self.studio.0)
        .bind(cutting)
        .bind(n)
        .execute(&mut *transaction)
        .await?;
        if first.rows_affected() == 0 {
            return Ok(());
        }
        let (item, what) = match from {
            DrawnFrom::Offcut(id, name) => {
                let there = lock(&mut transaction, self.studio, *id).await?;
                let item = there.map(|_| *id);
                if item.is_none() {
                    return Err(ShelfRefused::NoneLeft { what: name.clone() });
                }
                (item, name)
            }
            DrawnFrom::New(one) => {
                let key = one.goods.key().unwrap_or_default();
                let found = counted(&mut transaction, self.studio, &key, one).await?;
                (found.map(|(id, _)| id), &one.name)
            }
        };
        if let Some(id) = item {
            draw(&mut transaction, self.studio, id, 1, ("cut", about))
                .await?
                .ok_or_else(|| ShelfRefused::NoneLeft { what: what.clone() })?;
        }
        let kept = keep(&mut transaction, self.studio, offcuts, about).await?;
        sqlx::query(
            "UPDATE cutting_sheet SET drawn = $4, kept = $5 WHERE studio_id = $1 AND cutting_id = $2 AND n = $3",
        )
        .bind(self.studio.0)
        .bind(cutting)
        .bind(n)
        .bind(item)
        .bind(kept)
        .execute(&mut *transaction)
        .await?;
        transaction.commit().await?;
        Ok(())
    }

    /// Takes back that a sheet was cut: the shelf is as it was before. A second time it does nothing more.
    ///
    /// # Errors
    /// [`ShelfRefused::UsedSince`] where something that was kept of it has been used.
    pub async fn sheet_is_not_cut(
        &self,
        (cutting, n, about): (Uuid, i32, &str),
    ) -> Result<(), ShelfRefused> {
        let mut transaction = self.pool.begin().await?;
        let found: Option<(Option<Uuid>, Vec<Uuid>)> = sqlx::query_as(
            "DELETE FROM cutting_sheet WHERE studio_id = $1 AND cutting_id = $2 AND n = $3 RETURNING drawn, kept",
        )
        .bind(self.studio.0)
        .bind(cutting)
        .bind(n)
        .fetch_optional(&mut *transaction)
        .await?;
        let Some((drawn, mut kept)) = found else {
            return Ok(());
        };
        kept.sort();
        for id in kept {
            let there = lock(&mut transaction, self.studio, id).await?;
            // What was thrown away meanwhile is not missed.
            let Some(there) = there else { continue };
            if there.left_count == 0 {
                return Err(ShelfRefused::UsedSince { what: there.name });
            }
            sqlx::query("DELETE FROM stock WHERE studio_id = $1 AND id = $2")
                .bind(self.studio.0)
                .bind(id)
                .execute(&mut *transaction)
                .await?;
        }
        if let Some(id) = drawn {
            add(&mut transaction, self.studio, id, 1, ("not_cut", about)).await?;
        }
        transaction.commit().await?;
        Ok(())
    }
}
