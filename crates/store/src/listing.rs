//! Shipments as lists: searched, sorted and a page at a time.

use hummock_core::{
    sending::HandedParcel,
    shipment::{ShipmentInputs, Summary},
};
use jiff::civil::{Date, DateTime};
use serde::Deserialize;
use sqlx::{AssertSqlSafe, FromRow, Row as _, postgres::PgRow, types::Json};
use uuid::Uuid;

use crate::{
    HouseVersion, Place, StoreError, StudioStore, Written,
    row::{HandedRow, inputs_of},
    shipment::{is_behind, is_over, summary_of, summary_then},
};

/// What a list is sorted by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Sort {
    /// What was promised first comes first, what was not promised last.
    #[default]
    Promised,
    /// By title.
    Title,
    /// By the buyer's name.
    Buyer,
    /// The newest first.
    Newest,
}

/// Which shipments are asked for.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Wanted {
    /// Where they are kept.
    pub place: Place,
    /// Every word of it stands in the title, the buyer's name or the town; empty for all.
    pub search: String,
    /// In which order.
    pub sort: Sort,
    /// After which one, as the page before ended.
    pub after: Option<Uuid>,
    /// How many at most.
    pub most: u32,
    /// Whether the layers of each are left out of its figures.
    pub without_section: bool,
}

/// A shipment in a list.
#[derive(Debug, Clone, PartialEq)]
pub struct Listed {
    /// The id of the shipment.
    pub id: Uuid,
    /// Counts up with every edit, undo and redo.
    pub version: i32,
    /// What was typed.
    pub inputs: ShipmentInputs,
    /// The figures of the bench, once there is a plan.
    pub summary: Option<Summary>,
    /// The same as they were written when it left, whichever program reads them now; `None` before that.
    pub summary_then: Option<Written>,
    /// Whether it was handed over.
    pub has_left: bool,
    /// Whether its materials were taken from stock.
    pub has_taken: bool,
    /// The house that it was worked out by.
    pub house: HouseVersion,
    /// What it is followed by, where it was booked.
    pub tracking: Option<String>,
}

impl Listed {
    /// Tells whether its figures are behind a house that it is to follow, or its best service behind the clock; never of what has left.
    #[must_use]
    pub fn is_behind(&self, place: Place, house: HouseVersion, now: Option<DateTime>) -> bool {
        let behind =
            is_behind(place, self.house, house) || is_over(place, self.summary.as_ref(), now);
        !self.has_left && behind
    }
}

/// A page of a list.
#[derive(Debug, Clone, PartialEq)]
pub struct Page {
    /// The shipments, in order.
    pub rows: Vec<Listed>,
    /// How many there are on all pages.
    pub total: i64,
    /// After which one the next page begins, when there is one.
    pub next: Option<Uuid>,
}

/// A row, with how many there are on all pages.
struct Counted {
    row: Listed,
    total: i64,
}

impl FromRow<'_, PgRow> for Counted {
    fn from_row(row: &PgRow) -> Result<Self, sqlx::Error> {
        Ok(Self {
            row: Listed::from_row(row)?,
            total: row.try_get("total")?,
        })
    }
}

impl FromRow<'_, PgRow> for Listed {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        let (summary, house) = summary_of(row)?;
        let has_left = row.try_get("has_left")?;
        Ok(Self {
            id: row.try_get("id")?,
            version: row.try_get("version")?,
            inputs: inputs_of(row)?,
            summary,
            summary_then: summary_then(row, has_left)?,
            has_left,
            has_taken: row.try_get("has_taken")?,
            house,
            tracking: row.try_get("tracking")?,
        })
    }
}

/// Shipments as a list shows them, without their figures; a condition and an order follow.
const LISTED: &str =
    "SELECT shipment.id, version, schema, inputs, NULL::jsonb AS summary, house_version, plan_edition, tracking,
                 handed IS NOT NULL AS has_left,
         EXISTS (SELECT 1 FROM taken WHERE taken.studio_id = $1 AND taken.shipment_id = shipment.id) AS has_taken
     FROM shipment
     JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
         AND shipment_id = shipment.id AND state = at_state
     WHERE shipment.studio_id = $1 AND ";

