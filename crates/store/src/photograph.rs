//! Photographs of shipments: what is known of each; the pictures lie elsewhere.

use sqlx::{AssertSqlSafe, FromRow, Row as _, postgres::PgRow};
use uuid::Uuid;

use crate::{StoreError, StudioStore};

/// A photograph, without its picture.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Photograph {
    /// Chosen by whoever took it, so that sending it twice keeps one.
    pub id: Uuid,
    /// Of which shipment.
    pub shipment: Uuid,
    /// The key of the step that it was taken at.
    pub step: String,
    /// When, as its camera's clock wrote it.
    pub taken_at: String,
    /// In points, upright.
    pub width: i32,
    /// In points, upright.
    pub height: i32,
    /// Of the picture that is kept.
    pub bytes: i32,
    /// The digest of the file as it was sent.
    pub digest: Vec<u8>,
    /// Where its picture lies.
    pub picture: PictureKey,
}

/// What names the file of a picture.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PictureKey {
    /// The id of the photograph.
    pub id: Uuid,
    /// The digest of the picture as it is kept; `None` for those that were kept before it was written down.
    pub digest: Option<Vec<u8>>,
}

/// A photograph as a backup takes it out.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PhotographOut {
    /// The shipment that it is of.
    pub shipment: Uuid,
    /// Its title.
    pub title: String,
    /// The size of its picture, in bytes.
    pub bytes: i32,
    /// Where its picture lies.
    pub picture: PictureKey,
}

impl FromRow<'_, PgRow> for PictureKey {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            id: row.try_get("id")?,
            digest: row.try_get("kept_digest")?,
        })
    }
}

impl FromRow<'_, PgRow> for PhotographOut {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            shipment: row.try_get("shipment_id")?,
            title: row.try_get("title")?,
            bytes: row.try_get("bytes")?,
            picture: PictureKey::from_row(row)?,
        })
    }
}

impl FromRow<'_, PgRow> for Photograph {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            id: row.try_get("id")?,
            shipment: row.try_get("shipment_id")?,
            step: row.try_get("step")?,
            taken_at: row.try_get("taken_at")?,
            width: row.try_get("width")?,
            height: row.try_get("height")?,
            bytes: row.try_get("bytes")?,
            digest: row.try_get("digest")?,
            picture: PictureKey::from_row(row)?,
        })
    }
}

const COLUMNS: &str = "id, shipment_id, step, taken_at, width, height, bytes, digest, kept_digest";

impl StudioStore {
    /// Returns a photograph.
    ///
    /// # Errors
    /// When the database is away.
    pub async fn photograph(&self, id: Uuid) -> Result<Option<Photograph>, StoreError> {
        let asked = format!("SELECT {COLUMNS} FROM photograph WHERE studio_id = $1 AND id = $2");
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(id)
            .fetch_optional(&self.pool)
            .await?;
        Ok(found)
    }

    /// Returns the photographs of a shipment, in the order in which they were taken.
    ///
    /// # Errors
    /// When the database is away.
    pub async fn photographs(&self, shipment: Uuid) -> Result<Vec<Photograph>, StoreError> {
        let asked = format!(
            "SELECT {COLUMNS} FROM photograph WHERE studio_id = $1 AND shipment_id = $2 ORDER BY taken_at, id"
        );
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(shipment)
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Writes down a photograph of which the picture lies in its place; one that is written down already stays as it is.
    ///
    /// # Errors
    /// When the database is away, or there is no such shipment.
    pub async fn keep_photograph(&self, photograph: &Photograph) -> Result<(), StoreError> {
        sqlx::query(
            "INSERT INTO photograph (studio_id, id, shipment_id, step, taken_at, width, height, bytes, digest, kept_digest)
             VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) ON CONFLICT (studio_id, id) DO NOTHING",
        )
        .bind(self.studio.0)
        .bind(photograph.id)
        .bind(photograph.shipment)
        .bind(&photograph.step)
        .bind(&photograph.taken_at)
        .bind(photograph.width)
        .bind(photograph.height)
        .bind(photograph.bytes)
        .bind(&photograph.digest)
        .bind(&photograph.picture.digest)
        .execute(&self.pool)
        .await?;
        Ok(())
    }

    /// Strikes a photograph out; tells whether it was there.
    ///
    /// # Errors
    /// When the database is away.
    pub async fn drop_photograph(&self, id: Uuid) -> Result<bool, StoreError> {
        let done = sqlx::query("DELETE FROM photograph WHERE studio_id = $1 AND id = $2")
            .bind(self.studio.0)
            .bind(id)
            .execute(&self.pool)
            .await?;
        Ok(done.rows_affected() > 0)
    }
}
