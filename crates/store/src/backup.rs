//! A whole studio as lists of JSON lines: read out of one database as it stood at one moment, and written into another.
//!
//! A line is a row as PostgreSQL writes it, so that every figure goes out and comes in to the byte. Numbers that only a database
//! counts for itself (which studio, which house version, who is working a plan out) are left out or told in words.

use futures_util::{Stream, StreamExt as _};
use hummock_core::{
    freight::Tariff, house::HouseRules, material::Catalogue, plan::References, record::LogRow,
    sending::HandedParcel, shipment::OrderColumns, stock::Goods,
};
use serde::{Deserialize, de::DeserializeOwned};
use serde_json::Value;
use sqlx::{AssertSqlSafe, PgTransaction};
use uuid::Uuid;

use crate::{
    PhotographOut, Settings, StoreError, StudioId, StudioStore, TakenLine, house::house_in,
    house_changes::HouseChanges,
};

/// A list of a backup, in the order in which they are read in: none names what a later one holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BackupList {
    /// The studio's settings: one line.
    Studio,
    /// Every version of the house rules.
    HouseRules,
    /// The stores: one line.
    Stores,
    /// The carriers' tariffs.
    Tariffs,
    /// The presets that the studio named.
    Presets,
    /// Every shipment as it stands.
    Shipments,
    /// Every state that a shipment's inputs had.
    States,
    /// The ids of changes that were made already.
    Edits,
    /// What was taken off the shelf for a shipment.
    Taken,
    /// What is known of each photograph; the picture is a file of its own.
    Photographs,
    /// What carriers were asked to book, and what they said of a parcel.
    Bookings,
    /// What is on the shelf.
    Shelf,
    /// What became of it.
    ShelfEvents,
    /// The number of the next offcut: one line, or none.
    OffcutNumber,
    /// Layouts.
    Cuttings,
    /// Sheets that were cut.
    CutSheets,
}

impl BackupList {
    /// All of them.
    pub const ALL: [Self; 16] = [
        Self::Studio,
        Self::HouseRules,
        Self::Stores,
        Self::Tariffs,
        Self::Presets,
        Self::Shipments,
        Self::States,
        Self::Edits,
        Self::Taken,
        Self::Photographs,
        Self::Bookings,
        Self::Shelf,
        Self::ShelfEvents,
        Self::OffcutNumber,
        Self::Cuttings,
        Self::CutSheets,
    ];

