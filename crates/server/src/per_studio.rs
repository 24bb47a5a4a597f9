//! What a process keeps for each studio.

use std::{
    collections::HashMap,
    sync::{Arc, Mutex, PoisonError},
};

use hummock_store::StudioId;

/// One of these for each studio, made when it is first asked for.
#[derive(Debug, Clone)]
pub(crate) struct PerStudio<T>(Arc<Mutex<HashMap<StudioId, T>>>);

impl<T> Default for PerStudio<T> {
    fn default() -> Self {
        Self(Arc::default())
    }
}

impl<T: Clone + Default> PerStudio<T> {
    /// Returns a studio's own.
    pub(crate) fn of(&self, studio: StudioId) -> T {
        let mut kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        kept.entry(studio).or_default().clone()
    }
}
