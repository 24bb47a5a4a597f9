//! A whole studio as lists of JSON lines: read out of one database as it stood at one moment, and written into another.
//!
//! A line is a row as PostgreSQL writes it, so that every figure goes out and comes in to the byte. Numbers that only a database
//! counts for itself (which studio, which house version, who is working a plan out) are left out or told in words.

use std::collections::BTreeMap;

use futures_util::{Stream, StreamExt as _};
use hummock_core::{
    freight::Tariff, house::HouseRules, material::Catalogue, plan::References, record::LogRow,
    sending::HandedParcel, shipment::OrderColumns, stock::Goods,
};
use jiff::civil::Date;
use serde::{Deserialize, Deserializer, de};
use serde_json::{Map, Value};
use sqlx::{AssertSqlSafe, PgPool, PgTransaction};
use strum::EnumCount;
use uuid::Uuid;

use crate::{
    BookingState, KeptTable, PhotographOut, Place, READINGS, RecordKey, RecordOut, Settings,
    StoreError, StudioId, StudioStore, TakenLine, house::house_in, house_changes::HouseChanges,
};

/// A house that is restored is ahead of the one that was here by so many versions: whoever changes that one meanwhile, and as often
/// as that, stays behind it.
const AHEAD: i32 = 1000;

/// A list of a backup, in the order in which they are read in: none names what a later one holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, EnumCount)]
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
    /// What names the handover records of parcels that left; each is a file of its own.
    HandoverRecords,
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
    pub const ALL: [Self; Self::COUNT] = [
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
        Self::HandoverRecords,
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
            Self::HandoverRecords => "handover-records",
            Self::Bookings => "bookings",
            Self::Shelf => "shelf",
            Self::ShelfEvents => "shelf-events",
            Self::OffcutNumber => "offcut-number",
            Self::Cuttings => "cuttings",
            Self::CutSheets => "cut-sheets",
        }
    }

    /// Whether it takes the place of what every studio has: it is written last, so that whoever works here meanwhile waits for a
    /// moment only.
    const fn replaces(self) -> bool {
        match self {
            Self::Studio
            | Self::HouseRules
            | Self::Stores
            | Self::Tariffs
            | Self::Presets
            | Self::OffcutNumber => true,
            Self::Shipments
            | Self::States
            | Self::Edits
            | Self::Taken
            | Self::Photographs
            | Self::HandoverRecords
            | Self::Bookings
            | Self::Shelf
            | Self::ShelfEvents
            | Self::Cuttings
            | Self::CutSheets => false,
        }
    }

    /// How many lines it has at least and at most.
    #[must_use]
    pub const fn length(self) -> (usize, usize) {
        match self {
            Self::Studio | Self::Stores => (1, 1),
            Self::HouseRules => (1, usize::MAX),
            Self::OffcutNumber => (0, 1),
            Self::Tariffs
            | Self::Presets
            | Self::Shipments
            | Self::States
            | Self::Edits
            | Self::Taken
            | Self::Photographs
            | Self::HandoverRecords
            | Self::Bookings
            | Self::Shelf
            | Self::ShelfEvents
            | Self::Cuttings
            | Self::CutSheets => (0, usize::MAX),
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
            Self::HandoverRecords => "handover_record",
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
            Self::HandoverRecords => "shipment_id, digest",
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
            Self::Studio => "SELECT (to_jsonb(studio) - '{id,mark,name,held}'::text[])::text FROM studio WHERE id = $1".to_owned(),
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

    /// Writes lines into its table, for a house of a version: a column that a line doesn't name has what the table gives a new row.
    fn taken(self, house: i32, columns: &[Column]) -> String {
        let table = self.table();
        let of_it = || columns.iter().filter(|column| column.of_table == table);
        let overriding = match self {
            Self::ShelfEvents => "OVERRIDING SYSTEM VALUE",
            _ => "",
        };
        let besides = match self {
            // What was behind its house is behind it here.
            Self::Shipments => format!(
                "|| jsonb_build_object('claimed_until', NULL, 'claimed_for', 0, 'house_version', CASE said ->> 'plan_follows'
                     WHEN 'this house' THEN {house}
                     WHEN 'an earlier house' THEN {house} - 1
                     ELSE 0 END)"
            ),
            _ => String::new(),
        };
        let names: Vec<String> = of_it().map(Column::quoted).collect();
        let values: Vec<String> = of_it().map(Column::taken).collect();
        // Without OFFSET, PostgreSQL would read each line once more for every column.
        format!(
            "INSERT INTO {table} ({}) {overriding}
             SELECT {} FROM unnest($2::text[]) AS line,
                 LATERAL (SELECT line::jsonb AS said OFFSET 0) AS read,
                 LATERAL (SELECT said {besides} || jsonb_build_object('studio_id', $1) AS fields OFFSET 0) AS given,
                 LATERAL jsonb_populate_record(NULL::{table}, fields) AS found",
            names.join(", "),
            values.join(", "),
        )
    }

    /// Says what is wrong with a line that this program could not work with.
    ///
    /// # Errors
    /// With what it is, in the words of whoever reads JSON.
    pub fn fault(self, line: &str) -> Result<(), serde_json::Error> {
        fn read<'a, T: Deserialize<'a>>(line: &'a str) -> Result<(), serde_json::Error> {
            serde_json::from_str::<T>(line).map(drop)
        }
        match self {
            Self::Studio => read::<StudioLine>(line),
            Self::HouseRules | Self::Presets => read::<RulesLine>(line),
            Self::Stores => read::<StoresLine>(line),
            Self::Tariffs => read::<TariffLine>(line),
            Self::Shipments => read::<ShipmentLine>(line),
            Self::States => read::<StateLine>(line),
            Self::Edits => read::<EditLine>(line),
            Self::Taken => read::<TakenLines>(line),
            Self::Photographs => read::<PhotographLine>(line),
            Self::HandoverRecords => read::<HandoverRecordLine>(line),
            Self::Bookings => read::<BookingLine>(line),
            Self::Shelf => read::<ShelfLine>(line),
            Self::ShelfEvents => read::<ShelfEventLine>(line),
            Self::OffcutNumber => read::<OffcutNumberLine>(line),
            Self::Cuttings => read::<CuttingLine>(line),
            Self::CutSheets => read::<CutSheetLine>(line),
        }
    }
}

