//! The shelf: what is on it, what became of it, and every way in which it changes.
//!
//! A count never goes below nothing: it is drawn by one statement that finds enough of it, or finds none.

use std::collections::HashSet;

use hummock_core::stock::{Goods, StockItem};
use serde::{Deserialize, Serialize};
use sqlx::{FromRow, PgConnection, Row as _, postgres::PgRow, types::Json};
use uuid::Uuid;

use crate::{StoreError, StudioId, StudioStore};

/// Why the shelf was not changed.
#[derive(Debug, thiserror::Error)]
pub enum ShelfRefused {
    /// There is nothing of that id.
    #[error("there is none of that id")]
    NotFound,
    /// It was counted, or drawn, since.
    #[error("it was counted since")]
    Moved {
        /// How much there is now.
        left: i64,
    },
    /// There is none left to draw.
    #[error("there is none of \u{201c}{what}\u{201d} left")]
    NoneLeft {
        /// What was to be drawn.
        what: String,
    },
    /// What was kept then has been used since.
    #[error("\u{201c}{what}\u{201d} was used since")]
    UsedSince {
        /// What was kept.
        what: String,
    },
    /// The layout was made anew since it was looked at.
    #[error("the layout was made anew")]
    LaidOutAnew,
    /// There is one of it already.
    #[error("there is a count of it already")]
    Counted,
    /// The database did not do what was asked.
    #[error(transparent)]
    Store(#[from] StoreError),
}

impl From<sqlx::Error> for ShelfRefused {
    fn from(error: sqlx::Error) -> Self {
        Self::Store(error.into())
    }
}

/// Something that became of an item.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StockEvent {
    /// More, or less.
    pub change: i64,
    /// How much there was then.
    pub left: i64,
    /// `counted`, `kept`, `cut`, `taken`, `given_back`, `opened`, `not_cut`.
    pub why: String,
    /// The shipment or the cutting that it was for.
    pub about: String,
    /// In seconds since 1970.
    pub at: i64,
}

/// How much of something, to be drawn.
#[derive(Debug, Clone, PartialEq)]
pub struct Draw {
    /// The goods that are drawn.
    pub goods: Goods,
    /// What it is called.
    pub name: String,
    /// How much.
    pub amount: i64,
    /// Which one, where it is no count by material and size.
    pub item: Option<Uuid>,
    /// How much the stores say there is, where it was never counted here; `None` if it is not counted at all.
    pub said: Option<i64>,
}

/// What was taken for a shipment.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct TakenLine {
    /// From which item.
    pub item: Uuid,
    /// What it is called.
    pub name: String,
    /// How much was taken.
    pub amount: i64,
    /// How much the plan wanted.
    pub wanted: i64,
}

/// Something on the shelf, as its row has it.
/// Tells one state of a studio's shelf and settings from another, without all that they hold.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct ShelfMark {
    settings: i64,
    shelf: i64,
}

struct Row(StockItem);

impl FromRow<'_, PgRow> for Row {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        let id: Uuid = row.try_get("id")?;
        let Json(goods) = row.try_get("goods")?;
        Ok(Self(StockItem {
            id: id.to_string(),
            goods,
            name: row.try_get("name")?,
            place: row.try_get("place")?,
            left: row.try_get("left_count")?,
        }))
    }
}

impl FromRow<'_, PgRow> for StockEvent {
    fn from_row(row: &PgRow) -> sqlx::Result<Self> {
        Ok(Self {
            change: row.try_get("change")?,
            left: row.try_get("left_count")?,
            why: row.try_get("why")?,
            about: row.try_get("about")?,
            at: row.try_get("at")?,
        })
    }
}