    /// Returns the name of its file, without what says that it is lines of JSON.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Studio => "studio",
            Self::HouseRules => "house-rules",
            Self::Stores => "stores",
            Self::Tariffs => "tariffs",
            Self::Presets => "presets",
            Self::Shipments => "shipments",
            Self::States => "shipment-states",
            Self::Edits => "shipment-edits",
            Self::Taken => "taken-for-shipments",
            Self::Photographs => "photographs",
            Self::Bookings => "bookings",
            Self::Shelf => "shelf",
            Self::ShelfEvents => "shelf-events",
            Self::OffcutNumber => "offcut-number",
            Self::Cuttings => "cuttings",
            Self::CutSheets => "cut-sheets",
        }
    }

    const fn table(self) -> &'static str {
        match self {
            Self::Studio => "studio",
            Self::HouseRules => "house_rules",
            Self::Stores => "catalogue",
            Self::Tariffs => "tariff",
            Self::Presets => "preset",
            Self::Shipments => "shipment",
            Self::States => "shipment_state",
            Self::Edits => "shipment_edit",
            Self::Taken => "taken",
            Self::Photographs => "photograph",
            Self::Bookings => "booking",
            Self::Shelf => "stock",
            Self::ShelfEvents => "stock_event",
            Self::OffcutNumber => "offcut_number",
            Self::Cuttings => "cutting",
            Self::CutSheets => "cutting_sheet",
        }
    }

    const fn order(self) -> &'static str {
        match self {
            Self::HouseRules => "version",
            Self::Studio | Self::Stores | Self::OffcutNumber => "1",
            Self::Presets => "name COLLATE \"C\"",
            Self::Tariffs => "id COLLATE \"C\"",
            Self::States => "shipment_id, state",
            Self::Edits => "shipment_id, edit_id",
            Self::Taken => "shipment_id",
            Self::CutSheets => "cutting_id, n",
            Self::Shipments
            | Self::Photographs
            | Self::Bookings
            | Self::Shelf
            | Self::ShelfEvents
            | Self::Cuttings => "id",
        }
    }

    /// Asks for its lines.
    fn asked(self) -> String {
        let (table, order) = (self.table(), self.order());
        match self {
            // The mark is a picture of its own.
            Self::Studio => "SELECT (to_jsonb(studio) - '{id,mark,name}'::text[])::text FROM studio WHERE id = $1".to_owned(),
            Self::Shipments => format!(
                "SELECT (to_jsonb(row) - '{{studio_id,house_version,claimed_until,claimed_for}}'::text[] || jsonb_build_object(
                     'plan_follows', CASE
                         WHEN house_version = 0 THEN 'no house'
                         WHEN house_version < (SELECT version FROM house WHERE studio_id = $1) THEN 'an earlier house'
                         ELSE 'this house' END
                 ))::text
                 FROM {table} AS row WHERE studio_id = $1 ORDER BY {order}"
            ),
            _ => format!(
                "SELECT (to_jsonb(row) - 'studio_id')::text FROM {table} AS row WHERE studio_id = $1 ORDER BY {order}"
            ),
        }
    }

    /// Writes lines into its table.
    fn taken(self) -> String {
        let table = self.table();
        let overriding = match self {
            Self::ShelfEvents => "OVERRIDING SYSTEM VALUE",
            _ => "",
        };
        let besides = match self {
            // The house counted up once when it was taken over: whatever was behind it is behind it here.
            Self::Shipments => {
                "|| jsonb_build_object('claimed_until', NULL, 'claimed_for', 0, 'house_version', CASE line::jsonb ->> 'plan_follows'
                     WHEN 'this house' THEN (SELECT version FROM house WHERE studio_id = $1)
                     WHEN 'an earlier house' THEN (SELECT version - 1 FROM house WHERE studio_id = $1)
                     ELSE 0 END)"
            }
            _ => "",
        };
        format!(
            "INSERT INTO {table} {overriding}
             SELECT row.* FROM unnest($2::text[]) AS line,
                 LATERAL jsonb_populate_record(NULL::{table}, line::jsonb {besides} || jsonb_build_object('studio_id', $1)) AS row"
        )
    }

    /// Says what is wrong with a line that this program could not work with.
    fn fault(self, line: &str) -> Result<(), serde_json::Error> {
        #[derive(Deserialize)]
        struct Parcel {
            handed: Option<HandedParcel>,
            logged: Option<LogRow>,
        }
        #[derive(Deserialize)]
        struct Studio {
            settings: Settings,
            order_columns: Option<OrderColumns>,
        }
        fn field<T: DeserializeOwned>(line: &str, name: &str) -> Result<(), serde_json::Error> {
            let mut whole: serde_json::Map<String, Value> = serde_json::from_str(line)?;
            let value = whole.remove(name).unwrap_or_default();
            serde_json::from_value::<T>(value).map(drop)
        }
        match self {
            Self::Studio => serde_json::from_str::<Studio>(line).map(
                |Studio {
                     settings,
                     order_columns,
                 }| drop((settings, order_columns)),
            ),
            Self::HouseRules | Self::Presets => field::<HouseRules>(line, "rules"),
            Self::Stores => field::<Catalogue>(line, "materials"),
            Self::Tariffs => field::<Tariff>(line, "body"),
            Self::Shipments => serde_json::from_str::<Parcel>(line)
                .map(|Parcel { handed, logged }| drop((handed, logged))),
            Self::Shelf => field::<Goods>(line, "goods"),
            Self::Taken => field::<Vec<TakenLine>>(line, "lines"),
            // What was typed in an earlier shape is brought up to date whenever it is read.
            Self::States
            | Self::Edits
            | Self::Photographs
            | Self::Bookings
            | Self::ShelfEvents
            | Self::OffcutNumber
            | Self::Cuttings
            | Self::CutSheets => {
                serde_json::from_str::<serde_json::Map<String, Value>>(line).map(drop)
            }
        }
    }
}

/// Why a backup was not read in; nothing of it was written.
#[derive(Debug, thiserror::Error)]
pub enum BackupRefused {
    /// Something is kept here already.
    #[error("something is kept here already")]
    NotEmpty,
    /// A line of it is not what it should be.
    #[error("line {line} of {list}.jsonl can't be read: {says}")]
    Line {
        /// Which list.
        list: &'static str,
        /// Counted from 1; the first of a few when it is not known closer.
        line: usize,
        /// What is wrong with it.
        says: String,
    },
    /// The lists do not make a studio together.
    #[error("it is no whole studio: {0}")]
    NotWhole(String),
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for BackupRefused {
    fn from(error: sqlx::Error) -> Self {
        Self::Store(error.into())
    }
}

/// How much a studio holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Holdings {
    /// Shipments, wherever they are kept.
    pub shipments: i64,
    /// Photographs.
    pub photographs: i64,
    /// Items of the shelf, and layouts.
    pub others: i64,
}

