//! The shelf and the settings of each studio, read once for each of their states: a request asks the database for their mark only.

use std::{
    collections::{HashMap, HashSet},
    sync::{Arc, PoisonError, RwLock},
    time::{Duration, Instant},
};

use hummock_core::{stock::StockItem, ways::PlanNeeds};
use hummock_store::{HouseVersion, Settings, ShelfMark, StoreError, StudioId, StudioStore};
use quick_cache::sync::Cache;
use uuid::Uuid;

/// How long a change may go unseen by what is told and not kept.
const TRUSTED_FOR: Duration = Duration::from_secs(1);
/// The cache holds what is short for this many plans of all studios. Finding it out lays out sheets, which takes as long as the plan
/// itself.
const MOST_SHORT: usize = 1000;

/// The shelf and the settings of a studio in one state.
#[derive(Debug)]
pub(crate) struct ShelfAt {
    pub stock: Vec<StockItem>,
    pub settings: Settings,
    pub mark: ShelfMark,
}

/// All that the names of what is short depend on.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
struct ShortOf {
    studio: StudioId,
    house: HouseVersion,
    shelf: ShelfMark,
    needs: PlanNeeds,
}

/// Keeps what was read of each studio last, and what its shelf was short of.
#[derive(Debug, Clone)]
pub(crate) struct Shelves {
    read: Arc<RwLock<HashMap<StudioId, Kept>>>,
    short: Arc<Cache<ShortOf, Arc<[String]>>>,
}

#[derive(Debug, Clone)]
struct Kept {
    shelf: Arc<ShelfAt>,
    /// When the database was last asked whether it is still so.
    asked: Instant,
}

impl Default for Shelves {
    fn default() -> Self {
        Self {
            read: Arc::default(),
            short: Arc::new(Cache::new(MOST_SHORT)),
        }
    }
}

impl Shelves {
    /// Returns the shelf and the settings of a studio as they are now, and which of some shipments have taken their materials.
    pub(crate) async fn now(
        &self,
        store: &StudioStore,
        shipments: &[Uuid],
    ) -> Result<(Arc<ShelfAt>, HashSet<Uuid>), StoreError> {
        let asked = Instant::now();
        let (mark, taken) = store.shelf_mark(shipments).await?;
        let kept = self.kept(store.studio()).map(|kept| kept.shelf);
        let shelf = match kept.filter(|shelf| shelf.mark == mark) {
            Some(shelf) => shelf,
            None => {
                // A change between the mark and these is seen at the next mark.
                let (stock, settings) = tokio::try_join!(store.stock(), store.settings())?;
                Arc::new(ShelfAt {
                    stock,
                    settings,
                    mark,
                })
            }
        };
        let kept = Kept {
            shelf: Arc::clone(&shelf),
            asked,
        };
        let mut all = self.read.write().unwrap_or_else(PoisonError::into_inner);
        all.insert(store.studio(), kept);
        Ok((shelf, taken))
    }

    /// Returns the shelf and the settings of a studio, at most a second old.
    pub(crate) async fn lately(&self, store: &StudioStore) -> Result<Arc<ShelfAt>, StoreError> {
        let kept = self.kept(store.studio());
        match kept.filter(|kept| kept.asked.elapsed() < TRUSTED_FOR) {
            Some(kept) => Ok(kept.shelf),
            None => Ok(self.now(store, &[]).await?.0),
        }
    }

    fn kept(&self, studio: StudioId) -> Option<Kept> {
        let kept = self.read.read().unwrap_or_else(PoisonError::into_inner);
        kept.get(&studio).cloned()
    }

    /// Returns the names of what a shelf is short of for the needs of a plan; `reckoned` works them out where nobody has asked yet.
    pub(crate) fn short_of(
        &self,
        shelf: &ShelfAt,
        (studio, house): (StudioId, HouseVersion),
        needs: PlanNeeds,
        reckoned: impl FnOnce(&[StockItem]) -> Vec<String>,
    ) -> Arc<[String]> {
        let asked = ShortOf {
            studio,
            house,
            shelf: shelf.mark,
            needs,
        };
        self.short.get(&asked).unwrap_or_else(|| {
            let names: Arc<[String]> = reckoned(&shelf.stock).into();
            self.short.insert(asked, Arc::clone(&names));
            names
        })
    }
}
