//! What a studio keeps, in PostgreSQL: its rules, stores, tariffs, shelf and shipments with their history.
//!
//! Nothing is computed here; what the core worked out is stored beside the inputs it came from.

mod backup;
mod behind;
mod booking;
mod carrier_service;
mod cutting;
mod device;
mod error;
mod handover_record;
mod house;
mod house_changes;
mod listing;
mod log;
mod money;
mod orders;
mod photograph;
mod row;
mod shipment;
mod stock;
mod studio;
mod written;

pub use backup::{BackupIn, BackupList, BackupOut, BackupRefused, Holdings};
pub use behind::{Behind, Progress, Recomputed};
pub use booking::{Booking, BookingMove, BookingState};
pub use carrier_service::{CarrierService, Secret};
pub use cutting::{DrawnFrom, SheetDone, StoredCutting};
pub use device::{Device, TokenDigest};
pub use error::StoreError;
pub use handover_record::{PastState, RecordKey, RecordOut, Unrecorded};
pub use house::{HouseAt, HouseVersion, SettingRefused};
pub use listing::{Listed, Page, Sort, Wanted};
pub use log::{LogSort, LogWanted, Logged};
pub use orders::{KeptTable, ProductNamed};
pub use photograph::{Photograph, PhotographOut, PictureKey};
pub use shipment::{Computed, Edit, LeftEdit, Move, NewShipment, Place, Stored, WriteRefused};
pub use stock::{Draw, ShelfMark, ShelfRefused, StockEvent, TakenLine};
pub use studio::{Country, HouseChange, Settings, SettingsRefused, StudioId, Turn};
pub use written::Written;

use std::{borrow::Cow, time::Duration};

use house_changes::HouseChanges;
use sqlx::{
    Connection as _, PgPool,
    migrate::{Migration, MigrationType, Migrator},
    postgres::PgPoolOptions,
};

/// A pool of connections to the database of one or more studios.
#[derive(Debug, Clone)]
pub struct Store {
    pool: PgPool,
    house_changes: HouseChanges,
}

/// What one studio keeps: the only way to its tables, so that no query can leave out whose they are.
#[derive(Debug, Clone)]
pub struct StudioStore {
    pool: PgPool,
    studio: StudioId,
    house_changes: HouseChanges,
}

impl StudioStore {
    /// Returns whose it is.
    #[must_use]
    pub const fn studio(&self) -> StudioId {
        self.studio
    }

    /// Returns how many changes of any studio's house this process has kept. While that number stays, only another process
    /// can have changed a house.
    #[must_use]
    pub fn house_changes(&self) -> u64 {
        self.house_changes.count()
    }
}

/// What brings the tables of any earlier edition up to date, in order; none is ever changed.
const TABLES: [(&str, &str); 21] = [
    (
        "studio and shipments",
        include_str!("../migrations/0001_studio_and_shipments.sql"),
    ),
    (
        "stores and presets",
        include_str!("../migrations/0002_stores_and_presets.sql"),
    ),
    (
        "one house version",
        include_str!("../migrations/0003_one_house_version.sql"),
    ),
    ("devices", include_str!("../migrations/0004_devices.sql")),
    ("stock", include_str!("../migrations/0005_stock.sql")),
    ("tariffs", include_str!("../migrations/0006_tariffs.sql")),
    (
        "photographs",
        include_str!("../migrations/0007_photographs.sql"),
    ),
    (
        "order columns",
        include_str!("../migrations/0008_order_columns.sql"),
    ),
    ("leaving", include_str!("../migrations/0009_leaving.sql")),
    ("log", include_str!("../migrations/0010_log.sql")),
    (
        "studios by name",
        include_str!("../migrations/0011_studios_by_name.sql"),
    ),
    (
        "kept pictures",
        include_str!("../migrations/0012_kept_pictures.sql"),
    ),
    (
        "import done",
        include_str!("../migrations/0013_import_done.sql"),
    ),
    ("restored", include_str!("../migrations/0014_restored.sql")),
    ("demo", include_str!("../migrations/0015_demo.sql")),
    (
        "carrier services",
        include_str!("../migrations/0016_carrier_services.sql"),
    ),
    (
        "orders and edits",
        include_str!("../migrations/0017_orders_and_edits.sql"),
    ),
    (
        "looked at again",
        include_str!("../migrations/0018_looked_at_again.sql"),
    ),
    (
        "plan edition",
        include_str!("../migrations/0019_plan_edition.sql"),
    ),
    ("readings", READINGS),
    (
        "handover records",
        include_str!("../migrations/0021_handover_records.sql"),
    ),
];
/// What brings readings of before up to date; those of a backup too.
pub(crate) const READINGS: &str = include_str!("../migrations/0020_readings.sql");
const MOST_CONNECTIONS: u32 = 16;
/// Kept open, since opening one takes long where much else runs.
const FEWEST_CONNECTIONS: u32 = 4;
/// A connection that was used a moment ago is taken to be there; any other is asked first, so that a database that
/// was away and came back is found again.
const TRUSTED_FOR: Duration = Duration::from_secs(1);