impl Holdings {
    /// Tells whether a backup may be read in.
    #[must_use]
    pub const fn is_empty(&self) -> bool {
        self.shipments == 0 && self.photographs == 0 && self.others == 0
    }
}

const HOLDINGS: &str = "SELECT (SELECT count(*) FROM shipment WHERE studio_id = $1),
     (SELECT count(*) FROM photograph WHERE studio_id = $1),
     (SELECT count(*) FROM stock WHERE studio_id = $1) + (SELECT count(*) FROM cutting WHERE studio_id = $1)";

fn holdings((shipments, photographs, others): (i64, i64, i64)) -> Holdings {
    Holdings {
        shipments,
        photographs,
        others,
    }
}

/// A studio as it stood at one moment, whatever is written meanwhile.
#[derive(Debug)]
pub struct BackupOut {
    transaction: PgTransaction<'static>,
    studio: StudioId,
}

impl BackupOut {
    /// Returns how much it holds.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn holdings(&mut self) -> Result<Holdings, StoreError> {
        let found = sqlx::query_as(HOLDINGS).bind(self.studio.0);
        Ok(holdings(found.fetch_one(&mut *self.transaction).await?))
    }

    /// Reads the lines of a list, one after the other.
    pub fn lines(
        &mut self,
        list: BackupList,
    ) -> impl Stream<Item = Result<String, StoreError>> + Send + '_ {
        sqlx::query_scalar(AssertSqlSafe(list.asked()))
            .bind(self.studio.0)
            .fetch(&mut *self.transaction)
            .map(|line| line.map_err(StoreError::from))
    }

    /// Returns the next photographs after one, by their ids.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn photographs(
        &mut self,
        after: Option<Uuid>,
        most: u32,
    ) -> Result<Vec<PhotographOut>, StoreError> {
        let found = sqlx::query_as(
            "SELECT id, shipment_id, bytes, kept_digest FROM photograph WHERE studio_id = $1 AND ($2::uuid IS NULL OR id > $2) ORDER BY id LIMIT $3",
        );
        let found = found.bind(self.studio.0).bind(after).bind(i64::from(most));
        Ok(found.fetch_all(&mut *self.transaction).await?)
    }

    /// Returns the studio's own mark, as PNG.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn mark(&mut self) -> Result<Option<Vec<u8>>, StoreError> {
        let found = sqlx::query_scalar("SELECT mark FROM studio WHERE id = $1");
        let found = found.bind(self.studio.0);
        Ok(found.fetch_one(&mut *self.transaction).await?)
    }
}

/// A studio that is being written; it is there as a whole once it is finished, and not at all when this is dropped.
#[derive(Debug)]
pub struct BackupIn {
    transaction: PgTransaction<'static>,
    studio: StudioId,
    house_changes: HouseChanges,
}