impl StudioStore {
    /// Returns what is on the shelf, the oldest first; offcuts and cartons that are used up are left out, a case that is away is not.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn stock(&self) -> Result<Vec<StockItem>, StoreError> {
        let rows: Vec<Row> = sqlx::query_as(
            "SELECT id, goods, name, place, left_count FROM stock
             WHERE studio_id = $1 AND (key IS NOT NULL OR left_count > 0 OR goods->>'kind' = 'case')
             ORDER BY made_at, id",
        )
        .bind(self.studio.0)
        .fetch_all(&self.pool)
        .await?;
        Ok(rows.into_iter().map(|Row(item)| item).collect())
    }

    /// Returns the mark of the shelf and the settings as they are now, and which of some shipments have taken their materials.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn shelf_mark(
        &self,
        shipments: &[Uuid],
    ) -> Result<(ShelfMark, HashSet<Uuid>), StoreError> {
        let (settings, shelf, taken): (i64, i64, Vec<Uuid>) = sqlx::query_as(
            // Each version of a row has its own place and transaction: telling them apart takes no look at what is in them.
            "SELECT xmin::text::bigint,
                 coalesce((
                     SELECT bit_xor(hashtextextended(xmin::text || ctid::text, 0)) FROM stock WHERE studio_id = $1
                 ), 0),
                 ARRAY(SELECT shipment_id FROM taken WHERE studio_id = $1 AND shipment_id = ANY($2))
             FROM studio WHERE id = $1",
        )
        .bind(self.studio.0)
        .bind(shipments)
        .fetch_one(&self.pool)
        .await?;
        let mark = ShelfMark { settings, shelf };
        Ok((mark, taken.into_iter().collect()))
    }

    /// Returns one thing on the shelf.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn stock_item(&self, id: Uuid) -> Result<Option<StockItem>, StoreError> {
        let row: Option<Row> = sqlx::query_as(
            "SELECT id, goods, name, place, left_count FROM stock WHERE studio_id = $1 AND id = $2",
        )
        .bind(self.studio.0)
        .bind(id)
        .fetch_optional(&self.pool)
        .await?;
        Ok(row.map(|Row(item)| item))
    }

    /// Returns what became of an item, the newest first.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn stock_events(&self, id: Uuid) -> Result<Vec<StockEvent>, StoreError> {
        let events = sqlx::query_as(
            "SELECT change, left_count, why, about, extract(epoch FROM at)::bigint AS at FROM stock_event
             WHERE studio_id = $1 AND stock_id = $2 ORDER BY id DESC LIMIT 100",
        )
        .bind(self.studio.0)
        .bind(id)
        .fetch_all(&self.pool)
        .await?;
        Ok(events)
    }

    /// Puts things on the shelf, all of them or none; what is counted by material and size and is there already is counted
    /// anew. Returns the ids that they have.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn put_on_shelf(&self, items: &[StockItem]) -> Result<Vec<Uuid>, StoreError> {
        let mut transaction = self.pool.begin().await?;
        let mut ids = Vec::with_capacity(items.len());
        for item in items {
            ids.push(put(&mut transaction, self.studio, item, ("counted", "")).await?);
        }
        transaction.commit().await?;
        Ok(ids)
    }

    /// Writes how much there is of an item, and what is written on it, if nobody counted or drew it meanwhile.
    ///
    /// # Errors
    /// [`ShelfRefused`].
    pub async fn count_stock(
        &self,
        id: Uuid,
        was: i64,
        item: &StockItem,
    ) -> Result<(), ShelfRefused> {
        let mut transaction = self.pool.begin().await?;
        let left = lock(&mut transaction, self.studio, id)
            .await?
            .ok_or(ShelfRefused::NotFound)?
            .left_count;
        if left != was {
            return Err(ShelfRefused::Moved { left });
        }
        let changed = sqlx::query(
            "UPDATE stock SET goods = $3, key = $4, name = $5, place = $6, left_count = $7
             WHERE studio_id = $1 AND id = $2",
        )
        .bind(self.studio.0)
        .bind(id)
        .bind(Json(&item.goods))
        .bind(item.goods.key())
        .bind(&item.name)
        .bind(&item.place)
        .bind(item.left)
        .execute(&mut *transaction)
        .await;
        if let Err(sqlx::Error::Database(error)) = &changed
            && error.is_unique_violation()
        {
            return Err(ShelfRefused::Counted);
        }
        changed?;
        note(
            &mut transaction,
            self.studio,
            (id, item.left - was, item.left),
            ("counted", ""),
        )
        .await?;
        transaction.commit().await?;
        Ok(())
    }

    /// Takes an item off the shelf for good; tells whether it was there.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn drop_stock(&self, id: Uuid) -> Result<bool, StoreError> {
        let done = sqlx::query("DELETE FROM stock WHERE studio_id = $1 AND id = $2")
            .bind(self.studio.0)
            .bind(id)
            .execute(&self.pool)
            .await?;
        Ok(done.rows_affected() > 0)
    }

    /// Opens a carton: one less of it, and its panels on the shelf, each with the next number for its name.
    ///
    /// # Errors
    /// [`ShelfRefused`].
    pub async fn open_carton(
        &self,
        id: Uuid,
        panels: &[StockItem],
    ) -> Result<Vec<Uuid>, ShelfRefused> {
        let mut transaction = self.pool.begin().await?;
        let row = lock(&mut transaction, self.studio, id)
            .await?
            .ok_or(ShelfRefused::NotFound)?;
        let about = row.name;
        draw(&mut transaction, self.studio, id, 1, ("opened", &about))
            .await?
            .ok_or_else(|| ShelfRefused::NoneLeft {
                what: about.clone(),
            })?;
        let kept = keep(&mut transaction, self.studio, panels, &about).await?;
        transaction.commit().await?;
        Ok(kept)
    }

    /// Takes what a shipment needs off the shelf, of each as much as there is; a second time it takes nothing more.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn take_for(
        &self,
        (shipment, title): (Uuid, &str),
        wanted: &[Draw],
    ) -> Result<Vec<TakenLine>, StoreError> {
        let mut transaction = self.pool.begin().await?;
        let first = sqlx::query(
            "INSERT INTO taken (studio_id, shipment_id, lines) VALUES ($1, $2, '[]') ON CONFLICT DO NOTHING",
        )
        .bind(self.studio.0)
        .bind(shipment)
        .execute(&mut *transaction)
        .await?;
        if first.rows_affected() == 0 {
            drop(transaction);
            return Ok(self.taken_for(shipment).await?.unwrap_or_default());
        }
        let mut lines = Vec::new();
        for (key, one) in in_one_order(wanted) {
            let Some((item, left)) = counted(&mut transaction, self.studio, &key, one).await?
            else {
                continue;
            };
            let amount = one.amount.min(left);
            if amount > 0 {
                draw(
                    &mut transaction,
                    self.studio,
                    item,
                    amount,
                    ("taken", title),
                )
                .await?;
            }
            lines.push(TakenLine {
                item,
                name: one.name.clone(),
                amount,
                wanted: one.amount,
            });
        }
        sqlx::query("UPDATE taken SET lines = $3 WHERE studio_id = $1 AND shipment_id = $2")
            .bind(self.studio.0)
            .bind(shipment)
            .bind(Json(&lines))
            .execute(&mut *transaction)
            .await?;
        transaction.commit().await?;
        Ok(lines)
    }

    /// Returns what was taken for a shipment; `None` before packing began.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn taken_for(&self, shipment: Uuid) -> Result<Option<Vec<TakenLine>>, StoreError> {
        let lines: Option<Json<Vec<TakenLine>>> =
            sqlx::query_scalar("SELECT lines FROM taken WHERE studio_id = $1 AND shipment_id = $2")
                .bind(self.studio.0)
                .bind(shipment)
                .fetch_optional(&self.pool)
                .await?;
        Ok(lines.map(|lines| lines.0))
    }

    /// Gives back what was taken for a shipment; a second time it gives nothing more.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn give_back(&self, (shipment, title): (Uuid, &str)) -> Result<(), StoreError> {
        let mut transaction = self.pool.begin().await?;
        let lines: Option<Json<Vec<TakenLine>>> = sqlx::query_scalar(
            "DELETE FROM taken WHERE studio_id = $1 AND shipment_id = $2 RETURNING lines",
        )
        .bind(self.studio.0)
        .bind(shipment)
        .fetch_optional(&mut *transaction)
        .await?;
        for line in lines.map(|lines| lines.0).unwrap_or_default() {
            if line.amount > 0 {
                add(
                    &mut transaction,
                    self.studio,
                    line.item,
                    line.amount,
                    ("given_back", title),
                )
                .await?;
            }
        }
        transaction.commit().await?;
        Ok(())
    }
}

