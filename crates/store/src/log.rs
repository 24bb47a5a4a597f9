//! The log: every parcel that left, searched, filtered and sorted here.

use hummock_core::{record::LogRow, sending::HandedParcel};
use serde::Deserialize;
use serde_json::Value;
use sqlx::{AssertSqlSafe, FromRow, Row as _, postgres::PgRow, types::Json};
use uuid::Uuid;

use crate::{StoreError, StudioStore, row::HandedRow};

/// What the log is sorted by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum LogSort {
    /// What left last comes first.
    #[default]
    Newest,
    /// What left first comes first.
    Oldest,
    /// By title.
    Title,
    /// By the buyer's name.
    Buyer,
    /// The dearest carriage first; what left in a former money of the studio stands last, since its sums compare with no other.
    Carriage,
    /// The furthest off its planned weight first.
    WeightOff,
    /// The likeliest to arrive damaged first.
    Odds,
}

impl LogSort {
    const fn by(self) -> &'static str {
        match self {
            Self::Newest => "left_on DESC, id DESC",
            Self::Oldest => "left_on, id",
            Self::Title => "title COLLATE \"und-x-icu\", id",
            Self::Buyer => "buyer COLLATE \"und-x-icu\", id",
            Self::Carriage => {
                "logged ? 'currency', coalesce((logged->>'billed')::numeric, (logged->>'carriage')::numeric, 0) DESC, id DESC"
            }
            Self::WeightOff => {
                "coalesce(abs((logged->>'weighed_g')::float8 - (logged->>'planned_g')::float8)
                    / nullif((logged->>'planned_g')::float8, 0), -1) DESC, id DESC"
            }
            Self::Odds => "(logged->>'probability')::float8 DESC, id DESC",
        }
    }
}

/// Which parcels of the log; what is not named holds for all.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct LogWanted {
    /// Every word of it stands in the title, the buyer's name or the town.
    pub search: String,
    /// As `arrived`; `none` for what is on its way.
    pub outcome: Option<String>,
    /// As `canvas`.
    pub class: Option<String>,
    /// As `national`.
    pub route: Option<String>,
    /// By its name.
    pub carrier: Option<String>,
    /// By its name.
    pub preset: Option<String>,
    /// Left on this day or later, as 2027-03-04.
    pub from: Option<String>,
    /// Left on this day or before.
    pub to: Option<String>,
}

/// A parcel of the log.
#[derive(Debug, Clone, PartialEq)]
pub struct Logged {
    /// Its shipment.
    pub id: Uuid,
    /// The piece.
    pub title: String,
    /// Who got it.
    pub buyer: String,
    /// In figures.
    pub row: LogRow,
}

impl FromRow<'_, PgRow> for Logged {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        let Json(figures): Json<LogRow> = row.try_get("logged")?;
        Ok(Self {
            id: row.try_get("id")?,
            title: row.try_get("title")?,
            buyer: row.try_get("buyer")?,
            row: figures,
        })
    }
}

const MATCHES: &str = "studio_id = $1 AND logged IS NOT NULL AND place IN ('sent', 'archive')
    AND NOT EXISTS (SELECT 1 FROM unnest($2::text[]) AS word WHERE strpos(found_by, word) = 0)
    AND ($3::text IS NULL OR coalesce(logged->>'outcome', 'none') = $3)
    AND ($4::text IS NULL OR logged->>'class' = $4)
    AND ($5::text IS NULL OR logged->>'route' = $5)
    AND ($6::text IS NULL OR logged->>'carrier' = $6)
    AND ($7::text IS NULL OR logged->>'preset' = $7)
    AND ($8::text IS NULL OR left_on >= $8::date)
    AND ($9::text IS NULL OR left_on <= $9::date)";

/// Binds what is wanted, in the order of the sentence above.
macro_rules! asked {
    ($query:expr, $studio:expr, $wanted:expr) => {{
        let words: Vec<String> = $wanted
            .search
            .to_lowercase()
            .split_whitespace()
            .map(str::to_owned)
            .collect();
        $query
            .bind($studio.0)
            .bind(words)
            .bind(&$wanted.outcome)
            .bind(&$wanted.class)
            .bind(&$wanted.route)
            .bind(&$wanted.carrier)
            .bind(&$wanted.preset)
            .bind(&$wanted.from)
            .bind(&$wanted.to)
    }};
}

impl StudioStore {
    /// Returns a page of the log, and how many there are on all pages.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn log(
        &self,
        wanted: &LogWanted,
        sort: LogSort,
        (skip, most): (i64, i64),
    ) -> Result<(Vec<Logged>, i64), StoreError> {
        let by = sort.by();
        let page = format!(
            "SELECT id, title, buyer, logged FROM shipment WHERE {MATCHES} ORDER BY {by} OFFSET $10 LIMIT $11"
        );
        let rows = asked!(sqlx::query_as(AssertSqlSafe(page)), self.studio, wanted)
            .bind(skip)
            .bind(most)
            .fetch_all(&self.pool)
            .await?;
        let count = format!("SELECT count(*) FROM shipment WHERE {MATCHES}");
        let total = asked!(
            sqlx::query_scalar(AssertSqlSafe(count)),
            self.studio,
            wanted
        )
        .fetch_one(&self.pool)
        .await?;
        Ok((rows, total))
    }

    /// Returns every parcel of the log that is wanted, what left last first.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn whole_log(&self, wanted: &LogWanted) -> Result<Vec<Logged>, StoreError> {
        let all = format!(
            "SELECT id, title, buyer, logged FROM shipment WHERE {MATCHES} ORDER BY left_on DESC, id DESC"
        );
        Ok(
            asked!(sqlx::query_as(AssertSqlSafe(all)), self.studio, wanted)
                .fetch_all(&self.pool)
                .await?,
        )
    }

    /// Returns the names of carriers and presets that stand in the log.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn log_names(&self) -> Result<[Vec<String>; 2], StoreError> {
        let mut found = [Vec::new(), Vec::new()];
        for (key, names) in ["carrier", "preset"].into_iter().zip(&mut found) {
            *names = sqlx::query_scalar(
                "SELECT DISTINCT logged->>$2 FROM shipment
                 WHERE studio_id = $1 AND logged IS NOT NULL AND logged->>$2 IS NOT NULL ORDER BY 1",
            )
            .bind(self.studio.0)
            .bind(key)
            .fetch_all(&self.pool)
            .await?;
        }
        Ok(found)
    }

    /// Writes the rows of parcels that left before there was a log; returns how many.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn catch_up_log(&self) -> Result<usize, StoreError> {
        let left: Vec<HandedRow<Value>> = sqlx::query_as(
            "SELECT shipment.id, schema, inputs, handed
             FROM shipment
             JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
                 AND shipment_id = shipment.id AND state = at_state
             WHERE shipment.studio_id = $1 AND handed IS NOT NULL AND logged IS NULL",
        )
        .bind(self.studio.0)
        .fetch_all(&self.pool)
        .await?;
        let many = left.len();
        for row in left {
            let (id, inputs, handed) = row.read();
            let Ok(handed) = serde_json::from_value::<HandedParcel>(handed) else {
                continue;
            };
            let Some(row) = LogRow::of(&handed, &inputs) else {
                continue;
            };
            sqlx::query(
                "UPDATE shipment SET logged = $3, left_on = $4::date
                 WHERE studio_id = $1 AND id = $2 AND logged IS NULL",
            )
            .bind(self.studio.0)
            .bind(id)
            .bind(Json(&row))
            .bind(row.left_on.to_string())
            .execute(&self.pool)
            .await?;
        }
        Ok(many)
    }
}