impl Store {
    /// Connects to a database and brings its tables up to date, one process at a time. Whoever waits longer for a connection
    /// than the patience wants to be told that the database is away.
    ///
    /// # Errors
    /// [`StoreError`] when the database is away or its tables are newer than this program.
    pub async fn open(url: &str, patience: Duration) -> Result<Self, StoreError> {
        let store = Self::connect(url, patience).await?;
        store.bring_up_to_date().await?;
        Ok(store)
    }

    /// Connects to a database whose tables are as they are.
    ///
    /// # Errors
    /// [`StoreError`] when the database is away.
    pub async fn connect(url: &str, patience: Duration) -> Result<Self, StoreError> {
        let pool = PgPoolOptions::new()
            .min_connections(FEWEST_CONNECTIONS)
            .max_connections(MOST_CONNECTIONS)
            .acquire_timeout(patience)
            .test_before_acquire(false)
            .before_acquire(|connection, idle| {
                Box::pin(async move {
                    if idle.idle_for > TRUSTED_FOR {
                        connection.ping().await?;
                    }
                    Ok(true)
                })
            })
            .connect(url)
            .await?;
        Ok(Self::over(pool))
    }

    /// Returns the edition of the tables if it is an earlier one than this program's; `None` if there are no tables yet, too.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn earlier_edition(&self) -> Result<Option<i64>, StoreError> {
        let there: bool = sqlx::query_scalar("SELECT to_regclass('_sqlx_migrations') IS NOT NULL")
            .fetch_one(&self.pool)
            .await?;
        if !there {
            return Ok(None);
        }
        let edition: Option<i64> = sqlx::query_scalar("SELECT max(version) FROM _sqlx_migrations")
            .fetch_one(&self.pool)
            .await?;
        Ok(edition.filter(|edition| {
            usize::try_from(*edition).is_ok_and(|edition| edition < TABLES.len())
        }))
    }

    /// Uses a pool whose tables are up to date.
    #[must_use]
    pub fn over(pool: PgPool) -> Self {
        Self {
            pool,
            house_changes: HouseChanges::default(),
        }
    }

    /// Opens every further connection at another address, where the database went.
    ///
    /// # Errors
    /// [`StoreError`] when that is no address.
    pub fn move_to(&self, url: &str) -> Result<(), StoreError> {
        self.pool.set_connect_options(url.parse()?);
        Ok(())
    }

    /// Hangs up, once whoever is being answered is.
    pub async fn close(&self) {
        self.pool.close().await;
    }

    /// Brings the tables up to date, one process at a time.
    ///
    /// # Errors
    /// [`StoreError`] when the database is away or its tables are newer than this program.
    pub async fn bring_up_to_date(&self) -> Result<(), StoreError> {
        let tables = TABLES
            .iter()
            .zip(1..)
            .map(|(&(name, sql), number)| {
                let sql = sqlx::SqlStr::from_static(sql);
                let name = Cow::Borrowed(name);
                Migration::new(number, name, MigrationType::Simple, sql, false)
            })
            .collect();
        Ok(Migrator::with_migrations(tables).run(&self.pool).await?)
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