/// Takes for a shipment what it wants by now, in place of what was taken for it: what is wanted no more is given back, and of what is
/// wanted anew as much is taken as there is.
pub(crate) async fn take_instead(
    connection: &mut PgConnection,
    studio: StudioId,
    (shipment, title): (Uuid, &str),
    wanted: &[Draw],
) -> Result<(), sqlx::Error> {
    let had: Option<Json<Vec<TakenLine>>> = sqlx::query_scalar(
        "SELECT lines FROM taken WHERE studio_id = $1 AND shipment_id = $2 FOR UPDATE",
    )
    .bind(studio.0)
    .bind(shipment)
    .fetch_optional(&mut *connection)
    .await?;
    let had = had.map(|lines| lines.0).unwrap_or_default();
    let mut lines: Vec<TakenLine> = Vec::new();
    for (key, one) in in_one_order(wanted) {
        let Some((item, _)) = counted(connection, studio, &key, one).await? else {
            continue;
        };
        match lines.iter_mut().find(|line| line.item == item) {
            Some(line) => line.wanted += one.amount,
            None => lines.push(TakenLine {
                item,
                name: one.name.clone(),
                amount: 0,
                wanted: one.amount,
            }),
        }
    }
    for old in &had {
        let now = lines.iter().find(|line| line.item == old.item);
        let over = old.amount - now.map_or(0, |line| line.wanted).min(old.amount);
        if over > 0 {
            add(connection, studio, old.item, over, ("given_back", title)).await?;
        }
    }
    for line in &mut lines {
        let old = had.iter().find(|old| old.item == line.item);
        let had = old.map_or(0, |old| old.amount).min(line.wanted);
        let left = lock(connection, studio, line.item).await?;
        let more = (line.wanted - had).min(left.map_or(0, |left| left.left_count));
        if more > 0 {
            draw(connection, studio, line.item, more, ("taken", title)).await?;
        }
        line.amount = had + more.max(0);
    }
    let ask = if lines.is_empty() {
        "DELETE FROM taken WHERE studio_id = $1 AND shipment_id = $2 AND $3::jsonb IS NOT NULL"
    } else {
        "INSERT INTO taken (studio_id, shipment_id, lines) VALUES ($1, $2, $3)
         ON CONFLICT (studio_id, shipment_id) DO UPDATE SET lines = excluded.lines"
    };
    sqlx::query(ask)
        .bind(studio.0)
        .bind(shipment)
        .bind(Json(&lines))
        .execute(connection)
        .await?;
    Ok(())
}

