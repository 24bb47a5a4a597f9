//! The house of each studio, read once for each version: a request asks the database for the version number only.

use std::{
    collections::HashMap,
    sync::{Arc, PoisonError, RwLock},
    time::{Duration, Instant},
};

use hummock_core::plan::References;
use hummock_store::{HouseAt, StoreError, StudioId, StudioStore};

use crate::clock::Clock;

/// How long a change that another process made may go unseen by what is told and not kept.
const TRUSTED_FOR: Duration = Duration::from_secs(1);

/// Keeps the newest house of each studio that was read, with the minute that it is there.
#[derive(Debug)]
pub(crate) struct Houses {
    clock: Clock,
    kept: RwLock<HashMap<StudioId, Kept>>,
    /// The Standard packs that plans are compared with; they follow from the pieces alone.
    references: Arc<References>,
}

#[derive(Debug)]
struct Kept {
    house: Arc<HouseAt>,
    /// When the database was last asked whether it is the newest.
    asked: Instant,
    /// How many changes this process had made by then.
    changes: u64,
}

impl Houses {
    pub(crate) fn by(clock: Clock) -> Self {
        Self {
            clock,
            kept: RwLock::default(),
            references: Arc::default(),
        }
    }

    /// Returns a house by the minute that it is there.
    fn at_this_minute(&self, house: Arc<HouseAt>) -> Arc<HouseAt> {
        let now = self.clock.of(house.zone.clone()).now();
        if house.house.now == Some(now) {
            return house;
        }
        let mut house = Arc::unwrap_or_clone(house);
        house.house.now = Some(now);
        Arc::new(house)
    }

    /// Returns the house of a studio as it is now, whichever process changed it last.
    pub(crate) async fn now(&self, store: &StudioStore) -> Result<Arc<HouseAt>, StoreError> {
        let (asked, changes) = (Instant::now(), store.house_changes());
        let version = store.house_version().await?;
        let kept = self.kept(store.studio(), |kept| Arc::clone(&kept.house));
        let house = match kept.filter(|kept| kept.version == version) {
            Some(house) => house,
            None => Arc::new(store.house(Arc::clone(&self.references)).await?),
        };
        let house = self.at_this_minute(house);
        let mut kept = self.kept.write().unwrap_or_else(PoisonError::into_inner);
        let is_newest = kept
            .get(&store.studio())
            .is_none_or(|newest| newest.house.version <= house.version);
        if is_newest {
            let house = Arc::clone(&house);
            let now = Kept {
                house,
                asked,
                changes,
            };
            kept.insert(store.studio(), now);
        }
        drop(kept);
        Ok(house)
    }

    /// Returns the same without asking the database, if it was asked within the last second and this process has changed no
    /// house since: for what is told and not kept.
    pub(crate) async fn lately(&self, store: &StudioStore) -> Result<Arc<HouseAt>, StoreError> {
        let changes = store.house_changes();
        let is_trusted =
            |kept: &Kept| kept.changes == changes && kept.asked.elapsed() < TRUSTED_FOR;
        let kept = self.kept(store.studio(), |kept| {
            is_trusted(kept).then(|| Arc::clone(&kept.house))
        });
        match kept.flatten() {
            Some(house) => {
                let told = self.at_this_minute(Arc::clone(&house));
                if !Arc::ptr_eq(&told, &house) {
                    self.keep_minute(store.studio(), &told);
                }
                Ok(told)
            }
            None => self.now(store).await,
        }
    }

    /// Keeps a house with its minute, where no newer one was read meanwhile.
    fn keep_minute(&self, studio: StudioId, told: &Arc<HouseAt>) {
        let mut all = self.kept.write().unwrap_or_else(PoisonError::into_inner);
        if let Some(kept) = all.get_mut(&studio)
            && kept.house.version == told.version
        {
            kept.house = Arc::clone(told);
        }
    }

    fn kept<T>(&self, studio: StudioId, look: impl FnOnce(&Kept) -> T) -> Option<T> {
        let kept = self.kept.read().unwrap_or_else(PoisonError::into_inner);
        kept.get(&studio).map(look)
    }
}
