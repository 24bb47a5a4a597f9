//! What a studio keeps, in PostgreSQL: its rules, shelf, tariffs and shipments with their history.
//!
//! Nothing is computed here; what the core worked out is stored beside the inputs it came from.

mod behind;
mod error;
mod house;
mod listing;
mod shipment;
mod studio;

pub use behind::{Behind, Progress, Recomputed};
pub use error::StoreError;
pub use house::{HouseAt, HouseVersion, SettingRefused};
pub use listing::{Listed, Page, Sort, Wanted};
pub use shipment::{Computed, Edit, Move, NewShipment, Place, Stored, WriteRefused};
pub use studio::{Country, Settings, StudioId};

use std::time::Duration;

use sqlx::{PgPool, postgres::PgPoolOptions};

/// A pool of connections to the database of one or more studios.
#[derive(Debug, Clone)]
pub struct Store {
    pool: PgPool,
}

const MOST_CONNECTIONS: u32 = 16;
/// A person who waits longer than this wants to be told that the database is away.
const PATIENCE: Duration = Duration::from_secs(3);

impl Store {
    /// Connects to a database and brings its tables up to date, one process at a time.
    ///
    /// # Errors
    /// [`StoreError`] when the database is away or its tables are newer than this program.
    pub async fn open(url: &str) -> Result<Self, StoreError> {
        let pool = PgPoolOptions::new()
            .max_connections(MOST_CONNECTIONS)
            .acquire_timeout(PATIENCE)
            .connect(url)
            .await?;
        let store = Self { pool };
        store.migrate().await?;
        Ok(store)
    }

    /// Uses a pool whose tables are up to date.
    #[must_use]
    pub const fn over(pool: PgPool) -> Self {
        Self { pool }
    }

    async fn migrate(&self) -> Result<(), StoreError> {
        Ok(sqlx::migrate!().run(&self.pool).await?)
    }

    /// Asks the database for a sign of life.
    ///
    /// # Errors
    /// [`StoreError`] when it gives none.
    pub async fn ping(&self) -> Result<(), StoreError> {
        sqlx::query("SELECT 1").execute(&self.pool).await?;
        Ok(())
    }
}
