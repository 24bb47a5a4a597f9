//! The shelf and the settings of each studio as they were a moment ago: for what is told with every key that is struck, and not kept.

use std::{
    collections::HashMap,
    sync::{Arc, PoisonError, RwLock},
    time::{Duration, Instant},
};

use hummock_core::stock::StockItem;
use hummock_store::{Settings, StoreError, StudioId, StudioStore};

/// How long a change may go unseen.
const TRUSTED_FOR: Duration = Duration::from_secs(1);

/// The shelf and the settings of a studio at one moment.
#[derive(Debug)]
pub(crate) struct ShelfAt {
    pub stock: Vec<StockItem>,
    pub settings: Settings,
    read: Instant,
}

/// Keeps what was read of each studio last.
#[derive(Debug, Clone, Default)]
pub(crate) struct Shelves(Arc<RwLock<HashMap<StudioId, Arc<ShelfAt>>>>);

impl Shelves {
    /// Returns the shelf and the settings of a studio, at most a second old.
    pub(crate) async fn lately(&self, store: &StudioStore) -> Result<Arc<ShelfAt>, StoreError> {
        if let Some(kept) = self
            .kept(store.studio())
            .filter(|kept| kept.read.elapsed() < TRUSTED_FOR)
        {
            return Ok(kept);
        }
        let read = Instant::now();
        let now = Arc::new(ShelfAt {
            stock: store.stock().await?,
            settings: store.settings().await?,
            read,
        });
        let mut all = self.0.write().unwrap_or_else(PoisonError::into_inner);
        all.insert(store.studio(), Arc::clone(&now));
        Ok(now)
    }

    fn kept(&self, studio: StudioId) -> Option<Arc<ShelfAt>> {
        let kept = self.0.read().unwrap_or_else(PoisonError::into_inner);
        kept.get(&studio).map(Arc::clone)
    }
}