/// A column of a table, as this database has it.
#[derive(Debug)]
struct Column {
    of_table: String,
    name: String,
    /// What a new row has in it, as SQL; `None` is nothing.
    default: Option<String>,
}

impl Column {
    fn quoted(&self) -> String {
        format!("\"{}\"", self.name)
    }

    /// Its value out of a line: `fields` of it, of which `found` is the row.
    fn taken(&self) -> String {
        let (name, column) = (&self.name, self.quoted());
        match &self.default {
            Some(default) => {
                format!("CASE WHEN fields ? '{name}' THEN found.{column} ELSE {default} END")
            }
            None => format!("found.{column}"),
        }
    }
}

/// Writes the line of a studio. What the tables of its day didn't have is as it was when they got it: one shop's table was known, by
/// its columns alone.
const STUDIO_TAKEN: &str = "UPDATE studio SET (settings, settings_version, order_columns, order_tables, created_at) = (
        SELECT found.settings, coalesce(found.settings_version, 1), found.order_columns,
            CASE WHEN fields ? 'order_tables' THEN found.order_tables
                WHEN found.order_columns IS NOT NULL THEN jsonb_build_array(jsonb_build_object(
                    'head', '[]'::jsonb, 'table', jsonb_build_object('columns', found.order_columns)
                )) END,
            coalesce(found.created_at, studio.created_at)
        FROM (SELECT $2::text::jsonb AS fields) AS given, LATERAL jsonb_populate_record(NULL::studio, fields) AS found
    ) WHERE id = $1";

/// The demo studio of before says that it is one.
const DEMO: &str = r#"UPDATE studio SET settings = settings || '{"demo": true}'
    WHERE id = $1 AND NOT settings ? 'demo'
        AND settings ->> 'name' = 'Saltgrass Print & Frame' AND settings -> 'countries' @> '[{"code": "XS"}]'"#;

/// Columns of the tables that lists are written into, in the order of each table.
const COLUMNS: &str = "SELECT relname::text, attname::text, pg_get_expr(adbin, adrelid)
    FROM pg_attribute JOIN pg_class ON pg_class.oid = attrelid
        LEFT JOIN pg_attrdef ON adrelid = attrelid AND adnum = attnum
    WHERE relnamespace = 'public'::regnamespace AND relname = ANY($1)
        AND attnum > 0 AND NOT attisdropped AND attgenerated = ''
    ORDER BY relname, attnum";

