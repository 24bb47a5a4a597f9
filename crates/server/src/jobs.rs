//! Work that goes on beside the answers, and what is kept for it.

use std::sync::Arc;

use tokio::sync::{Notify, Semaphore};

use crate::{
    backup::state::Backups, clock::Clock, houses::Houses, left::Records, per_studio::PerStudio,
    shelves::Shelves, shipments::Lacks,
};

/// What a process works at for all its studios.
#[derive(Debug, Clone)]
pub(crate) struct Jobs {
    /// The houses, as they were last read.
    pub houses: Arc<Houses>,
    /// Rung when a house has changed.
    pub bell: Arc<Notify>,
    /// A search for ways takes every core, so that one runs at a time.
    pub exploring: Exploring,
    /// What the shelf lacks for shipments.
    pub lacks: Lacks,
    /// Shelves and settings, as they were last read.
    pub shelves: Shelves,
    /// Handover records, as they were last read.
    pub records: Records,
    /// Backups of each studio as a whole.
    pub backups: PerStudio<Backups>,
}

impl Jobs {
    pub(crate) fn by(clock: Clock) -> Self {
        Self {
            houses: Arc::new(Houses::by(clock)),
            bell: Arc::default(),
            exploring: Exploring::default(),
            lacks: Lacks::default(),
            shelves: Shelves::default(),
            records: Records::default(),
            backups: PerStudio::default(),
        }
    }
}

/// A turn at looking for ways.
#[derive(Debug, Clone)]
pub(crate) struct Exploring(Arc<Semaphore>);

impl Exploring {
    /// Returns the turns to wait for.
    pub(crate) fn turns(&self) -> Arc<Semaphore> {
        Arc::clone(&self.0)
    }
}

impl Default for Exploring {
    fn default() -> Self {
        Self(Arc::new(Semaphore::new(1)))
    }
}
