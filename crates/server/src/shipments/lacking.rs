//! Which shipments of the bench wait for materials.

use std::{
    collections::HashMap,
    hash::{DefaultHasher, Hash as _, Hasher as _},
    sync::Arc,
};

use hummock_core::{
    shipment::{House, ShipmentInputs},
    stock::StockItem,
    ways,
};
use hummock_store::{HouseAt, HouseVersion, Listed, StudioId};
use jiff::civil::Date;
use quick_cache::sync::Cache;
use uuid::Uuid;

use super::{BenchRow, views::Lack};
use crate::{desk::Desk, problem::Problem, rework::beside};

/// What is lacking is kept for at most so many shipments of all studios; what goes beyond it is worked out again.
const MOST_KEPT: usize = 2000;

/// All that an answer depends on.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
struct Asked {
    studio: StudioId,
    shipment: Uuid,
    version: i32,
    house: HouseVersion,
    /// The print of all that is on the shelf.
    shelf: u64,
    today: Date,
}

/// What the shelf lacks for shipments, as it was last reckoned: a bench is looked at far more often than plans or the shelf change.
#[derive(Debug, Clone)]
pub(crate) struct Lacks(Arc<Cache<Asked, Arc<[Lack]>>>);

impl Default for Lacks {
    fn default() -> Self {
        Self(Arc::new(Cache::new(MOST_KEPT)))
    }
}

impl Desk {
    /// Returns the rows of shipments, each that is about to be packed with what the shelf lacks for it.
    pub(super) async fn with_lacks(&self, listed: Vec<Listed>) -> Result<Vec<BenchRow>, Problem> {
        let rows: Vec<(i32, BenchRow)> = listed
            .into_iter()
            .map(|one| (one.version, self.row(one)))
            .collect();
        let about: Vec<Uuid> = rows
            .iter()
            .filter(|(_, row)| row.line.is_about_to_be_packed(row.summary.as_ref()))
            .map(|(_, row)| row.id)
            .collect();
        if about.is_empty() {
            return Ok(rows.into_iter().map(|(_, row)| row).collect());
        }
        let taken = self.store.taken_among(&about).await?;
        let house = self.house_lately().await?;
        let stock = self.store.stock().await?;
        let shelf = print_of(&stock);
        let today = self.clock.today();
        let asked: Vec<(Asked, ShipmentInputs)> = rows
            .iter()
            .filter(|(_, row)| about.contains(&row.id) && !taken.contains(&row.id))
            .map(|(version, row)| {
                let asked = Asked {
                    studio: self.studio(),
                    shipment: row.id,
                    version: *version,
                    house: house.version,
                    shelf,
                    today,
                };
                (asked, row.inputs.clone())
            })
            .collect();
        let kept = self.app.jobs.lacks.clone();
        let mut lacks = beside(move || kept.of(asked, &house, &stock)).await;
        Ok(rows
            .into_iter()
            .map(|(_, mut row)| {
                let lacks = lacks.remove(&row.id).unwrap_or_default();
                if !lacks.is_empty() {
                    row.line = row.line.waiting_for_materials();
                    row.lacks = lacks.to_vec();
                }
                row
            })
            .collect())
    }
}

impl Lacks {
    /// Returns what the shelf lacks for each.
    fn of(
        &self,
        asked: Vec<(Asked, ShipmentInputs)>,
        house: &HouseAt,
        stock: &[StockItem],
    ) -> HashMap<Uuid, Arc<[Lack]>> {
        asked
            .into_iter()
            .map(|(asked, inputs)| {
                let shipment = asked.shipment;
                let lacks = self.0.get(&asked).unwrap_or_else(|| {
                    let lacks = reckoned(&inputs, &house.house, stock, asked.today);
                    self.0.insert(asked, Arc::clone(&lacks));
                    lacks
                });
                (shipment, lacks)
            })
            .collect()
    }
}

/// A plan that can't be made by the house as it is lacks nothing: its Stop is told instead.
fn reckoned(
    inputs: &ShipmentInputs,
    house: &House,
    stock: &[StockItem],
    today: Date,
) -> Arc<[Lack]> {
    let lines = ways::lacking(inputs, house, stock, today).unwrap_or_default();
    lines.into_iter().map(Lack::from).collect()
}

/// Tells one state of the shelf from another.
fn print_of(stock: &[StockItem]) -> u64 {
    let mut print = DefaultHasher::new();
    for item in stock {
        item.id.hash(&mut print);
        item.left.hash(&mut print);
        // Its size can be written anew.
        format!("{:?}", item.goods).hash(&mut print);
    }
    print.finish()
}