/// What is drawn with the key of its count, in one order, so that two benches never wait for each other.
fn in_one_order(wanted: &[Draw]) -> Vec<(String, &Draw)> {
    let mut wanted: Vec<(String, &Draw)> = wanted
        .iter()
        .filter_map(|one| {
            let key = one.item.map(|item| item.to_string());
            Some((key.or_else(|| one.goods.key())?, one))
        })
        .collect();
    wanted.sort_by(|one, other| one.0.cmp(&other.0));
    wanted
}

/// What is written in the record: why, and for what.
pub(crate) type Note<'a> = (&'a str, &'a str);

async fn put(
    connection: &mut PgConnection,
    studio: StudioId,
    item: &StockItem,
    why: Note<'_>,
) -> Result<Uuid, sqlx::Error> {
    let id = item.id.parse().unwrap_or_else(|_| Uuid::now_v7());
    let was: Option<i64> = sqlx::query_scalar(
        "SELECT left_count FROM stock WHERE studio_id = $1 AND key = $2 FOR UPDATE",
    )
    .bind(studio.0)
    .bind(item.goods.key())
    .fetch_optional(&mut *connection)
    .await?;
    let id: Uuid = sqlx::query_scalar(
        "INSERT INTO stock (studio_id, id, key, goods, name, place, left_count)
         VALUES ($1, $2, $3, $4, $5, $6, $7)
         ON CONFLICT (studio_id, key) DO UPDATE SET left_count = excluded.left_count,
             name = coalesce(nullif(excluded.name, ''), stock.name),
             place = coalesce(nullif(excluded.place, ''), stock.place)
         RETURNING id",
    )
    .bind(studio.0)
    .bind(id)
    .bind(item.goods.key())
    .bind(Json(&item.goods))
    .bind(&item.name)
    .bind(&item.place)
    .bind(item.left)
    .fetch_one(&mut *connection)
    .await?;
    note(
        connection,
        studio,
        (id, item.left - was.unwrap_or_default(), item.left),
        why,
    )
    .await?;
    Ok(id)
}

