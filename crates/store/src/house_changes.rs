//! How often this process changed a house.

use std::sync::{
    Arc,
    atomic::{AtomicU64, Ordering},
};

/// Counts the changes of houses that were kept, of all studios together.
#[derive(Debug, Clone, Default)]
pub(crate) struct HouseChanges(Arc<AtomicU64>);

impl HouseChanges {
    pub(crate) fn count(&self) -> u64 {
        self.0.load(Ordering::Acquire)
    }

    /// Counts one, once its transaction was kept and before anybody is told so.
    pub(crate) fn one_more(&self) {
        self.0.fetch_add(1, Ordering::Release);
    }
}
