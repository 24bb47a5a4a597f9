//! The house of each studio, read once for each version: a request asks the database for the version number only.

use std::{
    collections::HashMap,
    sync::{Arc, PoisonError, RwLock},
};

use hummock_core::plan::References;
use hummock_store::{HouseAt, StoreError, StudioId, StudioStore};

/// Keeps the newest house of each studio that was read.
#[derive(Debug, Default)]
pub(crate) struct Houses {
    kept: RwLock<HashMap<StudioId, Arc<HouseAt>>>,
    /// The Standard packs that plans are compared with; they follow from the pieces alone.
    references: Arc<References>,
}

impl Houses {
    /// Returns the house of a studio as it is now, whichever process changed it last.
    pub(crate) async fn now(&self, store: &StudioStore) -> Result<Arc<HouseAt>, StoreError> {
        let version = store.house_version().await?;
        let studio = store.studio();
        let kept = self
            .kept
            .read()
            .unwrap_or_else(PoisonError::into_inner)
            .get(&studio)
            .cloned();
        if let Some(kept) = kept.filter(|kept| kept.version == version) {
            return Ok(kept);
        }
        let read = Arc::new(store.house(Arc::clone(&self.references)).await?);
        let mut kept = self.kept.write().unwrap_or_else(PoisonError::into_inner);
        let newest = kept.entry(studio).or_insert_with(|| Arc::clone(&read));
        if newest.version < read.version {
            *newest = Arc::clone(&read);
        }
        Ok(read)
    }
}