/// How a list is sorted; every way ends with the id, so that no two places are alike.
struct Order {
    keys: &'static str,
    /// How what comes after compares.
    beyond: &'static str,
    by: &'static str,
}

const fn order(sort: Sort) -> Order {
    match sort {
        Sort::Promised => Order {
            keys: "coalesce(promised, 'infinity'::date), created_at, shipment.id",
            beyond: ">",
            by: "coalesce(promised, 'infinity'::date), created_at, shipment.id",
        },
        Sort::Title => Order {
            keys: "title COLLATE \"und-x-icu\", shipment.id",
            beyond: ">",
            by: "title COLLATE \"und-x-icu\", shipment.id",
        },
        Sort::Buyer => Order {
            keys: "buyer COLLATE \"und-x-icu\", shipment.id",
            beyond: ">",
            by: "buyer COLLATE \"und-x-icu\", shipment.id",
        },
        Sort::Newest => Order {
            keys: "created_at, shipment.id",
            beyond: "<",
            by: "created_at DESC, shipment.id DESC",
        },
    }
}

const MATCHES: &str = "shipment.studio_id = $1 AND place = $2
    AND NOT EXISTS (SELECT 1 FROM unnest($3::text[]) AS word WHERE strpos(found_by, word) = 0)";

impl StudioStore {
    /// Returns a page of the shipments of a studio.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn shipments(&self, wanted: &Wanted) -> Result<Page, StoreError> {
        let Order { keys, beyond, by } = order(wanted.sort);
        let words: Vec<String> = wanted
            .search
            .to_lowercase()
            .split_whitespace()
            .map(str::to_owned)
            .collect();
        let summary = match wanted.without_section {
            true => r#"summary || '{"section": []}' AS summary"#,
            false => "summary",
        };
        // They are found once, and narrow; documents are fetched for the page alone.
        let ask = format!(
            "WITH found AS MATERIALIZED (
                 SELECT id, title, buyer, promised, created_at FROM shipment WHERE {MATCHES}
             ), page AS MATERIALIZED (
                 SELECT shipment.id FROM found AS shipment
                 WHERE $4::uuid IS NULL OR ROW({keys}) {beyond} (
                     SELECT {keys} FROM shipment WHERE studio_id = $1 AND shipment.id = $4
                 )
                 ORDER BY {by}
                 LIMIT $5
             )
             SELECT shipment.id, version, schema, inputs, {summary}, house_version, plan_edition, tracking,
                 handed IS NOT NULL AS has_left, (SELECT count(*) FROM found) AS total,
                 EXISTS (SELECT 1 FROM taken WHERE taken.studio_id = $1 AND taken.shipment_id = shipment.id) AS has_taken
             FROM page
             JOIN shipment ON shipment.studio_id = $1 AND shipment.id = page.id
             JOIN shipment_state ON shipment_state.studio_id = $1
                 AND shipment_id = shipment.id AND state = at_state
             ORDER BY {by}"
        );
        let mut rows: Vec<Counted> = sqlx::query_as(AssertSqlSafe(ask))
            .bind(self.studio.0)
            .bind(wanted.place.key())
            .bind(&words)
            .bind(wanted.after)
            .bind(i64::from(wanted.most) + 1)
            .fetch_all(&self.pool)
            .await?;
        let most = usize::try_from(wanted.most).unwrap_or(usize::MAX);
        let goes_on = rows.len() > most;
        rows.truncate(most);
        let total = match rows.first() {
            Some(row) => row.total,
            // There may be some before the page.
            None => {
                sqlx::query_scalar(AssertSqlSafe(format!(
                    "SELECT count(*) FROM shipment WHERE {MATCHES}"
                )))
                .bind(self.studio.0)
                .bind(wanted.place.key())
                .bind(&words)
                .fetch_one(&self.pool)
                .await?
            }
        };
        Ok(Page {
            next: rows.last().filter(|_| goes_on).map(|row| row.row.id),
            rows: rows.into_iter().map(|row| row.row).collect(),
            total,
        })
    }

    /// Returns all that are on the bench, without their plans.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn on_the_bench(&self) -> Result<Vec<Listed>, StoreError> {
        let asked = format!(
            "{LISTED}place = 'bench' ORDER BY coalesce(promised, 'infinity'::date), created_at, shipment.id"
        );
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Returns the shipments with a service that no carrier holds a booking of, and that leave or left on a day, the first ones first; with
    /// `undated` those at work for which no day was chosen too.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn unbooked_on(&self, day: Date, undated: bool) -> Result<Vec<Listed>, StoreError> {
        let found = sqlx::query_as(
            "SELECT shipment.id, version, schema, inputs, summary, house_version, plan_edition, tracking,
                 handed IS NOT NULL AS has_left,
                 EXISTS (SELECT 1 FROM taken WHERE taken.studio_id = $1 AND taken.shipment_id = shipment.id) AS has_taken
             FROM shipment
             JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
                 AND shipment_id = shipment.id AND state = at_state
             WHERE shipment.studio_id = $1 AND place IN ('bench', 'sent') AND inputs->>'service' IS NOT NULL
                 AND (coalesce(inputs #>> '{sending,handed_over}', inputs #>> '{sending,on}') = $2
                     OR ($3 AND place = 'bench' AND inputs #>> '{sending,on}' IS NULL))
                 AND NOT EXISTS (
                     SELECT FROM booking WHERE booking.studio_id = $1 AND booking.shipment_id = shipment.id
                         AND booking.state IN ('asked', 'booked', 'cancelling')
                 )
             ORDER BY shipment.id LIMIT 500",
        )
        .bind(self.studio.0)
        .bind(day.to_string())
        .bind(undated)
        .fetch_all(&self.pool)
        .await?;
        Ok(found)
    }

    /// Returns the shipments whose packed parcel was weighed, at work or put away, the last ones first; so many at most.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn weighed(&self, most: i64) -> Result<Vec<Listed>, StoreError> {
        let asked = format!(
            "{LISTED}place <> 'bin' AND inputs #> '{{parcel,weight}}' IS NOT NULL ORDER BY shipment.id DESC LIMIT $2"
        );
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(most)
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Returns the shipments that went with a carrier, on their way or in the archive, by the id of its tariff, the last ones first.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn sent_with(&self, tariff: &str, most: i64) -> Result<Vec<Listed>, StoreError> {
        let asked = format!(
            "{LISTED}place IN ('sent', 'archive') AND starts_with(inputs->>'service', $2 || '/') ORDER BY shipment.id DESC LIMIT $3"
        );
        let found = sqlx::query_as(AssertSqlSafe(asked))
            .bind(self.studio.0)
            .bind(tariff)
            .bind(most)
            .fetch_all(&self.pool)
            .await?;
        Ok(found)
    }

    /// Returns the parcels of which something was learned, as they were handed over, the last ones first; so many at most.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn with_lessons(
        &self,
        most: i64,
    ) -> Result<Vec<(Uuid, ShipmentInputs, HandedParcel)>, StoreError> {
        let rows: Vec<HandedRow<Json<HandedParcel>>> = sqlx::query_as(
            "SELECT shipment.id, schema, inputs, handed
             FROM shipment
             JOIN shipment_state ON shipment_state.studio_id = shipment.studio_id
                 AND shipment_id = shipment.id AND state = at_state
             WHERE shipment.studio_id = $1 AND place IN ('sent', 'archive') AND handed IS NOT NULL
                 AND coalesce(inputs #>> '{after,lesson}', '') <> ''
             ORDER BY shipment.id DESC LIMIT $2",
        )
        .bind(self.studio.0)
        .bind(most)
        .fetch_all(&self.pool)
        .await?;
        Ok(rows
            .into_iter()
            .map(|row| {
                let (id, inputs, Json(handed)) = row.read();
                (id, inputs, handed)
            })
            .collect())
    }
}
