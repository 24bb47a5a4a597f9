//! Working out shipments whose plans are behind the house: those that are shown at once, the others in the background.
//!
//! Several processes may share the work. Each claims a few shipments for a while; one that is killed loses its claims
//! by its silence, and a result is written only where shipment and house are still what it was worked out for.

use std::time::Duration;

use hummock_core::shipment::{ShipmentInputs, Workings};
use hummock_store::{Behind, HouseAt, Listed, Page, Recomputed, StoreError, Stored, Wanted};
use uuid::Uuid;

use crate::{
    app::App,
    desk::{Desk, computed},
    network::Caller,
    problem::Problem,
};

/// How many are claimed at once: a person who changes the house again waits for no more than these.
const BATCH: u32 = 20;
/// Work that another process left is looked for this often.
const LOOK_AGAIN: Duration = Duration::from_secs(10);
/// A database that is away is asked again after this.
const PATIENCE: Duration = Duration::from_secs(1);

/// Works through what is behind whenever there is something, until it is dropped.
pub(crate) async fn keep_up(app: App) {
    loop {
        let pause = match work_through_all(&app).await {
            Ok(0) => LOOK_AGAIN,
            Ok(done) => {
                tracing::info!(shipments = done, "plans follow the house");
                LOOK_AGAIN
            }
            Err(error) => {
                tracing::warn!(%error, "plans can't follow the house just now");
                PATIENCE
            }
        };
        // Whichever comes first; that time ran out is no error.
        let pause = pause.min(app.longest_claim);
        let _ = tokio::time::timeout(pause, app.jobs.bell.notified()).await;
    }
}

/// Works out everything that is behind in any studio; returns how many were written.
async fn work_through_all(app: &App) -> Result<u64, StoreError> {
    let mut done = 0;
    for studio in app.store.studios().await? {
        let worked = async {
            let desk = Desk::of(app, studio, Caller::Machine).await?;
            work_through(&desk).await
        };
        match worked.await {
            Ok(some) => done += some,
            Err(error @ StoreError::Away(_)) => return Err(error),
            // One that can't be read is no reason to leave out the others.
            Err(error) => tracing::error!(%studio, %error, "its plans can't follow its house"),
        }
    }
    Ok(done)
}

/// Works out everything that is behind in a studio; returns how many were written.
async fn work_through(desk: &Desk) -> Result<u64, StoreError> {
    let mut done = 0;
    loop {
        let claimed = desk
            .store
            .claim_behind(BATCH, desk.app.longest_claim)
            .await?;
        if claimed.is_empty() {
            return Ok(done);
        }
        let house = desk.app.jobs.houses.now(&desk.store).await?;
        let version = house.version;
        let recomputed = beside(move || {
            claimed
                .into_iter()
                .map(
                    |Behind {
                         id,
                         version,
                         inputs,
                     }| anew(id, version, &inputs, &house),
                )
                .collect::<Vec<_>>()
        })
        .await;
        done += desk.store.keep_recomputed(version, &recomputed).await?;
    }
}

fn anew(id: Uuid, version: i32, inputs: &ShipmentInputs, house: &HouseAt) -> Recomputed {
    let worked = Workings::out_or_refused(inputs, &house.house);
    Recomputed {
        id,
        version,
        computed: computed(&worked, inputs, house),
    }
}

/// Does heavy work away from the threads that answer requests.
pub(crate) async fn beside<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> T {
    match tokio::task::spawn_blocking(work).await {
        Ok(done) => done,
        Err(failed) => std::panic::resume_unwind(failed.into_panic()),
    }
}

impl Desk {
    /// Returns a shipment with its plan worked out by the house as it is; one that left with the plan that it left with.
    pub(crate) async fn stored(&self, id: Uuid) -> Result<Stored, Problem> {
        let mut tries = self.tries();
        loop {
            // Both are asked for at once: what follows a newer house than this one is behind none.
            let (house, stored) = tokio::join!(tries.next(), self.store.shipment(id));
            let house = house?;
            let stored = stored?.ok_or_else(|| Problem::not_found("shipment of that id"))?;
            if stored.handed.is_some() {
                return Ok(self.as_it_left(stored).await?.0);
            }
            if !stored.is_behind(house.version, house.house.now) {
                return Ok(stored);
            }
            let anew = anew(id, stored.version, &stored.inputs, &house);
            self.store.keep_recomputed(house.version, &[anew]).await?;
        }
    }

    /// Returns a page of shipments, each with its figures by the house as it is.
    pub(crate) async fn page(&self, wanted: &Wanted) -> Result<Page, Problem> {
        let mut tries = self.tries();
        loop {
            let (house, page) = tokio::join!(tries.next(), self.store.shipments(wanted));
            let (house, page) = (house?, page?);
            let version = house.version;
            let behind: Vec<Listed> = page
                .rows
                .iter()
                .filter(|row| row.is_behind(wanted.place, version, house.house.now))
                .cloned()
                .collect();
            if behind.is_empty() {
                return Ok(page);
            }
            let recomputed = beside(move || {
                behind
                    .iter()
                    .map(|row| anew(row.id, row.version, &row.inputs, &house))
                    .collect::<Vec<_>>()
            })
            .await;
            self.store.keep_recomputed(version, &recomputed).await?;
        }
    }
}
