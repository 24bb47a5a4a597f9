//! The house, read once for each version: whoever needs it asks the database for the number only.

use std::sync::{Arc, PoisonError, RwLock};

use hummock_core::plan::References;
use hummock_store::{HouseAt, Store, StoreError, StudioId};

/// Keeps the newest house that was read.
#[derive(Debug, Default)]
pub struct Houses {
    kept: RwLock<Option<Arc<HouseAt>>>,
    /// The Standard packs that plans are compared with; they follow from the pieces alone.
    references: Arc<References>,
}

impl Houses {
    /// Returns the house as it is now, whichever process changed it last.
    pub(crate) async fn now(
        &self,
        store: &Store,
        studio: StudioId,
    ) -> Result<Arc<HouseAt>, StoreError> {
        let version = store.house_version(studio).await?;
        let kept = self
            .kept
            .read()
            .unwrap_or_else(PoisonError::into_inner)
            .clone();
        if let Some(kept) = kept.filter(|kept| kept.version == version) {
            return Ok(kept);
        }
        let read = Arc::new(store.house(studio, Arc::clone(&self.references)).await?);
        let mut kept = self.kept.write().unwrap_or_else(PoisonError::into_inner);
        if kept.as_ref().is_none_or(|kept| kept.version < read.version) {
            *kept = Some(Arc::clone(&read));
        }
        Ok(read)
    }
}