/// Lines as they are looked over: what is in none of these fields is the database's to judge.
macro_rules! lines {
    ($($name:ident { $($field:ident: $kind:ty $(= $with:literal)?),* $(,)? })*) => {
        $(
            #[derive(Deserialize)]
            #[expect(dead_code, reason = "it is only looked whether they can be read")]
            struct $name {
                $($(#[serde(deserialize_with = $with)])? $field: $kind,)*
            }
        )*
    };
}

lines! {
    StudioLine { settings: Settings, order_columns: Option<OrderColumns>, order_tables: Option<Vec<KeptTable>> }
    RulesLine { rules: HouseRules }
    StoresLine { materials: Catalogue }
    TariffLine { id: String, body: Tariff }
    ShipmentLine {
        id: Uuid, version: u32, at_state: u32, worked: Option<Map<String, Value>>, summary: Option<Map<String, Value>>, place: Place = "word",
        handed: Option<HandedParcel>, logged: Option<LogRow>,
    }
    // What was typed in an earlier shape is brought up to date when it is read.
    StateLine { shipment_id: Uuid, state: u32, inputs: Map<String, Value> }
    EditLine { shipment_id: Uuid, edit_id: Uuid }
    TakenLines { shipment_id: Uuid, lines: Vec<TakenLine> }
    PhotographLine {
        id: Uuid, shipment_id: Uuid, step: String, taken_at: String, width: std::num::NonZeroU32, height: std::num::NonZeroU32,
        bytes: std::num::NonZeroU32,
    }
    HandoverRecordLine { shipment_id: Uuid, digest: String, bytes: std::num::NonZeroU32 }
    BookingLine {
        id: Uuid, shipment_id: Uuid, service: String, state: BookingState = "word", question: Map<String, Value>, leaves_on: Date,
        print: String, answer: Option<Map<String, Value>>, events: Vec<Value>, says: Option<String>,
    }
    ShelfLine { id: Uuid, goods: Goods, left_count: u64 }
    ShelfEventLine { stock_id: Uuid, id: i64, change: i64, left_count: i64, why: String }
    OffcutNumberLine { next: std::num::NonZeroU32 }
    CuttingLine { id: Uuid, body: Map<String, Value> }
    CutSheetLine { cutting_id: Uuid, n: std::num::NonZeroU32, drawn: Option<Uuid>, kept: Vec<Uuid> }
}

/// Reads a word that this program knows.
fn word<'de, T: std::str::FromStr, D: Deserializer<'de>>(reader: D) -> Result<T, D::Error> {
    let word = String::deserialize(reader)?;
    let read = word.parse();
    read.map_err(|_| de::Error::custom(format!("this program knows no \"{word}\" there")))
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
    #[error("the studio is incomplete: {0}")]
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

/// Counts what a studio holds, of the rows for which a condition holds.
fn counted(which: &str) -> String {
    let of =
        |table: &str| format!("(SELECT count(*) FROM {table} WHERE studio_id = $1 AND {which})");
    let [shipments, photographs, shelf, cuttings] =
        ["shipment", "photograph", "stock", "cutting"].map(of);
    format!("SELECT {shipments}, {photographs}, {shelf} + {cuttings}")
}

/// Asks for no line.
const NOTHING: &str = "SELECT ''::text WHERE $1::uuid IS NULL";
const ALL: &str = "true";
/// Rows that this very transaction did not write.
const OTHERS: &str = "xmin <> pg_current_xact_id()::xid";

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
    /// The tables of lists that this database has.
    tables: Vec<String>,
}

impl BackupOut {
    /// Returns how much it holds.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn holdings(&mut self) -> Result<Holdings, StoreError> {
        let found = sqlx::query_as(AssertSqlSafe(counted(ALL))).bind(self.studio.0);
        Ok(holdings(found.fetch_one(&mut *self.transaction).await?))
    }

    /// Reads the lines of a list, one after the other.
    pub fn lines(
        &mut self,
        list: BackupList,
    ) -> impl Stream<Item = Result<String, StoreError>> + Send + '_ {
        let asked = if self.tables.iter().any(|table| table == list.table()) {
            list.asked()
        } else {
            // Tables of before had no such list.
            NOTHING.to_owned()
        };
        sqlx::query_scalar(AssertSqlSafe(asked))
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
            // Tables of before digests have none.
            "SELECT photograph.id, shipment_id, bytes, decode(substr(to_jsonb(photograph) ->> 'kept_digest', 3), 'hex') AS kept_digest, title
             FROM photograph JOIN shipment ON shipment.studio_id = photograph.studio_id AND shipment.id = shipment_id
             WHERE photograph.studio_id = $1 AND ($2::uuid IS NULL OR photograph.id > $2) ORDER BY photograph.id LIMIT $3",
        );
        let found = found.bind(self.studio.0).bind(after).bind(i64::from(most));
        Ok(found.fetch_all(&mut *self.transaction).await?)
    }

    /// Tells whether there is any handover record.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn has_records(&mut self) -> Result<bool, StoreError> {
        Ok(!self.records(None, 1).await?.is_empty())
    }

    /// Returns the next handover records after one, by shipment and digest.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn records(
        &mut self,
        after: Option<&RecordKey>,
        most: u32,
    ) -> Result<Vec<RecordOut>, StoreError> {
        if !self
            .tables
            .iter()
            .any(|table| table == BackupList::HandoverRecords.table())
        {
            return Ok(Vec::new());
        }
        let found = sqlx::query_as(
            "SELECT shipment_id, digest, title
             FROM handover_record AS kept JOIN shipment ON shipment.studio_id = kept.studio_id AND shipment.id = shipment_id
             WHERE kept.studio_id = $1 AND ($2::uuid IS NULL OR (shipment_id, digest) > ($2, $3))
             ORDER BY shipment_id, digest LIMIT $4",
        );
        let found = found
            .bind(self.studio.0)
            .bind(after.map(|key| key.shipment))
            .bind(after.map(|key| key.digest.as_slice()))
            .bind(i64::from(most));
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
///
/// Nobody who works in the studio waits for it before it is finished: what takes the place of something that is here is written then.
#[derive(Debug)]
pub struct BackupIn {
    transaction: PgTransaction<'static>,
    pool: PgPool,
    studio: StudioId,
    house_changes: HouseChanges,
    /// The version that its house has then.
    house: i32,
    columns: Vec<Column>,
    /// Lines that are written last, with the number of the first of each lot.
    last: BTreeMap<BackupList, Vec<(usize, Vec<String>)>>,
    mark: Option<Vec<u8>>,
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
        lines: Vec<String>,
    ) -> Result<(), BackupRefused> {
        for (line, at) in lines.iter().zip(first..) {
            list.fault(line)
                .map_err(|error| refused(list, at, error.to_string()))?;
        }
        if list.replaces() {
            self.last.entry(list).or_default().push((first, lines));
            return Ok(());
        }
        self.write(list, first, &lines).await
    }

    async fn write(
        &mut self,
        list: BackupList,
        first: usize,
        lines: &[String],
    ) -> Result<(), BackupRefused> {
        let written = if list == BackupList::Studio {
            let line = lines.last().map_or("{}", String::as_str);
            sqlx::query(STUDIO_TAKEN)
                .bind(self.studio.0)
                .bind(line)
                .execute(&mut *self.transaction)
                .await
        } else {
            sqlx::query(AssertSqlSafe(list.taken(self.house, &self.columns)))
                .bind(self.studio.0)
                .bind(lines)
                .execute(&mut *self.transaction)
                .await
        };
        match written {
            Ok(_) => Ok(()),
            Err(sqlx::Error::Database(error)) if is_about_data(error.code().as_deref()) => {
                let at = self.strange(list, lines).await.unwrap_or_default();
                Err(refused(list, first + at, error.message().to_owned()))
            }
            Err(error) => Err(error.into()),
        }
    }

    /// Returns the place of the first line that is no row of its table; `None` if each is one by itself.
    async fn strange(&self, list: BackupList, lines: &[String]) -> Option<usize> {
        let read = format!(
            "SELECT (jsonb_populate_record(NULL::{}, $1::text::jsonb)) IS NULL",
            list.table()
        );
        for (at, line) in lines.iter().enumerate() {
            let asked = sqlx::query(AssertSqlSafe(read.clone())).bind(line);
            // Not in the transaction, which ended with the error.
            if asked.execute(&self.pool).await.is_err() {
                return Some(at);
            }
        }
        None
    }

    /// Keeps the studio's own mark.
    pub fn mark(&mut self, png: Vec<u8>) {
        self.mark = Some(png);
    }

    /// Writes what takes the place of something that is here. From now on whoever works here waits.
    async fn replace(&mut self) -> Result<(), BackupRefused> {
        // Whoever was about to write a plan has by then, and is counted.
        let held =
            sqlx::query("UPDATE house SET version = $2 WHERE studio_id = $1 AND version < $2")
                .bind(self.studio.0)
                .bind(self.house)
                .execute(&mut *self.transaction)
                .await?;
        let found = sqlx::query_as(AssertSqlSafe(counted(OTHERS))).bind(self.studio.0);
        let others = holdings(found.fetch_one(&mut *self.transaction).await?);
        if held.rows_affected() == 0 || !others.is_empty() {
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
                .execute(&mut *self.transaction)
                .await?;
        }
        for (list, lots) in std::mem::take(&mut self.last) {
            for (first, lines) in lots {
                self.write(list, first, &lines).await?;
            }
        }
        // The first of two that come from one backup may still run: this one asks before it speaks to a carrier.
        sqlx::query("UPDATE studio SET mark = $2, held = 'restored' WHERE id = $1")
            .bind(self.studio.0)
            .bind(self.mark.take())
            .execute(&mut *self.transaction)
            .await?;
        Ok(())
    }

    /// Looks it over as a whole, and lets it be seen.
    ///
    /// # Errors
    /// [`BackupRefused::NotEmpty`] when something was kept here meanwhile, [`BackupRefused::NotWhole`] when there is no house to
    /// work by, or a shipment is at a state that it never had.
    pub async fn finish(mut self) -> Result<(), BackupRefused> {
        self.replace().await?;
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
        // What lines of before hold is brought up to date as the tables were.
        sqlx::query(READINGS)
            .execute(&mut *self.transaction)
            .await?;
        sqlx::query(DEMO)
            .bind(self.studio.0)
            .execute(&mut *self.transaction)
            .await?;
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
        let lost: Option<Uuid> = sqlx::query_scalar(
            "SELECT id FROM shipment WHERE studio_id = $1 AND record IS NOT NULL AND NOT EXISTS (
                 SELECT FROM handover_record WHERE studio_id = $1 AND shipment_id = id AND digest = shipment.record
             ) LIMIT 1",
        )
        .bind(self.studio.0)
        .fetch_optional(&mut *self.transaction)
        .await?;
        if let Some(id) = lost {
            return Err(BackupRefused::NotWhole(format!(
                "the handover record of the shipment {id} is missing in its list"
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

const fn refused(list: BackupList, line: usize, says: String) -> BackupRefused {
    BackupRefused::Line {
        list: list.name(),
        line,
        says,
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
        let found = sqlx::query_as(AssertSqlSafe(counted(ALL))).bind(self.studio.0);
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
        let tables = sqlx::query_scalar(
            "SELECT name FROM unnest($1::text[]) AS name WHERE to_regclass('public.' || name) IS NOT NULL",
        )
        .bind(BackupList::ALL.map(BackupList::table))
        .fetch_all(&mut *transaction)
        .await?;
        Ok(BackupOut {
            transaction,
            studio: self.studio,
            tables,
        })
    }

    /// Begins to write a backup into a studio that holds nothing; what it was set up with makes room for it.
    ///
    /// Whoever works there meanwhile goes on, and it is refused at its end if they kept anything.
    ///
    /// # Errors
    /// [`BackupRefused::NotEmpty`] when something is kept there.
    pub async fn restore(&self) -> Result<BackupIn, BackupRefused> {
        if !self.holdings().await?.is_empty() {
            return Err(BackupRefused::NotEmpty);
        }
        let mut transaction = self.pool.begin().await?;
        // The rules that plans followed are written last.
        sqlx::query("SET CONSTRAINTS shipment_rules DEFERRED")
            .execute(&mut *transaction)
            .await?;
        let house: i32 = sqlx::query_scalar("SELECT version FROM house WHERE studio_id = $1")
            .bind(self.studio.0)
            .fetch_one(&mut *transaction)
            .await?;
        let found: Vec<(String, String, Option<String>)> = sqlx::query_as(COLUMNS)
            .bind(BackupList::ALL.map(BackupList::table))
            .fetch_all(&mut *transaction)
            .await?;
        let columns = found.into_iter().map(|(of_table, name, default)| Column {
            of_table,
            name,
            default,
        });
        Ok(BackupIn {
            transaction,
            pool: self.pool.clone(),
            studio: self.studio,
            house_changes: self.house_changes.clone(),
            house: house.saturating_add(AHEAD),
            columns: columns.collect(),
            last: BTreeMap::new(),
            mark: None,
        })
    }
}
