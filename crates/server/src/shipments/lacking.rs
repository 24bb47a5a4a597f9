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
use hummock_store::{HouseAt, HouseVersion, Listed, Place, StudioId};
use jiff::civil::Date;
use quick_cache::sync::Cache;
use uuid::Uuid;

use super::{BenchRow, in_the_way::Subject, views::Lack};
use crate::{desk::Desk, problem::Problem};

/// What is lacking is kept for at most so many shipments of all studios; what goes beyond it is worked out again.
const MOST_KEPT: usize = 2000;

/// All that an answer depends on.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub(super) struct Asked {
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
    /// Returns the rows of shipments, each at work with what is in the way of it; one that is about to be packed waits for what the shelf
    /// lacks.
    pub(super) async fn rows(
        &self,
        listed: Vec<Listed>,
        place: Place,
    ) -> Result<Vec<BenchRow>, Problem> {
        if place != Place::Bench {
            let rows = listed.into_iter().map(|one| self.row(one, Vec::new()));
            return Ok(rows.collect());
        }
        let subjects: Vec<Subject<'_>> = listed
            .iter()
            .map(|one| Subject {
                id: one.id,
                version: one.version,
                inputs: &one.inputs,
                summary: one.summary.as_ref(),
            })
            .collect();
        let around = self.surroundings(&subjects).await?;
        let against: Vec<_> = subjects.iter().map(|one| around.against(one)).collect();
        let rows = listed.into_iter().zip(against);
        Ok(rows
            .map(|(one, against)| {
                let mut row = self.row(one, against);
                let about = row.line.is_about_to_be_packed(row.summary.as_ref());
                if let Some(lacks) = around.lacks.get(&row.id).filter(|_| about)
                    && !lacks.is_empty()
                {
                    row.line = row.line.waiting_for_materials();
                    row.lacks = lacks.to_vec();
                }
                row
            })
            .collect())
    }
}

impl Lacks {
    /// Returns the questions about shipments, each with all that its answer depends on.
    pub(super) fn asked<'a>(
        &self,
        (studio, house): (StudioId, HouseVersion),
        (stock, today): (&[StockItem], Date),
        shipments: impl Iterator<Item = (Uuid, i32, &'a ShipmentInputs)>,
    ) -> Vec<(Asked, ShipmentInputs)> {
        let shelf = print_of(stock);
        let asked = shipments.map(|(shipment, version, inputs)| {
            let asked = Asked {
                studio,
                shipment,
                version,
                house,
                shelf,
                today,
            };
            (asked, inputs.clone())
        });
        asked.collect()
    }

    /// Returns what the shelf lacks for each.
    pub(super) fn of(
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
