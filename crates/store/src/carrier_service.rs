//! Carriers' own services: where each is, and what the studio is known by there.

use std::fmt;

use sqlx::{FromRow, Row as _, postgres::PgRow};

use crate::{StoreError, StudioStore};

/// What is never written anywhere but where it belongs.
#[derive(Clone, PartialEq, Eq)]
pub struct Secret(pub String);

impl fmt::Debug for Secret {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("Secret")
    }
}

/// A carrier's own service.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct CarrierService {
    /// The carrier's tariff.
    pub tariff: String,
    /// Its address.
    pub address: String,
    /// The header that the key is sent in.
    pub header: String,
    /// What the studio is known by.
    pub key: Secret,
}

impl FromRow<'_, PgRow> for CarrierService {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            tariff: row.try_get("tariff")?,
            address: row.try_get("address")?,
            header: row.try_get("header")?,
            key: Secret(row.try_get("key")?),
        })
    }
}

impl StudioStore {
    /// Returns the carriers' own services that the studio has keys of.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn carrier_services(&self) -> Result<Vec<CarrierService>, StoreError> {
        let found = sqlx::query_as(
            "SELECT tariff, address, header, key FROM carrier_service WHERE studio_id = $1 ORDER BY tariff",
        )
        .bind(self.studio.0)
        .fetch_all(&self.pool)
        .await?;
        Ok(found)
    }

    /// Keeps where a carrier's service is, in place of what was kept; without a key the former one stays.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn keep_carrier_service(
        &self,
        tariff: &str,
        (address, header): (&str, &str),
        key: Option<&Secret>,
    ) -> Result<bool, StoreError> {
        let done = match key {
            Some(key) => {
                sqlx::query(
                    "INSERT INTO carrier_service (studio_id, tariff, address, header, key) VALUES ($1, $2, $3, $4, $5)
                     ON CONFLICT (studio_id, tariff) DO UPDATE SET address = $3, header = $4, key = $5",
                )
                .bind(self.studio.0)
                .bind(tariff)
                .bind(address)
                .bind(header)
                .bind(&key.0)
                .execute(&self.pool)
                .await?
            }
            // A key belongs to the address that it was given for.
            None => {
                sqlx::query(
                    "UPDATE carrier_service SET header = $4 WHERE studio_id = $1 AND tariff = $2 AND address = $3",
                )
                .bind(self.studio.0)
                .bind(tariff)
                .bind(address)
                .bind(header)
                .execute(&self.pool)
                .await?
            }
        };
        Ok(done.rows_affected() > 0)
    }

    /// Forgets a carrier's service with its key.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn drop_carrier_service(&self, tariff: &str) -> Result<(), StoreError> {
        sqlx::query("DELETE FROM carrier_service WHERE studio_id = $1 AND tariff = $2")
            .bind(self.studio.0)
            .bind(tariff)
            .execute(&self.pool)
            .await?;
        Ok(())
    }
}