impl BackupIn {
    /// Writes lines of a list, of which the first is counted so.
    ///
    /// # Errors
    /// [`BackupRefused::Line`] when one of them can't stand.
    pub async fn take(
        &mut self,
        list: BackupList,
        first: usize,
        lines: &[String],
    ) -> Result<(), BackupRefused> {
        let refused = |line, says| BackupRefused::Line {
            list: list.name(),
            line,
            says,
        };
        for (line, at) in lines.iter().zip(first..) {
            list.fault(line)
                .map_err(|error| refused(at, error.to_string()))?;
        }
        let written = if list == BackupList::Studio {
            let line = lines.last().map_or("{}", String::as_str);
            sqlx::query(
                "UPDATE studio SET (settings, settings_version, order_columns, created_at) = (
                     SELECT settings, settings_version, order_columns, created_at
                     FROM jsonb_populate_record(NULL::studio, $2::text::jsonb)
                 ) WHERE id = $1",
            )
            .bind(self.studio.0)
            .bind(line)
            .execute(&mut *self.transaction)
            .await
        } else {
            sqlx::query(AssertSqlSafe(list.taken()))
                .bind(self.studio.0)
                .bind(lines)
                .execute(&mut *self.transaction)
                .await
        };
        match written {
            Ok(_) => Ok(()),
            Err(sqlx::Error::Database(error)) if is_about_data(error.code().as_deref()) => {
                Err(refused(first, error.message().to_owned()))
            }
            Err(error) => Err(error.into()),
        }
    }

    /// Keeps the studio's own mark.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn mark(&mut self, png: &[u8]) -> Result<(), StoreError> {
        sqlx::query("UPDATE studio SET mark = $2 WHERE id = $1")
            .bind(self.studio.0)
            .bind(png)
            .execute(&mut *self.transaction)
            .await?;
        Ok(())
    }

    /// Looks it over as a whole, and lets it be seen.
    ///
    /// # Errors
    /// [`BackupRefused::NotWhole`] when there is no house to work by, or a shipment is at a state that it never had.
    pub async fn finish(mut self) -> Result<(), BackupRefused> {
        let house = house_in(
            &mut self.transaction,
            self.studio,
            References::default().into(),
        )
        .await;
        house.map_err(|error| match error {
            StoreError::Away(_) => BackupRefused::Store(error),
            _ => BackupRefused::NotWhole("its house rules or stores are missing".to_owned()),
        })?;
        let astray: Option<Uuid> = sqlx::query_scalar(
            "SELECT id FROM shipment WHERE studio_id = $1 AND NOT EXISTS (
                 SELECT FROM shipment_state WHERE studio_id = $1 AND shipment_id = id AND state = at_state
             ) LIMIT 1",
        )
        .bind(self.studio.0)
        .fetch_optional(&mut *self.transaction)
        .await?;
        if let Some(id) = astray {
            return Err(BackupRefused::NotWhole(format!(
                "what was typed of the shipment {id} is missing"
            )));
        }
        // Events that follow are counted on from the last of these.
        sqlx::query(
            "SELECT setval(pg_get_serial_sequence('stock_event', 'id'), greatest(
                 (SELECT max(id) FROM stock_event), nextval(pg_get_serial_sequence('stock_event', 'id'))
             ))",
        )
        .execute(&mut *self.transaction)
        .await?;
        self.transaction.commit().await?;
        self.house_changes.one_more();
        Ok(())
    }
}

/// Tells whether the database minds what was to be written, and not how things stand with itself.
fn is_about_data(code: Option<&str>) -> bool {
    code.is_some_and(|code| code.starts_with("22") || code.starts_with("23"))
}

impl StudioStore {
    /// Returns how much a studio holds.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn holdings(&self) -> Result<Holdings, StoreError> {
        let found = sqlx::query_as(HOLDINGS).bind(self.studio.0);
        Ok(holdings(found.fetch_one(&self.pool).await?))
    }

    /// Begins to read a studio out, as it stands now.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn back_up(&self) -> Result<BackupOut, StoreError> {
        let begin = "BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY";
        let mut transaction = self.pool.begin_with(begin).await?;
        // Times are written in this zone.
        sqlx::query("SET LOCAL TIME ZONE 'UTC'")
            .execute(&mut *transaction)
            .await?;
        Ok(BackupOut {
            transaction,
            studio: self.studio,
        })
    }

    /// Begins to write a backup into a studio that holds nothing; what it was set up with makes room for it.
    ///
    /// Whoever writes a plan, or changes the house, waits until it is finished or dropped.
    ///
    /// # Errors
    /// [`BackupRefused::NotEmpty`] when something is kept there.
    pub async fn restore(&self) -> Result<BackupIn, BackupRefused> {
        let mut transaction = self.pool.begin().await?;
        // Plans that are worked out by a house that was known here before are behind this one.
        sqlx::query("UPDATE house SET version = version + 1 WHERE studio_id = $1")
            .bind(self.studio.0)
            .execute(&mut *transaction)
            .await?;
        let found = sqlx::query_as(HOLDINGS).bind(self.studio.0);
        if !holdings(found.fetch_one(&mut *transaction).await?).is_empty() {
            return Err(BackupRefused::NotEmpty);
        }
        for table in [
            "preset",
            "tariff",
            "catalogue",
            "house_rules",
            "offcut_number",
        ] {
            let drop = format!("DELETE FROM {table} WHERE studio_id = $1");
            sqlx::query(AssertSqlSafe(drop))
                .bind(self.studio.0)
                .execute(&mut *transaction)
                .await?;
        }
        sqlx::query("UPDATE studio SET mark = NULL WHERE id = $1")
            .bind(self.studio.0)
            .execute(&mut *transaction)
            .await?;
        Ok(BackupIn {
            transaction,
            studio: self.studio,
            house_changes: self.house_changes.clone(),
        })
    }
}