/// Puts offcuts on the shelf, each with the next number for its name.
pub(crate) async fn keep(
    connection: &mut PgConnection,
    studio: StudioId,
    offcuts: &[StockItem],
    about: &str,
) -> Result<Vec<Uuid>, sqlx::Error> {
    let mut ids = Vec::with_capacity(offcuts.len());
    for offcut in offcuts {
        let number: i32 = sqlx::query_scalar(
            "INSERT INTO offcut_number (studio_id, next) VALUES ($1, 2)
             ON CONFLICT (studio_id) DO UPDATE SET next = offcut_number.next + 1
             RETURNING next - 1",
        )
        .bind(studio.0)
        .fetch_one(&mut *connection)
        .await?;
        let named = StockItem {
            id: Uuid::now_v7().to_string(),
            name: format!("Offcut {number}"),
            ..offcut.clone()
        };
        ids.push(put(connection, studio, &named, ("kept", about)).await?);
    }
    Ok(ids)
}

/// Finds the count of something, made from what the stores say where there is none yet; `None` if it is not counted.
pub(crate) async fn counted(
    connection: &mut PgConnection,
    studio: StudioId,
    key: &str,
    of: &Draw,
) -> Result<Option<(Uuid, i64)>, sqlx::Error> {
    if let Some(item) = of.item {
        let found = lock(connection, studio, item).await?;
        return Ok(found.map(|found| (item, found.left_count)));
    }
    if let Some(said) = of.said {
        sqlx::query(
            "INSERT INTO stock (studio_id, id, key, goods, left_count) VALUES ($1, $2, $3, $4, $5)
             ON CONFLICT (studio_id, key) DO NOTHING",
        )
        .bind(studio.0)
        .bind(Uuid::now_v7())
        .bind(key)
        .bind(Json(&of.goods))
        .bind(said)
        .execute(&mut *connection)
        .await?;
    }
    sqlx::query_as("SELECT id, left_count FROM stock WHERE studio_id = $1 AND key = $2 FOR UPDATE")
        .bind(studio.0)
        .bind(key)
        .fetch_optional(connection)
        .await
}

/// Draws so much of an item; nothing, and nothing is changed, where there is less.
pub(crate) async fn draw(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
    amount: i64,
    why: Note<'_>,
) -> Result<Option<i64>, sqlx::Error> {
    let left: Option<i64> = sqlx::query_scalar(
        "UPDATE stock SET left_count = left_count - $3
         WHERE studio_id = $1 AND id = $2 AND left_count >= $3 RETURNING left_count",
    )
    .bind(studio.0)
    .bind(id)
    .bind(amount)
    .fetch_optional(&mut *connection)
    .await?;
    if let Some(left) = left {
        note(connection, studio, (id, -amount, left), why).await?;
    }
    Ok(left)
}

/// Gives so much of an item back; one that was taken off the shelf for good stays off.
pub(crate) async fn add(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
    amount: i64,
    why: Note<'_>,
) -> Result<(), sqlx::Error> {
    let left: Option<i64> = sqlx::query_scalar(
        "UPDATE stock SET left_count = left_count + $3 WHERE studio_id = $1 AND id = $2 RETURNING left_count",
    )
    .bind(studio.0)
    .bind(id)
    .bind(amount)
    .fetch_optional(&mut *connection)
    .await?;
    if let Some(left) = left {
        note(connection, studio, (id, amount, left), why).await?;
    }
    Ok(())
}

pub(crate) struct Locked {
    pub name: String,
    pub left_count: i64,
}

/// Holds an item still until the transaction ends.
pub(crate) async fn lock(
    connection: &mut PgConnection,
    studio: StudioId,
    id: Uuid,
) -> Result<Option<Locked>, sqlx::Error> {
    let row: Option<(String, i64)> = sqlx::query_as(
        "SELECT name, left_count FROM stock WHERE studio_id = $1 AND id = $2 FOR UPDATE",
    )
    .bind(studio.0)
    .bind(id)
    .fetch_optional(connection)
    .await?;
    Ok(row.map(|(name, left_count)| Locked { name, left_count }))
}

async fn note(
    connection: &mut PgConnection,
    studio: StudioId,
    (id, change, left): (Uuid, i64, i64),
    (why, about): Note<'_>,
) -> Result<(), sqlx::Error> {
    sqlx::query(
        "INSERT INTO stock_event (studio_id, stock_id, change, left_count, why, about) VALUES ($1, $2, $3, $4, $5, $6)",
    )
    .bind(studio.0)
    .bind(id)
    .bind(change)
    .bind(left)
    .bind(why)
    .bind(about)
    .execute(connection)
    .await?;
    Ok(())
}
