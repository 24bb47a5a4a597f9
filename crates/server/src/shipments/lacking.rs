//! Which shipments of the bench wait for materials.

use std::{
    collections::{HashMap, HashSet},
    sync::Arc,
};

use hummock_core::{
    shipment::{House, ShipmentInputs},
    stock::StockItem,
    ways,
};
use hummock_store::{HouseVersion, Listed, ShelfMark, StudioId};
use jiff::civil::Date;
use quick_cache::sync::Cache;
use uuid::Uuid;

use super::{
    BenchRow,
    in_the_way::Subject,
    views::{Figures, Lack},
};
use crate::{desk::Desk, problem::Problem, shelves::ShelfAt};

/// What is lacking is kept for at most so many shipments of all studios; what goes beyond it is worked out again.
const MOST_KEPT: usize = 2000;

/// All that an answer depends on.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub(super) struct Asked {
    studio: StudioId,
    shipment: Uuid,
    version: i32,
    house: HouseVersion,
    shelf: ShelfMark,
    today: Date,
}

/// What the shelf lacks, by shipment.
pub(super) type LacksOf = HashMap<Uuid, Arc<[Lack]>>;

/// What the shelf lacks for shipments, as it was last reckoned: a bench is looked at far more often than plans or the shelf change.
#[derive(Debug, Clone)]
pub(crate) struct Lacks(Arc<Cache<Asked, Arc<[Lack]>>>);

impl Default for Lacks {
    fn default() -> Self {
        Self(Arc::new(Cache::new(MOST_KEPT)))
    }
}

impl Desk {
    /// Returns the rows of shipments at work, each with what is in the way of it; one that is about to be packed waits for what the shelf
    /// lacks.
    pub(super) async fn bench_rows(
        &self,
        listed: Vec<Listed>,
        shelf: Arc<ShelfAt>,
    ) -> Result<Vec<BenchRow>, Problem> {
        let subjects: Vec<Subject<'_>> = listed
            .iter()
            .map(|one| Subject {
                id: one.id,
                version: one.version,
                inputs: &one.inputs,
                summary: one.summary.as_ref(),
            })
            .collect();
        let taken = listed.iter().filter(|one| one.has_taken);
        let taken: HashSet<Uuid> = taken.map(|one| one.id).collect();
        let around = self.around(&subjects, shelf, &taken).await?;
        let against: Vec<_> = subjects.iter().map(|one| around.against(one)).collect();
        let rows = listed.into_iter().zip(against);
        Ok(rows
            .map(|(one, against)| {
                let mut row = self.row(one, against);
                let about = row
                    .line
                    .is_about_to_be_packed(row.summary.as_ref().and_then(Figures::now));
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
    /// Returns what is known already of some shipments, and the questions about the others with all that each answer depends on.
    pub(super) fn known<'a>(
        &self,
        (studio, house): (StudioId, HouseVersion),
        (shelf, today): (ShelfMark, Date),
        shipments: impl Iterator<Item = (Uuid, i32, &'a ShipmentInputs)>,
    ) -> (LacksOf, Vec<(Asked, ShipmentInputs)>) {
        let (mut known, mut others) = (LacksOf::new(), Vec::new());
        for (shipment, version, inputs) in shipments {
            let asked = Asked {
                studio,
                shipment,
                version,
                house,
                shelf,
                today,
            };
            match self.0.get(&asked) {
                Some(lacks) => {
                    known.insert(shipment, lacks);
                }
                None => others.push((asked, inputs.clone())),
            }
        }
        (known, others)
    }

    /// Works out what the shelf lacks for each, and keeps it.
    pub(super) fn reckoned(
        &self,
        asked: Vec<(Asked, ShipmentInputs)>,
        house: &House,
        stock: &[StockItem],
    ) -> Vec<(Uuid, Arc<[Lack]>)> {
        let lacks = asked.into_iter().map(|(asked, inputs)| {
            let shipment = asked.shipment;
            let lacks = reckoned(&inputs, house, stock, asked.today);
            self.0.insert(asked, Arc::clone(&lacks));
            (shipment, lacks)
        });
        lacks.collect()
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
